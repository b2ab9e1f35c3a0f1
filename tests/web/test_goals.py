"""Goals through the API: set, judged, taken away and put back; out and in with the book."""

import json
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.build import document, session, sets
from tests.web.test_api import get, send

GOALS = "/api/athletes/1/goals"


@pytest.fixture(autouse=True)
def a_log(bring: Callable[..., Any]) -> None:
    weeks = [session(7 * at, sets("Press", 2, reps=5, load_kg=50 + at)) for at in range(-6, 1)]
    assert bring(document(weeks)).status_code == 201


def test_set_judged_taken_away_and_put_back(client: FlaskClient) -> None:
    body = {"movement": "press", "load_kg": 55, "reps": 5, "by": "2026-12-13"}
    (goal,) = send(client, "post", GOALS, body, 201)["goals"]
    assert (goal["movement"], goal["kind"], goal["verdict"]) == ("Press", "load", "within reach")
    assert goal["best"] == "5 reps, at 50 kg"
    assert len(goal["steps"]) == 8
    assert send(client, "post", f"{GOALS}/{goal['id']}/remove", {})["goals"] == []
    send(client, "post", f"{GOALS}/{goal['id']}/remove", {}, 404)
    assert send(client, "post", f"{GOALS}/{goal['id']}/restore", {})["goals"] == [goal]


@pytest.mark.parametrize(
    ("wrong", "place", "words"),
    [
        ({"movement": "Pres"}, "movement", "did you mean 'Press'"),
        ({"movement": "Skip"}, "movement", "no sets that count"),
        ({"reps": None}, "reps", "reps or seconds"),
        ({"seconds": 30}, "reps", "reps or seconds"),
        ({"by": "2026-10-01"}, "by", "choose a day after today"),
        ({"by": "tomorrow"}, "by", ""),
    ],
)
def test_what_is_refused(client: FlaskClient, wrong: Any, place: str, words: str) -> None:
    body = {"movement": "Press", "load_kg": 55, "reps": 5, "by": "2026-12-13", **wrong}
    answer = send(client, "post", GOALS, body, 422)
    assert words in answer["detail"]
    assert answer["problems"][0]["place"] == place
    assert get(client, GOALS)["goals"] == []


def test_goals_go_out_and_come_in_with_the_book(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    send(client, "post", GOALS, {"movement": "Pull-up", "reps": 5, "by": "2026-12-13"}, 201)
    out = json.loads(client.get("/api/athletes/1/book").get_data())
    assert out["athlete"]["goals"] == [
        {"movement": "Pull-up", "reps": 5, "since": "2026-10-12", "by": "2026-12-13"}
    ]
    assert "Pull-up" in [one["name"] for one in out["exercises"]]
    assert bring(out, "?name=Copy").status_code == 201
    (goal,) = get(client, "/api/athletes/2/goals")["goals"]
    assert (goal["movement"], goal["reps"]) == ("Pull-up", 5)
    out["athlete"]["goals"][0]["movement"] = "Pul-up"
    refused = bring(out, "?name=Wrong")
    assert refused.status_code == 422
    assert "athlete.goals[0].movement" in refused.get_data(as_text=True)
