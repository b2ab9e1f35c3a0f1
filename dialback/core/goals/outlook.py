"""Goals: what a movement is to come to by a day, against what was gained lately.

A goal with a load is judged by estimated maxima (see ``maxima``), any other by the most reps or
seconds. What was gained is the slope of the least squares line through the best of each week, with
two standard errors to either side of it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from dialback.core.goals.sentences import nothing_known, sentence
from dialback.core.goals.standing import NOW_WEEKS, TINY, Kind, Standing, Trend, Verdict
from dialback.core.goals.way import Step, first_day, reaches, top_sets_to
from dialback.core.sessions import Goal, Set
from dialback.core.tally import Entry, Ledger
from dialback.core.weeks import Week, said


@dataclass(frozen=True, slots=True)
class Outlook:
    """How a goal stands. Values are kg of estimated maximum, reps or seconds, by ``kind``.

    ``needed`` is what each week has to gain; ``earliest`` the day by which it can be reached at the
    pace of lately, within the rule of load steps.
    """

    goal: Goal
    kind: Kind
    verdict: Verdict
    target: float
    now: float | None
    best: Set | None
    best_day: date | None
    weeks_left: int
    needed: float | None
    trend: Trend | None
    earliest: date | None
    steps: tuple[Step, ...]
    sentence: str


def outlook(ledger: Ledger, goal: Goal, today: date) -> Outlook:
    """How a goal stands on a day. Raises ``UnknownMovementError``."""
    at = Standing(ledger, goal, today)
    recent = [one for one in at.weekly if one[0] >= at.week.plus(-NOW_WEEKS)]
    now = max(recent, key=lambda one: one[1], default=None)
    trend = at.trend
    if now is None:
        return _found(at, "unknown", None, None, trend, None, (), nothing_known(at))
    _, value, entry = now
    gap = at.target - value
    needed = gap / at.weeks_left if at.weeks_left else None
    if gap <= TINY:
        day = said(entry.session.date)
        return _found(at, "reached", now, None, trend, None, (), f"Reached on {day}.")
    steps = top_sets_to(at, value, at.weeks_left) if at.weeks_left else ()
    arrives = bool(steps) and reaches(at, steps[-1])
    earliest = first_day(at, value, trend)
    verdict = _verdict(needed, trend, arrives=arrives)
    told = sentence(at, verdict, needed, trend, earliest, arrives=arrives)
    return _found(at, verdict, now, needed, trend, earliest, steps, told)


def _found(
    at: Standing,
    verdict: Verdict,
    now: tuple[Week, float, Entry] | None,
    needed: float | None,
    trend: Trend | None,
    earliest: date | None,
    steps: Sequence[Step],
    sentence: str,
) -> Outlook:
    return Outlook(
        at.goal,
        at.kind,
        verdict,
        at.target,
        now[1] if now else None,
        now[2].set if now else None,
        now[2].session.date if now else None,
        at.weeks_left,
        needed,
        trend,
        earliest,
        tuple(steps),
        sentence,
    )


def _verdict(needed: float | None, trend: Trend | None, *, arrives: bool) -> Verdict:
    if needed is None or not arrives:
        return "not in time"
    if trend is None:
        return "unknown"
    if needed <= trend.weekly + TINY:
        return "within reach"
    return "a stretch" if needed <= trend.most + TINY else "not in time"
