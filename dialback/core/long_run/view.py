"""The weeks up to one, as the signals look at them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from math import exp, log
from statistics import fmean
from typing import Final

from dialback.core.baseline import is_lighter_week, weeks_before
from dialback.core.long_run.codes import BY_SIGNAL
from dialback.core.long_run.trend import Trend, trend
from dialback.core.maxima import is_working
from dialback.core.tally import Entry, Ledger
from dialback.core.vocabulary import Level, WeekKind
from dialback.core.weeks import Week

PER_WEEKS: Final = 8
"""What a trend comes to is told of so many weeks."""
LEAST_MOVEMENTS: Final = 3
"""Of fewer movements a week says nothing movement by movement."""
LEAST_WEEKS: Final = 3
UNLIKE: Final[frozenset[WeekKind]] = frozenset(
    {"lighter", "taper", "test", "travel", "race", "return", "overreach", "tempo"}
)
"""Weeks of these kinds say nothing of the way that things go."""


@dataclass(frozen=True, slots=True)
class Signal:
    """Something of many weeks, or a doubt about what was written of this one.

    ``points`` are its line, week by week, in the unit of ``measure``.
    """

    code: str
    subject: str
    measure: str
    level: Level
    sentence: str
    points: tuple[tuple[Week, float], ...] = ()
    since: Week | None = None

    @property
    def key(self) -> tuple[str, str, str]:
        """What makes it the same in another week."""
        return self.code, self.subject, self.measure

    @property
    def title(self) -> str:
        """What kind of signal it is, in words."""
        return BY_SIGNAL[self.code].title

    @property
    def ask(self) -> str:
        """The one question that follows from it."""
        return BY_SIGNAL[self.code].ask


Line = list[tuple[Week, float]]
"""A figure over weeks, in order."""
WINDOW: Final = 10
"""Weeks of the calendar that a trend looks at: eight ordinary ones, as a rule."""


@dataclass(frozen=True)
class View:
    """An athlete's completed weeks up to one, the latest last."""

    ledger: Ledger
    week: Week

    def threshold(self, code: str) -> float | None:
        """The house's threshold; ``None`` switches the signal off."""
        return self.ledger.rules.long_run.get(code)

    def back(self, weeks: int) -> list[Week]:
        """So many weeks of the calendar, this one the last."""
        return [*weeks_before(self.week, weeks - 1), self.week]

    def trained(self, weeks: int) -> list[Week]:
        """The trained ones among so many weeks of the calendar."""
        return [week for week in self.back(weeks) if self.ledger.is_trained(week)]

    def steady(self, weeks: int) -> list[Week]:
        """The ordinary ones among them: neither lighter nor of a kind of their own."""
        return [week for week in self.trained(weeks) if self.is_steady(week)]

    def is_steady(self, week: Week) -> bool:
        """Whether a trained week is like any other."""
        return self.ledger.kinds.get(week) not in UNLIKE and not is_lighter_week(self.ledger, week)

    @cached_property
    def steady_now(self) -> bool:
        """Whether the week itself is trained and like any other."""
        return self.ledger.is_trained(self.week) and self.is_steady(self.week)

    def entries(self, week: Week) -> tuple[Entry, ...]:
        """The sets done in a week."""
        return self.ledger.entries("completed", week)

    def working(self, week: Week) -> list[Entry]:
        """The working sets done in a week."""
        return [entry for entry in self.entries(week) if is_working(entry)]

    def at(self, week: Week) -> float:
        """A week's place on the line: weeks since the one in hand, 0 and below."""
        return (week.monday - self.week.monday).days / 7

    def trend(self, points: Iterable[tuple[Week, float]], least: int = 6) -> Trend | None:
        """The trend of a figure over weeks; ``None`` where there are too few."""
        return trend([(self.at(week), value) for week, value in points], least)

    def index(
        self, values: Mapping[Week, Mapping[str, float]], least: int = LEAST_MOVEMENTS
    ) -> list[tuple[Week, float]]:
        """Something of each movement as one line: 1 is each movement's own mean over the weeks."""
        logs = {
            week: {name: log(value) for name, value in of.items() if value > 0}
            for week, of in values.items()
        }
        return [(week, exp(apart)) for week, apart in from_own_mean(logs, least)]


def from_own_mean(
    values: Mapping[Week, Mapping[str, float]], least: int = LEAST_MOVEMENTS
) -> list[tuple[Week, float]]:
    """How far the movements of each week are from their own means over the weeks, on average.

    Movements come and go; each is compared with itself alone. Movements of fewer than three of the
    weeks, and weeks with fewer than ``least`` movements, are left out.
    """
    own: dict[str, list[float]] = {}
    for of in values.values():
        for name, value in of.items():
            own.setdefault(name, []).append(value)
    means = {name: fmean(several) for name, several in own.items() if len(several) >= LEAST_WEEKS}
    points = []
    for week, of in values.items():
        apart = [value - means[name] for name, value in of.items() if name in means]
        if len(apart) >= least:
            points.append((week, fmean(apart)))
    return points


def by_movement(entries: Iterable[Entry]) -> Iterator[tuple[str, list[Entry]]]:
    """Working sets by movement, in the order in which they were first done."""
    found: dict[str, list[Entry]] = {}
    for entry in entries:
        found.setdefault(entry.measured.shape.moves[0].movement.name, []).append(entry)
    yield from found.items()


def per_eight(found: Trend) -> float:
    """What a trend comes to in eight weeks, as a share of where it began."""
    return found.slope * PER_WEEKS / found.first if found.first > 0 else 0.0


def in_percent(share: float) -> str:
    """A share in whole per cent."""
    return f"{share * 100:.0f} %"
