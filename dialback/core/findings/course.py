"""Findings of the course of training: what was kept, how it felt, what moves and what does not."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from dialback.core.baseline import TOLERANCE, weeks_before, window
from dialback.core.figures import TOP_LOAD, TOTAL_SETS, in_total, of_movement
from dialback.core.findings.finding import Finding, WeekInHand, exceeds, movements_of
from dialback.core.maxima import TopSet, estimated_maximum, is_working, session_tops
from dialback.core.movements import fold
from dialback.core.once import Once
from dialback.core.reconcile import SessionMatch
from dialback.core.sessions import Session, Set
from dialback.core.strain import daily_loads, session_loads
from dialback.core.tally import Entry, Ledger
from dialback.core.vocabulary import WHOLE_WEEK, Level
from dialback.core.weeks import Week
from dialback.core.words import amount_text, number

FELT_DAYS: Final = 21
"""So many days before the week the last time of a lift may lie to be compared with."""
LEAST_WEEKS: Final = 3
"""In so many of the weeks, and of those before, a lift must have been done to be judged."""
LEAST_STALLED: Final = 2
"""One lift that stands still is no finding."""


def carry_over_findings(week: WeekInHand) -> Iterator[Finding]:
    """Too few of the last trained week's movements, unless a block begins."""
    least = week.rules.carry_over
    if least is None or not week.has_sets or week.week in week.ledger.blocks.begins:
        return
    last = next((one for one in reversed(window(week.week)) if week.ledger.is_trained(one)), None)
    before = movements_of(week.ledger.entries("completed", last)) if last is not None else ()
    main = week.ledger.blocks.main(week.week)
    if main:
        # A block that says what it is about keeps that; the rest may come and go.
        before = tuple(name for name in before if fold(name) in main)
    if not before:
        return
    kept = [name for name in before if name in week.movements]
    share = len(kept) / len(before)
    if not exceeds(least, share):
        return
    gone = [name for name in before if name not in week.movements]
    yield Finding(
        "carry_over",
        WHOLE_WEEK,
        "movements",
        "caution",
        share,
        least,
        f"{len(kept)} of the {len(before)} movements of the last trained week are kept; dropped: "
        f"{', '.join(gone)}. Is a new block starting?",
        f"{_needed(least, len(before)) - len(kept)} of them again, or a new block starting here.",
        tuple(of_movement(name, "sets") for name in kept),
    )


def _needed(share: float, count: int) -> int:
    return next(kept for kept in range(count + 1) if not exceeds(share, kept / count))


def monotony_findings(week: WeekInHand) -> Iterator[Finding]:
    """Days too much alike, where every session has exertion and minutes."""
    limit = week.rules.monotony_limit
    if limit is None or week.against is None:
        return
    volume = week.tally.get(in_total("volume_load_kg"), 0.0)
    monotony = session_loads(week.sessions, week.week, week.entries, volume).monotony
    if monotony is None or not exceeds(monotony, limit):
        return
    days = ", ".join(number(load, 0) for load in daily_loads(week.sessions, week.week))
    yield Finding(
        "monotony",
        WHOLE_WEEK,
        "monotony",
        "caution",
        monotony,
        limit,
        f"The days are too much alike: monotony {number(monotony, 1)}, limit {number(limit)}. "
        f"Load (RPE × minutes) from Monday on: {days}.",
        "A hard day harder and an easy day easier, or a day off, for the same weekly load.",
        (TOTAL_SETS,),
    )


def effort_drift_findings(week: WeekInHand) -> Iterator[Finding]:
    """The same top sets rated harder than the last time, over several movements."""
    limit, least = week.rules.effort_drift, week.rules.effort_pairs
    if limit is None or least is None or week.against is None:
        return
    first = week.week.monday - timedelta(days=FELT_DAYS)
    earlier: dict[str, TopSet] = {}
    for before in weeks_before(week.week, FELT_DAYS // 7):
        earlier |= _last_tops(week.ledger, week.ledger.entries("completed", before), first)
    pairs = []
    for name, now in _last_tops(week.ledger, week.entries, first).items():
        then = earlier.get(name)
        if (
            then is not None
            and abs(now.moved_kg - then.moved_kg) <= TOLERANCE
            and now.set.reps == then.set.reps
            and now.set.rpe is not None
            and then.set.rpe is not None
        ):
            pairs.append((name, then.set.rpe, now.set.rpe))
    if not pairs or len(pairs) + TOLERANCE < least:
        return
    rise = sum(now - then for _, then, now in pairs) / len(pairs)
    if exceeds(limit, rise):
        return
    told = ", ".join(f"{name} {number(then)} → {number(now)}" for name, then, now in pairs)
    yield Finding(
        "effort_drift",
        WHOLE_WEEK,
        "rpe",
        "caution",
        rise,
        limit,
        f"The same loads and reps were rated {number(rise, 1)} RPE harder than last time: {told}.",
        "Ask how the athlete sleeps, eats and feels; a lighter week, if it goes on.",
        tuple(of_movement(name, TOP_LOAD) for name, *_ in pairs),
    )


def _last_tops(ledger: Ledger, entries: Iterable[Entry], first: date) -> dict[str, TopSet]:
    """The top set of each movement in its last session, from a day on; of sets with reps."""
    since = (entry for entry in entries if entry.set.lead.reps and entry.session.date >= first)
    tops: dict[str, TopSet] = {}
    for in_session in session_tops(since, ledger):
        tops |= in_session
    return tops


@dataclass(frozen=True, slots=True)
class WeekBest:
    """What a movement reached in a week: estimated maximum in kg, reps and seconds of a set."""

    maximum_kg: float | None
    reps: float | None
    seconds: float | None


def stalled_findings(week: WeekInHand) -> Iterator[Finding]:
    """Compound movements that have not moved for weeks, where half of them have not."""
    weeks, least = week.rules.stalled_weeks, week.rules.stalled_share
    if weeks is None or least is None or week.against is None:
        return
    later = (*weeks_before(week.week, weeks - 1), week.week)
    earlier = weeks_before(later[0], weeks)
    spans = [[_week_bests(week.ledger, one) for one in span] for span in (earlier, later)]
    judged: dict[str, bool] = {}
    for name in dict.fromkeys(name for span in spans for bests in span for name in bests):
        before, now = ([bests[name] for bests in span if name in bests] for span in spans)
        if len(before) >= LEAST_WEEKS and len(now) >= LEAST_WEEKS:
            moved = _moved(before, now)
            if moved is not None:
                judged[name] = moved
    still = [name for name, moved in judged.items() if not moved]
    if len(still) < LEAST_STALLED or exceeds(least, len(still) / len(judged)):
        return
    yield Finding(
        "stalled",
        WHOLE_WEEK,
        "movements",
        "note",
        len(still) / len(judged),
        least,
        f"{len(still)} of {len(judged)} compound movements have not gone up in {weeks} weeks: "
        f"{', '.join(still)}.",
        "A lighter week, another rep range, or another way to progress; ask about sleep and food.",
        tuple(of_movement(name, "sets") for name in still),
    )


def _week_bests(ledger: Ledger, week: Week) -> Mapping[str, WeekBest]:
    return _BESTS.of(ledger.kept, week, lambda: _bests(ledger, week))


_BESTS: Final = Once[Week, Mapping[str, WeekBest]]()


def _bests(ledger: Ledger, week: Week) -> Mapping[str, WeekBest]:
    bests: dict[str, WeekBest] = {}
    for entry in ledger.entries("completed", week):
        movement = entry.measured.shape.moves[0].movement
        if not is_working(entry) or not movement.compound:
            continue
        maximum = estimated_maximum(
            entry.set, movement, ledger.rules, ledger.body.on(entry.session.date)
        )
        known = bests.get(movement.name, WeekBest(None, None, None))
        bests[movement.name] = WeekBest(
            _most(known.maximum_kg, maximum),
            _most(known.reps, entry.set.own_reps or None),
            _most(known.seconds, entry.set.own_seconds or None),
        )
    return bests


def _most(one: float | None, other: float | None) -> float | None:
    return max((value for value in (one, other) if value is not None), default=None)


def _moved(before: list[WeekBest], now: list[WeekBest]) -> bool | None:
    """Whether the later weeks went beyond the earlier; ``None`` where nothing compares."""
    for measure in ("maximum_kg", "reps", "seconds"):
        then, since = (
            max(
                (value for best in span if (value := getattr(best, measure)) is not None),
                default=None,
            )
            for span in (before, now)
        )
        if then is not None and since is not None:
            return exceeds(since, then)
    return None


def ready_findings(week: WeekInHand) -> Iterator[Finding]:
    """Movements whose every set reached the top of its range, in their last session."""
    target = week.rules.target_rpe
    if target is None or week.against is None:
        return
    last: dict[str, tuple[date, list[Set], list[Set]]] = {}
    for match in week.against.matches:
        if match.plan is None or match.done is None:
            continue
        for name in dict.fromkeys(a_set.exercise for a_set in match.plan.sets if a_set.exercise):
            plans, dones = _working_of(week, match, name)
            ranged = [a_set for a_set in plans if a_set.reps_to is not None]
            movement = week.ledger.movements[name].name
            if ranged and (movement not in last or last[movement][0] <= match.plan.date):
                last[movement] = (match.plan.date, plans, dones)
    for name, (day, plans, dones) in last.items():
        pairs = [
            (plan, dones[at] if at < len(dones) else None)
            for at, plan in enumerate(plans)
            if plan.reps_to is not None
        ]
        if all(done is not None and _reached(plan, done, target) for plan, done in pairs):
            count = float(len(pairs))
            top = max(plan.reps_to or 0 for plan, _ in pairs)
            yield Finding(
                "ready",
                name,
                "reps",
                "note",
                count,
                count,
                f"{name} on {day:%A}: {amount_text(count, 'sets')} at the top of the range "
                f"({top} reps) at RPE {number(target)} or less.",
                "The next load the kit has, from the bottom of the range.",
                (of_movement(name, "reps"),),
                days=tuple(dict.fromkeys(session.date for session in _days(week, day))),
            )


def _days(week: WeekInHand, day: date) -> Iterator[Session]:
    """The completed sessions that were done for the plan of a day."""
    assert week.against is not None  # noqa: S101 - asked by its caller
    for match in week.against.matches:
        if match.plan is not None and match.plan.date == day:
            yield from match.dones


def _working_of(week: WeekInHand, match: SessionMatch, name: str) -> tuple[list[Set], list[Set]]:
    """The working sets of a movement in a session, as planned and as done, each in order."""
    movement = week.ledger.movements[name]
    if not movement.counted or match.plan is None or match.done is None:
        return [], []
    plans, dones = (
        [
            a_set
            for a_set in session.sets
            if a_set.exercise and fold(a_set.exercise) == fold(name) and not a_set.warm_up
        ]
        for session in (match.plan, match.done)
    )
    return plans, dones


def _reached(plan: Set, done: Set, target: float) -> bool:
    assert plan.reps_to is not None  # noqa: S101 - chosen by its caller
    easy = done.rpe is None or not exceeds(done.rpe, target)
    return (done.own_reps or 0) >= plan.reps_to and easy


def return_findings(week: WeekInHand) -> Iterator[Finding]:
    """The first week after a break, by its share of the last ordinary week before it."""
    limits, ended = week.rules.return_share, week.ended_break
    if limits is None or ended is None or not week.has_sets:
        return
    usual = ended.ledger.tally("completed", ended.reference)[TOTAL_SETS]
    sets = week.tally[TOTAL_SETS]
    share = sets / usual
    level: Level = "note"
    if exceeds(share, limits[0]):
        level = "high" if exceeds(share, limits[1]) else "caution"
    limit = limits[1] if level == "high" else limits[0]
    most = limits[0] * usual
    yield Finding(
        "return",
        WHOLE_WEEK,
        "sets",
        level,
        share,
        limit,
        f"The first week after {ended.weeks} weeks off: {amount_text(sets, 'sets')}, "
        f"{number(share * 100, 0)} % of the {number(usual)} in week {str(ended.reference)[-2:]}, "
        "the last ordinary one.",
        "About half of that is a good start; go by how the athlete feels."
        if level == "note"
        else f"{number(most, 0)} sets or fewer is a good start; the rest can wait a week.",
        (TOTAL_SETS,),
        amount=sets,
        base=usual,
    )
