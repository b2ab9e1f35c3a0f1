"""The measures: everything that is known of each, in one table. The browser has it, too.

How each is counted: ``docs/method.md`` and ``core.counting``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

Measure = Literal["sets", "reps", "volume_load_kg", "tut_s"]
"""The four that everything is summed and judged in."""
MEASURES: Final[tuple[str, ...]] = get_args(Measure)

UnitOf = Literal["itself", "weight", "s"]
"""What a measure is counted in: itself, the unit that weights are read in, or seconds."""

Of = Literal["week", "muscle", "movement"]
"""What has the measure. A muscle has no reps of its own: a rep is done by a movement."""


@dataclass(frozen=True, slots=True)
class MeasureWords:
    """A measure as it is read: its title, a short one for narrow heads, unit and digits."""

    name: str
    title: str
    short: str
    unit: UnitOf
    digits: int
    of: tuple[Of, ...]

    def unit_text(self, weights: str) -> str:
        """Its unit, where weights are read in ``weights``; empty where it is its own."""
        return {"itself": "", "weight": weights, "s": "s"}[self.unit]


TABLE: Final[tuple[MeasureWords, ...]] = (
    MeasureWords("sets", "sets", "sets", "itself", 1, ("week", "muscle", "movement")),
    MeasureWords("reps", "reps", "reps", "itself", 0, ("week", "movement")),
    MeasureWords(
        "volume_load_kg", "volume load", "load", "weight", 0, ("week", "muscle", "movement")
    ),
    MeasureWords("tut_s", "time under tension", "tension", "s", 0, ("week", "muscle", "movement")),
    MeasureWords("work_s", "work time", "work", "s", 0, ("week",)),
    MeasureWords("conditioning_s", "conditioning", "conditioning", "s", 0, ("week",)),
    MeasureWords("top_load_kg", "top load", "top load", "weight", 2, ("movement",)),
    MeasureWords("load_kg", "load", "load", "weight", 2, ()),
)
"""In the order in which they are shown."""

BY_MEASURE: Final[Mapping[str, MeasureWords]] = {one.name: one for one in TABLE}
TITLES: Final[Mapping[str, str]] = {one.name: one.title for one in TABLE}


def measures_of(what: Of) -> tuple[str, ...]:
    """The measures that a week, a muscle or a movement has, in their order."""
    return tuple(one.name for one in TABLE if what in one.of)


MUSCLE_MEASURES: Final = measures_of("muscle")
