"""Signed means signed: later changes leave it as it was, and are told beside it."""

import json
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.book.signed_document import since_signed
from dialback.core.movements import MovementTable
from dialback.store.database import connected
from dialback.store.models import Signature
from tests.build import document, session, sets

NO_OTHER_NAMES = MovementTable([])
WEEK = "/api/athletes/1/weeks/2026-W41"


@pytest.fixture
def signed(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    done = [session(back, sets("Press", 4), sets("Row", 4)) for back in (-21, -14, -7)]
    this = session(0, sets("Press", 6, load_kg=20), sets("Row", 4), notes="fine")
    plan = session(0, sets("Press", 6, load_kg=20), sets("Row", 4))
    assert bring(document([*done, this], planned=[plan])).status_code == 201
    found = client.get(f"{WEEK}/sheet").get_json()["findings"][0]
    key = {name: found[name] for name in ("code", "subject", "measure")}
    client.post(f"{WEEK}/acceptances", json={**key, "basis": "completed", "reason": "Meant so."})
    assert client.put(f"{WEEK}/signature", json={"name": "Runa Velk"}).status_code == 200
    return client


def since(client: FlaskClient) -> list[str]:
    return client.get(f"{WEEK}/sheet").get_json()["signature"]["since"]


def kept(client: FlaskClient) -> dict[str, Any]:
    return client.get(f"{WEEK}/signature/document").get_json()


def log(
    client: FlaskClient, change: Callable[[list[dict[str, Any]]], list[dict[str, Any]]]
) -> None:
    (one,) = client.get(f"{WEEK}/log").get_json()["sessions"]
    log_ = one["log"]
    body = {
        "change": "change-0001",
        "revision": log_["revision"],
        "session": {**log_["session"], "sets": change(log_["session"]["sets"])},
    }
    assert client.put(f"/api/athletes/1/logs/{log_['client_id']}", json=body).status_code == 200


def test_what_was_signed_is_kept_whole(signed: FlaskClient) -> None:
    found = kept(signed)
    assert (found["signed_by"], found["signed_on"]) == ("Runa Velk", "2026-10-12")
    assert found["audit"]["totals"]["sets"] == 10
    assert found["accepted"][0]["reason"] == "Meant so."
    assert found["rules"]["indirect_credit"] == 0.5
    assert len(found["sessions"]["completed"][0]["sets"]) == 10
    assert since(signed) == []


@pytest.mark.parametrize(
    ("change", "told"),
    [
        (lambda several: several[:-1], "1 set removed"),
        (lambda several: [*several, several[-1], several[-1]], "2 sets added"),
        (lambda several: [{**several[0], "reps": 3}, *several[1:]], "1 set changed"),
    ],
)
def test_sets_that_change_are_told(
    signed: FlaskClient, change: Callable[..., Any], told: str
) -> None:
    before = kept(signed)
    log(signed, change)
    assert told in since(signed)
    assert kept(signed) == before
    signed.put(f"{WEEK}/signature", json={"name": "Runa Velk"})
    assert since(signed) == []
    assert kept(signed) != before


def test_rules_that_change_are_told(signed: FlaskClient) -> None:
    before = kept(signed)
    signed.put("/api/rules", json={"chosen": {"indirect_credit": 1}, "revision": 1})
    told = since(signed)
    assert any(text.startswith("rules changed: ") for text in told)
    assert any("finding" in text for text in told) or len(told) == 1
    assert kept(signed) == before


def test_a_movement_that_counts_otherwise_is_told(signed: FlaskClient) -> None:
    movements = signed.get("/api/movements").get_json()["movements"]
    (press,) = [one for one in movements if one["name"] == "Press"]
    body = {"name": "Press", "pattern": "vertical_push", "muscles": {"chest": "direct"}}
    assert signed.put(f"/api/movements/{press['id']}", json={"movement": body}).status_code == 200
    assert "movements count differently" in since(signed)


def test_weeks_before_it_are_told(signed: FlaskClient) -> None:
    week = "/api/athletes/1/weeks/2026-W40"
    (one,) = [one for one in signed.get(f"{week}/log").get_json()["sessions"] if one["log"]]
    less = {**one["log"]["session"], "sets": one["log"]["session"]["sets"][:1]}
    body = {"change": "change-0002", "revision": one["log"]["revision"], "session": less}
    client_id = one["log"]["client_id"]
    assert signed.put(f"/api/athletes/1/logs/{client_id}", json=body).status_code == 200
    assert "the weeks before it have changed" in since(signed)


def test_a_signature_from_before_documents_were_kept(signed: FlaskClient) -> None:
    with connected():
        Signature.update(document=None).execute()
    found = signed.get(f"{WEEK}/sheet").get_json()["signature"]
    assert (found["kept"], found["since"]) == (False, [])
    assert signed.get(f"{WEEK}/signature/document").status_code == 404


def test_a_rule_that_was_not_known_then_is_no_change(signed: FlaskClient) -> None:
    now = kept(signed)
    older = {
        **now,
        "rules": {name: value for name, value in now["rules"].items() if name != "spacing_sets"},
    }
    assert since_signed(older, now, NO_OTHER_NAMES) == []


def test_what_the_program_did_not_count_then_is_no_change(signed: FlaskClient) -> None:
    now = kept(signed)
    older = json.loads(json.dumps(now))
    findings = older["audit"]["findings"]
    code = findings[-1]["code"]
    older["audit"]["findings"] = [one for one in findings if one["code"] != code]
    older["codes"].remove(code)
    del older["audit"]["muscles"]["calves"], older["audit"]["balance"]["upper_lower"]
    assert since_signed(older, now, NO_OTHER_NAMES) == []
    older["audit"]["muscles"]["chest"]["sets"] += 1
    assert since_signed(older, now, NO_OTHER_NAMES) == ["movements count differently"]
