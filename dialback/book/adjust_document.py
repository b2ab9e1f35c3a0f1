"""Proposals as one JSON document."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from dialback.core.adjusting import Change, Proposal, Remaining, Rung
from dialback.core.progress import Progress, Way
from dialback.core.sessions import Session


def adjust_document(
    proposals: Sequence[Proposal],
    *,
    several: bool,
    progress: Sequence[Progress] | None = None,
) -> dict[str, Any]:
    """The proposal of a week, or of several weeks, as the contract has it.

    ``progress`` are the next steps of the first week's movements, where they were asked for.
    """
    if progress is not None:
        document = adjust_document(proposals, several=several)
        return document | {"progress": [_next_step(step) for step in progress]}
    if several:
        return {"weeks": [_proposal(proposal) for proposal in proposals]}
    (one,) = proposals
    return _proposal(one)


def _proposal(proposal: Proposal) -> dict[str, Any]:
    return {
        "week": str(proposal.week),
        "sessions": sessions_document(proposal.sessions),
        "changes": [change_document(change) for change in proposal.changes],
        "cost": proposal.cost,
        "optimal": proposal.optimal,
        "stop": proposal.stop,
        "why": proposal.why,
        "ladder": ladder_document(proposal.ladder),
        "cleared": [list(finding.key) for finding in proposal.cleared],
        "remaining": [remaining_document(left) for left in proposal.remaining],
    }


def _next_step(step: Progress) -> dict[str, Any]:
    return {
        "movement": step.movement,
        "rule": step.rule,
        "course": step.course,
        "from": step.before,
        "to": step.way.told,
        "because": step.because,
        **_way(step.way),
        "alternatives": [{**_way(way), "to": way.told} for way in step.ways[1:]],
    }


def _way(way: Way) -> dict[str, Any]:
    return {"kind": way.kind, "says": way.says, "effect": dict(way.effect)}


def sessions_document(sessions: Iterable[Session]) -> list[dict[str, Any]]:
    """Proposed sessions in the book's form."""
    return [session.model_dump(mode="json", exclude_defaults=True) for session in sessions]


def ladder_document(ladder: Iterable[Rung]) -> list[dict[str, int]]:
    """A ladder, rung by rung."""
    return [{"cost": one.cost, "high": one.high, "caution": one.caution} for one in ladder]


def remaining_document(left: Remaining) -> dict[str, Any]:
    """A finding that stays."""
    return {
        "finding": list(left.finding.key),
        "rung": left.rung,
        "against": [list(key) for key in left.against],
        "sentence": left.sentence,
    }


def change_document(change: Change) -> dict[str, Any]:
    """A line that changes."""
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
