"""Proposals for a squad: one change of what several share, right for as many as can be.

Source: Dial Back's contract, *Squads*.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from dialback.core.adjusting.judged import CAUTION_WEIGHT, HIGH_WEIGHT
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.propose import adjust
from dialback.core.adjusting.reasons import costs_sentence, stays
from dialback.core.adjusting.result import Remaining, Rung
from dialback.core.audit import audit_draft
from dialback.core.findings import Finding
from dialback.core.sessions import Session
from dialback.core.squads.adjusting.changes import Reasons
from dialback.core.squads.adjusting.plan import FoundSquad, SquadPlan
from dialback.core.squads.adjusting.result import Apart, ForAll, Levels, Outcome, SquadProposal
from dialback.core.squads.adjusting.search import SquadSearch
from dialback.core.squads.adjusting.starts import (
    Given,
    GivenBy,
    SharedSession,
    Start,
    shared_sessions,
    starts_of,
)
from dialback.core.squads.programmes import Member
from dialback.core.weeks import Week


@dataclass(frozen=True)
class _Part:
    """The proposal for athletes who have nothing in common with the others."""

    numbers: tuple[int, ...]
    shared: tuple[ForAll, ...]
    exceptions: tuple[Apart, ...]
    outcomes: tuple[Outcome, ...]
    rungs: tuple[Rung, ...]
    stop: int
    optimal: bool
    whole: bool
    why: str = ""
    """Of an athlete alone: what the next rung would cost and clear."""


def adjust_squad(
    members: Sequence[Member], week: Week, options: Options, given: GivenBy | None = None
) -> SquadProposal:
    """The proposed plans of a week for all at once; who has nothing to start from has none.

    Nobody has a finding at a worse level; wanted is the least weight of what is left, summed over
    the athletes, and cost together. Without a shared session each athlete is proposed for alone.
    Raises ``NothingToStartFromError`` where nobody has a plan to begin with.
    """
    starts = starts_of(members, week, offer=options.new_movements > 0, given=given)
    shared = shared_sessions(starts)
    if not shared:
        parts = [
            _alone(start, at, week, options, (given or {}).get(start.member.name, Given()))
            for at, start in enumerate(starts)
        ]
    else:
        parts = []
        left = options.seconds
        # The small ones first: what they leave of the time is the others'.
        groups = sorted(_together(len(starts), shared), key=len)
        for at, group in enumerate(groups):
            share = left * len(group) / sum(map(len, groups[at:]))
            part, rest = _of_part(group, starts, shared, replace(options, seconds=share))
            left -= share - rest
            parts.append(part)
    return _merged(members, starts, parts, week)


def _together(count: int, shared: Iterable[SharedSession]) -> list[tuple[int, ...]]:
    """The athletes in groups that share sessions, directly or through somebody."""
    group = list(range(count))
    for one in shared:
        joined = {group[number] for number in one.places}
        group = [min(joined) if at in joined else at for at in group]
    return [
        tuple(at for at in range(count) if group[at] == first) for first in dict.fromkeys(group)
    ]


def _alone(start: Start, number: int, week: Week, options: Options, given: Given) -> _Part:
    """One athlete's own proposal."""
    own = replace(options, accepted=given.accepted)
    found = adjust(start.member.ledger, week, own, start.sessions, given.done_days)
    apart = (Apart(start.member.name, found.changes),) if found.changes else ()
    outcome = _outcome(start, found.sessions, found.cleared, found.remaining)
    return _Part(
        (number,), (), apart, (outcome,), found.ladder, found.stop, found.optimal, found.optimal,
        found.why,
    )  # fmt: skip


def _of_part(
    numbers: tuple[int, ...],
    starts: Sequence[Start],
    shared: Sequence[SharedSession],
    options: Options,
) -> tuple[_Part, float]:
    """The proposal for athletes who share sessions, and the seconds that it leaves."""
    own = tuple(starts[number] for number in numbers)
    places = {number: at for at, number in enumerate(numbers)}
    plan = SquadPlan(
        own,
        tuple(
            SharedSession({places[number]: place for number, place in one.places.items()})
            for one in shared
            if one.first in places
        ),
    )
    search = SquadSearch(plan, options)
    best = search.search()
    reasons = Reasons(plan, best)
    outcomes = tuple(
        _outcome(
            start,
            best.sessions[at],
            tuple(one for key, one in start.judge.at_start.items() if (at, key) not in best.left),
            _remaining(search, best, at),
        )
        for at, start in enumerate(own)
    )
    part = _Part(
        numbers,
        reasons.for_all(),
        reasons.apart(),
        outcomes,
        tuple(search.rung_of(found) for found in search.rungs),
        search.rungs.index(best),
        best.optimal,
        search.is_whole,
    )
    return part, max(0.0, search.left.seconds)


def _remaining(search: SquadSearch, best: FoundSquad, number: int) -> tuple[Remaining, ...]:
    found = []
    for (at, key), finding in best.left.items():
        if at != number:
            continue
        rung = search.gone_from((at, key))
        if rung is None:
            found.append(Remaining(finding, None, (), _not_worth_it(finding)))
        else:
            in_all = search.rungs[rung].cost
            words = costs_sentence(finding, in_all - best.cost, in_all)
            found.append(Remaining(finding, rung, (), words))
    return tuple(found)


def _not_worth_it(finding: Finding) -> str:
    return (
        f"{stays(finding)}: clearing it would cost the squad more than it is worth, or make "
        "somebody worse."
    )


def _outcome(
    start: Start,
    sessions: tuple[Session, ...],
    cleared: tuple[Finding, ...],
    remaining: tuple[Remaining, ...],
) -> Outcome:
    after = audit_draft(start.judge.ledger, start.judge.start.week, sessions)
    return Outcome(
        start.member,
        sessions,
        Levels.of(start.judge.start.findings),
        Levels.of(after.findings),
        cleared,
        remaining,
    )


# Several parts are one proposal.


@dataclass(frozen=True, slots=True)
class _Stop:
    """A place in the ladder of all: the rung of each part that it is made of."""

    rung: Rung
    places: tuple[int, ...]

    @property
    def weight(self) -> int:
        return HIGH_WEIGHT * self.rung.high + CAUTION_WEIGHT * self.rung.caution


def _ladder(parts: Sequence[_Part]) -> list[_Stop]:
    """The least cost at which the weight of all becomes less, from the start on."""
    stops = [_Stop(Rung(0, 0, 0), ())]
    for part in parts:
        both = [
            _Stop(
                Rung(
                    stop.rung.cost + rung.cost,
                    stop.rung.high + rung.high,
                    stop.rung.caution + rung.caution,
                ),
                (*stop.places, place),
            )
            for stop in stops
            for place, rung in enumerate(part.rungs)
        ]
        stops = []
        for one in sorted(both, key=lambda one: (one.rung.cost, one.weight, one.rung.high)):
            if not stops or one.weight < stops[-1].weight:
                stops.append(one)
    return stops


def _merged(
    members: Sequence[Member], starts: Sequence[Start], parts: Sequence[_Part], week: Week
) -> SquadProposal:
    ladder = _ladder(parts)
    chosen = tuple(part.stop for part in parts)
    cost = sum(part.rungs[part.stop].cost for part in parts)
    stop = next(
        (at for at, one in enumerate(ladder) if one.places == chosen),
        # As good as another way to the same place.
        max(at for at, one in enumerate(ladder) if one.rung.cost <= cost),
    )
    by_name: dict[str, Outcome] = {}
    for at, part in enumerate(parts):
        for outcome in part.outcomes:
            left = tuple(_in_all(one, ladder, at) for one in outcome.remaining)
            by_name[outcome.member.name] = replace(outcome, remaining=left)
    whole = all(part.whole for part in parts)
    apart = {one.athlete: one for part in parts for one in part.exceptions}
    return SquadProposal(
        week,
        tuple(one for part in parts for one in part.shared),
        tuple(apart[one.name] for one in members if one.name in apart),
        tuple(by_name.get(one.name) or _nothing(one) for one in members),
        cost,
        whole and all(part.optimal for part in parts),
        tuple(one.rung for one in ladder),
        stop,
        (parts[0].why if len(parts) == 1 else "") or _why(ladder, stop, whole=whole),
    )


def _in_all(one: Remaining, ladder: Sequence[_Stop], part: int) -> Remaining:
    """A finding that stays, with its place in the ladder of all."""
    if one.rung is None:
        return one
    at = len(ladder)
    while at and ladder[at - 1].places[part] >= one.rung:
        at -= 1
    return replace(one, rung=at if at < len(ladder) else None)


def _nothing(member: Member) -> Outcome:
    """Of an athlete who has nothing to start from."""
    return Outcome(member, (), Levels(0, 0), Levels(0, 0), (), ())


def _why(ladder: Sequence[_Stop], stop: int, *, whole: bool) -> str:
    """What the next rung of the ladder would cost and clear."""
    if stop + 1 == len(ladder):
        if whole:
            return "Nothing more can be cleared within the bounds."
        return "There was no time to find out whether more change would clear more."
    here, following = ladder[stop].rung, ladder[stop + 1].rung
    return (
        f"The next stop costs {following.cost} instead of {here.cost} and leaves "
        f"{_counted(following)} instead of {_counted(here)}."
    )


def _counted(rung: Rung) -> str:
    return f"{rung.high} high and {rung.caution} caution"
