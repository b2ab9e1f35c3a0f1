"""What stood in the weeks before: findings above a note, by what makes them the same."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from itertools import islice
from typing import Final

from dialback.core.audit import Audit, audit
from dialback.core.baseline import is_lighter, weeks_before
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings import BY_CODE, OF_WEEKS, Finding, find
from dialback.core.once import Once
from dialback.core.tally import Ledger
from dialback.core.verdict.kinds import is_expected
from dialback.core.vocabulary import Basis, Key, Level
from dialback.core.weeks import Week

LOOK_BACK: Final = 12
"""So many weeks back comparable ones are looked for."""
STANDING_WEEKS: Final = 3
"""What was there in so many comparable weeks before stands; what was in none of them is new."""

Levels = Mapping[Key, Level]


def like(finding: Finding) -> Key:
    """What makes it the same in another week: of a day its day of the week."""
    code, subject, measure = finding.key
    if BY_CODE[code].subject == "day":
        subject = f"{date.fromisoformat(subject):%A}"
    return code, subject, measure


def levels(ledger: Ledger, basis: Basis, week: Week, *, lasting: bool) -> Levels:
    """The findings of a week above a note, less those that its kind explains.

    With ``lasting`` alone those that stand from week to week, or hurt: the others are looked for in
    the last comparable week only.
    """

    def found() -> Levels:
        kind = ledger.kinds.get(week)
        result = audit(ledger, week, basis)
        every = find(result.in_hand, OF_WEEKS) if lasting else result.findings
        return {
            like(one): one.level
            for one in every
            if one.level != "note" and not is_expected(one, kind)
        }

    return _LEVELS.of(ledger.kept, (basis, week, lasting), found)


_LEVELS: Final = Once[tuple[Basis, Week, bool], Levels]()


@dataclass(frozen=True)
class History:
    """The comparable weeks before one, the latest first.

    Comparable are weeks with sets, done or planned, that were neither lighter nor of a kind of
    their own: with a test week nothing ordinary can be compared.
    """

    result: Audit

    def weeks(self) -> Iterator[tuple[Week, Levels]]:
        """The comparable weeks with their findings."""
        ledger, basis = self.result.ledger, self.result.basis
        lasting = False
        for week in reversed(weeks_before(self.result.week, LOOK_BACK)):
            sets = ledger.tally(basis, week).get(TOTAL_SETS, 0.0)
            if sets > 0 and week not in ledger.kinds and not is_lighter(ledger, week, sets):
                yield week, levels(ledger, basis, week, lasting=lasting)
                lasting = True

    @cached_property
    def lately(self) -> tuple[tuple[Week, Levels], ...]:
        """The last of them: as many as it takes to stand."""
        return tuple(islice(self.weeks(), STANDING_WEEKS))

    @cached_property
    def longer(self) -> tuple[tuple[Week, Levels], ...]:
        """One more than those."""
        return tuple(islice(self.weeks(), STANDING_WEEKS + 1))

    def worst(self, key: Key) -> Level | None:
        """The worst level of a finding lately; ``None`` where it was in none of the weeks."""
        known = [of[key] for _, of in self.lately if key in of]
        return "high" if "high" in known else known[0] if known else None

    def stands(self, key: Key) -> bool:
        """Whether a finding was there in each of the weeks that it takes to stand."""
        return len(self.lately) == STANDING_WEEKS and all(key in of for _, of in self.lately)

    def stood_before(self, key: Key) -> bool:
        """Whether it stood already in the last comparable week."""
        return len(self.longer) > STANDING_WEEKS and all(key in of for _, of in self.longer)

    def since(self, key: Key) -> Week:
        """The first week of those in which a finding has stood without a gap."""
        since = self.result.week
        for week, of in self.weeks():
            if key not in of:
                break
            since = week
        return since
