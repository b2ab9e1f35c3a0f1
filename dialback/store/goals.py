"""Goals of an athlete, between table and core."""

from __future__ import annotations

from collections.abc import Iterable

from dialback.core.sessions import Goal as CoreGoal
from dialback.store.models import Athlete, Goal


def numbered_goals(athlete: Athlete) -> dict[int, CoreGoal]:
    """The athlete's goals by number, the nearest day first."""
    rows = (
        Goal.select()
        .where(Goal.athlete == athlete, Goal.deleted_on.is_null())
        .order_by(Goal.by, Goal.id)
    )
    return {
        row.id: CoreGoal.model_validate(
            {
                "movement": row.movement,
                "load_kg": row.load_kg,
                "reps": row.reps,
                "seconds": row.seconds,
                "since": row.since,
                "by": row.by,
                **row.extra,
            }
        )
        for row in rows
    }


def add_goals(athlete: Athlete, goals: Iterable[CoreGoal]) -> None:
    """Keep goals."""
    for goal in goals:
        Goal.create(
            athlete=athlete,
            movement=goal.movement,
            load_kg=goal.load_kg,
            reps=goal.reps,
            seconds=goal.seconds,
            since=goal.since,
            by=goal.by,
            extra=goal.model_extra or {},
        )


def goal_row(athlete: Athlete, number: int, *, deleted: bool) -> Goal | None:
    """The goal of that number, one that stands or one that was taken away."""
    found: Goal | None = Goal.get_or_none(
        Goal.id == number, Goal.athlete == athlete, Goal.deleted_on.is_null(not deleted)
    )
    return found
