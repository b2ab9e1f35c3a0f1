"""A session as it is kept: its content with its identity, so that nobody joins them by position."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Final, Protocol, runtime_checkable

from dialback.core.movements import MovementTable
from dialback.core.notation import Mistake, Reading, WrittenSession, gather, read, write
from dialback.core.notation.characters import lines_of
from dialback.core.once import Once
from dialback.core.sessions import TEXT_KEY, Session
from dialback.core.tally import AsPlanned, Ledger
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week


def client_id_of(mark: str | None, number: int) -> str:
    """The id of a log; one that came without a mark of its own is called by its number."""
    return mark or f"row-{number}"


@dataclass(frozen=True, slots=True)
class Kept:
    """A stored session, planned or completed.

    ``mark`` is the id that was made where it was first written; ``plan`` the number of the planned
    session that a completed one is linked to.
    """

    number: int
    revision: int
    session: Session
    mark: str | None = None
    plan: int | None = None

    @property
    def day(self) -> date:
        """Its day."""
        return self.session.date

    @property
    def title(self) -> str:
        """Its title."""
        return self.session.title

    @property
    def typed(self) -> str | None:
        """The text that it was written as; ``None`` of a session that came otherwise."""
        text = (self.session.model_extra or {}).get(TEXT_KEY)
        return text if isinstance(text, str) else None

    @property
    def client_id(self) -> str:
        """The id of a log."""
        return client_id_of(self.mark, self.number)

    def written(self, movements: MovementTable) -> WrittenSession:
        """The session as it was written, or gathered from its sets."""
        if self.typed is not None:
            return one_session(self.typed, movements, self.day)
        return WrittenSession(gather(self.session, movements).parts)

    def text(self, movements: MovementTable) -> str:
        """The text as it was written; of a session that came otherwise, one that counts alike."""
        if self.typed is not None:
            return self.typed
        return write(self.written(movements), movements=movements)


@dataclass(frozen=True, slots=True)
class Unread:
    """A line of a text that was not understood, as it stands there; its number counts from 1."""

    line: int
    text: str


def unread_in(text: str, movements: MovementTable, day: date | None = None) -> tuple[Unread, ...]:
    """The lines of a session's text that are kept as text alone: nothing of them counts.

    All of a further day is among them.
    """
    rows = lines_of(text)
    reading = read(text, movements, day=day, offering=False)
    wrong = {mistake.line for mistake in reading.mistakes if mistake.line <= len(rows)}
    if further := reading.sessions[1:]:
        behind = range(further[0].at, len(rows) + 1)
        wrong |= {line for line in behind if rows[line - 1].lstrip()[:1] not in ("", "#")}
    return tuple(Unread(line, rows[line - 1].strip()) for line in sorted(wrong))


def unread_of(ledger: Ledger, plan: Kept) -> tuple[Unread, ...]:
    """The same of a session of a ledger, looked for once."""
    typed = plan.typed
    if typed is None:
        return ()
    key = (plan.number, plan.revision)
    return _UNREAD.of(ledger.kept, key, lambda: unread_in(typed, ledger.movements, plan.day))


_UNREAD: Final = Once[tuple[int, int], tuple[Unread, ...]]()


@runtime_checkable
class KeepsSessions(Protocol):
    """A source whose sessions have an identity: the store's."""

    def kept(self, basis: Basis, week: Week) -> Sequence[Kept]:
        """The sessions of one week with their identity, in the order of ``week``."""


def kept_in(ledger: Ledger, basis: Basis, week: Week) -> Sequence[Kept]:
    """The sessions of a ledger's week with their identity: the very ones that the ledger counts.

    Raises ``TypeError`` for a ledger of sessions that are nowhere kept.
    """
    source: object = ledger.source
    while isinstance(source, AsPlanned):
        source = source.source
    if not isinstance(source, KeepsSessions):
        raise TypeError("these sessions are nowhere kept")
    return source.kept(basis, week)


def read_one(text: str, movements: MovementTable, day: date | None = None) -> Reading:
    """A text as the one session that it is; further days in it are mistakes, and do not count."""
    reading = read(text, movements, day=day)
    first, further = reading.sessions[:1], reading.sessions[1:]
    if not further:
        return reading
    line = lines_of(text)
    more = [Mistake(one.at, 1, max(1, len(line[one.at - 1])), ANOTHER_DAY) for one in further]
    mistakes = sorted((*reading.mistakes, *more), key=lambda one: (one.line, one.column))
    return replace(reading, sessions=first, mistakes=tuple(mistakes))


ANOTHER_DAY: Final = (
    "another day begins here, but this is one session: make it a session of its own, or bring "
    "all the days into the block as a text"
)


def one_session(text: str, movements: MovementTable, day: date | None = None) -> WrittenSession:
    """A text as one session; weekdays in it are those of the week of ``day``."""
    sessions = read_one(text, movements, day).sessions
    why = sessions[0].why if sessions else ""
    return WrittenSession(tuple(part for written in sessions for part in written.parts), why=why)
