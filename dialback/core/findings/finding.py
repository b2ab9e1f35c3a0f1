"""What a finding is, and what a family of findings is given."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from math import inf

from dialback.core.baseline import TOLERANCE, Baseline
from dialback.core.breaks import Break
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings.codes import BY_CODE
from dialback.core.movements import MovementTable
from dialback.core.once import Memo
from dialback.core.reconcile import SessionMatch
from dialback.core.restrictions import Restriction
from dialback.core.rules import Rules
from dialback.core.sessions import Session, Set
from dialback.core.tally import Entry, Ledger, Tally, TrailEntry, tally, top_sets, trail
from dialback.core.vocabulary import LEVELS, Basis, Key, Level
from dialback.core.weeks import Week
from dialback.core.words import Unit


@dataclass(frozen=True, slots=True)
class Finding:
    """A rule that a week breaks.

    ``value`` and ``limit`` are in the unit of ``measure``: a ratio for balance, a share for jumps
    and load steps. ``value`` is ``None`` where a side of a pair is 0; both are of a muscle that the
    baseline lacks. ``clears`` says what would clear it; it is empty where that has to be tried out
    (``core.remedies``). ``amount`` and ``base`` are the absolute numbers behind a share;
    ``figures`` name what the trail is taken from, on ``days`` only if given; ``of_plan`` says that
    they are figures of the plan.
    """

    code: str
    subject: str
    measure: str
    level: Level
    value: float | None
    limit: float | None
    sentence: str
    clears: str
    figures: tuple[str, ...]
    amount: float | None = None
    base: float | None = None
    days: tuple[date, ...] = field(default=())
    of_plan: bool = False

    @property
    def key(self) -> Key:
        """What makes it the same finding in another week or under other rules."""
        return self.code, self.subject, self.measure

    @property
    def title(self) -> str:
        """What kind of finding it is, in words."""
        return BY_CODE[self.code].title

    @property
    def about(self) -> str:
        """What it is about, in words."""
        return BY_CODE[self.code].about(self.subject)

    @property
    def distance(self) -> float:
        """How far the value is beyond the limit; infinite where there is no telling."""
        return apart(self.value, self.limit)

    def trail(self, entries: tuple[Entry, ...]) -> tuple[TrailEntry, ...]:
        """The sets behind the finding, figure by figure."""
        return tuple(
            entry for figure in self.figures for entry in trail(entries, figure, self.days)
        )


@dataclass(frozen=True)
class AgainstPlan:
    """The plan beside what was done for it: of the sessions that were due."""

    planned: tuple[Entry, ...]
    matches: tuple[SessionMatch, ...]
    movements: MovementTable

    @cached_property
    def tally(self) -> Tally:
        """What the plan comes to."""
        return tally(self.planned)


@dataclass(frozen=True)
class WeekInHand:
    """All that a family of findings may look at; ``against`` only of a week as completed.

    ``lighter`` says that the week is meant to be light: it asks for no minimum. ``heaviest_before``
    has each movement's heaviest set of the four weeks before; ``ended_break`` is the break that the
    week ends. Pairs that are ``always_weighed`` are judged however few sets they have.
    """

    week: Week
    basis: Basis
    ledger: Ledger
    sessions: tuple[Session, ...]
    entries: tuple[Entry, ...]
    tally: Tally
    baseline: Baseline
    heaviest_before: Mapping[str, Set]
    lighter: bool = False
    ended_break: Break | None = None
    against: AgainstPlan | None = None
    always_weighed: frozenset[str] = frozenset()
    bare: bool = False
    """Whether its findings are only counted: nobody reads their sentences."""
    days: Mapping[date, Tally] | None = None
    """The sums of each day, where they are known already."""

    @property
    def rules(self) -> Rules:
        """The rules in force."""
        return self.ledger.rules

    @property
    def unit(self) -> Unit:
        """The unit in which weights are told."""
        return self.ledger.unit

    @property
    def restrictions(self) -> tuple[Restriction, ...]:
        """What the athlete is to avoid or limit."""
        return self.ledger.restrictions

    @property
    def has_sets(self) -> bool:
        """Whether the week's sets come to more than 0."""
        return self.tally.get(TOTAL_SETS, 0.0) > 0

    @cached_property
    def out_of_focus(self) -> frozenset[str]:
        """The muscles and pairs that the block of this week is not about."""
        return self.ledger.blocks.out_of_focus(self.week)

    def in_focus(self, subject: str, level: Level) -> Level:
        """A level, or a note where the subject is not what the week is about."""
        return "note" if subject in self.out_of_focus else level

    @cached_property
    def kept(self) -> Memo:
        """Room for what is worked out of this very week once."""
        return {}

    @cached_property
    def by_day(self) -> Mapping[date, Tally]:
        """The sums of each day that has sets."""
        if self.days is not None:
            return self.days
        days: dict[date, list[Entry]] = {}
        for entry in self.entries:
            days.setdefault(entry.session.date, []).append(entry)
        return {day: tally(entries) for day, entries in days.items()}

    @cached_property
    def heaviest(self) -> Mapping[str, Set]:
        """Each movement's heaviest set of the week."""
        return top_sets(self.entries)

    @cached_property
    def by_session(self) -> tuple[tuple[Session, tuple[Entry, ...]], ...]:
        """The sessions with their sets, in order."""
        entries: dict[int, list[Entry]] = {}
        for entry in self.entries:
            entries.setdefault(id(entry.session), []).append(entry)
        return tuple((session, tuple(entries.get(id(session), ()))) for session in self.sessions)

    @cached_property
    def movements(self) -> tuple[str, ...]:
        """The movements with a set in the sums, alone or in a combination, in order."""
        return movements_of(self.entries)


def movements_of(entries: Iterable[Entry]) -> tuple[str, ...]:
    """The movements with a set in the sums, in the order in which they were first done."""
    return tuple(
        dict.fromkeys(
            move.movement.name
            for entry in entries
            if entry.measured.shape.standing in ("hard", "easy")
            for move in entry.measured.shape.moves
            if move.movement.counted
        )
    )


def exceeds(value: float, limit: float) -> bool:
    """Whether a value is above its limit; at the limit it is within."""
    return value > limit + TOLERANCE


def level_above(value: float, limits: tuple[float, float]) -> Level | None:
    """``high`` above the second limit, ``caution`` above the first, else ``None``."""
    if exceeds(value, limits[1]):
        return "high"
    return "caution" if exceeds(value, limits[0]) else None


def apart(value: float | None, limit: float | None) -> float:
    """How far a value is from its limit; infinite where one of them is missing."""
    return inf if value is None or limit is None else abs(value - limit)


def grown(now: Finding, level: str, value: float | None) -> bool:
    """Whether a finding is worse than it was when accepted at that level and value."""
    return has_grown(now.level, now.value, now.limit, level, value)


def has_grown(
    now: Level, value_now: float | None, limit: float | None, level: str, value: float | None
) -> bool:
    """Whether a level and a value are worse than those before, as seen from the limit."""
    if level not in LEVELS or LEVELS.index(now) > LEVELS.index(level):
        return True
    return exceeds(apart(value_now, limit), apart(value, limit))


def worst(findings: Iterable[Finding]) -> Iterator[Finding]:
    """Of several findings with one key the one with the highest level, then the farthest."""
    kept: dict[Key, Finding] = {}
    for found in findings:
        other = kept.get(found.key)
        rank = (LEVELS.index(found.level), found.distance)
        if other is None or rank > (LEVELS.index(other.level), other.distance):
            kept[found.key] = found
    yield from kept.values()
