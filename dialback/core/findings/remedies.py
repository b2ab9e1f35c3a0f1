"""What a remedy must not do: go against a restriction, or raise another finding."""

from __future__ import annotations

from dialback.core.baseline import Change
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings.finding import WeekInHand, exceeds
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
        if restriction.avoids and holds_all_week(restriction, week)
    }
    wanted = [("pattern", one) for one in patterns] + [("muscle", muscle) for muscle in muscles]
    if not wanted or any(one not in found for one in wanted):
        return None
    return found[min(wanted)]  # type: ignore[index]


def holds_all_week(restriction: Restriction, week: WeekInHand) -> bool:
    """Whether a restriction is in force on all days of the week."""
    return restriction.holds(week.week.monday) and restriction.holds(week.week.sunday)


def beyond_the_week(week: WeekInHand, more_sets: float) -> bool:
    """Whether so many sets more would make the week's sets jump."""
    sets = week.tally.get(TOTAL_SETS, 0.0) + more_sets
    change = Change(week.baseline.base(TOTAL_SETS), sets).change
    return change is not None and exceeds(change, week.rules.jump_limits["sets"][0])
