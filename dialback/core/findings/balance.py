"""Findings of balance: a pair outside its band."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, floor
from typing import Final

from dialback.core.balance import Weighing, weigh_all
from dialback.core.baseline import TOLERANCE
from dialback.core.figures import of_movement, of_side
from dialback.core.findings.finding import Finding, Level, WeekInHand, exceeds
from dialback.core.findings.remedies import avoided, beyond_the_week
from dialback.core.restrictions import Restriction
from dialback.core.sides import movement_sides
from dialback.core.vocabulary import LEFT_RIGHT, PAIRS, Pair
from dialback.core.words import amount_text, capital, less_of, more_of, number

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
    measure: str = week.rules.balance_measure
    if measure not in pair.measures:
        measure = "sets"
    low, high = band
    weighing = weighings[measure]
    level = _level(weighing, low, high)
    if level is None:
        return
    over = leans_to_a(weighing.ratio, high)
    limit = high if over else low
    yield Finding(
        "balance",
        pair.name,
        measure,
        level,
        weighing.ratio,
        limit,
        _sentence(week, pair, measure, weighing, limit, over=over),
        _clears(week, pair, measure, weighing, band, over=over),
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
        return f"{text}: all on one side. Is that meant?"
    edge = "ends" if over else "begins"
    return f"{text} is {number(weighing.ratio)}\u00a0:\u00a01; the band {edge} at {number(limit)}."


def _clears(
    week: WeekInHand,
    pair: Pair,
    measure: str,
    weighing: Weighing,
    band: tuple[float, float],
    *,
    over: bool,
) -> str:
    """The smallest addition on the light side, or cut on the heavy one, that is within.

    What a restriction forbids, or what would make the week jump, is not offered.
    """
    low, high = band
    if over:
        light, heavy, members = pair.labels[1], pair.labels[0], pair.b
        add = weighing.a / high - weighing.b if high else None
        cut = weighing.a - high * weighing.b
    else:
        light, heavy, members = pair.labels[0], pair.labels[1], pair.a
        add = low * weighing.b - weighing.a
        cut = weighing.b - weighing.a / low
    held = _held(week, pair, members)
    whole_cut = ceil(cut - TOLERANCE)
    offers = []
    if add is not None and held is None:
        more = ceil(add - TOLERANCE)
        if measure != "sets" or not beyond_the_week(week, more):
            offers.append(more_of(more, measure, light, week.unit))
    if floor(max(weighing.a, weighing.b)) > whole_cut:
        offers.append(less_of(whole_cut, measure, heavy, week.unit))
    if held is not None:
        stands = f"{held.words(week.unit)} stands, on the word of {held.by}"
        return (
            f"{' or '.join(offers)} would bring it within: {stands}."
            if offers
            else (f"{capital(stands)}: it stays so until a person lifts it.")
        )
    if not offers:
        return "Some of one side for the other, over more than one week: all at once is a jump."
    return " or ".join(offers) + " would bring it within."


def _held(week: WeekInHand, pair: Pair, members: frozenset[str]) -> Restriction | None:
    if pair.of == "pattern":
        return avoided(week, patterns=members)
    return avoided(week, muscles=members) if pair.of == "muscle" else None
