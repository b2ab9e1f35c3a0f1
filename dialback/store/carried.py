"""What goes over from the file that was there when a copy is put back.

Who may sign in, so that no copy lets in who was let go since; and how far numbers were given, so
that nobody gets one that a device still knows as somebody else's.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from dialback.store.database import looking_at
from dialback.store.models import TABLES, Account, Athlete, Device, database


@dataclass(frozen=True, slots=True)
class Carried:
    """Accounts, each with the name of its athlete as ``called``; the last number of each table."""

    accounts: Sequence[Mapping[str, Any]]
    numbers: Mapping[str, int]


def carried_from(path: Path) -> Carried:
    """What goes over from a data file that was put aside; nothing where it cannot be read."""
    with looking_at(path) as connection:
        connection.row_factory = sqlite3.Row

        def found(sql: str) -> list[dict[str, Any]]:
            try:
                return [dict(row) for row in connection.execute(sql)]
            except sqlite3.DatabaseError:
                # An earlier form without that table, or a damaged one.
                return []

        accounts = found(
            "SELECT account.*, athlete.name AS called FROM account"
            " LEFT JOIN athlete ON athlete.id = account.athlete_id"
        )
        numbers: dict[str, int] = {}
        for name in (table._meta.table_name for table in TABLES):
            most = found(f'SELECT max(id) AS last FROM "{name}"')  # noqa: S608
            given = found(f"SELECT seq AS last FROM sqlite_sequence WHERE name = '{name}'")  # noqa: S608
            numbers[name] = max((row["last"] or 0 for row in (*most, *given)), default=0)
    return Carried(accounts, numbers)


def carry_over(carried: Carried | None) -> None:
    """Sign every device out; put these accounts in the place of the copy's, if there are any.

    The account of an athlete goes along where the copy has the same one. To be called within a
    unit.
    """
    Device.delete().execute()
    if carried is None:
        return
    for name, last in carried.numbers.items():
        execute: Any = database.execute_sql
        execute(
            "INSERT INTO sqlite_sequence (name, seq) SELECT ?, 0 WHERE NOT EXISTS"
            " (SELECT 1 FROM sqlite_sequence WHERE name = ?)",
            (name, name),
        )
        execute("UPDATE sqlite_sequence SET seq = max(seq, ?) WHERE name = ?", (last, name))
    if not carried.accounts:
        return
    Account.delete().execute()
    columns = {field.column_name: name for name, field in Account._meta.fields.items()}
    people = {row.id: row.name for row in Athlete.select()}
    for account in carried.accounts:
        of = account["athlete_id"]
        if of is None or people.get(of) == account["called"]:
            known = {columns[name]: account[name] for name in account if name in columns}
            recovery = Account.recovery.python_value(known.pop("recovery", "[]"))
            Account.insert(**known, recovery=recovery).execute()
