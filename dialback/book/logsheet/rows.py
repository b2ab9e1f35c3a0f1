"""From sessions to the rows of an export, one a set."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator
from typing import Final

from dialback.book.logsheet.columns import COLUMNS
from dialback.book.workbook import Cell
from dialback.core.notation.pieces import moves_text
from dialback.core.sessions import KG_PER_LB, Session, Set

_EXPORTED: Final = tuple(column.name for column in COLUMNS if column.name != "count")


def rows_of(sessions: Iterable[tuple[str, Session]]) -> Iterator[list[Cell]]:
    """Rows of an export, one a set, of athletes' names with their sessions."""
    for athlete, session in sessions:
        more = session.model_dump(
            mode="json",
            exclude_defaults=True,
            exclude={"date", "title", "rpe", "duration_min", "sets"},
        )
        about: dict[str, Cell] = {
            "athlete": athlete,
            "date": session.date,
            "title": session.title,
            "session_rpe": session.rpe,
            "duration_min": session.duration_min,
            "session_more": json.dumps(more, ensure_ascii=False) if more else None,
        }
        for a_set in session.sets:
            yield [(about | _cells(a_set)).get(name) for name in _EXPORTED]


def _cells(a_set: Set) -> dict[str, Cell]:
    values = a_set.model_dump(mode="json", exclude_defaults=True)
    values.pop("exercise", None)
    values.pop("moves", None)
    cells: dict[str, Cell] = {"movement": moves_text(a_set.named_moves())}
    if a_set.load_kg:
        pounds = round(a_set.load_kg / KG_PER_LB, 2)
        # As it was entered, where that comes to the same kilograms again.
        if values.get("unit") == "lb" and round(pounds * KG_PER_LB, 3) == a_set.load_kg:
            del values["unit"]
            cells |= {"load": pounds, "unit": "lb"}
        else:
            cells |= {"load": a_set.load_kg, "unit": "kg"}
        del values["load_kg"]
    for name in _EXPORTED:
        # The unit of a set without a load is a key of its own, not that of the column.
        if name in values and name != "unit":
            cells[name] = values.pop(name)
    if values:
        cells["more"] = json.dumps(values, ensure_ascii=False)
    return cells


def export_heads() -> tuple[str, ...]:
    """The heads of an export."""
    return _EXPORTED
