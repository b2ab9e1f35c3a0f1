// A table of figures: a cell is text, `strong` text, or one of the drawings.
#let ledger(columns, aligns, heads, rows) = table(
  columns: columns,
  align: (x, _) => aligns.at(x) + horizon,
  stroke: (_, y) => if y == 0 { (bottom: 0.5pt) } else { (bottom: 0.2pt + luma(190)) },
  inset: (x: 3pt, y: 2.2pt),
  table.header(..heads.map(head => text(style: "normal", fill: luma(70), head))),
  ..rows.flatten().map(cell => {
    if type(cell) != dictionary [#cell] else if "strong" in cell { strong(cell.strong) } else { drawing(cell) }
  }),
)
