"""Goals: set, taken away, put back."""

from __future__ import annotations

from datetime import date

from dialback.book.errors import bad_input
from dialback.core.movements import UnknownMovementError
from dialback.core.sessions import Goal
from dialback.store.athletes import Athlete, Ledgers, athlete_on_roster
from dialback.store.goals import add_goals, numbered_goals, put_goal
from dialback.store.unit import unit
from dialback.work.errors import NotThereError

MOST: int = 20
"""So many goals of an athlete at a time."""


def set_goal(ledgers: Ledgers, number: int, goal: Goal) -> Athlete:
    """Set a goal for a movement by its name or another name of it."""
    with unit():
        athlete = athlete_on_roster(number)
        try:
            movement = ledgers.of(athlete).movements[goal.movement]
        except UnknownMovementError as unknown:
            raise bad_input("movement", str(unknown)) from None
        if not movement.counted:
            raise bad_input("movement", f"{movement.name} has no sets that count: choose another")
        if len(numbered_goals(athlete)) >= MOST:
            raise bad_input("movement", f"{athlete.name} has {MOST} goals: take one away first")
        add_goals(athlete, [goal.model_copy(update={"movement": movement.name})])
        return athlete


def put(number: int, goal: int, deleted_on: date | None) -> Athlete:
    """Take a goal away on a day, or, without one, put it back."""
    with unit():
        athlete = athlete_on_roster(number)
        if not put_goal(athlete, goal, deleted_on):
            raise NotThereError(f"{athlete.name} has no such goal any more.")
        return athlete
