"""What a coach asks of a proposal, and what is asked if nobody says otherwise."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Final

from dialback.core.adjusting.held import NOT_STEADY, NOTHING_HELD, Held, Steady, declined, steady
from dialback.core.adjusting.solver import Allowance
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week

SECONDS: Final = 5.0
"""How long the best is looked for, if nobody says otherwise."""
NEW_MOVEMENTS: Final = 2
"""How many lines are added at most, if nobody says otherwise."""
LINES: Final = 6
"""How many lines are changed or added at most, if nobody says otherwise."""


@dataclass(frozen=True, slots=True)
class Options:
    """What the coach holds: locked movements, lines that may be changed or added, cost, time.

    ``thorough`` clears all that can be, whatever it takes; else the findings that are left weigh
    against the cost. ``seconds`` are those of the best answer; proved sooner, it takes less.
    ``lightest`` asks for the least that can be left within the budget, whatever it costs there.
    ``accepted`` are findings that nothing is changed for. Without ``ladder`` there is none, and
    the answer comes the sooner; where its changes are not to be taken ``singly``, none are bundled.
    A week that is meant to be light has ``most_sets`` at most. What was ``declined`` is not
    proposed; what was published lately is ``steady`` as long as no new finding needs it otherwise.
    ``wanted`` says whether anybody still waits for the answer; once nobody does,
    ``NotWantedError`` ends the work. Once ``enough`` says so, the best found so far has to do.
    """

    locks: frozenset[str] = frozenset()
    new_movements: int = NEW_MOVEMENTS
    lines: int = LINES
    thorough: bool = False
    lightest: bool = False
    budget: int | None = None
    seconds: float = SECONDS
    accepted: frozenset[Key] = frozenset()
    ladder: bool = True
    singly: bool = True
    most_sets: float | None = None
    declined: Held = NOTHING_HELD
    steady: Steady = NOT_STEADY
    wanted: Callable[[], bool] | None = field(default=None, compare=False)
    enough: Callable[[], bool] | None = field(default=None, compare=False)

    def allowance(self, share: float = 1.0) -> Allowance:
        """The seconds that there are for something, by its share of them."""
        return Allowance(self.seconds, self.wanted, self.enough).part(share)

    def held_in(self, ledger: Ledger, week: Week, start: tuple[Session, ...]) -> Options:
        """The same with what was declined, and what was published lately, of a start held."""
        said = declined(ledger.decisions, week, start, ledger.movements)
        return replace(self, declined=said, steady=steady(ledger, week, start))
