"""The command ``dialback``. Bad input ends with one line on standard error and status 2."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable
from functools import wraps
from pathlib import Path
from typing import Any

import click

from dialback import __version__
from dialback.book.errors import BadInputError

# The rooms behind a command are imported by the command: an audit needs no database, no server.


def _plain_errors(command: Callable[..., None]) -> Callable[..., None]:
    """Turn bad input into the one clear line that a script can show."""

    @wraps(command)
    def run(*args: Any, **kwargs: Any) -> None:
        try:
            command(*args, **kwargs)
        except BadInputError as error:
            click.echo(error.line, err=True)
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
    context.obj = data


@main.command()
@click.argument("book", type=click.Path(path_type=Path))
@click.option("--week", required=True, help="The ISO week, as in 2026-W41.")
@click.option("--basis", type=click.Choice(["completed", "planned"]), default="completed")
@click.option("--json", "as_json", is_flag=True, help="One JSON document, as the contract has it.")
@_plain_errors
def audit(book: Path, week: str, basis: str, *, as_json: bool) -> None:
    """Audit a week of BOOK."""
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
    result = core.audit(read.ledger(), chosen, basis)  # type: ignore[arg-type]
    if as_json:
        document = core.as_document(result, read.athlete.name)
        click.echo(json.dumps(document, ensure_ascii=False, indent=1))
    else:
        from dialback.book.table import audit_table

        click.echo(audit_table(result, read.athlete.name))


@main.command()
def schema() -> None:
    """Print the JSON Schema of the book."""
    from dialback.book.book import schema as book_schema

    click.echo(json.dumps(book_schema(), indent=1))
