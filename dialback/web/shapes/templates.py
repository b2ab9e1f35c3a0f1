"""Shapes of the place `templates`."""

from __future__ import annotations

from pydantic import Field

from dialback.store.blocks import LENGTHS
from dialback.web.shapes.common import Laid, Number, Shape, WeekText


class TemplateBody(Shape):
    """Planned weeks of an athlete to keep under a name."""

    name: str = Field(min_length=1, max_length=120)
    weeks: int = Field(ge=1, le=LENGTHS[-1])


class TemplateOut(Shape):
    """Sessions to lay over weeks of any athlete."""

    id: int
    name: str
    weeks: int
    sessions: int
    unread: list[str] = Field(description="Lines of their texts that are not read")


class Templates(Shape):
    """The templates of the house, by name."""

    templates: list[TemplateOut]


class TemplatePath(Shape):
    """A template by number."""

    template: Number


class LayTemplateBody(Shape):
    """Lay a template over the weeks of several athletes, from one week on."""

    athletes: list[Number] = Field(min_length=1, max_length=200)
    week: WeekText


class LaidOver(Laid):
    """What was changed for one athlete."""

    athlete: Number


class TemplateLaid(Shape):
    """What was changed, athlete by athlete; sent back, it is undone."""

    laid: list[LaidOver] = Field(max_length=200)
