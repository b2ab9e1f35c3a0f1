"""Shapes of the place `drafts`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.plain import MAX_INTEGER
from dialback.core.plans.dial import Toward
from dialback.core.plans.draft import DraftSession
from dialback.core.plans.turning import Kind as Turned
from dialback.core.plans.turning import Unit
from dialback.core.progress import Kind
from dialback.core.vocabulary import Level
from dialback.web.shapes.common import DayText, Shape
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
    """A draft. ``revision`` 0 is one that is not saved yet; ``origin`` says what it came from.

    The plans of ``logged`` days have a log: they stay as they are.
    """

    revision: int
    origin: Literal["saved", "plan", "last plan", "last log", "empty"]
    origin_week: str
    start_total: int
    least: int
    most: int
    logged: list[str]
    sessions: list[DraftSession]
    shape: list[DraftSession]
    audit: DraftAudit


class SessionsBody(Shape):
    """A draft to look at; nothing is stored."""

    sessions: list[DraftSession] = Field(max_length=50)


class SubjectBody(Shape):
    """What the dial is put on: the week, or a part, a pair, a pattern, … by its name."""

    kind: Turned = "week"
    name: str = Field("", max_length=120)


class DialBody(SessionsBody):
    """A draft to turn to a setting: sets of what the dial is put on, or steps from as it is."""

    setting: int = Field(ge=-100, le=5000)
    toward: Toward = "nearest"
    on: SubjectBody = SubjectBody()


class DialOut(Shape):
    """A changed draft and its audit; ``setting`` is where the dial stands, of one that turned."""

    sessions: list[DraftSession]
    audit: DraftAudit
    setting: int | None = None


class NotchOut(Shape):
    """The nearest setting at which a finding clears or appears."""

    total: int
    effect: Literal["clears", "appears"]
    level: Level
    title: str
    label: str
    sentence: str


class SubjectOut(Shape):
    """Something that the dial can be put on, and how it is read."""

    kind: Turned
    name: str
    label: str


class NotchesBody(SessionsBody):
    """A draft, and what the dial is put on."""

    on: SubjectBody = SubjectBody()


class NotchesOut(Shape):
    """How far the dial goes from ``start``, its notches there, and what else it can be put on.

    A setting has ``step`` of the ``unit``; ``whole`` is what both sides of a pair come to.
    """

    start: int
    least: int
    most: int
    step: float
    unit: Unit
    whole: int | None
    notches: list[NotchOut]
    subjects: list[SubjectOut]


class CandidatesBody(SessionsBody):
    """A session of a draft to add a movement to; ``line`` is one that it is to stand in for."""

    session: int = Field(ge=0, le=50)
    line: int | None = Field(None, ge=0, le=2000)


class CandidateOut(Shape):
    """A movement to add or swap in: how it fits, and the set that it begins with, in words."""

    movement: str
    fits: str
    begins: str
    own: bool
    load_missing: bool


class CandidatesOut(Shape):
    """The movements, those that fit best first."""

    candidates: list[CandidateOut]


class PutMovementBody(CandidatesBody):
    """A movement to add to a session, or to put in place of a line of it."""

    movement: str = Field(max_length=120)


class DayChangeOut(Shape):
    """What publishing does to a day, line by line."""

    date: str
    title: str
    kind: Literal["new", "gone", "changed", "same", "logged"]
    lines: list[str]


class ChangesOut(Shape):
    """What publishing a draft changes, day by day."""

    days: list[DayChangeOut]


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


class SaveDraftBody(SessionsBody):
    """A draft to keep; ``revision`` is the one it was opened with, 0 if new.

    ``shape`` is the draft as it was last edited by hand; the draft itself if left out.
    """

    revision: int = Field(ge=0, le=MAX_INTEGER)
    shape: list[DraftSession] | None = Field(None, max_length=50)
    start_total: int = Field(ge=0, le=5000)


class PublishBody(SaveDraftBody):
    """A draft to publish; ``logged`` are the days that stay as they are, as the coach saw them."""

    logged: list[DayText] = Field(default_factory=list, max_length=7)
