"""Copies of the data file: whole, taken beside writers, put back, and nothing lost by it."""

import sqlite3
import threading
from pathlib import Path

import pytest

from dialback.book.errors import BadInputError
from dialback.store.backup import back_up, look_over, restore
from dialback.store.database import open_database
from dialback.store.models import Athlete, database
from dialback.store.unit import silently


def names(path: Path) -> set[str]:
    with sqlite3.connect(path) as look:
        found = {name for (name,) in look.execute("SELECT name FROM athlete")}
    look.close()
    return found


@pytest.fixture
def data(tmp_path: Path) -> Path:
    path = tmp_path / "season.sqlite"
    with open_database(path).connection_context():
        Athlete.create(name="Ada")
    return path


def leavings(path: Path) -> list[str]:
    return sorted(one.name for one in path.parent.glob(".*.part"))


def test_a_copy_has_all_that_was_stored_in_one_file(data: Path, tmp_path: Path) -> None:
    copy = tmp_path / "copy.sqlite"
    with database.connection_context():
        Athlete.create(name="Bo")
        assert back_up(data, copy) is False
    assert names(copy) == {"Ada", "Bo"}
    assert copy.stat().st_mode & 0o777 == 0o600
    assert not copy.with_name("copy.sqlite-wal").exists()
    assert back_up(data, copy) is True
    assert leavings(data) == []


def test_a_copy_beside_a_writer_has_what_was_acknowledged_before(
    data: Path, tmp_path: Path
) -> None:
    """Each change whole or not at all: both of a pair, or none of them."""
    stop = threading.Event()
    acknowledged: list[int] = []

    def write() -> None:
        with database.connection_context():
            number = 0
            while not stop.is_set():
                number += 1
                with silently():
                    Athlete.create(name=f"first {number}")
                    Athlete.create(name=f"second {number}")
                acknowledged.append(number)

    hand = threading.Thread(target=write)
    hand.start()
    try:
        for at in range(5):
            before = len(acknowledged)
            copy = tmp_path / f"copy-{at}.sqlite"
            back_up(data, copy)
            found = names(copy)
            firsts, seconds = (
                {name.split()[1] for name in found if name.startswith(which)}
                for which in ("first", "second")
            )
            assert firsts == seconds
            assert {str(number) for number in acknowledged[:before]} <= firsts
    finally:
        stop.set()
        hand.join()


def test_what_was_there_is_put_aside(data: Path, tmp_path: Path) -> None:
    copy = tmp_path / "copy.sqlite"
    back_up(data, copy)
    with database.connection_context():
        Athlete.create(name="Later")
    database.close()
    aside = restore(copy, data)
    assert aside is not None
    assert names(data) == {"Ada"}
    assert names(aside) == {"Ada", "Later"}
    assert names(copy) == {"Ada"}
    look_over(data)


def test_a_copy_is_put_where_nothing_was(data: Path, tmp_path: Path) -> None:
    copy, new = tmp_path / "copy.sqlite", tmp_path / "elsewhere" / "new.sqlite"
    back_up(data, copy)
    assert restore(copy, new) is None
    assert names(new) == {"Ada"}


def test_what_is_no_copy_is_refused_and_nothing_changed(data: Path, tmp_path: Path) -> None:
    text, empty, foreign = (tmp_path / name for name in ("a.txt", "b.sqlite", "c.sqlite"))
    text.write_text("not a database, and long enough to be one")
    empty.touch()
    with sqlite3.connect(foreign) as other:
        other.execute("CREATE TABLE guests (name TEXT)")
    other.close()
    damaged, newer = tmp_path / "d.sqlite", tmp_path / "e.sqlite"
    back_up(data, damaged)
    content = bytearray(damaged.read_bytes())
    content[4096 * 3 : 4096 * 6] = b"\xff" * (4096 * 3)
    damaged.write_bytes(content)
    back_up(data, newer)
    with sqlite3.connect(newer) as other:
        other.execute("INSERT INTO migratehistory (name, migrated_at) VALUES ('999_later', '')")
    other.close()
    before = data.read_bytes()
    for copy, told in (
        (text, "is not a data file"), (empty, "is not a copy"), (foreign, "another program"),
        (damaged, "damaged"), (newer, "newer Dial Back"), (tmp_path / "none", "is not a copy"),
        (data, "is the data file itself"),
    ):  # fmt: skip
        with pytest.raises(BadInputError, match=told):
            restore(copy, data)
    assert data.read_bytes() == before
    assert leavings(data) == []


def test_nothing_else_is_written_over(data: Path, tmp_path: Path) -> None:
    notes = tmp_path / "notes.txt"
    notes.write_text("mine")
    with pytest.raises(BadInputError, match="is not a data file"):
        back_up(data, notes)
    assert notes.read_text() == "mine"
    with pytest.raises(BadInputError, match="is the data file itself"):
        back_up(data, data)
    with pytest.raises(BadInputError, match="cannot be written"):
        back_up(data, tmp_path / "no" / "such" / "folder.sqlite")


def test_rows_that_belong_to_nothing_are_told(data: Path) -> None:
    database.close()
    with sqlite3.connect(data) as other:
        other.execute("INSERT INTO draft (athlete_id, week, sessions, start_total, revision) "
                      "VALUES (99, '2026-W41', '[]', 0, 1)")  # fmt: skip
    other.close()
    with pytest.raises(BadInputError, match="rows of the table draft"):
        look_over(data)
