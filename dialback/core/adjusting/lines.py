"""The lines of a week as variables: how many more or fewer each is, and what may be added."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Final

from dialback.core.adjusting.expression import Linear, Piece
from dialback.core.adjusting.held import Held, Place
from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.pricing import ADDED, DROPPED, FIRST, THEME, Moved, Prices, fits
from dialback.core.adjusting.solver import INF, Programme
from dialback.core.adjusting.start import has
from dialback.core.plans.spans import Span, rebuilt, unit_sets
from dialback.core.sessions import Session, Set
from dialback.core.tally import Entry, Ledger

MOST_ADDED: Final = 4
"""So many sets at most a line that is added has."""
CALM_ADDED: Final = 3
"""The same where a proposal is to be one that a coach signs."""
CALM_GROWTH: Final = 2
"""So many steps a line then grows by at most."""
WIDE: Final = 40.0
"""How far counts go where their range is asked away."""


@dataclass(frozen=True)
class LineChoice:
    """The variables of a line: how many more and fewer, in two steps of cost, or unit by unit.

    ``steps`` is how many it is more or fewer, ``fewer`` the latter alone.
    """

    session: int
    line: Span
    count: Linear
    fewer: Linear
    steps: Linear
    dropped: int
    changed: int
    bounds: Mapping[int, tuple[float, float]]
    """Where its variables may go if it is not locked."""
    parts: tuple[Piece, ...]
    """The pieces that it is made of; they are among those of the week."""


@dataclass(frozen=True)
class AddedChoice:
    """The variables of a line that may be added: whether it is, and with how many sets."""

    session: int
    movement: str
    set: Set
    used: int
    few: int
    more: int
    bounds: Mapping[int, tuple[float, float]]
    """Where its variables may go if the movement is not locked."""


@dataclass
class Cost:
    """What a change costs: a price for each variable, and what is paid whatever they are."""

    of: dict[int, float] = field(default_factory=lambda: defaultdict(float))
    offset: float = 0.0

    def pay(self, prices: Mapping[int, float]) -> None:
        """So much more for each of these variables."""
        for number, price in prices.items():
            self.of[number] += price

    def charge(self, value: Linear, price: float) -> None:
        """A price for each whole of a value."""
        for number, factor in value.terms.items():
            self.of[number] += price * factor
        self.offset += price * value.constant


class Lines:
    """The variables of all lines of a week, the pieces that they make up, and what they cost."""

    def __init__(
        self,
        programme: Programme,
        judge: Judge,
        start: tuple[Session, ...],
        spans: Sequence[Sequence[Span]],
        prices: Prices,
        still: frozenset[int],
        locks: frozenset[str],
        held: Held,
        *,
        calm: bool,
        wide: bool,
        apart: frozenset[Place] = frozenset(),
    ) -> None:
        """Sessions at the places ``still`` stay, and so do lines of ``locks``.

        ``wide`` asks away how far counts go; lines that are ``apart`` lose their units one by one
        from the end, as all do whose units count differently.
        """
        self.held = held
        self.programme = programme
        self.judge = judge
        self.start = start
        self.spans = spans
        self.prices = prices
        self.still = still
        self.apart = apart
        self.locks = locks
        self.calm = calm
        self.wide = wide
        self.most_added = CALM_ADDED if calm else MOST_ADDED
        self.choices: list[LineChoice] = []
        self.additions: list[AddedChoice] = []
        self.pieces: list[Piece] = []
        self.cost = Cost()
        self.ranges: dict[str, dict[int, tuple[float, float]]] = defaultdict(dict)
        for at, session in enumerate(start):
            self._session(at, session, spans[at])

    def _session(self, at: int, session: Session, spans: Sequence[Span]) -> None:
        for line in spans:
            units = measured_units(self.judge.ledger, session, line)
            if line.fixed or at in self.still:
                self.pieces += [Piece(at, unit, Linear(1.0), 1.0) for unit in units]
                continue
            self._choice(at, session, line, units)

    def _choice(
        self, at: int, session: Session, line: Span, units: list[tuple[Entry, ...]]
    ) -> None:
        programme, ledger = self.programme, self.judge.ledger
        locked = bool(self.locks & set(line.movements))
        bounds: dict[int, tuple[float, float]] = {}

        def variable(most: float) -> int:
            number = programme.variable(0, 0 if locked else most)
            bounds[number] = (0, most)
            return number

        twice = 2 if line.kind == "pairs" else 1
        room = 0 if (at, line.number) in self.held.no_more else line.most - line.count
        growth = min(room, CALM_GROWTH) if self.calm else room
        shrinks = 0 if (at, line.number) in self.held.no_fewer else line.count
        few, more = variable(min(FIRST, growth)), variable(max(0, growth - FIRST))
        most = line.count + WIDE if self.wide else float(line.count + growth)
        if room:
            self.ranges[_named(line)] |= {few: (0, FIRST), more: (0, WIDE)}
        dropped, changed = variable(1), variable(1)
        self.cost.pay({few: twice, more: 2 * twice, dropped: DROPPED})
        grown = Linear(0, {few: 1.0, more: 1.0})
        last = measured(ledger, session, unit_sets(session, line, line.count))
        if are_alike(units) and (at, line.number) not in self.apart:
            less, lesser = variable(min(FIRST, shrinks)), variable(max(0, shrinks - FIRST))
            self.cost.pay({less: twice, lesser: 2 * twice})
            fewer = Linear(0, {less: 1.0, lesser: 1.0})
            programme.row(-INF, {less: 1, lesser: 1, dropped: -1}, line.count - 1)
            count = Linear(line.count, grown.terms).plus(fewer, -1)
            parts = [Piece(at, units[0], count, most)]
        else:
            # Sets that count differently are taken off from the end, one by one.
            kept, parts = [], []
            for place, unit in enumerate(units):
                number = programme.variable(1 if locked or not shrinks else 0, 1)
                bounds[number] = (0, 1) if shrinks else (1, 1)
                kept.append(number)
                gone = line.count - place
                self.cost.pay({number: -twice * (1 if gone <= FIRST else 2)})
                self.cost.offset += twice * (1 if gone <= FIRST else 2)
                parts.append(Piece(at, unit, Linear(0, {number: 1.0}), 1.0))
            for before, behind in pairwise(kept):
                programme.row(0, {before: 1, behind: -1}, INF)
            programme.row(1, {kept[0]: 1, dropped: 1}, INF)
            programme.row(-INF, {few: 1, more: 1, kept[-1]: -WIDE}, 0)
            fewer = Linear(line.count, dict.fromkeys(kept, -1.0))
            count = Linear(0, dict.fromkeys(kept, 1.0)).plus(grown)
            parts.append(Piece(at, last, grown, most - line.count))
        self.pieces += parts
        steps = grown.plus(fewer)
        programme.at_most(steps, {changed: WIDE + line.count})
        self.choices.append(
            LineChoice(at, line, count, fewer, steps, dropped, changed, bounds, tuple(parts))
        )

    def offer(self, offers: Mapping[str, Set], places: Container[int] | None = None) -> None:
        """The movements that may be added to each session that lacks them, or to some sessions."""
        for at, session in enumerate(self.start):
            if at in self.still or (places is not None and at not in places):
                continue
            for movement, one in offers.items():
                if has(session, movement) or (at, movement) in self.held.not_added:
                    continue
                locked = movement in self.locks
                used, few, more = (
                    self.programme.variable(0, 0 if locked else most)
                    for most in (1, FIRST, self.most_added - FIRST)
                )
                bounds = {used: (0.0, 1.0), few: (0.0, FIRST), more: (0.0, self.most_added - FIRST)}
                self.programme.row(
                    -INF, {few: 1, more: 1, used: -(WIDE if self.wide else self.most_added)}, 0
                )
                self.programme.row(0, {few: 1, used: -1}, INF)
                if not self.wide:
                    self.programme.row(0, {few: 1, more: -1}, INF)
                strange = not fits(self.judge.ledger.movements[movement], self.prices.classes[at])
                self.cost.pay({used: ADDED + (THEME if strange else 0), few: 1, more: 2})
                entries = measured(self.judge.ledger, session, (one,))
                times = Linear(0, {few: 1.0, more: 1.0})
                most = WIDE if self.wide else self.most_added
                self.pieces.append(Piece(at, entries, times, most))
                self.ranges[movement][more] = (0, WIDE)
                self.additions.append(AddedChoice(at, movement, one, used, few, more, bounds))

    def read(self, values: Sequence[float]) -> tuple[dict[Place, int], dict[int, int]]:
        """Counts of lines by session and number, and of additions by their place."""
        counts = {}
        for choice in self.choices:
            count = choice.count.at(values)
            if round(count) != choice.line.count:
                counts[choice.session, choice.line.number] = round(count)
        added = {
            at: round(values[one.few] + values[one.more])
            for at, one in enumerate(self.additions)
            if values[one.used] > 0.5
        }
        return counts, added

    def sessions(
        self, counts: Mapping[Place, int], added: Mapping[int, int]
    ) -> tuple[Session, ...]:
        """The sessions with lines at other counts and lines added."""
        return tuple(
            rebuilt(
                session,
                self.spans[at],
                {line: count for (own, line), count in counts.items() if own == at},
                [
                    (self.additions[place].set, count)
                    for place, count in sorted(added.items())
                    if self.additions[place].session == at
                ],
            )
            for at, session in enumerate(self.start)
        )

    @property
    def moves(self) -> dict[int, float]:
        """How many sets come or go, as factors of the variables."""
        found: dict[int, float] = {}
        for choice in self.choices:
            for number, factor in choice.steps.terms.items():
                found[number] = factor * len(choice.line.units[-1])
        return found | {number: 1.0 for one in self.additions for number in (one.few, one.more)}

    def moved(self, counts: Mapping[Place, int], added: Mapping[int, int]) -> list[Moved]:
        """The lines that change, each with its steps before and after."""
        lines = {(choice.session, choice.line.number): choice.line for choice in self.choices}
        found = [
            Moved(at, lines[at, number], "", lines[at, number].count, count)
            for (at, number), count in counts.items()
        ]
        for place, count in added.items():
            addition = self.additions[place]
            found.append(Moved(addition.session, None, addition.movement, 0, count))
        return found


def measured_units(ledger: Ledger, session: Session, line: Span) -> list[tuple[Entry, ...]]:
    """What each unit of a line comes to."""
    return [
        measured(ledger, session, unit_sets(session, line, index)) for index in range(line.count)
    ]


def measured(ledger: Ledger, session: Session, sets: Sequence[Set]) -> tuple[Entry, ...]:
    """What sets come to in a session."""
    return ledger.measure([Session.model_construct(**{**dict(session), "sets": tuple(sets)})])


def are_alike(units: Sequence[tuple[Entry, ...]]) -> bool:
    """Whether the units of a line all come to the same."""
    return all(_alike(unit, units[0]) for unit in units)


def _named(line: Span) -> str:
    return " + ".join(line.movements)


def _alike(unit: tuple[Entry, ...], other: tuple[Entry, ...]) -> bool:
    """Whether two units come to the same, rest and all."""
    return [
        (entry.measured.credits, entry.measured.work_s, entry.set.rest_s) for entry in unit
    ] == [(entry.measured.credits, entry.measured.work_s, entry.set.rest_s) for entry in other]
