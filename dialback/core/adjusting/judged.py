"""How proposals are judged: as the ordinary audit judges a plan, but for what the start decides."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Final

from dialback.core.audit import Audit, audit_draft
from dialback.core.causes import causes
from dialback.core.findings import Finding, find
from dialback.core.findings.balance import balance_findings, pairs_with_enough
from dialback.core.findings.finding import WeekInHand
from dialback.core.findings.jumps import jump_findings
from dialback.core.findings.muscles import band_findings
from dialback.core.findings.restricted import restriction_findings
from dialback.core.findings.session import overfull_findings
from dialback.core.findings.spacing import spacing_findings
from dialback.core.sessions import Session
from dialback.core.tally import Ledger, tally
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week

FAMILIES: Final = (
    balance_findings,
    band_findings,
    jump_findings,
    spacing_findings,
    restriction_findings,
    overfull_findings,
)


class Judge:
    """The audit of proposals for a week, beside that of the plan it starts from.

    Whether the week is lighter, and which pairs are judged, is decided by the start.
    """

    def __init__(
        self,
        ledger: Ledger,
        week: Week,
        start: Sequence[Session],
        accepted: frozenset[Key] = frozenset(),
    ) -> None:
        self.ledger = ledger
        self.start: Audit = audit_draft(ledger, week, start)
        in_hand = self.start.in_hand
        self.in_hand: WeekInHand = replace(in_hand, always_weighed=pairs_with_enough(in_hand))
        restricted = {
            finding.key
            for cause in causes(self.start)
            if cause.code == "restriction"
            for finding in cause.explains
            if finding.code != "restriction"
        }
        self.aside: frozenset[Key] = frozenset(restricted) | accepted
        """Findings that nothing is changed for: meant by a restriction, or accepted."""
        self.at_start = self.of(tuple(start))

    def of(self, sessions: tuple[Session, ...]) -> dict[Key, Finding]:
        """The cautions and high findings of a proposal that count, by key."""
        entries = self.ledger.measure(sessions)
        week = replace(self.in_hand, sessions=sessions, entries=entries, tally=tally(entries))
        return {
            finding.key: finding
            for finding in find(week, FAMILIES)
            if finding.level != "note" and finding.key not in self.aside
        }


HIGH_WEIGHT: Final = 8
CAUTION_WEIGHT: Final = 3


def worse_in(one: Mapping[Key, Finding], other: Mapping[Key, Finding]) -> tuple[Key, ...]:
    """The findings above note that the one has and the other has not, or not as a high one."""
    return tuple(
        key
        for key, finding in sorted(one.items())
        if key not in other or (finding.level == "high" and other[key].level != "high")
    )


def weight_of(findings: Mapping[Key, Finding]) -> int:
    """What findings that are left weigh."""
    high, caution = counts(findings)
    return HIGH_WEIGHT * high + CAUTION_WEIGHT * caution


def counts(findings: Mapping[Key, Finding]) -> tuple[int, int]:
    """How many are high, and how many cautions."""
    high = sum(finding.level == "high" for finding in findings.values())
    return high, len(findings) - high
