#house(d.house)
= #d.title
#quiet(d.span) #h(1fr) #d.signed
#block(above: 0.4em, quiet(d.beside))

#block(above: 1.2em, grid(columns: (1.2fr, 1fr), column-gutter: 8mm,
  [
    == An average week
    #ledger((1fr, auto, auto, auto), (left, right, right, right), d.heads, d.measures)
    == Movements, the final week of each
    #if d.changes.len() == 0 [#quiet[The same movements, sets and loads.]]
    #list(..d.changes.map(one => [#one]))
  ],
  [
    == Muscles whose weekly sets changed
    #if d.muscles.len() == 0 [#quiet[None by half a set or more.]] else {
      ledger((1fr, auto, auto, auto), (left, right, right, right), d.heads, d.muscles)
    }
    == Findings
    #for (name, lines) in (("New", d.came), ("Gone", d.went), ("Still there", d.stayed)) {
      if lines.len() > 0 { block(below: 0.5em, [*#name* #list(..lines.map(one => [#one]))]) }
    }
    #if d.came.len() + d.went.len() + d.stayed.len() == 0 [#quiet[None above a note in either.]]
  ],
))

== Decided
#for one in d.decided [
  #block(below: 0.5em)[#quiet(one.head) #linebreak() #one.what. #emph(one.reason)]
]
#if d.decided.len() == 0 [#quiet[Nothing was accepted, decided or signed.]]
#pages
