"""Causes: the few things that a week's many findings come from.

A cause explains a finding when the finding does not stand in the week with the cause undone. What
no cause explains is folded: findings that say the same stand together. Source: Dial Back's
contract, *Causes*.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from dialback.core.audit import Audit, against_plan
from dialback.core.baseline import Baseline
from dialback.core.findings import BY_CODE, FAMILIES, Finding, find
from dialback.core.findings.avoided import avoided
from dialback.core.findings.balance import leans_to_a
from dialback.core.findings.course import (
    effort_drift_findings,
    monotony_findings,
    ready_findings,
    stalled_findings,
)
from dialback.core.findings.finding import WeekInHand
from dialback.core.findings.jumps import OF_THE_WEEK, jump_findings, load_step_findings
from dialback.core.findings.plan import missed_findings, pain_findings, swapped_findings
from dialback.core.movements import fold
from dialback.core.once import Once
from dialback.core.restrictions import Restriction
from dialback.core.sessions import Session
from dialback.core.tally import tally, top_sets
from dialback.core.undo import Undone, as_done, in_order, new_sessions, strayed_from_plan
from dialback.core.vocabulary import LEVELS, PAIRS_BY_NAME, WHOLE_WEEK, Key
from dialback.core.words import amount_text, capital, percent, shortened

_EXPLAINED_BY_NOTHING: Final = (
    monotony_findings,
    effort_drift_findings,
    stalled_findings,
    ready_findings,
    pain_findings,
    missed_findings,
    swapped_findings,
)
_TRIED: Final = tuple(family for family in FAMILIES if family not in _EXPLAINED_BY_NOTHING)
HAPPENED: Final = (
    "pain",
    "missed",
    "swapped",
    "extra",
    "short",
    "changed",
    "session",
    "return",
    "jump",
    "together",
)
"""Something that happened to this athlete, in the order in which causes are tried."""
ORDER: Final = (*HAPPENED, "restriction", "balance")
"""Causes of equal weight stand in this order; those of other codes behind, by code."""
OF_THE_LOG: Final = frozenset(
    {"pain", "missed", "swapped", "extra", "short", "changed", "together"}
)
"""What was done otherwise than planned: it is looked up, and mended, in the log."""


@dataclass(frozen=True, slots=True)
class Cause:
    """Something that happened or is so, in a sentence, and the findings that follow from it.

    ``weight`` is 3 for a high finding, 2 for a caution, 1 for a note, summed.
    """

    code: str
    subject: str
    sentence: str
    explains: tuple[Finding, ...]

    @property
    def weight(self) -> int:
        """How much follows from it."""
        return sum(1 + LEVELS.index(finding.level) for finding in self.explains)


def causes(audit: Audit) -> tuple[Cause, ...]:
    """The causes of a week's findings, the heaviest first.

    Every caution and high finding is in exactly one of them, a note in at most one.
    """
    return _CAUSES.of(audit.kept, None, lambda: _Sorting(audit).causes())


_CAUSES: Final = Once[None, tuple[Cause, ...]]()


def _with(audit: Audit, sessions: tuple[Session, ...]) -> WeekInHand:
    """The week with other sessions in place of its own; the plans that were due stay due."""
    ledger, week = audit.ledger, audit.week
    entries = ledger.measure(sessions)
    against = audit.in_hand.against
    if against is not None:
        due = {id(plan) for match in against.matches for plan in match.plans}
        anew = against_plan(ledger, week, None, sessions)
        matches = tuple(
            match
            for match in anew.matches
            if match.done is not None or any(id(plan) in due for plan in match.plans)
        )
        against = replace(anew, planned=against.planned, matches=matches)
    return replace(
        audit.in_hand, sessions=sessions, entries=entries, tally=tally(entries), against=against
    )


_TOLD: Final = 2
"""So many of the things that only together explain something are told; the rest is counted."""


def _all_at_once(strayed: Sequence[str]) -> str:
    more = len(strayed) - _TOLD
    rest = f" And {more} more." if more > 0 else ""
    return f"Several things at once. {' '.join(strayed[:_TOLD])}{rest}".strip()


class _Sorting:
    """Findings on their way into causes: each is taken once, by the first that explains it."""

    def __init__(self, audit: Audit) -> None:
        self.audit = audit
        self.week = audit.in_hand
        self.left = {
            finding.key: finding
            for finding in audit.findings
            if BY_CODE[finding.code].cause != "none"
        }
        self.found: list[Cause] = []

    def causes(self) -> tuple[Cause, ...]:
        strayed = list(strayed_from_plan(self.audit))
        for undone in strayed:
            self._try(undone)
        for undone in new_sessions(self.audit):
            self._try(undone)
        self._return()
        self._jump()
        # A note says that all is well as far as it goes: only what happened can explain it.
        self.left = {key: one for key, one in self.left.items() if one.level != "note"}
        self._together([undone.sentence for undone in strayed])
        self._restricted()
        for fold_ in FOLDS:
            self._fold(fold_)
        self._rest()
        return tuple(sorted(self.found, key=_order))

    def _take(self, code: str, subject: str, sentence: str, keys: Iterable[Key]) -> None:
        taken = tuple(self.left.pop(key) for key in sorted(set(keys) & self.left.keys()))
        if taken:
            self.found.append(Cause(code, subject, sentence, taken))

    def _try(self, undone: Undone) -> None:
        """What does not stand with it undone, and the finding that says the same."""
        own = {
            key
            for key, one in self.left.items()
            if one.code == undone.code and self._raises(undone, one)
        }
        gone = self.left.keys() - self._standing(undone.sessions) if self._open() else set()
        explained = {key for key in gone if self._can_be_explained(key)}
        self._take(undone.code, undone.subject, undone.sentence, own | explained)

    def _open(self) -> bool:
        return any(self._can_be_explained(key) for key in self.left)

    @staticmethod
    def _can_be_explained(key: Key) -> bool:
        return BY_CODE[key[0]].cause == "explained"

    def _raises(self, undone: Undone, finding: Finding) -> bool:
        if undone.code == "pain":
            return any(
                fold(pain.exercise or "session") == fold(finding.subject)
                for session in self.week.sessions
                if session.date.isoformat() == undone.subject
                for pain in session.pain
            )
        known = BY_CODE.get(undone.code)
        itself = known is not None and known.cause == "itself"
        return itself and finding.subject == undone.subject

    def _standing(self, sessions: tuple[Session, ...]) -> set[Key]:
        """The findings of the week with other sessions in place of its own, all else equal."""
        return {finding.key for finding in find(_with(self.audit, sessions), _TRIED)}

    def _return(self) -> None:
        """Judged by the last ordinary week before the break, in place of the baseline."""
        ended = self.week.ended_break
        known = next((finding for finding in self.audit.findings if finding.code == "return"), None)
        if ended is None or known is None:
            return
        reference = ended.ledger.tally("completed", ended.reference)
        judged = replace(
            self.week,
            baseline=Baseline("reference", (ended.reference,), reference),
            heaviest_before=top_sets(ended.ledger.entries("completed", ended.reference)),
        )
        standing = {finding.key for finding in find(judged, (jump_findings, load_step_findings))}
        explained = {
            key for key in self.left if key[0] in ("jump", "load_step") and key not in standing
        }
        self._take("return", WHOLE_WEEK, known.sentence, explained | {known.key})

    def _jump(self) -> None:
        """Where the week's sets jump: the same week, scaled down to the limit."""
        whole = self.left.get(OF_THE_WEEK)
        if whole is None or whole.value is None:
            return
        scale = (1 + self.week.rules.jump_limits["sets"][0]) / (1 + whole.value)
        scaled = {figure: value * scale for figure, value in self.week.tally.items()}
        standing = {
            finding.key for finding in find(replace(self.week, tally=scaled), (jump_findings,))
        }
        explained = {key for key in self.left if key[0] == "jump" and key not in standing}
        self._take(
            "jump",
            WHOLE_WEEK,
            f"The whole week is more than the last ones: {amount_text(whole.amount or 0, 'sets')} "
            f"after {amount_text(whole.base or 0, 'sets')} ({percent(whole.value)}).",
            explained,
        )

    def _together(self, strayed: Sequence[str]) -> None:
        """What does not stand in the week as planned, though no single thing explains it."""
        plans = self.audit.ledger.source.week("planned", self.audit.week)
        if self.audit.basis != "completed" or not plans or not self._open():
            return
        standing = self._standing(in_order(as_done(plan) for plan in plans))
        gone = {key for key in self.left if self._can_be_explained(key) and key not in standing}
        self._take(
            "together",
            "week",
            _all_at_once(strayed),
            gone,
        )

    def _restricted(self) -> None:
        """What a restriction means to be so, beside the findings that it raises itself."""
        meant: dict[str, tuple[Restriction, list[Key]]] = {}
        for key, one in self.left.items():
            held = self._held(one)
            if held is not None:
                meant.setdefault(held.subject, (held, []))[1].append(key)
        for subject, (held, keys) in meant.items():
            broken = [key for key in self.left if key[0] == "restriction" and key[1] == subject]
            words = capital(held.words(self.week.unit))
            sentence = f"{words}, on the word of {held.by}: that is intended."
            if broken:
                sentence = self.left[broken[0]].sentence
            self._take("restriction", subject, sentence, [*keys, *broken])

    def _held(self, finding: Finding) -> Restriction | None:
        """The restriction that leaves a finding's short side no room."""
        if finding.code == "muscle_floor":
            return avoided(self.week, muscles=frozenset({finding.subject}))
        pair = PAIRS_BY_NAME.get(finding.subject)
        if finding.code != "balance" or pair is None or pair.of != "pattern":
            return None
        short = pair.b if self._leans_to_a(finding) else pair.a
        return avoided(self.week, patterns=short)

    def _leans_to_a(self, finding: Finding) -> bool:
        return leans_to_a(finding.value, self.week.rules.balance_bands[finding.subject][1])

    def _fold(self, into: Fold) -> None:
        """A leaning pair with what says the same: sub-pairs, short muscles and full ones."""
        pair = next(
            (one for key, one in self.left.items() if key[:2] == ("balance", into.pair)), None
        )
        if pair is None:
            return
        leans = self._leans_to_a(pair)
        keys = {pair.key}
        for key, one in self.left.items():
            if key[0] == "balance" and self._leans_along(one, leans, into):
                keys.add(key)
            short, long = (into.b, into.a) if leans else (into.a, into.b)
            if (key[0] == "muscle_floor" and key[1] in short) or (
                key[0] == "muscle_ceiling" and key[1] in long
            ):
                keys.add(key)
        self._take("balance", into.pair, pair.sentence, keys)

    def _leans_along(self, finding: Finding, leans: bool, into: Fold) -> bool:
        if finding.subject in into.same_way:
            return self._leans_to_a(finding) == leans
        return finding.subject in into.other_way and self._leans_to_a(finding) != leans

    def _rest(self) -> None:
        """One cause for each code; for each subject where subjects are things of their own."""
        groups: dict[tuple[str, str], list[Key]] = {}
        for key in self.left:
            code, subject, _ = key
            if code == "no_warm_up" and ("load_step", subject, "load_kg") in self.left:
                code = "load_step"
            of = subject if BY_CODE[code].apart else "week"
            groups.setdefault((code, of), []).append(key)
        for (code, subject), keys in groups.items():
            self._take(code, subject, _sentence(code, [self.left[key] for key in keys]), keys)


@dataclass(frozen=True, slots=True)
class Fold:
    """What a leaning pair takes in: pairs leaning alike or the other way, muscles of its sides."""

    pair: str
    a: tuple[str, ...] = ()
    b: tuple[str, ...] = ()
    same_way: tuple[str, ...] = ()
    other_way: tuple[str, ...] = ()


def _of_muscles(name: str) -> Fold:
    pair = PAIRS_BY_NAME[name]
    return Fold(name, tuple(pair.a), tuple(pair.b))


FOLDS: Final = (
    Fold(
        "push_pull",
        ("chest", "front_delts", "triceps"),
        ("upper_back", "lats", "rear_delts", "biceps"),
        ("horizontal_push_pull", "vertical_push_pull", "front_rear_delts"),
        ("biceps_triceps",),
    ),
    Fold("knee_hip", ("quads",), ("hamstrings", "glutes"), ("quads_hamstrings",)),
    Fold("horizontal_push_pull", ("chest",), ("upper_back", "rear_delts")),
    Fold("vertical_push_pull", ("front_delts",), ("lats",)),
    *(
        _of_muscles(name)
        for name in ("biceps_triceps", "quads_hamstrings", "front_rear_delts", "abs_lower_back")
    ),
)
"""In this order; each finding is folded once."""


def _order(cause: Cause) -> tuple[int, int, str, str]:
    place = ORDER.index(cause.code) if cause.code in ORDER else len(ORDER)
    return -cause.weight, place, cause.code, cause.subject


_MOST_NAMED: Final = 4


def _sentence(code: str, findings: list[Finding]) -> str:
    """One finding in its own words; of several what they are of."""
    if len(findings) == 1:
        return findings[0].sentence
    names = list(dict.fromkeys(finding.about for finding in findings))
    return f"{BY_CODE[code].title}: {shortened(names, _MOST_NAMED)}."
