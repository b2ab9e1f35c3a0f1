"""What hurt lately: told on the floor or in a log, to be seen before anybody plans on."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from dialback.core.decisions import NO_MOVEMENT, PAIN
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week, said

LATELY: Final = timedelta(days=28)
"""So long what hurt is told wherever plans are made, unless somebody has looked at it before."""


@dataclass(frozen=True, slots=True)
class Hurt:
    """Something hurt on a day, at a movement if it was one, in the athlete's words."""

    day: date
    movement: str | None
    note: str

    @property
    def key(self) -> Key:
        """What a decision names it by."""
        return PAIN, self.movement or NO_MOVEMENT, self.day.isoformat()

    @property
    def words(self) -> str:
        """As a coach says it: ``Pain on Wed 25 Nov at Back squat: right knee``."""
        at = f" at {self.movement}" if self.movement else ""
        return f"Pain on {said(self.day)}{at}" + (f": {self.note}" if self.note else "")


def hurts_since(ledger: Ledger, first: date, last: date) -> tuple[Hurt, ...]:
    """What hurt from one day to another, the latest first."""
    found: list[Hurt] = []
    week = Week.of(first)
    while week.monday <= last:
        for session in ledger.source.week("completed", week):
            if first <= session.date <= last:
                found += [Hurt(session.date, one.exercise, one.note) for one in session.pain]
        week = week.plus(1)
    return tuple(sorted(found, key=lambda hurt: hurt.day, reverse=True))


def unseen(ledger: Ledger, first: date, last: date) -> tuple[Hurt, ...]:
    """What hurt from one day to another and nobody has looked at yet, the latest first."""
    seen = {one.key for one in ledger.decisions if one.kind == "seen" and one.ended_on is None}
    return tuple(one for one in hurts_since(ledger, first, last) if one.key not in seen)


def lately(ledger: Ledger, today: date) -> tuple[Hurt, ...]:
    """What hurt within the last four weeks and nobody has looked at yet, the latest first."""
    # A log may be of the day after the server's.
    return unseen(ledger, today - LATELY + timedelta(days=1), today + timedelta(days=1))
