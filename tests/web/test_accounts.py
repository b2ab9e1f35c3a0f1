"""Accounts: made, signed in, withdrawn; and what stands open where there are none."""

from __future__ import annotations

import stat
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.accounts import signing_key
from dialback.store.models import Account, database
from dialback.web.app import create_app
from tests.conftest import TODAY
from tests.web.test_api import get, send

PASSWORD = "three quiet rivers"
OWNER = {"name": "Ines", "role": "owner", "password": PASSWORD}


@pytest.fixture
def owner(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    assert bring().status_code == 201
    send(client, "post", "/api/accounts", OWNER, 201)
    return client


def device(client: FlaskClient) -> FlaskClient:
    return client.application.test_client()


def signed_in(client: FlaskClient, name: str = "Ines", password: str = PASSWORD) -> FlaskClient:
    other = device(client)
    send(other, "post", "/api/sign-in", {"name": name, "password": password})
    return other


def test_a_desk_without_accounts_is_open_and_the_first_account_closes_it(
    client: FlaskClient,
) -> None:
    assert get(client, "/api/me") == {
        "state": "open",
        "name": "",
        "role": "owner",
        "athlete": None,
        "rights": ["run the house", "plan", "log", "read"],
        "week": "2026-W42",
        "second": "none",
        "withdrawn": False,
    }
    refused = send(client, "post", "/api/accounts", OWNER | {"role": "coach"}, 409)
    assert "create your own before others" in refused["detail"]
    assert send(client, "post", "/api/accounts", OWNER, 201)["you"]
    # Whoever made it goes on; others have to say who they are.
    assert get(client, "/api/me")["name"] == "Ines"
    get(client, "/api/roster")
    assert get(device(client), "/api/roster", 401)["type"].endswith("signed-out")


def test_reached_from_beyond_nothing_is_open(data: Path) -> None:
    beyond = create_app(data, today=lambda: TODAY, beyond=True).test_client()
    assert get(beyond, "/api/me")["state"] == "out"
    get(beyond, "/api/roster", 401)
    send(beyond, "post", "/api/accounts", OWNER, 401)


def test_names_and_passwords(owner: FlaskClient) -> None:
    wrong = {"name": "Bo", "role": "coach", "password": PASSWORD}
    for body, said in (
        (wrong | {"password": "short"}, "has 5 characters: use 12 to 200"),
        (wrong | {"name": "Bartholomew", "password": "bartholomew1"}, "is easily guessed"),
        (wrong | {"password": "password1234"}, "is easily guessed"),
        (wrong | {"password": "qwertyuiop[]"}, "is easily guessed"),
        (wrong | {"name": "B\u200bo"}, "cannot be seen"),
        (wrong | {"name": "  "}, "needs a name"),
        (wrong | {"role": "athlete"}, "signs in with a link"),
    ):
        assert said in send(owner, "post", "/api/accounts", body, 422)["detail"]
    for name, said in (
        ("INES", "already"),
        ("\u0406nes", "looks like 'Ines'"),
        ("lnes", "looks like 'Ines'"),
        ("\uff29nes", "looks like"),
        ("In\u0435s", "looks like"),
    ):
        told = send(owner, "post", "/api/accounts", wrong | {"name": name}, 409)["detail"]
        assert said in told, name
    assert Account.select().count() == 1
    # Hashes alone are kept.
    kept = database.execute_sql("SELECT password FROM account").fetchone()[0]
    assert kept.startswith("$argon2id$")
    assert PASSWORD not in kept


def test_signing_in_and_out(owner: FlaskClient) -> None:
    other = device(owner)
    for body in ({"name": "Ines", "password": "wrong"}, {"name": "nobody", "password": PASSWORD}):
        refused = send(other, "post", "/api/sign-in", body, 401)
        assert refused["detail"].startswith("No account has this name and this password.")
    answer = other.post("/api/sign-in", json={"name": " INES ".strip(), "password": PASSWORD})
    cookies = answer.headers.getlist("Set-Cookie")
    assert len(cookies) == 2
    for cookie in cookies:
        assert "HttpOnly" in cookie
        assert "SameSite" in cookie
        assert "Secure" not in cookie
    get(other, "/api/roster")
    send(other, "post", "/api/sign-out", {})
    get(other, "/api/roster", 401)


def test_behind_https_the_cookie_is_for_https(owner: FlaskClient) -> None:
    answer = device(owner).post(
        "/api/sign-in", json={"name": "Ines", "password": PASSWORD}, base_url="https://localhost"
    )
    cookies = answer.headers.getlist("Set-Cookie")
    assert [cookie.partition("=")[0] for cookie in cookies] == [
        "__Host-dialback-known",
        "__Host-dialback",
    ]
    for cookie in cookies:
        assert "Secure" in cookie
        assert "Path=/" in cookie
        assert "Domain" not in cookie
    assert answer.headers["Strict-Transport-Security"] == "max-age=31536000"


def test_tries_are_limited(owner: FlaskClient) -> None:
    other = device(owner)
    for _ in range(5):
        send(other, "post", "/api/sign-in", {"name": "Ines", "password": "wrong"}, 401)
    refused = other.post("/api/sign-in", json={"name": "ines", "password": PASSWORD})
    assert refused.status_code == 429
    assert 0 < int(refused.headers["Retry-After"]) <= 60
    told = refused.get_json()
    assert told["detail"].startswith("Too many attempts: try again in 1 minute.")
    # Nobody else is kept out by it.
    elsewhere = other.post(
        "/api/sign-in",
        json={"name": "Ines", "password": PASSWORD},
        environ_base={"REMOTE_ADDR": "10.0.0.7"},
    )
    assert elsewhere.status_code == 200


def test_a_cookie_of_another_key_or_an_older_password_is_nobodys(
    owner: FlaskClient, data: Path, tmp_path: Path
) -> None:
    other = signed_in(owner)
    send(owner, "post", "/api/me/password", {"old": "wrong", "new": "four quiet rivers"}, 422)
    send(owner, "post", "/api/me/password", {"old": PASSWORD, "new": "four quiet rivers"})
    get(owner, "/api/roster")
    get(other, "/api/roster", 401)
    cookie = owner.get_cookie("dialback").value
    key = data.with_name(f"{data.name}.key")
    assert stat.S_IMODE(key.stat().st_mode) == 0o600
    key.unlink()
    renewed = create_app(data, today=lambda: TODAY).test_client()
    renewed.set_cookie("dialback", cookie)
    get(renewed, "/api/roster", 401)
    # What is no key is told, and what to do.
    key.write_bytes(b"short")
    with pytest.raises(ValueError, match="delete it, and everybody signs in again"):
        signing_key(data)


def test_there_is_always_an_owner(owner: FlaskClient) -> None:
    assert "only owner" in send(owner, "post", "/api/accounts/1/remove", {}, 409)["detail"]
    send(owner, "put", "/api/accounts/1", {"role": "coach"}, 409)
    send(owner, "post", "/api/accounts", OWNER | {"name": "Bo", "role": "viewer"}, 201)
    bo = signed_in(owner, "Bo")
    send(bo, "put", "/api/accounts/2", {"role": "owner"}, 403)
    send(owner, "put", "/api/accounts/2", {"role": "owner"})
    # Who may do something else says anew who it is, on every device.
    get(bo, "/api/roster", 401)
    bo = signed_in(owner, "Bo")
    send(bo, "post", "/api/accounts/1/remove", {})
    get(owner, "/api/roster", 401)
    assert [one["name"] for one in get(bo, "/api/accounts")["accounts"]] == ["Bo"]


def test_a_password_set_anew_signs_out(owner: FlaskClient) -> None:
    send(owner, "post", "/api/accounts", OWNER | {"name": "Bo", "role": "viewer"}, 201)
    bo = signed_in(owner, "Bo")
    send(owner, "post", "/api/accounts/2/password", {"password": "five loud geese"})
    get(bo, "/api/roster", 401)
    get(signed_in(owner, "Bo", "five loud geese"), "/api/roster")


def test_the_door_of_a_phone(owner: FlaskClient) -> None:
    made = send(owner, "post", "/api/athletes/1/door", {})
    assert made["here_only"]
    assert made["picture"].startswith("data:image/svg+xml")
    token = made["link"].partition("#")[2]
    phone = device(owner)
    who = send(phone, "post", "/api/door", {"token": token})
    assert (who["name"], who["role"], who["athlete"]) == ("Ada Test", "athlete", 1)
    get(phone, "/api/athletes/1/weeks/2026-W41/log")
    # A new one withdraws the older one.
    newer = send(owner, "post", "/api/athletes/1/door", {})["link"].partition("#")[2]
    get(phone, "/api/athletes/1/weeks/2026-W41/log", 401)
    told = send(phone, "post", "/api/door", {"token": token}, 401)
    assert told["detail"] == "This link no longer works. Ask your coach for a new one."
    send(phone, "post", "/api/door", {"token": newer})
    send(owner, "post", "/api/athletes/1/door/withdraw", {})
    get(phone, "/api/athletes/1/weeks/2026-W41/log", 401)
    send(owner, "post", "/api/athletes/1/door/withdraw", {}, 404)
    # What is kept opens nothing.
    assert database.execute_sql(
        "SELECT count(*) FROM account WHERE role = 'athlete'"
    ).fetchone() == (0,)


def test_a_new_name_goes_with_the_phone(owner: FlaskClient) -> None:
    token = send(owner, "post", "/api/athletes/1/door", {})["link"].partition("#")[2]
    phone = device(owner)
    send(phone, "post", "/api/door", {"token": token})
    send(owner, "put", "/api/athletes/1", {"name": "INES", "bodyweight_kg": 70})
    # The owner is called so already.
    assert get(phone, "/api/me")["name"] == "INES (2)"


def test_who_is_archived_stays_outside(owner: FlaskClient) -> None:
    token = send(owner, "post", "/api/athletes/1/door", {})["link"].partition("#")[2]
    phone = device(owner)
    send(phone, "post", "/api/door", {"token": token})
    send(owner, "delete", "/api/athletes/1", None)
    get(phone, "/api/floor", 401)
    send(phone, "post", "/api/door", {"token": token}, 401)


def test_no_door_without_an_owner(client: FlaskClient, bring: Callable[..., Any]) -> None:
    bring()
    told = send(client, "post", "/api/athletes/1/door", {}, 409)
    assert "Create your own account first" in told["detail"]
