"""Several at once: nobody's change is set back, and what was acknowledged is there."""

import sqlite3
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

import dialback.work as work
from dialback.store.journal import Entry
from dialback.store.models import Athlete
from dialback.store.unit import touch, unit
from dialback.web.app import create_app
from dialback.web.doors import ASKING
from tests.conftest import TODAY
from tests.web.test_api import get, send

WEEK = "/api/athletes/1/weeks/2026-W42"
TEXT = {"date": "2026-10-13", "title": "Arms", "text": "Row 3 × 8 at 20 kg"}
RESTRICTION = {"about": "movement", "subject": "Press", "by": "Runa Velk", "since": "2026-10-12"}
MAXIMUM = {"movement": "Press", "kg": 60, "date": "2026-10-12"}
FINDING = {"code": "muscle_floor", "subject": "chest", "measure": "sets", "basis": "completed"}

WRITES: list[tuple[str, str, str, dict[str, Any] | None]] = [
    ("planning", "post", f"{WEEK}/written", TEXT),
    ("house", "put", "/api/athletes/1/rules", {"chosen": {"spacing_sets": 5}, "revision": 1}),
    ("roster", "post", "/api/athletes/1/restrictions", RESTRICTION),
    ("roster", "post", "/api/athletes/1/maxima", MAXIMUM),
    ("planning", "post", f"{WEEK}/block/text", {"text": "2026-10-14 Legs\nSquat 3 × 5 at 60 kg"}),
    ("planning", "post", f"{WEEK}/block/new",
     {"title": "Winter", "weeks": 3, "fill": "week before", "change": {}}),
    ("roster", "delete", "/api/athletes/1", None),
]  # fmt: skip


@pytest.fixture
def known(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    assert bring().status_code == 201
    return client


@pytest.mark.parametrize(("place", "method", "path", "body"), WRITES)
def test_a_change_between_reading_and_the_lock_stays(
    known: FlaskClient,
    data: Path,
    monkeypatch: pytest.MonkeyPatch,
    place: str,
    method: str,
    path: str,
    body: dict[str, Any] | None,
) -> None:
    """Somebody else keeps a note right before the lock is taken: it is there afterwards."""

    @contextmanager
    def after_somebody() -> Iterator[Entry]:
        with sqlite3.connect(data) as other:
            other.execute(
                "UPDATE athlete SET note = 'kept', bodyweight_kg = 71.5, "
                "change = change + 1 WHERE id = 1"
            )
        other.close()
        with unit() as entry:
            yield entry

    monkeypatch.setattr(getattr(work, place), "unit", after_somebody)
    answer = getattr(known, method)(path, json=body)
    assert answer.status_code < 300, answer.get_data(as_text=True)
    with sqlite3.connect(data) as look:
        found = look.execute("SELECT note, bodyweight_kg FROM athlete WHERE id = 1").fetchone()
    look.close()
    assert found == ("kept", 71.5)


def test_a_row_that_was_read_earlier_sets_nothing_back(store: Path) -> None:
    Athlete.create(name="Ada")
    early, late = Athlete.get(), Athlete.get()
    late.rules = {"spacing_sets": 5}
    touch(late)
    early.note = "of mine"
    touch(early)
    kept = Athlete.get()
    assert (kept.rules, kept.note, kept.change) == ({"spacing_sets": 5}, "of mine", 3)


def test_what_only_asks_is_there(data: Path) -> None:
    rules = create_app(data, today=lambda: TODAY).url_map.iter_rules()
    names = {rule.endpoint.rpartition(".")[2] for rule in rules if "POST" in (rule.methods or ())}
    assert names >= ASKING


@pytest.mark.parametrize("hands", [2, 8])
def test_every_acknowledged_change_is_there_or_was_refused_as_stale(
    data: Path, bring: Callable[..., Any], hands: int
) -> None:
    """Several write one plan, each over the revision it has read, while others read it."""
    assert bring().status_code == 201
    app = create_app(data, today=lambda: TODAY)
    first = app.test_client().post(f"{WEEK}/written", json=TEXT).get_json()
    kept: list[tuple[int, str]] = []
    wrong: list[str] = []
    lock = threading.Lock()

    def look(client: FlaskClient) -> tuple[int, str]:
        answer = client.get(f"{WEEK}/written")
        asked = client.post(f"{WEEK}/written/check", json={**TEXT, "session": first["id"]})
        for one in (answer, asked):
            if one.status_code != 200:
                wrong.append(one.get_data(as_text=True))
        (row,) = [one for one in answer.get_json()["sessions"] if one["id"] == first["id"]]
        return row["revision"], row["text"]

    def write(hand: int) -> None:
        client = app.test_client()
        mine = 0
        # Until two of its own stand: how often it comes too late is the machine's luck.
        while mine < 2 and not wrong:
            revision, text = look(client)
            new = f"Curl {hand + 1} × {mine + 1}"
            body = {**TEXT, "text": f"{text}\n{new}", "session": first["id"], "revision": revision}
            answer = client.put(f"{WEEK}/written/{first['id']}", json=body)
            if answer.status_code == 200:
                mine += 1
                with lock:
                    kept.append((answer.get_json()["revision"], new))
            elif answer.status_code != 409:
                wrong.append(answer.get_data(as_text=True))

    threads = [threading.Thread(target=write, args=(hand,)) for hand in range(hands)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert not wrong
    revision, text = look(app.test_client())
    # Each was written over what it had read: all that was acknowledged stands in the text.
    assert len(kept) == 2 * hands
    assert revision == first["revision"] + len(kept)
    assert sorted(text.split("\n")[1:]) == sorted(line for _, line in kept)


def test_a_movement_that_a_draft_names_stays(known: FlaskClient) -> None:
    own = {"name": "Own row", "pattern": "horizontal_pull", "muscles": {"lats": "direct"}}
    number = known.post("/api/movements", json={"movement": own}).get_json()["id"]
    draft = {
        "sessions": [
            {
                "date": "2026-10-13",
                "title": "",
                "lines": [{"units": [[{"exercise": "Own row", "reps": 8}]], "count": 3}],
            }
        ],
        "start_total": 3,
        "revision": 0,
    }
    saved = known.put(f"{WEEK}/draft", json=draft)
    assert saved.status_code == 200, saved.get_data(as_text=True)
    refused = known.delete(f"/api/movements/{number}")
    assert refused.status_code == 409
    assert "a draft has it" in refused.get_json()["detail"]
    assert known.get(f"{WEEK}/draft").status_code == 200


def test_a_log_of_tomorrow_has_one_rule_everywhere(known: FlaskClient) -> None:
    for day, taken in (("2026-10-13", True), ("2026-10-14", False)):
        sets = [{"exercise": "Row", "reps": 8}]
        body = {
            "change": f"change-{day}",
            "revision": 0,
            "plan": None,
            "session": {"date": day, "sets": sets},
        }
        logged = known.put(f"/api/athletes/1/logs/log-of-{day}", json=body)
        assert (logged.status_code == 200) == taken, logged.get_data(as_text=True)


CAUTION = {"kind": "illness", "by": "Runa Velk", "since": "2026-10-12", "word": "A cold."}
GOAL = {"movement": "press", "load_kg": 55, "reps": 5, "by": "2026-12-13"}
SAID_TWICE: list[tuple[str, dict[str, Any], str]] = [
    ("care/cautions", CAUTION, "cautions"),
    ("care/weighings", {"date": "2026-10-05", "kg": 70}, "weighings"),
    ("restrictions", RESTRICTION, "restrictions"),
    ("maxima", MAXIMUM, "maxima"),
    ("goals", GOAL, "goals"),
]


@pytest.mark.parametrize(("path", "body", "key"), SAID_TWICE)
def test_what_is_said_twice_stands_once(
    known: FlaskClient, path: str, body: dict[str, Any], key: str
) -> None:
    """The answer to the first was lost, and it is sent once more."""
    place = f"/api/athletes/1/{path}"
    first = send(known, "post", place, body, 201)
    entries = len(get(known, "/api/journal")["entries"])
    assert send(known, "post", place, body, 201)[key] == first[key]
    assert len(get(known, "/api/journal")["entries"]) == entries


def test_a_draft_sent_twice_is_one_and_published_twice_is_one_change(known: FlaskClient) -> None:
    draft = get(known, f"{WEEK}/draft")
    lines = draft["sessions"][0]["lines"]
    lines[0]["count"] += 1
    body = {"sessions": draft["sessions"], "start_total": draft["start_total"], "revision": 0}
    assert send(known, "put", f"{WEEK}/draft", body)["revision"] == 1
    # The answer was lost: the same again is no other window's.
    assert send(known, "put", f"{WEEK}/draft", body)["revision"] == 1
    lines[0]["count"] += 1
    send(known, "put", f"{WEEK}/draft", body, 409)
    publish = {**body, "revision": 1, "logged": []}
    change = send(known, "post", f"{WEEK}/draft/publish", publish)["change"]
    assert send(known, "post", f"{WEEK}/draft/publish", publish)["change"] == change
    # Thrown away, and thrown away again: there is none.
    body["revision"] = 0
    send(known, "put", f"{WEEK}/draft", body)
    send(known, "post", f"{WEEK}/draft/reset", {"revision": 1})
    send(known, "post", f"{WEEK}/draft/reset", {"revision": 1})


def test_a_text_sent_twice_is_one(known: FlaskClient) -> None:
    kept = send(known, "post", f"{WEEK}/written", TEXT, 201)
    body = {**TEXT, "text": "Row 4 × 8 at 20 kg", "revision": kept["revision"]}
    place = f"{WEEK}/written/{kept['id']}"
    first = send(known, "put", place, body)
    assert send(known, "put", place, body) == first
    send(known, "put", place, {**body, "text": "Row 5 × 8 at 20 kg"}, 409)
