"""How a squad's weeks spread: each athlete's measures against their own base, week by week."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from dialback.core.baseline import TOLERANCE, Baseline, Change, baselines
from dialback.core.figures import TOTAL_SETS, in_total
from dialback.core.measures import MEASURES
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week

SPREAD_WEEKS: Final = 8
"""So many weeks the spread of a squad shows."""
NEW_WEEKS: Final = 4
"""Whoever trained first within so many weeks is new."""


@dataclass(frozen=True, slots=True)
class Mark:
    """A week of one athlete in one measure: its value, and that against their own base.

    ``change`` is a share (0.1 for a tenth more); ``None`` without a base. ``above`` says whether it
    is beyond what a week may gain.
    """

    value: float
    change: float | None
    above: bool


def marks(
    ledger: Ledger, last: Week, basis: Basis = "completed"
) -> dict[str, tuple[Mark | None, ...]]:
    """An athlete's marks by measure, up to a last week; ``None`` where nothing was done.

    Of the last week ``basis`` says whether its log or its plan counts.
    """
    span = [last.plus(back) for back in range(1 - SPREAD_WEEKS, 1)]
    bases = baselines(ledger, span, tuple(in_total(name) for name in MEASURES))
    return {name: tuple(_marks(ledger, name, span, bases, basis)) for name in MEASURES}


def _marks(
    ledger: Ledger,
    measure: str,
    span: Sequence[Week],
    bases: Mapping[Week, Baseline],
    basis: Basis,
) -> Iterator[Mark | None]:
    figure, limit = in_total(measure), ledger.rules.jump_limits.get(measure)
    for week in span:
        done = ledger.tally(basis if week == span[-1] else "completed", week)
        if not done.get(TOTAL_SETS):
            yield None
            continue
        value = done.get(figure, 0.0)
        change = Change(bases[week].base(figure), value).change
        above = change is not None and limit is not None and change > limit[0] + TOLERANCE
        yield Mark(value, change, above)
