// A session to print: a line each, a box for each set, and at the foot what to write down.
#let empty(width) = pdf.artifact(box(baseline: 30%, rect(width: width, height: 1.3em, stroke: 0.7pt)))
= #d.title
#text(size: 11pt, d.head)
#v(-0.3em)
#pdf.artifact(block(width: 100%, height: 2pt, stroke: (top: 0.6pt, bottom: 0.6pt)))
#for line in d.lines {
  block(
    width: 100%,
    above: if line.kind == "part" { 0.9em } else { 0.35em },
    below: 0.35em,
    inset: (left: if line.kind == "inside" { 1.2em } else { 0em }, bottom: 0.3em),
    stroke: if line.kind == "part" { none } else { (bottom: 0.25pt) },
    breakable: false,
    grid(
      columns: (1fr, auto),
      column-gutter: 0.6em,
      align: horizon,
      if line.kind == "part" { strong(line.text) } else { line.text },
      for _ in range(line.boxes) { empty(1.6em); h(0.3em) },
    ),
  )
}
#v(1fr)
#text(size: 11pt)[
  Exertion (0 to 10) #empty(40pt) #h(0.8em) Minutes #empty(40pt) #h(0.8em) Notes #empty(210pt)
]
#pages
