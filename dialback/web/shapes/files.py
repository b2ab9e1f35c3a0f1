"""Shapes of the place `files`."""

from __future__ import annotations

from typing import Literal

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


class CopyOut(Shape):
    """A daily copy of the data file."""

    day: str
    name: str
    megabytes: float


class Copies(Shape):
    """Where the daily copies lie, and which there are, the latest first."""

    folder: str
    kept: int
    copies: list[CopyOut]


class Health(Shape):
    """The server answers, and reads its data file."""

    status: Literal["ok"]
    version: str
