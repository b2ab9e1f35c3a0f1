"""Week sheet: the audit of a week, its trails, and the coach's judgement of it."""

from __future__ import annotations

import json
from datetime import date
from http import HTTPStatus

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.audit import Audit, audit
from dialback.core.figures import TOP_LOAD, is_figure, measure_of, parts, side_of
from dialback.core.hurts import lately
from dialback.core.measures import TITLES
from dialback.core.rules import merge
from dialback.core.schools import under_schools
from dialback.core.sessions import parse_day
from dialback.core.tally import Ledger, TrailEntry, is_measured, top_loads, trail
from dialback.core.vocabulary import Key, label
from dialback.core.weeks import Week
from dialback.core.words import Unit, describe, explain, movement_text
from dialback.store.athletes import Athlete
from dialback.store.blocks import block_at
from dialback.store.cautions import care_of
from dialback.store.judgements import signature
from dialback.web.beside import care_notes, notes
from dialback.web.blueprint import blueprint
from dialback.web.columns import COLUMNS, week_column
from dialback.web.desk import answer, attachment, desk, judged_week, the_athlete, the_week
from dialback.web.document import file_answer
from dialback.web.doors import visitor
from dialback.web.problems import RefusedError
from dialback.web.shapes.common import BasisQuery, Done, FindingKey, WeekColumn, WeekPath
from dialback.web.shapes.sheet import AthleteOut, OfferKey, OfferOut, Sheet, SignatureOut
from dialback.web.shapes.weeks import (
    AcceptBody,
    AcceptCauseBody,
    CauseKey,
    DecisionBody,
    Frame,
    HurtOut,
    KindBody,
    ReportQuery,
    SchoolRow,
    SchoolsOut,
    SignBody,
    Trail,
    TrailQuery,
    TrailSet,
)
from dialback.web.sheet import TwoSides, athlete_out, sheet
from dialback.work import house, judging, learning, marking, reporting
from dialback.work.errors import NotThereError

api = blueprint("weeks", __name__, "/athletes/<int:athlete_id>/weeks/<week>")


@api.get("", responses={200: Frame})
def frame(path: WeekPath) -> Response:
    """Where one is, for the frame around an athlete's places."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    return answer(
        Frame(
            athlete=_seen(athlete),
            restrictions=notes(
                (restriction for restriction in ledger.restrictions if restriction.holds_in(week)),
                ledger.unit,
            ),
            care=care_notes(care_of(athlete, week.sunday)),
            hurts=[
                HurtOut(day=hurt.day.isoformat(), movement=hurt.movement, words=hurt.words)
                for hurt in lately(ledger, desk().today())
            ],
            damaged=desk().damage.words(athlete.id),
            week=str(week),
            monday=week.monday.isoformat(),
            sunday=week.sunday.isoformat(),
            before=str(week.plus(-1)),
            after=str(week.plus(1)),
            over=week <= Week.to_audit(desk().today()),
            kind=ledger.kinds.get(week),
        )
    )


def _seen(athlete: Athlete) -> AthleteOut:
    """The athlete, to the athlete without what the coach has noted about them."""
    seen = athlete_out(athlete)
    return seen if visitor().has("read") else seen.model_copy(update={"note": ""})


@api.get("/sheet", responses={200: Sheet})
def week_sheet(path: WeekPath, query: BasisQuery) -> Response:
    """The week, planned and completed side by side, judged on one of the two."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    planned, done = audit(ledger, week, "planned"), judged_week(ledger, week)
    judged = done if query.basis == "completed" else planned
    signed = _signature(athlete, week)
    in_block = block_at(athlete, week) is not None
    sides = TwoSides(planned, done, judged)
    found = sheet(athlete, sides, desk().today(), signed, in_block=in_block)
    if query.basis == "completed":
        found = found.model_copy(update={"offer": _offer(athlete, week)})
    return answer(found)


def _offer(athlete: Athlete, week: Week) -> OfferOut | None:
    """The rule that the coach's own judgement asks for, if there is one."""
    found = learning.offer(desk().ledgers, athlete, week, desk().today())
    if found is None:
        return None
    return OfferOut(
        code=found.key[0],
        subject=found.key[1],
        measure=found.key[2],
        times=found.times,
        reason=found.reason,
        words=found.lesson.words,
        chosen=found.chosen,
        revision=athlete.revision,
        cleared=len(found.effect.cleared),
        appeared=len(found.effect.appeared),
    )


@api.post("/offer/decline", responses={200: Done})
def decline_offer(path: WeekPath, body: OfferKey) -> Response:
    """Remember that no rule for this is wanted."""
    the_week(path.week)
    learning.decline(path.athlete_id, (body.code, body.subject, body.measure))
    return answer(Done())


def _signature(athlete: Athlete, week: Week) -> SignatureOut | None:
    """Who signed the week, and what has changed since."""
    signed = signature(athlete, week)
    if signed is None:
        return None
    since = judging.changed_since(desk().ledgers, athlete, signed, desk().today())
    return SignatureOut(
        name=signed.name, day=signed.day.isoformat(), kept=since is not None, since=since or []
    )


@api.put("/kind", responses={200: Done})
def mark_week(path: WeekPath, body: KindBody) -> Response:
    """Say what the week is for, such as a test; what its kind brings with it is no news then."""
    marking.set_week_kind(path.athlete_id, the_week(path.week), body.kind)
    return answer(Done())


@api.post("/decisions", responses={201: Done})
def decide(path: WeekPath, body: DecisionBody) -> Response:
    """Decide about findings or signals of the week for longer than the week."""
    judging.decide(
        desk().ledgers,
        path.athlete_id,
        the_week(path.week),
        body.basis,
        [(key.code, key.subject, key.measure) for key in body.keys],
        body.lasts,
        body.reason,
        desk().today(),
    )
    return answer(Done(), 201)


@api.get("/schools", responses={200: SchoolsOut})
def schools(path: WeekPath, query: BasisQuery) -> Response:
    """What every school would raise of the week, side by side; notes aside."""
    athlete = the_athlete(path.athlete_id)
    ledger = desk().ledgers.of(athlete)
    own = {school.name: merge(school.rules, athlete.rules) for school in house.schools_of_house()}
    found = under_schools(ledger, the_week(path.week), query.basis, desk().today(), own)
    by_key = [
        {finding.key: finding for finding in result.findings if finding.level != "note"}
        for result in found.values()
    ]
    known = {key: one for several in by_key for key, one in several.items()}
    return answer(
        SchoolsOut(
            names=list(found),
            rows=[
                SchoolRow(
                    code=key[0],
                    subject=key[1],
                    measure=key[2],
                    title=known[key].title,
                    label=known[key].about,
                    levels=[several[key].level if key in several else None for several in by_key],
                )
                for key in sorted(known)
            ],
        )
    )


@api.get("/trail", responses={200: Trail})
def figure_trail(path: WeekPath, query: TrailQuery) -> Response:
    """The sets behind a figure."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    if not is_figure(query.figure, ledger.movements):
        raise bad_input("figure", f"{query.figure!r} is not a figure of a week sheet")
    result = judged_week(ledger, week, query.basis)
    measure = measure_of(query.figure)
    is_sum = measure != TOP_LOAD
    found = trail(result.entries, query.figure, _days(query.days))
    value = sum(entry.credit for entry in found) if is_sum else found[0].credit if found else 0.0
    return answer(
        Trail(
            figure=query.figure,
            label=_label(query.figure),
            measure=measure,
            value=value,
            is_sum=is_sum,
            sets=[_trail_set(entry, query.figure, ledger.unit) for entry in found],
            history=_history(ledger, result, query.figure),
        )
    )


def _days(text: str) -> list[date]:
    try:
        return [parse_day(day) for day in text.split(",") if day]
    except ValueError as error:
        raise bad_input("days", str(error)) from None


def _label(figure: str) -> str:
    kind, subject, _ = parts(figure)
    if kind == "balance":
        pair, side = side_of(subject)
        return pair.labels["ab".index(side)]
    return {"totals": "the week"}.get(kind) or (subject if kind == "movements" else label(subject))


def _trail_set(one: TrailEntry, figure: str, unit: Unit) -> TrailSet:
    entry = one.entry
    measured = entry.measured
    return TrailSet(
        date=entry.session.date.isoformat(),
        title=entry.session.title,
        position=entry.at + 1,
        movement=movement_text(entry.set),
        text=describe(entry.set),
        explained=f"heaviest {TITLES[TOP_LOAD]} of the week"
        if measure_of(figure) == TOP_LOAD
        else explain(entry.set, measured, figure, unit),
        credit=one.credit,
        easy=measured.shape.standing == "easy",
        estimated=measured.estimated,
        assumed=measured.shape.assumed,
        measured=is_measured(entry),
    )


def _history(ledger: Ledger, result: Audit, figure: str) -> list[WeekColumn]:
    weeks = [result.week.plus(back) for back in range(1 - COLUMNS, 1)]
    _, name, measure = parts(figure)
    if measure != TOP_LOAD:
        return [week_column(ledger, week, figure) for week in weeks]
    tops = [
        [
            top_loads(ledger.entries(basis, week)).get(name, 0.0)
            for basis in ("planned", "completed")
        ]
        for week in weeks
    ]
    return [
        WeekColumn(week=str(week), planned=planned, done=done)
        for week, (planned, done) in zip(weeks, tops, strict=True)
    ]


@api.post("/acceptances", responses={200: Done})
def accept_finding(path: WeekPath, body: AcceptBody) -> Response:
    """Accept a finding of the week with a reason."""
    shared = desk()
    judging.accept_finding(
        shared.ledgers,
        path.athlete_id,
        the_week(path.week),
        body.basis,
        _key(body),
        body.reason,
        shared.today(),
    )
    return answer(Done())


@api.post("/acceptances/withdraw", responses={200: Done})
def reopen_finding(path: WeekPath, body: FindingKey) -> Response:
    """Open an accepted finding again."""
    judging.reopen_finding(path.athlete_id, the_week(path.week), body.basis, _key(body))
    return answer(Done())


def _key(body: FindingKey) -> Key:
    return body.code, body.subject, body.measure


@api.post("/acceptances/cause", responses={200: Done})
def accept_cause(path: WeekPath, body: AcceptCauseBody) -> Response:
    """Accept all that follows from a cause, with one reason."""
    shared = desk()
    judging.accept_cause(
        shared.ledgers,
        path.athlete_id,
        the_week(path.week),
        body.basis,
        (body.code, body.subject),
        body.reason,
        shared.today(),
    )
    return answer(Done())


@api.post("/acceptances/cause/withdraw", responses={200: Done})
def reopen_cause(path: WeekPath, body: CauseKey) -> Response:
    """Open again all that follows from a cause."""
    shared = desk()
    judging.reopen_cause(
        shared.ledgers,
        path.athlete_id,
        the_week(path.week),
        body.basis,
        (body.code, body.subject),
        shared.today(),
    )
    return answer(Done())


@api.put("/signature", responses={200: Done})
def sign_week(path: WeekPath, body: SignBody) -> Response:
    """Sign the week's audit off, by name, today."""
    shared = desk()
    judging.sign(shared.ledgers, path.athlete_id, the_week(path.week), body.name, shared.today())
    return answer(Done())


@api.delete("/signature", responses={200: Done})
def unsign_week(path: WeekPath) -> Response:
    """Take the signature back."""
    judging.take_back_signature(path.athlete_id, the_week(path.week))
    return answer(Done())


@api.get(
    "/signature/document",
    responses={200: file_answer("application/json", "The week as it was signed")},
)
def signed_week(path: WeekPath) -> Response:
    """What was signed: figures, findings, acceptances, rules and sets, as they were then."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    signed = signature(athlete, week)
    if signed is None or signed.document is None:
        raise NotThereError(f"Nothing was kept of a signature of {week}.")
    text = json.dumps(signed.document, ensure_ascii=False, indent=1)
    return attachment(text.encode(), athlete, "application/json", f"{week}.signed.json")


_REPORTS = {
    "week": reporting.week_report,
    "block": reporting.block_report,
    "since": reporting.since_report,
}


@api.get("/report", responses={200: file_answer("application/pdf", "A page to print")})
def report(path: WeekPath, query: ReportQuery) -> Response:
    """The week, or the block it lies in, on one page: for the coach's file or the athlete."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    if query.reader == "coach" and not visitor().has("read"):
        raise RefusedError(
            HTTPStatus.FORBIDDEN,
            "not-allowed",
            "The coach's report is the coach's: take the hand-out.",
        )
    make = _REPORTS[query.of]
    pdf = make(desk().ledgers, athlete, week, query.reader, desk().today())
    what = "hand-out" if query.reader == "athlete" else "report"
    ending = f"{week}.{'' if query.of == 'week' else f'{query.of}.'}{what}.pdf"
    return attachment(pdf, athlete, "application/pdf", ending, shown=True)
