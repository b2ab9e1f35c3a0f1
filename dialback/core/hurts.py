"""What hurt lately: told on the floor or in a log, to be seen before anybody plans on."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from dialback.core.tally import Ledger
from dialback.core.weeks import Week, said

LATELY: Final = timedelta(days=14)
"""So long what hurt is told wherever plans are made: the week it was told in, and the next."""


@dataclass(frozen=True, slots=True)
class Hurt:
    """Something hurt on a day, at a movement if it was one, in the athlete's words."""

    day: date
    movement: str | None
    note: str

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


def lately(ledger: Ledger, today: date) -> tuple[Hurt, ...]:
    """What hurt within the last two weeks, the latest first."""
    # A log may be of the day after the server's.
    return hurts_since(ledger, today - LATELY + timedelta(days=1), today + timedelta(days=1))
