"""Shapes of the place `movements`."""

from __future__ import annotations

from dialback.core.movements import Level, Movement, Name
from dialback.core.vocabulary import ProgressRule
from dialback.web.shapes.common import Number, Shape


class MovementPath(Shape):
    """A movement of the house."""

    movement: Number


class MovementBody(Shape):
    """A movement as it is to be."""

    movement: Movement


class LikeBody(Shape):
    """A new movement in three answers: its name, what it is like, and how hard beside that."""

    name: Name
    like: Name
    level: Level | None = None


class MovementEffectSheet(Shape):
    """A week whose audit a changed movement alters."""

    athlete: int
    name: str
    week: str
    signed: bool
    cleared: list[str]
    appeared: list[str]
    sets: float
    volume_load_kg: float
    tut_s: float


class MovementEffect(Shape):
    """What a changed movement alters in the audits of the last weeks, and where it is in use."""

    athletes: int
    sets: int
    weeks_looked_at: int
    sheets: list[MovementEffectSheet]


class NameBody(Shape):
    """Another name for a movement: a new one, or that of a movement that is there."""

    name: Name


class NameEffect(Shape):
    """What another name changes, before anything is stored.

    ``into`` is the movement of that name, which this one would become part of. Sets are counted
    by plan and log; ``keeps`` are athletes who have a movement of the old name of their own.
    """

    into: str | None
    planned: int
    done: int
    athletes: int
    maxima: int
    goals: int
    restrictions: int
    judged: int
    drafts: int
    keeps: list[str]
    sheets: list[MovementEffectSheet]
    weeks_looked_at: int


class MovementOut(Shape):
    """A movement of the house. ``side`` is its class: push, pull, knee or hip.

    ``no_kit`` says that the house's kit has nothing to do it with.
    """

    id: int

    name: str
    pattern: str
    side: str | None
    compound: bool
    direct: list[str]
    indirect: list[str]
    bodyweight_share: float
    tempo: str | None
    isometric: bool
    one_sided: bool
    aliases: list[str]
    easier: str | None
    harder: str | None
    kit: list[str]
    no_kit: bool
    progress: ProgressRule | None


class ProgressChoice(Shape):
    """A way for a movement to move on."""

    value: ProgressRule
    meaning: str


class MovementsOut(Shape):
    """The movements of the house, and the words to describe one."""

    movements: list[MovementOut]
    patterns: list[str]
    muscles: list[str]
    progress: list[ProgressChoice]
