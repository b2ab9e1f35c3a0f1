"""Findings of balance: a pair outside its band."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, floor
from typing import Final

from dialback.core.balance import Weighing, weigh
from dialback.core.baseline import TOLERANCE
from dialback.core.findings.finding import Finding, Level, WeekInHand, exceeds
from dialback.core.vocabulary import PAIRS, Pair
from dialback.core.words import amount_text, less_of, more_of, number

FAR: Final = 1.5
"""Beyond its band by this factor a ratio is high."""


def balance_findings(week: WeekInHand) -> Iterator[Finding]:
    """Pairs with at least ``balance_min_sets`` sets in all whose ratio is outside the band."""
    for pair in PAIRS:
        in_sets = weigh(week.tally, pair, "sets")
        if in_sets.a + in_sets.b + TOLERANCE < week.rules.balance_min_sets:
            continue
        measure: str = week.rules.balance_measure
        if measure not in pair.measures:
            measure = "sets"
        low, high = week.rules.balance_bands[pair.name]
        weighing = weigh(week.tally, pair, measure)
        level = _level(weighing, low, high)
        if level is None:
            continue
        over = weighing.ratio is None or weighing.ratio > high
        limit = high if over else low
        yield Finding(
            "balance",
            pair.name,
            measure,
            level,
            weighing.ratio,
            limit,
            _sentence(pair, measure, weighing, limit, over=over),
            _clears(pair, measure, weighing, low, high, over=over),
            (f"balance/{pair.name}/a/{measure}", f"balance/{pair.name}/b/{measure}"),
        )


def _level(weighing: Weighing, low: float, high: float) -> Level | None:
    if weighing.a == 0 and weighing.b == 0:
        return None
    if weighing.ratio is None:
        return "high"
    if not exceeds(weighing.ratio, high) and not exceeds(low, weighing.ratio):
        return None
    far = exceeds(weighing.ratio, high * FAR) or exceeds(low / FAR, weighing.ratio)
    return "high" if far or weighing.a == 0 else "caution"


def _sentence(pair: Pair, measure: str, weighing: Weighing, limit: float, *, over: bool) -> str:
    a, b = (amount_text(side, measure) for side in (weighing.a, weighing.b))
    text = f"{pair.labels[0].capitalize()} {a} against {pair.labels[1]} {b}"
    if weighing.ratio is None or weighing.a == 0:
        return f"{text}: all on one side. Is that meant?"
    edge = "ends" if over else "begins"
    return f"{text} is {number(weighing.ratio)}\u00a0:\u00a01; the band {edge} at {number(limit)}."


def _clears(
    pair: Pair, measure: str, weighing: Weighing, low: float, high: float, *, over: bool
) -> str:
    """The smallest addition on the light side, or cut on the heavy one, that is within."""
    if over:
        light, heavy = pair.labels[1], pair.labels[0]
        add = weighing.a / high - weighing.b if high else None
        cut = weighing.a - high * weighing.b
    else:
        light, heavy = pair.labels
        add = low * weighing.b - weighing.a
        cut = weighing.b - weighing.a / low
    whole_cut = ceil(cut - TOLERANCE)
    offers = []
    if add is not None:
        offers.append(more_of(ceil(add - TOLERANCE), measure, light))
    if floor(max(weighing.a, weighing.b)) > whole_cut:
        offers.append(less_of(whole_cut, measure, heavy))
    return " or ".join(offers) + " would bring it within."
