"""Spreadsheets as grids of cells: CSV and XLSX, with what could go wrong told in words."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from openpyxl import Workbook

from dialback.book.errors import bad_input
from dialback.book.workbook import MOST_ROWS, Cell, Rows, rows_of_workbook

MAX_ROWS: Final = MOST_ROWS
SEEN_EVERY: Final = 100
"""After so many rows the caller is told, and may stop."""
MAX_COLUMNS: Final = 200
_HEAD_WITHIN: Final = 20
_DELIMITERS: Final = ",;\t|"


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
    rows: Rows
    kind: Literal["csv", "xlsx"]
    if data.startswith(b"PK"):
        kind, rows = "xlsx", rows_of_workbook(data)
    elif data.startswith((b"\xd0\xcf\x11\xe0", b"%PDF", b"{\\rtf")):
        raise bad_input("file", "is of an older or another format: save it as XLSX or CSV")
    else:
        kind, rows = "csv", iter(enumerate(_csv(data), 1))
    return _grid(kind, rows, seen)


def _grid(kind: Literal["csv", "xlsx"], rows: Rows, seen: Callable[[int], None]) -> Grid:
    heads: tuple[str, ...] | None = None
    found: list[tuple[int, tuple[Cell, ...]]] = []
    for number, row in rows:
        if len(row) > MAX_COLUMNS and any(cell not in (None, "") for cell in row[MAX_COLUMNS:]):
            raise bad_input(
                f"row {number}",
                f"has {len(row)} columns; at most {MAX_COLUMNS} are taken: leave "
                "out those that are not logs",
            )
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
        if len(found) % SEEN_EVERY == 0:
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


_FORMULA: Final = ("=", "+", "-", "@", "\t", "\r", "\n", "\uff1d", "\uff0b", "\uff0d", "\uff20")
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
