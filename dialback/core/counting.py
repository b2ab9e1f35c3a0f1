"""Counting a set: what one set credits to every figure, under the house rules.

A figure is named by a key such as ``muscles/chest/sets``. A measured set knows its credit to
each figure it enters; a tally is the sum of those credits, so the trail of a figure is the sets
that credit it. The formulas are told in ``docs/method.md``.

Most of a count does not depend on reps and loads: what sets of one movement, tempo and side have
in common is worked out once, as their ``Shape``. Within a shape credits are linear, so a tally
may add the sets of a shape before it credits them.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from math import floor
from typing import Final, Literal, NamedTuple

from dialback.core.movements import Movement, MovementTable
from dialback.core.rules import Rules
from dialback.core.sessions import Set
from dialback.core.tempo import ASSUMED, Tempo, parse_tempo
from dialback.core.vocabulary import MUSCLE_MEASURES, PAIRS

LIMB_FACTOR: Final = {"both": 1.0, "each": 1.0, "alternating": 0.5, "left": 0.5, "right": 0.5}
"""What an average limb does of a set's reps or seconds."""
TOTAL_FACTOR: Final = {"both": 1.0, "each": 2.0, "alternating": 1.0, "left": 1.0, "right": 1.0}
"""What was done in all of a set's reps or seconds."""
_SET_CREDIT: Final = {"both": 1.0, "each": 1.0, "alternating": 1.0, "left": 0.5, "right": 0.5}

Standing = Literal["hard", "easy", "warm_up", "conditioning"]
"""How a set stands in the sums: whole, without its set, not at all, or as time kept apart."""


@dataclass(frozen=True, slots=True, eq=False)
class ShapeMove:
    """One movement's part in every set of a shape.

    Factors turn reps of the set into reps under the rules, into reps lifted in all (times kg is
    volume load) and into seconds of tension; ``timed_tut`` turns seconds of the set into tension.
    """

    movement: Movement
    reps: float
    lifts: float
    bodyweight_kg: float
    tut: float
    timed_tut: float
    hold: float


@dataclass(frozen=True, slots=True, eq=False)
class Shape:
    """What sets alike but for reps, seconds and loads have in common; equal only to itself."""

    standing: Standing
    moves: tuple[ShapeMove, ...]
    sets: float
    total: float
    rep_seconds: float
    assumed: bool
    indirect_credit: float
    partial_rep_credit: float
    estimate_reps: bool
    moving_only: bool
    pair_sides: tuple[tuple[str, ...], ...]


class MovePart(NamedTuple):
    """One movement's part in a measured set: reps under the rules, kg, seconds."""

    reps: float
    volume_load_kg: float
    tut_s: float


class MeasuredSet(NamedTuple):
    """What a set comes to. ``work_s`` is the clock; ``parts`` stand beside ``shape.moves``."""

    shape: Shape
    sets: float
    work_s: float
    estimated: bool
    parts: tuple[MovePart, ...]

    @property
    def credits(self) -> Mapping[str, float]:
        """The set's credit to every figure it enters; nothing for a set that is left out."""
        return _credits_of(self)


@lru_cache(maxsize=16384)
def _credits_of(one: MeasuredSet) -> Mapping[str, float]:
    return credit(one.shape, one.sets, one.work_s, float(one.estimated), 1, one.parts)


def is_hard(one: Set, rules: Rules) -> bool:
    """Whether exertion lets the set count towards weekly sets (warm-ups are judged apart)."""
    return one.rpe is None or rules.hard_set_rpe is None or one.rpe >= rules.hard_set_rpe


def shape_of(
    one: Set, movements: MovementTable, rules: Rules, bodyweight_kg: float | None
) -> Shape:
    """The shape of a set.

    ``bodyweight_kg`` may be ``None`` where no movement takes a share of it; a share of an
    unknown body weight counts 0. Raises ``UnknownMovementError`` for a name not in the table.
    """
    table = [(movements[name], times) for name, times in one.named_moves()]
    own_tempo = parse_tempo(one.tempo) if one.tempo else None
    tempi = [own_tempo or _tempo_of(movement) for movement, _ in table]
    # Seconds that one rep of the whole set takes; isometric moves are held, they take no share.
    rep_seconds = sum(
        times * tempo.cycle
        for (movement, times), tempo in zip(table, tempi, strict=True)
        if not movement.isometric
    )
    limb = LIMB_FACTOR[one.sides]
    total = TOTAL_FACTOR[one.sides]
    rep_factor = limb if rules.each_side_reps == "per_side" else total
    last_mover = max(
        (at for at, (movement, _) in enumerate(table) if not movement.isometric), default=None
    )

    moves = []
    for at, ((movement, times), tempo) in enumerate(zip(table, tempi, strict=True)):
        if movement.isometric:
            # Held throughout: the whole set and its hold, whatever else moves meanwhile.
            moves.append(ShapeMove(movement, 0, 0, 0, rep_seconds * limb, limb, limb))
            continue
        per_rep = times * (tempo.moving if rules.tension == "moving" else tempo.cycle)
        moves.append(
            ShapeMove(
                movement,
                reps=times * rep_factor,
                lifts=times * total,
                bodyweight_kg=movement.bodyweight_share * (bodyweight_kg or 0)
                if rules.bodyweight_load
                else 0,
                tut=per_rep * limb,
                timed_tut=per_rep / rep_seconds * limb,
                hold=limb if at == last_mover else 0,
            )
        )

    standing: Standing
    if one.warm_up and not rules.count_warm_ups:
        standing = "warm_up"
    elif not any(movement.counted for movement, _ in table):
        standing = "conditioning"
    else:
        standing = "hard" if is_hard(one, rules) else "easy"
    return Shape(
        standing,
        tuple(moves),
        sets=_SET_CREDIT[one.sides] if standing == "hard" else 0.0,
        total=total,
        rep_seconds=rep_seconds,
        assumed=own_tempo is None
        and any(movement.tempo is None and not movement.isometric for movement, _ in table),
        indirect_credit=rules.indirect_credit,
        partial_rep_credit=rules.partial_rep_credit,
        estimate_reps=rules.estimate_reps,
        moving_only=rules.tension == "moving",
        pair_sides=tuple(_pair_sides(movement, rules) for movement, _ in table),
    )


def measure(one: Set, shape: Shape) -> MeasuredSet:
    """Measure a set of that shape."""
    seconds = one.seconds
    reps: float
    if one.reps is not None:
        reps, estimated = one.reps, False
    elif shape.estimate_reps and shape.rep_seconds and seconds is not None:
        # A whole number of reps must not be lost to the last bit of a division.
        reps, estimated = floor(seconds / shape.rep_seconds + 1e-9), True
    else:
        reps, estimated = 0.0, False
    loaded_reps: float = reps
    if one.partial_reps:
        loaded_reps -= one.partial_reps * (1 - shape.partial_rep_credit)
    load = one.load_kg * one.implements
    hold = one.hold_s
    parts = tuple(
        [
            MovePart(
                reps * move.reps,
                # Help may exceed what it helps with; nobody lifts less than nothing.
                loaded_reps * move.lifts * max(load + move.bodyweight_kg, 0.0),
                (reps * move.tut if seconds is None else seconds * move.timed_tut)
                + hold * move.hold,
            )
            for move in shape.moves
        ]
    )
    duration = reps * shape.rep_seconds if seconds is None else seconds
    return MeasuredSet(shape, shape.sets, (duration + hold) * shape.total, estimated, parts)


def credit(
    shape: Shape,
    sets: float,
    work_s: float,
    estimated: float,
    count: int,
    parts: Iterable[MovePart],
) -> dict[str, float]:
    """What ``count`` sets of a shape credit to each figure, given the sums of what they come to."""
    if shape.standing == "warm_up":
        return {}
    if shape.standing == "conditioning":
        return {"totals/conditioning_s": work_s}
    found: dict[str, float] = {
        "totals/sets": sets,
        "totals/reps": 0.0,
        "totals/volume_load_kg": 0.0,
        "totals/tut_s": 0.0,
        "totals/work_s": work_s,
    }
    if estimated:
        found["totals/estimated_rep_sets"] = estimated
    if shape.assumed:
        found["totals/assumed_tempo_sets"] = count

    for move, part, pair_sides in zip(shape.moves, parts, shape.pair_sides, strict=True):
        movement = move.movement
        found["totals/reps"] += part.reps
        found["totals/volume_load_kg"] += part.volume_load_kg
        found["totals/tut_s"] += part.tut_s
        for subject in (f"patterns/{movement.pattern}", f"movements/{movement.name}", *pair_sides):
            _add(found, subject, sets, part, 1.0)
            key = f"{subject}/reps"
            found[key] = found.get(key, 0.0) + part.reps
        for muscle, role in movement.muscles.items():
            share = 1.0 if role == "direct" else shape.indirect_credit
            _add(found, f"muscles/{muscle}", sets, part, share)
    for member, side in _MUSCLE_SIDES:
        if f"muscles/{member}/sets" in found:
            for name in MUSCLE_MEASURES:
                found[f"{side}/{name}"] = found[f"muscles/{member}/{name}"]
    return found


def _add(found: dict[str, float], subject: str, sets: float, part: MovePart, share: float) -> None:
    """Credit a part to a subject: the set once, at the highest share; the sums move by move."""
    key = f"{subject}/sets"
    found[key] = max(found.get(key, 0.0), sets * share)
    key = f"{subject}/volume_load_kg"
    found[key] = found.get(key, 0.0) + part.volume_load_kg * share
    key = f"{subject}/tut_s"
    found[key] = found.get(key, 0.0) + part.tut_s * share


_MUSCLE_SIDES: Final = tuple(
    (muscle, f"balance/{pair.name}/{side}")
    for pair in PAIRS
    if pair.of == "muscle"
    for side, members in (("a", pair.a), ("b", pair.b))
    for muscle in members
)


def _tempo_of(movement: Movement) -> Tempo:
    return parse_tempo(movement.tempo) if movement.tempo else ASSUMED


def _pair_sides(movement: Movement, rules: Rules) -> tuple[str, ...]:
    """The sides of pattern pairs that a movement belongs to, as figure prefixes."""
    return tuple(
        f"balance/{pair.name}/{side}"
        for pair in PAIRS
        if pair.of == "pattern"
        and not (pair.scoped and rules.push_pull_scope == "compound" and not movement.compound)
        for side, members in (("a", pair.a), ("b", pair.b))
        if movement.pattern in members
    )
