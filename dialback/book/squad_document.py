"""The audit of a squad as one JSON document, and as a table."""

from __future__ import annotations

from typing import Any

from dialback.book.audit_document import audit_document, schools_document
from dialback.core.findings import BY_CODE
from dialback.core.squads import SquadAudit, SquadCause
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
    lines += [""] if result.causes else ["They have no cause in common.", ""]
    for member, own in zip(result.members, result.audits, strict=True):
        counts = {
            level: sum(finding.level == level for finding in own.findings)
            for level in ("high", "caution")
        }
        worst = next((one for one in own.findings if BY_CODE[one.code].hurts), None)
        told = f": {worst.sentence}" if worst else ""
        lines.append(f"{member.name}: {counts['high']} high, {counts['caution']} caution{told}")
    return "\n".join(lines)
