"""Shapes of the place `maxima`."""

from __future__ import annotations

from dialback.web.shapes.common import AthletePath, Number, Shape


class MaximumOut(Shape):
    """A maximum that was typed in: kg of all implements, moved once."""

    id: int
    movement: str
    kg: float
    date: str


class EstimateOut(Shape):
    """The best estimate of the last eight weeks, in kg moved (the body's share in it)."""

    movement: str
    kg: float
    date: str


class MaximaOut(Shape):
    """An athlete's maxima, typed in and estimated, and the movements there are."""

    today: str
    maxima: list[MaximumOut]
    estimates: list[EstimateOut]
    movements: list[str]


class MaximumPath(AthletePath):
    """A maximum of an athlete."""

    maximum: Number
