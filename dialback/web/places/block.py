"""Block: some weeks of plans at a glance, and sessions laid over them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import replace
from datetime import UTC, date, datetime, time, timedelta

from flask import Response

from dialback.book.calendar import Appointment, calendar
from dialback.book.errors import BadInputError, Problem, bad_input
from dialback.core.audit import audit, plans_done
from dialback.core.duration import estimated_duration
from dialback.core.movements import MovementTable
from dialback.core.notation import Change, read
from dialback.core.notation import write as write_text
from dialback.core.tally import Ledger, tally
from dialback.core.vocabulary import MEASURES
from dialback.core.weeks import Week
from dialback.store.blocks import block_at, blocks_of, place_block, sheets_of, weeks_of
from dialback.store.models import Athlete
from dialback.store.models import Block as BlockRow
from dialback.store.models import Session as SessionRow
from dialback.store.plans import (
    Moved,
    Sheet,
    find_plans,
    laid,
    put_down,
    sheet_of,
    undo,
    written_of,
)
from dialback.store.sessions import planned_rows
from dialback.store.unit import unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import (
    answer,
    attachment,
    desk,
    judged_week,
    running_week,
    the_athlete,
    the_day,
    the_template,
    the_week,
)
from dialback.web.problems import not_found
from dialback.web.shapes import (
    Block,
    BlockBody,
    BlockPath,
    BlockQuery,
    BlockSession,
    BlockWeek,
    Counts,
    Done,
    Laid,
    LayBody,
    NewBlock,
    NewBlockBody,
    StoredBlock,
    TextLaid,
    WeekPath,
    WholeText,
)
from dialback.web.sheet import by_urgency

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
    weeks = weeks_of(stored) if stored else [first.plus(at) for at in range(query.weeks)]
    running = running_week()
    # What lies ahead is compared as if the plans before it were done.
    ahead = desk().ledgers.ahead(athlete, running)
    return answer(
        Block(
            stored=stored_block(stored) if stored else None,
            blocks=[stored_block(one) for one in blocks_of(athlete)],
            weeks=[_week(ledger, ahead, week, over=week < running) for week in weeks],
            days=[
                [(week.monday + timedelta(days=day)).isoformat() for week in weeks]
                for day in range(7)
            ],
            sessions=[one for week in weeks for one in _sessions(athlete, ledger, week)],
        )
    )


def _week(ledger: Ledger, ahead: Ledger, week: Week, *, over: bool) -> BlockWeek:
    result = judged_week(ledger, week) if over else audit(ahead, week, "planned")
    findings = by_urgency(result.findings) if result.value("totals/sets") else []
    levels = Counter(one.level for one in findings)
    base = result.baseline
    sums = {basis: ledger.tally(basis, week) for basis in ("planned", "completed")}
    figures = {name: f"totals/{name}" for name in MEASURES}
    return BlockWeek(
        week=str(week),
        monday=week.monday.isoformat(),
        over=over,
        planned={name: sums["planned"].get(key, 0.0) for name, key in figures.items()},
        done={name: sums["completed"].get(key, 0.0) for name, key in figures.items()},
        base=None
        if base.values is None
        else {name: base.values.get(key, 0.0) for name, key in figures.items()},
        allowed=None
        if base.values is None
        else {
            name: base.values.get(figures[name], 0.0) * (1 + limits[0])
            for name, limits in ledger.rules.jump_limits.items()
        },
        lighter=0
        < sums["planned"].get("totals/sets", 0.0)
        <= LIGHTER_BELOW * ledger.tally("planned", week.plus(-1)).get("totals/sets", 0.0),
        counts=Counts(
            high=levels["high"], caution=levels["caution"], note=levels["note"], accepted=0
        ),
        first=findings[0].sentence if findings else None,
    )


def _sessions(athlete: Athlete, ledger: Ledger, week: Week) -> Iterable[BlockSession]:
    done = plans_done(ledger, week)
    planned = ledger.source.week("planned", week)
    for at, (row, session) in enumerate(zip(planned_rows(athlete, week), planned, strict=True)):
        entries = ledger.measure([session])
        yield BlockSession(
            id=row.id,
            date=session.date.isoformat(),
            title=session.title,
            sets=tally(entries).get("totals/sets", 0.0),
            minutes=estimated_duration(entries, ledger.rules).total_s / 60,
            done=at in done,
        )


@api.post("/block/lay", responses={200: Laid})
def lay(path: WeekPath, body: LayBody) -> Response:
    """Lay sessions over other days: copy, move, repeat with a step, make lighter."""
    the_week(path.week)
    change = Change(**body.change.model_dump())
    with unit():
        athlete = the_athlete(path.athlete_id)
        ledger = desk().ledgers.of(athlete)
        rows = _rows(athlete, body.sessions)
        sheets = [sheet_of(ledger, row) for row in rows]
        new = [
            laid(sheet, days, ledger.movements, change.times(at), lighter_week=body.lighter)
            for at, days in enumerate(_shifts(body, rows[0].date), 1)
            for sheet in sheets
        ]
        moved = put_down(athlete, ledger, new, desk().today(), gone=rows if body.move else ())
    return answer(Laid(added=moved.added, removed=moved.removed))


def _shifts(body: LayBody, first: date) -> list[int]:
    if body.to is not None:
        return [(the_day(body.to, "to") - first).days]
    if not body.shifts:
        raise bad_input("shifts", "say where to: days on, or the day itself as 'to'")
    return body.shifts


@api.post("/block/undo", responses={200: Laid})
def undo_lay(path: WeekPath, body: Laid) -> Response:
    """Undo what was laid: what came goes, what went comes back."""
    athlete = the_athlete(path.athlete_id)
    with unit():
        back = undo(athlete, Moved(body.added, body.removed), desk().today())
    return answer(Laid(added=back.added, removed=back.removed))


def _rows(athlete: Athlete, numbers: list[int]) -> list[SessionRow]:
    found = find_plans(athlete, numbers)
    if isinstance(found, int):
        raise not_found(f"{athlete.name} has no planned session with the number {found}.")
    return found


@api.post("/block/new", responses={201: NewBlock})
def new_block(path: WeekPath, body: NewBlockBody) -> Response:
    """Make a block from this week on, and fill it."""
    first = the_week(path.week)
    with unit():
        athlete = the_athlete(path.athlete_id)
        ledger = desk().ledgers.of(athlete)
        block_row = place_block(athlete, body.title, first, body.weeks)
        sheets = _filling(body, athlete, ledger, first)
        moved = put_down(athlete, ledger, sheets, desk().today())
    return answer(
        NewBlock(
            block=stored_block(block_row), laid=Laid(added=moved.added, removed=moved.removed)
        ),
        201,
    )


def _filling(body: NewBlockBody, athlete: Athlete, ledger: Ledger, first: Week) -> list[Sheet]:
    """The sessions of a new block."""
    movements = ledger.movements
    lighter_weeks = {
        at for at in range(body.weeks) if body.lighter_every and (at + 1) % body.lighter_every == 0
    }
    if body.fill == "template":
        template = the_template(body.template or 0)
        return [
            laid(one, 0, movements, Change(), lighter_week=_week_at(one, first) in lighter_weeks)
            for one in sheets_of(template, first.monday, body.weeks, movements)
        ]
    if body.fill == "week before":
        rows = planned_rows(athlete, first.plus(-1))
        if not rows:
            raise bad_input(
                "fill", f"nothing is planned in {first.plus(-1)}: fill the block otherwise"
            )
        change = Change(**body.change.model_dump())
        sheets = [sheet_of(ledger, row) for row in rows]
        return [
            laid(
                one, 7 * (at + 1), movements, change.times(at + 1), lighter_week=at in lighter_weeks
            )
            for at in range(body.weeks)
            for one in sheets
        ]
    return []


def _week_at(sheet: Sheet, first: Week) -> int:
    return (sheet.day - first.monday).days // 7


@blocks_api.put("/<int:block>", responses={200: StoredBlock})
def change_block(path: BlockPath, body: BlockBody) -> Response:
    """Give a block another title or length; its sessions stay as they are."""
    athlete = the_athlete(path.athlete_id)
    with unit():
        row = _block(athlete, path.block)
        row = place_block(athlete, body.title, Week.parse(row.first_week), body.weeks, row)
    return answer(stored_block(row))


@blocks_api.post("/<int:block>/remove", responses={200: Done})
def remove_block(path: BlockPath) -> Response:
    """Take the block away; its sessions stay as they are."""
    athlete = the_athlete(path.athlete_id)
    with unit():
        row = _block(athlete, path.block)
        row.deleted_on = desk().today()
        row.save()
    return answer(Done())


def _block(athlete: Athlete, number: int) -> BlockRow:
    row = next((one for one in blocks_of(athlete) if one.id == number), None)
    if row is None:
        raise not_found(f"{athlete.name} has no block with the number {number}.")
    return row


def stored_block(row: BlockRow) -> StoredBlock:
    """A block as the API gives it."""
    return StoredBlock(id=row.id, title=row.title, first_week=row.first_week, weeks=row.weeks)


@api.post("/block/text", responses={201: TextLaid})
def take_text(path: WeekPath, body: WholeText) -> Response:
    """Take sessions in from a text, each below its day; all or nothing."""
    the_week(path.week)
    with unit():
        athlete = the_athlete(path.athlete_id)
        ledger = desk().ledgers.of(athlete)
        sheets = _sheets_in(body.text, ledger.movements)
        moved = put_down(athlete, ledger, sheets, desk().today())
    first = Week.of(min(one.day for one in sheets))
    return answer(TextLaid(added=moved.added, removed=moved.removed, first_week=str(first)), 201)


def _sheets_in(text: str, movements: MovementTable) -> list[Sheet]:
    reading = read(text, movements)
    if reading.mistakes:
        raise BadInputError(
            [
                Problem(f"line {one.line}, column {one.column}", one.message)
                for one in reading.mistakes
            ]
        )
    if not reading.sessions:
        raise bad_input("text", "has no session: begin each with its day, as in 2026-11-30 Legs")
    if any(one.day is None for one in reading.sessions):
        raise bad_input("text", "each session begins with its day, as in 2026-11-30 Legs")
    days = Counter(one.day for one in reading.sessions)
    twice = next((day for day, count in days.items() if count > 1), None)
    if twice is not None:
        raise bad_input("text", f"{twice} stands there twice: a day is given once")
    return [
        Sheet(one.day, one.title, replace(one, day=None, title=""))
        for one in reading.sessions
        if one.day is not None
    ]


@api.get("/block/calendar")
def block_calendar(path: WeekPath, query: BlockQuery) -> Response:
    """The block's sessions as an iCalendar file."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    appointments = [
        Appointment(
            one.id,
            row.revision,
            row.date,
            row.title,
            write_text(written_of(ledger, row), movements=ledger.movements),
            one.minutes,
        )
        for row, one in _rows_and_cells(athlete, ledger, first, query.weeks)
    ]
    stamp = datetime.combine(desk().today(), time(), tzinfo=UTC)
    return attachment(calendar(athlete.name, appointments, stamp), athlete, "text/calendar", "ics")


@api.get("/block/text")
def block_text(path: WeekPath, query: BlockQuery) -> Response:
    """The block's sessions in the notation, each below its day."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    sessions = [
        replace(written_of(ledger, row), day=row.date, title=row.title)
        for row, _ in _rows_and_cells(athlete, ledger, first, query.weeks)
    ]
    text = write_text(*sessions, movements=ledger.movements)
    return attachment(text.encode(), athlete, "text/plain; charset=utf-8", "txt")


def _rows_and_cells(
    athlete: Athlete, ledger: Ledger, first: Week, weeks: int
) -> Iterable[tuple[SessionRow, BlockSession]]:
    for week in (first.plus(at) for at in range(weeks)):
        yield from zip(planned_rows(athlete, week), _sessions(athlete, ledger, week), strict=True)
