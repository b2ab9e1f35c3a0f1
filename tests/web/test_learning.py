"""Learning from the coach, over the API: offered once, quietly, and never what hurts."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.database import connected
from dialback.store.models import Declined
from tests.build import WEEK, document, session, sets

ATHLETE = "/api/athletes/1"


def here(back: int = 0) -> str:
    return f"{ATHLETE}/weeks/{WEEK.plus(back)}"


@pytest.fixture
def pressing(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    """Ten weeks of a little too much push, against the pull of every week."""
    days = [session(7 * back, sets("Press", 10), sets("Row", 8)) for back in range(-9, 1)]
    assert bring(document(days)).status_code == 201
    return client


def accept(client: FlaskClient, back: int, code: str, subject: str, reason: str) -> None:
    key = {"code": code, "subject": subject, "measure": "sets", "basis": "completed"}
    answer = client.post(f"{here(back)}/acceptances", json={**key, "reason": reason})
    assert answer.status_code == 200, answer.get_json()


def offer(client: FlaskClient, back: int = 0) -> dict[str, Any] | None:
    return client.get(f"{here(back)}/sheet").get_json()["offer"]


def test_five_times_for_the_same_reason_and_it_is_offered(pressing: FlaskClient) -> None:
    for times, back in enumerate(range(-5, 0), 1):
        assert offer(pressing) is None
        accept(pressing, back, "balance", "push_pull", ["Meant so.", "meant SO "][times % 2])
    found = offer(pressing)
    assert found is not None
    assert found["times"] == 5
    assert found["words"] == "set push : pull to 0.7–1.3"
    assert found["chosen"] == {"balance_bands": {"push_pull": [0.7, 1.3]}}
    assert (found["cleared"] > 0, found["appeared"]) == (True, 0)
    # What it says is what it does.
    before = pressing.get(f"{here()}/sheet").get_json()["findings"]
    body = {"chosen": found["chosen"], "revision": found["revision"]}
    assert pressing.put(f"{ATHLETE}/rules", json=body).status_code == 200
    after = pressing.get(f"{here()}/sheet").get_json()["findings"]
    assert len(before) - len(after) == found["cleared"]
    assert "push_pull" not in {one["subject"] for one in after}
    assert offer(pressing) is None


def test_different_reasons_teach_nothing(pressing: FlaskClient) -> None:
    for back in range(-6, 0):
        accept(pressing, back, "balance", "push_pull", f"reason {back}")
    assert offer(pressing) is None


def test_what_lies_further_back_is_forgotten(pressing: FlaskClient) -> None:
    for back in (-9, -8, -2, -1, 0):
        accept(pressing, back, "balance", "push_pull", "Meant so.")
    assert offer(pressing) is None
    assert offer(pressing, -1) is None


def test_refusing_is_remembered(pressing: FlaskClient) -> None:
    for back in range(-5, 0):
        accept(pressing, back, "balance", "push_pull", "Meant so.")
    found = offer(pressing)
    assert found is not None
    key = {name: found[name] for name in ("code", "subject", "measure")}
    for _ in range(2):
        assert pressing.post(f"{here()}/offer/decline", json=key).status_code == 200
    assert offer(pressing) is None
    with connected():
        assert Declined.select().count() == 1
    # Another finding may still be offered.
    for back in range(-5, 0):
        accept(pressing, back, "muscle_floor", "quads", "Rowing is enough.")
    other = offer(pressing)
    assert other is not None
    assert other["subject"] == "quads"
    assert other["words"] == "ask for 0 sets of quads a week"


def test_the_athletes_own_choices_stay_beside_the_new_one(pressing: FlaskClient) -> None:
    own = {"balance_bands": {"knee_hip": [0.5, 2.0]}, "spacing_sets": 6}
    pressing.put(f"{ATHLETE}/rules", json={"chosen": own, "revision": 1})
    for back in range(-5, 0):
        accept(pressing, back, "balance", "push_pull", "Meant so.")
    found = offer(pressing)
    assert found is not None
    assert found["chosen"] == {
        "balance_bands": {"knee_hip": [0.5, 2.0], "push_pull": [0.7, 1.3]},
        "spacing_sets": 6,
    }


def test_what_no_limit_reaches_is_not_offered(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    bring(document([session(7 * back, sets("Press", 10)) for back in range(-9, 1)]))
    for back in range(-5, 0):
        accept(client, back, "balance", "push_pull", "Meant so.")
    assert offer(client) is None


def test_the_plan_is_judged_without_offers(pressing: FlaskClient) -> None:
    for back in range(-5, 0):
        accept(pressing, back, "balance", "push_pull", "Meant so.")
    assert pressing.get(f"{here()}/sheet?basis=planned").get_json()["offer"] is None
