"""The audit: a week of a ledger, put together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta
from functools import cached_property
from typing import Final

from dialback.core.baseline import Baseline, Change, baseline, heaviest_before, is_lighter
from dialback.core.breaks import Break, as_planned_from_here, break_before
from dialback.core.figures import TOTAL_SETS, in_total, of_pattern
from dialback.core.findings import AgainstPlan, Finding, WeekInHand, find
from dialback.core.matching.sessions import counted_sets, group_sessions
from dialback.core.measures import MEASURES, TITLES
from dialback.core.once import Memo, Once
from dialback.core.reconcile import SessionMatch, match_sessions
from dialback.core.sessions import Session, Set
from dialback.core.strain import SessionLoads, session_loads
from dialback.core.tally import Entry, Ledger, Measures, Tally, added_up, measured, rough, tally
from dialback.core.vocabulary import BASES, PATTERNS, Basis
from dialback.core.weeks import Week
from dialback.core.words import percent

OPPOSED: Final = 0.10
"""Measures that move apart by more than this share each are said to disagree."""


@dataclass(frozen=True, slots=True)
class Share:
    """Done of planned, in the unit of the measure."""

    planned: float
    done: float

    @property
    def share(self) -> float | None:
        """Done of planned as a ratio; ``None`` of nothing planned."""
        return self.done / self.planned if self.planned else None


@dataclass(frozen=True)
class Audit:
    """What one week of one athlete comes to, and what it is judged to be."""

    week: Week
    basis: Basis
    ledger: Ledger
    entries: tuple[Entry, ...]
    tally: Tally
    baseline: Baseline
    in_hand: WeekInHand
    kept: Memo = field(default_factory=dict, compare=False, repr=False)
    """Room for what others work out of it once; it goes when the audit goes."""

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Findings in the order of code, subject and measure."""
        return find(self.in_hand)

    @cached_property
    def rough(self) -> frozenset[str]:
        """The figures that rest on an estimate or an assumption."""
        return rough(self.entries)

    @cached_property
    def measured(self) -> frozenset[str]:
        """The figures that rest on a measurement."""
        return measured(self.entries)

    def value(self, figure: str) -> float:
        """A figure's sum; 0 where nothing credits it."""
        return self.tally.get(figure, 0.0)

    def change(self, figure: str) -> Change:
        """A figure against its base."""
        return Change(self.baseline.base(figure), self.value(figure))

    @property
    def session_loads(self) -> SessionLoads:
        """Load, monotony, strain and density of the week's sessions."""
        volume = self.value(in_total("volume_load_kg"))
        return session_loads(self.in_hand.sessions, self.week, self.entries, volume)

    @property
    def disagreement(self) -> str | None:
        """Where two of the four measures moved in opposite directions by more than 10 %."""
        changes = {name: self.change(in_total(name)).change for name in MEASURES}
        up = [name for name, change in changes.items() if change is not None and change > OPPOSED]
        down = [
            name for name, change in changes.items() if change is not None and change < -OPPOSED
        ]
        if not up or not down:
            return None
        rising, falling = (
            " and ".join(f"{TITLES[name]} ({percent(changes[name] or 0)})" for name in names)
            for names in (up, down)
        )
        return f"The measures disagree against the baseline: {rising} up, {falling} down."

    @property
    def patterns(self) -> list[str]:
        """The patterns that occur, in the order of the vocabulary."""
        return [name for name in PATTERNS if of_pattern(name, "sets") in self.tally]

    @property
    def movements(self) -> tuple[str, ...]:
        """The movements in the sums, in the order in which they were first done."""
        return self.in_hand.movements


def audit(
    ledger: Ledger, week: Week, basis: Basis = "completed", as_of: date | None = None
) -> Audit:
    """Audit a week of the ledger, as completed or as planned.

    A plan of a day from ``as_of`` on is not due yet: it is neither missed nor counted against.
    Where nobody says what day it is, plans are due up to the last completed day.
    """
    if as_of is None and ledger.last_done is not None:
        as_of = ledger.last_done + timedelta(days=1)
    due = None if as_of is not None and as_of > week.sunday else max(as_of or date.min, week.monday)
    key = (basis, week, due)
    return _AUDITS.of(ledger.kept, key, lambda: _audit(ledger, week, basis, due))


_AUDITS: Final = Once[tuple[Basis, Week, date | None], Audit]()


def against_plan(
    ledger: Ledger, week: Week, due: date | None, completed: Sequence[Session] | None = None
) -> AgainstPlan:
    """The week's plan beside its log, or beside other sessions in place of it.

    Plans of days from ``due`` on count once they are done.
    """
    matches = tuple(
        match
        for match in matches_of(ledger, week, completed)
        if match.done is not None or match.plan is None or due is None or match.plan.date < due
    )
    wanted = {id(plan) for match in matches for plan in match.plans}
    planned = tuple(
        entry for entry in ledger.entries("planned", week) if id(entry.session) in wanted
    )
    return AgainstPlan(planned, matches, ledger.movements)


def matches_of(
    ledger: Ledger, week: Week, completed: Sequence[Session] | None = None
) -> tuple[SessionMatch, ...]:
    """The week's plan and its log, or other sessions in place of it, side by side.

    A session that says it was done for a day of another week stands beside the plan of that day.
    """
    if completed is None:
        own = ledger.source.week("completed", week)
        return _MATCHES.of(ledger.kept, week, lambda: _matched(ledger, week, own))
    return _matched(ledger, week, completed, _MATCHES.known(ledger.kept, week) or ())


_MATCHES: Final = Once[Week, tuple[SessionMatch, ...]]()


def _matched(
    ledger: Ledger, week: Week, done: Sequence[Session], known: tuple[SessionMatch, ...] = ()
) -> tuple[SessionMatch, ...]:
    planned = [*ledger.source.week("planned", week), *_plans_of_others(ledger, week, done)]
    return match_sessions(planned, done, ledger.movements, _done_elsewhere(ledger, week), known)


def _plans_of_others(ledger: Ledger, week: Week, completed: Sequence[Session]) -> list[Session]:
    """The planned sessions of other weeks on the days that sessions of this one name."""
    days = {one.plan for one in completed if one.plan is not None and Week.of(one.plan) != week}
    return [
        plan
        for day in sorted(days)
        for plan in ledger.source.week("planned", Week.of(day))
        if plan.date == day
    ]


def audit_draft(
    ledger: Ledger, week: Week, sessions: Sequence[Session], known: Measures | None = None
) -> Audit:
    """Audit sessions that are not in the ledger as the plan of a week.

    ``known`` has what was measured of them before, and takes what is measured now.
    """
    entries = ledger.measure(sessions, known)
    sums = tally(entries)
    return _judged(ledger, week, "planned", tuple(sessions), entries, sums, None)


def _audit(ledger: Ledger, week: Week, basis: Basis, due: date | None) -> Audit:
    return _judged(
        ledger,
        week,
        basis,
        tuple(ledger.source.week(basis, week)),
        ledger.entries(basis, week),
        ledger.tally(basis, week),
        against_plan(ledger, week, due) if basis == "completed" else None,
    )


def _judged(
    ledger: Ledger,
    week: Week,
    basis: Basis,
    sessions: tuple[Session, ...],
    entries: tuple[Entry, ...],
    sums: Tally,
    against: AgainstPlan | None,
) -> Audit:
    base, heaviest, ended_break = _BEFORE.of(
        ledger.kept, (basis, week), lambda: _before(ledger, week, basis)
    )
    in_hand = WeekInHand(
        week,
        basis,
        ledger,
        sessions,
        entries,
        sums,
        base,
        heaviest,
        lighter=_meant_light(ledger, week, basis, sums),
        ended_break=ended_break,
        against=against,
    )
    return Audit(week, basis, ledger, entries, sums, base, in_hand)


Before = tuple[Baseline, Mapping[str, Set], Break | None]
"""What a week is judged against: its baseline, the heaviest sets, the break that it ends."""

_BEFORE: Final = Once[tuple[Basis, Week], Before]()


def _before(ledger: Ledger, week: Week, basis: Basis) -> Before:
    earlier = as_planned_from_here(ledger) if basis == "planned" else ledger
    return baseline(ledger, week), heaviest_before(ledger, week), break_before(earlier, week)


def with_sets(
    drafted: Audit,
    sessions: tuple[Session, ...],
    entries: tuple[Entry, ...],
    days: Mapping[date, Tally],
) -> WeekInHand:
    """The week of a draft with other sets, whose findings are only counted.

    ``days`` has the sums of each day.
    """
    sums = added_up(days.values())
    return replace(
        drafted.in_hand,
        sessions=sessions,
        entries=entries,
        tally=sums,
        days=days,
        bare=True,
        lighter=_meant_light(drafted.ledger, drafted.week, drafted.basis, sums),
    )


def _meant_light(ledger: Ledger, week: Week, basis: Basis, sums: Tally) -> bool:
    """Whether a week is a lighter one; a completed one only if its plan is, where it has one."""
    if not is_lighter(ledger, week, sums.get(TOTAL_SETS, 0.0)):
        return False
    if basis == "planned" or not ledger.source.week("planned", week):
        return True
    return is_lighter(ledger, week, ledger.tally("planned", week).get(TOTAL_SETS, 0.0))


def sessions_done(ledger: Ledger, week: Week) -> Share:
    """Planned sessions, and how many of them something was done for."""
    return Share(len(ledger.source.week("planned", week)), len(plans_done(ledger, week)))


def nothing_done_yet(ledger: Ledger, week: Week, today: date) -> bool:
    """Whether a week that is not over has no session done: there is nothing to judge or sign."""
    return week.sunday >= today and not ledger.source.week("completed", week)


def sessions_unlogged(ledger: Ledger, week: Week) -> int:
    """Planned sessions that nothing was done for, and nobody has said why."""
    done = plans_done(ledger, week)
    planned = ledger.source.week("planned", week)
    return sum(at not in done and one.missed is None for at, one in enumerate(planned))


def plans_done(ledger: Ledger, week: Week) -> frozenset[int]:
    """The places of the week's planned sessions that are done: that a completed one is for.

    A session of another week counts where it says that it was done for a day of this one.
    """
    return frozenset(shares_done(ledger, week))


def shares_done(ledger: Ledger, week: Week) -> Mapping[int, float]:
    """How much of each planned session was done: its counted sets done of those planned.

    By the places of those that a completed session is for; 1 of one that was done in another week.
    """
    return _SHARES_DONE.of(ledger.kept, week, lambda: _shares_done(ledger, week))


_SHARES_DONE: Final = Once[Week, Mapping[int, float]]()


def _shares_done(ledger: Ledger, week: Week) -> dict[int, float]:
    planned, completed = (ledger.source.week(basis, week) for basis in BASES)
    elsewhere = _done_elsewhere(ledger, week)
    shares = dict.fromkeys(elsewhere, 1.0)

    def counted(session: Session) -> int:
        return counted_sets(session, ledger.movements).total()

    for group in group_sessions(planned, completed, ledger.movements, elsewhere):
        if group.dones:
            asked = sum(counted(planned[at]) for at in group.plans)
            done = sum(counted(completed[at]) for at in group.dones)
            shares |= dict.fromkeys(group.plans, done / asked if asked else 1.0)
    return shares


LINKED_WEEKS: Final = 4
"""So far away a session is looked for that says it was done for a day of the week."""


def _done_elsewhere(ledger: Ledger, week: Week) -> frozenset[int]:
    """The places of a week's planned sessions that sessions of other weeks were done for."""
    planned = ledger.source.week("planned", week)
    near = (week.plus(by) for by in range(-LINKED_WEEKS, LINKED_WEEKS + 1) if by)
    strangers = [
        session
        for one in near
        for session in ledger.source.week("completed", one)
        if session.plan is not None and Week.of(session.plan) == week
    ]
    if not strangers:
        return frozenset()
    groups = group_sessions(planned, strangers, ledger.movements)
    return frozenset(plan for group in groups if group.dones for plan in group.plans)


def compliance(ledger: Ledger, week: Week) -> dict[str, Share]:
    """Share done of the plan, by measure."""
    planned, done = (ledger.tally(basis, week) for basis in ("planned", "completed"))
    return {
        name: Share(planned.get(in_total(name), 0.0), done.get(in_total(name), 0.0))
        for name in MEASURES
    }
