"""Findings of dose: a muscle below its minimum or above its ceiling."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from dialback.core.figures import of_muscle
from dialback.core.findings.finding import Finding, WeekInHand, exceeds
from dialback.core.vocabulary import MUSCLES, label
from dialback.core.words import amount_text, number

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
                week.in_focus(muscle, "high" if sets == 0 else "caution"),
                sets,
                floor,
                f"{name}: nothing this week; the minimum is {amount_text(floor, 'sets')}."
                if sets == 0
                else f"{name}: {amount_text(sets, 'sets')}, below the minimum of {number(floor)}.",
                "",
                (figure,),
            )
        elif exceeds(sets, ceiling):
            yield Finding(
                "muscle_ceiling",
                muscle,
                "sets",
                "high" if exceeds(sets, FAR * ceiling) else "caution",
                sets,
                ceiling,
                f"{name}: {amount_text(sets, 'sets')}, above the ceiling of {number(ceiling)}.",
                "",
                (figure,),
            )
