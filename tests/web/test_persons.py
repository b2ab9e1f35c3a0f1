"""What is kept of a person: given out whole, and deleted so that nothing is left."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.models import (
    TABLES,
    Acceptance,
    Athlete,
    Declined,
    Import,
    Session,
    Verdict,
    Version,
    database,
)
from tests.build import document, restricted, session, sets
from tests.web.test_api import get, send

Bring = Callable[..., Any]
HERE = "/api/athletes/1/weeks/2026-W41"
NEXT = "/api/athletes/1/weeks/2026-W42"
NAME = "Quirina Testfall"
OWNER = {"name": "Ines", "role": "owner", "password": "three quiet rivers"}


@pytest.fixture(autouse=True)
def two_people(bring: Bring, client: FlaskClient) -> None:
    """Somebody of whom everything is kept that can be, and somebody else."""
    both = [
        {"moves": [{"exercise": "Press", "times": 1}, {"exercise": "Row", "times": 1}], "reps": 5}
    ]
    own = {
        "name": "Press",
        "pattern": "vertical_push",
        "compound": True,
        "muscles": {"front_delts": "direct"},
    }
    athlete = restricted({"about": "pattern", "subject": "squat"}) | {
        "name": NAME,
        "maxima": [{"movement": "Row", "kg": 80, "date": "2026-09-01"}],
        "weighings": [{"date": "2026-09-01", "kg": 61}],
        "cautions": [{"kind": "illness", "by": "Dr Quirina", "since": "2026-09-01"}],
        "decisions": [
            {"code": "balance", "subject": "push_pull", "measure": "sets", "since": "2026-09-01"}
        ],
        "goals": [{"movement": "Row", "reps": 20, "since": "2026-09-01", "by": "2027-01-01"}],
    }
    plain = [session(day, sets("Press", 4), sets("Row", 4), both) for day in (-14, -7, 0)]
    body = document(
        plain,
        [session(0, sets("Press")), session(7, sets("Row", 4))],
        athlete=athlete,
        blocks=[{"week": "2026-W42", "weeks": 4}],
    )
    body["exercises"] = [own, *body["exercises"][1:]]
    assert bring(document(plain)).status_code == 201
    assert bring(body).status_code == 201
    him = "/api/athletes/2/weeks"
    draft = get(client, f"{him}/2026-W42/draft")
    kept = {"sessions": draft["sessions"], "revision": 0, "start_total": 4}
    send(client, "put", f"{him}/2026-W42/draft", kept)
    send(client, "put", f"{him}/2026-W41/signature", {"name": "Ines"})
    send(
        client, "post", f"{him}/2026-W42/block/text", {"text": "2026-10-15 Legs\nSquat 3 × 5"}, 201
    )
    sheet = Import.create(name=f"{NAME}.csv", day="2026-10-01")
    row = Session.select().where(Session.athlete == 2, Session.basis == "completed").first()
    row.came_with = sheet
    row.save()
    send(client, "put", "/api/athletes/2/cues", {"movement": "Row", "says": f"{NAME}: tall"})
    habit = {"form": "too_heavy", "answer": "pounds"}
    send(client, "post", "/api/athletes/2/habits", habit)
    Version.create(session=row, change="c", body={"of": NAME}, day="2026-10-05")
    about = {"code": "jump", "subject": "total", "measure": "sets"}
    Acceptance.create(
        athlete=2,
        week="2026-W41",
        basis="completed",
        level="caution",
        reason=f"{NAME} asked for it",
        day="2026-10-11",
        **about,
    )
    Declined.create(athlete=2, **about)
    Verdict.create(athlete=2, state="s", body=NAME)
    assert send(client, "post", "/api/accounts", OWNER, 201)["you"]
    link = send(client, "post", "/api/athletes/2/door", {})["link"]
    phone = client.application.test_client()
    send(phone, "post", "/api/door", {"token": link.partition("#")[2]})
    assert all(of_hers().values()), of_hers()


def archive(client: FlaskClient, number: int = 2) -> None:
    assert client.delete(f"/api/athletes/{number}").status_code == 200


def of_hers() -> dict[str, int]:
    """How many rows each table that points at athletes has of hers."""
    return {
        table._meta.table_name: table.select().where(field == 2).count()
        for table in TABLES
        for field in table._meta.sorted_fields
        if getattr(field, "rel_model", None) is Athlete
    }


def everybodys() -> dict[str, int]:
    return {table._meta.table_name: table.select().count() for table in TABLES}


def test_everything_about_somebody_is_given_out(client: FlaskClient) -> None:
    found = get(client, "/api/athletes/2/everything")
    assert (found["format"], found["version"]) == ("dialback-person", 1)
    assert found["book"]["athlete"]["name"] == NAME
    kept = found["kept"]
    assert not {"password", "door", "second", "recovery"} & set(kept["account"][0])
    assert set(kept["device"][0]) == {"words", "since", "seen"}
    for table in (
        "athlete",
        "session",
        "set",
        "set_move",
        "movement",
        "movement_muscle",
        "block",
        "restriction",
        "maximum",
        "goal",
        "draft",
        "signature",
        "journal",
        "account",
        "weighing",
        "caution",
        "own_cue",
        "version",
        "import",
    ):
        assert kept[table], table
    # Nothing of the other one is in it.
    assert len(kept["session"]) == Session.select().where(Session.athlete == 2).count()
    assert "Ada Test" not in client.get("/api/athletes/2/everything").get_data(as_text=True)
    # Whoever is archived can still have theirs.
    archive(client)
    assert get(client, "/api/athletes/2/everything")["kept"]["goal"] == kept["goal"]


def test_deleted_for_good_nothing_is_left(client: FlaskClient, tmp_path: Path) -> None:
    before = get(client, f"{HERE}/sheet")
    archive(client)
    assert get(client, "/api/athletes/archived")["athletes"][0]["name"] == NAME
    wrong = send(client, "post", "/api/athletes/2/delete", {"name": "Quirina"}, 422)
    assert "type it exactly as shown" in wrong["detail"]
    gone = send(client, "post", "/api/athletes/2/delete", {"name": NAME.lower()})["rows"]
    assert gone["athlete"] == 1
    assert gone["set"] > 20
    get(client, "/api/athletes/2/everything", 404)
    assert get(client, "/api/athletes/archived")["athletes"] == []
    assert not any(of_hers().values()), of_hers()
    assert database.execute_sql("PRAGMA foreign_key_check").fetchall() == []
    assert Import.select().count() == 0
    # The other one's figures are as they were, and the file has no word of her any more.
    assert get(client, f"{HERE}/sheet") == before
    (data,) = tmp_path.rglob("*.sqlite")
    for path in data.parent.glob(f"{data.name}*"):
        assert b"Quirina" not in path.read_bytes(), path


def test_only_who_is_archived_can_be_deleted(client: FlaskClient) -> None:
    rows = everybodys()
    refused = send(client, "post", "/api/athletes/2/delete", {"name": NAME}, 422)
    assert "archive them first" in refused["detail"]
    send(client, "post", "/api/athletes/99/delete", {"name": NAME}, 404)
    assert everybodys() == rows


def test_squads(client: FlaskClient) -> None:
    text = "Bo Marsh, 70 kg, squad Juniors, novice\nAda Lind, squad: Seniors"
    read = send(client, "post", "/api/athletes/read", {"text": text})["people"]
    assert [(one["squad"], one["note"]) for one in read] == [("Juniors", ""), ("Seniors", "")]
    send(client, "post", "/api/athletes", {"text": text}, 201)
    squads = {row["name"]: row["squad"] for row in get(client, "/api/roster")["athletes"]}
    assert (squads["Bo Marsh"], squads["Ada Lind"], squads[NAME]) == ("Juniors", "Seniors", "")
    about = {"name": NAME, "bodyweight_kg": 61, "note": "", "squad": " Juniors "}
    send(client, "put", "/api/athletes/2", about)
    assert get(client, NEXT.replace("/1/", "/2/"))["athlete"]["squad"] == "Juniors"
    planned = get(client, "/api/floor?day=2026-10-12")["sessions"]
    assert [one["squad"] for one in planned] == ["Juniors"]


def test_the_server_says_that_it_is_well(client: FlaskClient) -> None:
    found = get(client, "/api/health")
    assert found["status"] == "ok"
    assert found["version"][0].isdigit()


def test_nobody_gets_the_number_of_somebody_who_was_deleted(
    client: FlaskClient, bring: Bring
) -> None:
    assert get(client, f"{HERE.replace('/1/', '/2/')}/sheet")["sessions"]
    archive(client)
    send(client, "post", "/api/athletes/2/delete", {"name": NAME})
    book = document([session(0, sets("Row", 2))]) | {"blocks": []}
    book["athlete"]["name"] = "Somebody Else"
    assert bring(book).get_json()["athlete"]["id"] == 3
    get(client, f"{HERE.replace('/1/', '/2/')}/sheet", 404)
    (new,) = send(client, "post", "/api/athletes", {"text": "Bo Marsh"}, 201)["athletes"]
    assert new == 4
