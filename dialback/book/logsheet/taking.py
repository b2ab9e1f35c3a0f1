"""From the rows of a sheet to sessions."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Final

from pydantic import ValidationError

from dialback.book.doubtful import nobody
from dialback.book.errors import from_validation
from dialback.book.grid import QUOTE, WORKSHEET, Grid
from dialback.book.logsheet.cells import (
    COUNTS,
    MINUTES,
    NO_UNITS,
    TIMES,
    Dose,
    RowError,
    day_cell,
    dose_cell,
    json_cell,
    load_cell,
    number_cell,
    sides_cell,
    yes_cell,
)
from dialback.book.logsheet.columns import AS_HOURS, SheetChoice
from dialback.book.logsheet.names import SheetNames, Unknown
from dialback.book.workbook import Cell
from dialback.core.kit import uses_dumbbells
from dialback.core.movements import MovementTable
from dialback.core.notation.names import one_sided
from dialback.core.plain import odd_character
from dialback.core.sense import Knowing
from dialback.core.sense.rows import Row, RowDoubt, RowSense
from dialback.core.sessions import KG_PER_LB, Session, Set, lies_ahead
from dialback.core.vocabulary import BY_HAND

_QUOTED: Final = re.compile(r"'[^']{0,200}'|“[^”]{0,200}”")
_NUMBER: Final = re.compile(r"[0-9]+(?:[-.,][0-9]+){0,3}")
_MOST_NAMED: Final = 12


@dataclass(frozen=True, slots=True)
class RowProblem:
    """What is wrong in a row of the file."""

    row: int
    column: str
    message: str
    worksheet: str = ""

    @property
    def told(self) -> str:
        """The message, with the worksheet where there are several."""
        return f"{self.worksheet}: {self.message}" if self.worksheet else self.message

    @property
    def kind(self) -> str:
        """What rows with the same problem have in common: the message without what stands there."""
        shape = _NUMBER.sub("#", _QUOTED.sub("…", self.message))
        return f"{self.column}: {shape}" if self.column else shape


@dataclass(frozen=True, slots=True)
class ProblemKind:
    """Rows with the same problem: how many, and the first of them."""

    kind: str
    rows: int
    first: RowProblem


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
    notes: list[str] = field(default_factory=list)
    """What was settled without being said."""
    asks_dumbbells: bool = False
    """Whether rows leave open what a load is of."""
    doubts: list[RowDoubt] = field(default_factory=list)
    """What makes little sense, and is to be answered."""
    left: list[tuple[int, str]] = field(default_factory=list)
    """Rows that are left out because somebody said so: their numbers, and why each."""

    def kinds(self) -> list[ProblemKind]:
        """The problems by kind, in the order of their first rows."""
        counts = Counter(problem.kind for problem in self.problems)
        firsts: dict[str, RowProblem] = {}
        for problem in self.problems:
            firsts.setdefault(problem.kind, problem)
        return [ProblemKind(kind, counts[kind], first) for kind, first in firsts.items()]


def take(
    grid: Grid,
    choice: SheetChoice,
    movements: MovementTable,
    today: date,
    athlete: str | None = None,
    seen: Callable[[int], None] = lambda _: None,
) -> Taken:
    """The sessions of a sheet. Rows with a problem are told, and left out.

    Those of movements that are to be skipped are left out, too.

    ``athlete`` is whose rows they are where no column says it.
    """
    taken = Taken(notes=list(grid.notes))
    left = Left()
    names = SheetNames(movements, choice.movements, choice.skip)
    found: dict[tuple[str, date, str], tuple[int, dict[str, Any], list[Row]]] = {}
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
            who, day, title, about, sets = _row(row, choice, names, today, athlete, left)
        except RowError as error:
            worksheet = str(row[-1]) if grid.heads[-1] == WORKSHEET else ""
            problem = RowProblem(number, error.column, str(error), worksheet)
            if problem.kind in choice.left_out:
                left.out.append(number)
                taken.left.append((number, problem.told))
            else:
                taken.problems.append(problem)
            continue
        if sets == []:
            taken.left.append((number, "skipped for its movement"))
        elif sets is not None:
            _, _, rows = found.setdefault((who, day, title), (number, about, []))
            rows.append(Row(f"row {number}", who, sets))
        if at % 500 == 0:
            seen(at)
    sense = RowSense(Knowing(nobody(movements, choice.unit), today), choice.doubts)
    sense.look([row for _, _, rows in found.values() for row in rows])
    taken.doubts = sense.doubts()
    for (who, day, title), (number, about, rows) in found.items():
        sets = [a_set for row in rows for a_set in row.sets]
        if not sets:
            continue
        try:
            session = Session.model_validate({"date": day, "title": title, "sets": sets, **about})
        except ValidationError as error:
            taken.problems.append(RowProblem(number, "", from_validation(error).line))
            continue
        taken.sessions.append(SheetSession(who, number, session))
    taken.unknown = names.unknown()
    taken.notes += left.notes(choice)
    taken.asks_dumbbells = bool(left.dumbbells)
    if taken.asks_dumbbells and not choice.dumbbells:
        taken.problems.append(
            RowProblem(1, "load", "say whether a load is that of one dumbbell, or of the pair")
        )
    return taken


def rows_left(grid: Grid, taken: Taken) -> Iterator[tuple[Cell, ...]]:
    """The rows that were left out as they stand in the file, each with the reason behind it."""
    why = dict(taken.left)
    for number, row in grid.rows:
        if number in why:
            yield (*row, f"row {number}: {why[number]}")


_NUMBERS: Final = (
    ("reps", COUNTS, 10_000),
    ("seconds", TIMES, 86_400),
    ("rpe", NO_UNITS, 10),
    ("rest_s", TIMES, 86_400),
    ("hold_s", TIMES, 86_400),
    ("partial_reps", COUNTS, 10_000),
    ("implements", COUNTS, 10),
    ("measured_reps", COUNTS, 10_000),
    ("measured_tension_s", TIMES, 86_400),
)
"""Numbers of a set: the column, the units that may stand behind one, and the most it can be."""


def _row(
    row: tuple[Cell, ...],
    choice: SheetChoice,
    names: SheetNames,
    today: date,
    athlete: str | None,
    left: Left,
) -> tuple[str, date, str, dict[str, Any], list[Set] | None]:
    def cell(name: str) -> Cell:
        at = choice.columns.get(name)
        value = row[at] if at is not None and at < len(row) else None
        if isinstance(value, str):
            value = value.strip()
            value = value[1:] if value.startswith(QUOTE) else value
            odd = odd_character(value)
            if odd is not None:
                raise RowError(name, odd)
        return None if value == "" else value

    def number(
        name: str, units: Mapping[str, float], most: float, least: float = 0
    ) -> float | None:
        value = cell(name)
        if units is TIMES and choice.times == "clock" and isinstance(value, str):
            value = AS_HOURS.sub(r"\1:\2", value)
        return number_cell(value, name, choice.decimal, least, most, units)

    day = day_cell(cell("date"), choice.date_order)
    if lies_ahead(day, today):
        raise RowError("date", f"{day} lies ahead: a log is of what was done")
    who = str(cell("athlete") or athlete or "")
    if not who:
        raise RowError("athlete", "is missing")
    named = names.moves(str(cell("movement") or ""))
    about = json_cell(cell("session_more"), "session_more")
    about |= {
        key: value
        for key, value in (
            ("rpe", number("session_rpe", NO_UNITS, 10)),
            ("duration_min", number("duration_min", MINUTES, 1440)),
        )
        if value is not None
    }
    title = str(cell("title") or "")[:200]
    if not named:
        # Nobody knows it, or its rows are to be left out.
        return who, day, title, about, None if named is None else []
    doses = _doses(cell("reps"))
    values = json_cell(cell("more"), "more") | named
    unit = str(cell("unit") or choice.unit).casefold().rstrip("s.")
    if unit not in ("kg", "lb"):
        raise RowError("unit", f"{cell('unit')!r} is not a unit of a load: write kg or lb")
    load, unit = load_cell(cell("load"), unit, choice.decimal)
    if load is not None:
        values["load_kg"] = round(load * KG_PER_LB, 3) if unit == "lb" else load
        if unit == "lb" and load:
            values["unit"] = "lb"
    for name, units, most in _NUMBERS:
        if doses is not None and name == "reps":
            continue
        value = number(name, units, most)
        if value is not None:
            plain_minutes = name == "seconds" and choice.times == "min" and _is_plain(cell(name))
            values[name] = value * 60 if plain_minutes else value
    for name in ("tempo", "part"):
        if cell(name) is not None:
            values[name] = str(cell(name))
    if cell("sides") is not None:
        values["sides"] = sides_cell(str(cell("sides")))
    if cell("note") is not None:
        values["note"] = str(cell("note"))
    if yes_cell(cell("warm_up")):
        values["warm_up"] = True
    _settle(values, choice, names, left)
    if doses is not None and _is_timed_of(doses, values, names):
        raise RowError("reps", f"{cell('reps')!r} is a time: put it into a column of seconds")
    count = int(number("count", COUNTS, 99, least=1) or 1)
    if doses is not None:
        several = [_set(values | dose.keys) for dose in doses for _ in range(dose.sets)]
        if count not in (1, len(several)) and len(several) > 1:
            raise RowError("reps", f"{cell('reps')} are {len(several)} sets, the row says {count}")
        return who, day, title, about, several if len(several) > 1 else several * count
    if values.get("reps") is None and values.get("seconds") is None:
        raise RowError("reps", "needs reps or seconds: this row has neither")
    return who, day, title, about, [_set(values)] * count


def _is_timed_of(doses: Iterable[Dose], values: Mapping[str, Any], names: SheetNames) -> bool:
    """Whether a time that is too long for a set stands among the reps of a counted movement.

    ``45 s`` are those of a timed set, whatever the column is called.
    """
    name = values.get("exercise")
    if name is None or not any(dose.keys.get("seconds", 0) > _LONGEST_SET_S for dose in doses):
        return False
    movement = names.movements[name]
    return movement.counted and not movement.isometric


_LONGEST_SET_S: Final = 120
"""Of a counted movement. Dial Back's own choice: what is longer belongs to another column."""


def _doses(said: Cell) -> tuple[Dose, ...] | None:
    """The sets that a cell of reps says in words; ``None`` for a number, or nothing."""
    if not isinstance(said, str) or not re.search(r"[^0-9.,\s]|[0-9][,/ ]+[0-9]", said):
        return None
    if re.fullmatch(r"[0-9]+(?:[.,]0+)?", said.strip()):
        return None
    return dose_cell(said)


def _is_plain(cell: Cell) -> bool:
    """Whether a time has no unit of its own and is no clock."""
    return not isinstance(cell, str) or not re.search(r"[a-z:]", cell, re.IGNORECASE)


def _settle(values: dict[str, Any], choice: SheetChoice, names: SheetNames, left: Left) -> None:
    """What a movement asks for and the row does not say: each side, a pair of dumbbells."""
    name = values.get("exercise")
    if name is None:
        return
    movement = names.movements[name]
    # Where a column of its own says it, an empty cell says none.
    if "sides" not in choice.columns and "sides" not in values and one_sided(movement):
        values["sides"] = "each"
        left.each_side += 1
    pair = uses_dumbbells(movement) and not one_sided(movement) and movement.pattern in BY_HAND
    said = "implements" in choice.columns or "implements" in values
    if pair and values.get("load_kg") and not said:
        left.dumbbells += 1
        if choice.dumbbells == "one":
            values["implements"] = 2


@dataclass(slots=True)
class Left:
    """What the rows left open, and how often."""

    each_side: int = 0
    dumbbells: int = 0
    out: list[int] = field(default_factory=list)
    """Rows that were left out with their problem."""

    def notes(self, choice: SheetChoice) -> Iterator[str]:
        """What was settled without being said, and what is to be said."""
        if self.out:
            which = ", ".join(map(str, self.out[:_MOST_NAMED]))
            more = " …" if len(self.out) > _MOST_NAMED else ""
            count = len(self.out)
            what = "1 row is left out" if count == 1 else f"{count} rows are left out"
            yield f"{what}: row {which}{more}"
        if self.each_side:
            rows = _rows(self.each_side, "of one-sided movements", "says", "say")
            yield f"{rows} no side: read as each side"
        if self.dumbbells and not choice.dumbbells:
            rows = _rows(self.dumbbells, "of dumbbells", "does", "do")
            yield (
                f"{rows} not say how many: say whether the load is that of one dumbbell, or of both"
            )


def _rows(count: int, of: str, one: str, several: str) -> str:
    return f"1 row {of} {one}" if count == 1 else f"{count} rows {of} {several}"


def _set(values: dict[str, Any]) -> Set:
    try:
        return Set.model_validate(values)
    except ValidationError as error:
        (problem, *_) = from_validation(error).problems
        raise RowError(problem.place, problem.message) from None
