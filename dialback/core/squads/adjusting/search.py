"""The search for a squad's proposal: first what is good for all, then athlete by athlete, then all.

The whole programme is large where there are many athletes. What is decided for all without any
exception has hardly more rows than the programme of one of them. With that held, what one athlete
does otherwise touches nobody else, so that the programme falls apart into one for each. What is
left of the time goes into the whole, which begins with what is known; where it is not proved by
then, each part is chosen anew beside the others.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Final, TypeVar

from dialback.core.adjusting.judged import weight_of
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.search import Search
from dialback.core.adjusting.solver import Allowance, OutOfTimeError
from dialback.core.squads.adjusting.plan import FoundSquad, SquadPlan
from dialback.core.squads.adjusting.programme import ForAllProgramme, SquadProgramme

FOR_ALL: Final = 0.8
"""So much of the time goes into what is decided for all, if it takes so long."""
NEXT: Final = 0.5
"""So much of what is then left into each of: the exceptions, the whole, both anew, the ladder."""

T = TypeVar("T")


class SquadSearch(Search[FoundSquad]):
    """Answers of a squad's programme. After ``search`` the ladder is as whole as time allows."""

    def __init__(self, plan: SquadPlan, options: Options) -> None:
        self.programme = SquadProgramme(plan, options)
        super().__init__(self.programme, lightest=options.thorough, budget=None)
        self.options = options
        self.plan = plan
        self.left = options.allowance()

    def search(self) -> FoundSquad:
        """The best answer that there is time for; it is one of the rungs."""
        programme = ForAllProgramme(self.plan, self.options)
        of_all, ladder = (Search(programme, lightest=self.lightest, budget=None) for _ in range(2))
        first = self._in_the_whole(self._within(FOR_ALL, of_all.answer))
        apart = self._within(NEXT, partial(self._one_by_one, first))
        whole = self._within(NEXT, partial(self._whole, apart))
        best = whole if whole.optimal else self._within(NEXT, partial(self._anew, whole))
        self._within(NEXT, ladder.climb)
        self.climb(self.left)
        if self.is_whole:
            return self.answer(self.left)
        others = [self._in_the_whole(one) for one in ladder.rungs]
        known = [*self.rungs, *others, first, apart, best]
        if not best.optimal:
            known.append(self._without_idle(min(known, key=self._rank)))
        return self._filled(known, optimal=best.optimal)

    def _within(self, share: float, work: Callable[[Allowance], T]) -> T:
        """What comes of work that may take such a share of the time that is left."""
        allowance = self.left.part(share)
        given = allowance.seconds
        found = work(allowance)
        self.left.seconds -= given - allowance.seconds
        return found

    def _in_the_whole(self, found: FoundSquad) -> FoundSquad:
        """An answer for all with the values that it has in the whole programme."""
        if not found.values:
            return self.rungs[0]
        bounds = self.programme.as_decided(found)
        try:
            answer = self.sought.programme.minimise(
                self.best_aim(), self.options.allowance(), bounds=bounds
            )
        except OutOfTimeError:
            answer = None
        return self.rungs[0] if answer is None else self.sought.found(answer, optimal=False)

    def _one_by_one(self, best: FoundSquad, allowance: Allowance) -> FoundSquad:
        """The same with what each athlete may do otherwise, those with the most left first."""
        weights = {
            number: weight_of({key: one for key, one in best.left.items() if key[0] == number})
            for number in range(len(self.plan.starts))
        }
        for number in sorted(weights, key=lambda one: -weights[one]):
            if weights[number] or best.exceptions[number]:
                best = self._but_for(number, best, allowance)
        return best

    def _anew(self, best: FoundSquad, allowance: Allowance) -> FoundSquad:
        """The same with what is decided for all chosen anew beside the exceptions, and back."""
        return self._one_by_one(self._but_for(None, best, allowance), allowance)

    def _but_for(self, number: int | None, best: FoundSquad, allowance: Allowance) -> FoundSquad:
        """The best where all but one part of an answer stays as it is."""
        if not best.values or allowance.seconds <= 0:
            return best
        bounds = self.programme.but_for(number, best.values)
        try:
            answer = self.sought.programme.minimise(
                self.best_aim(), allowance, bounds=bounds, known=best.values
            )
        except OutOfTimeError:
            return best
        if answer is None:
            return best
        return min(best, self.sought.found(answer, optimal=False), key=self._rank)

    def _whole(self, best: FoundSquad, allowance: Allowance) -> FoundSquad:
        """The best of all, as far as time goes, from the best that is known."""
        known = best.values or None
        try:
            answer = self.sought.programme.minimise(self.best_aim(), allowance, known=known)
        except OutOfTimeError:
            return best
        if answer is None:
            return best
        found = self.sought.found(answer, optimal=answer.optimal)
        return found if found.optimal or self._rank(found) < self._rank(best) else best

    def _without_idle(self, best: FoundSquad) -> FoundSquad:
        """An answer that was not proved, without each change that is better left out."""
        for fewer in self.plan.with_one_less(best):
            found = self.plan.made(*fewer, optimal=False)
            if self._rank(found) < self._rank(best) and self.plan.may_be(found):
                return self._without_idle(found)
        return best

    def _filled(self, known: list[FoundSquad], *, optimal: bool) -> FoundSquad:
        """Make the ladder of what is known: each next one costs more and leaves less. Its best."""
        self.rungs = []
        for one in sorted(known, key=lambda one: (one.cost, one.weight)):
            if not self.rungs or one.weight < self.rungs[-1].weight:
                self.rungs.append(one)
        at = min(range(len(self.rungs)), key=lambda at: self._rank(self.rungs[at]))
        self.rungs[at] = best = replace(self.rungs[at], optimal=optimal)
        return best
