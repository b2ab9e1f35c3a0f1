"""The club into the data file: books, notes, and what the coach has judged so far."""

from __future__ import annotations

from datetime import date, timedelta

from dialback.core.audit import audit
from dialback.core.weeks import Week
from dialback.demo.club import COACH, ROWERS
from dialback.demo.generate import books
from dialback.store.athletes import Ledgers, import_book
from dialback.store.models import Acceptance, Athlete, Signature, database

_ACCEPTED = {
    ("Lisbet Arnaud", "balance", "vertical_push_pull"): "No pressing overhead until the "
    "physiotherapist lifts it.",
    ("Lisbet Arnaud", "muscle_floor", "triceps"): "Elbow first; the rows keep it moving.",
}
_BEHIND = 3
"""The coach signs most weeks; so many of the rowers still wait for last week's signature."""


def load_demo(today: date) -> int:
    """Store the whole club in one transaction; the number of rowers."""
    week = Week.to_audit(today)
    ledgers = Ledgers()
    with database.atomic():
        for number, (book, rower) in enumerate(books(today)):
            athlete = import_book(book, today).athlete
            athlete.note = rower.note
            athlete.save()
            signed = week.plus(-2 if number < _BEHIND else -1)
            Signature.create(
                athlete=athlete, week=str(signed), name=COACH, day=signed.sunday + timedelta(days=1)
            )
            _accept(athlete, ledgers, week)
    return len(ROWERS)


def _accept(athlete: Athlete, ledgers: Ledgers, week: Week) -> None:
    reasons = {key[1:]: why for key, why in _ACCEPTED.items() if key[0] == athlete.name}
    if not reasons:
        return
    for finding in audit(ledgers.of(athlete), week).findings:
        reason = reasons.get((finding.code, finding.subject))
        if reason:
            Acceptance.create(
                athlete=athlete,
                week=str(week),
                basis="completed",
                code=finding.code,
                subject=finding.subject,
                measure=finding.measure,
                level=finding.level,
                value=finding.value,
                reason=reason,
                day=week.sunday,
            )
