"""Verdicts of weeks that were worked out before: kept so that a start does not begin from nothing.

They are nobody's record: whatever does not stand beside the state at hand is worked out anew.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from dialback.store.models import Verdict, rows
from dialback.store.unit import silently


def kept_verdicts() -> Mapping[int, tuple[str, str]]:
    """By athlete, the state that a verdict was worked out of, and the verdict as JSON."""
    found = rows(Verdict.select(Verdict.athlete, Verdict.state, Verdict.body))
    return {athlete: (state, body) for athlete, state, body in found}


def keep_verdicts(new: Iterable[tuple[int, str, str]]) -> None:
    """Keep verdicts: athlete, state, JSON; each in the place of the athlete's last one."""
    with silently():
        for athlete, state, body in new:
            Verdict.insert(athlete=athlete, state=state, body=body).on_conflict_replace().execute()
