"""Shapes of the place `drafts`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.findings.finding import Level
from dialback.core.plain import MAX_INTEGER
from dialback.core.plans.dial import Toward
from dialback.core.plans.draft import DraftSession
from dialback.core.progress import Kind
from dialback.web.shapes.common import Number, Shape
from dialback.web.shapes.sheet import FindingOut, PairRow, Row


class DraftSet(Shape):
    """A line of a draft in words, beside its set."""

    movement: str
    text: str
    load_step_kg: float
    turns: bool


class DraftAudit(Shape):
    """The audit of a draft, against the plan that is published now.

    ``as_planned``: the baseline takes the plans before this week as done.
    """

    total: int
    as_planned: bool
    totals: list[Row]
    pairs: list[PairRow]
    muscles: list[Row]
    findings: list[FindingOut]
    cleared: list[FindingOut]
    appeared: list[int]
    lines: list[list[DraftSet]]


class DraftOut(Shape):
    """A draft. ``revision`` 0 is one that is not stored yet; ``origin`` says what it came from."""

    revision: int
    origin: Literal["saved", "plan", "last plan", "last log", "empty"]
    origin_week: str
    start_total: int
    least: int
    most: int
    sessions: list[DraftSession]
    shape: list[DraftSession]
    audit: DraftAudit


class SessionsBody(Shape):
    """A draft to look at; nothing is stored."""

    sessions: list[DraftSession] = Field(max_length=50)


class DialBody(SessionsBody):
    """A draft to scale to so many sets."""

    total: int = Field(ge=0, le=5000)
    toward: Toward = "nearest"


class DialOut(Shape):
    """The scaled draft and its audit."""

    sessions: list[DraftSession]
    audit: DraftAudit


class NotchOut(Shape):
    """The nearest setting at which a finding clears or appears."""

    total: int
    effect: Literal["clears", "appears"]
    level: Level
    title: str
    label: str
    sentence: str


class NotchesOut(Shape):
    """The notches of the dial, as it is turned from ``start``."""

    start: int

    notches: list[NotchOut]


class ProposalBody(SessionsBody):
    """Ask for the least change of a draft, within what the coach holds."""

    budget: Number | None = Field(None, ge=0, le=10_000)
    locks: list[str] = Field(default_factory=list, max_length=100)


class StepOut(Shape):
    """A change of a proposal; ``line`` counts from 1 in its session, and is ``None`` if new.

    ``sets`` is how many sets come or go by it: a round has several.
    """

    session: int
    day: str
    title: str
    line: int | None
    movement: str
    kind: Literal["line", "circuit", "new"]
    count_from: int
    count_to: int
    sets: int
    reason: str


class RungOut(Shape):
    """A stop of the ladder: the least cost at which so few findings are left."""

    cost: int
    high: int
    caution: int


class ProposalOut(Shape):
    """A proposal for a draft, its ladder, and what stays and why."""

    steps: list[StepOut]
    cost: int
    optimal: bool
    ladder: list[RungOut]
    cleared: list[str]
    remaining: list[str]


class WayOut(Shape):
    """A way on for a movement: in a few words, and what the four measures gain by it."""

    kind: Kind
    says: str
    told: str
    effect: dict[str, float]


class NextStepOut(Shape):
    """The next step of a movement; the first of the ways is the one proposed."""

    movement: str
    course: Literal["up", "down"]
    before: str
    because: str
    ways: list[WayOut]


class NextStepsOut(Shape):
    """What the movements of a draft do next, from their last sessions."""

    steps: list[NextStepOut]


class TakeNext(Shape):
    """A way to take for a movement; ``before`` are its sets as they were told."""

    movement: str = Field(max_length=120)
    before: str = Field(max_length=2000)
    kind: Kind


class TakeNextBody(SessionsBody):
    """Next steps to take, one of each movement and scheme."""

    steps: list[TakeNext] = Field(min_length=1, max_length=200)


class TakeStep(Shape):
    """A change to take over into the draft."""

    session: int = Field(ge=0, le=50)
    line: Number | None = Field(None, ge=1, le=2000)
    movement: str | None = Field(None, max_length=120)
    count: int = Field(ge=0, le=2000)


class TakeBody(SessionsBody):
    """Changes of a proposal to take."""

    steps: list[TakeStep] = Field(min_length=1, max_length=200)


class SaveDraftBody(SessionsBody):
    """A draft to keep; ``revision`` is the one it was opened with, 0 if new.

    ``shape`` is the draft as it was last edited by hand; the draft itself if left out.
    """

    revision: int = Field(ge=0, le=MAX_INTEGER)
    shape: list[DraftSession] | None = Field(None, max_length=50)
    start_total: int = Field(ge=0, le=5000)
