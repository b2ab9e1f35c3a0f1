"""From flat sets back to a written session: for plans that were not written as text."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import groupby

from dialback.core.movements import MovementTable
from dialback.core.notation.expand import Setting, item_sets
from dialback.core.notation.reasons import said
from dialback.core.notation.session import (
    RANGES,
    Bout,
    Line,
    Load,
    Part,
    Range,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.sessions import KG_PER_LB, TO_FAILURE, Session, Set


def gather(session: Session, movements: MovementTable) -> WrittenSession:
    """The session as lines of equal sets and as rounds, part by part.

    Sets that say their round and place become rounds where every round is alike; otherwise they
    are written out set by set. ``expand`` of it counts as the session does.
    """
    parts = []
    for (name, marked), in_part in groupby(session.sets, key=_part_of):
        items: list[Line | Rounds] = []
        for placed, run in groupby(in_part, key=_is_placed):
            sets = list(run)
            while placed and sets:
                rounds, rest = _rounds(sets, movements)
                if rounds is None:
                    break
                items.append(rounds)
                sets = rest
            items += lines_from(sets)
        parts.append(_part(name, tuple(items), pre_exhaust=marked))
    return WrittenSession(tuple(parts), session.date, session.title)


def lines_from(sets: list[Set]) -> list[Line]:
    """Sets in a row as lines, those of one movement on one."""
    lines = []
    for (moves, why), alike in groupby(sets, key=lambda one: (one.named_moves(), one.why)):
        steps = [Step(bout, sum(1 for _ in equal)) for bout, equal in groupby(map(bout_of, alike))]
        lines.append(Line(moves, tuple(steps), why=said(why)))
    return lines


def _is_placed(a_set: Set) -> bool:
    return a_set.round is not None and a_set.place is not None


def _rounds(sets: list[Set], movements: MovementTable) -> tuple[Rounds | None, list[Set]]:
    """The rounds that sets begin with, and the sets behind them; ``None`` if they are none."""
    places = [(a_set.round, a_set.place) for a_set in sets]
    again = next((at for at, one in enumerate(places) if at and one == (1, 1)), len(sets))
    run = sets[:again]
    turns = sum(number == 1 for number, _ in places[:again])
    if not turns or len(run) % turns:
        return None, sets
    kept = {
        (one.named_moves()[0][0], one.percent, one.body_percent): one.load_kg
        for one in run
        if one.percent is not None or one.body_percent is not None
    }
    setting = Setting(
        movements,
        lambda name, percent: kept.get((name, percent, None)),
        body_load_of=lambda name, percent: kept.get((name, None, percent)),
    )
    every = run[0].every_s
    ways = ((None, None), (run[0].rest_s, run[turns - 1].rest_s))
    for off, between in ways if every is None else ((None, None),):
        bouts = [bout_of(a_set) for a_set in run[:turns]]
        if off is not None or between is not None:
            bouts = [replace(bout, rest_s=None, rest_to_s=None) for bout in bouts]
        if every is not None:
            bouts[-1] = replace(bouts[-1], rest_s=None)
        found = Rounds(
            "rounds",
            len(run) // turns,
            tuple(
                Turn(((one.named_moves(), bout),), why=said(one.why))
                for one, bout in zip(run, bouts, strict=False)
            ),
            off_s=off,
            between_s=None if turns == 1 else between,
            every_s=every,
        )
        # Only what comes to the very same sets is the same session.
        made = [placed.set for placed in item_sets(found, Part(), setting)]
        if made == [_bare(a_set) for a_set in run]:
            return found, sets[again:]
    return None, sets


def _bare(a_set: Set) -> Set:
    """A set without what its part says."""
    values = a_set.model_dump(exclude_defaults=True, exclude={"part", "pre_exhaust"})
    return Set.model_validate(values)


def _part_of(a_set: Set) -> tuple[str, bool]:
    """The name of a set's part, and whether its order is meant."""
    return _part_key(a_set), a_set.pre_exhaust


def _part_key(a_set: Set) -> str:
    return a_set.part or ("warm-up" if a_set.warm_up and a_set.exercise is not None else "")


def _part(name: str, items: tuple[Line | Rounds, ...], *, pre_exhaust: bool) -> Part:
    match name:
        case "warm-up" | "finisher" | "cool-down":
            unmarked = items if name != "warm-up" else tuple(map(_without_marks, items))
            return Part(name, "", unmarked, pre_exhaust=pre_exhaust)
        case _:
            label = name.replace(",", " ").replace(":", " ").strip()
            return Part("main", label, items, pre_exhaust=pre_exhaust)


def _without_marks(line: Line | Rounds) -> Line | Rounds:
    # The part says it already.
    if isinstance(line, Rounds):
        turns = tuple(
            replace(
                turn,
                alternatives=tuple(
                    (moves, replace(bout, warm_up=False)) for moves, bout in turn.alternatives
                ),
            )
            for turn in line.turns
        )
        return replace(line, turns=turns)
    steps = tuple(replace(step, bout=replace(step.bout, warm_up=False)) for step in line.steps)
    return replace(line, steps=steps)


def bout_of(a_set: Set) -> Bout:
    """What a set asks for, as it can be written."""
    load = None
    percent = a_set.percent
    body_percent = a_set.body_percent if percent is None else None
    if a_set.load_kg and percent is None and body_percent is None:
        load = _load(a_set)
    piece_loads, load = _piece_loads(a_set, load)
    reps = a_set.reps
    partial = a_set.partial_reps
    ranges: tuple[tuple[int, str], ...] = ()
    clusters = a_set.clusters or ()
    if reps is not None and clusters and sum(clusters) == reps and not partial:
        reps = None
    else:
        clusters = ()
    # In bouts with short rests there is nothing left: that is not said again.
    rpe = None if clusters and a_set.rpe == TO_FAILURE else a_set.rpe
    if reps is not None and 0 < partial < reps:
        ranges, reps = ((partial, "half"), (reps - partial, "full")), None
    return Bout(
        reps=reps,
        reps_to=a_set.reps_to if a_set.reps and (a_set.reps_to or 0) > a_set.reps else None,
        seconds=a_set.seconds,
        seconds_to=_above(a_set.seconds_to, a_set.seconds),
        distance_m=None if a_set.reps is not None else a_set.distance_m,
        clusters=clusters,
        ranges=ranges,  # type: ignore[arg-type]
        load=load,
        percent=percent,
        body_percent=body_percent,
        band=_word(a_set.band),
        sides=a_set.sides,
        tempo=a_set.tempo,
        hold_s=a_set.hold_s,
        range="half" if a_set.reps and partial == a_set.reps else _range(a_set.range),
        rpe=rpe,
        rpe_to=a_set.rpe_to if rpe is not None and (a_set.rpe_to or 0) > rpe else None,
        rest_s=a_set.rest_s,
        rest_to_s=_above(a_set.rest_to_s, a_set.rest_s),
        warm_up=a_set.warm_up,
        for_time=a_set.for_time,
        static=a_set.static and a_set.seconds is not None and a_set.reps is None,
        piece_loads=piece_loads,
        note=_plain(a_set.note),
    )


def _above(top: float | None, low: float | None) -> float | None:
    """The top of a span, where it is one."""
    return top if top is not None and low is not None and top > low else None


def _piece_loads(a_set: Set, load: Load | None) -> tuple[tuple[Load | None, ...], Load | None]:
    """The loads of a combination's movements, and that of the set: what the last one has.

    A last one without any is one of the body, which takes none by itself.
    """
    moves = a_set.moves or ()
    if all(move.load_kg is None for move in moves):
        return (), load
    loads = [
        load if move.load_kg is None else Load(abs(move.load_kg), "kg", move.implements,
                                               help=move.load_kg < 0)
        for move in moves
    ]  # fmt: skip
    if not moves[-1].load_kg:
        own = [
            one if move.load_kg is not None else None
            for one, move in zip(loads, moves, strict=True)
        ]
        return ((*own[:-1], None) if any(own[:-1]) else ()), load
    return (*(one or Load(0.0) for one in loads[:-1]), None), loads[-1]


def _range(value: str | None) -> Range | None:
    return next((range_ for range_ in RANGES if range_ == value), None)


def _word(value: str | None) -> str | None:
    """A band's level, if it is one word that the notation can carry."""
    return value.lower() if value and re.fullmatch("[A-Za-z]+", value) else None


def _plain(value: str) -> str:
    """A note in one line and without brackets of its own."""
    return re.sub(r"[()\s]+", " ", value).strip()


def _load(a_set: Set) -> Load:
    """The load as it was entered: in pounds where they come to the same kilograms again."""
    help_ = a_set.load_kg < 0
    count = a_set.implements
    if a_set.sides == "alternating" and a_set.held is not None:
        count = a_set.held
    if a_set.in_pounds:
        pounds = Load(round(abs(a_set.load_kg) / KG_PER_LB, 2), "lb", count, help=help_)
        if pounds.kg == a_set.load_kg:
            return pounds
    return Load(abs(a_set.load_kg), "kg", count, help=help_)
