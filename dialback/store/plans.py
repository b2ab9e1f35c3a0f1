"""Planned sessions put on days: laid over weeks, taken away, brought back."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from dialback.book.errors import bad_input
from dialback.core.maxima import Maxima
from dialback.core.movements import MovementTable
from dialback.core.notation import (
    Change,
    WrittenSession,
    expand,
    gather,
    lighter,
    read,
    stepped,
    write,
)
from dialback.core.sessions import Session as CoreSession
from dialback.core.tally import Ledger
from dialback.core.weeks import YEARS, Week
from dialback.store.athletes import movement_ids
from dialback.store.kit import the_kit
from dialback.store.models import Athlete, Session
from dialback.store.sessions import TEXT_KEY, add_sessions, planned_rows, plans_on
from dialback.store.unit import touch


@dataclass(frozen=True, slots=True)
class Moved:
    """Ids of planned sessions that came, and of those that were put aside."""

    added: list[int]
    removed: list[int]


@dataclass(frozen=True, slots=True)
class Sheet:
    """A planned session as it is written, on its way to a day."""

    day: date
    title: str
    written: WrittenSession
    typed: str | None = None
    """The text as it was typed, of a session that is not changed."""


def written_of(ledger: Ledger, row: Session) -> WrittenSession:
    """A planned session as it was written, or gathered from its sets."""
    typed = row.extra.get(TEXT_KEY)
    if isinstance(typed, str):
        return _one(typed, ledger.movements)
    planned = ledger.source.week("planned", Week.of(row.date))
    at = [one.id for one in planned_rows(row.athlete, Week.of(row.date))].index(row.id)
    return WrittenSession(gather(planned[at], ledger.movements).parts)


def _one(text: str, movements: MovementTable) -> WrittenSession:
    """All of a text as one session."""
    sessions = read(text, movements).sessions
    return WrittenSession(tuple(part for one in sessions for part in one.parts))


def sheet_of(ledger: Ledger, row: Session) -> Sheet:
    """A planned session, to be laid on another day."""
    typed = row.extra.get(TEXT_KEY)
    return Sheet(
        row.date, row.title, written_of(ledger, row), typed if isinstance(typed, str) else None
    )


def sheet_from(text: str, day: date, title: str, movements: MovementTable) -> Sheet:
    """A text on a day."""
    return Sheet(day, title, _one(text, movements), text)


def laid(
    sheet: Sheet, days: int, movements: MovementTable, change: Change, *, lighter_week: bool = False
) -> Sheet:
    """The sheet so many days on, changed within what the kit has.

    Raises ``BadInputError`` beyond the calendar.
    """
    try:
        day = sheet.day + timedelta(days=days)
    except OverflowError:
        day = date.max
    if day.year not in YEARS:
        raise bad_input("shifts", f"{days} days on leaves the calendar")
    written = stepped(sheet.written, change, movements, the_kit())
    if lighter_week:
        written = lighter(written)
    # Lines that are not understood, and those for the coach alone, move with the rest.
    return replace(
        sheet,
        day=day,
        written=written,
        typed=sheet.typed if written == sheet.written else None,
    )


def put_down(
    athlete: Athlete,
    ledger: Ledger,
    sheets: Sequence[Sheet],
    today: date,
    gone: Iterable[Session] = (),
) -> Moved:
    """Store sheets as planned sessions; what stood on their days, and ``gone``, is put aside.

    To be called within a transaction.
    """
    removed = {
        row.id: row for day in {one.day for one in sheets} for row in plans_on(athlete, day)
    } | {row.id: row for row in gone}
    for row in removed.values():
        _put(row, today)
    ids = movement_ids(athlete)
    added = [
        number
        for sheet in sheets
        for number in add_sessions(athlete, "planned", [_session(sheet, ledger)], ids).values()
    ]
    touch(athlete)
    return Moved(added, list(removed))


def _session(sheet: Sheet, ledger: Ledger) -> CoreSession:
    typed = sheet.typed
    text = write(sheet.written, movements=ledger.movements) if typed is None else typed
    sets = expand(sheet.written, Maxima(ledger, sheet.day).setting(), sheet.day).sets
    return CoreSession.model_validate(
        {"date": sheet.day, "title": sheet.title, "sets": sets, TEXT_KEY: text}
    )


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


def find_plans(athlete: Athlete, numbers: Sequence[int]) -> list[Session] | int:
    """Planned sessions by number, in that order; the first number that has none otherwise."""
    found = {row.id: row for row in _planned(athlete, numbers) if row.deleted_on is None}
    missing = next((number for number in numbers if number not in found), None)
    return [found[number] for number in numbers] if missing is None else missing
