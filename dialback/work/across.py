"""What changed since the last block: spans that a coach means, and who decided what."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.across import Across, Decided, Span, across
from dialback.core.findings import BY_CODE
from dialback.core.verdict.decided import words_of
from dialback.core.weeks import Week
from dialback.core.words import shortened
from dialback.store.athletes import Athlete, Ledgers
from dialback.store.blocks import PlannedBlock, blocks_of
from dialback.store.decisions import numbered_decisions
from dialback.store.journal import who_said
from dialback.store.judgements import acceptances_between, signatures_between

WITHOUT_A_BLOCK: Final = 4
"""So many weeks are laid beside as many where no block is."""
_NAMED: Final = 3
"""So many findings of a cause that was accepted are named."""


@dataclass(frozen=True, slots=True)
class Since:
    """What changed from the last block to the one in hand, and what was decided meanwhile."""

    across: Across
    decided: tuple[Decided, ...]


def since_last_block(ledgers: Ledgers, athlete: Athlete, week: Week, today: date) -> Since:
    """The block of a week beside the one before it.

    Where the week lies in no block, four weeks up to it are laid beside the four before; where no
    block is before it, as many weeks.
    """
    before, after = _spans(athlete, week)
    running = Week.to_audit(today).plus(1)
    found = across(ledgers.ahead(athlete, running), before, after, running)
    first, last = after.weeks[0], after.weeks[-1]
    return Since(found, tuple(_decided(athlete, first, last)))


def _spans(athlete: Athlete, week: Week) -> tuple[Span, Span]:
    blocks = sorted(blocks_of(athlete), key=lambda one: one.first)
    here = next((block for block in blocks if week in block.weeks), None)
    after = _weeks_to(week, WITHOUT_A_BLOCK) if here is None else _span(here)
    earlier = [block for block in blocks if block.weeks[-1] < after.weeks[0]]
    if here is not None and earlier:
        return _span(earlier[-1]), after
    return _weeks_to(after.weeks[0].plus(-1), len(after.weeks)), after


def _span(block: PlannedBlock) -> Span:
    return Span(block.title or f"Block from {block.first.said}", tuple(block.weeks))


def _weeks_to(last: Week, count: int) -> Span:
    weeks = tuple(last.plus(-back) for back in reversed(range(count)))
    numbers = [one.monday.isocalendar().week for one in (weeks[0], weeks[-1])]
    return Span(f"weeks {numbers[0]} to {numbers[1]}", weeks)


def _decided(athlete: Athlete, first: Week, last: Week) -> Iterable[Decided]:
    """What was accepted, decided and signed of these weeks, the latest first."""
    found: list[Decided] = []
    # A cause that was accepted is one decision, however many findings it had.
    together: dict[tuple[Week, date, str], list[str]] = {}
    for week, key, one in acceptances_between(athlete, first, last):
        known = BY_CODE.get(key[0])
        about = f"{known.title.lower()} of {known.about(key[1])}" if known else key[1]
        together.setdefault((week, one.day, one.reason), []).append(about)
    for (week, day, reason), names in together.items():
        what = f"Accepted in {week.said}: {shortened(list(dict.fromkeys(names)), _NAMED)}"
        found.append(Decided(day, what, reason, who_said(athlete, day, reason)))
    for decision in numbered_decisions(athlete).values():
        if first.monday <= decision.since <= last.sunday and decision.ended_on is None:
            found.append(
                Decided(
                    decision.since,
                    words_of(decision),
                    decision.reason,
                    who_said(athlete, decision.since, decision.reason),
                )
            )
    found += [
        Decided(one.day, f"Signed {one.week.said}", "", one.name)
        for one in signatures_between(athlete, first, last)
    ]
    return sorted(found, key=lambda one: one.day, reverse=True)
