"""A missed session has a reason: it is told with it, and stays with the plan."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.build import document, session, sets
from tests.web.test_api import HERE, get, send


@pytest.fixture(autouse=True)
def a_missed_day(bring: Callable[..., Any]) -> None:
    days = [session(day, sets("Press", 3), title=title) for day, title in ((0, "One"), (2, "Two"))]
    assert bring(document([session(0, sets("Press", 3), title="One")], days)).status_code == 201


def missed(client: FlaskClient) -> str:
    causes = get(client, f"{HERE}/sheet")["causes"]
    return next(one["sentence"] for one in causes if one["code"] == "missed")


def test_the_reason_is_told_and_taken_back(client: FlaskClient) -> None:
    assert missed(client) == "Two of Wednesday was missed."
    plan = get(client, f"{HERE}/log")["sessions"][1]["plan"]
    assert plan["missed"] is None
    body = {"plan": plan["id"], "why": "ill"}
    send(client, "put", f"{HERE}/log/missed", body)
    assert missed(client) == "Two of Wednesday was missed (ill)."
    send(client, "put", f"{HERE}/log/missed", {**body, "why": "other", "note": "the river rose"})
    assert missed(client) == "Two of Wednesday was missed (the river rose)."
    out = client.get("/api/athletes/1/book").get_json()
    assert out["planned"][1]["missed"] == {"why": "other", "note": "the river rose"}
    send(client, "put", f"{HERE}/log/missed", {**body, "why": None})
    assert missed(client) == "Two of Wednesday was missed."


def test_only_of_a_plan_that_there_is(client: FlaskClient) -> None:
    send(client, "put", f"{HERE}/log/missed", {"plan": 99, "why": "ill"}, 404)
    send(client, "put", f"{HERE}/log/missed", {"plan": 1, "why": "lazy"}, 422)
