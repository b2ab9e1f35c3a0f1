"""Athletes by hand: taken on, described, and trained from nothing."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.build import WEEK

SQUAD = "Ada Lind, 62.5 kg, left-handed\nBo Marsh\n"


def take_on(client: FlaskClient, text: str = SQUAD) -> Any:
    return client.post("/api/athletes", json={"text": text})


def roster(client: FlaskClient) -> dict[str, dict[str, Any]]:
    return {row["name"]: row for row in client.get("/api/roster").get_json()["athletes"]}


def test_a_squad_is_taken_on_from_nothing(client: FlaskClient) -> None:
    read = client.post("/api/athletes/read", json={"text": SQUAD}).get_json()["people"]
    assert [(one["line"], one["name"], one["bodyweight_kg"], one["note"]) for one in read] == [
        (1, "Ada Lind", 62.5, "left-handed"),
        (2, "Bo Marsh", None, ""),
    ]
    assert roster(client) == {}
    answer = take_on(client)
    assert answer.status_code == 201
    assert len(answer.get_json()["athletes"]) == 2
    assert {name: row["note"] for name, row in roster(client).items()} == {
        "Ada Lind": "left-handed",
        "Bo Marsh": "",
    }


def test_all_of_them_or_none(client: FlaskClient) -> None:
    take_on(client, "Bo Marsh")
    refused = take_on(client)
    assert refused.status_code == 422
    assert refused.get_json()["detail"].startswith("Line 2: Bo Marsh is already there")
    assert list(roster(client)) == ["Bo Marsh"]


def test_the_table_that_was_corrected_is_what_comes_in(client: FlaskClient) -> None:
    take_on(client, "Cy Falk, squad Juniors")
    read = client.post("/api/athletes/read", json={"text": SQUAD}).get_json()["people"]
    told = ("told", "problem")
    people = [{key: one[key] for key in one if key not in told} for one in read]
    people[0] |= {"name": "Ada  Lindt ", "squad": "juniors", "born": 2009}
    people[1]["name"] = "Cy Falk"
    again = client.post("/api/athletes/read", json={"people": people}).get_json()["people"]
    assert (again[0]["squad"], again[0]["problem"]) == ("Juniors", "")
    assert "already there" in again[1]["problem"]
    assert client.post("/api/athletes", json={"people": people}).status_code == 422
    del people[1]
    assert client.post("/api/athletes", json={"people": people}).status_code == 201
    assert roster(client)["Ada Lindt"]["squad"] == "Juniors"


def test_a_squad_is_spelt_as_the_others_spell_it(client: FlaskClient) -> None:
    take_on(client, "Ada Lind, squad Juniors\nBo Marsh")
    body = {"name": "Bo Marsh", "bodyweight_kg": None, "squad": "JUNIORS"}
    assert client.put("/api/athletes/2", json=body).status_code == 200
    assert roster(client)["Bo Marsh"]["squad"] == "Juniors"


@pytest.mark.parametrize(
    ("text", "told"),
    [("", "there is nobody in it"), ("\n".join(f"N{at}" for at in range(201)), "more than 200")],
)
def test_nobody_and_too_many(client: FlaskClient, text: str, told: str) -> None:
    refused = take_on(client, text)
    assert refused.status_code == 422
    assert told in refused.get_json()["detail"]


def test_the_first_week_of_somebody_new(client: FlaskClient) -> None:
    """From a name to an audited week: nothing is compared with weeks that were not."""
    (number,) = take_on(client, "Ada Lind, 62.5 kg").get_json()["athletes"]
    week = f"/api/athletes/{number}/weeks/{WEEK}"
    text = {"date": "2026-10-06", "title": "First", "text": "Press-up 3 × 10\nSplit squat 3 × 8"}
    assert client.post(f"{week}/written", json=text).status_code == 201
    (plan,) = [one["plan"] for one in client.get(f"{week}/log").get_json()["sessions"]]
    body = {
        "change": "change-0001",
        "revision": 0,
        "plan": plan["id"],
        "session": {"date": "2026-10-06", "title": "First", "sets": plan["sets"]},
    }
    assert client.put("/api/athletes/1/logs/log-0000001", json=body).status_code == 200
    sheet = client.get(f"{week}/sheet").get_json()
    assert sheet["sessions_done"] == 1
    assert sheet["baseline_weeks"] == []
    assert not {one["code"] for one in sheet["findings"]} & {"jump", "load_step", "return"}


def test_an_athlete_is_described_anew(client: FlaskClient, bring: Callable[..., Any]) -> None:
    bring()
    take_on(client)
    before = client.get(f"/api/athletes/1/weeks/{WEEK}").get_json()["athlete"]
    body = {"name": "Ada Test-Lind", "bodyweight_kg": 80, "note": "  back in March "}
    assert client.put("/api/athletes/1", json=body).status_code == 200
    after = client.get(f"/api/athletes/1/weeks/{WEEK}").get_json()["athlete"]
    assert after == {
        **before,
        "name": "Ada Test-Lind",
        "bodyweight_kg": 80,
        "note": "back in March",
    }
    # The same name in other letters is nobody else's.
    body["name"] = "ADA test-lind"
    assert client.put("/api/athletes/1", json=body).status_code == 200
    body["name"] = "bo marsh"
    refused = client.put("/api/athletes/1", json=body)
    assert refused.status_code == 409
    assert "'Bo Marsh' is on the roster" in refused.get_json()["detail"]


def test_body_weight_enters_the_sums_at_once(client: FlaskClient) -> None:
    from tests.build import as_bytes, document, session, sets

    done = [session(0, sets("Press-up", 1, 10))]
    client.post("/api/import", data=as_bytes(document(done)), content_type="application/json")

    def load() -> float:
        rows = client.get(f"/api/athletes/1/weeks/{WEEK}/sheet").get_json()["totals"]
        return next(
            one["cells"]["volume_load_kg"]["done"]
            for one in rows
            if one["subject"] == "volume_load_kg"
        )

    assert load() == pytest.approx(10 * 0.64 * 70)
    client.put("/api/athletes/1", json={"name": "Ada Test", "bodyweight_kg": 80})
    assert load() == pytest.approx(10 * 0.64 * 80)


@pytest.mark.parametrize(
    "body",
    [
        {"name": "", "bodyweight_kg": 70},
        {"name": "A", "bodyweight_kg": 3},
        {"name": "A", "bodyweight_kg": "heavy"},
        {"bodyweight_kg": 70},
    ],
)
def test_what_is_no_description(client: FlaskClient, body: dict[str, Any]) -> None:
    take_on(client)
    assert client.put("/api/athletes/1", json=body).status_code == 422
    assert set(roster(client)) == {"Ada Lind", "Bo Marsh"}
