"""Shapes of the place `roster`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.cautions import YEARS_OF_BIRTH, TrainingLevel
from dialback.core.movements import Name
from dialback.core.newcomers import BODYWEIGHTS_KG, LONGEST_NOTE, LONGEST_SQUAD
from dialback.core.vocabulary import Level
from dialback.web.shapes.common import Counts, DayText, Shape, WeekColumn


class FindingMark(Shape):
    """A finding as far as the roster needs it: what tells whether it is accepted."""

    key: tuple[str, str, str]
    level: Level
    value: float | None
    limit: float | None


class CauseMark(Shape):
    """A cause, with the places of what follows from it."""

    sentence: str
    findings: list[int]


class NewsMark(Shape):
    """A line of the verdict, with the findings or signals that it tells of."""

    kind: str
    level: Level
    sentence: str
    keys: list[tuple[str, str, str]]


class HurtMark(Shape):
    """Something hurt after the week that is judged: on which day, and in words."""

    day: DayText
    words: str


class SpreadMark(Shape):
    """A week of an athlete in one measure: its value, and that against their own baseline.

    ``change`` is a share; ``above`` says that it is more than a week may gain.
    """

    value: float
    change: float | None
    above: bool


class Judged(Shape):
    """What an athlete's week came to, whatever the coach has said of it since.

    ``last_log`` is the last week up to it that something was logged in. ``marks`` are those of the
    last weeks by measure; ``is_back`` after a break.
    """

    week: str
    last_log: str | None
    hurts: list[HurtMark]
    findings: list[FindingMark]
    causes: list[CauseMark]
    news: list[NewsMark]
    columns: list[WeekColumn]
    marks: dict[str, list[SpreadMark | None]]
    is_new: bool
    is_back: bool
    share_done: float | None
    sessions_planned: int
    sessions_done: int
    unlogged: int


class LogPlace(Shape):
    """Where a log stands: its week, and its id."""

    week: str
    session: str


class RosterRow(Shape):
    """One athlete on the roster, in the week to audit.

    ``last_log`` is the last week that something was logged in, where that is an earlier one.
    ``unlogged`` sessions of the week were planned, and neither logged nor said to be missed;
    ``open_today`` if one of today's is planned and not logged yet.
    ``undecided`` is a log of which two versions wait for a decision.
    """

    id: int
    name: str
    note: str
    squad: str
    week: str
    last_log: str | None
    counts: Counts
    hurt: bool = Field(description="Something hurt, or a restriction was broken")
    first: str | None = Field(description="The line of the verdict to read first")
    first_kind: str | None = Field(
        description="Which kind of line it is; `open` where nothing is new, and it is a cause"
    )
    more: int = Field(description="How many lines there are besides")
    columns: list[WeekColumn]
    share_done: float | None
    sessions_planned: int
    sessions_done: int
    unlogged: int
    open_today: bool
    signed_week: str | None
    signed_day: str | None
    undecided: LogPlace | None


class NewcomerBody(Shape):
    """Somebody to take on, as corrected; ``line`` is where it came from, 0 for nowhere."""

    line: int = Field(0, ge=0)
    name: str = Field(max_length=1_000)
    bodyweight_kg: float | None = Field(None, allow_inf_nan=False)
    note: str = Field("", max_length=1_000)
    squad: str = Field("", max_length=1_000)
    level: TrainingLevel = ""
    born: int | None = None


class NewcomersBody(Shape):
    """People to take on: a text as it was pasted, or the table that was made of it."""

    text: str = Field("", max_length=100_000)
    people: list[NewcomerBody] | None = Field(None, max_length=1_000)


class NewcomerOut(Shape):
    """Somebody as a line was read, how, and why it cannot be taken (empty where it can)."""

    line: int
    name: str
    bodyweight_kg: float | None
    note: str
    squad: str
    level: TrainingLevel
    born: int | None
    told: str
    problem: str


class NewcomersOut(Shape):
    """The people of a text."""

    people: list[NewcomerOut]


class TakenOn(Shape):
    """Who came on the roster, by number."""

    athletes: list[int]


class AboutBody(Shape):
    """What is known of an athlete beside training."""

    name: Name = Field(min_length=1)
    bodyweight_kg: float | None = Field(ge=BODYWEIGHTS_KG[0], le=BODYWEIGHTS_KG[1])
    note: str = Field("", max_length=LONGEST_NOTE)
    squad: str = Field("", max_length=LONGEST_SQUAD)
    level: TrainingLevel = ""
    born: int | None = Field(None, ge=YEARS_OF_BIRTH[0], le=YEARS_OF_BIRTH[1])


class PrintQuery(Shape):
    """Whose plans go on paper: a day of the week, and numbers of athletes, parted by commas.

    With ``cues`` the page has what is said at each movement.
    """

    day: DayText
    athletes: str = Field(pattern=r"^[0-9]{1,9}(,[0-9]{1,9}){0,199}$")
    cues: bool = False


class Waiting(Shape):
    """An athlete whose week is still to be counted."""

    id: int
    name: str
    note: str
    squad: str


class Roster(Shape):
    """All athletes, those who need the coach first on top; ``waiting`` are not counted yet."""

    week: str
    monday: str
    sunday: str
    today: str
    athletes: list[RosterRow]
    waiting: list[Waiting]
    damaged: list[str] = Field(description="Rows that cannot be read, and what helps")


class ArchivedOut(Shape):
    """Somebody who was taken off the roster, and when."""

    id: int
    name: str
    day: str


class Archived(Shape):
    """Who is archived, the latest first."""

    athletes: list[ArchivedOut]


class ForGoodBody(Shape):
    """To delete somebody for good; the name is given once more."""

    name: str = Field(max_length=200)


class Deleted(Shape):
    """How many rows of each table were deleted."""

    rows: dict[str, int]
