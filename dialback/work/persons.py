"""What is kept of a person: given out, and deleted for good."""

from __future__ import annotations

import json
from datetime import date
from typing import Any

from dialback.book.book import write_book
from dialback.core.movements import fold
from dialback.store.athletes import Ledgers, export_book
from dialback.store.models import Athlete
from dialback.store.persons import delete_person, forget_traces, rows_of
from dialback.store.unit import unit
from dialback.work.errors import NotThereError, UnfitError

FORMAT = "dialback-person"


def archived() -> list[tuple[int, str, date]]:
    """Who was taken off the roster: number, name and day, the latest first."""
    rows = (
        Athlete.select()
        .where(Athlete.deleted_on.is_null(False))
        .order_by(Athlete.deleted_on.desc(), Athlete.name)
    )
    return [(row.id, row.name, row.deleted_on or date.min) for row in rows]


def everything(ledgers: Ledgers, number: int) -> tuple[str, dict[str, Any]]:
    """The name and all that is kept of somebody: the book, and every row of every table."""
    athlete = anybody(number)
    book = json.loads(write_book(export_book(athlete, ledgers)))
    return athlete.name, {
        "format": FORMAT,
        "version": 1,
        "book": book,
        "kept": rows_of(athlete),
    }


def delete_for_good(number: int, name: str) -> dict[str, int]:
    """Delete all that is kept of somebody who is archived; how many rows of each table.

    The name has to be given once more. It cannot be taken back.
    """
    with unit() as entry:
        athlete = anybody(number)
        if athlete.deleted_on is None:
            raise UnfitError(
                "on-the-roster", f"{athlete.name} is on the roster: archive them first."
            )
        if fold(name) != fold(athlete.name):
            raise UnfitError(
                "another-name", f"That is not the name of {athlete.name}: type it exactly as shown."
            )
        gone = delete_person(athlete)
        # Whom it was is what nobody may read here any more.
        entry.tell("Deleted an archived athlete for good")
    forget_traces()
    return gone


def anybody(number: int) -> Athlete:
    """Somebody by number, archived or not. Raises ``NotThereError``."""
    found: Athlete | None = Athlete.get_or_none(Athlete.id == number)
    if found is None:
        raise NotThereError(f"Nobody has the number {number}.")
    return found
