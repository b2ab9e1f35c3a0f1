"""A break in training, and the week before it that a return is measured by."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from dialback.core.baseline import LIGHTER_WINDOW, is_lighter_week, weeks_before
from dialback.core.once import Once
from dialback.core.tally import AsPlanned, Ledger
from dialback.core.weeks import Week


@dataclass(frozen=True, slots=True)
class Break:
    """Untrained weeks directly before a week, and the last ordinary week before them.

    ``ledger`` is the one that has the reference week as done.
    """

    weeks: int
    reference: Week
    ledger: Ledger


def break_before(ledger: Ledger, week: Week) -> Break | None:
    """The break that a week ends; ``None`` where there is none, or the rule is switched off.

    The reference is the last trained week before the break that is not lighter; the last trained
    one where none of the eight before the break is.
    """
    least, first = ledger.rules.return_after_weeks, ledger.first_trained
    if least is None or first is None:
        return None
    last = week.plus(-1)
    untrained = 0
    while last >= first and not ledger.is_trained(last):
        untrained += 1
        last = last.plus(-1)
    if last < first or untrained < least:
        return None
    ordinary = [
        one
        for one in weeks_before(last.plus(1), LIGHTER_WINDOW)
        if ledger.is_trained(one) and not is_lighter_week(ledger, one)
    ]
    return Break(untrained, ordinary[-1] if ordinary else last, ledger)


def as_planned_from(ledger: Ledger, first: Week) -> Ledger:
    """The same athlete, with every plan from that week on done as it stands."""
    return _AS_PLANNED.of(
        ledger.kept, first, lambda: ledger.but(source=AsPlanned(ledger.source, first))
    )


_AS_PLANNED: Final = Once[Week, Ledger]()


def as_planned_from_here(ledger: Ledger) -> Ledger:
    """The same athlete, with the weeks after the last completed day done as they are planned."""
    if ledger.last_done is None:
        return ledger
    return as_planned_from(ledger, Week.of(ledger.last_done).plus(1))
