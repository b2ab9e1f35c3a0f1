"""From audits to the shapes of the week sheet."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import cast

from dialback.core.audit import Audit, matches_of, nothing_done_yet, sessions_done
from dialback.core.balance import Weighing, deciding_measure, weigh, weigh_all
from dialback.core.baseline import left_out
from dialback.core.causes import OF_THE_LOG
from dialback.core.cautions import TrainingLevel
from dialback.core.figures import TOP_LOAD, in_total, of_movement, of_muscle
from dialback.core.findings import Finding, WeekInHand
from dialback.core.findings.finding import grown
from dialback.core.measures import MEASURES, MUSCLE_MEASURES, measures_of
from dialback.core.reconcile import SessionMatch
from dialback.core.remedies import clears
from dialback.core.sessions import Set
from dialback.core.verdict import KINDS, News, Verdict, news, verdict, worst_open
from dialback.core.verdict.decided import can_be_decided
from dialback.core.vocabulary import LEFT_RIGHT, MUSCLES, PAIRS, label
from dialback.core.weeks import Week
from dialback.core.words import remarks
from dialback.store.athletes import Athlete
from dialback.store.judgements import Acceptances, acceptances
from dialback.web.shapes.block import BlockFinding
from dialback.web.shapes.sheet import (
    AthleteOut,
    BandOut,
    CauseOut,
    Cell,
    FindingOut,
    NewsOut,
    NewsPoint,
    OfferKey,
    PairRow,
    Row,
    SessionLine,
    Sheet,
    Side,
    SignatureOut,
    Weighed,
)


@dataclass(frozen=True, slots=True)
class TwoSides:
    """A week as planned and as done; ``judged`` is the one whose findings are shown.

    For a draft, it stands in the place of the plan and what is published in that of the log.
    """

    planned: Audit
    done: Audit
    judged: Audit

    def cell(self, figure: str) -> Cell:
        """A figure planned, done and against its base."""
        planned, done = self.planned.value(figure), self.done.value(figure)
        change = self.judged.change(figure)
        return Cell(
            figure=figure,
            planned=planned,
            done=done,
            share=done / planned if planned else None,
            base=change.base,
            change=change.change,
            rough_planned=figure in self.planned.rough,
            rough_done=figure in self.done.rough,
            measured=figure in self.done.measured,
        )


def athlete_out(athlete: Athlete) -> AthleteOut:
    """The athlete as the frame shows it."""
    return AthleteOut(
        id=athlete.id,
        name=athlete.name,
        note=athlete.note,
        squad=athlete.squad,
        bodyweight_kg=athlete.bodyweight_kg,
        level=cast(TrainingLevel, athlete.level),
        born=athlete.born,
    )


def causes_out(found: Verdict, findings: Sequence[FindingOut]) -> list[CauseOut]:
    """The causes as they stand on the sheet, with the level of what is open of them."""
    return [
        CauseOut(
            code=cause.code,
            subject=cause.subject,
            sentence=cause.sentence,
            level=worst_open((findings[at].level, findings[at].accepted) for at in places),
            accepted=all(findings[at].accepted for at in places),
            of_log=cause.code in OF_THE_LOG,
            findings=list(places),
        )
        for cause, places in found.causes
    ]


def news_out(found: Verdict, lines: Iterable[News], told: Sequence[FindingOut]) -> list[NewsOut]:
    """The lines that a coach reads first, without what is accepted already."""
    accepted = {
        finding.key for finding, out in zip(found.findings, told, strict=True) if out.accepted
    }
    places = {(cause.code, cause.subject): at for at, (cause, _) in enumerate(found.causes)}
    return [
        NewsOut(
            kind=line.kind,
            says=KINDS[line.kind],
            level=line.level,
            sentence=line.sentence,
            ask=line.ask,
            cause=places.get(line.causes[0]) if line.causes else None,
            keys=[
                OfferKey(code=code, subject=subject, measure=measure)
                for code, subject, measure in line.explains
            ],
            can_be_decided=line.kind != "eased"
            and any(can_be_decided(code) for code, *_ in line.explains),
            looks_like=line.looks_like,
            points=[NewsPoint(week=str(week), value=value) for week, value in line.points],
        )
        for line in lines
        if not accepted.issuperset(line.explains)
    ]


def finding_out(
    finding: Finding, accepted: Acceptances, week: WeekInHand | None = None
) -> FindingOut:
    """A finding with the coach's judgement, which lapses when the finding has grown.

    With what would clear it where the ``week`` is given: that may have to be tried out, which
    takes its time.
    """
    acceptance = accepted.get(finding.key)
    stands = acceptance is not None and not grown(finding, acceptance.level, acceptance.value)
    return FindingOut(
        code=finding.code,
        title=finding.title,
        subject=finding.subject,
        label=finding.about,
        measure=finding.measure,
        level=finding.level,
        value=finding.value,
        limit=finding.limit,
        amount=finding.amount,
        base=finding.base,
        sentence=finding.sentence,
        clears=None if week is None else clears(week, finding),
        figures=list(finding.figures),
        days=[day.isoformat() for day in finding.days],
        of_plan=finding.of_plan,
        accepted=stands,
        reason=acceptance.reason if acceptance else None,
    )


def rows(sides: TwoSides, findings: Sequence[Finding]) -> tuple[list[Row], list[Row], list[Row]]:
    """Totals, muscles and movements."""
    at = _places(findings)
    rules = sides.judged.ledger.rules
    totals = [
        Row(
            subject=name,
            label=name,
            cells={name: sides.cell(in_total(name))},
            band=None,
            findings=at.get(("total", name), []),
        )
        for name in measures_of("week")
    ]
    muscles = [
        Row(
            subject=muscle,
            label=label(muscle),
            cells={name: sides.cell(of_muscle(muscle, name)) for name in MUSCLE_MEASURES},
            band=_band(rules.muscle_bands[muscle]),  # type: ignore[index]
            findings=at.get((muscle, "sets"), []),
        )
        for muscle in MUSCLES
    ]
    names = dict.fromkeys(
        (*sides.judged.movements, *sides.planned.movements, *sides.done.movements)
    )
    movements = [
        Row(
            subject=name,
            label=name,
            cells={
                **{measure: sides.cell(of_movement(name, measure)) for measure in MEASURES},
                TOP_LOAD: _top_load(sides, name),
            },
            band=None,
            findings=sorted({*at.get((name, "load_kg"), []), *at.get((name, "sets"), [])}),
        )
        for name in names
    ]
    return totals, muscles, movements


def _top_load(sides: TwoSides, name: str) -> Cell:
    planned, done, value = (
        _load(audit.in_hand.heaviest.get(name)) or 0.0
        for audit in (sides.planned, sides.done, sides.judged)
    )
    base = _load(sides.judged.in_hand.heaviest_before.get(name))
    return Cell(
        figure=of_movement(name, TOP_LOAD),
        planned=planned,
        done=done,
        share=done / planned if planned > 0 else None,
        base=base,
        change=(value - base) / base if base and base > 0 and value else None,
        rough_planned=False,
        rough_done=False,
        measured=False,
    )


def _load(top: Set | None) -> float | None:
    return None if top is None else top.total_load_kg


def pair_rows(sides: TwoSides, findings: Sequence[Finding]) -> list[PairRow]:
    """The pairs, each in its measures; left and right where a movement has sets of one side."""
    at = _places(findings)
    rules = sides.judged.ledger.rules
    base = sides.judged.baseline.values
    found = []
    for pair in (*PAIRS, LEFT_RIGHT):
        planned, done = (
            weigh_all(audit.tally, audit.entries, pair) for audit in (sides.planned, sides.done)
        )
        sides_apart = pair.of == "side"
        if sides_apart and not any(one["sets"].a + one["sets"].b for one in (planned, done)):
            continue
        deciding = deciding_measure(pair, rules)
        found.append(
            PairRow(
                subject=pair.name,
                label_a=pair.labels[0],
                label_b=pair.labels[1],
                measures={
                    name: Weighed(
                        planned=_side(planned[name]),
                        done=_side(done[name]),
                        base=None
                        if base is None or sides_apart
                        else _side(weigh(base, pair, name)),
                    )
                    for name in pair.measures
                },
                measure=deciding,
                band=_optional_band(rules.balance_bands.get(pair.name)),
                opens=not sides_apart,
                findings=at.get((pair.name, deciding), []),
            )
        )
    return found


def _optional_band(ends: tuple[float, float] | None) -> BandOut | None:
    return None if ends is None else _band(ends)


def _band(ends: tuple[float, float]) -> BandOut:
    return BandOut(low=ends[0], high=ends[1])


def _side(weighing: Weighing) -> Side:
    return Side(a=weighing.a, b=weighing.b, ratio=weighing.ratio)


def _places(findings: Sequence[Finding]) -> dict[tuple[str, str], list[int]]:
    """Findings by the row at whose margin they stand."""
    places: dict[tuple[str, str], list[int]] = {}
    for at, finding in enumerate(findings):
        places.setdefault((finding.subject, finding.measure), []).append(at)
    return places


def sheet(
    athlete: Athlete,
    sides: TwoSides,
    today: date,
    signature: SignatureOut | None = None,
    *,
    in_block: bool = False,
) -> Sheet:
    """The whole week sheet."""
    judged = sides.judged
    week = judged.week
    found = verdict(judged)
    findings = found.findings
    accepted = acceptances(athlete, week, judged.basis)
    told = [finding_out(finding, accepted, judged.in_hand) for finding in findings]
    totals, muscles, movements = rows(sides, findings)
    done = sessions_done(judged.ledger, week)
    return Sheet(
        nothing_done=nothing_done_yet(judged.ledger, week, today),
        basis=judged.basis,
        baseline=judged.baseline.kind,
        baseline_weeks=[str(one) for one in judged.baseline.weeks],
        baseline_left_out=left_out(judged.ledger, judged.baseline, week),
        sessions=_session_lines(judged, week, today),
        sessions_planned=int(done.planned),
        sessions_done=int(done.done),
        estimated_sets=int(judged.value(in_total("estimated_rep_sets"))),
        assumed_sets=int(judged.value(in_total("assumed_tempo_sets"))),
        totals=totals,
        pairs=pair_rows(sides, findings),
        muscles=muscles,
        movements=movements,
        findings=told,
        causes=causes_out(found, told),
        news=news_out(found, news(judged), told),
        disagreement=judged.disagreement,
        signature=signature,
        in_block=in_block,
    )


def _session_lines(judged: Audit, week: Week, today: date) -> list[SessionLine]:
    return [_line(match, today) for match in matches_of(judged.ledger, week)]


def _line(match: SessionMatch, today: date) -> SessionLine:
    shown = match.plan or match.done
    assert shown is not None  # noqa: S101 - a match has one of them
    done = match.done
    return SessionLine(
        date=shown.date.isoformat(),
        title=shown.title,
        planned=match.plan is not None,
        done=done is not None,
        ahead=done is None and shown.date >= today,
        rpe=done.rpe if done else None,
        duration_min=done.duration_min if done else None,
        differed=list(match.summary) if match.plan and done else [],
        said=remarks(done) if done else [],
    )


def block_finding(finding: Finding) -> BlockFinding:
    """A finding as the block shows it."""
    return BlockFinding(
        code=finding.code,
        subject=finding.subject,
        measure=finding.measure,
        level=finding.level,
        title=finding.title,
        label=finding.about,
        sentence=finding.sentence,
    )
