"""What adjusting a squad answers: one change for all, the exceptions, and everybody's week."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from dialback.core.adjusting.result import Change, Remaining, Rung
from dialback.core.findings import Finding
from dialback.core.sessions import Session
from dialback.core.squads.programmes import Member
from dialback.core.weeks import Week


@dataclass(frozen=True, slots=True)
class Levels:
    """How many high findings and cautions an audit has."""

    high: int
    caution: int

    @classmethod
    def of(cls, findings: Iterable[Finding]) -> Levels:
        """Those of an audit's findings."""
        levels = [one.level for one in findings]
        return cls(levels.count("high"), levels.count("caution"))


@dataclass(frozen=True, slots=True)
class ForAll:
    """What changes in a shared session, for all who have it; nothing where it stays as it is."""

    title: str
    athletes: tuple[str, ...]
    changes: tuple[Change, ...]


@dataclass(frozen=True, slots=True)
class Apart:
    """What one athlete does otherwise, in shared sessions or their own."""

    athlete: str
    changes: tuple[Change, ...]


@dataclass(frozen=True, slots=True)
class Outcome:
    """One athlete's proposed week; ``cleared`` and ``remaining`` are of the codes of adjusting."""

    member: Member
    sessions: tuple[Session, ...]
    before: Levels
    after: Levels
    cleared: tuple[Finding, ...]
    remaining: tuple[Remaining, ...]


@dataclass(frozen=True, slots=True)
class SquadProposal:
    """The proposed plans of a squad. ``optimal``: proved best, and the ladder complete."""

    week: Week
    shared: tuple[ForAll, ...]
    exceptions: tuple[Apart, ...]
    athletes: tuple[Outcome, ...]
    cost: int
    optimal: bool
    ladder: tuple[Rung, ...]
    stop: int
    why: str
