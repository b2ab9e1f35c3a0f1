"""The wave of a block: its weeks proposed one after the other, and published together."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from flask import Response

from dialback.core.adjusting import (
    NothingToStartFromError,
    Options,
    Proposal,
    WaveWeek,
    wave_week,
)
from dialback.core.adjusting.light import LEFT_ALONE, left_alone
from dialback.core.audit import audit_draft
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings import Finding
from dialback.core.plans.draft import as_draft, as_sessions
from dialback.core.plans.publishing import logged_days
from dialback.core.tally import Ledger, tally
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, planning_ledger, the_athlete, the_week, wanted
from dialback.web.drafted import accepted_in
from dialback.web.shapes.block import (
    PublishWaveBody,
    WaveBody,
    WaveFinding,
    WaveWeekOut,
)
from dialback.web.shapes.common import Laid, WeekPath
from dialback.web.sheet import block_finding
from dialback.work import drafting
from dialback.work.errors import NotThereError

WEEK_S = 1.0
"""How long the best of a week is looked for: somebody waits for all of them."""

api = blueprint("wave", __name__, "/athletes/<int:athlete_id>/weeks/<week>/block/wave")


@api.post("", responses={200: WaveWeekOut})
def propose_week(path: WeekPath, body: WaveBody) -> Response:
    """A week of the block proposed, with those before it done as proposed; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    plans = {}
    for before in body.before:
        at = the_week(before.week)
        drafting.check(before.sessions, at, ledger.movements)
        plans[at] = as_sessions(before.sessions)
    plan = ledger.source.week("planned", week)
    accepted = accepted_in(athlete, ledger, week, plan)
    try:
        found = wave_week(
            ledger,
            week,
            plans,
            Options(seconds=WEEK_S * desk().patience, accepted=accepted, wanted=wanted()),
            lighter=body.lighter,
            ease_in=body.ease_in,
            all_of_it=body.all_of_it,
            fixed=logged_days(desk().ledgers.of(athlete), week),
        )
    except NothingToStartFromError as nothing:
        raise NotThereError(f"{athlete.name}: {nothing}.") from None
    alone = left_alone(audit_draft(ledger, week, plan)) if plan else {}
    return answer(_out(ledger, week, found, athlete.change, alone))


def _out(
    ledger: Ledger, week: Week, found: WaveWeek, state: int, alone: Mapping[Key, Finding]
) -> WaveWeekOut:
    proposal = found.proposal
    planned, sets = (
        tally(ledger.measure(sessions)).get(TOTAL_SETS, 0.0)
        for sessions in (found.plan, proposal.sessions)
    )
    return WaveWeekOut(
        week=str(week),
        state=state,
        shape=found.shape,
        planned=planned,
        sets=sets,
        cost=proposal.cost,
        optimal=proposal.optimal,
        weeks_off=found.pause.weeks if found.pause else None,
        sessions=list(as_draft(proposal.sessions, ledger.movements)),
        carried=found.carried,
        changes=[change.sentence for change in proposal.changes],
        findings=list(_findings(found, proposal, alone)),
    )


def _findings(
    found: WaveWeek, proposal: Proposal, alone: Mapping[Key, Finding]
) -> Iterable[WaveFinding]:
    """What the plan and the proposal have, and what is left alone of a week that is to be light."""
    why = {one.finding.key: one.sentence for one in proposal.remaining}
    for key, finding in alone.items():
        if finding.level != "note" and key not in {*found.before, *found.left}:
            yield WaveFinding(
                **block_finding(finding).model_dump(), before=True, left=True, why=LEFT_ALONE
            )
    for key in sorted({*found.before, *found.left}):
        finding = found.left.get(key) or found.before[key]
        yield WaveFinding(
            **block_finding(finding).model_dump(),
            before=key in found.before,
            left=key in found.left,
            why=why.get(key, ""),
        )


@api.post("/publish", responses={200: Laid})
def publish_weeks(path: WeekPath, body: PublishWaveBody) -> Response:
    """Make the proposals of several weeks their plans; all of them or none."""
    the_week(path.week)
    shared = desk()
    change = drafting.publish_weeks(
        shared.ledgers,
        path.athlete_id,
        [(the_week(one.week), one.sessions) for one in body.weeks],
        body.state,
        shared.today(),
    )
    return answer(Laid(change=change))
