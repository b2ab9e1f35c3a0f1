"""Planned against completed: which set was done for which, and what differed.

``matching`` says which belongs to which; here stands what that comes to, and how a coach says it.
"""

from __future__ import annotations

from bisect import bisect_right
from collections import Counter, defaultdict
from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import cached_property
from itertools import accumulate, groupby
from typing import Final, Literal

from dialback.core.matching.sessions import group_sessions
from dialback.core.matching.sets import Half, SetPair, level_between, names_of, pair_sets
from dialback.core.movements import Movement, MovementTable, fold
from dialback.core.sessions import Session, Set
from dialback.core.vocabulary import BY_HAND
from dialback.core.words import capital, dose_text, load_text, movement_text, number

Kind = Literal["as planned", "changed", "skipped", "extra", "swapped", "easier", "harder"]

Difference = Literal[
    "reps", "seconds", "distance", "load", "sides", "tempo", "hold", "rpe", "rest", "warm-up"
]

OTHER_UNIT_KG: Final = 0.5
"""Within this a load entered in the other unit is the same: half a kilogram's step."""
MUCH_HARDER: Final = 1.0
"""So much RPE beyond the planned one is told."""
REST_OFF: Final = 0.5
"""A rest that is off by such a share of the planned one is told."""


@dataclass(frozen=True, slots=True)
class SetMatch:
    """A planned set and what was done for it; ``at`` and ``done_at`` are places from 0."""

    kind: Kind
    plan: Set | None
    done: Set | None
    at: int | None
    done_at: int | None
    differences: tuple[Difference, ...] = ()
    half: Half = ""
    """Of a planned set for both sides, the side that it is about; of a whole set neither."""
    done_half: Half = ""
    """The same of the set that was done."""
    level_of: str = ""
    """The planned movement that an extra set is an easier or harder level of, if any."""
    level: str = ""

    @property
    def shown(self) -> Set:
        """The set that it is about: the planned one, or the one done without a plan."""
        shown = self.plan or self.done
        assert shown is not None  # noqa: S101 - a match has one of them
        return shown

    @property
    def words(self) -> str:
        """What differed, as a coach says it; empty for a set as planned."""
        match self.kind:
            case "as planned":
                return ""
            case "skipped":
                return f"the {self.half} side not done" if self.half else "not done"
            case "extra":
                side = f"the {self.done_half} side " if self.done_half else ""
                return f"{side}not planned"
        assert self.plan is not None and self.done is not None  # noqa: S101, PT018 - by its kind
        changed = [_SAYS[difference](self.plan, self.done) for difference in self.differences]
        if self.kind == "changed":
            # A side by itself is named: it may be the one that is short.
            side = f"{self.half} side: " if self.half else ""
            return side + ", ".join(changed)
        instead = f"{movement_text(self.done)} instead of {movement_text(self.plan)}"
        if self.kind == "swapped":
            # Loads and reps of two movements do not compare.
            return instead
        return ", ".join([f"{instead}, the {self.kind} level", *changed])


def _load(plan: Set, done: Set) -> str:
    if not plan.load_kg and done.load_kg:
        return f"{load_text(done)} instead of no load"
    if not done.load_kg:
        return f"no load instead of {load_text(plan)}"
    step = done.total_load_kg - plan.total_load_kg
    # Help is taken off: a share of it says nothing of the load.
    comparable = plan.load_kg > 0 and done.load_kg > 0 and names_of(plan) == names_of(done)
    if comparable and plan.implements == done.implements and step:
        share = step / plan.total_load_kg * 100
        sign = "+" if share > 0 else "−"
        return f"{load_text(done)} instead of {load_text(plan)} ({sign}{number(abs(share), 0)} %)"
    return f"{load_text(done)} instead of {load_text(plan)}"


def _reps(plan: Set, done: Set) -> str:
    if done.reps is None:
        return f"{dose_text(done)} instead of {dose_text(plan)}"
    most = plan.reps_to
    wanted = f"{plan.reps}–{most}" if most else str(plan.reps) if plan.reps is not None else "none"
    return f"{done.reps} rep{'' if done.reps == 1 else 's'} instead of {wanted}"


def _seconds(plan: Set, done: Set) -> str:
    if done.seconds is None and done.reps is not None:
        return f"{dose_text(done)} instead of {dose_text(plan)}"
    return " instead of ".join(
        "no time" if a_set.seconds is None else f"{number(a_set.seconds)} s"
        for a_set in (done, plan)
    )


_SAYS: Final[dict[Difference, Callable[[Set, Set], str]]] = {
    "reps": _reps,
    "seconds": _seconds,
    "load": _load,
    "sides": lambda plan, done: f"{done.sides} instead of {plan.sides}",
    "tempo": lambda plan, done: f"tempo {done.tempo or 'free'} instead of {plan.tempo or 'free'}",
    "hold": lambda plan, done: f"hold {number(done.hold_s)} s instead of {number(plan.hold_s)} s",
    "distance": lambda plan, done: " instead of ".join(
        f"{number(a_set.distance_m)} m" if a_set.distance_m else "no distance"
        for a_set in (done, plan)
    ),
    "rpe": lambda plan, done: f"RPE {number(done.rpe or 0)} instead of {number(plan.rpe or 0)}",
    "rest": lambda plan, done: (
        f"rest {number(done.rest_s or 0)} s instead of {number(plan.rest_s or 0)} s"
    ),
    "warm-up": lambda _plan, done: "as a warm-up" if done.warm_up else "as a working set",
}


@dataclass(frozen=True)
class SessionMatch:
    """A planned session and the one that was done for it; one of them may be missing."""

    plan: Session | None
    done: Session | None
    sets: tuple[SetMatch, ...]
    plans: tuple[Session, ...] = ()
    """The planned sessions themselves; ``plan`` has the sets of all of them."""
    dones: tuple[Session, ...] = ()
    """The completed sessions themselves; ``done`` has the sets of all of them."""
    moved: bool = False
    elsewhere: bool = False
    """Whether a session of another week was done for the plan."""

    @property
    def missed(self) -> bool:
        """Whether it is a plan that nothing was done for, in this week or another."""
        return self.done is None and not self.elsewhere

    @cached_property
    def deviations(self) -> tuple[SetMatch, ...]:
        """The sets that were not done as planned."""
        return tuple(a_set for a_set in self.sets if a_set.kind != "as planned")

    @property
    def changes(self) -> tuple[str, ...]:
        """What differed in the sets that were done for planned ones, movement by movement."""
        counts = Counter(
            (movement_text(a_set.shown), a_set.words, a_set.kind)
            for a_set in self.sets
            if a_set.kind in ("changed", "easier", "harder")
        )
        return tuple(
            (words if kind != "changed" else f"{name}: {words}")
            + (f" ({count} sets)" if count > 1 else "")
            for (name, words, kind), count in counts.items()
        )

    @cached_property
    def extra_rounds(self) -> tuple[ExtraRounds, ...]:
        """Whole rounds that were done beyond the plan."""
        return tuple(_extra_rounds(self.plan, self.sets)) if self.plan is not None else ()

    @property
    def summary(self) -> tuple[str, ...]:
        """What differed, movement by movement; extra rounds first, and told once."""
        in_rounds = {name for more in self.extra_rounds for name in more.names}
        clusters = dict(_clusters(self.sets))
        counts: dict[tuple[str, str, Kind], int] = defaultdict(int)
        for deviation in self.deviations:
            name = movement_text(deviation.shown)
            if deviation.kind == "extra" and (deviation.level_of or name) in in_rounds:
                continue
            if name in clusters:
                continue
            counts[name, deviation.words, deviation.kind] += 1
        planned = Counter(
            movement_text(a_set.plan) for a_set in self.sets if a_set.plan is not None
        )
        told = [capital(more.words) for more in self.extra_rounds]
        told += [f"{name}: {words}" for name, words in clusters.items()]
        if self.moved and self.plan is not None and self.done is not None:
            told.insert(0, f"Done on {self.done.date:%A} instead of {self.plan.date:%A}")
        for (name, words, kind), count in counts.items():
            sets = f" ({count} sets)" if count > 1 else ""
            if kind == "skipped" and words == "not done" and count < planned[name]:
                told.append(f"{name}: {count} of {planned[name]} sets not done")
            elif kind in ("swapped", "easier", "harder"):
                told.append(f"{words}{sets}")
            else:
                told.append(f"{name}: {words}{sets}")
        return tuple(told)


@dataclass(frozen=True, slots=True)
class ExtraRounds:
    """So many rounds more of some movements than planned."""

    rounds: int
    planned: int
    movements: tuple[str, ...]
    """As they are told: with the level that was done, where it was another."""
    names: tuple[str, ...]
    """As they were planned."""

    @property
    def words(self) -> str:
        """How a coach says it."""
        what = "one more round" if self.rounds == 1 else f"{self.rounds} more rounds"
        return f"{what} of {', '.join(self.movements)} than the {self.planned} planned"


def missed_days(matches: Iterable[SessionMatch]) -> dict[date, list[Session]]:
    """The planned sessions that nothing was done for, by day, in order."""
    days: dict[date, list[Session]] = defaultdict(list)
    for match in matches:
        if match.missed and match.plan is not None:
            days[match.plan.date].append(match.plan)
    return dict(sorted(days.items()))


def match_sessions(
    planned: Sequence[Session],
    completed: Sequence[Session],
    movements: MovementTable,
    elsewhere: Collection[int] = (),
    known: Iterable[SessionMatch] = (),
) -> tuple[SessionMatch, ...]:
    """Sessions of a week side by side, in order of day; every session is in one match.

    ``elsewhere`` are places of planned sessions that sessions of other weeks were done for. What is
    ``known`` of the very same sessions is not worked out again.
    """
    matched = {_sessions_of(match.plans, match.dones): match.sets for match in known}
    found = []
    for group in group_sessions(planned, completed, movements, elsewhere):
        plans = tuple(planned[at] for at in group.plans)
        dones = tuple(completed[at] for at in group.dones)
        plan, done = _as_one(plans), _as_one(dones)
        sets = matched.get(_sessions_of(plans, dones))
        if sets is None:
            sets = match_sets(plan.sets if plan else (), done.sets if done else (), movements)
        days = {one.date for one in dones}
        found.append(
            SessionMatch(
                plan,
                done,
                sets,
                plans,
                dones,
                moved=bool(days) and all(one.date not in days for one in plans),
                elsewhere=not dones and any(at in elsewhere for at in group.plans),
            )
        )
    return tuple(found)


def _sessions_of(
    plans: Iterable[Session], dones: Iterable[Session]
) -> tuple[tuple[int, ...], tuple[int, ...]]:
    return tuple(map(id, plans)), tuple(map(id, dones))


def by_session(match: SessionMatch) -> tuple[SessionMatch, ...]:
    """A match with a part for each session that was done: what is planned stands with the first.

    Places of done sets are those within their own session.
    """
    parts = _parts(match, [0] * len(match.sets))
    return tuple(part if at == 0 else replace(part, plan=None) for at, part in enumerate(parts))


def where_skipped(match: SessionMatch) -> tuple[SessionMatch, ...]:
    """The same, with what was skipped in the session of the planned set before it, else the first.

    Each part knows its plan.
    """
    ends = list(accumulate(len(done.sets) for done in match.dones))
    owners = []
    owner = 0
    for one in match.sets:
        if one.at is not None and one.done_at is not None:
            owner = bisect_right(ends, one.done_at)
        owners.append(owner)
    return _parts(match, owners)


def _parts(match: SessionMatch, skipped_in: Sequence[int]) -> tuple[SessionMatch, ...]:
    """A match for each done session; ``skipped_in`` says of a set where it is told if skipped."""
    if len(match.dones) < 2:
        return (match,)
    parts = []
    begin = 0
    for place, done in enumerate(match.dones):
        end = begin + len(done.sets)
        sets = tuple(
            one if one.done_at is None else replace(one, done_at=one.done_at - begin)
            for one, owner in zip(match.sets, skipped_in, strict=True)
            if (owner == place if one.done_at is None else begin <= one.done_at < end)
        )
        parts.append(replace(match, done=done, dones=(done,), sets=sets))
        begin = end
    return tuple(parts)


def _as_one(several: tuple[Session, ...]) -> Session | None:
    """Several sessions as one: the first, with the titles and the sets of all."""
    if len(several) < 2:
        return several[0] if several else None
    titles = dict.fromkeys(one.title for one in several if one.title)
    return several[0].model_copy(
        update={
            "title": " and ".join(titles),
            "sets": tuple(a_set for one in several for a_set in one.sets),
            "pain": tuple(pain for one in several for pain in one.pain),
        }
    )


def match_sets(
    planned: Sequence[Set], completed: Sequence[Set], movements: MovementTable
) -> tuple[SetMatch, ...]:
    """Sets side by side, in the order of the plan; an extra set stands where it was done.

    A set for both sides that was done side by side stands with each of its sides.
    """
    pairs = pair_sets(planned, completed, movements)
    matches = [_match(pair, movements) for pair in pairs if pair.plan is not None]
    named = dict.fromkeys(
        movement.name for a_set in planned if (movement := _only(a_set, movements)) is not None
    )
    extras = [
        _with_level(_match(pair, movements), named, movements)
        for pair in pairs
        if pair.plan is None
    ]
    matches.sort(key=lambda match: (match.at, match.half))
    extras.sort(key=lambda match: (match.done_at, match.done_half))
    return tuple(_placed(matches, extras))


def _with_level(extra: SetMatch, planned: Iterable[str], movements: MovementTable) -> SetMatch:
    """An extra set with the planned movement that it is another level of."""
    movement = _only(extra.shown, movements)
    if movement is None:
        return extra
    for name in planned:
        level = level_between(movements[name], movement, movements)
        if level is not None:
            return replace(extra, level_of=name, level=level)
    return extra


def _match(pair: SetPair, movements: MovementTable) -> SetMatch:
    plan, done = pair.plan, pair.done
    if done is None:
        assert plan is not None  # noqa: S101 - a pair has one of them
        return SetMatch("skipped", plan.set, None, plan.at, None, half=plan.half)
    if plan is None:
        return SetMatch("extra", None, done.set, None, done.at, done_half=done.half)
    differences = tuple(_differences(plan.set, _in_its_form(plan.set, done.set), movements))
    if "reps" in differences or "seconds" in differences:
        differences = tuple(_differences(plan.set, done.set, movements))
    kind: Kind = "changed" if differences else "as planned"
    if names_of(plan.set) != names_of(done.set):
        a, b = _only(plan.set, movements), _only(done.set, movements)
        level = level_between(a, b, movements) if a and b else None
        kind = level or "swapped"
    return SetMatch(kind, plan.set, done.set, plan.at, done.at, differences, plan.half, done.half)


def _in_its_form(plan: Set, done: Set) -> Set:
    """A set done in turn as one done on each side, or the other way: 16 alternating are 8 each."""
    share = {("each", "alternating"): 0.5, ("alternating", "each"): 2.0}.get(
        (plan.sides, done.sides)
    )
    if share is None:
        return done
    reps = None if done.reps is None else done.reps * share
    if reps is not None and reps != int(reps):
        return done
    seconds = None if done.seconds is None else done.seconds * share
    changed = {"reps": reps if reps is None else int(reps), "seconds": seconds}
    return done.model_copy(update={"sides": plan.sides, **changed})


def _differences(plan: Set, done: Set, movements: MovementTable) -> Iterator[Difference]:
    reps, seconds = done.own_reps, done.own_seconds
    if plan.reps is not None and plan.reps_to is not None and reps is not None:
        # Within the range that was asked for.
        if not plan.reps <= reps <= plan.reps_to:
            yield "reps"
    elif plan.own_reps != reps and not (plan.own_reps is None and plan.own_seconds is not None):
        # Reps counted in a timed set say more than the plan did; they are no deviation.
        yield "reps"
    # The same goes for the time that a set for reps took.
    timed = plan.own_seconds is not None and not plan.for_time
    if timed and not within(plan.own_seconds, plan.seconds_to, seconds):
        yield "seconds"
    if plan.distance_m is not None and plan.distance_m != done.distance_m:
        yield "distance"
    if _other_load(plan, done, by_hand=_by_hand(plan, movements)):
        yield "load"
    if plan.sides != done.sides:
        yield "sides"
    if done.tempo is not None and done.tempo != plan.tempo:
        usual = _usual_tempo(plan, movements)
        if plan.tempo is not None or done.tempo != usual:
            yield "tempo"
    if plan.hold_s != done.hold_s:
        yield "hold"
    if plan.rpe is not None and done.rpe is not None:
        planned_rpe = max(plan.rpe, plan.rpe_to or 0)
        if done.rpe - planned_rpe >= MUCH_HARDER - 1e-9:
            yield "rpe"
    rested = plan.rest_s and done.rest_s is not None
    if (
        rested
        and not within(plan.rest_s, plan.rest_to_s, done.rest_s)
        and abs((done.rest_s or 0) - (plan.rest_s or 0)) >= REST_OFF * (plan.rest_s or 0)
    ):
        yield "rest"
    if plan.warm_up != done.warm_up:
        yield "warm-up"


def _by_hand(a_set: Set, movements: MovementTable) -> bool:
    """Whether each hand has its own load, so that a pair is its sum."""
    movement = _only(a_set, movements)
    return movement is not None and movement.pattern in HANDS_APART


HANDS_APART: Final = BY_HAND | {"carry"}
"""Patterns in which what both hands have adds up: 2 × 20 kg are 40 kg."""


def _other_load(plan: Set, done: Set, *, by_hand: bool) -> bool:
    """Whether the loads differ, by more than one unit can say in the other."""
    if _pieces_of(plan) != _pieces_of(done):
        return True
    if plan.load_kg and plan.implements != done.implements and not by_hand:
        return True
    other_unit = plan.in_pounds != done.in_pounds
    tolerance = OTHER_UNIT_KG * done.implements if other_unit else 1e-6
    return abs(plan.total_load_kg - done.total_load_kg) > tolerance


def _pieces_of(a_set: Set) -> object:
    """What of a set's loads is told piece by piece."""
    if a_set.loads is not None:
        return tuple((piece.reps, piece.load_kg * piece.implements) for piece in a_set.loads)
    own = [
        (fold(move.exercise), move.load_kg * move.implements)
        for move in a_set.moves or ()
        if move.load_kg is not None
    ]
    return sorted(own)


def within(planned: float | None, top: float | None, done: float | None) -> bool:
    """Whether a value is what was planned, or within the span that was."""
    if planned is None or done is None:
        return planned == done
    return planned <= done <= max(planned, top or planned)


def _only(a_set: Set, movements: MovementTable) -> Movement | None:
    moves = a_set.named_moves()
    return movements.get(moves[0][0]) if len(moves) == 1 else None


def _usual_tempo(plan: Set, movements: MovementTable) -> str | None:
    movement = _only(plan, movements)
    return movement.tempo if movement else None


def _placed(matches: list[SetMatch], extras: list[SetMatch]) -> Iterator[SetMatch]:
    """Each extra set behind the planned set that was done last before it; the first ones first."""
    behind: dict[int, list[SetMatch]] = defaultdict(list)
    for extra in extras:
        before = [
            (match.done_at, at)
            for at, match in enumerate(matches)
            if match.done_at is not None and match.done_at < (extra.done_at or 0)
        ]
        behind[max(before)[1] if before else -1].append(extra)
    yield from behind[-1]
    for at, match in enumerate(matches):
        yield match
        yield from behind[at]


def _extra_rounds(plan: Session, matches: Sequence[SetMatch]) -> Iterator[ExtraRounds]:
    extra: dict[tuple[str, ...], int] = defaultdict(int)
    levels: dict[tuple[str, ...], str] = {}
    for match_ in matches:
        if match_.kind == "extra" and match_.done is not None:
            base = (fold(match_.level_of),) if match_.level_of else names_of(match_.done)
            extra[base] += 1
            if match_.level:
                levels[base] = f" ({match_.level})"
    for names, rounds in _circuits(plan.sets):
        counts = {extra.get(name, 0) for name in names}
        more = min(counts)
        if more:
            shown = {names_of(a_set): movement_text(a_set) for a_set in plan.sets}
            told = tuple(f"{shown[name]}{levels.get(name, '')}" for name in names)
            yield ExtraRounds(more, rounds, told, tuple(shown[name] for name in names))


def _clusters(sets: Sequence[SetMatch]) -> Iterator[tuple[str, str]]:
    """Movements whose planned reps were done in more and shorter sets, all of them."""
    names = dict.fromkeys(movement_text(a_set.shown) for a_set in sets if a_set.kind == "extra")
    for name in names:
        own = [a_set for a_set in sets if movement_text(a_set.shown) == name]
        planned = [a_set.plan for a_set in own if a_set.plan is not None]
        done = [a_set.done for a_set in own if a_set.done is not None]
        alike = all(
            a_set.kind in ("as planned", "extra") or a_set.differences == ("reps",) for a_set in own
        )
        if not planned or not alike or len({_loaded(one) for one in (*planned, *done)}) > 1:
            continue
        counts = [[one.reps or 0 for one in several] for several in (planned, done)]
        if sum(counts[0]) == sum(counts[1]) and max(counts[1]) <= max(counts[0]):
            yield name, f"{_so_many(counts[0])} done as {_so_many(counts[1])}, in clusters"


def _loaded(a_set: Set) -> tuple[float, str, bool]:
    return (a_set.total_load_kg, a_set.sides, a_set.warm_up)


def _so_many(reps: Sequence[int]) -> str:
    """``3 sets of 3``, ``9 singles``, ``a set of 3 and 12 singles``."""
    told = []
    for count, several in groupby(reps):
        number_of = len(list(several))
        if count == 1:
            told.append(f"{number_of} singles" if number_of > 1 else "a single")
        else:
            told.append(f"{number_of} sets of {count}" if number_of > 1 else f"a set of {count}")
    return " and ".join(told)


def _circuits(sets: Sequence[Set]) -> Iterator[tuple[tuple[tuple[str, ...], ...], int]]:
    """Movements that are done in turn, with their rounds: by the part, warm-ups aside."""
    working = [a_set for a_set in sets if not a_set.warm_up]
    for _, several in groupby(working, key=lambda one: one.part):
        names = [names_of(a_set) for a_set in several]
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
