"""Planned against completed: which set was done for which, and what differed.

Sessions are matched by their link, else by their day; sets by movement and order. What is left
over on both sides is a swap where it stood in the same place, else skipped or extra.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import groupby
from typing import Final, Literal

from dialback.core.movements import Movement, MovementTable
from dialback.core.sessions import Session, Set
from dialback.core.words import capital, dose_text, load_text, movement_text, number

Kind = Literal["as planned", "changed", "skipped", "extra", "swapped", "easier", "harder"]

REACH: Final = 0.34
"""How far apart two movements may stand in their sessions, as a share of it, to be a swap
without being related."""

Difference = Literal["reps", "seconds", "load", "sides", "tempo", "hold", "moves", "warm-up"]


@dataclass(frozen=True, slots=True)
class SetMatch:
    """A planned set and what was done for it; ``at`` and ``done_at`` are places from 0."""

    kind: Kind
    plan: Set | None
    done: Set | None
    at: int | None
    done_at: int | None
    differences: tuple[Difference, ...] = ()

    @property
    def words(self) -> str:
        """What differed, as a coach says it; empty for a set as planned."""
        match self.kind:
            case "as planned":
                return ""
            case "skipped":
                return "not done"
            case "extra":
                return "not planned"
        assert self.plan is not None and self.done is not None  # noqa: S101, PT018 - by its kind
        changed = [_SAYS[one](self.plan, self.done) for one in self.differences]
        if self.kind == "changed":
            return ", ".join(changed)
        level = f", the {self.kind} level" if self.kind != "swapped" else ""
        others = [one for one in changed if one]
        instead = f"{movement_text(self.done)} instead of {movement_text(self.plan)}{level}"
        return ", ".join([instead, *others])


def _load(plan: Set, done: Set) -> str:
    if not plan.load_kg and done.load_kg:
        return f"{load_text(done)} instead of no load"
    if not done.load_kg:
        return f"no load instead of {load_text(plan)}"
    step = done.total_load_kg - plan.total_load_kg
    if plan.implements == done.implements and step:
        share = step / abs(plan.total_load_kg) * 100
        sign = "+" if share > 0 else "−"
        return f"{load_text(done)} instead of {load_text(plan)} ({sign}{number(abs(share), 0)} %)"
    return f"{load_text(done)} instead of {load_text(plan)}"


def _reps(plan: Set, done: Set) -> str:
    if done.reps is None:
        return f"{dose_text(done)} instead of {dose_text(plan)}"
    most = (plan.model_extra or {}).get("reps_to")
    wanted = f"{plan.reps}–{most}" if most else str(plan.reps) if plan.reps is not None else "none"
    return f"{done.reps} reps instead of {wanted}"


def _seconds(plan: Set, done: Set) -> str:
    return " instead of ".join(
        "no time" if one.seconds is None else f"{number(one.seconds)} s" for one in (done, plan)
    )


_SAYS: Final[dict[Difference, Callable[[Set, Set], str]]] = {
    "reps": _reps,
    "seconds": _seconds,
    "load": _load,
    "sides": lambda plan, done: f"{done.sides} instead of {plan.sides}",
    "tempo": lambda plan, done: f"tempo {done.tempo or 'free'} instead of {plan.tempo or 'free'}",
    "hold": lambda plan, done: f"hold {number(done.hold_s)} s instead of {number(plan.hold_s)} s",
    "moves": lambda _plan, _done: "",
    "warm-up": lambda _plan, done: "as a warm-up" if done.warm_up else "as a working set",
}


@dataclass(frozen=True)
class SessionMatch:
    """A planned session and the one that was done for it; one of them may be missing."""

    plan: Session | None
    done: Session | None
    sets: tuple[SetMatch, ...]

    @cached_property
    def deviations(self) -> tuple[SetMatch, ...]:
        """The sets that were not done as planned."""
        return tuple(one for one in self.sets if one.kind != "as planned")

    @cached_property
    def extra_rounds(self) -> tuple[ExtraRounds, ...]:
        """Whole rounds that were done beyond the plan."""
        return tuple(_extra_rounds(self.plan, self.sets)) if self.plan is not None else ()

    @property
    def summary(self) -> tuple[str, ...]:
        """What differed, movement by movement; extra rounds first, and told once."""
        in_rounds = {name for more in self.extra_rounds for name in more.movements}
        counts: dict[tuple[str, str], int] = defaultdict(int)
        for one in self.deviations:
            shown = one.plan or one.done
            assert shown is not None  # noqa: S101 - a match has one of them
            name = movement_text(shown)
            if one.kind == "extra" and name in in_rounds:
                continue
            counts[name, one.words] += 1
        told = [capital(more.words) for more in self.extra_rounds]
        for (name, words), count in counts.items():
            sets = f" ({count} sets)" if count > 1 else ""
            instead = words.startswith(tuple("0123456789")) or " instead of " not in words
            told.append(f"{name}: {words}{sets}" if instead else f"{words}{sets}")
        return tuple(told)


@dataclass(frozen=True, slots=True)
class ExtraRounds:
    """So many rounds more of some movements than planned."""

    rounds: int
    planned: int
    movements: tuple[str, ...]

    @property
    def words(self) -> str:
        """How a coach says it."""
        what = "one more round" if self.rounds == 1 else f"{self.rounds} more rounds"
        return f"{what} of {', '.join(self.movements)} than the {self.planned} planned"


def match_sessions(
    planned: Sequence[Session], completed: Sequence[Session], movements: MovementTable
) -> tuple[SessionMatch, ...]:
    """Sessions of a week side by side, in order of day; every session is in one match."""
    free = list(completed)
    taken: dict[int, Session] = {}
    for at, plan in enumerate(planned):
        linked = next((one for one in free if one.plan == plan.date), None)
        if linked is not None:
            free.remove(linked)
            taken[at] = linked
    for at, plan in enumerate(planned):
        if at not in taken:
            same_day = [one for one in free if one.plan is None and one.date == plan.date]
            # Of several on a day the one of the same title, else the first.
            best = next((one for one in same_day if one.title == plan.title), None)
            found = best or next(iter(same_day), None)
            if found is not None:
                free.remove(found)
                taken[at] = found
    pairs: list[tuple[Session | None, Session | None]] = [
        (plan, taken.get(at)) for at, plan in enumerate(planned)
    ]
    pairs += [(None, one) for one in free]
    pairs.sort(key=lambda pair: (pair[0] or pair[1]).date)  # type: ignore[union-attr]
    return tuple(
        SessionMatch(
            plan,
            done,
            match_sets(plan.sets if plan else (), done.sets if done else (), movements),
        )
        for plan, done in pairs
    )


def match_sets(
    planned: Sequence[Set], completed: Sequence[Set], movements: MovementTable
) -> tuple[SetMatch, ...]:
    """Sets side by side, in the order of the plan; an extra set stands where it was done."""
    pairs: dict[int, int] = {}
    left_plan: list[int] = []
    left_done: list[int] = []
    for key, (plans, dones) in _by_movement(planned, completed).items():
        del key
        matched = _align(planned, completed, plans, dones)
        pairs |= matched
        left_plan += [at for at in plans if at not in matched]
        left_done += [at for at in dones if at not in set(matched.values())]
    swaps = _swaps(planned, completed, sorted(left_plan), sorted(left_done), movements)
    matches = [
        _match(planned, completed, at, (pairs | swaps).get(at), movements)
        for at in range(len(planned))
    ]
    used = set(pairs.values()) | set(swaps.values())
    extras = [at for at in range(len(completed)) if at not in used]
    return tuple(_placed(matches, [_extra(completed, at) for at in extras]))


def _by_movement(
    planned: Sequence[Set], completed: Sequence[Set]
) -> dict[tuple[object, ...], tuple[list[int], list[int]]]:
    groups: dict[tuple[object, ...], tuple[list[int], list[int]]] = defaultdict(lambda: ([], []))
    for side, sets in enumerate((planned, completed)):
        for at, one in enumerate(sets):
            # Left and right are sets of their own; other sides are a way of doing the same.
            one_side = one.sides if one.sides in ("left", "right") else ""
            groups[(_names(one), one_side, one.warm_up)][side].append(at)
    return groups


def _names(one: Set) -> tuple[str, ...]:
    return tuple(" ".join(name.split()).casefold() for name, _ in one.named_moves())


def _align(
    planned: Sequence[Set], completed: Sequence[Set], plans: list[int], dones: list[int]
) -> dict[int, int]:
    """Pair sets of one movement in order; where one side has fewer, those that fit best."""
    if len(plans) == len(dones):
        return dict(zip(plans, dones, strict=True))
    if not plans or not dones:
        return {}
    short, long = (plans, dones) if len(plans) < len(dones) else (dones, plans)
    swapped = short is dones
    costs = [
        [
            _distance(planned[b], completed[a]) if swapped else _distance(planned[a], completed[b])
            for b in long
        ]
        for a in short
    ]
    # Every one of the shorter side gets a place in the longer one, order kept, at the least cost.
    rows, columns = len(short), len(long)
    best = [[0.0] * (columns + 1)] + [[float("inf")] * (columns + 1) for _ in range(rows)]
    for row in range(1, rows + 1):
        for column in range(row, columns - rows + row + 1):
            take = best[row - 1][column - 1] + costs[row - 1][column - 1]
            best[row][column] = min(take, best[row][column - 1])
    found: dict[int, int] = {}
    column = columns
    for row in range(rows, 0, -1):
        while column > row and best[row][column] == best[row][column - 1]:
            column -= 1
        found[short[row - 1]] = long[column - 1]
        column -= 1
    return {b: a for a, b in found.items()} if swapped else found


def _distance(plan: Set, done: Set) -> float:
    """How unlike two sets of a movement are; 0 for alike."""
    apart = 0.0
    for a, b in (
        (plan.total_load_kg, done.total_load_kg),
        (plan.reps or 0, done.reps or 0),
        (plan.seconds or 0, done.seconds or 0),
    ):
        if a != b:
            apart += abs(a - b) / max(abs(a), abs(b))
    return apart + (plan.sides != done.sides)


def _swaps(
    planned: Sequence[Set],
    completed: Sequence[Set],
    left_plan: list[int],
    left_done: list[int],
    movements: MovementTable,
) -> dict[int, int]:
    """Movements that were done in the place of others, group by group, the likeliest first."""
    plan_groups = _groups(planned, left_plan)
    # What is in the plan anyway was done for itself: more of it is extra, not a swap.
    in_plan = {_names(one) for one in planned}
    done_groups = [
        group for group in _groups(completed, left_done)
        if _names(completed[group[0]]) not in in_plan
    ]  # fmt: skip
    candidates = []
    for plan_at, plans in enumerate(plan_groups):
        for done_at, dones in enumerate(done_groups):
            score = _likeness(planned, completed, plans, dones, movements)
            if score is not None:
                candidates.append((-score, plan_at, done_at))
    found: dict[int, int] = {}
    used: set[tuple[str, int]] = set()
    for _, plan_at, done_at in sorted(candidates):
        if ("plan", plan_at) in used or ("done", done_at) in used:
            continue
        used |= {("plan", plan_at), ("done", done_at)}
        found |= dict(zip(plan_groups[plan_at], done_groups[done_at], strict=False))
    return found


def _groups(sets: Sequence[Set], places: list[int]) -> list[list[int]]:
    """Places of one movement together, in the order of their first."""
    groups: dict[tuple[object, ...], list[int]] = {}
    for at in places:
        one = sets[at]
        side = one.sides if one.sides in ("left", "right") else ""
        groups.setdefault((_names(one), side, one.warm_up), []).append(at)
    return list(groups.values())


def _likeness(
    planned: Sequence[Set],
    completed: Sequence[Set],
    plans: list[int],
    dones: list[int],
    movements: MovementTable,
) -> float | None:
    """How likely the one was done for the other; ``None`` if not at all."""
    plan, done = planned[plans[0]], completed[dones[0]]
    if plan.warm_up != done.warm_up:
        return None
    one_sided = ("left", "right")
    if plan.sides != done.sides and plan.sides in one_sided and done.sides in one_sided:
        return None
    apart = abs(_middle(plans) / len(planned) - _middle(dones) / len(completed))
    score = 1.0 - apart
    a, b = (_single(one, movements) for one in (plan, done))
    if a is None or b is None:
        return score if apart <= REACH else None
    if level_between(a, b, movements) is not None:
        return score + 4
    shared = {muscle for muscle, role in a.muscles.items() if role == "direct"} & {
        muscle for muscle, role in b.muscles.items() if role == "direct"
    }
    related = 2 * (a.pattern == b.pattern) + bool(shared)
    return score + related if related or apart <= REACH else None


def _middle(places: list[int]) -> float:
    return sum(places) / len(places) + 0.5


def _single(one: Set, movements: MovementTable) -> Movement | None:
    moves = one.named_moves()
    return movements[moves[0][0]] if len(moves) == 1 and moves[0][0] in movements else None


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


def _match(
    planned: Sequence[Set],
    completed: Sequence[Set],
    at: int,
    done_at: int | None,
    movements: MovementTable,
) -> SetMatch:
    plan = planned[at]
    if done_at is None:
        return SetMatch("skipped", plan, None, at, None)
    done = completed[done_at]
    differences = tuple(_differences(plan, done, movements))
    if _names(plan) != _names(done):
        a, b = _single(plan, movements), _single(done, movements)
        level = level_between(a, b, movements) if a and b else None
        return SetMatch(level or "swapped", plan, done, at, done_at, differences)
    return SetMatch(
        "changed" if differences else "as planned", plan, done, at, done_at, differences
    )


def _differences(plan: Set, done: Set, movements: MovementTable) -> Iterator[Difference]:
    extra = plan.model_extra or {}
    most = extra.get("reps_to")
    if plan.reps is not None and isinstance(most, int) and done.reps is not None:
        # Within the range that was asked for.
        if not plan.reps <= done.reps <= most:
            yield "reps"
    elif plan.reps != done.reps and not (plan.reps is None and _open_ended(plan)):
        # Reps counted in a timed set say more than the plan did; they are no deviation.
        yield "reps"
    # The same goes for the time that a set for reps took.
    timed = plan.seconds is not None and not extra.get("for_time")
    if timed and plan.seconds != done.seconds:
        yield "seconds"
    if abs(plan.total_load_kg - done.total_load_kg) > 1e-6 or (
        plan.load_kg and plan.implements != done.implements
    ):
        yield "load"
    if plan.sides != done.sides:
        yield "sides"
    if done.tempo is not None and done.tempo != plan.tempo:
        usual = _usual_tempo(plan, movements)
        if plan.tempo is not None or done.tempo != usual:
            yield "tempo"
    if plan.hold_s != done.hold_s:
        yield "hold"
    if plan.warm_up != done.warm_up:
        yield "warm-up"


def _open_ended(plan: Set) -> bool:
    return plan.seconds is not None


def _usual_tempo(plan: Set, movements: MovementTable) -> str | None:
    movement = _single(plan, movements)
    return movement.tempo if movement else None


def _extra(completed: Sequence[Set], at: int) -> SetMatch:
    return SetMatch("extra", None, completed[at], None, at)


def _placed(matches: list[SetMatch], extras: list[SetMatch]) -> Iterator[SetMatch]:
    """Extras behind the last match that was done before them."""
    pending = list(extras)
    ahead = [one for one in matches if one.done_at is not None]
    first = min((one.done_at for one in ahead if one.done_at is not None), default=None)
    while pending and (first is None or (pending[0].done_at or 0) < first) and not matches:
        yield pending.pop(0)
    for at, one in enumerate(matches):
        yield one
        later = [other.done_at for other in matches[at + 1 :] if other.done_at is not None]
        if one.done_at is None:
            continue
        while pending and (pending[0].done_at or 0) > one.done_at and not any(
            place < (pending[0].done_at or 0) for place in later
        ):  # fmt: skip
            yield pending.pop(0)
    yield from pending


def _extra_rounds(plan: Session, matches: Sequence[SetMatch]) -> Iterator[ExtraRounds]:
    extra: dict[tuple[str, ...], int] = defaultdict(int)
    for one in matches:
        if one.kind == "extra" and one.done is not None:
            extra[_names(one.done)] += 1
    for names, rounds in _circuits(plan.sets):
        counts = {extra.get(name, 0) for name in names}
        more = min(counts)
        if more:
            shown = {_names(one): movement_text(one) for one in plan.sets}
            yield ExtraRounds(more, rounds, tuple(shown[name] for name in names))


def _circuits(sets: Sequence[Set]) -> Iterator[tuple[tuple[tuple[str, ...], ...], int]]:
    """Movements that are done in turn, with their rounds: by the part, warm-ups aside."""
    working = [one for one in sets if not one.warm_up]
    for _, several in groupby(working, key=lambda one: one.part):
        names = [_names(one) for one in several]
        start = 0
        while start < len(names):
            found = _circuit_at(names, start)
            if found is not None:
                yield found
            start += len(found[0]) * found[1] if found else 1


def _circuit_at(
    names: list[tuple[str, ...]], start: int
) -> tuple[tuple[tuple[str, ...], ...], int] | None:
    rest = names[start:]
    for length in range(2, len(rest) // 2 + 1):
        turn = rest[:length]
        if len(set(turn)) != length:
            return None
        rounds = 1
        while rest[rounds * length : (rounds + 1) * length] == turn:
            rounds += 1
        if rounds > 1:
            return tuple(turn), rounds
    return None
