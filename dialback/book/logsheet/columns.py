"""What the columns of a log mean: said by their heads, or chosen."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

from pydantic import BaseModel, ConfigDict, Field

from dialback.book.grid import Grid

DateOrder = Literal["ymd", "dmy", "mdy"]
Unit = Literal["kg", "lb"]

DAY: Final = re.compile(r"(\d{1,4})[./\-\s](\d{1,2})[./\-\s](\d{2,4})(?:[T\s].*)?")
"""A day as spreadsheets write it; which number is the month is told apart."""


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
        match = DAY.fullmatch(str(row[at]).strip()) if at < len(row) else None
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
