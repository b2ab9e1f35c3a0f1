"""What several athletes of a squad have in common: a rule, a shared programme, a day.

It stands above the athletes' own causes and takes nothing from them: each audit is what it is.
Source: Dial Back's contract, *Squads*, *Causes of a squad*.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from dialback.core.audit import Audit, audit
from dialback.core.causes import HAPPENED, causes
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings import BY_CODE, Finding
from dialback.core.findings.balance import leans_to_a
from dialback.core.sessions import Session
from dialback.core.squads.programmes import SHARED, Member, Programme, programmes
from dialback.core.vocabulary import BASES, LEVELS, PAIRS_BY_NAME, Basis, Key, label
from dialback.core.weeks import Week, said
from dialback.core.words import shortened

RULE_LEAST: Final = 5
"""So many athletes at least are outside a band before the band itself is asked about."""
DAY_LEAST: Final = 3
"""So many athletes at least miss a day or cut it short before it is the day."""

SquadCode = Literal["rule", "programme", "day"]
ORDER: Final[tuple[SquadCode, ...]] = ("rule", "programme", "day")

STEPS: Final[Mapping[SquadCode, str]] = {
    "rule": "Look at the band in House rules first. If it is meant, change the sessions.",
    "programme": "Change the shared sessions once, for all of them.",
    "day": "Ask what happened, and note it in their logs. If it keeps happening, move the day.",
}
"""What mends a cause."""

_OFF_THE_DAY: Final = frozenset({"missed", "short", "pain"})
_MOST_TOLD: Final = 3


@dataclass(frozen=True, slots=True)
class Explained:
    """A finding of one athlete."""

    athlete: str
    finding: Finding


@dataclass(frozen=True, slots=True)
class SquadCause:
    """Something that several athletes have in common, and their findings that follow from it.

    ``weight`` is 3 for a high finding, 2 for a caution, summed.
    """

    code: SquadCode
    subject: str
    sentence: str
    explains: tuple[Explained, ...]

    @property
    def athletes(self) -> tuple[str, ...]:
        """Those whose findings it explains, in the order of the squad."""
        return tuple(dict.fromkeys(one.athlete for one in self.explains))

    @property
    def weight(self) -> int:
        """How much follows from it."""
        return sum(1 + LEVELS.index(one.finding.level) for one in self.explains)


@dataclass(frozen=True, slots=True)
class SquadAudit:
    """The audits of a squad's athletes in its order, and what they have in common."""

    week: Week
    basis: Basis
    members: tuple[Member, ...]
    audits: tuple[Audit, ...]
    programmes: tuple[Programme, ...]
    causes: tuple[SquadCause, ...]


def audit_squad(
    members: Sequence[Member],
    week: Week,
    basis: Basis = "completed",
    as_of: date | None = None,
) -> SquadAudit:
    """Audit a week of every athlete of a squad, and find what they have in common.

    Athletes have different names. ``as_of`` as in ``audit``.
    """
    audits = tuple(audits_of(member, week, basis, as_of)[0] for member in members)
    known = programmes(members, week)
    found = _Sorting(members, audits, known, week, as_of).causes()
    return SquadAudit(week, basis, tuple(members), audits, known, found)


def audits_of(
    member: Member, week: Week, basis: Basis, as_of: date | None = None
) -> tuple[Audit, Audit]:
    """All that one athlete adds to a squad's audit: the week's audit, and that of its plan.

    Both are kept with the ledger: whoever counts a large squad can do so athlete by athlete.
    """
    ledger = member.ledger
    return audit(ledger, week, basis, as_of), audit(ledger, week, "planned", as_of)


def _above_note(findings: Iterable[Finding]) -> dict[Key, Finding]:
    return {one.key: one for one in findings if one.level != "note"}


class _Sorting:
    """The findings of all athletes on their way into causes: each is taken once at most."""

    def __init__(
        self,
        members: Sequence[Member],
        audits: Sequence[Audit],
        known: Sequence[Programme],
        week: Week,
        as_of: date | None,
    ) -> None:
        self.members = members
        self.audits = {member.name: audit for member, audit in zip(members, audits, strict=True)}
        self.programmes = known
        self.week = week
        self.as_of = as_of
        self.place = {member.name: at for at, member in enumerate(members)}
        self.left = {member.name: self._open(member.name) for member in members}
        self.found: list[SquadCause] = []

    def _open(self, name: str) -> dict[Key, Finding]:
        """What may be explained: no pain, nothing that a restriction means to be so."""
        own = self.audits[name]
        meant = {
            finding.key
            for cause in causes(own)
            if cause.code == "restriction"
            for finding in cause.explains
        }
        return {
            key: one
            for key, one in _above_note(own.findings).items()
            if key not in meant and not BY_CODE[key[0]].hurts
        }

    def causes(self) -> tuple[SquadCause, ...]:
        self._rules()
        for programme in self.programmes:
            if programme.is_shared:
                self._programme(programme)
        self._days()
        return tuple(sorted(self.found, key=self._order))

    def _order(self, cause: SquadCause) -> tuple[int, int, str, int]:
        return (
            -cause.weight,
            ORDER.index(cause.code),
            cause.subject,
            self.place[cause.athletes[0]],
        )

    def _take(
        self,
        code: SquadCode,
        subject: str,
        keys: Mapping[str, Iterable[Key]],
        sentence: str | Callable[[tuple[Explained, ...]], str],
    ) -> None:
        explains = tuple(
            Explained(name, self.left[name].pop(key))
            for name in sorted(keys, key=self.place.__getitem__)
            for key in sorted(set(keys[name]) & self.left[name].keys())
        )
        if explains:
            words = sentence if isinstance(sentence, str) else sentence(explains)
            self.found.append(SquadCause(code, subject, words, explains))

    # A band that most are outside of.

    def _rules(self) -> None:
        trained = [name for name, own in self.audits.items() if own.value(TOTAL_SETS) > 0]
        outside: dict[tuple[str, str, bool], dict[str, list[Key]]] = defaultdict(dict)
        for name in trained:
            happened = {
                finding.key
                for cause in causes(self.audits[name])
                if cause.code in HAPPENED
                for finding in cause.explains
            }
            for key, one in self.left[name].items():
                if BY_CODE[key[0]].band and key not in happened:
                    side = (key[0], key[1], self._leans_to_a(name, one))
                    outside[side].setdefault(name, []).append(key)
        for (code, subject, leans), keys in sorted(outside.items()):
            if len(keys) < RULE_LEAST or 3 * len(keys) < 2 * len(trained):
                continue
            if len({self._programme_of(name) for name in keys}) < 2:
                continue
            words = _outside(code, subject, leans, len(keys), len(trained))
            self._take("rule", f"{code}/{subject}", keys, words)

    def _leans_to_a(self, name: str, finding: Finding) -> bool:
        if BY_CODE[finding.code].subject != "pair":
            return False
        bands = self.audits[name].in_hand.rules.balance_bands
        return leans_to_a(finding.value, bands[finding.subject][1])

    def _programme_of(self, name: str) -> int | str:
        """The place of an athlete's programme; their own name where they are in none."""
        for at, programme in enumerate(self.programmes):
            if any(member.name == name for member in programme.members):
                return at
        return name

    # A plan that several have.

    def _programme(self, programme: Programme) -> None:
        standing = {
            one.member.name: self._planned(one.member, _days(programme.sessions, one.sessions))
            for one in programme.stands
        }
        counts = Counter(key for known in standing.values() for key in known)
        least = max(SHARED, len(programme.stands) / 2)
        keys = {
            name: [key for of_first, key in known.items() if counts[of_first] >= least]
            for name, known in standing.items()
        }
        self._take(
            "programme", programme.title, keys, lambda explains: _same_plan(programme, explains)
        )

    def _planned(self, member: Member, days: Mapping[str, str]) -> dict[Key, Key]:
        """What an athlete's plan raises, by what it is for the first athlete of the programme."""
        found = {}
        for key in _above_note(audit(member.ledger, self.week, "planned", self.as_of).findings):
            code, subject, measure = key
            known = BY_CODE[code]
            if known.of_plan in ("any", measure):
                of_first = days.get(subject, subject) if known.subject == "day" else subject
                found[code, of_first, measure] = key
        return found

    # A day that several missed or cut short.

    def _days(self) -> None:
        off: dict[str, dict[str, list[Key]]] = defaultdict(dict)
        for name, own in self.audits.items():
            for cause in causes(own) if own.basis == "completed" else ():
                if cause.code in _OFF_THE_DAY:
                    keys = off[cause.subject].setdefault(name, [])
                    if cause.code != "pain":
                        keys += [finding.key for finding in cause.explains]
                    keys += [key for key in self.left[name] if key[:2] == ("missed", cause.subject)]
        for day, of_day in sorted(off.items()):
            there = sum(_has(member, self.week, day) for member in self.members)
            if len(of_day) >= DAY_LEAST and 3 * len(of_day) >= there:
                self._take("day", day, of_day, _off_that_day(day, len(of_day), there))


def _days(firsts: Sequence[Session], own: Sequence[Session]) -> dict[str, str]:
    """For the days of sessions those of the first athlete's same sessions."""
    found: dict[str, str] = {}
    for first, session in zip(firsts, own, strict=True):
        found.setdefault(session.date.isoformat(), first.date.isoformat())
    return found


def _has(member: Member, week: Week, day: str) -> bool:
    """Whether an athlete has a session on a day of the week, planned or done."""
    return any(
        session.date.isoformat() == day
        for basis in BASES
        for session in member.ledger.source.week(basis, week)
    )


def _outside(code: str, subject: str, leans: bool, count: int, trained: int) -> str:
    """That a band is what most are outside of."""
    known = BY_CODE[code]
    if known.subject == "pair":
        a, b = PAIRS_BY_NAME[subject].labels
        long, short = (a, b) if leans else (b, a)
        stand = f"do too much {long} for their {short}"
    else:
        stand = f"are {known.title.lower()} for {label(subject)}"
    return (
        f"{count} of {trained} athletes {stand}, on different programmes: is it the sessions, or "
        f"the {known.band}?"
    )


def _same_plan(programme: Programme, explains: Sequence[Explained]) -> str:
    """What a shared programme raises, and in how many."""
    who: dict[str, set[str]] = defaultdict(set)
    for one in explains:
        code = BY_CODE[one.finding.code]
        about = "" if code.subject == "day" else f" ({code.about(one.finding.subject)})"
        who[f"{code.title.lower()}{about}"].add(one.athlete)
    told = sorted(who, key=lambda words: (-len(who[words]), words))
    words = shortened([f"{one} for {len(who[one])}" for one in told], _MOST_TOLD)
    return (
        f"{len(programme.stands)} athletes share the programme {programme.title}. The plan itself "
        f"raises {words}."
    )


def _off_that_day(day: str, off: int, there: int) -> str:
    """How many missed a day or cut it short."""
    return (
        f"{off} of {there} athletes missed {said(date.fromisoformat(day))}, cut it short or "
        "stopped for pain."
    )
