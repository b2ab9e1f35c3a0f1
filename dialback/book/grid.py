"""Spreadsheets as grids of cells: CSV and XLSX, with what could go wrong told in words."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Collection, Iterable, Iterator
from dataclasses import dataclass, replace
from datetime import date
from typing import Final, Literal

from openpyxl import Workbook

from dialback.book.errors import BadInputError, Problem, bad_input
from dialback.book.workbook import MOST_ROWS, Cell, Rows, worksheets

MAX_ROWS: Final = MOST_ROWS
SEEN_EVERY: Final = 100
"""After so many rows the caller is told, and may stop."""
MAX_COLUMNS: Final = 200
_HEAD_WITHIN: Final = 20
_DELIMITERS: Final = ",;\t|"


@dataclass(frozen=True, slots=True)
class Grid:
    """A sheet: its heads, and its rows with their numbers in the file, counted from 1.

    Of several worksheets with the same heads all rows are here, with the worksheet's name behind
    them. ``hidden`` are the places of columns that nobody sees, counted from 0. ``notes`` say what
    was left out or read in another way.
    """

    kind: Literal["csv", "xlsx"]
    heads: tuple[str, ...]
    rows: tuple[tuple[int, tuple[Cell, ...]], ...]
    hidden: frozenset[int] = frozenset()
    notes: tuple[str, ...] = ()


class EmptySheetError(BadInputError):
    """A sheet without rows below a head."""


def read_grid(data: bytes, seen: Callable[[int], None] = lambda _: None) -> Grid:
    """Read a spreadsheet. ``seen`` is told from time to time how many rows were read.

    The head is the first row with at least two filled cells. Raises ``BadInputError`` for what is
    no spreadsheet, or one that cannot be taken.
    """
    if not data.strip():
        raise bad_input("file", "is empty: choose a CSV or XLSX file with a head and rows")
    if data.startswith(b"PK"):
        return _of_worksheets(data, seen)
    if data.startswith((b"\xd0\xcf\x11\xe0", b"%PDF", b"{\\rtf")):
        raise bad_input("file", "is of an older or another format: save it as XLSX or CSV")
    return _grid("csv", iter(enumerate(_csv(data), 1)), seen)


WORKSHEET: Final = "worksheet"
"""The head of the column that says from which of several worksheets a row is."""


def _of_worksheets(data: bytes, seen: Callable[[int], None]) -> Grid:
    """All worksheets of a workbook that have the heads of the first one with rows."""
    main: Grid | None = None
    rows: list[tuple[int, tuple[Cell, ...]]] = []
    notes: list[str] = []
    names: list[str] = []
    first_wrong: EmptySheetError | None = None
    for sheet in worksheets(data):
        notes += [f"worksheet {sheet.name!r}: {note}" for note in sheet.notes]
        try:
            grid = _hidden_last(_grid("xlsx", sheet.rows, seen), sheet.hidden)
        except EmptySheetError as error:
            first_wrong = first_wrong or error
            notes.append(f"worksheet {sheet.name!r} is left out: it has no rows below a head")
            continue
        if main is not None and _folded(grid.heads) != _folded(main.heads):
            notes.append(
                f"worksheet {sheet.name!r} is left out: its columns are others; save it as a file "
                "of its own"
            )
            continue
        main = main or grid
        notes += grid.notes
        names.append(sheet.name)
        empty = (None,) * len(main.heads)
        rows += [
            (number, (*(*row, *empty)[: len(main.heads)], sheet.name)) for number, row in grid.rows
        ]
        if len(rows) > MAX_ROWS:
            raise bad_input("file", f"has more than {MAX_ROWS} rows: split it by years")
    if main is None:
        raise first_wrong or bad_input("file", "is a workbook without a sheet")
    if len(names) < 2:
        return replace(main, notes=tuple(notes) if len(notes) else ())
    return replace(main, heads=(*main.heads, WORKSHEET), rows=tuple(rows), notes=tuple(notes))


def _hidden_last(grid: Grid, hidden: Collection[int]) -> Grid:
    """The grid with the columns that nobody sees behind those that are shown, and that said."""
    places = range(len(grid.heads))
    unseen = [at for at in places if at in hidden]
    if not unseen or len(unseen) == len(grid.heads):
        return grid
    order = [at for at in places if at not in hidden] + unseen
    rows = tuple(
        (number, tuple(row[at] if at < len(row) else None for at in order))
        for number, row in grid.rows
    )
    names = ", ".join(repr(grid.heads[at]) for at in unseen)
    which = "hidden columns were" if len(unseen) > 1 else "a hidden column was"
    return replace(
        grid,
        heads=tuple(grid.heads[at] for at in order),
        rows=rows,
        hidden=frozenset(places[-len(unseen) :]),
        notes=(*grid.notes, f"{which} moved to the end: {names}"),
    )


def _folded(heads: Iterable[str]) -> tuple[str, ...]:
    return tuple(head.casefold().strip() for head in heads)


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
            if not found:
                # What stands above the heads proper may be narrower than they are.
                heads += _heads(row, from_column=len(heads))
            found.append((number, row[: len(heads)]))
        if len(found) > MAX_ROWS:
            raise bad_input("file", f"has more than {MAX_ROWS} rows: split it by years")
        if len(found) % SEEN_EVERY == 0:
            seen(number)
    if heads is None:
        raise EmptySheetError(
            [Problem("file", "has no head: a row with the names of two columns comes first")]
        )
    if not found:
        raise EmptySheetError([Problem("file", "has a head and no rows below it")])
    return Grid(kind, heads, tuple(found))


def _heads(row: tuple[Cell, ...], from_column: int = 0) -> tuple[str, ...]:
    """Names of the columns; one without a name (of merged cells, say) is called by its letter.

    From a later column on all are called so.
    """
    last = max((at for at, cell in enumerate(row) if cell not in (None, "")), default=-1)
    return tuple(
        str(cell).strip() if cell not in (None, "") and not from_column else f"column {_letter(at)}"
        for at, cell in enumerate(row[: min(last + 1, MAX_COLUMNS)])
    )[from_column:]


def _letter(at: int) -> str:
    text = ""
    while at >= 0:
        text = chr(ord("A") + at % 26) + text
        at = at // 26 - 1
    return text


def _csv(data: bytes) -> Iterator[tuple[Cell, ...]]:
    text = _text_in(data)
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


_OLDER: Final = ("cp1252", "mac_roman", "cp850")
"""What older programs of the western world write; each reads the letters of the others as signs."""
_LETTERS: Final = frozenset("äöüÄÖÜßàâáãåçèéêëìíîïñòóôõùúûýÿøæœÀÂÁÅÇÈÉÊËÍÎÑÓÔÕØÆÚ½¼¾°×–—’‘“”…·€£")


def _text_in(data: bytes) -> str:
    """The text of a file, in whatever encoding. Raises ``BadInputError`` for what is none."""
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        try:
            return data.decode("utf-16")
        except UnicodeDecodeError:
            raise bad_input("file", "is damaged: save it again as CSV or XLSX") from None
    if b"\x00" in data[:4096]:
        raise bad_input("file", "is neither a text nor a workbook: choose a CSV or XLSX file")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        texts = [data.decode(encoding, errors="replace") for encoding in _OLDER]
        return max(texts, key=_likely)


def _likely(text: str) -> int:
    """How much a text looks like words: letters that are usual, none that stand out."""
    foreign = [letter for letter in text if not letter.isascii()]
    usual = sum((letter in _LETTERS) + (letter in _USUAL) for letter in foreign)
    strange = sum(letter not in _LETTERS for letter in foreign)
    return usual - strange - 2 * len(_CAPITAL_INSIDE.findall(text))


_USUAL: Final = frozenset("äöüßéèàçñ½°–’")
_CAPITAL_INSIDE: Final = re.compile("[a-zäöüßéèàç][ÀÁÂÃÄÅÆÇÈÉÊËÌÍÎÏÑÒÓÔÕÖØÙÚÛÜÝ]")


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
