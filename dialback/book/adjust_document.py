"""Proposals as one JSON document."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from dialback.core.adjusting import Change, Proposal


def adjust_document(proposals: Sequence[Proposal], *, several: bool) -> dict[str, Any]:
    """The proposal of a week, or of several weeks, as the contract has it."""
    if several:
        return {"weeks": [_proposal(one) for one in proposals]}
    (one,) = proposals
    return _proposal(one)


def _proposal(proposal: Proposal) -> dict[str, Any]:
    return {
        "week": str(proposal.week),
        "sessions": [
            one.model_dump(mode="json", exclude_defaults=True) for one in proposal.sessions
        ],
        "changes": [_change(one) for one in proposal.changes],
        "cost": proposal.cost,
        "optimal": proposal.optimal,
        "ladder": [
            {"cost": one.cost, "high": one.high, "caution": one.caution} for one in proposal.ladder
        ],
        "cleared": [list(one.key) for one in proposal.cleared],
        "remaining": [
            {
                "finding": list(one.finding.key),
                "against": [list(key) for key in one.against],
                "sentence": one.sentence,
            }
            for one in proposal.remaining
        ],
    }


def _change(change: Change) -> dict[str, Any]:
    document: dict[str, Any] = {
        "date": change.day.isoformat(),
        "title": change.title,
        "line": change.line,
        "movement": change.movement,
        "from": change.count_from,
        "to": change.count_to,
        "because": [list(key) for key in change.because],
        "sentence": change.sentence,
    }
    if change.movement is None:
        document["part"] = change.part
    return document
