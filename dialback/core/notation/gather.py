"""From flat sets back to a written session: for plans that were not written as text."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import groupby

from dialback.core.movements import MovementTable
from dialback.core.notation.expand import Setting, item_sets
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
from dialback.core.sessions import KG_PER_LB, Session, Set


def gather(session: Session, movements: MovementTable) -> WrittenSession:
    """The session as lines of equal sets and as rounds, part by part.

    Sets that say their round and place become rounds where every round is alike; otherwise they
    are written out set by set. ``expand`` of it counts as the session does.
    """
    parts = []
    for name, in_part in groupby(session.sets, key=_part_key):
        items: list[Line | Rounds] = []
        for placed, run in groupby(in_part, key=_is_placed):
            sets = list(run)
            while placed and sets:
                rounds, rest = _rounds(sets, movements)
                if rounds is None:
                    break
                items.append(rounds)
                sets = rest
            items += _lines(sets)
        parts.append(_part(name, tuple(items)))
    return WrittenSession(tuple(parts), session.date, session.title)


def _lines(sets: list[Set]) -> list[Line]:
    lines = []
    for moves, alike in groupby(sets, key=lambda one: one.named_moves()):
        steps = [Step(bout, sum(1 for _ in equal)) for bout, equal in groupby(map(_bout, alike))]
        lines.append(Line(moves, tuple(steps)))
    return lines


def _is_placed(one: Set) -> bool:
    return one.round is not None and one.place is not None


def _rounds(sets: list[Set], movements: MovementTable) -> tuple[Rounds | None, list[Set]]:
    """The rounds that sets begin with, and the sets behind them; ``None`` if they are none."""
    places = [(one.round, one.place) for one in sets]
    again = next((at for at, one in enumerate(places) if at and one == (1, 1)), len(sets))
    run = sets[:again]
    turns = sum(number == 1 for number, _ in places[:again])
    if not turns or len(run) % turns:
        return None, sets
    kept = {
        (one.named_moves()[0][0], bout.percent): one.load_kg
        for one, bout in zip(run, map(_bout, run), strict=True)
        if bout.percent is not None
    }
    setting = Setting(movements, lambda name, percent: kept.get((name, percent)))
    every = run[0].every_s
    ways = ((None, None), (run[0].rest_s, run[turns - 1].rest_s))
    for off, between in ways if every is None else ((None, None),):
        bouts = [_bout(one) for one in run[:turns]]
        if off is not None or between is not None:
            bouts = [replace(bout, rest_s=None) for bout in bouts]
        if every is not None:
            bouts[-1] = replace(bouts[-1], rest_s=None)
        found = Rounds(
            "rounds",
            len(run) // turns,
            tuple(
                Turn(((one.named_moves(), bout),)) for one, bout in zip(run, bouts, strict=False)
            ),
            off_s=off,
            between_s=None if turns == 1 else between,
            every_s=every,
        )
        # Only what comes to the very same sets is the same session.
        made = [placed.set for placed in item_sets(found, Part(), setting)]
        if made == [one.model_copy(update={"part": None}) for one in run]:
            return found, sets[again:]
    return None, sets


def _part_key(one: Set) -> str:
    return one.part or ("warm-up" if one.warm_up and one.exercise is not None else "")


def _part(name: str, items: tuple[Line | Rounds, ...]) -> Part:
    match name:
        case "warm-up" | "finisher" | "cool-down":
            unmarked = items if name != "warm-up" else tuple(map(_without_marks, items))
            return Part(name, "", unmarked)
        case _:
            label = name.replace(",", " ").replace(":", " ").strip()
            return Part("main", label, items)


def _without_marks(line: Line | Rounds) -> Line | Rounds:
    # The part says it already.
    if isinstance(line, Rounds):
        turns = tuple(
            Turn(tuple((moves, replace(bout, warm_up=False)) for moves, bout in turn.alternatives))
            for turn in line.turns
        )
        return replace(line, turns=turns)
    steps = tuple(replace(step, bout=replace(step.bout, warm_up=False)) for step in line.steps)
    return replace(line, steps=steps)


def _bout(one: Set) -> Bout:
    load = None
    percent = one.percent
    if one.load_kg and percent is None:
        load = _load(one)
    reps = one.reps
    partial = one.partial_reps
    ranges: tuple[tuple[int, str], ...] = ()
    if reps is not None and 0 < partial < reps:
        ranges, reps = ((partial, "half"), (reps - partial, "full")), None
    return Bout(
        reps=reps,
        reps_to=one.reps_to if one.reps and (one.reps_to or 0) > one.reps else None,
        seconds=one.seconds,
        distance_m=None if one.reps is not None else one.distance_m,
        ranges=ranges,  # type: ignore[arg-type]
        load=load,
        percent=percent,
        band=_word(one.band),
        sides=one.sides,
        tempo=one.tempo,
        hold_s=one.hold_s,
        range="half" if one.reps and partial == one.reps else _range(one.range),
        rpe=one.rpe,
        rpe_to=one.rpe_to if one.rpe is not None and (one.rpe_to or 0) > one.rpe else None,
        rest_s=one.rest_s,
        warm_up=one.warm_up,
        for_time=one.for_time,
        note=_plain(one.note),
    )


def _range(value: str | None) -> Range | None:
    return next((one for one in RANGES if one == value), None)


def _word(value: str | None) -> str | None:
    """A band's level, if it is one word that the notation can carry."""
    return value.lower() if value and re.fullmatch("[A-Za-z]+", value) else None


def _plain(value: str) -> str:
    """A note in one line and without brackets of its own."""
    return re.sub(r"[()\s]+", " ", value).strip()


def _load(one: Set) -> Load:
    """The load as it was entered: in pounds where they come to the same kilograms again."""
    help_ = one.load_kg < 0
    if one.in_pounds:
        pounds = Load(round(abs(one.load_kg) / KG_PER_LB, 2), "lb", one.implements, help=help_)
        if pounds.kg == one.load_kg:
            return pounds
    return Load(abs(one.load_kg), "kg", one.implements, help=help_)
