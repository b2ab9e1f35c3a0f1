"""A session on paper, as PDF: one page, read from the floor, with a box for each set."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from typing import Final, Literal

from dialback.book.report.render import render
from dialback.book.report.words import STOP_SIGNS

_LARGEST: Final = 15.0
"""Points of the text: it is read standing, with the page on the floor."""
_MOST_BOXES: Final = 12


@dataclass(frozen=True, slots=True)
class PaperLine:
    """A line of the session: what it says, and how many sets it comes to."""

    text: str
    kind: Literal["part", "line", "inside"]
    sets: int = 0


@dataclass(frozen=True, slots=True)
class PaperSession:
    """A session with its head."""

    athlete: str
    title: str
    head: str
    lines: Sequence[PaperLine]


def session_paper(session: PaperSession) -> bytes:
    """The session as a PDF of A4 pages: one, unless it is too long to be read on one."""
    content = {
        "title": f"{session.athlete}: {session.title}",
        "head": session.head,
        "lines": [asdict(line) | {"boxes": min(line.sets, _MOST_BOXES)} for line in session.lines],
        "foot": STOP_SIGNS,
    }
    return render("paper.typ", content, _LARGEST)
