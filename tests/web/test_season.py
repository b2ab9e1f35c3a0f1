"""The place Season: the long line over the API."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.blocks import place_block
from dialback.store.database import connected
from dialback.store.models import Athlete
from tests.build import WEEK, document, session, sets

HERE = f"/api/athletes/1/weeks/{WEEK}"


@pytest.fixture
def trained(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    days = [
        session(7 * back, sets("Press", 6, load_kg=40), sets("Row", 6)) for back in range(-9, 1)
    ]
    days += [session(1, sets("Squat", 3, None, seconds=40))]
    assert bring(document(days, [session(0, sets("Press", 6))])).status_code == 201
    return client


def line(found: dict[str, Any], kind: str, subject: str) -> dict[str, Any]:
    return next(one for one in found["lines"] if (one["kind"], one["subject"]) == (kind, subject))


def test_weeks_and_lines(trained: FlaskClient) -> None:
    found = trained.get(f"{HERE}/season?weeks=16").get_json()
    assert found["lengths"] == [16, 26, 52]
    assert [one["week"] for one in found["weeks"]][-1] == str(WEEK)
    assert [one["trained"] for one in found["weeks"]] == [False] * 6 + [True] * 10
    total = line(found, "measure", "sets")
    assert total["values"][-3:] == [12, 12, 15]
    assert total["planned"][-1] == 6
    assert total["figure"] == "totals/sets"
    # What no week has does not go over the wire.
    assert total["rough"] is None
    assert line(found, "measure", "reps")["rough"][-1] is True
    assert line(found, "movement", "Press")["bases"] is None


def test_a_value_of_the_line_is_that_of_the_sheet(trained: FlaskClient) -> None:
    season = trained.get(f"{HERE}/season?weeks=16").get_json()
    sheet = trained.get(f"{HERE}/sheet").get_json()
    for row in sheet["muscles"]:
        mine = [one for one in season["lines"] if one["subject"] == row["subject"]]
        if mine:
            assert mine[0]["values"][-1] == pytest.approx(row["cells"]["sets"]["done"])
            assert mine[0]["bases"][-1] == pytest.approx(row["cells"]["sets"]["base"])


def test_blocks_and_signatures_stand_on_the_time_line(trained: FlaskClient) -> None:
    with connected():
        place_block(Athlete.get(), "Autumn", WEEK.plus(-2), 4)
        place_block(Athlete.get(), "", WEEK.plus(-6), 4)
    trained.put(f"{HERE}/signature", json={"name": "Runa Velk"})
    weeks = trained.get(f"{HERE}/season?weeks=16").get_json()["weeks"]
    assert [one["block"] for one in weeks[-7:]] == ["Block", None, None, None, "Autumn", None, None]
    assert [one["in_block"] for one in weeks[-8:]] == [False] + [True] * 7
    assert [one["signed"] for one in weeks[-2:]] == [False, True]


def test_a_later_log_is_in_it_at_once(trained: FlaskClient) -> None:
    before = trained.get(f"{HERE}/season?weeks=16").get_json()
    (plan,) = [one for one in trained.get(f"{HERE}/log").get_json()["sessions"] if one["plan"]]
    log = plan["log"]
    body = {
        "change": "change-0001",
        "revision": log["revision"],
        "session": {**log["session"], "sets": log["session"]["sets"][:-2]},
    }
    assert trained.put(f"/api/athletes/1/logs/{log['client_id']}", json=body).status_code == 200
    after = trained.get(f"{HERE}/season?weeks=16").get_json()
    sets_ = [line(one, "measure", "sets")["values"][-1] for one in (before, after)]
    assert sets_ == [15, 13]


def test_a_movements_line(trained: FlaskClient) -> None:
    found = trained.get(f"{HERE}/season/movement?name=press&weeks=16").get_json()
    assert found["name"] == "Press"
    assert len(found["tops"]) == 10
    top = found["tops"][-1]
    assert (top["date"], top["week"], top["load_kg"], top["reps"]) == (
        "2026-10-05",
        "2026-W41",
        40,
        10,
    )
    assert top["maximum_kg"] == pytest.approx(40 * (1 + 10 / 30), abs=1e-3)
    assert found["stalled"][-1] == str(WEEK)


@pytest.mark.parametrize(
    ("query", "told"),
    [
        ("season?weeks=17", "weeks: 17 is not a length: choose 16, 26 or 52"),
        ("season/movement?name=Presss&weeks=16", "did you mean 'Press'"),
        ("season/movement?weeks=16", "name"),
        ("season/movement?name=Press&weeks=0", "is not a length"),
    ],
)
def test_what_cannot_be_shown_is_told(trained: FlaskClient, query: str, told: str) -> None:
    refused = trained.get(f"{HERE}/{query}")
    assert refused.status_code == 422
    assert told in refused.get_json()["detail"]


def test_an_athlete_without_training(client: FlaskClient, bring: Callable[..., Any]) -> None:
    bring(document([], [session(7, sets("Press", 3))]))
    found = client.get(f"{HERE}/season?weeks=16").get_json()
    assert not any(one["trained"] or one["gap"] for one in found["weeks"])
    assert line(found, "measure", "sets")["values"] == [None] * 16
