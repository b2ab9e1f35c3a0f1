"""An audit as a table to read in a terminal."""

from __future__ import annotations

from tabulate import tabulate

from dialback.core.audit import Audit, compliance, sessions_done
from dialback.core.balance import weigh
from dialback.core.baseline import Change
from dialback.core.findings import CODES
from dialback.core.vocabulary import MEASURES, MUSCLES, PAIRS, TITLES, label
from dialback.core.words import number, percent

_UNITS = {"volume_load_kg": ", kg", "tut_s": ", s", "work_s": ", s", "conditioning_s": ", s"}
_TOTALS = (*MEASURES, "work_s", "conditioning_s")


def audit_table(result: Audit, athlete: str) -> str:
    """The whole audit as text."""
    base = ", ".join(str(week) for week in result.baseline.weeks) or "no trained week before"
    return "\n\n".join(
        [
            f"{athlete}, week {result.week}, {result.basis}\n"
            f"Baseline: {result.baseline.kind} ({base})",
            _totals(result),
            _pairs(result),
            _muscles(result),
            _findings(result),
            "The numbers are an aid to the coach, not medical advice and not a forecast of injury.",
        ]
    )


def _totals(result: Audit) -> str:
    shares = compliance(result.ledger, result.week) if result.basis == "completed" else {}
    rows = []
    for name in _TOTALS:
        share = shares.get(name)
        rows.append(
            [
                TITLES[name] + _UNITS.get(name, ""),
                number(result.value(f"totals/{name}"), 1),
                number(share.planned, 1) if share else "",
                f"{share.share:.0%}" if share and share.share is not None else "",
                *(_change(result.change(f"totals/{name}")) if name in MEASURES else ["", ""]),
            ]
        )
    text = _table(rows, ["Totals", "value", "plan", "share", "base", "change"])
    notes = [
        f"{number(result.value(f'totals/{name}'))} sets with {what}"
        for name, what in (
            ("estimated_rep_sets", "reps estimated from their seconds"),
            ("assumed_tempo_sets", "an assumed tempo"),
        )
        if result.value(f"totals/{name}")
    ]
    if shares:
        done = sessions_done(result.ledger, result.week)
        notes.insert(0, f"{number(done.done)} of {number(done.planned)} planned sessions done")
    return text + ("\n" + "; ".join(notes) if notes else "")


def _pairs(result: Audit) -> str:
    rows = []
    for pair in PAIRS:
        low, high = result.ledger.rules.balance_bands[pair.name]
        sets = weigh(result.tally, pair, "sets")
        ratios = [
            "–"
            if name not in pair.measures or (ratio := weigh(result.tally, pair, name).ratio) is None
            else f"{ratio:.2f}"
            for name in MEASURES
        ]
        rows.append(
            [" : ".join(pair.labels), f"{number(sets.a)} : {number(sets.b)}", *ratios,
             f"{number(low)}–{number(high)}"]
        )  # fmt: skip
    heads = ["Pairs", "sets a : b", "sets", "reps", "volume load", "tension", "band"]
    return _table(rows, heads)


def _muscles(result: Audit) -> str:
    rows = []
    for muscle in MUSCLES:
        low, high = result.ledger.rules.muscle_bands[muscle]  # type: ignore[index]
        change = result.change(f"muscles/{muscle}/sets")
        rows.append(
            [
                label(muscle),
                number(change.value),
                *_change(change),
                f"{number(low)}–{number(high)}",
                number(result.value(f"muscles/{muscle}/volume_load_kg"), 0),
                number(result.value(f"muscles/{muscle}/tut_s"), 0),
            ]
        )
    heads = ["Muscles", "sets", "base", "change", "band", "volume load, kg", "tension, s"]
    return _table(rows, heads)


def _findings(result: Audit) -> str:
    if not result.findings:
        return "No findings."
    titles = {code.code: code.title for code in CODES}
    rows = [
        f"  {finding.level.upper():8}{titles[finding.code]}. {finding.sentence} {finding.clears}"
        for finding in sorted(result.findings, key=lambda one: one.level != "high")
    ]
    return "\n".join([f"Findings: {len(rows)}", *rows])


def _change(change: Change) -> list[str]:
    base = "" if change.base is None else number(change.base, 1)
    return [base, "" if change.change is None else percent(change.change)]


def _table(rows: list[list[str]], heads: list[str]) -> str:
    align = ("left", *("right" for _ in heads[1:]))
    return tabulate(rows, heads, tablefmt="simple", disable_numparse=True, colalign=align)
