"""A squad's draft: shared sessions changed for all, exceptions for single athletes, judged anew."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from dialback.core.adjusting.held import step_name
from dialback.core.audit import audit_draft
from dialback.core.findings import Finding
from dialback.core.findings.difference import difference
from dialback.core.once import Once
from dialback.core.plans.spans import Span
from dialback.core.sessions import Session
from dialback.core.squads.adjusting.plan import Decision, Otherwise, SquadPlan
from dialback.core.squads.adjusting.result import Levels
from dialback.core.squads.adjusting.starts import GivenBy, Start, shared_sessions, starts_of
from dialback.core.squads.programmes import Member
from dialback.core.weeks import Week
from dialback.core.words import describe


@dataclass(frozen=True, slots=True)
class Turn:
    """A count of a line, or of a movement that is added: for all, or for one athlete.

    ``session`` counts from 0: of all in the shared sessions, of one ``athlete`` in their own week.
    ``line`` counts from 1; without one the ``movement`` is added.
    """

    athlete: str | None
    session: int
    line: int | None
    movement: str | None
    count: int


@dataclass(frozen=True, slots=True)
class TurnedWeek:
    """One athlete's week of a draft: what it was, what it is, and what of it is another.

    ``changed`` says whether the draft changes anything in it.
    """

    start: Start
    sessions: tuple[Session, ...]
    before: Levels
    after: Levels
    cleared: tuple[Finding, ...]
    appeared: tuple[Finding, ...]
    changed: bool


def squad_plan(members: Sequence[Member], week: Week, given: GivenBy | None = None) -> SquadPlan:
    """What the squad's week starts from, with the sessions that several share.

    Raises ``NothingToStartFromError`` where nobody has a plan to begin with.
    """
    starts = starts_of(members, week, offer=True, given=given)
    return SquadPlan(starts, shared_sessions(starts))


def mark_of(plan: SquadPlan) -> str:
    """What tells whether a draft is of these plans: they have the same sessions and places."""
    return _MARKS.of(plan.kept, None, lambda: _mark(plan))


def _mark(plan: SquadPlan) -> str:
    told = "\n".join(
        f"{start.member.name} {sorted(start.still)} "
        + " ".join(session.model_dump_json() for session in start.sessions)
        for start in plan.starts
    )
    return hashlib.sha256(told.encode()).hexdigest()[:32]


_MARKS: Final = Once[None, str]()


def turned(plan: SquadPlan, turns: Iterable[Turn]) -> tuple[TurnedWeek, ...]:
    """Everybody's week with some changes. Raises ``LookupError`` for what is not there."""
    decisions = [Decision() for _ in plan.shared]
    exceptions = [Otherwise() for _ in plan.starts]
    for turn in turns:
        if turn.athlete is None:
            decisions[turn.session] = _decided(plan, decisions, turn)
        else:
            at = _number(plan, turn.athlete)
            exceptions[at] = _otherwise(plan, at, exceptions[at], turn)
    return tuple(
        _judged(start, plan.week_of(number, decisions, exceptions[number]))
        for number, start in enumerate(plan.starts)
    )


def _decided(plan: SquadPlan, decisions: Sequence[Decision], turn: Turn) -> Decision:
    if turn.session >= len(plan.shared):
        raise LookupError("this session is no longer shared")
    shared, known = plan.shared[turn.session], decisions[turn.session]
    if turn.line is not None:
        first = plan.starts[shared.first]
        _check_turns(line_at(first, shared.places[shared.first], turn.line))
        return Decision({**known.counts, turn.line: turn.count}, known.added)
    for number in shared.places:
        _offered(plan.starts[number], turn.movement)
    return Decision(known.counts, {**known.added, turn.movement or "": turn.count})


def _otherwise(plan: SquadPlan, number: int, known: Otherwise, turn: Turn) -> Otherwise:
    start = plan.starts[number]
    if turn.session >= len(start.sessions) or turn.session in start.still:
        raise LookupError(f"{start.member.name} has no such session to change")
    if turn.line is not None:
        _check_turns(line_at(start, turn.session, turn.line))
        return Otherwise({**known.counts, (turn.session, turn.line): turn.count}, known.added)
    _offered(start, turn.movement)
    added = {**known.added, (turn.session, turn.movement or ""): turn.count}
    return Otherwise(known.counts, added)


def _number(plan: SquadPlan, athlete: str) -> int:
    for number, start in enumerate(plan.starts):
        if start.member.name == athlete:
            return number
    raise LookupError(f"{athlete} has no plan in this week")


def line_at(start: Start, session: int, line: int) -> Span:
    """A line of a session of somebody's start. Raises ``LookupError``."""
    found = next((one for one in start.spans[session] if one.number == line), None)
    if found is None:
        title = start.sessions[session].title or start.sessions[session].date.isoformat()
        raise LookupError(f"{title} no longer has this line")
    return found


def _check_turns(line: Span) -> None:
    if line.fixed:
        raise LookupError(f"{step_name(line)} is a line that does not turn")


def _offered(start: Start, movement: str | None) -> None:
    if movement not in start.offers:
        raise LookupError(f"{movement} was not done lately by {start.member.name}")


def _judged(start: Start, sessions: tuple[Session, ...]) -> TurnedWeek:
    before = start.judge.start
    after = audit_draft(start.judge.ledger, before.week, sessions)
    changed = difference(before.findings, after.findings)
    return TurnedWeek(
        start,
        sessions,
        Levels.of(before.findings),
        Levels.of(after.findings),
        tuple(one for one in changed.cleared if one.level != "note"),
        tuple(one for one in changed.appeared if one.level != "note"),
        sessions != start.sessions,
    )


@dataclass(frozen=True, slots=True)
class SharedLine:
    """A line of a shared session as it stands for all: its bounds, and whether they all do it so.

    ``words`` are those of its first athlete; ``differs`` where others have other loads or reps.
    """

    span: Span
    name: str
    words: str
    differs: bool


def lines_of(plan: SquadPlan, number: int) -> tuple[SharedLine, ...]:
    """The lines of a shared session, but for warm-ups."""
    shared = plan.shared[number]
    first = plan.starts[shared.first]
    return tuple(
        SharedLine(
            span,
            step_name(span),
            words := _words(first, shared.places[shared.first], span),
            any(
                _words(plan.starts[at], place, line_at(plan.starts[at], place, span.number))
                != words
                for at, place in shared.places.items()
            ),
        )
        for span in first.spans[shared.places[shared.first]]
        if not span.warm_up
    )


def _words(start: Start, place: int, span: Span) -> str:
    sets = start.sessions[place].sets
    return "; ".join(describe(sets[at]) for at in span.units[0])
