"""Dial: the draft of a week's plan, audited as it is turned."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from typing import Any, Literal

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.adjusting import candidates, put_movement
from dialback.core.plans.dial import dial_total
from dialback.core.plans.draft import DraftSession, as_draft, as_sessions
from dialback.core.plans.publishing import changes_of, logged_days
from dialback.core.plans.turning import Subject, Turning, subjects, turning
from dialback.core.progress import next_steps, take_next
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.core.words import capital, describe
from dialback.store.athletes import Athlete
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, planning_ledger, the_athlete, the_day, the_week
from dialback.web.drafted import audited
from dialback.web.shapes.common import Done, Laid, Revision, RevisionBody, WeekPath
from dialback.web.shapes.drafts import (
    CandidateOut,
    CandidatesBody,
    CandidatesOut,
    ChangesOut,
    DayChangeOut,
    DialBody,
    DialOut,
    DraftAudit,
    DraftOut,
    NextStepOut,
    NextStepsOut,
    NotchesBody,
    NotchesOut,
    NotchOut,
    PublishBody,
    PutMovementBody,
    SaveDraftBody,
    SessionsBody,
    SubjectBody,
    SubjectOut,
    TakeNextBody,
    WayOut,
)
from dialback.work import drafting
from dialback.work.errors import NotThereError

api = blueprint("drafts", __name__, "/athletes/<int:athlete_id>/weeks/<week>")

Origin = Literal["saved", "plan", "last plan", "last log", "empty"]


@api.get("/draft", responses={200: DraftOut})
def open_draft(path: WeekPath) -> Response:
    """The stored draft of the week; else its plan, or the week before as a start."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    row = drafting.stored_draft(athlete, week)
    start, origin, origin_week = _start(ledger, week)
    logged = _logged(athlete, week)

    def stored(kept: list[dict[str, Any]]) -> list[DraftSession]:
        found = [DraftSession.model_validate(session) for session in kept]
        return drafting.with_logged(ledger, week, found, logged)

    sessions = stored(row.sessions) if row else start
    dial = turning(ledger, sessions, logged)
    return answer(
        DraftOut(
            revision=row.revision if row else 0,
            origin="saved" if row else origin,
            origin_week=str(origin_week),
            start_total=row.start_total if row else dial_total(start, ledger.movements),
            least=dial.least,
            most=dial.most,
            logged=[day.isoformat() for day in sorted(logged)],
            sessions=sessions,
            shape=stored(row.shape) if row and row.shape else sessions,
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
    """The draft turned to a setting, as far as the dial goes, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    dial = _dial(ledger, body.sessions, _logged(athlete, week), body.on)
    setting = max(dial.least, min(dial.most, body.setting))
    turned = list(dial.at(setting, body.toward))
    reading = dial.reading(turned)
    return answer(
        DialOut(
            sessions=turned,
            audit=audited(ledger, week, turned),
            setting=setting if reading is None else reading,
        )
    )


def _dial(
    ledger: Ledger, sessions: Sequence[DraftSession], logged: frozenset[date], on: SubjectBody
) -> Turning:
    try:
        return turning(ledger, sessions, logged, Subject(on.kind, on.name))
    except LookupError as unknown:
        raise bad_input("on.name", str(unknown.args[0])) from None


def _logged(athlete: Athlete, week: Week) -> frozenset[date]:
    """The days of a week whose plans have a log: they are not changed any more."""
    return logged_days(desk().ledgers.of(athlete), week)


@api.post("/draft/notches", responses={200: NotchesOut})
def dial_notches(path: WeekPath, body: NotchesBody) -> Response:
    """How far the dial goes, where findings clear and appear, and what else it can be put on."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    logged = _logged(athlete, week)
    dial = _dial(ledger, body.sessions, logged, body.on)
    return answer(
        NotchesOut(
            start=dial.start,
            least=dial.least,
            most=dial.most,
            step=dial.step,
            unit=dial.unit,
            whole=dial.whole,
            subjects=[
                SubjectOut(kind=one.kind, name=one.name, label=one.label)
                for one in subjects(ledger, body.sessions, logged)
            ],
            notches=[
                NotchOut(
                    total=notch.total,
                    effect=notch.effect,
                    level=notch.finding.level,
                    title=notch.finding.title,
                    label=notch.finding.about,
                    sentence=notch.finding.sentence,
                )
                for notch in dial.notches(ledger, week)
            ],
        )
    )


@api.post("/draft/next", responses={200: NextStepsOut})
def next_in_draft(path: WeekPath, body: SessionsBody) -> Response:
    """What each movement of the draft does next, from what was done of it last."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    # What is only planned was not done: a step goes by the log alone.
    ledger = desk().ledgers.of(athlete)
    drafting.check(body.sessions, week, ledger.movements)
    open_days, _ = _open(athlete, week, body.sessions)
    steps = next_steps(ledger, week, open_days)
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
    open_days, logged = _open(athlete, week, body.sessions)
    try:
        plan = take_next(desk().ledgers.of(athlete), week, open_days, wanted)
    except LookupError as gone:
        raise NotThereError(f"{gone.args[0]}. Look at its steps again.") from None
    together = sorted([*plan, *logged], key=lambda session: session.date)
    sessions = list(as_draft(together, ledger.movements))
    return answer(DialOut(sessions=sessions, audit=audited(ledger, week, sessions)))


def _open(
    athlete: Athlete, week: Week, draft: Sequence[DraftSession]
) -> tuple[tuple[Session, ...], list[Session]]:
    """The sessions of a draft that may still change, and those of days that have a log."""
    logged = _logged(athlete, week)
    sessions = as_sessions(draft)
    return (
        tuple(session for session in sessions if session.date not in logged),
        [session for session in sessions if session.date in logged],
    )


@api.post("/draft/movements", responses={200: CandidatesOut})
def draft_movements(path: WeekPath, body: CandidatesBody) -> Response:
    """The movements that could be added to a session, or stand in for a line of it."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    if body.session >= len(body.sessions):
        raise NotThereError("The draft no longer has this session.")
    day = body.sessions[body.session]
    old = None
    if body.line is not None:
        if body.line >= len(day.lines):
            raise NotThereError(f"{day.title or day.date} no longer has this line.")
        old = day.lines[body.line].unit[0].named_moves()[0][0]
    return answer(
        CandidatesOut(
            candidates=[
                CandidateOut(
                    movement=one.movement,
                    fits=one.fits,
                    begins=describe(one.set),
                    own=one.own,
                    load_missing=one.load_missing,
                )
                for one in candidates(ledger, week, day.date, old)
            ]
        )
    )


@api.post("/draft/put", responses={200: DialOut})
def put_in_draft(path: WeekPath, body: PutMovementBody) -> Response:
    """The draft with a movement added or swapped in, and its audit; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    drafting.check(body.sessions, week, ledger.movements)
    try:
        sessions = put_movement(ledger, week, body.sessions, body.session, body.line, body.movement)
    except LookupError as gone:
        raise NotThereError(f"{capital(str(gone.args[0]))}.") from None
    return answer(DialOut(sessions=sessions, audit=audited(ledger, week, sessions)))


@api.put("/draft", responses={200: Revision})
def save_draft(path: WeekPath, body: SaveDraftBody) -> Response:
    """Keep the draft. A stale revision is refused and nothing is stored."""
    revision = drafting.keep(
        desk().ledgers,
        path.athlete_id,
        the_week(path.week),
        body.sessions,
        body.shape or body.sessions,
        body.start_total,
        body.revision,
    )
    return answer(Revision(revision=revision))


@api.post("/draft/reset", responses={200: Done})
def reset_draft(path: WeekPath, body: RevisionBody) -> Response:
    """Throw the stored draft away: the plan as published stands again."""
    drafting.throw_away(path.athlete_id, the_week(path.week), body.revision)
    return answer(Done())


@api.post("/draft/changes", responses={200: ChangesOut})
def draft_changes(path: WeekPath, body: SessionsBody) -> Response:
    """What publishing the draft would change, day by day; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    drafting.check(body.sessions, week, ledger.movements)
    found = changes_of(
        ledger.source.week("planned", week), as_sessions(body.sessions), _logged(athlete, week)
    )
    return answer(
        ChangesOut(
            days=[
                DayChangeOut(
                    date=one.day.isoformat(), title=one.title, kind=one.kind, lines=list(one.lines)
                )
                for one in found
            ]
        )
    )


@api.post("/draft/publish", responses={200: Laid})
def publish_draft(path: WeekPath, body: PublishBody) -> Response:
    """Make the draft the week's plan; days that have a log stay as they are."""
    shared = desk()
    change = drafting.publish_draft(
        shared.ledgers,
        path.athlete_id,
        the_week(path.week),
        body.sessions,
        body.revision,
        [the_day(day, "logged") for day in body.logged],
        shared.today(),
    )
    return answer(Laid(change=change))
