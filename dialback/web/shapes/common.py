"""Shapes that several places share. Core values are passed as they are where their shape fits."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from dialback.core.cautions import Kind
from dialback.core.plain import MAX_INTEGER
from dialback.core.sessions import Session
from dialback.core.vocabulary import Basis

Number = Annotated[int, Field(ge=0, le=MAX_INTEGER)]
"""The number of a row, or a count of changes: as large as a table can hold."""


_A_WEEK = r"^2\d{3}-W(0[1-9]|[1-4]\d|5[0-2])$"
WeekText = Annotated[str, Field(json_schema_extra={"pattern": _A_WEEK})]
DayText = Annotated[str, Field(json_schema_extra={"format": "date"})]
"""What is read with words of its own when it is wrong; the document says what it looks like."""


class Shape(BaseModel):
    """A shape of the API: unknown keys are refused, so that a misspelt one is noticed."""

    model_config = ConfigDict(extra="forbid")


class AthletePath(Shape):
    """An athlete by number."""

    athlete_id: Number


class WeekPath(AthletePath):
    """A week of an athlete, as in 2026-W41."""

    week: WeekText


class JobPath(Shape):
    """A piece of work by its token."""

    token: str = Field(pattern=r"^[0-9a-f]{32}$")


class BasisQuery(Shape):
    """Which of the two the findings judge."""

    basis: Basis = "completed"


class Counts(Shape):
    """Open points by the worst level that is open of them, and those accepted."""

    high: int
    caution: int
    note: int
    accepted: int


class WeekColumn(Shape):
    """A week as a column: sets planned and done."""

    week: str
    planned: float
    done: float


class RestrictionNote(Shape):
    """A restriction in words. ``lifted_on`` is the first day without it."""

    words: str
    by: str
    since: str
    word: str
    lifted_on: str | None


class CareNote(Shape):
    """What to mind about an athlete: the circumstance, what is usually said, who said more."""

    kind: Kind
    usual: str
    word: str
    by: str
    since: str | None


class FindingKey(Shape):
    """Which finding of a week is meant."""

    basis: Basis
    code: str
    subject: str
    measure: str


class Done(Shape):
    """It was done."""

    done: Literal[True] = True


class RevisionBody(Shape):
    """The revision a change builds on."""

    revision: int = Field(ge=0, le=MAX_INTEGER)


class Revision(Shape):
    """The revision that is stored now."""

    revision: int


class MarkOut(Shape):
    """What is said of a place of the text; line and column from 1."""

    line: int
    column: int
    length: int
    message: str


class Asking(Shape):
    """A question about a line: ``form`` is what is asked, ``answers`` are what each choice says.

    ``habit`` is the place of the choice that was made so often that it is taken as said; that of
    the last one behind them, where the line is meant as it stands. ``only``: the line cannot be
    meant as it stands, and its one choice is taken.
    """

    form: str
    answers: list[str]
    habit: int | None
    only: bool


class MistakeOut(MarkOut, Asking):
    """What was not understood; ``question`` is the message without its advice.

    ``instead`` are texts for its whole line, the indent aside: each is understood as it stands.
    """

    question: str
    instead: list[str]


class DoubtOut(Asking):
    """A line that was read and makes little sense: what was taken, and what else it can be.

    Each of ``others`` is the text of the line from ``column`` on, ``length`` characters.
    """

    line: int
    column: int
    length: int
    why: str
    taken: str
    others: list[str]


class WholeText(Shape):
    """A text of the notation: of one session, or of several with their days."""

    text: str = Field(max_length=500_000)


class Laid(Shape):
    """Plans were changed; the number of the change, to take it back by.

    ``remarks`` are what the coach would not see at once: loads that stay, lines that are not read.
    """

    change: Number
    remarks: list[str] = Field(default_factory=list, max_length=100)


class LogOut(Shape):
    """A log as it is stored."""

    client_id: str
    revision: int
    session: Session


class RangeQuery(Shape):
    """From a day to a day, both within; from the first to the last if left out."""

    first: DayText | None = None
    last: DayText | None = None
