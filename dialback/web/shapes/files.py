"""Shapes of the place `files`."""

from __future__ import annotations

from pydantic import Field

from dialback.web.shapes.common import Shape
from dialback.web.shapes.sheet import AthleteOut


class ImportQuery(Shape):
    """How to import: under another name, or in place of the athlete of that name."""

    name: str | None = Field(None, min_length=1, max_length=120)
    replace: bool = False


class ImportLook(Shape):
    """What an import would do; ``taken`` is the athlete of that name who is there already."""

    name: str
    taken: str | None
    planned: int
    completed: int
    sets: int
    first: str | None
    last: str | None
    new_movements: list[str]
    own_movements: list[str]
    warnings: list[str]


class ImportOut(Shape):
    """What an import did."""

    athlete: AthleteOut
    week: str
    planned: int
    completed: int
    sets: int
    new_movements: list[str]
    own_movements: list[str]
    replaced: bool
    warnings: list[str]
