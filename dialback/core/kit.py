"""Kit: what the room has, and which loads can be made of it."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Final, Self

from pydantic import Field, model_validator

from dialback.core.movements import Movement, MovementTable, Name, Names, Value, fold
from dialback.core.sessions import KG_PER_LB, Set
from dialback.core.words import Unit, percent, weight_text

LOAD_TOLERANCE_KG: Final = 0.05
"""Within this a load is the one that the kit has: a pair in pounds, written in kilograms."""

_TINY: Final = 1e-9
_GRAMS: Final = 1000
_MOST_LOADS: Final = 2000

Kilograms = Annotated[float, Field(gt=0, le=1000)]
Loads = Annotated[tuple[Kilograms, ...], Field(strict=False, max_length=200)]


class Plates(Value):
    """Plates of one weight: how many pairs of them there are."""

    kg: Kilograms
    pairs: int = Field(ge=1, le=50)


class Stack(Value):
    """A machine with a stack. It serves the kit or the movements that it names."""

    name: Name
    least_kg: Kilograms
    step_kg: Kilograms
    top_kg: Kilograms
    movements: Names = Field((), max_length=60)

    @model_validator(mode="after")
    def _goes_up(self) -> Self:
        if self.top_kg < self.least_kg:
            raise ValueError(f"the stack {self.name!r} ends below its least load")
        return self


class Kit(Value):
    """What the room has. Loads in kg: of one dumbbell of a pair, of one kettlebell."""

    dumbbells_kg: Loads = ()
    kettlebells_kg: Loads = ()
    bars_kg: Loads = ()
    plates: tuple[Plates, ...] = Field((), strict=False, max_length=30)
    stacks: tuple[Stack, ...] = Field((), strict=False, max_length=60)
    bands: Names = Field((), max_length=12, description="Band levels, the lightest first")
    sensor: bool = Field(
        default=False, description="Whether a sensor of reps is used on the floor (a simulated one)"
    )


def _steps(first: float, last: float, step: float) -> tuple[float, ...]:
    count = round((last - first) / step) + 1
    return tuple(first + step * at for at in range(count))


_CABLE: Final = Stack(name="cable stack", least_kg=5, step_kg=5, top_kg=90)
_PAIRS: Final = (
    Plates(kg=20, pairs=2),
    Plates(kg=10, pairs=2),
    Plates(kg=5, pairs=1),
    Plates(kg=2.5, pairs=1),
    Plates(kg=1.25, pairs=1),
)
STARTS: Final[tuple[tuple[str, Kit], ...]] = (
    ("A bar of 20 kg with plates, 1.25 to 20 kg", Kit(bars_kg=(20,), plates=_PAIRS)),
    ("Dumbbells, 2 to 30 kg by 2", Kit(dumbbells_kg=_steps(2, 30, 2))),
    ("Kettlebells, 8 to 32 kg by 4", Kit(kettlebells_kg=_steps(8, 32, 4))),
    ("A cable stack, 5 to 90 kg by 5", Kit(stacks=(_CABLE,))),
    ("Bands: light, medium, strong", Kit(bands=("light", "medium", "strong"))),
)
"""What many rooms have, to begin the description of one with."""


def together(kits: Iterable[Kit]) -> Kit:
    """Several kits as one: each load once, rising; of plates and stacks alike the first stands."""
    kits = list(kits)

    def loads(field: str) -> tuple[float, ...]:
        return tuple(sorted({load for kit in kits for load in getattr(kit, field)}))

    plates = {plate.kg: plate for kit in reversed(kits) for plate in reversed(kit.plates)}
    stacks = {fold(stack.name): stack for kit in reversed(kits) for stack in reversed(kit.stacks)}
    return Kit(
        dumbbells_kg=loads("dumbbells_kg"),
        kettlebells_kg=loads("kettlebells_kg"),
        bars_kg=loads("bars_kg"),
        plates=tuple(sorted(plates.values(), key=lambda plate: -plate.kg)),
        stacks=tuple(reversed(stacks.values())),
        bands=tuple(dict.fromkeys(band for kit in kits for band in kit.bands)),
    )


@dataclass(frozen=True, slots=True)
class Unmade:
    """A load that cannot be made, and the nearest that can. Loads of one implement in kg."""

    movement: str
    source: str
    wanted_kg: float
    below_kg: float | None
    above_kg: float | None


@dataclass(frozen=True, slots=True)
class NoBand:
    """A band level that the room does not have."""

    band: str
    bands: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class NoKit:
    """A movement for which the room has nothing to take in the hand."""

    movement: str
    needs: tuple[str, ...]


def check(a_set: Set, kit: Kit, movements: MovementTable) -> Unmade | NoBand | NoKit | None:
    """What of a set the room cannot give; ``None`` if all is there, or nothing is known of it.

    A movement is checked against the kit that it names, where the room has loads of that kind.
    """
    known = {fold(own) for own in kit.bands}
    if a_set.band is not None and known and fold(a_set.band) not in known:
        return NoBand(a_set.band, kit.bands)
    for name, _ in a_set.named_moves():
        movement = movements[name]
        if lacks(kit, movement) and (kit.dumbbells_kg or kit.kettlebells_kg or kit.bars_kg):
            needs = tuple(one for one in movement.kit if fold(one) in _BY_HAND)
            return NoKit(movement.name, needs)
    if a_set.load_kg <= 0:
        return None
    for name, _ in a_set.named_moves():
        source, loads = loads_for(kit, movements[name])
        if loads:
            below, above = around(a_set.load_kg, loads)
            if not _near(a_set.load_kg, (below, above)):
                return Unmade(movements[name].name, source, a_set.load_kg, below, above)
    return None


def _near(load: float, found: Iterable[float | None]) -> bool:
    return any(one is not None and abs(one - load) <= LOAD_TOLERANCE_KG for one in found)


def loads_for(kit: Kit, movement: Movement) -> tuple[str, tuple[float, ...]]:
    """Where a movement's loads come from, and those that can be made, rising; empty if unknown.

    Of several sources that a movement names all loads count.
    """
    found = dict(_sources(kit, movement))
    loads = {load for several in found.values() for load in several}
    return " and ".join(found), tuple(sorted(loads))


_DUMBBELLS: Final = frozenset({"dumbbells", "dumbbell"})
_KETTLEBELLS: Final = frozenset({"kettlebell", "kettlebells"})
_BARS: Final = frozenset({"bar", "barbell"})
_BY_HAND: Final = _DUMBBELLS | _KETTLEBELLS | _BARS


def uses_bar(movement: Movement) -> bool:
    """Whether a movement is done with a bar."""
    return bool({fold(name) for name in movement.kit} & _BARS)


def uses_dumbbells(movement: Movement) -> bool:
    """Whether a movement is done with dumbbells."""
    return bool({fold(name) for name in movement.kit} & _DUMBBELLS)


def takes_a_load(movement: Movement) -> bool:
    """Whether something is in the hands: not where the body is what moves."""
    return not movement.bodyweight_share or bool({fold(name) for name in movement.kit} & _BY_HAND)


def is_loaded(movement: Movement, kit: Kit | None) -> bool:
    """Whether a movement is done with a load, as far as its kit tells."""
    named = {fold(name) for name in movement.kit}
    return bool(named & _BY_HAND) or bool(kit is not None and loads_for(kit, movement)[1])


def lacks(kit: Kit, movement: Movement) -> bool:
    """Whether it needs dumbbells, a kettlebell or a bar, and the room has none of them."""
    named = {fold(name) for name in movement.kit}
    return bool(named & _BY_HAND) and not loads_for(kit, movement)[1]


def _sources(kit: Kit, movement: Movement) -> Iterator[tuple[str, tuple[float, ...]]]:
    named = {fold(name) for name in movement.kit}
    if kit.dumbbells_kg and named & _DUMBBELLS:
        yield "dumbbells", kit.dumbbells_kg
    if kit.kettlebells_kg and named & _KETTLEBELLS:
        yield "kettlebells", kit.kettlebells_kg
    if kit.bars_kg and named & _BARS:
        yield "bar and plates", _bar_loads(kit.bars_kg, kit.plates)
    for stack in kit.stacks:
        serves = fold(movement.name) in {fold(name) for name in stack.movements}
        if serves or fold(stack.name) in named:
            yield stack.name, _stack_loads(stack)


def around(load: float, loads: tuple[float, ...]) -> tuple[float | None, float | None]:
    """The nearest loads at or below, and at or above; ``loads`` are rising."""
    at = bisect_left(loads, load)
    above = loads[at] if at < len(loads) else None
    if above is not None and abs(above - load) <= LOAD_TOLERANCE_KG:
        return above, above
    return (loads[at - 1] if at else None), above


def usual_step(load_kg: float, unit: Unit) -> float:
    """By how much a load goes up or down where nothing is known of the kit, in kg."""
    if unit == "lb":
        return 5 * KG_PER_LB
    return 2.5 if load_kg >= 20 else 1.0


def at_or_below(load: float, loads: tuple[float, ...]) -> float | None:
    """The heaviest of rising loads that is not above one; ``None`` where all are."""
    at = bisect_right(loads, load + _TINY)
    return loads[at - 1] if at else None


def _stack_loads(stack: Stack) -> tuple[float, ...]:
    least, step, top = (round(kg * _GRAMS) for kg in (stack.least_kg, stack.step_kg, stack.top_kg))
    return tuple(load / _GRAMS for load in list(range(least, top + 1, max(1, step)))[:_MOST_LOADS])


@lru_cache(maxsize=64)
def _bar_loads(bars_kg: tuple[float, ...], plates: tuple[Plates, ...]) -> tuple[float, ...]:
    """Every load of a bar with the same plates on both of its ends."""
    sums = {0}
    for plate in sorted(plates, key=lambda one: -one.kg):
        pair = round(2 * plate.kg * _GRAMS)
        sums = {one + pair * count for one in sums for count in range(plate.pairs + 1)}
        if len(sums) > _MOST_LOADS:
            sums = set(sorted(sums)[:_MOST_LOADS])
    loads = {one + round(bar * _GRAMS) for one in sums for bar in bars_kg}
    return tuple(load / _GRAMS for load in sorted(loads))


def sentence(found: Unmade | NoBand | NoKit, unit: Unit) -> str:
    """What cannot be made, and what is nearest, with the step in per cent."""
    if isinstance(found, NoBand):
        return f"no band is called {found.band}: the room has {', '.join(found.bands)}"
    if isinstance(found, NoKit):
        return (
            f"{found.movement} needs {' or '.join(found.needs)}, which the kit does not have: "
            "take another movement, or add it in Kit"
        )
    nearest = " or ".join(
        f"{weight_text(load, unit)} ({percent(load / found.wanted_kg - 1)})"
        for load in (found.below_kg, found.above_kg)
        if load is not None
    )
    return (
        f"{weight_text(found.wanted_kg, unit)} cannot be made of the {found.source}: take {nearest}"
    )
