"""From the written session to the flat sets that are counted."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from typing import Any

from dialback.core.notation.session import Bout, Line, Moves, Part, Rounds, WrittenSession
from dialback.core.sessions import Session, Set


@dataclass(frozen=True, slots=True)
class PlacedSet:
    """A flat set, and the line of the text it comes from."""

    set: Set
    line: int


def expand(written: WrittenSession, day: date | None = None) -> Session:
    """The session in the contract's form; ``day`` where the text has none.

    Sets in rounds carry ``round`` and ``place``; what the contract has no key for (upper end of a
    rep range, band, range, note) stands in further keys of the set. Raises ``ValueError`` without
    any day.
    """
    on = written.day or day
    if on is None:
        raise ValueError("the session has no day: begin it with one, as in 2026-11-30 Legs")
    sets = tuple(placed.set for placed in placed_sets(written))
    return Session(date=on, title=written.title, sets=sets)


def placed_sets(written: WrittenSession) -> tuple[PlacedSet, ...]:
    """Every flat set of the session in order."""
    return tuple(
        placed
        for at, part in enumerate(written.parts)
        for placed in _part(part, last=at == len(written.parts) - 1)
    )


def _part(part: Part, *, last: bool) -> Iterator[PlacedSet]:
    found = [placed for item in part.items for placed in item_sets(item, part)]
    if found and part.rest_s is not None and not last:
        final = found[-1]
        found[-1] = PlacedSet(final.set.model_copy(update={"rest_s": part.rest_s}), final.line)
    yield from found


def item_sets(item: Line | Rounds, part: Part) -> Iterator[PlacedSet]:
    """The flat sets of a line or of rounds, in order."""
    if isinstance(item, Line):
        for step in item.steps:
            for _ in range(step.sets):
                yield PlacedSet(set_of(item.moves, step.bout, part), item.at)
        return
    for number in range(_times(item)):
        turn_at = number % len(item.turns)
        this_round = number // len(item.turns)
        turn = item.turns[turn_at]
        moves, bout = turn.alternatives[this_round % len(turn.alternatives)]
        rest = bout.rest_s
        if rest is None:
            rest = item.off_s
            closes_round = turn_at == len(item.turns) - 1
            if closes_round and item.between_s is not None:
                rest = item.between_s
        if number == _times(item) - 1:
            rest = bout.rest_s
        keys: dict[str, Any] = {"round": this_round + 1, "place": turn_at + 1, "rest_s": rest}
        if not bout.has_dose:
            if item.form == "ladder":
                keys["reps"] = item.rungs[this_round]
            else:
                keys["seconds"] = item.on_s
        yield PlacedSet(set_of(moves, bout, part, keys), turn.at)


def _times(item: Rounds) -> int:
    return item.count if item.form == "bouts" else item.count * len(item.turns)


def set_of(moves: Moves, bout: Bout, part: Part, keys: dict[str, Any] | None = None) -> Set:
    """One flat set of a movement or combination."""
    single = len(moves) == 1 and moves[0][1] == 1
    values: dict[str, Any] = {
        "exercise": moves[0][0] if single else None,
        "moves": None if single else [{"exercise": name, "times": n} for name, n in moves],
        "reps": _reps(bout),
        "seconds": bout.seconds,
        "load_kg": bout.load.kg if bout.load else 0.0,
        "implements": bout.load.implements if bout.load else 1,
        "sides": bout.sides,
        "tempo": bout.tempo,
        "hold_s": bout.hold_s,
        "partial_reps": _partial(bout) if single else 0,
        "rpe": 10.0 if bout.to_failure or bout.clusters else bout.rpe,
        "warm_up": bout.warm_up or part.kind == "warm-up",
        "rest_s": bout.rest_s,
        "part": part.name or None,
    }
    further = {
        "reps_to": bout.reps_to, "clusters": list(bout.clusters), "band": bout.band,
        "range": bout.range, "for_time": bout.for_time, "note": bout.note,
        "unit": "lb" if bout.load and bout.load.unit == "lb" else None,
    }  # fmt: skip
    values |= {key: value for key, value in further.items() if value}
    return Set.model_validate(values | (keys or {}))


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
