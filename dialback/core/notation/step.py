"""Laying a written session over weeks: a step each week, or a lighter one."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from dialback.core.kit import Kit, loads_for
from dialback.core.movements import MovementTable
from dialback.core.notation.session import (
    Bout,
    Item,
    Line,
    Load,
    Moves,
    Pause,
    WrittenSession,
)
from dialback.core.tempo import slower
from dialback.core.words import Unit, listed, percent, weight_text

_SLOWEST = 4
"""A rise less often than this many weeks is not offered as one: reps and sets get there first."""
LIGHTER_SHARE = 0.6
"""A lighter week keeps its loads and about this share of its sets, at most: −40 %."""

_WHOLE_LOAD = {"kg": 0.5, "lb": 1.0}
"""Loads are rounded to what can at least be written on a plate."""


@dataclass(frozen=True, slots=True)
class Change:
    """What becomes more (or less) each week; of working sets only, warm-ups stay.

    ``load`` is a share (0.025 is +2.5 %), ``reps``, ``sets`` and ``rest_s`` are added, ``tempo_s``
    is seconds added to the lowering of a rep. Sets are added to lines, and rounds to rounds.
    """

    load: float = 0.0
    reps: int = 0
    sets: int = 0
    rest_s: float = 0.0
    tempo_s: float = 0.0

    def times(self, weeks: int) -> Change:
        """The change after so many weeks."""
        return Change(
            self.load * weeks,
            self.reps * weeks,
            self.sets * weeks,
            self.rest_s * weeks,
            self.tempo_s * weeks,
        )


def stepped(
    written: WrittenSession, change: Change, movements: MovementTable, kit: Kit | None = None
) -> WrittenSession:
    """The session with the change made once. Nothing falls below one set, one rep, no rest.

    A load that changes goes to the nearest that the kit has, where it knows the movement's loads.

    A set without a tempo of its own starts from its movement's usual one; sets of combinations,
    isometric movements and those without any tempo keep theirs.
    """

    def sets(count: int) -> int:
        return max(1, count + change.sets)

    def bout(moves: Moves, one: Bout) -> Bout:
        loads = _kit_loads(moves, one, movements, kit)
        return _bout(one, change, _tempo(moves, one, movements), loads)

    return _over(written, bout, sets)


@dataclass(frozen=True, slots=True)
class Unmoved:
    """A load that a step each week does not move, for the kit has nothing near enough."""

    movement: str
    load_kg: float
    next_kg: float | None
    """The next that the kit has; ``None`` where this is its last."""


def says_unmoved(found: Sequence[Unmoved], step: float, weeks: int, unit: Unit) -> str:
    """Loads that stay, in a sentence or two, with another way to get there; empty for none."""
    short = [one for one in found if one.next_kg is not None]
    told = []
    if short:
        within = "in a week" if weeks == 1 else f"in {weeks} weeks"
        names = listed(
            [
                f"{one.movement} ({weight_text(one.load_kg, unit)}, then "
                f"{weight_text(one.next_kg or 0.0, unit)})"
                for one in short
            ]
        )
        told.append(
            f"{percent(step)} a week does not reach the next load in the kit {within}: {names}."
        )
    if last := [
        f"{one.movement} ({weight_text(one.load_kg, unit)})" for one in found if one.next_kg is None
    ]:
        told.append(f"The kit has nothing heavier for {listed(last)}.")
    if not told:
        return ""
    rises = [one.next_kg / one.load_kg - 1 for one in short if one.next_kg is not None]
    # One way for all of them: what the slowest needs, and none where something has no next.
    every = math.ceil(max(rises) / step) if len(rises) == len(found) else 0
    slow = f", or go up every {every} weeks" if 0 < every <= _SLOWEST else ""
    return f"{' '.join(told)} These stay: add a rep a week, or a set{slow}."


def unmoved(
    written: WrittenSession, change: Change, weeks: int, movements: MovementTable, kit: Kit | None
) -> list[Unmoved]:
    """Which loads stay where they are though they are to rise each week, each movement once."""
    found: dict[str, Unmoved] = {}

    def look(moves: Moves, one: Bout) -> Bout:
        loads = _kit_loads(moves, one, movements, kit)
        if loads and one.load is not None and change.load > 0:
            later = [_load(one.load, change.load * at, loads).value for at in range(1, weeks + 1)]
            if max(later) <= one.load.value:
                after = next((load for load in loads if load > one.load.value), None)
                found.setdefault(moves[0][0], Unmoved(moves[0][0], one.load.value, after))
        return one

    _over(written, look, lambda count: count)
    return list(found.values())


def lighter(written: WrittenSession, share: float = LIGHTER_SHARE) -> WrittenSession:
    """The session with fewer sets and rounds, loads kept; a ladder keeps its first rungs."""
    return _over(written, lambda _, bout: bout, lambda count: max(1, round(count * share)))


def _over(
    written: WrittenSession, of_bout: Callable[[Moves, Bout], Bout], of_count: Callable[[int], int]
) -> WrittenSession:
    return replace(
        written,
        parts=tuple(
            part
            if part.kind in ("warm-up", "cool-down")
            else replace(part, items=tuple(_item(item, of_bout, of_count) for item in part.items))
            for part in written.parts
        ),
    )


def _item(
    item: Item, of_bout: Callable[[Moves, Bout], Bout], of_count: Callable[[int], int]
) -> Item:
    if isinstance(item, Pause):
        return item
    if isinstance(item, Line):
        steps = tuple(
            step
            if step.bout.warm_up
            else replace(step, bout=of_bout(item.moves, step.bout), sets=of_count(step.sets))
            for step in item.steps
        )
        return replace(item, steps=steps)
    turns = tuple(
        replace(
            turn,
            alternatives=tuple((moves, of_bout(moves, bout)) for moves, bout in turn.alternatives),
        )
        for turn in item.turns
    )
    if item.form == "ladder":
        rungs = item.rungs[: of_count(len(item.rungs))]
        return replace(item, turns=turns, rungs=rungs, count=len(rungs))
    return replace(item, turns=turns, count=of_count(item.count))


def _tempo(moves: Moves, bout: Bout, movements: MovementTable) -> str | None:
    """The tempo that a step of it starts from."""
    if bout.tempo is not None or len(moves) != 1 or moves[0][0] not in movements:
        return bout.tempo
    movement = movements[moves[0][0]]
    return None if movement.isometric or not movement.counted else movement.tempo


def _kit_loads(
    moves: Moves, bout: Bout, movements: MovementTable, kit: Kit | None
) -> tuple[float, ...]:
    """The loads in kg that there are for it; empty if unknown, for help, and in pounds."""
    if kit is None or bout.load is None or bout.load.help or bout.load.unit != "kg":
        return ()
    known = (loads_for(kit, movements[name])[1] for name, _ in moves if name in movements)
    return next((loads for loads in known if loads), ())


def _bout(bout: Bout, change: Change, tempo: str | None, loads: tuple[float, ...]) -> Bout:
    reps = bout.reps if bout.reps is None else max(1, bout.reps + change.reps)
    upper = bout.reps_to if bout.reps_to is None else max(2, bout.reps_to + change.reps)
    rest = bout.rest_s if bout.rest_s is None else max(0.0, bout.rest_s + change.rest_s)
    load = bout.load if bout.load is None else _load(bout.load, change.load, loads)
    percent = bout.percent
    if percent is not None and change.load:
        percent = min(100.0, round(percent * (1 + change.load) * 2) / 2)
    slow = slower(tempo, change.tempo_s) if tempo and change.tempo_s else bout.tempo
    return replace(
        bout, reps=reps, reps_to=upper, rest_s=rest, load=load, percent=percent, tempo=slow
    )


def _load(load: Load, share: float, loads: tuple[float, ...]) -> Load:
    if not share:
        return load
    # Less help is more load.
    wanted = load.value * (1 - share if load.help else 1 + share)
    if loads:
        return replace(load, value=min(loads, key=lambda one: abs(one - wanted)))
    step = _WHOLE_LOAD[load.unit]
    return replace(load, value=max(step, round(wanted / step) * step))
