"""What a finding is, and what a family of findings is given."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from typing import Final, Literal

from dialback.core.baseline import TOLERANCE, Baseline
from dialback.core.rules import Rules
from dialback.core.tally import Entry, Tally, TrailEntry, top_loads, trail

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
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Finding:
    """A rule that a week breaks.

    ``value`` and ``limit`` are in the unit of ``measure``; a ratio for balance (``None`` where a
    side is 0), a share for jumps and load steps. ``amount`` and ``base`` are the absolute numbers
    behind a share. ``figures`` name what the trail is taken from, on ``days`` only if given.
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

    @property
    def key(self) -> tuple[str, str, str]:
        """What makes it the same finding in another week or under other rules."""
        return self.code, self.subject, self.measure

    def trail(self, entries: tuple[Entry, ...]) -> tuple[TrailEntry, ...]:
        """The sets behind the finding, figure by figure."""
        return tuple(one for figure in self.figures for one in trail(entries, figure, self.days))


@dataclass(frozen=True)
class WeekInHand:
    """All that a family of findings may look at."""

    entries: tuple[Entry, ...]
    tally: Tally
    baseline: Baseline
    heaviest_before: Mapping[str, float]
    rules: Rules

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


def figures_text(value: float, measure: str) -> str:
    """A value with its unit, no more digits than are known: ``12.5 sets``, ``1 240 kg``."""
    match measure:
        case "sets" | "reps":
            one = measure[:-1] if value == 1 else measure
            return f"{number(value)} {one}"
        case "volume_load_kg":
            return f"{number(value, 0)} kg"
        case "load_kg":
            return f"{number(value)} kg"
        case "tut_s":
            return f"{number(value, 0)} s"
    raise ValueError(f"no unit is known for {measure!r}")


def number(value: float, digits: int = 2) -> str:
    """A number as a person writes it: no needless zeros, thin groups of three."""
    text = f"{value:,.{digits}f}".replace(",", "\u202f")
    return text.rstrip("0").rstrip(".") if "." in text else text


def percent(share: float) -> str:
    """A change as signed per cent: ``+16.7 %``."""
    return f"{'+' if share >= 0 else '−'}{number(abs(share) * 100, 1)} %"


def more_of(amount: float, measure: str, subject: str) -> str:
    """An addition in words: ``2 more sets of pull``, ``46 s more of pull``."""
    return _moved(amount, measure, subject, "more")


def less_of(amount: float, measure: str, subject: str) -> str:
    """A cut in words: ``2 fewer sets of push``, ``46 s less of push``."""
    return _moved(amount, measure, subject, "fewer" if measure in ("sets", "reps") else "less")


def _moved(amount: float, measure: str, subject: str, word: str) -> str:
    value, _, unit = figures_text(amount, measure).rpartition(" ")
    if measure in ("sets", "reps"):
        return f"{value} {word} {unit} of {subject}"
    return f"{value} {unit} {word} of {subject}"
