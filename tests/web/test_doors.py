"""Who may ask what: every operation, every role, by the door that each of them has."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.roles import ROLES, Role, rights_of
from dialback.store.accounts import account_named
from dialback.store.devices import open_session
from dialback.store.models import database
from dialback.web.app import openapi_document
from dialback.web.doors import ASKING, ASKS_ITSELF, OPERATIONS
from tests.conftest import TODAY
from tests.web.test_api import get

PASSWORD = "three quiet rivers"
DOCUMENT = openapi_document()["paths"]
ALL = {
    operation["operationId"]: (method, path)
    for path, operations in DOCUMENT.items()
    for method, operation in operations.items()
}
BEFORE_SIGNING_IN = {"who_is_it", "sign_in", "open_door", "health"}
OF_ANYBODY_IN = {
    "sign_out",
    "change_own_password",
    "own_devices",
    "sign_out_there",
    "draw_second_factor",
    "begin_second_factor",
    "end_own_second_factor",
    "weight_unit",
    "name_of_house",
    "notation",
}
OF_AN_ATHLETE = {
    # The own plan, floor, log and hand-out.
    "frame",
    "log_week",
    "movement_names",
    "report",
    "block_calendar",
    "session_on_paper",
    "floor_day",
    "floor_run",
    "sensor_stream",
    "keep_log",
    "remove_log",
    "restore_log",
    "decide_version",
    "read_done",
    "why_missed",
    "amend_set",
}
OF_AN_ASSISTANT = {
    "keep_log",
    "remove_log",
    "restore_log",
    "decide_version",
    "read_done",
    "why_missed",
    "amend_set",
    "save_own_cue",
}
"""All that an assistant may change; the rest is for reading."""
OF_THE_OWNER = {
    "make_account",
    "change_role",
    "set_password",
    "remove_account",
    "delete_for_good",
    "remove_the_club",
    "end_second_factor",
}
NOT_FOR_READERS = {
    # Read, but of what only a coach needs: whole books, files, who may come in, drafts.
    "list_archived",
    "export_everything",
    "export_one",
    "export_csv",
    "export_xlsx",
    "list_accounts",
    "open_draft",
    "list_imports",
    "sheet_state",
    "list_copies",
    "made_up_club",
    "squad_proposal",
}


def may(role: Role, name: str) -> bool:
    """What the house rules say of a role and an operation, said another way than in the table."""
    method, _ = ALL[name]
    if name in BEFORE_SIGNING_IN | OF_ANYBODY_IN or role == "owner":
        return True
    if role == "athlete":
        return name in OF_AN_ATHLETE
    if name in OF_THE_OWNER:
        return False
    if role == "coach":
        return True
    if role == "assistant" and name in OF_AN_ASSISTANT:
        return True
    return method == "get" and name not in NOT_FOR_READERS


@pytest.fixture
def as_role(client: FlaskClient, bring: Callable[..., Any]) -> Callable[[str], FlaskClient]:
    """A browser that is signed in as somebody of a role; the athlete is number 1."""
    for name in ("Ada Test", "Bo Test"):
        assert bring(query=f"?name={name.replace(' ', '%20')}").status_code == 201
    made = {"name": "owner", "role": "owner", "password": PASSWORD}
    assert client.post("/api/accounts", json=made).status_code == 201
    for role in ("coach", "assistant", "viewer"):
        made = {"name": role, "role": role, "password": PASSWORD}
        assert client.post("/api/accounts", json=made).status_code == 201
    link = client.post("/api/athletes/1/door", json={}).get_json()["link"]

    def enter(role: str) -> FlaskClient:
        other = client.application.test_client()
        if role == "athlete":
            answer = other.post("/api/door", json={"token": link.partition("#")[2]})
        elif role:
            answer = other.post("/api/sign-in", json={"name": role, "password": PASSWORD})
        else:
            return other
        assert answer.status_code == 200, answer.get_data(as_text=True)
        return other

    return enter


def asked(client: FlaskClient, name: str, athlete: int = 1) -> int:
    """The status of an operation that is asked for with made-up arguments."""
    method, path = ALL[name]
    filled = path.replace("{athlete_id}", str(athlete)).replace("{week}", "2026-W41")
    filled = re.sub(r"\{(\w+)\}", "1", filled)
    filled += "?for=athlete" if name == "report" else ""
    more = {} if method == "get" else {"json": {"made": "up"}}
    return int(getattr(client, method)(filled, **more).status_code)


def another_device(client: FlaskClient, name: str) -> FlaskClient:
    """A browser that is signed in without asking for the password again."""
    with database.connection_context():
        held = open_session(account_named(name).number, "A browser", None, TODAY)
    device = client.application.test_client()
    with device.session_transaction() as cookie:
        cookie["_user_id"] = held.session
    return device


@pytest.mark.parametrize("role", ROLES)
def test_every_operation_is_asked_by_every_role(
    client: FlaskClient, as_role: Callable[[str], FlaskClient], role: Role
) -> None:
    account = get(as_role(role), "/api/me")["name"]
    for name in sorted(ALL):
        # A device for each: one of them signs out.
        status = asked(another_device(client, account), name)
        assert status != 401 or name in BEFORE_SIGNING_IN, (role, name)
        assert (status != 403) == may(role, name), (role, name, status)


def test_an_athlete_sees_nothing_of_another(as_role: Callable[[str], FlaskClient]) -> None:
    browser = as_role("athlete")
    for name in sorted(ALL):
        if "{athlete_id}" in ALL[name][1]:
            assert asked(browser, name, athlete=2) == 403, name
            # Not even whether there is somebody.
            assert asked(browser, name, athlete=77) == 403, name
    floor = browser.get("/api/floor?day=2026-10-12").get_json()["sessions"]
    assert {one["athlete"] for one in floor} == {1}
    others = as_role("coach").get("/api/floor?day=2026-10-12").get_json()["sessions"]
    assert {one["athlete"] for one in others} == {1, 2}
    for one in others:
        status = browser.get(f"/api/floor/run?plan={one['plan']}").status_code
        assert status == (200 if one["athlete"] == 1 else 403)


def test_nobody_comes_in_without_signing_in(as_role: Callable[[str], FlaskClient]) -> None:
    stranger = as_role("")
    for name in sorted(ALL):
        assert name in BEFORE_SIGNING_IN or asked(stranger, name) == 401, name
    assert stranger.get("/api/me").get_json()["state"] == "out"


def test_the_table_has_every_operation_and_no_other() -> None:
    assert set(OPERATIONS) == set(ALL) | {"page", "openapi_document"}
    assert {name for name, one in OPERATIONS.items() if one.own} == OF_AN_ATHLETE
    assert set(ALL) >= ASKS_ITSELF
    # What is asked without being stored is for whoever may store it.
    for name in ASKING:
        assert OPERATIONS[name].right == "plan", name


def test_what_a_role_is_for_is_what_it_may(as_role: Callable[[str], FlaskClient]) -> None:
    for role in ROLES:
        who = as_role(role).get("/api/me").get_json()
        assert (who["state"], who["role"]) == ("in", role)
        assert who["rights"] == rights_of(role)
        assert who["athlete"] == (1 if role == "athlete" else None)


def test_the_athletes_own_things_hide_what_is_the_coachs(
    as_role: Callable[[str], FlaskClient],
) -> None:
    coach, athlete = as_role("coach"), as_role("athlete")
    about = {"name": "Ada Test", "bodyweight_kg": 70, "note": "late again", "squad": ""}
    assert coach.put("/api/athletes/1", json=about).status_code == 200
    frame = "/api/athletes/1/weeks/2026-W41"
    assert coach.get(frame).get_json()["athlete"]["note"] == "late again"
    assert athlete.get(frame).get_json()["athlete"]["note"] == ""
    assert athlete.get(f"{frame}/report?for=coach").status_code == 403
    assert athlete.get(f"{frame}/report?for=athlete").mimetype == "application/pdf"
