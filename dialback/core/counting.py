"""Counting a set: what one set credits to every figure, under the house rules.

A figure is named by a key such as ``muscles/chest/sets``. A measured set carries its credit to
each figure it enters; a tally is the sum of those credits, so the trail of a figure is the sets
that credit it. Formulas: domain rules of Dial Back, told in ``docs/method.md``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import floor
from typing import Final, Literal

from dialback.core.movements import Movement, MovementTable
from dialback.core.rules import Rules
from dialback.core.sessions import Set
from dialback.core.tempo import ASSUMED, Tempo, parse_tempo
from dialback.core.vocabulary import PAIRS, Pair

LIMB_FACTOR: Final = {"both": 1.0, "each": 1.0, "alternating": 0.5, "left": 0.5, "right": 0.5}
"""What an average limb does of a set's reps or seconds."""
TOTAL_FACTOR: Final = {"both": 1.0, "each": 2.0, "alternating": 1.0, "left": 1.0, "right": 1.0}
"""What was done in all of a set's reps or seconds."""
_SET_CREDIT: Final = {"both": 1.0, "each": 1.0, "alternating": 1.0, "left": 0.5, "right": 0.5}

Standing = Literal["hard", "easy", "warm_up", "conditioning"]
"""How a set stands in the sums: whole, without its set, not at all, or as time kept apart."""


@dataclass(frozen=True, slots=True)
class MeasuredMove:
    """One movement's part in a set: reps under the rules, kg, seconds."""

    movement: Movement
    reps: float
    volume_load_kg: float
    tut_s: float


@dataclass(frozen=True, slots=True)
class MeasuredSet:
    """A set with its credit to every figure it enters; nothing for a set that is left out."""

    standing: Standing
    moves: tuple[MeasuredMove, ...]
    credits: Mapping[str, float]
    estimated: bool
    assumed: bool


def is_hard(one: Set, rules: Rules) -> bool:
    """Whether exertion lets the set count towards weekly sets (warm-ups are judged apart)."""
    return one.rpe is None or rules.hard_set_rpe is None or one.rpe >= rules.hard_set_rpe


def measure(
    one: Set, movements: MovementTable, rules: Rules, bodyweight_kg: float | None
) -> MeasuredSet:
    """Measure one set.

    ``bodyweight_kg`` may be ``None`` where no movement takes a share of it; a share of an
    unknown body weight counts 0. Raises ``UnknownMovement`` for a name not in the table.
    """
    table = [(movements[name], times) for name, times in one.named_moves()]
    conditioning = not any(movement.counted for movement, _ in table)
    standing: Standing
    if one.warm_up and not rules.count_warm_ups:
        standing = "warm_up"
    elif conditioning:
        standing = "conditioning"
    else:
        standing = "hard" if is_hard(one, rules) else "easy"

    own_tempo = parse_tempo(one.tempo) if one.tempo else None
    tempi = [own_tempo or _tempo_of(movement) for movement, _ in table]
    assumed = own_tempo is None and any(
        movement.tempo is None and not movement.isometric for movement, _ in table
    )
    # Seconds that one rep of the whole set takes; isometric moves are held, they take no share.
    rep_seconds = sum(
        times * tempo.cycle
        for (movement, times), tempo in zip(table, tempi, strict=True)
        if not movement.isometric
    )
    reps, estimated = _reps(one, rules, rep_seconds)
    duration = one.seconds if one.seconds is not None else reps * rep_seconds

    limb = LIMB_FACTOR[one.sides]
    total = TOTAL_FACTOR[one.sides]
    rep_factor = limb if rules.each_side_reps == "per_side" else total
    partial = min(one.partial_reps, reps)
    loaded_reps = reps - partial * (1 - rules.partial_rep_credit)
    last_mover = max(
        (at for at, (movement, _) in enumerate(table) if not movement.isometric), default=None
    )

    moves = []
    for at, ((movement, times), tempo) in enumerate(zip(table, tempi, strict=True)):
        if movement.isometric:
            moves.append(MeasuredMove(movement, 0.0, 0.0, (duration + one.hold_s) * limb))
            continue
        load = one.total_load_kg
        if rules.bodyweight_load and bodyweight_kg is not None:
            load += movement.bodyweight_share * bodyweight_kg
        per_rep = tempo.moving if rules.tension == "moving" else tempo.cycle
        seconds = (
            reps * times * per_rep
            if one.seconds is None
            else one.seconds * times * per_rep / rep_seconds
        )
        if at == last_mover:
            seconds += one.hold_s
        moves.append(
            MeasuredMove(
                movement,
                reps * times * rep_factor,
                # Help may exceed what it helps with; nobody lifts less than nothing.
                loaded_reps * times * total * max(load, 0.0),
                seconds * limb,
            )
        )

    work = (duration + one.hold_s) * total
    measured = tuple(moves)
    return MeasuredSet(
        standing,
        measured,
        _credits(one, standing, measured, work, estimated, assumed, rules),
        estimated,
        assumed,
    )


def _tempo_of(movement: Movement) -> Tempo:
    return parse_tempo(movement.tempo) if movement.tempo else ASSUMED


def _reps(one: Set, rules: Rules, rep_seconds: float) -> tuple[float, bool]:
    """Reps of the set as written, or estimated from its seconds; and whether they are."""
    if one.reps is not None:
        return one.reps, False
    if not rules.estimate_reps or not rep_seconds or one.seconds is None:
        return 0, False
    # A whole number of reps must not be lost to the last bit of a division.
    return floor(one.seconds / rep_seconds + 1e-9), True


def _credits(
    one: Set,
    standing: Standing,
    moves: tuple[MeasuredMove, ...],
    work: float,
    estimated: bool,
    assumed: bool,
    rules: Rules,
) -> dict[str, float]:
    if standing == "warm_up":
        return {}
    if standing == "conditioning":
        return {"totals/conditioning_s": work}
    sets = _SET_CREDIT[one.sides] if standing == "hard" else 0.0
    credit: dict[str, float] = {
        "totals/sets": sets,
        "totals/reps": 0.0,
        "totals/volume_load_kg": 0.0,
        "totals/tut_s": 0.0,
        "totals/work_s": work,
    }
    if estimated:
        credit["totals/estimated_rep_sets"] = 1
    if assumed:
        credit["totals/assumed_tempo_sets"] = 1

    for move in moves:
        credit["totals/reps"] += move.reps
        credit["totals/volume_load_kg"] += move.volume_load_kg
        credit["totals/tut_s"] += move.tut_s
        for prefix in (f"patterns/{move.movement.pattern}", f"movements/{move.movement.name}"):
            _add(credit, prefix, sets, move, 1.0, with_reps=True)
        for muscle, role in move.movement.muscles.items():
            share = 1.0 if role == "direct" else rules.indirect_credit
            _add(credit, f"muscles/{muscle}", sets, move, share, with_reps=False)
        for pair, side in _sides_of(move.movement, rules):
            _add(credit, f"balance/{pair.name}/{side}", sets, move, 1.0, with_reps=True)
    for pair in PAIRS:
        if pair.of == "muscle":
            for side, members in (("a", pair.a), ("b", pair.b)):
                for member in members:
                    for name in pair.measures:
                        amount = credit.get(f"muscles/{member}/{name}")
                        if amount is not None:
                            credit[f"balance/{pair.name}/{side}/{name}"] = amount
    return credit


def _add(
    credit: dict[str, float],
    prefix: str,
    sets: float,
    move: MeasuredMove,
    share: float,
    *,
    with_reps: bool,
) -> None:
    """Credit a move to a subject: the set once, at the highest share; the sums move by move."""
    key = f"{prefix}/sets"
    credit[key] = max(credit.get(key, 0.0), sets * share)
    if with_reps:
        key = f"{prefix}/reps"
        credit[key] = credit.get(key, 0.0) + move.reps * share
    key = f"{prefix}/volume_load_kg"
    credit[key] = credit.get(key, 0.0) + move.volume_load_kg * share
    key = f"{prefix}/tut_s"
    credit[key] = credit.get(key, 0.0) + move.tut_s * share


def _sides_of(movement: Movement, rules: Rules) -> list[tuple[Pair, Literal["a", "b"]]]:
    """The pattern pairs a movement belongs to, with its side."""
    found: list[tuple[Pair, Literal["a", "b"]]] = []
    for pair in PAIRS:
        if pair.of != "pattern":
            continue
        if pair.scoped and rules.push_pull_scope == "compound" and not movement.compound:
            continue
        if movement.pattern in pair.a:
            found.append((pair, "a"))
        elif movement.pattern in pair.b:
            found.append((pair, "b"))
    return found
