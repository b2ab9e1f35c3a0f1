"""Which set was done for which: by movement and order, on one form of both.

What is left over on both sides is a swap where the movements are alike or stood in the same place.
Source: Dial Back's contract, *Matching, exactly*.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import groupby
from typing import Any, Final, Literal, NamedTuple

from dialback.core.movements import Movement, MovementTable, fold
from dialback.core.sessions import Piece, Set

_TINY: Final = 1e-9

Half = Literal["", "left", "right"]
"""Which side of a set for both it is about; of a whole set neither."""


def names_of(a_set: Set) -> tuple[str, ...]:
    """The movements of a set, letter case and blanks apart; of a combination in no order."""
    if a_set.exercise is not None:
        return _alone(a_set.exercise)
    return tuple(sorted(_alone(name)[0] for name, _ in a_set.named_moves()))


@lru_cache(maxsize=4096)
def _alone(name: str) -> tuple[str]:
    return (fold(name),)


WorkKey = tuple[tuple[str, ...], bool]
"""What sets of the same work share: movements, warm-up or not."""


def work_of(a_set: Set) -> WorkKey:
    """What a set is one of, whichever side it is for."""
    return names_of(a_set), a_set.warm_up


@dataclass(frozen=True, slots=True)
class Unit:
    """A set that is compared, or one side of it: its place, which side, and what it comes to."""

    at: int
    half: Half
    set: Set

    @property
    def key(self) -> tuple[WorkKey, str]:
        """Left and right are of their own; other sides are a way of doing the same."""
        return work_of(self.set), self.set.sides if self.set.sides in ("left", "right") else ""


@dataclass(frozen=True, slots=True)
class SetPair:
    """A planned set, or a side of it, and what was done for it; one of the two may be missing."""

    plan: Unit | None
    done: Unit | None


def pair_sets(
    planned: Sequence[Set], completed: Sequence[Set], movements: MovementTable
) -> list[SetPair]:
    """Every set of both in one pair, or each of its sides in one, in no order."""
    split = _in_both_forms(planned, completed)
    plans, dones = (_units(sets, split) for sets in (planned, completed))
    groups: dict[object, tuple[list[int], list[int]]] = defaultdict(lambda: ([], []))
    for side, units in enumerate((plans, dones)):
        for at, unit in enumerate(units):
            groups[unit.key][side].append(at)
    found: dict[int, int] = {}
    sets = [unit.set for unit in plans], [unit.set for unit in dones]
    for of_plan, of_done in groups.values():
        found |= _align(*sets, of_plan, of_done)
    used = set(found.values())
    pairs = [
        SetPair(plan, dones[found[at]] if at in found else None) for at, plan in enumerate(plans)
    ]
    pairs += [SetPair(None, done) for at, done in enumerate(dones) if at not in used]
    return _with_swaps(_whole_again(pairs, _Both(planned, completed)), movements)


def places_done_for(
    planned: Sequence[Set], completed: Sequence[Set], movements: MovementTable
) -> dict[int, int]:
    """For places of done sets the place of the planned set that they were done for."""
    return {
        pair.done.at: pair.plan.at
        for pair in pair_sets(planned, completed, movements)
        if pair.plan is not None and pair.done is not None
    }


class _Both(NamedTuple):
    planned: Sequence[Set]
    completed: Sequence[Set]


def _in_both_forms(planned: Sequence[Set], completed: Sequence[Set]) -> set[WorkKey]:
    """The work that one side has in sets of left and right, and the other in sets for both."""
    single, both = (
        [{work_of(one) for one in sets if one.sides in sides} for sets in (planned, completed)]
        for sides in (("left", "right"), ("each", "alternating"))
    )
    return (single[0] & both[1]) | (single[1] & both[0])


def _units(sets: Sequence[Set], split: set[WorkKey]) -> list[Unit]:
    found = []
    for at, one in enumerate(sets):
        if one.sides in ("each", "alternating") and work_of(one) in split:
            found += [Unit(at, "left", _half(one, "left")), Unit(at, "right", _half(one, "right"))]
        else:
            found.append(Unit(at, "", one))
    return found


def _half(a_set: Set, side: Half) -> Set:
    """One side of a set for each side, or of an alternating one: that has half of its dose."""
    if a_set.sides == "each":
        return a_set.model_copy(update={"sides": side})

    def dose(of: Set | Piece) -> dict[str, Any]:
        return {"reps": _halved(of.reps), "seconds": _halved(of.seconds)}

    change = {"sides": side, "partial_reps": _halved(a_set.partial_reps), **dose(a_set)}
    if a_set.loads is not None:
        change["loads"] = tuple(piece.model_copy(update=dose(piece)) for piece in a_set.loads)
    return a_set.model_copy(update=change)


def _halved(value: float | None) -> float | None:
    """Half of it; a whole number where it is one."""
    half = None if value is None else value / 2
    return int(half) if half is not None and half.is_integer() else half


def _whole_again(pairs: Iterable[SetPair], sets: _Both) -> list[SetPair]:
    """Two sides of a set that share their fate are one set again."""
    halves: dict[tuple[int | None, int | None], list[SetPair]] = defaultdict(list)
    found = []
    for pair in pairs:
        units = [unit for unit in (pair.plan, pair.done) if unit is not None]
        if all(unit.half for unit in units):
            plan_at = None if pair.plan is None else pair.plan.at
            done_at = None if pair.done is None else pair.done.at
            halves[plan_at, done_at].append(pair)
        else:
            found.append(pair)
    for (plan, done), several in halves.items():
        if len(several) == 1:
            found += several
            continue
        found.append(
            SetPair(
                None if plan is None else Unit(plan, "", sets.planned[plan]),
                None if done is None else Unit(done, "", sets.completed[done]),
            )
        )
    return found


def _align(
    planned: Sequence[Set], completed: Sequence[Set], plans: list[int], dones: list[int]
) -> dict[int, int]:
    """Pair sets of one movement in order; where one side has fewer, those that fit best."""
    if len(plans) == len(dones):
        return dict(zip(plans, dones, strict=True))
    if not plans or not dones:
        return {}
    swapped = len(dones) < len(plans)
    short, long = (dones, plans) if swapped else (plans, dones)
    costs = [
        [
            _apart(planned[b], completed[a]) if swapped else _apart(planned[a], completed[b])
            for b in long
        ]
        for a in short
    ]
    # Every one of the shorter side gets a place in the longer one, order kept, at the least cost.
    rows, columns = len(short), len(long)
    best = [[0] * (columns + 1)] + [[len(costs) * 9] * (columns + 1) for _ in range(rows)]
    for row in range(1, rows + 1):
        for column in range(row, columns - rows + row + 1):
            take = best[row - 1][column - 1] + costs[row - 1][column - 1]
            best[row][column] = min(take, best[row][column - 1]) if column > row else take
    found: dict[int, int] = {}
    column = columns
    for row in range(rows, 0, -1):
        while column > row and best[row][column] == best[row][column - 1]:
            column -= 1
        found[short[row - 1]] = long[column - 1]
        column -= 1
    return {b: a for a, b in found.items()} if swapped else found


def _apart(plan: Set, done: Set) -> int:
    """How many of reps, seconds, load, tempo and sides differ."""
    return sum(
        (
            plan.own_reps != done.own_reps,
            plan.own_seconds != done.own_seconds,
            abs(plan.total_load_kg - done.total_load_kg) > _TINY,
            plan.tempo != done.tempo,
            plan.sides != done.sides,
        )
    )


def _with_swaps(pairs: list[SetPair], movements: MovementTable) -> list[SetPair]:
    """The same with runs of a movement put for runs of another, the likest first."""
    matched = [(pair.plan.at, pair.done.at) for pair in pairs if pair.plan and pair.done]
    plan_runs = _runs(pair.plan for pair in pairs if pair.plan and not pair.done)
    # What is in the plan anyway was done for itself: more of it is extra, not a swap.
    in_plan = {names_of(pair.plan.set) for pair in pairs if pair.plan}
    done_runs = [
        run
        for run in _runs(pair.done for pair in pairs if pair.done and not pair.plan)
        if names_of(run[0].set) not in in_plan
    ]
    candidates = []
    for plan_at, plans in enumerate(plan_runs):
        for done_at, dones in enumerate(done_runs):
            plan, done = plans[0].set, dones[0].set
            if plan.warm_up != done.warm_up:
                continue
            same_place = _neighbours(matched, plans, 0) == _neighbours(matched, dones, 1)
            rank = _kinship(plan, done, movements, same_place=same_place)
            if rank is not None:
                candidates.append((rank, plan_at, done_at))
    for_plan: dict[Unit, Unit] = {}
    used: set[tuple[str, int]] = set()
    for _, plan_at, done_at in sorted(candidates):
        if ("plan", plan_at) in used or ("done", done_at) in used:
            continue
        used |= {("plan", plan_at), ("done", done_at)}
        for_plan |= dict(zip(plan_runs[plan_at], done_runs[done_at], strict=False))
    taken = set(for_plan.values())
    return [
        SetPair(pair.plan, for_plan[pair.plan])
        if pair.plan in for_plan and pair.done is None and pair.plan is not None
        else pair
        for pair in pairs
        if not (pair.plan is None and pair.done in taken)
    ]


def _runs(units: Iterable[Unit]) -> list[list[Unit]]:
    """Left-over sets in runs of one movement, in order."""
    in_order = sorted(units, key=lambda unit: (unit.at, unit.half))
    return [list(run) for _, run in groupby(in_order, key=lambda unit: work_of(unit.set))]


def _neighbours(
    matched: Sequence[tuple[int, int]], run: Sequence[Unit], side: int
) -> tuple[tuple[int, int] | None, tuple[int, int] | None]:
    """The matched pairs before and behind a run, as places in the plan and in the log."""
    before = [pair for pair in matched if pair[side] < run[0].at]
    behind = [pair for pair in matched if pair[side] > run[-1].at]
    return (
        max(before, key=lambda pair: pair[side], default=None),
        min(behind, key=lambda pair: pair[side], default=None),
    )


def _kinship(plan: Set, done: Set, movements: MovementTable, *, same_place: bool) -> int | None:
    """How near a movement is to another: a level, the pattern, a direct muscle, the place."""
    plans, dones = (
        [movements[name] for name, _ in a_set.named_moves() if name in movements]
        for a_set in (plan, done)
    )
    if len(plans) == len(dones) == 1 and level_between(plans[0], dones[0], movements):
        return 0
    if {one.pattern for one in plans} & {one.pattern for one in dones}:
        return 1
    if _direct(plans) & _direct(dones):
        return 2
    return 3 if same_place else None


def _direct(movements: Sequence[Movement]) -> set[str]:
    return {muscle for movement in movements for muscle in movement.direct}


def level_between(
    plan: Movement, done: Movement, movements: MovementTable
) -> Literal["easier", "harder"] | None:
    """Whether a movement is a level of another, any number of levels down or up."""
    for direction in ("easier", "harder"):
        seen = {plan.name}
        name = getattr(plan, direction)
        while name is not None and name not in seen and name in movements:
            seen.add(name)
            neighbour = movements[name]
            if neighbour.name == done.name:
                return direction
            name = getattr(neighbour, direction)
    return None
