"""What changes from one week's sessions to another's, movement by movement."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from dialback.core.sessions import Session, Set
from dialback.core.words import movement_text


@dataclass(frozen=True, slots=True)
class MovementChange:
    """A movement in two weeks: its sets, warm-ups aside, and the heaviest of them; 0 for none."""

    movement: str
    sets_before: int
    sets_after: int
    before: Set | None
    after: Set | None


def changes_between(
    before: Iterable[Session], after: Iterable[Session]
) -> tuple[MovementChange, ...]:
    """Every movement of the two weeks, those of the later one first, as they stand there."""
    old, new = _by_movement(before), _by_movement(after)
    return tuple(
        MovementChange(
            name,
            len(old.get(name, ())),
            len(new.get(name, ())),
            _heaviest(old.get(name, [])),
            _heaviest(new.get(name, [])),
        )
        for name in dict.fromkeys((*new, *old))
    )


def _by_movement(sessions: Iterable[Session]) -> dict[str, list[Set]]:
    found: dict[str, list[Set]] = {}
    for session in sessions:
        for a_set in session.sets:
            if not a_set.warm_up:
                found.setdefault(movement_text(a_set), []).append(a_set)
    return found


def _heaviest(sets: list[Set]) -> Set | None:
    return max(sets, key=lambda a_set: a_set.total_load_kg, default=None)
