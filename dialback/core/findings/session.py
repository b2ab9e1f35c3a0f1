"""Findings of single sessions: left and right, order, missing warm-ups, too much of it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from datetime import date
from math import ceil
from typing import Final

from dialback.core.baseline import TOLERANCE
from dialback.core.duration import estimated_duration
from dialback.core.figures import TOP_LOAD, in_total, of_movement
from dialback.core.findings.finding import (
    Finding,
    WeekInHand,
    exceeds,
    level_above,
    movements_of,
    worst,
)
from dialback.core.maxima import best_before, estimates, is_working, load_moved
from dialback.core.movements import Movement
from dialback.core.sessions import Session
from dialback.core.sides import movement_sides
from dialback.core.tally import Entry
from dialback.core.vocabulary import label
from dialback.core.words import amount_text, number, weight_text

FAR: Final = 1.25
"""Above its limit by this factor a session is high."""


def side_gap_findings(week: WeekInHand) -> Iterator[Finding]:
    """Movements with sets of one side whose sides differ; of reps and volume load the worse."""
    limits = week.rules.side_gap
    if limits is None:
        return
    for name, sides in movement_sides(week.entries).items():
        gaps = {measure: _gap(*sides[measure]) for measure in ("reps", "volume_load_kg")}
        measure = max(gaps, key=lambda one: (gaps[one] > gaps["reps"] + TOLERANCE, one == "reps"))
        gap = gaps[measure]
        level = level_above(gap, limits)
        if level is None:
            continue
        limit = limits[1] if level == "high" else limits[0]
        left, right = sides[measure]
        behind = "left" if left < right else "right"
        missing = max(left, right) * (1 - limits[0]) - min(left, right)
        missing = ceil(missing - TOLERANCE) if measure == "reps" else missing
        yield Finding(
            "side_gap",
            name,
            measure,
            level,
            gap,
            limit,
            f"{name}: {amount_text(left, measure, week.unit)} left and "
            f"{amount_text(right, measure, week.unit)} right, "
            f"{number(gap * 100, 0)} % apart; the limit is {number(limit * 100, 0)} %. "
            "Is it intended?",
            f"{amount_text(missing, measure, week.unit)} more on the {behind}, "
            "or less on the other side.",
            (of_movement(name, measure),),
            amount=abs(left - right),
        )


def _gap(left: float, right: float) -> float:
    most = max(left, right)
    return abs(left - right) / most if most > 0 else 0.0


def order_findings(week: WeekInHand) -> Iterator[Finding]:
    """Days on which an isolated movement comes before the compound one that needs its muscle."""
    if week.rules.order != "compound_first":
        return
    days: dict[date, list[tuple[Movement, Movement, str]]] = defaultdict(list)
    for session, entries in week.by_session:
        days[session.date] += _too_early(entries)
    for day, early in days.items():
        if not early:
            continue
        pairs = dict.fromkeys((small.name, big.name, muscle) for small, big, muscle in early)
        told = "; ".join(
            f"{small} before {big}, which needs the {muscle}" for small, big, muscle in pairs
        )
        names = dict.fromkeys(name for small, big, _ in pairs for name in (small, big))
        yield Finding(
            "order",
            day.isoformat(),
            "sets",
            "caution",
            float(len(early)),
            0,
            f"{day:%A}: {told} ({amount_text(len(early), 'sets')}). Is that pre-exhaust on "
            "purpose?",
            "The compound movement first, or the part marked as pre-exhaust.",
            tuple(of_movement(name, "sets") for name in names),
            days=(day,),
        )


def _too_early(entries: tuple[Entry, ...]) -> Iterator[tuple[Movement, Movement, str]]:
    """Isolated sets with the compound movement that they come before, and a muscle of both."""
    marked = {entry.set.part for entry in entries if entry.set.pre_exhaust and entry.set.part}
    working = [entry for entry in entries if is_working(entry)]
    movements = [entry.measured.shape.moves[0].movement for entry in working]
    for at, (entry, small) in enumerate(zip(working, movements, strict=True)):
        if small.compound or entry.set.pre_exhaust or entry.set.part in marked:
            continue
        for muscle in small.direct:
            # The first compound movement that needs it: where one came before, it is tired already.
            place, big = next(
                (
                    (one, big)
                    for one, big in enumerate(movements)
                    if big.compound and muscle in big.muscles
                ),
                (-1, small),
            )
            if place > at:
                yield small, big, label(muscle)
                break


def no_warm_up_findings(week: WeekInHand) -> Iterator[Finding]:
    """Compound movements that begin a session heavy, with no warm-up set of theirs before."""
    least = week.rules.warm_up_from
    if least is None:
        return
    told: set[str] = set()
    done = (
        week.entries if week.basis == "completed" else week.ledger.entries("completed", week.week)
    )
    own = estimates(done, week.ledger)
    for session, entries in week.by_session:
        for entry, movement in _first_working(entries):
            if movement.name in told or not movement.compound or not entry.set.lead.load_kg:
                continue
            best = best_before(week.ledger, week.week, own, movement.name, session.date)
            if best is None or _warmed_up(entries, entry, movement):
                continue
            load = load_moved(
                entry.set.lead, movement, week.rules, week.ledger.body.on(entry.session.date)
            )
            share = load / best
            if exceeds(least, share):
                continue
            told.add(movement.name)
            yield Finding(
                "no_warm_up",
                movement.name,
                "load_kg",
                "caution",
                share,
                least,
                f"{movement.name} on {session.date:%A} begins with "
                f"{weight_text(load, week.unit, 1)} moved, "
                f"{number(share * 100, 0)} % of the estimated maximum of "
                f"{weight_text(best, week.unit, 1)}, "
                "and no warm-up set before it.",
                f"Warm-up sets before it, or a first set below {number(least * 100, 0)} %.",
                (of_movement(movement.name, TOP_LOAD),),
                amount=load,
                base=best,
                days=(session.date,),
            )


def _first_working(entries: tuple[Entry, ...]) -> Iterator[tuple[Entry, Movement]]:
    """The first working set of each movement in a session."""
    seen: set[str] = set()
    for entry in entries:
        if is_working(entry):
            movement = entry.measured.shape.moves[0].movement
            if movement.name not in seen:
                seen.add(movement.name)
                yield entry, movement


def _warmed_up(entries: tuple[Entry, ...], first: Entry, movement: Movement) -> bool:
    """Whether a warm-up of the movement, or work of another for the same muscle, comes before."""
    before = [entry for entry in entries if entry.at < first.at]
    direct = set(movement.direct)
    return any(
        (entry.set.warm_up and any(move.movement.name == movement.name for move in moves))
        or (is_working(entry) and not direct.isdisjoint(moves[0].movement.direct))
        for entry in before
        for moves in [entry.measured.shape.moves]
    )


def overfull_findings(week: WeekInHand) -> Iterator[Finding]:
    """Sessions with more minutes or movements than the rules allow; of a day the worst."""
    yield from worst(_overfull(week))


def _overfull(week: WeekInHand) -> Iterator[Finding]:
    minutes, movements = week.rules.session_minutes, week.rules.session_movements
    for session, entries in week.by_session:
        name = session.title or f"The session on {session.date:%A}"
        if minutes is not None:
            takes, estimated = _minutes(week, session, entries)
            yield from _too_much(
                session,
                "minutes",
                takes,
                minutes,
                f"{name}: {'about ' if estimated else ''}{number(takes, 0)} min; the limit is "
                f"{number(minutes)} min.",
                "Fewer sets, shorter rests, or a part of it on another day.",
            )
        if movements is not None:
            count = len(movements_of(entries))
            yield from _too_much(
                session,
                "movements",
                count,
                movements,
                f"{name}: {count} movements; the limit is {number(movements)}.",
                "Fewer movements with the same sets, or some of them on another day.",
            )


def _minutes(week: WeekInHand, session: Session, entries: tuple[Entry, ...]) -> tuple[float, bool]:
    """Minutes of a session as logged; of a plan, or without a log of them, as estimated."""
    if week.basis == "completed" and session.duration_min is not None:
        return session.duration_min, False
    return estimated_duration(entries, week.rules).total_s / 60, True


def _too_much(
    session: Session, measure: str, value: float, limit: float, sentence: str, clears: str
) -> Iterator[Finding]:
    level = level_above(value, (limit, limit * FAR))
    if level is not None:
        yield Finding(
            "overfull",
            session.date.isoformat(),
            measure,
            level,
            float(value),
            limit,
            sentence,
            clears,
            (in_total("work_s"), in_total("conditioning_s")),
            days=(session.date,),
        )
