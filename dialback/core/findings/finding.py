"""What a finding is, and what a family of findings is given."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from math import inf
from typing import Final, Literal

from dialback.core.baseline import TOLERANCE, Baseline
from dialback.core.movements import MovementTable
from dialback.core.reconcile import SessionMatch
from dialback.core.restrictions import Restriction
from dialback.core.rules import Rules
from dialback.core.tally import Entry, Tally, TrailEntry, tally, top_loads, trail

Level = Literal["note", "caution", "high"]
LEVELS: Final[tuple[Level, ...]] = ("note", "caution", "high")


@dataclass(frozen=True, slots=True)
class Code:
    """A kind of finding, as the documentation and the interface name it."""

    code: str
    title: str
    raised_when: str


CODES: Final[tuple[Code, ...]] = (
    Code("balance", "Imbalance", "a pair with enough sets is outside its band: caution; beyond "
         "it by a factor of 1.5, or with nothing on one side: high"),
    Code("muscle_floor", "Below the floor", "a muscle has fewer sets than its floor: caution; "
         "none at all: high"),
    Code("muscle_ceiling", "Above the ceiling", "a muscle has more sets than its ceiling: "
         "caution; more than 1.25 of it: high"),
    Code("jump", "Jump", "the week, or a muscle's sets, rise above the baseline by more than "
         "the limit"),
    Code("load_step", "Load step", "a movement's heaviest load rises above the heaviest of the "
         "last four weeks by more than the limit"),
    Code("spacing", "Spacing", "a muscle has a heavy day on two days in a row: caution"),
    Code("off_plan", "Off the plan", "sets, reps, volume load or tension done are below or above "
         "the allowed share of the plan: caution; extra rounds are named"),
    Code("missed", "Missed", "a planned session whose day is over was not done: caution"),
    Code("swapped", "Swapped", "another movement was done: note; caution where pattern or a "
         "direct muscle changed. An easier or harder level is no swap"),
    Code("data_gap", "Gap in the log", "more than the allowed share of the sets lacks exertion or "
         "loads, or of a sum is estimated or assumed: note"),
    Code("pain", "Something hurt", "a session was stopped because something hurt: high"),
    Code("restriction", "Restricted", "something is done that the athlete is to avoid, or beyond "
         "the limit that somebody set: high"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Finding:
    """A rule that a week breaks.

    ``value`` and ``limit`` are in the unit of ``measure``; a ratio for balance (``None`` where a
    side is 0), a share for jumps and load steps. ``amount`` and ``base`` are the absolute numbers
    behind a share. ``figures`` name what the trail is taken from, on ``days`` only if given;
    ``of_plan`` says that they are figures of the plan.
    """

    code: str
    subject: str
    measure: str
    level: Level
    value: float | None
    limit: float
    sentence: str
    clears: str
    figures: tuple[str, ...]
    amount: float | None = None
    base: float | None = None
    days: tuple[date, ...] = field(default=())
    of_plan: bool = False

    @property
    def key(self) -> tuple[str, str, str]:
        """What makes it the same finding in another week or under other rules."""
        return self.code, self.subject, self.measure

    @property
    def distance(self) -> float:
        """How far the value is beyond the limit; infinite for a ratio with nothing on a side."""
        return inf if self.value is None else abs(self.value - self.limit)

    def trail(self, entries: tuple[Entry, ...]) -> tuple[TrailEntry, ...]:
        """The sets behind the finding, figure by figure."""
        return tuple(one for figure in self.figures for one in trail(entries, figure, self.days))


@dataclass(frozen=True)
class AgainstPlan:
    """The plan beside what was done for it: of the sessions that were due."""

    planned: tuple[Entry, ...]
    matches: tuple[SessionMatch, ...]
    movements: MovementTable

    @cached_property
    def tally(self) -> Tally:
        """What the plan comes to."""
        return tally(self.planned)


@dataclass(frozen=True)
class WeekInHand:
    """All that a family of findings may look at; ``against`` only of a week as completed."""

    entries: tuple[Entry, ...]
    tally: Tally
    baseline: Baseline
    heaviest_before: Mapping[str, float]
    rules: Rules
    against: AgainstPlan | None = None
    restrictions: tuple[Restriction, ...] = ()

    @property
    def has_sets(self) -> bool:
        """Whether the week's sets come to more than 0."""
        return self.tally.get("totals/sets", 0.0) > 0

    @cached_property
    def heaviest(self) -> Mapping[str, float]:
        """Each movement's heaviest load of the week, kg."""
        return top_loads(self.entries)


def exceeds(value: float, limit: float) -> bool:
    """Whether a value is above its limit; at the limit it is within."""
    return value > limit + TOLERANCE


def level_above(value: float, limits: tuple[float, float]) -> Level | None:
    """``high`` above the second limit, ``caution`` above the first, else ``None``."""
    if exceeds(value, limits[1]):
        return "high"
    return "caution" if exceeds(value, limits[0]) else None


def grown(now: Finding, level: str, value: float | None) -> bool:
    """Whether a finding is worse than it was when accepted at that level and value."""
    if level not in LEVELS or LEVELS.index(now.level) > LEVELS.index(level):
        return True
    before = inf if value is None else abs(value - now.limit)
    return exceeds(now.distance, before)
