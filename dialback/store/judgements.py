"""What coaches have judged: findings accepted with a reason, weeks signed."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date
from typing import Any, cast

from dialback.core.decisions import Decision
from dialback.core.vocabulary import Basis, Key, Level
from dialback.core.weeks import Week
from dialback.store.decisions import numbered_decisions
from dialback.store.fields import legible
from dialback.store.models import Acceptance, Athlete, Declined, Signature


@dataclass(frozen=True, slots=True)
class Accepted:
    """A finding that was accepted: at which level and value, why, and on which day."""

    level: Level
    value: float | None
    reason: str
    day: date


@dataclass(frozen=True, slots=True)
class Signed:
    """A week that was signed: by whom, and on which day."""

    week: Week
    name: str
    day: date
    document: Mapping[str, Any] | None = field(default=None, compare=False, repr=False)


Acceptances = Mapping[Key, Accepted]


def acceptances(athlete: Athlete, week: Week, basis: Basis) -> Acceptances:
    """The accepted findings of a week, by key: those that a decision covers, too."""
    own = (Acceptance.athlete == athlete, Acceptance.week == str(week), Acceptance.basis == basis)
    accepted = {_key(row): _accepted(row) for row in Acceptance.select().where(*own)}
    return {**accepted_by(numbered_decisions(athlete).values(), week), **accepted}


def accepted_by(decisions: Iterable[Decision], week: Week) -> Acceptances:
    """What decisions in force accept in a week; what is watched stays open, and is worked on."""
    return {
        one.key: Accepted(one.level, one.value, one.reason or one.kind, one.since)
        for one in decisions
        if one.kind == "intended" and one.holds_in(week)
    }


def acceptances_between(
    athlete: Athlete, first: Week, last: Week
) -> list[tuple[Week, Key, Accepted]]:
    """What was accepted of completed weeks from first to last, in order."""
    query = Acceptance.select().where(
        Acceptance.athlete == athlete,
        Acceptance.basis == "completed",
        Acceptance.week.between(str(first), str(last)),
    )
    in_order = query.order_by(Acceptance.week, Acceptance.id)
    return list(legible(in_order, lambda row: (Week.parse(row.week), _key(row), _accepted(row))))


def declined(athlete: Athlete) -> frozenset[Key]:
    """What no rule is to be offered for any more."""
    query = Declined.select().where(Declined.athlete == athlete)
    return frozenset((row.code, row.subject, row.measure) for row in query)


def all_acceptances(basis: Basis) -> Mapping[tuple[int, Week], Acceptances]:
    """The accepted findings of everybody, by athlete and week."""
    found: dict[tuple[int, Week], dict[Key, Accepted]] = defaultdict(dict)
    of_basis = Acceptance.select().where(Acceptance.basis == basis)
    for week, row in legible(of_basis, lambda row: (Week.parse(row.week), row)):
        found[row.athlete_id, week][_key(row)] = _accepted(row)
    return found


def _key(row: Acceptance) -> Key:
    return (row.code, row.subject, row.measure)


def _accepted(row: Acceptance) -> Accepted:
    return Accepted(cast(Level, row.level), row.value, row.reason, row.day)


def signature(athlete: Athlete, week: Week) -> Signed | None:
    """Who signed a week, if somebody has."""
    row = Signature.get_or_none(Signature.athlete == athlete, Signature.week == str(week))
    return None if row is None else _signed(row)


def signatures_between(athlete: Athlete, first: Week, last: Week) -> list[Signed]:
    """The signatures of an athlete's weeks from first to last, without their documents."""
    query = Signature.select(Signature.week, Signature.name, Signature.day).where(
        Signature.athlete == athlete, Signature.week.between(str(first), str(last))
    )
    return list(legible(query, lambda row: Signed(Week.parse(row.week), row.name, row.day)))


def signed_weeks(athlete: Athlete) -> frozenset[Week]:
    """The weeks of an athlete that are signed."""
    query = Signature.select(Signature.week).where(Signature.athlete == athlete)
    return frozenset(legible(query, lambda row: Week.parse(row.week)))


def latest_signatures() -> Mapping[int, Signed]:
    """The last signed week of every athlete, by number."""
    names = (Signature.athlete, Signature.week, Signature.name, Signature.day)
    query = Signature.select(*names).order_by(Signature.week, Signature.day)
    signed = legible(query, lambda row: (row, Week.parse(row.week)))
    return {row.athlete_id: Signed(week, row.name, row.day) for row, week in signed}


def _signed(row: Signature) -> Signed:
    return Signed(Week.parse(row.week), row.name, row.day, row.document)
