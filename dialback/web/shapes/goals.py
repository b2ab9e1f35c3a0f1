"""Shapes of the place `goals`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.goals import Kind, Verdict
from dialback.web.shapes.common import AthletePath, DayText, Number, Shape


class GoalPath(AthletePath):
    """A goal of an athlete."""

    goal: Number


class GoalBody(Shape):
    """A goal to set: a load for reps, reps alone, or seconds, by a day."""

    movement: str = Field(min_length=1, max_length=120)
    load_kg: float = Field(0, ge=0, le=1000)
    reps: int | None = Field(None, ge=1, le=1000)
    seconds: float | None = Field(None, gt=0, le=3600)
    by: DayText


class GoalStep(Shape):
    """A week on the way, and its top set."""

    week: str
    load_kg: float
    reps: int | None
    seconds: float | None


class GoalOut(Shape):
    """A goal and how it stands; values are kg of estimated maximum, reps or seconds."""

    id: int
    movement: str
    load_kg: float
    reps: int | None
    seconds: float | None
    by: str
    kind: Kind
    verdict: Verdict
    target: float
    now: float | None
    best: str | None
    best_day: str | None
    sentence: str
    steps: list[GoalStep]


class Goals(Shape):
    """The athlete's goals, the nearest day first, and the movements that one can be set for."""

    today: str
    goals: list[GoalOut]
    movements: list[str]
