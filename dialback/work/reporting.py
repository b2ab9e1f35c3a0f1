"""Reports of a week or a block: what was signed where something was, what stands where not."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Any, Literal

from dialback.book.report.block import block_content
from dialback.book.report.changes import changes_told
from dialback.book.report.handout import (
    BlockDone,
    NextSession,
    handout_content,
    handout_paper,
)
from dialback.book.report.render import render
from dialback.book.report.since import since_content
from dialback.book.report.week import Standing, week_content
from dialback.core.audit import audit, sessions_done
from dialback.core.figures import in_total
from dialback.core.measures import MEASURES
from dialback.core.movements import fold
from dialback.core.plans.ahead import MovementChange, changes_between
from dialback.core.plans.kept import kept_in, unread_of
from dialback.core.plans.on_paper import sets_by_line
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.vocabulary import BASES
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, Ledgers, house
from dialback.store.blocks import block_at
from dialback.store.cues import cues_for, house_cues, own_cues
from dialback.store.judgements import signature
from dialback.work.across import since_last_block
from dialback.work.errors import NotThereError
from dialback.work.judging import changed_since, document_of

Reader = Literal["coach", "athlete"]
WEEKS_BACK = 12
"""So many weeks the small lines of a report go back."""
FILE = 10.0
"""The largest type, in points, of a page for the file."""


def week_report(
    ledgers: Ledgers, athlete: Athlete, week: Week, reader: Reader, today: date
) -> bytes:
    """The page of a week as a PDF. Raises ``NotThereError`` where there is nothing to report."""
    ledger = ledgers.of(athlete)
    seen = (week, week.plus(1)) if reader == "athlete" else (week,)
    if not any(ledger.source.week(basis, one) for basis in BASES for one in seen):
        raise NotThereError(
            f"{athlete.name} has no session in {week}, planned or done: choose another week."
        )
    if reader == "athlete":
        return handout_paper([_handout(ledger, athlete, week, today)], [])
    standing = _standing(ledgers, athlete, week, today)
    content = week_content(
        standing, _next_week(ledger, week), ledger.unit, house().name, _trend(ledger, week)
    )
    return render("coach.typ", content, FILE)


def block_report(
    ledgers: Ledgers, athlete: Athlete, week: Week, reader: Reader, today: date
) -> bytes:
    """The page of the block that a week lies in, up to the weeks that are over.

    Raises ``NotThereError`` where the week lies in no block, or nothing of it is over.
    """
    block = block_at(athlete, week)
    if block is None:
        raise NotThereError(
            f"{week} lies in no block of {athlete.name}'s: make one in Block, or report the week."
        )
    weeks = [one for one in block.weeks if one <= Week.to_audit(today)]
    if not weeks:
        raise NotThereError(f"The block begins in {block.first}: no week of it is over yet.")
    ledger = ledgers.of(athlete)
    across = changes_between(_done(ledger, weeks[0]), _done(ledger, weeks[-1]))
    if reader == "athlete":
        shares = [sessions_done(ledger, week) for week in weeks]
        done = BlockDone(
            block.title,
            len(weeks),
            int(sum(share.planned for share in shares)),
            int(sum(share.done for share in shares)),
            across,
        )
        return handout_paper([_handout(ledger, athlete, weeks[-1], today, done)], [])
    standings = [_standing(ledgers, athlete, one, today) for one in weeks]
    ahead = _ahead(ledger, weeks[-1])
    content = block_content(block.title, standings, across, ahead, ledger.unit, house().name)
    return render("block.typ", content, FILE)


def _trend(ledger: Ledger, week: Week) -> dict[str, list[float | None]]:
    """What was done of each measure in the weeks up to one; a week without a session is a gap."""
    weeks = [week.plus(-back) for back in reversed(range(WEEKS_BACK))]
    ledger.read_ahead(weeks[0], week)
    sums = [
        ledger.tally("completed", one) if ledger.source.week("completed", one) else None
        for one in weeks
    ]
    return {
        name: [None if one is None else one.get(in_total(name), 0.0) for one in sums]
        for name in MEASURES
    }


def since_report(
    ledgers: Ledgers, athlete: Athlete, week: Week, reader: Reader, today: date
) -> bytes:
    """What changed since the last block, on one page for the coach's file."""
    if reader == "athlete":
        raise NotThereError("What changed since the last block is for the coach's file.")
    since = since_last_block(ledgers, athlete, week, today)
    unit = ledgers.of(athlete).unit
    content = since_content(since.across, since.decided, athlete.name, house().name, unit)
    return render("since.typ", content, FILE)


def _standing(ledgers: Ledgers, athlete: Athlete, week: Week, today: date) -> Standing:
    signed = signature(athlete, week)
    if signed is None:
        return Standing(document_of(ledgers, athlete, week, "", today), frozen=False, day=today)
    if signed.document is None:
        # Signed before documents were kept: a name and a day, and the figures of today.
        document = document_of(ledgers, athlete, week, signed.name, signed.day)
        return Standing(document, frozen=False, day=today)
    since = changed_since(ledgers, athlete, signed, today) or []
    return Standing(signed.document, frozen=True, day=today, since=since)


def _shown(ledger: Ledger, week: Week) -> Sequence[Session]:
    """What stands for a week beside another: its plan, or what was done where there is none."""
    return ledger.source.week("planned", week) or ledger.source.week("completed", week)


def _done(ledger: Ledger, week: Week) -> Sequence[Session]:
    """What was done of a week, or its plan where nothing was."""
    return ledger.source.week("completed", week) or ledger.source.week("planned", week)


def _ahead(ledger: Ledger, week: Week) -> tuple[MovementChange, ...] | None:
    following = ledger.source.week("planned", week.plus(1))
    return changes_between(_shown(ledger, week), following) if following else None


def _next_week(ledger: Ledger, week: Week) -> list[str]:
    ahead = _ahead(ledger, week)
    if ahead is None:
        return ["No plan for next week yet."]
    return changes_told(ahead) or ["The plan is the same as this week's."]


def hand_outs(
    ledgers: Ledgers, people: Sequence[Athlete], planned: Week, today: date, *, cues: bool = False
) -> bytes:
    """What each is to do in a week, a page for each in their order, as one PDF.

    What somebody is told at a movement stands on their page; with ``cues`` what is said to all
    does, too. Raises ``NotThereError`` where nobody has a plan for it.
    """
    pages, without = [], []
    for athlete in people:
        ledger = ledgers.of(athlete)
        if ledger.source.week("planned", planned):
            page = _handout(ledger, athlete, planned.plus(-1), today)
            pages.append(page | {"cues": _cues(ledger, athlete, planned, to_all=cues)})
        else:
            without.append(athlete.name)
    if not pages:
        raise NotThereError(
            f"None of them has a plan for {planned}: write one, or print another week."
        )
    return handout_paper(pages, without)


def _cues(ledger: Ledger, athlete: Athlete, week: Week, *, to_all: bool) -> list[dict[str, str]]:
    """What is said at the movements of a week's plans, in the order in which they come."""
    own = {fold(one.movement): one.says for one in own_cues(athlete)}
    house = house_cues()
    found: dict[str, dict[str, str]] = {}
    for session in ledger.source.week("planned", week):
        for name in dict.fromkeys(name for one in session.sets for name, _ in one.named_moves()):
            movement = ledger.movements[name]
            words = [own[fold(movement.name)]] if fold(movement.name) in own else []
            if to_all:
                cues = cues_for(movement, house)
                stop = f"Stop when {cues.stop_when}" if cues.stop_when else ""
                words += filter(None, (cues.set_up, cues.move, stop))
            if words:
                found[fold(name)] = {"movement": movement.name, "says": ". ".join(words) + "."}
    return list(found.values())


def _handout(
    ledger: Ledger, athlete: Athlete, week: Week, today: date, block: BlockDone | None = None
) -> dict[str, Any]:
    following = kept_in(ledger, "planned", week.plus(1))
    coming = [
        NextSession(
            kept.day,
            kept.title,
            kept.text(ledger.movements),
            frozenset(one.line for one in unread_of(ledger, kept)),
            sets_by_line(ledger, kept),
        )
        for kept in following
    ]
    result = audit(ledger, week, as_of=today)
    ahead = _ahead(ledger, week) or ()
    return handout_content(result, coming, ahead, athlete.name, today, block)
