"""What changes from one plan to another, in words; the week's page and the block's have it."""

from __future__ import annotations

from collections.abc import Iterable

from dialback.core.plans.ahead import MovementChange
from dialback.core.words import load_text, number


def changes_told(ahead: Iterable[MovementChange]) -> list[str]:
    """What changes from one plan to the next, a line for each movement."""
    told = []
    for one in ahead:
        if not one.sets_before:
            load = (
                f", {load_text(one.after)}"
                if one.after is not None and load_text(one.after)
                else ""
            )
            told.append(f"New: {one.movement}, {_sets(one.sets_after)}{load}.")
        elif not one.sets_after:
            told.append(f"Out: {one.movement} ({_sets(one.sets_before)}).")
        else:
            parts = []
            if one.sets_after != one.sets_before:
                parts.append(f"{_sets(one.sets_after)} instead of {number(one.sets_before)}")
            if one.before is not None and one.after is not None and one.before != one.after:
                old, new = load_text(one.before) or "no load", load_text(one.after) or "no load"
                if old != new:
                    parts.append(f"{new} instead of {old}")
            if parts:
                told.append(f"{one.movement}: {', '.join(parts)}.")
    return told


def _sets(count: int) -> str:
    return f"{count} set" if count == 1 else f"{count} sets"
