"""Books and texts: audited, adjusted, expanded; no data file is needed."""

from __future__ import annotations

import json
from collections.abc import Iterable
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from dialback.cli.common import main, plain_errors, read_file

if TYPE_CHECKING:
    from dialback.core.adjusting import Options
    from dialback.core.notation import Mistake
    from dialback.core.vocabulary import Basis
    from dialback.core.weeks import Week


@main.command()
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--week", required=True, help="The ISO week, as in 2026-W41.")
@click.option("--basis", type=click.Choice(["completed", "planned"]), default="completed")
@click.option("--schools", is_flag=True, help="With the findings that each school would raise.")
@click.option("--squad", is_flag=True, help="As a squad; a zip file is taken for one anyway.")
@click.option("--json", "as_json", is_flag=True, help="One JSON document, as the contract has it.")
@plain_errors
def audit(
    book: Path, week: str, basis: Basis, *, schools: bool, squad: bool, as_json: bool
) -> None:
    """Audit a week of BOOK, or of every book of a squad's zip file."""
    from dialback.book.audit_document import audit_document, schools_document
    from dialback.book.book import read_book, warnings
    from dialback.book.errors import bad_input
    from dialback.book.squad import is_squad
    from dialback.core import audit as core
    from dialback.core.weeks import Week

    try:
        chosen = Week.parse(week)
    except ValueError as error:
        raise bad_input("--week", str(error)) from None
    if squad or is_squad(book):
        _audit_squad(book, chosen, basis, schools=schools, as_json=as_json)
        return
    read = read_book(read_file(book))
    _warn(warnings(read))
    ledger = read.ledger()
    result = core.audit(ledger, chosen, basis)
    if as_json:
        document = audit_document(result, read.athlete.name)
        if schools:
            document["schools"] = schools_document(ledger, chosen, basis)
        _print(document)
    else:
        from dialback.book.table import audit_table, schools_table

        click.echo(audit_table(result, read.athlete.name))
        if schools:
            click.echo("\n" + schools_table(ledger, chosen, basis))


def _audit_squad(file: Path, week: Week, basis: Basis, *, schools: bool, as_json: bool) -> None:
    """Audit a week of everybody in a squad file; of one book as a squad of one."""
    from dialback.book.book import read_book
    from dialback.book.squad import Squad, is_squad, read_squad
    from dialback.book.squad_document import squad_document, squad_table
    from dialback.core.squads import audit_squad

    if is_squad(file):
        squad = read_squad(file)
    else:
        alone = read_book(read_file(file))
        squad = Squad(alone.athlete.name, (alone,))
    _warn(squad.warnings())
    result = audit_squad(squad.members, week, basis)
    if as_json:
        _print(squad_document(result, squad.name, schools=schools))
    else:
        click.echo(squad_table(result, squad.name))


def _warn(warnings: Iterable[str]) -> None:
    for warning in warnings:
        click.echo(warning, err=True)


def _print(document: dict[str, Any]) -> None:
    click.echo(json.dumps(document, ensure_ascii=False, indent=1))


@main.command()
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--week", required=True, help="The ISO week, as in 2026-W42.")
@click.option(
    "--weeks",
    type=int,
    default=1,
    show_default=True,
    help="So many weeks, each with those before it taken as done.",
)
@click.option(
    "--lock",
    "locks",
    multiple=True,
    metavar="MOVEMENT",
    help="A movement that does not change; may be given several times.",
)
@click.option(
    "--new-movements", type=int, default=2, show_default=True, help="How many lines may be added."
)
@click.option(
    "--lines",
    type=int,
    default=6,
    show_default=True,
    help="How many lines may be changed or added.",
)
@click.option("--thorough", is_flag=True, help="Clear everything that can be cleared, at any cost.")
@click.option("--budget", type=int, help="What the change may cost at most.")
@click.option(
    "--seconds", type=float, default=5.0, show_default=True, help="How long to look for the best."
)
@click.option("--progress", is_flag=True, help="Also the next step of each movement.")
@click.option("--json", "as_json", is_flag=True, help="One JSON document, as the contract has it.")
@plain_errors
def adjust(
    book: Path,
    week: str,
    weeks: int,
    locks: tuple[str, ...],
    new_movements: int,
    lines: int,
    budget: int | None,
    seconds: float,
    *,
    thorough: bool,
    progress: bool,
    as_json: bool,
) -> None:
    """Propose the plan of a week of BOOK, or of everybody in a squad's zip file."""
    from dialback.book.adjust_document import adjust_document
    from dialback.book.book import read_book, warnings
    from dialback.book.errors import bad_input
    from dialback.book.squad import is_squad
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
        ("--weeks", weeks, 1, 52),
        ("--new-movements", new_movements, 0, 20),
        ("--lines", lines, 0, 100),
        ("--budget", budget, 0, 10_000),
        ("--seconds", seconds, 0.05, 600),
    ):
        if value is not None and not least <= value <= most:
            raise bad_input(name, f"{value:g} is not from {least:g} to {most:g}")
    if is_squad(book):
        for name, given in (
            ("--weeks", weeks > 1),
            ("--lock", bool(locks)),
            ("--budget", budget is not None),
            ("--progress", progress),
        ):
            if given:
                raise bad_input(name, "works for a single book only, not for a squad")
        options = Options(
            new_movements=new_movements, lines=lines, thorough=thorough, seconds=seconds
        )
        _adjust_squad(book, chosen, options, as_json=as_json)
        return
    read = read_book(read_file(book))
    _warn(warnings(read))
    ledger = read.ledger()
    try:
        held = frozenset(ledger.movements[name].name for name in locks)
        options = Options(
            held, new_movements, lines, thorough=thorough, budget=budget, seconds=seconds
        )
        found = adjust_weeks(ledger, chosen, weeks, options)
    except UnknownMovementError as unknown:
        raise bad_input("--lock", str(unknown)) from None
    except NothingToStartFromError as nothing:
        raise bad_input("--week", str(nothing)) from None
    steps = next_steps(ledger, chosen, found[0].sessions, held) if progress else None
    if as_json:
        document = adjust_document(found, several=weeks > 1, progress=steps)
        _print(document)
    else:
        click.echo("\n\n".join(adjust_table(proposal) for proposal in found))
        if steps is not None:
            click.echo(f"\n{progress_table(steps)}")


def _adjust_squad(file: Path, week: Week, options: Options, *, as_json: bool) -> None:
    """Propose the plans of everybody in a squad file at once."""
    from dialback.book.errors import bad_input
    from dialback.book.squad import read_squad
    from dialback.book.squad_document import squad_adjust_document, squad_adjust_table
    from dialback.core.adjusting import NothingToStartFromError
    from dialback.core.squads.adjusting import adjust_squad

    squad = read_squad(file)
    _warn(squad.warnings())
    try:
        found = adjust_squad(squad.members, week, options)
    except NothingToStartFromError as nothing:
        raise bad_input("--week", str(nothing)) from None
    if as_json:
        _print(squad_adjust_document(found, squad.name))
    else:
        click.echo(squad_adjust_table(found, squad.name))


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "--book", type=click.Path(path_type=Path), help="Whose movements; else the library's."
)
@click.option("--date", "day", help="The day of a session that names none; today if not given.")
@click.option("--json", "as_json", is_flag=True, help="One JSON document with the flat sets.")
@plain_errors
def expand(file: Path, book: Path | None, day: str | None, *, as_json: bool) -> None:
    """Read sessions written in the notation from FILE and print their flat sets."""
    from dialback.book.book import read_book
    from dialback.book.errors import BadInputError, Problem, bad_input
    from dialback.core.maxima import Maxima
    from dialback.core.notation import expand as flatten
    from dialback.core.notation import read, write
    from dialback.core.sense import Knowing, doubts
    from dialback.core.sessions import parse_day

    try:
        fallback = parse_day(day) if day else date.today()
    except ValueError as error:
        raise bad_input("--date", str(error)) from None
    try:
        text = read_file(file).decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise bad_input(str(file), f"is not a UTF-8 text: byte {error.start} is damaged") from None
    ledger = read_book(read_file(book)).ledger() if book else _library_ledger()
    reading = read(text, ledger.movements, of_block=True, day=fallback)
    if reading.mistakes:
        raise BadInputError([Problem("", _asked(mistake)) for mistake in reading.mistakes])
    maxima = [Maxima(ledger, written.day or fallback) for written in reading.sessions]
    flat = [
        flatten(written, known.setting(), fallback)
        for written, known in zip(reading.sessions, maxima, strict=True)
    ]
    knowing = Knowing(ledger, fallback)
    doubtful = doubts(text, reading, knowing)
    for session, known in zip(flat, maxima, strict=True):
        for told in known.missing_in(session):
            click.echo(told, err=True)
    if as_json:
        sessions = [one.model_dump(mode="json", exclude_defaults=True) for one in flat]
        kinds = [{"week": str(week), "kind": kind} for week, kind in reading.kinds.items()]
        asked = [
            {"line": one.line, "taken": one.taken, "others": list(one.others), "why": one.why}
            for one in doubtful
        ]
        found = {"sessions": sessions, "doubts": asked} | ({"kinds": kinds} if kinds else {})
        _print(found)
    else:
        for one in doubtful:
            others = "".join(f"\n  or {other}" for other in one.others)
            click.echo(f"line {one.line}: {one.why}\n  read {one.taken}{others}", err=True)
        text = write(*reading.sessions, movements=ledger.movements, kinds=reading.kinds)
        click.echo(text, nl=False)


def _asked(mistake: Mistake) -> str:
    """A mistake, with the whole lines that can stand in its place."""
    instead = ", or ".join(f"'{line}'" for line in mistake.instead)
    return f"{mistake} [type {instead}]" if instead else str(mistake)


def _library_ledger() -> Any:
    """The library's movements, and nobody who has done any of them."""
    from dialback.book.book import SessionsByWeek
    from dialback.core.body import UNKNOWN
    from dialback.core.movements import MovementTable
    from dialback.core.rules import DEFAULT_RULES
    from dialback.core.tally import Ledger
    from dialback.library import library

    return Ledger(SessionsByWeek([], []), MovementTable(library()), DEFAULT_RULES, UNKNOWN)


@main.command()
@click.option("--squad", is_flag=True, help="That of a squad's index instead.")
def schema(*, squad: bool) -> None:
    """Print the JSON Schema of the book."""
    from dialback.book.book import schema as of_book
    from dialback.book.squad import schema as of_squad

    click.echo(json.dumps(of_squad() if squad else of_book(), indent=1))
