"""One span of weeks beside another: what a week is on average, and which findings came and went."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.audit import audit
from dialback.core.baseline import TOLERANCE
from dialback.core.figures import TOTAL_SETS, Figure, in_total, of_muscle
from dialback.core.findings.finding import Finding
from dialback.core.measures import MEASURES, TITLES
from dialback.core.plans.ahead import MovementChange, changes_between
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.vocabulary import MUSCLES, Basis, label
from dialback.core.weeks import Week
from dialback.core.words import capital, listed

_WORTH_A_ROW: Final = 0.5
"""A muscle whose weekly sets move by less is left out."""


@dataclass(frozen=True, slots=True)
class Span:
    """Weeks that belong together, and what they are called."""

    title: str
    weeks: tuple[Week, ...]


@dataclass(frozen=True, slots=True)
class Mean:
    """A figure of a week on average, of weeks in which anything was done; ``None`` for none."""

    name: str
    measure: str
    before: float | None
    after: float | None

    @property
    def change(self) -> float | None:
        """The change as a share; ``None`` where there is nothing to compare with."""
        if not self.before or self.after is None:
            return None
        return self.after / self.before - 1


@dataclass(frozen=True, slots=True)
class Recurring:
    """A finding above a note, and in how many weeks of each span it stands."""

    title: str
    about: str
    before: int
    after: int


@dataclass(frozen=True, slots=True)
class Decided:
    """What was decided on a day, why and by whom; empty where nobody said."""

    day: date
    what: str
    reason: str
    who: str


@dataclass(frozen=True, slots=True)
class Across:
    """What changed from one span to another. ``planned`` of the later weeks count as planned."""

    before: Span
    after: Span
    planned: int
    measures: tuple[Mean, ...]
    muscles: tuple[Mean, ...]
    movements: tuple[MovementChange, ...]
    findings: tuple[Recurring, ...]

    def told(self, *, before: bool, after: bool) -> list[str]:
        """The findings that stand, or do not, in some week of each: a line for those alike."""
        alike: dict[tuple[str, int, int], list[str]] = {}
        for one in self.findings:
            if bool(one.before) == before and bool(one.after) == after:
                alike.setdefault((one.title, one.before, one.after), []).append(one.about)
        return [
            f"{title}: {listed(about)}, {_weeks(old, new)}"
            for (title, old, new), about in alike.items()
        ]


def _weeks(before: int, after: int) -> str:
    def count(weeks: int) -> str:
        return "one week" if weeks == 1 else f"{weeks} weeks"

    if not before:
        return f"in {count(after)}"
    if not after:
        return f"in {count(before)} before"
    return f"in {count(before)} before, {count(after)} now"


def across(ledger: Ledger, before: Span, after: Span, running: Week) -> Across:
    """Two spans beside each other; weeks from the running one on count as they are planned.

    ``ledger`` has plans stand for what is ahead, so that these weeks have a baseline.
    """
    every = (*before.weeks, *after.weeks)
    ledger.read_ahead(min(every), max(every))
    beside = _Beside(ledger, before, after, running)
    return Across(
        before,
        after,
        sum(week >= running for week in after.weeks),
        tuple(beside.mean(capital(TITLES[name]), name, in_total(name)) for name in MEASURES),
        beside.muscles(),
        beside.movements(),
        beside.findings(),
    )


@dataclass(frozen=True, slots=True)
class _Beside:
    ledger: Ledger
    before: Span
    after: Span
    running: Week

    def _basis(self, week: Week) -> Basis:
        return "completed" if week < self.running else "planned"

    def mean(self, name: str, measure: str, figure: Figure) -> Mean:
        return Mean(name, measure, self._of(self.before, figure), self._of(self.after, figure))

    def _of(self, span: Span, figure: Figure) -> float | None:
        sums = [self.ledger.tally(self._basis(week), week) for week in span.weeks]
        trained = [one for one in sums if one.get(TOTAL_SETS, 0.0)]
        return sum(one.get(figure, 0.0) for one in trained) / len(trained) if trained else None

    def muscles(self) -> tuple[Mean, ...]:
        """Those that have moved, what has more now first."""
        means = [
            self.mean(capital(label(muscle)), "sets", of_muscle(muscle, "sets"))
            for muscle in MUSCLES
        ]
        rises = {one: (one.after or 0.0) - (one.before or 0.0) for one in means}
        moved = [one for one in means if abs(rises[one]) >= _WORTH_A_ROW - TOLERANCE]
        return tuple(sorted(moved, key=lambda one: -rises[one]))

    def movements(self) -> tuple[MovementChange, ...]:
        """What changed from the last week of one to that of the other."""
        return tuple(
            one
            for one in changes_between(self._last(self.before), self._last(self.after))
            if (one.sets_before, one.before) != (one.sets_after, one.after)
        )

    def _last(self, span: Span) -> Sequence[Session]:
        """The sessions of the last week of a span that has some."""
        for week in reversed(span.weeks):
            if found := self.ledger.source.week(self._basis(week), week):
                return found
        return ()

    def findings(self) -> tuple[Recurring, ...]:
        """Findings above a note by the weeks that they stand in, the most frequent now first."""
        told: dict[tuple[str, str], Finding] = {}
        old, new = (Counter(self._standing(span.weeks, told)) for span in (self.before, self.after))
        rows = [Recurring(one.title, one.about, old[key], new[key]) for key, one in told.items()]
        return tuple(sorted(rows, key=lambda one: (-one.after, -one.before, one.title, one.about)))

    def _standing(
        self, weeks: Iterable[Week], told: dict[tuple[str, str], Finding]
    ) -> Iterable[tuple[str, str]]:
        """What stands in each week, once a week whatever its measure."""
        for week in weeks:
            result = audit(self.ledger, week, self._basis(week), as_of=self.running.monday)
            if result.value(TOTAL_SETS):
                found = {
                    (one.code, one.subject): one for one in result.findings if one.level != "note"
                }
                told.update(found)
                yield from found
