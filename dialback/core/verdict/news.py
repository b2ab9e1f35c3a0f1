"""What is news in a week: what is new or worse, what drifts, what stands, what has eased.

A finding is compared with the last comparable weeks. What is new or worse is told by its cause;
what drifts over many weeks or is doubtful in the log is told once; what has stood for weeks is one
line and one question for each kind of finding, asked once, and again only when a block begins; what
has gone is half a line. What hurts is told every week, first of all, until it is gone.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from typing import Final, Literal

from dialback.core.audit import Audit, audit
from dialback.core.causes import Cause
from dialback.core.findings import BY_CODE, Finding
from dialback.core.long_run.codes import BY_SIGNAL
from dialback.core.long_run.view import Signal
from dialback.core.once import Once
from dialback.core.verdict.history import like
from dialback.core.verdict.kinds import looks_like
from dialback.core.verdict.line import Kind, News
from dialback.core.verdict.open import Open, hurts
from dialback.core.verdict.order import verdict, worst_level
from dialback.core.verdict.standing import NAMED, due_lines, eased_line, standing_lines
from dialback.core.vocabulary import LEVELS, Key
from dialback.core.words import shortened

_SENTENCES: Final = 2
_BLOCK: Final = "block"
"""What a new block brings about, as the name of a line."""
_CONSEQUENCES: Final = frozenset({_BLOCK, "missed", "short", "swapped", "pain", "session"})
"""What follows from these is over when they are, or was planned: the line of it is no alarm."""


def news(result: Audit) -> tuple[News, ...]:
    """The lines of a week: what hurts, doubts, news by weight, the long run, what stands, eased."""
    return _NEWS.of(result.kept, None, lambda: tuple(_Telling(result).lines()))


_NEWS: Final = Once[None, tuple[News, ...]]()


class _Telling:
    """The lines of one week in the making."""

    def __init__(self, result: Audit) -> None:
        self.result = result
        self.open = Open(result)

    def lines(self) -> Iterator[News]:
        """The lines in the order in which they are read."""
        hurting = [one for one in self.open.signals if BY_SIGNAL[one.code].hurts]
        yield from map(self._signal_line, hurting)
        causes = self._by_cause()
        yield from (line for harm, line in causes if harm)
        yield from (self._signal_line(one) for one in self.open.signals if _kind(one) == "doubt")
        if self.open.looks is not None and not self._looked_so():
            yield self._looks_line()
        yield from (line for harm, line in causes if not harm)
        yield from (
            self._signal_line(one)
            for one in self.open.signals
            if _kind(one) == "course" and one not in hurting
        )
        yield from due_lines(self.open)
        yield from standing_lines(self.open)
        if eased := eased_line(self.open):
            yield eased

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
        return (
            said is not None and self.open.looks is not None and said.kind == self.open.looks.kind
        )

    def _looks_line(self) -> News:
        assert self.open.looks is not None  # noqa: S101 - asked for only where there is one
        return News(
            "new",
            "note",
            self.open.looks.sentence,
            (),
            (("week_kind", self.open.looks.kind, "kind"),),
            self.result.week,
            "Mark the week as one, so that nothing is compared with it?",
            looks_like=self.open.looks.kind,
        )

    def _by_cause(self) -> list[tuple[bool, News]]:
        """What hurts, and what is new or worse, the heaviest first: a line for each kind of cause.

        What a new block brings about is one line: it was planned so.
        """
        fresh = self.open.fresh
        groups: dict[tuple[bool, str], list[tuple[Cause, list[Finding]]]] = defaultdict(list)
        for cause, _ in verdict(self.result).causes:
            own = [
                one
                for one in cause.explains
                if self.open.now.get(like(one)) is one and (like(one) in fresh or hurts(one))
            ]
            if not own:
                continue
            of_block = self.open.begun and all(BY_CODE[one.code].lasts for one in own)
            harm = any(hurts(one) for one in own)
            groups[harm, _BLOCK if of_block else cause.code].append((cause, own))
        lines = [
            (harm, *self._cause_line(code, several, fresh))
            for (harm, code), several in groups.items()
        ]
        return [(harm, line) for harm, _, line in sorted(lines, key=lambda one: one[:2])]

    def _cause_line(
        self, code: str, several: list[tuple[Cause, list[Finding]]], fresh: Mapping[Key, Kind]
    ) -> tuple[int, News]:
        own = [one for _, findings in several for one in findings]
        kinds: list[Kind] = [fresh.get(like(one), "standing") for one in own]
        kind = min(kinds, key=("new", "worse", "standing").index)
        still = kind == "standing"
        level = worst_level(one.level for one in own)
        if code in _CONSEQUENCES and not any(hurts(one) for one in own):
            level = min(level, "caution", key=LEVELS.index)
        weight = sum(1 + LEVELS.index(one.level) for one in own)
        return -weight, News(
            kind,
            level,
            self._told_of(code, several),
            tuple((cause.code, cause.subject) for cause, _ in several),
            tuple(one.key for one in own),
            min(self.open.history.since(like(one)) for one in own) if still else self.result.week,
            "What should follow: a restriction, a lighter load, a practitioner?" if still else "",
        )

    @staticmethod
    def _told_of(code: str, several: list[tuple[Cause, list[Finding]]]) -> str:
        if code == _BLOCK:
            about = dict.fromkeys(
                f"{one.title.lower()} ({one.about})" for _, own in several for one in own
            )
            return f"The new block brings {shortened(list(about), NAMED)}."
        told = [cause.sentence for cause, _ in several]
        more = len(told) - _SENTENCES
        return " ".join([*told[:_SENTENCES], *([f"And {more} more like it."] if more > 0 else [])])


def _kind(signal: Signal) -> Literal["course", "doubt"]:
    return BY_SIGNAL[signal.code].kind
