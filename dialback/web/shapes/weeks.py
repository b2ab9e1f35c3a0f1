"""Shapes of the place `weeks`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.vocabulary import Basis, Level, WeekKind
from dialback.web.shapes.common import (
    CareNote,
    DayText,
    FindingKey,
    RestrictionNote,
    Shape,
    WeekColumn,
)
from dialback.web.shapes.sheet import AthleteOut, OfferKey
from dialback.work.reporting import Reader


class CauseKey(Shape):
    """Which cause of a week is meant."""

    basis: Basis
    code: str
    subject: str


class AcceptCauseBody(CauseKey):
    """Accepting all that follows from a cause takes a reason."""

    reason: str = Field(min_length=1, max_length=500)


class KindBody(Shape):
    """What a week is for; null makes it an ordinary one."""

    kind: WeekKind | None


class DecisionBody(Shape):
    """Findings or signals that something is decided about, for how long, and why."""

    basis: Basis
    keys: list[OfferKey] = Field(min_length=1, max_length=100)
    lasts: Literal["block", "watch", "good"]
    reason: str = Field(min_length=1, max_length=500)


class HurtOut(Shape):
    """What hurt on a day, at a movement if it was one, in words."""

    day: DayText
    movement: str | None
    words: str


class Frame(Shape):
    """Where one is: an athlete and a week, and the weeks beside it. ``over`` weeks are audited."""

    athlete: AthleteOut
    restrictions: list[RestrictionNote]
    care: list[CareNote]
    hurts: list[HurtOut] = Field(
        description="What hurt within four weeks and nobody has looked at, the latest first"
    )
    damaged: list[str] = Field(description="Rows of theirs that cannot be read, and what helps")
    week: str
    monday: str
    sunday: str
    before: str
    after: str
    over: bool
    kind: WeekKind | None = Field(description="What the week is for, where somebody has said so")


class ReportQuery(Shape):
    """What the report is of, and who reads it."""

    of: Literal["week", "block", "since"] = "week"
    reader: Reader = Field("coach", alias="for", description="The coach's file, or a hand-out")


class SchoolRow(Shape):
    """A finding, and at which level each school would raise it; ``None`` where it would not."""

    code: str
    subject: str
    measure: str
    title: str
    label: str
    levels: list[Level | None]


class SchoolsOut(Shape):
    """A week under every school, in the order of the names; all else of the rules stays."""

    names: list[str]
    rows: list[SchoolRow]


class TrailQuery(Shape):
    """A figure of the sheet."""

    figure: str = Field(min_length=1, max_length=200)
    basis: Basis = "completed"
    days: str = Field("", max_length=100, description="ISO days, comma between; all if empty")


class TrailSet(Shape):
    """A set behind a figure, with its credit and how it comes about."""

    date: str
    title: str
    position: int
    movement: str
    text: str
    explained: str
    credit: float
    easy: bool
    estimated: bool
    assumed: bool
    measured: bool


class Trail(Shape):
    """The sets that make up a figure, and the figure over the last weeks."""

    figure: str
    label: str
    measure: str
    value: float
    is_sum: bool
    sets: list[TrailSet]
    history: list[WeekColumn]


class AcceptBody(FindingKey):
    """Accepting a finding takes a reason."""

    reason: str = Field(min_length=1, max_length=500)


class SignBody(Shape):
    """Signing off takes a name."""

    name: str = Field(min_length=1, max_length=120)
