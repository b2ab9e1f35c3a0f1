"""Body weight: what an athlete weighed on a day."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Final

from pydantic import Field

from dialback.core.movements import Value
from dialback.core.sessions import Day
from dialback.core.weeks import Week


class Weighing(Value):
    """What an athlete weighed from a day on, in kg."""

    date: Day
    kg: float = Field(gt=0, le=1000)


@dataclass(frozen=True, slots=True)
class BodyWeight:
    """An athlete's body weight over the days, in kg: ``usual`` until the first that has a day.

    Without a usual one, the first that has a day holds for the days before it, too. ``None`` where
    nothing is known.
    """

    usual: float | None
    days: tuple[date, ...] = ()
    kg: tuple[float, ...] = ()

    @classmethod
    def of(cls, usual: float | None, weighings: Iterable[Weighing] = ()) -> BodyWeight:
        """From what is known, in any order; of two on a day the later one holds."""
        by_day = {one.date: one.kg for one in weighings}
        days = tuple(sorted(by_day))
        return cls(usual, days, tuple(by_day[day] for day in days))

    def on(self, day: date) -> float | None:
        """What the athlete weighed on a day."""
        if not self.days:
            return self.usual
        at = bisect_right(self.days, day)
        if at:
            return self.kg[at - 1]
        return self.usual if self.usual is not None else self.kg[0]

    def throughout(self, week: Week) -> bool:
        """Whether it is the same on every day of a week."""
        return self.on(week.monday) == self.on(week.sunday) and not any(
            week.monday < day <= week.sunday for day in self.days
        )


UNKNOWN: Final = BodyWeight(None)
"""Of nobody in particular."""
