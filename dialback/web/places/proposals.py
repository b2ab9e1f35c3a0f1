"""Proposals for a draft: asked for, taken, declined."""

from __future__ import annotations

from flask import Response

from dialback.core.adjusting import Change, Options, Step, adjust, take
from dialback.core.adjusting.light import most_sets
from dialback.core.adjusting.reasons import finding_words
from dialback.core.audit import audit_draft
from dialback.core.decisions import STEP
from dialback.core.notation.reasons import said as as_reason
from dialback.core.plans.draft import as_draft, as_sessions
from dialback.core.plans.publishing import logged_days
from dialback.core.verdict.decided import about
from dialback.core.weeks import said
from dialback.core.words import listed
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, planning_ledger, the_athlete, the_week, wanted
from dialback.web.drafted import accepted_in, audited
from dialback.web.shapes.common import WeekPath
from dialback.web.shapes.drafts import DialOut
from dialback.web.shapes.proposals import (
    DeclineBody,
    DeclinedOut,
    ProposalBody,
    ProposalOut,
    RungOut,
    StepOut,
    TakeBody,
)
from dialback.work import drafting, judging
from dialback.work.errors import NotThereError

PROPOSAL_S = 5.0
"""How long the best answer is looked for while somebody waits."""

api = blueprint("proposals", __name__, "/athletes/<int:athlete_id>/weeks/<week>")


@api.post("/draft/proposal", responses={200: ProposalOut})
def propose(path: WeekPath, body: ProposalBody) -> Response:
    """The change of the draft that a coach would sign; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    start = as_sessions(body.sessions)
    options = Options(
        locks=frozenset(name for name in body.locks if name in ledger.movements),
        thorough=body.thorough,
        budget=body.budget,
        # Whoever turns to a stop of the ladder wants what is cleared there.
        lightest=body.budget is not None,
        ladder=body.ladder,
        seconds=PROPOSAL_S * desk().patience,
        wanted=wanted(),
        accepted=accepted_in(athlete, ledger, week, start),
        most_sets=most_sets(audit_draft(ledger, week, start)),
    )
    held = options.held_in(ledger, week, start)
    found = adjust(ledger, week, held, start, logged_days(desk().ledgers.of(athlete), week))
    return answer(
        ProposalOut(
            steps=[_step(change) for change in found.changes],
            cost=found.cost,
            optimal=found.optimal,
            ladder=[
                RungOut(cost=rung.cost, high=rung.high, caution=rung.caution)
                for rung in found.ladder
            ],
            stop=found.stop,
            why=found.why,
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
        movement=change.name,
        kind="new" if change.line is None else "circuit" if circuit else "line",
        count_from=change.count_from,
        count_to=change.count_to,
        sets=change.sets,
        reason=change.reason,
        effect=dict(change.effect),
        bundle=change.bundle,
    )


@api.post("/draft/take", responses={200: DialOut})
def take_steps(path: WeekPath, body: TakeBody) -> Response:
    """The draft with some changes of a proposal, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    steps = [
        Step(step.session, step.line, step.movement, step.count, _why(step.reason))
        for step in body.steps
    ]
    try:
        taken = take(ledger, week, as_sessions(body.sessions), steps)
    except LookupError as gone:
        raise NotThereError(f"{gone}. Ask for a proposal again.") from None
    sessions = list(as_draft(taken, ledger.movements))
    return answer(DialOut(sessions=sessions, audit=audited(ledger, week, sessions)))


def _why(reason: str) -> str:
    """How a proposal stands with what was taken of it: with its day, and what it does."""
    if not reason:
        return ""
    return as_reason(f"of a proposal, {said(desk().today())}: {reason}")


@api.post("/draft/decline", responses={201: DeclinedOut})
def decline_steps(path: WeekPath, body: DeclineBody) -> Response:
    """Decline steps of a proposal: they are not proposed again before the block ends."""
    made = judging.decline(
        path.athlete_id,
        the_week(path.week),
        [(step.movement, step.direction) for step in body.steps],
        body.reason,
    )
    told = [about((STEP, step.movement, step.direction)) for step in body.steps]
    return answer(DeclinedOut(decisions=made, words=listed(told)), 201)
