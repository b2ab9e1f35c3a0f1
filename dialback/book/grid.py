"""Spreadsheets as grids of cells: CSV and XLSX, with what could go wrong told in words."""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, Final, Literal

from openpyxl import Workbook, load_workbook
from openpyxl.utils.exceptions import InvalidFileException

from dialback.book.errors import bad_input

Cell = str | int | float | bool | date | None

MAX_ROWS: Final = 250_000
MAX_COLUMNS: Final = 200
MAX_UNPACKED: Final = 300_000_000
"""Bytes of a workbook when unpacked; more is a bomb, not a log."""
MAX_RATIO: Final = 300
_HEAD_WITHIN: Final = 20
_DELIMITERS: Final = ",;\t|"
_MACROS: Final = "vbaProject.bin"


@dataclass(frozen=True, slots=True)
class Grid:
    """A sheet: its heads, and its rows with their numbers in the file, counted from 1."""

    kind: Literal["csv", "xlsx"]
    heads: tuple[str, ...]
    rows: tuple[tuple[int, tuple[Cell, ...]], ...]


def read_grid(data: bytes, seen: Callable[[int], None] = lambda _: None) -> Grid:
    """Read a spreadsheet. ``seen`` is told from time to time how many rows were read.

    The head is the first row with at least two filled cells. Raises ``BadInputError`` for what is
    no spreadsheet, or one that cannot be taken.
    """
    if not data.strip():
        raise bad_input("file", "is empty: choose a CSV or XLSX file with a head and rows")
    rows: Iterator[tuple[Cell, ...]]
    kind: Literal["csv", "xlsx"]
    if data.startswith(b"PK"):
        kind, rows = "xlsx", _xlsx(data)
    elif data.startswith((b"\xd0\xcf\x11\xe0", b"%PDF", b"{\\rtf")):
        raise bad_input("file", "is of an older or another format: save it as XLSX or CSV")
    else:
        kind, rows = "csv", _csv(data)
    return _grid(kind, rows, seen)


def _grid(
    kind: Literal["csv", "xlsx"], rows: Iterable[tuple[Cell, ...]], seen: Callable[[int], None]
) -> Grid:
    heads: tuple[str, ...] | None = None
    found: list[tuple[int, tuple[Cell, ...]]] = []
    for number, row in enumerate(rows, 1):
        if len(row) > MAX_COLUMNS and any(cell not in (None, "") for cell in row[MAX_COLUMNS:]):
            raise bad_input(
                f"row {number}", f"has {len(row)} columns; at most {MAX_COLUMNS} are taken: leave "
                "out those that are not logs"
            )  # fmt: skip
        filled = sum(cell not in (None, "") for cell in row)
        if heads is None:
            if filled >= 2:
                heads = _heads(row)
            elif number > _HEAD_WITHIN:
                break
            continue
        if filled:
            found.append((number, row[: len(heads)]))
        if len(found) > MAX_ROWS:
            raise bad_input("file", f"has more than {MAX_ROWS} rows: split it by years")
        if number % 500 == 0:
            seen(number)
    if heads is None:
        raise bad_input(
            "file", "has no head: a row with the names of at least two columns comes first"
        )
    if not found:
        raise bad_input("file", "has a head and no rows below it")
    return Grid(kind, heads, tuple(found))


def _heads(row: tuple[Cell, ...]) -> tuple[str, ...]:
    """Names of the columns; one without a name (of merged cells, say) is called by its letter."""
    last = max(at for at, cell in enumerate(row) if cell not in (None, ""))
    return tuple(
        str(cell).strip() if cell not in (None, "") else f"column {_letter(at)}"
        for at, cell in enumerate(row[: min(last + 1, MAX_COLUMNS)])
    )


def _letter(at: int) -> str:
    text = ""
    while at >= 0:
        text = chr(ord("A") + at % 26) + text
        at = at // 26 - 1
    return text


def _csv(data: bytes) -> Iterator[tuple[Cell, ...]]:
    if b"\x00" in data[:4096]:
        raise bad_input("file", "is neither a text nor a workbook: choose a CSV or XLSX file")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        # What older programs of the western world write.
        text = data.decode("cp1252", errors="replace")
    sample = "\n".join(text.splitlines()[:20])
    counts = {one: sample.count(one) for one in _DELIMITERS}
    delimiter = max(counts, key=lambda one: counts[one])
    if not counts[delimiter]:
        raise bad_input("file", "has one column only: a log needs a day and a movement at least")
    csv.field_size_limit(1_000_000)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        for row in reader:
            yield tuple(row)
    except csv.Error as error:
        raise bad_input(f"row {reader.line_num}", f"cannot be read: {error}") from None


def _xlsx(data: bytes) -> Iterator[tuple[Cell, ...]]:
    _check_zip(data)
    try:
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
    except (InvalidFileException, zipfile.BadZipFile, KeyError, ValueError, OSError) as error:
        raise bad_input("file", f"is not a workbook that opens: {error}") from None
    try:
        sheet = book.worksheets[0] if book.worksheets else None
        if sheet is None:
            raise bad_input("file", "is a workbook without a sheet")
        for row in sheet.iter_rows(values_only=True):
            yield tuple(_cell(cell) for cell in row)
    finally:
        book.close()


def _check_zip(data: bytes) -> None:
    try:
        entries = zipfile.ZipFile(io.BytesIO(data)).infolist()
    except zipfile.BadZipFile:
        raise bad_input("file", "is damaged: save it again as XLSX or CSV") from None
    if any(entry.filename.endswith(_MACROS) for entry in entries):
        raise bad_input("file", "has macros: save it without them, as XLSX or CSV")
    unpacked = sum(entry.file_size for entry in entries)
    if unpacked > MAX_UNPACKED or unpacked > MAX_RATIO * max(len(data), 1):
        raise bad_input("file", f"unpacks to {unpacked // 1_000_000} MB: that is not a log")
    if not any(entry.filename == "xl/workbook.xml" for entry in entries):
        raise bad_input("file", "is packed, but no workbook: choose a CSV or XLSX file")


def _cell(value: Any) -> Cell:
    if isinstance(value, datetime):
        return value.date()
    if value is None or isinstance(value, (str, int, float, bool, date)):
        return value
    return str(value)


def write_csv(heads: Iterable[str], rows: Iterable[Iterable[Cell]]) -> bytes:
    """A CSV as most programs read it: UTF-8 with its mark, commas, points for decimals."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow([_safe(head) for head in heads])
    writer.writerows([[_safe(cell) for cell in row] for row in rows])
    return b"\xef\xbb\xbf" + out.getvalue().encode()


def write_xlsx(heads: Iterable[str], rows: Iterable[Iterable[Cell]]) -> bytes:
    """A workbook with one sheet."""
    book = Workbook(write_only=True)
    sheet = book.create_sheet("log")
    sheet.append(list(heads))
    for row in rows:
        sheet.append([_text(cell) for cell in row])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


_FORMULA: Final = ("=", "+", "-", "@", "\t", "\r")
QUOTE: Final = "'"
"""Before a text that a spreadsheet would take for a formula; taken off on the way in."""


def _safe(cell: Cell) -> Cell:
    if isinstance(cell, date):
        return cell.isoformat()
    if isinstance(cell, bool):
        return "yes" if cell else ""
    return _text(cell)


def _text(cell: Cell) -> Cell:
    """A text that is no formula: names come from people, and people's files from anywhere."""
    if isinstance(cell, str) and cell.startswith((*_FORMULA, QUOTE)):
        return QUOTE + cell
    return cell
