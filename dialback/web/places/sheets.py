"""Logs from spreadsheets, and into them: choose the columns, look, store, undo."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from dataclasses import asdict
from datetime import date

from flask import Response, request

from dialback.book.errors import bad_input
from dialback.book.grid import Grid, read_grid, write_csv, write_xlsx
from dialback.book.logsheet.columns import COLUMNS, Guess, SheetChoice, guess
from dialback.book.logsheet.names import made_of
from dialback.book.logsheet.rows import export_heads, rows_of
from dialback.book.logsheet.taking import RowProblem, Taken, rows_left, take
from dialback.book.logsheet.tidy import tidied
from dialback.core.movements import MovementTable, fold
from dialback.core.sessions import Session
from dialback.core.words import describe, movement_text
from dialback.store.athletes import Athlete, house_unit
from dialback.store.imports import (
    Stored,
    by_name,
    latest_imports,
    remembered,
    split_known,
    store_sheet,
)
from dialback.store.movements import house_movements
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, attachment, desk, named_attachment, range_of, the_athlete
from dialback.web.document import file_answer
from dialback.web.jobs import Job
from dialback.web.shapes.common import AthletePath, JobPath, RangeQuery
from dialback.web.shapes.sheets import (
    ImportPath,
    ImportRow,
    ImportsOut,
    JobOut,
    SheetAthlete,
    SheetColumn,
    SheetDoubtOut,
    SheetOut,
    SheetPreview,
    SheetProblemKind,
    SheetQuery,
    SheetRowProblem,
    SheetSessionOut,
    SheetStored,
    SheetUnknown,
    Undone,
)
from dialback.work.changes import take_import_back
from dialback.work.errors import NotThereError

api = blueprint("sheets", __name__, "/sheets")
imports_api = blueprint("imports", __name__, "/imports")
export_api = blueprint("export", __name__, "/athletes/<int:athlete_id>")

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_SAMPLE = 6
_MOST_PROBLEMS = 100
_MOST_SHOWN = 12
_SHEET_BODY = {
    "requestBody": {
        "description": "A CSV or XLSX file",
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string"}}},
    }
}


@api.post("", responses={202: JobOut}, openapi_extensions=_SHEET_BODY)
def read_sheet(query: SheetQuery) -> Response:
    """Begin to read a spreadsheet; nothing is stored."""
    data = request.get_data()

    def work(job: Job) -> Grid:
        return tidied(read_grid(data, job.tell("reading rows")))

    return answer(_job_out(desk().jobs.start(query.name, work)), 202)


@api.post("/<token>/cancel", responses={200: JobOut})
def cancel_sheet(path: JobPath) -> Response:
    """Give a piece of work up; nothing of it is stored."""
    job = _job(path.token)
    job.cancelled = True
    return answer(_job_out(job))


@api.get("/<token>", responses={200: JobOut})
def sheet_state(path: JobPath) -> Response:
    """How far a piece of work is, and what came of it."""
    return answer(_job_out(_job(path.token)))


def _job(token: str) -> Job:
    job = desk().jobs.find(token)
    if job is None:
        raise NotThereError("This file is no longer at hand: choose it again.")
    return job


def _job_out(job: Job) -> JobOut:
    result = job.result
    return JobOut(
        token=job.token,
        stage=job.stage,
        done=job.done,
        of=job.of,
        finished=job.finished,
        problem=job.problem_words(
            "Dial Back failed at this file; the log has the details. Nothing was saved.",
            "Cancelled: nothing was saved.",
        ),
        sheet=_sheet_out(result, job.name) if isinstance(result, Grid) else None,
        preview=result if isinstance(result, SheetPreview) else None,
        stored=result if isinstance(result, SheetStored) else None,
    )


def _sheet_out(grid: Grid, name: str) -> SheetOut:
    known = remembered(grid.heads)
    guessed = guess(grid, unit=house_unit())
    return SheetOut(
        name=name,
        kind=grid.kind,
        rows=len(grid.rows),
        heads=list(grid.heads),
        sample=[[_shown(cell) for cell in row] for _, row in grid.rows[:_SAMPLE]],
        choice=known or guessed.choice,
        remembered=known is not None,
        why=guessed.why if known is None else _in_doubt(known, guessed),
        notes=list(grid.notes),
        columns=[SheetColumn(name=column.name, title=column.title) for column in COLUMNS],
    )


def _in_doubt(known: SheetChoice, guessed: Guess) -> dict[str, str]:
    """What of remembered columns this file speaks against, or cannot settle."""
    return {
        field: why
        for field, why in guessed.why.items()
        if field in guessed.open
        or (field in guessed.settled and getattr(known, field) != getattr(guessed.choice, field))
    }


def _shown(cell: object) -> str:
    return "" if cell is None else str(cell)[:60]


@api.post("/<token>/preview", responses={202: JobOut})
def preview_sheet(path: JobPath, body: SheetChoice) -> Response:
    """Begin to look what the sheet comes to with these columns; nothing is stored."""
    job = _job(path.token)
    grid = _grid_of(job)
    today, ledgers, name = desk().today(), desk().ledgers, _name_in(body)

    def work(running: Job) -> SheetPreview:
        seen = running.tell("reading sets", len(grid.rows))
        taken = _take(grid, body, name, today, seen)
        known = by_name()
        people = Counter(session.athlete for session in taken.sessions)
        here = [session for session in taken.sessions if fold(session.athlete) in known]
        running.tell("looking for what is there already", len(here))
        new, there = split_known(here, known, ledgers)
        # Of those who are taken on with it everything is new.
        theirs = [one for one in taken.sessions if body.take_on and fold(one.athlete) not in known]
        return SheetPreview(
            sessions=len(new) + len(theirs),
            sets=sum(len(session.sets) for _, session in new)
            + sum(len(one.session.sets) for one in theirs),
            there=len(there),
            athletes=[
                SheetAthlete(name=name, sessions=count, known=fold(name) in known)
                for name, count in people.most_common(50)
            ],
            problems=[
                SheetProblemKind(kind=one.kind, rows=one.rows, first=_problem(one.first))
                for one in taken.kinds()[:_MOST_PROBLEMS]
            ],
            problem_count=len(taken.problems),
            notes=taken.notes,
            left=len(taken.left),
            asks_dumbbells=taken.asks_dumbbells,
            doubts=[SheetDoubtOut(**asdict(doubt)) for doubt in taken.doubts],
            unknown=[
                SheetUnknown(name=unknown.name, count=unknown.count, near=list(unknown.near))
                for unknown in taken.unknown
            ],
            shown=[
                SheetSessionOut(
                    athlete=whose,
                    date=session.date.isoformat(),
                    title=session.title,
                    sets=_lines(session),
                )
                for whose, session in [
                    *((athlete.name, session) for athlete, session in new),
                    *((one.athlete, one.session) for one in theirs),
                ][:_MOST_SHOWN]
            ],
        )

    return answer(_job_out(desk().jobs.start(job.name, work)), 202)


def _problem(problem: RowProblem) -> SheetRowProblem:
    return SheetRowProblem(row=problem.row, column=problem.column, message=problem.told)


def _lines(session: Session) -> list[str]:
    counts = Counter(f"{movement_text(a_set)}: {describe(a_set)}" for a_set in session.sets)
    return [f"{count} × {text}" if count > 1 else text for text, count in counts.items()]


def _grid_of(job: Job) -> Grid:
    if not isinstance(job.result, Grid):
        raise bad_input("token", "this file is not read yet, or was none that can be taken")
    return job.result


def _name_in(choice: SheetChoice) -> str | None:
    """The athlete that a sheet without names is of."""
    return None if choice.athlete is None else the_athlete(choice.athlete).name


def _take(
    grid: Grid,
    choice: SheetChoice,
    name: str | None,
    today: date,
    seen: Callable[[int], None] = lambda _: None,
) -> Taken:
    if any(at not in range(len(grid.heads)) for at in choice.columns.values()):
        raise bad_input("columns", "a column is named that the file does not have")
    if len(set(choice.columns.values())) < len(choice.columns):
        raise bad_input("columns", "a column can mean one thing only")
    house = [one for _, one in house_movements()]
    movements = MovementTable([*house, *made_of(choice.like, MovementTable(house))])
    return take(grid, choice, movements, today, name, seen)


@api.post("/<token>/left", responses={200: file_answer("text/csv", "Rows that are left out")})
def rows_left_out(path: JobPath, body: SheetChoice) -> Response:
    """The rows that are left out with these choices, as they stand in the file, and why."""
    job = _job(path.token)
    grid = _grid_of(job)
    taken = _take(grid, body, _name_in(body), desk().today())
    content = write_csv((*grid.heads, "left out because"), rows_left(grid, taken))
    return named_attachment(content, job.name, "text/csv; charset=utf-8", "left-out.csv")


@api.post("/<token>/store", responses={202: JobOut})
def store_the_sheet(path: JobPath, body: SheetChoice) -> Response:
    """Begin to store the sheet: all of it or nothing."""
    job = _job(path.token)
    grid = _grid_of(job)
    today, ledgers, name = desk().today(), desk().ledgers, _name_in(body)

    def work(running: Job) -> SheetStored:
        seen = running.tell("reading sets", len(grid.rows))
        taken = _take(grid, body, name, today, seen)
        if taken.problems:
            one = taken.problems[0]
            place = f"row {one.row}{f', {one.column}' if one.column else ''}"
            raise bad_input(place, one.told)
        if taken.doubts:
            doubt = taken.doubts[0]
            raise bad_input(doubt.at, f"{doubt.example}: {doubt.why} Say what it means")
        if taken.unknown:
            raise bad_input("movement", f"{taken.unknown[0].name!r} is unknown: say what it is")
        done: Stored = store_sheet(
            job.name,
            taken.sessions,
            body,
            grid.heads,
            ledgers,
            today,
            running.tell("saving sessions", len(taken.sessions)),
            made_of(body.like, MovementTable(one for _, one in house_movements())),
        )
        return SheetStored(
            import_id=done.row.id, sessions=done.sessions, sets=done.sets, there=done.there
        )

    return answer(_job_out(desk().jobs.start(job.name, work, watched=False)), 202)


@imports_api.get("", responses={200: ImportsOut})
def list_imports() -> Response:
    """The last files that came in and stand."""
    return answer(
        ImportsOut(
            imports=[
                ImportRow(
                    id=import_.id,
                    name=import_.name,
                    day=import_.day.isoformat(),
                    sessions=import_.sessions.count(),
                )
                for import_ in latest_imports()
            ]
        )
    )


@imports_api.post("/<int:number>/undo", responses={200: Undone})
def undo_one_import(path: ImportPath) -> Response:
    """Take the sessions of a file out again."""
    return answer(Undone(sessions=take_import_back(path.number, desk().today())))


@export_api.get("/log.csv", responses={200: file_answer("text/csv", "The log, a row a set")})
def export_csv(path: AthletePath, query: RangeQuery) -> Response:
    """The athlete's log of some days as CSV, one row a set."""
    athlete = the_athlete(path.athlete_id)
    content = write_csv(export_heads(), rows_of(_sessions(athlete, query)))
    return attachment(content, athlete, "text/csv; charset=utf-8", "log.csv")


@export_api.get("/log.xlsx", responses={200: file_answer(XLSX, "The log, a row a set")})
def export_xlsx(path: AthletePath, query: RangeQuery) -> Response:
    """The athlete's log of some days as a workbook, one row a set."""
    athlete = the_athlete(path.athlete_id)
    content = write_xlsx(export_heads(), rows_of(_sessions(athlete, query)))
    return attachment(content, athlete, XLSX, "log.xlsx")


def _sessions(athlete: Athlete, query: RangeQuery) -> list[tuple[str, Session]]:
    first, last = range_of(query)
    source = desk().ledgers.of(athlete).source
    return [
        (athlete.name, session)
        for week in source.weeks("completed")
        if week.sunday >= first and week.monday <= last
        for session in source.week("completed", week)
        if first <= session.date <= last
    ]
