"""What a coach's own judgement says of a rule: a finding accepted again and again for one reason.

The rule that would stop it is worked out from the values that were accepted, rounded outward to a
figure that a person would choose. What hurts, what a practitioner forbids and what was missed is
never learned away.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import ceil, floor
from typing import Any, Final

from dialback.core.measures import TITLES
from dialback.core.rules import Rules
from dialback.core.vocabulary import PAIRS_BY_NAME, WHOLE_WEEK, label
from dialback.core.words import number, percent

WEEKS: Final = 8
"""So many weeks up to the one at hand are looked at."""
TIMES: Final = 5
"""So often a finding must have been accepted for the same reason in them."""

_TINY: Final = 1e-9


@dataclass(frozen=True, slots=True)
class Lesson:
    """A choice of the athlete's own, and what it says: ``set abs : lower back to 0.5–4``."""

    chosen: dict[str, Any]
    words: str


def lesson(
    code: str, subject: str, measure: str, values: Sequence[float | None], rules: Rules
) -> Lesson | None:
    """The rule under which values of a finding would not be told; ``None`` where there is none."""
    known = [value for value in values if value is not None]
    if code == "stalled":
        return Lesson({"stalled_share": None}, "say nothing of lifts that stand still")
    if code == "order":
        return Lesson({"order": "any"}, "let movements stand in any order")
    if len(known) < len(values) or not known:
        # All on one side, or new to the baseline: no limit reaches that far.
        return None
    make = _BY_CODE.get(code)
    return None if make is None else make(subject, measure, known, rules)


Make = Callable[[str, str, Sequence[float], Rules], Lesson | None]


def _balance(subject: str, _: str, values: Sequence[float], rules: Rules) -> Lesson | None:
    band = rules.balance_bands.get(subject)
    if band is None:
        return None
    low, high = _wider(band, values, 0.1)
    return Lesson(
        {"balance_bands": {subject: [low, high]}},
        f"set {PAIRS_BY_NAME[subject].title} to {number(low)}–{number(high)}",
    )


def _floor(subject: str, _: str, values: Sequence[float], rules: Rules) -> Lesson:
    high = rules.muscle_bands[subject][1]  # type: ignore[index]
    low = _down(min(values), 1)
    words = f"ask for {number(low)} sets of {label(subject)} a week"
    return Lesson({"muscle_bands": {subject: [low, high]}}, words)


def _ceiling(subject: str, _: str, values: Sequence[float], rules: Rules) -> Lesson:
    low = rules.muscle_bands[subject][0]  # type: ignore[index]
    high = _up(max(values), 1)
    words = f"allow {number(high)} sets of {label(subject)} a week"
    return Lesson({"muscle_bands": {subject: [low, high]}}, words)


def _jump(subject: str, measure: str, values: Sequence[float], rules: Rules) -> Lesson | None:
    limits = rules.jump_limits.get(measure)
    if subject != WHOLE_WEEK or limits is None:
        return None
    most = _up(max(values), 0.05)
    words = f"allow the week's {TITLES[measure]} to rise by {percent(most)}"
    return Lesson({"jump_limits": {measure: [most, max(most, limits[1])]}}, words)


def _off_plan(_: str, __: str, values: Sequence[float], rules: Rules) -> Lesson:
    low, high = _wider(rules.plan_band, values, 0.05)
    words = f"allow {number(low * 100, 0)} to {number(high * 100, 0)} % of the plan"
    return Lesson({"plan_band": [low, high]}, words)


def _overfull(_: str, measure: str, values: Sequence[float], __: Rules) -> Lesson:
    step, name = (5, "minutes") if measure == "minutes" else (1, "movements")
    most = _up(max(values), step)
    return Lesson({f"session_{name}": most}, f"allow {number(most)} {name} in a session")


def _carry_over(_: str, __: str, values: Sequence[float], ___: Rules) -> Lesson:
    least = _down(min(values), 0.05)
    words = f"ask for {number(least * 100, 0)} % of the last week's movements"
    return Lesson({"carry_over": least}, words)


def _monotony(_: str, __: str, values: Sequence[float], ___: Rules) -> Lesson:
    most = _up(max(values), 0.1)
    return Lesson({"monotony_limit": most}, f"allow a monotony of {number(most)}")


def _effort(_: str, __: str, values: Sequence[float], ___: Rules) -> Lesson:
    # What reaches the limit is told: the new one lies above all that was accepted.
    least = _up(max(values) + 0.01, 0.25)
    return Lesson({"effort_drift": least}, f"tell a rise in RPE from {number(least)} on")


_BY_CODE: Final[dict[str, Make]] = {
    "balance": _balance,
    "muscle_floor": _floor,
    "muscle_ceiling": _ceiling,
    "jump": _jump,
    "off_plan": _off_plan,
    "overfull": _overfull,
    "carry_over": _carry_over,
    "monotony": _monotony,
    "effort_drift": _effort,
}


def _wider(band: tuple[float, float], values: Sequence[float], step: float) -> tuple[float, float]:
    return min(band[0], _down(min(values), step)), max(band[1], _up(max(values), step))


def _down(value: float, step: float) -> float:
    return round(floor(value / step + _TINY) * step, 6)


def _up(value: float, step: float) -> float:
    return round(ceil(value / step - _TINY) * step, 6)
