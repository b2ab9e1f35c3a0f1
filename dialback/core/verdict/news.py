"""What is news in a week: what is new or worse, what drifts, what stands, what has eased.

A finding is compared with the last comparable weeks. What is new or worse is told by its cause;
what drifts over many weeks or is doubtful in the log is told once; what has stood for weeks is one
line and one question for each kind of finding, asked once, and again only when a block begins; what
has gone is half a line. What hurts is told every week, first of all, until it is gone.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final, Literal

from dialback.core.audit import Audit, audit
from dialback.core.baseline import weeks_before
from dialback.core.causes import Cause
from dialback.core.findings import BY_CODE, Finding
from dialback.core.long_run.codes import BY_SIGNAL
from dialback.core.long_run.signals import signals
from dialback.core.long_run.view import Signal
from dialback.core.once import Once
from dialback.core.verdict.decided import about, decided
from dialback.core.verdict.history import History, Levels, like
from dialback.core.verdict.kinds import is_expected, kind_of, looks_like
from dialback.core.verdict.order import verdict, worst_level
from dialback.core.vocabulary import LEVELS, MUSCLES, Key, Level, WeekKind
from dialback.core.weeks import Week
from dialback.core.words import capital, shortened

SAID_WEEKS: Final = 8
"""What was told of the long run is not told again for so many weeks while it stays."""
_NAMED: Final = 4
_SENTENCES: Final = 2
_BLOCK: Final = "block"
"""What a new block brings about, as the name of a line."""
_CONSEQUENCES: Final = frozenset({_BLOCK, "missed", "short", "swapped", "pain", "session"})
"""What follows from these is over when they are, or was planned: the line of it is no alarm."""
BLOCK_WEEKS: Final = 2
"""So many weeks a block is new; in them a muscle's jump is part of it."""

Kind = Literal["new", "worse", "course", "doubt", "standing", "eased"]
KINDS: Final[Mapping[Kind, str]] = {
    "new": "new",
    "worse": "worse",
    "course": "drifts",
    "doubt": "in doubt",
    "standing": "still",
    "eased": "gone",
}
"""The kinds of lines in a word."""


@dataclass(frozen=True, slots=True)
class News:
    """A line of the verdict: what is said, of which causes and findings, and since when it is so.

    ``ask`` is the one question that follows; empty where nothing is asked. ``points`` are the line
    of something of many weeks; ``looks_like`` is the kind of week that is asked about.
    """

    kind: Kind
    level: Level
    sentence: str
    causes: tuple[tuple[str, str], ...]
    explains: tuple[Key, ...]
    since: Week
    ask: str = ""
    points: tuple[tuple[Week, float], ...] = ()
    looks_like: WeekKind | None = None


def news(result: Audit) -> tuple[News, ...]:
    """The lines of a week: what hurts, doubts, news by weight, the long run, what stands, eased."""
    return _NEWS.of(result.kept, None, lambda: tuple(_Telling(result).lines()))


_NEWS: Final = Once[None, tuple[News, ...]]()


class _Telling:
    """The verdict on one week in the making."""

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

    def lines(self) -> Iterator[News]:
        """The lines in the order in which they are read."""
        hurting = [one for one in self.signals if BY_SIGNAL[one.code].hurts]
        yield from map(self._signal_line, hurting)
        causes = self._by_cause()
        yield from (line for hurts, line in causes if hurts)
        yield from (self._signal_line(one) for one in self.signals if _kind(one) == "doubt")
        if self.looks is not None and not self._looked_so():
            yield self._looks_line()
        yield from (line for hurts, line in causes if not hurts)
        yield from (
            self._signal_line(one)
            for one in self.signals
            if _kind(one) == "course" and one not in hurting
        )
        yield from self._due()
        yield from self._standing()
        if eased := self._eased():
            yield eased

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
        if decided(self.result.ledger.decisions, self.result.week, signal.key, signal.level):
            return False
        if known.hurts or known.kind == "doubt":
            return True
        ledger = self.result.ledger
        return not any(
            signal.key in {one.key for one in signals(ledger, week)}
            for week in weeks_before(self.result.week, SAID_WEEKS)
        )

    def _signal_line(self, signal: Signal) -> News:
        return News(
            _kind(signal),
            signal.level,
            signal.sentence,
            (),
            (signal.key,),
            signal.since or self.result.week,
            signal.ask,
            signal.points,
        )

    def _looked_so(self) -> bool:
        """Whether the week before looked so, too: it is asked once."""
        before = audit(self.result.ledger, self.result.week.plus(-1), self.result.basis)
        said = looks_like(before)
        return said is not None and self.looks is not None and said.kind == self.looks.kind

    def _looks_line(self) -> News:
        assert self.looks is not None  # noqa: S101 - asked for only where there is one
        return News(
            "new",
            "note",
            self.looks.sentence,
            (),
            (("week_kind", self.looks.kind, "kind"),),
            self.result.week,
            "Mark the week as one, so that nothing is compared with it?",
            looks_like=self.looks.kind,
        )

    def _fresh(self) -> Mapping[Key, Kind]:
        """What is new or worse, of the findings that are open now."""
        fresh: dict[Key, Kind] = {}
        last: Levels = self.history.lately[0][1] if self.history.lately else {}
        for key, finding in self.now.items():
            lasts = BY_CODE[finding.code].lasts
            before = self.history.worst(key) if lasts else last.get(key)
            if key in self.due:
                continue
            if before is None:
                fresh[key] = "new"
            elif LEVELS.index(finding.level) > LEVELS.index(before):
                fresh[key] = "worse"
        return fresh

    def _by_cause(self) -> list[tuple[bool, News]]:
        """What hurts, and what is new or worse, the heaviest first: a line for each kind of cause.

        What a new block brings about is one line: it was planned so.
        """
        fresh = self._fresh()
        groups: dict[tuple[bool, str], list[tuple[Cause, list[Finding]]]] = defaultdict(list)
        for cause, _ in verdict(self.result).causes:
            own = [
                one
                for one in cause.explains
                if self.now.get(like(one)) is one and (like(one) in fresh or _hurts(one))
            ]
            if not own:
                continue
            of_block = self.begun and all(BY_CODE[one.code].lasts for one in own)
            hurts = any(_hurts(one) for one in own)
            groups[hurts, _BLOCK if of_block else cause.code].append((cause, own))
        lines = [
            (hurts, *self._cause_line(code, several, fresh))
            for (hurts, code), several in groups.items()
        ]
        return [(hurts, line) for hurts, _, line in sorted(lines, key=lambda one: one[:2])]

    def _cause_line(
        self, code: str, several: list[tuple[Cause, list[Finding]]], fresh: Mapping[Key, Kind]
    ) -> tuple[int, News]:
        own = [one for _, findings in several for one in findings]
        kinds: list[Kind] = [fresh.get(like(one), "standing") for one in own]
        kind = min(kinds, key=("new", "worse", "standing").index)
        still = kind == "standing"
        level = worst_level(one.level for one in own)
        if code in _CONSEQUENCES and not any(_hurts(one) for one in own):
            level = min(level, "caution", key=LEVELS.index)
        weight = sum(1 + LEVELS.index(one.level) for one in own)
        return -weight, News(
            kind,
            level,
            self._told_of(code, several),
            tuple((cause.code, cause.subject) for cause, _ in several),
            tuple(one.key for one in own),
            min(self.history.since(like(one)) for one in own) if still else self.result.week,
            "What should follow: a restriction, a lighter load, a practitioner?" if still else "",
        )

    @staticmethod
    def _told_of(code: str, several: list[tuple[Cause, list[Finding]]]) -> str:
        if code == _BLOCK:
            about = dict.fromkeys(
                f"{one.title.lower()} ({one.about})" for _, own in several for one in own
            )
            return f"The new block brings {shortened(list(about), _NAMED)}."
        told = [cause.sentence for cause, _ in several]
        more = len(told) - _SENTENCES
        return " ".join([*told[:_SENTENCES], *([f"And {more} more like it."] if more > 0 else [])])

    def _due(self) -> Iterator[News]:
        """What was to be gone by this week: whether it is."""
        if not self.result.in_hand.has_sets:
            return
        there = {one.key: one for one in self.result.findings if one.level != "note"}
        for one in self.result.ledger.decisions:
            if not one.is_due_in(self.result.week):
                continue
            finding = there.get(one.key)
            gone = finding is None
            yield News(
                "eased" if gone else "standing",
                "note" if finding is None else finding.level,
                f"{capital(about(one.key))} was to be gone by {self.result.week.said}: "
                f"{'it is' if gone else 'it is still there'}.",
                (),
                (one.key,),
                Week.of(one.since),
                "" if gone else "Is it worth another way?",
            )

    def _standing(self) -> Iterator[News]:
        """All that has come to stand of one kind is one line, with one question."""
        begins = self.result.week in self.result.ledger.blocks.begins
        kinds: dict[str, list[Finding]] = defaultdict(list)
        for key, finding in self.now.items():
            if (
                BY_CODE[finding.code].lasts
                and key not in self.due
                and not _hurts(finding)
                and self.history.stands(key)
                and (begins or not self.history.stood_before(key))
            ):
                kinds[finding.code].append(finding)
        for code, several in sorted(kinds.items()):
            yield self._standing_line(code, several)

    def _standing_line(self, code: str, several: list[Finding]) -> News:
        since = min(self.history.since(like(finding)) for finding in several)
        keys = {finding.key for finding in several}
        about = list(dict.fromkeys(finding.about for finding in several))
        return News(
            "standing",
            "caution",
            f"{BY_CODE[code].title}: {shortened(about, _NAMED)}, since {since.said}.",
            tuple(
                (cause.code, cause.subject)
                for cause, _ in verdict(self.result).causes
                if keys & {finding.key for finding in cause.explains}
            ),
            tuple(finding.key for finding in several),
            since,
            "Is this intended, or should the rule or the plan change?",
        )

    def _eased(self) -> News | None:
        """What stood, and has gone: of ordinary weeks only, for in others much is gone at once."""
        if self.kind is not None or not self.result.in_hand.has_sets:
            return None
        last = self.history.lately[0][1] if self.history.lately else {}
        there = {like(one) for one in self.result.findings if one.level != "note"}
        gone = sorted(
            key
            for key in last
            if key not in there
            and key not in self.due
            and BY_CODE[key[0]].lasts
            and self.history.stands(key)
        )
        if not gone:
            return None
        about = [f"{BY_CODE[code].title.lower()} ({_about(code, subject)})"
                 for code, subject, _ in gone]  # fmt: skip
        return News(
            "eased",
            "note",
            f"Gone since {self.history.lately[0][0].said}: "
            f"{shortened(list(dict.fromkeys(about)), _NAMED)}.",
            (),
            tuple(gone),
            self.history.lately[0][0],
        )


def _about(code: str, subject: str) -> str:
    # Of a day it is the day of the week that has gone.
    return subject if BY_CODE[code].subject == "day" else BY_CODE[code].about(subject)


def _kind(signal: Signal) -> Literal["course", "doubt"]:
    return BY_SIGNAL[signal.code].kind


def _hurts(finding: Finding) -> bool:
    return BY_CODE[finding.code].hurts
