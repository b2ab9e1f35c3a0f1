"""From the written session to the flat sets that are counted."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date
from typing import Any

from dialback.core.counting import kind_of, measure, shape_of
from dialback.core.kit import takes_a_load
from dialback.core.movements import MovementTable
from dialback.core.notation.session import (
    Bout,
    Item,
    Line,
    Moves,
    Part,
    Pause,
    Rounds,
    WrittenSession,
)
from dialback.core.rules import DEFAULT_RULES
from dialback.core.sessions import TO_FAILURE, Session, Set
from dialback.core.vocabulary import BY_HAND


@dataclass(frozen=True, slots=True)
class PlacedSet:
    """A flat set, and the line of the text it comes from."""

    set: Set
    line: int


@dataclass(frozen=True, slots=True)
class Setting:
    """What a text is done with: the movements, and the load that a share of a maximum comes to.

    ``load_of`` takes a movement's name and per cent of its maximum, and gives kg of one implement,
    or ``None`` where no maximum is known. ``body_load_of`` does so for per cent of what the athlete
    weighs.
    """

    movements: MovementTable
    load_of: Callable[[str, float], float | None] = lambda name, percent: None
    implements_of: Callable[[str], int] = lambda name: 1
    body_load_of: Callable[[str, float], float | None] = lambda name, percent: None


def expand(written: WrittenSession, setting: Setting, day: date | None = None) -> Session:
    """The session in the contract's form; ``day`` where the text has none.

    Sets in rounds carry ``round`` and ``place``; what the contract has no key for (upper end of a
    rep range, band, range, note) stands in further keys of the set. Raises ``ValueError`` without
    any day.
    """
    on = written.day or day
    if on is None:
        raise ValueError("the session has no day: begin it with one, as in 2026-11-30 Legs")
    sets = tuple(placed.set for placed in placed_sets(written, setting))
    return Session(date=on, title=written.title, sets=sets)


def placed_sets(written: WrittenSession, setting: Setting) -> tuple[PlacedSet, ...]:
    """Every flat set of the session in order."""
    return tuple(
        placed
        for at, part in enumerate(written.parts)
        for placed in _part(part, setting, last=at == len(written.parts) - 1)
    )


def _part(part: Part, setting: Setting, *, last: bool) -> list[PlacedSet]:
    found: list[PlacedSet] = []
    for item in part.items:
        if isinstance(item, Pause):
            _rest(found, item.rest_s)
        else:
            found += item_sets(item, part, setting)
    if part.rest_s is not None and not last:
        _rest(found, part.rest_s)
    return found


def _rest(found: list[PlacedSet], seconds: float) -> None:
    """A rest after all that was done so far stands with the last set."""
    if found:
        final = found[-1]
        found[-1] = PlacedSet(
            final.set.model_copy(update={"rest_s": seconds, "rest_to_s": None}), final.line
        )


def item_sets(item: Item, part: Part, setting: Setting) -> list[PlacedSet]:
    """The flat sets of a line or of rounds, in order."""
    match item:
        case Line():
            return [
                PlacedSet(set_of(item.moves, step.bout, part, setting, _reason(item.why)), item.at)
                for step in item.steps
                for _ in range(step.sets)
            ]
        case Rounds():
            found = list(_in_rounds(item, part, setting))
            return found if item.every_s is None else _on_the_clock(found, item, setting)
    return []


def _reason(why: str) -> dict[str, Any]:
    return {"why": why} if why else {}


def _in_rounds(item: Rounds, part: Part, setting: Setting) -> Iterator[PlacedSet]:
    for number in range(_times(item)):
        turn_at = number % len(item.turns)
        this_round = number // len(item.turns)
        turn = item.turns[turn_at]
        moves, bout = turn.alternatives[this_round % len(turn.alternatives)]
        rest, rest_to = bout.rest_s, bout.rest_to_s
        if rest is None and number < _times(item) - 1:
            rest, rest_to = item.off_s, item.off_to_s
            closes_round = turn_at == len(item.turns) - 1
            if closes_round and item.between_s is not None:
                rest, rest_to = item.between_s, item.between_to_s
        keys: dict[str, Any] = {"round": this_round + 1, "place": turn_at + 1, "rest_s": rest}
        keys |= _reason(turn.why or item.why)
        if rest_to is not None:
            keys["rest_to_s"] = rest_to
        if item.every_s is not None:
            keys["every_s"] = item.every_s
        if item.for_time:
            keys["for_time"] = True
        if not bout.has_dose:
            if item.form == "ladder":
                keys["reps"] = item.rungs[this_round]
            else:
                keys["seconds"] = item.on_s
                if item.on_to_s is not None:
                    keys["seconds_to"] = item.on_to_s
        yield PlacedSet(set_of(moves, bout, part, setting, keys), turn.at)


def _on_the_clock(found: list[PlacedSet], item: Rounds, setting: Setting) -> list[PlacedSet]:
    """What remains of each round's time is the rest after its last set; the last round has none."""
    turns = len(item.turns)
    for at in range(turns - 1, len(found) - 1, turns):
        this_round = [placed.set for placed in found[at - turns + 1 : at + 1]]
        busy = sum(_work_s(a_set, setting) for a_set in this_round)
        busy += sum(a_set.rest_s or 0.0 for a_set in this_round[:-1])
        rest = round(max(0.0, (item.every_s or 0.0) - busy), 3)
        found[at] = PlacedSet(
            found[at].set.model_copy(update={"rest_s": rest, "rest_to_s": None}), found[at].line
        )
    return found


def _work_s(a_set: Set, setting: Setting) -> float:
    """Seconds on the clock of a set by its tempo, holds and both sides included."""
    kind = kind_of(a_set, DEFAULT_RULES)
    return measure(a_set, shape_of(kind, setting.movements, DEFAULT_RULES, None)).work_s


def _times(item: Rounds) -> int:
    return item.count if item.form == "bouts" else item.count * len(item.turns)


def set_of(
    moves: Moves, bout: Bout, part: Part, setting: Setting, keys: dict[str, Any] | None = None
) -> Set:
    """One flat set of a movement or combination."""
    single = len(moves) == 1 and moves[0][1] == 1
    implements, held = _implements(moves, bout, setting)
    values: dict[str, Any] = {
        "exercise": moves[0][0] if single else None,
        "moves": None if single else _moves(moves, bout, setting),
        "reps": _reps(bout),
        "seconds": bout.seconds,
        "load_kg": bout.load.kg if bout.load else _share(moves, bout, setting),
        "implements": implements,
        "sides": bout.sides,
        "tempo": bout.tempo,
        "hold_s": bout.hold_s,
        "partial_reps": _partial(bout) if single else 0,
        "rpe": _exertion(bout),
        "warm_up": bout.warm_up or part.kind == "warm-up",
        "rest_s": bout.rest_s,
        "part": part.name or None,
    }
    further = {
        "reps_to": bout.reps_to,
        "clusters": list(bout.clusters),
        "band": bout.band,
        "range": bout.range,
        "for_time": bout.for_time,
        "note": bout.note,
        "distance_m": bout.distance_m,
        "percent": bout.percent,
        "body_percent": bout.body_percent,
        "seconds_to": bout.seconds_to,
        "rest_to_s": bout.rest_to_s,
        "static": bout.static,
        "held": held,
        "rpe_to": bout.rpe_to,
        "unit": "lb" if bout.load and bout.load.unit == "lb" else None,
        "pre_exhaust": part.pre_exhaust,
    }
    values |= {key: value for key, value in further.items() if value}
    return Set.model_validate(values | (keys or {}))


def _share(moves: Moves, bout: Bout, setting: Setting) -> float:
    """The load in kg that a share comes to; none where what it is a share of is not known."""
    if bout.percent is not None:
        return setting.load_of(moves[0][0], bout.percent) or 0.0
    if bout.body_percent is not None:
        return setting.body_load_of(moves[0][0], bout.body_percent) or 0.0
    return 0.0


def _implements(moves: Moves, bout: Bout, setting: Setting) -> tuple[int, int | None]:
    """The implements moved in a rep and, where more are in the hands, how many those are."""
    if bout.load is None:
        return (setting.implements_of(moves[0][0]) if bout.percent is not None else 1), None
    count = bout.load.implements
    movement = setting.movements.get(moves[0][0])
    # Where each hand has its own and they take turns, one moves in a rep.
    turns = len(moves) == 1 and movement is not None and movement.pattern in BY_HAND
    if count == 2 and turns and bout.sides == "alternating":
        return 1, 2
    return count, None


def _moves(moves: Moves, bout: Bout, setting: Setting) -> list[dict[str, Any]]:
    """The movements of a combination, each with the load that is its own."""
    loads = bout.piece_loads or (None,) * len(moves)
    loaded = bout.load is not None or any(loads)
    found: list[dict[str, Any]] = []
    for (name, times), load in zip(moves, loads, strict=True):
        move: dict[str, Any] = {"exercise": name, "times": times}
        movement = setting.movements.get(name)
        if load is not None:
            move |= {"load_kg": load.kg, "implements": load.implements}
        elif loaded and movement is not None and not takes_a_load(movement):
            move["load_kg"] = 0.0
        found.append(move)
    return found


def _exertion(bout: Bout) -> float | None:
    """As written; to failure, and in bouts with short rests, all that there was."""
    if bout.rpe is None and (bout.to_failure or bout.clusters):
        return TO_FAILURE
    return bout.rpe


def _reps(bout: Bout) -> int | None:
    if bout.clusters:
        return sum(bout.clusters)
    if bout.ranges:
        return sum(reps for reps, _ in bout.ranges)
    return bout.reps


def _partial(bout: Bout) -> int:
    """How many reps are partial: those of a half, or all where the whole set is a half range."""
    if bout.ranges:
        return sum(reps for reps, span in bout.ranges if span != "full")
    if bout.range not in (None, "full"):
        return _reps(bout) or 0
    return 0
