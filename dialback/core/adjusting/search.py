"""The search for a proposal: its ladder rung by rung, and the rung that a coach would sign."""

from __future__ import annotations

from dataclasses import replace
from typing import Final, Generic

from dialback.core.adjusting.found import F, Sought
from dialback.core.adjusting.judged import counts
from dialback.core.adjusting.result import Rung
from dialback.core.adjusting.solver import INF, Allowance, Expression, OutOfTimeError

_HALF: Final = 0.5
"""Whole numbers are told apart by it."""
_HIGHS: Final = 100
"""More high findings than there can be: the fewest of them, where all else is equal."""
_COSTS: Final = 1000
"""More than a proposal can cost."""
_MOVES: Final = 1000.0
"""More sets than can be moved: the fewest of them, where as few lines change."""


class Search(Generic[F]):
    """Answers of one programme. ``rungs`` is the ladder as far as it is known, from the start."""

    def __init__(self, sought: Sought[F], *, lightest: bool, budget: int | None) -> None:
        self.sought = sought
        self.lightest = lightest
        self.budget = INF if budget is None else float(budget)
        start = sought.unchanged()
        self.rungs = [start]
        self.is_whole = start.weight == 0

    def rung_of(self, found: F) -> Rung:
        """What an answer costs, and how many findings it leaves."""
        return Rung(found.cost, *counts(found.left))

    def gone_from(self, key: object) -> int | None:
        """The first place in the ladder from which on a finding is gone."""
        place = len(self.rungs)
        while place and key not in self.rungs[place - 1].left:
            place -= 1
        return place if place < len(self.rungs) else None

    def climb(self, allowance: Allowance) -> None:
        """Each least cost at which the weight becomes less, to the end, or as far as time goes."""
        week = self.sought
        try:
            while not self.is_whole:
                weight = self.rungs[-1].weight
                held = {week.weight_row: (-INF, weight - _HALF)}
                # The least cost; of as cheap ones the lightest, with the fewest high: at once.
                aim = self._aim((weight, week.cost), (1, week.weight))
                cheapest = week.programme.minimise(aim, allowance, rows=held)
                if cheapest is None:
                    self.is_whole = True
                    return
                if not cheapest.optimal:
                    return
                found = week.found(cheapest, optimal=True)
                self.rungs.append(found)
                self.is_whole = found.weight == 0
        except OutOfTimeError:
            return

    def _aim(self, *wanted: tuple[float, Expression]) -> dict[int, float]:
        """What is wanted, each by its share; of equal answers the fewest high findings."""
        aim: dict[int, float] = dict.fromkeys(self.sought.high, 1.0)
        for share, several in wanted:
            for number, factor in several.items():
                aim[number] = aim.get(number, 0.0) + _HIGHS * share * factor
        return aim

    def best_aim(self) -> dict[int, float]:
        """What the best answer has least of, whatever the ladder."""
        week = self.sought
        # What is wanted first counts for more than all that can be of what comes after it.
        if self.lightest:
            return self._aim((_COSTS, week.weight), (1, week.cost))
        return self._aim((self.rungs[0].weight + 1, week.both), (1, week.weight))

    def _calmest(self, known: F, allowance: Allowance) -> F:
        """Of answers equal to one that with the fewest lines changed, then sets moved."""
        week = self.sought
        if not known.values:
            return known
        high, _ = counts(known.left)
        rows = {
            week.cost_row: (-INF, known.cost - week.cost_offset + _HALF),
            week.weight_row: (-INF, known.weight + _HALF),
            week.high_row: (-INF, high + _HALF),
        }
        aim = dict(week.moves)
        for number, factor in week.changed.items():
            aim[number] = aim.get(number, 0.0) + _MOVES * factor
        try:
            calmest = week.programme.minimise(aim, allowance, rows=rows, known=known.values)
        except OutOfTimeError:
            return known
        return known if calmest is None else week.found(calmest, optimal=known.optimal)

    def answer(self, allowance: Allowance) -> F:
        """The rung to stop at, found by itself where the ladder is not known that far."""
        stop = self._stop(allowance)
        at = self.rungs.index(stop)
        self.rungs[at] = calmest = self._calmest(stop, allowance)
        return calmest

    def _stop(self, allowance: Allowance) -> F:
        within = [found for found in self.rungs if found.cost <= self.budget]
        known = min(within, key=self._rank)
        if self.is_whole or self._nothing_better(known):
            return known
        direct = self._direct(allowance)
        if direct is None or self._rank(direct) >= self._rank(known):
            proved = direct is not None and direct.optimal
            stays = replace(known, optimal=proved)
            self.rungs[self.rungs.index(known)] = stays
            return stays
        self.rungs = [one for one in self.rungs if one.cost < direct.cost]
        self.rungs.append(direct)
        return direct

    def _rank(self, found: F) -> tuple[int, int]:
        if self.lightest:
            return found.weight, found.cost
        return found.weight + found.cost, found.weight

    def _nothing_better(self, known: F) -> bool:
        """Whether no rung beyond those that are known can be better: each costs more."""
        beyond = self.rungs[-1].cost + 1
        return beyond > self.budget or (not self.lightest and known.weight + known.cost <= beyond)

    def _direct(self, allowance: Allowance) -> F | None:
        """The best answer, without the ladder; ``None`` where time is too short for any."""
        week = self.sought
        held = {week.cost_row: (-INF, self.budget - week.cost_offset + _HALF)}
        try:
            answer = week.programme.minimise(self.best_aim(), allowance, rows=held)
        except OutOfTimeError:
            return None
        return None if answer is None else week.found(answer, optimal=answer.optimal)
