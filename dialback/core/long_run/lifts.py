"""What lifts do over weeks: how fast they are done, how hard they feel, one that stands still."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from itertools import pairwise
from math import log
from statistics import fmean
from typing import Final

from dialback.core.figures import of_movement
from dialback.core.kit import loads_for
from dialback.core.long_run.view import (
    PER_WEEKS,
    WINDOW,
    Line,
    Signal,
    View,
    by_movement,
    from_own_mean,
    in_percent,
    per_eight,
)
from dialback.core.maxima import session_tops
from dialback.core.vocabulary import WHOLE_WEEK
from dialback.core.weeks import Week
from dialback.core.words import number

FALLING_MAXIMUM: Final = 0.01
"""Exertion that rises with what is lifted is a block; with maxima that rise more than this it is
left alone."""
STEP_WEEKS: Final = 16
USUAL_STEP_KG: Final = 2.5
STEPS_MISSED: Final = 1.25
"""By more than a step of its load the others must be ahead: a step more would have shown."""
STILL: Final = 0.005
"""A lift that gains no more than this share in eight weeks stands still."""
RISING_LOAD: Final = 0.02


def tension_falls(view: View) -> Iterator[Signal]:
    """Less tension per rep while loads rise: the same movements done faster."""
    limit = view.threshold("tension_falls")
    if limit is None or not view.steady_now:
        return
    weeks = view.steady(WINDOW)
    points = view.index({week: _per_rep(view, week, "tut_s") for week in weeks})
    heavier = view.index({week: _per_rep(view, week, "volume_load_kg") for week in weeks})
    loads = view.trend(heavier)
    found = view.trend(points)
    if (
        found is None
        or loads is None
        or not found.falls
        or found.last > (1 - limit) * found.first
        or loads.last < (1 + RISING_LOAD) * loads.first
    ):
        return
    yield Signal(
        "tension_falls",
        WHOLE_WEEK,
        "tut_s",
        "caution",
        f"Tension per rep has fallen by {in_percent(1 - found.last / found.first)} since "
        f"{points[0][0].said}, while loads rose by {in_percent(loads.last / loads.first - 1)}.",
        tuple(points),
        points[0][0],
    )


def _per_rep(view: View, week: Week, measure: str) -> dict[str, float]:
    sums = view.ledger.tally("completed", week)
    found = {}
    for name, _ in by_movement(view.working(week)):
        reps = sums.get(of_movement(name, "reps"), 0.0)
        if reps > 0:
            found[name] = sums.get(of_movement(name, measure), 0.0) / reps
    return found


def effort_rises(view: View) -> Iterator[Signal]:
    """Exertion that rises over weeks, movement by movement, with nothing to show for it."""
    limit = view.threshold("effort_rises")
    if limit is None or not view.steady_now:
        return
    weeks = view.steady(WINDOW)
    rated = from_own_mean({week: _exertion(view, week) for week in weeks})
    found = view.trend(rated)
    if found is None or not found.rises or found.slope * PER_WEEKS < limit:
        return
    strength = view.trend(view.index({week: _maxima(view, week) for week in weeks}), 4)
    if strength is not None and strength.last > (1 + FALLING_MAXIMUM) * strength.first:
        return
    yield Signal(
        "effort_rises",
        WHOLE_WEEK,
        "rpe",
        "caution",
        f"Sets are rated {number(found.last - found.first, 1)} RPE harder than in "
        f"{weeks[0].said}, movement by movement, and nothing heavier is lifted for it.",
        tuple(rated),
        weeks[0],
    )


def _exertion(view: View, week: Week) -> dict[str, float]:
    found = {}
    for name, entries in by_movement(view.working(week)):
        rated = [entry.set.rpe for entry in entries if entry.set.rpe is not None]
        if rated:
            found[name] = fmean(rated)
    return found


def _maxima(view: View, week: Week) -> dict[str, float]:
    """The best estimated maximum of each movement in a week, kg."""
    found: dict[str, float] = {}
    for tops in session_tops(view.entries(week), view.ledger):
        for name, top in tops.items():
            if top.maximum_kg is not None:
                found[name] = max(found.get(name, 0.0), top.maximum_kg)
    return found


def lift_stands(view: View) -> Iterator[Signal]:
    """A compound lift that stands still while the others rise."""
    limit = view.threshold("lift_stands")
    if limit is None or not view.steady_now:
        return
    weeks = view.steady(WINDOW + 2)
    best = {week: _maxima(view, week) for week in weeks}
    compound = {name for of in best.values() for name in of if view.ledger.movements[name].compound}
    lines = {
        name: [(week, best[week][name]) for week in weeks if name in best[week]]
        for name in sorted(compound)
    }
    behind: list[tuple[float, float, str]] = []
    for name, points in lines.items():
        found = view.trend(points)
        if found is None or found.z >= 1 or per_eight(found) > STILL:
            continue
        rest = view.index({week: _but(of, compound - {name}) for week, of in best.items()}, 2)
        others = view.trend(rest)
        if others is None or not others.rises:
            continue
        gained = per_eight(others)
        apart = view.trend(_ahead(rest, dict(points)))
        if (
            apart is not None
            and apart.rises
            and gained - per_eight(found) >= max(limit, STEPS_MISSED * _next_step(view, name))
        ):
            behind.append((gained - per_eight(found), gained, name))
    if behind:
        # Of several the one that is farthest behind; the rest is a stall of the programme.
        _, gained, name = max(behind)
        first = lines[name][0][0]
        yield Signal(
            "lift_stands",
            name,
            "load_kg",
            "note",
            f"{name} has stood still since {first.said}, while the other lifts gained "
            f"{in_percent(gained)} in eight weeks.",
            tuple(lines[name]),
            first,
        )


def _but(values: Mapping[str, float], names: Collection[str]) -> dict[str, float]:
    return {name: value for name, value in values.items() if name in names}


def _ahead(rest: Line, own: Mapping[Week, float]) -> Line:
    """How far the others are ahead of one, as a logarithm; the weeks that both have."""
    return [(week, log(value / own[week])) for week, value in rest if own.get(week)]


def _next_step(view: View, name: str) -> float:
    """The least that is added to the movement's load, as a share: less cannot be seen.

    By the kit; where that is unknown by the steps that were made so far.
    """
    loads = sorted(
        {
            entry.set.load_kg
            for week in view.trained(STEP_WEEKS)
            for entry in view.working(week)
            if entry.measured.shape.moves[0].movement.name == name and entry.set.load_kg > 0
        }
    )
    if not loads:
        return 0.0
    kit, movement = view.ledger.kit, view.ledger.movements[name]
    made = loads_for(kit, movement)[1] if kit is not None else ()
    above = [load - loads[-1] for load in made if load > loads[-1]]
    steps = above[:1] or [after - before for before, after in pairwise(loads)] or [USUAL_STEP_KG]
    return min(steps) / loads[-1]
