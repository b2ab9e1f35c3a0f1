"""Tallies: sums over measured sets, and the trail back from a sum to its sets."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from itertools import chain
from operator import add
from types import MappingProxyType
from typing import Final, NamedTuple, Protocol, runtime_checkable

from dialback.core.blocks import Blocks
from dialback.core.body import BodyWeight
from dialback.core.counting import (
    Added,
    Kind,
    MeasuredSet,
    Shape,
    amounts_of,
    kind_of,
    measure,
    shape_of,
)
from dialback.core.decisions import Decision
from dialback.core.figures import TOP_LOAD, TOTAL_SETS, in_total, measure_of, parts
from dialback.core.kit import Kit
from dialback.core.measures import MEASURES
from dialback.core.movements import MovementTable
from dialback.core.once import Memo
from dialback.core.restrictions import Restriction
from dialback.core.rules import Rules
from dialback.core.sessions import Maximum, Session, Set
from dialback.core.vocabulary import Basis, WeekKind
from dialback.core.weeks import Week
from dialback.core.words import Unit

Tally = Mapping[str, float]
"""Figure key -> sum. A figure that nothing credits is absent and means 0."""


class Entry(NamedTuple):
    """A set where it stands: its session, its place there (from 0), and what it counts."""

    session: Session
    at: int
    set: Set
    measured: MeasuredSet


class SessionSource(Protocol):
    """Where a ledger gets its sessions from: a book in memory, or the store."""

    def week(self, basis: Basis, week: Week) -> Sequence[Session]:
        """The sessions of one week, in order of day and entry."""

    def weeks(self, basis: Basis) -> Sequence[Week]:
        """The weeks that have sessions, in order."""


class WeekInColumns(NamedTuple):
    """A week's sets added up by kind, and those that cannot be added before they are measured."""

    added: list[tuple[Kind, Added]]
    apart: list[Set]


@runtime_checkable
class ColumnSource(Protocol):
    """A source that adds sets up where they lie, without making a value of each."""

    def columns(
        self, basis: Basis, first: Week, last: Week, hard_from: float | None
    ) -> Mapping[Week, WeekInColumns]:
        """The weeks of a span that have sets; a set is hard from that RPE on, or without one."""


@runtime_checkable
class ReadsAhead(Protocol):
    """A source that reads a span of weeks in one go, before they are asked for one by one."""

    def preload(self, first: Week, last: Week) -> None:
        """Read the weeks from first to last."""


@dataclass(frozen=True, slots=True)
class AsPlanned:
    """Sessions as they will be if every plan from a week on is done as it stands."""

    source: SessionSource
    since: Week

    def week(self, basis: Basis, week: Week) -> Sequence[Session]:
        """The sessions of one week; from ``since`` on the plan stands for the log."""
        ahead = basis == "completed" and week >= self.since
        return self.source.week("planned" if ahead else basis, week)

    def weeks(self, basis: Basis) -> Sequence[Week]:
        """The weeks that have sessions, in order."""
        if basis == "planned":
            return self.source.weeks(basis)
        done = {week for week in self.source.weeks("completed") if week < self.since}
        return sorted(done | {week for week in self.source.weeks("planned") if week >= self.since})


def four_measures(sums: Tally) -> dict[str, float]:
    """The week's sets, reps, volume load and tension, by measure."""
    return {measure: sums.get(in_total(measure), 0.0) for measure in MEASURES}


def tally(entries: Iterable[Entry]) -> Tally:
    """Sum the credits of the entries."""
    return _sum(entry.measured for entry in entries)


def added_up(tallies: Iterable[Tally]) -> Tally:
    """Several sums as one."""
    sums: defaultdict[str, float] = defaultdict(float)
    for one in tallies:
        for figure, amount in one.items():
            sums[figure] += amount
    return dict(sums)


def _sum(measured_sets: Iterable[tuple[Shape, Sequence[float]]]) -> Tally:
    # Rows of a shape are added up before they are credited: within a shape credits are linear.
    by_shape: dict[Shape, Sequence[float]] = {}
    for shape, amounts in measured_sets:
        row = by_shape.get(shape)
        by_shape[shape] = amounts if row is None else list(map(add, row, amounts))
    sums: defaultdict[str, float] = defaultdict(float)
    for shape, row in by_shape.items():
        shape.credit(row, sums)
    return dict(sums)


def rough(entries: Iterable[Entry]) -> frozenset[str]:
    """The figures that rest on estimated reps or an assumed tempo, in whole or in part."""
    found: set[str] = set()
    for entry in entries:
        shape = entry.measured.shape
        measures = {"reps", "volume_load_kg"} if entry.measured.estimated else set()
        # The seconds of a timed set are exact; how moves share them, or what moves, is not.
        timed = entry.set.seconds is not None and len(shape.moves) == 1 and not shape.moving_only
        if shape.assumed and not timed and not is_measured(entry):
            measures |= {"tut_s", "work_s"}
        if measures:
            found.update(key for key in entry.measured.credits if measure_of(key) in measures)
    return frozenset(found)


def is_measured(entry: Entry) -> bool:
    """Whether the set's tension was measured, and counts as measured."""
    return entry.set.measured_tension_s is not None and entry.measured.shape.measured_tension


def measured(entries: Iterable[Entry]) -> frozenset[str]:
    """The tension figures that rest on a measurement, in whole or in part."""
    return frozenset(
        key
        for entry in entries
        if is_measured(entry)
        for key in entry.measured.credits
        if measure_of(key) == "tut_s"
    )


NO_BLOCKS: Final = Blocks()
NO_KINDS: Final[Mapping[Week, WeekKind]] = MappingProxyType({})

Measures = dict[float | None, dict[int, tuple[Set, MeasuredSet]]]
"""Sets that were measured, by body weight and identity; each with itself, so that its identity
stays its own."""


class Ledger:
    """One athlete's sessions under one set of rules, measured and summed by week on demand.

    Nothing is summed twice: measured sets and tallies are kept as long as the ledger is.
    """

    def __init__(
        self,
        source: SessionSource,
        movements: MovementTable,
        rules: Rules,
        body: BodyWeight,
        restrictions: tuple[Restriction, ...] = (),
        *,
        kit: Kit | None = None,
        maxima: tuple[Maximum, ...] = (),
        blocks: Blocks = NO_BLOCKS,
        kinds: Mapping[Week, WeekKind] = NO_KINDS,
        decisions: tuple[Decision, ...] = (),
        unit: Unit = "kg",
    ) -> None:
        self.source = source
        self.movements = movements
        self.rules = rules
        self.body = body
        self.restrictions = restrictions
        self.kit = kit
        self.maxima = maxima
        self.blocks = blocks
        self.kinds = kinds
        """What weeks are for, where a coach has said so."""
        self.decisions = decisions
        self.unit: Unit = unit
        """The unit in which weights are told; kept they are in kg."""
        self.kept: Memo = {}
        """Room for what others work out of the ledger once; it never changes."""
        self._shapes: dict[tuple[object, ...], Shape] = {}
        self._by_kind: dict[tuple[Kind, float | None], Shape] = {}
        self._measured: Measures = {}
        self._entries: dict[tuple[Basis, Week], tuple[Entry, ...]] = {}
        self._tallies: dict[tuple[Basis, Week], Tally] = {}

    def but(
        self,
        *,
        source: SessionSource | None = None,
        movements: MovementTable | None = None,
        rules: Rules | None = None,
    ) -> Ledger:
        """The same athlete with other sessions, movements or rules."""
        return Ledger(
            source or self.source,
            movements or self.movements,
            rules or self.rules,
            self.body,
            self.restrictions,
            kit=self.kit,
            maxima=self.maxima,
            blocks=self.blocks,
            kinds=self.kinds,
            decisions=self.decisions,
            unit=self.unit,
        )

    def measure(
        self, sessions: Iterable[Session], known: Measures | None = None
    ) -> tuple[Entry, ...]:
        """Measure sessions that need not be in the source, such as a draft.

        Nothing is kept but in ``known``, for whoever measures the same sets again and again.
        """
        return self._entries_of(sessions, {} if known is None else known)

    def _entries_of(self, sessions: Iterable[Session], known: Measures) -> tuple[Entry, ...]:
        found: list[Entry] = []
        for session in sessions:
            # A set counts with the weight of its day.
            body = self.body.on(session.date)
            same = known.setdefault(body, {})
            found += [
                Entry(session, at, a_set, self._measure(a_set, body, same))
                for at, a_set in enumerate(session.sets)
            ]
        return tuple(found)

    def _measure(
        self, a_set: Set, body: float | None, known: dict[int, tuple[Set, MeasuredSet]]
    ) -> MeasuredSet:
        # Sources share equal sets; what is the same value is measured once. The set is kept with
        # its measure, so that its identity stays its own.
        kept = known.get(id(a_set))
        if kept is None:
            kept = known[id(a_set)] = (a_set, measure(a_set, self._shape(a_set, body)))
        return kept[1]

    def _shape(self, a_set: Set, body: float | None) -> Shape:
        # Two steps: by what is written, and, where that is new, by what it comes to.
        written = (
            a_set.exercise,
            a_set.moves,
            a_set.sides,
            a_set.tempo,
            a_set.warm_up,
            a_set.rpe,
            a_set.static,
            body,
        )
        shape = self._shapes.get(written)
        if shape is None:
            shape = self._shapes[written] = self._shape_of(kind_of(a_set, self.rules), body)
        return shape

    def _shape_of(self, kind: Kind, body: float | None) -> Shape:
        shape = self._by_kind.get((kind, body))
        if shape is None:
            shape = shape_of(kind, self.movements, self.rules, body)
            self._by_kind[kind, body] = shape
        return shape

    def entries(self, basis: Basis, week: Week) -> tuple[Entry, ...]:
        """The week's sets in order, left-out ones included."""
        found = self._entries.get((basis, week))
        if found is None:
            found = self._entries_of(self.source.week(basis, week), self._measured)
            self._entries[basis, week] = found
        return found

    def tally(self, basis: Basis, week: Week) -> Tally:
        """The week's sums."""
        found = self._tallies.get((basis, week))
        if found is None:
            found = tally(self.entries(basis, week))
            self._tallies[basis, week] = found
        return found

    def read_ahead(self, first: Week, last: Week) -> None:
        """Have a span of weeks read in one go, by whoever is going to look at all of them."""
        if isinstance(self.source, ReadsAhead):
            self.source.preload(first, last)

    def sum_up(self, basis: Basis, first: Week, last: Week) -> None:
        """Sum the weeks of a span ahead, in columns where the source gives them.

        Of two weeks or two hundred this is one read; sets are not kept by it.
        """
        if not isinstance(self.source, ColumnSource):
            return
        hard_from = self.rules.hard_set_rpe
        for week, columns in self.source.columns(basis, first, last, hard_from).items():
            # Columns do not tell the days apart: a week in which the weight changed is measured.
            if (basis, week) not in self._tallies and self.body.throughout(week):
                body = self.body.on(week.monday)
                self._tallies[basis, week] = self._sum_columns(columns, body)

    def _sum_columns(self, columns: WeekInColumns, body: float | None) -> Tally:
        kinds = ((self._shape_of(kind, body), added) for kind, added in columns.added)
        return _sum(
            chain(
                ((shape, amounts_of(added, shape)) for shape, added in kinds),
                (measure(a_set, self._shape(a_set, body)) for a_set in columns.apart),
            )
        )

    def is_trained(self, week: Week) -> bool:
        """Whether the week's completed sets come to more than 0."""
        return self.tally("completed", week).get(TOTAL_SETS, 0.0) > 0

    @cached_property
    def last_done(self) -> date | None:
        """The latest day with a completed session, if there is one."""
        for week in reversed(self.source.weeks("completed")):
            days = [session.date for session in self.source.week("completed", week)]
            if days:
                return max(days)
        return None

    @cached_property
    def first_trained(self) -> Week | None:
        """The first week with training, if there is one."""
        for week in self.source.weeks("completed"):
            # It may lie years back: its sum is wanted, not the sets around it.
            if ("completed", week) not in self._tallies:
                self.sum_up("completed", week, week)
            if self.is_trained(week):
                return week
        return None


@dataclass(frozen=True, slots=True)
class TrailEntry:
    """A set behind a figure, with its credit to it."""

    entry: Entry
    credit: float


def trail(
    entries: Iterable[Entry], figure: str, days: Collection[date] = ()
) -> tuple[TrailEntry, ...]:
    """The sets behind a figure, in order; on some days only, if ``days`` are given.

    The credits sum to the figure. A movement's ``top_load_kg`` is no sum: its trail is the sets
    with that load, credited with the load in kg.
    """
    on_days = [entry for entry in entries if not days or entry.session.date in days]
    kind, name, measure_name = parts(figure)
    if kind == "movements" and measure_name == TOP_LOAD:
        top = top_loads(on_days).get(name)
        return tuple(
            TrailEntry(entry, top)
            for entry in on_days
            if top is not None
            and _loaded_movement(entry) == name
            and entry.set.total_load_kg == top
        )
    return tuple(
        TrailEntry(entry, amount)
        for entry in on_days
        if (amount := entry.measured.credits.get(figure))
    )


def top_sets(entries: Iterable[Entry]) -> dict[str, Set]:
    """The set with the heaviest load (one implement x implements) of each movement, by name.

    Of hard and easy sets of single movements, the first of equals; warm-ups only where the rules
    count them.
    """
    tops: dict[str, Set] = {}
    for entry in entries:
        name = _loaded_movement(entry)
        if name is not None:
            top = tops.get(name)
            if top is None or entry.set.total_load_kg > top.total_load_kg:
                tops[name] = entry.set
    return tops


def top_loads(entries: Iterable[Entry]) -> dict[str, float]:
    """The heaviest load of each movement, by name, in kg."""
    return {name: one.total_load_kg for name, one in top_sets(entries).items()}


def _loaded_movement(entry: Entry) -> str | None:
    if entry.measured.shape.standing not in ("hard", "easy") or entry.set.moves is not None:
        return None
    return entry.measured.shape.moves[0].movement.name
