"""Maxima that were typed in for an athlete, between table and core."""

from __future__ import annotations

from collections.abc import Iterable

from dialback.core.sessions import Maximum as CoreMaximum
from dialback.store.models import Athlete, Maximum


def numbered_maxima(athlete: Athlete) -> dict[int, CoreMaximum]:
    """The athlete's maxima by number, by movement, the latest first."""
    rows = (
        Maximum.select()
        .where(Maximum.athlete == athlete)
        .order_by(Maximum.movement, Maximum.date.desc(), Maximum.id.desc())
    )
    return {
        row.id: CoreMaximum.model_validate(
            {"movement": row.movement, "kg": row.kg, "date": row.date, **row.extra}
        )
        for row in rows
    }


def maxima_of(athlete: Athlete) -> tuple[CoreMaximum, ...]:
    """The athlete's maxima as values."""
    return tuple(numbered_maxima(athlete).values())


def add_maxima(athlete: Athlete, maxima: Iterable[CoreMaximum]) -> None:
    """Keep maxima."""
    for maximum in maxima:
        Maximum.create(
            athlete=athlete,
            movement=maximum.movement,
            kg=maximum.kg,
            date=maximum.date,
            extra=maximum.model_extra or {},
        )
