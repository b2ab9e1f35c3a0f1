"""Floor: today's sessions, and all that is needed to run them without a connection."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from datetime import date

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.audit import plans_done
from dialback.core.choices import instead_of
from dialback.core.duration import estimated_duration
from dialback.core.kit import Kit, loads_for
from dialback.core.movements import Movement
from dialback.core.restrictions import allowed
from dialback.core.sessions import Session, Set
from dialback.core.tally import Entry, Ledger
from dialback.core.tempo import parse_tempo
from dialback.core.weeks import Week
from dialback.core.words import dose_text, load_text, movement_text
from dialback.simulated.sensor import SimulatedSensor
from dialback.store.athletes import athletes
from dialback.store.kit import the_kit
from dialback.store.logs import client_id_of
from dialback.store.models import Athlete
from dialback.store.models import Session as SessionRow
from dialback.store.sessions import completed_rows, planned_rows
from dialback.web.beside import notes
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_day
from dialback.web.shapes.common import LogOut
from dialback.web.shapes.floor import (
    FloorDay,
    FloorMovement,
    FloorQuery,
    FloorRun,
    FloorRunOf,
    FloorSession,
    FloorSet,
    RunQuery,
    SensorQuery,
)
from dialback.work.errors import NotThereError

api = blueprint("floor", __name__, "/floor")

CAUTION = (
    "Stop on sharp pain, chest pain, dizziness or numbness, and see a doctor. Pain, injury, "
    "pregnancy, illness and minors need a licensed practitioner's judgement, under local law and "
    "the facility's rules. Heavy bar work needs a spotter or safeties. Form before load; a return "
    "from a break starts low."
)
_SHARED_SENSOR_HEADERS = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}


@api.get("", responses={200: FloorDay})
def floor_day(query: FloorQuery) -> Response:
    """The sessions that are planned for a day."""
    day = the_day(query.day, "day") if query.day else desk().today()
    week = Week.of(day)
    found = []
    for athlete in athletes():
        ledger = desk().ledgers.of(athlete)
        done = plans_done(ledger, week)
        plans = zip(planned_rows(athlete, week), ledger.source.week("planned", week), strict=True)
        for at, (row, plan) in enumerate(plans):
            if plan.date == day:
                entries = ledger.measure([plan])
                found.append(
                    FloorSession(
                        plan=row.id,
                        athlete=athlete.id,
                        name=athlete.name,
                        date=day.isoformat(),
                        title=plan.title,
                        sets=len(plan.sets),
                        minutes=estimated_duration(entries, ledger.rules).total_s / 60,
                        done=at in done,
                    )
                )
    return answer(FloorDay(day=day.isoformat(), sessions=found))


@api.get("/run", responses={200: FloorRun})
def floor_run(query: RunQuery) -> Response:
    """All that is needed to run a session, without asking again."""
    row = SessionRow.get_or_none(
        SessionRow.id == query.plan, SessionRow.basis == "planned", SessionRow.deleted_on.is_null()
    )
    if row is None or row.athlete.deleted_on is not None:
        raise NotThereError(f"No planned session has the number {query.plan}.")
    ledger = desk().ledgers.of(row.athlete)
    kit = the_kit() or Kit()
    plan = _session_of(row, ledger)
    entries = ledger.measure([plan])
    known: dict[str, FloorMovement] = {}
    for entry in entries:
        for move in entry.measured.shape.moves:
            _gather(known, move.movement, ledger, kit, plan.date)
    return answer(
        FloorRun(
            run=_run(row, plan, ledger, entries),
            movements=list(known.values()),
            names=[one.name for one in ledger.movements],
            caution=CAUTION,
        )
    )


def _session_of(row: SessionRow, ledger: Ledger) -> Session:
    week = Week.of(row.date)
    rows = planned_rows(row.athlete, week)
    at = next(at for at, one in enumerate(rows) if one.id == row.id)
    return ledger.source.week("planned", week)[at]


def _run(row: SessionRow, plan: Session, ledger: Ledger, entries: tuple[Entry, ...]) -> FloorRunOf:
    athlete: Athlete = row.athlete
    return FloorRunOf(
        athlete=athlete.id,
        name=athlete.name,
        plan=row.id,
        date=plan.date.isoformat(),
        title=plan.title,
        sets=[_floor_set(entry, plan) for entry in entries],
        restrictions=notes(ledger, [plan.date]),
        log=_log_of(athlete, row, ledger),
    )


def _log_of(athlete: Athlete, plan: SessionRow, ledger: Ledger) -> LogOut | None:
    row = SessionRow.get_or_none(
        SessionRow.plan == plan, SessionRow.basis == "completed", SessionRow.deleted_on.is_null()
    )
    if row is None:
        return None
    week = Week.of(row.date)
    at = [one.id for one in completed_rows(athlete, week)].index(row.id)
    return LogOut(
        client_id=client_id_of(row),
        revision=row.revision,
        session=ledger.source.week("completed", week)[at],
    )


def _floor_set(entry: Entry, plan: Session) -> FloorSet:
    one = entry.set
    rounds = [other.round for other in plan.sets if other.part == one.part]
    shape = entry.measured.shape
    return FloorSet(
        set=one,
        movement=movement_text(one),
        dose=_dose(one),
        load=f"band {one.band}" if one.band else load_text(one),
        part=one.part or "",
        round=one.round,
        rounds=max((number for number in rounds if number is not None), default=None),
        rest_s=one.rest_s or 0.0,
        seconds=one.seconds,
        cycle_s=shape.rep_seconds,
        counted=shape.standing != "conditioning",
    )


def _dose(one: Set) -> str:
    if one.reps is not None and one.reps_to is not None:
        return dose_text(one).replace(f"{one.reps} rep", f"{one.reps}–{one.reps_to} rep", 1)
    return dose_text(one)


def _gather(
    known: dict[str, FloorMovement], movement: Movement, ledger: Ledger, kit: Kit, day: date
) -> None:
    """The movement, its levels and what can stand for it, each with its own choices."""
    waiting = [movement]
    seen = set(known)
    while waiting:
        one = waiting.pop()
        if one.name in seen:
            continue
        seen.add(one.name)
        others = instead_of(one, ledger.movements)
        instead = allowed(others, ledger.movements, ledger.restrictions, ledger.rules, day)
        known[one.name] = FloorMovement(
            name=one.name,
            loads=list(loads_for(kit, one)[1]),
            easier=one.easier,
            harder=one.harder,
            instead=instead,
            tempo=one.tempo,
            isometric=one.isometric,
        )
        if one is movement:
            near = [name for name in (one.easier, one.harder, *instead) if name]
            waiting += [ledger.movements[name] for name in near if name in ledger.movements]


@api.get("/sensor")
def sensor_stream(query: SensorQuery) -> Response:
    """The reps that the simulated sensor reports, as a stream of events while they happen."""
    try:
        tempo = parse_tempo(query.tempo)
    except ValueError as error:
        raise bad_input("tempo", str(error)) from None
    sensor = SimulatedSensor(tempo, query.reps, query.seed)

    def stream() -> Iterator[str]:
        begun = 0.0
        for event in sensor.events():
            time.sleep(max(0.0, event.at_s + event.seconds - begun) / query.pace)
            begun = event.at_s + event.seconds
            yield f"data: {json.dumps(event.as_json())}\n\n"
        yield "event: end\ndata: {}\n\n"

    return Response(stream(), content_type="text/event-stream", headers=_SHARED_SENSOR_HEADERS)
