"""Findings of spacing: a muscle loaded on two days in a row."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import timedelta

from dialback.core.baseline import TOLERANCE
from dialback.core.figures import of_muscle
from dialback.core.findings.finding import Finding, WeekInHand
from dialback.core.vocabulary import MUSCLES, label
from dialback.core.words import amount_text


def spacing_findings(week: WeekInHand) -> Iterator[Finding]:
    """Muscles with ``spacing_sets`` sets on each of two days in a row; once a week, the first."""
    by_day = week.by_day
    enough = week.rules.spacing_sets - TOLERANCE
    for muscle in MUSCLES:
        figure = of_muscle(muscle, "sets")
        heavy = [day for day in sorted(by_day) if by_day[day].get(figure, 0.0) >= enough]
        for day in heavy:
            following = day + timedelta(days=1)
            if following not in heavy:
                continue
            first, second = by_day[day][figure], by_day[following][figure]
            yield Finding(
                "spacing",
                muscle,
                "sets",
                "caution",
                min(first, second),
                week.rules.spacing_sets,
                f"{label(muscle).capitalize()}: {amount_text(first, 'sets')} on {day:%A} and "
                f"{amount_text(second, 'sets')} on {following:%A}, one night apart.",
                f"A day between them, or fewer than "
                f"{amount_text(week.rules.spacing_sets, 'sets')} on one of the days.",
                (figure,),
                days=(day, following),
            )
            break
