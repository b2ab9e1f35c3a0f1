"""Planned sessions put on days: laid over weeks, taken away, brought back."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from dialback.core.plans.sheet import Sheet, as_plan
from dialback.core.tally import Ledger
from dialback.store.athletes import movement_ids
from dialback.store.models import Athlete, Session
from dialback.store.sessions import add_sessions, plans_on
from dialback.store.unit import touch


@dataclass(frozen=True, slots=True)
class Moved:
    """Numbers of planned sessions that came, and of those that were put aside."""

    added: list[int]
    removed: list[int]


def put_down(
    athlete: Athlete,
    ledger: Ledger,
    sheets: Sequence[Sheet],
    today: date,
    gone: Iterable[int] = (),
) -> Moved:
    """Store sheets as planned sessions; what stood on their days, and ``gone``, is put aside.

    To be called within a transaction.
    """
    removed = {
        row.id: row for day in {sheet.day for sheet in sheets} for row in plans_on(athlete, day)
    } | {row.id: row for row in _planned(athlete, list(gone))}
    for row in removed.values():
        _put(row, today)
    ids = movement_ids(athlete)
    added = [
        number
        for sheet in sheets
        for number in add_sessions(athlete, "planned", [as_plan(sheet, ledger)], ids).values()
    ]
    touch(athlete)
    return Moved(added, list(removed))


def undo(athlete: Athlete, moved: Moved, today: date) -> Moved:
    """What came goes, what went comes back. To be called within a transaction."""
    for numbers, on in ((moved.added, today), (moved.removed, None)):
        for row in _planned(athlete, numbers):
            _put(row, on)
    touch(athlete)
    return Moved(moved.removed, moved.added)


def _put(row: Session, deleted_on: date | None) -> None:
    row.deleted_on = deleted_on
    row.revision += 1
    row.save()


def _planned(athlete: Athlete, numbers: Sequence[int]) -> list[Session]:
    return list(
        Session.select().where(
            Session.id.in_(numbers), Session.athlete == athlete, Session.basis == "planned"
        )
    )
