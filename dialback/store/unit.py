"""One change: its lock is taken first, so that what is read inside is what is changed."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from dialback.store.models import Athlete, House, database


@contextmanager
def unit() -> Iterator[None]:
    """A change as a whole or not at all, one at a time.

    The lock of the data file is taken before anything is read: read what you change inside.
    """
    with database.atomic("IMMEDIATE"):
        yield


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
