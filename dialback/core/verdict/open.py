"""What of a week is open, and which of it is fresh: what the lines of the verdict are made of."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final, Literal

from dialback.core.audit import Audit
from dialback.core.baseline import weeks_before
from dialback.core.findings import BY_CODE, Finding
from dialback.core.long_run.codes import BY_SIGNAL
from dialback.core.long_run.signals import signals, was_in
from dialback.core.long_run.view import Signal
from dialback.core.verdict.decided import decided
from dialback.core.verdict.history import History, Levels, like
from dialback.core.verdict.kinds import is_expected, kind_of, looks_like
from dialback.core.verdict.purpose import targets
from dialback.core.vocabulary import LEVELS, MUSCLES, Key

SAID_WEEKS: Final = 8
"""What was told of the long run is not told again for so many weeks while it stays."""
BLOCK_WEEKS: Final = 2
"""So many weeks a block is new; in them a muscle's jump is part of it."""

Fresh = Mapping[Key, Literal["new", "worse"]]


class Open:
    """What is open in a week, by what makes it the same in another; what its kind brings is not.

    ``signals`` are those that are told now, ``due`` what was to be gone by this week, ``fresh``
    what is new or worse. ``beside`` is what the programme is not for: it is asked, and no news.
    ``begun``: a block has just begun.
    """

    def __init__(self, result: Audit) -> None:
        self.result = result
        self.history = History(result)
        self.looks = looks_like(result)
        kind = kind_of(result) or (self.looks.kind if self.looks else None)
        if kind is None and result.in_hand.lighter:
            kind = "lighter"
        self.kind = kind
        self.begun = any(
            result.week.plus(-back) in result.ledger.blocks.begins for back in range(BLOCK_WEEKS)
        )
        self.due = {one.key for one in result.ledger.decisions if one.is_due_in(result.week)}
        told = signals(result.ledger, result.week) if result.basis == "completed" else ()
        self.signals = [one for one in told if self._is_told(one)]
        again = {one.subject for one in told if one.code == "pain_again"}
        self.now = {
            like(one): one
            for one in result.findings
            if one.level != "note"
            and not is_expected(one, kind)
            and not any(BY_CODE[one.code].waits(signal.code) for signal in told)
            and not self._is_decided(one)
            and not (one.code == "pain" and one.subject in again)
            and not (self.begun and one.subject in MUSCLES and not BY_CODE[one.code].lasts)
        }
        self.beside = self._beside()
        self.fresh = self._fresh()

    def _beside(self) -> frozenset[Key]:
        """What is found of muscles that the programme is not for."""
        found = {key for key in self.now if BY_CODE[key[0]].of_targets}
        known = targets(self.result) if found else frozenset()
        return frozenset(key for key in found if key[1] not in known)

    def _is_decided(self, finding: Finding) -> bool:
        decisions, week = self.result.ledger.decisions, self.result.week
        # What was to be gone by this week is looked at once more.
        if finding.key in self.due:
            return False
        found = decided(decisions, week, finding.key, finding.level, finding.value, finding.limit)
        return found is not None

    def _is_told(self, signal: Signal) -> bool:
        """Whether a signal is news: in doubt or hurting, or not told in the weeks before."""
        known = BY_SIGNAL[signal.code]
        if signal.key in self.due or decided(
            self.result.ledger.decisions, self.result.week, signal.key, signal.level
        ):
            return False
        if known.hurts or known.kind == "doubt":
            return True
        ledger = self.result.ledger
        return not any(
            was_in(ledger, week, signal, self.result.week)
            for week in weeks_before(self.result.week, SAID_WEEKS)
        )

    def _fresh(self) -> Fresh:
        """What is new or worse, of the findings that are open now."""
        fresh: dict[Key, Literal["new", "worse"]] = {}
        last: Levels = self.history.lately[0][1] if self.history.lately else {}
        for key, finding in self.now.items():
            lasts = BY_CODE[finding.code].lasts
            before = self.history.worst(key) if lasts else last.get(key)
            if key in self.due or key in self.beside:
                continue
            if before is None:
                fresh[key] = "new"
            elif LEVELS.index(finding.level) > LEVELS.index(before):
                fresh[key] = "worse"
        return fresh


def hurts(finding: Finding) -> bool:
    """Whether it stands before everything else."""
    return BY_CODE[finding.code].hurts
