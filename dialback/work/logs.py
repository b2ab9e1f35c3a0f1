"""Logging: what was done, kept once however often it is sent; two versions are decided between."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

from dialback.book.errors import BadInputError, Problem, bad_input
from dialback.core.movements import MovementTable, UnknownMovementError
from dialback.core.naming import as_called_today
from dialback.core.plans.kept import kept_in
from dialback.core.sessions import MISSED_KEY, Missed, Session, lies_ahead
from dialback.core.tally import Ledger
from dialback.core.versions import apart
from dialback.core.weeks import Week, said
from dialback.store.athletes import Ledgers, athlete_on_roster
from dialback.store.journal import before
from dialback.store.logs import (
    Change,
    OthersIdError,
    Saved,
    decide,
    drop_version,
    find_log,
    put_aside,
    same_log,
    save_log,
    waiting_beside,
)
from dialback.store.models import Session as SessionRow
from dialback.store.models import Version
from dialback.store.unit import touch, unit
from dialback.work.errors import NotThereError


def keep(ledgers: Ledgers, number: int, change: Change, today: date) -> Saved:
    """Keep a log. Sent again, it is kept once; over a newer one, both are kept."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        movements = ledgers.of(athlete).movements
        # On the floor a movement may still have the name that it began the session with.
        change = replace(change, session=as_called_today(change.session, movements))
        _check(change.session, movements, today)
        state = athlete.change
        try:
            saved = save_log(athlete, change, today)
        except OthersIdError as taken:
            raise bad_input(taken.place, str(taken)) from None
        if saved.both_kept and _agree(ledgers.of(athlete), saved.client_id, change):
            # Nothing to decide: both say the same.
            saved = replace(saved, both_kept=False)
            entry.tell(f"Sent the log of {said(change.session.date)} again", athlete)
            return saved
        day = said(change.session.date)
        if saved.both_kept:
            told = f"Sent another version of the log of {day}: both are kept"
            entry.tell(told, athlete, same=f"version {saved.client_id}")
        elif athlete.change != state:
            entry.tell(f"Logged {day}", athlete, same=same_log(saved.client_id))
        return saved


def _agree(ledger: Ledger, client_id: str, change: Change) -> bool:
    """Whether the stored log and what was put beside it say the same: that is dropped then."""
    for log in kept_in(ledger, "completed", Week.of(change.session.date)):
        if log.client_id != client_id or log.day != change.session.date:
            continue
        for waiting in waiting_beside(log.number):
            if not apart(log.session, waiting.session, ledger.movements):
                drop_version(waiting.number)
                return True
    return False


def _check(session: Session, movements: MovementTable, today: date) -> None:
    """Refuse a day that is not there yet, and movements that nobody knows."""
    problems = []
    if lies_ahead(session.date, today):
        problems.append(
            Problem("session.date", f"{session.date} lies ahead: a log is of what was done")
        )
    for at, one in enumerate(session.sets):
        for name, _ in one.named_moves():
            try:
                movements[name]
            except UnknownMovementError as unknown:
                problems.append(Problem(f"session.sets[{at}].exercise", str(unknown)))
    if problems:
        raise BadInputError(problems)


def take_out(number: int, client_id: str, on: date | None) -> None:
    """Take a log out of the book on a day, or, without one, put it back."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = find_log(athlete, client_id, deleted=on is None)
        if row is None:
            raise NotThereError(f"{athlete.name} has no such log.")
        was = before(row, "deleted_on")
        put_aside(athlete, row, on)
        done = "Restored the log" if on is None else "Removed the log"
        entry.tell(f"{done} of {said(row.date)}", athlete, undo=was.undo())


def decide_between(number: int, version: int, *, keep_other: bool) -> None:
    """Decide between the stored log and the one that arrived beside it."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = Version.get_or_none(Version.id == version)
        if row is None or row.session.athlete.id != athlete.id:
            raise NotThereError("That has already been decided.")
        decide(athlete, row, keep_other=keep_other)
        which = "the one received later" if keep_other else "the stored one"
        entry.tell(f"Kept {which} of two logs of {said(row.session.date)}", athlete)


def say_why_missed(number: int, plan: int, missed: Missed | None) -> None:
    """Say why a planned session was not done, or take that back; the plan stays as it is."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row: SessionRow | None = SessionRow.get_or_none(
            SessionRow.id == plan,
            SessionRow.athlete == athlete,
            SessionRow.basis == "planned",
            SessionRow.deleted_on.is_null(),
        )
        if row is None:
            raise NotThereError(f"{athlete.name} has no planned session with the number {plan}.")
        kept = {key: value for key, value in row.extra.items() if key != MISSED_KEY}
        why = {} if missed is None else {MISSED_KEY: missed.model_dump(exclude_defaults=True)}
        row.extra = {**kept, **why}
        row.save()
        touch(athlete)
        told = "Recorded why" if why else "Removed the reason why"
        entry.tell(f"{told} the session of {said(row.date)} was missed", athlete)
