"""What a coach answers again and again, taken as said from the third time on."""

from __future__ import annotations

from dataclasses import dataclass

from dialback.store.athletes import athlete_on_roster
from dialback.store.habits import TAKEN_FROM, count_answer, forget_habit
from dialback.store.unit import silently, unit


@dataclass(frozen=True, slots=True)
class Answer:
    """What was answered to what; ``of_athlete`` if it is about what the athlete does."""

    asked: str
    answer: str
    of_athlete: bool


def learn(number: int, given: Answer) -> bool:
    """Count an answer; whether it is taken as said from now on."""
    with silently():
        athlete = athlete_on_roster(number)
        whose = athlete if given.of_athlete else None
        times = count_answer(whose, given.asked, given.answer)
    return times >= TAKEN_FROM


def ask_again(number: int, given: Answer) -> None:
    """Take nothing of that form as said any more."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        forget_habit(athlete if given.of_athlete else None, given.asked)
        entry.tell(f"Asks again about “{given.answer}”", athlete if given.of_athlete else None)
