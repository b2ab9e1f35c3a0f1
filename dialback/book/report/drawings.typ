// The small drawings of the screen, on paper. What each shows stands beside it in figures, so that
// a reader who does not see them misses nothing: they are artifacts of the page.
#let drawn(width, height, body) = pdf.artifact(box(baseline: 15%, width: width, height: height, body))
#let shade = luma(218)

// Planned (outline), done (solid) and the baseline (upright), each as a share of the longest.
#let dose(one) = drawn(42mm, 0.72em, {
  let at(share) = share * 41mm
  if one.planned > 0 { place(rect(width: at(one.planned), height: 0.72em, stroke: 0.5pt)) }
  if one.done > 0 { place(dy: 0.2em, rect(width: at(one.done), height: 0.32em, fill: black)) }
  if one.base > 0 { place(dx: at(one.base), dy: -0.08em, line(angle: 90deg, length: 0.88em, stroke: 0.9pt)) }
})

// A beam over the tilts that are allowed; nine degrees for each doubling of a side, fifteen at most.
#let tilt(ratio) = if ratio == none { -15 } else if ratio <= 0 { 15 } else {
  -calc.max(-15, calc.min(15, calc.log(ratio, base: 2) * 9))
}
#let beam(one) = drawn(19mm, 1.25em, {
  let (x, y, arm) = (9.5mm, 0.55em, 8.5mm)
  let end(degrees, side) = (x + side * arm * calc.cos(degrees * 1deg), y + side * arm * calc.sin(degrees * 1deg))
  if one.low != none {
    for side in (1, -1) {
      place(polygon(fill: shade, stroke: none, (x, y), end(tilt(one.low), side), end(tilt(one.high), side)))
    }
  }
  place(polygon(stroke: 0.5pt, fill: white, (x, y), (x + 0.28em, 1.2em), (x - 0.28em, 1.2em)))
  if one.empty {
    place(line(start: end(0, -1), end: end(0, 1), stroke: (paint: luma(140), thickness: 0.5pt, dash: "dotted")))
  } else {
    place(line(start: end(tilt(one.ratio), -1), end: end(tilt(one.ratio), 1), stroke: 1.6pt))
  }
})

// A figure in its band.
#let mark(one) = drawn(100%, 0.7em, {
  place(dy: 0.35em, line(length: 100%, stroke: 0.3pt + luma(170)))
  place(dx: one.low * 100%, dy: 0.08em, rect(width: (one.high - one.low) * 100%, height: 0.54em, fill: shade))
  place(dx: one.value * 100%, dy: 0.35em, move(dx: -0.17em, dy: -0.17em, circle(radius: 0.17em, fill: black)))
})

// Weeks behind one another; a week without a figure leaves a gap.
#let weeks(shares, width: 18mm) = drawn(width, 0.9em, {
  let step = width / calc.max(1, shares.len() - 1)
  for (at, share) in shares.enumerate() {
    if at > 0 and share != none and shares.at(at - 1) != none {
      place(line(start: (step * (at - 1), (1 - shares.at(at - 1)) * 0.85em), end: (step * at, (1 - share) * 0.85em), stroke: 0.7pt))
    }
  }
  let last = shares.last()
  if last != none { place(dx: width - 0.14em, dy: (1 - last) * 0.85em - 0.14em, circle(radius: 0.14em, fill: black)) }
})

// The days of a week: what was planned as an outline, what was done solid within it.
#let days(all) = {
  let most = calc.max(1, ..all.map(one => calc.max(one.planned, one.done)))
  grid(columns: all.map(_ => 1fr), row-gutter: 0.3em, align: center + bottom,
    ..all.map(one => drawn(1.6em, 2.6em, {
      let tall(count) = count / most * 2.5em
      place(bottom, line(length: 1.6em, stroke: 0.3pt + luma(170)))
      if one.planned > 0 { place(bottom, rect(width: 1.6em, height: tall(one.planned), stroke: 0.5pt)) }
      if one.done > 0 { place(bottom, dx: 0.35em, rect(width: 0.9em, height: tall(one.done), fill: black)) }
    })),
    ..all.map(one => quiet(text(size: 0.8em, one.day))),
  )
}

#let drawing(cell) = {
  let (kind, ..) = cell.keys()
  if kind == "dose" { dose(cell.dose) }
  else if kind == "beam" { beam(cell.beam) }
  else if kind == "mark" { mark(cell.mark) }
  else { weeks(cell.weeks) }
}
