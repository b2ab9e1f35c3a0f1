"""The data file: whether it is one, opening it, bringing it to the newest form, connections."""

from __future__ import annotations

import logging
import os
import sqlite3
import stat
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

import peewee as pw
from peewee_migrate import Router
from platformdirs import user_data_path

from dialback.book.errors import BadInputError, bad_input
from dialback.library import library
from dialback.store.models import House, database
from dialback.store.movements import add_movements, lacking
from dialback.store.unit import silently

log = logging.getLogger(__name__)

MIGRATIONS: Final = Path(__file__).parent / "migrations"
BUSY_TIMEOUT_MS: Final = 5000
APPLICATION_ID: Final = 0x6462_6B31
"""Says in a data file's head whose it is ("dbk1")."""
DEMO_MARK: Final = 19
"""``user_version`` of a file that ``demo`` has made: it holds nobody's season."""
_DATA: Final = ("", "-wal", "-shm")
_BESIDE: Final = (*_DATA, ".key")


def default_path() -> Path:
    """Where the data file is when nobody chooses: the user's data folder."""
    return user_data_path("dialback", appauthor=False) / "dialback.sqlite"


def open_database(path: Path) -> pw.SqliteDatabase:
    """Open the data file, make it if there is none, and migrate it.

    Raises ``BadInputError`` for a file that cannot be opened, is damaged, is not a data file, or
    was made by a newer Dial Back; nothing of it is changed then.
    """
    _make(path)
    opened = pw.SqliteDatabase(
        str(path),
        pragmas={
            "journal_mode": "wal",
            "foreign_keys": 1,
            "busy_timeout": BUSY_TIMEOUT_MS,
            # What a coach has logged outlives a power cut, not only a killed process.
            "synchronous": "full",
            "cache_size": -32_000,
        },
    )
    with told_of(path):
        _check(path)
        database.initialize(opened)
        with opened.connection_context():
            _migrate(opened)
    return opened


def _make(path: Path) -> None:
    """Make an empty file that only its owner reads, if there is none."""
    try:
        if path.exists():
            if not path.is_file():
                raise bad_input(str(path), "is not a file: choose another --data")
            # What is there is opened by the database library alone: to close it here would let go
            # of the locks of every connection of this process.
            return
        path.parent.mkdir(parents=True, exist_ok=True)
        os.close(os.open(path, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600))
    except FileExistsError:
        # Another process was faster.
        return
    except OSError as error:
        raise bad_input(str(path), f"cannot be made: {error.strerror}") from None


@contextmanager
def told_of(path: Path) -> Iterator[None]:
    """What goes wrong with a data file, in words that name it and a remedy."""
    try:
        yield
    except (pw.DatabaseError, sqlite3.DatabaseError) as error:
        raise bad_input(str(path), what_is_wrong(error)) from None


def what_is_wrong(error: Exception) -> str:
    """What the database says, as a person would say it."""
    text = str(error)
    for said, words in (
        ("locked", "is in use by another program: close that, or try again in a moment"),
        ("readonly", "is read-only: make it writable for you, and its folder too"),
        ("unable to open", "cannot be opened: see whether you may read and write it"),
        ("disk is full", "has no room on its disk: make room and try again; nothing was lost"),
        ("disk I/O", "cannot be read or written: the disk reports an error"),
        ("malformed", "is damaged: restore a copy of it; do not go on writing in this one"),
        ("not a database", "is not a data file of Dial Back: choose another --data"),
    ):
        if said in text:
            return words
    return f"cannot be used: {text}"


CHECKED_BYTES: Final = 100_000_000
"""Up to this size every page of a file is looked at before it is opened: a second at most."""


def _check(path: Path) -> None:
    """Refuse a file of another program, a newer one, a damaged one, before anything is changed."""
    if not path.stat().st_size:
        return
    if not os.access(path, os.W_OK):
        raise bad_input(str(path), "is read-only: make it writable for you, and its folder too")
    with _looking(path) as connection:
        tables = _tables(connection)
        if not _is_ours(connection, tables):
            raise bad_input(
                str(path),
                "is a file of another program: nothing was changed; choose another --data",
            )
        if "migratehistory" in tables:
            done = {name for (name,) in connection.execute("SELECT name FROM migratehistory")}
            if done - {one.stem for one in MIGRATIONS.glob("[0-9]*.py")}:
                raise bad_input(
                    str(path),
                    "was made by a newer Dial Back: nothing was changed; open it with that one",
                )
        if path.stat().st_size <= CHECKED_BYTES:
            _check_pages(path, connection)


def _check_pages(path: Path, connection: sqlite3.Connection) -> None:
    (state,) = connection.execute("PRAGMA quick_check(1)").fetchone()
    if state != "ok":
        raise bad_input(
            str(path), f"is damaged ({state[:60]}): nothing was changed; restore a copy of it"
        )


def check_file(path: Path) -> None:
    """Refuse what is no data file, a newer or a damaged one. Raises ``BadInputError``."""
    refuse_missing(path)
    with told_of(path):
        if not path.stat().st_size:
            raise bad_input(str(path), "is empty, not a data file of Dial Back: choose another one")
        _check(path)


def refuse_missing(path: Path) -> None:
    """Refuse what is not there: nothing is made in its place. Raises ``BadInputError``."""
    if not path.is_file():
        raise bad_input(str(path), "is not there: choose another file, or make it with init")


def check_large(path: Path) -> None:
    """Check what is too large to be checked each time it is opened; it takes its time.

    Raises ``BadInputError`` for a damaged file.
    """
    if path.stat().st_size > CHECKED_BYTES:
        with _looking(path) as connection:
            _check_pages(path, connection)


@contextmanager
def looking_at(path: Path) -> Iterator[sqlite3.Connection]:
    """A data file that is not the one at hand, to be read as it stands."""
    with told_of(path), _looking(path) as connection:
        yield connection


@contextmanager
def _looking(path: Path) -> Iterator[sqlite3.Connection]:
    connection = sqlite3.connect(path, timeout=BUSY_TIMEOUT_MS / 1000)
    try:
        yield connection
    finally:
        connection.close()


def _tables(connection: sqlite3.Connection) -> set[str]:
    found = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    return {name for (name,) in found}


def _is_ours(connection: sqlite3.Connection, tables: set[str]) -> bool:
    """Whether a database is one of ours, or nobody's yet; the first ones did not say so."""
    (number,) = connection.execute("PRAGMA application_id").fetchone()
    if number:
        return bool(number == APPLICATION_ID)
    return not tables or {"house", "migratehistory"} <= tables


def _migrate(opened: pw.SqliteDatabase) -> None:
    quiet = logging.getLogger("dialback.migrations")
    quiet.setLevel(logging.WARNING)
    router = Router(opened, migrate_dir=MIGRATIONS, logger=quiet)
    # Most files are as they should be: then nothing is written, and nobody is waited for.
    if router.diff:
        _bring_forward(opened, router)
    if opened.pragma("application_id") != APPLICATION_ID:
        opened.pragma("application_id", APPLICATION_ID, permanent=False)
    if not House.select().exists() or lacking(library()):
        with silently():
            if not House.select().exists():
                House.create()
            add_movements(lacking(library()), athlete=None)


def _bring_forward(opened: pw.SqliteDatabase, router: Router) -> None:
    # A table that is made anew is gone for a moment: what points to it is looked at afterwards.
    opened.pragma("foreign_keys", 0, permanent=False)
    router.run()
    astray = opened.pragma("foreign_key_check")
    if astray is not None:
        log.warning("rows of the table %s belong to nothing: run check --mend", astray)
    opened.pragma("foreign_keys", 1, permanent=False)


def mark_as_demo(*, made: bool = True) -> None:
    """Note in the data file that is open whether ``demo`` has made it."""
    database.pragma("user_version", DEMO_MARK if made else 0)


def is_demo(path: Path) -> bool:
    """Whether ``demo`` has made the file. Raises ``BadInputError`` if it is not a data file."""
    with told_of(path):
        if not path.is_file():
            raise bad_input(str(path), "is not a data file of Dial Back: nothing was deleted")
        with _looking(path) as connection:
            if not _is_ours(connection, _tables(connection)):
                raise bad_input(str(path), "is a file of another program: nothing was deleted")
            (version,) = connection.execute("PRAGMA user_version").fetchone()
            return bool(version == DEMO_MARK)


def put_data_aside(path: Path, *, key: bool) -> Path:
    """Give a data file and what belongs to it another name; the new one.

    ``key``: the key of its cookies goes with it; else it stays for what takes the file's place.
    """
    number = 1
    while path.with_name(f"{path.name}.before-{number}").exists():
        number += 1
    for suffix in _BESIDE if key else _DATA:
        beside = path.with_name(path.name + suffix)
        if beside.exists():
            beside.rename(path.with_name(f"{path.name}.before-{number}{suffix}"))
    return path.with_name(f"{path.name}.before-{number}")


def delete_data(path: Path) -> None:
    """Delete a data file and what belongs to it."""
    for suffix in _BESIDE:
        path.with_name(path.name + suffix).unlink(missing_ok=True)


def write_whole(path: Path, content: bytes) -> bool:
    """Write a file whole or not at all; whether it stood in the place of another.

    Only an ordinary file is replaced. Raises ``BadInputError``.
    """
    part = path.with_name(f".{path.name}.{os.getpid()}.part")
    try:
        there = path.lstat() if path.exists() or path.is_symlink() else None
        if there is not None and not stat.S_ISREG(there.st_mode):
            raise bad_input(str(path), "is not an ordinary file: choose another name")
        with part.open("xb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        part.replace(path)
    except BadInputError:
        raise
    except OSError as error:
        part.unlink(missing_ok=True)
        raise bad_input(str(path), f"cannot be written: {error.strerror}") from None
    return there is not None


def connect(*, snapshot: bool) -> None:
    """Open a connection for this thread; with ``snapshot`` all that is read belongs together."""
    database.connect(reuse_if_open=True)
    if snapshot:
        database.begin()


def disconnect() -> None:
    """Close this thread's connection, and end what it had begun."""
    if not database.is_closed():
        if database.connection().in_transaction:
            database.rollback()
        database.close()


@contextmanager
def connected(*, snapshot: bool = False) -> Iterator[None]:
    """A connection for as long as something lasts that no request asked for."""
    connect(snapshot=snapshot)
    try:
        yield
    finally:
        disconnect()
