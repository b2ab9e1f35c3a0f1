"""Judging a week: its findings accepted with a reason or opened again, the audit signed."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Any

from dialback.book.signed_document import Acceptance as SignedAcceptance
from dialback.book.signed_document import signed_document, since_signed
from dialback.core.audit import audit
from dialback.core.causes import Cause, causes
from dialback.core.findings import Finding
from dialback.core.findings.finding import Key, grown
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week
from dialback.store.athletes import Ledgers, athlete_on_roster
from dialback.store.judgements import Signed, acceptances
from dialback.store.models import Acceptance, Athlete, Signature
from dialback.store.unit import unit
from dialback.work.errors import NotThereError


def accept_finding(
    ledgers: Ledgers, number: int, week: Week, basis: Basis, key: Key, reason: str, today: date
) -> None:
    """Accept a finding of the week. Raises ``NotThereError`` if the week does not raise it."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        result = audit(ledgers.of(athlete), week, basis, as_of=today)
        found = [finding for finding in result.findings if finding.key == key]
        if not found:
            raise NotThereError(f"The week has no open finding {key[0]} of {key[1]}.")
        _accept(athlete, week, basis, found, reason, today)
        entry.tell(f"Accepted in {week.said}, {basis}: {found[0].sentence} {_why(reason)}", athlete)


def _why(reason: str) -> str:
    return f"({reason.strip()})"


def accept_cause(
    ledgers: Ledgers,
    number: int,
    week: Week,
    basis: Basis,
    cause: tuple[str, str],
    reason: str,
    today: date,
) -> None:
    """Accept all that follows from a cause, given by its code and subject."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        found = _cause(ledgers, athlete, week, basis, cause, today)
        _accept(athlete, week, basis, found.explains, reason, today)
        entry.tell(f"Accepted in {week.said}, {basis}: {found.sentence} {_why(reason)}", athlete)


def reopen_finding(number: int, week: Week, basis: Basis, key: Key) -> None:
    """Open an accepted finding again. Raises ``NotThereError`` if it is not accepted."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        if not _withdraw(athlete, week, basis, key):
            raise NotThereError(f"No finding {key[0]} of {key[1]} is accepted in {week}.")
        entry.tell(f"Reopened an accepted finding of {week.said}", athlete)


def reopen_cause(
    ledgers: Ledgers, number: int, week: Week, basis: Basis, cause: tuple[str, str], today: date
) -> None:
    """Open again all that follows from a cause."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        found = _cause(ledgers, athlete, week, basis, cause, today)
        for finding in found.explains:
            _withdraw(athlete, week, basis, finding.key)
        entry.tell(f"Reopened in {week.said}, {basis}: {found.sentence}", athlete)


def _cause(
    ledgers: Ledgers,
    athlete: Athlete,
    week: Week,
    basis: Basis,
    cause: tuple[str, str],
    today: date,
) -> Cause:
    result = audit(ledgers.of(athlete), week, basis, as_of=today)
    found = next((one for one in causes(result) if (one.code, one.subject) == cause), None)
    if found is None:
        raise NotThereError(f"Nothing follows from {cause[0]} of {cause[1]} in {week} now.")
    return found


def _accept(
    athlete: Athlete,
    week: Week,
    basis: Basis,
    findings: Iterable[Finding],
    reason: str,
    today: date,
) -> None:
    for finding in findings:
        _withdraw(athlete, week, basis, finding.key)
        code, subject, measure = finding.key
        Acceptance.create(
            athlete=athlete,
            week=str(week),
            basis=basis,
            code=code,
            subject=subject,
            measure=measure,
            level=finding.level,
            value=finding.value,
            reason=reason.strip(),
            day=today,
        )


def _withdraw(athlete: Athlete, week: Week, basis: Basis, key: Key) -> int:
    code, subject, measure = key
    taken: Any = (
        Acceptance.delete()
        .where(
            Acceptance.athlete == athlete,
            Acceptance.week == str(week),
            Acceptance.basis == basis,
            Acceptance.code == code,
            Acceptance.subject == subject,
            Acceptance.measure == measure,
        )
        .execute()
    )
    return int(taken)


def sign(ledgers: Ledgers, number: int, week: Week, name: str, today: date) -> None:
    """Sign the week's audit off, by name; what was signed is kept as it is now."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        document = document_of(ledgers, athlete, week, name.strip(), today)
        _unsign(athlete, week)
        Signature.create(
            athlete=athlete, week=str(week), name=name.strip(), day=today, document=document
        )
        entry.tell(f"Signed {week.said} off as {name.strip()}", athlete)


def document_of(
    ledgers: Ledgers, athlete: Athlete, week: Week, name: str, today: date
) -> dict[str, Any]:
    """The week as it would be signed on a day."""
    result = audit(ledgers.of(athlete), week, as_of=today)
    levels = {finding.key: finding for finding in result.findings}
    accepted = [
        SignedAcceptance(key, one.reason, one.day)
        for key, one in acceptances(athlete, week, "completed").items()
        if key in levels and not grown(levels[key], one.level, one.value)
    ]
    return signed_document(result, athlete.name, accepted, name, today)


def changed_since(
    ledgers: Ledgers, athlete: Athlete, signed: Signed, today: date
) -> list[str] | None:
    """What has changed in a week since it was signed; ``None`` where nothing was kept of it."""
    if signed.document is None:
        return None
    return since_signed(signed.document, document_of(ledgers, athlete, signed.week, "", today))


def take_back_signature(number: int, week: Week) -> None:
    """Take the signature of a week back."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        _unsign(athlete, week)
        entry.tell(f"Withdrew the signature of {week.said}", athlete)


def _unsign(athlete: Athlete, week: Week) -> None:
    Signature.delete().where(Signature.athlete == athlete, Signature.week == str(week)).execute()
