"""What the columns of a log mean: said by their heads, or chosen."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

from pydantic import BaseModel, ConfigDict, Field

from dialback.book.grid import Grid
from dialback.core.words import Unit

DateOrder = Literal["ymd", "dmy", "mdy"]

DAY: Final = re.compile(r"(\d{1,4})[./\-\s](\d{1,2})[./\-\s](\d{2,4})(?:[T\s].*)?")
"""A day as spreadsheets write it; which number is the month is told apart."""


@dataclass(frozen=True, slots=True)
class Column:
    """Something that a column can mean, and the heads that it is guessed from."""

    name: str
    title: str
    heads: tuple[str, ...] = ()


COLUMNS: Final = (
    Column("date", "day", ("date", "day", "datum", "when", "session date", "workout date",
                            "training date")),
    Column("athlete", "athlete", ("athlete", "name", "rower", "client", "person", "who",
                                   "athlete name", "player")),
    Column("title", "session", ("session", "workout", "title", "training", "session name",
                                "workout name")),
    Column("session_rpe", "session's exertion", ("session rpe", "srpe", "session exertion")),
    Column("duration_min", "session's minutes", ("minutes", "duration", "duration min", "min",
                                                  "session minutes")),
    Column("part", "part", ("part", "block", "section")),
    Column("movement", "movement", ("movement", "exercise", "lift", "übung", "exercise name",
                                    "movement name")),
    Column("count", "number of sets", ("sets", "number of sets", "set count", "no of sets")),
    Column("reps", "reps", ("reps", "repetitions", "rep", "wdh", "reps done")),
    Column("seconds", "seconds", ("seconds", "time", "sec", "secs", "time s", "s")),
    Column("load", "load", ("load", "weight", "kg", "kgs", "kilos", "lb", "lbs", "pounds",
                            "load kg", "load kgs", "load lb", "load lbs", "weight kg", "weight kgs",
                            "weight lb", "weight lbs", "weight used", "gewicht")),
    Column("unit", "unit of the load", ("unit", "units", "weight unit")),
    Column("implements", "implements", ("implements", "dumbbells", "pieces")),
    Column("sides", "sides", ("side", "sides")),
    Column("tempo", "tempo", ("tempo",)),
    Column("rpe", "exertion", ("rpe", "exertion", "effort", "set rpe")),
    Column("rest_s", "rest, s", ("rest", "rest s", "rest sec", "rest seconds", "rest time")),
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


class SheetChoice(BaseModel):
    """What the columns of a sheet mean: places by meaning, counted from 0."""

    model_config = ConfigDict(extra="forbid")

    columns: dict[str, int] = Field(max_length=60)
    date_order: DateOrder = "dmy"
    decimal: Literal[".", ","] = "."
    unit: Unit = "kg"
    athlete: int | None = None
    movements: dict[str, str] = Field(default_factory=dict, max_length=2000)
    like: dict[str, str] = Field(
        default_factory=dict,
        max_length=500,
        description="Names to make movements of: each with what it is like",
    )
    skip: list[str] = Field(
        default_factory=list, max_length=500, description="Names whose rows are left out"
    )
    take_on: bool = Field(False, description="Take athletes on whom the roster does not have")


@dataclass(frozen=True, slots=True)
class Guess:
    """What a sheet probably means, and what speaks for it, by the field of the choice."""

    choice: SheetChoice
    why: dict[str, str]


def guess(grid: Grid, *, unit: Unit = "kg") -> Guess:
    """What the columns mean by their heads, and how days and numbers are written.

    ``unit`` is that of the house: it holds where the file does not say.
    """
    columns: dict[str, int] = {}
    plain = [_plain(head) for head in grid.heads]
    for column in COLUMNS:
        for wanted in (_plain(column.name), *column.heads):
            if wanted in plain and plain.index(wanted) not in columns.values():
                columns[column.name] = plain.index(wanted)
                break
    order, why_order = _guess_order(grid, columns.get("date"))
    decimal, why_decimal = _guess_decimal(grid, columns)
    said, why_unit = _guess_unit(grid, columns, unit)
    return Guess(
        SheetChoice(columns=columns, date_order=order, decimal=decimal, unit=said),
        {"date_order": why_order, "decimal": why_decimal, "unit": why_unit},
    )


def _plain(head: str) -> str:
    return " ".join(re.sub(r"[^\w]+", " ", head.casefold().replace("_", " ")).split())


_LOOKED_AT: Final = 2000
"""So many rows tell how the others are written."""


def _guess_order(grid: Grid, at: int | None) -> tuple[DateOrder, str]:
    cells = [row[at] for _, row in grid.rows[:_LOOKED_AT] if at is not None and at < len(row)]
    days = [match for cell in cells if (match := DAY.fullmatch(str(cell).strip()))]
    if not days:
        return "dmy", "no date shows the order"
    for match in days:
        if len(match[1]) == 4:
            return "ymd", f"{match[0]} has the year first"
    day_first = next((one for one in days if int(one[1]) > 12), None)
    month_first = next((one for one in days if int(one[2]) > 12), None)
    if day_first and month_first:
        return "dmy", f"{day_first[0]} has the day first, but {month_first[0]} the month"
    if month_first:
        return "mdy", f"{month_first[0]} can only have the month first"
    if day_first:
        return "dmy", f"{day_first[0]} can only have the day first"
    return "dmy", f"nothing settles it: {days[0][0]} could be either, so check"


def _guess_decimal(grid: Grid, columns: Mapping[str, int]) -> tuple[Literal[".", ","], str]:
    places = [columns[name] for name in ("load", "rpe", "seconds") if name in columns]
    texts = [
        str(row[at])
        for _, row in grid.rows[:_LOOKED_AT]
        for at in places
        if at < len(row) and isinstance(row[at], str)
    ]
    commas, points = ([text for text in texts if mark in text] for mark in ",.")
    if len(commas) > len(points):
        return ",", f"as in {commas[0].strip()}"
    return ".", f"as in {points[0].strip()}" if points else "no decimals to go by"


_UNITS_IN_HEADS: Final[tuple[tuple[Unit, re.Pattern[str]], ...]] = (
    ("lb", re.compile(r"\b(?:lbs?|pounds?)\b")),
    ("kg", re.compile(r"\b(?:kgs?|kilos?|kilograms?)\b")),
)


def _guess_unit(grid: Grid, columns: Mapping[str, int], house: Unit) -> tuple[Unit, str]:
    if "load" not in columns:
        return house, "no column of loads"
    head = grid.heads[columns["load"]].strip()
    for unit, pattern in _UNITS_IN_HEADS:
        if pattern.search(_plain(head)):
            return unit, f"the head says “{head}”"
    if "unit" in columns:
        return house, "where a row does not say its own"
    return house, "the file does not say: your house’s unit, so check"
