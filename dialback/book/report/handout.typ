#set par(leading: 0.62em)
= #d.title
#quiet(d.span)

#if d.well.len() > 0 [
== What went well #d.past
#list(..d.well.map(one => [#one]))
]
#if d.watch.len() > 0 [
== What to watch
#list(..d.watch.map(one => [#one]))
]
== What to do next week
#if d.sessions.len() == 0 [Your coach will give you the plan.]
#for session in d.sessions [
  #block(above: 0.9em, below: 0.4em)[*#session.head*]
  #for line in session.lines [#block(above: 0.35em, below: 0.35em, inset: (left: if line.inside { 1.2em } else { 0em }), if line.part { quiet(text(weight: 600, line.text)) } else [#line.text#if line.unread [ #quiet[(as written: ask your coach)]]])]
]
#if d.words.len() > 0 [#block(above: 1.4em, quiet(d.words.join(linebreak())))]
#block(above: 1em, quiet[Something hurts, or something is unclear? Tell your coach before the session.])
#pages
