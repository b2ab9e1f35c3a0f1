"""What the API takes and gives. Core values are passed as they are where their shape fits."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from dialback.book.logsheet import SheetChoice
from dialback.core.adjust import DraftSession, Toward
from dialback.core.findings.finding import Level
from dialback.core.kit import Kit
from dialback.core.movements import Movement, Name
from dialback.core.notation.rows import RowKind
from dialback.core.notation.session import PartKind
from dialback.core.reconcile import Kind as MatchKind
from dialback.core.restrictions import About, Restriction
from dialback.core.sessions import Session, Set
from dialback.core.vocabulary import Basis
from dialback.core.words import Unit
from dialback.store.blocks import LENGTHS


class Shape(BaseModel):
    """A shape of the API: unknown keys are refused, so that a misspelt one is noticed."""

    model_config = ConfigDict(extra="forbid")


class AthletePath(Shape):
    """An athlete by number."""

    athlete_id: int


class WeekPath(AthletePath):
    """A week of an athlete, as in 2026-W41."""

    week: str


class BasisQuery(Shape):
    """Which of the two the findings judge."""

    basis: Basis = "completed"


class Counts(Shape):
    """Open causes by the worst level that is open of them, and those accepted."""

    high: int
    caution: int
    note: int
    accepted: int


class WeekColumn(Shape):
    """A week as a column: sets planned and done."""

    week: str
    planned: float
    done: float


class LogPlace(Shape):
    """Where a log stands: its week, and its id."""

    week: str
    session: str


class RosterRow(Shape):
    """One athlete on the roster. ``week`` is the last one with training up to the one to audit.

    ``undecided`` is a log of which two versions wait for a decision.
    """

    id: int
    name: str
    note: str
    week: str
    behind: bool
    counts: Counts
    hurt: bool = Field(description="Something hurt, or a restriction was broken")
    first: str | None = Field(description="The cause to look at first")
    follow: int = Field(description="How many findings follow from it")
    columns: list[WeekColumn]
    share_done: float | None
    sessions_planned: int
    sessions_done: int
    signed_week: str | None
    signed_day: str | None
    undecided: LogPlace | None


class Roster(Shape):
    """All athletes, those who need the coach first on top."""

    week: str
    monday: str
    sunday: str
    today: str
    athletes: list[RosterRow]


class Cell(Shape):
    """One figure of a row: planned and done, and the basis against its baseline."""

    figure: str
    planned: float
    done: float
    share: float | None
    base: float | None
    change: float | None
    rough_planned: bool
    rough_done: bool
    measured: bool


class BandOut(Shape):
    """What a rule allows, both ends within."""

    low: float
    high: float


class Row(Shape):
    """A subject of the sheet with its figures by measure."""

    subject: str
    label: str
    cells: dict[str, Cell]
    band: BandOut | None
    findings: list[int]


class Side(Shape):
    """A pair in one measure: the two sides and their ratio."""

    a: float
    b: float
    ratio: float | None


class Weighed(Shape):
    """A pair in one measure, planned, done and in the baseline."""

    planned: Side
    done: Side
    base: Side | None


class PairRow(Shape):
    """A pair of the sheet."""

    subject: str
    label_a: str
    label_b: str
    measures: dict[str, Weighed]
    measure: str
    band: BandOut | None
    opens: bool = Field(description="Whether its sides have a trail of their own")
    findings: list[int]


class FindingOut(Shape):
    """A finding. ``reason`` and ``accepted`` tell how the coach has judged it."""

    code: str
    title: str
    subject: str
    label: str
    measure: str
    level: Level
    value: float | None
    limit: float | None
    amount: float | None
    base: float | None
    sentence: str
    clears: str
    figures: list[str]
    days: list[str]
    of_plan: bool
    accepted: bool
    reason: str | None


class CauseOut(Shape):
    """A cause of findings; ``findings`` are their places in the sheet's list."""

    code: str
    subject: str
    sentence: str
    level: Level
    accepted: bool
    findings: list[int]


class CauseKey(Shape):
    """Which cause of a week is meant."""

    basis: Basis
    code: str
    subject: str


class AcceptCauseBody(CauseKey):
    """Accepting all that follows from a cause takes a reason."""

    reason: str = Field(min_length=1, max_length=500)


class SessionLine(Shape):
    """A session of the week: planned, done, or still ahead; ``differed`` tells how, in words."""

    date: str
    title: str
    planned: bool
    done: bool
    ahead: bool
    rpe: float | None
    duration_min: float | None
    differed: list[str]


class SignatureOut(Shape):
    """Who signed the week's audit off, and when."""

    name: str
    day: str


class AthleteOut(Shape):
    """An athlete as the frame of all places shows it."""

    id: int
    name: str
    note: str
    bodyweight_kg: float | None


class RestrictionNote(Shape):
    """A restriction in force, in words."""

    words: str
    by: str
    since: str
    word: str


class Frame(Shape):
    """Where one is: an athlete and a week, and the weeks beside it. ``over`` weeks are audited."""

    athlete: AthleteOut
    restrictions: list[RestrictionNote]
    week: str
    monday: str
    sunday: str
    before: str
    after: str
    over: bool


class Sheet(Shape):
    """The week sheet: the audit of a week, planned and completed side by side."""

    basis: Basis
    baseline: str
    baseline_weeks: list[str]
    sessions: list[SessionLine]
    sessions_planned: int
    sessions_done: int
    estimated_sets: int
    assumed_sets: int
    totals: list[Row]
    pairs: list[PairRow]
    muscles: list[Row]
    movements: list[Row]
    findings: list[FindingOut]
    causes: list[CauseOut]
    disagreement: str | None
    signature: SignatureOut | None


class SchoolRow(Shape):
    """A finding, and at which level each school would raise it; ``None`` where it would not."""

    title: str
    label: str
    levels: list[Level | None]


class SchoolsOut(Shape):
    """A week under every school, in the order of the names; all else of the rules stays."""

    names: list[str]
    rows: list[SchoolRow]


class TrailQuery(Shape):
    """A figure of the sheet."""

    figure: str = Field(min_length=1, max_length=200)
    basis: Basis = "completed"
    days: str = Field("", max_length=100, description="ISO days, comma between; all if empty")


class TrailSet(Shape):
    """A set behind a figure, with its credit and how it comes about."""

    date: str
    title: str
    position: int
    movement: str
    text: str
    explained: str
    credit: float
    easy: bool
    estimated: bool
    assumed: bool
    measured: bool


class Trail(Shape):
    """The sets that make up a figure, and the figure over the last weeks."""

    figure: str
    label: str
    measure: str
    value: float
    is_sum: bool
    sets: list[TrailSet]
    history: list[WeekColumn]


class FindingKey(Shape):
    """Which finding of a week is meant."""

    basis: Basis
    code: str
    subject: str
    measure: str


class AcceptBody(FindingKey):
    """Accepting a finding takes a reason."""

    reason: str = Field(min_length=1, max_length=500)


class SignBody(Shape):
    """Signing off takes a name."""

    name: str = Field(min_length=1, max_length=120)


class Done(Shape):
    """It was done."""

    done: Literal[True] = True


class DraftSet(Shape):
    """A line of a draft in words, beside its set."""

    movement: str
    text: str
    load_step_kg: float
    turns: bool


class DraftAudit(Shape):
    """The audit of a draft, against the plan that is published now.

    ``as_planned``: the baseline takes the plans before this week as done.
    """

    total: int
    as_planned: bool
    totals: list[Row]
    pairs: list[PairRow]
    muscles: list[Row]
    findings: list[FindingOut]
    cleared: list[FindingOut]
    appeared: list[int]
    lines: list[list[DraftSet]]


class DraftOut(Shape):
    """A draft. ``revision`` 0 is one that is not stored yet; ``origin`` says what it came from."""

    revision: int
    origin: Literal["saved", "plan", "last plan", "last log", "empty"]
    origin_week: str
    start_total: int
    least: int
    most: int
    sessions: list[DraftSession]
    shape: list[DraftSession]
    audit: DraftAudit


class SessionsBody(Shape):
    """A draft to look at; nothing is stored."""

    sessions: list[DraftSession] = Field(max_length=50)


class DialBody(SessionsBody):
    """A draft to scale to so many sets."""

    total: int = Field(ge=0, le=5000)
    toward: Toward = "nearest"


class DialOut(Shape):
    """The scaled draft and its audit."""

    sessions: list[DraftSession]
    audit: DraftAudit


class NotchOut(Shape):
    """The nearest setting at which a finding clears or appears."""

    total: int
    effect: Literal["clears", "appears"]
    level: Level
    title: str
    label: str
    sentence: str


class NotchesOut(Shape):
    """The notches of the dial, as it is turned from ``start``."""

    start: int

    notches: list[NotchOut]


class ProposalBody(SessionsBody):
    """Ask for the least change of a draft, within what the coach holds."""

    budget: int | None = Field(None, ge=0, le=10_000)
    locks: list[str] = Field(default_factory=list, max_length=100)


class StepOut(Shape):
    """A change of a proposal; ``line`` counts from 1 in its session, and is ``None`` if new."""

    session: int
    day: str
    title: str
    line: int | None
    movement: str
    kind: Literal["line", "circuit", "new"]
    count_from: int
    count_to: int
    reason: str


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
    cleared: list[str]
    remaining: list[str]


class TakeStep(Shape):
    """A change to take over into the draft."""

    session: int = Field(ge=0, le=50)
    line: int | None = Field(None, ge=1, le=2000)
    movement: str | None = Field(None, max_length=120)
    count: int = Field(ge=0, le=2000)


class TakeBody(SessionsBody):
    """Changes of a proposal to take."""

    steps: list[TakeStep] = Field(min_length=1, max_length=200)


class SaveDraftBody(SessionsBody):
    """A draft to keep; ``revision`` is the one it was opened with, 0 if new.

    ``shape`` is the draft as it was last edited by hand; the draft itself if left out.
    """

    revision: int = Field(ge=0)
    shape: list[DraftSession] | None = Field(None, max_length=50)
    start_total: int = Field(ge=0, le=5000)


class RevisionBody(Shape):
    """The revision a change builds on."""

    revision: int = Field(ge=0)


class Revision(Shape):
    """The revision that is stored now."""

    revision: int


class Choice(Shape):
    """A named value of a rule."""

    value: JsonValue
    meaning: str


class RuleOut(Shape):
    """A house rule with its argument, its source, and the values in force."""

    name: str
    group: str
    title: str
    argument: str
    changes: str
    source: str
    unit: str
    optional: bool = Field(description="Whether it can be switched off, by null")
    begin: Any = Field(description="What switching it on begins with")
    choices: list[Choice]
    default: JsonValue
    house: JsonValue
    own: JsonValue
    is_house_own: bool
    is_own: bool


class PresetOut(Shape):
    """A school by name, with what it chooses otherwise than the defaults."""

    name: str
    rules: dict[str, Any]


class RulesOut(Shape):
    """The rules, for the house or (with an athlete) with the athlete's own over them."""

    revision: int
    chosen: dict[str, Any]
    rules: list[RuleOut]
    presets: list[PresetOut]


class ChoicesBody(Shape):
    """The choices that differ: of the house from the defaults, of an athlete from the house."""

    chosen: dict[str, Any]


class SaveRulesBody(ChoicesBody):
    """Choices to keep, and the revision they build on."""

    revision: int = Field(ge=0)


class PreviewBody(ChoicesBody):
    """Choices to try on a week; of the house, or of the athlete alone."""

    scope: Literal["house", "athlete"]
    basis: Basis


class PreviewOut(Shape):
    """What would change in the week's findings."""

    before: int
    after: int
    cleared: list[FindingOut]
    appeared: list[FindingOut]
    changed: list[FindingOut]


class ImportQuery(Shape):
    """How to import: under another name, or in place of the athlete of that name."""

    name: str | None = Field(None, min_length=1, max_length=120)
    replace: bool = False


class ImportOut(Shape):
    """What an import did."""

    athlete: AthleteOut
    week: str
    planned: int
    completed: int
    sets: int
    new_movements: list[str]
    own_movements: list[str]
    replaced: bool
    warnings: list[str]


class SessionPath(WeekPath):
    """A planned session of a week."""

    session: int


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
    """A movement to complete a name with; ``uses`` are its sets of the last four weeks."""

    name: str
    pattern: str
    uses: int


class MovementNames(Shape):
    """The movements, by use and then by name."""

    movements: list[MovementName]


class TextBody(Shape):
    """A session's text on a day of the week; ``session`` is the one it takes the place of."""

    date: str
    title: str = Field("", max_length=200)
    text: str = Field(max_length=100_000)
    session: int | None = None


class AddTextBody(TextBody):
    """A new session's text; ``client`` is made where it is written, and makes it come once."""

    client: str | None = Field(None, min_length=8, max_length=64)


class SaveTextBody(TextBody):
    """A text to keep, and the revision it builds on."""

    revision: int = Field(ge=0)


class MistakeOut(Shape):
    """A mistake in the text; line and column from 1."""

    line: int
    column: int
    length: int
    message: str


class KitChoice(Shape):
    """A load that can be made instead, as it is written, and its step from the one wanted."""

    text: str
    step: float


class RestrictionOut(Shape):
    """A restriction as it is kept. ``holds`` says whether it is in force today."""

    id: int
    words: str
    holds: bool
    restriction: Restriction


class RestrictionsOut(Shape):
    """An athlete's restrictions, the latest first, and what one can be about."""

    today: str
    restrictions: list[RestrictionOut]
    subjects: dict[About, list[str]]


class LiftBody(Shape):
    """Who lifts a restriction."""

    by: Name


class MaximumOut(Shape):
    """A maximum that was typed in: kg of all implements, moved once."""

    id: int
    movement: str
    kg: float
    date: str


class EstimateOut(Shape):
    """The best estimate of the last eight weeks, in kg moved (the body's share in it)."""

    movement: str
    kg: float
    date: str


class MaximaOut(Shape):
    """An athlete's maxima, typed in and estimated, and the movements there are."""

    today: str
    maxima: list[MaximumOut]
    estimates: list[EstimateOut]
    movements: list[str]


class MaximumPath(AthletePath):
    """A maximum of an athlete."""

    maximum: int


class NotationWord(Shape):
    """A word that completion offers, and what it says."""

    text: str
    says: str


class WordPattern(Shape):
    """How a word is spelt, as a pattern, and what it is: a number, a word, or of a head."""

    pattern: str
    kind: Literal["number", "word", "head"]


class NotationOut(Shape):
    """The notation's words; ``whole`` are short ones behind which nothing is offered."""

    words: list[NotationWord]
    heads: list[NotationWord]
    patterns: list[WordPattern]
    whole: list[str]


class RestrictionPath(AthletePath):
    """A restriction of an athlete."""

    restriction: int


class KitMiss(MistakeOut):
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
    restricted: list[MistakeOut]
    week: DraftAudit


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


class RowOut(Shape):
    """A line of a session's text in fields."""

    kind: RowKind
    text: str = Field(max_length=5000)
    entries: list[EntryOut] = Field(max_length=60)
    part: PartOut | None = None
    rounds: RoundsOut | None = None
    rest: str = Field("", max_length=40)
    label: str = Field("", max_length=10)


class WholeText(Shape):
    """A text of the notation: of one session, or of several with their days."""

    text: str = Field(max_length=500_000)


class RowsOut(Shape):
    """The rows of a text, one for each of its lines."""

    rows: list[RowOut]


class LineOut(Shape):
    """The line that a row is written as."""

    text: str


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


class BlockWeek(Shape):
    """A week of the block: what is planned, done, and the base that it is compared with."""

    week: str
    monday: str
    over: bool
    planned: dict[str, float]
    done: dict[str, float]
    base: dict[str, float] | None
    allowed: dict[str, float] | None
    lighter: bool
    counts: Counts
    first: str | None


class StoredBlock(Shape):
    """A block of weeks that are planned as one."""

    id: int
    title: str
    first_week: str
    weeks: int


class Block(Shape):
    """Weeks across, days down. ``stored`` is the block that the week lies in.

    ``allowed`` of a week is where a jump would begin; a ``lighter`` one has clearly fewer sets
    planned than the week before.
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

    sessions: list[int] = Field(min_length=1, max_length=60)
    shifts: list[int] = Field(default_factory=list, max_length=12)
    to: str | None = None
    change: ChangeBody = ChangeBody()
    move: bool = False
    lighter: bool = False


class Laid(Shape):
    """Sessions that came and went; sent back, they go and come again."""

    added: list[int]
    removed: list[int]


class BlockBody(Shape):
    """A block to make, from the week of the address on."""

    title: str = Field("", max_length=120)
    weeks: int = Field(ge=LENGTHS.start, le=LENGTHS[-1])


class NewBlockBody(BlockBody):
    """A new block and what fills it: nothing, a template, or the plan of the week before.

    The plan of the week before is laid over every week, with the change growing; every
    ``lighter_every``-th week gets fewer sets (0: none).
    """

    fill: Literal["nothing", "template", "week before"] = "nothing"
    template: int | None = None
    change: ChangeBody = ChangeBody()
    lighter_every: int = Field(0, ge=0, le=8)


class NewBlock(Shape):
    """The block that was made, and the sessions that came and went."""

    block: StoredBlock
    laid: Laid


class BlockPath(AthletePath):
    """A block of an athlete."""

    block: int


class TemplateBody(Shape):
    """Planned weeks of an athlete to keep under a name."""

    name: str = Field(min_length=1, max_length=120)
    weeks: int = Field(ge=1, le=LENGTHS[-1])


class TemplateOut(Shape):
    """Sessions to lay over weeks of any athlete."""

    id: int
    name: str
    weeks: int
    sessions: int


class Templates(Shape):
    """The templates of the house, by name."""

    templates: list[TemplateOut]


class TemplatePath(Shape):
    """A template by number."""

    template: int


class LayTemplateBody(Shape):
    """Lay a template over the weeks of several athletes, from one week on."""

    athletes: list[int] = Field(min_length=1, max_length=200)
    week: str


class LaidOver(Laid):
    """What came and went for one athlete."""

    athlete: int


class TemplateLaid(Shape):
    """What came and went, athlete by athlete; sent back, it is undone."""

    laid: list[LaidOver] = Field(max_length=200)


class TextLaid(Laid):
    """Sessions that a text brought in."""

    first_week: str


class KitOut(Shape):
    """What the room has; ``described`` is no as long as nobody has said."""

    described: bool
    revision: int
    kit: Kit


class KitBody(Shape):
    """The kit to keep, and the revision it builds on."""

    revision: int = Field(ge=0)
    kit: Kit


class UnitOut(Shape):
    """The unit in which weights are shown; kept they are in kg, and as they were entered."""

    unit: Unit


class MovementPath(Shape):
    """A movement of the house."""

    movement: int


class MovementBody(Shape):
    """A movement as it is to be."""

    movement: Movement


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


class MovementOut(Shape):
    """A movement of the house. ``side`` is its class: push, pull, knee or hip."""

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


class MovementsOut(Shape):
    """The movements of the house, and the words to describe one."""

    movements: list[MovementOut]
    patterns: list[str]
    muscles: list[str]


class LogBody(Shape):
    """A log to keep: ``revision`` is the one it builds on, ``change`` the id of this change.

    ``after`` names the changes that were sent before it, whether or not an answer came.
    """

    change: str = Field(min_length=8, max_length=64)
    revision: int = Field(ge=0)
    after: list[str] = Field(default_factory=list, max_length=50)
    plan: int | None = None
    session: Session


class LogPath(AthletePath):
    """A log by the id that was made where it was written."""

    client_id: str = Field(min_length=4, max_length=64, pattern=r"^[A-Za-z0-9-]+$")


class LogLine(Shape):
    """A planned set beside what was done for it; places count from 0."""

    kind: MatchKind
    movement: str
    part: str
    planned: str
    done: str
    words: str
    at: int | None
    done_at: int | None


class PlanOut(Shape):
    """A planned session."""

    id: int
    date: str
    title: str
    minutes: float
    sets: list[Set]


class LogOut(Shape):
    """A log as it is stored."""

    client_id: str
    revision: int
    session: Session


class ApartOut(Shape):
    """What two versions of a session say otherwise; an empty text where one has nothing of it."""

    what: str
    stored: str
    other: str


class VersionOut(Shape):
    """A log that arrived when another had been stored: to be decided."""

    id: int
    day: str
    session: Session
    apart: list[ApartOut]


class LogSession(Shape):
    """A session planned and done, side by side."""

    plan: PlanOut | None
    log: LogOut | None
    ahead: bool
    lines: list[LogLine]
    notes: list[str]
    planned: dict[str, float]
    done: dict[str, float]
    versions: list[VersionOut]


class LogWeek(Shape):
    """The sessions of a week to log."""

    today: str
    days: list[str]
    sessions: list[LogSession]


class LogSaved(Shape):
    """What became of a log: ``both_kept`` if another had been stored meanwhile."""

    revision: int
    client_id: str
    both_kept: bool


class AmendBody(Shape):
    """A set, and what was different about it, in the notation's short forms."""

    set: Set
    text: str = Field(max_length=200)


class Amended(Shape):
    """The set as it was done, so many times."""

    set: Set
    count: int


class WrittenDone(Shape):
    """A text read as what was done: its sets, and its mistakes."""

    sets: list[Set]
    mistakes: list[MistakeOut]


class VersionPath(AthletePath):
    """A version that waits for a decision."""

    version: int


class DecideBody(Shape):
    """Which of the two stays."""

    keep: Literal["stored", "other"]


class FloorQuery(Shape):
    """A day on the floor; today if left out."""

    day: str | None = None


class FloorSession(Shape):
    """A session that can be run today."""

    plan: int
    athlete: int
    name: str
    date: str
    title: str
    sets: int
    minutes: float
    done: bool


class FloorDay(Shape):
    """What is planned for a day, athlete by athlete."""

    day: str
    sessions: list[FloorSession]


class RunQuery(Shape):
    """A planned session to run, by its number."""

    plan: int = Field(ge=1)


class FloorMovement(Shape):
    """What can be done about a movement on the floor.

    ``loads`` are those that can be made, in kg of one implement; empty where nothing is known.
    """

    name: str
    loads: list[float]
    easier: str | None
    harder: str | None
    instead: list[str]
    tempo: str | None
    isometric: bool


class FloorSet(Shape):
    """A set to do: ``rest_s`` after it, ``cycle_s`` of one rep, its place in rounds if it has one.

    ``timed`` sets run by the clock.
    """

    set: Set
    movement: str
    dose: str
    load: str
    part: str
    round: int | None
    rounds: int | None
    rest_s: float
    seconds: float | None
    cycle_s: float
    counted: bool


class FloorRunOf(Shape):
    """One athlete's part of a run: the sets to do, and the log as far as it goes."""

    athlete: int
    name: str
    plan: int
    date: str
    title: str
    sets: list[FloorSet]
    restrictions: list[RestrictionNote]
    log: LogOut | None


class FloorRun(Shape):
    """A session to run; several are laid together where they are run, by one clock."""

    run: FloorRunOf
    movements: list[FloorMovement]
    names: list[str]
    caution: str


class SensorQuery(Shape):
    """What the simulated sensor is to see; ``pace`` runs its time faster."""

    reps: int = Field(10, ge=1, le=200)
    tempo: str = Field("2-0-1-0", max_length=24)
    seed: int = Field(1, ge=0, le=2**31)
    pace: float = Field(1, ge=0.1, le=1000)


class SheetQuery(Shape):
    """What the file is called."""

    name: str = Field("file", max_length=200)


class JobPath(Shape):
    """A piece of work by its token."""

    token: str = Field(pattern=r"^[0-9a-f]{32}$")


class SheetColumn(Shape):
    """Something that a column can mean."""

    name: str
    title: str


class SheetOut(Shape):
    """A spreadsheet that was read: its heads, some rows, and what its columns probably mean."""

    name: str
    kind: str
    rows: int
    heads: list[str]
    sample: list[list[str]]
    choice: SheetChoice
    remembered: bool
    columns: list[SheetColumn]


class SheetAthlete(Shape):
    """Somebody in the file, and whether the roster has that name."""

    name: str
    sessions: int
    known: bool


class SheetRowProblem(Shape):
    """What is wrong in a row of the file."""

    row: int
    column: str
    message: str


class SheetUnknown(Shape):
    """A movement that nobody knows by that name, and what is near."""

    name: str
    count: int
    near: list[str]


class SheetSessionOut(Shape):
    """A session as it would be stored."""

    athlete: str
    date: str
    title: str
    sets: list[str]


class SheetPreview(Shape):
    """What a sheet comes to; ``there`` sessions are in the book already."""

    sessions: int
    sets: int
    there: int
    athletes: list[SheetAthlete]
    problems: list[SheetRowProblem]
    problem_count: int
    unknown: list[SheetUnknown]
    shown: list[SheetSessionOut]


class SheetStored(Shape):
    """What was stored."""

    import_id: int
    sessions: int
    sets: int
    there: int


class JobOut(Shape):
    """How far a piece of work is; what came of it stands in one of the last three."""

    token: str
    stage: str
    done: int
    of: int | None
    finished: bool
    problem: str | None
    sheet: SheetOut | None
    preview: SheetPreview | None
    stored: SheetStored | None


class ImportPath(Shape):
    """An import by number."""

    number: int


class ImportRow(Shape):
    """A file that came in."""

    id: int
    name: str
    day: str
    sessions: int


class ImportsOut(Shape):
    """The last files that came in."""

    imports: list[ImportRow]


class Undone(Shape):
    """So many sessions were taken out again."""

    sessions: int


class RangeQuery(Shape):
    """From a day to a day, both within; from the first to the last if left out."""

    first: str | None = None
    last: str | None = None
