"""What a change of a week costs: the sets it moves, and what a coach would not do lightly.

Source: Dial Back's contract, *Adjusting*, *Cost*. A step is a set, a round, or a pair of left and
right.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import ceil
from typing import Final

from dialback.core.adjusting.judged import Judge
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings.jumps import OF_THE_WEEK
from dialback.core.maxima import is_working
from dialback.core.movements import Movement, MovementTable
from dialback.core.plans.spans import Span
from dialback.core.sessions import Session
from dialback.core.tally import Entry, tally
from dialback.core.vocabulary import CLASSES

FIRST: Final = 2
"""So many steps more or fewer of a line cost one each, further ones two: changes are spread."""
ADDED: Final = 2
"""What a line added costs more."""
DROPPED: Final = 4
"""What a line dropped costs more."""
CONCENTRATION: Final = 3
"""What a set of one movement in a session costs beyond ``MANY`` of them."""
MANY: Final = 5
FIRST_LIFT: Final = 3
"""What a step fewer of a session's first big lift costs more."""
THEME: Final = 3
"""What a line costs more in a session that has nothing of its kind."""
CALM: Final = 3
"""So many steps may go either way in a session; further ones cost one more each."""
TOTAL: Final = 0.05
"""By such a share the week's sets may go up or down; further ones cost one more each."""
_TINY: Final = 1e-9

_FITS_TOO: Final[Mapping[str, frozenset[str]]] = {
    **dict.fromkeys(("shoulder_raise", "shrug"), frozenset({"push", "pull"})),
    **dict.fromkeys(("calf_raise", "hip_adduction", "hip_abduction"), frozenset({"knee", "hip"})),
}
"""Classes whose sessions a pattern fits beside its own."""


def class_of(pattern: str) -> str:
    """The class of a pattern: push, pull, knee, hip; one in none of them is its own."""
    return next((name for name, patterns in CLASSES.items() if pattern in patterns), pattern)


def fits(movement: Movement, classes: Iterable[str]) -> bool:
    """Whether a movement is of the kind of a session that has these classes."""
    pattern: str = movement.pattern
    if pattern.startswith("trunk_") or pattern == "carry":
        return True
    own = {class_of(pattern)} | _FITS_TOO.get(pattern, frozenset())
    return not own.isdisjoint(classes)


def classes_in(lines: Iterable[Span], movements: MovementTable) -> frozenset[str]:
    """The classes of a session's lines, warm-ups, conditioning and mobility aside."""
    known = (movements[name] for line in lines if not line.warm_up for name in line.movements)
    return frozenset(class_of(movement.pattern) for movement in known if movement.counted)


def is_big_lift(line: Span, movements: MovementTable) -> bool:
    """Whether a line is of a single compound movement: no warm-up, no circuit, no combination."""
    if line.warm_up or line.kind == "rounds" or line.is_combination:
        return False
    movement = movements[line.movements[0]]
    return movement.compound and movement.counted


def first_lift(lines: Iterable[Span], movements: MovementTable) -> Span | None:
    """A session's first line of a single compound movement."""
    return next((line for line in lines if is_big_lift(line, movements)), None)


def share_of_set(entry: Entry) -> float:
    """How much of a working set it is: one of one side is half."""
    return 0.5 if entry.set.sides in ("left", "right") else 1.0


def working_sets(entries: Iterable[Entry]) -> Counter[tuple[int, str]]:
    """Working sets by session (its identity) and movement, in halves."""
    found: Counter[tuple[int, str]] = Counter()
    for entry in entries:
        if is_working(entry):
            name = entry.measured.shape.moves[0].movement.name
            found[id(entry.session), name] += round(2 * share_of_set(entry))
    return found


def spread(steps: int) -> int:
    """What so many steps of a line cost."""
    return steps + max(0, steps - FIRST)


@dataclass(frozen=True, slots=True)
class Moved:
    """A line of a session that has other steps; from none it is added, of a movement."""

    session: int
    line: Span | None
    movement: str
    before: int
    after: int


class Prices:
    """The cost of changes of one start."""

    def __init__(
        self, judge: Judge, start: Sequence[Session], lines: Sequence[Sequence[Span]]
    ) -> None:
        self.judge = judge
        self.start = start
        self.movements = judge.ledger.movements
        self.big = [first_lift(several, self.movements) for several in lines]
        self.classes = [classes_in(several, self.movements) for several in lines]
        self.usual = working_sets(judge.ledger.measure(start))
        self.jumps = any(finding.key == OF_THE_WEEK for finding in judge.start.findings)

    def limit_of(self, session: int, movement: str) -> int:
        """So many halves of sets of a movement a session may have for nothing."""
        return max(2 * MANY, self.usual[id(self.start[session]), movement])

    def of(self, moved: Iterable[Moved], sessions: Sequence[Session]) -> int:
        """What a change costs in all."""
        changes = list(moved)
        return (
            sum(self._of_line(one) for one in changes)
            + self._crowd(changes)
            + self._concentration(sessions)
            + self._total(sessions)
        )

    def _of_line(self, one: Moved) -> int:
        if one.line is None:
            strange = not fits(self.movements[one.movement], self.classes[one.session])
            return spread(one.after) + ADDED + (THEME if strange else 0)
        twice = 2 if one.line.kind == "pairs" else 1
        dropped = DROPPED if one.after == 0 else 0
        fewer = max(0, one.before - one.after)
        big = FIRST_LIFT * fewer if one.line == self.big[one.session] else 0
        return twice * spread(abs(one.after - one.before)) + dropped + big

    @staticmethod
    def _crowd(changes: Iterable[Moved]) -> int:
        steps: Counter[int] = Counter()
        for one in changes:
            steps[one.session] += abs(one.after - one.before)
        return sum(max(0, count - CALM) for count in steps.values())

    def _concentration(self, sessions: Sequence[Session]) -> int:
        cost = 0
        for at, session in enumerate(sessions):
            for (_, name), halves in working_sets(self.judge.ledger.measure([session])).items():
                beyond = max(0, halves - self.limit_of(at, name))
                cost += CONCENTRATION * ceil(beyond / 2)
        return cost

    def _total(self, sessions: Sequence[Session]) -> int:
        before = self.judge.start.value(TOTAL_SETS)
        now = tally(self.judge.ledger.measure(sessions)).get(TOTAL_SETS, 0.0)
        if now < before and self.jumps:
            return 0
        return max(0, ceil(abs(now - before) - TOTAL * before - _TINY))
