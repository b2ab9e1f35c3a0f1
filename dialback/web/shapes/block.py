"""Shapes of the place `block`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.adjusting.wave import Shape as WaveShape
from dialback.core.plain import MAX_INTEGER
from dialback.core.plans.draft import DraftSession
from dialback.core.sessions import Title
from dialback.core.vocabulary import Level, WeekKind
from dialback.store.blocks import LENGTHS
from dialback.web.shapes.common import AthletePath, Counts, DayText, Laid, Number, Shape, WeekText


class BlockQuery(Shape):
    """How many weeks are shown where no block is."""

    weeks: int = Field(6, ge=LENGTHS.start, le=LENGTHS[-1])


class BlockSession(Shape):
    """A planned session in its cell."""

    id: int
    date: str
    title: str
    sets: float
    minutes: float
    done: bool
    unread: list[str] = Field(description="Lines of its text that are not read: they do not count")


class BlockFinding(Shape):
    """A finding of a week: its key, its level, and how it is read."""

    code: str
    subject: str
    measure: str
    level: Level
    title: str
    label: str
    sentence: str


class BlockWeek(Shape):
    """A week of the block: what is planned, done, and the base that it is compared with."""

    week: str
    monday: str
    over: bool
    kind: WeekKind | None
    planned: dict[str, float]
    done: dict[str, float]
    base: dict[str, float] | None
    allowed: dict[str, float] | None
    lighter: bool
    usually_lighter: bool = False
    counts: Counts
    first: str | None
    findings: list[BlockFinding]


class StoredBlock(Shape):
    """A block of weeks that are planned as one."""

    id: int
    title: str
    first_week: str
    weeks: int


class Block(Shape):
    """Weeks across, days down. ``stored`` is the block that the week lies in.

    ``allowed`` of a week is where a jump would begin; a ``lighter`` one has clearly fewer sets
    planned than the week before, ``usually_lighter`` is one that is proposed so.
    """

    stored: StoredBlock | None
    blocks: list[StoredBlock]
    weeks: list[BlockWeek]
    days: list[list[str]]
    sessions: list[BlockSession]


class ChangeBody(Shape):
    """What becomes more each week."""

    load: float = Field(0, ge=-0.5, le=0.5)
    reps: int = Field(0, ge=-20, le=20)
    sets: int = Field(0, ge=-10, le=10)
    rest_s: float = Field(0, ge=-600, le=600)
    tempo_s: float = Field(0, ge=-5, le=5)


class LayBody(Shape):
    """Lay planned sessions so many days on, once for each shift; the change grows each time.

    ``to`` is the day the first of the sessions is to come to, instead of shifts.

    ``move`` takes the sources away; ``lighter`` gives fewer sets; what stood on a day that is
    laid over is put aside.
    """

    sessions: list[Number] = Field(min_length=1, max_length=60)
    shifts: list[int] = Field(default_factory=list, max_length=12)
    to: DayText | None = None
    change: ChangeBody = ChangeBody()
    move: bool = False
    lighter: bool = False


class BlockBody(Shape):
    """A block to make, from the week of the address on."""

    title: Title = ""
    weeks: int = Field(ge=LENGTHS.start, le=LENGTHS[-1])


class NewBlockBody(BlockBody):
    """A new block and what fills it: nothing, a template, or the plan of the week before.

    The plan of the week before is laid over every week, with the change growing; every
    ``lighter_every``-th week gets fewer sets (0: none).
    """

    fill: Literal["nothing", "template", "week before"] = "nothing"
    template: Number | None = None
    change: ChangeBody = ChangeBody()
    lighter_every: int = Field(0, ge=0, le=8)


class NewBlock(Shape):
    """The block that was made, and the sessions that came and went."""

    block: StoredBlock
    laid: Laid


class BlockPath(AthletePath):
    """A block of an athlete."""

    block: Number


class TextLaid(Laid):
    """Sessions that a text brought in."""

    first_week: str


class ProposedWeek(Shape):
    """A week of a block with the sessions that are proposed for it."""

    week: WeekText
    sessions: list[DraftSession] = Field(max_length=50)


class WaveBody(Shape):
    """Ask for the proposal of a week: those of the weeks before it stand for what is done there.

    A ``lighter`` week keeps its loads and has fewer sets. ``ease_in`` begins low after a break and
    rises within the limit of sets. ``all_of_it`` clears all that can be, in gentle steps over the
    weeks.
    """

    before: list[ProposedWeek] = Field(default_factory=list, max_length=LENGTHS[-1])
    lighter: bool = False
    ease_in: bool = True
    all_of_it: bool = False


class WaveFinding(BlockFinding):
    """A finding of a week: whether the plan has it, and the proposal; why it stays."""

    before: bool
    left: bool
    why: str


class WaveWeekOut(Shape):
    """A week proposed. ``state`` is that of the athlete's figures, to publish it by.

    ``weeks_off`` are those of a break that the week ends.
    """

    week: str
    state: int
    shape: WaveShape
    planned: float
    sets: float
    cost: int
    optimal: bool
    weeks_off: int | None
    sessions: list[DraftSession]
    carried: int = Field(description="Lines that change as in the week before")
    changes: list[str]
    findings: list[WaveFinding]


class PublishWaveBody(Shape):
    """The proposals of several weeks, to be their plans; nothing may have changed since."""

    state: int = Field(ge=0, le=MAX_INTEGER)
    weeks: list[ProposedWeek] = Field(min_length=1, max_length=LENGTHS[-1])


class SpanOut(Shape):
    """Weeks that belong together."""

    title: str
    first_week: str
    weeks: int


class MeanOut(Shape):
    """A figure of a week on average in either span; ``None`` where nothing was done."""

    name: str
    measure: str
    before: float | None
    after: float | None
    change: float | None


class DecidedOut(Shape):
    """What was decided on a day, why and by whom."""

    day: str
    what: str
    reason: str
    who: str


class SinceOut(Shape):
    """What changed from the block before to this one; ``planned`` of its weeks lie ahead.

    Findings above a note that came, went and stayed are lines, those alike together.
    """

    before: SpanOut
    after: SpanOut
    planned: int
    measures: list[MeanOut]
    muscles: list[MeanOut]
    changes: list[str]
    came: list[str]
    went: list[str]
    stayed: list[str]
    decided: list[DecidedOut]
