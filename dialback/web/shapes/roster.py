"""Shapes of the place `roster`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.findings.finding import Level
from dialback.web.shapes.common import Counts, Shape, WeekColumn


class FindingMark(Shape):
    """A finding as far as the roster needs it: what tells whether it is accepted."""

    key: tuple[str, str, str]
    level: Level
    value: float | None
    limit: float | None


class CauseMark(Shape):
    """A cause, with the places of what follows from it."""

    sentence: str
    findings: list[int]


class Judged(Shape):
    """What an athlete's last week came to, whatever the coach has said of it since."""

    week: str
    behind: bool
    findings: list[FindingMark]
    causes: list[CauseMark]
    columns: list[WeekColumn]
    share_done: float | None
    sessions_planned: int
    sessions_done: int


class LogPlace(Shape):
    """Where a log stands: its week, and its id."""

    week: str
    session: str


class RosterRow(Shape):
    """One athlete on the roster. ``week`` is the last one with training up to the one to audit.

    ``undecided`` is a log of which two versions wait for a decision.
    """

    id: int
    name: str
    note: str
    week: str
    behind: bool
    counts: Counts
    hurt: bool = Field(description="Something hurt, or a restriction was broken")
    first: str | None = Field(description="The cause to look at first")
    follow: int = Field(description="How many findings follow from it")
    columns: list[WeekColumn]
    share_done: float | None
    sessions_planned: int
    sessions_done: int
    signed_week: str | None
    signed_day: str | None
    undecided: LogPlace | None


class Waiting(Shape):
    """An athlete whose week is still to be counted."""

    id: int
    name: str
    note: str


class Roster(Shape):
    """All athletes, those who need the coach first on top; ``waiting`` are not counted yet."""

    week: str
    monday: str
    sunday: str
    today: str
    athletes: list[RosterRow]
    waiting: list[Waiting]
