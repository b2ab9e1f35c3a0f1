"""The verdict on a week: its findings in the order in which a coach walks them, cause by cause."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from dialback.core.audit import Audit
from dialback.core.causes import Cause, causes
from dialback.core.findings import CODES, Finding
from dialback.core.vocabulary import LEVELS, Level

_PLACES: Final = {code.code: place for place, code in enumerate(CODES)}


def by_urgency(findings: Iterable[Finding]) -> list[Finding]:
    """Findings as a coach wants them: the worst level first, then by code, then by distance."""
    return sorted(
        findings,
        key=lambda finding: (
            -LEVELS.index(finding.level),
            _PLACES[finding.code],
            -finding.distance,
            finding.key,
        ),
    )


def worst_level(levels: Iterable[Level]) -> Level:
    """The worst of several levels."""
    return max(levels, key=LEVELS.index)


def worst_open(levels: Iterable[tuple[Level, bool]]) -> Level:
    """The worst level of what is not accepted; of everything, where all of it is.

    ``levels`` has the level of each finding, and whether it is accepted.
    """
    known = list(levels)
    return worst_level(
        [level for level, accepted in known if not accepted] or [one for one, _ in known]
    )


@dataclass(frozen=True, slots=True)
class Verdict:
    """A week's findings under their causes: those of a cause together, the rest behind.

    ``causes`` come with the places that their findings have in ``findings``.
    """

    findings: tuple[Finding, ...]
    causes: tuple[tuple[Cause, tuple[int, ...]], ...]

    @property
    def alone(self) -> tuple[Finding, ...]:
        """The findings of no cause, which are notes."""
        return self.findings[sum(len(places) for _, places in self.causes) :]


def verdict(audit: Audit) -> Verdict:
    """The findings of a week, cause by cause, the heaviest cause first."""
    ordered: list[Finding] = []
    placed = []
    for cause in causes(audit):
        first = len(ordered)
        ordered += by_urgency(cause.explains)
        placed.append((cause, tuple(range(first, len(ordered)))))
    explained = {finding.key for finding in ordered}
    ordered += by_urgency(finding for finding in audit.findings if finding.key not in explained)
    return Verdict(tuple(ordered), tuple(placed))
