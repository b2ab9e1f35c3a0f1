"""Logs: completed sessions as they come from a desk, from the floor, or late from a phone.

A log has an id that was made where it was written, so that it can be sent again and again; every
change has one, too. A change that builds on an older state than the stored one is not lost: both
are kept until somebody decides.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from dialback.core.plans.kept import client_id_of
from dialback.core.sessions import Session as CoreSession
from dialback.store.athletes import movement_ids
from dialback.store.journal import last_of
from dialback.store.models import Athlete, Session, Version
from dialback.store.sessions import add_sessions, write_log
from dialback.store.unit import touch

_ROW_ID = re.compile(r"row-(\d{1,18})")


@dataclass(frozen=True, slots=True)
class Change:
    """A log on its way in: what it is to be, what it was made for, what it builds on.

    ``after`` are the changes from the same hand before it, as far as their answer may have been
    lost: over one of those it goes on, although the revision is another.
    """

    client_id: str
    change: str
    revision: int
    session: CoreSession
    plan: int | None
    after: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Saved:
    """The stored log; ``both_kept`` if another was put beside it because both had changed."""

    revision: int
    client_id: str
    both_kept: bool = False


def _saved(row: Session, *, both_kept: bool = False) -> Saved:
    return Saved(int(row.revision), client_id_of(row.client_id, row.id), both_kept)


@dataclass(frozen=True, slots=True)
class Waiting:
    """A log that waits beside the stored one until somebody decides."""

    number: int
    day: date
    session: CoreSession


def find_log(athlete: Athlete, client_id: str, *, deleted: bool = False) -> Session | None:
    """The log with that id."""
    number = _ROW_ID.fullmatch(client_id)
    mine = Session.id == int(number[1]) if number else Session.client_id == client_id
    found: Session | None = Session.get_or_none(
        mine,
        Session.athlete == athlete,
        Session.basis == "completed",
        Session.deleted_on.is_null(not deleted),
    )
    return found


class OthersIdError(ValueError):
    """An id that was made for something else is used again."""

    def __init__(self, place: str, name: str) -> None:
        self.place = place
        super().__init__(f"{name!r} was made for another log: make a new one")


def _belongs_to_another(athlete: Athlete, client_id: str) -> bool:
    """Whether the id is that of another athlete's session, or of a planned one."""
    number = _ROW_ID.fullmatch(client_id)
    if number:
        return True
    taken = Session.select().where(
        Session.client_id == client_id,
        (Session.athlete != athlete) | (Session.basis != "completed"),
    )
    return bool(taken.exists())


def save_log(athlete: Athlete, change: Change, today: date) -> Saved:
    """Store a log, or put it beside the one that is stored. To be called within a transaction."""
    again = Version.get_or_none(Version.change == change.change)
    if again is not None:
        if again.session.athlete_id != athlete.id:
            raise OthersIdError("change", change.change)
        return _saved(again.session, both_kept=True)
    row = find_log(athlete, change.client_id)
    if row is None:
        # Taken out at the desk, and still written on the floor: it comes back.
        row = find_log(athlete, change.client_id, deleted=True)
        if row is not None:
            row.deleted_on = None
            row.save()
            touch(athlete)
        elif _belongs_to_another(athlete, change.client_id):
            raise OthersIdError("client_id", change.client_id)
    if row is not None and row.last_change == change.change:
        return _saved(row)
    plan = _plan(athlete, change.plan)
    session = change.session
    if plan is not None and plan.date != session.date:
        session = session.model_copy(update={"plan": plan.date})
    other = row or _log_of(plan)
    if other is None:
        return _saved(_add(athlete, change, session, plan))
    builds_on_it = row is not None and row.revision == change.revision
    if not builds_on_it and other.last_change not in change.after:
        _put_beside(other, change, session, today)
        return _saved(other, both_kept=True)
    other.plan = plan
    other.last_change = change.change
    write_log(other, session, movement_ids(athlete))
    touch(athlete)
    return _saved(other)


def _put_beside(row: Session, change: Change, session: CoreSession, today: date) -> None:
    """Keep a log for a decision; a later state of one that waits already takes its place."""
    version = next((one for one in _versions(row.id) if one.change in change.after), None)
    if version is None:
        version = Version(session=row)
    version.change, version.day, version.body = change.change, today, _body(change, session)
    version.save()


def _plan(athlete: Athlete, number: int | None) -> Session | None:
    if number is None:
        return None
    found: Session | None = Session.get_or_none(
        Session.id == number, Session.athlete == athlete, Session.basis == "planned"
    )
    return found


def _log_of(plan: Session | None) -> Session | None:
    """What was done for a plan already."""
    if plan is None:
        return None
    found: Session | None = Session.get_or_none(
        Session.plan == plan, Session.basis == "completed", Session.deleted_on.is_null()
    )
    return found


def _add(athlete: Athlete, change: Change, session: CoreSession, plan: Session | None) -> Session:
    ids = add_sessions(athlete, "completed", [session], movement_ids(athlete))
    row: Session = Session.get_by_id(ids[session.date])
    row.plan = plan
    row.client_id = None if _ROW_ID.fullmatch(change.client_id) else change.client_id
    row.last_change = change.change
    row.save()
    touch(athlete)
    return row


def _body(change: Change, session: CoreSession) -> dict[str, Any]:
    return {"plan": change.plan, "session": session.model_dump(mode="json", exclude_defaults=True)}


def _versions(log: int) -> list[Version]:
    return list(Version.select().where(Version.session == log).order_by(Version.id))


def waiting_beside(log: int) -> list[Waiting]:
    """What waits for a decision beside a log, given by its number, the oldest first."""
    return [
        Waiting(row.id, row.day, CoreSession.model_validate(row.body["session"]))
        for row in _versions(log)
    ]


def drop_version(number: int) -> None:
    """Drop what waits beside a log. To be called within a transaction."""
    Version.delete().where(Version.id == number).execute()


def same_log(client_id: str) -> str:
    """By what the entries of a log are found in the journal."""
    return f"log {client_id}"


def who_logged(client_ids: Sequence[str]) -> dict[str, tuple[str, str]]:
    """Who wrote last on each log, and when (UTC); only where somebody was signed in."""
    keys = {same_log(one): one for one in client_ids}
    return {keys[same]: last for same, last in last_of(list(keys)).items()}


def undecided() -> dict[int, tuple[date, str]]:
    """By athlete, day and id of the first log that waits for a decision between its versions."""
    rows = (
        Session.select()
        .join(Version)
        .where(Session.deleted_on.is_null())
        .order_by(Session.date.desc(), Session.id.desc())
    )
    return {row.athlete_id: (row.date, client_id_of(row.client_id, row.id)) for row in rows}


def decide(athlete: Athlete, version: Version, *, keep_other: bool) -> None:
    """Take the other version in the place of the stored one, or drop it."""
    if keep_other:
        row = version.session
        session = CoreSession.model_validate(version.body["session"])
        # Whoever sent it goes on from it.
        row.last_change = version.change
        write_log(row, session, movement_ids(athlete))
        touch(athlete)
    version.delete_instance()


def put_aside(athlete: Athlete, row: Session, on: date | None) -> None:
    """Take a log out of the book, or put it back."""
    row.deleted_on = on
    row.revision += 1
    row.save()
    touch(athlete)
