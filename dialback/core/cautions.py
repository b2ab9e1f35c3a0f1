"""Circumstances that ask for care: on whose word they stand, and the usual caution of each."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from pydantic import Field

from dialback.core.movements import Name, Value
from dialback.core.sessions import Day

Kind = Literal["minor", "pregnancy", "illness", "return from injury", "other"]

USUAL: Final[dict[Kind, str]] = {
    "minor": "Training of minors follows local law and needs a guardian's consent: form before "
    "load, no maximal attempts without supervision, and nobody trains alone.",
    "pregnancy": "Only with the consent of the doctor or midwife, who sets the limits; stop on "
    "pain, bleeding, dizziness or breathlessness.",
    "illness": "No training with fever; after an infection start low, and only when a doctor "
    "agrees where the heart or the breath was concerned.",
    "return from injury": "On the word of whoever treats it: start below what was usual, within "
    "the limits that were set, and stop on pain.",
    "other": "Ask a licensed practitioner before the plan goes further than they have said.",
}
"""What is usually to be said of each; local rules and licensed practice go before it."""
TrainingLevel = Literal["", "novice", "intermediate", "advanced"]
"""How long and how well somebody has trained; empty where nobody has said."""
YEARS_OF_BIRTH: Final = (1900, 2100)
"""What is outside of these is a slip of the pen."""
ADULT: Final = 18
"""Years: younger ones are minors in most places."""


class Caution(Value):
    """A circumstance of an athlete, on somebody's word, from a day on until another."""

    kind: Kind
    word: str = Field("", max_length=500, description="What was said")
    by: Name = Field(description="On whose word")
    since: Day
    ended_on: Day | None = None

    def holds(self, on: date) -> bool:
        """Whether it stands on a day; on the day it ended it does not."""
        return self.since <= on and (self.ended_on is None or on < self.ended_on)


@dataclass(frozen=True, slots=True)
class Care:
    """What to mind about an athlete: which circumstance, what is usually said, who said more."""

    kind: Kind
    usual: str
    word: str
    by: str
    since: date | None


def care_on(day: date, cautions: Iterable[Caution], born: int | None) -> list[Care]:
    """What to mind on a day: the circumstances that stand, and the age where the year tells it."""
    found = [
        Care(one.kind, USUAL[one.kind], one.word, one.by, one.since)
        for one in cautions
        if one.holds(day)
    ]
    if born is not None and not any(one.kind == "minor" for one in found):
        age = day.year - born
        if age <= ADULT:
            # By the year alone the birthday is not known: the careful reading holds.
            word = f"turns {age} this year" if age == ADULT else f"born in {born}"
            found.append(Care("minor", USUAL["minor"], word, "", None))
    return found
