"""What a coach signed, frozen as a JSON document, and what has changed since.

A signature is of what was seen: figures, findings with their acceptances, the rules in force, the
sets behind it all. Whatever changes later leaves the document as it is.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any, Final

from dialback.book.audit_document import audit_document
from dialback.core.audit import Audit
from dialback.core.findings import BY_CODE
from dialback.core.measures import MEASURES
from dialback.core.movements import MovementTable, fold
from dialback.core.naming import at_its_head, called_today
from dialback.core.rules import RULES
from dialback.core.sessions import Session
from dialback.core.vocabulary import BASES, Basis, Key
from dialback.core.words import describe, movement_text, remarks, shortened

VERSION: Final = 1
_RULES: Final = {entry.name: entry.title for entry in RULES}
_NAMED: Final = 4


@dataclass(frozen=True, slots=True)
class Acceptance:
    """A finding that was accepted, as it stood when the week was signed."""

    key: Key
    reason: str
    day: date


def signed_document(
    result: Audit, athlete: str, accepted: Iterable[Acceptance], signer: str, day: date
) -> dict[str, Any]:
    """What is signed, and by whom."""
    source = result.ledger.source
    return {
        "format": "dialback-signed-week",
        "version": VERSION,
        "signed_by": signer,
        "signed_on": day.isoformat(),
        "codes": list(BY_CODE),
        "audit": audit_document(result, athlete),
        "rules": result.ledger.rules.model_dump(mode="json"),
        "accepted": [
            {
                "code": one.key[0],
                "subject": one.key[1],
                "measure": one.key[2],
                "reason": one.reason,
                "day": one.day.isoformat(),
            }
            for one in sorted(accepted, key=lambda one: one.key)
        ],
        "sessions": {
            basis: [_session(session) for session in source.week(basis, result.week)]
            for basis in BASES
        },
    }


def _session(session: Session) -> dict[str, Any]:
    return {
        "date": session.date.isoformat(),
        "title": session.title,
        "rpe": session.rpe,
        "duration_min": session.duration_min,
        "sets": [f"{movement_text(a_set)} {describe(a_set)}" for a_set in session.sets],
        "said": remarks(session),
    }


def since_signed(
    signed: Mapping[str, Any], now: Mapping[str, Any], movements: MovementTable
) -> list[str]:
    """What has changed from a signed document to the same week as it is now, in words.

    Measures, muscles, rules and findings that the program did not know then are no changes, nor
    is another name of a movement.
    """
    signed = _as_called_today(signed, movements)
    now = _of_what_was_there(signed, now)
    told = [_sets_told(basis, signed, now) for basis in ("completed", "planned")]
    rules = _rules_told(signed["rules"], now["rules"])
    if not any(told) and not rules and _figures(signed) != _figures(now):
        told.append("movements count differently")
    elif not any(told) and not rules and signed["audit"]["jumps"] != now["audit"]["jumps"]:
        told.append("the weeks before it have changed")
    return [text for text in (*told, rules, _findings_told(signed, now)) if text]


def _as_called_today(signed: Mapping[str, Any], movements: MovementTable) -> dict[str, Any]:
    names = called_today(movements)
    findings = [
        {**one, "subject": names.get(fold(one["subject"]), one["subject"])}
        for one in signed["audit"]["findings"]
    ]
    sessions = {
        basis: [
            {**one, "sets": [at_its_head(text, names, movements) for text in one["sets"]]}
            for one in of_basis
        ]
        for basis, of_basis in signed["sessions"].items()
    }
    return {**signed, "audit": {**signed["audit"], "findings": findings}, "sessions": sessions}


def _of_what_was_there(signed: Mapping[str, Any], now: Mapping[str, Any]) -> dict[str, Any]:
    """The document of now without what the signed one could not have."""
    codes = set(signed.get("codes", BY_CODE))
    audit = dict(_known(signed["audit"], now["audit"]))
    audit["findings"] = [one for one in now["audit"]["findings"] if one["code"] in codes]
    # A band that a coach has added is a change, a rule that was not there yet is none.
    rules = {name: value for name, value in now["rules"].items() if name in signed["rules"]}
    return {**now, "audit": audit, "rules": rules}


def _known(before: Any, after: Any) -> Any:
    """A value with the keys alone that it had before, however deep."""
    if not isinstance(before, Mapping) or not isinstance(after, Mapping):
        return after
    return {key: _known(before[key], after[key]) for key in after if key in before}


def _sets_told(basis: Basis, signed: Mapping[str, Any], now: Mapping[str, Any]) -> str:
    before, after = (_sets(document, basis) for document in (signed, now))
    gone, come = (before - after).total(), (after - before).total()
    changed = min(gone, come)
    whose = "" if basis == "completed" else " of the plan"
    parts = [
        f"{count} set{'' if count == 1 else 's'}{whose} {what}"
        for count, what in (
            (changed, "changed"),
            (come - changed, "added"),
            (gone - changed, "removed"),
        )
        if count
    ]
    return ", ".join(parts)


def _sets(document: Mapping[str, Any], basis: Basis) -> Counter[tuple[str, str]]:
    return Counter(
        (session["date"], text)
        for session in document["sessions"][basis]
        for text in session["sets"]
    )


def _rules_told(before: Mapping[str, Any], after: Mapping[str, Any]) -> str:
    changed = [name for name in after if before[name] != after[name]]
    if not changed:
        return ""
    named = [_RULES.get(name, name).lower() for name in changed]
    return f"rules changed: {shortened(named, _NAMED)}"


def _figures(document: Mapping[str, Any]) -> tuple[object, ...]:
    audit = document["audit"]
    return tuple(audit["totals"][name] for name in MEASURES), audit["muscles"], audit["balance"]


def _findings_told(signed: Mapping[str, Any], now: Mapping[str, Any]) -> str:
    before, after = (
        {(one["code"], one["subject"], one["measure"]) for one in document["audit"]["findings"]}
        for document in (signed, now)
    )
    parts = [
        f"{count} finding{'' if count == 1 else 's'} {what}"
        for count, what in (
            (len(after - before), "new"),
            (len(before - after), "gone"),
        )
        if count
    ]
    return ", ".join(parts)
