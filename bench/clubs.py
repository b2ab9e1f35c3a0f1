"""Clubs of many athletes with three years each: made once, kept out of git, measured by growth.

Forty athletes are imported; the others are their rows again under other numbers, which is what a
larger club costs the data file. Verdicts are copied with them: what a first count takes is shown
of the forty.
"""

from __future__ import annotations

import json
import sqlite3
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from dialback.book.book import read_book
from dialback.core.weeks import Week
from dialback.store.athletes import import_book
from dialback.store.database import open_database

FORTY = 40
SIZES = (FORTY, 400, 2000)
VISITS = 120
"""Week sheets of so many athletes are opened before the server's memory is read."""


def club(folder: Path, size: int, a_book: Callable[[str, int], dict[str, Any]], week: Week) -> Path:
    """The data file of a club of that size, whose last week is that one."""
    folder.mkdir(exist_ok=True)
    path = folder / f"club-{size}-{week}.sqlite"
    if not path.exists():
        made = path.with_suffix(".part")
        made.unlink(missing_ok=True)
        if size == FORTY:
            _forty(made, a_book, week)
        else:
            _copied(made, club(folder, FORTY, a_book, week), size // FORTY)
        made.rename(path)
    return path


def _forty(path: Path, a_book: Callable[[str, int], dict[str, Any]], week: Week) -> None:
    opened = open_database(path)
    with opened.connection_context():
        for number in range(FORTY):
            book = read_book(json.dumps(a_book(f"Athlete {number}", number)).encode())
            import_book(book, week.sunday)
    opened.close()


def _copied(path: Path, forty: Path, times: int) -> None:
    with sqlite3.connect(forty) as source, sqlite3.connect(path) as data:
        source.backup(data)
        data.execute("PRAGMA synchronous = OFF")
        sessions, sets = (
            data.execute(f'SELECT MAX(id) FROM "{table}"').fetchone()[0]
            for table in ("session", "set")
        )
        last = {"athlete": FORTY, "session": sessions, "set": sets}
        for again in range(1, times):
            moved = {
                "athlete": {"id": FORTY, "name": None},
                "session": {"id": sessions, "athlete_id": FORTY, "plan_id": sessions},
                "set": {"id": sets, "session_id": sessions},
            }
            for table, by in moved.items():
                names = [row[1] for row in data.execute(f'PRAGMA table_info("{table}")')]
                values = ", ".join(
                    f"name || ' of {again}'"
                    if name == "name" and table == "athlete"
                    else f'"{name}" + {by[name] * again}'
                    if by.get(name)
                    else f'"{name}"'
                    for name in names
                )
                data.execute(
                    f'INSERT INTO "{table}" SELECT {values} FROM "{table}" '
                    f"WHERE id <= {last[table]}"
                )
    data.close()
    source.close()


def spread_verdicts(forty: Path, path: Path) -> None:
    """Give the copies the verdicts of those they are copies of."""
    with sqlite3.connect(path) as data:
        data.execute("ATTACH ? AS forty", (str(forty),))
        data.execute("DELETE FROM verdict")
        data.execute(
            "INSERT INTO verdict (athlete_id, state, body) SELECT a.id, v.state, v.body "
            "FROM athlete a JOIN forty.verdict v ON v.athlete_id = (a.id - 1) % ? + 1",
            (FORTY,),
        )
    data.close()


def count_everybody(ask: Callable[[], Any]) -> float:
    """Ask for the roster until nobody waits; seconds it took."""
    start = time.perf_counter()
    while ask()["waiting"]:
        continue
    return time.perf_counter() - start
