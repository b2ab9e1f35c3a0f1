"""A row that cannot be read is named, and takes no page with it."""

from __future__ import annotations

import logging
import re
import sqlite3
from pathlib import Path

import peewee as pw
import pytest

from dialback.store import damage, models
from dialback.store.backup import back_up
from dialback.store.models import TABLES, database
from dialback.store.unit import unit
from tests.build import document, restricted, session, sets
from tests.command import Answer, run
from tests.conftest import moved_in
from tests.web.test_api import get, send

HERE = "/api/athletes/1/weeks/2026-W41"
NEXT = "/api/athletes/1/weeks/2026-W42"
PAGES = (
    "/api/roster", "/api/movements", "/api/kit", "/api/rules", "/api/journal", "/api/templates",
    "/api/imports", "/api/floor?day=2026-10-12", "/api/athletes/archived", "/api/schools",
    "/api/athletes/1/book", "/api/athletes/1/decisions", "/api/athletes/1/everything",
    "/api/athletes/1/rules",
    "/api/athletes/1/care", "/api/athletes/1/cues", "/api/movements/1/cues",
    "/api/athletes/1/restrictions", "/api/athletes/1/maxima",
    "/api/athletes/1/goals", HERE, f"{HERE}/sheet", f"{HERE}/log", f"{HERE}/season?weeks=16",
    f"{HERE}/report", NEXT, f"{NEXT}/block?weeks=4", f"{NEXT}/draft", f"{NEXT}/write",
    f"{NEXT}/sheet?basis=planned",
)  # fmt: skip
UNMADE = {"device", "verdict", "column_choice", "school", "account"}
"""Tables that no test here has rows of, or whose rows are nobody's record."""
COLUMNS = [
    (table._meta.table_name, field.column_name)
    for table in TABLES
    for field in table._meta.sorted_fields
    if not isinstance(field, pw.AutoField | pw.ForeignKeyField)
    and table._meta.table_name not in UNMADE
]


@pytest.fixture(scope="module")
def whole(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data file that has a row in every table."""
    data = tmp_path_factory.mktemp("whole") / "whole.sqlite"
    client = moved_in(data)
    both = [{"moves": [{"exercise": "Press", "times": 2}, {"exercise": "Row"}], "reps": 5}]
    own = {"name": "Press", "pattern": "vertical_push", "muscles": {"front_delts": "direct"}}
    athlete = restricted({"about": "pattern", "subject": "squat"}) | {
        "maxima": [{"movement": "Row", "kg": 80, "date": "2026-09-01"}],
        "weighings": [{"date": "2026-09-01", "kg": 61}],
        "cautions": [{"kind": "illness", "by": "Dr Test", "since": "2026-09-01"}],
        "goals": [{"movement": "Row", "reps": 20, "since": "2026-09-01", "by": "2027-01-01"}],
    }
    weeks = [
        session(
            day,
            sets("Press", 4, tempo="3-0-1"),
            sets("Row", 4, reps=None, seconds=30),
            both,
            sets("Squat", 1, note="deep"),
            rpe=7,
            duration_min=50,
        )
        for day in (-14, -7, 0)
    ]
    body = document(
        weeks,
        [session(0, sets("Press", 4)), session(7, sets("Row", 4), both)],
        athlete=athlete,
        blocks=[{"week": "2026-W41", "weeks": 4}],
    )
    body["exercises"] = [own, *body["exercises"][1:]]
    bo = document(weeks, athlete={"name": "Bo"})
    assert client.post("/api/import", json=bo).status_code == 201
    answer = client.post("/api/import", json=body)
    assert answer.status_code == 201
    draft = get(client, "/api/athletes/2/weeks/2026-W42/draft")
    kept = {"sessions": draft["sessions"], "revision": 0, "start_total": 4}
    send(client, "put", "/api/athletes/2/weeks/2026-W42/draft", kept)
    send(client, "put", "/api/athletes/2/weeks/2026-W41/signature", {"name": "Ines"})
    with database.connection_context(), unit() as entry:
        entry.tell("Made for the trial")
        log = models.Session.get(models.Session.basis == "completed", models.Session.athlete == 2)
        log.came_with = models.Import.create(name="a.csv", day="2026-10-01")
        log.save()
        models.Version.create(
            session=log,
            change="c",
            day="2026-10-05",
            body={"session": {"date": "2026-10-05", "sets": []}},
        )
        models.Template.create(name="T", weeks=1, sessions=[])
        about = {"code": "jump", "subject": "total", "measure": "sets"}
        models.Acceptance.create(
            athlete=2,
            week="2026-W41",
            basis="completed",
            level="caution",
            reason="meant",
            day="2026-10-11",
            **about,
        )
        models.Declined.create(athlete=2, **about)
        models.OwnCue.create(athlete=2, movement="Row", says="Left heel down")
        models.Habit.create(athlete=2, asked="too_heavy", answer="pounds", times=3)
        models.Decision.create(
            athlete=2,
            kind="watched",
            level="caution",
            value=2.0,
            reason="meant",
            since="2026-09-21",
            until="2026-10-25",
            ended_on="2026-10-11",
            **about,
        )
        assert damage.find() == []
    database.close()
    back_up(data, data.with_name("copy.sqlite"))
    return data.with_name("copy.sqlite")


@pytest.fixture
def copied(whole: Path, tmp_path: Path) -> Path:
    data = tmp_path / "data.sqlite"
    data.write_bytes(whole.read_bytes())
    return data


class Asked(logging.Handler):
    """The tables that peewee's statements read."""

    def __init__(self) -> None:
        super().__init__()
        self.tables: set[str] = set()

    def emit(self, record: logging.LogRecord) -> None:
        self.tables |= set(re.findall(r'(?:FROM|JOIN) "?(\w+)"?', str(record.msg)))


@pytest.fixture(scope="module")
def readers(whole: Path, tmp_path_factory: pytest.TempPathFactory) -> dict[str, set[str]]:
    """The pages that read each table, as each is asked of an application that has read nothing."""
    read: dict[str, set[str]] = {table._meta.table_name: set() for table in TABLES}
    data = tmp_path_factory.mktemp("read") / "data.sqlite"
    data.write_bytes(whole.read_bytes())
    told = logging.getLogger("peewee")
    for page in PAGES:
        page = page.replace("/athletes/1/", "/athletes/2/")
        client = moved_in(data)
        asked = Asked()
        told.addHandler(asked)
        told.setLevel(logging.DEBUG)
        assert client.get(page).status_code < 500, page
        told.setLevel(logging.NOTSET)
        told.removeHandler(asked)
        for table in asked.tables & read.keys():
            read[table].add(page)
    assert all(read[table] for table, _ in COLUMNS), "a table that no page reads"
    return read


@pytest.mark.parametrize(("table", "column"), COLUMNS)
def test_no_damaged_value_fails_a_page(
    copied: Path, readers: dict[str, set[str]], table: str, column: str
) -> None:
    with sqlite3.connect(copied) as hand:
        ((kind,),) = hand.execute(
            f"SELECT type FROM pragma_table_info('{table}') WHERE name = '{column}'"
        )
        spoil = f'UPDATE OR IGNORE "{table}" SET "{column}" = ?'
        count = hand.execute(spoil, (b"\xff{x",)).rowcount
        assert count, table
    hand.close()
    client = moved_in(copied)
    failed = {}
    for page in readers[table]:
        status = client.get(page).status_code
        if status >= 500:
            failed[page] = status
    assert not failed
    with database.connection_context():
        found = damage.find()
        told = {(one.table, one.column) for one in found}
        assert (table, column) in told, kind
        # What was mended is whole; what was not stays as it is, and is told with its remedy.
        with unit() as entry:
            damage.mend(found, entry)
        left = {(one.table, one.column) for one in damage.find()}
        assert left == {(one.table, one.column) for one in found if one.mend is None}


def test_it_is_told_where_it_would_stand(copied: Path) -> None:
    with sqlite3.connect(copied) as hand:
        hand.execute("UPDATE \"set\" SET load_kg = 'x' WHERE id = 3")
        last = "SELECT max(id) FROM session WHERE athlete_id = 2 AND basis = 'completed'"
        hand.execute(f"UPDATE session SET date = '2026-10-99' WHERE id = ({last})")
    hand.close()
    client = moved_in(copied)
    client.application.extensions["dialback"].damage.look()
    (of_bo,) = get(client, HERE)["damaged"]
    assert "set 3 of the session of 2026-09-21" in of_bo
    assert "load_kg is 'x'" in of_bo
    (of_her,) = get(client, HERE.replace("/1/", "/2/"))["damaged"]
    assert "date is '2026-10-99'" in of_her
    assert "dialback restore" in of_her
    assert len(get(client, "/api/roster")["damaged"]) == 2


def test_check_names_what_it_finds_and_mends_what_is_safe(copied: Path) -> None:
    def check(*more: str) -> Answer:
        return run("check", *more, data=copied)

    assert check().returncode == 0
    with sqlite3.connect(copied) as hand:
        hand.execute("UPDATE \"set\" SET extra = '{' WHERE id = 3")
        hand.execute("PRAGMA foreign_keys = OFF")
        hand.execute('UPDATE "set" SET session_id = 999 WHERE id = 5')
        hand.execute("UPDATE session SET title = x'ff' WHERE id = 1")
    hand.close()
    before = copied.read_bytes()
    found = check()
    assert (found.returncode, found.stdout) == (2, "")
    assert len(found.stderr.splitlines()) == 3
    for said in (
        "set 3",
        "extra is '{'",
        "--mend' empties it",
        "session that is not there",
        "deletes the row",
    ):
        assert said in found.stderr
    mended = check("--mend")
    copy = copied.with_name(f"{copied.name}.before-mending-1")
    assert (mended.returncode, mended.stdout) == (0, f"{copied} is whole\n")
    assert "3 damaged values were mended" in mended.stderr
    assert copy.exists()
    assert len(before) == len(copy.read_bytes())
    with sqlite3.connect(copy) as look:
        assert look.execute('SELECT extra FROM "set" WHERE id = 3').fetchone() == ("{",)
    look.close()
    assert check().returncode == 0
