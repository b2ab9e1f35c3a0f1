"""Logs that come from a file: stored whole or not at all, and undone as one."""

from __future__ import annotations

import json
import time
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from peewee import JOIN

from dialback.book.errors import bad_input
from dialback.book.logsheet.columns import SheetChoice
from dialback.book.logsheet.taking import SheetSession
from dialback.core.movements import Movement as CoreMovement
from dialback.core.movements import fold
from dialback.core.newcomers import LONGEST_NAME
from dialback.core.sessions import Session as CoreSession
from dialback.core.tally import SessionSource
from dialback.core.weeks import Week
from dialback.store.athletes import Ledgers, athlete_on_roster, athletes, movement_ids
from dialback.store.journal import Entry
from dialback.store.models import (
    Athlete,
    ColumnChoice,
    House,
    Import,
    Movement,
    MovementMuscle,
    Session,
    SetMove,
    SetRow,
    rows,
)
from dialback.store.movements import add_movements
from dialback.store.sessions import add_sessions
from dialback.store.unit import silently, touch, touch_house, unit


@dataclass(frozen=True, slots=True)
class Stored:
    """What an import did."""

    row: Import
    sessions: int
    sets: int
    there: int
    """Sessions that were there already, set by set, and were left out."""


def by_name() -> dict[str, Athlete]:
    """The athletes on the roster, by folded name."""
    return {fold(athlete.name): athlete for athlete in athletes()}


def split_known(
    sessions: Iterable[SheetSession], known: Mapping[str, Athlete], ledgers: Ledgers
) -> tuple[list[tuple[Athlete, CoreSession]], list[SheetSession]]:
    """The sessions that are new, with their athletes, and those that the book has already."""
    new, there = [], []
    sessions = list(sessions)
    sources = _read_ahead(sessions, known, ledgers)
    for session in sessions:
        athlete = known.get(fold(session.athlete))
        if athlete is None:
            raise bad_input(
                f"row {session.row}, athlete",
                f"nobody on the roster is called {session.athlete!r}: write the name exactly "
                "as on the roster, or add the athlete first",
            )
        week = sources[athlete.id].week("completed", Week.of(session.session.date))
        same_day = (other for other in week if other.date == session.session.date)
        if any(other.sets == session.session.sets for other in same_day):
            there.append(session)
        else:
            new.append((athlete, session.session))
    return new, there


def _read_ahead(
    sessions: Iterable[SheetSession], known: Mapping[str, Athlete], ledgers: Ledgers
) -> dict[int, SessionSource]:
    """What the book has of those weeks, read in one go for each athlete, not week by week."""
    weeks: dict[str, list[Week]] = {}
    for session in sessions:
        weeks.setdefault(fold(session.athlete), []).append(Week.of(session.session.date))
    sources = {}
    for name, several in weeks.items():
        athlete = known.get(name)
        if athlete is None:
            continue
        ledger = ledgers.of(athlete)
        ledger.read_ahead(min(several), max(several))
        sources[athlete.id] = ledger.source
    return sources


BATCH: Final = 40
"""So many sessions are written under one lock; then others have their turn."""
TURN_S: Final = 0.02


def store_sheet(
    name: str,
    sessions: Sequence[SheetSession],
    choice: SheetChoice,
    heads: Sequence[str],
    ledgers: Ledgers,
    today: date,
    stored: Callable[[int], None] = lambda _: None,
    made: Sequence[CoreMovement] = (),
) -> Stored:
    """Store the sessions of a sheet, all or none, and remember what its columns meant.

    ``made`` are movements that it brings; athletes whom the roster does not have are taken on where
    that was chosen. The movements stay when the import is undone.

    They are written batch by batch where nobody sees them, and come into the book at once: nobody
    else waits for a file of years to be written. ``stored`` is told how far it is; what it raises
    ends the import with nothing stored.
    """
    with silently():
        row = Import.create(name=name[:200], day=today, undone_on=today)
        came = _newcomers(sessions, choice, made)
    try:
        # Comparing years of sets takes its time: nobody waits for it with the lock held.
        new, there = split_known(sessions, by_name(), ledgers)
        _write_unseen(row, new, today, stored)
        with unit() as entry:
            _bring_in(row, ledgers)
            _remember(choice, heads)
            _tell(entry, row, came.athletes)
    except BaseException:
        with silently():
            _forget(row)
            came.forget()
        raise
    return Stored(row, len(new), sum(len(one.sets) for _, one in new), len(there))


@dataclass(frozen=True, slots=True)
class _Came:
    """What an import made before its sessions: movements of the house, athletes."""

    movements: list[int]
    athletes: list[int]

    def forget(self) -> None:
        """Take it away again: the import did not come to its end."""
        MovementMuscle.delete().where(MovementMuscle.movement.in_(self.movements)).execute()
        Movement.delete().where(Movement.id.in_(self.movements)).execute()
        Athlete.delete().where(Athlete.id.in_(self.athletes)).execute()
        if self.movements:
            touch_house()


def _newcomers(
    sessions: Sequence[SheetSession], choice: SheetChoice, made: Sequence[CoreMovement]
) -> _Came:
    numbers = list(add_movements(made, athlete=None).values())
    if numbers:
        touch_house()
    there = by_name()
    strangers = {fold(one.athlete): one.athlete for one in sessions if choice.take_on}
    if (longest := max(strangers.values(), key=len, default="")) and len(longest) > LONGEST_NAME:
        raise bad_input("athlete", f"a name has at most {LONGEST_NAME} characters: {longest!r:.60}")
    taken_on = [Athlete.create(name=name).id for key, name in strangers.items() if key not in there]
    return _Came(numbers, taken_on)


def _write_unseen(
    row: Import,
    new: Sequence[tuple[Athlete, CoreSession]],
    today: date,
    stored: Callable[[int], None],
) -> None:
    ids: dict[int, dict[str, int]] = {}
    for begin in range(0, len(new), BATCH):
        stored(begin)
        with silently():
            for athlete, session in new[begin : begin + BATCH]:
                if athlete.id not in ids:
                    ids[athlete.id] = movement_ids(athlete)
                add_sessions(
                    athlete,
                    "completed",
                    [session],
                    ids[athlete.id],
                    came_with=row,
                    deleted_on=today,
                )
        time.sleep(TURN_S)


def _bring_in(row: Import, ledgers: Ledgers) -> None:
    """Let what was written be seen; the first log of a day is that of its plan."""
    own = Session.came_with == row
    athletes_ = [one for (one,) in rows(Session.select(Session.athlete).distinct().where(own))]
    for athlete in (athlete_on_roster(number) for number in athletes_):
        plans = _open_plans(athlete)
        logs = Session.select(Session.id, Session.date).where(own, Session.athlete == athlete)
        for number, day in rows(logs.order_by(Session.id)):
            plan = plans.pop(date.fromisoformat(day), None)
            if plan is not None:
                Session.update(plan=plan).where(Session.id == number).execute()
        touch(athlete)
    Session.update(deleted_on=None).where(own).execute()
    row.undone_on = None
    row.save()


def _tell(entry: Entry, row: Import, taken_on: Sequence[int]) -> None:
    undo = {"kind": "import", "import": row.id, "athletes": list(taken_on), "sessions": []}
    entry.tell(f"Imported logs from {row.name}", undo=undo, same=same_import(row.id))
    for athlete in Athlete.select().where(Athlete.id.in_(taken_on)):
        entry.tell("Added to the roster with imported logs", athlete)
    theirs = Session.select(Session.athlete).where(Session.came_with == row)
    for athlete in Athlete.select().where(Athlete.id.in_(theirs)):
        entry.tell("Imported logs from a file", athlete)


def same_import(number: int) -> str:
    """By what the entry of an import is found in the journal."""
    return f"import {number}"


def _forget(row: Import) -> None:
    """Take every trace of an import that did not come to its end."""
    sessions = Session.select(Session.id).where(Session.came_with == row)
    sets = SetRow.select(SetRow.id).where(SetRow.session.in_(sessions))
    SetMove.delete().where(SetMove.set.in_(sets)).execute()
    SetRow.delete().where(SetRow.session.in_(sessions)).execute()
    Session.delete().where(Session.came_with == row).execute()
    row.delete_instance()


def _open_plans(athlete: Athlete) -> dict[date, int]:
    """The plans that nothing is logged for, by day; of several on a day the last."""
    log = Session.alias()
    query = (
        Session.select(Session.date, Session.id)
        .join(
            log,
            JOIN.LEFT_OUTER,
            on=(log.plan == Session.id) & (log.basis == "completed") & log.deleted_on.is_null(),
        )
        .where(
            Session.athlete == athlete,
            Session.basis == "planned",
            Session.deleted_on.is_null(),
            log.id.is_null(),
        )
        .order_by(Session.id)
    )
    return {date.fromisoformat(day): number for day, number in rows(query)}


def _remember(choice: SheetChoice, heads: Sequence[str]) -> None:
    """The meaning of the columns, by their heads; and names that were chosen, as aliases."""
    key = _key(heads)
    kept = choice.model_dump(
        mode="json",
        exclude={"movements", "athlete", "like", "skip", "take_on", "doubts", "left_out"},
    )
    ColumnChoice.delete().where(ColumnChoice.heads == key).execute()
    ColumnChoice.create(heads=key, choice=kept)
    changed = False
    for name, to in choice.movements.items():
        row = Movement.get_or_none(Movement.folded == fold(to), Movement.athlete.is_null())
        if row is not None and fold(name) not in {fold(alias) for alias in row.aliases}:
            row.aliases = [*row.aliases, name]
            row.save()
            changed = True
    if changed:
        House.update(change=House.change + 1).execute()


def remembered(heads: Sequence[str]) -> SheetChoice | None:
    """What columns with these heads meant the last time."""
    row = ColumnChoice.get_or_none(ColumnChoice.heads == _key(heads))
    return None if row is None else SheetChoice.model_validate(row.choice)


def _key(heads: Sequence[str]) -> str:
    return json.dumps([fold(head) for head in heads], ensure_ascii=False)


def import_row(number: int, *, undone: bool = False) -> Import | None:
    """The import of that number: one that stands, or one that was undone."""
    found: Import | None = Import.get_or_none(
        Import.id == number, Import.undone_on.is_null(not undone)
    )
    return found


def put_import_out(row: Import, today: date) -> list[int]:
    """Take the sessions of an import out of the book; their numbers.

    To be called within a transaction.
    """
    sessions = list(Session.select().where(Session.came_with == row, Session.deleted_on.is_null()))
    _put(sessions, today)
    row.undone_on = today
    row.save()
    return [session.id for session in sessions]


def put_import_back(row: Import, numbers: Sequence[int]) -> None:
    """Bring sessions of an import back into the book. To be called within a transaction."""
    wanted = set(numbers)
    gone = (Session.came_with == row, Session.deleted_on.is_null(False))
    # There may be thousands: more than a query takes by number.
    _put([one for one in Session.select().where(*gone) if one.id in wanted], None)
    row.undone_on = None
    row.save()


def _put(sessions: Sequence[Session], on: date | None) -> None:
    for session in sessions:
        session.deleted_on = on
        session.revision += 1
        session.save()
    for athlete in {session.athlete.id: session.athlete for session in sessions}.values():
        touch(athlete)


def left_with_nothing(numbers: Sequence[int]) -> list[Athlete]:
    """Those of some athletes on the roster who have no session at all."""
    own = Session.select(Session.athlete).where(Session.deleted_on.is_null())
    wanted = Athlete.id.in_(numbers) & Athlete.deleted_on.is_null() & Athlete.id.not_in(own)
    return list(Athlete.select().where(wanted))


def latest_imports(count: int = 10) -> list[Import]:
    """The last imports that stand."""
    return list(
        Import.select().where(Import.undone_on.is_null()).order_by(Import.id.desc()).limit(count)
    )
