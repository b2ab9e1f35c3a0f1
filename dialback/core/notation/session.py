"""A session in the forms coaches write: parts, lines, rounds, rests."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date
from typing import Final, Literal

from dialback.core.sessions import KG_PER_LB, Sides

PartKind = Literal["warm-up", "main", "finisher", "cool-down"]
PART_KINDS: Final[tuple[PartKind, ...]] = ("warm-up", "main", "finisher", "cool-down")

Range = Literal["low half", "high half", "half", "full"]
RANGES: Final[tuple[Range, ...]] = ("low half", "high half", "half", "full")


@dataclass(frozen=True, slots=True)
class Load:
    """A load as it was written: of one implement, in its unit; ``help`` is taken off.

    ``counted`` tells whether it said of how many implements; it is no part of its value.
    """

    value: float
    unit: Literal["kg", "lb"] = "kg"
    implements: int = 1
    help: bool = False
    counted: bool = field(default=False, compare=False)

    @property
    def kg(self) -> float:
        """Of one implement, in kg; negative for help. Pounds to the gram."""
        kg = self.value if self.unit == "kg" else round(self.value * KG_PER_LB, 3)
        return -kg if self.help else kg


@dataclass(frozen=True, slots=True)
class Bout:
    """What one set asks for. At most one of ``reps``, ``clusters``, ``ranges`` and ``distance_m``
    is given; with ``seconds`` beside it, that many within the time.

    ``reps_to`` is the upper end of a rep range, ``rpe_to`` that of an exertion. ``clusters`` are
    the bouts of a rest-pause set, ``ranges`` the reps of each part of the range. ``percent`` is a
    load in per cent of the athlete's maximum, ``body_percent`` one in per cent of what the athlete
    weighs, in place of ``load``. ``seconds_to`` and ``rest_to_s`` are the tops of planned spans.
    ``static`` is a movement that is held still. ``piece_loads`` are loads of the movements of a
    combination, one for each; ``None`` is the set's own. Seconds everywhere, metres.
    """

    reps: int | None = None
    reps_to: int | None = None
    seconds: float | None = None
    seconds_to: float | None = None
    distance_m: float | None = None
    clusters: tuple[int, ...] = ()
    ranges: tuple[tuple[int, Range], ...] = ()
    load: Load | None = None
    percent: float | None = None
    body_percent: float | None = None
    band: str | None = None
    sides: Sides = "both"
    tempo: str | None = None
    hold_s: float = 0.0
    range: Range | None = None
    rpe: float | None = None
    rpe_to: float | None = None
    rest_s: float | None = None
    rest_to_s: float | None = None
    warm_up: bool = False
    to_failure: bool = False
    for_time: bool = False
    static: bool = False
    piece_loads: tuple[Load | None, ...] = ()
    note: str = ""

    @property
    def has_dose(self) -> bool:
        """Whether it says by itself how much is to be done."""
        return bool(
            self.reps is not None
            or self.seconds is not None
            or self.distance_m is not None
            or self.clusters
            or self.ranges
        )


DOSE: Final = ("reps", "reps_to", "seconds", "seconds_to", "distance_m", "clusters", "ranges")
"""The fields of a bout that say how much."""
LOADING: Final = ("load", "percent", "body_percent", "band")
"""The fields of a bout that say with what."""

Moves = tuple[tuple[str, float], ...]
"""Movement names with their times per rep; a single movement is one move, once."""


@dataclass(frozen=True, slots=True)
class Step:
    """So many equal sets; ``sets_to`` is the top of a span, whose lower end counts."""

    bout: Bout
    sets: int = 1
    sets_to: int | None = None


@dataclass(frozen=True, slots=True)
class Line:
    """A movement, or a combination, with its steps one after the other.

    ``at`` is the line of the text it was read from, 1 for the first; it is no part of its value.
    ``why`` is the reason for which it stands there.
    """

    moves: Moves
    steps: tuple[Step, ...]
    at: int = field(default=0, compare=False)
    why: str = ""


@dataclass(frozen=True, slots=True)
class Turn:
    """A movement's place in the rounds; several alternatives take turns, one a round."""

    alternatives: tuple[tuple[Moves, Bout], ...]
    at: int = field(default=0, compare=False)
    why: str = ""


@dataclass(frozen=True, slots=True)
class Rounds:
    """Movements in turn, round by round.

    ``rounds``: so many times through all turns. ``ladder``: one round a rung, the rung's reps for
    every turn. ``bouts``: so many bouts in all, the turns one after the other. ``on_s`` is work,
    ``off_s`` rest after each bout, ``between_s`` rest after a round. With ``every_s`` each round
    begins on the clock; the rest is what remains of it. ``count_to``, ``on_to_s``, ``off_to_s`` and
    ``between_to_s`` are the tops of spans, whose lower ends count. ``for_time``: as fast as form
    allows, all of them.
    """

    form: Literal["rounds", "ladder", "bouts"]
    count: int
    turns: tuple[Turn, ...]
    rungs: tuple[int, ...] = ()
    on_s: float | None = None
    off_s: float | None = None
    between_s: float | None = None
    every_s: float | None = None
    count_to: int | None = None
    on_to_s: float | None = None
    off_to_s: float | None = None
    between_to_s: float | None = None
    for_time: bool = False
    at: int = field(default=0, compare=False)
    why: str = ""


@dataclass(frozen=True, slots=True)
class Pause:
    """A rest between two lines of a part, in place of the rest after the set before it."""

    rest_s: float
    at: int = field(default=0, compare=False)


Item = Line | Rounds | Pause


@dataclass(frozen=True, slots=True)
class Part:
    """A part of the session. ``rest_s`` is the rest after it, ``pre_exhaust`` means its order."""

    kind: PartKind = "main"
    label: str = ""
    items: tuple[Item, ...] = ()
    rest_s: float | None = None
    pre_exhaust: bool = False
    why: str = ""

    @property
    def name(self) -> str:
        """How its sets name it: ``warm-up``, ``A``."""
        return self.label or ("" if self.kind == "main" else self.kind)


@dataclass(frozen=True, slots=True)
class WrittenSession:
    """A session as it is written; ``at`` is the line of its day, 0 without one."""

    parts: tuple[Part, ...] = ()
    day: date | None = None
    title: str = ""
    at: int = field(default=0, compare=False)
    why: str = ""
