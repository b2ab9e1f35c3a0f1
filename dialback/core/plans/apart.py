"""A text of several days taken apart: each is a session of its own."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from itertools import pairwise

from dialback.core.movements import MovementTable
from dialback.core.notation import read
from dialback.core.notation.characters import lines_of, plain
from dialback.core.notation.days import day_line
from dialback.core.notation.names import names_of
from dialback.core.notation.reader import behind_day


@dataclass(frozen=True, slots=True)
class OwnDay:
    """A session of a text: its day, its title, and its own lines without their head.

    ``line`` is where it begins in the whole text, counted from 1.
    """

    line: int
    day: date
    title: str
    text: str


def days_apart(text: str, movements: MovementTable, day: date) -> tuple[OwnDay, ...]:
    """The sessions of a text, in the order in which they stand; none of a text without sessions.

    What has no day of its own, at the start, is of ``day``; weekdays are those of its week. No line
    gets lost, whether or not it was understood.
    """
    rows = lines_of(text)
    sessions = read(text, movements, day=day, offering=False).sessions
    begins = [max(1, session.at) for session in sessions]
    found: list[OwnDay] = []
    for session, (begin, end) in zip(sessions, pairwise([*begins, len(rows) + 1]), strict=True):
        own = rows[begin - 1 : end - 1]
        title = ""
        if session.at:
            head = day_line(plain(own[0]).strip(), day)
            title, rest = behind_day(own[0], head, names_of(movements)) if head else ("", own[0])
            own = [rest, *own[1:]] if rest else own[1:]
        if not found:
            # Remarks above the first day are its own.
            own = [*rows[: begin - 1], *own]
        found.append(OwnDay(begin, session.day or day, title, "\n".join(own).strip("\n")))
    return tuple(found)
