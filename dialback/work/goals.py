"""Goals: set, taken away, put back."""

from __future__ import annotations

from datetime import date

from dialback.book.errors import bad_input
from dialback.core.movements import UnknownMovementError
from dialback.core.sessions import Goal
from dialback.core.weeks import said
from dialback.store.athletes import Athlete, Ledgers, athlete_on_roster
from dialback.store.goals import add_goals, goal_row, numbered_goals
from dialback.store.journal import change
from dialback.store.unit import unit
from dialback.work.errors import NotThereError

MOST: int = 20
"""So many goals of an athlete at a time."""


def set_goal(ledgers: Ledgers, number: int, goal: Goal) -> Athlete:
    """Set a goal for a movement by its name or another name of it."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        try:
            movement = ledgers.of(athlete).movements[goal.movement]
        except UnknownMovementError as unknown:
            raise bad_input("movement", str(unknown)) from None
        if not movement.counted:
            raise bad_input("movement", f"{movement.name} has no sets that count: choose another")
        goal = goal.model_copy(update={"movement": movement.name})
        there = numbered_goals(athlete).values()
        # Said once more, for the answer to the first was lost: it stands as it is.
        if goal in there:
            return athlete
        if len(there) >= MOST:
            raise bad_input("movement", f"{athlete.name} has {MOST} goals: remove one first")
        add_goals(athlete, [goal])
        entry.tell(f"Set a goal for {movement.name}, by {said(goal.by)}", athlete)
        return athlete


def put(number: int, goal: int, deleted_on: date | None) -> Athlete:
    """Take a goal away on a day, or, without one, put it back."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = goal_row(athlete, goal, deleted=deleted_on is None)
        if row is None:
            raise NotThereError(f"{athlete.name} no longer has this goal.")
        undo = change(row, deleted_on=deleted_on)
        done = "Restored" if deleted_on is None else "Removed"
        entry.tell(f"{done} the goal for {row.movement}", athlete, undo=undo)
        return athlete
