"""Findings: rules that a week breaks, with the numbers and the sets behind them.

One module per family, each registered here. To add a finding: write its family, describe it in
``CODES`` and put the family into ``FAMILIES``.
"""

from dialback.core.findings.balance import balance_findings
from dialback.core.findings.finding import CODES, AgainstPlan, Code, Finding, WeekInHand
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
from dialback.core.findings.spacing import spacing_findings

FAMILIES = (
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
)


def find(week: WeekInHand) -> tuple[Finding, ...]:
    """All findings of a week, in the order of code, subject and measure."""
    return tuple(
        sorted(
            (finding for family in FAMILIES for finding in family(week)),
            key=lambda finding: finding.key,
        )
    )


__all__ = ["CODES", "FAMILIES", "AgainstPlan", "Code", "Finding", "WeekInHand", "find"]
