"""Sets and sessions as the contract has them: the one definition for file, table and API."""

from __future__ import annotations

import re
from datetime import date
from typing import Annotated, Any, Final, Literal, Self

from pydantic import (
    AfterValidator,
    BeforeValidator,
    Field,
    ModelWrapValidatorHandler,
    PlainSerializer,
    ValidationError,
    ValidationInfo,
    WithJsonSchema,
    field_validator,
    model_validator,
)

from dialback.core.movements import Name, TempoText, Value
from dialback.core.weeks import YEARS, in_years

Sides = Literal["both", "each", "alternating", "left", "right"]

KG_PER_LB: Final = 0.45359237
"""The international pound, by definition."""

MAX_SETS: Final = 2000
"""Sets of one session; more is a damaged file, not training."""

_ISO_DAY: Final = re.compile(r"\d{4}-\d{2}-\d{2}")


def _whole(value: Any) -> Any:
    # JSON knows one kind of number: 10.0 is as whole as 10.
    if isinstance(value, float) and value.is_integer():
        return int(value)
    return value


def parse_day(value: Any) -> Any:
    """An ISO day (``2026-10-05``) as a date. Raises ``ValueError`` for any other form."""
    if isinstance(value, str):
        if not _ISO_DAY.fullmatch(value):
            raise ValueError(f"{value!r} is not a day: write year-month-day, as in 2026-10-05")
        try:
            day = date.fromisoformat(value)
        except ValueError:
            raise ValueError(f"{value!r} is not a day of the calendar") from None
        if not in_years(day):
            raise ValueError(
                f"{value!r} is not a day of training: the years go from {YEARS.start} on"
            )
        return day
    return value


def one_line(text: str) -> str:
    """A text on one line: what stands in a head of the notation, or in a cell."""
    return " ".join(text.splitlines()).replace("\t", " ")


Title = Annotated[str, AfterValidator(one_line), Field(max_length=200)]
PartName = Annotated[str, AfterValidator(one_line), Field(max_length=120)]
Reps = Annotated[int, Field(ge=0, le=10_000), BeforeValidator(_whole)]
Count = Annotated[int, Field(ge=1, le=MAX_SETS), BeforeValidator(_whole)]
Implements = Annotated[int, Field(ge=1, le=10), BeforeValidator(_whole)]
Day = Annotated[
    date,
    BeforeValidator(parse_day),
    PlainSerializer(lambda day: day.isoformat(), return_type=str),
    WithJsonSchema({"type": "string", "format": "date", "pattern": r"^\d{4}-\d{2}-\d{2}$"}),
]
Rpe = Annotated[float, Field(ge=0, le=10, description="Rated exertion, 0 to 10")]


Seconds = Annotated[float, Field(ge=0, le=86_400)]
Load = Annotated[float, Field(ge=-1000, le=10_000)]


class Move(Value):
    """One movement of a combination: its times per rep, and what is its own of load and sides."""

    exercise: Name
    times: float = Field(1, gt=0, le=100)
    load_kg: Load | None = Field(
        None, description="Load of one implement of this movement; without it the set's"
    )
    implements: Implements = Field(1, description="Implements that go with its own load")
    sides: Sides | None = Field(None, description="Its own sides; without them the set's")


class Piece(Value):
    """A piece in time of a set whose load is changed in the middle."""

    reps: Reps | None = None
    seconds: Seconds | None = None
    load_kg: Load = 0.0
    implements: Implements = 1

    @model_validator(mode="after")
    def _complete(self) -> Self:
        if self.reps is None and self.seconds is None:
            raise ValueError("a piece of a set needs reps, seconds, or both")
        return self


TO_FAILURE: Final = 10.0
"""The exertion (RPE) at which no rep is left."""

LATER_KEYS: Final = frozenset(
    {
        "distance_m",
        "reps_to",
        "rpe_to",
        "percent",
        "body_percent",
        "round",
        "place",
        "every_s",
        "clusters",
        "band",
        "range",
        "note",
        "why",
        "unit",
        "for_time",
        "pre_exhaust",
    }
)
"""Keys of a set that other programs had used before they meant anything here: a value of theirs
that cannot be read is kept as an unknown one."""


class Set(Value):
    """One bout of one movement, or of a combination, without a planned rest."""

    exercise: Name | None = None
    moves: tuple[Move, ...] | None = Field(None, min_length=1, max_length=20, strict=False)
    reps: Reps | None = Field(None, description="Reps, per side for each")
    seconds: float | None = Field(None, ge=0, le=86_400, description="Seconds, per side for each")
    load_kg: float = Field(
        0.0, ge=-1000, le=10_000, description="Load of one implement in kg; help is negative"
    )
    implements: Implements = Field(1, description="Implements moved in a rep")
    sides: Sides = "both"
    tempo: TempoText | None = None
    hold_s: float = Field(0.0, ge=0, le=86_400, description="Hold at the end, seconds")
    partial_reps: Reps = Field(0, description="How many reps are partial")
    rpe: Rpe | None = None
    warm_up: bool = False
    rest_s: float | None = Field(None, ge=0, le=86_400, description="Rest after the set, seconds")
    part: PartName | None = None
    measured_reps: Reps | None = Field(None, description="Reps that a sensor counted")
    measured_tension_s: float | None = Field(
        None, ge=0, le=86_400, description="Seconds under load as measured, per side for each"
    )
    loads: tuple[Piece, ...] | None = Field(
        None,
        min_length=1,
        max_length=50,
        strict=False,
        description="Pieces in time, where the load is changed in the middle of the set",
    )
    static: bool = Field(default=False, description="A movement that otherwise moves is held still")
    held: Implements | None = Field(
        None, description="Implements in the hands, where not all are moved in a rep"
    )
    seconds_to: Seconds | None = Field(None, description="Top of a planned span of seconds")
    rest_to_s: Seconds | None = Field(None, description="Top of a planned span of rest, seconds")
    distance_m: float | None = Field(
        None, gt=0, le=100_000, description="Distance of a carry or a run, metres; in no sum"
    )
    reps_to: Count | None = Field(None, description="Top of a planned range of reps")
    rpe_to: float | None = Field(None, gt=0, le=10, description="Top of a planned range of RPE")
    percent: float | None = Field(
        None, gt=0, le=1000, description="The load as asked for, per cent of the maximum"
    )
    body_percent: float | None = Field(
        None, gt=0, le=1000, description="The load as asked for, per cent of the body's weight"
    )
    round: Count | None = Field(None, description="Round of a circuit, from 1")
    place: Count | None = Field(None, description="Place in the round of a circuit, from 1")
    every_s: float | None = Field(
        None, gt=0, le=86_400, description="Clock on which each round of a circuit begins, seconds"
    )
    clusters: tuple[Count, ...] | None = Field(
        None,
        min_length=1,
        max_length=50,
        strict=False,
        description="Reps of the bouts that the set is done in",
    )
    band: Annotated[str, Field(min_length=1)] | None = Field(None, description="Level of a band")
    range: Annotated[str, Field(min_length=1)] | None = Field(
        None, description="Range of the whole set where it is not the full one: half"
    )
    note: str = Field("", description="Remark on the set")
    why: str = Field("", description="Why it stands there, as a coach says it")
    unit: Literal["kg", "lb"] | None = Field(None, description="Unit in which the load was entered")
    for_time: bool = Field(default=False, description="As fast as form allows")
    pre_exhaust: bool = Field(
        default=False, description="Its part has the small muscle first on purpose"
    )

    @field_validator("moves")
    @classmethod
    def _not_both(cls, moves: tuple[Move, ...] | None, info: ValidationInfo) -> Any:
        if moves is not None and info.data.get("exercise") is not None:
            raise ValueError("a set has an exercise or moves, not both: leave one of them out")
        return moves

    @field_validator("partial_reps")
    @classmethod
    def _partial_of_reps(cls, partial: int, info: ValidationInfo) -> int:
        if not partial:
            return partial
        if info.data.get("moves") is not None:
            raise ValueError("partial reps are for single movements: leave them out with moves")
        reps = info.data.get("reps")
        # A reps value that was itself refused is missing here, and reported already.
        if "reps" in info.data and (reps is None or partial > reps):
            raise ValueError(f"{partial} partial reps of {reps or 0} reps: give at most the reps")
        return partial

    @model_validator(mode="after")
    def _complete(self) -> Self:
        if self.exercise is None and self.moves is None:
            raise ValueError("a set needs an exercise, or moves for a combination")
        if self.static and self.moves is not None:
            raise ValueError("static is for single movements: leave it out with moves")
        if self.loads is not None:
            self._check_pieces()
        elif self.reps is None and self.seconds is None and self.distance_m is None:
            raise ValueError("a set needs reps, seconds, or both")
        return self

    def _check_pieces(self) -> None:
        if self.moves is not None:
            raise ValueError("loads are for single movements: leave them out with moves")
        own = (self.reps, self.seconds, self.load_kg, self.implements)
        if own != (None, None, 0.0, 1):
            raise ValueError(
                "reps, seconds, load_kg and implements are those of the pieces in loads: leave "
                "the set's own out"
            )

    @model_validator(mode="wrap")
    @classmethod
    def _tolerant(cls, data: Any, handler: ModelWrapValidatorHandler[Self]) -> Self:
        """What another program put under the name of a later key does no harm: it is kept aside."""
        try:
            return handler(data)
        except ValidationError as error:
            strange = {str(one["loc"][0]) for one in error.errors() if one["loc"]} & LATER_KEYS
            if not strange or not isinstance(data, dict):
                raise
        made = handler({key: value for key, value in data.items() if key not in strange})
        if made.model_extra is not None:
            made.model_extra.update((key, data[key]) for key in sorted(strange))
        return made

    @property
    def in_pounds(self) -> bool:
        """Whether the load was entered in pounds."""
        return self.unit == "lb"

    def named_moves(self) -> tuple[tuple[str, float], ...]:
        """Names and times per rep of the moves; a single movement is one move, once."""
        if self.moves is not None:
            return tuple((move.exercise, move.times) for move in self.moves)
        assert self.exercise is not None  # noqa: S101 - held by the validator above
        return ((self.exercise, 1.0),)

    @property
    def total_load_kg(self) -> float:
        """Load of all implements moved in a rep, in kg, body weight aside; the heaviest piece."""
        if self.loads is not None:
            return max(piece.load_kg * piece.implements for piece in self.loads)
        return self.load_kg * self.implements

    @property
    def pieces(self) -> tuple[Set, ...]:
        """The pieces of a set whose load is changed in the middle, each as a set of its own.

        The hold at the end is the last one's; what was measured is of the whole set.
        """
        if self.loads is None:
            return (self,)
        last = len(self.loads) - 1
        return tuple(
            self.model_copy(
                update={
                    "loads": None,
                    "reps": piece.reps,
                    "seconds": piece.seconds,
                    "load_kg": piece.load_kg,
                    "implements": piece.implements,
                    "hold_s": self.hold_s if at == last else 0.0,
                    "measured_tension_s": None,
                }
            )
            for at, piece in enumerate(self.loads)
        )

    @property
    def lead(self) -> Set:
        """The set as its first piece has it: what an estimate and a top set go by."""
        return self.pieces[0]

    @property
    def is_partial(self) -> bool:
        """Whether all its reps are partial."""
        return self.range not in (None, "full") and not self.partial_reps

    @property
    def own_reps(self) -> int | None:
        """Its reps as they were counted; of pieces their sum, of seconds alone none."""
        known = [piece.reps for piece in self.loads or () if piece.reps is not None]
        return self.reps if self.loads is None else sum(known) if known else None

    @property
    def own_seconds(self) -> float | None:
        """Its seconds; of pieces their sum, of reps alone none."""
        known = [piece.seconds for piece in self.loads or () if piece.seconds is not None]
        return self.seconds if self.loads is None else sum(known) if known else None


class Pain(Value):
    """Where it hurt: what the athlete says, and the movement that was stopped, if one was."""

    exercise: Name | None = None
    note: str = Field("", max_length=500)


LOG_AHEAD_DAYS: Final = 1
"""A log may be of the day after the server's: elsewhere it has begun already."""


def lies_ahead(day: date, today: date) -> bool:
    """Whether a day is too far ahead to have a log: a log is of what was done."""
    return (day - today).days > LOG_AHEAD_DAYS


class Maximum(Value):
    """A maximum that somebody typed in: the load that moves once, of all implements, in kg."""

    movement: Name
    kg: float = Field(gt=0, le=1000)
    date: Day


class Goal(Value):
    """What is to be done by a day: a load for reps, reps, or seconds; loads of one implement."""

    movement: Name
    load_kg: float = Field(0, ge=0, le=1000)
    reps: int | None = Field(None, ge=1, le=1000)
    seconds: float | None = Field(None, gt=0, le=3600)
    since: Day
    by: Day

    @model_validator(mode="after")
    def _is_one(self) -> Self:
        if (self.reps is None) == (self.seconds is None):
            raise ValueError("a goal has reps or seconds: give one of them")
        if self.by <= self.since:
            raise ValueError(f"a goal lies ahead: choose a day after {self.since}")
        return self


MISSED_KEY: Final = "missed"
"""The key of a planned session that says why it was not done."""
MissedReason = Literal["ill", "away", "facility", "choice", "other"]
"""Why a planned session was not done."""
MISSED_WORDS: Final[dict[MissedReason, str]] = {
    "ill": "ill",
    "away": "away",
    "facility": "the facility was closed",
    "choice": "left out by choice",
    "other": "another reason",
}


class Missed(Value):
    """Why a planned session was not done, and what else there is to say of it."""

    why: MissedReason
    note: str = Field("", max_length=200)

    @property
    def words(self) -> str:
        """As it is read."""
        return self.note or MISSED_WORDS[self.why]


class Session(Value):
    """A day's training, planned or completed."""

    date: Day
    title: Title = ""
    rpe: Rpe | None = None
    duration_min: float | None = Field(None, ge=0, le=1440)
    sets: tuple[Set, ...] = Field(strict=False, max_length=MAX_SETS)
    plan: Day | None = Field(
        None, description="The day of the plan that it was done for, where it is another"
    )
    notes: str = Field("", max_length=2000)
    pain: tuple[Pain, ...] = Field((), strict=False, max_length=20)

    @property
    def missed(self) -> Missed | None:
        """Of a planned one, why it was not done, where somebody has said."""
        told = (self.model_extra or {}).get(MISSED_KEY)
        try:
            return None if told is None else Missed.model_validate(told)
        except ValidationError:
            # A book may mean something else by that word.
            return None


TEXT_KEY: Final = "text"
"""Where a planned session keeps the text that it was written as, among what has no column."""


def extra_without_text(session: Session) -> dict[str, Any]:
    """What else a session carries, for one whose sets are no longer those of its text."""
    return {key: value for key, value in (session.model_extra or {}).items() if key != TEXT_KEY}
