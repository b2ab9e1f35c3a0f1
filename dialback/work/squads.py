"""Squads: out as one open file, and in again whole or not at all."""

from __future__ import annotations

from datetime import date

from dialback.book.book import write_book
from dialback.book.errors import bad_input
from dialback.book.squad import INDEX, Squad, write_squad
from dialback.core.movements import fold
from dialback.core.newcomers import LONGEST_SQUAD, as_spelt
from dialback.store.athletes import (
    Imported,
    Ledgers,
    athletes,
    export_book,
    house,
    import_book,
)
from dialback.store.unit import touch, unit
from dialback.work.errors import NotThereError


def squad_file(ledgers: Ledgers, squad: str | None) -> bytes:
    """The squad file of those in a squad, or of everybody, in the order of the roster.

    Raises ``NotThereError`` where nobody is in it.
    """
    there = athletes()
    chosen = [one for one in there if squad is None or fold(one.squad) == fold(squad)]
    if not chosen:
        if squad is None:
            raise NotThereError("Nobody is on the roster.")
        known = ", ".join(sorted({one.squad for one in there if one.squad})) or "none"
        raise NotThereError(f"Nobody is in the squad {squad!r}; squads: {known}.")
    name = house().name if squad is None else chosen[0].squad
    return write_squad(name, [write_book(export_book(one, ledgers)) for one in chosen])


def import_squad(squad: Squad, today: date, *, replace: bool = False) -> list[Imported]:
    """Store everybody of a squad file as its squad, or nobody.

    Raises ``NameTakenError`` unless ``replace`` puts athletes of the same names aside, and
    ``BadInputError`` for a name that is too long for a squad.
    """
    if len(squad.name) > LONGEST_SQUAD:
        raise bad_input(f"{INDEX}: name", f"is longer than {LONGEST_SQUAD} characters: shorten it")
    with unit():
        name = as_spelt(squad.name, [one.squad for one in athletes()])
        found = [import_book(book, today, replace=replace) for book in squad.books]
        for one in found:
            one.athlete.squad = name
            touch(one.athlete)
    return found
