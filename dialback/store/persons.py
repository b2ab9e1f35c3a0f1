"""All that is kept of a person: given out whole, or deleted so that nothing of it is left."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Final

import peewee as pw

from dialback.store.imports import same_import
from dialback.store.journal import plain
from dialback.store.models import (
    TABLES,
    Account,
    Athlete,
    Device,
    Import,
    JournalEntry,
    Movement,
    MovementMuscle,
    Session,
    SetMove,
    SetRow,
    Table,
    Version,
    database,
    rows,
)

_THROUGH_SESSIONS: Final = (SetMove, SetRow, Version)
_DERIVED: Final = ("verdict",)
"""Worked out of the rest: deleted with it, and not given out."""
_SECRET: Final = frozenset({"password", "door", "second", "second_used", "recovery"})
"""Hashes of what lets somebody in: deleted, and given to nobody."""


def _own_tables() -> list[type[Table]]:
    """The tables whose rows belong to an athlete directly."""
    return [table for table in TABLES if table is not Athlete and "athlete" in table._meta.fields]


def _of(table: type[Table], athlete: Athlete) -> Any:
    return table._meta.fields["athlete"] == athlete


def rows_of(athlete: Athlete) -> dict[str, list[dict[str, Any]]]:
    """Every row that is kept of an athlete, by table, taken away ones among them."""
    found = {"athlete": [_plain(athlete)]}
    for table in _own_tables():
        if table._meta.table_name not in _DERIVED:
            found[table._meta.table_name] = _rows(table.select().where(_of(table, athlete)))
    sessions = Session.select(Session.id).where(Session.athlete == athlete)
    sets = SetRow.select(SetRow.id).where(SetRow.session.in_(sessions))
    own = Movement.select(Movement.id).where(Movement.athlete == athlete)
    files = Session.select(Session.came_with).where(Session.athlete == athlete)
    found |= {
        "set": _rows(SetRow.select().where(SetRow.session.in_(sessions))),
        "set_move": _rows(SetMove.select().where(SetMove.set.in_(sets))),
        "version": _rows(Version.select().where(Version.session.in_(sessions))),
        "movement_muscle": _rows(MovementMuscle.select().where(MovementMuscle.movement.in_(own))),
        "import": _rows(Import.select().where(Import.id.in_(files))),
        "device": [
            plain(row, ("words", "since", "seen"))
            for row in Device.select().join(Account).where(Account.athlete == athlete)
        ],
    }
    return {name: rows for name, rows in found.items() if rows}


def _rows(query: Iterable[Table]) -> list[dict[str, Any]]:
    return [_plain(row) for row in query]


def _plain(row: Table) -> dict[str, Any]:
    return plain(row, [name for name in row.__data__ if name not in _SECRET])


def delete_person(athlete: Athlete) -> dict[str, int]:
    """Delete every row of an athlete; how many of each table.

    To be called within a transaction. What was deleted is written over in the file.
    """
    database.pragma("secure_delete", 1)
    gone: dict[str, int] = {}

    def delete(table: type[Table], where: Any) -> None:
        gone[table._meta.table_name] = table.delete().where(where).execute()

    files = [
        number
        for (number,) in rows(
            Session.select(Session.came_with)
            .where(Session.athlete == athlete, Session.came_with.is_null(False))
            .distinct()
        )
    ]
    sessions = Session.select(Session.id).where(Session.athlete == athlete)
    sets = SetRow.select(SetRow.id).where(SetRow.session.in_(sessions))
    own = Movement.select(Movement.id).where(Movement.athlete == athlete)
    Session.update(plan=None).where(Session.athlete == athlete).execute()
    delete(SetMove, SetMove.set.in_(sets))
    delete(SetRow, SetRow.session.in_(sessions))
    delete(Version, Version.session.in_(sessions))
    delete(Session, Session.athlete == athlete)
    delete(MovementMuscle, MovementMuscle.movement.in_(own))
    for table in _own_tables():
        if table is not Session:
            delete(table, _of(table, athlete))
    # A file that brought nothing for anybody else goes, its name with it.
    others = Session.select(Session.came_with).where(Session.came_with.is_null(False))
    alone = [
        number
        for (number,) in rows(
            Import.select(Import.id).where(Import.id.in_(files), Import.id.not_in(others))
        )
    ]
    files_of_journal = [same_import(number) for number in alone]
    JournalEntry.delete().where(JournalEntry.same.in_(files_of_journal)).execute()
    delete(Import, Import.id.in_(alone))
    delete(Athlete, Athlete.id == athlete.id)
    return {name: count for name, count in gone.items() if count}


def forget_traces() -> None:
    """Empty what is beside the data file, where deleted pages may still stand.

    To be called outside of a transaction. Where somebody reads meanwhile, the next one does it.
    """
    try:
        database.execute_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    except pw.OperationalError:
        return
