"""What a proposal leaves: what it would cost, or what keeps it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from dialback.core.adjusting.against import MakeWeek, against, can_clear
from dialback.core.adjusting.found import FoundWeek
from dialback.core.adjusting.held import NOTHING_HELD, Held
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.reasons import costs_sentence, held_sentence, remaining_sentence
from dialback.core.adjusting.result import Remaining
from dialback.core.adjusting.search import Search
from dialback.core.adjusting.solver import Allowance, OutOfTimeError
from dialback.core.adjusting.weekly import WeekProgramme
from dialback.core.findings import Finding
from dialback.core.vocabulary import Key


@dataclass(frozen=True)
class Explained:
    """What stays of a proposal, each with its reason; ``make`` makes the programme anew."""

    search: Search[FoundWeek]
    week: WeekProgramme
    options: Options
    left: Mapping[Key, Finding]
    best: FoundWeek
    allowance: Allowance
    make: MakeWeek
    held: Held

    def remaining(self, finding: Finding) -> Remaining:
        """A finding that stays."""
        rung = self.search.gone_from(finding.key) if self.options.ladder else None
        if rung is not None:
            in_all = self.search.rungs[rung].cost
            more = in_all - self.best.cost
            return Remaining(finding, rung, (), costs_sentence(finding, more, in_all))
        if self._is_held(finding.key):
            return Remaining(finding, None, (), held_sentence(finding))
        budget = self.options.budget
        keys = against(finding.key, self.week, self.make, budget, self.left, self.allowance)
        return Remaining(finding, None, keys or (), remaining_sentence(finding, keys))

    def _is_held(self, key: Key) -> bool:
        """Whether it stays for what was published lately or declined alone, as far as is known."""
        if not self.held:
            return False
        try:
            return not can_clear(key, self.week, self.allowance) and can_clear(
                key, self.make(held=NOTHING_HELD), self.allowance
            )
        except OutOfTimeError:
            return False
