"""What adjusting answers: the plan, every change with its reason, and what stays and why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.findings import Finding
from dialback.core.sessions import Session
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week

CIRCUIT: Final = "Circuit"
"""What a circuit is called that has no part."""


@dataclass(frozen=True, slots=True)
class Change:
    """A line that has more or fewer sets (pairs, rounds); ``because`` of what it is needed for.

    ``session`` is the place of its session in the start, from 0. ``line`` counts from 1 in the
    session before the change and is ``None`` of an added one; ``movement`` is ``None`` of a
    circuit, which has its ``part``. ``sets`` is how many sets come or go by it; Changes of
    one ``bundle`` need each other and are taken together: ``reason`` is what the bundle does,
    ``effect`` what the week's four measures gain by it, beside the other bundles.
    """

    session: int
    day: date
    title: str
    line: int | None
    movement: str | None
    part: str | None
    count_from: int
    count_to: int
    sets: int
    because: tuple[Key, ...]
    what: str
    reason: str
    effect: Mapping[str, float]
    bundle: int = 0

    @property
    def name(self) -> str:
        """What a coach calls the line: its movement, or a circuit's part."""
        return self.movement or self.part or CIRCUIT

    @property
    def sentence(self) -> str:
        """What is changed, and what for."""
        return f"{self.what}: {self.reason}." if self.reason else f"{self.what}."


@dataclass(frozen=True, slots=True)
class Rung:
    """The least cost at which so few high findings and cautions are left."""

    cost: int
    high: int
    caution: int


@dataclass(frozen=True, slots=True)
class Remaining:
    """A finding that stays: the place in the ladder from which on it is gone, if there is one.

    ``against`` is a smallest set of limits that keep one without a place.
    """

    finding: Finding
    rung: int | None
    against: tuple[Key, ...]
    sentence: str


@dataclass(frozen=True, slots=True)
class Proposal:
    """The proposed plan of a week. ``optimal`` says that it is proved best, and its ladder whole.

    ``stop`` is its place in the ladder, from 0; ``why`` says what the next one would cost and
    clear.
    """

    week: Week
    start: tuple[Session, ...]
    sessions: tuple[Session, ...]
    changes: tuple[Change, ...]
    cost: int
    optimal: bool
    ladder: tuple[Rung, ...]
    stop: int
    why: str
    cleared: tuple[Finding, ...]
    remaining: tuple[Remaining, ...]
