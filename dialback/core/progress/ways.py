"""The ways to make a movement of a plan a little harder, or easier: each in whole steps."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final, Literal

from dialback.core.adjusting.start import offered
from dialback.core.baseline import TOLERANCE
from dialback.core.kit import LOAD_TOLERANCE_KG, at_or_below, loads_for, usual_step
from dialback.core.measures import MEASURES
from dialback.core.movements import Movement, fold
from dialback.core.progress.history import Range, range_of
from dialback.core.restrictions import allowed, breaks
from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger, four_measures, tally
from dialback.core.tempo import ASSUMED, Tempo, parse_tempo
from dialback.core.weeks import Week
from dialback.core.words import Unit, number, sets_text, weight_text

Kind = Literal[
    "load", "help", "band", "seconds", "reps", "set", "pause", "lowering", "rest", "hold", "level"
]
Place = tuple[int, int]
"""A set in a plan: its session and its place there, from 0."""
Changes = dict[str, Any]
"""Values of a set by their keys."""

BEYOND_REPS: Final = 3
"""So many reps beyond the range, at most."""
MOST_SETS: Final = 6
"""No session gets more sets of a movement by a step."""
_SECONDS_STEP: Final = 5
_REST_STEP_S: Final = 15
_LEAST_REST_S: Final = 30
_HOLD_STEP_S: Final = 2
_LONGEST_LOWERING_S: Final = 6
_PAUSE_S: Final = 2
_DOWN: Final = 0.95
"""Down by 5 to 10 %: to the heaviest load of at most this share …"""
_LEAST_DOWN: Final = 0.75
"""… which the kit may have further below, but not below this."""
_NEXT_LEVEL: Final = 2 / 3
"""So much of the reps or seconds is a start at a harder level that was not done lately."""


@dataclass(frozen=True, slots=True)
class Work:
    """The working sets of a movement in a plan."""

    ledger: Ledger
    week: Week
    sessions: Sequence[Session]
    movement: Movement
    places: tuple[Place, ...]
    done_kg: float
    """The heaviest load of one implement in the last session."""

    @property
    def sets(self) -> tuple[Set, ...]:
        """The sets in the order of the plan."""
        return tuple(self.sessions[at].sets[place] for at, place in self.places)

    @property
    def load_kg(self) -> float:
        """The heaviest load of one implement."""
        return max(a_set.load_kg for a_set in self.sets)

    @property
    def ranges(self) -> frozenset[Range | None]:
        """The ranges of the sets: one, or several of a pyramid."""
        return frozenset(map(range_of, self.sets))

    @property
    def unit(self) -> Unit:
        """The unit that the loads were entered in."""
        return "lb" if self.sets[0].in_pounds else "kg"

    def base_kg(self, load: float) -> float:
        """What a load goes up from: a top load that was done heavier than planned from there."""
        return max(load, self.done_kg) if load == self.load_kg else load


@dataclass(frozen=True, slots=True)
class Way:
    """One way on: the sets as they would be, or those that come once more behind the last of them.

    ``says`` is the change in a few words, ``told`` all working sets of the movement as they would
    be; ``effect`` what the four measures of the plan gain.
    """

    kind: Kind
    says: str
    put: Mapping[Place, Set]
    more: tuple[Place, ...]
    told: str
    effect: Mapping[str, float]


def taken(sessions: Sequence[Session], *ways: Way) -> tuple[Session, ...]:
    """A plan with ways taken, of different movements or schemes."""
    put = {place: a_set for way in ways for place, a_set in way.put.items()}
    more = {max(way.more): way.more for way in ways if way.more}
    found = []
    for at, session in enumerate(sessions):
        sets: list[Set] = []
        for place in range(len(session.sets)):
            again = more.get((at, place), ())
            sets += [put.get(one, session.sets[one[1]]) for one in ((at, place), *again)]
        found.append(session.model_copy(update={"sets": tuple(sets)}))
    return tuple(found)


def harder(work: Work) -> Iterator[Way]:
    """Every way to make it a little harder that kit and restrictions allow."""
    first = work.sets[0]
    if first.band is not None:
        yield from _banded(work, +1)
    elif first.load_kg < 0:
        yield from _helped(work, +1)
    elif work.load_kg > 0:
        yield from _loaded(work, lambda load: next_kg(work, load))
    if first.reps is None:
        yield from _seconds(work, lambda now: now + _second_step(now))
    else:
        yield from _beyond(work)
    yield from _one_more(work)
    if first.reps is not None and not work.movement.isometric:
        yield from _slower(work)
    yield from _shorter_rest(work)
    if first.reps is not None:
        hold = first.hold_s + _HOLD_STEP_S
        yield from _changed(
            work, "hold", f"hold {number(hold)} s at the end", lambda _: {"hold_s": hold}
        )
    yield from _level(work, work.movement.harder, _NEXT_LEVEL)


def easier(work: Work, done_reps: int) -> Iterator[Way]:
    """The ways back, the first the best: 5 to 10 % less, as the kit has it."""
    first = work.sets[0]
    if first.band is not None:
        yield from _banded(work, -1)
    elif first.load_kg < 0:
        yield from _helped(work, -1)
    elif work.load_kg > 0:
        yield from _loaded(work, lambda load: load_below(work, load))
    if first.reps is None:
        yield from _seconds(work, lambda now: max(_SECONDS_STEP, now - _second_step(now)))
    yield from _level(work, work.movement.easier)
    if len(work.ranges) == 1 and first.reps is not None and 0 < done_reps < first.reps:
        yield from _changed(
            work, "reps", f"{done_reps} reps", lambda _: {"reps": done_reps, "reps_to": None}
        )


def _beyond(work: Work) -> Iterator[Way]:
    """Up to three reps beyond the range of each set."""

    def more(a_set: Set) -> Changes:
        high = a_set.reps_to or a_set.reps or 0
        return {"reps": high + 1, "reps_to": high + BEYOND_REPS}

    first = more(work.sets[0])
    says = f"{first['reps']}–{first['reps_to']} reps"
    if len(work.ranges) > 1:
        says = f"up to {BEYOND_REPS} reps more"
    yield from _changed(work, "reps", says, more)


def next_kg(work: Work, load: float) -> float | None:
    """The load that comes next, however large the step; what was done already comes first.

    A top load that was done heavier than it is planned is planned as it was done, where the step
    beyond that is too large. ``None`` at the top of the kit.
    """
    base = work.base_kg(load)
    above = load_above(work, base)
    too_far = above is None or above > base * (1 + work.ledger.rules.load_step[0] + TOLERANCE)
    return base if too_far and base > load + LOAD_TOLERANCE_KG else above


def load_above(work: Work, load: float) -> float | None:
    """The next load that the kit has; ``None`` at its top. Of unknown kit a usual step."""
    loads = _loads(work)
    if loads:
        return next((one for one in loads if one > load + LOAD_TOLERANCE_KG), None)
    return load + usual_step(load, work.unit)


def load_below(work: Work, load: float) -> float | None:
    """5 to 10 % less as far as the kit has it, else the next load below."""
    loads = _loads(work)
    most = _DOWN * load
    if not loads:
        step = usual_step(load, work.unit) / 2
        return math.floor(most / step) * step or None
    below = at_or_below(most, loads)
    return below if below is not None and below >= _LEAST_DOWN * load else None


def _loads(work: Work) -> tuple[float, ...]:
    return loads_for(work.ledger.kit, work.movement)[1] if work.ledger.kit else ()


def _loaded(work: Work, to: Callable[[float], float | None]) -> Iterator[Way]:
    loads: dict[float, float] = {}
    for a_set in work.sets:
        if a_set.load_kg > 0:
            load = to(a_set.load_kg)
            if load is None:
                return
            loads[a_set.load_kg] = load
    says = ", ".join(weight_text(load, work.unit) for load in dict.fromkeys(loads.values()))
    yield from _changed(
        work, "load", says, lambda a_set: {"load_kg": loads.get(a_set.load_kg, a_set.load_kg)}
    )


def _helped(work: Work, way: int) -> Iterator[Way]:
    step = usual_step(abs(work.sets[0].load_kg), work.unit) * way
    to = min(0.0, work.sets[0].load_kg + step)
    says = f"{weight_text(-to, work.unit)} of help" if to else "no help"
    yield from _changed(
        work, "help", says, lambda a_set: {"load_kg": min(0.0, a_set.load_kg + step)}
    )


def _banded(work: Work, way: int) -> Iterator[Way]:
    bands = [fold(band) for band in (work.ledger.kit.bands if work.ledger.kit else ())]
    now = fold(work.sets[0].band or "")
    at = bands.index(now) + way if now in bands else -1
    if work.ledger.kit and 0 <= at < len(bands):
        band = work.ledger.kit.bands[at]
        yield from _changed(work, "band", f"band {band}", lambda _: {"band": band})


def _second_step(seconds: float) -> int:
    return max(_SECONDS_STEP, _SECONDS_STEP * round(seconds / 10 / _SECONDS_STEP))


def _seconds(work: Work, to: Callable[[float], float]) -> Iterator[Way]:
    times = dict.fromkeys(a_set.seconds or 0.0 for a_set in work.sets)
    said = ", ".join(f"{number(to(seconds))} s" for seconds in times)
    yield from _changed(work, "seconds", said, lambda a_set: {"seconds": to(a_set.seconds or 0.0)})


def _one_more(work: Work) -> Iterator[Way]:
    """One set more behind the last; where sides are logged apart, one with each."""
    last = work.places[-1]
    if any(a_set.round is not None for a_set in work.sets):
        # A circuit has as many of each of its movements.
        return
    side = work.sets[-1].sides
    twins = [
        place
        for place, a_set in zip(work.places, work.sets, strict=True)
        if {side, a_set.sides} == {"left", "right"} and place[0] == last[0]
    ]
    if sum(at == last[0] for at, _ in work.places) < MOST_SETS * (2 if twins else 1):
        yield from _way(work, "set", "one more set", {}, (*twins[-1:], last))


def _slower(work: Work) -> Iterator[Way]:
    def tempo_of(a_set: Set) -> Tempo:
        text = a_set.tempo or work.movement.tempo
        return parse_tempo(text) if text else ASSUMED

    def paused(a_set: Set) -> Tempo:
        tempo = tempo_of(a_set)
        return tempo._replace(pause_bottom=max(_PAUSE_S, tempo.pause_bottom + 1))

    def slower(a_set: Set) -> Tempo:
        tempo = tempo_of(a_set)
        return tempo._replace(eccentric=tempo.eccentric + 1)

    first = work.sets[0]
    yield from _changed(
        work,
        "pause",
        f"a pause of {number(paused(first).pause_bottom)} s at the bottom",
        lambda a_set: {"tempo": _tempo_text(paused(a_set))},
    )
    if all(slower(a_set).eccentric <= _LONGEST_LOWERING_S for a_set in work.sets):
        yield from _changed(
            work,
            "lowering",
            f"lowered over {number(slower(first).eccentric)} s",
            lambda a_set: {"tempo": _tempo_text(slower(a_set))},
        )


def _tempo_text(tempo: Tempo) -> str:
    return "-".join(f"{seconds:g}" for seconds in tempo)


def _shorter_rest(work: Work) -> Iterator[Way]:
    rests = [a_set.rest_s for a_set in work.sets if a_set.rest_s]
    if rests and min(rests) - _REST_STEP_S >= _LEAST_REST_S:
        yield from _changed(
            work,
            "rest",
            f"rest {number(min(rests) - _REST_STEP_S)} s",
            lambda a_set: {"rest_s": a_set.rest_s - _REST_STEP_S} if a_set.rest_s else {},
        )


def _level(work: Work, name: str | None, share: float = 1) -> Iterator[Way]:
    """Another level: as it was done last, else with that share of the reps and without load."""
    ledger = work.ledger
    if name is None or name not in ledger.movements:
        return
    movement = ledger.movements[name]
    own = offered(ledger, work.week).get(movement.name)
    if own is None and movement.kit and work.load_kg > 0:
        return

    def change(a_set: Set) -> Changes:
        seconds = a_set.seconds and max(1, round(a_set.seconds * share / _SECONDS_STEP))
        dose: Changes = {
            "reps": a_set.reps and max(1, round(a_set.reps * share)),
            "reps_to": None,
            "seconds": seconds and _SECONDS_STEP * seconds,
            "load_kg": 0.0,
            "implements": 1,
            "sides": "each" if movement.one_sided else a_set.sides,
        }
        if own is not None:
            dose = {key: getattr(own, key) for key in dose}
        return {"exercise": movement.name, "tempo": None, **dose}

    yield from _changed(work, "level", movement.name, change)


def _changed(work: Work, kind: Kind, says: str, change: Callable[[Set], Changes]) -> Iterator[Way]:
    put = {}
    for place, a_set in zip(work.places, work.sets, strict=True):
        put[place] = a_set.model_copy(update=change(a_set))
    yield from _way(work, kind, says, put, ())


def _way(
    work: Work, kind: Kind, says: str, put: Mapping[Place, Set], more: tuple[Place, ...]
) -> Iterator[Way]:
    if any(not _is_allowed(work, place, a_set) for place, a_set in put.items()):
        return
    now = [put.get(place, a_set) for place, a_set in zip(work.places, work.sets, strict=True)]
    now += [work.sessions[at].sets[place] for at, place in more]
    before, after = (_sums(work, sets) for sets in (work.sets, now))
    effect = {measure: after[measure] - before[measure] for measure in MEASURES}
    yield Way(kind, says, put, more, sets_text(now, work.movement.name), effect)


def _sums(work: Work, sets: Sequence[Set]) -> dict[str, float]:
    day = work.sessions[work.places[0][0]].date
    return four_measures(tally(work.ledger.measure([Session(date=day, sets=tuple(sets))])))


def _is_allowed(work: Work, place: Place, a_set: Set) -> bool:
    day = work.sessions[place[0]].date
    ledger = work.ledger
    movement = ledger.movements[a_set.exercise or ""]
    return bool(
        allowed([movement.name], ledger.movements, ledger.restrictions, ledger.rules, day)
    ) and not any(
        breaks(a_set, [movement], restriction, ledger.rules)
        for restriction in ledger.restrictions
        if restriction.holds(day)
    )
