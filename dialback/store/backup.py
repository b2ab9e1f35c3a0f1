"""Copies of the data file: taken while it is in use, looked over, and put back."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from dialback.book.errors import bad_input
from dialback.store.carried import carried_from, carry_over
from dialback.store.database import (
    BUSY_TIMEOUT_MS,
    check_file,
    looking_at,
    open_database,
    put_data_aside,
    told_of,
)
from dialback.store.hold import alone
from dialback.store.models import database
from dialback.store.unit import unit


def back_up(data: Path, target: Path, *, replace: bool = False) -> bool:
    """Copy the data file as it stands, with all that was acknowledged; whether one was replaced.

    The database's own online copy: whoever writes meanwhile goes on writing. A copy is looked over
    before it takes its name. A copy that is there goes only for a later one of the same house,
    unless ``replace`` says so. Raises ``BadInputError``.
    """
    check_file(data)
    there = target.exists()
    if there:
        if target.samefile(data):
            raise bad_input(str(target), "is the data file itself: choose another name")
        # Nothing is written over that is not a copy of this kind.
        check_file(target)
        if not replace:
            _refuse_to_lose(data, target)
    with _copied(data, target) as part:
        part.replace(target)
    return there


@dataclass(frozen=True, slots=True)
class _State:
    """How far a data file has come: whose it is, who is in it, when it was last changed."""

    identity: str
    people: int
    changed: str

    @classmethod
    def of(cls, path: Path) -> _State:
        with looking_at(path) as connection:

            def first(sql: str) -> str | int | None:
                try:
                    row = connection.execute(sql).fetchone()
                except sqlite3.OperationalError:
                    # A file of an earlier form has no such column.
                    return None
                return None if row is None else row[0]

            return cls(
                str(first("SELECT identity FROM house") or ""),
                int(first("SELECT count(*) FROM athlete") or 0),
                str(first("SELECT max(until) FROM journal") or ""),
            )


def _refuse_to_lose(data: Path, target: Path) -> None:
    new, old = _State.of(data), _State.of(target)
    if new.identity and old.identity and new.identity != old.identity:
        why = "is a copy of another house"
    elif old.people and not new.people:
        why = f"has {old.people} athletes in it, and {data} has none"
    elif old.changed > new.changed:
        why = f"is newer (last changed {old.changed}, {data} {new.changed or 'never'})"
    else:
        return
    raise bad_input(str(target), f"{why}: nothing was copied. Choose another name, or --replace")


@dataclass(frozen=True, slots=True)
class Restored:
    """What putting a copy back has done: where the file that was there is now."""

    aside: Path | None
    kept_doors: bool
    """Whether who may sign in stayed as it was, whatever the copy says."""


def restore(copy: Path, data: Path) -> Restored:
    """Put a copy in the place of the data file.

    Every device is signed out, and who may sign in stays as it was: what was withdrawn since the
    copy was made stays withdrawn. Raises ``BadInputError`` for what is no whole copy, and while a
    server runs on the data file; nothing is changed then.
    """
    if not copy.is_file() or not copy.stat().st_size:
        raise bad_input(str(copy), "is not a copy of a data file: choose one that backup made")
    if data.exists() and data.samefile(copy):
        raise bad_input(str(copy), "is the data file itself: there is nothing to restore")
    check_file(copy)
    with alone(data):
        with _copied(copy, data) as part:
            there = data.exists() and data.stat().st_size > 0
            aside = put_data_aside(data, key=False) if there else None
            part.replace(data)
        open_database(data)
        carried = carried_from(aside) if aside is not None else None
        with database.connection_context(), unit() as entry:
            carry_over(carried)
            entry.tell(f"Restored the copy {copy.name}")
    return Restored(aside, kept_doors=carried is not None and bool(carried.accounts))


def look_over(data: Path) -> None:
    """Look at every page of the data file. Raises ``BadInputError`` for damage."""
    check_file(data)
    with told_of(data):
        _check_pages(data, data)


def copy_before_mending(data: Path) -> Path:
    """A copy of a data file as it is, damaged rows and all; where it is."""
    number = 1
    while (target := data.with_name(f"{data.name}.before-mending-{number}")).exists():
        number += 1
    with _copied(data, target, rows=False) as part:
        part.replace(target)
    return target


@contextmanager
def _copied(source: Path, target: Path, *, rows: bool = True) -> Iterator[Path]:
    """A whole copy beside the target, under a name of its own; gone if it stays there.

    ``rows``: rows that belong to nothing are refused, too.
    """
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
            (_check_whole if rows else _check_pages)(part, source)
        _flush(part)
        yield part
        # The new name is on the disk, too, before anybody is told.
        _flush(target.parent)
    except OSError as error:
        raise bad_input(str(target), f"cannot be written: {error.strerror}") from None
    finally:
        part.unlink(missing_ok=True)


def _flush(path: Path) -> None:
    file = os.open(path, os.O_RDONLY)
    try:
        os.fsync(file)
    finally:
        os.close(file)


def _check_pages(path: Path, told: Path) -> None:
    with looking_at(path) as connection:
        (state,) = connection.execute("PRAGMA integrity_check(1)").fetchone()
    if state != "ok":
        raise bad_input(str(told), f"is damaged ({state[:60]}): restore a copy of it")


def _check_whole(path: Path, told: Path) -> None:
    _check_pages(path, told)
    with looking_at(path) as connection:
        astray = connection.execute("PRAGMA foreign_key_check").fetchone()
    if astray is not None:
        raise bad_input(
            str(told), f"has rows of the table {astray[0]} that belong to nothing: run check --mend"
        )
