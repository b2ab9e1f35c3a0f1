"""What a coach answers again and again, taken as said from the third time on."""

from __future__ import annotations

from dataclasses import dataclass

from dialback.core.notation.habit import WRITTEN, asked_in
from dialback.store.athletes import athlete_on_roster
from dialback.store.habits import TAKEN_FROM, count_answer, forget_habit
from dialback.store.models import Athlete
from dialback.store.unit import silently, unit


@dataclass(frozen=True, slots=True)
class Answer:
    """An answer that was chosen, and the form of what was asked."""

    form: str
    answer: str

    @property
    def asked(self) -> str:
        """What it is an answer to."""
        return asked_in(self.answer) if self.form == WRITTEN else self.form

    def whose(self, athlete: Athlete) -> Athlete | None:
        """Whose habit it is: what a dose means the athlete's, how it is written the house's."""
        return None if self.form == WRITTEN else athlete


def learn(number: int, given: Answer) -> bool:
    """Count an answer; whether it is taken as said from now on."""
    with silently():
        whose = given.whose(athlete_on_roster(number))
        times = count_answer(whose, given.asked, given.answer)
    if times == TAKEN_FROM:
        with unit() as entry:
            entry.tell(f"Takes “{given.answer}” as said from now on", whose)
    return times >= TAKEN_FROM


def ask_again(number: int, given: Answer) -> None:
    """Take nothing of that form as said any more."""
    with unit() as entry:
        whose = given.whose(athlete_on_roster(number))
        forget_habit(whose, given.asked)
        entry.tell(f"Will ask again about “{given.answer}”", whose)
