"""ISO weeks: Monday to Sunday, written ``2026-W41``."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache
from typing import Final

_FORM: Final = re.compile(r"(\d{4})-W(\d{2})")
YEARS: Final = range(1900, 3000)
"""Years that training can lie in; a slip of the pen is caught, and no sum leaves the calendar."""


def in_years(day: date) -> bool:
    """Whether a day lies in the years that training can lie in, and its week, too."""
    return day.year in YEARS and day.isocalendar().year in YEARS


def said(day: date) -> str:
    """A day as it is said: ``Mon 23 Nov``."""
    return f"{day:%a} {day.day} {day:%b}"


@dataclass(frozen=True, slots=True, order=True)
class Week:
    """One ISO week, held by its Monday; ordered in time."""

    monday: date

    @classmethod
    def parse(cls, text: str) -> Week:
        """Read ``2026-W41``. Raises ``ValueError`` for a form or a number that does not exist."""
        match = _FORM.fullmatch(text)
        if match is None:
            raise ValueError(f"{text!r} is not a week: write year and ISO week, as in 2026-W41")
        if int(match[1]) not in YEARS:
            raise ValueError(f"{text!r} is not a week: years go from {YEARS.start} to {YEARS[-1]}")
        try:
            return cls(date.fromisocalendar(int(match[1]), int(match[2]), 1))
        except ValueError:
            raise ValueError(f"{text!r} is not a week: {match[1]} has no week {match[2]}") from None

    @classmethod
    def of(cls, day: date) -> Week:
        """The week a day lies in."""
        return _week_of(day)

    def plus(self, weeks: int) -> Week:
        """The week so many weeks later (earlier if negative)."""
        return Week(self.monday + timedelta(weeks=weeks))

    @property
    def said(self) -> str:
        """As it is said: ``week 48``."""
        return f"week {self.monday.isocalendar().week}"

    @property
    def sunday(self) -> date:
        """The last day of the week."""
        return self.monday + timedelta(days=6)

    @classmethod
    def to_audit(cls, today: date) -> Week:
        """The last week that is over, Sunday's own included: the one a coach audits now."""
        return cls.of(today + timedelta(days=1)).plus(-1)

    def __str__(self) -> str:
        year, week, _ = self.monday.isocalendar()
        return f"{year:04d}-W{week:02d}"


@lru_cache(maxsize=8192)
def _week_of(day: date) -> Week:
    return Week(day - timedelta(days=day.weekday()))
