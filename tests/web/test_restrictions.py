"""Restrictions over the API: set, seen wherever a plan is made, lifted by a person, in the book."""

import json
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.web.test_api import NEXT, get, send

AT = "/api/athletes/1/restrictions"


@pytest.fixture(autouse=True)
def ada(bring: Callable[..., Any]) -> None:
    bring()


def restrict(client: FlaskClient, status: int = 201, **more: Any) -> Any:
    body = {
        "about": "movement",
        "subject": "press",
        "by": "Runa Velk, physiotherapist",
        "since": "2026-10-12",
        "word": "shoulder",
        **more,
    }
    return send(client, "post", AT, body, status)


def codes(client: FlaskClient, week: str = NEXT, basis: str = "planned") -> set[str]:
    return {one["code"] for one in get(client, f"{week}/sheet?basis={basis}")["findings"]}


def test_set_checked_lifted_and_put_back(client: FlaskClient) -> None:
    assert "restriction" not in codes(client)
    (one,) = restrict(client)["restrictions"]
    assert (one["words"], one["holds"]) == ("no Press", True)
    assert one["restriction"]["subject"] == "Press"
    assert "restriction" in codes(client)
    (note,) = get(client, NEXT)["restrictions"]
    assert (note["by"], note["word"]) == ("Runa Velk, physiotherapist", "shoulder")
    # The weeks before it began are judged without it.
    assert "restriction" not in codes(client, "/api/athletes/1/weeks/2026-W41")
    (lifted,) = send(client, "post", f"{AT}/1/lift", {"by": "Runa Velk"})["restrictions"]
    assert (lifted["holds"], lifted["restriction"]["lifted_by"]) == (False, "Runa Velk")
    assert "restriction" not in codes(client)
    assert get(client, NEXT)["restrictions"] == []
    again = send(client, "post", f"{AT}/1/lift", {"by": "Runa Velk"}, 409)
    assert "lifted by Runa Velk" in again["detail"]
    send(client, "post", f"{AT}/1/restore", {})
    assert "restriction" in codes(client)
    send(client, "post", f"{AT}/9/restore", {}, 404)


def test_an_end_day_that_was_said_at_once(client: FlaskClient) -> None:
    """Until Sunday: it holds in that week, and from Monday on it does not; ended sooner, or not."""
    until = {"lifted_on": "2026-10-19", "lifted_by": "Runa Velk, physiotherapist"}
    (one,) = restrict(client, **until)["restrictions"]
    assert (one["holds"], one["over"], one["last_day"]) == (True, False, "2026-10-18")
    assert "restriction" in codes(client)
    assert get(client, "/api/athletes/1/weeks/2026-W43")["restrictions"] == []
    # It goes on without an end, and a restriction that has none cannot lose it again.
    (open_,) = send(client, "post", f"{AT}/1/restore", {})["restrictions"]
    assert open_["restriction"]["lifted_on"] is None
    send(client, "post", f"{AT}/1/restore", {}, 409)
    (lifted,) = send(client, "post", f"{AT}/1/lift", {"by": "Runa Velk"})["restrictions"]
    assert not lifted["holds"]
    (_, other) = restrict(client, subject="row", **until)["restrictions"][::-1]
    (sooner, _) = send(client, "post", f"{AT}/{other['id']}/lift", {"by": "Bo"})["restrictions"]
    assert (sooner["holds"], sooner["restriction"]["lifted_by"]) == (False, "Bo")


def test_write_warns_at_the_line(client: FlaskClient) -> None:
    restrict(client, about="pattern", subject="horizontal_push")
    text = {"date": "2026-10-13", "title": "", "text": "main:\n  Row 3 × 8\n  Press 3 × 8 at 20 kg"}
    found = send(client, "post", f"{NEXT}/written/check", text)
    (line,) = found["restricted"]
    assert (line["line"], line["column"], line["length"]) == (3, 3, 5)
    assert line["message"] == (
        "horizontal push is to be avoided, on the word of Runa Velk, physiotherapist"
    )
    week = {one["code"] for one in found["week"]["findings"]}
    assert "restriction" in week


def test_the_floor_is_told_and_offers_nothing_restricted(client: FlaskClient) -> None:
    plan = get(client, "/api/floor")["sessions"][0]["plan"]
    instead = next(
        one["instead"]
        for one in get(client, f"/api/floor/run?plan={plan}")["movements"]
        if one["name"] == "Press"
    )
    assert "Bench press" in instead
    restrict(client, subject="Bench press")
    run = get(client, f"/api/floor/run?plan={plan}")
    assert [one["words"] for one in run["run"]["restrictions"]] == ["no Bench press"]
    assert not any("Bench press" in one["instead"] for one in run["movements"])


def test_a_book_carries_them_out_and_in(client: FlaskClient) -> None:
    restrict(client, most_sets=4)
    restrict(client, about="tempo", subject="lifting", least_s=2, by="Ines Tarrow")
    send(client, "post", f"{AT}/1/lift", {"by": "Runa Velk"})
    document = client.get("/api/athletes/1/book").data
    kept = json.loads(document)["athlete"]["restrictions"]
    assert {one["subject"]: one.get("lifted_by") for one in kept} == {
        "Press": "Runa Velk",
        "lifting": None,
    }
    send(client, "post", "/api/import?name=Twin", json.loads(document), 201)
    twin = json.loads(client.get("/api/athletes/2/book").data)["athlete"]["restrictions"]
    assert twin == kept


@pytest.mark.parametrize(
    ("wrong", "says"),
    [
        ({"subject": "Nothing"}, "no movement is called"),
        ({"by": " "}, "a name is needed"),
        ({"since": "soon"}, "since"),
        ({"most_sets": -1}, "most_sets"),
        ({"about": "tempo", "subject": "lifting"}, "at least or at most"),
        ({"lifted_on": "2026-10-12", "lifted_by": "me"}, "its last day is before the first"),
    ],
)
def test_what_is_none(client: FlaskClient, wrong: dict[str, Any], says: str) -> None:
    assert says in json.dumps(restrict(client, 422, **wrong))
    assert get(client, AT)["restrictions"] == []
