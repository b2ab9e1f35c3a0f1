"""What repeats: days that are missed, pain, sets to failure, weeks without a lighter one."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from datetime import timedelta
from statistics import fmean
from typing import Final

from dialback.core.audit import shares_done
from dialback.core.baseline import is_lighter_week
from dialback.core.figures import TOTAL_SETS, of_pattern
from dialback.core.hurts import hurts_since
from dialback.core.long_run.view import PER_WEEKS, Signal, View
from dialback.core.restrictions import Restriction
from dialback.core.tally import Entry
from dialback.core.vocabulary import CLASSES, LIGHT_KINDS, WHOLE_WEEK, label
from dialback.core.weeks import Week
from dialback.core.words import number

DAY_WEEKS: Final = 6
"""Planned weeks in which a day that is missed is looked at."""
CUT_SHORT: Final = 0.5
"""A session of which less was done is as good as missed."""
RATED: Final = 0.6
"""A habit of rating: so many of the sets have an RPE."""
FAILURE_RPE: Final = 9.5
LEAST_SETS: Final = 8
NOT_ORDINARY: Final = frozenset({"test", "travel", "race"})
"""In weeks of these kinds a pattern may well be left out."""
MAIN_PATTERNS: Final = (
    "squat", "hinge", "horizontal_push", "horizontal_pull", "vertical_push", "vertical_pull",
)  # fmt: skip


def pain_again(view: View) -> Iterator[Signal]:
    """A movement that hurt in this week and in one of the weeks before."""
    weeks = view.threshold("pain_again")
    if weeks is None:
        return
    found = defaultdict(list)
    first = view.week.plus(-round(weeks)).monday
    for hurt in hurts_since(view.ledger, first, view.week.sunday):
        found[hurt.movement].append(hurt)
    for movement, hurts in found.items():
        now = [hurt for hurt in hurts if Week.of(hurt.day) == view.week]
        before = [hurt for hurt in hurts if Week.of(hurt.day) < view.week]
        if movement is None or not now or not before:
            continue
        last = before[0]
        yield Signal(
            "pain_again",
            movement,
            "sets",
            "high",
            f"{movement} hurt again: {now[0].note or 'no word of where'}; last in "
            f"{Week.of(last.day).said}{f' ({last.note})' if last.note else ''}.",
            since=Week.of(last.day),
        )


def missed_day(view: View) -> Iterator[Signal]:
    """The same day of the week missed in most of the last weeks."""
    most = view.threshold("missed_day")
    if most is None:
        return
    ledger = view.ledger
    planned: dict[int, list[tuple[Week, float]]] = defaultdict(list)
    # A week off in between is no missed day: a few more weeks are looked at.
    for week in reversed(view.back(DAY_WEEKS + 3)):
        sessions = ledger.source.week("planned", week)
        if not sessions or not ledger.is_trained(week):
            continue
        shares = shares_done(ledger, week)
        by_day: dict[int, list[float]] = defaultdict(list)
        for at, session in enumerate(sessions):
            by_day[session.date.weekday()].append(shares.get(at, 0.0))
        for day, kept in by_day.items():
            if len(planned[day]) < DAY_WEEKS:
                planned[day].append((week, max(kept)))
    for day, weeks in sorted(planned.items()):
        missed = [week for week, kept in weeks if kept < CUT_SHORT]
        if len(missed) < most or len(weeks) < DAY_WEEKS or missed[0] != view.week:
            continue
        name = f"{view.week.monday + timedelta(days=day):%A}"
        yield Signal(
            "missed_day",
            name,
            "sets",
            "caution",
            f"{name} was missed or cut to less than half in {len(missed)} of the last "
            f"{len(weeks)} weeks.",
            tuple(reversed(weeks)),
            missed[-1],
        )


def to_failure(view: View) -> Iterator[Signal]:
    """Nearly all rated sets to failure, two trained weeks running."""
    share = view.threshold("to_failure")
    weeks = view.trained(4)[-2:]
    if share is None or len(weeks) < 2 or weeks[-1] != view.week:
        return
    points = []
    for week in weeks:
        rated = [one.set.rpe for one in view.working(week) if one.set.rpe is not None]
        if len(rated) < LEAST_SETS:
            return
        points.append((week, sum(rpe >= FAILURE_RPE for rpe in rated) / len(rated)))
    if min(value for _, value in points) < share:
        return
    yield Signal(
        "to_failure",
        WHOLE_WEEK,
        "rpe",
        "caution",
        f"{points[-1][1] * 100:.0f} % of the rated sets at RPE {number(FAILURE_RPE)} and above, "
        "the second week running.",
        tuple(points),
        weeks[0],
    )


def rpe_gone(view: View) -> Iterator[Signal]:
    """RPE, once written of most sets, is not for the second week running."""
    most = view.threshold("rpe_gone")
    weeks = view.trained(10)
    if most is None or len(weeks) < 5 or weeks[-1] != view.week:
        return
    points = [(week, _rated(view.working(week))) for week in weeks]
    if max(value for _, value in points[-2:]) > most:
        return
    before = [value for _, value in points[:-2]][-4:]
    if fmean(before) < RATED or min(before) <= most:
        return
    yield Signal(
        "rpe_gone",
        WHOLE_WEEK,
        "rpe",
        "note",
        f"No RPE since {weeks[-2].said}; before, {fmean(before) * 100:.0f} % of the sets had one.",
        tuple(points),
        weeks[-2],
    )


def _rated(entries: list[Entry]) -> float:
    return sum(one.set.rpe is not None for one in entries) / len(entries) if entries else 0.0


def no_lighter(view: View) -> Iterator[Signal]:
    """Trained weeks in a row with no lighter one, and none off."""
    most = view.threshold("no_lighter")
    if most is None or not view.ledger.is_trained(view.week):
        return
    run: list[Week] = []
    for week in reversed(view.back(26)):
        if (
            not view.ledger.is_trained(week)
            or view.ledger.kinds.get(week) in LIGHT_KINDS
            or is_lighter_week(view.ledger, week)
        ):
            break
        run.append(week)
    if len(run) < most:
        return
    yield Signal(
        "no_lighter",
        WHOLE_WEEK,
        "sets",
        "caution",
        f"{len(run)} weeks without a lighter one, since {run[-1].said}.",
        tuple((week, view.ledger.tally("completed", week)[TOTAL_SETS]) for week in reversed(run)),
        run[-1],
    )


def gone(view: View) -> Iterator[Signal]:
    """A main pattern that was there nearly every week, and has not been for some."""
    weeks = view.threshold("gone")
    if weeks is None:
        return
    there = [
        week
        for week in view.trained(PER_WEEKS + 8)
        if view.ledger.kinds.get(week) not in NOT_ORDINARY
    ]
    absent = round(weeks)
    lately, before = there[-absent:], there[:-absent][-PER_WEEKS:]
    if len(before) < 4 or len(lately) < absent:
        return
    avoided = [one for one in view.ledger.restrictions if one.avoids]
    for pattern in MAIN_PATTERNS:
        figure = of_pattern(pattern, "sets")
        points = [
            (week, view.ledger.tally("completed", week).get(figure, 0.0))
            for week in [*before, *lately]
        ]
        had = [value for _, value in points[: len(before)]]
        if (
            any(value for _, value in points[len(before) :])
            or sum(value > 0 for value in had) < 0.8 * len(had)
            or _avoided(pattern, avoided, view.week)
        ):
            continue
        yield Signal(
            "gone",
            pattern,
            "sets",
            "caution",
            f"No {label(pattern)} since {lately[0].said}; before, {number(fmean(had), 0)} sets a "
            "week.",
            tuple(points),
            lately[0],
        )


def _avoided(pattern: str, restrictions: list[Restriction], week: Week) -> bool:
    of_class = {name for name, patterns in CLASSES.items() if pattern in patterns}
    return any(
        one.about == "pattern" and one.subject in {pattern, *of_class} and one.holds(week.monday)
        for one in restrictions
    )
