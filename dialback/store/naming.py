"""A movement's name in every place where it stands: found, changed in all of them, put back.

Sets know their movement by its number. What is written about it knows it by name: that is what
stands here. Texts keep the words in which they were typed; they are read by the movement's other
names. What was signed stays as it was signed.
"""

from __future__ import annotations

import json
from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any, Final

import peewee as pw

from dialback.core.movements import fold
from dialback.core.naming import places_in, put_in
from dialback.core.vocabulary import MUSCLES, PATTERNS
from dialback.store.journal import before, is_as, plain, put_fields, row_of
from dialback.store.models import (
    Acceptance,
    Athlete,
    Decision,
    Declined,
    Draft,
    Goal,
    Maximum,
    Movement,
    MovementMuscle,
    OwnCue,
    Restriction,
    Session,
    SetMove,
    SetRow,
    Table,
    Version,
    rows,
)

BY_NAME: Final = (
    (Maximum, "movement"),
    (Goal, "movement"),
    (Restriction, "subject"),
    (Acceptance, "subject"),
    (Decision, "subject"),
    (Declined, "subject"),
    (OwnCue, "movement"),
    (Movement, "easier"),
    (Movement, "harder"),
)
"""Columns that hold the name of a movement; a subject may be one."""
_IN_JSON: Final = ((Draft, "sessions"), (Draft, "shape"), (Version, "body"), (Session, "extra"))
"""Columns that hold sets, or what hurt in which movement, as JSON."""


def keepers(name: str) -> dict[int, str]:
    """Athletes who have a movement of that name of their own, by number: theirs stays.

    Those in the archive are among them: they may come back.
    """
    own = Movement.select(Athlete.id, Athlete.name).join(Athlete)
    return dict(rows(own.where(Movement.folded == fold(name))))


def standing(name: str) -> dict[str, int]:
    """In how many rows a movement stands by its name, by table."""
    kept = keepers(name)
    found: dict[str, int] = {}
    for table, column in BY_NAME:
        count = sum(1 for _ in _named(table, column, name, kept))
        found[table._meta.table_name] = found.get(table._meta.table_name, 0) + count
    drafts = {row.id for table, column, row in _holding(name, kept) if table is Draft}
    return {**found, Draft._meta.table_name: len(drafts)}


def _named(table: type[Table], column: str, name: str, kept: Collection[int]) -> Iterator[Table]:
    field = table._meta.fields[column]
    if column == "subject" and fold(name) in {*MUSCLES, *PATTERNS}:
        return
    for row in table.select().where(field.is_null(False)):
        if fold(getattr(row, column)) == fold(name) and row.__data__["athlete"] not in kept:
            yield row


def _holding(name: str, kept: Collection[int]) -> Iterator[tuple[type[Table], str, Table]]:
    """Rows that may hold the name in JSON."""
    for table, column in _IN_JSON:
        field = table._meta.fields[column]
        quoted = json.dumps(name, ensure_ascii=False)
        for row in table.select().where(pw.fn.INSTR(field.cast("TEXT"), quoted) > 0):
            session = row.session if isinstance(row, Version) else row
            if session.__data__["athlete"] not in kept:
                yield table, column, row


@dataclass(frozen=True, slots=True)
class _Moved:
    """Sets and moves of combinations that went over to the row of another movement."""

    sets: list[int]
    moves: list[int]
    to: int

    def back(self, number: int) -> None:
        """Give them to a movement again, where nobody has given them to another."""
        for table, ids in ((SetRow, self.sets), (SetMove, self.moves)):
            for part in pw.chunked(ids, 500):
                table.update(movement=number).where(
                    table.id.in_(part), table.movement == self.to
                ).execute()


def rename(row: Movement, name: str, aliases: Iterable[str]) -> dict[str, Any]:
    """Give a movement of the house another name everywhere; what takes that back."""
    was = before(row, "name", "folded", "aliases")
    old = row.name
    put_fields(row, {"name": name, "folded": fold(name), "aliases": list(aliases)})
    return {
        "kind": "naming",
        "movement": row.id,
        "old": old,
        "name": name,
        "fields": [was.undo(), *_rewrite(old, name, keepers(old))],
        "within": _rewrite_within(old, name, keepers(old)),
    }


def merge(row: Movement, into: Movement, aliases: Iterable[str]) -> dict[str, Any]:
    """Make one movement of two, by the name and the description of the second; what undoes it."""
    old = row.name
    kept = keepers(old)
    moved = [
        _move(row, into.id, but=_owners_of(into.folded)),
        *(_move(row, number, only=athlete) for athlete, number in _owners_of(into.folded).items()),
    ]
    was = before(into, "aliases")
    put_fields(into, {"aliases": list(aliases)})
    levels = [
        _cleared(one, column)
        for one, column in ((into, "easier"), (into, "harder"))
        if fold(getattr(one, column) or "") == row.folded
    ]
    gone = plain(row, row.__data__)
    muscles = list(
        MovementMuscle.select(MovementMuscle.muscle, MovementMuscle.role)
        .where(MovementMuscle.movement == row)
        .dicts()
    )
    fields = [was.undo(), *levels, *_rewrite(old, into.name, kept)]
    within = _rewrite_within(old, into.name, kept)
    row.delete_instance(recursive=True)
    return {
        "kind": "naming",
        "movement": row.id,
        "old": old,
        "name": into.name,
        "fields": fields,
        "within": within,
        "moved": [{"sets": one.sets, "moves": one.moves, "to": one.to} for one in moved],
        "gone": gone,
        "muscles": muscles,
    }


def _owners_of(folded: str) -> dict[int, int]:
    """Numbers of athletes' own movements of a name, by athlete."""
    return dict(
        rows(
            Movement.select(Movement.athlete, Movement.id).where(
                Movement.folded == folded, Movement.athlete.is_null(False)
            )
        )
    )


def _move(row: Movement, to: int, *, only: int | None = None, but: Collection[int] = ()) -> _Moved:
    """Give the sets of a movement to another, those of one athlete or of all but some."""
    whose = Session.athlete == only if only is not None else Session.athlete.not_in(list(but))
    alone = SetRow.select(SetRow.id).join(Session).where(SetRow.movement == row, whose)
    combined = (
        SetMove.select(SetMove.id).join(SetRow).join(Session).where(SetMove.movement == row, whose)
    )
    moved = _Moved([one for (one,) in rows(alone)], [one for (one,) in rows(combined)], to)
    for table, ids in ((SetRow, moved.sets), (SetMove, moved.moves)):
        for part in pw.chunked(ids, 500):
            table.update(movement=to).where(table.id.in_(part)).execute()
    return moved


def _cleared(row: Movement, column: str) -> dict[str, Any]:
    """A movement that has become its own level has none."""
    was = before(row, column)
    put_fields(row, {column: None})
    return was.undo()


def _rewrite(old: str, new: str, kept: Collection[int]) -> list[dict[str, Any]]:
    """Write the new name wherever the old one stands in a column; what takes each back."""
    undo = []
    for table, column in BY_NAME:
        for row in list(_named(table, column, old, kept)):
            was = before(row, column)
            try:
                put_fields(row, {column: new})
            except pw.IntegrityError:
                # The other movement has been judged there, too: that stands.
                continue
            undo.append(was.undo())
    return undo


def _rewrite_within(old: str, new: str, kept: Collection[int]) -> list[dict[str, Any]]:
    """The same within JSON. What takes it back are places alone: whatever else stands there is an
    athlete's, and is not kept in the journal of the house.
    """
    undo = []
    for table, column, row in list(_holding(old, kept)):
        places = list(places_in(getattr(row, column), old))
        if places:
            _put_within(row, column, places, old, new)
            undo.append(
                {"table": table._meta.table_name, "row": row.id, "column": column, "places": places}
            )
    return undo


def _put_within(
    row: Table, column: str, places: Iterable[Sequence[str | int]], old: str, new: str
) -> None:
    put_fields(row, {column: put_in(getattr(row, column), places, old, new)})
    if isinstance(row, Draft):
        # A window that has it open builds on an older state now.
        put_fields(row, {"revision": row.revision + 1})


def can_put_back(undo: dict[str, Any]) -> bool:
    """Whether the movement still has the name that it was given, and nobody has its old one."""
    first = undo["fields"][0]
    row = row_of(first)
    if row is None or not is_as(row, first["after"]):
        return False
    others = Movement.select().where(Movement.athlete.is_null(), Movement.id != undo["movement"])
    return not others.where(Movement.folded == fold(undo["old"])).exists()


def put_back(undo: dict[str, Any]) -> None:
    """Give a movement its old name again wherever nobody has changed it since."""
    if "gone" in undo:
        Movement.insert(**undo["gone"]).execute()
        for one in undo["muscles"]:
            MovementMuscle.create(movement=undo["movement"], **one)
        for one in undo["moved"]:
            _Moved(**one).back(undo["movement"])
    for one in undo["fields"]:
        row = row_of(one)
        if row is not None and is_as(row, one["after"]):
            put_fields(row, one["before"])
    for one in undo["within"]:
        row = row_of(one)
        if row is not None:
            _put_within(row, one["column"], one["places"], undo["name"], undo["old"])
