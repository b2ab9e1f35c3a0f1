"""The journal: who changed what, when and where, with what takes it back."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence, Set
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Any, Final
from uuid import uuid4

import peewee as pw
from peewee import JOIN

from dialback.store.models import TABLES, Athlete, JournalEntry, Table, rows

KEPT_DAYS: Final = 30
"""So long a change can be taken back."""
TOGETHER: Final = timedelta(minutes=30)
"""The same thing done again within this while is one entry: a log is sent set by set."""


@dataclass(frozen=True, slots=True)
class Actor:
    """Who acts, in which place, on which day; nobody's name at a desk without accounts."""

    who: str = ""
    place: str = ""
    day: date | None = None


_NOBODY: Final = Actor()
_ACTOR: ContextVar[Actor] = ContextVar("actor", default=_NOBODY)


def act_as(actor: Actor) -> None:
    """Whoever changes something from here on, in this thread."""
    _ACTOR.set(actor)


@contextmanager
def acting(actor: Actor) -> Iterator[None]:
    """For as long as it lasts, changes are this one's."""
    token = _ACTOR.set(actor)
    try:
        yield
    finally:
        _ACTOR.reset(token)


class Entry:
    """What one change is called in the journal."""

    def __init__(self, *, silent: bool = False) -> None:
        self._silent = silent
        self.told = False

    def tell(
        self,
        says: str,
        athlete: Athlete | None = None,
        *,
        undo: dict[str, Any] | None = None,
        same: str = "",
    ) -> int:
        """Note what was done, to whom, with what takes it back; the number of the entry.

        With ``same``, what is done over again shortly after joins the entry that is there; entries
        that can be taken back stay apart, and ``same`` says that they were one change. Where
        nothing is noted the number is 0.
        """
        if self._silent:
            return 0
        self.told = True
        actor = _ACTOR.get()
        now = datetime.now(UTC)
        at = now.isoformat(timespec="seconds")
        last = _latest(athlete, actor, same) if same and undo is None else None
        if last is not None and now - datetime.fromisoformat(last.until) <= TOGETHER:
            last.until, last.times, last.says = at, last.times + 1, says
            last.save()
            return int(last.id)
        row = JournalEntry.create(
            athlete=athlete,
            day=actor.day or now.date(),
            at=at,
            until=at,
            who=actor.who,
            place=actor.place,
            says=says,
            same=same,
            undo=undo,
        )
        return int(row.id)


def together() -> str:
    """A mark that entries of several athletes share, which are one change."""
    return f"together {uuid4().hex}"


def _latest(athlete: Athlete | None, actor: Actor, same: str) -> JournalEntry | None:
    whose = JournalEntry.athlete.is_null() if athlete is None else JournalEntry.athlete == athlete
    row: JournalEntry | None = (
        JournalEntry.select()
        .where(whose, JournalEntry.who == actor.who, JournalEntry.place == actor.place)
        .order_by(JournalEntry.id.desc())
        .first()
    )
    return row if row is not None and row.same == same else None


def last_entry(athlete: Athlete) -> JournalEntry | None:
    """An athlete's latest entry, if it can be taken back."""
    row: JournalEntry | None = (
        JournalEntry.select()
        .where(JournalEntry.athlete == athlete)
        .order_by(JournalEntry.id.desc())
        .first()
    )
    return None if row is None or row.undo is None or row.undone_on is not None else row


# What takes back that fields of a row were changed.


@dataclass(frozen=True, slots=True)
class Before:
    """Fields of a row as they were before a change."""

    row: Table
    was: dict[str, Any]

    def changed(self) -> list[str]:
        """Which of them are otherwise by now."""
        now = plain(self.row, self.was)
        return [name for name, value in self.was.items() if now[name] != value]

    def undo(self) -> dict[str, Any]:
        """What takes back how the row is now."""
        return {
            "kind": "fields",
            "table": self.row._meta.table_name,
            "row": self.row.id,
            "before": self.was,
            "after": plain(self.row, self.was),
        }


def before(row: Table, *names: str) -> Before:
    """Remember fields of a row, to be called before they are changed."""
    return Before(row, plain(row, names))


def change(row: Table, **values: Any) -> dict[str, Any]:
    """Give fields of a row other values; what takes that back."""
    was = before(row, *values)
    put_fields(row, values)
    return was.undo()


def plain(row: Table, names: Iterable[str]) -> dict[str, Any]:
    """Fields of a row as JSON has them: days as texts."""
    values = {name: row.__data__.get(name) for name in names}
    return {
        name: value.isoformat() if isinstance(value, date) else value
        for name, value in values.items()
    }


def row_of(undo: dict[str, Any]) -> Table | None:
    """The row whose fields were changed; none if it is gone by now."""
    table = next(one for one in TABLES if one._meta.table_name == undo["table"])
    found: Table | None = table.get_or_none(table.id == undo["row"])
    return found


def is_as(row: Table, fields: dict[str, Any]) -> bool:
    """Whether the fields of a row still stand as a change has left them."""
    return plain(row, fields) == fields


def put_fields(row: Table, fields: dict[str, Any]) -> None:
    """Give fields of a row these values."""
    for name, value in fields.items():
        setattr(row, name, value)
    row.save()


# Reading it.


@dataclass(frozen=True, slots=True)
class Noted:
    """An entry: when, who, where, what; whether it can be taken back, or was.

    ``together`` are the entries of the same change that are in the same state, this one with them;
    they share ``change``, empty for one alone.
    """

    number: int
    athlete: int | None
    name: str
    day: date
    at: str
    until: str
    times: int
    who: str
    place: str
    says: str
    can_undo: bool
    undone: bool
    together: int
    change: str


def noted(
    today: date,
    *,
    athlete: Athlete | None = None,
    who: str | None = None,
    words: str = "",
    undoable: bool = False,
    before: int | None = None,
    most: int = 100,
) -> list[Noted]:
    """Entries of the journal, the latest first.

    ``undoable`` are those of the last thirty days that can be taken back or were; ``before`` goes
    on from the entry of that number.
    """
    since = today - timedelta(days=KEPT_DAYS)
    query = JournalEntry.select(JournalEntry, Athlete).join(
        Athlete, JOIN.LEFT_OUTER, on=JournalEntry.athlete
    )
    if athlete is not None:
        query = query.where(JournalEntry.athlete == athlete)
    if who is not None:
        query = query.where(JournalEntry.who == who)
    if words:
        query = query.where(JournalEntry.says.contains(words) | Athlete.name.contains(words))
    if undoable:
        query = query.where(JournalEntry.undo.is_null(False), JournalEntry.day >= since)
    if before is not None:
        query = query.where(JournalEntry.id < before)
    found = list(query.order_by(JournalEntry.id.desc()).limit(most))
    counts = _counts({row.same for row in found if row.undo is not None and row.same})
    return [
        _noted(row, since, counts.get((row.same, row.undone_on is not None), 1)) for row in found
    ]


def _counts(sames: Set[str]) -> dict[tuple[str, bool], int]:
    """How many entries that can be taken back each change has, taken back or not."""
    is_undone = JournalEntry.undone_on.is_null(False)
    query = (
        JournalEntry.select(JournalEntry.same, is_undone, pw.fn.COUNT(JournalEntry.id))
        .where(JournalEntry.same.in_(list(sames)), JournalEntry.undo.is_null(False))
        .group_by(JournalEntry.same, is_undone)
    )
    return {(same, bool(undone)): count for same, undone, count in rows(query)}


def of_one_change(row: JournalEntry) -> list[JournalEntry]:
    """The entries of the same change that are in the same state, the latest first."""
    if not row.same:
        return [row]
    state = JournalEntry.undone_on.is_null(row.undone_on is None)
    mine = (JournalEntry.same == row.same) & JournalEntry.undo.is_null(False) & state
    return list(JournalEntry.select().where(mine).order_by(JournalEntry.id.desc()))


def _noted(row: JournalEntry, since: date, together: int) -> Noted:
    return Noted(
        number=row.id,
        athlete=row.athlete_id,
        name=row.athlete.name if row.athlete is not None else "",
        day=row.day,
        at=row.at,
        until=row.until,
        times=row.times,
        who=row.who,
        place=row.place,
        says=row.says,
        can_undo=row.undo is not None and row.day >= since,
        undone=row.undone_on is not None,
        together=together,
        change=f"{row.same} {row.undone_on is not None}" if together > 1 else "",
    )


def last_of(sames: Sequence[str]) -> dict[str, tuple[str, str]]:
    """Of what was done again and again, who did it last, and when (UTC); nobody's is left out."""
    query = (
        JournalEntry.select(JournalEntry.same, JournalEntry.who, JournalEntry.until)
        .where(JournalEntry.same.in_(sames), JournalEntry.who != "")
        .order_by(JournalEntry.id)
    )
    return {same: (who, until) for same, who, until in rows(query)}


def who_said(athlete: Athlete, day: date, words: str) -> str:
    """Who changed something of an athlete on a day with these words; empty for nobody known."""
    if not words:
        return ""
    row = (
        JournalEntry.select(JournalEntry.who)
        .where(
            JournalEntry.athlete == athlete,
            JournalEntry.day == day,
            JournalEntry.says.contains(words),
        )
        .order_by(JournalEntry.id.desc())
        .first()
    )
    return "" if row is None else str(row.who)


def everybody_in_it() -> list[str]:
    """The names of those who have changed something."""
    rows = JournalEntry.select(JournalEntry.who).distinct().order_by(JournalEntry.who)
    return [row.who for row in rows if row.who]


def entry_of(number: int) -> JournalEntry | None:
    """The entry of that number."""
    found: JournalEntry | None = JournalEntry.get_or_none(JournalEntry.id == number)
    return found
