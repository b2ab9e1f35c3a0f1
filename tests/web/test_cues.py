"""What is said at a movement: the house's words over those that ship, and each athlete's own."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.cues import NEW_TO
from dialback.core.movements import Movement
from dialback.library import shipped_cues
from tests.build import document, session, sets
from tests.web.test_api import get, send
from tests.web.test_reports import pdf, text

OWN = "/api/athletes/1/cues"
TELL = {"movement": "press-up", "says": " Left  heel down "}


@pytest.fixture(autouse=True)
def a_plan(client: FlaskClient, bring: Callable[..., Any]) -> None:
    done = [session(-7 * back, sets("Press-up", 2), sets("Row", 2)) for back in (1, 2)]
    done.append(session(-21, sets("Press-up", 2)))
    planned = [session(2, sets("Press-up", 2), sets("Row", 2))]
    assert bring(document(done, planned)).status_code == 201


def number(client: FlaskClient, name: str) -> int:
    found = {one["name"]: one["id"] for one in get(client, "/api/movements")["movements"]}
    return found[name]


def cues(client: FlaskClient, name: str = "Press-up") -> dict[str, Any]:
    return get(client, f"/api/movements/{number(client, name)}/cues")


def floor(client: FlaskClient) -> dict[str, Any]:
    day = get(client, "/api/floor?day=2026-10-07")
    return get(client, f"/api/floor/run?plan={day['sessions'][0]['plan']}")


def undo(client: FlaskClient, says: str) -> None:
    entries = get(client, "/api/journal")["entries"]
    entry = next(one for one in entries if one["says"].startswith(says))
    send(client, "post", f"/api/journal/{entry['id']}/undo", {})


def test_a_house_changes_the_words_and_takes_the_shipped_ones_again(client: FlaskClient) -> None:
    shipped = cues(client)
    assert not shipped["is_own"]
    assert [one["title"] for one in shipped["said"]][:2] == ["Set up", "Move"]
    path = f"/api/movements/{number(client, 'Press-up')}/cues"
    own = shipped["cues"] | {"move": "Chest to the grass", "feel": ""}
    changed = send(client, "put", path, {"cues": own})
    assert changed["is_own"]
    assert {"title": "Move", "says": "Chest to the grass"} in changed["said"]
    assert "Feel" not in [one["title"] for one in changed["said"]]
    assert send(client, "put", path, {"cues": None}) == shipped
    # Both steps are entries that are taken back.
    undo(client, "Took the shipped cues")
    assert cues(client) == changed
    undo(client, "Changed the cues of Press-up")
    assert cues(client) == shipped
    long = send(client, "put", path, {"cues": {"move": "a" * 91}}, 422)
    assert "move" in str(long)


def test_the_words_follow_a_movement_that_is_renamed(client: FlaskClient) -> None:
    before = cues(client, "Row")
    send(client, "put", OWN, TELL | {"movement": "Row"})
    send(client, "put", f"/api/movements/{number(client, 'Row')}/name", {"name": "Heave"})
    assert cues(client, "Heave") == before
    assert get(client, OWN)["cues"] == [{"title": "Heave", "says": "Left heel down"}]


def test_one_athlete_is_told_something_first(client: FlaskClient) -> None:
    told = send(client, "put", OWN, TELL)
    assert told["cues"] == [{"title": "Press-up", "says": "Left heel down"}]
    assert floor(client)["run"]["own_cues"] == told["cues"]
    assert get(client, "/api/athletes/1/book")["athlete"]["cues"] == [
        {"movement": "Press-up", "says": "Left heel down"}
    ]
    unknown = send(client, "put", OWN, TELL | {"movement": "Presup"}, 422)
    assert "no movement is called 'Presup'" in str(unknown)
    assert send(client, "put", OWN, TELL | {"says": ""})["cues"] == []
    undo(client, "No own cue at Press-up any more")
    assert get(client, OWN) == told


def test_words_of_two_movements_that_became_one_are_both_kept(client: FlaskClient) -> None:
    send(client, "put", OWN, TELL | {"movement": "Row"})
    send(client, "put", OWN, {"movement": "Hinge", "says": "Wrists straight"})
    send(client, "put", f"/api/movements/{number(client, 'Hinge')}/name", {"name": "Row"})
    both = {"title": "Row", "says": "Left heel down; Wrists straight"}
    assert get(client, OWN)["cues"] == [both]
    told = send(client, "put", OWN, TELL | {"movement": "Row"})
    assert told["cues"] == [{**both, "says": "Left heel down"}]


def test_a_book_brings_them_along(client: FlaskClient, bring: Callable[..., Any]) -> None:
    send(client, "put", OWN, TELL)
    book = get(client, "/api/athletes/1/book")
    book["athlete"]["name"] = "Bo Test"
    assert bring(book).status_code == 201
    assert get(client, "/api/athletes/2/cues") == get(client, OWN)


def test_the_floor_knows_who_is_new_to_a_movement(client: FlaskClient) -> None:
    found = floor(client)
    # Three sessions with press-ups, two with rows.
    assert NEW_TO == 3
    assert found["run"]["new_to"] == ["Row"]
    by_name = {one["name"]: one["cues"] for one in found["movements"]}
    assert by_name["Press-up"] == cues(client)["said"]


def test_a_movement_of_ones_own_has_the_words_of_its_pattern() -> None:
    squat = Movement(name="Sandbag squat", pattern="squat", muscles={"quads": "direct"})
    shipped = shipped_cues(squat)
    assert shipped.stop_when
    assert shipped.breathe
    assert shipped.move == ""
    same = squat.model_copy(update={"name": "Kniebeuge", "aliases": ("goblet squat",)})
    assert shipped_cues(same).move == "Sit between the knees, chest up, stand tall"


def test_a_remark_is_on_the_week_sheet_and_on_its_paper(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    said = sets("Press-up", 1, note="left elbow flares") * 2 + sets("Row", 1)
    log = session(0, said, notes="Slept badly\nShort of time")
    assert (
        bring(document([log], athlete={"name": "Bo Test", "bodyweight_kg": 60})).status_code == 201
    )
    week = "/api/athletes/2/weeks/2026-W41"
    lines = get(client, f"{week}/sheet?basis=completed")["sessions"]
    assert [one["said"] for one in lines] == [
        ["Slept badly", "Short of time", "Press-up: left elbow flares"]
    ]
    page = text(pdf(client.get(f"{week}/report")))
    assert "Slept badly; Short of time; Press-up: left elbow flares." in page


def test_cues_are_printed_where_somebody_is_told_something_or_asks_for_them(
    client: FlaskClient,
) -> None:
    url = "/api/print?day=2026-10-07&athletes=1"
    assert "How to do it" not in text(pdf(client.get(url)))
    send(client, "put", OWN, TELL | {"movement": "Row"})
    plain = text(pdf(client.get(url)))
    assert "Row: Left heel down." in plain
    assert "Press-up: " not in plain
    whole = text(pdf(client.get(f"{url}&cues=true")))
    assert "Row: Left heel down. Stop when the back swings" in whole
    assert "Lower the chest between the hands" in whole


def test_the_floor_says_why(client: FlaskClient) -> None:
    text = (
        "why: because of Saturday's race\nmain A, because it is new:\nPress-up 8\n"
        "Row 8, because her back is strong\n"
    )
    body = {"date": "2026-10-07", "title": "Light", "text": text}
    made = send(client, "post", "/api/athletes/1/weeks/2026-W41/written", body, 201)
    run = get(client, f"/api/floor/run?plan={made['id']}")["run"]
    assert run["why"] == "because of Saturday's race"
    assert [one["why"] for one in run["sets"]] == ["it is new", "her back is strong"]
