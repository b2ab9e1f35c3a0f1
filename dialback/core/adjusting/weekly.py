"""The week as an integer programme: counts of lines as variables, findings as rows.

Credits of a line are linear in its sets, so every figure is a linear expression; a finding has a
variable for each level it can have, and rows that hold unless the variable is 1.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date
from typing import Final

from dialback.core.adjusting.costs import price_rows
from dialback.core.adjusting.expression import Linear
from dialback.core.adjusting.held import NOTHING_HELD, Held
from dialback.core.adjusting.judged import CAUTION_WEIGHT, HIGH_WEIGHT, Judge
from dialback.core.adjusting.lines import Lines
from dialback.core.adjusting.pricing import Moved, Prices
from dialback.core.adjusting.rows import Rows, finding_rows
from dialback.core.adjusting.solver import INF, Programme
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings.jumps import OF_THE_WEEK
from dialback.core.maxima import is_working
from dialback.core.plans.spans import rebuilt, spans_of
from dialback.core.sessions import Session, Set

LEAST_SETS: Final = 0.8
"""So much of the start's sets the week keeps at least."""
LEAST_SETS_OF_MUCH: Final = 0.6
"""The same where the start jumps or is above a ceiling, and no rule says another."""


class WeekProgramme:
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
        self.rules = judge.ledger.rules
        self.programme = Programme()
        self.most_sets = INF if most_sets is None else most_sets
        self.spans = [spans_of(session, judge.ledger.movements) for session in start]
        self.prices = Prices(judge, start, self.spans)
        own = Lines(
            self.programme,
            judge,
            start,
            self.spans,
            self.prices,
            fixed_days,
            locks,
            held,
            calm=lines is not None,
            wide=wide,
        )
        own.offer(offers)
        self.choices, self.additions, self.pieces = own.choices, own.additions, own.pieces
        self.ranges = own.ranges
        used = {addition.used: 1.0 for addition in self.additions}
        self.added_row = self.programme.row(-INF, used, new_movements)
        self.changed = used | {choice.changed: 1.0 for choice in self.choices}
        self.lines_row = self.programme.row(-INF, self.changed, INF if lines is None else lines)
        self.rows = Rows(self.programme, judge, self.pieces)
        self._bounds()
        finding_rows(self.rows, start)
        self.flags = self.rows.flags
        price_rows(own, self.rows)
        self.cost, self.cost_offset = own.cost.of, own.cost.offset
        self.cost_row = self.programme.row(-INF, self.cost, INF)
        self.weight, self.high = self._weights()
        self.moves = {
            number: factor * len(choice.line.units[-1])
            for choice in self.choices
            for number, factor in choice.steps.terms.items()
        } | {number: 1.0 for one in self.additions for number in (one.few, one.more)}
        self.weight_row = self.programme.row(-INF, self.weight, INF)
        self.both = dict(self.cost)
        for number, weight in self.weight.items():
            self.both[number] = self.both.get(number, 0.0) + weight
        self.high_row = self.programme.row(-INF, self.high, INF)

    def _bounds(self) -> None:
        """Each session that has a working set keeps one; the week keeps most of its sets."""
        for at, session in enumerate(self.start):
            working = [
                piece
                for piece in self.pieces
                if piece.session == at and any(is_working(entry) for entry in piece.entries)
            ]
            own = Linear()
            for piece in working:
                own = own.plus(piece.times)
            added = {addition.few for addition in self.additions if addition.session == at}
            started = any(not set(piece.times.terms) & added for piece in working)
            if session.sets and started and own.terms:
                self.programme.row(1 - own.constant, own.terms, INF)
        start = self.judge.start.value(TOTAL_SETS)
        sets, _ = self.rows.figure(TOTAL_SETS)
        share = self._least_share()
        self.share_row = self.programme.row(
            share * start - sets.constant - 1e-9,
            sets.terms,
            self.most_sets - sets.constant + 1e-9,
        )

    def _least_share(self) -> float:
        much = any(
            finding.key == OF_THE_WEEK or finding.code == "muscle_ceiling"
            for finding in self.judge.start.findings
        )
        if not much:
            return LEAST_SETS
        share = self.rules.lighter_share
        return min(LEAST_SETS, LEAST_SETS_OF_MUCH if share is None else share)

    def _weights(self) -> tuple[dict[int, float], dict[int, float]]:
        """What the findings that are left weigh, and how many of them are high."""
        weight: dict[int, float] = {}
        high: dict[int, float] = {}
        for flag in self.flags.values():
            if flag.caution is not None:
                weight[flag.caution] = CAUTION_WEIGHT
            if flag.high is not None:
                beside = CAUTION_WEIGHT if flag.caution is not None else 0
                weight[flag.high] = HIGH_WEIGHT - beside
                high[flag.high] = 1.0
        return weight, high

    def read(self, values: Sequence[float]) -> tuple[dict[tuple[int, int], int], dict[int, int]]:
        """Counts of lines by session and number, and of additions by their place."""
        counts = {}
        for choice in self.choices:
            count = choice.count.constant + sum(
                share * values[number] for number, share in choice.count.terms.items()
            )
            if round(count) != choice.line.count:
                counts[choice.session, choice.line.number] = round(count)
        added = {
            at: round(values[one.few] + values[one.more])
            for at, one in enumerate(self.additions)
            if values[one.used] > 0.5
        }
        return counts, added

    def sessions(
        self, counts: Mapping[tuple[int, int], int], added: Mapping[int, int]
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

    def moved(self, counts: Mapping[tuple[int, int], int], added: Mapping[int, int]) -> list[Moved]:
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
