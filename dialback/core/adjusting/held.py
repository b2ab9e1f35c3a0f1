"""What a proposal leaves alone: what was published lately, and what a coach has declined.

What was published is not turned back for four weeks, unless a finding that is new speaks for it; a
step that a coach declined is not proposed again while that holds (``docs/method.md``, *Steady*).
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Final

from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.recurring import Where, session_of, steps_of, where_of
from dialback.core.adjusting.result import CIRCUIT
from dialback.core.baseline import weeks_before
from dialback.core.decisions import STEP, Decision, Direction
from dialback.core.figures import TOTAL_SETS
from dialback.core.movements import MovementTable, fold
from dialback.core.plans.spans import Span, spans_of
from dialback.core.sessions import Session
from dialback.core.tally import Ledger, tally
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week

STEADY_WEEKS: Final = 4
"""So many weeks what was published is not turned back."""

Place = tuple[int, int]
"""A line: the place of its session, from 0, and its number there, from 1."""


@dataclass(frozen=True, slots=True)
class Held:
    """Lines that get no more sets or no fewer, and movements that are not added to a session.

    Each with the week in which it was published so; ``None`` of what a coach has declined.
    """

    no_more: Mapping[Place, Week | None] = field(default_factory=dict)
    no_fewer: Mapping[Place, Week | None] = field(default_factory=dict)
    not_added: Mapping[tuple[int, str], Week | None] = field(default_factory=dict)

    def __bool__(self) -> bool:
        return bool(self.no_more or self.no_fewer or self.not_added)

    def plus(self, other: Held) -> Held:
        """What either of the two holds."""
        return Held(
            {**self.no_more, **other.no_more},
            {**self.no_fewer, **other.no_fewer},
            {**self.not_added, **other.not_added},
        )


NOTHING_HELD: Final = Held()


@dataclass(frozen=True, slots=True)
class Steady:
    """What was published lately, and the findings that were there then: others are new."""

    held: Held = NOTHING_HELD
    known: frozenset[Key] = frozenset()


NOT_STEADY: Final = Steady()


def step_name(line: Span) -> str:
    """What a coach calls a line that a proposal changes: its movement, or a circuit's part."""
    return (line.part or CIRCUIT) if line.kind == "rounds" else " + ".join(line.movements)


def declined(
    decisions: Iterable[Decision], week: Week, start: Sequence[Session], movements: MovementTable
) -> Held:
    """What a coach has declined: more or fewer sets of a movement, on any day."""
    said = {
        (fold(one.subject), one.measure)
        for one in decisions
        if one.kind == "declined" and one.code == STEP and one.holds_in(week)
    }
    if not said:
        return NOTHING_HELD

    def lines(way: Direction) -> dict[Place, Week | None]:
        return {
            (at, line.number): None
            for at, session in enumerate(start)
            for line in spans_of(session, movements)
            if (fold(step_name(line)), way) in said
        }

    not_added = {
        (at, movement.name): None
        for movement in movements
        if (fold(movement.name), "more") in said
        for at in range(len(start))
    }
    return Held(lines("more"), lines("fewer"), not_added)


def steady(ledger: Ledger, week: Week, start: tuple[Session, ...]) -> Steady:
    """What the plans of the last four weeks changed and this one still has as they left it.

    Weeks of a kind of their own and those with far fewer sets are passed over; a new block is no
    change.
    """
    plans = list(_comparable(ledger, week, start))
    if len(plans) < 2:
        return NOT_STEADY
    last, latest = plans[0]
    now = steps_of(start, ledger.movements)
    known = [(at, steps_of(plan, ledger.movements)) for at, plan in plans]
    raised: dict[Where, Week] = {}
    lowered: dict[Where, Week] = {}
    for where in now.keys() | {one for _, steps in known for one in steps}:
        count = now.get(where, 0)
        if known[0][1].get(where, 0) != count:
            continue
        for (at, _), (_, before) in pairwise(known):
            was = before.get(
                where, 0 if where.session in {one.session for one in before} else count
            )
            if was != count:
                (raised if was < count else lowered)[where] = at
                break
    held = _held(start, ledger.movements, raised, lowered)
    return Steady(held, frozenset(Judge(ledger, last, latest).at_start)) if held else NOT_STEADY


def _comparable(
    ledger: Ledger, week: Week, start: Sequence[Session]
) -> Iterator[tuple[Week, tuple[Session, ...]]]:
    """The plans before a week, the latest first, as long as they are of one block."""
    share = ledger.rules.lighter_share or 0.0
    least = share * tally(ledger.measure(start)).get(TOTAL_SETS, 0.0)
    if week in ledger.blocks.begins:
        return
    for at in reversed(weeks_before(week, STEADY_WEEKS + 1)):
        plan = tuple(ledger.source.week("planned", at))
        sets = ledger.tally("planned", at).get(TOTAL_SETS, 0.0)
        if plan and at not in ledger.kinds and sets >= least:
            yield at, plan
        if at in ledger.blocks.begins:
            return


def _held(
    start: Sequence[Session],
    movements: MovementTable,
    raised: Mapping[Where, Week],
    lowered: Mapping[Where, Week],
) -> Held:
    no_more: dict[Place, Week | None] = {}
    no_fewer: dict[Place, Week | None] = {}
    not_added: dict[tuple[int, str], Week | None] = {}
    for at, session in enumerate(start):
        for line in spans_of(session, movements):
            where = where_of(session, line)
            if where in raised:
                no_fewer[at, line.number] = raised[where]
            if where in lowered:
                no_more[at, line.number] = lowered[where]
        here = session_of(session)
        for where, week in lowered.items():
            if where.session == here and len(where.movements) == 1:
                not_added[at, where.movements[0]] = week
    return Held(no_more, no_fewer, not_added)
