"""An audit as a table to read in a terminal."""

from __future__ import annotations

from collections.abc import Sequence

from tabulate import tabulate

from dialback.core.adjusting.result import Proposal
from dialback.core.audit import Audit, compliance, sessions_done
from dialback.core.balance import weigh
from dialback.core.baseline import Change
from dialback.core.figures import in_total, of_muscle
from dialback.core.findings import BY_CODE, Finding
from dialback.core.measures import BY_MEASURE, MEASURES, TITLES, measures_of
from dialback.core.progress import Progress
from dialback.core.remedies import clears
from dialback.core.schools import under_schools
from dialback.core.tally import Ledger
from dialback.core.verdict import KINDS, news, verdict
from dialback.core.vocabulary import MUSCLES, PAIRS, Basis, label
from dialback.core.weeks import Week
from dialback.core.words import number, percent


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
    for name in measures_of("week"):
        share = shares.get(name)
        rows.append(
            [
                ", ".join(filter(None, (TITLES[name], BY_MEASURE[name].unit_text("kg")))),
                number(result.value(in_total(name)), 1),
                number(share.planned, 1) if share else "",
                f"{share.share:.0%}" if share and share.share is not None else "",
                *(_change(result.change(in_total(name))) if name in MEASURES else ["", ""]),
            ]
        )
    text = _table(rows, ["Totals", "value", "plan", "share", "base", "change"])
    notes = [
        f"{number(result.value(in_total(name)))} sets with {what}"
        for name, what in (
            ("estimated_rep_sets", "reps estimated from their seconds"),
            ("assumed_tempo_sets", "an assumed tempo"),
        )
        if result.value(in_total(name))
    ]
    if shares:
        done = sessions_done(result.ledger, result.week)
        notes.insert(0, f"{number(done.done)} of {number(done.planned)} planned sessions done")
    return text + ("\n" + "; ".join(notes) if notes else "")


def _pairs(result: Audit) -> str:
    rows = []
    for pair in PAIRS:
        band = result.ledger.rules.balance_bands.get(pair.name)
        sets = weigh(result.tally, pair, "sets")
        ratios = [
            "–"
            if name not in pair.measures or (ratio := weigh(result.tally, pair, name).ratio) is None
            else f"{ratio:.2f}"
            for name in MEASURES
        ]
        rows.append(
            [
                pair.title,
                f"{number(sets.a)} : {number(sets.b)}",
                *ratios,
                "" if band is None else f"{number(band[0])}–{number(band[1])}",
            ]
        )
    heads = ["Pairs", "sets a : b", "sets", "reps", "volume load", "tension", "band"]
    return _table(rows, heads)


def _muscles(result: Audit) -> str:
    rows = []
    for muscle in MUSCLES:
        low, high = result.ledger.rules.muscle_bands[muscle]  # type: ignore[index]
        change = result.change(of_muscle(muscle, "sets"))
        rows.append(
            [
                label(muscle),
                number(change.value),
                *_change(change),
                f"{number(low)}–{number(high)}",
                number(result.value(of_muscle(muscle, "volume_load_kg")), 0),
                number(result.value(of_muscle(muscle, "tut_s")), 0),
            ]
        )
    heads = ["Muscles", "sets", "base", "change", "band", "volume load, kg", "tension, s"]
    return _table(rows, heads)


def _findings(result: Audit) -> str:
    """The causes, each with what follows from it; then the notes that stand alone."""
    if not result.findings:
        return "No findings."
    found = verdict(result)
    rows = [f"{KINDS[line.kind]:10}{line.sentence} {line.ask}".rstrip() for line in news(result)]
    rows.append(f"Findings: {len(found.findings)}, causes: {len(found.causes)}")
    for cause, places in found.causes:
        rows.append(f"  {cause.sentence}")
        rows += [f"    {_finding(found.findings[place], result)}" for place in places]
    if found.alone:
        rows.append("  Notes")
        rows += [f"    {_finding(finding, result)}" for finding in found.alone]
    return "\n".join(rows)


def _finding(finding: Finding, result: Audit) -> str:
    what = f"{finding.title}. {finding.sentence} {clears(result.in_hand, finding)}"
    return f"{finding.level.upper():8}{what}"


def adjust_table(proposal: Proposal) -> str:
    """A proposal as text: what to change and why, what it buys, what stays."""
    proved = "" if proposal.optimal else " (the best found in time)"
    lines = [f"Week {proposal.week}: {len(proposal.changes)} changes, cost {proposal.cost}{proved}"]
    lines += [f"  {change.sentence}" for change in proposal.changes]
    lines.append("What more change buys")
    lines += [
        f"  cost {rung.cost}: {rung.high} high, {rung.caution} cautions left"
        for rung in proposal.ladder
    ]
    if proposal.remaining:
        lines.append("What stays")
        lines += [f"  {left.sentence}" for left in proposal.remaining]
    return "\n".join(lines)


def progress_table(steps: Sequence[Progress]) -> str:
    """The next step of each movement: from what to what, why, and what else could be done."""
    lines = ["Next steps" if steps else "No movement is due for a step."]
    for step in steps:
        lines.append(f"  {step.movement}: {step.before} → {step.way.told}")
        lines.append(f"    {step.because}")
        if others := ", ".join(way.says for way in step.ways[1:]):
            lines.append(f"    Or: {others}.")
    return "\n".join(lines)


def schools_table(ledger: Ledger, week: Week, basis: Basis) -> str:
    """Findings by school: what all would raise, and what only one."""
    audits = under_schools(ledger, week, basis)
    levels = [{finding.key: finding.level for finding in one.findings} for one in audits.values()]
    keys = {key for of_school in levels for key in of_school}
    rows = [
        [
            f"{BY_CODE[key[0]].title}: {BY_CODE[key[0]].about(key[1])}",
            *(of_school.get(key, "") for of_school in levels),
        ]
        for key in sorted(keys)
    ]
    return _table(rows, ["Schools", *audits])


def _change(change: Change) -> list[str]:
    base = "" if change.base is None else number(change.base, 1)
    return [base, "" if change.change is None else percent(change.change)]


def _table(rows: list[list[str]], heads: list[str]) -> str:
    align = ("left", *("right" for _ in heads[1:]))
    return tabulate(rows, heads, tablefmt="simple", disable_numparse=True, colalign=align)
