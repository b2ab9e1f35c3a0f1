"""What the server refuses, and how it says so."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.models import Athlete
from tests.web.test_api import HERE, NEXT


@pytest.fixture(autouse=True)
def ada(bring: Callable[..., Any]) -> None:
    bring()


@pytest.mark.parametrize(
    ("method", "path", "body", "status", "word"),
    [
        ("get", "/api/nothing", None, 404, "nothing at"),
        ("get", "/api/athletes/99/weeks/2026-W41/sheet", None, 404, "99"),
        ("get", "/api/athletes/99/book", None, 404, "99"),
        ("get", "/api/athletes/one/book", None, 404, ""),
        ("get", "/api/athletes/1/weeks/2026-W60/sheet", None, 422, "no week 60"),
        ("get", "/api/athletes/1/weeks/monday/sheet", None, 422, "2026-W41"),
        ("get", "/api/athletes/1/weeks/0001-W01/sheet", None, 422, "years go from"),
        ("get", f"{HERE}/sheet?basis=both", None, 422, "basis"),
        ("get", f"{HERE}/sheet?colour=red", None, 422, "colour"),
        ("get", f"{HERE}/trail", None, 422, "figure"),
        ("get", f"{HERE}/trail?figure=muscles/chest/reps", None, 422, "not a figure"),
        ("get", f"{HERE}/trail?figure=totals/sets&days=yesterday", None, 422, "not a day"),
        ("put", "/api/rules", {"chosen": [], "revision": 1}, 422, "chosen"),
        ("put", "/api/rules", {"chosen": {}, "revision": "new"}, 422, "revision"),
        ("put", "/api/rules", {"chosen": {}}, 422, "revision"),
        ("put", "/api/rules", {"chosen": {}, "revision": 1, "x": 1}, 422, "x"),
        ("put", "/api/rules", [], 422, "object"),
        ("post", f"{NEXT}/draft/audit", {"sessions": [{}]}, 422, "sessions[0].date"),
        ("post", f"{NEXT}/draft/dial", {"sessions": [], "total": -1}, 422, "total"),
        ("post", "/api/roster", {}, 405, ""),
        ("put", "/api/athletes/1/weeks/2026-W41/signature", {"name": ""}, 422, "name"),
    ],
)
def test_refused_in_one_shape(
    client: FlaskClient, method: str, path: str, body: Any, status: int, word: str
) -> None:
    answer = getattr(client, method)(path, **({} if body is None else {"json": body}))
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"
    assert set(answer.json) == {"type", "title", "status", "detail", "problems"}
    assert answer.json["status"] == status
    assert word in answer.get_data(as_text=True)
    assert "Traceback" not in answer.get_data(as_text=True)


def test_other_content_is_refused(client: FlaskClient) -> None:
    for kind in ("text/plain", "application/x-www-form-urlencoded", ""):
        answer = client.put("/api/rules", data=b'{"chosen": {}, "revision": 1}', content_type=kind)
        assert answer.status_code == 415
    broken = client.put("/api/rules", data=b'{"chosen": ', content_type="application/json")
    assert broken.status_code == 400


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"Origin": "http://localhost"}, 200),
        ({"Origin": "http://evil.example"}, 403),
        ({"Origin": "null"}, 403),
        ({"Sec-Fetch-Site": "cross-site"}, 403),
        ({"Sec-Fetch-Site": "same-site"}, 403),
        ({"Sec-Fetch-Site": "same-origin"}, 200),
    ],
)
def test_changes_come_from_the_same_origin(client: FlaskClient, headers: dict, status: int) -> None:
    assert client.delete("/api/athletes/1", headers=headers).status_code == status
    assert Athlete.select().where(Athlete.deleted_on.is_null()).count() == (status != 200)


def test_other_hosts_are_refused(client: FlaskClient) -> None:
    assert client.get("/api/roster", headers={"Host": "evil.example"}).status_code == 400
    assert client.get("/api/roster", headers={"Host": "127.0.0.1:8765"}).status_code == 200


def test_reading_changes_nothing(client: FlaskClient) -> None:
    before = [tuple(row) for row in Athlete.select().tuples()]
    rules = client.application.url_map.iter_rules()
    for rule in rules:
        if "GET" in rule.methods and rule.rule.startswith("/api"):
            client.get(rule.rule.replace("<int:athlete_id>", "1").replace("<week>", "2026-W41"))
    assert [tuple(row) for row in Athlete.select().tuples()] == before
    assert client.get("/api/athletes/1/restore").status_code in (404, 405)


def test_headers(client: FlaskClient) -> None:
    for path in ("/", "/api/roster", "/api/nothing", "/athletes/1/weeks/2026-W41/sheet"):
        headers = client.get(path).headers
        policy = headers["Content-Security-Policy"]
        assert "script-src 'self'" in policy
        assert "unsafe" not in policy
        assert "frame-ancestors 'none'" in policy
        assert headers["X-Content-Type-Options"] == "nosniff"
        assert headers["Referrer-Policy"] == "no-referrer"


def test_an_unforeseen_error_shows_no_trace(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail(*_: object) -> None:
        raise RuntimeError("secret detail")

    monkeypatch.setattr("dialback.web.places.roster.count", fail)
    answer = client.get("/api/roster")
    assert answer.status_code == 500
    assert "secret" not in answer.get_data(as_text=True)
    assert "the log has the details" in answer.json["detail"]
