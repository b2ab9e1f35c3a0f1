"""Bundles: changes of a proposal that need each other, to be taken together.

Any bundle can be taken alone, and in any order: none of them ever makes what is left weigh more,
and each, taken first, makes it weigh less.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import combinations
from typing import Final

from dialback.core.vocabulary import Key

MOST: Final = 8
"""Of more changes not every order is tried: each is looked at alone, and as the last one."""

Bundle = frozenset[int]


def bundles(needs: Sequence[frozenset[Key]], weight: Callable[[Bundle], int]) -> tuple[Bundle, ...]:
    """The changes of a proposal in bundles, the earliest first.

    ``needs`` has what each change is needed for: what stands where it alone is left out. ``weight``
    says what the findings weigh that are left with some of the changes taken. Changes that would
    raise it without another, and those that do nothing without another, are put together with the
    one that helps most: that is needed for the same.
    """
    known: dict[Bundle, int] = {}

    def of(taken: Bundle) -> int:
        if taken not in known:
            known[taken] = weight(taken)
        return known[taken]

    def shared(one: Bundle, other: Bundle) -> int:
        mine, theirs = (frozenset().union(*(needs[at] for at in bundle)) for bundle in (one, other))
        return len(mine & theirs)

    found = [frozenset({at}) for at in range(len(needs))]
    while (alone := _raised(found, of) or _idle(found, of)) is not None:
        taken, added = alone
        others = [one for one in found if one != added]
        # One that is not taken yet can help; where all are, one of those.
        helps = [one for one in others if not one <= taken] or others
        best = min(
            helps, key=lambda one: (-shared(added, one), of(taken | added | one), sorted(one))
        )
        found = [one for one in others if one != best] + [added | best]
    return tuple(sorted(found, key=min))


def _idle(found: Sequence[Bundle], of: Callable[[Bundle], int]) -> tuple[Bundle, Bundle] | None:
    """A bundle that does nothing by itself, where there are others."""
    nothing: Bundle = frozenset()
    if len(found) == 1:
        return None
    return next(((nothing, one) for one in found if of(one) >= of(nothing)), None)


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
