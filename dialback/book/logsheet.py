"""Logs as spreadsheets, one row a set: what the columns mean, in and out."""

from __future__ import annotations

import difflib
import json
import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta
from functools import lru_cache
from typing import Any, Final, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from dialback.book.errors import BadInputError, from_validation
from dialback.book.grid import QUOTE, Grid
from dialback.book.json_text import read_json
from dialback.book.workbook import Cell
from dialback.core.movements import MovementTable, fold
from dialback.core.notation.pieces import moves_text
from dialback.core.plain import odd_character
from dialback.core.sessions import KG_PER_LB, Session, Set, lies_ahead, parse_day

DateOrder = Literal["ymd", "dmy", "mdy"]
Unit = Literal["kg", "lb"]


@dataclass(frozen=True, slots=True)
class Column:
    """Something that a column can mean, and the heads that it is guessed from."""

    name: str
    title: str
    heads: tuple[str, ...] = ()


COLUMNS: Final = (
    Column("date", "day", ("date", "day", "datum", "when")),
    Column("athlete", "athlete", ("athlete", "name", "rower", "client", "person", "who")),
    Column("title", "session", ("session", "workout", "title", "training")),
    Column("session_rpe", "session's exertion", ("session rpe", "srpe", "session exertion")),
    Column("duration_min", "session's minutes", ("minutes", "duration", "duration min", "min")),
    Column("part", "part", ("part", "block", "section")),
    Column("movement", "movement", ("movement", "exercise", "lift", "übung")),
    Column("count", "number of sets", ("sets", "number of sets", "set count")),
    Column("reps", "reps", ("reps", "repetitions", "rep", "wdh")),
    Column("seconds", "seconds", ("seconds", "time", "sec", "secs", "time s", "s")),
    Column("load", "load", ("load", "weight", "kg", "lb", "lbs", "load kg", "weight kg",
                            "load lb", "weight lb", "gewicht")),
    Column("unit", "unit of the load", ("unit", "units", "weight unit")),
    Column("implements", "implements", ("implements", "dumbbells", "pieces")),
    Column("sides", "sides", ("side", "sides")),
    Column("tempo", "tempo", ("tempo",)),
    Column("rpe", "exertion", ("rpe", "exertion", "effort")),
    Column("rest_s", "rest, s", ("rest", "rest s", "rest sec")),
    Column("hold_s", "hold, s", ("hold", "hold s")),
    Column("partial_reps", "partial reps", ("partial reps", "partials")),
    Column("warm_up", "warm-up", ("warm up", "warmup", "is warmup")),
    Column("measured_reps", "measured reps", ("measured reps",)),
    Column("measured_tension_s", "measured tension, s", ("measured tension s",)),
    Column("note", "note", ("note", "notes", "comment", "comments", "remark")),
    Column("more", "further keys of the set", ("more",)),
    Column("session_more", "further keys of the session", ("session more",)),
)  # fmt: skip
"""Every meaning of a column. An export has all of them but ``count``, by these names."""

_EXPORTED: Final = tuple(one.name for one in COLUMNS if one.name != "count")


class SheetChoice(BaseModel):
    """What the columns of a sheet mean: places by meaning, counted from 0."""

    model_config = ConfigDict(extra="forbid")

    columns: dict[str, int] = Field(max_length=60)
    date_order: DateOrder = "dmy"
    decimal: Literal[".", ","] = "."
    unit: Unit = "kg"
    athlete: int | None = None
    movements: dict[str, str] = Field(default_factory=dict, max_length=2000)


@dataclass(frozen=True, slots=True)
class RowProblem:
    """What is wrong in a row of the file."""

    row: int
    column: str
    message: str


@dataclass(frozen=True, slots=True)
class Unknown:
    """A movement that nobody knows by that name: how often it stands there, and what is near."""

    name: str
    count: int
    near: tuple[str, ...]


@dataclass(slots=True)
class SheetSession:
    """A session of the sheet: whose, and its sets, with the row that it begins in."""

    athlete: str
    row: int
    session: Session


@dataclass(slots=True)
class Taken:
    """What a sheet comes to."""

    sessions: list[SheetSession] = field(default_factory=list)
    problems: list[RowProblem] = field(default_factory=list)
    unknown: list[Unknown] = field(default_factory=list)


def guess(grid: Grid) -> SheetChoice:
    """What the columns mean by their heads, and how days and numbers are written."""
    columns: dict[str, int] = {}
    plain = [_plain(head) for head in grid.heads]
    for column in COLUMNS:
        for wanted in (_plain(column.name), *column.heads):
            if wanted in plain and plain.index(wanted) not in columns.values():
                columns[column.name] = plain.index(wanted)
                break
    load = plain[columns["load"]] if "load" in columns else ""
    return SheetChoice(
        columns=columns,
        date_order=_guess_order(grid, columns.get("date")),
        decimal=_guess_decimal(grid, columns),
        unit="lb" if re.search(r"\blbs?\b", load) else "kg",
    )


def _plain(head: str) -> str:
    return " ".join(re.sub(r"[^\w]+", " ", head.casefold().replace("_", " ")).split())


def _guess_order(grid: Grid, at: int | None) -> DateOrder:
    if at is None:
        return "dmy"
    first, second = 0, 0
    for _, row in grid.rows[:2000]:
        match = _DAY.fullmatch(str(row[at]).strip()) if at < len(row) else None
        if match:
            if len(match[1]) == 4:
                return "ymd"
            first, second = max(first, int(match[1])), max(second, int(match[2]))
    return "mdy" if second > 12 >= first else "dmy"


def _guess_decimal(grid: Grid, columns: Mapping[str, int]) -> Literal[".", ","]:
    places = [columns[name] for name in ("load", "rpe", "seconds") if name in columns]
    texts = [
        str(row[at]) for _, row in grid.rows[:2000] for at in places
        if at < len(row) and isinstance(row[at], str)
    ]  # fmt: skip
    commas = sum("," in text for text in texts)
    return "," if commas > sum("." in text for text in texts) else "."


_LONGEST_NUMBER: Final = 40
_UNIT_BEHIND: Final = re.compile(r"(?:kgs?|lbs?|s|sec|min|x|×)$", re.IGNORECASE)
_DAY: Final = re.compile(r"(\d{1,4})[./\-\s](\d{1,2})[./\-\s](\d{2,4})(?:[T\s].*)?")
_SERIAL_FROM: Final = date(1899, 12, 30)
_SERIALS: Final = range(20_000, 80_000)


class _RowError(Exception):
    def __init__(self, column: str, message: str) -> None:
        self.column = column
        super().__init__(message)


def take(
    grid: Grid,
    choice: SheetChoice,
    movements: MovementTable,
    today: date,
    athlete: str | None = None,
    seen: Callable[[int], None] = lambda _: None,
) -> Taken:
    """The sessions of a sheet. Rows with a problem are told, and left out.

    ``athlete`` is whose rows they are where no column says it.
    """
    taken = Taken()
    names = _Names(movements, choice.movements)
    found: dict[tuple[str, date, str], tuple[int, dict[str, Any], list[Set]]] = {}
    missing = [name for name in ("date", "movement") if name not in choice.columns]
    if "athlete" not in choice.columns and athlete is None:
        missing.append("athlete")
    if missing:
        taken.problems.append(
            RowProblem(1, "", f"say which column is the {' and the '.join(missing)}")
        )
        return taken
    for at, (number, row) in enumerate(grid.rows):
        try:
            who, day, title, about, sets = _row(row, choice, names, today, athlete)
        except _RowError as error:
            taken.problems.append(RowProblem(number, error.column, str(error)))
            continue
        if sets is not None:
            known = found.setdefault((who, day, title), (number, about, []))
            known[2].extend(sets)
        if at % 500 == 0:
            seen(at)
    for (who, day, title), (number, about, sets) in found.items():
        try:
            session = Session.model_validate({"date": day, "title": title, "sets": sets, **about})
        except ValidationError as error:
            taken.problems.append(RowProblem(number, "", from_validation(error).line))
            continue
        taken.sessions.append(SheetSession(who, number, session))
    taken.unknown = names.unknown()
    return taken


def _row(
    row: tuple[Cell, ...], choice: SheetChoice, names: _Names, today: date, athlete: str | None
) -> tuple[str, date, str, dict[str, Any], list[Set] | None]:
    def cell(name: str) -> Cell:
        at = choice.columns.get(name)
        value = row[at] if at is not None and at < len(row) else None
        if isinstance(value, str):
            value = value.strip()
            value = value[1:] if value.startswith(QUOTE) else value
            odd = odd_character(value)
            if odd is not None:
                raise _RowError(name, odd)
        return None if value == "" else value

    def number(name: str, least: float = 0, most: float = 1e6) -> float | None:
        return _number(cell(name), name, choice.decimal, least, most)

    day = _day(cell("date"), choice.date_order)
    if lies_ahead(day, today):
        raise _RowError("date", f"{day} lies ahead: a log is of what was done")
    who = str(cell("athlete") or athlete or "")
    if not who:
        raise _RowError("athlete", "is missing")
    named = names.moves(str(cell("movement") or ""))
    about = _json(cell("session_more"), "session_more")
    about |= {
        key: value
        for key, value in (
            ("rpe", number("session_rpe", most=10)),
            ("duration_min", number("duration_min", most=1440)),
        )
        if value is not None
    }
    title = str(cell("title") or "")[:200]
    if named is None:
        return who, day, title, about, None
    values = _json(cell("more"), "more") | named
    unit = str(cell("unit") or choice.unit).casefold().rstrip("s.")
    if unit not in ("kg", "lb"):
        raise _RowError("unit", f"{cell('unit')!r} is not a unit of a load: write kg or lb")
    load = number("load", least=-1000, most=10_000)
    if load is not None:
        values["load_kg"] = round(load * KG_PER_LB, 3) if unit == "lb" else load
        if unit == "lb" and load:
            values["unit"] = "lb"
    for name, most in (
        ("reps", 10_000), ("seconds", 86_400), ("rpe", 10), ("rest_s", 86_400), ("hold_s", 86_400),
        ("partial_reps", 10_000), ("implements", 10), ("measured_reps", 10_000),
        ("measured_tension_s", 86_400),
    ):  # fmt: skip
        value = number(name, most=most)
        if value is not None:
            values[name] = value
    for name in ("tempo", "part"):
        if cell(name) is not None:
            values[name] = str(cell(name))
    if cell("sides") is not None:
        values["sides"] = _sides(str(cell("sides")))
    if cell("note") is not None:
        values["note"] = str(cell("note"))
    if _yes(cell("warm_up")):
        values["warm_up"] = True
    if values.get("reps") is None and values.get("seconds") is None:
        raise _RowError("reps", "needs reps or seconds: neither stands in this row")
    count = number("count", least=1, most=99)
    return who, day, title, about, [_set(values)] * int(count or 1)


def _set(values: dict[str, Any]) -> Set:
    try:
        return Set.model_validate(values)
    except ValidationError as error:
        (problem, *_) = from_validation(error).problems
        raise _RowError(problem.place, problem.message) from None


def _json(cell: Cell, column: str) -> dict[str, Any]:
    if cell is None:
        return {}
    try:
        found = read_json(str(cell).encode("utf-8", "surrogatepass"), "the cell")
    except BadInputError as error:
        raise _RowError(column, error.problems[0].message) from None
    if not isinstance(found, dict):
        raise _RowError(column, "is not a JSON object, as an export writes it")
    return found


def _number(cell: Cell, column: str, decimal: str, least: float, most: float) -> float | None:
    if cell is None:
        return None
    if isinstance(cell, (bool, date)):
        raise _RowError(column, f"{cell} is not a number")
    if isinstance(cell, str):
        value = _parse(cell, decimal)
        if value is None:
            raise _RowError(column, f"{cell!r} is not a number")
    else:
        value = float(cell)
    if not least <= value <= most:
        raise _RowError(column, f"{value:g} is out of range: from {least:g} to {most:g}")
    return value


@lru_cache(maxsize=8192)
def _parse(text: str, decimal: str) -> float | None:
    if len(text) > _LONGEST_NUMBER:
        return None
    bare = text.replace("\u202f", "").replace("\xa0", "").strip()
    plain = _UNIT_BEHIND.sub("", bare).rstrip()
    groups = "," if decimal == "." else "."
    if re.fullmatch(rf"[-+−]?\d{{1,3}}(?:\{groups}\d{{3}})+(?:\{decimal}\d+)?", plain):
        plain = plain.replace(groups, "")
    plain = plain.replace(decimal, ".").replace("−", "-")
    try:
        value = float(plain)
    except ValueError:
        return None
    return value if abs(value) < 1e12 else None


def _day(cell: Cell, order: DateOrder) -> date:
    if isinstance(cell, date):
        return cell
    if isinstance(cell, (int, float)) and not isinstance(cell, bool):
        # How spreadsheets keep a day whose format got lost.
        if int(cell) in _SERIALS:
            return _SERIAL_FROM + timedelta(days=int(cell))
        raise _RowError("date", f"{cell} is not a day")
    if cell is None:
        raise _RowError("date", "is missing")
    return _day_of(str(cell), order)


@lru_cache(maxsize=8192)
def _day_of(text: str, order: DateOrder) -> date:
    match = _DAY.fullmatch(text.strip())
    if match is None:
        raise _RowError("date", f"{text!r} is not a day: write 2026-10-05, or choose the order")
    first, second, third = match.groups()
    if len(first) == 4:
        year, month, day = first, second, third
    elif order == "mdy":
        month, day, year = first, second, third
    else:
        day, month, year = first, second, third
    if len(year) == 2:
        year = f"20{year}"
    try:
        found = parse_day(f"{int(year):04d}-{int(month):02d}-{int(day):02d}")
    except ValueError as error:
        raise _RowError("date", f"{text!r}: {error}") from None
    assert isinstance(found, date)  # noqa: S101 - parse_day gives a date for a text
    return found


_SIDES: Final = {
    "both": "both", "each": "each", "each side": "each", "per side": "each",
    "alternating": "alternating", "alt": "alternating",
    "left": "left", "l": "left", "right": "right", "r": "right",
}  # fmt: skip


def _sides(text: str) -> str:
    found = _SIDES.get(text.casefold())
    if found is None:
        raise _RowError("sides", f"{text!r} is not a side: both, each, alternating, left or right")
    return found


def _yes(cell: Cell) -> bool:
    return cell is True or str(cell).casefold() in ("yes", "y", "true", "1", "x", "warm-up", "w")


class _Names:
    """Movement names of a sheet: known ones, those that were chosen, and those that are neither."""

    def __init__(self, movements: MovementTable, chosen: Mapping[str, str]) -> None:
        self.movements = movements
        aliases = {
            fold(alias): movement.name for movement in movements for alias in movement.aliases
        }
        self._called = {**aliases, **{fold(movement.name): movement.name for movement in movements}}
        self._called |= {
            fold(name): movements[to].name for name, to in chosen.items() if to in movements
        }
        self._found: dict[str, dict[str, Any] | None] = {}
        self._unknown: Counter[str] = Counter()

    def moves(self, text: str) -> dict[str, Any] | None:
        """The keys of a set that name its movement; ``None`` for one that nobody knows."""
        if not text:
            raise _RowError("movement", "is missing")
        if text not in self._found:
            self._found[text] = self._look(text)
        found = self._found[text]
        if found is None:
            self._unknown[text] += 1
        return found and dict(found)

    def _look(self, text: str) -> dict[str, Any] | None:
        name = self._called.get(fold(text))
        if name is not None:
            return {"exercise": name}
        moves = []
        for piece in text.split(" + "):
            match = re.fullmatch(r"(?:(\d+(?:\.\d+)?)\s+)?(.+)", piece.strip())
            one = self._called.get(fold(piece)) or (match and self._called.get(fold(match[2])))
            if one is None or match is None:
                return None
            times = float(match[1]) if match[1] and fold(piece) not in self._called else 1.0
            moves.append({"exercise": one, "times": times})
        return {"moves": moves}

    def unknown(self) -> list[Unknown]:
        """The names that nobody knows, the most frequent first."""
        return [
            Unknown(name, count, self._near(name)) for name, count in self._unknown.most_common()
        ]

    def _near(self, name: str) -> tuple[str, ...]:
        words = set(fold(name).split())
        close = difflib.get_close_matches(fold(name), self._called, n=3, cutoff=0.5)
        shared = sorted(
            (one for one in self._called if words & set(one.replace("-", " ").split())),
            key=lambda one: -len(words & set(one.replace("-", " ").split())),
        )
        return tuple(dict.fromkeys(self._called[one] for one in [*close, *shared[:3]]))[:4]


def rows_of(sessions: Iterable[tuple[str, Session]]) -> Iterator[list[Cell]]:
    """Rows of an export, one a set, of athletes' names with their sessions."""
    for athlete, session in sessions:
        more = session.model_dump(
            mode="json", exclude_defaults=True,
            exclude={"date", "title", "rpe", "duration_min", "sets"},
        )  # fmt: skip
        about: dict[str, Cell] = {
            "athlete": athlete,
            "date": session.date,
            "title": session.title,
            "session_rpe": session.rpe,
            "duration_min": session.duration_min,
            "session_more": json.dumps(more, ensure_ascii=False) if more else None,
        }
        for a_set in session.sets:
            yield [(about | _cells(a_set)).get(name) for name in _EXPORTED]


def _cells(a_set: Set) -> dict[str, Cell]:
    values = a_set.model_dump(mode="json", exclude_defaults=True)
    values.pop("exercise", None)
    values.pop("moves", None)
    cells: dict[str, Cell] = {"movement": moves_text(a_set.named_moves())}
    if a_set.load_kg:
        pounds = round(a_set.load_kg / KG_PER_LB, 2)
        # As it was entered, where that comes to the same kilograms again.
        if values.get("unit") == "lb" and round(pounds * KG_PER_LB, 3) == a_set.load_kg:
            del values["unit"]
            cells |= {"load": pounds, "unit": "lb"}
        else:
            cells |= {"load": a_set.load_kg, "unit": "kg"}
        del values["load_kg"]
    for name in _EXPORTED:
        # The unit of a set without a load is a key of its own, not that of the column.
        if name in values and name != "unit":
            cells[name] = values.pop(name)
    if values:
        cells["more"] = json.dumps(values, ensure_ascii=False)
    return cells


def export_heads() -> tuple[str, ...]:
    """The heads of an export."""
    return _EXPORTED
