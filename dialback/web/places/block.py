"""Block: some weeks of plans at a glance, and sessions laid over them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import replace
from datetime import UTC, datetime, time, timedelta

from flask import Response

from dialback.book.calendar import Appointment, calendar
from dialback.book.report.changes import changes_told
from dialback.core.across import Mean, Span
from dialback.core.adjusting import usually_lighter
from dialback.core.audit import audit, plans_done
from dialback.core.duration import estimated_duration
from dialback.core.figures import TOTAL_SETS, in_total
from dialback.core.notation import Change
from dialback.core.notation import write as write_text
from dialback.core.plans.kept import Kept, kept_in, unread_of
from dialback.core.tally import Ledger, four_measures, tally
from dialback.core.verdict import by_urgency
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete
from dialback.store.blocks import PlannedBlock, block_at, blocks_of
from dialback.web.blueprint import blueprint
from dialback.web.desk import (
    answer,
    attachment,
    desk,
    judged_week,
    running_week,
    the_athlete,
    the_day,
    the_week,
)
from dialback.web.document import file_answer
from dialback.web.shapes.block import (
    Block,
    BlockBody,
    BlockPath,
    BlockQuery,
    BlockSession,
    BlockWeek,
    DecidedOut,
    LayBody,
    MeanOut,
    NewBlock,
    NewBlockBody,
    SinceOut,
    SpanOut,
    StoredBlock,
    TextLaid,
)
from dialback.web.shapes.common import Counts, Done, Laid, WeekPath, WholeText
from dialback.web.sheet import block_finding
from dialback.work import planning
from dialback.work.across import since_last_block

api = blueprint("block", __name__, "/athletes/<int:athlete_id>/weeks/<week>")
blocks_api = blueprint("blocks", __name__, "/athletes/<int:athlete_id>/blocks")

LIGHTER_BELOW = 0.75
"""A week with at most this share of the planned sets of the one before is shown as lighter."""


@api.get("/block", responses={200: Block})
def block(path: WeekPath, query: BlockQuery) -> Response:
    """The weeks from this one on, each as it is planned and as it was done."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    stored = block_at(athlete, first)
    weeks = stored.weeks if stored else [first.plus(at) for at in range(query.weeks)]
    running = running_week()
    # What lies ahead is compared as if the plans before it were done.
    ahead = desk().ledgers.ahead(athlete, running)
    shown = [_week(ledger, ahead, week, over=week < running) for week in weeks]
    usual = usually_lighter([week.lighter for week in shown], in_block=stored is not None)
    return answer(
        Block(
            stored=stored_block(stored) if stored else None,
            blocks=[stored_block(block) for block in blocks_of(athlete)],
            weeks=[
                week.model_copy(update={"usually_lighter": lighter})
                for week, lighter in zip(shown, usual, strict=True)
            ],
            days=[
                [(week.monday + timedelta(days=day)).isoformat() for week in weeks]
                for day in range(7)
            ],
            sessions=[cell for week in weeks for _, cell in _sessions(athlete, ledger, week)],
        )
    )


def _week(ledger: Ledger, ahead: Ledger, week: Week, *, over: bool) -> BlockWeek:
    result = judged_week(ledger, week) if over else audit(ahead, week, "planned")
    findings = by_urgency(result.findings) if result.value(TOTAL_SETS) else []
    levels = Counter(finding.level for finding in findings)
    base = result.baseline
    sums = {basis: ledger.tally(basis, week) for basis in ("planned", "completed")}
    return BlockWeek(
        week=str(week),
        monday=week.monday.isoformat(),
        over=over,
        kind=ledger.kinds.get(week),
        planned=four_measures(sums["planned"]),
        done=four_measures(sums["completed"]),
        base=None if base.values is None else four_measures(base.values),
        allowed=None
        if base.values is None
        else {
            name: base.values.get(in_total(name), 0.0) * (1 + limits[0])
            for name, limits in ledger.rules.jump_limits.items()
        },
        lighter=0
        < sums["planned"].get(TOTAL_SETS, 0.0)
        <= LIGHTER_BELOW * ledger.tally("planned", week.plus(-1)).get(TOTAL_SETS, 0.0),
        counts=Counts(
            high=levels["high"], caution=levels["caution"], note=levels["note"], accepted=0
        ),
        first=findings[0].sentence if findings else None,
        findings=[block_finding(one) for one in findings if one.level != "note"],
    )


def _sessions(athlete: Athlete, ledger: Ledger, week: Week) -> Iterable[tuple[Kept, BlockSession]]:
    done = plans_done(ledger, week)
    for at, plan in enumerate(kept_in(ledger, "planned", week)):
        entries = ledger.measure([plan.session])
        yield (
            plan,
            BlockSession(
                id=plan.number,
                date=plan.day.isoformat(),
                title=plan.title,
                sets=tally(entries).get(TOTAL_SETS, 0.0),
                minutes=estimated_duration(entries, ledger.rules).total_s / 60,
                done=at in done,
                unread=[one.text for one in unread_of(ledger, plan)],
            ),
        )


@api.post("/block/lay", responses={200: Laid})
def lay(path: WeekPath, body: LayBody) -> Response:
    """Lay sessions over other days: copy, move, repeat with a step, make lighter."""
    the_week(path.week)
    laying = planning.Laying(
        body.sessions,
        body.shifts,
        None if body.to is None else the_day(body.to, "to"),
        Change(**body.change.model_dump()),
        lighter=body.lighter,
        move=body.move,
    )
    laid = planning.lay(desk().ledgers, path.athlete_id, laying, desk().today())
    return answer(Laid(change=laid.change, remarks=laid.remarks))


@api.post("/block/new", responses={201: NewBlock})
def new_block(path: WeekPath, body: NewBlockBody) -> Response:
    """Make a block from this week on, and fill it."""
    new = planning.NewBlock(
        body.title,
        the_week(path.week),
        body.weeks,
        body.fill,
        body.template,
        Change(**body.change.model_dump()),
        body.lighter_every or None,
    )
    made, laid = planning.make_block(desk().ledgers, path.athlete_id, new, desk().today())
    told = Laid(change=laid.change, remarks=laid.remarks)
    return answer(NewBlock(block=stored_block(made), laid=told), 201)


@api.get("/block/since", responses={200: SinceOut})
def since_the_last_block(path: WeekPath) -> Response:
    """What changed from the block before to the one of this week."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    since = since_last_block(desk().ledgers, athlete, week, desk().today())
    found = since.across
    return answer(
        SinceOut(
            before=_span(found.before),
            after=_span(found.after),
            planned=found.planned,
            measures=[_mean(one) for one in found.measures],
            muscles=[_mean(one) for one in found.muscles],
            changes=changes_told(found.movements),
            came=found.told(before=False, after=True),
            went=found.told(before=True, after=False),
            stayed=found.told(before=True, after=True),
            decided=[
                DecidedOut(day=one.day.isoformat(), what=one.what, reason=one.reason, who=one.who)
                for one in since.decided
            ],
        )
    )


def _span(span: Span) -> SpanOut:
    return SpanOut(title=span.title, first_week=str(span.weeks[0]), weeks=len(span.weeks))


def _mean(one: Mean) -> MeanOut:
    return MeanOut(
        name=one.name, measure=one.measure, before=one.before, after=one.after, change=one.change
    )


@blocks_api.put("/<int:block>", responses={200: StoredBlock})
def change_block(path: BlockPath, body: BlockBody) -> Response:
    """Give a block another title or length; its sessions stay as they are."""
    changed = planning.change_block(path.athlete_id, path.block, body.title, body.weeks)
    return answer(stored_block(changed))


@blocks_api.post("/<int:block>/remove", responses={200: Done})
def remove_block(path: BlockPath) -> Response:
    """Take the block away; its sessions stay as they are."""
    planning.remove_block(path.athlete_id, path.block, desk().today())
    return answer(Done())


def stored_block(block: PlannedBlock) -> StoredBlock:
    """A block as the API gives it."""
    return StoredBlock(
        id=block.number, title=block.title, first_week=str(block.first), weeks=block.length
    )


@api.post("/block/text", responses={201: TextLaid})
def take_text(path: WeekPath, body: WholeText) -> Response:
    """Take sessions in from a text, each below its day; all or nothing."""
    the_week(path.week)
    shared = desk()
    change, first = planning.take_text_in(
        shared.ledgers, path.athlete_id, body.text, shared.today()
    )
    return answer(TextLaid(change=change, first_week=str(first)), 201)


@api.get("/block/calendar", responses={200: file_answer("text/calendar", "An iCalendar file")})
def block_calendar(path: WeekPath, query: BlockQuery) -> Response:
    """The block's sessions as an iCalendar file."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    appointments = [
        Appointment(
            plan.number,
            plan.revision,
            plan.day,
            plan.title,
            write_text(plan.written(ledger.movements), movements=ledger.movements),
            cell.minutes,
        )
        for plan, cell in _of_weeks(athlete, ledger, first, query.weeks)
    ]
    stamp = datetime.combine(desk().today(), time(), tzinfo=UTC)
    return attachment(calendar(athlete.name, appointments, stamp), athlete, "text/calendar", "ics")


@api.get("/block/text", responses={200: file_answer("text/plain", "The notation as a text")})
def block_text(path: WeekPath, query: BlockQuery) -> Response:
    """The block's sessions in the notation, each below its day."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    sessions = [
        replace(plan.written(ledger.movements), day=plan.day, title=plan.title)
        for plan, _ in _of_weeks(athlete, ledger, first, query.weeks)
    ]
    weeks = {first.plus(at) for at in range(query.weeks)}
    kinds = {week: kind for week, kind in ledger.kinds.items() if week in weeks}
    text = write_text(*sessions, movements=ledger.movements, kinds=kinds)
    return attachment(text.encode(), athlete, "text/plain; charset=utf-8", "txt")


def _of_weeks(
    athlete: Athlete, ledger: Ledger, first: Week, weeks: int
) -> Iterable[tuple[Kept, BlockSession]]:
    for at in range(weeks):
        yield from _sessions(athlete, ledger, first.plus(at))
