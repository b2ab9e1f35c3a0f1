"""Write: planned sessions as text, and what the text comes to while it is written."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from datetime import date, timedelta

from flask import Response

from dialback.book.errors import bad_input
from dialback.book.report.paper import PaperLine, PaperSession, session_paper
from dialback.core.baseline import window
from dialback.core.duration import Duration, density, durations, estimated_duration, in_all
from dialback.core.figures import in_total
from dialback.core.kit import lacks
from dialback.core.maxima import Maxima
from dialback.core.movements import MovementTable
from dialback.core.notation import Reading
from dialback.core.notation.expand import PlacedSet, placed_sets
from dialback.core.notation.rows import readings
from dialback.core.plans.apart import days_apart
from dialback.core.plans.draft import as_draft
from dialback.core.plans.kept import Kept, kept_in, one_session, read_one
from dialback.core.plans.on_paper import sets_by_line
from dialback.core.tally import Entry, Ledger, four_measures, tally
from dialback.core.weeks import Week, in_years
from dialback.store.athletes import Athlete
from dialback.store.habits import habits_of
from dialback.web.beside import doubts_of, kit_misses, mistakes_of, restricted_lines
from dialback.web.blueprint import blueprint
from dialback.web.desk import (
    answer,
    attachment,
    desk,
    planning_ledger,
    the_athlete,
    the_day,
    the_week,
)
from dialback.web.document import file_answer
from dialback.web.drafted import audited
from dialback.web.shapes.common import AthletePath, Done, Revision, RevisionBody, WeekPath
from dialback.web.shapes.write import (
    AddTextBody,
    DayInText,
    DaysMade,
    HabitBody,
    Learnt,
    LinePart,
    LineReading,
    LineShare,
    MovementName,
    MovementNames,
    SaveTextBody,
    SessionPath,
    TextBody,
    Written,
    WrittenRow,
    WrittenWeek,
)
from dialback.work import planning
from dialback.work.errors import NotThereError
from dialback.work.habits import Answer, ask_again, learn

api = blueprint("write", __name__, "/athletes/<int:athlete_id>/weeks/<week>")
habits_api = blueprint("habits", __name__, "/athletes/<int:athlete_id>/habits")


@api.get("/written", responses={200: WrittenWeek})
def written_week(path: WeekPath) -> Response:
    """The week's planned sessions as text, in order of day."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    plans = kept_in(ledger, "planned", week)
    return answer(
        WrittenWeek(
            days=[(week.monday + timedelta(days=day)).isoformat() for day in range(7)],
            sessions=[_row(plan, ledger.movements) for plan in plans],
        )
    )


def _row(plan: Kept, movements: MovementTable) -> WrittenRow:
    return WrittenRow(
        id=plan.number,
        date=plan.day.isoformat(),
        title=plan.title,
        text=plan.text(movements),
        revision=plan.revision,
    )


@api.get("/movements", responses={200: MovementNames})
def movement_names(path: WeekPath) -> Response:
    """The movements to complete a name with, those the athlete has lately done most first."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    uses = Counter(
        move.movement.name
        for one in window(week)
        for entry in ledger.entries("completed", one)
        for move in entry.measured.shape.moves
    )
    kit = ledger.kit
    without = {one.name for one in ledger.movements if kit is not None and lacks(kit, one)}
    movements = sorted(
        ledger.movements, key=lambda one: (-uses[one.name], one.name in without, one.name)
    )
    return answer(
        MovementNames(
            movements=[
                MovementName(
                    name=movement.name,
                    pattern=movement.pattern,
                    uses=uses[movement.name],
                    no_kit=movement.name in without,
                )
                for movement in movements
            ]
        )
    )


@api.post("/written/check", responses={200: Written})
def check_text(path: WeekPath, body: TextBody) -> Response:
    """What a text comes to, line by line and in its week; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = planning_ledger(athlete, week)
    day = _day(body.date, week)
    reading = read_one(body.text, ledger.movements, day)
    maxima = Maxima(ledger, day)
    session = planning.as_one_session(reading, day, body.title, maxima)
    others = [
        plan.session for plan in kept_in(ledger, "planned", week) if plan.number != body.session
    ]
    with_this = sorted([*others, session], key=lambda one: one.date)
    planned = [one for one in with_this if one.sets]
    entries = ledger.measure([session])
    duration = estimated_duration(entries, ledger.rules)
    sums = tally(entries)
    setting = maxima.setting()
    placed = [each for one in reading.sessions for each in placed_sets(one, setting)]
    lines = [one.line for one in placed]
    lately = {
        move.movement.name
        for one in window(week)
        for entry in ledger.entries("completed", one)
        for move in entry.measured.shape.moves
    }
    habits = habits_of(athlete)
    names = dict.fromkeys(
        move.movement.name for entry in entries for move in entry.measured.shape.moves
    )
    return answer(
        Written(
            mistakes=mistakes_of(body.text, reading, habits),
            sets=len(session.sets),
            work_s=duration.work_s,
            rest_s=duration.rest_s,
            minutes=duration.total_s / 60,
            density=density(sums.get(in_total("volume_load_kg"), 0.0), entries),
            totals=four_measures(sums),
            lines=_line_parts(ledger, entries, lines),
            new_movements=[name for name in names if name not in lately],
            readings=_readings(body.text, reading, ledger),
            shares=_shares(placed, maxima),
            kit=kit_misses(body.text, placed, ledger),
            doubts=doubts_of(body.text, reading, ledger, day, habits),
            restricted=restricted_lines(body.text, placed, ledger, day),
            days=_days(body, ledger, day),
            week=audited(ledger, week, as_draft(planned, ledger.movements)),
        )
    )


@habits_api.post("", responses={200: Learnt})
def learn_habit(path: AthletePath, body: HabitBody) -> Response:
    """Count what was answered: from the third time on it is taken as said."""
    return answer(Learnt(taken=learn(path.athlete_id, Answer(body.form, body.answer))))


@habits_api.post("/forget", responses={200: Done})
def forget_habit(path: AthletePath, body: HabitBody) -> Response:
    """Ask again from now on."""
    ask_again(path.athlete_id, Answer(body.form, body.answer))
    return answer(Done())


def _days(body: TextBody, ledger: Ledger, day: date) -> list[DayInText]:
    """The days that a text names; none where it names no other than its own."""
    apart = days_apart(body.text, ledger.movements, day)
    if [one.day for one in apart] == [day]:
        return []
    setting = Maxima(ledger, day).setting()
    return [
        DayInText(
            line=one.line,
            date=one.day.isoformat(),
            title=one.title,
            sets=len(placed_sets(one_session(one.text, ledger.movements, one.day), setting)),
            instead_of=[
                plan.title or "a session"
                for plan in kept_in(ledger, "planned", Week.of(one.day))
                if plan.day == one.day and plan.number != body.session
            ],
        )
        for one in apart
        if in_years(one.day)
    ]


def _readings(text: str, reading: Reading, ledger: Ledger) -> list[LineReading]:
    """How lines were read, where that differs from what stands there."""
    found = readings(text, reading, ledger.movements)
    return [LineReading(line=line, text=canonical) for line, canonical in found.items()]


def _shares(placed: Iterable[PlacedSet], maxima: Maxima) -> list[LineShare]:
    """What loads in per cent of a maximum come to, once for each line and share."""
    told: dict[tuple[int, str], LineShare] = {}
    for one in placed:
        share = maxima.share_in(one.set)
        if share is None:
            continue
        told.setdefault(
            (one.line, share.says),
            LineShare(line=one.line, message=share.says, missing=bool(share.missing)),
        )
    return list(told.values())


def _line_parts(ledger: Ledger, entries: Sequence[Entry], lines: Iterable[int]) -> list[LinePart]:
    by_line: dict[int, list[tuple[Entry, Duration]]] = {}
    takes = durations(entries, ledger.rules)
    for line, entry, one in zip(lines, entries, takes, strict=True):
        by_line.setdefault(line, []).append((entry, one))
    parts = []
    for line, several in by_line.items():
        sums = tally(entry for entry, _ in several)
        duration = in_all(one for _, one in several)
        parts.append(
            LinePart(
                line=line,
                sets=len(several),
                minutes=duration.total_s / 60,
                totals=four_measures(sums),
            )
        )
    return parts


@api.post("/written", responses={201: WrittenRow})
def add_text(path: WeekPath, body: AddTextBody) -> Response:
    """Add a planned session to the week. Lines with mistakes are kept as text only.

    Sent again with the same ``client``, it is the session that is there already.
    """
    written = _written(body, the_week(path.week))
    shared = desk()
    plan = planning.add_written(shared.ledgers, path.athlete_id, written, body.client)
    movements = shared.ledgers.of(the_athlete(path.athlete_id)).movements
    return answer(_row(plan, movements), 201)


def _written(body: TextBody, week: Week) -> planning.Written:
    return planning.Written(_day(body.date, week), body.title, body.text)


@api.put("/written/<int:session>", responses={200: Revision})
def save_text(path: SessionPath, body: SaveTextBody) -> Response:
    """Keep a session's text and the sets it comes to. A stale revision is refused."""
    written = _written(body, the_week(path.week))
    revision = planning.keep_written(
        desk().ledgers, path.athlete_id, path.session, written, body.revision
    )
    return answer(Revision(revision=revision))


@api.post("/written/<int:session>/days", responses={201: DaysMade})
def make_days(path: SessionPath, body: RevisionBody) -> Response:
    """Make each day in the session's text a session of its own, in place of what is planned."""
    the_week(path.week)
    shared = desk()
    change, plans = planning.make_days(
        shared.ledgers, path.athlete_id, path.session, body.revision, shared.today()
    )
    movements = shared.ledgers.of(the_athlete(path.athlete_id)).movements
    rows = [_row(plan, movements) for plan in plans]
    return answer(DaysMade(change=change, sessions=rows), 201)


@api.get(
    "/written/<int:session>/paper",
    responses={200: file_answer("application/pdf", "One page to print")},
)
def session_on_paper(path: SessionPath) -> Response:
    """A planned session as a PDF to print: one page with a box for each set."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    for plan in kept_in(ledger, "planned", week):
        if plan.number == path.session:
            paper = session_paper(_paper(athlete, ledger, plan))
            return attachment(paper, athlete, "application/pdf", f"{plan.day}.pdf")
    raise NotThereError(f"{athlete.name} has no planned session with the number {path.session}.")


def _paper(athlete: Athlete, ledger: Ledger, plan: Kept) -> PaperSession:
    session, text = plan.session, plan.text(ledger.movements)
    counts = sets_by_line(ledger, plan)
    minutes = estimated_duration(ledger.measure([session]), ledger.rules).total_s / 60
    lines = [
        PaperLine(
            line.strip(),
            "part" if not counts[at] else "inside" if line[:1].isspace() else "line",
            counts[at],
        )
        for at, line in enumerate(text.splitlines(), 1)
        if line.strip() and not line.lstrip().startswith("#")
    ]
    head = f"{session.date:%A, %-d %B %Y} · about {minutes:.0f} min · {len(session.sets)} sets"
    return PaperSession(athlete.name, session.title or "Session", head, lines)


@api.post("/written/<int:session>/remove", responses={200: Revision})
def remove_session(path: SessionPath, body: RevisionBody) -> Response:
    """Take a planned session out of the week; it can be put back."""
    return _set_deleted(path, body, desk().today())


@api.post("/written/<int:session>/restore", responses={200: Revision})
def restore_session(path: SessionPath, body: RevisionBody) -> Response:
    """Put a planned session back that was taken out."""
    return _set_deleted(path, body, None)


def _set_deleted(path: SessionPath, body: RevisionBody, on: date | None) -> Response:
    revision = planning.take_out(path.athlete_id, path.session, body.revision, on)
    return answer(Revision(revision=revision))


def _day(text: str, week: Week) -> date:
    day = the_day(text)
    if Week.of(day) != week:
        raise bad_input("date", f"{day} is not in {week} ({week.monday} to {week.sunday})")
    return day
