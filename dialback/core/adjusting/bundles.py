"""Bundles: changes of a proposal that need each other, to be taken together.

Any bundle can be taken alone, and in any order: none of them ever makes what is left weigh more.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import combinations
from typing import Final

MOST: Final = 8
"""Of more changes not every order is tried: each is looked at alone, and as the last one."""

Bundle = frozenset[int]


def bundles(count: int, weight: Callable[[Bundle], int]) -> tuple[Bundle, ...]:
    """So many changes in bundles, the earliest first.

    ``weight`` says what the findings weigh that are left with some of the changes taken. Changes
    that would raise it without another are put together with the one that helps most.
    """
    known: dict[Bundle, int] = {}

    def of(taken: Bundle) -> int:
        if taken not in known:
            known[taken] = weight(taken)
        return known[taken]

    found = [frozenset({one}) for one in range(count)]
    while (raised := _raised(found, of)) is not None:
        taken, added = raised
        others = [one for one in found if one != added]
        # One that is not taken yet can help; where all are, one of those.
        helps = [one for one in others if not one <= taken] or others
        best = min(helps, key=lambda one: (of(taken | added | one), sorted(one)))
        found = [one for one in others if one != best] + [added | best]
    return tuple(sorted(found, key=min))


def _raised(found: Sequence[Bundle], of: Callable[[Bundle], int]) -> tuple[Bundle, Bundle] | None:
    """Bundles that are taken, and one more that makes things worse; the fewest taken first."""
    for added in found:
        others = [one for one in found if one != added]
        sizes = range(len(found)) if len(found) <= MOST else (0, len(others))
        for size in sizes:
            for some in combinations(others, size):
                taken = frozenset().union(*some)
                if of(taken | added) > of(taken):
                    return taken, added
    return None
