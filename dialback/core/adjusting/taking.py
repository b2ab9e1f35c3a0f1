"""Some of a proposal's changes taken into a plan."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import floor
from typing import Final

from dialback.core.adjusting.start import OFFERED_DAYS, cleared, offered, tires
from dialback.core.duration import estimated_duration
from dialback.core.kit import at_or_below, loads_for, usual_step
from dialback.core.movements import Movement, MovementTable
from dialback.core.notation.reasons import both
from dialback.core.plans.spans import Span, rebuilt, spans_of
from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week

CAREFUL: Final = 0.9
"""Such a share of its last load a compound movement has on a day more."""


@dataclass(frozen=True, slots=True)
class Step:
    """A change to take: a line of a session (by its number) at a count, or a movement added.

    ``why`` is the reason that stands with it from then on.
    """

    session: int
    line: int | None
    movement: str | None
    count: int
    why: str = ""


def take(
    ledger: Ledger, week: Week, start: tuple[Session, ...], steps: Sequence[Step]
) -> tuple[Session, ...]:
    """The start with some of a proposal's changes. Raises ``LookupError`` for what is not there."""
    offers = offered(ledger, week)
    found = []
    for at, session in enumerate(start):
        own = [step for step in steps if step.session == at]
        lines = spans_of(session, ledger.movements)
        counts_ = {step.line: step.count for step in own if step.line is not None}
        if counts_.keys() - {line.number for line in lines}:
            raise LookupError(f"{session.title or session.date} no longer has this line")
        added = []
        for step in own:
            if step.line is None:
                if step.movement not in offers:
                    raise LookupError(f"{step.movement} was not done lately: add it in Write")
                one = offers[step.movement].model_copy(update={"why": step.why})
                added.append((one, step.count))
        whys = {step.line: step.why for step in own if step.line is not None}
        changed = rebuilt(_with_reasons(session, lines, whys), lines, counts_, [])
        for one, count in added:
            changed = _put(ledger, week, changed, one, count)
        found.append(changed)
    return tuple(found)


def _with_reasons(session: Session, lines: Sequence[Span], whys: Mapping[int, str]) -> Session:
    """A session whose lines, by number, say why they are changed, behind what they said before."""
    reasons = {
        place: whys[line.number]
        for line in lines
        if whys.get(line.number)
        for unit in line.units
        for place in unit
    }
    if not reasons:
        return session
    sets = tuple(
        one.model_copy(update={"why": both(one.why, reasons.get(place, ""))})
        for place, one in enumerate(session.sets)
    )
    return session.model_copy(update={"sets": sets})


def _put(ledger: Ledger, week: Week, session: Session, one: Set, count: int) -> Session:
    """A session with sets of a movement added where a coach would put them.

    A compound movement comes before the isolated ones that would tire it, below its last load, and
    with the athlete's own warm-up sets of it, as many as the session has minutes for.
    """
    at = _before_isolated(session, one, ledger.movements)
    movement = ledger.movements[one.named_moves()[0][0]]
    warm_ups: tuple[Set, ...] = ()
    if movement.compound and one.exercise is not None:
        one = one.model_copy(update={"load_kg": _careful(ledger, movement, one)})
        warm_ups = _warm_ups(ledger, week, one)

    def added(several: Sequence[Set]) -> Session:
        sets = (*session.sets[:at], *several, *[one] * count, *session.sets[at:])
        return session.model_copy(update={"sets": sets})

    most = ledger.rules.session_minutes
    for first in range(len(warm_ups)):
        found = added(warm_ups[first:])
        if most is None or _minutes(ledger, found) <= most:
            return found
    return added(())


def _minutes(ledger: Ledger, session: Session) -> float:
    return estimated_duration(ledger.measure([session]), ledger.rules).total_s / 60


def _careful(ledger: Ledger, movement: Movement, one: Set) -> float:
    """The load that a compound movement begins with on a day more: about a tenth below its last."""
    wanted = CAREFUL * one.load_kg
    if wanted <= 0:
        return one.load_kg
    loads = loads_for(ledger.kit, movement)[1] if ledger.kit is not None else ()
    if loads:
        return at_or_below(wanted, loads) or one.load_kg
    step = usual_step(one.load_kg, ledger.unit)
    return floor(wanted / step) * step or one.load_kg


def _warm_ups(ledger: Ledger, week: Week, one: Set) -> tuple[Set, ...]:
    """The athlete's latest warm-up sets of a movement, as far as they are lighter than its work."""
    for back in range(1, OFFERED_DAYS // 7 + 1):
        for basis in ("completed", "planned"):
            for session in reversed(ledger.source.week(basis, week.plus(-back))):
                found = [
                    cleared(a_set)
                    for a_set in session.sets
                    if a_set.warm_up and a_set.exercise == one.exercise
                ]
                if found:
                    return tuple(a_set for a_set in found if a_set.load_kg < one.load_kg)
    return ()


def _before_isolated(session: Session, added: Set, movements: MovementTable) -> int:
    """Where an added set stands: before the first isolated one with a muscle of it, or last."""
    big = movements[added.named_moves()[0][0]]
    for at, one in enumerate(session.sets if big.compound else ()):
        single = one.exercise is not None and not one.warm_up and one.round is None
        if single and tires(movements[one.named_moves()[0][0]], big):
            return at
    return len(session.sets)
