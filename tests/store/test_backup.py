"""Copies of the data file: whole, taken beside writers, put back, and nothing lost by it."""

import os
import sqlite3
import sys
import threading
from datetime import date
from pathlib import Path

import pytest

from dialback.book.errors import BadInputError
from dialback.store.backup import back_up, look_over, restore
from dialback.store.copies import copy_of_the_day
from dialback.store.database import check_large, is_demo, open_database
from dialback.store.devices import open_session, signed_in
from dialback.store.hold import alone, held
from dialback.store.models import Account, Athlete, database
from dialback.store.unit import silently, unit
from dialback.web.app import create_app


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
    aside = restore(copy, data).aside
    assert aside is not None
    assert names(data) == {"Ada"}
    assert names(aside) == {"Ada", "Later"}
    assert names(copy) == {"Ada"}
    look_over(data)


def test_a_copy_is_put_where_nothing_was(data: Path, tmp_path: Path) -> None:
    copy, new = tmp_path / "copy.sqlite", tmp_path / "elsewhere" / "new.sqlite"
    back_up(data, copy)
    assert restore(copy, new).aside is None
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
        (text, "is not a data file"),
        (empty, "is not a copy"),
        (foreign, "another program"),
        (damaged, "damaged"),
        (newer, "newer Dial Back"),
        (tmp_path / "none", "is not a copy"),
        (data, "is the data file itself"),
    ):
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
        other.execute(
            "INSERT INTO draft (athlete_id, week, sessions, start_total, revision) "
            "VALUES (99, '2026-W41', '[]', 0, 1)"
        )
    other.close()
    with pytest.raises(BadInputError, match="rows of the table draft"):
        back_up(data, data.with_name("copy.sqlite"))
    look_over(data)


def test_a_copy_goes_only_for_a_later_one_of_the_same_house(data: Path, tmp_path: Path) -> None:
    copy, empty = tmp_path / "copy.sqlite", tmp_path / "new" / "empty.sqlite"
    with database.connection_context(), unit() as entry:
        Athlete.create(name="Bo")
        entry.tell("Bo came")
    back_up(data, copy)
    old = tmp_path / "old.sqlite"
    back_up(data, old)
    with sqlite3.connect(old) as other:
        other.execute("UPDATE journal SET until = '2020-01-01T00:00:00+00:00'")
    other.close()
    emptied = tmp_path / "emptied.sqlite"
    back_up(data, emptied)
    with sqlite3.connect(emptied) as other:
        other.execute("DELETE FROM athlete")
    other.close()
    open_database(empty)
    for source, told in ((old, "is newer"), (empty, "another house"), (emptied, "has 2 athletes")):
        with pytest.raises(BadInputError, match=told):
            back_up(source, copy)
        assert names(copy) == {"Ada", "Bo"}
    assert back_up(emptied, copy, replace=True)
    assert names(copy) == set()


def test_what_is_not_there_is_said_and_nothing_is_made(tmp_path: Path) -> None:
    nothing, copy = tmp_path / "none" / "none.sqlite", tmp_path / "copy.sqlite"
    with pytest.raises(BadInputError, match="is not there"):
        back_up(nothing, copy)
    assert list(tmp_path.iterdir()) == []


def test_who_may_sign_in_stays_as_it_was(data: Path, tmp_path: Path) -> None:
    """No copy lets in who was let go since, nor a password that was changed."""
    day = date(2026, 10, 12)
    with database.connection_context():
        Account.create(name="Ines", folded="ines", role="owner", password="old", made_on=day)
        gone = Account.create(name="Gone", folded="gone", role="owner", password="x", made_on=day)
        lost = Account.create(
            name="Ada", folded="ada", role="athlete", athlete=1, door="lost", made_on=day
        )
        held = [open_session(one, "A browser", None, day) for one in (1, gone.id, lost.id)]
    copy = tmp_path / "copy.sqlite"
    back_up(data, copy)
    with database.connection_context():
        gone.delete_instance()
        Account.update(door="new").where(Account.id == lost.id).execute()
        Account.update(password="new").where(Account.id == 1).execute()
        later = Athlete.create(name="Later")
        Account.create(
            name="Later", folded="later", role="athlete", athlete=later, door="d", made_on=day
        )
    key = data.with_name("season.sqlite.key")
    key.write_bytes(b"k" * 32)
    database.close()
    done = restore(copy, data)
    assert done.kept_doors
    with database.connection_context():
        rows = [(one.name, one.password, one.door) for one in Account.select()]
        assert rows == [("Ines", "new", None), ("Ada", None, "new")]
        assert all(signed_in(one.session, day) is None for one in held)
        assert Account.create(name="N", folded="n", role="viewer", made_on=day).id > 4
    # The key stays with the data file: who had a second factor has it still.
    assert key.read_bytes() == b"k" * 32


def test_a_file_that_is_served_is_not_replaced(data: Path, tmp_path: Path) -> None:
    copy = tmp_path / "copy.sqlite"
    back_up(data, copy)
    before = data.stat().st_ino
    with held(data), held(data):
        with pytest.raises(BadInputError, match="is being served: stop the server first"):
            restore(copy, data)
        assert data.stat().st_ino == before
    with alone(data), pytest.raises(BadInputError, match="is being replaced"), held(data):
        pass
    restore(copy, data)


OPENED: list[str] = []
WATCHED: list[Path] = []


def _listen(event: str, arguments: tuple[object, ...]) -> None:
    # Called for every opening in this process, whoever asks: a hook cannot be taken off again.
    if WATCHED and event == "open" and str(arguments[0]).startswith(str(WATCHED[0])):
        OPENED.append(str(arguments[0]))


sys.addaudithook(_listen)


def locks_on(path: Path) -> list[str]:
    """The locks of this process on a file and what belongs to it, as the kernel lists them."""
    numbers = {str(one.stat().st_ino) for one in path.parent.glob(f"{path.name}*")}
    lines = Path("/proc/locks").read_text().splitlines()
    mine = [line.split() for line in lines]
    return sorted(
        " ".join(line[1:4]) + " " + " ".join(line[5:])
        for line in mine
        if line[4] == str(os.getpid()) and line[5].rpartition(":")[2] in numbers
    )


def test_nothing_but_the_database_library_opens_the_file_that_is_served(
    data: Path, tmp_path: Path
) -> None:
    """To close a file lets go of every lock of the process on it, whoever opened it (POSIX)."""
    app = create_app(data)
    client = app.test_client()
    with database.connection_context():
        database.execute_sql("SELECT count(*) FROM athlete").fetchall()
        before = locks_on(data)
        # The shared lock of the connection, and the one on the index of its log.
        assert len(before) >= 2
        WATCHED.append(data)
        try:
            copy_of_the_day(data, date(2026, 10, 12))
            back_up(data, tmp_path / "copy.sqlite")
            check_large(data)
            look_over(data)
            assert not is_demo(data)
            with held(data):
                pass
            paths = ("/api/roster", "/api/health", "/api/copies")
            hand = threading.Thread(target=lambda: [client.get(path) for path in paths])
            hand.start()
            hand.join()
        finally:
            WATCHED.clear()
        assert locks_on(data) == before
    # The key beside it is a file of its own.
    assert {one for one in OPENED if not one.endswith(".key")} == set()
