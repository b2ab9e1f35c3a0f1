"""Beyond what a set of a movement is asked about, as a floor without a connection can tell."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from dialback.core.kit import uses_dumbbells
from dialback.core.movements import Movement
from dialback.core.notation.session import Bout
from dialback.core.sense.heard import Knowing
from dialback.core.words import weight_text

BEYOND_MAXIMUM: Final = 1.2
"""Such a share of what the athlete is expected to move once is a record that nobody plans."""
HEAVIEST_KG: Final = 350
HEAVIEST_IN_HAND_KG: Final = 80
MOST_REPS: Final = 100
"""Reps of a set by itself; those within a time, and conditioning, may have more."""
MOST_REPS_LOADED: Final = 60


@dataclass(frozen=True, slots=True)
class Bounds:
    """Up to what a set of a movement is likely, in kg and reps; ``None`` where nothing is beyond.

    ``most_kg`` is what a rep moves in all, ``unloaded_kg`` of it without a load in the hands;
    ``in_hand_kg`` is one implement. ``says`` is what is told of a load beyond them.
    """

    most_kg: float | None
    in_hand_kg: float | None
    unloaded_kg: float
    reps: int | None
    loaded_reps: int | None
    says: str

    def holds(self, moved_kg: float, load_kg: float) -> bool:
        """Whether a rep that moves so much, with such an implement, in kg, is likely."""
        if self.most_kg is not None and moved_kg > self.most_kg:
            return False
        return self.in_hand_kg is None or load_kg <= self.in_hand_kg


def bounds_of(movement: Movement, knowing: Knowing) -> Bounds:
    """The bounds of an athlete's sets of a movement, on the day that is known."""
    unit = knowing.ledger.unit
    known = knowing.strongest_kg(movement)
    most: float | None = HEAVIEST_KG
    in_hand = None
    says = "is more than almost anybody lifts: is that right?"
    if known is not None:
        best = weight_text(known, unit, 0)
        most = BEYOND_MAXIMUM * known
        says = f"is far beyond the best of eight weeks, about {best} once: is that right?"
    elif uses_dumbbells(movement):
        most, in_hand = None, HEAVIEST_IN_HAND_KG
        says = "in one hand: is that right?"
    return Bounds(
        most_kg=most,
        in_hand_kg=in_hand,
        unloaded_kg=knowing.moved_kg(movement, Bout(reps=1), 0.0, 1),
        reps=MOST_REPS if movement.counted else None,
        loaded_reps=MOST_REPS_LOADED if movement.counted else None,
        says=says,
    )
