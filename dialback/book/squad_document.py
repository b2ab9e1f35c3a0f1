"""The audit and the proposal of a squad as JSON documents, and as tables."""

from __future__ import annotations

from typing import Any

from dialback.book.adjust_document import (
    change_document,
    ladder_document,
    remaining_document,
    sessions_document,
)
from dialback.book.audit_document import audit_document, schools_document
from dialback.core.findings import BY_CODE
from dialback.core.squads import SquadAudit, SquadCause
from dialback.core.squads.adjusting import Levels, Outcome, SquadProposal
from dialback.core.words import listed


def squad_document(result: SquadAudit, name: str, *, schools: bool = False) -> dict[str, Any]:
    """The audit of a squad as the contract has it; with the findings under each school if asked."""
    athletes = []
    for member, own in zip(result.members, result.audits, strict=True):
        document = audit_document(own, member.name)
        if schools:
            document["schools"] = schools_document(member.ledger, result.week, result.basis)
        athletes.append(document)
    return {
        "squad": name,
        "week": str(result.week),
        "basis": result.basis,
        "athletes": athletes,
        "causes": [_cause(cause) for cause in result.causes],
    }


def _cause(cause: SquadCause) -> dict[str, Any]:
    return {
        "code": cause.code,
        "subject": cause.subject,
        "sentence": cause.sentence,
        "athletes": list(cause.athletes),
        "explains": [[one.athlete, *one.finding.key] for one in cause.explains],
    }


def squad_table(result: SquadAudit, name: str) -> str:
    """What the athletes have in common, and a line for each of them."""
    lines = [f"{name}, week {result.week}, {result.basis}: {len(result.members)} athletes", ""]
    for cause in result.causes:
        lines.append(cause.sentence)
        lines.append(f"  {len(cause.explains)} findings of {listed(list(cause.athletes))}")
    lines += [""] if result.causes else ["No causes in common.", ""]
    for member, own in zip(result.members, result.audits, strict=True):
        counts = Levels.of(own.findings)
        worst = next((one for one in own.findings if BY_CODE[one.code].hurts), None)
        told = f": {worst.sentence}" if worst else ""
        lines.append(f"{member.name}: {counts.high} high, {counts.caution} caution{told}")
    return "\n".join(lines)


def squad_adjust_document(proposal: SquadProposal, name: str) -> dict[str, Any]:
    """The proposal of a squad as the contract has it."""
    return {
        "squad": name,
        "week": str(proposal.week),
        "shared": [
            {
                "subject": one.title,
                "athletes": list(one.athletes),
                "changes": [change_document(change) for change in one.changes],
            }
            for one in proposal.shared
        ],
        "exceptions": [
            {
                "athlete": one.athlete,
                "changes": [change_document(change) for change in one.changes],
            }
            for one in proposal.exceptions
        ],
        "athletes": [_outcome(one) for one in proposal.athletes],
        "cost": proposal.cost,
        "optimal": proposal.optimal,
        "ladder": ladder_document(proposal.ladder),
        "stop": proposal.stop,
        "why": proposal.why,
    }


def _outcome(one: Outcome) -> dict[str, Any]:
    return {
        "athlete": one.member.name,
        "sessions": sessions_document(one.sessions),
        "before": {"high": one.before.high, "caution": one.before.caution},
        "after": {"high": one.after.high, "caution": one.after.caution},
        "cleared": [list(finding.key) for finding in one.cleared],
        "remaining": [remaining_document(left) for left in one.remaining],
    }


def squad_adjust_table(proposal: SquadProposal, name: str) -> str:
    """One change for all, the exceptions, and what comes of it for everybody."""
    lines = [f"{name}, week {proposal.week}: cost {proposal.cost}. {proposal.why}", ""]
    for shared in filter(lambda one: one.changes, proposal.shared):
        lines.append(f"{shared.title} ({len(shared.athletes)} athletes)")
        lines += [f"  {change.sentence}" for change in shared.changes]
    for apart in proposal.exceptions:
        lines.append(f"Only {apart.athlete}")
        lines += [f"  {change.sentence}" for change in apart.changes]
    if not proposal.exceptions and not any(one.changes for one in proposal.shared):
        lines.append("Nothing is changed.")
    lines.append("")
    for one in proposal.athletes:
        before, after = one.before, one.after
        lines.append(
            f"{one.member.name}: {before.high} high and {before.caution} caution before, "
            f"{after.high} and {after.caution} after"
        )
    return "\n".join(lines)
