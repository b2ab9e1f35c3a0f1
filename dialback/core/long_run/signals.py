"""The signals of a week, all of them: the one list of what is looked for."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Final

from dialback.core.long_run.codes import SIGNALS
from dialback.core.long_run.doubts import (
    load_doubts,
    reps_doubts,
    stranger_doubts,
    twice_doubts,
    unit_doubts,
)
from dialback.core.long_run.habits import (
    gone,
    missed_day,
    no_lighter,
    pain_again,
    rpe_gone,
    to_failure,
)
from dialback.core.long_run.lifts import effort_rises, lift_stands, tension_falls
from dialback.core.long_run.sums import (
    body_weight,
    creep,
    longer,
    plan_drift,
    ratio_drift,
    rests_shorter,
    side_gap_grows,
)
from dialback.core.long_run.view import Signal, View
from dialback.core.once import Once
from dialback.core.tally import Ledger
from dialback.core.weeks import Week

Look = Callable[[View], Iterator[Signal]]

LOOKED_FOR: Final[tuple[Look, ...]] = (
    pain_again, load_doubts, reps_doubts, unit_doubts, twice_doubts, stranger_doubts, to_failure,
    missed_day, plan_drift, no_lighter, gone, body_weight, effort_rises, tension_falls,
    ratio_drift, creep, longer, rests_shorter, rpe_gone, side_gap_grows, lift_stands,
)  # fmt: skip
LONGEST: Final = 26
"""So many weeks back a signal may look."""
_PLACES: Final = {signal.code: place for place, signal in enumerate(SIGNALS)}


def signals(ledger: Ledger, week: Week) -> tuple[Signal, ...]:
    """The signals of a completed week, in the order in which they are told."""
    return _SIGNALS.of(ledger.kept, week, lambda: _signals(ledger, week))


_SIGNALS: Final = Once[Week, tuple[Signal, ...]]()


def _signals(ledger: Ledger, week: Week) -> tuple[Signal, ...]:
    found = [signal for look in LOOKED_FOR for signal in _looked(ledger, week, look)]
    return tuple(sorted(found, key=lambda one: (_PLACES[one.code], one.subject)))


def was_in(ledger: Ledger, week: Week, signal: Signal, of: Week) -> bool:
    """Whether a signal ``of`` one week was in another; only what found it is looked for there."""
    return any(
        signal.key == other.key
        for look in LOOKED_FOR
        if any(own.key == signal.key for own in _looked(ledger, of, look))
        for other in _looked(ledger, week, look)
    )


def _looked(ledger: Ledger, week: Week, look: Look) -> tuple[Signal, ...]:
    """What one way of looking finds in a week."""

    def found() -> tuple[Signal, ...]:
        if not ledger.is_trained(week):
            return ()
        return tuple(look(_VIEWS.of(ledger.kept, week, lambda: View(ledger, week))))

    return _LOOKED.of(ledger.kept, (week, look), found)


_LOOKED: Final = Once[tuple[Week, Look], tuple[Signal, ...]]()
_VIEWS: Final = Once[Week, View]()
