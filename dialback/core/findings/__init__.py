"""Findings: rules that a week breaks, with the numbers and the sets behind them.

One module per family, each registered here. To add a finding: write its family, give its code a
row in ``codes`` and a section in ``docs/method.md``, and put the family into ``FAMILIES``.
"""

from collections.abc import Callable, Iterable, Iterator

from dialback.core.findings.balance import balance_findings
from dialback.core.findings.codes import BY_CODE, CODES, Code
from dialback.core.findings.course import (
    carry_over_findings,
    effort_drift_findings,
    monotony_findings,
    ready_findings,
    return_findings,
    stalled_findings,
)
from dialback.core.findings.finding import AgainstPlan, Finding, WeekInHand
from dialback.core.findings.jumps import jump_findings, load_step_findings
from dialback.core.findings.muscles import band_findings
from dialback.core.findings.plan import (
    data_gap_findings,
    missed_findings,
    off_plan_findings,
    pain_findings,
    swapped_findings,
)
from dialback.core.findings.restricted import restriction_findings
from dialback.core.findings.session import (
    no_warm_up_findings,
    order_findings,
    overfull_findings,
    side_gap_findings,
)
from dialback.core.findings.spacing import spacing_findings
from dialback.core.vocabulary import Key

Family = Callable[[WeekInHand], Iterator[Finding]]

FAMILIES: tuple[Family, ...] = (
    balance_findings,
    band_findings,
    jump_findings,
    load_step_findings,
    spacing_findings,
    off_plan_findings,
    missed_findings,
    swapped_findings,
    data_gap_findings,
    pain_findings,
    restriction_findings,
    side_gap_findings,
    order_findings,
    no_warm_up_findings,
    overfull_findings,
    carry_over_findings,
    monotony_findings,
    effort_drift_findings,
    stalled_findings,
    ready_findings,
    return_findings,
)


_BY_ORDER = (order_findings, no_warm_up_findings, load_step_findings, carry_over_findings)

BY_AMOUNT: tuple[Family, ...] = tuple(family for family in FAMILIES if family not in _BY_ORDER)
"""Those that look at how much there is. The others ask which sets there are, with which loads and
in which order: more of the same sets at the same place raise and clear none of them."""


OF_WEEKS: tuple[Family, ...] = (
    balance_findings,
    band_findings,
    spacing_findings,
    data_gap_findings,
    pain_findings,
    restriction_findings,
    side_gap_findings,
    order_findings,
    overfull_findings,
    monotony_findings,
)
"""Those whose findings last from week to week, or hurt."""


def find(week: WeekInHand, families: Iterable[Family] = FAMILIES) -> tuple[Finding, ...]:
    """All findings of a week, or some families of them, in order of code, subject and measure."""
    return tuple(
        sorted(
            (finding for family in families for finding in family(week)),
            key=lambda finding: finding.key,
        )
    )


__all__ = [
    "BY_AMOUNT",
    "BY_CODE",
    "CODES",
    "FAMILIES",
    "OF_WEEKS",
    "AgainstPlan",
    "Code",
    "Family",
    "Finding",
    "Key",
    "WeekInHand",
    "find",
]
