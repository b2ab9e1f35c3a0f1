"""The dial: it scales a draft in the proportions it has, and stops where findings change."""

from __future__ import annotations

import heapq
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Final, Literal, NamedTuple

from dialback.core.audit import Audit, audit_draft, with_sets
from dialback.core.findings import (
    BY_AMOUNT,
    FAMILIES,
    Family,
    Finding,
    Key,
    WeekInHand,
    find,
)
from dialback.core.movements import MovementTable
from dialback.core.plans.draft import DraftSession, Line, as_sessions
from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger, Measures, Tally, added_up, tally
from dialback.core.weeks import Week

LEAST_SHARE: Final = 0.4
MOST_SHARE: Final = 1.6
"""How far the dial turns, as shares of the sets it starts from."""
MOST_MORE: Final = 3
"""So many sets more are always within reach."""


def turns(line: Line, movements: MovementTable) -> bool:
    """Whether the dial scales the line: work that counts, not warm-ups and not conditioning."""
    return line.count > 0 and step_of(line, movements) > 0


def step_of(line: Line, movements: MovementTable) -> int:
    """How many sets that count one more of the line adds."""
    return sum(_counts(a_set, movements) for a_set in line.unit)


def _counts(a_set: Set, movements: MovementTable) -> bool:
    return not a_set.warm_up and any(movements[name].counted for name, _ in a_set.named_moves())


@dataclass(frozen=True, slots=True)
class Hold:
    """What the dial has hold of: the lines of some movements, or all; never those of fixed days.

    ``names`` are those movements; a line that has one of ``apart`` is not held. What stands on a
    fixed day belongs to the total, and does not turn.
    """

    fixed: frozenset[date] = frozenset()
    names: frozenset[str] | None = None
    apart: frozenset[str] = frozenset()

    def has(self, line: Line, movements: MovementTable) -> bool:
        """Whether a line belongs to it."""
        if self.names is None and not self.apart:
            return True
        own = {movements[name].name for a_set in line.unit for name, _ in a_set.named_moves()}
        return not own & self.apart and (self.names is None or bool(own & self.names))


EVERYTHING: Final = Hold()


def dial_total(
    draft: Iterable[DraftSession], movements: MovementTable, hold: Hold = EVERYTHING
) -> int:
    """The sets that the dial has hold of, those that are fixed among them."""
    return sum(
        _counts(a_set, movements)
        for day in draft
        for line in day.lines
        if hold.has(line, movements)
        for a_set in line.sets()
    )


Toward = Literal["nearest", "up", "down"]
"""Where to stop when a circuit jumps over the sets that were asked for."""


def scale(
    draft: Sequence[DraftSession],
    total: int,
    movements: MovementTable,
    toward: Toward = "nearest",
    hold: Hold = EVERYTHING,
) -> tuple[DraftSession, ...]:
    """The draft scaled to so many sets that the dial has hold of, in the proportions it has.

    Whole sets, and whole rounds of a circuit, by highest averages (Webster 1832; Sainte-Lague
    1910): at the draft's own total nothing changes, and from each stop of the dial to the next
    exactly one line gains one set or one round. Every line keeps at least one.
    """
    counts: Counter[Place] = Counter()
    reached = _least_total(draft, movements, hold)
    for place, gain in _gains(draft, movements, hold):
        if not _goes_on(reached, gain, total, toward):
            break
        reached += gain
        counts[place] += 1
    return _turned(draft, movements, counts, hold)


Place = tuple[int, int]
"""Where a line stands: its day and its number there."""


def _turning(
    draft: Sequence[DraftSession], movements: MovementTable, hold: Hold
) -> Iterator[tuple[Place, Line]]:
    for at, day in enumerate(draft):
        if day.date in hold.fixed:
            continue
        for number, line in enumerate(day.lines):
            if turns(line, movements) and hold.has(line, movements):
                yield (at, number), line


def can_turn(draft: Sequence[DraftSession], movements: MovementTable, hold: Hold) -> bool:
    """Whether the dial has hold of a line that turns."""
    return next(_turning(draft, movements, hold), None) is not None


def _least_total(draft: Sequence[DraftSession], movements: MovementTable, hold: Hold) -> int:
    """The sets that the dial has hold of, with one of every line that turns."""
    fixed = [day for day in draft if day.date in hold.fixed]
    return dial_total(fixed, movements, hold) + sum(
        _counted(line, movements)[0] for _, line in _turning(draft, movements, hold)
    )


def _gains(
    draft: Sequence[DraftSession], movements: MovementTable, hold: Hold
) -> Iterator[tuple[Place, int]]:
    """Which line gains next, from one of each on, and how many sets: the same way to any total."""
    lines = dict(_turning(draft, movements, hold))
    each = {place: _counted(line, movements) for place, line in lines.items()}
    counts = dict.fromkeys(lines, 1)
    queue = [(-line.count / 3, place) for place, line in lines.items()]
    heapq.heapify(queue)
    while queue:
        _, place = queue[0]
        units, count = each[place], counts[place]
        yield place, units[min(count, len(units) - 1)]
        counts[place] = count + 1
        heapq.heapreplace(queue, (-lines[place].count / (2 * (count + 1) + 1), place))


def _goes_on(reached: int, gain: int, total: int, toward: Toward) -> bool:
    """Whether one more is taken on the way to a total."""
    if reached >= total:
        return False
    beyond = reached + gain - total
    return beyond <= 0 or toward == "up" or (toward == "nearest" and beyond < total - reached)


def _turned(
    draft: Sequence[DraftSession],
    movements: MovementTable,
    more: Mapping[Place, int],
    hold: Hold,
) -> tuple[DraftSession, ...]:
    """The draft with so many of each turning line beyond the one that it keeps."""
    turning = {place for place, _ in _turning(draft, movements, hold)}
    return tuple(
        day.model_copy(
            update={
                "lines": tuple(
                    line.model_copy(update={"count": 1 + more.get((at, number), 0)})
                    if (at, number) in turning
                    else line
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


def dial_range(
    draft: Sequence[DraftSession], movements: MovementTable, hold: Hold = EVERYTHING
) -> tuple[int, int]:
    """The least and the most sets the dial turns to; both can be reached."""
    total = dial_total(draft, movements, hold)
    least = scale(draft, max(1, round(total * LEAST_SHARE)), movements, "up", hold)
    furthest = max(round(total * MOST_SHARE), total + MOST_MORE)
    most = scale(draft, furthest, movements, "down", hold)
    return dial_total(least, movements, hold), dial_total(most, movements, hold)


def notches(
    ledger: Ledger, week: Week, draft: Sequence[DraftSession], hold: Hold = EVERYTHING
) -> tuple[Notch, ...]:
    """Where, turning the dial from the draft's own total, each finding clears or appears."""
    own = audit_draft(ledger, week, as_sessions(draft))
    # Of lines whose sets are alike, how many there are changes neither their order nor their loads.
    families = FAMILIES if _is_uneven(ledger, draft, hold) else BY_AMOUNT
    start = dial_total(draft, ledger.movements, hold)
    return nearest(own, start, _stops(own, draft, hold), families)


class Stop(NamedTuple):
    """A setting of the dial: what was asked for, where it stops, and the week there."""

    asked: int
    total: int
    week: WeekInHand


def nearest(
    own: Audit, start: int, stops: Iterable[Stop], families: Sequence[Family]
) -> tuple[Notch, ...]:
    """The nearest of the stops at which each finding clears or appears, as seen from the start."""
    here = _by_key(own.findings)
    looked = _keys(own.in_hand, families)
    found: dict[Key, Notch] = {}
    seen: set[int] = set()
    for stop in sorted(stops, key=lambda stop: (abs(stop.asked - start), stop.asked)):
        if stop.total in seen:
            continue
        seen.add(stop.total)
        there = _keys(stop.week, families)
        for key in looked - there - found.keys():
            found[key] = Notch(stop.total, "clears", here[key])
        if fresh := there - looked - found.keys():
            in_words = _by_key(find(replace(stop.week, bare=False), families))
            found |= {key: Notch(stop.total, "appears", in_words[key]) for key in fresh}
    return tuple(sorted(found.values(), key=lambda notch: (notch.total, notch.finding.key)))


def _stops(own: Audit, draft: Sequence[DraftSession], hold: Hold) -> Iterator[Stop]:
    """The settings of the dial upwards; what a set adds is added, and measured once."""
    movements = own.ledger.movements
    least, most = dial_range(draft, movements, hold)
    gains = _gains(draft, movements, hold)
    barest = _turned(draft, movements, {}, hold)
    day_of = [as_sessions([day]) for day in barest]
    lines = [list(day.lines) for day in barest]
    measures: Measures = {}
    entries = [own.ledger.measure(sessions, measures) for sessions in day_of]
    sums = [tally(one) for one in entries]
    reached = _least_total(draft, movements, hold)
    place, gain = next(gains, (None, 0))
    last: Stop | None = None
    changed: set[int] = set()
    for total in range(least, most + 1):
        while place is not None and _goes_on(reached, gain, total, "nearest"):
            at, number = place
            line = lines[at][number]
            lines[at][number] = line.model_copy(update={"count": line.count + 1})
            changed.add(at)
            reached += gain
            place, gain = next(gains, (None, 0))
        if last is not None and reached == last.total:
            yield last._replace(asked=total)
            continue
        for at in changed:
            day = draft[at].model_copy(update={"lines": tuple(lines[at])})
            day_of[at] = as_sessions([day])
            entries[at] = own.ledger.measure(day_of[at], measures)
            sums[at] = tally(entries[at])
        changed.clear()
        days: dict[date, Tally] = {}
        for day, sets in zip(draft, sums, strict=True):
            if sets:
                days[day.date] = added_up([days[day.date], sets]) if day.date in days else sets
        sessions = tuple(session for one in day_of for session in one)
        in_all = tuple(entry for one in entries for entry in one)
        last = Stop(total, reached, with_sets(own, sessions, in_all, days))
        yield last


def _is_uneven(ledger: Ledger, draft: Sequence[DraftSession], hold: Hold) -> bool:
    """Whether sets of a line that turns differ in load, or in how they count."""
    for (at, _), line in _turning(draft, ledger.movements, hold):
        if len(line.units) == 1:
            continue
        if len({len(unit) for unit in line.units}) > 1:
            return True
        for alike in zip(*line.units, strict=True):
            entries = ledger.measure([Session(date=draft[at].date, sets=alike)])
            if len({(entry.set.load_kg, entry.measured.shape.standing) for entry in entries}) > 1:
                return True
    return False


def _keys(week: WeekInHand, families: Sequence[Family]) -> set[Key]:
    return {finding.key for family in families for finding in family(week)}


def _by_key(findings: Iterable[Finding]) -> dict[Key, Finding]:
    return {finding.key: finding for finding in findings}
