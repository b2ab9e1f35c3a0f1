"""Shapes of the place `restrictions`."""

from __future__ import annotations

from dialback.core.movements import Name
from dialback.core.restrictions import About, Restriction
from dialback.web.shapes.common import AthletePath, DayText, Number, Shape


class RestrictionOut(Shape):
    """A restriction as it is kept. ``holds`` says whether it is in force today, ``over`` whether it
    is not any more; ``last_day`` is the last on which it is, where one is known.
    """

    id: int
    words: str
    holds: bool
    over: bool
    last_day: DayText | None
    restriction: Restriction


class RestrictionsOut(Shape):
    """An athlete's restrictions, the latest first, and what one can be about."""

    today: str
    restrictions: list[RestrictionOut]
    subjects: dict[About, list[str]]


class LiftBody(Shape):
    """Who lifts a restriction."""

    by: Name


class RestrictionPath(AthletePath):
    """A restriction of an athlete."""

    restriction: Number
