// What every page of a report shares. `d` is the content, `size` the points of its text.
#let d = json(bytes(sys.inputs.data))
#let size = float(sys.inputs.size) * 1pt
#set document(title: d.title, author: "Dial Back", date: none)
#set text(lang: "en", font: "Source Serif 4", size: size, number-width: "tabular", hyphenate: false)
#set page("a4", margin: (x: 16mm, top: 14mm, bottom: 16mm), footer: context [
  #set text(size: 7.5pt, fill: luma(70))
  #grid(columns: (1fr, auto), column-gutter: 1em, d.foot,
    if counter(page).final().first() > 1 [#counter(page).display() of #counter(page).final().first()])
])
#set par(leading: 0.5em, spacing: 0.6em)
#set list(marker: [–], body-indent: 0.5em, spacing: 0.5em)
// Headings in proportion to the text below them.
#let headed(size, body) = {
  show heading.where(level: 1): it => block(below: 0.6em, text(size: size * 1.9, weight: 600, it.body))
  show heading.where(level: 2): it => block(above: 1.15em, below: 0.5em, width: 100%, stroke: (bottom: 0.5pt), inset: (bottom: 2pt), text(size: size * 1.1, weight: 600, it.body))
  body
}
#show: headed.with(size)
#let quiet(body) = text(fill: luma(70), body)
// Whose it is, above the title.
#let house(name) = if name != "" { quiet(text(size: 0.9em, name)) }
// Plates on a sleeve, as on the screen: one hollow for a note, two for a caution, three for high.
#let plates(level) = box(baseline: 15%, width: 1.5em, height: 0.8em, {
  place(dy: 0.4em, line(length: 1.4em, stroke: 0.5pt))
  if level == "note" { place(dx: 0.55em, dy: 0.12em, rect(width: 0.28em, height: 0.56em, fill: white, stroke: 0.5pt)) }
  if level == "caution" { for x in (0.4em, 0.75em) { place(dx: x, dy: 0.08em, rect(width: 0.22em, height: 0.64em, fill: black)) } }
  if level == "high" { for x in (0.2em, 0.55em, 0.9em) { place(dx: x, rect(width: 0.25em, height: 0.8em, fill: black)) } }
})
#let levelled(level, body) = grid(columns: (5.6em, 1fr), column-gutter: 0.4em,
  [#pdf.artifact(plates(level)) #text(size: 0.85em, level)], body)
#let verdict(causes) = for cause in causes {
  block(below: 0.55em, levelled(cause.level, [
    #cause.sentence
    #if cause.follow > 1 [#quiet[#cause.follow findings follow.]]
    #for reason in cause.accepted [#linebreak() #quiet[Accepted: ] #emph(reason)]
  ]))
}
#let pages = context [#metadata(counter(page).final().first()) <pages>]
