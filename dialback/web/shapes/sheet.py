"""What the audit of a week looks like: rows, pairs, findings, causes."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from dialback.core.cautions import TrainingLevel
from dialback.core.vocabulary import Basis, Level, WeekKind
from dialback.web.shapes.common import Shape


class Cell(Shape):
    """One figure of a row: planned and done, and the basis against its baseline."""

    figure: str
    planned: float
    done: float
    share: float | None
    base: float | None
    change: float | None
    rough_planned: bool
    rough_done: bool
    measured: bool


class BandOut(Shape):
    """What a rule allows, both ends within."""

    low: float
    high: float


class Row(Shape):
    """A subject of the sheet with its figures by measure."""

    subject: str
    label: str
    cells: dict[str, Cell]
    band: BandOut | None
    findings: list[int]


class Side(Shape):
    """A pair in one measure: the two sides and their ratio."""

    a: float
    b: float
    ratio: float | None


class Weighed(Shape):
    """A pair in one measure, planned, done and in the baseline."""

    planned: Side
    done: Side
    base: Side | None


class PairRow(Shape):
    """A pair of the sheet."""

    subject: str
    label_a: str
    label_b: str
    measures: dict[str, Weighed]
    measure: str
    band: BandOut | None
    opens: bool = Field(description="Whether its sides have a trail of their own")
    findings: list[int]


class FindingOut(Shape):
    """A finding. ``reason`` and ``accepted`` tell how the coach has judged it."""

    code: str
    title: str
    subject: str
    label: str
    measure: str
    level: Level
    value: float | None
    limit: float | None
    amount: float | None
    base: float | None
    sentence: str
    clears: str | None = Field(description="What would clear it, on a week sheet")
    figures: list[str]
    days: list[str]
    of_plan: bool
    accepted: bool
    reason: str | None


class OfferKey(Shape):
    """What a rule was offered for."""

    code: str = Field(min_length=1, max_length=40)
    subject: str = Field(max_length=200)
    measure: str = Field(min_length=1, max_length=40)


class NewsPoint(Shape):
    """A week of the line of something of many weeks."""

    week: str
    value: float


class NewsOut(Shape):
    """A line of the verdict: what is new, worse, drifts, is doubtful, stands or has eased.

    ``keys`` are the findings or signals that it tells of. ``looks_like`` is the kind of week that
    it asks about. ``points`` are the line of something of many weeks.
    """

    kind: Literal["new", "worse", "course", "doubt", "standing", "eased"]
    says: str = Field(description="The kind in a word")
    level: Level
    sentence: str
    ask: str = Field(description="The one question about what stands; empty where none is asked")
    cause: int | None = Field(description="The place of its first cause in the sheet's causes")
    keys: list[OfferKey]
    can_be_decided: bool = Field(description="Whether something can be said of it for longer")
    looks_like: WeekKind | None
    points: list[NewsPoint]


class CauseOut(Shape):
    """A cause of findings; ``findings`` are their places in the sheet's list.

    One ``of_log`` is something that was done otherwise: it is looked up in the log.
    """

    code: str
    subject: str
    sentence: str
    level: Level
    accepted: bool
    of_log: bool
    findings: list[int]


class SessionLine(Shape):
    """A session of the week: planned, done, or still ahead.

    ``differed`` tells how it differed from the plan, ``said`` what was said of it and of its sets.
    """

    date: str
    title: str
    planned: bool
    done: bool
    ahead: bool
    rpe: float | None
    duration_min: float | None
    differed: list[str]
    said: list[str]


class SignatureOut(Shape):
    """Who signed the week's audit off, and when."""

    name: str
    day: str
    kept: bool = Field(description="Whether what was signed was kept as a document")
    since: list[str] = Field(description="What has changed since it was signed, in words")


class AthleteOut(Shape):
    """An athlete as the frame of all places shows it."""

    id: int
    name: str
    note: str
    squad: str
    bodyweight_kg: float | None
    level: TrainingLevel
    born: int | None


class OfferOut(OfferKey):
    """A rule that would stop what was accepted so often; ``chosen`` are the athlete's with it.

    ``cleared`` and ``appeared`` are findings above a note of the week at hand.
    """

    times: int
    reason: str
    words: str
    chosen: dict[str, Any]
    revision: int
    cleared: int
    appeared: int


class Sheet(Shape):
    """The week sheet: the audit of a week, planned and completed side by side."""

    basis: Basis
    baseline: str
    baseline_weeks: list[str]
    baseline_left_out: str
    sessions: list[SessionLine]
    nothing_done: bool = Field(description="Nothing of a week that is not over is done yet")
    sessions_planned: int
    sessions_done: int
    estimated_sets: int
    assumed_sets: int
    totals: list[Row]
    pairs: list[PairRow]
    muscles: list[Row]
    movements: list[Row]
    findings: list[FindingOut]
    causes: list[CauseOut]
    news: list[NewsOut] = Field(description="What a coach reads first, in order")
    disagreement: str | None
    signature: SignatureOut | None
    offer: OfferOut | None = None
    in_block: bool = Field(description="Whether the week lies in a block, which has its own report")
