"""The audit of a draft, as the Dial and Write show it."""

from __future__ import annotations

from collections.abc import Sequence

from dialback.core.adjusting.light import left_alone
from dialback.core.audit import audit, audit_draft
from dialback.core.findings.difference import difference
from dialback.core.movements import MovementTable
from dialback.core.plans.dial import dial_total, turns
from dialback.core.plans.draft import DraftSession, Line, as_sessions
from dialback.core.sessions import Session
from dialback.core.tally import AsPlanned, Ledger
from dialback.core.verdict import by_urgency
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week
from dialback.core.words import describe, movement_text
from dialback.store.athletes import Athlete
from dialback.store.judgements import acceptances
from dialback.web.shapes.drafts import DraftAudit, DraftSet
from dialback.web.sheet import (
    TwoSides,
    finding_out,
    pair_rows,
    rows,
)

FINE_STEP_KG = 1.0
COARSE_STEP_KG = 2.5
COARSE_FROM_KG = 20.0
"""From this load of one implement on, a bar with plates is likely: its steps are coarser."""


def audited(ledger: Ledger, week: Week, sessions: Sequence[DraftSession]) -> DraftAudit:
    """The audit of sessions as the plan of a week, against the plan that is published."""
    draft = audit_draft(ledger, week, as_sessions(sessions))
    published = audit(ledger, week, "planned")
    findings = by_urgency(draft.findings)
    changed = difference(published.findings, draft.findings)
    appeared = {finding.key for finding in changed.appeared}
    sides = TwoSides(draft, published, draft)
    totals, muscles, _ = rows(sides, findings)
    return DraftAudit(
        total=dial_total(sessions, ledger.movements),
        as_planned=isinstance(ledger.source, AsPlanned),
        totals=totals,
        pairs=pair_rows(sides, findings),
        muscles=muscles,
        findings=[finding_out(finding, {}) for finding in findings],
        cleared=[finding_out(finding, {}) for finding in by_urgency(changed.cleared)],
        appeared=[at for at, one in enumerate(findings) if one.key in appeared],
        lines=[[_words(line, ledger.movements) for line in day.lines] for day in sessions],
    )


def _words(line: Line, movements: MovementTable) -> DraftSet:
    unit = line.units[0]
    coarse = unit[0].implements == 1 and unit[0].load_kg >= COARSE_FROM_KG
    names = dict.fromkeys(movement_text(a_set) for a_set in unit)
    return DraftSet(
        movement=", ".join(names),
        text="; ".join(f"{movement_text(a_set)} {describe(a_set)}" for a_set in unit)
        if line.kind == "rounds"
        else "; ".join(describe(a_set) for a_set in unit),
        load_step_kg=COARSE_STEP_KG if coarse else FINE_STEP_KG,
        turns=turns(line, movements),
    )


def accepted_in(
    athlete: Athlete, ledger: Ledger, week: Week, sessions: Sequence[Session]
) -> frozenset[Key]:
    """The findings of a plan that nothing is changed for: accepted, or part of a lighter week."""
    known = acceptances(athlete, week, "planned")
    drafted = audit_draft(ledger, week, sessions)
    accepted = (one.key for one in drafted.findings if known and finding_out(one, known).accepted)
    return frozenset(left_alone(drafted)) | frozenset(accepted)
