"""A squad's week as one integer programme: decisions for all, and exceptions from them.

A decision has the variables of a line of a shared session, priced for its first athlete. Every
athlete has variables of their own for each line, priced for them, that hold where they are an
exception: how many sets they then do stands in a third kind, tied to the one or the other. What an
athlete's findings are made of are these.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from dialback.core.adjusting.bounds import keep_most
from dialback.core.adjusting.costs import price_rows
from dialback.core.adjusting.expression import Linear, Piece
from dialback.core.adjusting.found import Sought
from dialback.core.adjusting.held import NOTHING_HELD
from dialback.core.adjusting.lines import AddedChoice, Cost, LineChoice, Lines, measured
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.rows import Flag, Rows, finding_rows
from dialback.core.adjusting.solver import INF, Answer, Programme
from dialback.core.adjusting.start import has
from dialback.core.sessions import Set
from dialback.core.squads.adjusting.alike import told_once
from dialback.core.squads.adjusting.plan import (
    EXCEPTION,
    Decision,
    FoundSquad,
    Otherwise,
    SquadPlan,
)
from dialback.core.squads.adjusting.starts import SharedSession, Start, uneven_lines


class _Decided:
    """The variables of what is decided for all, and what they come to."""

    def __init__(self, programme: Programme, plan: SquadPlan, options: Options) -> None:
        self.programme = programme
        self.plan = plan
        self.options = options
        self.uneven = [uneven_lines(plan.starts, one) for one in plan.shared]
        self.lines: dict[int, Lines] = {
            first: self._led_by(first) for first in dict.fromkeys(one.first for one in plan.shared)
        }

    def lines_of(
        self, number: int, still: frozenset[int], programme: Programme | None = None
    ) -> Lines:
        """The lines of an athlete's week, those of the sessions ``still`` as they are."""
        start = self.plan.starts[number]
        apart = frozenset(
            (one.places[number], line)
            for one, lines in zip(self.plan.shared, self.uneven, strict=True)
            if number in one.places
            for line in lines
        )
        return Lines(
            programme or self.programme,
            start.judge,
            start.sessions,
            start.spans,
            start.prices,
            still,
            self.options.locks,
            NOTHING_HELD,
            calm=not self.options.thorough,
            wide=False,
            apart=apart,
        )

    def _led_by(self, first: int) -> Lines:
        """The lines of the sessions that an athlete is the first of."""
        led = [one for one in self.plan.shared if one.first == first]
        every = frozenset(range(len(self.plan.starts[first].sessions)))
        found = self.lines_of(first, every - {one.places[first] for one in led})
        for shared in led:
            found.offer(self._common(shared), {shared.places[first]})
        return found

    def _common(self, shared: SharedSession) -> dict[str, Set]:
        """What may be added to a shared session: what everybody has, and nobody does in it."""
        starts = self.plan.starts
        return {
            name: one
            for name, one in starts[shared.first].offers.items()
            if all(
                name in starts[number].offers and not has(starts[number].sessions[place], name)
                for number, place in shared.places.items()
            )
        }

    def choice(self, number: int, choice: LineChoice) -> LineChoice | None:
        """The decision about an athlete's line; ``None`` where it is of their own session."""
        at = self.plan.shared_at(number, choice.session)
        if at is None:
            return None
        shared = self.plan.shared[at]
        where = (shared.places[shared.first], choice.line.number)
        return next(
            one
            for one in self.lines[shared.first].choices
            if (one.session, one.line.number) == where
        )

    def added(self, number: int) -> tuple[list[Piece], list[AddedChoice]]:
        """What may be added to an athlete's shared sessions, as they do it."""
        pieces, choices = [], []
        start = self.plan.starts[number]
        for shared in self.plan.shared:
            if number not in shared.places:
                continue
            lines = self.lines[shared.first]
            place = shared.places[number]
            for one in lines.additions:
                if one.session == shared.places[shared.first]:
                    entries = measured(
                        start.judge.ledger, start.sessions[place], (start.offers[one.movement],)
                    )
                    times = Linear(0, {one.few: 1.0, one.more: 1.0})
                    pieces.append(Piece(place, entries, times, lines.most_added))
                    choices.append(one)
        return pieces, choices

    def read(self, values: Sequence[float]) -> tuple[Decision, ...]:
        """What values of the variables decide for each shared session."""
        read = {first: lines.read(values) for first, lines in self.lines.items()}
        found = []
        for shared in self.plan.shared:
            place = shared.places[shared.first]
            counts, added = read[shared.first]
            additions = self.lines[shared.first].additions
            found.append(
                Decision(
                    {line: count for (at, line), count in counts.items() if at == place},
                    {
                        additions[at].movement: count
                        for at, count in added.items()
                        if additions[at].session == place
                    },
                )
            )
        return tuple(found)


class _Week:
    """An athlete's week as it comes out of what is decided for all."""

    def __init__(self, decided: _Decided, own: Lines, number: int) -> None:
        self.programme = decided.programme
        self.changed: dict[int, float] = {}
        self.pieces, self.added = decided.added(number)
        replaced: set[int] = set()
        for choice in own.choices:
            ours = decided.choice(number, choice)
            if ours is None:
                self.changed[choice.changed] = 1.0
            else:
                replaced |= {id(piece) for piece in choice.parts}
                self.pieces += self._line(choice, ours)
        self.pieces += [piece for piece in own.pieces if id(piece) not in replaced]

    def _line(self, own: LineChoice, decided: LineChoice) -> list[Piece]:
        """The pieces of a line of a shared session: so many as decided."""
        self.changed[decided.changed] = 1.0
        return [
            Piece(own.session, mine.entries, ours.times, mine.most)
            for mine, ours in zip(own.parts, decided.parts, strict=True)
        ]


class _EitherWeek(_Week):
    """The same where the athlete may do otherwise, and may add to sessions of their own."""

    def __init__(self, decided: _Decided, own: Lines, number: int) -> None:
        super().__init__(decided, own, number)
        self.added += own.additions

    def _line(self, own: LineChoice, decided: LineChoice) -> list[Piece]:
        """The pieces of a line: so many as decided, or where they are an exception as their own."""
        apart = own.changed
        changed = self.programme.variable(0, 1)
        self.changed[changed] = 1.0
        pieces = []
        for mine, ours in zip(own.parts, decided.parts, strict=True):
            most = max(1.0, mine.most)
            times = self.programme.variable(0, mine.most, whole=False)
            value = Linear(0, {times: 1.0})
            for one, other in ((value, ours.times), (ours.times, value)):
                self.programme.at_most(one.plus(other, -1), {apart: most})
            for one, other in ((value, mine.times), (mine.times, value)):
                self.programme.at_most(one.plus(other, -1).plus(Linear(-most)), {apart: -most})
            before = Linear(_at_start(mine, own))
            for one, other in ((value, before), (before, value)):
                self.programme.at_most(one.plus(other, -1), {changed: most})
            pieces.append(Piece(own.session, mine.entries, value, mine.most))
        return pieces


def _at_start(piece: Piece, choice: LineChoice) -> float:
    """How often a piece of a line is there before the change."""
    if len(choice.parts) == 1:
        return float(choice.line.count)
    return 0.0 if piece is choice.parts[-1] else 1.0


def _week_rows(programme: Programme, start: Start, week: _Week, options: Options) -> Rows:
    """The bounds and findings of an athlete's week."""
    used = {one.used: 1.0 for one in week.added}
    programme.row(-INF, used, options.new_movements)
    programme.row(-INF, {**week.changed, **used}, INF if options.thorough else options.lines)
    rows = Rows(programme, start.judge, week.pieces)
    keep_most(rows, (one.few for one in week.added))
    finding_rows(rows, start.sessions)
    return rows


def _costs(several: Iterable[Lines]) -> tuple[Cost, dict[int, float], dict[int, float]]:
    """What lines cost together, the variables of lines that change, and of sets that move."""
    cost = Cost()
    changed: dict[int, float] = {}
    moves: dict[int, float] = {}
    for lines in several:
        price_rows(lines)
        cost.pay(lines.cost.of)
        cost.offset += lines.cost.offset
        changed |= {one.changed: 1.0 for one in lines.choices}
        changed |= {one.used: 1.0 for one in lines.additions}
        moves |= lines.moves
    return cost, changed, moves


class ForAllProgramme(Sought[FoundSquad]):
    """What is decided for all, where nobody is an exception."""

    def __init__(self, plan: SquadPlan, options: Options) -> None:
        self.plan = plan
        programme = Programme()
        self.decided = _Decided(programme, plan, options)
        begin = len(programme.lower)
        flags: list[Flag] = []
        for number, start in enumerate(plan.starts):
            week = _Week(self.decided, self._as_it_is(number, start), number)
            rows = _week_rows(programme, start, week, options)
            flags += rows.flags.values()
        flags = told_once(programme, range(begin, len(programme.lower)), flags)
        cost, changed, moves = _costs(self.decided.lines.values())
        super().__init__(programme, cost, flags, changed, moves)

    def _as_it_is(self, number: int, start: Start) -> Lines:
        """The lines of an athlete's week; no variable of theirs is in the programme."""
        shared = {one.places[number] for one in self.plan.shared if number in one.places}
        still = frozenset(range(len(start.sessions))) - shared
        return self.decided.lines_of(number, still, Programme())

    def unchanged(self) -> FoundSquad:
        """The start, that costs nothing."""
        return self.plan.unchanged()

    def found(self, answer: Answer, *, optimal: bool) -> FoundSquad:
        """What values of the variables come to."""
        nobody = tuple(Otherwise() for _ in self.plan.starts)
        decisions = self.decided.read(answer.values)
        return self.plan.made(decisions, nobody, answer.values, optimal=optimal)


class SquadProgramme(Sought[FoundSquad]):
    """The programme of athletes who share sessions."""

    def __init__(self, plan: SquadPlan, options: Options) -> None:
        self.plan = plan
        self.starts = plan.starts
        programme = Programme()
        self.decided = _Decided(programme, plan, options)
        self.of_all = len(programme.lower)
        self.own = [self._apart(number, start) for number, start in enumerate(plan.starts)]
        flags: list[Flag] = []
        for number, start in enumerate(plan.starts):
            week = _EitherWeek(self.decided, self.own[number], number)
            rows = _week_rows(programme, start, week, options)
            flags += rows.flags.values()
        cost, changed, moves = _costs((*self.decided.lines.values(), *self.own))
        super().__init__(programme, cost, flags, changed, moves)

    def _apart(self, number: int, start: Start) -> Lines:
        """What one athlete may do otherwise than the others, or in sessions of their own."""
        shared = {one.places[number] for one in self.plan.shared if number in one.places}
        found = self.decided.lines_of(number, start.still)
        found.offer(start.offers, set(range(len(start.sessions))) - shared)
        found.cost.pay(dict.fromkeys((one.changed for one in found.choices), EXCEPTION))
        found.cost.pay(dict.fromkeys((one.used for one in found.additions), EXCEPTION))
        return found

    def nobody_apart(self) -> dict[int, tuple[float, float]]:
        """Bounds under which nobody is an exception."""
        return {
            variable: (0.0, 0.0)
            for lines in self.own
            for variable in (
                *(one.changed for one in lines.choices),
                *(one.used for one in lines.additions),
            )
        }

    def as_decided(self, best: FoundSquad) -> dict[int, tuple[float, float]]:
        """Bounds under which all do what an answer of ``ForAllProgramme`` decides for them.

        What is decided for all has the same variables there: both begin with them.
        """
        values = [float(round(value)) for value in best.values[: self.of_all]]
        return self.nobody_apart() | {at: (value, value) for at, value in enumerate(values)}

    def but_for(
        self, number: int | None, values: Sequence[float]
    ) -> dict[int, tuple[float, float]]:
        """Bounds under which all stays as in an answer but what one athlete does otherwise.

        Without an athlete: but what is decided for all.
        """
        still = [lines for at, lines in enumerate(self.own) if at != number]
        if number is not None:
            still += self.decided.lines.values()
        found = {}
        for lines in still:
            bounds = [one.bounds for one in lines.choices]
            bounds += [one.bounds for one in lines.additions]
            for variable in (one for several in bounds for one in several):
                value = float(round(values[variable]))
                found[variable] = (value, value)
        return found

    def unchanged(self) -> FoundSquad:
        """The start, that costs nothing."""
        return self.plan.unchanged()

    def found(self, answer: Answer, *, optimal: bool) -> FoundSquad:
        """What values of the variables come to."""
        decisions = self.decided.read(answer.values)
        exceptions = tuple(
            self._otherwise(number, decisions, answer.values) for number in range(len(self.own))
        )
        return self.plan.made(decisions, exceptions, answer.values, optimal=optimal)

    def _otherwise(
        self, number: int, decisions: Sequence[Decision], values: Sequence[float]
    ) -> Otherwise:
        lines = self.own[number]
        counts, added = lines.read(values)
        otherwise = {}
        for choice in lines.choices:
            line = choice.line
            count = counts.get((choice.session, line.number), line.count)
            shared = self.plan.shared_at(number, choice.session)
            usual = line.count
            if shared is not None:
                usual = decisions[shared].counts.get(line.number, usual)
            if values[choice.changed] > 0.5 and count != usual:
                otherwise[choice.session, line.number] = count
        return Otherwise(
            otherwise,
            {
                (lines.additions[at].session, lines.additions[at].movement): count
                for at, count in added.items()
            },
        )
