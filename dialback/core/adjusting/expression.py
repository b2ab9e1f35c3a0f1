"""What the rows of a week are made of: linear expressions, and sets that are there so often."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date

from dialback.core.tally import Entry


@dataclass(frozen=True)
class Linear:
    """A constant and variables with their factors."""

    constant: float = 0.0
    terms: Mapping[int, float] = field(default_factory=dict)

    def plus(self, other: Linear, factor: float = 1.0) -> Linear:
        """The sum of this and so many times another."""
        terms = dict(self.terms)
        for number, share in other.terms.items():
            terms[number] = terms.get(number, 0.0) + share * factor
        return Linear(self.constant + other.constant * factor, terms)

    def at(self, values: Sequence[float]) -> float:
        """What it comes to with the variables at these values."""
        return self.constant + sum(factor * values[number] for number, factor in self.terms.items())


@dataclass(frozen=True)
class Piece:
    """Sets that are in the week so many times: of a line's unit, fixed, or added."""

    session: int
    entries: tuple[Entry, ...]
    times: Linear
    most: float

    @property
    def day(self) -> date:
        """The day of its session."""
        return self.entries[0].session.date

    def credit(self, figure: str) -> float:
        """What one of it credits to a figure."""
        return sum(entry.measured.credits.get(figure, 0.0) for entry in self.entries)
