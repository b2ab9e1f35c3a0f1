"""Copies of the data file: taken while it is in use, looked over, and put back."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from dialback.book.errors import bad_input
from dialback.store.database import (
    BUSY_TIMEOUT_MS,
    check_file,
    put_data_aside,
    told_of,
)


def back_up(data: Path, target: Path) -> bool:
    """Copy the data file as it stands, with all that was acknowledged; whether one was replaced.

    The database's own online copy: whoever writes meanwhile goes on writing. A copy is looked over
    before it takes its name. Raises ``BadInputError``.
    """
    if target.exists() and target.samefile(data):
        raise bad_input(str(target), "is the data file itself: choose another name")
    if target.exists():
        # Nothing is written over that is not a copy of this kind.
        check_file(target)
    there = target.exists()
    with _copied(data, target) as part:
        part.replace(target)
    return there


def restore(copy: Path, data: Path) -> Path | None:
    """Put a copy in the place of the data file; where the one that was there has been put.

    Raises ``BadInputError`` for what is no whole copy; nothing is changed then. Whatever serves the
    data file has to be stopped before.
    """
    if not copy.is_file() or not copy.stat().st_size:
        raise bad_input(str(copy), "is not a copy of a data file: choose one that backup made")
    if data.exists() and data.samefile(copy):
        raise bad_input(str(copy), "is the data file itself: there is nothing to restore")
    check_file(copy)
    data.parent.mkdir(parents=True, exist_ok=True)
    with _copied(copy, data) as part:
        aside = put_data_aside(data) if data.exists() and data.stat().st_size else None
        part.replace(data)
    return aside


def look_over(data: Path) -> None:
    """Look at every page and every row of the data file. Raises ``BadInputError`` for damage."""
    check_file(data)
    with told_of(data):
        _check_whole(data, data)


@contextmanager
def _copied(source: Path, target: Path) -> Iterator[Path]:
    """A whole copy beside the target, under a name of its own; gone if it stays there."""
    part = target.with_name(f".{target.name}.{os.getpid()}.part")
    try:
        os.close(os.open(part, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600))
        with told_of(source):
            into = sqlite3.connect(part)
            of = sqlite3.connect(source, timeout=BUSY_TIMEOUT_MS / 1000)
            try:
                of.backup(into)
                # One file, without a journal beside it: it can be carried away as it is.
                into.execute("PRAGMA journal_mode = delete")
            finally:
                of.close()
                into.close()
            _check_whole(part, source)
        with part.open("rb") as file:
            os.fsync(file.fileno())
        yield part
    except OSError as error:
        raise bad_input(str(target), f"cannot be written: {error.strerror}") from None
    finally:
        part.unlink(missing_ok=True)


def _check_whole(path: Path, told: Path) -> None:
    connection = sqlite3.connect(path)
    try:
        (state,) = connection.execute("PRAGMA integrity_check(1)").fetchone()
        astray = connection.execute("PRAGMA foreign_key_check").fetchone()
    finally:
        connection.close()
    if state != "ok":
        raise bad_input(str(told), f"is damaged ({state[:60]}): restore a copy of it")
    if astray is not None:
        raise bad_input(
            str(told), f"has rows of the table {astray[0]} that belong to nothing: restore a copy"
        )
