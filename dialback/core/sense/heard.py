"""What is looked at: one dose of one movement as it was read, and what is known of the athlete."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from statistics import median
from typing import Final

from dialback.core.baseline import window
from dialback.core.maxima import Best, bests_before, load_moved
from dialback.core.movements import Movement, MovementTable
from dialback.core.notation.session import Bout
from dialback.core.once import Once
from dialback.core.sessions import Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week

FEWEST_ALIKE: Final = 5
"""From so many loads of a movement on, what is usual for somebody is known."""


class Knowing:
    """What is known of an athlete on a day, worked out when it is asked for."""

    def __init__(self, ledger: Ledger, day: date) -> None:
        self.ledger = ledger
        self.day = day

    @property
    def movements(self) -> MovementTable:
        """The movements that a text can name."""
        return self.ledger.movements

    @property
    def body_kg(self) -> float | None:
        """What the athlete weighs; ``None`` where nothing is known."""
        return self.ledger.body.on(self.day)

    def strongest_kg(self, movement: Movement) -> float | None:
        """The most that the athlete is expected to move once, in kg; ``None`` if unknown."""
        bests = _BESTS.of(self.ledger.kept, self.day, lambda: bests_before(self.ledger, self.day))
        best = bests.get(movement.name)
        return None if best is None else best.kg

    def usual_kg(self, movement: Movement) -> float | None:
        """The middle load of one implement in the weeks before, in kg; ``None`` of too few sets."""
        week = Week.of(self.day)
        loads = _LOADS.of(self.ledger.kept, week, lambda: _loads_before(self.ledger, week))
        return middle(loads.get(movement.name, []))

    def moved_kg(self, movement: Movement, bout: Bout, load_kg: float, implements: int) -> float:
        """What a rep with a load of one implement moves, with the body's share, in kg."""
        dose = {"reps": bout.reps} if bout.reps is not None else {"seconds": bout.seconds or 1.0}
        a_set = Set(exercise=movement.name, load_kg=load_kg, implements=implements, **dose)
        return load_moved(a_set, movement, self.ledger.rules, self.body_kg)


def middle(loads: Sequence[float]) -> float | None:
    """The middle one of somebody's loads of a movement; ``None`` of too few to know."""
    return median(loads) if len(loads) >= FEWEST_ALIKE else None


def is_work(a_set: Set) -> bool:
    """Whether the load of a set tells what somebody uses in a movement."""
    return a_set.exercise is not None and a_set.load_kg > 0 and not a_set.warm_up


_BESTS: Final = Once[date, dict[str, Best]]()
_LOADS: Final = Once[Week, dict[str, list[float]]]()


def _loads_before(ledger: Ledger, week: Week) -> dict[str, list[float]]:
    """The loads of the work of four weeks before one, by movement, in kg of one implement."""
    loads: dict[str, list[float]] = defaultdict(list)
    for before in window(week):
        for entry in ledger.entries("completed", before):
            if is_work(entry.set):
                loads[entry.set.exercise or ""].append(entry.set.load_kg)
    return loads


@dataclass(frozen=True, slots=True)
class Heard:
    """So many equal sets of a movement by itself, as they were read.

    Of a warm-up ``work_kg`` is the heaviest load of one implement in the work of the same movement.
    Of another reading ``means`` says in words how the dose is read otherwise.
    """

    movement: Movement
    bout: Bout
    sets: int
    knowing: Knowing
    work_kg: float | None = None
    means: str = ""

    def but(self, means: str, *, sets: int | None = None, **changes: object) -> Heard:
        """The same with something of its dose read otherwise."""
        bout = replace(self.bout, **changes)  # type: ignore[arg-type]
        return replace(self, bout=bout, sets=self.sets if sets is None else sets, means=means)

    def of(self, movement: Movement) -> Heard:
        """The same dose of another movement."""
        return replace(self, movement=movement, means=movement.name)

    @property
    def moves_kg(self) -> float | None:
        """What a rep moves, in kg; ``None`` where no load in kg is written."""
        load = self.bout.load
        if load is None or load.help:
            return None
        return self.knowing.moved_kg(self.movement, self.bout, load.kg, load.implements)
