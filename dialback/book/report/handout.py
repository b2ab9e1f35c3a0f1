"""A page for the athlete's hand: what went well, what to watch, what to do next week.

Plain words: no figure of the audit, no score, nothing that asks for a coach to read it.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Final

from dialback.book.report.render import fitting, rendered
from dialback.book.report.words import STOP_SIGNS, day_text, week_span
from dialback.core.audit import Audit, sessions_done
from dialback.core.findings import CODES
from dialback.core.findings.finding import exceeds
from dialback.core.hurts import hurts_since
from dialback.core.plans.ahead import MovementChange
from dialback.core.sessions import Set
from dialback.core.tally import top_sets
from dialback.core.tempo import tempo_words
from dialback.core.weeks import Week
from dialback.core.words import Unit, capital, load_text, shortened

_TEMPO: Final = re.compile(r"\btempo ([0-9]{1,2}(?:-[0-9Xx]{1,2}){2,3})")
_EXERTION: Final = re.compile(r"\bRPE\b")
LARGEST: Final = 12.0
"""Points of the type of a page that hangs on a wall."""
_MOST_BOXES: Final = 30
"""So many sets of one line have a box each: more are not written down one by one."""
_MOST: Final = 3
"""So many movements are named in one sentence; a page is read, not searched."""


@dataclass(frozen=True, slots=True)
class NextSession:
    """A session of next week as it was written."""

    day: date
    title: str
    text: str
    unread: frozenset[int] = frozenset()
    """The lines that are not read, counted from 1: they are printed as they were written."""
    sets: Mapping[int, int] = field(default_factory=dict)
    """How many sets a line has, by its number from 1: a box for each."""


@dataclass(frozen=True, slots=True)
class BlockDone:
    """A block that was done, or as much of it as is over."""

    title: str
    weeks: int
    sessions_planned: int
    sessions_done: int
    moved: Sequence[MovementChange]
    """From its first week to its last."""


def handout_content(
    result: Audit,
    coming: Sequence[NextSession],
    ahead: Sequence[MovementChange],
    name: str,
    today: date,
    block: BlockDone | None = None,
) -> dict[str, Any]:
    """What the hand-out says of a week, or a block, that was done, and of the next week's plan."""
    following = result.week.plus(1)
    # A week that still runs is neither praised nor judged.
    is_over = result.week <= Week.to_audit(today)
    well = block_went_well(block) if block else went_well(result) if is_over else ()
    return {
        "title": f"{name}: {following.said}",
        "span": week_span(following),
        "past": "last week" if block is None else f"in {block.title or 'the block'}",
        "well": list(well),
        "watch": list(to_watch(result, following, ahead, is_over=is_over)),
        "sessions": [
            {
                "head": f"{day_text(session.day)}{f': {session.title}' if session.title else ''}",
                "lines": list(_lines(session)),
                "boxes": bool(session.sets),
            }
            for session in coming
        ],
        "words": list(_explained(session.text for session in coming)),
    }


def handout_paper(pages: Sequence[dict[str, Any]], without: Sequence[str]) -> bytes:
    """The hand-outs of several in their order, one to a page, as one PDF; a page is as large in
    type as fits on it. ``without`` are those for whom there is nothing to print.
    """
    title = pages[0]["title"] if len(pages) == 1 else f"Hand-outs, {pages[0]['span']}"
    frame: dict[str, Any] = {"title": title, "foot": STOP_SIGNS, "without": []}
    sized = [
        {**page, "size": fitting("handout.typ", {**frame, "pages": [page]}, LARGEST)}
        for page in pages
    ]
    return rendered("handout.typ", {**frame, "pages": sized, "without": without}, LARGEST)


def _explained(texts: Iterable[str]) -> Iterator[str]:
    """What a plan is written with, said once for those who do not read plans every day."""
    text = "\n".join(texts)
    tempo = _TEMPO.search(text)
    if tempo:
        yield f"Tempo {tempo[1]}: {tempo_words(tempo[1], every=True)}."
    if _EXERTION.search(text):
        yield "RPE 8: you could do two more reps; RPE 9: one more; RPE 10: none."


def _lines(session: NextSession) -> Iterator[dict[str, Any]]:
    for at, line in enumerate(session.text.splitlines(), 1):
        words = line.strip()
        if words and not words.startswith("#"):
            yield {
                "text": words,
                "inside": line[:1].isspace(),
                "unread": at in session.unread,
                "part": words.endswith(":") and not line[:1].isspace(),
                "boxes": min(session.sets.get(at, 0), _MOST_BOXES),
            }


def went_well(result: Audit) -> Iterator[str]:
    """What there is to be glad of."""
    done = sessions_done(result.ledger, result.week)
    planned, did = int(done.planned), int(done.done)
    hurt = hurts_since(result.ledger, result.week.monday, result.week.sunday)
    if hurt:
        yield "You stopped when something hurt: that was right. What you did before it counts."
    elif planned and did == planned:
        yield f"You did all {planned} sessions." if planned > 1 else "You did your session."
    elif did:
        yield f"You did {did} of the {planned} sessions."
    elif result.entries:
        yield "You trained, off the plan or on it: it all counts."
    heavier = list(_heavier(result))
    if heavier:
        yield f"Heavier than in the weeks before: {shortened(heavier, _MOST)}."
    ready = [finding.subject for finding in result.findings if finding.code == "ready"]
    if ready:
        moves = shortened(ready, _MOST)
        yield f"You reached the top of your reps: {moves}. Time for a little more."
    open_ones = [finding for finding in result.findings if finding.level != "note"]
    if result.entries and not open_ones and not hurt:
        yield "A week as it should be."


def block_went_well(block: BlockDone) -> Iterator[str]:
    """What there is to be glad of in a block: sessions done, loads that rose."""
    weeks = f"{block.weeks} weeks" if block.weeks > 1 else "the first week"
    if block.sessions_planned and block.sessions_done >= block.sessions_planned:
        yield f"You did all {block.sessions_planned} sessions of {weeks}."
    elif block.sessions_done:
        yield f"You did {block.sessions_done} of the {block.sessions_planned} sessions of {weeks}."
    heavier = [
        f"{movement} {load_text(old)} → {load_text(new)}"
        for movement, old, new in _gone_up(block.moved)
    ]
    if heavier:
        yield f"Heavier from the first week to the last: {shortened(heavier, _MOST)}."


def _heavier(result: Audit) -> Iterator[str]:
    before = result.in_hand.heaviest_before
    too_much = {
        finding.subject
        for finding in result.findings
        if finding.code == "load_step" and finding.level == "high"
    }
    for name, top in top_sets(result.entries).items():
        old = before.get(name)
        if old is None or not old.total_load_kg or name in too_much:
            continue
        if exceeds(top.total_load_kg, old.total_load_kg):
            yield f"{name} {load_text(top)} ({load_text(old)} before)"


def _gone_up(changes: Iterable[MovementChange]) -> Iterator[tuple[str, Set, Set]]:
    """The movements that are heavier than they were, with their sets then and now."""
    for change in changes:
        old, new = change.before, change.after
        if old is not None and new is not None and exceeds(new.total_load_kg, old.total_load_kg):
            yield change.movement, old, new


def to_watch(
    result: Audit, following: Week, ahead: Sequence[MovementChange], *, is_over: bool
) -> Iterator[str]:
    """What asks for care, what hurt first; of a week that still runs nothing is judged yet."""
    yield from _pain(result)
    yield from _restrictions(result, following)
    if is_over:
        yield from dict.fromkeys(_of_findings(result))
    steps = [f"{movement} {load_text(new)}" for movement, _, new in _gone_up(ahead)]
    if steps:
        yield f"Heavier next week, if your form stays clean: {shortened(steps, _MOST)}."


def _of_findings(result: Audit) -> Iterator[str]:
    """What findings come to for an athlete, code by code; several may say the same."""
    raised = {finding.code for finding in result.findings}
    for code in CODES:
        watch = code.to_watch
        if watch is None or watch.unless in raised:
            continue
        about = [
            day_text(date.fromisoformat(finding.subject))
            if code.subject == "day"
            else finding.about
            for finding in result.findings
            if finding.code == code.code and (finding.level != "note" or not watch.above_note)
        ]
        if about:
            yield watch.words.format(shortened(about, _MOST))


def _pain(result: Audit) -> Iterator[str]:
    for session in result.in_hand.sessions:
        for pain in session.pain:
            what = pain.exercise or "Something"
            note = f" (“{pain.note}”)" if pain.note else ""
            yield (
                f"{what} hurt on {session.date:%A}{note}. If it comes back, stop and tell your "
                "coach; if it stays, see a doctor."
            )


def _restrictions(result: Audit, following: Week) -> Iterator[str]:
    unit: Unit = result.ledger.unit
    for restriction in result.ledger.restrictions:
        if restriction.holds_in(following):
            yield f"{capital(restriction.words(unit))}, as {restriction.by} said."
