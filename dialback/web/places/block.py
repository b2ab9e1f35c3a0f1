"""Block: some weeks of plans at a glance, and sessions laid over them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import replace
from datetime import UTC, date, datetime, time, timedelta

from flask import Response

from dialback.book.calendar import Appointment, calendar
from dialback.book.errors import bad_input
from dialback.core.audit import audit
from dialback.core.duration import estimated_duration
from dialback.core.notation import Change, WrittenSession, expand, gather, lighter, read, stepped
from dialback.core.notation import write as write_text
from dialback.core.sessions import Session
from dialback.core.tally import Ledger, tally
from dialback.core.vocabulary import MEASURES
from dialback.core.weeks import YEARS, Week
from dialback.store.athletes import movement_ids, touch
from dialback.store.models import Athlete, database
from dialback.store.models import Session as SessionRow
from dialback.store.sessions import TEXT_KEY, add_sessions, planned_rows, plans_on
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, attachment, desk, running_week, the_athlete, the_week
from dialback.web.problems import not_found
from dialback.web.shapes import (
    Block,
    BlockQuery,
    BlockSession,
    BlockWeek,
    Counts,
    Laid,
    LayBody,
    WeekPath,
)
from dialback.web.sheet import by_urgency

api = blueprint("block", __name__, "/athletes/<int:athlete_id>/weeks/<week>")


@api.get("/block", responses={200: Block})
def block(path: WeekPath, query: BlockQuery) -> Response:
    """The weeks from this one on, each as it is planned and as it was done."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    weeks = [first.plus(at) for at in range(query.weeks)]
    running = running_week()
    # What lies ahead is compared as if the plans before it were done.
    ahead = desk().ledgers.ahead(athlete, running)
    return answer(
        Block(
            weeks=[_week(ledger, ahead, week, over=week < running) for week in weeks],
            days=[
                [(week.monday + timedelta(days=day)).isoformat() for week in weeks]
                for day in range(7)
            ],
            sessions=[one for week in weeks for one in _sessions(athlete, ledger, week)],
        )
    )


def _week(ledger: Ledger, ahead: Ledger, week: Week, *, over: bool) -> BlockWeek:
    result = audit(ledger, week) if over else audit(ahead, week, "planned")
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
        counts=Counts(
            high=levels["high"], caution=levels["caution"], note=levels["note"], accepted=0
        ),
        first=findings[0].sentence if findings else None,
    )


def _sessions(athlete: Athlete, ledger: Ledger, week: Week) -> Iterable[BlockSession]:
    done = {session.date for session in ledger.source.week("completed", week)}
    planned = ledger.source.week("planned", week)
    for row, session in zip(planned_rows(athlete, week), planned, strict=True):
        entries = ledger.measure([session])
        yield BlockSession(
            id=row.id,
            date=session.date.isoformat(),
            title=session.title,
            sets=tally(entries).get("totals/sets", 0.0),
            minutes=estimated_duration(entries, ledger.rules).total_s / 60,
            done=session.date in done,
        )


@api.post("/block/lay", responses={200: Laid})
def lay(path: WeekPath, body: LayBody) -> Response:
    """Lay sessions over other days: copy, move, repeat with a step, make lighter."""
    athlete = the_athlete(path.athlete_id)
    the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    change = Change(**body.change.model_dump())
    with database.atomic("IMMEDIATE"):
        sources = [(row, _written(ledger, row)) for row in _rows(athlete, body.sessions)]
        new: list[Session] = []
        for at, shift in enumerate(body.shifts, 1):
            for row, written in sources:
                changed = stepped(written, change.times(at))
                if body.lighter:
                    changed = lighter(changed)
                new.append(_laid(changed, row, shift, as_typed=changed == written))
        removed = [
            row for one in {session.date for session in new} for row in plans_on(athlete, one)
        ]
        if body.move:
            gone = {row.id for row in removed}
            removed += [row for row, _ in sources if row.id not in gone]
        for row in removed:
            row.deleted_on = desk().today()
            row.revision += 1
            row.save()
        ids = movement_ids(athlete)
        added = [
            number
            for session in new
            for number in add_sessions(athlete, "planned", [session], ids).values()
        ]
        touch(athlete)
    return answer(Laid(added=added, removed=[row.id for row in removed]))


@api.post("/block/undo", responses={200: Laid})
def undo(path: WeekPath, body: Laid) -> Response:
    """Undo what was laid: what came goes, what went comes back."""
    athlete = the_athlete(path.athlete_id)
    with database.atomic("IMMEDIATE"):
        for numbers, on in ((body.added, desk().today()), (body.removed, None)):
            for row in SessionRow.select().where(
                SessionRow.id.in_(numbers),
                SessionRow.athlete == athlete,
                SessionRow.basis == "planned",
            ):
                row.deleted_on = on
                row.revision += 1
                row.save()
        touch(athlete)
    return answer(Laid(added=body.removed, removed=body.added))


def _rows(athlete: Athlete, numbers: list[int]) -> list[SessionRow]:
    found = {
        row.id: row
        for row in SessionRow.select().where(
            SessionRow.id.in_(numbers),
            SessionRow.athlete == athlete,
            SessionRow.basis == "planned",
            SessionRow.deleted_on.is_null(),
        )
    }
    missing = [number for number in numbers if number not in found]
    if missing:
        raise not_found(f"{athlete.name} has no planned session with the number {missing[0]}.")
    return [found[number] for number in numbers]


def _written(ledger: Ledger, row: SessionRow) -> WrittenSession:
    """A session as it was written, or gathered from its sets."""
    text = row.extra.get(TEXT_KEY)
    if isinstance(text, str):
        sessions = read(text, ledger.movements).sessions
        return WrittenSession(tuple(part for one in sessions for part in one.parts))
    week = Week.of(row.date)
    planned = ledger.source.week("planned", week)
    at = [one.id for one in planned_rows(row.athlete, week)].index(row.id)
    return WrittenSession(gather(planned[at]).parts)


def _laid(written: WrittenSession, row: SessionRow, shift: int, *, as_typed: bool) -> Session:
    on: date = row.date + timedelta(days=shift)
    if on.year not in YEARS:
        raise bad_input("shifts", f"{shift} days on leaves the calendar")
    sets = expand(written, on).sets
    typed = row.extra.get(TEXT_KEY)
    # Lines that are not understood, and those for the coach alone, move with the rest.
    text = {TEXT_KEY: typed if as_typed and isinstance(typed, str) else write_text(written)}
    return Session.model_validate({"date": on, "title": row.title, "sets": sets, **text})


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
            write_text(_written(ledger, row)),
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
        replace(_written(ledger, row), day=row.date, title=row.title)
        for row, _ in _rows_and_cells(athlete, ledger, first, query.weeks)
    ]
    return attachment(write_text(*sessions).encode(), athlete, "text/plain; charset=utf-8", "txt")


def _rows_and_cells(
    athlete: Athlete, ledger: Ledger, first: Week, weeks: int
) -> Iterable[tuple[SessionRow, BlockSession]]:
    for week in (first.plus(at) for at in range(weeks)):
        yield from zip(planned_rows(athlete, week), _sessions(athlete, ledger, week), strict=True)
