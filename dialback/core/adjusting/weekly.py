"""The week as an integer programme: counts of lines as variables, findings as rows.

Credits of a line are linear in its sets, so every figure is a linear expression; a finding has a
variable for each level it can have, and rows that hold unless the variable is 1.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date

from dialback.core.adjusting.bounds import keep_most
from dialback.core.adjusting.costs import price_rows
from dialback.core.adjusting.found import FoundWeek, Sought
from dialback.core.adjusting.held import NOTHING_HELD, Held
from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.lines import Lines
from dialback.core.adjusting.pricing import Prices
from dialback.core.adjusting.rows import Rows, finding_rows
from dialback.core.adjusting.solver import INF, Answer, Programme
from dialback.core.plans.spans import spans_of
from dialback.core.sessions import Session, Set


class WeekProgramme(Sought[FoundWeek]):
    """The programme of one week, with what is needed to read its answers."""

    def __init__(
        self,
        judge: Judge,
        start: tuple[Session, ...],
        fixed_days: frozenset[date],
        locks: frozenset[str],
        offers: Mapping[str, Set],
        new_movements: int,
        held: Held = NOTHING_HELD,
        *,
        lines: int | None = None,
        most_sets: float | None = None,
        wide: bool = False,
    ) -> None:
        """``lines`` is how many lines a calm proposal changes; ``None`` lets it be thorough."""
        self.judge = judge
        self.start = start
        self.locks = locks
        programme = Programme()
        self.spans = [spans_of(session, judge.ledger.movements) for session in start]
        self.prices = Prices(judge, start, self.spans)
        still = frozenset(at for at, one in enumerate(start) if one.date in fixed_days)
        own = Lines(
            programme,
            judge,
            start,
            self.spans,
            self.prices,
            still,
            locks,
            held,
            calm=lines is not None,
            wide=wide,
        )
        own.offer(offers)
        self.read, self.sessions, self.moved = own.read, own.sessions, own.moved
        self.choices, self.additions, self.pieces = own.choices, own.additions, own.pieces
        self.ranges = own.ranges
        used = {addition.used: 1.0 for addition in self.additions}
        self.added_row = programme.row(-INF, used, new_movements)
        changed = used | {choice.changed: 1.0 for choice in self.choices}
        self.lines_row = programme.row(-INF, changed, INF if lines is None else lines)
        self.rows = Rows(programme, judge, self.pieces)
        self.share_row = keep_most(
            self.rows,
            (one.few for one in self.additions),
            INF if most_sets is None else most_sets,
        )
        finding_rows(self.rows, start)
        self.flags = self.rows.flags
        price_rows(own)
        super().__init__(programme, own.cost, self.flags.values(), changed, own.moves)

    def unchanged(self) -> FoundWeek:
        """The start, that costs nothing."""
        return FoundWeek(0, self.judge.at_start, True, (), {}, {}, self.start)

    def found(self, answer: Answer, *, optimal: bool) -> FoundWeek:
        """What values of the variables come to."""
        counts, added = self.read(answer.values)
        sessions = self.sessions(counts, added)
        cost = self.prices.of(self.moved(counts, added), sessions)
        left = self.judge.of(sessions)
        return FoundWeek(cost, left, optimal, answer.values, counts, added, sessions)
