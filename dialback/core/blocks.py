"""Blocks of weeks as the findings see them: where they begin, and what they are for."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from dialback.core.movements import fold
from dialback.core.weeks import Week


@dataclass(frozen=True, slots=True)
class BlockPlan:
    """A block: its weeks, the muscles and pairs that it is not about, its main movements."""

    first: Week
    weeks: int
    out_of_focus: frozenset[str] = frozenset()
    main: tuple[str, ...] = ()

    def has(self, week: Week) -> bool:
        """Whether a week is one of its weeks."""
        return self.first <= week < self.first.plus(self.weeks)


@dataclass(frozen=True)
class Blocks:
    """An athlete's blocks."""

    all: tuple[BlockPlan, ...] = ()

    @classmethod
    def of(cls, blocks: Iterable[BlockPlan]) -> Blocks:
        """The blocks, in the order in which they begin."""
        return cls(tuple(sorted(blocks, key=lambda block: block.first)))

    @cached_property
    def begins(self) -> frozenset[Week]:
        """The weeks in which a block begins."""
        return frozenset(block.first for block in self.all)

    def out_of_focus(self, week: Week) -> frozenset[str]:
        """The muscles and pairs that a week is not about."""
        return frozenset().union(*(one.out_of_focus for one in self.all if one.has(week)))

    def main(self, week: Week) -> frozenset[str]:
        """The main movements of a week, folded; empty where its blocks name none."""
        return frozenset(fold(name) for one in self.all if one.has(week) for name in one.main)
