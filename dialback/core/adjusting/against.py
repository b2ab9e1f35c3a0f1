"""Which limits keep a finding: a smallest set that nothing clears it within.

Found by dividing: Junker 2004, QuickXplain, AAAI-04.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Final, Protocol

from dialback.core.adjusting.held import Held
from dialback.core.adjusting.rows import Flag
from dialback.core.adjusting.solver import INF, Allowance, OutOfTimeError
from dialback.core.adjusting.weekly import WeekProgramme
from dialback.core.findings import Finding
from dialback.core.vocabulary import WHOLE_WEEK, Key

BOUNDS: Final[Key] = ("bounds", WHOLE_WEEK, "sets")
NEW_MOVEMENTS: Final[Key] = ("new_movements", WHOLE_WEEK, "sets")
LINES: Final[Key] = ("lines", WHOLE_WEEK, "sets")
BUDGET: Final[Key] = ("budget", WHOLE_WEEK, "cost")


class MakeWeek(Protocol):
    """Makes the programme anew, with what is held; ``wide`` where counts may leave their range."""

    def __call__(self, *, held: Held = ..., wide: bool = ...) -> WeekProgramme:
        """The programme."""


def against(
    key: Key,
    week: WeekProgramme,
    make: MakeWeek,
    budget: int | None,
    left: Mapping[Key, Finding],
    allowance: Allowance,
) -> tuple[Key, ...] | None:
    """A smallest set of limits that keep a finding; ``None`` where none does, only what it costs.

    Limits of other findings (that they be no worse than in the start), and locks; where those do
    not keep it, that others stay as the proposal has them, or the budget; where it is kept without
    any of them, the bounds, ranges, numbers of lines and additions that block by themselves. Empty
    where nothing that could be changed would clear it, or time is over.
    """
    try:
        items = [flag for flag in week.flags if flag != key] + [
            ("lock", name, "sets") for name in sorted(week.locks)
        ]
        if not _clears(key, week, items, frozenset(), {}, None, allowance):
            return _by_itself(key, make(wide=True), allowance)
        for levels, most in ((None, None), (left, budget)):
            whole = [*items, BUDGET] if most is not None else items

            def keeps(
                held: frozenset[Key],
                levels: Mapping[Key, Finding] | None = levels,
                most: int | None = most,
            ) -> bool:
                allowed = most if BUDGET in held else None
                return not _clears(key, week, items, held, levels, allowed, allowance)

            if keeps(frozenset(whole)):
                return tuple(sorted(_smallest(whole, keeps)))
    except OutOfTimeError:
        return ()
    return None


def can_clear(key: Key, week: WeekProgramme, allowance: Allowance) -> bool:
    """Whether anything within the programme clears a finding. Raises ``OutOfTimeError``."""
    return _clears(key, week, (), frozenset(), None, None, allowance)


def _clears(
    key: Key,
    week: WeekProgramme,
    items: Sequence[Key],
    held: frozenset[Key],
    levels: Mapping[Key, Finding] | None,
    budget: int | None,
    allowance: Allowance,
) -> bool:
    """Whether something clears a finding with only these limits held."""
    bounds: dict[int, tuple[float, float]] = dict(_gone(week.flags[key]))
    for item in items:
        if item[0] == "lock":
            if item not in held:
                bounds |= _unlocked(item[1], week, held)
        elif item not in held:
            bounds |= _free(week.flags[item])
        elif levels is not None:
            bounds |= _at(week.flags[item], levels.get(item))
    rows = {} if budget is None else {week.cost_row: (-INF, budget - week.cost_offset)}
    return week.programme.minimise({}, allowance, bounds=bounds, rows=rows) is not None


def _unlocked(
    name: str, week: WeekProgramme, held: frozenset[Key]
) -> dict[int, tuple[float, float]]:
    """Where the lines of a movement may go that is not locked, if nothing else in them is."""
    bounds: dict[int, tuple[float, float]] = {}
    for choice in week.choices:
        locked = week.locks & set(choice.line.movements)
        if name in locked and not any(("lock", one, "sets") in held for one in locked):
            bounds |= choice.bounds
    for addition in week.additions:
        if addition.movement == name:
            bounds |= addition.bounds
    return bounds


def _numbers(flag: Flag) -> list[int]:
    return [one for one in (flag.caution, flag.high) if one is not None]


def _gone(flag: Flag) -> dict[int, tuple[float, float]]:
    return dict.fromkeys(_numbers(flag), (0.0, 0.0))


def _free(flag: Flag) -> dict[int, tuple[float, float]]:
    return dict.fromkeys(_numbers(flag), (0.0, 1.0))


def _at(flag: Flag, finding: Finding | None) -> dict[int, tuple[float, float]]:
    """At the level that it has in the proposal."""
    high = 1.0 if finding is not None and finding.level == "high" else 0.0
    bounds: dict[int, tuple[float, float]] = {}
    if flag.caution is not None:
        bounds[flag.caution] = (0.0, 0.0 if finding is None else 1.0)
    if flag.high is not None:
        bounds[flag.high] = (0.0, high)
    return bounds


def _by_itself(key: Key, week: WeekProgramme, allowance: Allowance) -> tuple[Key, ...]:
    """Of bounds, ranges and additions those that keep it without any other limit."""
    ranges = {("range", name, "sets"): bounds for name, bounds in sorted(week.ranges.items())}
    items: list[Key] = [BOUNDS, NEW_MOVEMENTS, LINES, *ranges]
    free: dict[int, tuple[float, float]] = {}
    for other, flag in week.flags.items():
        free |= _gone(flag) if other == key else _free(flag)
    for choice in week.choices:
        free |= choice.bounds
    for addition in week.additions:
        free |= addition.bounds

    def keeps(held: frozenset[Key]) -> bool:
        bounds = dict(free)
        rows: dict[int, tuple[float, float]] = {}
        for item, more in ranges.items():
            if item not in held:
                bounds |= more
        if NEW_MOVEMENTS not in held:
            rows[week.added_row] = (-INF, INF)
        if LINES not in held:
            rows[week.lines_row] = (-INF, INF)
        if BOUNDS not in held:
            rows[week.share_row] = (-INF, INF)
        return week.programme.minimise({}, allowance, bounds=bounds, rows=rows) is None

    return tuple(sorted(_smallest(items, keeps))) if keeps(frozenset(items)) else ()


def _smallest(items: Sequence[Key], keeps: Callable[[frozenset[Key]], bool]) -> list[Key]:
    """A set of items that keeps, and of which every one is needed."""

    def divide(background: frozenset[Key], changed: bool, rest: list[Key]) -> list[Key]:
        if changed and keeps(background):
            return []
        if len(rest) == 1:
            return rest
        half = len(rest) // 2
        first, second = rest[:half], rest[half:]
        needed = divide(background | set(first), True, second)
        return divide(background | set(needed), bool(needed), first) + needed

    if keeps(frozenset()):
        return []
    return divide(frozenset(), False, list(items))
