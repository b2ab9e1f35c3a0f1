"""Rows that say the same of several athletes: told once, they count for each of them.

Who does the same sessions has the same sums of sets, and so the same findings on the same
variables. The programme of a squad then is hardly larger than that of one athlete.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence

from dialback.core.adjusting.rows import Flag
from dialback.core.adjusting.solver import Programme

_DIGITS = 9
"""Factors that differ by less are the same."""


def told_once(programme: Programme, own: range, flags: Iterable[Flag]) -> list[Flag]:
    """Take out rows and variables that others say already; the flags that are left for each.

    ``own`` are the variables that may be one with another. Those that stand in the same rows, in
    the same way, with the same bounds, have the same best values: it changes no optimum.
    """
    same: dict[int, int] = {}
    known: dict[object, Sequence[int]] = {}
    out: set[int] = set()
    for variables, rows in _groups(programme, own):
        says = _said(programme, variables, rows)
        first = known.setdefault(says, variables)
        if first is not variables:
            same |= dict(zip(variables, first, strict=True))
            out |= set(rows)
            for number in variables:
                programme.lower[number] = programme.upper[number] = 0.0
    programme.rows = [row for at, row in enumerate(programme.rows) if at not in out]

    def one_of(number: int | None) -> int | None:
        return None if number is None else same.get(number, number)

    return [Flag(flag.key, one_of(flag.caution), one_of(flag.high)) for flag in flags]


def _groups(programme: Programme, own: range) -> list[tuple[list[int], list[int]]]:
    """Variables that rows bind together, each group with its rows, all in order."""
    leader = {number: number for number in own}

    def leader_of(number: int) -> int:
        while leader[number] != number:
            leader[number] = number = leader[leader[number]]
        return number

    rows_of: dict[int, list[int]] = defaultdict(list)
    bound: list[tuple[int, int]] = []
    for at, (_, terms, _) in enumerate(programme.rows):
        inside = [number for number in terms if number in leader]
        for number in inside[1:]:
            leader[leader_of(number)] = leader_of(inside[0])
        if inside:
            bound.append((at, inside[0]))
    for at, number in bound:
        rows_of[leader_of(number)].append(at)
    variables: dict[int, list[int]] = defaultdict(list)
    for number in own:
        variables[leader_of(number)].append(number)
    return [(several, rows_of[first]) for first, several in variables.items() if rows_of[first]]


def _said(programme: Programme, variables: Sequence[int], rows: Sequence[int]) -> object:
    """What a group says, whatever its variables are called."""
    places = {number: -1 - at for at, number in enumerate(variables)}
    return (
        tuple(
            (programme.lower[one], programme.upper[one], programme.whole[one]) for one in variables
        ),
        tuple(
            (
                round(lower, _DIGITS),
                tuple(
                    sorted(
                        (places.get(number, number), round(factor, _DIGITS))
                        for number, factor in terms.items()
                    )
                ),
                round(upper, _DIGITS),
            )
            for lower, terms, upper in (programme.rows[at] for at in rows)
        ),
    )
