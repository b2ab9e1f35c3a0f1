"""What the columns of a log mean: said by their heads, or chosen."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal, NamedTuple

from pydantic import BaseModel, ConfigDict, Field

from dialback.book.grid import WORKSHEET, Grid
from dialback.book.workbook import Cell
from dialback.core.words import Unit

DateOrder = Literal["ymd", "dmy", "mdy"]
Times = Literal["s", "min", "clock"]

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
                                    "movement name", "what", "what was done")),
    Column("count", "number of sets", ("sets", "number of sets", "set count", "no of sets")),
    Column("reps", "reps", ("reps", "repetitions", "rep", "wdh", "reps done", "how", "how many",
                            "sets x reps", "sets reps", "sets and reps", "dose")),
    Column("seconds", "seconds", ("seconds", "time", "sec", "secs", "time s", "s", "time min",
                                  "set time", "work s", "work", "hold time", "duration s",
                                  "minutes per set", "min per set")),
    Column("load", "load", ("load", "weight", "kg", "kgs", "kilos", "lb", "lbs", "pounds",
                            "load kg", "load kgs", "load lb", "load lbs", "weight kg", "weight kgs",
                            "weight lb", "weight lbs", "weight used", "gewicht", "load used")),
    Column("unit", "unit of the load", ("unit", "units", "weight unit")),
    Column("implements", "implements", ("implements", "dumbbells", "pieces")),
    Column("sides", "sides", ("side", "sides")),
    Column("tempo", "tempo", ("tempo",)),
    Column("rpe", "exertion", ("rpe", "exertion", "effort", "set rpe", "felt", "how hard",
                              "how it felt")),
    Column("rest_s", "rest, s", ("rest", "rest s", "rest sec", "rest seconds", "rest time")),
    Column("hold_s", "hold, s", ("hold", "hold s")),
    Column("partial_reps", "partial reps", ("partial reps", "partials")),
    Column("warm_up", "warm-up", ("warm up", "warmup", "is warmup")),
    Column("measured_reps", "measured reps", ("measured reps",)),
    Column("measured_tension_s", "measured tension, s", ("measured tension s",)),
    Column("note", "note", ("note", "notes", "comment", "comments", "remark", "remarks")),
    Column("more", "other details of the set", ("more",)),
    Column("session_more", "other details of the session", ("session more",)),
)  # fmt: skip
"""Every meaning of a column. An export has all of them but ``count``, by these names."""


class SheetChoice(BaseModel):
    """What the columns of a sheet mean: places by meaning, counted from 0."""

    model_config = ConfigDict(extra="forbid")

    columns: dict[str, int] = Field(max_length=60)
    date_order: DateOrder = "dmy"
    decimal: Literal[".", ","] = "."
    unit: Unit = "kg"
    times: Times = Field(
        "s",
        description="Unit of plain numbers of seconds; clock: 1:30 kept as an hour and a half",
    )
    dumbbells: Literal["", "one", "pair"] = Field(
        "", description="What a load is of where two dumbbells are usual and no number is said"
    )
    doubts: dict[str, str] = Field(
        default_factory=dict,
        max_length=100,
        description="What rows that make little sense are, by the key of the doubt",
    )
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
    left_out: list[str] = Field(
        default_factory=list,
        max_length=100,
        description="Kinds of problems whose rows are left out",
    )
    take_on: bool = Field(False, description="Take athletes on whom the roster does not have")


@dataclass(frozen=True, slots=True)
class Guess:
    """What a sheet probably means, and what speaks for it, by the field of the choice.

    ``settled`` are the fields that the file itself settles, ``open`` those that it should and
    does not.
    """

    choice: SheetChoice
    why: dict[str, str]
    settled: frozenset[str]
    open: frozenset[str]


def guess(grid: Grid, *, unit: Unit = "kg") -> Guess:
    """What the columns mean by their heads, and how days and numbers are written.

    ``unit`` is that of the house: it holds where the file does not say.
    """
    plain = [plain_head(head) for head in grid.heads]
    columns = _by_heads(plain, grid.hidden)
    if WORKSHEET in plain and "athlete" not in columns and not _numbered(grid):
        # A worksheet for each athlete, called by the name.
        columns["athlete"] = plain.index(WORKSHEET)
    seen = _by_cells(grid, columns)
    columns |= {name: at for name, (at, _) in seen.items()}
    told = {
        "date_order": _guess_order(grid, columns.get("date")),
        "decimal": _guess_decimal(grid, columns),
        "unit": _guess_unit(grid, columns, unit),
        "times": _guess_times(grid, columns),
    }
    why = {name: one.why for name, one in told.items() if one.why}
    why |= {name: says for name, (_, says) in seen.items()}
    if share := _shares(grid, columns):
        del columns["load"]
        why["load"] = f"{share} looks like a share rather than a load, so the column is left out"
    if "count" in columns and _runs(grid, columns):
        # 1, 2, 3 beside the sets of a movement number them; they are not so many each.
        del columns["count"]
    values = {name: one.value for name, one in told.items()}
    return Guess(
        SheetChoice.model_validate({"columns": columns, **values}),
        why,
        frozenset(name for name, one in told.items() if one.settled),
        frozenset(name for name, one in told.items() if one.settled is False),
    )


class _Said(NamedTuple):
    """A guess, what speaks for it, and whether the file settles it; ``None``: it need not."""

    value: str
    why: str
    settled: bool | None


def _by_heads(plain: Sequence[str], hidden: Collection[int]) -> dict[str, int]:
    """The column of each meaning: one that is shown, else one that is not."""
    columns: dict[str, int] = {}
    for column in COLUMNS:
        wanted = dict.fromkeys((plain_head(column.name), *column.heads))
        places = [
            at
            for head in wanted
            for at, other in enumerate(plain)
            if other == head and at not in columns.values()
        ]
        if places:
            columns[column.name] = min(places, key=lambda at: at in hidden)
    return columns


def _by_cells(grid: Grid, columns: Mapping[str, int]) -> dict[str, tuple[int, str]]:
    """Movement and reps where no head names them, by what stands in the cells, and why.

    Nothing is taken where two columns would do.
    """
    found: dict[str, tuple[int, str]] = {}
    for name, (looks, says) in _LOOKS.items():
        if name in columns:
            continue
        taken = {*columns.values(), *(at for at, _ in found.values()), *grid.hidden}
        like = [at for at in range(len(grid.heads)) if at not in taken and _all(grid, at, looks)]
        if len(like) == 1:
            found[name] = (like[0], f"the cells of “{grid.heads[like[0]]}” {says}")
    return found


_LOOKS: Final = {
    "reps": (
        re.compile(r"[0-9]{1,2} ?[x×*] ?[0-9]{1,3}(?![0-9]).{0,12}", re.IGNORECASE),
        "are sets × reps",
    ),
    "movement": (re.compile(r"(?=.{0,40}[^\W\d_]{2}).{2,60}"), "are words, in every row"),
}
"""What cells look like, and how it is said; in this order, for ``3 x 8 each`` has words, too."""
_NEARLY_ALL: Final = 0.9


def _all(grid: Grid, at: int, looks: re.Pattern[str]) -> bool:
    """Whether nearly every row has such a cell in a column."""
    fits = [looks.fullmatch(text) is not None for text in _texts(grid, at)]
    return bool(fits) and sum(fits) >= _NEARLY_ALL * len(fits)


def _numbered(grid: Grid) -> bool:
    """Whether worksheets are of weeks, months or numbers rather than of people."""
    return any(_OF_TIME.search(str(row[-1])) for _, row in grid.rows)


_OF_TIME: Final = re.compile(
    r"[0-9]|\b(?:sheet|week|block|phase|log|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)",
    re.IGNORECASE,
)
_MINUTES: Final = re.compile(r"\b(?:min|mins|minutes?)\b")


def _guess_times(grid: Grid, columns: Mapping[str, int]) -> _Said:
    """In what times are: as cells keep them, as the head says, and by what can be meant."""
    if kept := _kept_as_hours(grid, columns):
        return _Said("clock", f"{kept} is how a spreadsheet keeps minutes and seconds", True)
    if "seconds" not in columns:
        return _Said("s", "", None)
    head = grid.heads[columns["seconds"]].strip()
    plain = sorted(_numbers(grid, columns["seconds"]))
    if _MINUTES.search(plain_head(head)):
        if plain and plain[0] > MOST_MINUTES:
            why = f"the head says “{head}”, but {plain[0]:g} minutes are too long for a set"
            return _Said("s", why, True)
        return _Said("min", f"the head says “{head}”", True)
    if plain and plain[-1] <= FEWEST_SECONDS and not _SECONDS.search(plain_head(head)):
        return _Said("min", f"{plain[-1]:g} seconds are too short for a set", True)
    return _Said("s", "", None)


MOST_MINUTES: Final = 60
FEWEST_SECONDS: Final = 5
"""No set is longer than the one, or lasts no longer than the other. Dial Back's own choice."""
_SECONDS: Final = re.compile(r"\b(?:s|secs?|seconds?)\b")


def _shares(grid: Grid, columns: Mapping[str, int]) -> str:
    """A load that is a share, if all are: what a cell of per cent keeps for 80 % is 0.8."""
    found = _numbers(grid, columns["load"]) if "load" in columns else []
    if "unit" in columns and any(_texts(grid, columns["unit"])):
        # What is said to be in kg or lb is a load, however light.
        return ""
    if not found or not all(0 < one <= _HIGHEST_SHARE for one in found):
        return ""
    return f"{min(found):g}" if any(one != int(one) for one in found) else ""


def _texts(grid: Grid, at: int) -> list[str]:
    """The cells of a column as text, empty ones too."""
    rows = [row[at] if at < len(row) else None for _, row in grid.rows[:_LOOKED_AT]]
    return ["" if cell is None else str(cell).strip() for cell in rows]


_HIGHEST_SHARE: Final = 1.2


def _numbers(grid: Grid, at: int) -> list[float]:
    """The plain numbers of a column, without empty cells and zeros."""
    found = []
    for _, row in grid.rows[:_LOOKED_AT]:
        cell = row[at] if at < len(row) else None
        if isinstance(cell, str) and _PLAIN.fullmatch(cell.strip()):
            cell = float(cell.strip().replace(",", "."))
        if isinstance(cell, int | float) and not isinstance(cell, bool) and cell:
            found.append(float(cell))
    return found


_PLAIN: Final = re.compile(r"[0-9]{1,6}(?:[.,][0-9]{1,3})?")


def _kept_as_hours(grid: Grid, columns: Mapping[str, int]) -> str:
    """A time that a spreadsheet took for hours and minutes, if all of them are so."""
    places = [columns[name] for name in ("seconds", "rest_s", "hold_s") if name in columns]
    texts = [
        str(row[at])
        for _, row in grid.rows[:_LOOKED_AT]
        for at in places
        if at < len(row) and isinstance(row[at], str) and str(row[at]).count(":") > 1
    ]
    return texts[0] if texts and all(AS_HOURS.fullmatch(text) for text in texts) else ""


AS_HOURS: Final = re.compile(r"([0-9]{1,2}):([0-9]{2}):00")


def _runs(grid: Grid, columns: Mapping[str, int]) -> bool:
    """Whether the number of sets is a running number: 1, 2, 3 within a movement of a day."""
    at, movement = columns["count"], columns.get("movement")
    if movement is None:
        return False
    runs = steps = 0
    before: tuple[Cell, int] | None = None
    for _, row in grid.rows[:_LOOKED_AT]:
        cells = [row[place] if place < len(row) else None for place in (movement, at)]
        name, said = cells
        text = str(said or "").strip()
        number = int(text) if text.isdigit() and len(text) < _LONGEST else 0
        if before is not None and before[0] == name:
            steps += 1
            runs += number == before[1] + 1
        before = (name, number)
    return steps > 1 and runs >= RUNNING * steps


_LONGEST: Final = 4
RUNNING: Final = 0.8
"""So many of the rows that follow one of their movement are one more: they are numbered."""


def heads_known(heads: Iterable[str]) -> int:
    """How many heads mean something."""
    return sum(plain_head(head) in _KNOWN for head in heads)


def plain_head(head: str) -> str:
    """A head in small letters, its words alone."""
    return " ".join(re.sub(r"[^\w]+", " ", head.casefold().replace("_", " ")).split())


_KNOWN: Final = frozenset(
    head for column in COLUMNS for head in (plain_head(column.name), *column.heads)
)

_LOOKED_AT: Final = 2000
"""So many rows tell how the others are written."""


def _guess_order(grid: Grid, at: int | None) -> _Said:
    cells = [row[at] for _, row in grid.rows[:_LOOKED_AT] if at is not None and at < len(row)]
    days = [match for cell in cells if (match := DAY.fullmatch(str(cell).strip()))]
    if not days:
        return _Said("dmy", "no date shows the order", None)
    for match in days:
        if len(match[1]) == 4:
            return _Said("ymd", f"{match[0]} has the year first", True)
    day_first = next((one for one in days if int(one[1]) > 12), None)
    month_first = next((one for one in days if int(one[2]) > 12), None)
    if day_first and month_first:
        why = f"{day_first[0]} has the day first, but {month_first[0]} the month"
        return _Said("dmy", why, False)
    if month_first:
        return _Said("mdy", f"{month_first[0]} can only have the month first", True)
    if day_first:
        return _Said("dmy", f"{day_first[0]} can only have the day first", True)
    why = f"nothing settles it: {days[0][0]} could be either, so check"
    return _Said("dmy", why, False)


def _guess_decimal(grid: Grid, columns: Mapping[str, int]) -> _Said:
    places = [columns[name] for name in ("load", "rpe", "seconds") if name in columns]
    texts = [
        str(row[at])
        for _, row in grid.rows[:_LOOKED_AT]
        for at in places
        if at < len(row) and isinstance(row[at], str)
    ]
    commas, points = ([text for text in texts if mark in text] for mark in ",.")
    if len(commas) > len(points):
        return _Said(",", f"as in {commas[0].strip()}", True)
    why = f"as in {points[0].strip()}" if points else "no decimals to go by"
    return _Said(".", why, True if points else None)


_UNITS_IN_HEADS: Final[tuple[tuple[Unit, re.Pattern[str]], ...]] = (
    ("lb", re.compile(r"\b(?:lbs?|pounds?)\b")),
    ("kg", re.compile(r"\b(?:kgs?|kilos?|kilograms?)\b")),
)


def _guess_unit(grid: Grid, columns: Mapping[str, int], house: Unit) -> _Said:
    if "load" not in columns:
        return _Said(house, "no column of loads", None)
    head = grid.heads[columns["load"]].strip()
    for unit, pattern in _UNITS_IN_HEADS:
        if pattern.search(plain_head(head)):
            return _Said(unit, f"the head says “{head}”", True)
    if "unit" in columns:
        return _Said(house, "where a row does not say its own", None)
    return _Said(house, "the file does not say: your house’s unit, so check", False)
