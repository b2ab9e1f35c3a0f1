"""Balance: two sides weighed against each other, in each of the measures."""

from __future__ import annotations

from dataclasses import dataclass

from dialback.core.tally import Tally
from dialback.core.vocabulary import Pair


@dataclass(frozen=True, slots=True)
class Weighing:
    """The two sides of a pair in one measure."""

    a: float
    b: float

    @property
    def ratio(self) -> float | None:
        """The ratio a : b; ``None`` where b is 0."""
        return self.a / self.b if self.b else None


def weigh(tally: Tally, pair: Pair, measure: str) -> Weighing:
    """Weigh a pair of a week in one measure."""
    return Weighing(
        tally.get(f"balance/{pair.name}/a/{measure}", 0.0),
        tally.get(f"balance/{pair.name}/b/{measure}", 0.0),
    )
