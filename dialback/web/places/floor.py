"""Floor: today's sessions, and all that is needed to run them without a connection."""

from __future__ import annotations

import json
import time
from collections.abc import Iterable, Iterator
from dataclasses import asdict
from datetime import date

from flask import Response, request

from dialback.book.errors import bad_input
from dialback.core.audit import plans_done
from dialback.core.choices import instead_of
from dialback.core.cues import NEW_TO, Cues
from dialback.core.duration import estimated_duration, on_the_clock
from dialback.core.kit import Kit, loads_for
from dialback.core.matching.sets import places_done_for
from dialback.core.movements import Movement, fold
from dialback.core.plans.kept import Kept, kept_in, unread_of
from dialback.core.restrictions import allowed
from dialback.core.rules import Rules
from dialback.core.sense import Knowing, bounds_of
from dialback.core.sessions import Session
from dialback.core.tally import Entry, Ledger
from dialback.core.tempo import parse_tempo
from dialback.core.weeks import Week
from dialback.core.words import loading_text, movement_text, planned_dose_text, target_text
from dialback.simulated.sensor import RepEvent, SimulatedSensor
from dialback.store.athletes import Athlete, athletes
from dialback.store.cautions import care_of
from dialback.store.cues import cues_for, house_cues, sessions_with
from dialback.store.kit import the_kit
from dialback.store.sessions import log_day_of, planned_of
from dialback.web.beside import care_notes, cue_notes, notes, own_cue_notes
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_day
from dialback.web.document import file_answer
from dialback.web.doors import only_seen, visitor
from dialback.web.shapes.common import LogOut
from dialback.web.shapes.floor import (
    FloorBounds,
    FloorClock,
    FloorDay,
    FloorMovement,
    FloorPart,
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
LONGEST_STREAM_S = 900
BREATH_S = 2.0
_SHARED_SENSOR_HEADERS = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}


@api.get("", responses={200: FloorDay})
def floor_day(query: FloorQuery) -> Response:
    """The sessions that are planned for a day."""
    day = desk().today() if query.day is None else the_day(query.day, "day")
    week = Week.of(day)
    found = []
    for athlete in (one for one in athletes() if visitor().sees(one.id)):
        ledger = desk().ledgers.of(athlete)
        done = plans_done(ledger, week)
        for at, plan in enumerate(kept_in(ledger, "planned", week)):
            if plan.day == day:
                entries = ledger.measure([plan.session])
                found.append(
                    FloorSession(
                        plan=plan.number,
                        athlete=athlete.id,
                        name=athlete.name,
                        squad=athlete.squad,
                        date=day.isoformat(),
                        title=plan.title,
                        sets=len(plan.session.sets),
                        minutes=estimated_duration(entries, ledger.rules).total_s / 60,
                        done=at in done,
                    )
                )
    return answer(FloorDay(day=day.isoformat(), sessions=found))


@api.get("/run", responses={200: FloorRun})
def floor_run(query: RunQuery) -> Response:
    """All that is needed to run a session, without asking again."""
    whose = planned_of(query.plan)
    if whose is None:
        raise NotThereError(f"No planned session has the number {query.plan}.")
    athlete, day = whose
    only_seen(athlete.id)
    shared = desk()
    ledger = shared.ledgers.of(athlete)
    kit = the_kit() or Kit()
    plans = kept_in(ledger, "planned", Week.of(day))
    plan = next(kept for kept in plans if kept.number == query.plan)
    entries = ledger.measure([plan.session])
    house = house_cues()
    known: dict[str, FloorMovement] = {}
    for entry in entries:
        for move in entry.measured.shape.moves:
            _gather(known, move.movement, ledger, kit, plan.day, house)
    return answer(
        FloorRun(
            run=_run(athlete, plan, ledger, entries),
            movements=list(known.values()),
            names=[movement.name for movement in ledger.movements],
            caution=CAUTION,
            sensor=kit.sensor,
        )
    )


def _run(athlete: Athlete, plan: Kept, ledger: Ledger, entries: tuple[Entry, ...]) -> FloorRunOf:
    log = _log_of(ledger, plan)
    written = plan.written(ledger.movements)
    whys = {part.name or None: part.why for part in written.parts if part.why}
    # What is run today was done today, whichever day it was planned for.
    day = log.session.date if log is not None else desk().today()
    return FloorRunOf(
        athlete=athlete.id,
        name=athlete.name,
        plan=plan.number,
        date=day.isoformat(),
        title=plan.title,
        sets=[
            _floor_set(entry, plan.session, ledger.rules, whys.get(entry.set.part, ""))
            for entry in entries
        ],
        why=written.why,
        clock=_clock(entries, ledger.rules),
        unread=[one.text for one in unread_of(ledger, plan)],
        restrictions=notes(
            (restriction for restriction in ledger.restrictions if restriction.holds(day)),
            ledger.unit,
        ),
        care=care_notes(care_of(athlete, day)),
        own_cues=own_cue_notes(athlete),
        new_to=_new_to(athlete, plan),
        log=log,
        log_steps=[] if log is None else _steps(plan, log, ledger),
    )


def _new_to(athlete: Athlete, plan: Kept) -> list[str]:
    """The movements of a session that the athlete has done in few sessions before."""
    names = {name for one in plan.session.sets for name, _ in one.named_moves()}
    done = sessions_with(athlete, names, plan.number)
    return sorted(name for name in names if done.get(fold(name), 0) < NEW_TO)


def _steps(plan: Kept, log: LogOut, ledger: Ledger) -> list[int | None]:
    """For each set of a log the place of the planned set that it was done for."""
    done = log.session.sets
    done_for = places_done_for(plan.session.sets, done, ledger.movements)
    return [done_for.get(at) for at in range(len(done))]


def _log_of(ledger: Ledger, plan: Kept) -> LogOut | None:
    day = log_day_of(plan.number)
    if day is None:
        return None
    logs = kept_in(ledger, "completed", Week.of(day))
    log = next(kept for kept in logs if kept.plan == plan.number)
    return LogOut(client_id=log.client_id, revision=log.revision, session=log.session)


def _clock(entries: tuple[Entry, ...], rules: Rules) -> FloorClock:
    told = on_the_clock(entries, rules)
    return FloorClock(
        parts=[FloorPart(name=name, until_min=until / 60) for name, until in told.parts],
        over_min=told.over_s / 60,
        leave_out=list(told.leave_out),
        fits=told.fits,
    )


def _floor_set(entry: Entry, plan: Session, rules: Rules, why_part: str) -> FloorSet:
    one = entry.set
    rounds = [other.round for other in plan.sets if other.part == one.part]
    shape = entry.measured.shape
    return FloorSet(
        set=one,
        movement=movement_text(one),
        dose=planned_dose_text(one),
        load=loading_text(one),
        target=target_text(one),
        why=one.why or why_part,
        part=one.part or "",
        round=one.round,
        rounds=max((number for number in rounds if number is not None), default=None),
        rest_s=one.rest_s or 0.0,
        seconds=one.seconds,
        turn_s=rules.turn_pause_s if one.seconds is not None and one.sides == "each" else None,
        cycle_s=shape.rep_seconds,
        counted=shape.standing != "conditioning",
    )


def _gather(
    known: dict[str, FloorMovement],
    movement: Movement,
    ledger: Ledger,
    kit: Kit,
    day: date,
    house: dict[str, Cues],
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
            can_be_helped=one.bodyweight_share > 0,
            bounds=FloorBounds(**asdict(bounds_of(one, Knowing(ledger, day)))),
            cues=cue_notes(cues_for(one, house)),
        )
        if one is movement:
            near = [name for name in (one.easier, one.harder, *instead) if name]
            waiting += [ledger.movements[name] for name in near if name in ledger.movements]


@api.get("/sensor", responses={200: file_answer("text/event-stream", "Events, one a rep")})
def sensor_stream(query: SensorQuery) -> Response:
    """The reps that the simulated sensor reports, as a stream of events while they happen."""
    try:
        tempo = parse_tempo(query.tempo)
    except ValueError as error:
        raise bad_input("tempo", str(error)) from None
    if query.reps * tempo.cycle / query.pace > LONGEST_STREAM_S:
        raise bad_input(
            "reps",
            f"{query.reps} reps at this tempo take more than "
            f"{LONGEST_STREAM_S // 60} minutes: a set is shorter",
        )
    events = SimulatedSensor(tempo, query.reps, query.seed).events()
    return Response(
        desk().streams.held(request.remote_addr or "", _as_they_happen(events, query.pace)),
        content_type="text/event-stream",
        headers=_SHARED_SENSOR_HEADERS,
    )


def _as_they_happen(events: Iterable[RepEvent], pace: float) -> Iterator[str]:
    begun = 0.0
    for event in events:
        wait = max(0.0, event.at_s + event.seconds - begun) / pace
        begun = event.at_s + event.seconds
        while wait > BREATH_S:
            # A word in between, so that it is noticed when nobody listens any more.
            time.sleep(BREATH_S)
            wait -= BREATH_S
            yield ": still lifting\n\n"
        time.sleep(wait)
        yield f"data: {json.dumps(event.as_json())}\n\n"
    yield "event: end\ndata: {}\n\n"
