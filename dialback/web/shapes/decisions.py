"""Shapes of the place `decisions`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.decisions import Decision
from dialback.web.shapes.common import AthletePath, DayText, Number, Shape


class DecisionOut(Shape):
    """What a coach has decided, as it is kept and as it is read. ``holds`` is of this week."""

    id: int
    holds: bool
    words: str
    decision: Decision


class DecisionsOut(Shape):
    """An athlete's decisions, the latest first."""

    decisions: list[DecisionOut]


class DecisionPath(AthletePath):
    """A decision of an athlete."""

    decision: Number


class SeenBody(Shape):
    """What hurt, and what follows from it now that somebody has looked at it."""

    day: DayText
    movement: str | None = Field(None, max_length=200)
    follows: str = Field(min_length=1, max_length=500)
