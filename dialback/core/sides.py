"""Left against right, over the movements that have a working set of one side."""

from __future__ import annotations

from collections.abc import Iterable

from dialback.core.maxima import is_working
from dialback.core.measures import MEASURES
from dialback.core.tally import Entry

Sides = dict[str, tuple[float, float]]
"""Each measure with its two sides, a and b."""


def left_right(entries: Iterable[Entry]) -> Sides:
    """What the left and the right side did, of movements that have a working set of one of them."""
    movements = movement_sides(entries).values()
    return {
        measure: (
            sum(sides[measure][0] for sides in movements),
            sum(sides[measure][1] for sides in movements),
        )
        for measure in MEASURES
    }


def movement_sides(entries: Iterable[Entry]) -> dict[str, Sides]:
    """The two sides of each movement that has a working set of one side, by name.

    A set of the left goes to a, of the right to b; one for each side gives its reps and seconds to
    both and half of its load and set to each, an alternating one half of all. Reps are the set's
    own, seconds and reps without a side factor. Sets of both sides at once are left out.
    """
    working = [entry for entry in entries if is_working(entry)]
    one_sided = {_name(entry): True for entry in working if entry.set.sides in ("left", "right")}
    sums = {name: {measure: [0.0, 0.0] for measure in MEASURES} for name in one_sided}
    for entry in working:
        movement = sums.get(_name(entry))
        if movement is None or entry.set.sides == "both":
            continue
        for side, amounts in enumerate(_by_side(entry)):
            for measure, amount in zip(MEASURES, amounts, strict=True):
                movement[measure][side] += amount
    return {
        name: {measure: (a, b) for measure, (a, b) in sides.items()} for name, sides in sums.items()
    }


def _name(entry: Entry) -> str:
    return entry.measured.shape.moves[0].movement.name


def _by_side(entry: Entry) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Sets, reps, volume load and seconds of the left and of the right."""
    measured = entry.measured
    (part,) = measured.parts
    (move,) = measured.shape.moves
    # Without the factors that make an average limb of them.
    reps = part.reps / move.reps if move.reps else 0.0
    seconds = part.tut_s / measured.shape.limb
    sets, load = measured.shape.sets, part.volume_load_kg
    none = (0.0, 0.0, 0.0, 0.0)
    match entry.set.sides:
        case "left":
            return (sets, reps, load, seconds), none
        case "right":
            return none, (sets, reps, load, seconds)
        case "each":
            both = (sets / 2, reps, load / 2, seconds)
        case _:
            both = (sets / 2, reps / 2, load / 2, seconds / 2)
    return both, both
