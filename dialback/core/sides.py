"""Left against right, and the upper against the lower body: pairs that no band is given for."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Final

from dialback.core.maxima import is_working
from dialback.core.tally import Entry
from dialback.core.vocabulary import CLASSES, MEASURES

UPPER: Final = CLASSES["push"] | CLASSES["pull"] | {"shoulder_raise", "shrug"}
LOWER: Final = CLASSES["knee"] | CLASSES["hip"] | {"hip_adduction", "hip_abduction", "calf_raise"}

Sides = dict[str, tuple[float, float]]
"""Each measure with its two sides, a and b."""


def left_right(entries: Iterable[Entry]) -> Sides:
    """What the left and the right side did, of movements that have a working set of one of them.

    A set of the left goes to a, of the right to b; one for each side gives its reps and seconds to
    both and half of its load and set to each, an alternating one half of all. Reps are the set's
    own, seconds and reps without a side factor.
    """
    working = [entry for entry in entries if is_working(entry)]
    one_sided = {_name(entry) for entry in working if entry.set.sides in ("left", "right")}
    sums = {measure: [0.0, 0.0] for measure in MEASURES}
    for entry in working:
        if _name(entry) not in one_sided or entry.set.sides == "both":
            continue
        for side, amounts in enumerate(_by_side(entry)):
            for measure, amount in zip(MEASURES, amounts, strict=True):
                sums[measure][side] += amount
    return {measure: (a, b) for measure, (a, b) in sums.items()}


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


def upper_lower(entries: Iterable[Entry]) -> Sides:
    """The sums of movements of the upper body (a) and of the lower (b)."""
    counted = [one for one in entries if one.measured.shape.standing in ("hard", "easy")]
    return {
        measure: (_of(counted, UPPER, at), _of(counted, LOWER, at))
        for at, measure in enumerate(MEASURES)
    }


def _of(entries: Iterable[Entry], patterns: frozenset[str] | set[str], at: int) -> float:
    belongs: Callable[[str], bool] = patterns.__contains__
    total = 0.0
    for entry in entries:
        measured = entry.measured
        parts = [
            part
            for move, part in zip(measured.shape.moves, measured.parts, strict=True)
            if belongs(move.movement.pattern)
        ]
        if parts:
            # A set counts once, whatever many of its moves belong.
            total += measured.shape.sets if at == 0 else sum(part[at - 1] for part in parts)
    return total
