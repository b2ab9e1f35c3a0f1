"""Habits: what was answered so often in a row that it is taken as said."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from dialback.store.models import Athlete, Habit

TAKEN_FROM: Final = 3
"""From so many equal answers on a form is not asked about any more. Dial Back's own choice."""


def habits_of(athlete: Athlete) -> Mapping[str, str]:
    """The answers that are taken as said, by what was asked: the house's and the athlete's own."""
    found = Habit.select().where(
        Habit.athlete.is_null() | (Habit.athlete == athlete), Habit.times >= TAKEN_FROM
    )
    return {row.asked: row.answer for row in found}


def count_answer(athlete: Athlete | None, asked: str, answer: str) -> int:
    """Count an answer; how often it was given in a row. To be called within a transaction."""
    row = Habit.get_or_none(_same(athlete), Habit.asked == asked)
    if row is None:
        row = Habit.create(athlete=athlete, asked=asked, answer=answer, times=0)
    row.times = row.times + 1 if row.answer == answer else 1
    row.answer = answer
    row.save()
    return int(row.times)


def forget_habit(athlete: Athlete | None, asked: str) -> None:
    """Ask again from now on. To be called within a transaction."""
    Habit.delete().where(_same(athlete), Habit.asked == asked).execute()


def _same(athlete: Athlete | None) -> object:
    return Habit.athlete.is_null() if athlete is None else Habit.athlete == athlete
