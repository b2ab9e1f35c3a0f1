"""Restrictions: what an athlete is to avoid, or to do within a limit, on somebody's word."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date, timedelta
from typing import Annotated, Final, Literal, Self, cast

from pydantic import Field, model_validator

from dialback.core.figures import Figure, of_movement, of_muscle, of_pattern
from dialback.core.kit import LOAD_TOLERANCE_KG
from dialback.core.movements import Movement, MovementTable, Name, Value, fold
from dialback.core.rules import Rules
from dialback.core.sessions import Day, Set
from dialback.core.tempo import ASSUMED, parse_tempo
from dialback.core.vocabulary import MUSCLES, PATTERNS, Muscle, label
from dialback.core.weeks import Week
from dialback.core.words import Unit, number, weight_text

About = Literal["movement", "pattern", "muscle", "tempo"]
PHASES: Final = ("lowering", "pause at the bottom", "lifting", "pause at the top")
"""The phases of a rep that a restriction of the tempo is about, in the order of the tempo."""

Limit = Annotated[float, Field(ge=0, le=1000)]


class Restriction(Value):
    """Something to avoid altogether, or, with a limit, to do within it.

    ``subject`` is a movement's name, a pattern, a muscle, or a phase of the tempo. Limits: hard
    sets a week, the total load of a set in kg, seconds of the phase. It holds from ``since`` until
    the day on which somebody lifted it.
    """

    about: About
    subject: Name
    most_sets: Limit | None = None
    most_load_kg: Limit | None = None
    least_s: Limit | None = None
    most_s: Limit | None = None
    word: str = Field("", max_length=500, description="What was said, and why")
    by: Name = Field(description="On whose word")
    since: Day
    lifted_on: Day | None = None
    lifted_by: Name | None = None

    @model_validator(mode="after")
    def _fits(self) -> Self:
        known = {"pattern": PATTERNS, "muscle": MUSCLES, "tempo": PHASES}.get(self.about)
        if known is not None and self.subject not in known:
            raise ValueError(f"{self.subject!r} is not a {_WORDS[self.about]}: {', '.join(known)}")
        timed = self.least_s is not None or self.most_s is not None
        if (self.about == "tempo") != timed:
            raise ValueError(
                "a restriction of the tempo says how many seconds the phase takes at least or at "
                "most; no other has seconds"
            )
        if self.about == "tempo" and (self.most_sets is not None or self.most_load_kg is not None):
            raise ValueError("a restriction of the tempo has seconds, and neither sets nor loads")
        if (self.lifted_on is None) != (self.lifted_by is None):
            raise ValueError("a restriction is lifted by a person on a day: say both, or neither")
        if self.lifted_on is not None and self.lifted_on < self.since:
            raise ValueError(f"it was lifted on {self.lifted_on}, before it began")
        return self

    @property
    def avoids(self) -> bool:
        """Whether it leaves no room at all."""
        return self.about != "tempo" and self.most_sets is None and self.most_load_kg is None

    @property
    def last_day(self) -> date | None:
        """The last day on which it is in force, where one is known."""
        return None if self.lifted_on is None else self.lifted_on - timedelta(days=1)

    @property
    def title(self) -> str:
        """What it is about, in words."""
        return f"{self.subject} of the tempo" if self.about == "tempo" else label(self.subject)

    def words(self, unit: Unit) -> str:
        """What is asked of the athlete: ``no vertical push``, ``bench press: at most 40 kg``."""
        if self.avoids:
            return f"no {self.title}"
        load = self.most_load_kg is not None and weight_text(self.most_load_kg, unit)
        limits = [
            f"{says} {text}"
            for says, text in (
                ("at most", self.most_sets is not None and f"{number(self.most_sets)} sets a week"),
                ("at most", load),
                ("at least", self.least_s is not None and f"{number(self.least_s)} s"),
                ("at most", self.most_s is not None and f"{number(self.most_s)} s"),
            )
            if text
        ]
        return f"{self.title}: {', '.join(limits)}"

    def holds(self, on: date) -> bool:
        """Whether it is in force on a day."""
        return self.since <= on and not self.is_over_by(on)

    def holds_in(self, week: Week) -> bool:
        """Whether it is in force on some day of a week."""
        first = max(self.since, week.monday)
        return first <= week.sunday and not self.is_over_by(first)

    def holds_throughout(self, week: Week) -> bool:
        """Whether it is in force on every day of a week."""
        return self.holds(week.monday) and self.holds(week.sunday)

    def is_over_by(self, day: date) -> bool:
        """Whether somebody lifted it by a day."""
        return self.lifted_on is not None and self.lifted_on <= day

    def touches(self, movement: Movement, rules: Rules) -> bool:
        """Whether a movement is what it is about. An indirect muscle is one if rules credit it."""
        match self.about:
            case "movement":
                return fold(movement.name) == fold(self.subject)
            case "pattern":
                return movement.pattern == self.subject
            case "muscle":
                role = movement.muscles.get(cast(Muscle, self.subject))
                return role == "direct" or (role == "indirect" and rules.indirect_credit > 0)
            case "tempo":
                return movement.counted and not movement.isometric

    def figure(self, movement: Movement) -> Figure:
        """The figure of sets that a movement of it is counted in."""
        match self.about:
            case "pattern":
                return of_pattern(self.subject, "sets")
            case "muscle":
                return of_muscle(self.subject, "sets")
        return of_movement(movement.name, "sets")


_WORDS: Final = {"pattern": "pattern", "muscle": "muscle", "tempo": "phase of the tempo"}


def breaks(
    a_set: Set, movements: Iterable[Movement], restriction: Restriction, rules: Rules
) -> bool:
    """Whether a single set has something that the restriction does not allow."""
    return set_breach(a_set, movements, restriction, rules, "kg") is not None


def set_breach(
    a_set: Set,
    movements: Iterable[Movement],
    restriction: Restriction,
    rules: Rules,
    unit: Unit,
) -> str | None:
    """What a single set has that the restriction does not allow, in words; ``None`` if nothing."""
    touched = [movement for movement in movements if restriction.touches(movement, rules)]
    if not touched:
        return None
    if restriction.avoids:
        return f"{restriction.title} is to be avoided"
    most = restriction.most_load_kg
    if most is not None and a_set.total_load_kg > most + LOAD_TOLERANCE_KG:
        load, limit = weight_text(a_set.total_load_kg, unit), weight_text(most, unit)
        return f"{load} is more than the {limit} that {restriction.title} may have"
    if restriction.about == "tempo":
        wrong = next(seconds_out(a_set, touched, restriction), None)
        if wrong is not None:
            return f"{number(wrong)} s is not within: {restriction.words(unit)}"
    return None


def seconds_out(a_set: Set, movements: Iterable[Movement], limit: Restriction) -> Iterator[float]:
    """Seconds of the restricted phase that are out of its limits."""
    for movement in movements:
        text = a_set.tempo or movement.tempo
        seconds = (parse_tempo(text) if text else ASSUMED)[PHASES.index(limit.subject)]
        low = limit.least_s is not None and seconds < limit.least_s
        if low or (limit.most_s is not None and seconds > limit.most_s):
            yield seconds


def allowed(
    names: Iterable[str],
    movements: MovementTable,
    restrictions: Iterable[Restriction],
    rules: Rules,
    day: date,
) -> list[str]:
    """The movements that no restriction of the day forbids altogether, in their order."""
    forbidding = [
        restriction for restriction in restrictions if restriction.avoids and restriction.holds(day)
    ]
    return [
        name
        for name in names
        if not any(restriction.touches(movements[name], rules) for restriction in forbidding)
    ]
