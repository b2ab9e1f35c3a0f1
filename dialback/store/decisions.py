"""What coaches have decided about an athlete's findings, kept with days."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from typing import Any

from dialback.core.decisions import Decision as CoreDecision
from dialback.store.fields import legible
from dialback.store.models import Athlete, Decision

_COLUMNS = (
    "kind", "code", "subject", "measure", "level", "value", "reason", "since", "until", "ended_on",
)  # fmt: skip


def numbered_decisions(athlete: Athlete) -> dict[int, CoreDecision]:
    """The athlete's decisions by number, ended ones included, the latest first."""
    rows = (
        Decision.select()
        .where(Decision.athlete == athlete)
        .order_by(Decision.since.desc(), Decision.id.desc())
    )
    return dict(legible(rows, lambda row: (row.id, _decision(row))))


def _decision(row: Decision) -> CoreDecision:
    return CoreDecision.model_validate(
        {**{name: getattr(row, name) for name in _COLUMNS}, **row.extra}
    )


def decisions_of_all() -> Mapping[int, list[CoreDecision]]:
    """Everybody's decisions that were not taken back, by athlete."""
    found: dict[int, list[CoreDecision]] = defaultdict(list)
    rows = Decision.select().where(Decision.ended_on.is_null())
    for athlete, decision in legible(rows, _with_owner):
        found[athlete].append(decision)
    return found


def _with_owner(row: Any) -> tuple[int, CoreDecision]:
    return row.athlete_id, _decision(row)


def add_decisions(athlete: Athlete, decisions: Iterable[CoreDecision]) -> list[int]:
    """Keep decisions, in an order that they come out in again; their numbers."""
    return [
        Decision.create(
            athlete=athlete,
            extra=one.model_extra or {},
            **{name: getattr(one, name) for name in _COLUMNS},
        ).id
        for one in reversed(list(decisions))
    ]


def decision_row(athlete: Athlete, number: int) -> Decision | None:
    """The decision of that number."""
    found: Decision | None = Decision.get_or_none(
        Decision.id == number, Decision.athlete == athlete
    )
    return found
