"""Lines that recur: the same movements in the session of one title on one day of the week."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from typing import NamedTuple

from dialback.core.movements import MovementTable, fold
from dialback.core.plans.spans import Span, spans_of
from dialback.core.sessions import Session

SameSession = tuple[int, str]
"""The day of the week, from 0, and the title."""


class Where(NamedTuple):
    """What makes a line the same in another week."""

    session: SameSession
    movements: tuple[str, ...]


def session_of(session: Session) -> SameSession:
    """What makes a session the same in another week."""
    return session.date.weekday(), fold(session.title)


def where_of(session: Session, line: Span) -> Where:
    """What makes a line of a session the same in another week."""
    return Where(session_of(session), line.movements)


def steps_of(sessions: Iterable[Session], movements: MovementTable) -> Counter[Where]:
    """How many steps of each line there are that may change: sets, pairs or rounds."""
    found: Counter[Where] = Counter()
    for session in sessions:
        for line in spans_of(session, movements):
            if not line.fixed:
                found[where_of(session, line)] += line.count
    return found
