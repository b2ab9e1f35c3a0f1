"""A block on one page: its weeks as columns, what came of each, what changes next."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from dialback.book.report.changes import changes_told
from dialback.book.report.week import Standing, amount, share, verdict
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
) -> dict[str, Any]:
    """What the page of a block says.

    ``movements`` go from its first week to its last; ``ahead`` from there to the plan of the week
    behind it, ``None`` where there is no such plan.
    """
    athlete = weeks[0].document["audit"]["athlete"]
    signed = sum(bool(week.document["signed_by"]) for week in weeks)
    return {
        "title": f"{athlete}, {title or 'block'}",
        "span": week_span(weeks[0].week, len(weeks)),
        "signed": f"{signed} of {len(weeks)} weeks signed",
        "weeks": [f"{week.week.monday.isocalendar().week}" for week in weeks],
        "rows": [row for row in _rows(weeks, unit) if set(row[1:]) - {"–", ""}],
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


def _rows(weeks: Sequence[Standing], unit: Unit) -> list[list[str]]:
    audits = [week.document["audit"] for week in weeks]

    def row(name: str, cell: Callable[[Mapping[str, Any]], str]) -> list[str]:
        return [name, *(cell(audit) for audit in audits)]

    rows = [
        row("Sessions done", lambda audit: _of(audit["compliance"]["sessions"])),
        row("Sets planned", lambda audit: number(audit["compliance"]["sets"]["planned"], 1)),
    ]
    for measure in MEASURES:
        rows.append(
            row(
                f"{capital(TITLES[measure])} done",
                lambda audit, measure=measure: amount(audit["totals"][measure], measure, unit),  # type: ignore[misc]
            )
        )
    rows.append(row("Share of the sets", lambda audit: share(audit["compliance"]["sets"]["share"])))
    rows.append(row("Session load", lambda audit: _given(audit["sessions"]["load"], 0)))
    rows.append(row("Monotony", lambda audit: _given(audit["sessions"]["monotony"], 2)))
    for pair in PAIRS:
        rows.append(
            row(
                capital(pair.title),
                lambda audit, pair=pair: _given(audit["balance"][pair.name]["sets"]["ratio"], 2),  # type: ignore[misc]
            )
        )
    for muscle in MUSCLES:
        rows.append(
            row(
                f"{capital(label(muscle))}, sets",
                lambda audit, muscle=muscle: _given(audit["muscles"][muscle]["sets"], 1),  # type: ignore[misc]
            )
        )
    return rows


def _of(sessions: Mapping[str, Any]) -> str:
    return f"{sessions['done']} of {sessions['planned']}"


def _given(value: float | None, digits: int) -> str:
    return number(value, digits) if value else "–"
