"""The made-up club in a house of one's own: it comes at a word, and goes without a trace."""

from pathlib import Path

from flask.testing import FlaskClient

from dialback.demo.club import CLUB, ROWERS
from dialback.store.copies import copy_of_the_day
from dialback.store.database import is_demo, mark_as_demo
from dialback.store.models import TABLES, Athlete, JournalEntry, database
from tests.conftest import TODAY
from tests.web.test_api import get, send

NAMES = sorted(rower.name for rower in ROWERS)
HOUSE = "The Shed"
KIT = {"bars_kg": [20]}


def kept() -> dict[str, int]:
    """Rows by table, but for the journal, which tells of it."""
    return {
        table._meta.table_name: table.select().count()
        for table in TABLES
        if table is not JournalEntry
    }


def test_it_comes_and_goes_and_leaves_what_was_there(client: FlaskClient, data: Path) -> None:
    send(client, "put", "/api/house", {"name": HOUSE})
    send(client, "put", "/api/kit", {"kit": KIT, "revision": 1})
    before = kept()
    assert get(client, "/api/house/club") == {"athletes": []}
    send(client, "post", "/api/house/club/remove", {}, 404)

    assert send(client, "post", "/api/house/club", {}, 201)["athletes"] == NAMES
    assert get(client, "/api/house") == {"name": CLUB}
    assert len(get(client, "/api/roster")["athletes"]) == len(NAMES)
    told = get(client, "/api/journal")["entries"]
    assert "Loaded the made-up club" in [entry["says"] for entry in told]
    refused = send(client, "post", "/api/house/club", {}, 409)
    assert "for an empty house" in refused["detail"]

    # Somebody real is added meanwhile; one of the club is archived, and one deleted already.
    everybody = {row["name"]: row["id"] for row in get(client, "/api/roster")["athletes"]}
    for name in NAMES[:2]:
        assert client.delete(f"/api/athletes/{everybody[name]}").status_code == 200
    send(client, "post", f"/api/athletes/{everybody[NAMES[0]]}/delete", {"name": NAMES[0]})
    assert get(client, "/api/house/club")["athletes"] == NAMES[1:]
    (new,) = send(client, "post", "/api/athletes", {"text": "Bo Marsh, 80 kg"}, 201)["athletes"]
    mark_as_demo()
    assert copy_of_the_day(data, TODAY) is None
    send(client, "post", "/api/house/club/remove", {})
    assert [row["name"] for row in get(client, "/api/roster")["athletes"]] == ["Bo Marsh"]
    assert Athlete.get().id == new
    assert get(client, "/api/house") == {"name": HOUSE}
    assert get(client, "/api/kit")["kit"]["bars_kg"] == [20]
    assert kept() == before | {"athlete": 1}
    assert database.execute_sql("PRAGMA foreign_key_check").fetchall() == []
    says = [entry["says"] for entry in get(client, "/api/journal")["entries"]]
    assert says[0] == "Removed the made-up club"
    # From here on it is somebody's own: it is copied every day.
    assert not is_demo(data)
    assert copy_of_the_day(data, TODAY) is not None


def test_what_was_changed_since_stays_as_it_is(client: FlaskClient) -> None:
    send(client, "post", "/api/house/club", {}, 201)
    send(client, "put", "/api/house", {"name": HOUSE})
    kit = get(client, "/api/kit")
    send(client, "put", "/api/kit", {"kit": KIT, "revision": kit["revision"]})
    send(client, "post", "/api/house/club/remove", {})
    assert get(client, "/api/house") == {"name": HOUSE}
    assert get(client, "/api/kit")["kit"]["bars_kg"] == [20]
    assert get(client, "/api/roster")["athletes"] == []


def test_it_does_not_come_to_somebody(client: FlaskClient) -> None:
    send(client, "post", "/api/athletes", {"text": "Bo Marsh"}, 201)
    client.delete("/api/athletes/1")
    assert "or archived" in send(client, "post", "/api/house/club", {}, 409)["detail"]
    assert Athlete.select().count() == 1
