"""Data files and exports: what is not ours, damaged, newer or in use is told and left as it was."""

from __future__ import annotations

import os
import sqlite3
import stat
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import peewee as pw
import pytest

from dialback.book.errors import BadInputError
from dialback.store.database import APPLICATION_ID, open_database, what_is_wrong
from tests.build import as_bytes, document
from tests.command import demo_made, run


def foreign(path: Path) -> None:
    """A database of another program."""
    with sqlite3.connect(path) as connection:
        connection.execute("CREATE TABLE bookmarks (id INTEGER, address TEXT)")
        connection.execute("INSERT INTO bookmarks VALUES (1, 'somewhere')")
    connection.close()


def foreign_and_empty(path: Path) -> None:
    """A database that another program has marked as its own, without a table yet."""
    with sqlite3.connect(path) as connection:
        connection.execute("PRAGMA application_id = 12345")
        connection.execute("CREATE TABLE one (id INTEGER)")
        connection.execute("DROP TABLE one")
    connection.close()


def newer(path: Path) -> None:
    """A data file of a Dial Back to come."""
    open_database(path).close()
    with sqlite3.connect(path) as connection:
        connection.execute(
            "INSERT INTO migratehistory (name, migrated_at) "
            "VALUES ('999_of_tomorrow', '2030-01-01')"
        )
    connection.close()


def damaged_in_the_middle(path: Path) -> None:
    """A data file with a hole in it."""
    open_database(path).close()
    size = path.stat().st_size
    with path.open("r+b") as file:
        file.seek(size // 2 // 4096 * 4096)
        file.write(os.urandom(8 * 4096))


def cut_off(path: Path) -> None:
    """A data file of which the end is gone."""
    open_database(path).close()
    os.truncate(path, path.stat().st_size // 3)


def a_text(path: Path) -> None:
    """Something else altogether."""
    path.write_text("my season\n" * 500)


MADE: dict[Callable[[Path], None], str] = {
    foreign: "another program",
    foreign_and_empty: "another program",
    newer: "newer Dial Back",
    damaged_in_the_middle: "damaged",
    cut_off: "damaged",
    a_text: "not a data file",
}


@pytest.mark.parametrize("make", MADE, ids=lambda make: make.__name__)
def test_what_is_not_to_be_opened_is_told_and_left_alone(
    tmp_path: Path, make: Callable[[Path], None]
) -> None:
    path = tmp_path / "x.sqlite"
    make(path)
    before = path.read_bytes()
    with pytest.raises(BadInputError, match=MADE[make]):
        open_database(path)
    for command in (("init",), ("export", "Ada"), ("serve", "--port", 0), ("demo",)):
        answer = run(*command, data=path)
        assert answer.returncode == 2, answer.stderr
        assert MADE[make] in answer.stderr
        assert "Traceback" not in answer.stderr
        assert answer.stderr.count("\n") == 1
    assert path.read_bytes() == before


@pytest.mark.parametrize(
    "make", [foreign, foreign_and_empty, a_text], ids=lambda make: make.__name__
)
@pytest.mark.parametrize("more", [(), ("--yes",)])
def test_fresh_never_deletes_what_is_not_ours(
    tmp_path: Path, make: Callable[[Path], None], more: tuple[str, ...]
) -> None:
    path = tmp_path / "x.sqlite"
    make(path)
    before = path.read_bytes()
    answer = run("demo", "--fresh", *more, data=path)
    assert answer.returncode == 2
    assert path.read_bytes() == before


def test_fresh_wants_a_yes_for_a_real_club_and_puts_it_aside(tmp_path: Path) -> None:
    path, book = tmp_path / "club.sqlite", tmp_path / "ada.json"
    book.write_bytes(as_bytes(document([])))
    assert run("import", book, data=path).returncode == 0
    refused = run("demo", "--fresh", data=path)
    assert refused.returncode == 2
    assert "--yes" in refused.stderr
    assert run("export", "Ada Test", data=path).returncode == 0
    told = run("demo", "--fresh", "--yes", data=path)
    assert told.returncode == 0
    assert "it is now" in told.stderr
    aside = tmp_path / "club.sqlite.before-1"
    assert run("export", "Ada Test", data=aside).returncode == 0


def test_a_demo_from_before_it_was_marked_is_begun_anew(tmp_path: Path) -> None:
    path = tmp_path / "demo.sqlite"
    demo_made(path)
    with sqlite3.connect(path) as connection:
        connection.execute("PRAGMA user_version = 0")
    connection.close()
    # So it is where somebody tries the club in a house of their own: nothing of it is deleted.
    assert "was not made by demo" in run("demo", "--fresh", data=path).stderr
    with sqlite3.connect(path) as connection:
        connection.execute("UPDATE house SET club = NULL")
    connection.close()
    assert run("demo", "--fresh", data=path).returncode == 0
    assert not list(tmp_path.glob("*.before-*"))


def test_a_house_without_athletes_is_not_deleted(tmp_path: Path) -> None:
    path = tmp_path / "house.sqlite"
    open_database(path).close()
    refused = run("demo", "--fresh", data=path)
    assert refused.returncode == 2
    assert "was not made by demo" in refused.stderr


def test_somebody_added_to_the_demo_is_not_deleted_with_it(tmp_path: Path) -> None:
    path, book = tmp_path / "demo.sqlite", tmp_path / "ada.json"
    book.write_bytes(as_bytes(document([])))
    demo_made(path)
    assert run("import", book, data=path).returncode == 0
    refused = run("demo", "--fresh", data=path)
    assert refused.returncode == 2
    assert "Ada Test" in refused.stderr


def test_a_data_file_is_its_owners_alone_and_says_whose_it_is(tmp_path: Path) -> None:
    path = tmp_path / "mine.sqlite"
    open_database(path).close()
    assert stat.S_IMODE(path.stat().st_mode) == 0o600
    with sqlite3.connect(path) as connection:
        assert connection.execute("PRAGMA application_id").fetchone() == (APPLICATION_ID,)
        assert connection.execute("PRAGMA user_version").fetchone() == (0,)
    connection.close()


def test_a_file_from_before_it_said_whose_it_is_is_taken(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite"
    open_database(path).close()
    with sqlite3.connect(path) as connection:
        connection.execute("PRAGMA application_id = 0")
    connection.close()
    open_database(path)


@contextmanager
def held(path: Path) -> Iterator[None]:
    """Somebody else who does not let go."""
    other = sqlite3.connect(path, isolation_level=None)
    other.execute("BEGIN EXCLUSIVE")
    try:
        yield
    finally:
        other.execute("ROLLBACK")
        other.close()


def test_a_file_in_use_is_told(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "club.sqlite"
    open_database(path).close()
    with sqlite3.connect(path) as connection:
        connection.execute("PRAGMA journal_mode = delete")
    connection.close()
    monkeypatch.setattr("dialback.store.database.BUSY_TIMEOUT_MS", 50)
    with held(path), pytest.raises(BadInputError, match="in use by another program"):
        open_database(path)


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ("database or disk is full", "no room"),
        ("attempt to write a readonly database", "read-only"),
        ("database disk image is malformed", "damaged"),
        ("disk I/O error", "disk reports an error"),
        ("database is locked", "in use"),
        ("something new", "something new"),
    ],
)
def test_what_the_database_says_is_told_in_words(said: str, words: str) -> None:
    assert words in what_is_wrong(pw.OperationalError(said))


@pytest.mark.parametrize("kind", ["folder", "pipe", "link", "device", "other", "no folder"])
def test_an_export_replaces_only_books(tmp_path: Path, kind: str) -> None:
    data, book, out = tmp_path / "d.sqlite", tmp_path / "ada.json", tmp_path / "out.json"
    book.write_bytes(as_bytes(document([])))
    assert run("import", book, data=data).returncode == 0
    if kind == "folder":
        out.mkdir()
    elif kind == "pipe":
        os.mkfifo(out)
    elif kind == "link":
        out.symlink_to(data)
    elif kind == "device":
        out = Path("/dev/null")
    elif kind == "no folder":
        out = tmp_path / "nowhere" / "out.json"
    else:
        out.write_text("dear diary")
    before = data.read_bytes()
    answer = run("export", "Ada Test", "--output", out, data=data)
    assert answer.returncode == 2, answer.stderr
    assert str(out) in answer.stderr
    assert data.read_bytes()[:100] == before[:100]
    assert kind != "other" or out.read_text() == "dear diary"
    assert not list(tmp_path.glob("*.part")) + list(tmp_path.glob(".*.part"))


def test_an_export_over_a_book_says_so(tmp_path: Path) -> None:
    data, book, out = tmp_path / "d.sqlite", tmp_path / "ada.json", tmp_path / "out.json"
    book.write_bytes(as_bytes(document([])))
    run("import", book, data=data)
    first = run("export", "Ada Test", "--output", out, data=data)
    assert (first.returncode, first.stderr) == (0, "")
    again = run("export", "Ada Test", "--output", out, data=data)
    assert again.returncode == 0
    assert "has been replaced" in again.stderr
