"""One change: its lock is taken first, and it stands in the journal, or nothing of it stays."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from dialback.store.journal import Entry
from dialback.store.models import Athlete, House, database

_RUNNING: ContextVar[Entry | None] = ContextVar("running", default=None)


class NothingToldError(RuntimeError):
    """Something was changed and nobody said what: that is a fault of the program."""


@contextmanager
def unit() -> Iterator[Entry]:
    """A change as a whole or not at all, one at a time, with its entry in the journal.

    The lock of the data file is taken before anything is read: read what you change inside. What
    was changed has to be told to the entry; a unit within another belongs to that one's entry.
    Raises ``NothingToldError``.
    """
    running = _RUNNING.get()
    with database.atomic("IMMEDIATE"):
        if running is not None:
            yield running
            return
        entry = Entry()
        token = _RUNNING.set(entry)
        before = database.connection().total_changes
        try:
            yield entry
        finally:
            _RUNNING.reset(token)
        if not entry.told and database.connection().total_changes != before:
            raise NothingToldError("a change without an entry in the journal")


@contextmanager
def silently() -> Iterator[None]:
    """The same for what is nobody's change: what is worked out of the rest, steps of a longer one.

    What is told within is not noted.
    """
    with database.atomic("IMMEDIATE"):
        token = _RUNNING.set(Entry(silent=True))
        try:
            yield
        finally:
            _RUNNING.reset(token)


def touch(athlete: Athlete) -> None:
    """Note that something of the athlete's figures has changed; what was changed of it is kept.

    The count goes up in the data file itself: a row that was read earlier cannot set it back.
    """
    athlete.save()
    own = Athlete.id == athlete.id
    Athlete.update(change=Athlete.change + 1).where(own).execute()
    # The row at hand knows the new count, and does not take it for a change of its own.
    athlete.__data__["change"] = Athlete.select(Athlete.change).where(own).scalar()


def touch_house() -> None:
    """Note that something that all athletes share has changed."""
    House.update(change=House.change + 1).execute()
