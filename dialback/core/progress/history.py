"""What was done of a movement lately: session by session, each set with the planned one."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.audit import against_plan
from dialback.core.baseline import TOLERANCE, weeks_before
from dialback.core.movements import fold
from dialback.core.once import Once
from dialback.core.reconcile import SessionMatch
from dialback.core.sessions import Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week

LOOK_BACK: Final = 4
"""So many weeks back a movement may have been done to be moved on."""
GRINDING_RPE: Final = 9.5
"""From this exertion on a set was at its end."""


@dataclass(frozen=True, slots=True)
class Range:
    """From how many reps, or seconds, to how many a set is to have."""

    low: float
    high: float


Scheme = frozenset[Range]
"""The ranges of a movement's sets in a session: heavy and light days have different ones."""


@dataclass(frozen=True, slots=True)
class Exposure:
    """A session's working sets of a movement, each with the planned set that it was for.

    ``cut`` sessions were not done to the end, or hurt: what was not reached there is no failure.
    """

    day: date
    pairs: tuple[tuple[Set | None, Set], ...]
    cut: bool = False

    def reached(self, usual: Range, target_rpe: float, *, bottom: bool = False) -> bool:
        """Whether every set has the top (or the bottom) of its range at the target or below it.

        A set without exertion is taken as within it. ``usual`` is the range of an unplanned set.
        """
        for plan, done in self.pairs:
            wanted = range_of(plan) or usual
            if _amount(done) < (wanted.low if bottom else wanted.high):
                return False
            if done.rpe is not None and done.rpe > target_rpe + TOLERANCE:
                return False
        return True

    def is_below(self, usual: Range) -> bool:
        """Whether half of the sets or more missed the bottom of the range, or were at their end.

        Never of a session that was cut.
        """
        if self.cut:
            return False
        missed = sum(
            _amount(done) < (range_of(plan) or usual).low
            or (done.rpe is not None and done.rpe >= GRINDING_RPE)
            for plan, done in self.pairs
        )
        return 2 * missed >= len(self.pairs)

    @property
    def load_kg(self) -> float:
        """The heaviest load of one implement."""
        return max(done.load_kg for _, done in self.pairs)

    @property
    def has_rpe(self) -> bool:
        """Whether exertion was logged of every set."""
        return all(done.rpe is not None for _, done in self.pairs)

    @property
    def scheme(self) -> Scheme:
        """The ranges that were planned; empty where nothing was."""
        return frozenset(found for plan, _ in self.pairs if (found := range_of(plan)))


def range_of(a_set: Set | None) -> Range | None:
    """The reps or the seconds that a set is to have; ``None`` where it says neither."""
    if a_set is None:
        return None
    if a_set.reps is not None:
        return Range(a_set.reps, a_set.reps_to or a_set.reps)
    return None if a_set.seconds is None else Range(a_set.seconds, a_set.seconds)


def _amount(a_set: Set) -> float:
    return a_set.reps if a_set.reps is not None else a_set.seconds or 0.0


def exposures(ledger: Ledger, week: Week) -> dict[str, Sequence[Exposure]]:
    """Of each movement the sessions of the four weeks before that have it, the latest first."""
    return _EXPOSURES.of(ledger.kept, week, lambda: _exposures(ledger, week))


_EXPOSURES: Final = Once[Week, dict[str, Sequence[Exposure]]]()


def _exposures(ledger: Ledger, week: Week) -> dict[str, Sequence[Exposure]]:
    found: defaultdict[str, list[Exposure]] = defaultdict(list)
    for before in weeks_before(week, LOOK_BACK):
        for match in against_plan(ledger, before, None).matches:
            for name, exposure in _of_session(ledger, match):
                found[name].append(exposure)
    return {
        name: sorted(several, key=lambda exposure: exposure.day, reverse=True)
        for name, several in found.items()
    }


def _of_session(ledger: Ledger, match: SessionMatch) -> Iterator[tuple[str, Exposure]]:
    if match.done is None:
        return
    pairs: defaultdict[str, list[tuple[Set | None, Set]]] = defaultdict(list)
    for a_set in match.sets:
        done, plan = a_set.done, a_set.plan
        if done is None or done.exercise is None or done.warm_up:
            continue
        same = plan is not None and fold(plan.exercise or "") == fold(done.exercise)
        pairs[ledger.movements[done.exercise].name].append((plan if same else None, done))
    day = match.dones[0].date if match.dones else match.done.date
    cut = bool(match.done.pain) or any(a_set.kind == "skipped" for a_set in match.sets)
    for name, several in pairs.items():
        yield name, Exposure(day, tuple(several), cut)
