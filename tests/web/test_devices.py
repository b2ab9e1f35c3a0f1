"""What a device holds: it is nobody else's, whatever is removed and made after it."""

from __future__ import annotations

import time
from collections.abc import Callable
from datetime import date, timedelta
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pyotp
import pytest
from flask.testing import FlaskClient

from dialback.store.accounts import signing_key
from dialback.store.devices import STAYS
from dialback.store.models import Account, Device, database
from dialback.web import tries as limits
from dialback.web.app import create_app
from dialback.work import second_factor
from dialback.work.accounts import forget_tries
from tests.conftest import TODAY
from tests.web.test_accounts import OWNER, PASSWORD, device, signed_in
from tests.web.test_api import get, send

OTHER = "five loud geese"


@pytest.fixture
def owner(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    assert bring().status_code == 201
    send(client, "post", "/api/accounts", OWNER, 201)
    return client


def add(owner: FlaskClient, name: str, role: str) -> int:
    made = {"name": name, "role": role, "password": OTHER}
    return int(send(owner, "post", "/api/accounts", made, 201)["id"])


def phone_of(owner: FlaskClient, athlete: int) -> FlaskClient:
    token = send(owner, "post", f"/api/athletes/{athlete}/door", {})["link"].partition("#")[2]
    phone = device(owner)
    send(phone, "post", "/api/door", {"token": token})
    return phone


def test_the_cookie_of_a_removed_account_is_not_the_next_ones(owner: FlaskClient) -> None:
    number = add(owner, "Vera", "viewer")
    vera = signed_in(owner, "Vera", OTHER)
    get(vera, "/api/roster")
    send(owner, "post", f"/api/accounts/{number}/remove", {})
    next_number = add(owner, "Olga", "owner")
    assert next_number > number
    assert get(vera, "/api/me")["state"] == "out"
    send(vera, "post", "/api/accounts/1/password", {"password": "mine from now on"}, 401)
    assert get(signed_in(owner), "/api/me")["name"] == "Ines"


def test_a_withdrawn_phone_is_nobody_elses(owner: FlaskClient, bring: Callable[..., Any]) -> None:
    bring(query="?name=Bo")
    lost = phone_of(owner, 1)
    get(lost, "/api/floor")
    send(owner, "post", "/api/athletes/1/door/withdraw", {})
    # Neither the next athlete's nor, with a new link, the same one's.
    for athlete in (2, 1):
        assert get(phone_of(owner, athlete), "/api/me")["athlete"] == athlete
        me = get(lost, "/api/me")
        assert (me["state"], me["withdrawn"]) == ("out", True)
        get(lost, "/api/athletes/1/weeks/2026-W41/log", 401)


def test_no_number_is_given_twice(owner: FlaskClient) -> None:
    with database.connection_context():
        for (sql,) in database.execute_sql(
            "SELECT sql FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
            " AND name != 'migratehistory'"
        ).fetchall():
            assert "PRIMARY KEY AUTOINCREMENT" in sql, sql


def test_nothing_on_a_device_is_made_of_a_number_or_kept_as_it_is(owner: FlaskClient) -> None:
    first, second = signed_in(owner), signed_in(owner)
    held = [
        one.get_cookie(name).value
        for one in (first, second)
        for name in ("dialback", "dialback-known")
    ]
    assert len(set(held)) == 4
    kept = database.execute_sql("SELECT session, known FROM device").fetchall()
    assert len(kept) == 3
    for row in kept:
        assert all(len(one) == 64 and one not in " ".join(held) for one in row)


def test_signing_out_ends_the_session_on_the_server(owner: FlaskClient) -> None:
    other = signed_in(owner)
    stolen = device(owner)
    stolen.set_cookie("dialback", other.get_cookie("dialback").value)
    get(stolen, "/api/roster")
    send(other, "post", "/api/sign-out", {})
    get(stolen, "/api/roster", 401)
    # Whoever comes in where somebody is signed in ends that one's session.
    add(owner, "Vera", "viewer")
    stolen.set_cookie("dialback", signed_in(owner).get_cookie("dialback").value)
    shared = device(owner)
    shared.set_cookie("dialback", stolen.get_cookie("dialback").value)
    send(shared, "post", "/api/sign-in", {"name": "Vera", "password": OTHER})
    get(stolen, "/api/roster", 401)


def test_a_new_password_ends_all_other_sessions_and_a_role_all(owner: FlaskClient) -> None:
    other = signed_in(owner)
    send(owner, "post", "/api/me/password", {"old": PASSWORD, "new": OTHER})
    get(owner, "/api/roster")
    get(other, "/api/roster", 401)
    number = add(owner, "Vera", "viewer")
    vera = signed_in(owner, "Vera", OTHER)
    send(owner, "put", f"/api/accounts/{number}", {"role": "coach"})
    get(vera, "/api/roster", 401)
    assert get(owner, "/api/accounts")["accounts"][-1]["name"] == "Vera"
    # Nobody has taken the device away: what waits on it is kept until she is back.
    me = get(vera, "/api/me")
    assert (me["state"], me["withdrawn"]) == ("out", False)


def test_ones_devices_are_listed_and_signed_out_there(owner: FlaskClient) -> None:
    tablet = device(owner)
    agent = "Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/130.0 Safari"
    tablet.post(
        "/api/sign-in", json={"name": "Ines", "password": PASSWORD}, headers={"User-Agent": agent}
    )
    add(owner, "Vera", "viewer")
    vera = signed_in(owner, "Vera", OTHER)
    found = get(owner, "/api/me/devices")["devices"]
    assert [(one["words"], one["here"]) for one in found] == [
        ("Chrome on Android", False),
        ("A browser", True),
    ]
    there = found[0]["id"]
    # Another's number is nobody's to sign out.
    send(vera, "post", f"/api/me/devices/{there}/sign-out", {}, 404)
    get(tablet, "/api/roster")
    send(owner, "post", f"/api/me/devices/{there}/sign-out", {})
    get(tablet, "/api/roster", 401)
    assert len(get(owner, "/api/me/devices")["devices"]) == 1


def test_a_session_ends_when_it_was_not_used_for_long(data: Path) -> None:
    today = [TODAY]
    desk = create_app(data, today=lambda: today[0]).test_client()
    send(desk, "post", "/api/accounts", OWNER, 201)
    today[0] += STAYS
    assert get(desk, "/api/me")["state"] == "in"
    today[0] += STAYS + timedelta(days=1)
    me = get(desk, "/api/me")
    # Nobody has ended it: what waits there to be sent goes when they sign in again.
    assert (me["state"], me["withdrawn"]) == ("out", False)


def test_strangers_tries_do_not_lock_a_known_device_out(owner: FlaskClient) -> None:
    send(owner, "post", "/api/sign-out", {})
    guesser = device(owner)
    statuses = [
        guesser.post(
            "/api/sign-in",
            json={"name": "Ines", "password": "wrong"},
            environ_base={"REMOTE_ADDR": f"10.0.0.{at % 30}"},
        ).status_code
        for at in range(0, 7)
    ]
    assert set(statuses) == {401}
    note = owner.application.extensions["dialback"].tries.note
    for at in range(300):
        note("ines", f"10.0.1.{at}")
        note("ines", "127.0.0.1")
    body = {"name": "Ines", "password": PASSWORD}
    told = send(guesser, "post", "/api/sign-in", body, 429)["detail"]
    assert "A device that has signed in before is not kept waiting by others." in told
    send(owner, "post", "/api/sign-in", body)
    # Its own wrong tries are limited all the same.
    send(owner, "post", "/api/sign-out", {})
    for _ in range(limits._KNOWN[0].amount):
        send(owner, "post", "/api/sign-in", body | {"password": "wrong"}, 401)
    send(owner, "post", "/api/sign-in", body, 429)
    # The command line opens again.
    with database.connection_context():
        forget_tries()
    send(guesser, "post", "/api/sign-in", body)


def test_a_link_that_is_right_never_waits(owner: FlaskClient) -> None:
    token = send(owner, "post", "/api/athletes/1/door", {})["link"].partition("#")[2]
    phone = device(owner)
    for _ in range(6):
        wrong = phone.post("/api/door", json={"token": "made up"}).status_code
    assert wrong == 429
    send(phone, "post", "/api/door", {"token": token})


def take_on(browser: FlaskClient, data: Path) -> tuple[pyotp.TOTP, list[str]]:
    drawn = send(browser, "post", "/api/me/second-factor/draw", {})
    assert drawn["picture"].startswith("data:image/svg+xml")
    app = pyotp.TOTP(drawn["secret"])
    body = {"password": PASSWORD, "code": "000000"}
    assert "is not the one" in send(browser, "post", "/api/me/second-factor", body, 422)["detail"]
    wrong = body | {"password": "wrong", "code": app.now()}
    send(browser, "post", "/api/me/second-factor", wrong, 422)
    codes = send(browser, "post", "/api/me/second-factor", body | {"code": app.now()})["codes"]
    return app, codes


def test_a_second_factor(owner: FlaskClient, data: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    other = signed_in(owner)
    app, codes = take_on(owner, data)
    get(other, "/api/roster", 401)
    assert get(owner, "/api/me")["second"] == "on"
    # A copy of the data has neither the secret nor the codes.
    dump = "\n".join(database.connection().iterdump())
    assert app.secret not in dump
    assert not any(code in dump for code in codes)
    assert (
        pyotp.TOTP(second_factor.secret_of(signing_key(data), Account.get_by_id(1).second)).secret
        == app.secret
    )
    phone = device(owner)
    body = {"name": "Ines", "password": PASSWORD}
    asked = send(phone, "post", "/api/sign-in", body, 401)
    assert asked["type"].endswith("code-needed")
    assert send(phone, "post", "/api/sign-in", body | {"code": "123"}, 401)["type"].endswith(
        "wrong-code"
    )
    # A code lets in once; the one that began it has been used.
    monkeypatch.setattr(second_factor, "time", SimpleNamespace(time=lambda: time.time() + 3600))
    later = app.at(int(time.time()) + 3600)
    send(phone, "post", "/api/sign-in", body | {"code": f"{later[:3]} {later[3:]}"})
    send(device(owner), "post", "/api/sign-in", body | {"code": later}, 401)
    send(device(owner), "post", "/api/sign-in", body | {"code": codes[3].upper()})
    send(device(owner), "post", "/api/sign-in", body | {"code": codes[3]}, 401)
    # Taken off with a code only.
    off = {"password": PASSWORD, "code": codes[3]}
    send(owner, "post", "/api/me/second-factor/end", off, 422)
    send(owner, "post", "/api/me/second-factor/end", off | {"code": codes[4]})
    get(phone, "/api/roster", 401)
    send(phone, "post", "/api/sign-in", body)


def test_a_house_may_ask_for_a_second_factor(data: Path) -> None:
    house = create_app(data, today=lambda: TODAY, second_factor=True).test_client()
    send(house, "post", "/api/accounts", OWNER, 201)
    assert get(house, "/api/me")["second"] == "needed"
    refused = get(house, "/api/roster", 403)
    assert refused["type"].endswith("second-factor-first")
    take_on(house, data)
    get(house, "/api/roster")
    # Who only reads or logs needs none.
    add(house, "Vera", "viewer")
    assert get(signed_in(house, "Vera", OTHER), "/api/me")["second"] == "none"
    # Whoever lost phone and codes is let in by the owner.
    add(house, "Cora", "coach")
    send(house, "post", "/api/accounts/3/second-factor/end", {}, 404)


def test_answers_are_kept_by_nobody(owner: FlaskClient) -> None:
    for path in (
        "/api/roster",
        "/api/athletes/1/export",
        "/api/athletes/1/export.csv",
        "/api/athletes/1/weeks/2026-W41/report",
        "/api/nothing",
    ):
        assert owner.get(path).headers["Cache-Control"] == "no-store", path


def test_another_way_to_the_same_host_is_foreign(owner: FlaskClient) -> None:
    for origin, status in (
        ("https://localhost", 200),
        ("http://localhost", 403),
        ("http://[", 403),
    ):
        answer = owner.get("/api/health", base_url="https://localhost", headers={"Origin": origin})
        assert answer.status_code == status, origin


def test_devices_not_seen_for_long_are_forgotten(owner: FlaskClient) -> None:
    with database.connection_context():
        Device.update(seen=date(2020, 1, 1)).where(Device.account == 1).execute()
    signed_in(owner)
    assert Device.select().count() == 1
