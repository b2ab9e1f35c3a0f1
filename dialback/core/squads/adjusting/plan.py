"""A squad's week after a change: what is decided for all, what single athletes do otherwise.

Source: Dial Back's contract, *Squads*: a decision costs what it costs its first athlete, an
exception what it costs that athlete, and 1 more.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final, TypeVar

from dialback.core.adjusting.bounds import keeps_most
from dialback.core.adjusting.found import Found
from dialback.core.adjusting.held import Place
from dialback.core.adjusting.judged import worse_in
from dialback.core.adjusting.pricing import Moved
from dialback.core.findings import Finding
from dialback.core.once import Memo, Once
from dialback.core.plans.spans import rebuilt
from dialback.core.sessions import Session
from dialback.core.squads.adjusting.starts import SharedSession, Start
from dialback.core.vocabulary import Key

K = TypeVar("K")

EXCEPTION: Final = 1
"""What an exception costs beside its change."""

Added = tuple[int, str]
"""A line that is added: the place of its session, and its movement."""


@dataclass(frozen=True, slots=True)
class Decision:
    """What is decided for a shared session: counts of its lines, and lines added to it.

    By the number of the line, and by the name of the movement.
    """

    counts: Mapping[int, int] = field(default_factory=dict)
    added: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Otherwise:
    """What one athlete does otherwise, in shared sessions or in their own."""

    counts: Mapping[Place, int] = field(default_factory=dict)
    added: Mapping[Added, int] = field(default_factory=dict)

    def __len__(self) -> int:
        return len(self.counts) + len(self.added)


@dataclass(frozen=True, eq=False)
class FoundSquad(Found):
    """An answer for a squad: a decision for each shared session, what each athlete does otherwise.

    ``sessions`` are everybody's weeks; ``left`` has the findings by athlete and key.
    """

    decisions: tuple[Decision, ...]
    exceptions: tuple[Otherwise, ...]
    sessions: tuple[tuple[Session, ...], ...]


@dataclass(frozen=True, eq=False)
class SquadPlan:
    """The plans that a squad starts from, and what changes of them come to."""

    starts: tuple[Start, ...]
    shared: tuple[SharedSession, ...]
    kept: Memo = field(default_factory=dict, repr=False)
    """Room for what is worked out of it once."""

    def shared_at(self, number: int, place: int) -> int | None:
        """The number of the shared session that is at a place of an athlete's week."""
        return next(
            (at for at, one in enumerate(self.shared) if one.places.get(number) == place), None
        )

    def unchanged(self) -> FoundSquad:
        """The start, that costs nothing."""
        nothing = tuple(Decision() for _ in self.shared)
        return self.made(nothing, tuple(Otherwise() for _ in self.starts), optimal=True)

    def made(
        self,
        decisions: tuple[Decision, ...],
        exceptions: tuple[Otherwise, ...],
        values: tuple[float, ...] = (),
        *,
        optimal: bool,
    ) -> FoundSquad:
        """The answer that decisions and exceptions come to."""
        sessions = tuple(
            self.week_of(number, decisions, one) for number, one in enumerate(exceptions)
        )
        left = {
            (number, key): finding
            for number, one in enumerate(exceptions)
            for key, finding in self.left_of(number, decisions, one).items()
        }
        cost = self._cost_of_all(decisions) + sum(
            _priced(start, one.counts, one.added) + EXCEPTION * len(one)
            for start, one in zip(self.starts, exceptions, strict=True)
        )
        return FoundSquad(cost, left, optimal, values, decisions, exceptions, sessions)

    def left_of(
        self, number: int, decisions: Sequence[Decision], otherwise: Otherwise
    ) -> Mapping[Key, Finding]:
        """The findings of an athlete's week after a change; looked for once for each week."""
        own = self._own(number, decisions, otherwise)
        key = number, frozenset(own.counts.items()), frozenset(own.added.items())

        def look() -> Mapping[Key, Finding]:
            return self.starts[number].judge.of(_week(self.starts[number], own.counts, own.added))

        return _LEFT.of(self.kept, key, look)

    def may_be(self, found: FoundSquad) -> bool:
        """Whether nobody has a finding at a worse level, and every week keeps most of its sets."""
        return all(
            not worse_in(self.left_of(number, found.decisions, own), start.judge.at_start)
            and keeps_most(start.judge, found.sessions[number])
            for number, (start, own) in enumerate(zip(self.starts, found.exceptions, strict=True))
        )

    def with_one_less(
        self, found: FoundSquad
    ) -> Iterator[tuple[tuple[Decision, ...], tuple[Otherwise, ...]]]:
        """The decisions and exceptions of an answer, each time without one of its changes."""
        for at, decision in enumerate(found.decisions):
            fewer = [Decision(but(decision.counts, one), decision.added) for one in decision.counts]
            fewer += [Decision(decision.counts, but(decision.added, one)) for one in decision.added]
            for less in fewer:
                yield (*found.decisions[:at], less, *found.decisions[at + 1 :]), found.exceptions
        for at, own in enumerate(found.exceptions):
            rest = [Otherwise(but(own.counts, one), own.added) for one in own.counts]
            rest += [Otherwise(own.counts, but(own.added, one)) for one in own.added]
            for apart in rest:
                yield found.decisions, (*found.exceptions[:at], apart, *found.exceptions[at + 1 :])

    def week_of(
        self, number: int, decisions: Sequence[Decision], otherwise: Otherwise
    ) -> tuple[Session, ...]:
        """An athlete's week as decided for all, but for what they do otherwise."""
        own = self._own(number, decisions, otherwise)
        return _week(self.starts[number], own.counts, own.added)

    def _own(self, number: int, decisions: Sequence[Decision], otherwise: Otherwise) -> Otherwise:
        """All that changes in an athlete's week."""
        decided = self._decided(number, decisions, self.shared)
        return Otherwise(
            {**decided.counts, **otherwise.counts}, {**decided.added, **otherwise.added}
        )

    def _decided(
        self, number: int, decisions: Sequence[Decision], of: Collection[SharedSession]
    ) -> Otherwise:
        """What is decided for all about some of the shared sessions, in an athlete's week."""
        counts: dict[Place, int] = {}
        added: dict[Added, int] = {}
        for shared, one in zip(self.shared, decisions, strict=True):
            if shared in of and number in shared.places:
                place = shared.places[number]
                counts |= {(place, line): count for line, count in one.counts.items()}
                added |= {(place, name): count for name, count in one.added.items()}
        return Otherwise(counts, added)

    def _cost_of_all(self, decisions: Sequence[Decision]) -> int:
        """What decisions cost, each as a change of its first athlete's week."""
        cost = 0
        for first in dict.fromkeys(one.first for one in self.shared):
            led = [one for one in self.shared if one.first == first]
            decided = self._decided(first, decisions, led)
            cost += _priced(self.starts[first], decided.counts, decided.added)
        return cost


_LEFT: Final = Once[object, Mapping[Key, Finding]]()


def but(several: Mapping[K, int], one: K | None) -> dict[K, int]:
    """The same without one of them."""
    return {key: count for key, count in several.items() if key != one}


def _week(
    start: Start, counts: Mapping[Place, int], added: Mapping[Added, int]
) -> tuple[Session, ...]:
    return tuple(
        rebuilt(
            session,
            start.spans[at],
            {line: count for (place, line), count in counts.items() if place == at},
            [
                (start.offers[name], count)
                for (place, name), count in sorted(added.items())
                if place == at
            ],
        )
        for at, session in enumerate(start.sessions)
    )


def _priced(start: Start, counts: Mapping[Place, int], added: Mapping[Added, int]) -> int:
    """What such a change costs as one of this athlete's week."""
    if not counts and not added:
        return 0
    moved = []
    for (place, number), count in counts.items():
        line = next(one for one in start.spans[place] if one.number == number)
        if count != line.count:
            moved.append(Moved(place, line, "", line.count, count))
    moved += [Moved(place, None, name, 0, count) for (place, name), count in added.items()]
    return start.prices.of(moved, _week(start, counts, added))
