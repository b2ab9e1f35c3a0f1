"""Balance: two sides weighed against each other, in each of the measures."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from dialback.core.figures import of_side
from dialback.core.rules import Rules
from dialback.core.sides import left_right
from dialback.core.tally import Entry, Tally
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
        tally.get(of_side(pair.name, "a", measure), 0.0),
        tally.get(of_side(pair.name, "b", measure), 0.0),
    )


def deciding_measure(pair: Pair, rules: Rules) -> str:
    """The measure in which a pair is judged: the house's, or sets where the pair has no such."""
    measure: str = rules.balance_measure
    return measure if measure in pair.measures else "sets"


def weigh_all(tally: Tally, entries: Iterable[Entry], pair: Pair) -> dict[str, Weighing]:
    """Weigh any pair of a week in all its measures; the athlete's two sides, too."""
    if pair.of == "side":
        return {measure: Weighing(*sides) for measure, sides in left_right(entries).items()}
    return {measure: weigh(tally, pair, measure) for measure in pair.measures}
