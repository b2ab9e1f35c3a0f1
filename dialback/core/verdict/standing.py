"""What lasts: what was to be gone, what has come to stand, what stood and has gone."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from typing import Final

from dialback.core.findings import BY_CODE, Finding
from dialback.core.long_run.signals import signals
from dialback.core.verdict.decided import about
from dialback.core.verdict.history import like
from dialback.core.verdict.line import News
from dialback.core.verdict.open import Open, hurts
from dialback.core.verdict.order import verdict
from dialback.core.vocabulary import Key, Level
from dialback.core.weeks import Week
from dialback.core.words import capital, shortened

NAMED: Final = 4
"""So many things are named in a line; the rest is counted."""


def due_lines(week: Open) -> Iterator[News]:
    """What was to be gone by this week: whether it is."""
    if not week.result.in_hand.has_sets:
        return
    there: dict[Key, Level] = {
        one.key: one.level for one in week.result.findings if one.level != "note"
    }
    told = signals(week.result.ledger, week.result.week)
    there |= {one.key: one.level for one in told}
    for one in week.result.ledger.decisions:
        if not one.is_due_in(week.result.week):
            continue
        level = there.get(one.key)
        gone = level is None
        yield News(
            "eased" if gone else "standing",
            level or "note",
            f"{capital(about(one.key))} was to be gone by {week.result.week.said}: "
            f"{'it is' if gone else 'it is still there'}.",
            (),
            (one.key,),
            Week.of(one.since),
            "" if gone else "Is it worth another way?",
        )


def standing_lines(week: Open) -> Iterator[News]:
    """All that has come to stand of one kind is one line, with one question."""
    begins = week.result.week in week.result.ledger.blocks.begins
    kinds: dict[str, list[Finding]] = defaultdict(list)
    for key, finding in week.now.items():
        if (
            BY_CODE[finding.code].lasts
            and key not in week.due
            and key not in week.fresh
            and not hurts(finding)
            and _is_asked(week, key, begins=begins)
        ):
            kinds[finding.code].append(finding)
    for code, several in sorted(kinds.items()):
        yield _standing_line(week, code, several)


def _is_asked(week: Open, key: Key, *, begins: bool) -> bool:
    """Whether it comes to stand now, or stands as a block begins.

    What the programme is not for stands at once.
    """
    if key in week.beside:
        lately = week.history.lately
        return begins or not lately or key not in lately[0][1]
    return week.history.stands(key) and (begins or not week.history.stood_before(key))


def _standing_line(week: Open, code: str, several: list[Finding]) -> News:
    since = min(week.history.since(like(finding)) for finding in several)
    keys = {finding.key for finding in several}
    named = list(dict.fromkeys(finding.about for finding in several))
    return News(
        "standing",
        "caution",
        f"{BY_CODE[code].title}: {shortened(named, NAMED)}, since {since.said}.",
        tuple(
            (cause.code, cause.subject)
            for cause, _ in verdict(week.result).causes
            if keys & {finding.key for finding in cause.explains}
        ),
        tuple(finding.key for finding in several),
        since,
        BY_CODE[code].ask,
    )


def eased_line(week: Open) -> News | None:
    """What stood, and has gone: of ordinary weeks only, for in others much is gone at once."""
    if week.kind is not None or not week.result.in_hand.has_sets:
        return None
    last = week.history.lately[0][1] if week.history.lately else {}
    there = {like(one) for one in week.result.findings if one.level != "note"}
    gone = sorted(
        key
        for key in last
        if key not in there
        and key not in week.due
        and BY_CODE[key[0]].lasts
        and week.history.stands(key)
    )
    if not gone:
        return None
    named = [_gone_words(code, subject) for code, subject, _ in gone]
    return News(
        "eased",
        "note",
        f"Gone since {week.history.lately[0][0].said}: "
        f"{shortened(list(dict.fromkeys(named)), NAMED)}.",
        (),
        tuple(gone),
        week.history.lately[0][0],
    )


def _gone_words(code: str, subject: str) -> str:
    known = BY_CODE[code]
    # Of a day it is the day of the week that has gone.
    about = subject if known.subject == "day" else known.about(subject)
    return f"{known.title.lower()} ({about})"
