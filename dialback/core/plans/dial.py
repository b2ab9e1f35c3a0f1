"""The dial: it scales a draft in the proportions it has, and stops where findings change."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from dialback.core.audit import Audit, audit_draft
from dialback.core.findings import Finding
from dialback.core.movements import MovementTable
from dialback.core.plans.draft import DraftSession, Line, as_sessions
from dialback.core.sessions import Set
from dialback.core.tally import Ledger, Measures
from dialback.core.weeks import Week

LEAST_SHARE: Final = 0.4
MOST_SHARE: Final = 1.6
"""How far the dial turns, as shares of the sets it starts from."""


def turns(line: Line, movements: MovementTable) -> bool:
    """Whether the dial scales the line: work that counts, not warm-ups and not conditioning."""
    return line.count > 0 and step_of(line, movements) > 0


def step_of(line: Line, movements: MovementTable) -> int:
    """How many sets that count one more of the line adds."""
    return sum(_counts(one, movements) for one in line.unit)


def _counts(a_set: Set, movements: MovementTable) -> bool:
    return not a_set.warm_up and any(movements[name].counted for name, _ in a_set.named_moves())


def dial_total(draft: Iterable[DraftSession], movements: MovementTable) -> int:
    """The sets that the dial turns."""
    return sum(
        _counts(a_set, movements) for day in draft for line in day.lines for a_set in line.sets()
    )


Toward = Literal["nearest", "up", "down"]
"""Where to stop when a circuit jumps over the sets that were asked for."""


def scale(
    draft: Sequence[DraftSession],
    total: int,
    movements: MovementTable,
    toward: Toward = "nearest",
) -> tuple[DraftSession, ...]:
    """The draft scaled to so many sets in all, in the proportions it has.

    Whole sets, and whole rounds of a circuit, by highest averages (Webster 1832; Sainte-Lague
    1910): at the draft's own total nothing changes, and from each stop of the dial to the next
    exactly one line gains one set or one round. Every line keeps at least one.
    """
    turning = [
        (at, number, line)
        for at, day in enumerate(draft)
        for number, line in enumerate(day.lines)
        if turns(line, movements)
    ]
    counts = {(at, number): 1 for at, number, _ in turning}
    queue = [(-line.count / 3, at, number) for at, number, line in turning]
    heapq.heapify(queue)
    lines = {(at, number): line for at, number, line in turning}
    each = {key: _counted(line, movements) for key, line in lines.items()}
    reached = sum(units[0] for units in each.values())
    while queue and reached < total:
        _, at, number = queue[0]
        line, count = lines[at, number], counts[at, number]
        units = each[at, number]
        gain = units[min(count, len(units) - 1)]
        beyond = reached + gain - total
        if beyond > 0 and (toward == "down" or (toward == "nearest" and beyond >= total - reached)):
            break
        reached += gain
        counts[at, number] = count + 1
        heapq.heapreplace(queue, (-line.count / (2 * (count + 1) + 1), at, number))
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


def _counted(line: Line, movements: MovementTable) -> list[int]:
    """The sets that count of each of a line's units; every further one is as the last."""
    return [sum(_counts(a_set, movements) for a_set in unit) for unit in line.units]


@dataclass(frozen=True, slots=True)
class Notch:
    """The nearest setting of the dial at which a finding clears or appears."""

    total: int
    effect: Literal["clears", "appears"]
    finding: Finding


def dial_range(draft: Sequence[DraftSession], movements: MovementTable) -> tuple[int, int]:
    """The least and the most sets the dial turns to; both can be reached."""
    total = dial_total(draft, movements)
    least = scale(draft, max(1, round(total * LEAST_SHARE)), movements, "up")
    most = scale(draft, max(1, round(total * MOST_SHARE)), movements, "down")
    return dial_total(least, movements), dial_total(most, movements)


def notches(ledger: Ledger, week: Week, draft: Sequence[DraftSession]) -> tuple[Notch, ...]:
    """Where, turning the dial from the draft's own total, each finding clears or appears."""
    start = dial_total(draft, ledger.movements)
    least, most = dial_range(draft, ledger.movements)
    measures: Measures = {}
    here = _by_key(audit_draft(ledger, week, as_sessions(draft), measures))
    found: dict[tuple[str, str, str], Notch] = {}
    seen: set[int] = set()
    for total in sorted(range(least, most + 1), key=lambda total: abs(total - start)):
        turned = scale(draft, total, ledger.movements)
        stop = dial_total(turned, ledger.movements)
        if stop in seen:
            continue
        seen.add(stop)
        there = _by_key(audit_draft(ledger, week, as_sessions(turned), measures))
        for key in here.keys() - there.keys() - found.keys():
            found[key] = Notch(stop, "clears", here[key])
        for key in there.keys() - here.keys() - found.keys():
            found[key] = Notch(stop, "appears", there[key])
    return tuple(sorted(found.values(), key=lambda notch: (notch.total, notch.finding.key)))


def _by_key(result: Audit) -> dict[tuple[str, str, str], Finding]:
    return {finding.key: finding for finding in result.findings}
