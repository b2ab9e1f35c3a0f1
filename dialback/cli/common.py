"""What the commands share: the group, the data file, clear errors."""

from __future__ import annotations

import gc
import io
import sys
from collections.abc import Callable
from functools import wraps
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from dialback import __version__
from dialback.book.errors import BadInputError

if TYPE_CHECKING:
    from dialback.store.athletes import Athlete

# The rooms behind a command are imported by the command: an audit needs no database, no server.


def plain_errors(command: Callable[..., None]) -> Callable[..., None]:
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


def read_file(path: Path) -> bytes:
    """The bytes of a file, a byte more than a book may have at most. Raises ``BadInputError``."""
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


def open_data(path: Path | None, *, make: bool = False) -> Path:
    """Open the data file that was chosen, or the default one; ``make`` it where there is none.

    Raises ``BadInputError`` for one that is not there.
    """
    from dialback.store.database import default_path, open_database, refuse_missing

    chosen = path or default_path()
    if not make:
        refuse_missing(chosen)
    open_database(chosen)
    return chosen


def named(athlete: str) -> Athlete:
    """The athlete of that name; everybody who is there otherwise."""
    from dialback.book.errors import bad_input
    from dialback.store.athletes import athletes, find_athlete

    found = find_athlete(athlete)
    if found is None:
        names = ", ".join(one.name for one in athletes()) or "nobody"
        raise bad_input("ATHLETE", f"nobody is called {athlete!r}; on the roster: {names}")
    return found
