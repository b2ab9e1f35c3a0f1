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
from functools import cache, lru_cache
from math import floor
from typing import Final, Literal, NamedTuple

from dialback.core.figures import IN_ALL, as_movement, as_muscle, as_pattern, as_side, in_total, of
from dialback.core.movements import Movement, MovementTable
from dialback.core.rules import Rules
from dialback.core.sessions import Set, Sides
from dialback.core.tempo import ASSUMED, Tempo, parse_tempo
from dialback.core.vocabulary import MUSCLES, PAIRS, Pattern

LIMB_FACTOR: Final = {"both": 1.0, "each": 1.0, "alternating": 0.5, "left": 0.5, "right": 0.5}
"""What an average limb does of a set's reps or seconds."""
TOTAL_FACTOR: Final = {"both": 1.0, "each": 2.0, "alternating": 1.0, "left": 1.0, "right": 1.0}
"""What was done in all of a set's reps or seconds."""
_SET_CREDIT: Final = {"both": 1.0, "each": 1.0, "alternating": 1.0, "left": 0.5, "right": 0.5}

_MUSCLE_SIDES: Final = {
    muscle: [
        as_side(pair.name, side)
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

    ``plan`` says which figures take which place of the row of amounts, and what share of it.
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
    plan: tuple[tuple[int, float, tuple[str, ...]], ...]

    def credit(self, amounts: Sequence[float], to: defaultdict[str, float]) -> None:
        """Add what a row of amounts, of one set or of many, credits to each figure."""
        for place, share, keys in self.plan:
            amount = amounts[place] * share
            for key in keys:
                to[key] += amount


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


class Kind(NamedTuple):
    """What of a set its shape follows from: names with their times, sides, tempo, effort.

    ``own_sides`` are those of the moves of a combination, where any has its own.
    """

    moves: tuple[tuple[str, float], ...]
    sides: Sides
    tempo: str | None
    warm_up: bool
    hard: bool
    static: bool = False
    own_sides: tuple[Sides, ...] = ()


NOT_ADDED: Final = ("range", "loads", "static")
"""Keys of sets that are measured one by one."""


class Added(NamedTuple):
    """What sets of one kind come to added up: those of a single movement, with reps of their own,
    without help, measured tension or any of ``NOT_ADDED``. What one of them credits is linear in
    all of these.
    """

    sets: int
    reps: float
    untimed_reps: float
    """Reps of the sets without seconds."""
    seconds: float
    hold_s: float
    kg_reps: float
    """Reps x load x implements."""
    partial_reps: float
    partial_kg_reps: float


def is_hard(a_set: Set, rules: Rules) -> bool:
    """Whether exertion lets the set count towards weekly sets (warm-ups are judged apart)."""
    return a_set.rpe is None or rules.hard_set_rpe is None or a_set.rpe >= rules.hard_set_rpe


def kind_of(a_set: Set, rules: Rules) -> Kind:
    """The kind of a set."""
    own: tuple[Sides, ...] = ()
    if a_set.moves is not None and any(move.sides is not None for move in a_set.moves):
        own = tuple(move.sides or a_set.sides for move in a_set.moves)
    return Kind(
        a_set.named_moves(),
        a_set.sides,
        a_set.tempo,
        a_set.warm_up,
        is_hard(a_set, rules),
        a_set.static,
        own,
    )


def shape_of(
    kind: Kind, movements: MovementTable, rules: Rules, bodyweight_kg: float | None
) -> Shape:
    """The shape of the sets of a kind.

    ``bodyweight_kg`` may be ``None`` where no movement takes a share of it; a share of an
    unknown body weight counts 0. Raises ``UnknownMovementError`` for a name not in the table.
    """
    table = [(movements[name], times) for name, times in kind.moves]
    own_tempo = parse_tempo(kind.tempo) if kind.tempo else None
    tempi = [own_tempo or _tempo_of(movement) for movement, _ in table]
    held = [movement.isometric or kind.static for movement, _ in table]
    # Seconds that one rep of the whole set takes; isometric moves are held, they take no share.
    rep_seconds = sum(
        times * tempo.cycle
        for (_, times), tempo, still in zip(table, tempi, held, strict=True)
        if not still
    )
    strength = any(movement.counted for movement, _ in table)
    last_mover = max(
        (
            at
            for at, (movement, _) in enumerate(table)
            if not held[at] and (movement.counted or not strength)
        ),
        default=None,
    )

    moves = []
    for at, ((movement, times), tempo) in enumerate(zip(table, tempi, strict=True)):
        sides = kind.own_sides[at] if kind.own_sides else kind.sides
        limb, total = LIMB_FACTOR[sides], TOTAL_FACTOR[sides]
        rep_factor = limb if rules.each_side_reps == "per_side" else total
        whole_cycle = times * tempo.cycle * limb
        if strength and not movement.counted:
            # Skipping between presses takes its time, of a measurement too, and enters no sum.
            taken = 0.0 if held[at] else whole_cycle
            share = taken / rep_seconds if taken else 0.0
            moves.append(ShapeMove(movement, 0, 0, 0, 0, 0, 0, taken, share))
            continue
        if held[at]:
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
                whole_tut=whole_cycle,
                whole_timed_tut=whole_cycle / rep_seconds,
            )
        )

    standing: Standing
    if kind.warm_up and not rules.count_warm_ups:
        standing = "warm_up"
    elif not any(movement.counted for movement, _ in table):
        standing = "conditioning"
    else:
        standing = "hard" if kind.hard else "easy"
    assumed = own_tempo is None and any(
        movement.tempo is None and not still
        for (movement, _), still in zip(table, held, strict=True)
    )
    every = rules.push_pull_scope != "compound"
    pair_sides = tuple(
        _pair_sides(movement.pattern, scoped_too=every or movement.compound)
        for movement, _ in table
    )
    return Shape(
        standing,
        tuple(moves),
        limb=LIMB_FACTOR[kind.sides],
        sets=_SET_CREDIT[kind.sides] if standing == "hard" else 0.0,
        total=TOTAL_FACTOR[kind.sides],
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
    if a_set.loads is not None:
        return _measure_pieces(a_set, shape)
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
    partial = reps if a_set.is_partial else a_set.partial_reps
    loaded_reps = reps - partial * (1 - shape.partial_rep_credit) if partial else reps
    loads = loads_of(a_set)
    hold = a_set.hold_s
    duration = reps * shape.rep_seconds if seconds is None else seconds
    measured = _measured_shares(a_set, shape, reps)
    amounts: tuple[float, ...] = (shape.sets, (duration + hold) * shape.total, estimated, 1)
    for at, move in enumerate(shape.moves):
        # Help may exceed what it helps with; nobody lifts less than nothing.
        lifted = loads[at] + move.bodyweight_kg
        if lifted < 0:
            lifted = 0.0
        if measured is not None:
            tut = measured[at]
        else:
            tut = reps * move.tut if seconds is None else seconds * move.timed_tut
            tut += hold * move.hold
        amounts += (reps * move.reps, loaded_reps * move.lifts * lifted, tut)
    return MeasuredSet(shape, amounts)


def loads_of(a_set: Set) -> Sequence[float]:
    """What each movement of a set moves in a rep, in kg, body weight aside."""
    whole = a_set.load_kg * a_set.implements
    if a_set.moves is None:
        return (whole,)
    return [
        whole if move.load_kg is None else move.load_kg * move.implements for move in a_set.moves
    ]


def _measure_pieces(a_set: Set, shape: Shape) -> MeasuredSet:
    """One set whose load is changed in the middle: the sums of its pieces, and one set."""
    rows = [measure(piece, shape).amounts for piece in a_set.pieces]
    amounts = [sum(column) for column in zip(*rows, strict=True)]
    amounts[SETS], amounts[COUNT] = shape.sets, 1
    amounts[ESTIMATED] = max(row[ESTIMATED] for row in rows)
    if a_set.measured_tension_s is not None and shape.measured_tension:
        amounts[COUNT + 1 + TUT_S] = a_set.measured_tension_s * shape.limb
    return MeasuredSet(shape, tuple(amounts))


def amounts_of(added: Added, shape: Shape) -> tuple[float, ...]:
    """The row of amounts of sets of that shape added up; ``measure`` of each, summed."""
    (move,) = shape.moves
    left_out = 1 - shape.partial_rep_credit
    kg_reps = added.kg_reps - left_out * added.partial_kg_reps
    loaded_reps = added.reps - left_out * added.partial_reps
    duration = added.untimed_reps * shape.rep_seconds + added.seconds
    tut = added.untimed_reps * move.tut + added.seconds * move.timed_tut + added.hold_s * move.hold
    return (
        shape.sets * added.sets,
        (duration + added.hold_s) * shape.total,
        0,
        added.sets,
        added.reps * move.reps,
        move.lifts * (kg_reps + loaded_reps * move.bodyweight_kg),
        tut,
    )


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
) -> tuple[tuple[int, float, tuple[str, ...]], ...]:
    """Which figure takes which amount: a set once, at its highest share; the sums move by move."""
    if standing == "warm_up":
        return ()
    if standing == "conditioning":
        return ((WORK_S, 1.0, (in_total("conditioning_s"),)),)
    plan: defaultdict[tuple[int, float], list[str]] = defaultdict(list)
    plan[WORK_S, 1.0].append(in_total("work_s"))
    plan[ESTIMATED, 1.0].append(in_total("estimated_rep_sets"))
    if assumed:
        plan[COUNT, 1.0].append(in_total("assumed_tempo_sets"))
    set_shares: dict[str, float] = {IN_ALL: 1.0}
    for at, (move, sides) in enumerate(zip(moves, pair_sides, strict=True)):
        first = COUNT + 1 + at * _PER_MOVE
        movement = move.movement
        if not movement.counted:
            continue
        whole = (IN_ALL, as_pattern(movement.pattern), as_movement(movement.name), *sides)
        plan[first + REPS, 1.0] += [of(subject, "reps") for subject in whole]
        shares = dict.fromkeys(whole, 1.0)
        for muscle, role in movement.muscles.items():
            share = 1.0 if role == "direct" else indirect_credit
            shares |= dict.fromkeys((as_muscle(muscle), *_MUSCLE_SIDES.get(muscle, ())), share)
        for subject, share in shares.items():
            set_shares[subject] = max(set_shares.get(subject, 0.0), share)
            plan[first + VOLUME_LOAD_KG, share].append(of(subject, "volume_load_kg"))
            plan[first + TUT_S, share].append(of(subject, "tut_s"))
    for subject, share in set_shares.items():
        plan[SETS, share].append(of(subject, "sets"))
    return tuple((place, share, tuple(keys)) for (place, share), keys in plan.items())


def _tempo_of(movement: Movement) -> Tempo:
    return parse_tempo(movement.tempo) if movement.tempo else ASSUMED


@cache
def _pair_sides(pattern: Pattern, *, scoped_too: bool) -> tuple[str, ...]:
    """The sides of pattern pairs that a pattern belongs to, as figure prefixes."""
    return tuple(
        as_side(pair.name, side)
        for pair in PAIRS
        if pair.of == "pattern" and (scoped_too or not pair.scoped)
        for side, members in (("a", pair.a), ("b", pair.b))
        if pattern in members
    )
