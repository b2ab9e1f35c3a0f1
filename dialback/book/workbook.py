"""The first sheet of a workbook, row by row, whatever the file says of its own size.

The reader that openpyxl has fills in every row up to the number a row claims, and stops where the
sheet's own ``dimension`` says: a few bytes keep it busy for years, or hide half of a log. Here
rows come as they stand in the file, bounded by what a sheet can have.
"""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterator
from datetime import date, datetime, timedelta
from typing import Any, Final
from xml.etree.ElementTree import ParseError

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import iterparse
from openpyxl import load_workbook
from openpyxl.utils.datetime import from_excel, from_ISO8601
from openpyxl.utils.exceptions import InvalidFileException

from dialback.book.errors import bad_input

Cell = str | int | float | bool | date | None
Rows = Iterator[tuple[int, tuple[Cell, ...]]]

LAST_ROW: Final = 1_048_576
LAST_COLUMN: Final = 16_384
"""As many as the format knows; more is damage, or meant to keep us busy."""
MAX_UNPACKED: Final = 300_000_000
"""Bytes of a workbook when unpacked; more is a bomb, not a log."""
MAX_RATIO: Final = 300
_PART_LIMITS: Final = {"xl/sharedStrings.xml": 40_000_000, "xl/styles.xml": 5_000_000,
                       "xl/workbook.xml": 2_000_000}  # fmt: skip
_MACROS: Final = "vbaProject.bin"
_NS: Final = "{http://schemas.openxmlformats.org/spreadsheetml/2006/main}"
_ROW, _CELL, _VALUE, _INLINE, _TEXT = (f"{_NS}{tag}" for tag in ("row", "c", "v", "is", "t"))


def rows_of_workbook(data: bytes) -> Rows:
    """Rows with their numbers, from 1; rows without cells are left out.

    Raises ``BadInputError`` for what is not a workbook, or one that cannot be taken.
    """
    _check_package(data)
    try:
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
    except (InvalidFileException, zipfile.BadZipFile, DefusedXmlException, ParseError, KeyError,
            ValueError, OSError, TypeError) as error:  # fmt: skip
        raise bad_input("file", f"is not a workbook that opens: {_said(error)}") from None
    try:
        if not book.worksheets:
            raise bad_input("file", "is a workbook without a sheet")
        sheet: Any = book.worksheets[0]
        with sheet._get_source() as source:
            yield from _rows(source, _Values(book, sheet._shared_strings))
    except (ParseError, DefusedXmlException, zipfile.BadZipFile, EOFError) as error:
        raise bad_input("file", f"is damaged: {_said(error)}; save it again") from None
    finally:
        book.close()


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
                "file", f"{entry.filename} in it unpacks to {entry.file_size // 1_000_000} MB: "
                "that is not a log"
            )  # fmt: skip
    if not any(entry.filename == "xl/workbook.xml" for entry in entries):
        raise bad_input("file", "is packed, but is not a workbook: choose a CSV or XLSX file")


class _Values:
    """What the cells of a workbook mean: its shared texts, which styles are days."""

    def __init__(self, book: Any, strings: list[str]) -> None:
        self.strings = strings
        self.epoch = book.epoch
        self.days = book._date_formats
        self.spans = book._timedelta_formats

    def of(self, cell: Any) -> Cell:
        """The value of a cell."""
        kind = cell.get("t", "n")
        if kind == "inlineStr":
            inline = cell.find(_INLINE)
            parts = () if inline is None else inline.iter(_TEXT)
            return "".join(str(part.text or "") for part in parts)
        text = cell.findtext(_VALUE)
        if not text:
            return None
        if kind == "s":
            return str(self.strings[int(text)])
        if kind == "b":
            return str(text).strip() == "1"
        if kind == "n":
            return self._number(text, int(cell.get("s", 0)))
        if kind == "d":
            day: Any = from_ISO8601(text)  # type: ignore[no-untyped-call]
            return _day(day)
        return str(text)

    def _number(self, text: str, style: int) -> Cell:
        value: float = int(text) if text.lstrip("-").isdigit() and len(text) < 16 else float(text)
        if style not in self.days:
            return value
        try:
            return _day(from_excel(value, self.epoch, timedelta=style in self.spans))
        except (OverflowError, ValueError):
            return f"{text} as a day"


def _day(value: Any) -> Cell:
    if isinstance(value, datetime):
        return value.date()
    if isinstance(value, date):
        return value
    return str(value.total_seconds() if isinstance(value, timedelta) else value)


def _rows(source: Any, values: _Values) -> Rows:
    number = 0
    cells: list[Cell] = []
    for _, element in iterparse(source, events=("end",), forbid_dtd=True):
        tag = element.tag
        if tag == _CELL:
            place = element.get("r")
            column = _column(place, len(cells))
            cells += [None] * (column - len(cells))
            try:
                cells[-1] = values.of(element)
            except (ValueError, IndexError, TypeError) as error:
                raise bad_input(
                    f"cell {place}", f"is damaged: {_said(error)}; save the file again"
                ) from None
            # What was read is let go: a sheet of a million rows is never whole in memory.
            element.clear()
        elif tag == _ROW:
            number = _row_number(element.get("r"), number)
            if cells:
                yield number, tuple(cells)
            cells = []
            element.clear()


def _row_number(text: str | None, before: int) -> int:
    number = before + 1 if text is None else int(text) if text.isdigit() else 0
    if not before < number <= LAST_ROW:
        raise bad_input(
            f"row {text}", f"cannot come after row {before}: the sheet is damaged, save it again"
        )
    return number


def _column(place: str | None, before: int) -> int:
    """The column of a cell, from 1, as in ``BC12``; the next one where none is named."""
    if place is None:
        number = before + 1
    else:
        number = 0
        for letter in place[:4]:
            if not "A" <= letter <= "Z":
                break
            number = number * 26 + ord(letter) - ord("A") + 1
    if not before < number <= LAST_COLUMN:
        raise bad_input(
            f"cell {place}",
            f"cannot come after column {before}: the sheet is damaged, save it again",
        )
    return number
