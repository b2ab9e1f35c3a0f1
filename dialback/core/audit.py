"""The audit: a week of a ledger, put together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import cached_property
from typing import Any, Final

from dialback.core.balance import weigh
from dialback.core.baseline import Baseline, Change, baseline, heaviest_before
from dialback.core.findings import AgainstPlan, Finding, WeekInHand, find
from dialback.core.matching import pair_sessions
from dialback.core.reconcile import match_sessions
from dialback.core.sessions import Session
from dialback.core.sides import Sides, left_right, upper_lower
from dialback.core.strain import session_loads
from dialback.core.tally import TOTALS, Entry, Ledger, Tally, measured, rough, tally
from dialback.core.vocabulary import (
    MEASURES,
    MUSCLE_MEASURES,
    MUSCLES,
    PAIRS,
    PATTERNS,
    TITLES,
    Basis,
)
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
    def disagreement(self) -> str | None:
        """Where two of the four measures moved in opposite directions by more than 10 %."""
        changes = {name: self.change(f"totals/{name}").change for name in MEASURES}
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
        return [name for name in PATTERNS if f"patterns/{name}/sets" in self.tally]

    @property
    def movements(self) -> list[str]:
        """The movements in the sums, in the order in which they were first done."""
        names = (
            move.movement.name
            for entry in self.entries
            if entry.measured.shape.standing in ("hard", "easy")
            for move in entry.measured.shape.moves
        )
        return list(dict.fromkeys(names))


def audit(
    ledger: Ledger, week: Week, basis: Basis = "completed", as_of: date | None = None
) -> Audit:
    """Audit a week of the ledger, as completed or as planned.

    A plan of a day from ``as_of`` on is not due yet: it is neither missed nor counted against.
    """
    due = None if as_of is None or as_of > week.sunday else max(as_of, week.monday)
    key = ("audit", basis, week, due)
    kept: Audit | None = ledger.kept.get(key)
    if kept is None:
        entries, sums = ledger.entries(basis, week), ledger.tally(basis, week)
        against = against_plan(ledger, week, due) if basis == "completed" else None
        kept = ledger.kept[key] = _audit(ledger, week, basis, entries, sums, against)
    return kept


def against_plan(ledger: Ledger, week: Week, due: date | None = None) -> AgainstPlan:
    """The week's plan beside its log. Plans of days from ``due`` on count once they are done."""
    matches = tuple(
        match
        for match in match_sessions(
            ledger.source.week("planned", week),
            ledger.source.week("completed", week),
            ledger.movements,
        )
        if match.done is not None or match.plan is None or due is None or match.plan.date < due
    )
    linked = _linked_from_elsewhere(ledger, week)
    matches = tuple(
        replace(match, elsewhere=True)
        if match.done is None and match.plan is not None and match.plan.date in linked
        else match
        for match in matches
    )
    wanted = {id(match.plan) for match in matches}
    planned = tuple(
        entry for entry in ledger.entries("planned", week) if id(entry.session) in wanted
    )
    return AgainstPlan(planned, matches, ledger.movements)


def audit_draft(ledger: Ledger, week: Week, sessions: Sequence[Session]) -> Audit:
    """Audit sessions that are not in the ledger as the plan of a week."""
    entries = ledger.measure(sessions)
    return _audit(ledger, week, "planned", entries, tally(entries))


def _audit(
    ledger: Ledger,
    week: Week,
    basis: Basis,
    entries: tuple[Entry, ...],
    sums: Tally,
    against: AgainstPlan | None = None,
) -> Audit:
    key = ("before", week)
    before: tuple[Baseline, Mapping[str, float]] | None = ledger.kept.get(key)
    if before is None:
        before = ledger.kept[key] = (baseline(ledger, week), heaviest_before(ledger, week))
    base, heaviest = before
    in_hand = WeekInHand(entries, sums, base, heaviest, ledger.rules, against, ledger.restrictions)
    return Audit(week, basis, ledger, entries, sums, base, in_hand)


def sessions_done(ledger: Ledger, week: Week) -> Share:
    """Planned sessions, and how many of them something was done for."""
    return Share(len(ledger.source.week("planned", week)), len(plans_done(ledger, week)))


def plans_done(ledger: Ledger, week: Week) -> frozenset[int]:
    """The places of the week's planned sessions that are done: that a completed one is for.

    A session of another week counts where it says that it was done for a day of this one.
    """
    key = ("plans done", week)
    kept: frozenset[int] | None = ledger.kept.get(key)
    if kept is None:
        planned, completed = (ledger.source.week(basis, week) for basis in ("planned", "completed"))
        pairs = pair_sessions(planned, completed)
        done = {pair.plan for pair in pairs if pair.plan is not None and pair.dones}
        linked = _linked_from_elsewhere(ledger, week)
        done |= {at for at, plan in enumerate(planned) if plan.date in linked}
        kept = ledger.kept[key] = frozenset(done)
    return kept


LINKED_WEEKS: Final = 4
"""So far away a session is looked for that says it was done for a day of the week."""


def _linked_from_elsewhere(ledger: Ledger, week: Week) -> set[date]:
    """The planned days of a week that sessions of other weeks were done for."""
    near = (week.plus(by) for by in range(-LINKED_WEEKS, LINKED_WEEKS + 1) if by)
    return {
        session.plan
        for one in near
        for session in ledger.source.week("completed", one)
        if session.plan is not None and Week.of(session.plan) == week
    }


def compliance(ledger: Ledger, week: Week) -> dict[str, Share]:
    """Share done of the plan, by measure."""
    planned, done = (ledger.tally(basis, week) for basis in ("planned", "completed"))
    return {
        name: Share(planned.get(f"totals/{name}", 0.0), done.get(f"totals/{name}", 0.0))
        for name in MEASURES
    }


DECIMALS = 4


def _round(value: float | None) -> float | None:
    return None if value is None else round(value, DECIMALS) + 0.0


def as_document(result: Audit, athlete: str) -> dict[str, Any]:
    """The audit as the contract's JSON document."""
    value = result.value
    document: dict[str, Any] = {
        "athlete": athlete,
        "week": str(result.week),
        "basis": result.basis,
        "totals": {
            name: int(value(f"totals/{name}"))
            if name.endswith("_rep_sets") or name.endswith("_tempo_sets")
            else _round(value(f"totals/{name}"))
            for name in TOTALS
        },
        "muscles": {
            muscle: {name: _round(value(f"muscles/{muscle}/{name}")) for name in MUSCLE_MEASURES}
            for muscle in MUSCLES
        },
        "patterns": {
            pattern: {name: _round(value(f"patterns/{pattern}/{name}")) for name in MEASURES}
            for pattern in result.patterns
        },
        "balance": {
            pair.name: {
                name: {
                    "a": _round((weighing := weigh(result.tally, pair, name)).a),
                    "b": _round(weighing.b),
                    "ratio": _round(weighing.ratio),
                }
                for name in pair.measures
            }
            for pair in PAIRS
        }
        | {
            name: _sides(sides)
            for name, sides in (
                ("left_right", left_right(result.entries)),
                ("upper_lower", upper_lower(result.entries)),
            )
        },
        "jumps": {
            "baseline": result.baseline.kind,
            "baseline_weeks": [str(week) for week in result.baseline.weeks],
            "totals": {name: _change(result.change(f"totals/{name}")) for name in MEASURES},
            "muscles": {
                muscle: {
                    name: _change(result.change(f"muscles/{muscle}/{name}"))
                    for name in MUSCLE_MEASURES
                }
                for muscle in MUSCLES
            },
        },
        "findings": [_finding(finding, result) for finding in result.findings],
    }
    if result.basis == "completed":
        sessions = sessions_done(result.ledger, result.week)
        document["compliance"] = {
            "sessions": {"planned": int(sessions.planned), "done": int(sessions.done)},
            **{
                name: {
                    "planned": _round(share.planned),
                    "done": _round(share.done),
                    "share": _round(share.share),
                }
                for name, share in compliance(result.ledger, result.week).items()
            },
        }
        loads = session_loads(
            result.ledger.source.week("completed", result.week),
            result.week,
            result.entries,
            {name: value(f"totals/{name}") for name in ("volume_load_kg", "work_s")},
        )
        document["sessions"] = {
            "load": _round(loads.load),
            "monotony": _round(loads.monotony),
            "strain": _round(loads.strain),
            "density_kg_min": _round(loads.density_kg_min),
        }
    return document


def _sides(sides: Sides) -> dict[str, dict[str, float | None]]:
    return {
        measure: {"a": _round(a), "b": _round(b), "ratio": _round(a / b if b else None)}
        for measure, (a, b) in sides.items()
    }


def _change(change: Change) -> dict[str, float | None]:
    return {
        "base": _round(change.base),
        "value": _round(change.value),
        "change": _round(change.change),
    }


def _finding(finding: Finding, result: Audit) -> dict[str, Any]:
    against = result.in_hand.against
    entries = against.planned if finding.of_plan and against else result.entries
    return {
        "code": finding.code,
        "subject": finding.subject,
        "measure": finding.measure,
        "level": finding.level,
        "value": _round(finding.value),
        "limit": finding.limit,
        "sentence": finding.sentence,
        "clears": finding.clears,
        "trail": [
            {"date": one.entry.session.date.isoformat(), "session": one.entry.session.title,
             "set": one.entry.at, "credit": _round(one.credit)}
            for one in finding.trail(entries)
        ],
    }  # fmt: skip
