"""Findings of balance: a pair outside its band."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from dialback.core.balance import Weighing, deciding_measure, weigh_all
from dialback.core.baseline import TOLERANCE
from dialback.core.figures import of_movement, of_side
from dialback.core.findings.finding import Finding, WeekInHand, exceeds
from dialback.core.sides import movement_sides
from dialback.core.vocabulary import LEFT_RIGHT, PAIRS, Level, Pair
from dialback.core.words import amount_text, number

FAR: Final = 1.5
"""Beyond its band by this factor a ratio is high."""


def balance_findings(week: WeekInHand) -> Iterator[Finding]:
    """Pairs with at least ``balance_min_sets`` sets in all whose ratio is outside the band."""
    for pair in (*PAIRS, LEFT_RIGHT):
        band = week.rules.balance_bands.get(pair.name)
        if band is not None:
            yield from _judged(week, pair, band)


def _judged(week: WeekInHand, pair: Pair, band: tuple[float, float]) -> Iterator[Finding]:
    weighings = weigh_all(week.tally, week.entries, pair)
    if not _enough(weighings["sets"], week) and pair.name not in week.always_weighed:
        return
    measure = deciding_measure(pair, week.rules)
    low, high = band
    weighing = weighings[measure]
    level = _level(weighing, low, high)
    if level is None:
        return
    level = week.in_focus(pair.name, level)
    over = leans_to_a(weighing.ratio, high)
    limit = high if over else low
    yield Finding(
        "balance",
        pair.name,
        measure,
        level,
        weighing.ratio,
        limit,
        "" if week.bare else _sentence(week, pair, measure, weighing, limit, over=over),
        "The same on both sides, set by set." if pair.of == "side" else "",
        _figures(week, pair, measure),
    )


def _enough(in_sets: Weighing, week: WeekInHand) -> bool:
    return in_sets.a + in_sets.b + TOLERANCE >= week.rules.balance_min_sets


def pairs_with_enough(week: WeekInHand) -> frozenset[str]:
    """The pairs that have enough sets in all to be judged."""
    return frozenset(
        pair.name
        for pair in (*PAIRS, LEFT_RIGHT)
        if _enough(weigh_all(week.tally, week.entries, pair)["sets"], week)
    )


def leans_to_a(ratio: float | None, high: float) -> bool:
    """Whether a pair outside its band leans to its first side; with nothing on b it does."""
    return ratio is None or ratio > high


def _figures(week: WeekInHand, pair: Pair, measure: str) -> tuple[str, ...]:
    if pair.of == "side":
        return tuple(of_movement(name, measure) for name in movement_sides(week.entries))
    return (of_side(pair.name, "a", measure), of_side(pair.name, "b", measure))


def _level(weighing: Weighing, low: float, high: float) -> Level | None:
    if weighing.a == 0 and weighing.b == 0:
        return None
    if weighing.ratio is None:
        return "high"
    if not exceeds(weighing.ratio, high) and not exceeds(low, weighing.ratio):
        return None
    far = exceeds(weighing.ratio, high * FAR) or exceeds(low / FAR, weighing.ratio)
    return "high" if far or weighing.a == 0 else "caution"


def _sentence(
    week: WeekInHand, pair: Pair, measure: str, weighing: Weighing, limit: float, *, over: bool
) -> str:
    a, b = (amount_text(side, measure, week.unit) for side in (weighing.a, weighing.b))
    text = f"{pair.labels[0].capitalize()} {a} against {pair.labels[1]} {b}"
    if weighing.ratio is None or weighing.a == 0:
        return f"{text}: all on one side. Is that intended?"
    edge = "ends" if over else "begins"
    return f"{text} is {number(weighing.ratio)}\u00a0:\u00a01; the band {edge} at {number(limit)}."
