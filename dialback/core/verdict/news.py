"""What is news in a week: what is new or worse, what stands, what has eased.

A finding is compared with the last comparable weeks: those with sets, done or planned, that were
not lighter. What is new or worse is told by its cause; what has stood for weeks is one line and one
question for each kind of finding; what has gone is half a line. What hurts is told every week,
first of all, until it is gone.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from itertools import islice
from typing import Final, Literal

from dialback.core.audit import Audit, audit
from dialback.core.baseline import is_lighter, weeks_before
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings import BY_CODE, Finding
from dialback.core.findings.finding import LEVELS, Key, Level
from dialback.core.once import Once
from dialback.core.verdict.order import verdict, worst_level
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week
from dialback.core.words import shortened

LOOK_BACK: Final = 12
"""So many weeks back comparable ones are looked for."""
STANDING_WEEKS: Final = 3
"""A finding stands from so many comparable weeks before on."""
_NAMED: Final = 4

Kind = Literal["new", "worse", "standing", "eased"]


@dataclass(frozen=True, slots=True)
class News:
    """A line of the verdict: what is said, of which causes and findings, and since when it is so.

    ``ask`` is the one question about what stands; empty where nothing is asked.
    """

    kind: Kind
    level: Level
    sentence: str
    causes: tuple[tuple[str, str], ...]
    explains: tuple[Key, ...]
    since: Week
    ask: str = ""


def news(result: Audit) -> tuple[News, ...]:
    """The lines of a week: what hurts, then what is new by its weight, what stands, what eased."""
    return _NEWS.of(result.kept, None, lambda: tuple(_lines(result)))


_NEWS: Final = Once[None, tuple[News, ...]]()


def _lines(result: Audit) -> Iterator[News]:
    now = {_like(one): one for one in result.findings if one.level != "note"}
    comparable = _comparable(result)
    before = list(islice(comparable, STANDING_WEEKS))
    last = before[0][1] if before else {}
    standing = [
        like
        for like in now
        if len(before) == STANDING_WEEKS and all(like in levels for _, levels in before)
    ]
    # How long it has stood is looked for only where something does.
    run = [*before, *comparable] if standing else before
    stands = {like: _since(like, run) for like in standing}
    fresh: dict[Key, Kind] = {}
    for like, finding in now.items():
        if like not in last:
            fresh[like] = "new"
        elif LEVELS.index(finding.level) > LEVELS.index(last[like]):
            fresh[like] = "worse"
    hurting = {
        like: _since(like, before) for like, one in now.items() if _hurts(one) and like in last
    }
    yield from _by_cause(result, fresh, hurting)
    yield from _standing(
        result,
        [
            (now[like], since)
            for like, since in stands.items()
            if like not in fresh and like not in hurting
        ],
    )
    if before and result.in_hand.has_sets and not result.in_hand.lighter:
        gone = [like for like in last if like not in now]
        if gone:
            yield _eased(gone, before[0][0])


def _like(finding: Finding) -> Key:
    """What makes it the same in another week: of a day its day of the week."""
    code, subject, measure = finding.key
    if BY_CODE[code].subject == "day":
        subject = f"{date.fromisoformat(subject):%A}"
    return code, subject, measure


Levels = Mapping[Key, Level]


def _comparable(result: Audit) -> Iterator[tuple[Week, Levels]]:
    """The comparable weeks before, the latest first, each with its findings above a note."""
    ledger, basis = result.ledger, result.basis
    for week in reversed(weeks_before(result.week, LOOK_BACK)):
        sets = ledger.tally(basis, week).get(TOTAL_SETS, 0.0)
        if sets > 0 and not is_lighter(ledger, week, sets):
            yield week, _levels(result, week)


_LEVELS: Final = Once[tuple[Basis, Week], Levels]()


def _levels(result: Audit, week: Week) -> Levels:
    ledger, basis = result.ledger, result.basis

    def levels() -> Levels:
        found = audit(ledger, week, basis).findings
        return {_like(one): one.level for one in found if one.level != "note"}

    return _LEVELS.of(ledger.kept, (basis, week), levels)


def _since(like: Key, before: Iterable[tuple[Week, Levels]]) -> Week:
    """The first week of those in which a finding has stood without a gap."""
    since = None
    for week, levels in before:
        if like not in levels:
            break
        since = week
    assert since is not None  # noqa: S101 - it stands in the weeks before
    return since


def _hurts(finding: Finding) -> bool:
    return BY_CODE[finding.code].hurts


def _by_cause(
    result: Audit, fresh: Mapping[Key, Kind], hurting: Mapping[Key, Week]
) -> Iterator[News]:
    """What hurts, first, then what is new or worse, the heaviest first: a line for each cause."""
    lines = []
    for cause, _ in verdict(result).causes:
        own = [
            one
            for one in cause.explains
            if one.level != "note" and (_like(one) in fresh or _like(one) in hurting)
        ]
        if not own:
            continue
        kinds: list[Kind] = [fresh.get(_like(one), "standing") for one in own]
        kind = min(kinds, key=("new", "worse", "standing").index)
        line = News(
            kind,
            worst_level(one.level for one in own),
            cause.sentence,
            ((cause.code, cause.subject),),
            tuple(one.key for one in own),
            result.week if kind != "standing" else min(hurting[_like(one)] for one in own),
            "What should follow: a restriction, a lighter load, a practitioner?"
            if kind == "standing"
            else "",
        )
        weight = sum(1 + LEVELS.index(one.level) for one in own)
        lines.append((not any(_hurts(one) for one in own), -weight, line))
    for *_, line in sorted(lines, key=lambda one: one[:2]):
        yield line


def _standing(result: Audit, findings: Iterable[tuple[Finding, Week]]) -> Iterator[News]:
    """All that stands of one kind is one line, with one question."""
    kinds: dict[str, list[tuple[Finding, Week]]] = defaultdict(list)
    for finding, since in findings:
        kinds[finding.code].append((finding, since))
    for code, several in sorted(kinds.items()):
        since = min(week for _, week in several)
        keys = {finding.key for finding, _ in several}
        at_least = " or earlier" if since <= result.week.plus(1 - LOOK_BACK) else ""
        about = list(dict.fromkeys(finding.about for finding, _ in several))
        yield News(
            "standing",
            worst_level(finding.level for finding, _ in several),
            f"{BY_CODE[code].title}: {shortened(about, _NAMED)}, since {since.said}{at_least}.",
            tuple(
                (cause.code, cause.subject)
                for cause, _ in verdict(result).causes
                if keys & {finding.key for finding in cause.explains}
            ),
            tuple(finding.key for finding, _ in several),
            since,
            "Is this intended, or should the rule or the plan change?",
        )


def _eased(gone: Iterable[Key], last: Week) -> News:
    several = sorted(gone)
    about = [f"{BY_CODE[code].title.lower()} ({_about(code, subject)})"
             for code, subject, _ in several]  # fmt: skip
    return News(
        "eased",
        "note",
        f"Gone since {last.said}: {shortened(list(dict.fromkeys(about)), _NAMED)}.",
        (),
        tuple(several),
        last,
    )


def _about(code: str, subject: str) -> str:
    return subject if BY_CODE[code].subject == "day" else BY_CODE[code].about(subject)
