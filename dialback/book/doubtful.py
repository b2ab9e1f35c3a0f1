"""What makes little sense in a book; apart from the book, so that an audit need not load it."""

from __future__ import annotations

from datetime import date

from dialback.book.book import Book, SessionsByWeek
from dialback.core.body import UNKNOWN
from dialback.core.movements import MovementTable
from dialback.core.rules import DEFAULT_RULES
from dialback.core.sense import Knowing
from dialback.core.sense.rows import Row, RowSense
from dialback.core.tally import Ledger
from dialback.core.words import Unit


def doubtful(book: Book, today: date) -> list[str]:
    """What makes little sense in the sessions of a book, in words; nothing of it is changed."""
    sense = RowSense(Knowing(nobody(book.movements), today))
    sense.look(
        [
            Row(f"{session.date} {session.title}".strip(), "", list(session.sets))
            for session in (*book.planned, *book.completed)
        ]
    )
    return [
        f"{doubt.at}, {doubt.example}: {doubt.why}"
        + (f" ({doubt.sets} such sets)" if doubt.sets > 1 else "")
        for doubt in sense.doubts()
    ]


def nobody(movements: MovementTable, unit: Unit = "kg") -> Ledger:
    """The ledger of somebody of whom nothing is known."""
    return Ledger(SessionsByWeek([], []), movements, DEFAULT_RULES, UNKNOWN, unit=unit)
