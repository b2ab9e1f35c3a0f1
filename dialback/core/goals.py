"""Goals: what a movement is to come to by a day, against what was gained lately.

A goal with a load is judged by estimated maxima (see ``maxima``), any other by the most reps or
seconds. What was gained is the slope of the least squares line through the best of each week, with
two standard errors to either side of it.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cached_property
from math import ceil, floor, sqrt
from statistics import linear_regression, mean
from typing import Final, Literal

from dialback.core.kit import LOAD_TOLERANCE_KG, at_or_below, loads_for
from dialback.core.maxima import (
    MOST_REPS,
    WITHOUT_KIT_KG,
    estimated_maximum,
    is_working,
    share_at,
)
from dialback.core.movements import Movement
from dialback.core.sessions import Goal, Set
from dialback.core.tally import Entry, Ledger
from dialback.core.weeks import Week, said
from dialback.core.words import number, percent, weight_text

LOOK_BACK: Final = 12
"""So many weeks are looked at for what was gained …"""
LEAST_WEEKS: Final = 4
"""… and so many of them at least have to have the movement."""
NOW_WEEKS: Final = 4
"""The best of so many weeks is where the athlete stands."""
LONGEST: Final = 104
"""Weeks ahead that are looked through for the day on which a goal can be reached."""
_TINY: Final = 1e-9

Kind = Literal["load", "reps", "seconds"]
Verdict = Literal["reached", "within reach", "a stretch", "not in time", "unknown"]


@dataclass(frozen=True, slots=True)
class Trend:
    """What was gained a week; ``error`` is one standard error of it."""

    weekly: float
    error: float

    @property
    def most(self) -> float:
        """What can be hoped for: two standard errors above."""
        return self.weekly + 2 * self.error


@dataclass(frozen=True, slots=True)
class Step:
    """A week on the way: the top set it asks for; loads of one implement, that the kit has."""

    week: Week
    load_kg: float
    reps: int | None
    seconds: float | None


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
    return _Looking(ledger, goal, today).outlook()


class _Looking:
    """A goal being judged."""

    def __init__(self, ledger: Ledger, goal: Goal, today: date) -> None:
        self.ledger = ledger
        self.goal = goal
        self.today = today
        self.week = Week.of(today)
        self.movement = ledger.movements[goal.movement]
        self.kind = self._kind()
        self.weekly = list(self._bests())
        self.implements = max((one.set.implements for _, _, one in self.weekly), default=1)
        self.weeks_left = max(0, (goal.by - today).days // 7)

    @cached_property
    def _loads(self) -> tuple[float, ...]:
        """The loads that the kit has for the movement, rising; empty where nothing is known."""
        kit = self.ledger.kit
        return loads_for(kit, self.movement)[1] if kit else ()

    @property
    def _beyond_kit(self) -> bool:
        """Whether the room has nothing as heavy as the goal."""
        return bool(self._loads) and self.goal.load_kg > self._loads[-1] + LOAD_TOLERANCE_KG

    def _kind(self) -> Kind:
        if self.goal.seconds is not None:
            return "seconds"
        judged = self.ledger.rules.max_estimate is not None and not self.movement.isometric
        few = (self.goal.reps or 0) <= MOST_REPS
        return "load" if self.goal.load_kg > 0 and judged and few else "reps"

    def _bests(self) -> Iterator[tuple[Week, float, Entry]]:
        """The best of each week that has the movement, up to today."""
        for back in range(-LOOK_BACK, 1):
            week = self.week.plus(back)
            found = [
                (value, entry)
                for entry in self.ledger.entries("completed", week)
                if entry.session.date <= self.today and (value := self._value(entry)) is not None
            ]
            if found:
                value, entry = max(found, key=lambda one: one[0])
                yield week, value, entry

    def _value(self, entry: Entry) -> float | None:
        """What a set is worth for the goal; ``None`` where it says nothing of it."""
        if not is_working(entry):
            return None
        if entry.measured.shape.moves[0].movement.name != self.movement.name:
            return None
        a_set = entry.set
        if self.kind == "load":
            return estimated_maximum(
                a_set,
                self.movement,
                self.ledger.rules,
                self.ledger.body.on(entry.session.date),
            )
        if a_set.load_kg < self.goal.load_kg - _TINY:
            return None
        return (
            float(a_set.reps)
            if self.kind == "reps" and a_set.reps
            else (a_set.seconds if self.kind == "seconds" else None)
        )

    @property
    def target(self) -> float:
        """What the goal is worth."""
        if self.kind == "seconds":
            return self.goal.seconds or 0.0
        if self.kind == "reps":
            return float(self.goal.reps or 0)
        moved = self.goal.load_kg * self.implements + self._body
        return moved / share_at(float(self.goal.reps or 1), self.ledger.rules)

    @property
    def _body(self) -> float:
        share = self.movement.bodyweight_share if self.ledger.rules.bodyweight_load else 0.0
        return share * (self.ledger.body.on(self.goal.by) or 0.0)

    def outlook(self) -> Outlook:
        recent = [one for one in self.weekly if one[0] >= self.week.plus(-NOW_WEEKS)]
        now = max(recent, key=lambda one: one[1], default=None)
        trend = self._trend()
        if now is None:
            return self._found("unknown", None, None, trend, None, (), self._nothing_known())
        _, value, entry = now
        gap = self.target - value
        needed = gap / self.weeks_left if self.weeks_left else None
        if gap <= _TINY:
            day = said(entry.session.date)
            return self._found("reached", now, None, trend, None, (), f"Reached on {day}.")
        steps = self._steps(value, self.weeks_left) if self.weeks_left else ()
        arrives = bool(steps) and self._arrives(steps[-1])
        earliest = self._earliest(value, trend)
        verdict = self._verdict(needed, trend, arrives=arrives)
        sentence = self._sentence(verdict, needed, trend, earliest, arrives=arrives)
        return self._found(verdict, now, needed, trend, earliest, steps, sentence)

    def _found(
        self,
        verdict: Verdict,
        now: tuple[Week, float, Entry] | None,
        needed: float | None,
        trend: Trend | None,
        earliest: date | None,
        steps: Sequence[Step],
        sentence: str,
    ) -> Outlook:
        return Outlook(
            self.goal,
            self.kind,
            verdict,
            self.target,
            now[1] if now else None,
            now[2].set if now else None,
            now[2].session.date if now else None,
            self.weeks_left,
            needed,
            trend,
            earliest,
            tuple(steps),
            sentence,
        )

    def _trend(self) -> Trend | None:
        """The line through the weekly bests; ``None`` where too few weeks have one."""
        if len(self.weekly) < LEAST_WEEKS:
            return None
        first = self.weekly[0][0]
        x = [float((week.monday - first.monday).days // 7) for week, _, _ in self.weekly]
        y = [value for _, value, _ in self.weekly]
        slope, at_first = linear_regression(x, y)
        apart = sum((one - mean(x)) ** 2 for one in x)
        rest = sum((b - at_first - slope * a) ** 2 for a, b in zip(x, y, strict=True))
        return Trend(slope, sqrt(rest / (len(x) - 2) / apart))

    def _verdict(self, needed: float | None, trend: Trend | None, *, arrives: bool) -> Verdict:
        if needed is None or not arrives:
            return "not in time"
        if trend is None:
            return "unknown"
        if needed <= trend.weekly + _TINY:
            return "within reach"
        return "a stretch" if needed <= trend.most + _TINY else "not in time"

    def _steps(self, now: float, weeks: int) -> tuple[Step, ...]:
        """The top set of each week, in even steps, within the rule and of loads that there are."""
        found = []
        heaviest = list(self._loads_done())
        for at in range(1, weeks + 1):
            value = now + (self.target - now) * at / weeks
            step = self._step(self.week.plus(at), value, max(heaviest[-NOW_WEEKS:], default=None))
            heaviest.append(step.load_kg)
            found.append(step)
        return tuple(found)

    def _loads_done(self) -> Iterator[float]:
        """The heaviest load of one implement in each week of late that has the movement."""
        for back in range(-NOW_WEEKS, 1):
            week = self.week.plus(back)
            loads = [
                entry.set.load_kg
                for entry in self.ledger.entries("completed", week)
                if is_working(entry)
                and entry.measured.shape.moves[0].movement.name == self.movement.name
            ]
            if loads:
                yield max(loads)

    def _step(self, week: Week, value: float, heaviest: float | None) -> Step:
        if self.kind == "seconds":
            return Step(week, self.goal.load_kg, None, float(floor(value + _TINY)))
        if self.kind == "reps":
            return Step(week, self.goal.load_kg, floor(value + _TINY), None)
        reps = self.goal.reps or 1
        wanted = self._load_at(value, reps)
        if heaviest:
            wanted = min(wanted, self._furthest(heaviest))
        load = self._made(wanted)
        moved = load * self.implements + self._body
        # A load that falls short of the week's value is done for more reps.
        while reps < MOST_REPS and moved / share_at(float(reps + 1), self.ledger.rules) <= value:
            reps += 1
        return Step(week, load, reps, None)

    def _furthest(self, heaviest: float) -> float:
        """How far a week may go up: by the rule, or to the next load that the kit has."""
        rules = self.ledger.rules
        most = heaviest * (1 + rules.load_step[0])
        loads = self._loads if rules.kit_step_note else ()
        return max(most, next((load for load in loads if load > heaviest + _TINY), most))

    def _load_at(self, maximum: float, reps: int) -> float:
        """The load of one implement that can be moved for so many reps."""
        moved = maximum * share_at(float(reps), self.ledger.rules)
        return max(0.0, (moved - self._body) / self.implements)

    def _made(self, load: float) -> float:
        if self._loads:
            return at_or_below(load, self._loads) or self._loads[0]
        return floor(load / WITHOUT_KIT_KG + _TINY) * WITHOUT_KIT_KG

    def _arrives(self, step: Step) -> bool:
        """Whether the last week comes to the goal, or to the kit's load next below it."""
        if self._beyond_kit:
            return False
        if self.kind == "seconds":
            return (step.seconds or 0.0) >= (self.goal.seconds or 0.0) - _TINY
        enough = (step.reps or 0) >= (self.goal.reps or 0)
        return enough and step.load_kg >= self._made(self.goal.load_kg) - _TINY

    def _earliest(self, now: float, trend: Trend | None) -> date | None:
        """The first week's end by which it can be reached at the pace of lately."""
        if trend is None or trend.weekly <= 0:
            return None
        weeks = ceil((self.target - now) / trend.weekly - _TINY)
        while weeks <= LONGEST:
            if self._arrives(self._steps(now, weeks)[-1]):
                return self.today + timedelta(weeks=weeks)
            weeks += 1
        return None

    # In words.

    def _amount(self, value: float) -> str:
        value = round(value, 1) or 0.0
        if self.kind == "load":
            return weight_text(value, self.ledger.unit, 1)
        if self.kind == "seconds":
            return f"{number(value, 1)} s"
        return f"{number(value, 1)} rep{'' if abs(value - 1) < _TINY else 's'}"

    def _nothing_known(self) -> str:
        level = self._level_now()
        if level is not None:
            movement, below = level
            levels = "one level" if below == 1 else f"{below} levels"
            return (
                f"{self.movement.name} was not done in the last {NOW_WEEKS} weeks. The level done "
                f"now is {movement.name}, {levels} below: go up when its range is mastered."
            )
        what = self.movement.name
        if self.kind != "load" and self.goal.load_kg > 0:
            what = f"{what} at {weight_text(self.goal.load_kg, self.ledger.unit)} or more"
        return (
            f"{what} was not done in the last {NOW_WEEKS} weeks: nothing says how far it is. Log a "
            "session of it first."
        )

    def _level_now(self) -> tuple[Movement, int] | None:
        """The nearest easier level that was done lately, and how many levels it is below."""
        done = {
            entry.measured.shape.moves[0].movement.name
            for back in range(-NOW_WEEKS, 1)
            for entry in self.ledger.entries("completed", self.week.plus(back))
            if is_working(entry)
        }
        below, easier, seen = 1, self.movement.easier, {self.movement.name}
        while easier is not None and easier in self.ledger.movements:
            movement = self.ledger.movements[easier]
            if movement.name in done:
                return movement, below
            if movement.name in seen:
                return None
            seen.add(movement.name)
            below, easier = below + 1, movement.easier
        return None

    def _sentence(
        self,
        verdict: Verdict,
        needed: float | None,
        trend: Trend | None,
        earliest: date | None,
        *,
        arrives: bool,
    ) -> str:
        of = " of estimated maximum" if self.kind == "load" else ""
        weeks = f"{self.weeks_left} week{'' if self.weeks_left == 1 else 's'}"
        if needed is None:
            told = "The day is here."
        else:
            told = f"Needs {self._amount(needed)}{of} more each week for {weeks}."
        if self._beyond_kit:
            top = weight_text(self._loads[-1], self.ledger.unit)
            return f"{told} The kit ends at {top} for this movement."
        if trend is None:
            return (
                f"{told} Too few weeks have the movement to say what was gained lately: "
                f"{LEAST_WEEKS} of {LOOK_BACK} are needed."
            )
        pace = (
            f"Gained lately: {self._amount(trend.weekly)} a week, give or take "
            f"{self._amount(2 * trend.error)}."
        )
        ending = ""
        if not arrives and needed is not None:
            limit = percent(self.ledger.rules.load_step[0])
            ending = (
                f" Load steps of {limit} a week at most, as the kit has them, do not get there."
            )
        if verdict in ("not in time", "a stretch"):
            ending += (
                f" At that pace it is reached by {said(earliest)} {earliest.year}."
                if earliest is not None
                else " At that pace it is not reached."
            )
        return f"{told} {pace}{ending}"
