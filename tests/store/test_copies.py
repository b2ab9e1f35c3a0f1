"""Daily copies: one a day, whole, the oldest let go; none of the made-up club."""

import sqlite3
from datetime import date, timedelta
from pathlib import Path

import pytest

from dialback.book.errors import BadInputError
from dialback.store.copies import KEPT, copies, copy_of_the_day, folder_of
from dialback.store.database import mark_as_demo

DAY = date(2026, 11, 1)


def test_one_a_day_and_the_oldest_go(store: Path) -> None:
    made = [copy_of_the_day(store, DAY + timedelta(days=at)) for at in range(KEPT + 3)]
    assert all(made)
    there = copies(store)
    assert len(there) == KEPT
    assert there[0].day == DAY + timedelta(days=KEPT + 2)
    assert [copy.day for copy in there] == sorted((copy.day for copy in there), reverse=True)
    for copy in there:
        of = sqlite3.connect(copy.path)
        assert of.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        of.close()
        assert copy.path.stat().st_mode & 0o077 == 0
    # The second of a day is not made again, and what is not a copy stays.
    mine = folder_of(store) / "notes.txt"
    mine.write_text("mine")
    before = there[0].path.stat().st_mtime_ns
    copy_of_the_day(store, there[0].day)
    assert there[0].path.stat().st_mtime_ns == before
    copy_of_the_day(store, DAY + timedelta(days=99))
    assert mine.exists()


def test_a_folder_that_cannot_be_written_is_told(store: Path) -> None:
    folder_of(store).write_text("a file in the way")
    with pytest.raises(BadInputError, match="cannot be made"):
        copy_of_the_day(store, DAY)
    assert copies(store) == []


def test_the_made_up_club_is_not_copied(store: Path) -> None:
    mark_as_demo()
    assert copy_of_the_day(store, DAY) is None
    assert not folder_of(store).exists()
