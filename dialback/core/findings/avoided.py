"""What restrictions leave no room for: it is meant so, and no remedy asks for it."""

from __future__ import annotations

from dialback.core.findings.finding import WeekInHand
from dialback.core.restrictions import Restriction


def avoided(
    week: WeekInHand,
    *,
    patterns: frozenset[str] = frozenset(),
    muscles: frozenset[str] = frozenset(),
) -> Restriction | None:
    """The first restriction by name of those that leave no room for all of it the whole week.

    Of patterns, or of muscles, every one has to be avoided, without a limit, on each day.
    """
    found = {
        (restriction.about, restriction.subject): restriction
        for restriction in sorted(week.restrictions, key=lambda one: one.subject, reverse=True)
        if restriction.avoids and restriction.holds_throughout(week.week)
    }
    wanted = [("pattern", pattern) for pattern in patterns] + [
        ("muscle", muscle) for muscle in muscles
    ]
    if not wanted or any(one not in found for one in wanted):
        return None
    return found[min(wanted)]  # type: ignore[index]
