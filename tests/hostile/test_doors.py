"""What cannot be kept is refused, whichever door it comes in by, and nothing has changed then.

One table: the input, and what is wrong with it. Every door gets every row that it can be given.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.book.book import read_book
from dialback.book.errors import BadInputError
from dialback.book.grid import Grid
from dialback.book.logsheet.columns import SheetChoice
from dialback.book.logsheet.taking import take
from dialback.core.movements import MovementTable
from dialback.core.notation import read
from dialback.core.plain import MAX_DEPTH, MAX_INTEGER, unplain
from tests.build import MOVEMENTS, document, session, sets
from tests.conftest import TODAY


def nested(levels: int) -> str:
    return "[" * levels + "]" * levels


ODD_VALUES = {
    "not a number": "NaN",
    "infinity": "Infinity",
    "beyond all numbers": "1e400",
    "below all numbers": "-1e999",
    "an integer no table holds": str(2**63),
    "an integer of 500 digits": "7" * 500,
    "an integer of 5000 digits": "7" * 5000,
    "nested a little too deep": nested(MAX_DEPTH + 1),
    "nested beyond any stack": nested(100_000),
    "a null character": '"a\\u0000b"',
    "an escape character": '"\\u001b[2J"',
    "a C1 control character": '"\\u009b"',
    "half of a character": '"\\ud800"',
    "no character": '"\\uffff"',
    "a control character as a key": '{"a\\u0007": 1}',
    "half of a character as a key": '{"\\udc00": 1}',
}  # fmt: skip
"""JSON that no program should keep."""

LOG = "/api/athletes/1/logs/0123abcd-0000"
A_LOG = {
    "change": "change-0001",
    "revision": 0,
    "session": {"date": "2026-10-12", "sets": [{"exercise": "Press", "reps": 5}]},
}


def rows_of(data: Path) -> dict[str, int]:
    """How many rows each table has, and what was ever written."""
    with sqlite3.connect(data) as connection:
        names = [
            name
            for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
        ]
        return {
            name: connection.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]
            for name in names
        }


@pytest.fixture
def known(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    assert bring().status_code == 201
    return client


def log_with(value: str) -> str:
    """A log whose set has an unknown key with that value, as JSON."""
    body = A_LOG
    return json.dumps(body).replace('"reps": 5', f'"reps": 5, "own": {value}')


@pytest.mark.parametrize("what", ODD_VALUES)
def test_the_api_refuses_it(known: FlaskClient, data: Path, what: str) -> None:
    before = rows_of(data)
    answer = known.put(LOG, data=log_with(ODD_VALUES[what]), content_type="application/json")
    assert answer.status_code in (400, 422), answer.get_data(as_text=True)
    assert answer.mimetype == "application/problem+json"
    assert rows_of(data) == before


@pytest.mark.parametrize("what", ODD_VALUES)
@pytest.mark.parametrize("where", ["book", "athlete", "session", "set", "movement"])
def test_a_book_with_it_is_refused(known: FlaskClient, data: Path, what: str, where: str) -> None:
    own = "HERE" if where == "set" else ""
    one = document([session(0, sets("Press", own=own, reps=5))])
    target = {
        "book": one,
        "athlete": one["athlete"],
        "session": one["completed"][0],
        "movement": one["exercises"][0],
        "set": {},
    }[where]
    if where != "set":
        target["own"] = "HERE"
    text = json.dumps({**one, "athlete": {**one["athlete"], "name": "Berta Test"}})
    text = json.dumps(one) if where == "athlete" else text
    body = text.replace('"HERE"', ODD_VALUES[what]).encode()
    with pytest.raises(BadInputError):
        read_book(body)
    before = rows_of(data)
    answer = known.post("/api/import", data=body, content_type="application/json")
    assert answer.status_code == 422
    assert rows_of(data) == before


@pytest.mark.parametrize("what", [name for name in ODD_VALUES if "as a key" not in name])
def test_a_sheet_with_it_tells_the_row(what: str) -> None:
    value = ODD_VALUES[what]
    choice = SheetChoice(columns={"date": 0, "movement": 1, "reps": 2, "more": 3})
    cells = ("2026-10-05", "Press", 5, f'{{"own": {value}}}')
    grid = Grid("csv", ("date", "movement", "reps", "more"), ((2, cells),))
    found = take(grid, choice, MovementTable(MOVEMENTS_OF), TODAY, "Ada Test")
    assert not found.sessions
    assert [one.row for one in found.problems] == [2]


MOVEMENTS_OF = read_book(json.dumps(document([])).encode()).exercises
ODD_TEXTS = ["a\x00b", "a\x1b[2J", "a\x7f", "\x9b", "a\ud800", "a\uffff"]


@pytest.mark.parametrize("text", ODD_TEXTS)
def test_a_cell_with_a_control_character_tells_the_row(text: str) -> None:
    for column in ("title", "note", "part"):
        choice = SheetChoice(columns={"date": 0, "movement": 1, "reps": 2, column: 3})
        grid = Grid("csv", ("d", "m", "r", column), ((7, ("2026-10-05", "Press", 5, text)),))
        found = take(grid, choice, MovementTable(MOVEMENTS_OF), TODAY, "Ada Test")
        assert [(one.row, one.column) for one in found.problems] == [(7, column)]


@pytest.mark.parametrize("text", ODD_TEXTS)
def test_a_line_with_a_control_character_is_a_mistake(text: str) -> None:
    reading = read(f"Press 3 × 5\n{text}\nRow 3 × 5", MovementTable(MOVEMENTS_OF))
    assert [one.line for one in reading.mistakes] == [2]


@pytest.mark.parametrize(
    "path",
    [
        "/api/athletes/1/weeks/2026-W42/trail?figure=totals/sets%00",
        "/api/import?name=a%1Bb",
        "/api/athletes/1/weeks/2026-W4%002/sheet",
        "/%00",
    ],
)
def test_an_address_with_a_control_character_is_refused(known: FlaskClient, path: str) -> None:
    assert known.get(path).status_code in (422, 404)


@pytest.mark.parametrize(("path", "status"), [
    ("/api/athletes/99999999999999999999999999/weeks/2026-W42/sheet", 404),
    ("/api/athletes/1/logs/row-99999999999999999999999999/remove", 404),
    ("/api/floor/run?plan=99999999999999999999999999", 422),
    ("/" + "x" * 300, 200), ("/" + "x/" * 4000, 200), ("/assets/" + "y" * 300, 200),
    ("/assets/../../cli.py", 200), ("/assets/../../../pyproject.toml", 200),
])  # fmt: skip
def test_absurd_addresses_have_answers(known: FlaskClient, path: str, status: int) -> None:
    method = known.post if path.endswith("remove") else known.get
    answer = method(path)
    # The page of the front end, if it is built; never a file of ours.
    assert answer.status_code in (status, 404, 422), answer.get_data(as_text=True)[:300]
    assert b"import" not in answer.get_data()[:2000] or b"<html" in answer.get_data()


def test_an_id_of_another_athlete_is_refused(
    known: FlaskClient, data: Path, bring: Callable[..., Any]
) -> None:
    assert (
        bring(document([], athlete={"name": "Berta Test", "bodyweight_kg": 70})).status_code == 201
    )
    body = A_LOG
    assert known.put(LOG, json=body).status_code == 200
    before = rows_of(data)
    other = known.put(LOG.replace("/1/", "/2/"), json={**body, "change": "change-0002"})
    assert other.status_code == 422
    assert "client id" in other.get_json()["detail"]
    assert rows_of(data) == before


def test_a_day_whose_week_is_not_there_is_no_day(known: FlaskClient) -> None:
    body = {"date": "2999-12-31", "title": "", "text": "Press 3 × 5"}
    answer = known.post("/api/athletes/1/weeks/2999-W52/written", json=body)
    assert answer.status_code == 422


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://["},
        {"Origin": "http://evil.example"},
        {"Origin": "null"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
@pytest.mark.parametrize("path", ["/api/roster", "/api/floor/sensor?reps=1"])
def test_pages_of_other_sites_get_nothing(
    known: FlaskClient, headers: dict[str, str], path: str
) -> None:
    for method in (known.get, known.post):
        answer = method(path, headers=headers)
        assert answer.status_code == 403, answer.get_data(as_text=True)


def test_a_body_that_is_too_long_is_refused(known: FlaskClient, data: Path) -> None:
    before = rows_of(data)
    answer = known.put(
        LOG, data=log_with('"' + "x" * 2_100_000 + '"'), content_type="application/json"
    )
    assert answer.status_code == 413
    assert rows_of(data) == before


def test_plain_values_are_let_through() -> None:
    for fine in (MAX_INTEGER, -MAX_INTEGER, 1.5, True, None, "a\tb\n", "ä 🏋", [], {"a": [1, {}]}):
        assert unplain(fine) is None
    assert unplain(json.loads(nested(MAX_DEPTH))) is None


def test_a_movement_is_known_by_its_name(known: FlaskClient) -> None:
    assert {one["name"] for one in MOVEMENTS} >= {"Press", "Row"}


def test_a_book_of_ten_thousand_movements_is_refused(known: FlaskClient, data: Path) -> None:
    one = document([])
    one["exercises"] = [
        {"name": f"Press {number}", "pattern": "vertical_push"} for number in range(10_000)
    ]
    before = rows_of(data)
    answer = known.post("/api/import", json=one)
    assert answer.status_code == 422
    assert "exercises" in answer.get_json()["detail"]
    assert rows_of(data) == before


def test_a_version_of_another_athlete_is_not_decided(
    known: FlaskClient, data: Path, bring: Callable[..., Any]
) -> None:
    """Two hands, one log: what waits beside it belongs to its athlete alone."""
    whose = {"name": "Berta Test", "bodyweight_kg": 70}
    assert bring(document([], athlete=whose)).status_code == 201
    assert known.put(LOG, json=A_LOG).status_code == 200
    later = {**A_LOG, "change": "change-0002", "session": {**A_LOG["session"], "rpe": 9}}
    assert known.put(LOG, json=later).get_json()["both_kept"]
    before = rows_of(data)
    # Decided, or sent again, in another athlete's name.
    decided = known.post("/api/athletes/2/versions/1/decide", json={"keep": "other"})
    assert decided.status_code == 404
    again = known.put("/api/athletes/2/logs/another-0001", json=later)
    assert again.status_code == 422
    assert rows_of(data) == before
    assert (
        known.post("/api/athletes/1/versions/1/decide", json={"keep": "other"}).status_code == 200
    )
