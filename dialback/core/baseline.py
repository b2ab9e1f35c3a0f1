"""The baseline: what the athlete has lately completed, that a week is compared with."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from statistics import median
from typing import Final

from dialback.core.figures import TOTAL_SETS
from dialback.core.once import Once
from dialback.core.sessions import Set
from dialback.core.tally import Ledger, Tally, top_sets
from dialback.core.vocabulary import LIGHT_KINDS
from dialback.core.weeks import Week
from dialback.core.words import listed

WINDOW: Final = 4
"""Weeks before the audited one that ``mean_4``, ``last_week`` and load steps look at."""

LIGHTER_WINDOW: Final = 8
"""Weeks before a week whose median tells whether it is a lighter one."""
LEAST_WEEKS: Final = 2
"""So many trained weeks among them are needed to tell."""

TOLERANCE: Final = 1e-9
"""A value at its limit is within it, whatever the last bit of a float says."""


@dataclass(frozen=True, slots=True)
class Baseline:
    """Base values by figure, and the weeks they come from in order.

    ``values`` is ``None`` when there is not a week to compare with.
    """

    kind: str
    weeks: tuple[Week, ...]
    values: Tally | None

    def base(self, figure: str) -> float | None:
        """The base of a figure: 0 if the weeks had none of it, ``None`` without weeks."""
        return None if self.values is None else self.values.get(figure, 0.0)


@dataclass(frozen=True, slots=True)
class Change:
    """A value against its base; ``change`` is a share (0.1 is +10 %), ``None`` without base."""

    base: float | None
    value: float

    @property
    def change(self) -> float | None:
        """(value - base) / base; ``None`` where there is no base or it is 0."""
        if self.base is None or self.base <= 0:
            return None
        return (self.value - self.base) / self.base


def is_lighter(ledger: Ledger, week: Week, sets: float) -> bool:
    """Whether so many sets make a week a lighter one, beside the trained weeks before it.

    One that is marked as such is, whatever its sets; else one below ``lighter_share`` of the median
    of the trained weeks among the eight before, lighter ones among them; never where there are
    fewer than two.
    """
    if ledger.kinds.get(week) in LIGHT_KINDS:
        return True
    below = _LIGHTER_BELOW.of(ledger.kept, week, lambda: _lighter_below(ledger, week))
    return below is not None and sets < below - TOLERANCE


_LIGHTER_BELOW: Final = Once[Week, float | None]()


def _lighter_below(ledger: Ledger, week: Week) -> float | None:
    share = ledger.rules.lighter_share
    trained = [
        ledger.tally("completed", before)[TOTAL_SETS]
        for before in weeks_before(week, LIGHTER_WINDOW)
        if ledger.is_trained(before)
    ]
    if share is None or len(trained) < LEAST_WEEKS:
        return None
    return share * median(trained)


def is_lighter_week(ledger: Ledger, week: Week) -> bool:
    """Whether a trained week was a lighter one."""
    sets = ledger.tally("completed", week).get(TOTAL_SETS, 0.0)
    return sets > 0 and is_lighter(ledger, week, sets)


def baseline(ledger: Ledger, week: Week, figures: Collection[str] | None = None) -> Baseline:
    """The baseline of a week under the ledger's rules, from completed work before it.

    Lighter weeks are left out of it, unless there are no others. Of some ``figures`` alone where
    they are given.
    """
    kind = ledger.rules.baseline
    if kind == "ewma":
        return _ewma(ledger, week)
    trained = tuple(before for before in window(week) if ledger.is_trained(before))
    trained = tuple(one for one in trained if not is_lighter_week(ledger, one)) or trained
    if kind == "last_week":
        trained = trained[-1:]
    if not trained:
        return Baseline(kind, (), None)
    return Baseline(
        kind, trained, _mean([ledger.tally("completed", one) for one in trained], figures)
    )


def left_out(ledger: Ledger, found: Baseline, week: Week) -> str:
    """Which of the weeks before are not in the baseline, and why; empty where all are.

    A week that was missed, one of which most was missed, and one that was meant to be lighter are
    three things. Weeks before the first trained one are no weeks of this athlete's.
    """
    first = ledger.first_trained
    if found.kind != "mean_4" or not found.weeks or first is None:
        return ""
    told: dict[str, list[str]] = {}
    for one in window(week):
        if one not in found.weeks and one >= first:
            told.setdefault(_why_out(ledger, one), []).append(one.said)
    parts = [f"{listed(weeks)} {why}" for why, weeks in told.items()]
    return f"Left out: {', '.join(parts)}." if parts else ""


def _why_out(ledger: Ledger, week: Week) -> str:
    planned = ledger.tally("planned", week).get(TOTAL_SETS, 0.0)
    if not ledger.is_trained(week):
        return "(missed)" if planned else "(nothing planned)"
    below = _lighter_below(ledger, week)
    if ledger.kinds.get(week) in LIGHT_KINDS or below is None or planned < below:
        return "(lighter)"
    return "(mostly missed)"


def weeks_before(week: Week, count: int) -> tuple[Week, ...]:
    """So many weeks before a week, in order."""
    return tuple(week.plus(back) for back in range(-count, 0))


def window(week: Week) -> tuple[Week, ...]:
    """The four weeks before a week, in order."""
    return weeks_before(week, WINDOW)


def heaviest_before(ledger: Ledger, week: Week) -> Mapping[str, Set]:
    """Each movement's heaviest completed set in the four weeks before."""
    return top_sets(
        entry for before in window(week) for entry in ledger.entries("completed", before)
    )


def _mean(tallies: Sequence[Tally], figures: Collection[str] | None) -> Tally:
    keys = {key for tally in tallies for key in tally} if figures is None else figures
    return {key: sum(tally.get(key, 0.0) for tally in tallies) / len(tallies) for key in keys}


def _ewma(ledger: Ledger, week: Week) -> Baseline:
    """The exponentially weighted baseline of a week."""
    return next(
        (base for of_week, base in _ewmas(ledger, week) if of_week == week),
        Baseline("ewma", (), None),
    )


def _ewmas(ledger: Ledger, last: Week) -> Iterator[tuple[Week, Baseline]]:
    """By weeks, e = alpha x value + (1 - alpha) x e, from the first trained one on.

    Each week up to the last with its baseline: what went on up to the week before.
    """
    first = ledger.first_trained
    if first is None or first >= last:
        return
    ledger.sum_up("completed", first, last.plus(-1))
    alpha = ledger.rules.ewma_alpha
    values: dict[str, float] = {}
    weeks: list[Week] = []
    week = first
    while week < last:
        new = ledger.tally("completed", week)
        if not weeks:
            values = dict(new)
        else:
            values = {
                key: alpha * new.get(key, 0.0) + (1 - alpha) * values.get(key, 0.0)
                for key in values.keys() | new.keys()
            }
        weeks.append(week)
        week = week.plus(1)
        yield week, Baseline("ewma", tuple(weeks), values)


def baselines(
    ledger: Ledger, weeks: Sequence[Week], figures: Collection[str]
) -> dict[Week, Baseline]:
    """The baselines of several weeks, of some figures alone."""
    if ledger.rules.baseline == "ewma":
        found = dict(_ewmas(ledger, max(weeks)))
        return {week: found.get(week, Baseline("ewma", (), None)) for week in weeks}
    return {week: baseline(ledger, week, figures) for week in weeks}
