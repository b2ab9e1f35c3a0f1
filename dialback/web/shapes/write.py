"""Shapes of the place `write`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.plain import MAX_INTEGER
from dialback.core.sessions import Title
from dialback.web.shapes.common import (
    DayText,
    DoubtOut,
    Laid,
    MarkOut,
    MistakeOut,
    Number,
    Shape,
    WeekPath,
)
from dialback.web.shapes.drafts import DraftAudit


class SessionPath(WeekPath):
    """A planned session of a week."""

    session: Number


class WrittenRow(Shape):
    """A planned session as text."""

    id: int
    date: str
    title: str
    text: str
    revision: int


class WrittenWeek(Shape):
    """The planned sessions of a week as text, and the week's days."""

    days: list[str]
    sessions: list[WrittenRow]


class MovementName(Shape):
    """A movement to complete a name with; ``uses`` are its sets of the last four weeks.

    ``no_kit`` says that the room has nothing to do it with.
    """

    name: str
    pattern: str
    uses: int
    no_kit: bool


class MovementNames(Shape):
    """The movements, by use and then by name."""

    movements: list[MovementName]


class TextBody(Shape):
    """A session's text on a day of the week; ``session`` is the one it takes the place of."""

    date: DayText
    title: Title = ""
    text: str = Field(max_length=100_000)
    session: Number | None = None


class AddTextBody(TextBody):
    """A new session's text; ``client`` is made where it is written, and makes it come once."""

    client: str | None = Field(None, min_length=8, max_length=64)


class SaveTextBody(TextBody):
    """A text to keep, and the revision it builds on."""

    revision: int = Field(ge=0, le=MAX_INTEGER)


class HabitBody(Shape):
    """An answer that was chosen: the form of what was asked, and what the answer says."""

    form: str = Field(min_length=1, max_length=100)
    answer: str = Field(min_length=1, max_length=1000)


class Learnt(Shape):
    """Whether the answer is taken as said from now on."""

    taken: bool


class KitChoice(Shape):
    """A load that can be made instead, as it is written, and its step from the one wanted."""

    text: str
    step: float


class KitMiss(MarkOut):
    """What the room cannot give, at its place in the text, and what it can."""

    choices: list[KitChoice]


class LinePart(Shape):
    """What one line of the text comes to."""

    line: int
    sets: int
    minutes: float
    totals: dict[str, float]


class LineReading(Shape):
    """A line as it was read, in the one way in which the notation writes it."""

    line: int
    text: str


class LineShare(Shape):
    """What a load in per cent of a maximum comes to; ``missing`` if there is none."""

    line: int
    message: str
    missing: bool


class DayInText(Shape):
    """A day that a text names: its line, its title, its sets, and the titles in whose place."""

    line: int
    date: str
    title: str
    sets: int
    instead_of: list[str]


class DaysMade(Laid):
    """The days of a text are sessions of their own now, in order of day."""

    sessions: list[WrittenRow]


class Written(Shape):
    """What a text comes to: by itself, line by line, and in its week."""

    mistakes: list[MistakeOut]
    sets: int
    work_s: float
    rest_s: float
    minutes: float
    density: float | None
    totals: dict[str, float]
    lines: list[LinePart]
    new_movements: list[str]
    readings: list[LineReading]
    shares: list[LineShare]
    kit: list[KitMiss]
    doubts: list[DoubtOut]
    restricted: list[MarkOut]
    days: list[DayInText]
    week: DraftAudit
