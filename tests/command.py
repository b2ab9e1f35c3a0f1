"""The command in this process: a tenth of the time of one of its own.

What only a process of its own can show (the terminal's locale, a server, a signal) starts one.
"""

from __future__ import annotations

import sys
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory

from click.testing import CliRunner

from dialback.cli import main
from dialback.store.models import database
from tests.shared import made_once

DIALBACK = Path(sys.executable).parent / "dialback"
"""The installed command, for a process of its own."""


@dataclass(frozen=True)
class Answer:
    """What a command leaves behind, in the words of ``subprocess``."""

    returncode: int
    stdout: str
    stderr: str


def run(*arguments: object, data: Path | None = None, stdin: str = "", **env: str) -> Answer:
    """Run the command on a data file; whatever it does not catch itself is raised."""
    where = {"DIALBACK_DATA": str(data) if data else None, **env}
    try:
        done = CliRunner(catch_exceptions=False).invoke(
            main, [str(one) for one in arguments], input=stdin, env=where, prog_name="dialback"
        )
    finally:
        # The end of a process lets go of its file; so does the end of a command here.
        if database.obj is not None and not database.is_closed():
            database.close()
    return Answer(done.exit_code, done.stdout, done.stderr)


@cache
def _club() -> bytes:
    def make() -> bytes:
        with TemporaryDirectory() as place:
            path = Path(place) / "demo.sqlite"
            assert run("demo", data=path).returncode == 0
            return path.read_bytes()

    return made_once("demo-of-the-command", make)


def demo_made(path: Path) -> None:
    """Put there what ``dialback demo`` makes, which takes seconds: once for all that want it."""
    path.write_bytes(_club())
