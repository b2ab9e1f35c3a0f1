"""Dial: the draft of a week's plan, audited as it is turned."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from flask import Response

from dialback.core.adjusting import Change, Options, Step, adjust, take
from dialback.core.adjusting.reasons import finding_words
from dialback.core.audit import audit_draft
from dialback.core.plans.dial import dial_range, dial_total, notches, scale
from dialback.core.plans.draft import DraftSession, as_draft, as_sessions
from dialback.core.progress import next_steps, take_next
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.store.judgements import acceptances
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, planning_ledger, the_athlete, the_week
from dialback.web.drafted import audited
from dialback.web.shapes.common import Done, Revision, RevisionBody, WeekPath
from dialback.web.shapes.drafts import (
    DialBody,
    DialOut,
    DraftAudit,
    DraftOut,
    NextStepOut,
    NextStepsOut,
    NotchesOut,
    NotchOut,
    ProposalBody,
    ProposalOut,
    RungOut,
    SaveDraftBody,
    SessionsBody,
    StepOut,
    TakeBody,
    TakeNextBody,
    WayOut,
)
from dialback.web.sheet import (
    finding_label,
    finding_out,
)
from dialback.work import drafting
from dialback.work.errors import NotThereError

PROPOSAL_S = 5.0
"""How long the best answer is looked for while somebody waits."""

api = blueprint("drafts", __name__, "/athletes/<int:athlete_id>/weeks/<week>")

Origin = Literal["saved", "plan", "last plan", "last log", "empty"]


@api.get("/draft", responses={200: DraftOut})
def open_draft(path: WeekPath) -> Response:
    """The stored draft of the week; else its plan, or the week before as a start."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    row = drafting.stored_draft(athlete, week)
    start, origin, origin_week = _start(ledger, week)
    sessions = [DraftSession.model_validate(session) for session in row.sessions] if row else start
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
            moved = [session.model_copy(update={"date": session.date + shift}) for session in found]
            plans = moved if basis == "planned" else _without_log(moved)
            return list(as_draft(plans, ledger.movements)), origin, source
    return [], "empty", week


def _without_log(sessions: Iterable[Session]) -> list[Session]:
    """Sessions as a plan: what only a log has is left behind."""
    return [
        session.model_copy(
            update={"sets": tuple(a_set.model_copy(update={"rpe": None}) for a_set in session.sets)}
        )
        for session in sessions
    ]


@api.post("/draft/audit", responses={200: DraftAudit})
def audit_a_draft(path: WeekPath, body: SessionsBody) -> Response:
    """The audit of a draft as it stands; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    return answer(audited(ledger, week, body.sessions))


@api.post("/draft/dial", responses={200: DialOut})
def turn_dial(path: WeekPath, body: DialBody) -> Response:
    """The draft scaled to so many sets, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    scaled = list(scale(body.sessions, body.total, ledger.movements, body.toward))
    return answer(DialOut(sessions=scaled, audit=audited(ledger, week, scaled)))


@api.post("/draft/notches", responses={200: NotchesOut})
def dial_notches(path: WeekPath, body: SessionsBody) -> Response:
    """Where on the dial findings clear and appear."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    return answer(
        NotchesOut(
            start=dial_total(body.sessions, ledger.movements),
            notches=[
                NotchOut(
                    total=notch.total,
                    effect=notch.effect,
                    level=notch.finding.level,
                    title=finding_out(notch.finding, {}).title,
                    label=finding_label(notch.finding),
                    sentence=notch.finding.sentence,
                )
                for notch in notches(ledger, week, body.sessions)
            ],
        )
    )


@api.post("/draft/proposal", responses={200: ProposalOut})
def propose(path: WeekPath, body: ProposalBody) -> Response:
    """The least change of the draft that leaves the fewest findings; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    done = desk().ledgers.of(athlete).source.week("completed", week)
    start, known = as_sessions(body.sessions), acceptances(athlete, week, "planned")
    options = Options(
        locks=frozenset(name for name in body.locks if name in ledger.movements),
        budget=body.budget,
        seconds=PROPOSAL_S,
        accepted=frozenset(
            finding.key
            for finding in audit_draft(ledger, week, start).findings
            if finding_out(finding, known).accepted
        ),
    )
    found = adjust(ledger, week, options, start, frozenset(session.date for session in done))
    return answer(
        ProposalOut(
            steps=[_step(change) for change in found.changes],
            cost=found.cost,
            optimal=found.optimal,
            ladder=[
                RungOut(cost=rung.cost, high=rung.high, caution=rung.caution)
                for rung in found.ladder
            ],
            cleared=[finding_words(finding.key) for finding in found.cleared],
            remaining=[left.sentence for left in found.remaining],
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
        sets=change.sets,
        reason=change.reason,
    )


@api.post("/draft/take", responses={200: DialOut})
def take_steps(path: WeekPath, body: TakeBody) -> Response:
    """The draft with some changes of a proposal, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    steps = [Step(step.session, step.line, step.movement, step.count) for step in body.steps]
    try:
        taken = take(ledger, week, as_sessions(body.sessions), steps)
    except LookupError as gone:
        raise NotThereError(f"{gone}. Ask for a proposal again.") from None
    sessions = list(as_draft(taken, ledger.movements))
    return answer(DialOut(sessions=sessions, audit=audited(ledger, week, sessions)))


@api.post("/draft/next", responses={200: NextStepsOut})
def next_in_draft(path: WeekPath, body: SessionsBody) -> Response:
    """What each movement of the draft does next, from what was done of it last."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    steps = next_steps(ledger, week, as_sessions(body.sessions))
    return answer(
        NextStepsOut(
            steps=[
                NextStepOut(
                    movement=step.movement,
                    course=step.course,
                    before=step.before,
                    because=step.because,
                    ways=[
                        WayOut(kind=way.kind, says=way.says, told=way.told, effect=dict(way.effect))
                        for way in step.ways
                    ],
                )
                for step in steps
            ]
        )
    )


@api.post("/draft/next/take", responses={200: DialOut})
def take_next_steps(path: WeekPath, body: TakeNextBody) -> Response:
    """The draft with next steps of movements, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    wanted = [(step.movement, step.before, step.kind) for step in body.steps]
    try:
        plan = take_next(ledger, week, as_sessions(body.sessions), wanted)
    except LookupError as gone:
        raise NotThereError(f"{gone.args[0]}. Look at its steps again.") from None
    sessions = list(as_draft(plan, ledger.movements))
    return answer(DialOut(sessions=sessions, audit=audited(ledger, week, sessions)))


@api.put("/draft", responses={200: Revision})
def save_draft(path: WeekPath, body: SaveDraftBody) -> Response:
    """Keep the draft. A stale revision is refused and nothing is stored."""
    revision = drafting.keep(
        desk().ledgers, path.athlete_id, the_week(path.week), body.sessions,
        body.shape or body.sessions, body.start_total, body.revision,
    )  # fmt: skip
    return answer(Revision(revision=revision))


@api.post("/draft/reset", responses={200: Done})
def reset_draft(path: WeekPath, body: RevisionBody) -> Response:
    """Throw the stored draft away: the plan as published stands again."""
    drafting.throw_away(path.athlete_id, the_week(path.week), body.revision)
    return answer(Done())


@api.post("/draft/publish", responses={200: Done})
def publish_draft(path: WeekPath, body: SaveDraftBody) -> Response:
    """Make the draft the week's plan."""
    shared = desk()
    drafting.publish_draft(
        shared.ledgers, path.athlete_id, the_week(path.week), body.sessions, body.revision,
        shared.today(),
    )  # fmt: skip
    return answer(Done())
