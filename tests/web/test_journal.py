"""The journal: who changed what, where; taken back after leaving, whatever it was."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.models import JournalEntry
from dialback.store.unit import NothingToldError, silently, unit
from dialback.web.doors import PLACES
from tests.web.test_api import get, send

Bring = Callable[..., Any]


@pytest.fixture(autouse=True)
def known(client: FlaskClient, bring: Bring) -> None:
    assert bring().status_code == 201


def entries(client: FlaskClient, query: str = "") -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = get(client, f"/api/journal?{query}")["entries"]
    return found


def log(client: FlaskClient, change: str, revision: int, reps: int, place: str = "Log") -> None:
    done = {"date": "2026-10-12", "sets": [{"exercise": "Press", "reps": reps, "load_kg": 20}]}
    body = {"change": change, "revision": revision, "session": done, "plan": None}
    answer = client.put("/api/athletes/1/logs/log-of-mine", json=body, headers={"X-Place": place})
    assert answer.status_code == 200, answer.get_data(as_text=True)


def test_a_change_says_who_where_and_what(client: FlaskClient) -> None:
    owner = {"name": "Ines", "role": "owner", "password": "three quiet rivers"}
    send(client, "post", "/api/accounts", owner, 201)
    log(client, "change one", 0, 8)
    (first, second, *_) = entries(client)
    assert (first["who"], first["place"], first["says"], first["name"]) == (
        "Ines",
        "Log",
        "Logged Mon 12 Oct",
        "Ada Test",
    )
    assert second["says"] == "Created an account for Ines, owner"
    assert get(client, "/api/journal")["people"] == ["Ines"]
    # The log says it, too.
    logged = get(client, "/api/athletes/1/weeks/2026-W42/log")["sessions"]
    assert [one["by"]["who"] for one in logged if one["log"]] == ["Ines"]
    assert len(entries(client, "who=Ines")) == 1
    assert [one["says"] for one in entries(client, "words=LOGGED")] == ["Logged Mon 12 Oct"]
    assert entries(client, "words=ada%20test")[0]["name"] == "Ada Test"
    # A place that is none is not made one.
    log(client, "change two", 1, 9, place="<b>Nowhere</b>")
    assert entries(client)[0]["place"] == "API"


def test_the_places_are_those_of_the_interface() -> None:
    places = Path(__file__).parents[2] / "frontend" / "src" / "frame" / "places.ts"
    assert set(re.findall(r'title: "([^"]+)"', places.read_text())) == PLACES


def test_where_nobody_signs_in_nobody_is_named(client: FlaskClient) -> None:
    log(client, "change one", 0, 8)
    logged = get(client, "/api/athletes/1/weeks/2026-W42/log")["sessions"]
    assert [one["by"] for one in logged if one["log"]] == [None]


def test_a_log_sent_set_by_set_is_one_entry(client: FlaskClient) -> None:
    for at in range(5):
        log(client, f"change {at}", at, 5 + at)
    (one,) = entries(client, "words=Logged")
    assert one["times"] == 5
    # Sent again, it is no change.
    log(client, "change 4", 4, 9)
    assert entries(client, "words=Logged")[0]["times"] == 5


def test_rules_are_taken_back_and_made_again(client: FlaskClient) -> None:
    def chosen() -> Any:
        return get(client, "/api/rules")["chosen"]

    send(client, "put", "/api/rules", {"chosen": {"spacing_sets": 5}, "revision": 1})
    send(client, "put", "/api/rules", {"chosen": {"spacing_sets": 4}, "revision": 2})
    later, earlier = entries(client, "undoable=true")[:2]
    assert later["says"].startswith("Changed the house rules: ")
    at = f"/api/journal/{earlier['id']}/undo"
    assert "changed again after this" in send(client, "post", at, {}, 409)["detail"]
    send(client, "post", f"/api/journal/{later['id']}/undo", {})
    assert chosen() == {"spacing_sets": 5}
    send(client, "post", at, {})
    assert chosen() == {}
    assert get(client, "/api/rules")["revision"] == 5
    send(client, "post", f"/api/journal/{earlier['id']}/redo", {})
    assert chosen() == {"spacing_sets": 5}
    assert entries(client)[0]["says"] == f"Redid: {earlier['says']}"


@pytest.mark.parametrize(
    ("method", "path", "body", "look"),
    [
        ("delete", "/api/athletes/1", None, "/api/roster"),
        ("put", "/api/athletes/1",
         {"name": "Ada T.", "bodyweight_kg": 61, "note": "n", "squad": "A"},
         "/api/athletes/1/weeks/2026-W41"),
        ("put", "/api/athletes/1/rules", {"chosen": {"indirect_credit": 0.3}, "revision": 1},
         "/api/athletes/1/weeks/2026-W41/sheet"),
        ("put", "/api/kit", {"kit": {"bars_kg": [15], "plates_kg": {"10": 2}}, "revision": 1},
         "/api/kit"),
        ("post", "/api/rules/schools", {"name": "Ours", "chosen": {"spacing_sets": 4}},
         "/api/rules"),
    ],
)  # fmt: skip
def test_whatever_it_was_it_is_taken_back(
    client: FlaskClient, method: str, path: str, body: Any, look: str
) -> None:
    def seen() -> Any:
        found = get(client, look)
        return {key: value for key, value in found.items() if key != "revision"}

    before = seen()
    assert getattr(client, method)(path, json=body).status_code < 300
    after = seen()
    assert after != before
    change = entries(client, "undoable=true")[0]["id"]
    send(client, "post", f"/api/journal/{change}/undo", {})
    assert seen() == before
    send(client, "post", f"/api/journal/{change}/redo", {})
    assert seen() == after


def test_a_removed_log_comes_back_and_the_figures_with_it(client: FlaskClient) -> None:
    log(client, "change one", 0, 8)
    week = "/api/athletes/1/weeks/2026-W42/log"
    before = get(client, week)
    send(client, "post", "/api/athletes/1/logs/log-of-mine/remove", {})
    assert get(client, week) != before
    change = entries(client, "undoable=true")[0]
    assert change["says"] == "Removed the log of Mon 12 Oct"
    send(client, "post", f"/api/journal/{change['id']}/undo", {})
    (session,) = [one for one in get(client, week)["sessions"] if one["log"]]
    assert session["log"]["session"]["sets"][0]["reps"] == 8


def test_a_name_that_is_taken_by_now_is_not_given_back(client: FlaskClient, bring: Bring) -> None:
    send(client, "delete", "/api/athletes/1", None)
    change = entries(client, "undoable=true")[0]["id"]
    assert bring().status_code == 201
    told = send(client, "post", f"/api/journal/{change}/undo", {}, 409)
    assert "on the roster" in told["detail"]
    assert get(client, "/api/athletes/archived")["athletes"][0]["id"] == 1


def test_a_change_that_nobody_tells_is_not_made(client: FlaskClient) -> None:
    count = JournalEntry.select().count()
    with pytest.raises(NothingToldError), unit():
        JournalEntry.update(who="nobody").execute()
    assert not JournalEntry.select().where(JournalEntry.who == "nobody").exists()
    with unit():
        # Nothing was changed: there is nothing to tell.
        JournalEntry.select().count()
    with silently():
        JournalEntry.update(who="quiet").execute()
    assert JournalEntry.select().where(JournalEntry.who == "quiet").count() == count


def test_the_journal_is_read_page_by_page(client: FlaskClient) -> None:
    for at in range(60):
        send(client, "put", "/api/house", {"name": f"House {at}"})
        send(client, "put", "/api/unit", {"unit": "lb" if at % 2 else "kg"})
    first = get(client, "/api/journal")
    assert first["more"]
    assert len(first["entries"]) == 100
    last = get(client, f"/api/journal?before={first['entries'][-1]['id']}")
    assert not last["more"]
    numbers = [one["id"] for page in (first, last) for one in page["entries"]]
    assert numbers == sorted(numbers, reverse=True)
    assert len(set(numbers)) == len(numbers) == 121
