"""Shapes of proposals for a draft."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.decisions import Direction
from dialback.web.shapes.common import Number, Shape
from dialback.web.shapes.drafts import SessionsBody


class ProposalBody(SessionsBody):
    """Ask for a change of a draft, within what the coach holds.

    A ``thorough`` one clears all that can be, whatever it takes; with a ``budget`` as little as
    possible is left within it. Without its ``ladder`` the answer comes the sooner.
    """

    budget: Number | None = Field(None, ge=0, le=10_000)
    locks: list[str] = Field(default_factory=list, max_length=100)
    thorough: bool = False
    ladder: bool = True


class StepOut(Shape):
    """A change of a proposal; ``line`` counts from 1 in its session, and is ``None`` if new.

    ``sets`` is how many sets come or go by it: a round has several; ``effect`` is what the week's
    four measures gain by its bundle.
    """

    session: int
    day: str
    title: str
    line: int | None
    movement: str
    kind: Literal["line", "circuit", "new"]
    count_from: int
    count_to: int
    sets: int
    reason: str
    effect: dict[str, float]
    bundle: int = Field(description="Steps of one bundle need each other: they are taken together")


class RungOut(Shape):
    """A stop of the ladder: the least cost at which so few findings are left."""

    cost: int
    high: int
    caution: int


class ProposalOut(Shape):
    """A proposal for a draft, its ladder, and what stays and why."""

    steps: list[StepOut]
    cost: int
    optimal: bool
    ladder: list[RungOut]
    stop: int
    why: str
    cleared: list[str]
    remaining: list[str]


class TakeStep(Shape):
    """A change to take over into the draft."""

    session: int = Field(ge=0, le=50)
    line: Number | None = Field(None, ge=1, le=2000)
    movement: str | None = Field(None, max_length=120)
    count: int = Field(ge=0, le=2000)
    reason: str = Field("", max_length=300, description="What it does, to be kept with the line")


class TakeBody(SessionsBody):
    """Changes of a proposal to take."""

    steps: list[TakeStep] = Field(min_length=1, max_length=200)


class DeclinedStep(Shape):
    """A step of a proposal that a coach does not want: more or fewer sets of a movement."""

    movement: str = Field(min_length=1, max_length=120)
    direction: Direction


class DeclinedOut(Shape):
    """The decisions that were made of it, by number, and what was declined, in words."""

    decisions: list[int]
    words: str


class DeclineBody(Shape):
    """Steps of a proposal to decline, and why."""

    steps: list[DeclinedStep] = Field(min_length=1, max_length=50)
    reason: str = Field("", max_length=500)
