"""Shapes of the place `cues`."""

from __future__ import annotations

from dialback.core.cues import Cues
from dialback.web.shapes.common import Shape


class CuesBody(Shape):
    """The house's own words for a movement; without any, those that ship hold again."""

    cues: Cues | None


class Cue(Shape):
    """Words to say, and the title of the moment at which they are said."""

    title: str
    says: str


class CuesOut(Shape):
    """The words of a movement; ``is_own`` where the house has changed them."""

    cues: Cues
    is_own: bool
    said: list[Cue]


class OwnCuesOut(Shape):
    """What one athlete is told, movement by movement."""

    cues: list[Cue]
