"""Squad: what several did, what they have in common, and one change of plans for all of them."""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Callable, Iterable, Mapping, Sequence, Set
from functools import partial
from typing import Final

from flask import Response

from dialback.core.adjusting import Change, Options
from dialback.core.adjusting.reasons import finding_words
from dialback.core.adjusting.solver import NotWantedError
from dialback.core.adjusting.start import NothingToStartFromError, start_of
from dialback.core.causes import causes
from dialback.core.findings import Finding
from dialback.core.measures import MEASURES
from dialback.core.plans.publishing import logged_days
from dialback.core.rules import merge
from dialback.core.squads import Member, SquadAudit, SquadCause, audit_squad
from dialback.core.squads.adjusting import (
    Given,
    GivenBy,
    Levels,
    SquadPlan,
    SquadProposal,
    Turn,
    TurnedWeek,
    adjust_squad,
    lines_of,
    mark_of,
    squad_plan,
    turned,
)
from dialback.core.squads.causes import STEPS, audits_of
from dialback.core.squads.spread import SPREAD_WEEKS
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, house
from dialback.web.blueprint import blueprint
from dialback.web.counting import COUNTING_S, Counted, count
from dialback.web.desk import answer, desk, planning_ledger, the_week
from dialback.web.drafted import accepted_in
from dialback.web.jobs import GivenUpError, Job
from dialback.web.shapes.common import JobPath
from dialback.web.shapes.proposals import RungOut
from dialback.web.shapes.squads import (
    Common,
    FindingWords,
    LevelsOut,
    NamedOut,
    PersonOut,
    PersonWeekOut,
    SharedOut,
    SquadCauseOut,
    SquadDraftBody,
    SquadDraftOut,
    SquadJobOut,
    SquadLineOut,
    SquadOut,
    SquadProposalBody,
    SquadProposalOut,
    SquadPublishBody,
    SquadPublished,
    SquadQuery,
    SquadTurnOut,
    TurnBody,
)
from dialback.work.drafting import stored_draft
from dialback.work.errors import NotThereError
from dialback.work.squads import InSquad, check_fresh, in_squad, publish_for_all

PROPOSAL_S: Final = 10.0
"""How long the best answer is looked for while somebody waits, and may stop it."""

api = blueprint("squads", __name__, "/squads")


@api.get("/week", responses={200: SquadOut})
def squad_week(query: SquadQuery) -> Response:
    """A squad's week: what they did, or are to do; their spread; what they have in common.

    Whoever cannot be counted in a moment is waiting: ask again, and more of them are counted.
    """
    latest = Week.to_audit(desk().today())
    week = the_week(query.week) if query.week else latest
    basis: Basis = "completed" if week <= latest else "planned"
    chosen = in_squad(query.squad or None)
    counting = count(chosen.athletes, week)
    common, counted = None, 0
    if not counting.waiting:
        common, counted = _common(chosen, week, basis)
    return answer(
        SquadOut(
            squad=chosen.name if query.squad else "",
            week=str(week),
            monday=week.monday.isoformat(),
            sunday=week.sunday.isoformat(),
            to_plan=str(max(week, latest.plus(1))),
            previous=str(week.plus(-1)),
            next=str(week.plus(1)),
            basis=basis,
            weeks=[str(week.plus(back)) for back in range(1 - SPREAD_WEEKS, 1)],
            limits=_limits(),
            people=[_person(one) for one in counting.people],
            waiting=counting.waiting,
            common=common,
            counted=counted,
        )
    )


def _limits() -> dict[str, float | None]:
    limits = merge(house().rules, {}).jump_limits
    return {name: limits[name][0] if name in limits else None for name in MEASURES}


def _person(counted: Counted) -> PersonOut:
    return PersonOut(
        row=counted.row,
        is_new=counted.judged.is_new,
        is_back=counted.judged.is_back,
        own_rules=bool(counted.athlete.rules),
        marks=counted.judged.marks,
    )


# What they have in common.


def _common(chosen: InSquad, week: Week, basis: Basis) -> tuple[Common | None, int]:
    """What a squad has in common, and of how many it is counted; not whole where it takes long."""
    shared = desk()
    key = (tuple(one.id for one in chosen.athletes), week)
    today = shared.today()
    state = f"{chosen.state(week)} {min(today, week.plus(1).monday)}"
    if (known := shared.common.at(key, state)) is not None:
        return known, len(chosen.athletes)
    until = time.monotonic() + COUNTING_S * shared.patience
    with shared.counting:
        members = _members(chosen.athletes, week)
        for at, member in enumerate(members):
            if at and time.monotonic() > until:
                return None, at
            for one in audits_of(member, week, basis, today):
                causes(one)
        found = _common_out(chosen, audit_squad(members, week, basis, today))
    return shared.common.put(key, state, found), len(members)


def _members(athletes: Iterable[Athlete], week: Week) -> list[Member]:
    return [Member(one.name, planning_ledger(one, week)) for one in athletes]


def _common_out(chosen: InSquad, result: SquadAudit) -> Common:
    ids = {one.name: one.id for one in chosen.athletes}
    in_all = Levels.of(finding for one in result.audits for finding in one.findings)
    return Common(
        causes=[_cause(cause, ids, in_all) for cause in result.causes],
        findings=_levels(in_all),
    )


def _cause(cause: SquadCause, ids: Mapping[str, int], in_all: Levels) -> SquadCauseOut:
    explains = Levels.of(one.finding for one in cause.explains)
    counts = Counter(one.athlete for one in cause.explains)
    return SquadCauseOut(
        code=cause.code,
        subject=cause.subject,
        sentence=cause.sentence,
        step=STEPS[cause.code],
        people=[NamedOut(id=ids[name], name=name, findings=counts[name]) for name in counts],
        explains=_levels(explains),
        left=LevelsOut(high=in_all.high - explains.high, caution=in_all.caution - explains.caution),
    )


def _levels(levels: Levels) -> LevelsOut:
    return LevelsOut(high=levels.high, caution=levels.caution)


# One change for all.


@api.post("/draft", responses={200: SquadDraftOut})
def draft_for_squad(body: SquadDraftBody) -> Response:
    """A squad's plans with some changes, audited for everybody; nothing is stored."""
    week = the_week(body.week)
    chosen = in_squad(body.squad or None)
    plan = _plan(chosen, week)
    if body.state:
        check_fresh(plan, body.state)
    judged = _turned(plan, _turns(chosen, body.turns))
    ids = {one.name: one.id for one in chosen.athletes}
    drafted = {one.name for one in chosen.athletes if stored_draft(one, week) is not None}
    planned = {one.start.member.name for one in judged}
    return answer(
        SquadDraftOut(
            squad=chosen.name if body.squad else "",
            week=str(week),
            monday=week.monday.isoformat(),
            sunday=week.sunday.isoformat(),
            previous=str(week.plus(-1)),
            next=str(week.plus(1)),
            state=mark_of(plan),
            shared=[_shared(plan, number, ids) for number in range(len(plan.shared))],
            people=[_person_week(one, ids, drafted) for one in judged],
            without=[name for name in ids if name not in planned],
            before=_sum(one.before for one in judged),
            after=_sum(one.after for one in judged),
        )
    )


def _plan(chosen: InSquad, week: Week) -> SquadPlan:
    """What a squad's draft starts from; worked out once for a state."""
    shared = desk()
    key = (tuple(one.id for one in chosen.athletes), week)
    state = f"{chosen.state(week)} {shared.today()}"
    known = shared.plans.at(key, state)
    if known is None:
        members = _members(chosen.athletes, week)
        known = _or_not_there(partial(squad_plan, members, week, _given(chosen, week)))
        shared.plans.put(key, state, known)
    return known


def _or_not_there(work: Callable[[], SquadPlan]) -> SquadPlan:
    try:
        return work()
    except NothingToStartFromError as nothing:
        raise NotThereError(f"In this squad {nothing}.") from None


def _given(chosen: InSquad, week: Week) -> GivenBy:
    """What nothing is changed for, accepted or part of a lighter week; the days that are logged."""
    found = {}
    for athlete in chosen.athletes:
        ledger = planning_ledger(athlete, week)
        try:
            start = start_of(ledger, week)
        except NothingToStartFromError:
            continue
        found[athlete.name] = Given(
            accepted_in(athlete, ledger, week, start),
            logged_days(desk().ledgers.of(athlete), week),
        )
    return found


def _turns(chosen: InSquad, turns: Iterable[TurnBody]) -> list[Turn]:
    names = {one.id: one.name for one in chosen.athletes}
    found = []
    for one in turns:
        if one.athlete is not None and one.athlete not in names:
            raise NotThereError("Somebody of this draft has left the squad: open it anew.")
        whose = None if one.athlete is None else names[one.athlete]
        found.append(Turn(whose, one.session, one.line, one.movement, one.count))
    return found


def _turned(plan: SquadPlan, turns: Sequence[Turn]) -> tuple[TurnedWeek, ...]:
    try:
        return turned(plan, turns)
    except LookupError as gone:
        raise _older(gone) from None


def _older(gone: LookupError) -> NotThereError:
    return NotThereError(f"This draft is of older plans: {gone}. Discard it.")


def _shared(plan: SquadPlan, number: int, ids: Mapping[str, int]) -> SharedOut:
    shared = plan.shared[number]
    first = plan.starts[shared.first].sessions[shared.places[shared.first]]
    names = [plan.starts[at].member.name for at in shared.places]
    return SharedOut(
        session=number,
        title=first.title,
        day=first.date.isoformat(),
        people=[NamedOut(id=ids[name], name=name, findings=0) for name in names],
        lines=[
            SquadLineOut(
                line=one.span.number,
                name=one.name,
                words=one.words,
                differs=one.differs,
                kind=one.span.kind,
                count=one.span.count,
                most=one.span.most,
                fixed=one.span.fixed,
            )
            for one in lines_of(plan, number)
        ],
    )


def _person_week(judged: TurnedWeek, ids: Mapping[str, int], drafted: Set[str]) -> PersonWeekOut:
    name = judged.start.member.name
    return PersonWeekOut(
        id=ids[name],
        name=name,
        before=_levels(judged.before),
        after=_levels(judged.after),
        cleared=_in_words(judged.cleared),
        appeared=_in_words(judged.appeared),
        changed=judged.changed,
        drafted=name in drafted,
    )


def _in_words(findings: Iterable[Finding]) -> list[FindingWords]:
    return [FindingWords(level=one.level, words=finding_words(one.key)) for one in findings]


def _sum(several: Iterable[Levels]) -> LevelsOut:
    found = list(several)
    return LevelsOut(high=sum(one.high for one in found), caution=sum(one.caution for one in found))


# What a coach would sign for all of them.


@api.post("/proposal", responses={202: SquadJobOut})
def propose_for_squad(body: SquadProposalBody) -> Response:
    """Begin to look for the one change of a squad's plans; nothing is stored."""
    week = the_week(body.week)
    chosen = in_squad(body.squad or None)
    plan = _plan(chosen, week)
    members, given = _members(chosen.athletes, week), _given(chosen, week)
    ids = {one.name: one.id for one in chosen.athletes}
    seconds = PROPOSAL_S * desk().patience

    def work(job: Job) -> SquadProposalOut:
        job.tell("looking for the one change that is best for all", round(seconds))
        begun = time.monotonic()

        def wanted() -> bool:
            job.done = min(round(seconds), int(time.monotonic() - begun))
            return job.wanted

        options = Options(
            thorough=body.thorough, seconds=seconds, wanted=wanted, enough=lambda: job.enough
        )
        try:
            return _proposal(plan, adjust_squad(members, week, options, given), ids)
        except NotWantedError:
            raise GivenUpError from None

    return answer(_job_out(desk().jobs.start("a proposal", work)), 202)


@api.get("/proposal/<token>", responses={200: SquadJobOut})
def squad_proposal(path: JobPath) -> Response:
    """How far the search for a proposal is, and what came of it."""
    return answer(_job_out(_job(path.token)))


@api.post("/proposal/<token>/stop", responses={200: SquadJobOut})
def stop_squad_proposal(path: JobPath) -> Response:
    """Look no further: the best that was found so far has to do."""
    job = _job(path.token)
    job.enough = True
    return answer(_job_out(job))


def _job(token: str) -> Job:
    job = desk().jobs.find(token)
    if job is None:
        raise NotThereError("This proposal is no longer at hand: ask for it again.")
    return job


def _job_out(job: Job) -> SquadJobOut:
    return SquadJobOut(
        token=job.token,
        stage=job.stage,
        done=job.done,
        of=job.of,
        finished=job.finished,
        problem=job.problem_words(
            "Dial Back failed at this proposal; the log has the details. Nothing was changed.",
            "Nobody waited for this proposal any more.",
        ),
        proposal=job.result if isinstance(job.result, SquadProposalOut) else None,
    )


def _proposal(plan: SquadPlan, found: SquadProposal, ids: Mapping[str, int]) -> SquadProposalOut:
    names = [start.member.name for start in plan.starts]
    turns = []
    for one in found.shared:
        for change in one.changes:
            number = plan.shared_at(names.index(one.athletes[0]), change.session)
            assert number is not None  # noqa: S101 - it is changed as a shared one
            turns.append(_turn_out(change, None, number))
    for apart in found.exceptions:
        turns += [_turn_out(one, ids[apart.athlete], one.session) for one in apart.changes]
    return SquadProposalOut(
        state=mark_of(plan),
        turns=turns,
        cost=found.cost,
        optimal=found.optimal,
        ladder=[RungOut(cost=one.cost, high=one.high, caution=one.caution) for one in found.ladder],
        stop=found.stop,
        why=found.why,
    )


def _turn_out(change: Change, athlete: int | None, session: int) -> SquadTurnOut:
    return SquadTurnOut(
        athlete=athlete,
        session=session,
        line=change.line,
        movement=change.movement if change.line is None else None,
        count=change.count_to,
        name=change.name,
        what=change.what,
        reason=change.reason,
    )


@api.post("/publish", responses={200: SquadPublished})
def publish_for_squad(body: SquadPublishBody) -> Response:
    """Make a squad's draft everybody's plan, as one change: for all whose week it changes."""
    week = the_week(body.week)
    chosen = in_squad(body.squad or None)
    try:
        done = publish_for_all(
            desk().ledgers,
            body.squad or None,
            week,
            _turns(chosen, body.turns),
            body.state,
            lambda now: _plan(now, week),
            desk().today(),
        )
    except LookupError as gone:
        raise _older(gone) from None
    return answer(SquadPublished(change=done.change, people=done.people))
