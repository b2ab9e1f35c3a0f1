"""The command ``dialback``. Bad input ends with one line on standard error and status 2."""

from __future__ import annotations

import gc
import io
import json
import sys
from collections.abc import Callable
from datetime import date
from functools import wraps
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from dialback import __version__
from dialback.book.errors import BadInputError

if TYPE_CHECKING:
    from dialback.core.vocabulary import Basis
    from dialback.store.athletes import Athlete
    from dialback.work.reporting import Reader

# The rooms behind a command are imported by the command: an audit needs no database, no server.


def _plain_errors(command: Callable[..., None]) -> Callable[..., None]:
    """Turn bad input, and a data file that fails, into the one clear line a script can show."""

    @wraps(command)
    def run(*args: Any, **kwargs: Any) -> None:
        try:
            command(*args, **kwargs)
        except BadInputError as error:
            click.echo(error.line, err=True)
            sys.exit(2)
        except Exception as error:
            # Only the commands with a data file have loaded its driver.
            driver = sys.modules.get("peewee")
            if driver is None or not isinstance(error, driver.DatabaseError):
                raise
            from dialback.store.database import what_is_wrong

            click.echo(f"the data file {what_is_wrong(error)}", err=True)
            sys.exit(2)

    return run


def _read(path: Path) -> bytes:
    from dialback.book.book import MAX_BYTES
    from dialback.book.errors import bad_input

    try:
        with path.open("rb") as file:
            return file.read(MAX_BYTES + 1)
    except OSError as error:
        raise bad_input(str(path), f"cannot be read: {error.strerror}") from None


@click.group(context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(__version__, prog_name="dialback")
@click.option(
    "--data",
    type=click.Path(dir_okay=False, path_type=Path),
    envvar="DIALBACK_DATA",
    help="The data file (SQLite); by default in the user's data folder.",
)
@click.pass_context
def main(context: click.Context, data: Path | None) -> None:
    """Dial Back: audit of strength training."""
    # A book is ten thousands of small values that all stay: looking for garbage among them early
    # and often costs a quarter of the time and finds none.
    gc.set_threshold(100_000, 50, 50)
    for stream in (sys.stdout, sys.stderr):
        # Names are written in every script, whatever the terminal's locale says.
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(encoding="utf-8")
    context.obj = data


@main.command()
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--week", required=True, help="The ISO week, as in 2026-W41.")
@click.option("--basis", type=click.Choice(["completed", "planned"]), default="completed")
@click.option("--schools", is_flag=True, help="With the findings that each school would raise.")
@click.option("--json", "as_json", is_flag=True, help="One JSON document, as the contract has it.")
@_plain_errors
def audit(book: Path, week: str, basis: Basis, *, schools: bool, as_json: bool) -> None:
    """Audit a week of BOOK."""
    from dialback.book.audit_document import audit_document, schools_document
    from dialback.book.book import read_book, warnings
    from dialback.book.errors import bad_input
    from dialback.core import audit as core
    from dialback.core.weeks import Week

    try:
        chosen = Week.parse(week)
    except ValueError as error:
        raise bad_input("--week", str(error)) from None
    read = read_book(_read(book))
    for warning in warnings(read):
        click.echo(warning, err=True)
    ledger = read.ledger()
    result = core.audit(ledger, chosen, basis)
    if as_json:
        document = audit_document(result, read.athlete.name)
        if schools:
            document["schools"] = schools_document(ledger, chosen, basis)
        click.echo(json.dumps(document, ensure_ascii=False, indent=1))
    else:
        from dialback.book.table import audit_table, schools_table

        click.echo(audit_table(result, read.athlete.name))
        if schools:
            click.echo("\n" + schools_table(ledger, chosen, basis))


@main.command()
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--week", required=True, help="The ISO week, as in 2026-W42.")
@click.option("--weeks", type=int, default=1, show_default=True,
              help="So many weeks, each with those before it taken as done.")  # fmt: skip
@click.option("--lock", "locks", multiple=True, metavar="MOVEMENT",
              help="A movement that does not change; may be given several times.")  # fmt: skip
@click.option("--new-movements", type=int, default=2, show_default=True,
              help="How many lines may be added.")  # fmt: skip
@click.option("--budget", type=int, help="What the change may cost at most.")
@click.option("--seconds", type=float, default=5.0, show_default=True,
              help="How long the best is looked for.")  # fmt: skip
@click.option("--progress", is_flag=True, help="Also the next step of each movement.")
@click.option("--json", "as_json", is_flag=True, help="One JSON document, as the contract has it.")
@_plain_errors
def adjust(
    book: Path,
    week: str,
    weeks: int,
    locks: tuple[str, ...],
    new_movements: int,
    budget: int | None,
    seconds: float,
    *,
    progress: bool,
    as_json: bool,
) -> None:
    """Propose the plan of a week of BOOK: the least change that leaves the fewest findings."""
    from dialback.book.adjust_document import adjust_document
    from dialback.book.book import read_book, warnings
    from dialback.book.errors import bad_input
    from dialback.book.table import adjust_table, progress_table
    from dialback.core.adjusting import NothingToStartFromError, Options, adjust_weeks
    from dialback.core.movements import UnknownMovementError
    from dialback.core.progress import next_steps
    from dialback.core.weeks import Week

    try:
        chosen = Week.parse(week)
    except ValueError as error:
        raise bad_input("--week", str(error)) from None
    for name, value, least, most in (
        ("--weeks", weeks, 1, 52), ("--new-movements", new_movements, 0, 20),
        ("--budget", budget, 0, 10_000), ("--seconds", seconds, 0.05, 600),
    ):  # fmt: skip
        if value is not None and not least <= value <= most:
            raise bad_input(name, f"{value:g} is not from {least:g} to {most:g}")
    read = read_book(_read(book))
    for warning in warnings(read):
        click.echo(warning, err=True)
    ledger = read.ledger()
    try:
        held = frozenset(ledger.movements[name].name for name in locks)
        options = Options(held, new_movements, budget, seconds)
        found = adjust_weeks(ledger, chosen, weeks, options)
    except UnknownMovementError as unknown:
        raise bad_input("--lock", str(unknown)) from None
    except NothingToStartFromError as nothing:
        raise bad_input("--week", str(nothing)) from None
    steps = next_steps(ledger, chosen, found[0].sessions, held) if progress else None
    if as_json:
        document = adjust_document(found, several=weeks > 1, progress=steps)
        click.echo(json.dumps(document, ensure_ascii=False, indent=1))
    else:
        click.echo("\n\n".join(adjust_table(proposal) for proposal in found))
        if steps is not None:
            click.echo(f"\n{progress_table(steps)}")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "--book", type=click.Path(path_type=Path), help="Whose movements; else the library's."
)
@click.option("--date", "day", help="The day of a session that names none; today if not given.")
@click.option("--json", "as_json", is_flag=True, help="One JSON document with the flat sets.")
@_plain_errors
def expand(file: Path, book: Path | None, day: str | None, *, as_json: bool) -> None:
    """Read sessions written in the notation from FILE and print their flat sets."""
    from dialback.book.book import read_book
    from dialback.book.errors import BadInputError, Problem, bad_input
    from dialback.core.maxima import Maxima
    from dialback.core.notation import expand as flatten
    from dialback.core.notation import read, write
    from dialback.core.sessions import parse_day

    try:
        fallback = parse_day(day) if day else date.today()
    except ValueError as error:
        raise bad_input("--date", str(error)) from None
    try:
        text = _read(file).decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise bad_input(str(file), f"is not a UTF-8 text: byte {error.start} is damaged") from None
    ledger = read_book(_read(book)).ledger() if book else _library_ledger()
    reading = read(text, ledger.movements)
    if reading.mistakes:
        raise BadInputError([Problem("", str(mistake)) for mistake in reading.mistakes])
    maxima = [Maxima(ledger, written.day or fallback) for written in reading.sessions]
    flat = [
        flatten(written, known.setting(), fallback)
        for written, known in zip(reading.sessions, maxima, strict=True)
    ]
    for session, known in zip(flat, maxima, strict=True):
        for told in known.missing_in(session):
            click.echo(told, err=True)
    if as_json:
        sessions = [one.model_dump(mode="json", exclude_defaults=True) for one in flat]
        click.echo(json.dumps({"sessions": sessions}, ensure_ascii=False, indent=1))
    else:
        click.echo(write(*reading.sessions, movements=ledger.movements), nl=False)


def _library_ledger() -> Any:
    """The library's movements, and nobody who has done any of them."""
    from dialback.book.book import SessionsByWeek
    from dialback.core.movements import MovementTable
    from dialback.core.rules import DEFAULT_RULES
    from dialback.core.tally import Ledger
    from dialback.library import library

    return Ledger(SessionsByWeek([], []), MovementTable(library()), DEFAULT_RULES, None)


@main.command()
def schema() -> None:
    """Print the JSON Schema of the book."""
    from dialback.book.book import schema as book_schema

    click.echo(json.dumps(book_schema(), indent=1))


def _open(path: Path | None) -> Path:
    """Open the data file that was chosen, or the default one."""
    from dialback.store.database import default_path, open_database

    chosen = path or default_path()
    open_database(chosen)
    return chosen


@main.command()
@click.pass_obj
@_plain_errors
def init(data: Path | None) -> None:
    """Make the data file, or bring it to the newest form."""
    click.echo(f"The data file is ready: {_open(data)}")


@main.command("import")
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--name", help="Import under another name.")
@click.option("--replace", is_flag=True, help="Put the athlete of that name aside.")
@click.pass_obj
@_plain_errors
def import_command(data: Path | None, book: Path, name: str | None, *, replace: bool) -> None:
    """Import BOOK as an athlete, whole or not at all."""
    from dialback.book.book import read_book, warnings
    from dialback.book.errors import bad_input
    from dialback.store.athletes import NameTakenError, import_book
    from dialback.store.models import database

    read = read_book(_read(book))
    _open(data)
    with database.connection_context():
        try:
            done = import_book(read, date.today(), name, replace=replace)
        except NameTakenError as taken:
            raise bad_input("athlete.name", f"{taken} (--name, --replace)") from None
    for warning in warnings(read):
        click.echo(warning, err=True)
    click.echo(
        f"{done.athlete.name}: {done.planned} planned and {done.completed} completed sessions, "
        f"{done.sets} sets"
    )
    if done.replaced:
        click.echo("the athlete who had that name is archived; nothing is lost", err=True)
    for what, names in (
        ("new in the house", done.new_movements),
        ("kept as this athlete's own, since the house counts them otherwise", done.own_movements),
    ):
        if names:
            click.echo(f"{what}: {', '.join(names)}")


@main.command("export")
@click.argument("athlete")
@click.option("--output", type=click.Path(dir_okay=False, path_type=Path), help="A file.")
@click.pass_obj
@_plain_errors
def export_command(data: Path | None, athlete: str, output: Path | None) -> None:
    """Export the book of ATHLETE (a name) to standard output, or to a file."""
    from dialback.book.book import write_book
    from dialback.book.errors import bad_input
    from dialback.store.athletes import Ledgers, export_book
    from dialback.store.database import write_whole
    from dialback.store.models import database

    _open(data)
    with database.connection_context():
        text = write_book(export_book(_named(athlete), Ledgers()))
    if output is None:
        click.echo(text, nl=False)
        return
    if output.is_file() and output.stat().st_size and not output.read_bytes().startswith(b"{"):
        raise bad_input(str(output), "is there and is not a book: choose another name")
    if write_whole(output, text):
        click.echo(f"{output} was there and has been replaced", err=True)


@main.command()
@click.argument("athlete")
@click.option("--week", required=True, help="The ISO week, as in 2026-W41.")
@click.option("--block", is_flag=True, help="The whole block that the week lies in.")
@click.option("--for", "reader", type=click.Choice(["coach", "athlete"]), default="coach",
              show_default=True, help="For the coach's file, or a hand-out.")  # fmt: skip
@click.option("--out", type=click.Path(dir_okay=False, path_type=Path), required=True,
              help="The PDF to write.")  # fmt: skip
@click.pass_obj
@_plain_errors
def report(
    data: Path | None, athlete: str, week: str, reader: Reader, out: Path, *, block: bool
) -> None:
    """Report a week of ATHLETE (a name), or the block it lies in, on one page."""
    from dialback.book.errors import bad_input
    from dialback.core.weeks import Week
    from dialback.store.athletes import Ledgers
    from dialback.store.database import write_whole
    from dialback.store.models import database
    from dialback.work.errors import NotThereError
    from dialback.work.reporting import block_report, week_report

    try:
        chosen = Week.parse(week)
    except ValueError as error:
        raise bad_input("--week", str(error)) from None
    if out.is_file() and out.stat().st_size and not out.read_bytes().startswith(b"%PDF"):
        raise bad_input(str(out), "is there and is not a PDF: choose another name")
    _open(data)
    make = block_report if block else week_report
    with database.connection_context():
        try:
            pdf = make(Ledgers(), _named(athlete), chosen, reader, date.today())
        except NotThereError as error:
            raise bad_input("--week", str(error)) from None
    if write_whole(out, pdf):
        click.echo(f"{out} was there and has been replaced", err=True)


def _named(athlete: str) -> Athlete:
    """The athlete of that name; everybody who is there otherwise."""
    from dialback.book.errors import bad_input
    from dialback.store.athletes import athletes, find_athlete

    found = find_athlete(athlete)
    if found is None:
        names = ", ".join(one.name for one in athletes()) or "nobody"
        raise bad_input("ATHLETE", f"nobody is called {athlete!r}; on the roster: {names}")
    return found


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.pass_obj
@_plain_errors
def backup(data: Path | None, file: Path) -> None:
    """Copy the data file to FILE, also while it is in use; the copy is looked over."""
    from dialback.store.backup import back_up

    if back_up(_open(data), file):
        click.echo(f"{file} was there and has been replaced", err=True)
    click.echo(f"{file} is a whole copy: {file.stat().st_size / 1e6:.1f} MB")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.pass_obj
@_plain_errors
def restore(data: Path | None, file: Path) -> None:
    """Put FILE, a copy that backup made, in the place of the data file. Stop the server before."""
    from dialback.store.backup import restore as put_back
    from dialback.store.database import default_path

    path = data or default_path()
    aside = put_back(file, path)
    _open(path)
    if aside is not None:
        click.echo(f"what was there is now {aside}", err=True)
    click.echo(f"{path} is as it was when {file} was made")


@main.command()
@click.pass_obj
@_plain_errors
def check(data: Path | None) -> None:
    """Look the data file over, every page and every row."""
    from dialback.store.backup import look_over

    path = _open(data)
    look_over(path)
    click.echo(f"{path} is whole")


@main.command()
@click.option("--fresh", is_flag=True,
              help="Begin anew: delete a data file that demo has made.")  # fmt: skip
@click.option("--yes", is_flag=True,
              help="With --fresh: also put a data file aside that demo has not made.")  # fmt: skip
@click.pass_obj
@_plain_errors
def demo(data: Path | None, *, fresh: bool, yes: bool) -> None:
    """Load the made-up club into a data file that has no athletes."""
    from dialback.book.errors import bad_input
    from dialback.demo.load import load_demo
    from dialback.store.athletes import athletes
    from dialback.store.database import default_path, mark_as_demo
    from dialback.store.models import database

    path = data or default_path()
    if fresh and path.exists():
        _clear_away(path, yes=yes)
    _open(path)
    with database.connection_context():
        if athletes():
            raise bad_input(
                str(path), "there are athletes in it; choose another --data, or --fresh"
            )
        count = load_demo(date.today())
        mark_as_demo()
    click.echo(f"{count} rowers of the made-up Sallowmere Rowing Club are in {path}")


def _clear_away(path: Path, *, yes: bool) -> None:
    """Delete a data file of the demo; put another one aside, if that is wanted."""
    from dialback.book.errors import bad_input
    from dialback.demo.load import everybody, strangers
    from dialback.store.database import delete_data, is_demo, put_data_aside
    from dialback.store.models import database

    marked = is_demo(path)
    _open(path)
    with database.connection_context():
        people, others = everybody(), strangers()
    # The first demos did not mark their file: one with the rowers alone in it is one of them.
    if not others and (marked or people):
        delete_data(path)
        return
    what = f"has {others[0]} in it, whom demo does not know" if others else "was not made by demo"
    if not yes:
        raise bad_input(
            str(path), f"{what}: nothing was deleted. Choose another --data, or put it aside with "
            "--fresh --yes"
        )  # fmt: skip
    click.echo(f"{path} {what}: it is now {put_data_aside(path)}", err=True)


@main.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", type=click.IntRange(0, 65535), default=8765, show_default=True)
@click.pass_obj
@_plain_errors
def serve(data: Path | None, host: str, port: int) -> None:
    """Serve the application until it is stopped."""
    from dialback.web.serve import serve as run

    run(_open(data), host, port, lambda line: click.echo(line))


@main.command()
def openapi() -> None:
    """Print the OpenAPI document of the API."""
    from dialback.web.app import openapi_document

    click.echo(json.dumps(openapi_document(), indent=1))
