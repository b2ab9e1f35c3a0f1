"""The audit as one JSON document."""

from __future__ import annotations

from typing import Any, Final

from dialback.core.audit import Audit, compliance, sessions_done
from dialback.core.balance import Weighing, weigh_all
from dialback.core.baseline import Change
from dialback.core.causes import Cause, causes
from dialback.core.duration import warm_up_s
from dialback.core.figures import TOTALS, in_total, of_muscle, of_pattern
from dialback.core.findings import Finding
from dialback.core.measures import MEASURES, MUSCLE_MEASURES
from dialback.core.remedies import clears
from dialback.core.schools import under_schools
from dialback.core.tally import Ledger
from dialback.core.verdict import News, news
from dialback.core.vocabulary import LEFT_RIGHT, MUSCLES, PAIRS, Basis
from dialback.core.weeks import Week

DECIMALS: Final = 4


def _round(value: float | None) -> float | None:
    return None if value is None else round(value, DECIMALS) + 0.0


def audit_document(result: Audit, athlete: str) -> dict[str, Any]:
    """The audit as the contract's JSON document."""
    value = result.value
    document: dict[str, Any] = {
        "athlete": athlete,
        "week": str(result.week),
        "basis": result.basis,
        "totals": {
            name: int(value(in_total(name)))
            if name.endswith("_rep_sets") or name.endswith("_tempo_sets")
            else _round(value(in_total(name)))
            for name in TOTALS
        }
        | {"warm_up_s": _round(warm_up_s(result.entries))},
        "muscles": {
            muscle: {name: _round(value(of_muscle(muscle, name))) for name in MUSCLE_MEASURES}
            for muscle in MUSCLES
        },
        "patterns": {
            pattern: {name: _round(value(of_pattern(pattern, name))) for name in MEASURES}
            for pattern in result.patterns
        },
        "balance": {
            pair.name: {
                measure: _weighing(weighing)
                for measure, weighing in weigh_all(result.tally, result.entries, pair).items()
            }
            for pair in (*PAIRS, LEFT_RIGHT)
        },
        "jumps": {
            "baseline": result.baseline.kind,
            "baseline_weeks": [str(week) for week in result.baseline.weeks],
            "totals": {name: _change(result.change(in_total(name))) for name in MEASURES},
            "muscles": {
                muscle: {
                    name: _change(result.change(of_muscle(muscle, name)))
                    for name in MUSCLE_MEASURES
                }
                for muscle in MUSCLES
            },
        },
        "findings": [_finding(finding, result) for finding in result.findings],
        "causes": [_cause(cause) for cause in causes(result)],
        "verdict": [_line(line) for line in news(result)],
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
        loads = result.session_loads
        document["sessions"] = {
            "load": _round(loads.load),
            "monotony": _round(loads.monotony),
            "strain": _round(loads.strain),
            "density_kg_min": _round(loads.density_kg_min),
        }
    return document


def _weighing(weighing: Weighing) -> dict[str, float | None]:
    return {"a": _round(weighing.a), "b": _round(weighing.b), "ratio": _round(weighing.ratio)}


def _change(change: Change) -> dict[str, float | None]:
    return {
        "base": _round(change.base),
        "value": _round(change.value),
        "change": _round(change.change),
    }


def _cause(cause: Cause) -> dict[str, Any]:
    return {
        "code": cause.code,
        "subject": cause.subject,
        "sentence": cause.sentence,
        "explains": [list(finding.key) for finding in cause.explains],
    }


def _line(line: News) -> dict[str, Any]:
    return {
        "kind": line.kind,
        "level": line.level,
        "sentence": line.sentence,
        "causes": [list(cause) for cause in line.causes],
        "explains": [list(key) for key in line.explains],
        "since": str(line.since),
        "ask": line.ask,
        "points": [[str(week), _round(value)] for week, value in line.points],
    }


def schools_document(ledger: Ledger, week: Week, basis: Basis) -> dict[str, list[list[str]]]:
    """The findings under each school, as the contract has them."""
    return {
        name: [[*finding.key, finding.level] for finding in result.findings]
        for name, result in under_schools(ledger, week, basis).items()
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
        "limit": _round(finding.limit),
        "sentence": finding.sentence,
        "clears": clears(result.in_hand, finding),
        "trail": [
            {
                "date": entry.entry.session.date.isoformat(),
                "session": entry.entry.session.title,
                "set": entry.entry.at,
                "credit": _round(entry.credit),
            }
            for entry in finding.trail(entries)
        ],
    }
