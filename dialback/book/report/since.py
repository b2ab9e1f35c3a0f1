"""What changed since the last block, on one page."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from dialback.book.report.changes import changes_told
from dialback.book.report.week import Cell, amount
from dialback.book.report.words import CAUTION, date_text, week_span
from dialback.core.across import Across, Decided, Mean, Span
from dialback.core.words import Unit, percent


def since_content(
    found: Across, decided: Sequence[Decided], athlete: str, house: str, unit: Unit
) -> dict[str, Any]:
    """What the page says."""
    ahead = f"{found.planned} of its weeks as planned" if found.planned else ""
    return {
        "house": house,
        "title": f"{athlete}, {found.after.title}",
        "span": _span(found.after),
        "signed": ahead,
        "beside": f"Compared with {found.before.title}, {_span(found.before)}",
        "heads": ["", "before", "now", "change"],
        "measures": [_row(one, unit) for one in found.measures],
        "muscles": [_row(one, unit) for one in found.muscles],
        "changes": changes_told(found.movements),
        "came": found.told(before=False, after=True),
        "went": found.told(before=True, after=False),
        "stayed": found.told(before=True, after=True),
        "decided": [
            {
                "head": f"{date_text(one.day)}{f', {one.who}' if one.who else ''}",
                "what": one.what,
                "reason": one.reason,
            }
            for one in decided
        ],
        "foot": CAUTION,
    }


def _span(span: Span) -> str:
    return week_span(span.weeks[0], len(span.weeks))


def _row(one: Mean, unit: Unit) -> list[Cell]:
    return [
        one.name,
        amount(one.before, one.measure, unit),
        amount(one.after, one.measure, unit),
        "–" if one.change is None else percent(one.change),
    ]
