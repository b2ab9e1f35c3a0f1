"""Answers of a programme: what they change, what it costs, and what they leave."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from dialback.core.adjusting.bounds import weights
from dialback.core.adjusting.judged import weight_of
from dialback.core.adjusting.lines import Cost
from dialback.core.adjusting.rows import Flag
from dialback.core.adjusting.solver import INF, Answer, Programme
from dialback.core.findings import Finding
from dialback.core.sessions import Session

Counts = Mapping[tuple[int, int], int]
Added = Mapping[int, int]


@dataclass(frozen=True, eq=False)
class Found:
    """An answer: what it costs, and the findings that it leaves, by whatever tells them apart."""

    cost: int
    left: Mapping[Any, Finding]
    optimal: bool
    values: tuple[float, ...]
    """Those of the programme's variables; none at the start, that changes nothing."""

    @property
    def weight(self) -> int:
        """What the findings that it leaves weigh."""
        return weight_of(self.left)


@dataclass(frozen=True, eq=False)
class FoundWeek(Found):
    """An answer for a week: counts of lines, lines added, and the sessions that they make."""

    counts: Counts
    added: Added
    sessions: tuple[Session, ...]


F = TypeVar("F", bound=Found)


class Sought(ABC, Generic[F]):
    """A programme whose answers are weighed: what findings are left, and what the change costs."""

    def __init__(
        self,
        programme: Programme,
        cost: Cost,
        flags: Iterable[Flag],
        changed: Mapping[int, float],
        moves: Mapping[int, float],
    ) -> None:
        """``changed`` counts the lines that change, ``moves`` the sets that are moved."""
        self.programme = programme
        self.changed, self.moves = changed, moves
        self.cost, self.cost_offset = cost.of, cost.offset
        self.cost_row = programme.row(-INF, self.cost, INF)
        self.weight, self.high = weights(flags)
        self.weight_row = programme.row(-INF, self.weight, INF)
        self.both = dict(self.cost)
        for number, weight in self.weight.items():
            self.both[number] = self.both.get(number, 0.0) + weight
        self.high_row = programme.row(-INF, self.high, INF)

    @abstractmethod
    def unchanged(self) -> F:
        """The start, that costs nothing."""

    @abstractmethod
    def found(self, answer: Answer, *, optimal: bool) -> F:
        """What values of the variables come to."""
