"""The worksheets of a workbook, row by row, looked at before they are read.

The reader lays a sheet out as a full table, as wide and long as its farthest cells: a few bytes
could keep it busy for years. So the sheet's own text is gone through first, as it unpacks: how
many rows it has, how far they go, whether they come in order.
"""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from pathlib import PurePosixPath
from typing import Any, Final
from xml.etree.ElementTree import ParseError

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import fromstring
from python_calamine import CalamineError, CalamineWorkbook

from dialback.book.errors import BadInputError, bad_input

Cell = str | int | float | bool | date | None
Rows = Iterator[tuple[int, tuple[Cell, ...]]]

LAST_ROW: Final = 1_048_576
LAST_COLUMN: Final = 16_384
"""As many as the format knows; more is damage, or meant to keep us busy."""
MAX_UNPACKED: Final = 300_000_000
"""Bytes of a workbook when unpacked; more is a bomb, not a log."""
MAX_RATIO: Final = 300
_PART_LIMITS: Final = {
    "xl/sharedStrings.xml": 40_000_000,
    "xl/styles.xml": 5_000_000,
    "xl/workbook.xml": 2_000_000,
}
_MACROS: Final = "vbaProject.bin"
MOST_ROWS: Final = 250_000
"""Rows of a log; whoever has more splits it."""
MOST_CELLS: Final = 20_000_000
"""Places of a table as large as a sheet's farthest cells."""
_AT_ONCE: Final = 1 << 20
_LONGEST_TAG: Final = 4096
_ROW: Final = re.compile(rb"<(?:\w{1,20}:)?row\b([^<>]{0,2000})>")
_NUMBER: Final = re.compile(rb"""\br=["']([^"'<>]{0,40})["']""")
_CELL: Final = re.compile(rb"""<(?:\w{1,20}:)?c\b[^<>]{0,200}?\br=["']([^"'<>]{0,40})["']""")
_NO_VALUE: Final = re.compile(
    rb"<f\b[^<>]{0,400}(?:/>|>[^<>]{0,4000}</f>)\s{0,9}(?:<v>\s{0,9}</v>|<v\s{0,9}/>)?\s{0,9}</c>"
)
_COL: Final = re.compile(rb"<(?:\w{1,20}:)?col\b([^<>]{0,400})>")
_ATTRIBUTE: Final = re.compile(rb"""\b(hidden|min|max)=["']([^"'<>]{0,20})["']""")
_MOST_DIGITS: Final = 6
_END: Final = re.compile(rb"</(?:\w{1,20}:)?worksheet\s{0,9}>")
_RELATION: Final = "{http://schemas.openxmlformats.org/officeDocument/2006/relationships}id"


@dataclass
class Worksheet:
    """A worksheet: its rows with their numbers, from 1, those without cells left out.

    ``hidden`` are the places of columns that nobody sees, counted from 0.
    """

    name: str
    rows: Rows
    hidden: frozenset[int] = frozenset()
    notes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class _Looked:
    """What a worksheet's own text says of it: so many rows, so many formulas without a value."""

    rows: int
    formulas: int
    hidden: frozenset[int]


def worksheets(data: bytes) -> Iterator[Worksheet]:
    """The worksheets of a workbook, those that are shown before those that are hidden.

    Raises ``BadInputError`` for what is not a workbook, or one that cannot be taken.
    """
    _check_package(data)
    with _told_damage():
        with zipfile.ZipFile(io.BytesIO(data)) as package:
            found = [
                (name, hidden, _look_over(package, part)) for name, hidden, part in _sheets(package)
            ]
        book = CalamineWorkbook.from_filelike(io.BytesIO(data))
    total = sum(looked.rows for _, _, looked in found)
    if total > MOST_ROWS:
        raise bad_input("file", f"has more than {MOST_ROWS} rows: split it by years")
    for name, _, looked in sorted(found, key=lambda one: one[1]):
        notes = (_formulas_told(looked.formulas),) if looked.formulas else ()
        rows = _rows(book, name) if looked.rows else iter(())
        yield Worksheet(name, rows, looked.hidden, notes)


def _formulas_told(count: int) -> str:
    have = "1 formula has" if count == 1 else f"{count} formulas have"
    return f"{have} no value in the file: open it in a spreadsheet, save it, and choose it again"


def _rows(book: CalamineWorkbook, name: str) -> Rows:
    with _told_damage():
        sheet = book.get_sheet_by_name(name)
        first_row, first_column = sheet.start or (0, 0)
        before: tuple[Cell, ...] = (None,) * first_column
        for number, row in enumerate(sheet.iter_rows(), first_row + 1):
            cells = tuple(map(_cell, row))
            if any(cell is not None for cell in cells):
                yield number, before + cells


@contextmanager
def _told_damage() -> Iterator[None]:
    """Whatever a damaged workbook raises, as one error that says what to do."""
    try:
        yield
    except (
        CalamineError,
        ParseError,
        DefusedXmlException,
        zipfile.BadZipFile,
        KeyError,
        EOFError,
        ValueError,
        OSError,
        IndexError,
        TypeError,
    ) as error:
        if isinstance(error, BadInputError):
            raise
        raise bad_input("file", f"is damaged: {_said(error)}; save it again") from None


def _sheets(package: zipfile.ZipFile) -> list[tuple[str, bool, str]]:
    """The worksheets: name, whether hidden, and the part that each is in."""
    book = fromstring(package.read("xl/workbook.xml"), forbid_dtd=True)
    sheets = [one for one in book.iter() if one.tag.rpartition("}")[2] == "sheet"]
    if not sheets:
        raise bad_input("file", "is a workbook without a sheet")
    relations = fromstring(package.read("xl/_rels/workbook.xml.rels"), forbid_dtd=True)
    targets = {
        one.get("Id"): str(one.get("Target"))
        for one in relations
        if str(one.get("Type", "worksheet")).endswith("worksheet")
    }
    found = []
    for sheet in sheets:
        target = targets.get(sheet.get(_RELATION))
        if target is None:
            # A sheet of a chart has no rows.
            continue
        part = str(PurePosixPath("xl") / target) if target[0] != "/" else target[1:]
        hidden = sheet.get("state", "visible") != "visible"
        found.append((str(sheet.get("name")), hidden, part))
    if not found:
        raise bad_input("file", "is a workbook without a sheet")
    return found


def _look_over(package: zipfile.ZipFile, name: str) -> _Looked:
    """Refuse a sheet that has too many rows, goes too far, or is out of order."""
    rows = row = formulas = 0
    columns: set[bytes] = set()
    hidden: set[int] = set()
    left = text = b""
    with package.open(name) as source:
        while piece := source.read(_AT_ONCE):
            text = left + piece
            if b"<!DOCTYPE" in text or b"<!ENTITY" in text:
                raise bad_input("file", "is damaged: it declares a document type; save it again")
            end = 0
            for tag in _ROW.finditer(text):
                end = tag.end()
                rows += 1
                row = _row_number(_NUMBER.search(tag[1]), row)
            if rows > MOST_ROWS:
                raise bad_input("file", f"has more than {MOST_ROWS} rows: split it by years")
            for tag in _COL.finditer(text):
                hidden |= _hidden_by(tag[1])
            places = _CELL.findall(text)
            formulas += len(_NO_VALUE.findall(text[:end] if end else b""))
            _refuse_doubles(places)
            columns.update(place.rstrip(b"0123456789") for place in places)
            left = text[max(end, len(text) - _LONGEST_TAG) :]
    if b"sheetData" in text and not _END.search(text):
        raise bad_input("file", "is damaged: it ends in the middle; save it again")
    widest = max((_column(letters) for letters in columns), default=0)
    if row * widest > MOST_CELLS:
        raise bad_input(
            "file",
            f"spreads over {row:,} rows and {widest:,} columns: leave out what stands far "
            "from the log",
        )
    return _Looked(rows, formulas + len(_NO_VALUE.findall(left)), frozenset(hidden))


def _hidden_by(attributes: bytes) -> set[int]:
    """The columns, from 0, that an element ``col`` hides."""
    said: dict[bytes, bytes] = dict(_ATTRIBUTE.findall(attributes))
    if said.get(b"hidden") not in (b"1", b"true"):
        return set()
    first, last = (said.get(name, b"") for name in (b"min", b"max"))
    if not (first.isdigit() and last.isdigit() and len(last) < _MOST_DIGITS):
        return set()
    return set(range(int(first) - 1, min(int(last), LAST_COLUMN)))


def _refuse_doubles(places: list[bytes]) -> None:
    """Of two cells in one place the reader would take the last: nobody knows which is meant."""
    if len(set(places)) < len(places):
        place = next(one for at, one in enumerate(places) if one in places[:at])
        raise bad_input(
            f"cell {place.decode('ascii', 'replace')}",
            "stands twice in the sheet: it is damaged, save it again",
        )


def _cell(value: Any) -> Cell:
    """A value as the reader has it, as it is meant: whole numbers whole, a day without its hour."""
    if value == "" or value is None:
        return None
    if isinstance(value, bool | str):
        return value
    if isinstance(value, float):
        return int(value) if value.is_integer() and abs(value) < 1e15 else value
    if isinstance(value, datetime):
        return value.date()
    if isinstance(value, timedelta):
        return str(value.total_seconds())
    return value if isinstance(value, date | int) else str(value)


def _said(error: Exception) -> str:
    return " ".join(str(error).split())[:200] or type(error).__name__


def _check_package(data: bytes) -> None:
    try:
        entries = zipfile.ZipFile(io.BytesIO(data)).infolist()
    except (zipfile.BadZipFile, ValueError):
        raise bad_input("file", "is damaged: save it again as XLSX or CSV") from None
    if any(entry.filename.endswith(_MACROS) for entry in entries):
        raise bad_input("file", "has macros: save it without them, as XLSX or CSV")
    unpacked = sum(entry.file_size for entry in entries)
    if unpacked > MAX_UNPACKED or unpacked > MAX_RATIO * max(len(data), 1):
        raise bad_input("file", f"unpacks to {unpacked // 1_000_000} MB: that is not a log")
    for entry in entries:
        if entry.file_size > _PART_LIMITS.get(entry.filename, MAX_UNPACKED):
            raise bad_input(
                "file",
                f"{entry.filename} in it unpacks to {entry.file_size // 1_000_000} MB: "
                "that is not a log",
            )
    if not any(entry.filename == "xl/workbook.xml" for entry in entries):
        raise bad_input("file", "is packed, but is not a workbook: choose a CSV or XLSX file")


def _row_number(said: re.Match[bytes] | None, before: int) -> int:
    text = "" if said is None else said[1].decode("ascii", "replace")
    number = before + 1 if said is None else int(text) if text.isdigit() else 0
    if not before < number <= LAST_ROW:
        raise bad_input(
            f"row {text}", f"cannot come after row {before}: the sheet is damaged, save it again"
        )
    return number


def _column(letters: bytes) -> int:
    """The column of a cell, from 1, by its letters, as in ``BC``."""
    number = 0
    for letter in letters[:4]:
        inside = ord("A") <= letter <= ord("Z")
        number = number * 26 + letter - ord("A") + 1 if inside else LAST_COLUMN + 1
    if not 0 < number <= LAST_COLUMN:
        raise bad_input(
            f"cell {letters.decode('ascii', 'replace')}",
            f"is in no column that a sheet has ({LAST_COLUMN}): it is damaged, save it again",
        )
    return number
