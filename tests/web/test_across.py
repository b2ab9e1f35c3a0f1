"""Since the last block: what changed, and who decided what; on the screen and on paper."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.build import document, session, sets
from tests.web.test_api import get, send
from tests.web.test_reports import pdf, text

WEEK = "/api/athletes/1/weeks/2026-W41"


@pytest.fixture
def trained(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    """Eight weeks done, the last four with more presses; the first of them a block."""
    done = [
        session(-7 * back, sets("Press", 8 if back < 4 else 4, load_kg=40), sets("Row", 4))
        for back in range(8)
    ]
    assert bring(document(done)).status_code == 201
    return client


def since(client: FlaskClient) -> dict[str, Any]:
    return get(client, f"{WEEK}/block/since")


def block(client: FlaskClient, week: str, title: str) -> None:
    body = {"title": title, "weeks": 4, "fill": "nothing", "template": None, "change": {}}
    send(
        client, "post", f"/api/athletes/1/weeks/{week}/block/new", {**body, "lighter_every": 0}, 201
    )


def test_without_a_block_four_weeks_stand_beside_four(trained: FlaskClient) -> None:
    found = since(trained)
    assert found["after"] == {"title": "weeks 38 to 41", "first_week": "2026-W38", "weeks": 4}
    assert found["before"]["first_week"] == "2026-W34"
    assert found["measures"][0]["before"] == 8
    assert found["measures"][0]["after"] == 12
    assert found["changes"] == ["Press: 8 sets instead of 4."]


def test_a_block_stands_beside_the_one_before(trained: FlaskClient) -> None:
    block(trained, "2026-W33", "Base")
    block(trained, "2026-W38", "Build")
    found = since(trained)
    assert (found["before"]["title"], found["after"]["title"]) == ("Base", "Build")
    # A week lies between them; the first of the older block had nothing.
    assert found["before"]["first_week"] == "2026-W33"
    assert found["measures"][0]["before"] == 8


def test_who_decided_what(trained: FlaskClient) -> None:
    finding = next(
        one for one in get(trained, f"{WEEK}/sheet")["findings"] if one["code"] == "balance"
    )
    key = {name: finding[name] for name in ("code", "subject", "measure")}
    body = {**key, "basis": "completed", "reason": "A pressing block."}
    send(trained, "post", f"{WEEK}/acceptances", body)
    assert trained.put(f"{WEEK}/signature", json={"name": "Runa Velk"}).status_code == 200
    accepted, signed = since(trained)["decided"]
    assert (signed["what"], signed["who"]) == ("Signed week 41", "Runa Velk")
    assert accepted["what"].startswith("Accepted in week 41: imbalance of ")
    assert accepted["reason"] == "A pressing block."


def test_it_is_printed_on_one_page(trained: FlaskClient) -> None:
    page = pdf(trained.get(f"{WEEK}/report?of=since"))
    told = text(page)
    assert len(page.pages) == 1
    assert "Sets 8 12 +50 %" in told
    assert "Press: 8 sets instead of 4." in told
    assert trained.get(f"{WEEK}/report?of=since&for=athlete").status_code == 404


def test_of_nothing_at_all(client: FlaskClient, bring: Callable[..., Any]) -> None:
    assert bring(document([])).status_code == 201
    found = since(client)
    assert found["measures"][0] == {
        "name": "Sets",
        "measure": "sets",
        "before": None,
        "after": None,
        "change": None,
    }
    assert (found["changes"], found["decided"]) == ([], [])
