#house(d.house)
= #d.title
#quiet(d.span) #h(1fr) #d.signed
#if d.since.len() > 0 [#block(stroke: (left: 2pt), inset: (left: 6pt, y: 2pt))[Since then: #d.since.join("; "). The figures below are those that were signed.]]

== Planned and done
#ledger((auto, 1fr, auto, auto, auto, auto, auto, auto), (left, left, right, right, right, right, right, right),
  ("", "", "planned", "done", "share", "baseline", "change", d.past), d.measures)
#grid(columns: (1fr, 62mm), column-gutter: 6mm, align: (left + horizon, bottom),
  [#quiet(d.loads) #linebreak() #quiet(text(size: 0.85em)[Bars: outline planned, solid done, upright the baseline. Days: every set that is written, warm-ups too.])],
  days(d.days))

#if d.news.len() > 0 [
== What is new
#for line in d.news [
  #block(below: 0.55em, levelled(line.level, [#quiet[#line.kind] #h(0.4em) #line.sentence]))
]
]

== What happened, and what follows
#if d.causes.len() == 0 [Nothing to look at: no finding above a note.]
#verdict(d.causes)
#if d.alone.len() > 0 [#quiet[Notes beside it:] #d.alone.join(" ")]

#block(above: 1.3em, grid(columns: (1fr, 1.2fr), column-gutter: 6mm,
  [
    == Balance
    #set text(size: 0.9em)
    #ledger((1fr, auto, auto, auto, auto), (left, left, right, right, right), ("", "", "sets", "ratio", "band"), d.pairs)
  ],
  [
    == Muscles, weekly sets
    #set text(size: 0.9em)
    #ledger((auto, 1fr, auto, auto, auto, 1fr, auto, auto), (left, left, right, right, left, left, right, right),
      ("", "", "done", "band", "", "", "done", "band"), d.muscles)
  ],
))
#quiet(text(size: 0.85em)[Bold: outside its band, which is shaded.])

== Done
#for session in d.sessions [
  #block(below: 0.5em)[*#session.head* #session.text #if session.said != "" [_#session.said._]]
]
#if d.sessions.len() == 0 [No session was done.]

#if d.changes.len() > 0 [
== What changes next week
#list(..d.changes.map(one => [#one]))
]
#if d.rules.len() > 0 [#block(above: 1em, quiet[Counted under house rules: #d.rules.join("; ").])]
#pages
