"""Shapes of the place `log`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.plain import MAX_INTEGER
from dialback.core.reconcile import Kind as MatchKind
from dialback.core.sessions import Missed, MissedReason, Session, Set
from dialback.web.shapes.common import AthletePath, DoubtOut, LogOut, MistakeOut, Number, Shape


class LogBody(Shape):
    """A log to keep: ``revision`` is the one it builds on, ``change`` the id of this change.

    ``after`` names the changes that were sent before it, whether or not an answer came.
    """

    change: str = Field(min_length=8, max_length=64)
    revision: int = Field(ge=0, le=MAX_INTEGER)
    after: list[str] = Field(default_factory=list, max_length=50)
    plan: Number | None = None
    session: Session


class LogPath(AthletePath):
    """A log by the id that was made where it was written."""

    client_id: str = Field(min_length=4, max_length=64, pattern=r"^[A-Za-z0-9-]+$")


class LogOther(Shape):
    """What a set can have been instead, in words and as a set."""

    says: str
    set: Set


class LogDoubt(Shape):
    """A set that makes little sense as it is logged, with what else it can have been."""

    why: str
    others: list[LogOther]


class LogLine(Shape):
    """A planned set beside what was done for it; places count from 0."""

    kind: MatchKind
    movement: str
    part: str
    planned: str
    done: str
    words: str
    at: int | None
    done_at: int | None
    doubt: LogDoubt | None


class PlanOut(Shape):
    """A planned session."""

    id: int
    date: str
    title: str
    minutes: float
    sets: list[Set]
    missed: Missed | None


class ApartOut(Shape):
    """What two versions of a session say otherwise; an empty text where one has nothing of it."""

    what: str
    stored: str
    other: str


class VersionOut(Shape):
    """A log that arrived when another had been stored: to be decided."""

    id: int
    day: str
    session: Session
    apart: list[ApartOut]


class LoggedBy(Shape):
    """Who wrote last on a log, and when (UTC)."""

    who: str
    at: str


class LogSession(Shape):
    """A session planned and done, side by side; who logged it, where somebody was signed in."""

    plan: PlanOut | None
    log: LogOut | None
    by: LoggedBy | None
    ahead: bool
    lines: list[LogLine]
    notes: list[str]
    planned: dict[str, float]
    done: dict[str, float]
    versions: list[VersionOut]


class MissedChoice(Shape):
    """A reason for a missed session, and how it is read."""

    why: MissedReason
    says: str


class LogWeek(Shape):
    """The sessions of a week to log."""

    missed_reasons: list[MissedChoice]
    today: str
    days: list[str]
    sessions: list[LogSession]


class LogSaved(Shape):
    """What became of a log: ``both_kept`` if another had been stored meanwhile."""

    revision: int
    client_id: str
    both_kept: bool


class AmendBody(Shape):
    """A set, and what was different about it, in the notation's short forms."""

    set: Set
    text: str = Field(max_length=200)


class Amended(Shape):
    """The set as it was done, so many times."""

    set: Set
    count: int


class WrittenDone(Shape):
    """A text read as what was done: its sets, and its mistakes."""

    sets: list[Set]
    mistakes: list[MistakeOut]
    doubts: list[DoubtOut]


class VersionPath(AthletePath):
    """A version that waits for a decision."""

    version: Number


class DecideBody(Shape):
    """Which of the two stays."""

    keep: Literal["stored", "other"]


class MissedBody(Shape):
    """Why a planned session was not done; nothing takes it back."""

    plan: Number
    why: MissedReason | None
    note: str = Field("", max_length=200)
