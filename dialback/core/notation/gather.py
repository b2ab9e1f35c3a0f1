"""From flat sets back to a written session: for plans that were not written as text."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import groupby

from dialback.core.notation.session import (
    RANGES,
    Bout,
    Line,
    Load,
    Part,
    Range,
    Step,
    WrittenSession,
)
from dialback.core.sessions import KG_PER_LB, Session, Set


def gather(session: Session) -> WrittenSession:
    """The session as lines of equal sets, part by part; rounds are written out set by set.

    ``expand`` of it counts as the session does, but for notes on round and place.
    """
    parts = []
    for name, in_part in groupby(session.sets, key=_part_key):
        lines: list[Line] = []
        for moves, alike in groupby(in_part, key=lambda one: one.named_moves()):
            steps = [
                Step(bout, sum(1 for _ in equal)) for bout, equal in groupby(map(_bout, alike))
            ]
            lines.append(Line(moves, tuple(steps)))
        parts.append(_part(name, tuple(lines)))
    return WrittenSession(tuple(parts), session.date, session.title)


def _part_key(one: Set) -> str:
    return one.part or ("warm-up" if one.warm_up and one.exercise is not None else "")


def _part(name: str, lines: tuple[Line, ...]) -> Part:
    match name:
        case "warm-up" | "finisher" | "cool-down":
            unmarked = lines if name != "warm-up" else tuple(map(_without_marks, lines))
            return Part(name, "", unmarked)
        case _:
            label = name.replace(",", " ").replace(":", " ").strip()
            return Part("main", label, lines)


def _without_marks(line: Line) -> Line:
    # The part says it already.
    steps = tuple(replace(step, bout=replace(step.bout, warm_up=False)) for step in line.steps)
    return replace(line, steps=steps)


def _bout(one: Set) -> Bout:
    extra = one.model_extra or {}
    load = None
    if one.load_kg:
        load = _load(one, extra.get("unit"))
    reps = one.reps
    partial = one.partial_reps
    ranges: tuple[tuple[int, str], ...] = ()
    if reps is not None and 0 < partial < reps:
        ranges, reps = ((partial, "half"), (reps - partial, "full")), None
    return Bout(
        reps=reps,
        reps_to=_upper(extra.get("reps_to"), one.reps),
        seconds=one.seconds,
        ranges=ranges,  # type: ignore[arg-type]
        load=load,
        band=_word(extra.get("band")),
        sides=one.sides,
        tempo=one.tempo,
        hold_s=one.hold_s,
        range="half" if one.reps and partial == one.reps else _range(extra.get("range")),
        rpe=one.rpe,
        rest_s=one.rest_s,
        warm_up=one.warm_up,
        for_time=bool(extra.get("for_time")),
        note=_plain(extra.get("note")),
    )


def _upper(value: object, reps: int | None) -> int | None:
    """The upper end of a rep range, if it is one."""
    return value if isinstance(value, int) and reps and value > reps else None


def _range(value: object) -> Range | None:
    return next((one for one in RANGES if one == value), None)


def _word(value: object) -> str | None:
    """A band's level, if it is one word that the notation can carry."""
    return value.lower() if isinstance(value, str) and re.fullmatch("[A-Za-z]+", value) else None


def _plain(value: object) -> str:
    """A note in one line and without brackets of its own."""
    return re.sub(r"[()\s]+", " ", value).strip() if isinstance(value, str) else ""


def _load(one: Set, unit: object) -> Load:
    """The load as it was entered: in pounds where they come to the same kilograms again."""
    help_ = one.load_kg < 0
    if unit == "lb":
        pounds = Load(round(abs(one.load_kg) / KG_PER_LB, 2), "lb", one.implements, help=help_)
        if pounds.kg == one.load_kg:
            return pounds
    return Load(abs(one.load_kg), "kg", one.implements, help=help_)
