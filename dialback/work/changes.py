"""Changes of plans taken back, and made again: one way for all of them, for thirty days."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, timedelta

from dialback.core.weeks import said
from dialback.store.athletes import athlete_on_roster
from dialback.store.changes import (
    KEPT_DAYS,
    change_row,
    changed_since,
    logged_since,
    mark,
    moved_by,
)
from dialback.store.models import Athlete, PlanChange
from dialback.store.plans import swap_back
from dialback.store.unit import unit
from dialback.work.errors import ConflictError, NotThereError


def take_back(number: int, change: int, today: date) -> None:
    """Take a change back: what came goes, what went comes back."""
    with unit():
        athlete = athlete_on_roster(number)
        _swap(athlete, _change(athlete, change, undone=False, today=today), today, undone_on=today)


def take_all_back(changes: Iterable[tuple[int, int]], today: date) -> None:
    """Take changes of several athletes back, all of them or none: each with its athlete first."""
    with unit():
        for number, change in changes:
            take_back(number, change, today)


def make_again(number: int, change: int, today: date) -> None:
    """Make a change again that was taken back."""
    with unit():
        athlete = athlete_on_roster(number)
        _swap(athlete, _change(athlete, change, undone=True, today=today), today, undone_on=None)


def _swap(athlete: Athlete, row: PlanChange, today: date, *, undone_on: date | None) -> None:
    other = changed_since(athlete, row)
    if other is not None:
        raise ConflictError(
            "changed-since",
            f"The session of {said(other.date)} was changed after this. Undo the later change "
            "first, or change the session by hand.",
        )
    log = logged_since(row)
    if log is not None:
        raise ConflictError(
            "logged-since",
            f"{said(log.date)} has a log by now that goes by this plan, so it stays. Change the "
            "other days by hand.",
        )
    mark(athlete, row, swap_back(athlete, moved_by(row), today), undone_on)


def _change(athlete: Athlete, number: int, *, undone: bool, today: date) -> PlanChange:
    row = change_row(athlete, number)
    old = today - timedelta(days=KEPT_DAYS)
    if row is None or row.day < old or (row.undone_on is not None) != undone:
        raise NotThereError(
            f"{athlete.name} has no such change to {'make again' if undone else 'take back'}: it "
            f"was done already, or is more than {KEPT_DAYS} days old."
        )
    return row
