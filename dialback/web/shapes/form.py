"""Shapes of the place `form`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.notation.rows import RowKind
from dialback.core.notation.session import PartKind
from dialback.web.shapes.common import Shape


class EntryOut(Shape):
    """The pieces of a movement's dose, each as the notation writes it; empty if not said."""

    moves: str = Field("", max_length=600)
    sets: str = Field("", max_length=20)
    dose: str = Field("", max_length=200)
    sides: str = Field("", max_length=40)
    load: str = Field("", max_length=60)
    band: str = Field("", max_length=40)
    tempo: str = Field("", max_length=40)
    range: str = Field("", max_length=40)
    hold: str = Field("", max_length=40)
    rpe: str = Field("", max_length=20)
    rest: str = Field("", max_length=40)
    to_failure: bool = False
    for_time: bool = False
    warm_up: bool = False
    note: str = Field("", max_length=500)
    why: str = Field("", max_length=500)


class PartOut(Shape):
    """What opens a part of a session."""

    kind: PartKind
    label: str = Field("", max_length=100)
    pre_exhaust: bool = False


class RoundsOut(Shape):
    """What opens rounds, each field as it is written."""

    form: Literal["rounds", "ladder", "bouts"]
    count: str = Field("", max_length=20)
    rungs: str = Field("", max_length=200)
    on: str = Field("", max_length=40)
    off: str = Field("", max_length=40)
    between: str = Field("", max_length=40)
    every: str = Field("", max_length=40)
    for_time: bool = False


class RowOut(Shape):
    """A line of a session's text in fields."""

    kind: RowKind
    text: str = Field(max_length=5000)
    entries: list[EntryOut] = Field(max_length=60)
    part: PartOut | None = None
    rounds: RoundsOut | None = None
    rest: str = Field("", max_length=40)
    label: str = Field("", max_length=10)


class RowsOut(Shape):
    """The rows of a text, one for each of its lines."""

    rows: list[RowOut]


class LineOut(Shape):
    """The line that a row is written as."""

    text: str
