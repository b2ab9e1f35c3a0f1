"""Adjusting the next week: a draft of lines, the dial that scales it, and its notches."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Final, Literal

from pydantic import Field

from dialback.core.audit import Audit, audit_draft
from dialback.core.findings import Finding
from dialback.core.movements import MovementTable, Value
from dialback.core.sessions import MAX_SETS, Day, Session, Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week

LEAST_SHARE: Final = 0.4
MOST_SHARE: Final = 1.6
"""How far the dial turns, as shares of the sets it starts from."""


class Line(Value):
    """Equal sets in a row: one set, and how many of it."""

    set: Set
    count: int = Field(ge=0, le=MAX_SETS)


class DraftSession(Value):
    """A day of a draft, as lines."""

    date: Day
    title: str = Field("", max_length=200)
    lines: tuple[Line, ...] = Field(strict=False, max_length=MAX_SETS)


def as_draft(sessions: Iterable[Session]) -> tuple[DraftSession, ...]:
    """Sessions as a draft: equal sets in a row become a line."""
    return tuple(
        DraftSession(
            date=session.date,
            title=session.title,
            lines=tuple(
                Line(set=one, count=sum(1 for _ in alike)) for one, alike in groupby(session.sets)
            ),
        )
        for session in sessions
    )


def as_sessions(draft: Iterable[DraftSession]) -> tuple[Session, ...]:
    """A draft as sessions; lines of no sets and days of no lines fall away."""
    sessions = (
        Session(
            date=day.date,
            title=day.title,
            sets=tuple(line.set for line in day.lines for _ in range(line.count)),
        )
        for day in draft
    )
    return tuple(session for session in sessions if session.sets)


def turns(line: Line, movements: MovementTable) -> bool:
    """Whether the dial scales the line: work that counts, not warm-ups and not conditioning."""
    return (
        line.count > 0
        and not line.set.warm_up
        and any(movements[name].counted for name, _ in line.set.named_moves())
    )


def dial_total(draft: Iterable[DraftSession], movements: MovementTable) -> int:
    """The sets that the dial turns."""
    return sum(line.count for day in draft for line in day.lines if turns(line, movements))


def scale(
    draft: Sequence[DraftSession], total: int, movements: MovementTable
) -> tuple[DraftSession, ...]:
    """The draft scaled to so many sets in all, in the proportions it has.

    Whole sets by highest averages (Webster 1832; Sainte-Lague 1910): at the draft's own total
    nothing changes, and from each total to the next exactly one line gains exactly one set. Every
    line keeps at least one set; a smaller total than that gives one set each.
    """
    turning = [
        (at, number, line.count)
        for at, day in enumerate(draft)
        for number, line in enumerate(day.lines)
        if turns(line, movements)
    ]
    counts = {(at, number): 1 for at, number, _ in turning}
    queue = [(-count / 3, at, number, count) for at, number, count in turning]
    heapq.heapify(queue)
    for _ in range(total - len(turning)):
        if not queue:
            break
        _, at, number, count = heapq.heappop(queue)
        counts[at, number] += 1
        heapq.heappush(queue, (-count / (2 * counts[at, number] + 1), at, number, count))
    return tuple(
        day.model_copy(
            update={
                "lines": tuple(
                    line.model_copy(update={"count": counts.get((at, number), line.count)})
                    for number, line in enumerate(day.lines)
                )
            }
        )
        for at, day in enumerate(draft)
    )


@dataclass(frozen=True, slots=True)
class Notch:
    """The nearest setting of the dial at which a finding clears or appears."""

    total: int
    effect: Literal["clears", "appears"]
    finding: Finding


def dial_range(total: int) -> tuple[int, int]:
    """The least and the most sets the dial turns to."""
    return max(1, round(total * LEAST_SHARE)), max(1, round(total * MOST_SHARE))


def notches(ledger: Ledger, week: Week, draft: Sequence[DraftSession]) -> tuple[Notch, ...]:
    """Where, turning the dial from the draft's own total, each finding clears or appears."""
    start = dial_total(draft, ledger.movements)
    least, most = dial_range(start)
    here = _by_key(audit_draft(ledger, week, as_sessions(draft)))
    found: dict[tuple[str, str, str], Notch] = {}
    for total in sorted(range(least, most + 1), key=lambda total: abs(total - start)):
        scaled = as_sessions(scale(draft, total, ledger.movements))
        there = _by_key(audit_draft(ledger, week, scaled))
        for key in here.keys() - there.keys() - found.keys():
            found[key] = Notch(total, "clears", here[key])
        for key in there.keys() - here.keys() - found.keys():
            found[key] = Notch(total, "appears", there[key])
    return tuple(sorted(found.values(), key=lambda notch: (notch.total, notch.finding.key)))


@dataclass(frozen=True, slots=True)
class Difference:
    """What one audit has that another does not."""

    cleared: tuple[Finding, ...]
    appeared: tuple[Finding, ...]
    changed: tuple[Finding, ...]


def difference(before: Iterable[Finding], after: Iterable[Finding]) -> Difference:
    """Findings that are gone, that are new, and that stay with another level."""
    old = {finding.key: finding for finding in before}
    new = {finding.key: finding for finding in after}
    return Difference(
        tuple(finding for key, finding in old.items() if key not in new),
        tuple(finding for key, finding in new.items() if key not in old),
        tuple(
            finding
            for key, finding in new.items()
            if key in old and old[key].level != finding.level
        ),
    )


def _by_key(result: Audit) -> dict[tuple[str, str, str], Finding]:
    return {finding.key: finding for finding in result.findings}
