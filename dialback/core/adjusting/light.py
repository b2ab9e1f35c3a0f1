"""Lighter weeks stay light: what a week of such a kind brings with it is not changed."""

from __future__ import annotations

from typing import Final

from dialback.core.audit import Audit
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings import Finding
from dialback.core.verdict.kinds import is_expected
from dialback.core.vocabulary import LIGHT_KINDS, Key, WeekKind

LIGHT: Final[frozenset[WeekKind]] = LIGHT_KINDS | {"test"}
"""In weeks of these kinds only what hurts or breaks a limit is proposed, and no set more."""


def light_kind(drafted: Audit) -> WeekKind | None:
    """The kind of a draft that is meant to be light, by its mark or by its sets."""
    kind = drafted.ledger.kinds.get(drafted.week)
    if kind in LIGHT:
        return kind
    return "lighter" if kind is None and drafted.in_hand.lighter else None


LEFT_ALONE: Final = "The week is meant to be light: this is left alone."


def left_alone(drafted: Audit) -> dict[Key, Finding]:
    """The findings of a draft that nothing is changed for: its kind brings them with it."""
    kind = light_kind(drafted)
    return {one.key: one for one in drafted.findings if is_expected(one, kind)}


def most_sets(drafted: Audit) -> float | None:
    """The sets that a proposal may have at most; ``None`` where the week is not to be light."""
    return drafted.value(TOTAL_SETS) if light_kind(drafted) else None
