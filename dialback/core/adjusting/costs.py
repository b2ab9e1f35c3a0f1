"""What a change costs beyond its sets, as rows; the same sums as ``pricing`` has."""

from __future__ import annotations

from math import ceil
from typing import Final

from dialback.core.adjusting.expression import Linear
from dialback.core.adjusting.lines import Lines
from dialback.core.adjusting.pricing import CALM, CONCENTRATION, FIRST_LIFT, TOTAL, share_of_set
from dialback.core.adjusting.rows.rows import Rows
from dialback.core.figures import TOTAL_SETS
from dialback.core.maxima import is_working

TINY: Final = 1e-9
MOST_BEYOND: Final = 10_000.0
"""Further than any count of sets may go."""


def price_rows(lines: Lines) -> None:
    """What a coach would not do lightly: rows that say how much of it there is."""
    for choice in lines.choices:
        if choice.line == lines.prices.big[choice.session]:
            lines.cost.charge(choice.fewer, FIRST_LIFT)
    for at in range(len(lines.start)):
        own = [choice.steps for choice in lines.choices if choice.session == at]
        own += [
            Linear(0, {one.few: 1.0, one.more: 1.0}) for one in lines.additions if one.session == at
        ]
        steps = Linear()
        for one in own:
            steps = steps.plus(one)
        if own:
            _beyond(lines, steps, CALM, 1)
        _concentration(lines, at)
    before = lines.judge.start.value(TOTAL_SETS)
    sets, _ = Rows(lines.programme, lines.judge, lines.pieces).figure(TOTAL_SETS)
    _beyond(lines, sets, (1 + TOTAL) * before, 1)
    if not lines.prices.jumps:
        _beyond(lines, Linear().plus(sets, -1), (TOTAL - 1) * before, 1)


def _beyond(lines: Lines, value: Linear, limit: float, price: int, *, twice: bool = False) -> None:
    """Pay for each whole that a value is beyond a limit, rounded up; in halves if ``twice``."""
    if not value.terms:
        lines.cost.offset += price * max(0, ceil(value.constant - limit - TINY))
        return
    whole = lines.programme.variable(0, MOST_BEYOND)
    lines.cost.pay({whole: price})
    lines.programme.at_most(
        Linear(value.constant - limit - TINY, value.terms), {whole: 2.0 if twice else 1.0}
    )


def _concentration(lines: Lines, at: int) -> None:
    halves: dict[str, Linear] = {}
    most: dict[str, float] = {}
    for piece in lines.pieces:
        if piece.session != at:
            continue
        for entry in piece.entries:
            if is_working(entry):
                name = entry.measured.shape.moves[0].movement.name
                share = 2 * share_of_set(entry)
                halves[name] = halves.get(name, Linear()).plus(piece.times, share)
                most[name] = most.get(name, 0.0) + share * piece.most
    for name, value in halves.items():
        limit = lines.prices.limit_of(at, name)
        if most[name] > limit:
            _beyond(lines, value, limit, CONCENTRATION, twice=True)
