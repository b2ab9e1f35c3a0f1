#house(d.house)
= #d.title
#quiet(d.span) #h(1fr) #d.signed

#block(above: 1.3em, grid(columns: (1.55fr, 1fr), column-gutter: 6mm,
  [
    == Week by week
    #ledger((1fr, 20mm, ..d.weeks.map(_ => auto)), (left, left, ..d.weeks.map(_ => right)), ("week", "", ..d.weeks), d.rows)
  ],
  [
    == Movements, first week to last
    #ledger((1fr, auto, auto), (left, right, right), ("", "first", "last"), d.moved)
  ],
))

== What happened, and what follows
#for week in d.verdicts [
  #block(above: 0.9em, below: 0.45em)[*#week.head* #quiet(week.signed)]
  #if week.causes.len() == 0 [#quiet[Nothing above a note.]]
  #verdict(week.causes)
]

#if d.changes.len() > 0 [
== What changes next
#list(..d.changes.map(one => [#one]))
]
#pages
