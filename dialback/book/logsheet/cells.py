"""What stands in a cell, as a value; what it cannot be is told with its column."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache
from typing import Any, Final

from dialback.book.errors import BadInputError
from dialback.book.json_text import read_json
from dialback.book.logsheet.columns import DAY, DateOrder
from dialback.book.workbook import Cell
from dialback.core.notation.characters import plain
from dialback.core.notation.slips import SlipError
from dialback.core.notation.steps import dose_of
from dialback.core.notation.wording import worded_dose
from dialback.core.sessions import TO_FAILURE, parse_day

_LONGEST_NUMBER: Final = 40
_UNITS: Final = {
    "kg": "kg",
    "kgs": "kg",
    "lb": "lb",
    "lbs": "lb",
    "s": "s",
    "sec": "s",
    "secs": "s",
    "min": "min",
    "mins": "min",
    "x": "×",
    "×": "×",
    "rep": "×",
    "reps": "×",
    "sets": "×",
}
_LETTERS: Final = "".join(sorted({letter for unit in _UNITS for letter in unit + unit.upper()}))
_CLOCK: Final = re.compile(r"(?:(\d{1,2}):)?(\d{1,3}):([0-5]\d)")
_BODY_ALONE: Final = ("bw", "bodyweight")

NO_UNITS: Final[Mapping[str, float]] = {}
LOADS: Final[Mapping[str, float]] = {"kg": 1, "lb": 1}
"""Behind a load; it is told beside it, not converted."""
TIMES: Final[Mapping[str, float]] = {"s": 1, "min": 60}
"""Behind seconds; they may also be written as on a clock."""
MINUTES: Final[Mapping[str, float]] = {"min": 1}
COUNTS: Final[Mapping[str, float]] = {"×": 1}
_SERIAL_FROM: Final = date(1899, 12, 30)
_SERIALS: Final = range(20_000, 80_000)


class RowError(Exception):
    """What is wrong in a row: the column, and what would be right."""

    def __init__(self, column: str, message: str) -> None:
        self.column = column
        super().__init__(message)


def json_cell(cell: Cell, column: str) -> dict[str, Any]:
    """The further keys that an export writes as one cell."""
    if cell is None:
        return {}
    try:
        found = read_json(str(cell).encode("utf-8", "surrogatepass"), "the cell")
    except BadInputError as error:
        raise RowError(column, error.problems[0].message) from None
    if not isinstance(found, dict):
        raise RowError(column, "is not a JSON object, as an export writes it")
    return found


def number_cell(
    cell: Cell,
    column: str,
    decimal: str,
    least: float,
    most: float,
    units: Mapping[str, float] = NO_UNITS,
) -> float | None:
    """A number between two bounds; ``None`` for an empty cell.

    ``units`` are those that may stand behind it, each with what it is worth: a number with another
    unit is another number, and refused.
    """
    if cell is None:
        return None
    if isinstance(cell, (bool, date)):
        raise RowError(column, f"{cell} is not a number")
    if not isinstance(cell, str):
        value = float(cell)
    elif "s" in units and ":" in cell:
        value = _clock(cell, column)
    else:
        text, unit = _apart(cell)
        if unit and unit not in units:
            raise RowError(column, f"{cell!r}: {unit} does not belong in this column")
        found = _parse(text, decimal)
        if found is None:
            raise RowError(column, f"{cell!r} is not a number")
        value = found * (units[unit] if unit else 1)
    if not least <= value <= most:
        raise RowError(column, f"{value:g} is out of range: from {least:g} to {most:g}")
    return value


def load_cell(cell: Cell, unit: str, decimal: str) -> tuple[float | None, str]:
    """A load and its unit: what stands behind the number, else ``unit``; none for body weight.

    ``BW+10`` is what is added to the body, ``BW-15`` help.
    """
    if isinstance(cell, str) and (added := _ON_BODY.fullmatch(cell.strip())):
        cell = f"{'-' if added[1] in '-−' else ''}{added[2]}"
    if isinstance(cell, str) and "%" in cell:
        raise RowError("load", f"{cell!r} is a share: write the load that was moved")
    if isinstance(cell, str):
        if cell.casefold().replace(" ", "") in _BODY_ALONE:
            return None, unit
        _, own = _apart(cell)
        unit = own if own in LOADS else unit
    return number_cell(cell, "load", decimal, -1000, 10_000, LOADS), unit


_ON_BODY: Final = re.compile(
    r"(?:bw|body ?weight) ?([-+−]) ?([0-9][0-9.,]{0,8} ?(?:kgs?|lbs?)?)", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Dose:
    """What a cell of reps says: keys of a set, and how many such sets."""

    keys: dict[str, Any]
    sets: int = 1


@lru_cache(maxsize=8192)
def dose_cell(text: str) -> tuple[Dose, ...] | None:
    """Reps in a coach's own words: ``3x8``, ``8,8,7``, ``8 each side``, ``45 s``.

    ``None`` for what the notation does not read as how much of a set.
    """
    try:
        pieces = dose_of(worded_dose(plain(text)).text)
    except SlipError:
        return None
    found = []
    for piece in pieces:
        if not piece.has_dose or set(piece.says) - _OF_DOSE:
            return None
        keys = {key: piece.says[key] for key in _DOSE_KEYS if piece.says.get(key) is not None}
        clusters = piece.says.get("clusters")
        if clusters:
            keys |= {"reps": sum(clusters), "clusters": list(clusters)}
        if piece.says.get("to_failure"):
            keys["rpe"] = TO_FAILURE
        found.append(Dose(keys, piece.sets or 1))
    return tuple(found)


_DOSE_KEYS: Final = ("reps", "seconds", "distance_m", "sides")
_OF_DOSE: Final = frozenset({*_DOSE_KEYS, "reps_to", "clusters", "to_failure"})


@lru_cache(maxsize=8192)
def _apart(text: str) -> tuple[str, str]:
    """A text without the unit behind its number, and that unit by its usual name."""
    bare = text.strip().rstrip(".")
    number = bare.rstrip(_LETTERS)
    unit = _UNITS.get(bare[len(number) :].casefold(), "")
    return (number.rstrip(), unit) if number.strip() and unit else (text, "")


def _clock(text: str, column: str) -> float:
    match = _CLOCK.fullmatch(text.strip())
    if match is None:
        raise RowError(column, f"{text!r} is not a time: write seconds, or 1:30")
    hours, minutes, seconds = int(match[1] or 0), int(match[2]), int(match[3])
    if hours:
        # A spreadsheet takes the 1:30 of a coach for an hour and a half.
        raise RowError(column, f"{text!r} may be minutes or hours: write seconds, or 0:01:30")
    return minutes * 60 + seconds


@lru_cache(maxsize=8192)
def _parse(text: str, decimal: str) -> float | None:
    if len(text) > _LONGEST_NUMBER:
        return None
    plain = text.replace("\u202f", "").replace("\xa0", "").strip()
    groups = "," if decimal == "." else "."
    if re.fullmatch(rf"[-+−]?\d{{1,3}}(?:\{groups}\d{{3}})+(?:\{decimal}\d+)?", plain):
        plain = plain.replace(groups, "")
    plain = plain.replace(decimal, ".").replace("−", "-")
    try:
        value = float(plain)
    except ValueError:
        return None
    return value if abs(value) < 1e12 else None


def day_cell(cell: Cell, order: DateOrder) -> date:
    """A day, in whatever way the spreadsheet keeps it."""
    if isinstance(cell, date):
        return cell
    if isinstance(cell, (int, float)) and not isinstance(cell, bool):
        # How spreadsheets keep a day whose format got lost.
        if int(cell) in _SERIALS:
            return _SERIAL_FROM + timedelta(days=int(cell))
        raise RowError("date", f"{cell} is not a day")
    if cell is None:
        raise RowError("date", "is missing")
    return _day_of(str(cell), order)


@lru_cache(maxsize=8192)
def _day_of(text: str, order: DateOrder) -> date:
    match = DAY.fullmatch(text.strip())
    if match is None:
        raise RowError("date", f"{text!r} is not a day: write 2026-10-05, or choose the order")
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
        raise RowError("date", f"{text!r}: {error}") from None
    assert isinstance(found, date)  # noqa: S101 - parse_day gives a date for a text
    return found


_SIDES: Final = {
    "both": "both",
    "each": "each",
    "each side": "each",
    "per side": "each",
    "alternating": "alternating",
    "alt": "alternating",
    "left": "left",
    "l": "left",
    "right": "right",
    "r": "right",
}


def sides_cell(text: str) -> str:
    """How a set meets the two sides, as a set has it."""
    found = _SIDES.get(text.casefold())
    if found is None:
        raise RowError("sides", f"{text!r} is not a side: both, each, alternating, left or right")
    return found


def yes_cell(cell: Cell) -> bool:
    """Whether a cell says yes."""
    return cell is True or str(cell).casefold() in ("yes", "y", "true", "1", "x", "warm-up", "w")
