"""Findings of change: the week against its baseline, a load against the last four weeks."""

from __future__ import annotations

from collections.abc import Iterator
from math import floor
from typing import Final

from dialback.core.baseline import TOLERANCE, Change
from dialback.core.figures import TOP_LOAD, in_total, of_movement, of_muscle
from dialback.core.findings.finding import Finding, WeekInHand, exceeds, level_above
from dialback.core.kit import loads_for
from dialback.core.measures import TITLES
from dialback.core.rules import JUMP_LIMITS
from dialback.core.vocabulary import MUSCLES, WHOLE_WEEK, Key, Level, label
from dialback.core.words import Unit, amount_text, percent, weight_text

NEW_FROM_SETS: Final = 4.0
"""From so many sets on a muscle that the baseline lacks is told, where no rule says another."""
OF_THE_WEEK: Final[Key] = ("jump", WHOLE_WEEK, "sets")
"""The jump of the week's sets."""


def jump_findings(week: WeekInHand) -> Iterator[Finding]:
    """Rises of the week's totals, and of each muscle's sets, beyond the jump limits."""
    for measure in JUMP_LIMITS:
        yield from _jump(week, WHOLE_WEEK, in_total(measure), measure)
    for muscle in MUSCLES:
        figure = of_muscle(muscle, "sets")
        if week.baseline.base(figure) == 0:
            yield from _new_muscle(week, muscle, figure)
        else:
            yield from _jump(week, muscle, figure, "sets")


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
    # Whatever the level comes down to, the limit is the one that was passed.
    limit = limits[1] if level == "high" else limits[0]
    why = ""
    if subject != WHOLE_WEEK:
        level, why = _muscle_level(week, subject, level, change.base, value)
    yield Finding(
        "jump",
        subject,
        measure,
        level,
        change.change,
        limit,
        "" if week.bare else _sentence(week, subject, measure, change, limit, why),
        "",
        (figure,),
        amount=value,
        base=change.base,
    )


def _sentence(
    week: WeekInHand, subject: str, measure: str, change: Change, limit: float, why: str
) -> str:
    base, value = change.base or 0.0, change.value
    whose = "The week's" if subject == WHOLE_WEEK else f"{label(subject).capitalize()}:"
    return (
        f"{whose} {TITLES[measure]} {'rise' if measure == 'sets' else 'rises'} from "
        f"{amount_text(base, measure, week.unit)} to {amount_text(value, measure, week.unit)} "
        f"(+{amount_text(value - base, measure, week.unit)}, {percent(change.change or 0.0)}); "
        f"the limit is {percent(limit)}. {why or 'Is the step intended?'}"
    )


def _new_muscle(week: WeekInHand, muscle: str, figure: str) -> Iterator[Finding]:
    """A muscle that none of the baseline's weeks had: there is no percentage of nothing."""
    value = week.tally.get(figure, 0.0)
    least = week.rules.jump_high_sets
    if exceeds(NEW_FROM_SETS if least is None else least, value) or value <= 0:
        return
    level, why = _muscle_level(week, muscle, "caution", 0.0, value)
    yield Finding(
        "jump",
        muscle,
        "sets",
        level,
        None,
        None,
        f"{label(muscle).capitalize()}: {amount_text(value, 'sets')} after none in the weeks of "
        f"the baseline. {why or 'Is the step intended?'}",
        "Fewer sets in the first week, and more from week to week.",
        (figure,),
        amount=value,
        base=0.0,
    )


def _muscle_level(
    week: WeekInHand, muscle: str, level: Level, base: float, value: float
) -> tuple[Level, str]:
    """A muscle's level, and why it is lower than its change alone would make it."""
    floor_, ceiling = week.rules.muscle_bands[muscle]  # type: ignore[index]
    middle = (floor_ + ceiling) / 2
    if week.rules.jump_from_below and exceeds(floor_, base) and not exceeds(value, middle):
        return "note", f"It was below its minimum of {amount_text(floor_, 'sets')}."
    if begins_block(week):
        # A new block brings other muscles in: what counts is whether the week as a whole jumps.
        if not _total_jumps(week):
            return "note", "A new block has begun, and the week's sets do not jump."
        level = "caution"
    most = week.rules.jump_high_sets
    if level == "high" and most is not None and value - base + TOLERANCE < most:
        return "caution", ""
    return level, ""


def begins_block(week: WeekInHand) -> bool:
    """Whether a block begins in this week or began in the one before."""
    return bool({week.week, week.week.plus(-1)} & week.ledger.blocks.begins)


def _total_jumps(week: WeekInHand) -> bool:
    """Whether the week's sets raise a jump."""
    return any(_jump(week, WHOLE_WEEK, in_total("sets"), "sets"))


def load_step_findings(week: WeekInHand) -> Iterator[Finding]:
    """Movements whose heaviest load rises too far above that of the last four weeks."""
    for name, heaviest in week.heaviest.items():
        before = week.heaviest_before.get(name)
        load = heaviest.total_load_kg
        change = Change(None if before is None else before.total_load_kg, load)
        if before is None or change.change is None or change.base is None:
            continue
        level = level_above(change.change, week.rules.load_step)
        if level is None:
            continue
        limit = week.rules.load_step[1 if level == "high" else 0]
        most = change.base * (1 + week.rules.load_step[0])
        loads = _loads(week, name)
        following = next((one for one in loads if one > before.load_kg + TOLERANCE), None)
        smallest = following is not None and not exceeds(heaviest.load_kg, following)
        if week.rules.kit_step_note and smallest:
            level = "note"
        yield Finding(
            "load_step",
            name,
            "load_kg",
            level,
            change.change,
            limit,
            f"{name}: {weight_text(load, week.unit)} after {weight_text(change.base, week.unit)} "
            f"at most in four weeks (+{weight_text(load - change.base, week.unit)}, "
            f"{percent(change.change)}); the limit is {percent(limit)}. "
            + ("There is no load between them." if smallest else "Is the step intended?"),
            _smaller_step(
                most / heaviest.implements, loads, before.load_kg, heaviest.implements, week.unit
            ),
            (of_movement(name, TOP_LOAD),),
            amount=load,
            base=change.base,
        )


def _loads(week: WeekInHand, name: str) -> tuple[float, ...]:
    """The loads of one implement that the kit has for a movement; empty where nobody knows."""
    kit = week.ledger.kit
    return loads_for(kit, week.ledger.movements[name])[1] if kit is not None else ()


def _smaller_step(
    most: float, loads: tuple[float, ...], before: float, implements: int, unit: Unit
) -> str:
    """A load that exists and is within the limit, or what there is instead of one."""
    several = f"{implements} × " if implements > 1 else ""
    if loads:
        within = max((load for load in loads if load <= most + TOLERANCE), default=None)
        if within is None or within <= before + TOLERANCE:
            return "More reps at the old load first: the kit has nothing between."
        return f"{several}{weight_text(within, unit)} is within; or more reps at the old load."
    # Without a kit to go by: down to half a kilogram.
    within = floor(most * 2 + TOLERANCE) / 2
    if within <= before + TOLERANCE:
        return "More reps at the old load first."
    return f"{several}{weight_text(within, unit)} or less is within; or more reps at the old load."
