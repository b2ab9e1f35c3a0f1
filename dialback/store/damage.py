"""Rows that cannot be read as they should: found by looking at every value, named, mended.

What another program, a fault of the disk or a hand in the file has left. Reading goes on around
it (`store.fields`, `store.sessions`); here it is said which row it is and what can be done.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Final, get_args

import peewee as pw

from dialback.core.cautions import Kind
from dialback.core.decisions import DecisionKind
from dialback.core.roles import ROLES
from dialback.core.sessions import Sides
from dialback.core.tempo import parse_tempo
from dialback.core.vocabulary import BASES, LEVELS, MUSCLES, PATTERNS
from dialback.core.weeks import Week
from dialback.store.fields import DayField, JsonField, NumberField, WholeField, WordsField
from dialback.store.journal import Entry
from dialback.store.models import TABLES, Session, SetMove, SetRow, Table, database

_SHOWN: Final = 40
_MOST: Final = 1000
"""So many damaged rows are told of; a file that has more is past mending by hand."""


def _one_of(*known: str) -> Callable[[str], object]:
    def check(value: str) -> None:
        if value not in known:
            raise ValueError(value)

    return check


_MEANS: Final[Mapping[tuple[str, str], Callable[[str], object]]] = {
    ("session", "basis"): _one_of(*BASES),
    ("set", "sides"): _one_of(*get_args(Sides)),
    ("set", "tempo"): parse_tempo,
    ("movement", "tempo"): parse_tempo,
    ("movement", "pattern"): _one_of(*PATTERNS),
    ("movement_muscle", "muscle"): _one_of(*MUSCLES),
    ("movement_muscle", "role"): _one_of("direct", "indirect"),
    ("block", "first_week"): Week.parse,
    ("draft", "week"): Week.parse,
    ("acceptance", "week"): Week.parse,
    ("acceptance", "basis"): _one_of(*BASES),
    ("acceptance", "level"): _one_of(*LEVELS),
    ("signature", "week"): Week.parse,
    ("account", "role"): _one_of(*ROLES),
    ("caution", "kind"): _one_of(*get_args(Kind)),
    ("decision", "kind"): _one_of(*get_args(DecisionKind)),
    ("decision", "level"): _one_of(*LEVELS),
    ("restriction", "about"): _one_of("movement", "pattern", "muscle", "tempo"),
    ("house", "unit"): _one_of("kg", "lb"),
}
"""Texts that have to be one of a few, or of a form, with what refuses others."""


@dataclass(frozen=True, slots=True)
class Damage:
    """A value that cannot be read; ``mend`` is what ``check --mend`` puts there, in words.

    ``athlete`` is whose it is, where it is somebody's.
    """

    table: str
    row: int
    column: str
    value: str
    mend: str | None
    sql: tuple[str, tuple[Any, ...]] | None
    athlete: int | None = None
    where: str = ""

    @property
    def words(self) -> str:
        """As it is told: which row, what stands there, what helps."""
        of = f" ({self.where})" if self.where else ""
        remedy = (
            f"'dialback check --mend' {self.mend}"
            if self.mend
            else "put a copy back that has it, with 'dialback restore'"
        )
        return f"{self.table} {self.row}{of}: {self.column} is {self.value}; {remedy}"


def find() -> list[Damage]:
    """Every damaged value of the data file that is open, a thousand at most."""
    found: list[Damage] = []
    for damage in _all():
        found.append(damage)
        if len(found) >= _MOST:
            break
    return found


def _all() -> Iterator[Damage]:
    yield from _astray()
    for table in TABLES:
        name = table._meta.table_name
        for field in table._meta.sorted_fields:
            if isinstance(field, pw.AutoField | pw.ForeignKeyField):
                continue
            column = field.column_name
            where = _unreadable(field, column)
            if where is not None:
                yield from _damaged(table, field, where, ())
            means = _MEANS.get((name, column))
            if means is not None:
                for value in _unmeant(name, column, means):
                    yield from _damaged(table, field, f'"{column}" = ?', (value,))


def _unreadable(field: pw.Field, column: str) -> str | None:
    """The condition under which a value is not of its kind."""
    quoted = f'"{column}"'
    there = f"{quoted} IS NOT NULL AND "
    match field:
        case JsonField():
            made = field.default() if callable(field.default) else None
            kind = {"dict": "object", "list": "array"}.get(type(made).__name__)
            valid = f"json_valid({quoted})"
            if kind is not None:
                valid = f"CASE WHEN {valid} THEN json_type({quoted}) = '{kind}' ELSE 0 END"
            return f"{there}(typeof({quoted}) != 'text' OR NOT {valid})"
        case DayField():
            return f"{there}(date({quoted}) IS NULL OR date({quoted}) != {quoted})"
        case pw.BooleanField():
            return f"{quoted} IS NULL OR {quoted} NOT IN (0, 1)" if not field.null else None
        case WholeField():
            return f"{there}typeof({quoted}) != 'integer'"
        case NumberField():
            return f"{there}(typeof({quoted}) NOT IN ('integer', 'real') OR abs({quoted}) > 1e300)"
        case WordsField():
            return f"{there}typeof({quoted}) != 'text'"
    return None


def _unmeant(table: str, column: str, means: Callable[[str], object]) -> Iterator[str]:
    """The texts of a column that mean nothing."""
    for (value,) in _execute(f'SELECT DISTINCT "{column}" FROM "{table}"'):  # noqa: S608
        try:
            if isinstance(value, str):
                means(value)
        except ValueError:
            yield value


def _execute(sql: str, values: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    run: Any = database.execute_sql
    found: list[tuple[Any, ...]] = run(sql, values).fetchall()
    return found


def _damaged(
    table: type[Table], field: pw.Field, where: str, values: tuple[Any, ...]
) -> Iterator[Damage]:
    name, column = table._meta.table_name, field.column_name
    told, instead = _mending(field)
    select = f'SELECT id, "{column}" FROM "{name}" WHERE {where}'  # noqa: S608
    for row, value in _execute(select, values):
        sql = f'UPDATE "{name}" SET "{column}" = ? WHERE id = ?'  # noqa: S608
        athlete, place = _whose(table, row)
        yield Damage(
            name,
            row,
            column,
            repr(value)[:_SHOWN],
            told,
            None if told is None else (sql, (instead, row)),
            athlete,
            place,
        )


def _mending(field: pw.Field) -> tuple[str | None, Any]:
    """What is put in the place of a value, in words too; nothing where nobody could guess it."""
    if field.null and field.name != "deleted_on":
        return "empties it", None
    if isinstance(field, JsonField):
        return "empties it", json.dumps(field.instead())
    if field.default is not None and not callable(field.default):
        return f"makes it {field.default!r}", field.default
    return None, None


def _whose(table: type[Table], row: int) -> tuple[int | None, str]:
    """Whose row it is, and where it stands."""
    if table in (SetRow, SetMove):
        of_set = "m.set_id" if table is SetMove else "m.id"
        found = _execute(
            f'SELECT s.athlete_id, s.date, t.position FROM "{table._meta.table_name}" m'  # noqa: S608
            f' JOIN "set" t ON t.id = {of_set} JOIN session s ON s.id = t.session_id'
            " WHERE m.id = ?",
            (row,),
        )
        if found:
            athlete, day, position = found[0]
            place = position + 1 if isinstance(position, int) else "?"
            return athlete, f"set {place} of the session of {day}"
        return None, ""
    if "athlete" not in table._meta.fields:
        return None, ""
    column = "athlete_id"
    found = _execute(f'SELECT {column} FROM "{table._meta.table_name}" WHERE id = ?', (row,))  # noqa: S608
    day = ""
    if table is Session:
        (stored,) = _execute("SELECT date, title FROM session WHERE id = ?", (row,))
        day = " ".join(str(one) for one in stored if one)
    return (found[0][0] if found else None), day


def _astray() -> Iterator[Damage]:
    """Rows that point to what is not there."""
    for table, row, parent, number in _execute("PRAGMA foreign_key_check"):
        columns = {one[0]: one for one in _execute(f'PRAGMA foreign_key_list("{table}")')}
        column = columns[number][3]
        model = next((one for one in TABLES if one._meta.table_name == table), None)
        field = None if model is None else model._meta.columns.get(column)
        if field is not None and field.null:
            sql = f'UPDATE "{table}" SET "{column}" = NULL WHERE rowid = ?'  # noqa: S608
            told = "lets go of the link"
        else:
            sql = f'DELETE FROM "{table}" WHERE rowid = ?'  # noqa: S608
            told = "deletes the row, which nothing can reach"
        (value,) = _execute(f'SELECT "{column}" FROM "{table}" WHERE rowid = ?', (row,))[0]  # noqa: S608
        yield Damage(
            table, row, column, f"{value}, a {parent} that is not there", told, (sql, (row,))
        )


def mend(found: list[Damage], entry: Entry) -> int:
    """Put right what can be put right; how many. To be called within a unit."""
    mended = 0
    for damage in found:
        if damage.sql is not None:
            sql, values = damage.sql
            run: Any = database.execute_sql
            run(sql, values)
            mended += 1
    if mended:
        run = database.execute_sql
        run("UPDATE athlete SET change = change + 1")
        run("UPDATE house SET change = change + 1")
        entry.tell(f"Mended {mended} damaged values")
    return mended
