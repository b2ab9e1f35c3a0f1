"""Laying a written session over weeks: a step each week, or a lighter one."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from dialback.core.notation.session import Bout, Line, Load, Rounds, WrittenSession

LIGHTER_SHARE = 0.6
"""A lighter week keeps its loads and about this share of its sets."""

_WHOLE_LOAD = {"kg": 0.5, "lb": 1.0}
"""Loads are rounded to what can at least be written on a plate."""


@dataclass(frozen=True, slots=True)
class Change:
    """What becomes more (or less) each week; of working sets only, warm-ups stay.

    ``load`` is a share (0.025 is +2.5 %), ``reps``, ``sets`` and ``rest_s`` are added. Sets are
    added to lines, and rounds to rounds.
    """

    load: float = 0.0
    reps: int = 0
    sets: int = 0
    rest_s: float = 0.0

    def times(self, weeks: int) -> Change:
        """The change after so many weeks."""
        return Change(self.load * weeks, self.reps * weeks, self.sets * weeks, self.rest_s * weeks)


def stepped(written: WrittenSession, change: Change) -> WrittenSession:
    """The session with the change made once. Nothing falls below one set, one rep, no rest."""

    def sets(count: int) -> int:
        return max(1, count + change.sets)

    return _over(written, lambda bout: _bout(bout, change), sets)


def lighter(written: WrittenSession, share: float = LIGHTER_SHARE) -> WrittenSession:
    """The session with fewer sets and rounds, loads kept; a ladder keeps its first rungs."""
    return _over(written, lambda bout: bout, lambda count: max(1, round(count * share)))


def _over(
    written: WrittenSession, of_bout: Callable[[Bout], Bout], of_count: Callable[[int], int]
) -> WrittenSession:
    return replace(
        written,
        parts=tuple(
            part
            if part.kind in ("warm-up", "cool-down")
            else replace(
                part, items=tuple(_item(item, of_bout, of_count) for item in part.items)
            )
            for part in written.parts
        ),
    )  # fmt: skip


def _item(
    item: Line | Rounds, of_bout: Callable[[Bout], Bout], of_count: Callable[[int], int]
) -> Line | Rounds:
    if isinstance(item, Line):
        steps = tuple(
            step
            if step.bout.warm_up
            else replace(step, bout=of_bout(step.bout), sets=of_count(step.sets))
            for step in item.steps
        )
        return replace(item, steps=steps)
    turns = tuple(
        replace(
            turn, alternatives=tuple((moves, of_bout(bout)) for moves, bout in turn.alternatives)
        )
        for turn in item.turns
    )
    if item.form == "ladder":
        rungs = item.rungs[: of_count(len(item.rungs))]
        return replace(item, turns=turns, rungs=rungs, count=len(rungs))
    return replace(item, turns=turns, count=of_count(item.count))


def _bout(bout: Bout, change: Change) -> Bout:
    reps = bout.reps if bout.reps is None else max(1, bout.reps + change.reps)
    upper = bout.reps_to if bout.reps_to is None else max(2, bout.reps_to + change.reps)
    rest = bout.rest_s if bout.rest_s is None else max(0.0, bout.rest_s + change.rest_s)
    load = bout.load if bout.load is None else _load(bout.load, change.load)
    return replace(bout, reps=reps, reps_to=upper, rest_s=rest, load=load)


def _load(load: Load, share: float) -> Load:
    if not share:
        return load
    # Less help is more load.
    wanted = load.value * (1 - share if load.help else 1 + share)
    step = _WHOLE_LOAD[load.unit]
    return replace(load, value=max(step, round(wanted / step) * step))
