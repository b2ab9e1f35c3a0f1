"""Shapes of the place `kit`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.kit import Kit
from dialback.core.plain import MAX_INTEGER
from dialback.core.words import Unit
from dialback.web.shapes.common import Shape


class BeginKitBody(Shape):
    """What of it the room has, as it was said, and the revision that it builds on."""

    revision: int = Field(ge=0, le=MAX_INTEGER)
    starts: list[str] = Field(min_length=1, max_length=20)


class KitOut(Shape):
    """What the room has; ``described`` is no as long as nobody has said.

    ``starts`` are what a description can begin with.
    """

    described: bool
    revision: int
    kit: Kit
    starts: list[str]


class HouseOut(Shape):
    """The house: what it is called."""

    name: str = Field("", max_length=120)


class ClubOut(Shape):
    """The names of the made-up club's athletes; none where it is not here."""

    athletes: list[str]


class KitBody(Shape):
    """The kit to keep, and the revision it builds on."""

    revision: int = Field(ge=0, le=MAX_INTEGER)
    kit: Kit


class UnitOut(Shape):
    """The unit in which weights are shown; kept they are in kg, and as they were entered."""

    unit: Unit
