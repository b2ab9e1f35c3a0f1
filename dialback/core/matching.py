"""Which session was done for which plan, and which set for which: pairs of places, no words.

Sessions go by their link, else by their day, else by what is in them; sets by movement and order.
What is left over on both sides is a swap where the movements are alike or stood in the same place.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Final, Literal

from dialback.core.movements import Movement, MovementTable
from dialback.core.sessions import Session, Set

SAME_SESSION: Final = 2 / 3
"""The share of a plan's sets, by movement, from which on a session on another day is for it."""
_TINY: Final = 1e-9


@dataclass(frozen=True, slots=True)
class SessionPair:
    """A planned session and what was done for it, places in their lists; ``moved`` to another day.

    One of the two may be missing; several done ones count as one.
    """

    plan: int | None
    dones: tuple[int, ...]
    moved: bool = False


def pair_sessions(
    planned: Sequence[Session], completed: Sequence[Session]
) -> tuple[SessionPair, ...]:
    """Every session of a week in one pair.

    A completed session with a link is for the plan of that day only; one without it for that of its
    own day, of several on a day by title, else in order; one for none of these for a plan of the
    week that nothing else is for and that has its title, or two thirds of whose sets it has.
    """
    dones: dict[int, list[int]] = defaultdict(list)
    free = list(range(len(completed)))
    for linked in (True, False):
        of_day: dict[object, list[int]] = defaultdict(list)
        for at in free:
            one = completed[at]
            if (one.plan is not None) == linked:
                of_day[one.plan if linked else one.date].append(at)
        for day, several in of_day.items():
            plans = [at for at, plan in enumerate(planned) if plan.date == day]
            for done_at, plan_at in _of_a_day(planned, completed, plans, several):
                dones[plan_at].append(done_at)
                free.remove(done_at)
    moved: set[int] = set()
    for at in [at for at in free if completed[at].plan is None]:
        open_plans = [place for place in range(len(planned)) if not dones[place]]
        found = _by_content(planned, completed[at], open_plans)
        if found is not None:
            dones[found].append(at)
            moved.add(found)
            free.remove(at)
    pairs = [SessionPair(at, tuple(sorted(dones[at])), at in moved) for at in range(len(planned))]
    pairs += [SessionPair(None, (at,)) for at in free]
    return tuple(
        sorted(
            pairs,
            key=lambda pair: (
                (planned[pair.plan] if pair.plan is not None else completed[pair.dones[0]]).date
            ),
        )
    )


def _of_a_day(
    planned: Sequence[Session],
    completed: Sequence[Session],
    plans: list[int],
    dones: list[int],
) -> Iterator[tuple[int, int]]:
    """Sessions of one day, by title, else in order; all are for a plan that stands alone."""
    if len(plans) == 1:
        yield from ((done, plans[0]) for done in dones)
        return
    left_plans, left_dones = list(plans), list(dones)
    for done in dones:
        titled = next(
            (
                plan
                for plan in left_plans
                if completed[done].title and planned[plan].title == completed[done].title
            ),
            None,
        )
        if titled is not None:
            left_plans.remove(titled)
            left_dones.remove(done)
            yield done, titled
    if len(left_plans) > 1 and all(not completed[done].title for done in left_dones):
        # Without titles the order tells nothing that the movements do not tell better.
        yield from _likest(planned, completed, left_plans, left_dones)
        return
    yield from zip(left_dones, left_plans, strict=False)


def _likest(
    planned: Sequence[Session],
    completed: Sequence[Session],
    plans: list[int],
    dones: list[int],
) -> Iterator[tuple[int, int]]:
    """The likest pairs first; where nothing is alike, in order."""
    shares = sorted(
        (-_share(planned[plan], completed[done]), done, plan) for plan in plans for done in dones
    )
    taken: set[tuple[str, int]] = set()
    for _, done, plan in shares:
        if ("done", done) in taken or ("plan", plan) in taken:
            continue
        taken |= {("done", done), ("plan", plan)}
        yield done, plan


def _by_content(planned: Sequence[Session], done: Session, plans: list[int]) -> int | None:
    titled = [at for at in plans if done.title and planned[at].title == done.title]
    if titled:
        return titled[0]
    return next((at for at in plans if _share(planned[at], done) >= SAME_SESSION - _TINY), None)


def _share(plan: Session, done: Session) -> float:
    """The share of a plan's sets that a session has, by movement."""
    if not plan.sets:
        return 0.0
    wanted, found = (Counter(map(names_of, session.sets)) for session in (plan, done))
    return (wanted & found).total() / len(plan.sets)


def names_of(a_set: Set) -> tuple[str, ...]:
    """The movements of a set, letter case and blanks apart."""
    return tuple(" ".join(name.split()).casefold() for name, _ in a_set.named_moves())


# Sets.

SetKey = tuple[tuple[str, ...], str, bool]
"""What sets that can be done for each other share: movements, left or right, warm-up or not."""


def key_of(a_set: Set) -> SetKey:
    """Left and right are sets of their own; other sides are a way of doing the same."""
    return names_of(a_set), a_set.sides if a_set.sides in ("left", "right") else "", a_set.warm_up


def pair_sets(
    planned: Sequence[Set], completed: Sequence[Set], movements: MovementTable
) -> dict[int, int]:
    """Places of planned sets to those of the sets done for them, swaps and levels among them."""
    groups: dict[SetKey, tuple[list[int], list[int]]] = defaultdict(lambda: ([], []))
    for side, sets in enumerate((planned, completed)):
        for at, one in enumerate(sets):
            groups[key_of(one)][side].append(at)
    pairs: dict[int, int] = {}
    for plans, dones in groups.values():
        pairs |= _align(planned, completed, plans, dones)
    return pairs | _swaps(planned, completed, pairs, movements)


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
            plan.reps != done.reps,
            plan.seconds != done.seconds,
            abs(plan.total_load_kg - done.total_load_kg) > _TINY,
            plan.tempo != done.tempo,
            plan.sides != done.sides,
        )
    )


def _swaps(
    planned: Sequence[Set],
    completed: Sequence[Set],
    pairs: dict[int, int],
    movements: MovementTable,
) -> dict[int, int]:
    """Runs of a movement that were done in the place of a run of another, the likest first."""
    back = {done: plan for plan, done in pairs.items()}
    plan_runs = _runs(planned, [at for at in range(len(planned)) if at not in pairs])
    # What is in the plan anyway was done for itself: more of it is extra, not a swap.
    in_plan = {names_of(session) for session in planned}
    done_runs = [
        run
        for run in _runs(completed, [at for at in range(len(completed)) if at not in back])
        if names_of(completed[run[0]]) not in in_plan
    ]
    candidates = []
    for plan_at, plans in enumerate(plan_runs):
        for done_at, dones in enumerate(done_runs):
            plan, done = planned[plans[0]], completed[dones[0]]
            # Warm-ups apart, and the one side never in place of the other.
            if key_of(plan)[1:] != key_of(done)[1:]:
                continue
            same_place = _neighbours(pairs, plans, len(planned)) == _neighbours(
                back, dones, len(completed), inverse=True
            )
            rank = _kinship(plan, done, movements, same_place=same_place)
            if rank is not None:
                candidates.append((rank, plan_at, done_at))
    found: dict[int, int] = {}
    used: set[tuple[str, int]] = set()
    for _, plan_at, done_at in sorted(candidates):
        if ("plan", plan_at) in used or ("done", done_at) in used:
            continue
        used |= {("plan", plan_at), ("done", done_at)}
        found |= dict(zip(plan_runs[plan_at], done_runs[done_at], strict=False))
    return found


def _runs(sets: Sequence[Set], places: list[int]) -> list[list[int]]:
    """Places of left-over sets in runs of one movement and side."""
    return [list(run) for _, run in groupby(places, key=lambda at: key_of(sets[at]))]


def _neighbours(
    pairs: dict[int, int], run: list[int], count: int, *, inverse: bool = False
) -> tuple[tuple[int, int] | None, tuple[int, int] | None]:
    """The matched pairs before and behind a run, as places in the plan and in the log."""

    def pair(at: int | None) -> tuple[int, int] | None:
        if at is None:
            return None
        return (pairs[at], at) if inverse else (at, pairs[at])

    before = next((at for at in range(run[0] - 1, -1, -1) if at in pairs), None)
    behind = next((at for at in range(run[-1] + 1, count) if at in pairs), None)
    return pair(before), pair(behind)


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
