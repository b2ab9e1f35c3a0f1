"""What creeps: sets, ratios, minutes, rests, body weight, sides, plan and log."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import timedelta
from math import exp, log
from statistics import fmean, median
from typing import Final

from dialback.core.audit import sessions_done
from dialback.core.balance import deciding_measure, weigh
from dialback.core.causes import FOLDS
from dialback.core.figures import TOTAL_SETS
from dialback.core.long_run.trend import trend
from dialback.core.long_run.view import (
    PER_WEEKS,
    WINDOW,
    Line,
    Signal,
    View,
    in_percent,
    per_eight,
)
from dialback.core.sides import left_right
from dialback.core.vocabulary import PAIRS_BY_NAME, WHOLE_WEEK
from dialback.core.weeks import Week
from dialback.core.words import number, weight_text

RATIO_WINDOW: Final = 13
LEAST_RATIO: Final = 8
REST_WEEKS: Final = 2
REST_BEFORE: Final = 3
WEIGHT_DAYS: Final = 56
LEAST_WEIGHT_DAYS: Final = 28


def creep(view: View) -> Iterator[Signal]:
    """The week's sets, more and more."""
    limit = view.threshold("creep")
    if limit is None or not view.steady_now:
        return
    points: Line = [
        (week, view.ledger.tally("completed", week)[TOTAL_SETS]) for week in view.steady(WINDOW)
    ]
    found = view.trend(points)
    if found is None or not found.rises or not found.creeps or per_eight(found) < limit:
        return
    yield Signal(
        "creep",
        WHOLE_WEEK,
        "sets",
        "caution",
        f"The week's sets have crept from {number(found.first, 0)} in {points[0][0].said} to "
        f"{number(found.last, 0)}, without a jump.",
        tuple(points),
        points[0][0],
    )


def ratio_drift(view: View) -> Iterator[Signal]:
    """A ratio that moves one way for twelve weeks, away from the middle of its band.

    The pairs that a leaning pair takes in are told by it.
    """
    limit = view.threshold("ratio_drift")
    if limit is None or not view.steady_now:
        return
    rules = view.ledger.rules
    told: set[str] = set()
    for fold in FOLDS:
        pair = PAIRS_BY_NAME[fold.pair]
        band = rules.balance_bands.get(pair.name)
        if band is None or band[0] <= 0 or pair.name in told:
            continue
        measure = deciding_measure(pair, rules)
        points: Line = []
        for week in view.steady(RATIO_WINDOW):
            sides = weigh(view.ledger.tally("completed", week), pair, measure)
            if sides.a > 0 and sides.b > 0:
                points.append((week, log(sides.a / sides.b)))
        found = view.trend(points, LEAST_RATIO)
        if found is None or not found.creeps or abs(found.last - found.first) < log(1 + limit):
            continue
        middle = (log(band[0]) + log(band[1])) / 2
        away = (found.rises and found.last > middle) or (found.falls and found.last < middle)
        if not away:
            continue
        told |= {*fold.same_way, *fold.other_way}
        ratios = tuple((week, exp(value)) for week, value in points)
        end = band[1] if found.rises else band[0]
        yield Signal(
            "ratio_drift",
            pair.name,
            measure,
            "caution",
            f"{pair.title} has drifted from {exp(found.first):.2f} in {points[0][0].said} to "
            f"{exp(found.last):.2f}; the band ends at {number(end)}.",
            ratios,
            points[0][0],
        )


def longer(view: View) -> Iterator[Signal]:
    """Sessions that take longer from week to week."""
    limit = view.threshold("longer")
    if limit is None or not view.steady_now:
        return
    points: Line = []
    for week in view.steady(WINDOW):
        minutes = [
            session.duration_min
            for session in view.ledger.source.week("completed", week)
            if session.duration_min
        ]
        if minutes:
            points.append((week, median(minutes)))
    found = view.trend(points)
    if found is None or not found.rises or per_eight(found) < limit:
        return
    yield Signal(
        "longer",
        WHOLE_WEEK,
        "minutes",
        "caution",
        f"Sessions take {number(found.last, 0)} minutes; in {points[0][0].said} they took "
        f"{number(found.first, 0)}.",
        tuple(points),
        points[0][0],
    )


def rests_shorter(view: View) -> Iterator[Signal]:
    """Rests a good deal shorter than five weeks ago, movement by movement, where the plan asks
    for the same.
    """
    limit = view.threshold("rests_shorter")
    if limit is None or not view.steady_now:
        return
    points = view.index(_rests(view, view.steady(WINDOW)))
    lately, before = points[-REST_WEEKS:], points[:-REST_WEEKS]
    if len(before) < REST_BEFORE or lately[-1][0] != view.week:
        return
    # What has been falling has begun somewhere: the earlier half is what it is compared with.
    usual = median(value for _, value in before[: max(REST_BEFORE, len(before) // 2 + 1)])
    now = fmean(value for _, value in lately)
    if now > (1 - limit) * usual or max(value for _, value in lately) >= min(
        value for _, value in before[:REST_BEFORE]
    ):
        return
    yield Signal(
        "rests_shorter",
        WHOLE_WEEK,
        "rest_s",
        "caution",
        f"Rests are {in_percent(1 - now / usual)} shorter than in {before[0][0].said}, movement by "
        "movement.",
        tuple(points),
        before[-1][0],
    )


def _rests(view: View, weeks: list[Week]) -> dict[Week, dict[str, float]]:
    """The mean rest of each movement by week: as a share of the plan's, or in seconds.

    A share only of movements whose rest every week's plan has: shares and seconds are not compared.
    """
    done = {week: _mean_rests(view, week, planned=False) for week in weeks}
    asked = {week: _mean_rests(view, week, planned=True) for week in weeks}
    unplanned = {name for week in weeks for name in done[week].keys() - asked[week].keys()}
    return {
        week: {
            name: rest if name in unplanned else rest / asked[week][name]
            for name, rest in done[week].items()
        }
        for week in weeks
    }


def _mean_rests(view: View, week: Week, *, planned: bool) -> dict[str, float]:
    entries = view.ledger.entries("planned" if planned else "completed", week)
    found: dict[str, list[float]] = {}
    for entry in entries:
        if entry.set.exercise is not None and not entry.set.warm_up and entry.set.rest_s:
            found.setdefault(entry.set.exercise, []).append(entry.set.rest_s)
    return {name: fmean(rests) for name, rests in found.items()}


def body_weight(view: View) -> Iterator[Signal]:
    """Body weight that falls."""
    limit = view.threshold("body_weight")
    body = view.ledger.body
    if limit is None:
        return
    last = view.week.sunday
    first = last - timedelta(days=WEIGHT_DAYS + 7)
    points = [(day, kg) for day, kg in zip(body.days, body.kg, strict=True) if first <= day <= last]
    if (
        not points
        or (points[-1][0] - points[0][0]).days < LEAST_WEIGHT_DAYS
        or Week.of(points[-1][0]) < view.week.plus(-1)
    ):
        return
    found = trend([((day - last).days / 7, kg) for day, kg in points])
    if found is None or not found.falls or found.last > (1 - limit) * found.first:
        return
    unit = view.ledger.unit
    yield Signal(
        "body_weight",
        WHOLE_WEEK,
        "bodyweight_kg",
        "caution",
        f"Body weight has fallen from {weight_text(found.first, unit, 1)} in "
        f"{Week.of(points[0][0]).said} to {weight_text(found.last, unit, 1)} "
        f"(−{in_percent(1 - found.last / found.first)}).",
        tuple({Week.of(day): kg for day, kg in points}.items()),
        Week.of(points[0][0]),
    )


def side_gap_grows(view: View) -> Iterator[Signal]:
    """The gap between left and right, over all movements, growing."""
    limit = view.threshold("side_gap_grows")
    if limit is None or not view.steady_now:
        return
    points: Line = []
    for week in view.steady(WINDOW):
        left, right = left_right(view.entries(week))["reps"]
        if left or right:
            points.append((week, abs(left - right) / max(left, right)))
    found = view.trend(points)
    if found is None or not found.rises or found.last - found.first < limit:
        return
    yield Signal(
        "side_gap_grows",
        "left_right",
        "reps",
        "caution",
        f"The gap between left and right has grown from {in_percent(max(0.0, found.first))} in "
        f"{points[0][0].said} to {in_percent(found.last)}.",
        tuple(points),
        points[0][0],
    )


def plan_drift(view: View) -> Iterator[Signal]:
    """What is done of the sessions kept moves away from what they were to be."""
    limit = view.threshold("plan_drift")
    if limit is None or not view.ledger.is_trained(view.week):
        return
    points: Line = []
    for week in view.trained(WINDOW):
        planned = view.ledger.tally("planned", week).get(TOTAL_SETS, 0.0)
        kept = sessions_done(view.ledger, week).share
        # A missed session is told as such; this is about those that were kept.
        if planned and kept is not None and kept >= 1:
            points.append((week, view.ledger.tally("completed", week)[TOTAL_SETS] / planned))
    points = points[-PER_WEEKS:]
    found = view.trend(points)
    if found is None or points[-1][0] != view.week:
        return
    moved = found.last - found.first
    if abs(moved) < limit or not (found.rises or found.falls):
        return
    if abs(found.last - 1) < abs(found.first - 1):
        return
    yield Signal(
        "plan_drift",
        WHOLE_WEEK,
        "sets",
        "caution",
        f"Of the sets planned {in_percent(found.last)} are done; in {points[0][0].said} "
        f"it was {in_percent(found.first)}.",
        tuple(points),
        points[0][0],
    )
