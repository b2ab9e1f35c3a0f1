"""Opening the data file, and bringing it to the newest form."""

from __future__ import annotations

import logging
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import peewee as pw
from peewee_migrate import Router
from platformdirs import user_data_path

from dialback.book.errors import bad_input
from dialback.library import library
from dialback.store.models import House, database
from dialback.store.movements import grow_library
from dialback.store.unit import unit

MIGRATIONS = Path(__file__).parent / "migrations"
BUSY_TIMEOUT_MS = 5000


def default_path() -> Path:
    """Where the data file is when nobody chooses: the user's data folder."""
    return user_data_path("dialback", appauthor=False) / "dialback.sqlite"


def open_database(path: Path) -> pw.SqliteDatabase:
    """Open the data file, make it if there is none, and migrate it.

    Raises ``BadInputError`` if the file cannot be opened or is not a data file.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise bad_input(str(path), f"cannot be made: {error.strerror}") from None
    opened = pw.SqliteDatabase(
        str(path),
        pragmas={
            "journal_mode": "wal",
            "foreign_keys": 1,
            "busy_timeout": BUSY_TIMEOUT_MS,
            "synchronous": "normal",
            "cache_size": -32_000,
        },
    )
    database.initialize(opened)
    try:
        with opened.connection_context():
            _migrate(opened)
    except (pw.DatabaseError, sqlite3.DatabaseError) as error:
        raise bad_input(str(path), f"is not a data file of Dial Back that opens: {error}") from None
    return opened


def _migrate(opened: pw.SqliteDatabase) -> None:
    quiet = logging.getLogger("dialback.migrations")
    quiet.setLevel(logging.WARNING)
    Router(opened, migrate_dir=MIGRATIONS, logger=quiet).run()
    with unit():
        if not House.select().exists():
            House.create()
        grow_library(library())


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
