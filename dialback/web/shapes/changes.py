"""Shapes of the place `changes`."""

from __future__ import annotations

from dialback.web.shapes.common import AthletePath, Number, Shape


class ChangePath(AthletePath):
    """A change of an athlete's plans."""

    change: Number


class ChangeOut(Shape):
    """What was done to an athlete's plans; ``at`` is a time in UTC."""

    id: int
    at: str
    says: str
    undone: bool


class Changes(Shape):
    """The changes of thirty days, the latest first."""

    changes: list[ChangeOut]
