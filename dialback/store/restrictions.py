"""Restrictions of an athlete: kept for good, also when somebody has lifted them."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date

from dialback.core.restrictions import Restriction as CoreRestriction
from dialback.store.models import Athlete, Restriction

_COLUMNS = (
    "about",
    "subject",
    "most_sets",
    "most_load_kg",
    "least_s",
    "most_s",
    "word",
    "by",
    "since",
    "lifted_on",
    "lifted_by",
)


def numbered_restrictions(athlete: Athlete) -> dict[int, CoreRestriction]:
    """The athlete's restrictions by number, lifted ones included, the latest first."""
    rows = (
        Restriction.select()
        .where(Restriction.athlete == athlete)
        .order_by(Restriction.since.desc(), Restriction.id.desc())
    )
    return {row.id: _restriction(row) for row in rows}


def _restriction(row: Restriction) -> CoreRestriction:
    values = {name: getattr(row, name) for name in _COLUMNS}
    return CoreRestriction.model_validate({**values, **row.extra})


def restrictions_of(athlete: Athlete) -> tuple[CoreRestriction, ...]:
    """The athlete's restrictions, lifted ones included: they held for weeks that are over."""
    return tuple(numbered_restrictions(athlete).values())


def add_restrictions(athlete: Athlete, restrictions: Iterable[CoreRestriction]) -> None:
    """Keep restrictions, in an order that they come out in again."""
    for restriction in reversed(list(restrictions)):
        values = {name: getattr(restriction, name) for name in _COLUMNS}
        Restriction.create(athlete=athlete, extra=restriction.model_extra or {}, **values)


def lift(row: Restriction, on: date | None, by: str | None) -> None:
    """Note who lifted a restriction, and when; with neither it holds again."""
    row.lifted_on, row.lifted_by = on, by
    row.save()
