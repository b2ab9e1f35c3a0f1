"""The way to a goal: the top set of each week, and by when it can be reached."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from math import ceil, floor
from typing import Final

from dialback.core.goals.standing import NOW_WEEKS, TINY, Standing, Trend
from dialback.core.kit import at_or_below
from dialback.core.maxima import MOST_REPS, WITHOUT_KIT_KG, is_working, share_at
from dialback.core.weeks import Week

LONGEST: Final = 104
"""Weeks ahead that are looked through for the day on which a goal can be reached."""


@dataclass(frozen=True, slots=True)
class Step:
    """A week on the way: the top set it asks for; loads of one implement, that the kit has."""

    week: Week
    load_kg: float
    reps: int | None
    seconds: float | None


def top_sets_to(at: Standing, now: float, weeks: int) -> tuple[Step, ...]:
    """The top set of each week, in even steps, within the rule and of loads that there are."""
    found = []
    heaviest = list(_loads_done(at))
    for number in range(1, weeks + 1):
        value = now + (at.target - now) * number / weeks
        step = _step(at, at.week.plus(number), value, max(heaviest[-NOW_WEEKS:], default=None))
        heaviest.append(step.load_kg)
        found.append(step)
    return tuple(found)


def _loads_done(at: Standing) -> Iterator[float]:
    """The heaviest load of one implement in each week of late that has the movement."""
    for back in range(-NOW_WEEKS, 1):
        week = at.week.plus(back)
        loads = [
            entry.set.load_kg
            for entry in at.ledger.entries("completed", week)
            if is_working(entry) and entry.measured.shape.moves[0].movement.name == at.movement.name
        ]
        if loads:
            yield max(loads)


def _step(at: Standing, week: Week, value: float, heaviest: float | None) -> Step:
    if at.kind == "seconds":
        return Step(week, at.goal.load_kg, None, float(floor(value + TINY)))
    if at.kind == "reps":
        return Step(week, at.goal.load_kg, floor(value + TINY), None)
    reps = at.goal.reps or 1
    wanted = _load_at(at, value, reps)
    if heaviest:
        wanted = min(wanted, _furthest(at, heaviest))
    load = _made(at, wanted)
    moved = load * at.implements + at.body
    # A load that falls short of the week's value is done for more reps.
    while reps < MOST_REPS and moved / share_at(float(reps + 1), at.ledger.rules) <= value:
        reps += 1
    return Step(week, load, reps, None)


def _furthest(at: Standing, heaviest: float) -> float:
    """How far a week may go up: by the rule, or to the next load that the kit has."""
    rules = at.ledger.rules
    most = heaviest * (1 + rules.load_step[0])
    loads = at.loads if rules.kit_step_note else ()
    return max(most, next((load for load in loads if load > heaviest + TINY), most))


def _load_at(at: Standing, maximum: float, reps: int) -> float:
    """The load of one implement that can be moved for so many reps."""
    moved = maximum * share_at(float(reps), at.ledger.rules)
    return max(0.0, (moved - at.body) / at.implements)


def _made(at: Standing, load: float) -> float:
    if at.loads:
        return at_or_below(load, at.loads) or at.loads[0]
    return floor(load / WITHOUT_KIT_KG + TINY) * WITHOUT_KIT_KG


def reaches(at: Standing, step: Step) -> bool:
    """Whether the last week comes to the goal, or to the kit's load next below it."""
    if at.beyond_kit:
        return False
    if at.kind == "seconds":
        return (step.seconds or 0.0) >= (at.goal.seconds or 0.0) - TINY
    enough = (step.reps or 0) >= (at.goal.reps or 0)
    return enough and step.load_kg >= _made(at, at.goal.load_kg) - TINY


def first_day(at: Standing, now: float, trend: Trend | None) -> date | None:
    """The first week's end by which it can be reached at the pace of lately."""
    if trend is None or trend.weekly <= 0:
        return None
    weeks = ceil((at.target - now) / trend.weekly - TINY)
    while weeks <= LONGEST:
        if reaches(at, top_sets_to(at, now, weeks)[-1]):
            return at.today + timedelta(weeks=weeks)
        weeks += 1
    return None
