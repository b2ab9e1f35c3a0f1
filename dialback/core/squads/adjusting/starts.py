"""Where adjusting a squad starts: each athlete's plan, and the sessions that several share."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.lines import are_alike, measured_units
from dialback.core.adjusting.pricing import Prices
from dialback.core.adjusting.start import NothingToStartFromError, may_be_added, start_of
from dialback.core.movements import fold
from dialback.core.plans.spans import Span, spans_of
from dialback.core.sessions import Session, Set
from dialback.core.squads.programmes import SHARED, Member, are_the_same
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week


@dataclass(frozen=True, eq=False)
class Start:
    """An athlete's plan before the change, and what it is judged and priced by.

    ``still`` are the places of sessions that are done: they do not change. ``offers`` are the
    movements that may be added, each with a copy of the athlete's latest set of it.
    """

    member: Member
    sessions: tuple[Session, ...]
    judge: Judge
    spans: tuple[tuple[Span, ...], ...]
    prices: Prices
    still: frozenset[int]
    offers: Mapping[str, Set]


@dataclass(frozen=True, slots=True)
class Given:
    """What else is given of an athlete.

    ``accepted`` are findings that nothing is changed for; ``done_days`` do not change, those of the
    week's completed sessions if not given.
    """

    accepted: frozenset[Key] = frozenset()
    done_days: frozenset[date] | None = None


GivenBy = Mapping[str, Given]
"""What is given of athletes, by name; nothing of whoever is not in it."""


def starts_of(
    members: Iterable[Member], week: Week, *, offer: bool, given: GivenBy | None = None
) -> tuple[Start, ...]:
    """The starts of all who have something to start from.

    Raises ``NothingToStartFromError`` where nobody has.
    """
    found = []
    for member in members:
        own = (given or {}).get(member.name, Given())
        try:
            found.append(_start(member, week, own, offer=offer))
        except NothingToStartFromError:
            continue
    if not found:
        raise NothingToStartFromError(
            f"nobody has anything planned in {week}, or planned or done before it: plan a week "
            "first"
        )
    return tuple(found)


def _start(member: Member, week: Week, given: Given, *, offer: bool) -> Start:
    ledger = member.ledger
    sessions = start_of(ledger, week)
    judge = Judge(ledger, week, sessions, given.accepted)
    spans = tuple(spans_of(session, ledger.movements) for session in sessions)
    done = given.done_days
    if done is None:
        done = frozenset(session.date for session in ledger.source.week("completed", week))
    return Start(
        member,
        sessions,
        judge,
        spans,
        Prices(judge, sessions, spans),
        frozenset(at for at, session in enumerate(sessions) if session.date in done),
        may_be_added(ledger, week) if offer else {},
    )


@dataclass(frozen=True, eq=False)
class SharedSession:
    """A session that several athletes have: the athletes by number, and its place in each week.

    The first of them is whose session it is called after, and whose costs count.
    """

    places: Mapping[int, int]

    @property
    def first(self) -> int:
        """The number of its first athlete."""
        return next(iter(self.places))


def shared_sessions(starts: Sequence[Start]) -> tuple[SharedSession, ...]:
    """The sessions that at least three athletes have alike: title, movements, sets line by line.

    A session that somebody has done already is not theirs to change, and counts as none of it.
    """
    groups: list[dict[int, int]] = []
    for number, start in enumerate(starts):
        for place in sorted(set(range(len(start.sessions))) - start.still):
            for group in groups:
                first = next(iter(group))
                if number not in group and _alike(starts[first], group[first], start, place):
                    group[number] = place
                    break
            else:
                groups.append({number: place})
    return tuple(SharedSession(group) for group in groups if len(group) >= SHARED)


def _alike(one: Start, at: int, other: Start, place: int) -> bool:
    return _lines(one.spans[at]) == _lines(other.spans[place]) and are_the_same(
        one.sessions[at],
        one.member.ledger.movements,
        other.sessions[place],
        other.member.ledger.movements,
    )


def _lines(spans: Iterable[Span]) -> list[tuple[object, ...]]:
    return [
        (line.kind, tuple(map(fold, line.movements)), tuple(map(len, line.units)), line.fixed)
        for line in spans
    ]


def uneven_lines(starts: Sequence[Start], shared: SharedSession) -> frozenset[int]:
    """The numbers of a shared session's lines whose sets count differently for somebody."""
    found: set[int] = set()
    for number, place in shared.places.items():
        start = starts[number]
        session = start.sessions[place]
        for line in start.spans[place]:
            if not are_alike(measured_units(start.judge.ledger, session, line)):
                found.add(line.number)
    return frozenset(found)
