"""Judging a week: its findings accepted with a reason or opened again, the audit signed."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from datetime import date
from typing import Any, Literal

from dialback.book.book import MAX_DECISIONS
from dialback.book.errors import bad_input
from dialback.book.signed_document import Acceptance as SignedAcceptance
from dialback.book.signed_document import signed_document, since_signed
from dialback.core.audit import audit, nothing_done_yet
from dialback.core.causes import Cause, causes
from dialback.core.decisions import STEP, Decision, Direction
from dialback.core.findings import Finding
from dialback.core.findings.finding import grown
from dialback.core.hurts import hurts_since
from dialback.core.long_run.signals import signals
from dialback.core.verdict.decided import about, can_be_decided, words_of
from dialback.core.vocabulary import Basis, Key
from dialback.core.weeks import Week, said
from dialback.core.words import capital, listed
from dialback.store.athletes import Ledgers, athlete_on_roster
from dialback.store.blocks import block_at
from dialback.store.decisions import add_decisions, decision_row, numbered_decisions
from dialback.store.journal import change
from dialback.store.judgements import Signed, acceptances
from dialback.store.models import Acceptance, Athlete, Signature
from dialback.store.unit import touch, unit
from dialback.work.errors import ConflictError, NotThereError


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


WATCH_WEEKS = 4
"""So long what is watched may take until it is gone."""

Lasts = Literal["block", "watch", "good"]
"""How long a decision holds: to the block's end, for some weeks in which it goes, for good."""


def decide(
    ledgers: Ledgers,
    number: int,
    week: Week,
    basis: Basis,
    keys: Collection[Key],
    lasts: Lasts,
    reason: str,
    today: date,
) -> list[int]:
    """Decide about findings or signals of the week for longer than the week; their numbers.

    What does not stand from week to week is accepted for the week alone. Raises ``NotThereError``
    for what the week does not have.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        result = audit(ledgers.of(athlete), week, basis, as_of=today)
        findings = {finding.key: finding for finding in result.findings}
        told = {one.key: one for one in signals(result.ledger, week)}
        block = block_at(athlete, week)
        if lasts == "block" and block is None:
            raise bad_input("lasts", f"no block is planned in {week.said}: choose another end")
        until = week.plus(WATCH_WEEKS).sunday if lasts == "watch" else None
        if lasts == "block" and block is not None:
            until = block.weeks[-1].sunday
        made = []
        for key in keys:
            found = findings.get(key) or told.get(key)
            if found is None:
                raise NotThereError(f"The week has no open finding {key[0]} of {key[1]}.")
            if not can_be_decided(key[0]):
                if key in findings:
                    _accept(athlete, week, basis, [findings[key]], reason, today)
                continue
            made.append(
                Decision(
                    kind="watched" if lasts == "watch" else "intended",
                    code=key[0],
                    subject=key[1],
                    measure=key[2],
                    level=found.level,
                    value=findings[key].value if key in findings else None,
                    reason=reason.strip(),
                    since=week.monday,
                    until=until,
                )
            )
        numbers = _keep(athlete, made, "keys")
        words = listed([words_of(one) for one in made]) or "Accepted for the week"
        entry.tell(f"{words} {_why(reason)}", athlete)
        return numbers


def decline(
    number: int, week: Week, steps: Collection[tuple[str, Direction]], reason: str
) -> list[int]:
    """Decline steps of a proposal, each a movement and its direction; their numbers.

    They are not proposed again before the block ends; without a block, for some weeks.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        block = block_at(athlete, week)
        last = block.weeks[-1] if block is not None else week.plus(WATCH_WEEKS)
        made = [
            Decision(
                kind="declined",
                code=STEP,
                subject=name,
                measure=direction,
                reason=reason.strip(),
                since=week.monday,
                until=last.sunday,
            )
            for name, direction in dict.fromkeys(steps)
        ]
        numbers = _keep(athlete, made, "steps")
        why = f" {_why(reason)}" if reason.strip() else ""
        entry.tell(f"{listed([words_of(one) for one in made])}{why}", athlete)
        return numbers


def see_pain(
    ledgers: Ledgers, number: int, day: date, movement: str | None, follows: str, today: date
) -> list[int]:
    """Note that somebody has looked at what hurt on a day, and what follows from it.

    Raises ``NotThereError`` for a day on which nothing of the kind hurt.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        hurts = hurts_since(ledgers.of(athlete), day, day)
        hurt = next((one for one in hurts if one.movement == movement), None)
        if hurt is None:
            at = f" at {movement}" if movement else ""
            raise NotThereError(f"{athlete.name} has no pain on record for {said(day)}{at}.")
        code, subject, measure = hurt.key
        made = Decision(
            kind="seen",
            code=code,
            subject=subject,
            measure=measure,
            level="high",
            reason=follows.strip(),
            since=min(day, today),
        )
        numbers = _keep(athlete, [made], "follows")
        entry.tell(f"Looked at: {hurt.words}. {capital(follows.strip())}", athlete)
        return numbers


def _keep(athlete: Athlete, made: Sequence[Decision], place: str) -> list[int]:
    """Keep decisions that are not there yet; their numbers."""
    there = list(numbered_decisions(athlete).values())
    if len(there) + len(made) > MAX_DECISIONS:
        raise bad_input(place, f"{athlete.name} has {MAX_DECISIONS} decisions, the most")
    # Said once more, for the answer to the first was lost: it stands as it is.
    numbers = add_decisions(athlete, [one for one in made if one not in there])
    touch(athlete)
    return numbers


def end_decision(number: int, decision: int, on: date | None) -> Athlete:
    """Withdraw a decision from a day on; without one it is in force again."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = decision_row(athlete, decision)
        if row is None:
            raise NotThereError(f"{athlete.name} no longer has this decision.")
        if (row.ended_on is None) == (on is None):
            state = "is already in force" if on is None else "has already ended"
            raise ConflictError("as-it-is", f"This decision {state}.")
        undo = change(row, ended_on=on)
        touch(athlete)
        done = "Reinstated a decision" if on is None else "Withdrew a decision"
        entry.tell(f"{done}: {about((row.code, row.subject, row.measure))}", athlete, undo=undo)
        return athlete


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
        if nothing_done_yet(ledgers.of(athlete), week, today):
            told = f"Nothing has been done in {week.said} yet: sign it off when it is over."
            raise ConflictError("nothing-done", told)
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
    now = document_of(ledgers, athlete, signed.week, "", today)
    return since_signed(signed.document, now, ledgers.of(athlete).movements)


def take_back_signature(number: int, week: Week) -> None:
    """Take the signature of a week back."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        _unsign(athlete, week)
        entry.tell(f"Withdrew the signature of {week.said}", athlete)


def _unsign(athlete: Athlete, week: Week) -> None:
    Signature.delete().where(Signature.athlete == athlete, Signature.week == str(week)).execute()
