"""Shapes of the place `season`: an athlete's long line."""

from __future__ import annotations

from pydantic import Field

from dialback.core.season import Kind, Standing
from dialback.core.vocabulary import WeekKind
from dialback.web.shapes.common import Shape


class SeasonQuery(Shape):
    """How many weeks, up to the one of the address."""

    weeks: int = Field(26, description="16, 26 or 52")


class MovementQuery(SeasonQuery):
    """A movement's own line."""

    name: str = Field(min_length=1, max_length=200)


class SeasonWeekOut(Shape):
    """A week on the time line. ``block`` is the title of one that begins in it.

    ``gap``: nothing was done between weeks with training; ``back``: the first after a break.
    """

    week: str
    monday: str
    trained: bool
    lighter: bool
    gap: bool
    back: bool
    block: str | None
    in_block: bool
    signed: bool
    pain: list[str]
    restrictions: list[str]
    decisions: list[str]
    kind: WeekKind | None


class SeasonLine(Shape):
    """A figure over the weeks, a value for each of them; what no week has is left out whole.

    ``rough`` values rest on an estimate or an assumption, in whole or in part; ``one_sided`` ratios
    have no value, since the other side has nothing.
    """

    kind: Kind
    subject: str
    label: str
    measure: str
    figure: str | None = Field(description="What its trail is taken from, where it is a sum")
    values: list[float | None]
    standings: list[Standing]
    planned: list[float | None] | None
    bases: list[float | None] | None
    lows: list[float | None] | None
    highs: list[float | None] | None
    rough: list[bool] | None
    one_sided: list[bool] | None


class SeasonOut(Shape):
    """Weeks across, figures down."""

    lengths: list[int]
    weeks: list[SeasonWeekOut]
    lines: list[SeasonLine]


class TopSetOut(Shape):
    """The top set of a session, in words and numbers; ``maximum_kg`` is an estimate."""

    date: str
    week: str
    text: str
    load_kg: float
    reps: int | None
    seconds: float | None
    maximum_kg: float | None


class MovementLineOut(Shape):
    """A movement session by session, and the weeks in which it stood still or was ready."""

    name: str
    tops: list[TopSetOut]
    stalled: list[str]
    ready: list[str]
