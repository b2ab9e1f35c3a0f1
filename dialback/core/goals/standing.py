"""Where an athlete stands before a goal: what lately's sets are worth for it, what was gained."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from math import sqrt
from statistics import linear_regression, mean
from typing import Final, Literal

from dialback.core.kit import LOAD_TOLERANCE_KG, loads_for
from dialback.core.maxima import MOST_REPS, estimated_maximum, is_working, share_at
from dialback.core.movements import Movement
from dialback.core.sessions import Goal
from dialback.core.tally import Entry, Ledger
from dialback.core.weeks import Week

LOOK_BACK: Final = 12
"""So many weeks are looked at for what was gained …"""
LEAST_WEEKS: Final = 4
"""… and so many of them at least have to have the movement."""
NOW_WEEKS: Final = 4
"""The best of so many weeks is where the athlete stands."""
TINY: Final = 1e-9

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


class Standing:
    """A goal beside what was done for it up to a day."""

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
    def loads(self) -> tuple[float, ...]:
        """The loads that the kit has for the movement, rising; empty where nothing is known."""
        kit = self.ledger.kit
        return loads_for(kit, self.movement)[1] if kit else ()

    @property
    def beyond_kit(self) -> bool:
        """Whether the room has nothing as heavy as the goal."""
        return bool(self.loads) and self.goal.load_kg > self.loads[-1] + LOAD_TOLERANCE_KG

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
        if a_set.load_kg < self.goal.load_kg - TINY:
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
        moved = self.goal.load_kg * self.implements + self.body
        return moved / share_at(float(self.goal.reps or 1), self.ledger.rules)

    @property
    def body(self) -> float:
        """What of the body is moved with the load, kg."""
        share = self.movement.bodyweight_share if self.ledger.rules.bodyweight_load else 0.0
        return share * (self.ledger.body.on(self.goal.by) or 0.0)

    @cached_property
    def trend(self) -> Trend | None:
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

    @property
    def level_now(self) -> tuple[Movement, int] | None:
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
