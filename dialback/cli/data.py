"""The data file: books in and out, reports, copies, the made-up club."""

from __future__ import annotations

import sys
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

import click

from dialback.cli.common import main, named, open_data, plain_errors, read_file

if TYPE_CHECKING:
    from dialback.store.athletes import Imported
    from dialback.work.reporting import Reader


@main.command()
@click.pass_obj
@plain_errors
def init(data: Path | None) -> None:
    """Make the data file, or bring it to the newest form."""
    click.echo(f"The data file is ready: {open_data(data, make=True)}")


@main.command("import")
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--name", help="Import under another name.")
@click.option("--replace", is_flag=True, help="Archive the athlete of that name.")
@click.pass_obj
@plain_errors
def import_command(data: Path | None, book: Path, name: str | None, *, replace: bool) -> None:
    """Import BOOK as an athlete, or a squad's zip file as its squad, whole or not at all."""
    from dialback.book.book import read_book, warnings
    from dialback.book.doubtful import doubtful
    from dialback.book.errors import bad_input
    from dialback.book.squad import is_squad
    from dialback.store.athletes import NameTakenError, import_book
    from dialback.store.journal import Actor, acting
    from dialback.store.models import database

    if is_squad(book):
        if name is not None:
            raise bad_input("--name", "works for a single book only, not for a squad")
        _import_squad(data, book, replace=replace)
        return
    read = read_book(read_file(book))
    open_data(data, make=True)
    with database.connection_context(), acting(Actor("", "command line", date.today())):
        try:
            done = import_book(read, date.today(), name, replace=replace)
        except NameTakenError as taken:
            raise bad_input("athlete.name", f"{taken} (--name, --replace)") from None
    for warning in (*warnings(read), *doubtful(read, date.today())):
        click.echo(warning, err=True)
    _tell(done)


def _tell(done: Imported) -> None:
    """What was imported, and what of it is not as the house has it."""
    click.echo(
        f"{done.athlete.name}: {done.planned} planned and {done.completed} completed sessions, "
        f"{done.sets} sets"
    )
    if done.replaced:
        click.echo("the athlete who had that name is archived; nothing is lost", err=True)
    for what, names in (
        ("new in the house", done.new_movements),
        ("kept as this athlete's own, since the house counts them differently", done.own_movements),
    ):
        if names:
            click.echo(f"{what}: {', '.join(names)}")


def _import_squad(data: Path | None, file: Path, *, replace: bool) -> None:
    """Import everybody of a squad file."""
    from dialback.book.doubtful import doubtful
    from dialback.book.errors import bad_input
    from dialback.book.squad import read_squad
    from dialback.store.athletes import NameTakenError
    from dialback.store.journal import Actor, acting
    from dialback.store.models import database
    from dialback.work.squads import import_squad

    squad = read_squad(file)
    open_data(data, make=True)
    with database.connection_context(), acting(Actor("", "command line", date.today())):
        try:
            found = import_squad(squad, date.today(), replace=replace)
        except NameTakenError as taken:
            raise bad_input("athlete.name", f"{taken} (--replace); nobody was imported") from None
    for warning in squad.warnings():
        click.echo(warning, err=True)
    for book in squad.books:
        for doubt in doubtful(book, date.today()):
            click.echo(f"{book.athlete.name}: {doubt}", err=True)
    for done in found:
        _tell(done)


@main.command("export")
@click.argument("athlete", required=False)
@click.option("--squad", help="Everybody of a squad, as one zip file.")
@click.option("--everybody", is_flag=True, help="The whole roster, as one zip file.")
@click.option("--output", type=click.Path(dir_okay=False, path_type=Path), help="A file.")
@click.pass_obj
@plain_errors
def export_command(
    data: Path | None,
    athlete: str | None,
    squad: str | None,
    output: Path | None,
    *,
    everybody: bool,
) -> None:
    """Export the book of ATHLETE (a name) to standard output, or to a file; or a whole squad."""
    from dialback.book.book import write_book
    from dialback.book.errors import bad_input
    from dialback.store.athletes import Ledgers, export_book
    from dialback.store.database import write_whole
    from dialback.store.models import database

    if (athlete is not None) + (squad is not None) + everybody != 1:
        raise bad_input("ATHLETE", "name an athlete, or --squad NAME, or --everybody")
    chosen = open_data(data)
    if athlete is None:
        from dialback.work.errors import NotThereError
        from dialback.work.squads import squad_file

        if output is None:
            raise bad_input("--output", "is missing: a zip file is written to a file")
        with database.connection_context():
            try:
                text = squad_file(Ledgers(), squad)
            except NotThereError as nobody:
                raise bad_input("--everybody" if everybody else "--squad", str(nobody)) from None
        _refuse_other(output, b"PK", "a squad", chosen)
    else:
        with database.connection_context():
            text = write_book(export_book(named(athlete), Ledgers()))
        if output is None:
            click.echo(text, nl=False)
            return
        _refuse_other(output, b"{", "a book", chosen)
    if write_whole(output, text):
        click.echo(f"{output} was there and has been replaced", err=True)


@main.command()
@click.argument("athlete")
@click.option("--week", required=True, help="The ISO week, as in 2026-W41.")
@click.option("--block", is_flag=True, help="The whole block that the week lies in.")
@click.option(
    "--for",
    "reader",
    type=click.Choice(["coach", "athlete"]),
    default="coach",
    show_default=True,
    help="For the coach's file, or a hand-out.",
)
@click.option(
    "--out",
    type=click.Path(dir_okay=False, path_type=Path),
    required=True,
    help="The PDF to write.",
)
@click.pass_obj
@plain_errors
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
    _refuse_other(out, b"%PDF", "a PDF", open_data(data))
    make = block_report if block else week_report
    with database.connection_context():
        try:
            pdf = make(Ledgers(), named(athlete), chosen, reader, date.today())
        except NotThereError as error:
            raise bad_input("--week", str(error)) from None
    if write_whole(out, pdf):
        click.echo(f"{out} was there and has been replaced", err=True)


def _refuse_other(path: Path, begins: bytes, kind: str, data: Path) -> None:
    """Refuse to write over what is not of this kind, or is the data file itself."""
    from dialback.book.errors import bad_input

    if path.exists() and path.samefile(data):
        raise bad_input(str(path), "is the data file itself: choose another name")
    if path.is_file() and path.stat().st_size and not path.read_bytes().startswith(begins):
        raise bad_input(str(path), f"is there and is not {kind}: choose another name")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "--replace", is_flag=True, help="Also over a newer or fuller copy, or over another house's."
)
@click.pass_obj
@plain_errors
def backup(data: Path | None, file: Path, *, replace: bool) -> None:
    """Copy the data file to FILE, also while it is in use; the copy is looked over."""
    from dialback.store.backup import back_up

    if back_up(open_data(data), file, replace=replace):
        click.echo(f"{file} was there and has been replaced", err=True)
    click.echo(f"{file} is a whole copy: {file.stat().st_size / 1e6:.1f} MB")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.pass_obj
@plain_errors
def restore(data: Path | None, file: Path) -> None:
    """Put FILE, a copy that backup made, in the place of the data file. Stop the server first.

    Who may sign in stays as it is now; everybody signs in again.
    """
    from dialback.store.backup import restore as put_back
    from dialback.store.database import default_path

    path = data or default_path()
    done = put_back(file, path)
    if done.aside is not None:
        click.echo(f"what was there is now {done.aside}", err=True)
    if done.kept_doors:
        click.echo("who may sign in stays as it was; everybody signs in again", err=True)
    click.echo(f"{path} is as it was when {file} was made")


@main.command()
@click.option("--mend", is_flag=True, help="Put right what can be put right safely, after a copy.")
@click.pass_obj
@plain_errors
def check(data: Path | None, *, mend: bool) -> None:
    """Look the data file over: every page, every value of every row, every athlete's book."""
    from dialback.store import damage
    from dialback.store.backup import copy_before_mending, look_over
    from dialback.store.journal import Actor, acting
    from dialback.store.models import database
    from dialback.store.unit import unit

    path = open_data(data)
    look_over(path)
    with database.connection_context(), acting(Actor("", "command line", date.today())):
        found = damage.find()
        if mend and any(one.mend for one in found):
            click.echo(f"a copy of it as it was: {copy_before_mending(path)}", err=True)
            with unit() as entry:
                count = damage.mend(found, entry)
            click.echo(f"{count} damaged values were mended", err=True)
            found = damage.find()
        told = [one.words for one in found] or _unreadable_books()
    for line in told:
        click.echo(f"{path}: {line}", err=True)
    if told:
        sys.exit(2)
    click.echo(f"{path} is whole")


def _unreadable_books() -> list[str]:
    """What keeps athletes' books from being read again as they are written."""
    from dialback.book.book import read_book, write_book
    from dialback.book.errors import BadInputError
    from dialback.store.athletes import Ledgers, athletes, export_book

    told = []
    for athlete in athletes():
        try:
            read_book(write_book(export_book(athlete, Ledgers())))
        except (BadInputError, LookupError, ValueError) as error:
            told.append(f"the book of {athlete.name}: {str(error).splitlines()[0]}")
    return told


@main.command()
@click.option("--fresh", is_flag=True, help="Start afresh: delete a data file that demo has made.")
@click.option(
    "--yes", is_flag=True, help="With --fresh: also put a data file aside that demo has not made."
)
@click.pass_obj
@plain_errors
def demo(data: Path | None, *, fresh: bool, yes: bool) -> None:
    """Load the made-up club into a data file that has no athletes."""
    from dialback.book.errors import bad_input
    from dialback.demo.club import COACH
    from dialback.demo.load import load_demo
    from dialback.store.athletes import athletes
    from dialback.store.database import default_path, mark_as_demo
    from dialback.store.hold import alone
    from dialback.store.journal import Actor, acting
    from dialback.store.models import database

    path = data or default_path()
    if fresh and path.exists():
        with alone(path):
            _clear_away(path, yes=yes)
    open_data(path, make=True)
    with database.connection_context():
        if athletes():
            raise bad_input(
                str(path), "there are athletes in it; choose another --data, or --fresh"
            )
        today = date.today()
        with acting(Actor(COACH, "command line", today)):
            count = load_demo(today)
        mark_as_demo()
    click.echo(f"{count} rowers of the made-up Sallowmere Rowing Club are in {path}")


def _clear_away(path: Path, *, yes: bool) -> None:
    """Delete a data file of the demo; put another one aside, if that is wanted."""
    from dialback.book.errors import bad_input
    from dialback.demo.load import everybody, strangers
    from dialback.store.accounts import is_any
    from dialback.store.athletes import house
    from dialback.store.database import delete_data, is_demo, put_data_aside
    from dialback.store.models import database

    marked = is_demo(path)
    open_data(path)
    with database.connection_context():
        people, others, lent = everybody(), strangers(), house().club is not None
        used = is_any()
    # The first demos did not mark their file: one with the rowers alone in it is one of them,
    # unless they came into somebody's own house.
    if not others and not used and (marked or (people and not lent)):
        delete_data(path)
        return
    what = (
        f"has {others[0]} in it, whom demo does not know"
        if others
        else "has accounts in it"
        if used
        else "was not made by demo"
    )
    if not yes:
        raise bad_input(
            str(path),
            f"{what}: nothing was deleted. Choose another --data, or put it aside with "
            "--fresh --yes",
        )
    click.echo(f"{path} {what}: it is now {put_data_aside(path, key=True)}", err=True)
