"""Findings of dose: a muscle below its floor or above its ceiling."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil
from typing import Final

from dialback.core.baseline import TOLERANCE
from dialback.core.figures import of_muscle
from dialback.core.findings.finding import Finding, WeekInHand, exceeds
from dialback.core.findings.remedies import avoided, beyond_the_week
from dialback.core.vocabulary import MUSCLES, label
from dialback.core.words import amount_text, less_of, more_of, number

FAR: Final = 1.25
"""Above its ceiling by this factor a muscle's sets are high."""


def band_findings(week: WeekInHand) -> Iterator[Finding]:
    """Muscles outside their band of weekly sets, in a week that has sets.

    A week that is meant to be light has no floors.
    """
    if not week.has_sets:
        return
    for muscle in MUSCLES:
        floor, ceiling = week.rules.muscle_bands[muscle]  # type: ignore[index]
        figure = of_muscle(muscle, "sets")
        sets = week.tally.get(figure, 0.0)
        name = label(muscle).capitalize()
        if exceeds(floor, sets):
            if week.lighter:
                continue
            yield Finding(
                "muscle_floor",
                muscle,
                "sets",
                "high" if sets == 0 else "caution",
                sets,
                floor,
                f"{name}: nothing this week; the floor is {amount_text(floor, 'sets')}."
                if sets == 0
                else f"{name}: {amount_text(sets, 'sets')}, below the floor of {number(floor)}.",
                _up_to_the_floor(week, muscle, ceil(floor - sets - TOLERANCE)),
                (figure,),
            )
        elif exceeds(sets, ceiling):
            fewer = ceil(sets - ceiling - TOLERANCE)
            yield Finding(
                "muscle_ceiling",
                muscle,
                "sets",
                "high" if exceeds(sets, FAR * ceiling) else "caution",
                sets,
                ceiling,
                f"{name}: {amount_text(sets, 'sets')}, above the ceiling of {number(ceiling)}.",
                f"{less_of(fewer, 'sets', label(muscle))} would come down to the ceiling.",
                (figure,),
            )


def _up_to_the_floor(week: WeekInHand, muscle: str, more: int) -> str:
    held = avoided(week, muscles=frozenset({muscle}))
    if held:
        words = held.words(week.unit)
        return f"It stays so while the restriction stands: {words}, on the word of {held.by}."
    said = f"{more_of(more, 'sets', label(muscle))} would reach the floor"
    if beyond_the_week(week, more):
        return f"{said}, over more than one week: all at once the week would jump."
    return f"{said}."
