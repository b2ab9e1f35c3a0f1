"""A sheet as people keep it made plain: a second row of heads, sums among the rows, sets across."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from typing import Final

from dialback.book.grid import Grid
from dialback.book.logsheet.columns import heads_known, plain_head
from dialback.book.workbook import Cell

Row = tuple[int, tuple[Cell, ...]]

_SUMS: Final = re.compile(
    r"(?:(?:grand |sub|week(?:ly)? |session )?totals?|sums?|averages?|means?|avg)\b[ :]*"
    r"(?:(?:of |for )?(?:the )?(?:week|session|day|month|sets|reps|volume|tonnage)?)?[ :]*",
    re.IGNORECASE,
)
_SET_HEAD: Final = re.compile(r"(?:set|s)[ ]?([0-9]{1,2})(?:[ ]([a-z ]{1,20}))?", re.IGNORECASE)
_LEAST_SETS: Final = 2


def tidied(grid: Grid) -> Grid:
    """The grid with one row of heads, without rows of sums, and one set a row; what was done is
    among its notes.
    """
    return _one_set_a_row(_without_sums(_with_one_head(grid)))


def _with_one_head(grid: Grid) -> Grid:
    """Two rows of heads as one: ``Load`` above ``kg`` is ``Load kg``; a title above is none."""
    number, second = grid.rows[0]
    texts = ["" if cell is None else str(cell).strip() for cell in second]
    filled = [text for text in texts if text]
    if len(filled) < _LEAST_SETS or any(re.search("[0-9]", text) for text in filled):
        return grid
    if any(isinstance(cell, (int, float, date)) for cell in second):
        return grid
    texts += [""] * (len(grid.heads) - len(texts))
    joined = tuple(
        f"{'' if head.startswith('column ') else head} {text}".strip() or head
        for head, text in zip(grid.heads, texts, strict=True)
    )
    alone = tuple(text or head for head, text in zip(grid.heads, texts, strict=True))
    best = max((grid.heads, joined, alone), key=heads_known)
    if heads_known(best) <= heads_known(grid.heads) or len(grid.rows) < 2:
        return grid
    note = f"row {number} was read as a second row of heads"
    return replace(grid, heads=best, rows=grid.rows[1:], notes=(*grid.notes, note))


def _without_sums(grid: Grid) -> Grid:
    """Without rows of totals and averages: they are no sets."""
    sums = [row for row in grid.rows if _is_sum(row[1])]
    if not sums or len(sums) == len(grid.rows):
        return grid
    left = tuple(row for row in grid.rows if not _is_sum(row[1]))
    rows = ", ".join(str(number) for number, _ in sums[:3]) + (" …" if len(sums) > 3 else "")
    what = f"{len(sums)} rows of sums" if len(sums) > 1 else "a row of sums"
    return replace(grid, rows=left, notes=(*grid.notes, f"{what} left out: row {rows}"))


def _is_sum(row: Sequence[Cell]) -> bool:
    texts = [cell for cell in row if isinstance(cell, str) and cell.strip()]
    return any(_SUMS.fullmatch(text.strip()) for text in texts[:3])


def _one_set_a_row(grid: Grid) -> Grid:
    """Sets that stand side by side, ``Set 1``, ``Set 2`` …, as rows of their own."""
    sets: dict[int, dict[str, int]] = {}
    for at, head in enumerate(grid.heads):
        match = _SET_HEAD.fullmatch(plain_head(head))
        if match is not None:
            sets.setdefault(int(match[1]), {})[(match[2] or "reps").strip()] = at
    if len(sets) < _LEAST_SETS:
        return grid
    kinds = list(dict.fromkeys(kind for columns in sets.values() for kind in columns))
    across = {at for columns in sets.values() for at in columns.values()}
    kept = [at for at in range(len(grid.heads)) if at not in across]
    rows: list[Row] = []
    for number, row in grid.rows:
        own = tuple(row[at] if at < len(row) else None for at in kept)
        for _, columns in sorted(sets.items()):
            cells = tuple(
                row[columns[kind]] if kind in columns and columns[kind] < len(row) else None
                for kind in kinds
            )
            if any(cell not in (None, "", "-") for cell in cells):
                rows.append((number, own + cells))
    heads = (*(grid.heads[at] for at in kept), *kinds)
    if not rows:
        return grid
    note = f"the {len(sets)} sets that stand side by side are read as rows"
    hidden = frozenset(place for place, at in enumerate(kept) if at in grid.hidden)
    return replace(grid, heads=heads, rows=tuple(rows), hidden=hidden, notes=(*grid.notes, note))
