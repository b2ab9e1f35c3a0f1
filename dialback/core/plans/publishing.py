"""What publishing a draft changes: day by day, in words; days that have a log stay as planned."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from dialback.core.plans.ahead import MovementChange, changes_between
from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.core.words import describe


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
        return DayChange(day, title, "new", tuple(_lines(changes_between([], after))))
    if not after:
        return DayChange(day, title, "gone")
    if _same(before, after):
        return DayChange(day, title, "same")
    return DayChange(day, title, "changed", tuple(_lines(changes_between(before, after))))


def _same(before: Iterable[Session], after: Iterable[Session]) -> bool:
    return [(one.title, one.sets) for one in before] == [(one.title, one.sets) for one in after]


def _by_day(sessions: Iterable[Session]) -> dict[date, list[Session]]:
    found: dict[date, list[Session]] = defaultdict(list)
    for session in sessions:
        found[session.date].append(session)
    return found


def _lines(changes: Iterable[MovementChange]) -> Iterator[str]:
    for change in changes:
        if not change.sets_before:
            yield f"{change.movement}: {_sets(change.sets_after)} new, {_dose(change.after)}"
        elif not change.sets_after:
            yield f"{change.movement}: out, {_sets(change.sets_before)}"
        else:
            said = []
            if change.sets_before != change.sets_after:
                said.append(f"{change.sets_before} → {_sets(change.sets_after)}")
            if change.before != change.after:
                said.append(f"{_dose(change.before)} → {_dose(change.after)}")
            if said:
                yield f"{change.movement}: {'; '.join(said)}"


def _sets(count: int) -> str:
    return f"{count} set{'' if count == 1 else 's'}"


def _dose(a_set: Set | None) -> str:
    return "" if a_set is None else describe(a_set)
