"""Planned sessions put on days: laid over weeks, published, taken away, brought back."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, field
from datetime import date

from dialback.core.plans.sheet import Sheet, as_plan
from dialback.core.sessions import Session as CoreSession
from dialback.core.tally import Ledger
from dialback.store.athletes import movement_ids
from dialback.store.models import Athlete, Session
from dialback.store.sessions import add_sessions, plans_on, replace_days
from dialback.store.unit import touch


@dataclass(frozen=True, slots=True)
class Moved:
    """Numbers of planned sessions that came, and of those that were put aside.

    ``linked`` are completed sessions that were linked to what came.
    """

    added: list[int]
    removed: list[int]
    linked: list[int] = field(default_factory=list)

    def plus(self, other: Moved) -> Moved:
        """Both together."""
        return Moved(
            self.added + other.added, self.removed + other.removed, self.linked + other.linked
        )


def put_on_days(
    athlete: Athlete, days: Collection[date], sessions: Iterable[CoreSession], today: date
) -> Moved:
    """Store sessions as all that is planned on days. To be called within a transaction."""
    moved = Moved(*replace_days(athlete, days, sessions, movement_ids(athlete), today))
    touch(athlete)
    return moved


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
    } | {row.id: row for row in planned_rows(athlete, list(gone))}
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


def swap_back(athlete: Athlete, moved: Moved, today: date) -> Moved:
    """What came goes, what went comes back; what undoes that again.

    To be called within a transaction.
    """
    for numbers, on in ((moved.added, today), (moved.removed, None)):
        for row in planned_rows(athlete, numbers):
            _put(row, on)
    # A log goes by the plan of its day that stands now.
    back = {row.date: row.id for row in planned_rows(athlete, moved.removed)}
    for done in Session.select().where(Session.id.in_(moved.linked)):
        done.plan = back.get(done.date)
        done.revision += 1
        done.save()
    touch(athlete)
    return Moved(moved.removed, moved.added, moved.linked)


def _put(row: Session, deleted_on: date | None) -> None:
    row.deleted_on = deleted_on
    row.revision += 1
    row.save()


def planned_rows(athlete: Athlete, numbers: Sequence[int]) -> list[Session]:
    """The planned sessions of those numbers, put aside or not."""
    return list(
        Session.select().where(
            Session.id.in_(numbers), Session.athlete == athlete, Session.basis == "planned"
        )
    )
