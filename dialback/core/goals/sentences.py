"""How a goal stands, in words."""

from __future__ import annotations

from datetime import date

from dialback.core.goals.standing import (
    LEAST_WEEKS,
    LOOK_BACK,
    NOW_WEEKS,
    TINY,
    Standing,
    Trend,
    Verdict,
)
from dialback.core.weeks import said
from dialback.core.words import number, percent, weight_text


def _amount(at: Standing, value: float) -> str:
    value = round(value, 1) or 0.0
    if at.kind == "load":
        return weight_text(value, at.ledger.unit, 1)
    if at.kind == "seconds":
        return f"{number(value, 1)} s"
    return f"{number(value, 1)} rep{'' if abs(value - 1) < TINY else 's'}"


def nothing_known(at: Standing) -> str:
    """What there is to say where nothing was done of late, with a level that was."""
    level = at.level_now
    if level is not None:
        movement, below = level
        levels = "one level" if below == 1 else f"{below} levels"
        return (
            f"{at.movement.name} was not done in the last {NOW_WEEKS} weeks. The level done "
            f"now is {movement.name}, {levels} below: go up when its range is mastered."
        )
    what = at.movement.name
    if at.kind != "load" and at.goal.load_kg > 0:
        what = f"{what} at {weight_text(at.goal.load_kg, at.ledger.unit)} or more"
    return (
        f"{what} was not done in the last {NOW_WEEKS} weeks: nothing says how far it is. Log a "
        "session of it first."
    )


def sentence(
    at: Standing,
    verdict: Verdict,
    needed: float | None,
    trend: Trend | None,
    earliest: date | None,
    *,
    arrives: bool,
) -> str:
    """What each week has to gain, what was gained lately, and where that leads."""
    of = " of estimated maximum" if at.kind == "load" else ""
    weeks = f"{at.weeks_left} week{'' if at.weeks_left == 1 else 's'}"
    if needed is None:
        told = "The day is here."
    else:
        told = f"Needs {_amount(at, needed)}{of} more each week for {weeks}."
    if at.beyond_kit:
        top = weight_text(at.loads[-1], at.ledger.unit)
        return f"{told} The kit ends at {top} for this movement."
    if trend is None:
        return (
            f"{told} Too few weeks have the movement to say what was gained lately: "
            f"{LEAST_WEEKS} of {LOOK_BACK} are needed."
        )
    pace = (
        f"Gained lately: {_amount(at, trend.weekly)} a week, give or take "
        f"{_amount(at, 2 * trend.error)}."
    )
    ending = ""
    if not arrives and needed is not None:
        limit = percent(at.ledger.rules.load_step[0])
        ending = f" Load steps of {limit} a week at most, as the kit has them, do not get there."
    if verdict in ("not in time", "a stretch"):
        ending += (
            f" At that pace it is reached by {said(earliest)} {earliest.year}."
            if earliest is not None
            else " At that pace it is not reached."
        )
    return f"{told} {pace}{ending}"
