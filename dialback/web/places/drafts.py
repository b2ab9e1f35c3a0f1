"""Dial: the draft of a week's plan, audited as it is turned."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import timedelta
from http import HTTPStatus
from typing import Any, Literal

from flask import Response

from dialback.book.errors import BadInputError, Problem
from dialback.core.adjust import (
    DraftSession,
    Line,
    as_draft,
    as_sessions,
    dial_range,
    dial_total,
    difference,
    notches,
    scale,
    turns,
)
from dialback.core.adjusting import Change, Options, Step, adjust, take
from dialback.core.adjusting.reasons import finding_words
from dialback.core.audit import audit, audit_draft
from dialback.core.movements import MovementTable, UnknownMovementError
from dialback.core.sessions import Session, Set
from dialback.core.tally import AsPlanned, Ledger
from dialback.core.weeks import Week
from dialback.core.words import describe, movement_text
from dialback.store.athletes import publish
from dialback.store.models import Athlete, Draft
from dialback.store.sessions import TEXT_KEY, planned_rows
from dialback.store.unit import unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, planning_ledger, the_athlete, the_week
from dialback.web.problems import RefusedError, not_found, stale
from dialback.web.shapes import (
    DialBody,
    DialOut,
    Done,
    DraftAudit,
    DraftOut,
    DraftSet,
    NotchesOut,
    NotchOut,
    ProposalBody,
    ProposalOut,
    Revision,
    RevisionBody,
    RungOut,
    SaveDraftBody,
    SessionsBody,
    StepOut,
    TakeBody,
    WeekPath,
)
from dialback.web.sheet import (
    TwoSides,
    acceptances,
    by_urgency,
    finding_label,
    finding_out,
    pair_rows,
    rows,
)

api = blueprint("drafts", __name__, "/athletes/<int:athlete_id>/weeks/<week>")

Origin = Literal["saved", "plan", "last plan", "last log", "empty"]

FINE_STEP_KG = 1.0
COARSE_STEP_KG = 2.5
COARSE_FROM_KG = 20.0
"""From this load of one implement on, a bar with plates is likely: its steps are coarser."""


@api.get("/draft", responses={200: DraftOut})
def open_draft(path: WeekPath) -> Response:
    """The stored draft of the week; else its plan, or the week before as a start."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    row = _stored(athlete, week)
    start, origin, origin_week = _start(ledger, week)
    sessions = [DraftSession.model_validate(one) for one in row.sessions] if row else start
    start_total = row.start_total if row else dial_total(start, ledger.movements)
    least, most = dial_range(start or sessions, ledger.movements)
    return answer(
        DraftOut(
            revision=row.revision if row else 0,
            origin="saved" if row else origin,
            origin_week=str(origin_week),
            start_total=start_total,
            least=least,
            most=most,
            sessions=sessions,
            shape=[DraftSession.model_validate(one) for one in row.shape]
            if row and row.shape
            else sessions,
            audit=audited(ledger, week, sessions),
        )
    )


def _stored(athlete: Athlete, week: Week) -> Draft | None:
    return Draft.get_or_none(Draft.athlete == athlete, Draft.week == str(week))


def _start(ledger: Ledger, week: Week) -> tuple[list[DraftSession], Origin, Week]:
    before = week.plus(-1)
    choices: tuple[tuple[Origin, Literal["planned", "completed"], Week], ...] = (
        ("plan", "planned", week),
        ("last plan", "planned", before),
        ("last log", "completed", before),
    )
    for origin, basis, source in choices:
        found = ledger.source.week(basis, source)
        if found:
            shift = week.monday - source.monday
            moved = [one.model_copy(update={"date": one.date + shift}) for one in found]
            plans = moved if basis == "planned" else _without_log(moved)
            return list(as_draft(plans)), origin, source
    return [], "empty", week


def _without_log(sessions: Iterable[Session]) -> list[Session]:
    """Sessions as a plan: what only a log has is left behind."""
    return [
        session.model_copy(
            update={"sets": tuple(one.model_copy(update={"rpe": None}) for one in session.sets)}
        )
        for session in sessions
    ]


@api.post("/draft/audit", responses={200: DraftAudit})
def audit_a_draft(path: WeekPath, body: SessionsBody) -> Response:
    """The audit of a draft as it stands; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    _check(body.sessions, week, ledger.movements)
    return answer(audited(ledger, week, body.sessions))


@api.post("/draft/dial", responses={200: DialOut})
def turn_dial(path: WeekPath, body: DialBody) -> Response:
    """The draft scaled to so many sets, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    _check(body.sessions, week, ledger.movements)
    scaled = list(scale(body.sessions, body.total, ledger.movements, body.toward))
    return answer(DialOut(sessions=scaled, audit=audited(ledger, week, scaled)))


@api.post("/draft/notches", responses={200: NotchesOut})
def dial_notches(path: WeekPath, body: SessionsBody) -> Response:
    """Where on the dial findings clear and appear."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    _check(body.sessions, week, ledger.movements)
    return answer(
        NotchesOut(
            start=dial_total(body.sessions, ledger.movements),
            notches=[
                NotchOut(
                    total=one.total,
                    effect=one.effect,
                    level=one.finding.level,
                    title=finding_out(one.finding, {}).title,
                    label=finding_label(one.finding),
                    sentence=one.finding.sentence,
                )
                for one in notches(ledger, week, body.sessions)
            ],
        )
    )


@api.post("/draft/proposal", responses={200: ProposalOut})
def propose(path: WeekPath, body: ProposalBody) -> Response:
    """The least change of the draft that leaves the fewest findings; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    _check(body.sessions, week, ledger.movements)
    done = desk().ledgers.of(athlete).source.week("completed", week)
    options = Options(
        locks=frozenset(name for name in body.locks if name in ledger.movements),
        budget=body.budget,
        accepted=frozenset(acceptances(athlete, week, "planned")),
    )
    found = adjust(
        ledger, week, options, as_sessions(body.sessions), frozenset(one.date for one in done)
    )
    return answer(
        ProposalOut(
            steps=[_step(one) for one in found.changes],
            cost=found.cost,
            optimal=found.optimal,
            ladder=[
                RungOut(cost=one.cost, high=one.high, caution=one.caution) for one in found.ladder
            ],
            cleared=[finding_words(one.key) for one in found.cleared],
            remaining=[one.sentence for one in found.remaining],
        )
    )


def _step(change: Change) -> StepOut:
    circuit = change.movement is None
    return StepOut(
        session=change.session,
        day=change.day.isoformat(),
        title=change.title,
        line=change.line,
        movement=change.movement or change.part or "Circuit",
        kind="new" if change.line is None else "circuit" if circuit else "line",
        count_from=change.count_from,
        count_to=change.count_to,
        sentence=change.sentence,
    )


@api.post("/draft/take", responses={200: DialOut})
def take_steps(path: WeekPath, body: TakeBody) -> Response:
    """The draft with some changes of a proposal, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    _check(body.sessions, week, ledger.movements)
    steps = [Step(one.session, one.line, one.movement, one.count) for one in body.steps]
    try:
        taken = take(ledger, week, as_sessions(body.sessions), steps)
    except LookupError as gone:
        raise not_found(f"{gone}. Ask for a proposal again.") from None
    sessions = list(as_draft(taken))
    return answer(DialOut(sessions=sessions, audit=audited(ledger, week, sessions)))


@api.put("/draft", responses={200: Revision})
def save_draft(path: WeekPath, body: SaveDraftBody) -> Response:
    """Keep the draft. A stale revision is refused and nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    with unit():
        _check(body.sessions, week, desk().ledgers.of(athlete).movements)
        row = _fresh(athlete, week, body.revision)
        sessions, shape = _plain(body.sessions), _plain(body.shape or body.sessions)
        if row is None:
            row = Draft.create(
                athlete=athlete,
                week=str(week),
                sessions=sessions,
                shape=shape,
                start_total=body.start_total,
            )
        else:
            row.sessions, row.shape = sessions, shape
            row.revision += 1
            row.save()
    return answer(Revision(revision=row.revision))


def _plain(sessions: Sequence[DraftSession]) -> list[dict[str, Any]]:
    return [one.model_dump(mode="json", exclude_defaults=True) for one in sessions]


@api.post("/draft/reset", responses={200: Done})
def reset_draft(path: WeekPath, body: RevisionBody) -> Response:
    """Throw the stored draft away: the plan as published stands again."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    with unit():
        row = _fresh(athlete, week, body.revision)
        if row is not None:
            row.delete_instance()
    return answer(Done())


@api.post("/draft/publish", responses={200: Done})
def publish_draft(path: WeekPath, body: SaveDraftBody) -> Response:
    """Make the draft the week's plan."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    if not as_sessions(body.sessions):
        raise RefusedError(
            HTTPStatus.UNPROCESSABLE_ENTITY, "empty-plan", "The draft has no set: add one first."
        )
    with unit():
        _check(body.sessions, week, desk().ledgers.of(athlete).movements)
        _fresh(athlete, week, body.revision)
        texts = _texts(athlete, desk().ledgers.of(athlete), week)
        publish(athlete, week, body.sessions, desk().today(), texts)
    return answer(Done())


def _texts(athlete: Athlete, ledger: Ledger, week: Week) -> dict[tuple[Set, ...], str]:
    """The texts of this week's plans and of those before it, by the sets that they come to.

    A session that was not turned is published with the very text that it was written as.
    """
    found: dict[tuple[Set, ...], str] = {}
    for one in (week.plus(-1), week):
        sessions = ledger.source.week("planned", one)
        for row, session in zip(planned_rows(athlete, one), sessions, strict=True):
            text = row.extra.get(TEXT_KEY)
            if isinstance(text, str):
                found[session.sets] = text
    return found


def _fresh(athlete: Athlete, week: Week, revision: int) -> Draft | None:
    """The stored draft, if it is the one that the change builds on."""
    row = _stored(athlete, week)
    if (row.revision if row else 0) != revision:
        raise stale("This draft")
    return row


def _check(sessions: Sequence[DraftSession], week: Week, movements: MovementTable) -> None:
    """Refuse days outside the week and movements that nobody knows, with their place."""
    problems = []
    for at, day in enumerate(sessions):
        if Week.of(day.date) != week:
            last = week.monday + timedelta(days=6)
            problems.append(
                Problem(
                    f"sessions[{at}].date",
                    f"{day.date} is not in {week} ({week.monday} to {last})",
                )
            )
        for number, line in enumerate(day.lines):
            names = {name for one in (line.set, *line.unit) for name, _ in one.named_moves()}
            for name in sorted(names):
                try:
                    movements[name]
                except UnknownMovementError as unknown:
                    place = f"sessions[{at}].lines[{number}].set.exercise"
                    problems.append(Problem(place, str(unknown)))
    if problems:
        raise BadInputError(problems)


def audited(ledger: Ledger, week: Week, sessions: Sequence[DraftSession]) -> DraftAudit:
    """The audit of sessions as the plan of a week, against the plan that is published."""
    draft = audit_draft(ledger, week, as_sessions(sessions))
    published = audit(ledger, week, "planned")
    findings = by_urgency(draft.findings)
    changed = difference(published.findings, draft.findings)
    appeared = {one.key for one in changed.appeared}
    sides = TwoSides(draft, published, draft)
    totals, muscles, _ = rows(sides, findings)
    return DraftAudit(
        total=dial_total(sessions, ledger.movements),
        as_planned=isinstance(ledger.source, AsPlanned),
        totals=totals,
        pairs=pair_rows(sides, findings),
        muscles=muscles,
        findings=[finding_out(one, {}) for one in findings],
        cleared=[finding_out(one, {}) for one in by_urgency(changed.cleared)],
        appeared=[at for at, one in enumerate(findings) if one.key in appeared],
        lines=[[_words(line, ledger.movements) for line in day.lines] for day in sessions],
    )


def _words(line: Line, movements: MovementTable) -> DraftSet:
    coarse = line.set.implements == 1 and line.set.load_kg >= COARSE_FROM_KG
    names = dict.fromkeys(movement_text(one) for one in line.unit)
    return DraftSet(
        movement=", ".join(names),
        text="; ".join(f"{movement_text(one)} {describe(one)}" for one in line.unit)
        if line.rounds
        else describe(line.set),
        load_step_kg=COARSE_STEP_KG if coarse else FINE_STEP_KG,
        turns=turns(line, movements),
    )
