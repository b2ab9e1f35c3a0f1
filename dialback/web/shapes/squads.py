"""Shapes of the place `squads`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.newcomers import LONGEST_SQUAD
from dialback.core.squads.causes import SquadCode
from dialback.core.vocabulary import Basis, Level
from dialback.web.shapes.common import Number, Shape, WeekText
from dialback.web.shapes.proposals import RungOut
from dialback.web.shapes.roster import RosterRow, SpreadMark, Waiting


class SquadQuery(Shape):
    """Which squad, everybody where it is left out; which week, the one to audit if left out."""

    squad: str = Field("", max_length=LONGEST_SQUAD)
    week: WeekText | None = None


class LevelsOut(Shape):
    """How many high findings and cautions there are."""

    high: int
    caution: int


class PersonOut(Shape):
    """One of a squad: the line of the roster, and how their weeks went against their baseline.

    ``marks`` are those of the page's weeks, by measure.
    """

    row: RosterRow
    is_new: bool
    is_back: bool
    own_rules: bool
    marks: dict[str, list[SpreadMark | None]]


class NamedOut(Shape):
    """An athlete by number and name, and how many of their findings are meant."""

    id: int
    name: str
    findings: int


class SquadCauseOut(Shape):
    """Something that several have in common: who, what follows from it, what is left without it.

    ``step`` says what mends it.
    """

    code: SquadCode
    subject: str
    sentence: str
    step: str
    people: list[NamedOut]
    explains: LevelsOut
    left: LevelsOut


class Common(Shape):
    """What the athletes of a squad have in common, and how many findings they have in all."""

    causes: list[SquadCauseOut]
    findings: LevelsOut


class SquadOut(Shape):
    """A squad's week: its people, their spread, and what they have in common.

    ``common`` is ``None`` as long as not everybody is counted; ``to_plan`` is the week that is
    changed by what it shows.
    """

    squad: str
    week: str
    monday: str
    sunday: str
    to_plan: str
    previous: str
    next: str
    basis: Basis
    weeks: list[str]
    limits: dict[str, float | None] = Field(
        description="What a week may gain by the house rules, a share, by measure"
    )
    people: list[PersonOut]
    waiting: list[Waiting]
    common: Common | None
    counted: int = Field(description="So many are through, of those who are not waiting")


class TurnBody(Shape):
    """A count of a line, or of a movement that is added: for all, or for one athlete.

    ``session`` counts from 0: of all in the shared sessions, of one athlete in their own week.
    """

    athlete: Number | None = None
    session: int = Field(ge=0, le=200)
    line: Number | None = Field(None, ge=1, le=2000)
    movement: str | None = Field(None, max_length=120)
    count: int = Field(ge=0, le=2000)


class SquadWeekBody(Shape):
    """The squad, everybody where it is left out, and the week that is planned."""

    squad: str = Field("", max_length=LONGEST_SQUAD)
    week: WeekText


class SquadDraftBody(SquadWeekBody):
    """A draft: what is changed in the plans that there are.

    With the ``state`` that it was shown in, it is refused where the plans are others by now.
    """

    state: str = Field("", max_length=64)
    turns: list[TurnBody] = Field(max_length=500)


class SquadLineOut(Shape):
    """A line of a shared session; ``words`` are its first athlete's, and others may differ."""

    line: int
    name: str
    words: str
    differs: bool
    kind: Literal["sets", "pairs", "rounds"]
    count: int
    most: int
    fixed: bool


class SharedOut(Shape):
    """A session that several have, with its lines; warm-ups are left out."""

    session: int
    title: str
    day: str
    people: list[NamedOut]
    lines: list[SquadLineOut]


class FindingWords(Shape):
    """A finding in words."""

    level: Level
    words: str


class PersonWeekOut(Shape):
    """One athlete's week of a squad's draft: what it was, and what it is.

    ``drafted`` where a draft of theirs is stored, that publishing would replace.
    """

    id: int
    name: str
    before: LevelsOut
    after: LevelsOut
    cleared: list[FindingWords]
    appeared: list[FindingWords]
    changed: bool
    drafted: bool


class SquadDraftOut(Shape):
    """A squad's draft, audited for everybody. ``state`` is what publishing builds on."""

    squad: str
    week: str
    monday: str
    sunday: str
    previous: str
    next: str
    state: str
    shared: list[SharedOut]
    people: list[PersonWeekOut]
    without: list[str] = Field(description="Who has no plan to begin with")
    before: LevelsOut
    after: LevelsOut


class SquadTurnOut(TurnBody):
    """A change of a proposal, in words, with what it is for."""

    name: str
    what: str
    reason: str


class SquadProposalOut(Shape):
    """A squad's proposal, as changes of its draft of a state."""

    state: str
    turns: list[SquadTurnOut]
    cost: int
    optimal: bool
    ladder: list[RungOut]
    stop: int
    why: str


class SquadProposalBody(SquadWeekBody):
    """Ask for a proposal; a ``thorough`` one clears all that can be, whatever it takes."""

    thorough: bool = False


class SquadJobOut(Shape):
    """A proposal on its way: seconds gone, of at most so many; then what came of it."""

    token: str
    stage: str
    done: int
    of: int | None
    finished: bool
    problem: str | None
    proposal: SquadProposalOut | None


class SquadPublishBody(SquadDraftBody):
    """Make a draft everybody's plan, as it was shown in a state."""

    state: str = Field(max_length=64)


class SquadPublished(Shape):
    """Whose plans were changed; the number of one of the changes, to take all of them back by."""

    change: Number
    people: int
