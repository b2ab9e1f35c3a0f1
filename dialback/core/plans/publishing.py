"""What publishing a draft changes: day by day, in words; days that have a log stay as planned."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from itertools import groupby
from typing import Literal

from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.core.words import movement_text, number, planned_text


def logged_days(ledger: Ledger, week: Week) -> frozenset[date]:
    """The days of a week whose planned sessions have a log, of that day or linked to it."""
    planned = {session.date for session in ledger.source.week("planned", week)}
    done = {
        day
        for at in (week.plus(-1), week, week.plus(1))
        for session in ledger.source.week("completed", at)
        for day in (session.date, session.plan)
    }
    return frozenset(planned & done)


@dataclass(frozen=True, slots=True)
class DayChange:
    """What becomes of a day: its sessions by title, and what changes in them, line by line."""

    day: date
    title: str
    kind: Literal["new", "gone", "changed", "same", "logged"]
    lines: tuple[str, ...] = ()


def changes_of(
    planned: Sequence[Session], wanted: Sequence[Session], logged: frozenset[date]
) -> tuple[DayChange, ...]:
    """What publishing sessions in place of a week's plan does to each day, in order."""
    before, after = _by_day(planned), _by_day(wanted)
    return tuple(
        _change(day, before.get(day, []), after.get(day, []), logged)
        for day in sorted({*before, *after})
    )


def _change(
    day: date, before: list[Session], after: list[Session], logged: frozenset[date]
) -> DayChange:
    title = ", ".join(session.title for session in before or after if session.title)
    if day in logged:
        return DayChange(day, title, "logged")
    if not before:
        return DayChange(day, title, "new", tuple(_lines([], after)))
    if not after:
        return DayChange(day, title, "gone")
    if _same(before, after):
        return DayChange(day, title, "same")
    return DayChange(day, title, "changed", tuple(_lines(before, after)))


def _same(before: Iterable[Session], after: Iterable[Session]) -> bool:
    return [(one.title, one.sets) for one in before] == [(one.title, one.sets) for one in after]


def _by_day(sessions: Iterable[Session]) -> dict[date, list[Session]]:
    found: dict[date, list[Session]] = defaultdict(list)
    for session in sessions:
        found[session.date].append(session)
    return found


def _lines(before: Iterable[Session], after: Iterable[Session]) -> Iterator[str]:
    """What changes, movement by movement, warm-ups apart; nothing that changes is left unsaid."""
    old, new = _by_movement(before), _by_movement(after)
    said = False
    for name in dict.fromkeys((*new, *old)):
        was, now = _told(old.get(name, [])), _told(new.get(name, []))
        if was == now:
            continue
        said = True
        if not was:
            yield f"{name}: new, {now}"
        elif not now:
            yield f"{name}: out, {was}"
        else:
            yield f"{name}: {was} → {now}"
    if not said:
        yield "the same sets in another order, or another title"


def _by_movement(sessions: Iterable[Session]) -> dict[str, list[Set]]:
    found: dict[str, list[Set]] = defaultdict(list)
    for session in sessions:
        for a_set in session.sets:
            name = movement_text(a_set)
            found[f"{name}, warm-up" if a_set.warm_up else name].append(a_set)
    return found


def _told(sets: Iterable[Set]) -> str:
    """Sets in words, with the exertion and the rest that are planned."""
    return "; ".join(
        f"{len(list(alike))} × {text}" for text, alike in groupby(map(_set_told, sets))
    )


def _set_told(a_set: Set) -> str:
    effort = "" if a_set.rpe is None else f", RPE {number(a_set.rpe)}"
    rest = f", rest {number(a_set.rest_s)} s" if a_set.rest_s else ""
    return f"{planned_text(a_set)}{effort}{rest}"
