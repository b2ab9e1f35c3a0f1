"""A block on one page: its weeks as columns, what came of each, what changes next."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from dialback.book.report.changes import changes_told
from dialback.book.report.week import Cell, Standing, amount, share, shares_of, verdict
from dialback.book.report.words import CAUTION, week_span
from dialback.core.measures import MEASURES, TITLES
from dialback.core.plans.ahead import MovementChange
from dialback.core.vocabulary import MUSCLES, PAIRS, label
from dialback.core.words import Unit, capital, load_text, number


def block_content(
    title: str,
    weeks: Sequence[Standing],
    movements: Sequence[MovementChange],
    ahead: Sequence[MovementChange] | None,
    unit: Unit,
    house: str,
) -> dict[str, Any]:
    """What the page of a block says.

    ``movements`` go from its first week to its last; ``ahead`` from there to the plan of the week
    behind it, ``None`` where there is no such plan.
    """
    athlete = weeks[0].document["audit"]["athlete"]
    signed = sum(bool(week.document["signed_by"]) for week in weeks)
    return {
        "house": house,
        "title": f"{athlete}, {title or 'block'}",
        "span": week_span(weeks[0].week, len(weeks)),
        "signed": f"{signed} of {len(weeks)} weeks signed",
        "weeks": [f"{week.week.monday.isocalendar().week}" for week in weeks],
        "rows": _rows(weeks, unit),
        "verdicts": [
            {
                "head": f"Week {week.week.monday.isocalendar().week}",
                "signed": week.told,
                "causes": [one for one in verdict(week.document)[0] if one["level"] != "note"],
            }
            for week in weeks
        ],
        "moved": [
            [
                movement.movement,
                _told(movement.sets_before, movement, first=True),
                _told(movement.sets_after, movement, first=False),
            ]
            for movement in movements
        ],
        "changes": ["No plan for the week after it yet."]
        if ahead is None
        else changes_told(ahead) or ["The plan stays as it is."],
        "foot": CAUTION,
    }


def _told(sets: int, one: MovementChange, *, first: bool) -> str:
    heaviest = one.before if first else one.after
    if not sets or heaviest is None:
        return "–"
    load = load_text(heaviest)
    if not load:
        return f"{sets} set" if sets == 1 else f"{sets} sets"
    return f"{sets} at {load}"


def _rows(weeks: Sequence[Standing], unit: Unit) -> list[list[Cell]]:
    """A row for each figure that some week has: its name, its course, and every week's."""
    audits = [week.document["audit"] for week in weeks]
    found: list[list[Cell]] = []

    def row(
        name: str,
        value: Callable[[Mapping[str, Any]], float | None],
        told: Callable[[float | None], str],
        cell: Callable[[Mapping[str, Any]], str] | None = None,
    ) -> None:
        values = [value(audit) for audit in audits]
        if any(values):
            texts = [told(one) for one in values] if cell is None else [cell(one) for one in audits]
            found.append([name, {"weeks": shares_of(values)}, *texts])

    row(
        "Sessions done",
        lambda audit: audit["compliance"]["sessions"]["done"],
        str,
        lambda audit: _of(audit["compliance"]["sessions"]),
    )
    row(
        "Sets planned",
        lambda audit: audit["compliance"]["sets"]["planned"],
        lambda value: number(value or 0.0, 1),
    )
    for measure in MEASURES:
        row(
            f"{capital(TITLES[measure])} done",
            lambda audit, measure=measure: audit["totals"][measure],  # type: ignore[misc]
            lambda value, measure=measure: amount(value, measure, unit),  # type: ignore[misc]
        )
    row("Share of the sets", lambda audit: audit["compliance"]["sets"]["share"], share)
    row("Session load", lambda audit: audit["sessions"]["load"], _given(0))
    row("Monotony", lambda audit: audit["sessions"]["monotony"], _given(2))
    for pair in PAIRS:
        row(
            capital(pair.title),
            lambda audit, pair=pair: audit["balance"][pair.name]["sets"]["ratio"],  # type: ignore[misc]
            _given(2),
        )
    for muscle in MUSCLES:
        row(
            f"{capital(label(muscle))}, sets",
            lambda audit, muscle=muscle: audit["muscles"][muscle]["sets"],  # type: ignore[misc]
            _given(1),
        )
    return found


def _of(sessions: Mapping[str, Any]) -> str:
    return f"{sessions['done']} of {sessions['planned']}"


def _given(digits: int) -> Callable[[float | None], str]:
    return lambda value: number(value, digits) if value else "–"
