= #d.title
#quiet(d.span) #h(1fr) #d.signed
#if d.since.len() > 0 [#block(stroke: (left: 2pt), inset: (left: 6pt, y: 2pt))[Since then: #d.since.join("; "). The figures below are those that were signed.]]

== Planned and done
#ledger((1fr, auto, auto, auto, auto, auto), (left, right, right, right, right, right),
  ("", "planned", "done", "share", "baseline", "change"), d.measures)
#quiet(d.loads)

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

#block(above: 1.3em, grid(columns: (1fr, 1fr), column-gutter: 7mm,
  [
    == Balance
    #set text(size: 0.92em)
    #ledger((1fr, auto, auto, auto), (left, right, right, right), ("pair", "sets", "ratio", "band"), d.pairs)
  ],
  [
    == Muscles, weekly sets
    #set text(size: 0.92em)
    #ledger((auto, 1fr, auto, auto, 1fr, auto), (left, right, right, left, right, right),
      ("", "done", "band", "", "done", "band"), d.muscles)
  ],
))
#quiet(text(size: 0.85em)[Bold: outside its band.])

== Done
#for session in d.sessions [
  #block(below: 0.5em)[*#session.head* #session.text]
]
#if d.sessions.len() == 0 [No session was done.]

#if d.changes.len() > 0 [
== What changes next week
#list(..d.changes.map(one => [#one]))
]
#if d.rules.len() > 0 [#block(above: 1em, quiet[Counted under house rules: #d.rules.join("; ").])]
#pages
