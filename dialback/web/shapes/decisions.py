"""Shapes of the place `decisions`."""

from __future__ import annotations

from dialback.core.decisions import Decision
from dialback.web.shapes.common import AthletePath, Number, Shape


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
