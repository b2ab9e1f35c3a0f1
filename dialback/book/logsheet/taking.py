"""From the rows of a sheet to sessions."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from typing import Any

from pydantic import ValidationError

from dialback.book.errors import from_validation
from dialback.book.grid import QUOTE, Grid
from dialback.book.logsheet.cells import (
    RowError,
    day_cell,
    json_cell,
    number_cell,
    sides_cell,
    yes_cell,
)
from dialback.book.logsheet.columns import SheetChoice
from dialback.book.logsheet.names import SheetNames, Unknown
from dialback.book.workbook import Cell
from dialback.core.movements import MovementTable
from dialback.core.plain import odd_character
from dialback.core.sessions import KG_PER_LB, Session, Set, lies_ahead


@dataclass(frozen=True, slots=True)
class RowProblem:
    """What is wrong in a row of the file."""

    row: int
    column: str
    message: str


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
    taken = Taken()
    names = SheetNames(movements, choice.movements, choice.skip)
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
        except RowError as error:
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
    row: tuple[Cell, ...], choice: SheetChoice, names: SheetNames, today: date, athlete: str | None
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

    def number(name: str, least: float = 0, most: float = 1e6) -> float | None:
        return number_cell(cell(name), name, choice.decimal, least, most)

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
            ("rpe", number("session_rpe", most=10)),
            ("duration_min", number("duration_min", most=1440)),
        )
        if value is not None
    }
    title = str(cell("title") or "")[:200]
    if not named:
        return who, day, title, about, None
    values = json_cell(cell("more"), "more") | named
    unit = str(cell("unit") or choice.unit).casefold().rstrip("s.")
    if unit not in ("kg", "lb"):
        raise RowError("unit", f"{cell('unit')!r} is not a unit of a load: write kg or lb")
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
        values["sides"] = sides_cell(str(cell("sides")))
    if cell("note") is not None:
        values["note"] = str(cell("note"))
    if yes_cell(cell("warm_up")):
        values["warm_up"] = True
    if values.get("reps") is None and values.get("seconds") is None:
        raise RowError("reps", "needs reps or seconds: neither stands in this row")
    count = number("count", least=1, most=99)
    return who, day, title, about, [_set(values)] * int(count or 1)


def _set(values: dict[str, Any]) -> Set:
    try:
        return Set.model_validate(values)
    except ValidationError as error:
        (problem, *_) = from_validation(error).problems
        raise RowError(problem.place, problem.message) from None
