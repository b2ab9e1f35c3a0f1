"""What one audit has that another does not."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from dialback.core.findings.finding import Finding


@dataclass(frozen=True, slots=True)
class Difference:
    """What one audit has that another does not."""

    cleared: tuple[Finding, ...]
    appeared: tuple[Finding, ...]
    changed: tuple[Finding, ...]


def difference(before: Iterable[Finding], after: Iterable[Finding]) -> Difference:
    """Findings that are gone, that are new, and that stay with another level."""
    old = {finding.key: finding for finding in before}
    new = {finding.key: finding for finding in after}
    return Difference(
        tuple(finding for key, finding in old.items() if key not in new),
        tuple(finding for key, finding in new.items() if key not in old),
        tuple(
            finding
            for key, finding in new.items()
            if key in old and old[key].level != finding.level
        ),
    )
