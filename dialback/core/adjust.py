"""Adjusting the next week: a draft of lines, the dial that scales it, and its notches."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Annotated, Any, Final, Literal

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
    """What the dial turns as one: equal sets in a row, or a circuit round by round.

    ``count`` is the number of sets, or of rounds. Of a circuit ``rounds`` has the sets of every
    round as they were planned (a ladder's differ), and ``set`` is the first of them.
    """

    set: Set
    count: int = Field(ge=0, le=MAX_SETS)
    rounds: tuple[Annotated[tuple[Set, ...], Field(strict=False)], ...] = Field(
        (), strict=False, max_length=MAX_SETS
    )

    @property
    def unit(self) -> tuple[Set, ...]:
        """What one more of it adds: a set, or the sets of the last round."""
        return self.rounds[-1] if self.rounds else (self.set,)

    def sets(self) -> Iterator[Set]:
        """All of its sets in order. One more round copies the last, one fewer takes it off."""
        if not self.rounds:
            yield from (self.set for _ in range(self.count))
            return
        planned = len(self.rounds)
        between = self.rounds[-2][-1].rest_s if planned > 1 else self.rounds[-1][-1].rest_s
        end = self.rounds[-1][-1].rest_s
        for number in range(self.count):
            sets = self.rounds[min(number, planned - 1)]
            for at, one in enumerate(sets):
                changed: dict[str, Any] = {}
                if number >= planned:
                    changed["round"] = number + 1
                if at == len(sets) - 1 and self.count != planned:
                    # Behind the last round there is no rest between rounds.
                    rest = end if number == self.count - 1 else between
                    if (number >= planned - 1 or number == self.count - 1) and rest != one.rest_s:
                        changed["rest_s"] = rest
                yield one.model_copy(update=changed) if changed else one


class DraftSession(Value):
    """A day of a draft, as lines."""

    date: Day
    title: str = Field("", max_length=200)
    lines: tuple[Line, ...] = Field(strict=False, max_length=MAX_SETS)


def as_draft(sessions: Iterable[Session]) -> tuple[DraftSession, ...]:
    """Sessions as a draft: equal sets in a row become a line, and so does a circuit."""
    return tuple(
        DraftSession(date=one.date, title=one.title, lines=tuple(_lines(one.sets)))
        for one in sessions
    )


def _lines(sets: Sequence[Set]) -> Iterator[Line]:
    for in_rounds, run in groupby(_circuits(sets), key=lambda item: item[0]):
        several = [one for _, one in run]
        if in_rounds is None:
            for one, alike in groupby(several):
                yield Line(set=one, count=sum(1 for _ in alike))
            continue
        rounds = tuple(tuple(same) for _, same in groupby(several, key=lambda one: one.round))
        yield Line(set=several[0], count=len(rounds), rounds=rounds)


def _circuits(sets: Sequence[Set]) -> Iterator[tuple[tuple[str | None, int] | None, Set]]:
    """Each set with its circuit: the sets of a part that say their round, from each first on."""
    begun = 0
    for one in sets:
        number = one.round
        if number is None:
            yield None, one
            continue
        if number == 1 and one.place == 1:
            begun += 1
        yield (one.part, begun), one


def as_sessions(draft: Iterable[DraftSession]) -> tuple[Session, ...]:
    """A draft as sessions; lines of no sets and days of no lines fall away."""
    sessions = (
        Session(
            date=day.date,
            title=day.title,
            sets=tuple(one for line in day.lines for one in line.sets()),
        )
        for day in draft
    )
    return tuple(session for session in sessions if session.sets)


def turns(line: Line, movements: MovementTable) -> bool:
    """Whether the dial scales the line: work that counts, not warm-ups and not conditioning."""
    return line.count > 0 and step_of(line, movements) > 0


def step_of(line: Line, movements: MovementTable) -> int:
    """How many sets that count one more of the line adds."""
    return sum(_counts(one, movements) for one in line.unit)


def _counts(one: Set, movements: MovementTable) -> bool:
    return not one.warm_up and any(movements[name].counted for name, _ in one.named_moves())


def dial_total(draft: Iterable[DraftSession], movements: MovementTable) -> int:
    """The sets that the dial turns."""
    return sum(
        _counts(one, movements) for day in draft for line in day.lines for one in line.sets()
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
    reached = sum(_sets_of(line, 1, movements) for line in lines.values())
    while queue and reached < total:
        _, at, number = queue[0]
        line, count = lines[at, number], counts[at, number]
        gain = _sets_of(line, count + 1, movements) - _sets_of(line, count, movements)
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


def _sets_of(line: Line, count: int, movements: MovementTable) -> int:
    """The sets that count of so many of a line."""
    if not line.rounds:
        return count if _counts(line.set, movements) else 0
    planned = [sum(_counts(one, movements) for one in sets) for sets in line.rounds]
    return sum(planned[:count]) + max(0, count - len(planned)) * planned[-1]


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
    here = _by_key(audit_draft(ledger, week, as_sessions(draft)))
    found: dict[tuple[str, str, str], Notch] = {}
    seen: set[int] = set()
    for total in sorted(range(least, most + 1), key=lambda total: abs(total - start)):
        turned = scale(draft, total, ledger.movements)
        stop = dial_total(turned, ledger.movements)
        if stop in seen:
            continue
        seen.add(stop)
        there = _by_key(audit_draft(ledger, week, as_sessions(turned)))
        for key in here.keys() - there.keys() - found.keys():
            found[key] = Notch(stop, "clears", here[key])
        for key in there.keys() - here.keys() - found.keys():
            found[key] = Notch(stop, "appears", there[key])
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
