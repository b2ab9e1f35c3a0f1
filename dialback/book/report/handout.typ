#set par(leading: 0.62em)
// A box for each set: what was done is written into it by hand, reps and load.
#let empty = pdf.artifact(box(baseline: 30%, rect(width: 3.4em, height: 1.45em, stroke: 0.5pt + luma(90))))
#let line-of(line) = block(
  above: if line.part { 0.7em } else { 0.3em }, below: if line.part { 0.5em } else { 0.3em }, width: 100%, breakable: false,
  inset: (left: if line.inside { 1.2em } else { 0em }),
  if line.part { quiet(text(weight: 600, line.text)) } else {
    let words = [#line.text#if line.unread [ #quiet[(as written: ask your coach)]]]
    if line.boxes == 0 { words } else if line.boxes <= 6 {
      grid(columns: (1fr, auto), column-gutter: 0.6em, align: horizon, words,
        for _ in range(line.boxes) { empty; h(0.25em) })
    } else { words; linebreak(); for _ in range(line.boxes) { empty; h(0.25em) } }
  },
)
// One athlete's page, in type of its own size.
#let sheet(d) = {
  let size = d.size * 1pt
  set text(size: size)
  show: headed.with(size)
  heading(level: 1, d.title)
  quiet(d.span)
  if d.well.len() > 0 {
    heading(level: 2)[What went well #d.past]
    list(..d.well.map(one => [#one]))
  }
  if d.watch.len() > 0 {
    heading(level: 2)[What to watch]
    list(..d.watch.map(one => [#one]))
  }
  heading(level: 2)[What to do]
  if d.sessions.len() == 0 [Your coach will give you the plan.]
  for session in d.sessions {
    block(above: 0.9em, below: 0.4em)[*#session.head* #h(1fr) #if session.boxes [#quiet[effort, 0 to 10] #empty #quiet[minutes] #empty]]
    for line in session.lines { line-of(line) }
  }
  if d.at("cues", default: ()).len() > 0 {
    heading(level: 2)[How to do it]
    list(..d.cues.map(one => [*#one.movement*: #one.says]))
  }
  if d.words.len() > 0 { block(above: 1.4em, quiet(d.words.join(linebreak()))) }
  block(above: 1em, quiet[Something hurts, or something is unclear? Tell your coach before the session.])
}
#for (at, one) in d.pages.enumerate() {
  if at > 0 { pagebreak() }
  sheet((size: size / 1pt, ..one))
}
#if d.without.len() > 0 {
  pagebreak(weak: true)
  heading(level: 2)[Nothing planned]
  [No plan to print for #d.without.join(", ", last: " and ").]
}
#pages
