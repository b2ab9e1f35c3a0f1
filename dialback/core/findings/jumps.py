"""Findings of change: the week against its baseline, a load against the last four weeks."""

from __future__ import annotations

from collections.abc import Iterator

from dialback.core.baseline import TOLERANCE, Change
from dialback.core.findings.finding import Finding, WeekInHand, level_above
from dialback.core.rules import JUMP_LIMITS
from dialback.core.tally import TOP_LOAD
from dialback.core.vocabulary import MUSCLES, TITLES, label
from dialback.core.words import amount_text, percent, weight_text


def jump_findings(week: WeekInHand) -> Iterator[Finding]:
    """Rises of the week's totals, and of each muscle's sets, beyond the jump limits."""
    for measure in JUMP_LIMITS:
        yield from _jump(week, "total", f"totals/{measure}", measure)
    for muscle in MUSCLES:
        yield from _jump(week, muscle, f"muscles/{muscle}/sets", "sets")


def _jump(week: WeekInHand, subject: str, figure: str, measure: str) -> Iterator[Finding]:
    value = week.tally.get(figure, 0.0)
    change = Change(week.baseline.base(figure), value)
    if change.change is None or change.base is None:
        return
    rise = value - change.base
    if measure == "sets" and rise + TOLERANCE < week.rules.jump_min_sets:
        return
    limits = week.rules.jump_limits[measure]
    level = level_above(change.change, limits)
    if level is None:
        return
    limit = limits[1] if level == "high" else limits[0]
    most = change.base * (1 + limits[0])
    whose = "The week's" if subject == "total" else f"{label(subject).capitalize()}:"
    yield Finding(
        "jump",
        subject,
        measure,
        level,
        change.change,
        limit,
        f"{whose} {TITLES[measure]} {'rise' if measure == 'sets' else 'rises'} from "
        f"{amount_text(change.base, measure)} to {amount_text(value, measure)} "
        f"({percent(change.change)}); the limit is {percent(limit)}. Is the step meant?",
        f"{amount_text(value - most, measure)} less would come down to the limit.",
        (figure,),
        amount=value,
        base=change.base,
    )


def load_step_findings(week: WeekInHand) -> Iterator[Finding]:
    """Movements whose heaviest load rises too far above that of the last four weeks."""
    for name, load in week.heaviest.items():
        change = Change(week.heaviest_before.get(name), load)
        if change.change is None or change.base is None:
            continue
        level = level_above(change.change, week.rules.load_step)
        if level is None:
            continue
        limit = week.rules.load_step[1 if level == "high" else 0]
        most = change.base * (1 + week.rules.load_step[0])
        yield Finding(
            "load_step",
            name,
            "load_kg",
            level,
            change.change,
            limit,
            f"{name}: {amount_text(load, 'load_kg')} after {amount_text(change.base, 'load_kg')} "
            f"at most in four weeks (+{amount_text(load - change.base, 'load_kg')}, "
            f"{percent(change.change)}); the limit is {percent(limit)}. Is the step meant?",
            f"A load of {weight_text(most)} or less is within; or more reps at the old load.",
            (f"movements/{name}/{TOP_LOAD}",),
            amount=load,
            base=change.base,
        )
