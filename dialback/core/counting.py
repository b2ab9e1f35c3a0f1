"""Counting a set: what one set credits to every figure, under the house rules.

A figure is named by a key such as ``muscles/chest/sets``. A measured set knows its credit to
each figure it enters; a tally is the sum of those credits, so the trail of a figure is the sets
that credit it. The formulas are told in ``docs/method.md``.

Most of a count does not depend on reps and loads: what sets of one movement, tempo and side have
in common is worked out once, as their ``Shape``. What a set comes to is a row of amounts; what it
credits is a linear map of that row, the shape's ``plan``. So a tally may add the rows of a shape
before it credits them.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import floor
from typing import Final, Literal, NamedTuple

from dialback.core.movements import Movement, MovementTable
from dialback.core.rules import Rules
from dialback.core.sessions import Set
from dialback.core.tempo import ASSUMED, Tempo, parse_tempo
from dialback.core.vocabulary import MUSCLES, PAIRS

LIMB_FACTOR: Final = {"both": 1.0, "each": 1.0, "alternating": 0.5, "left": 0.5, "right": 0.5}
"""What an average limb does of a set's reps or seconds."""
TOTAL_FACTOR: Final = {"both": 1.0, "each": 2.0, "alternating": 1.0, "left": 1.0, "right": 1.0}
"""What was done in all of a set's reps or seconds."""
_SET_CREDIT: Final = {"both": 1.0, "each": 1.0, "alternating": 1.0, "left": 0.5, "right": 0.5}

_MUSCLE_SIDES: Final = {
    muscle: [
        f"balance/{pair.name}/{side}"
        for pair in PAIRS
        if pair.of == "muscle"
        for side, members in (("a", pair.a), ("b", pair.b))
        if muscle in members
    ]
    for muscle in MUSCLES
}
"""The sides of muscle pairs that a muscle belongs to, as figure prefixes."""

Standing = Literal["hard", "easy", "warm_up", "conditioning"]
"""How a set stands in the sums: whole, without its set, not at all, or as time kept apart."""


@dataclass(frozen=True, slots=True, eq=False)
class ShapeMove:
    """One movement's part in every set of a shape.

    Factors turn reps of the set into reps under the rules, into reps lifted in all (times kg is
    volume load) and into seconds of tension; ``timed_tut`` turns seconds of the set into tension.
    ``whole_tut`` and ``whole_timed_tut`` are the same for all phases, whatever the rule says.
    """

    movement: Movement
    reps: float
    lifts: float
    bodyweight_kg: float
    tut: float
    timed_tut: float
    hold: float
    whole_tut: float
    whole_timed_tut: float


SETS, WORK_S, ESTIMATED, COUNT = range(4)
"""Where a row of amounts has the set's own; after them stand three for each move."""
REPS, VOLUME_LOAD_KG, TUT_S = range(3)
_PER_MOVE: Final = 3


@dataclass(frozen=True, slots=True, eq=False)
class Shape:
    """What sets alike but for reps, seconds and loads have in common; equal only to itself.

    ``plan`` says which figure takes which place of the row of amounts, and what share of it.
    """

    standing: Standing
    moves: tuple[ShapeMove, ...]
    limb: float
    sets: float
    total: float
    rep_seconds: float
    assumed: bool
    indirect_credit: float
    partial_rep_credit: float
    estimate_reps: bool
    measured_tension: bool
    moving_only: bool
    pair_sides: tuple[tuple[str, ...], ...]
    plan: tuple[tuple[str, int, float], ...]

    def credit(self, amounts: Sequence[float], to: defaultdict[str, float]) -> None:
        """Add what a row of amounts, of one set or of many, credits to each figure."""
        for key, place, share in self.plan:
            to[key] += amounts[place] * share


class MovePart(NamedTuple):
    """One movement's part in a measured set: reps under the rules, kg, seconds."""

    reps: float
    volume_load_kg: float
    tut_s: float


class MeasuredSet(NamedTuple):
    """What a set comes to, as a row of amounts, and the shape that says what they credit."""

    shape: Shape
    amounts: tuple[float, ...]

    @property
    def estimated(self) -> bool:
        """Whether the reps come from the seconds."""
        return bool(self.amounts[ESTIMATED])

    @property
    def work_s(self) -> float:
        """Seconds on the clock."""
        return self.amounts[WORK_S]

    @property
    def parts(self) -> tuple[MovePart, ...]:
        """The parts of the moves, beside ``shape.moves``."""
        rows = range(COUNT + 1, len(self.amounts), _PER_MOVE)
        return tuple(MovePart(*self.amounts[at : at + _PER_MOVE]) for at in rows)

    @property
    def credits(self) -> Mapping[str, float]:
        """The set's credit to every figure it enters; nothing for a set that is left out."""
        return _credits_of(self)


@lru_cache(maxsize=16384)
def _credits_of(measured: MeasuredSet) -> Mapping[str, float]:
    found: defaultdict[str, float] = defaultdict(float)
    measured.shape.credit(measured.amounts, found)
    return dict(found)


def is_hard(a_set: Set, rules: Rules) -> bool:
    """Whether exertion lets the set count towards weekly sets (warm-ups are judged apart)."""
    return a_set.rpe is None or rules.hard_set_rpe is None or a_set.rpe >= rules.hard_set_rpe


def shape_of(
    a_set: Set, movements: MovementTable, rules: Rules, bodyweight_kg: float | None
) -> Shape:
    """The shape of a set.

    ``bodyweight_kg`` may be ``None`` where no movement takes a share of it; a share of an
    unknown body weight counts 0. Raises ``UnknownMovementError`` for a name not in the table.
    """
    table = [(movements[name], times) for name, times in a_set.named_moves()]
    own_tempo = parse_tempo(a_set.tempo) if a_set.tempo else None
    tempi = [own_tempo or _tempo_of(movement) for movement, _ in table]
    # Seconds that one rep of the whole set takes; isometric moves are held, they take no share.
    rep_seconds = sum(
        times * tempo.cycle
        for (movement, times), tempo in zip(table, tempi, strict=True)
        if not movement.isometric
    )
    limb = LIMB_FACTOR[a_set.sides]
    total = TOTAL_FACTOR[a_set.sides]
    rep_factor = limb if rules.each_side_reps == "per_side" else total
    strength = any(movement.counted for movement, _ in table)
    last_mover = max(
        (
            at
            for at, (movement, _) in enumerate(table)
            if not movement.isometric and (movement.counted or not strength)
        ),
        default=None,
    )

    moves = []
    for at, ((movement, times), tempo) in enumerate(zip(table, tempi, strict=True)):
        if strength and not movement.counted:
            # Skipping between presses takes its time and enters no strength sum.
            moves.append(ShapeMove(movement, 0, 0, 0, 0, 0, 0, 0, 0))
            continue
        if movement.isometric:
            # Held throughout: the whole set and its hold, whatever else moves meanwhile.
            whole = rep_seconds * limb
            moves.append(ShapeMove(movement, 0, 0, 0, whole, limb, limb, whole, limb))
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
                whole_tut=times * tempo.cycle * limb,
                whole_timed_tut=times * tempo.cycle / rep_seconds * limb,
            )
        )

    standing: Standing
    if a_set.warm_up and not rules.count_warm_ups:
        standing = "warm_up"
    elif not any(movement.counted for movement, _ in table):
        standing = "conditioning"
    else:
        standing = "hard" if is_hard(a_set, rules) else "easy"
    assumed = own_tempo is None and any(
        movement.tempo is None and not movement.isometric for movement, _ in table
    )
    pair_sides = tuple(_pair_sides(movement, rules) for movement, _ in table)
    return Shape(
        standing,
        tuple(moves),
        limb=limb,
        sets=_SET_CREDIT[a_set.sides] if standing == "hard" else 0.0,
        total=total,
        rep_seconds=rep_seconds,
        assumed=assumed,
        indirect_credit=rules.indirect_credit,
        partial_rep_credit=rules.partial_rep_credit,
        estimate_reps=rules.estimate_reps,
        measured_tension=rules.measured_tension,
        moving_only=rules.tension == "moving",
        pair_sides=pair_sides,
        plan=_plan(standing, moves, pair_sides, rules.indirect_credit, assumed=assumed),
    )


def measure(a_set: Set, shape: Shape) -> MeasuredSet:
    """Measure a set of that shape."""
    seconds = a_set.seconds
    reps: float
    estimated = 0
    if a_set.reps is not None:
        reps = a_set.reps
    elif shape.estimate_reps and shape.rep_seconds and seconds is not None:
        # A whole number of reps must not be lost to the last bit of a division.
        reps, estimated = floor(seconds / shape.rep_seconds + 1e-9), 1
    else:
        reps = 0
    loaded_reps: float = reps
    if a_set.partial_reps:
        loaded_reps -= a_set.partial_reps * (1 - shape.partial_rep_credit)
    load = a_set.load_kg * a_set.implements
    hold = a_set.hold_s
    duration = reps * shape.rep_seconds if seconds is None else seconds
    measured = _measured_shares(a_set, shape, reps)
    amounts: tuple[float, ...] = (shape.sets, (duration + hold) * shape.total, estimated, 1)
    for at, move in enumerate(shape.moves):
        # Help may exceed what it helps with; nobody lifts less than nothing.
        lifted = load + move.bodyweight_kg
        if lifted < 0:
            lifted = 0.0
        if measured is not None:
            tut = measured[at]
        else:
            tut = reps * move.tut if seconds is None else seconds * move.timed_tut
            tut += hold * move.hold
        amounts += (reps * move.reps, loaded_reps * move.lifts * lifted, tut)
    return MeasuredSet(shape, amounts)


def _measured_shares(a_set: Set, shape: Shape, reps: float) -> list[float] | None:
    """The measured tension of each move; ``None`` where none was measured or none is to count.

    A measurement is of the whole set, its hold included; it says nothing of the clock. Moves share
    it in proportion to their tensions over all phases, those that are held among them.
    """
    if a_set.measured_tension_s is None or not shape.measured_tension:
        return None
    seconds = a_set.seconds
    whole = [
        (reps * move.whole_tut if seconds is None else seconds * move.whole_timed_tut)
        + a_set.hold_s * move.hold
        for move in shape.moves
    ]
    total = sum(whole)
    measured = a_set.measured_tension_s * shape.limb
    if not total:
        return [measured / len(whole)] * len(whole)
    return [measured * share / total for share in whole]


def _plan(
    standing: Standing,
    moves: Sequence[ShapeMove],
    pair_sides: Sequence[tuple[str, ...]],
    indirect_credit: float,
    *,
    assumed: bool,
) -> tuple[tuple[str, int, float], ...]:
    """Which figure takes which amount: a set once, at its highest share; the sums move by move."""
    if standing == "warm_up":
        return ()
    if standing == "conditioning":
        return (("totals/conditioning_s", WORK_S, 1.0),)
    set_shares: dict[str, float] = {"totals": 1.0}
    plan = [("totals/work_s", WORK_S, 1.0), ("totals/estimated_rep_sets", ESTIMATED, 1.0)]
    if assumed:
        plan.append(("totals/assumed_tempo_sets", COUNT, 1.0))
    for at, (move, sides) in enumerate(zip(moves, pair_sides, strict=True)):
        first = COUNT + 1 + at * _PER_MOVE
        movement = move.movement
        if not movement.counted:
            continue
        whole = ("totals", f"patterns/{movement.pattern}", f"movements/{movement.name}", *sides)
        plan += [(f"{subject}/reps", first + REPS, 1.0) for subject in whole]
        shares = dict.fromkeys(whole, 1.0)
        for muscle, role in movement.muscles.items():
            share = 1.0 if role == "direct" else indirect_credit
            shares |= dict.fromkeys((f"muscles/{muscle}", *_MUSCLE_SIDES.get(muscle, ())), share)
        for subject, share in shares.items():
            set_shares[subject] = max(set_shares.get(subject, 0.0), share)
            plan.append((f"{subject}/volume_load_kg", first + VOLUME_LOAD_KG, share))
            plan.append((f"{subject}/tut_s", first + TUT_S, share))
    plan += [(f"{subject}/sets", SETS, share) for subject, share in set_shares.items()]
    return tuple(plan)


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
