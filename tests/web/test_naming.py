"""A movement is renamed or merged: what knows it by name follows, what was typed is still read."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.movements import MovementTable
from dialback.core.naming import at_its_head, places_in, put_in
from dialback.library import library
from dialback.store.database import connected
from dialback.store.fields import WordField
from dialback.store.models import TABLES, Draft, JournalEntry, Session, SetMove, SetRow
from dialback.store.movements import lacking
from dialback.store.naming import BY_NAME
from tests.build import document, session, sets
from tests.web.test_api import get, send

ATHLETE = "/api/athletes/1"
WEEK = f"{ATHLETE}/weeks/2026-W41"
COMBINED = {
    "moves": [{"exercise": "Row", "times": 1}, {"exercise": "Press", "times": 2}],
    "reps": 3,
    "load_kg": 20,
}


@pytest.fixture(autouse=True)
def a_month(client: FlaskClient, bring: Callable[..., Any]) -> None:
    done = [session(back, sets("Press", 4, load_kg=20), sets("Row", 4)) for back in (-14, -7)]
    this = session(0, sets("Press", 6, load_kg=20), sets("Row", 4), [COMBINED])
    plan = session(2, sets("Press", 5, load_kg=20))
    assert bring(document([*done, this], planned=[plan])).status_code == 201
    goal = {"movement": "Press", "load_kg": 60, "reps": 5, "by": "2026-12-13"}
    send(client, "post", f"{ATHLETE}/goals", goal, 201)
    least = {"about": "movement", "subject": "Press", "by": "Physio", "most_sets": 20}
    least["since"] = "2026-10-05"
    send(client, "post", f"{ATHLETE}/restrictions", least, 201)
    send(
        client,
        "post",
        f"{ATHLETE}/maxima",
        {"movement": "Press", "kg": 70, "date": "2026-10-05"},
        201,
    )


def number(client: FlaskClient, name: str) -> int:
    found = {one["name"]: one["id"] for one in get(client, "/api/movements")["movements"]}
    return found[name]


def called(client: FlaskClient) -> dict[str, list[str]]:
    return {one["name"]: one["aliases"] for one in get(client, "/api/movements")["movements"]}


def renamed(client: FlaskClient, old: str, new: str, status: int = 200) -> dict[str, Any]:
    return send(client, "put", f"/api/movements/{number(client, old)}/name", {"name": new}, status)


def looked(client: FlaskClient, old: str, new: str) -> dict[str, Any]:
    return send(client, "post", f"/api/movements/{number(client, old)}/naming", {"name": new})


def undone(client: FlaskClient, *, again: bool = False) -> dict[str, Any] | None:
    entries = get(client, "/api/journal")["entries"]
    entry = next(one for one in entries if one["says"].startswith(("Renamed", "Merged")))
    way = "redo" if again else "undo"
    return send(client, "post", f"/api/journal/{entry['id']}/{way}", {})


def amounts(row: dict[str, Any]) -> dict[str, float]:
    return {name: cell["done"] for name, cell in row["cells"].items()}


def standing(client: FlaskClient) -> dict[str, Any]:
    """All that says the name, and all that is counted by it."""
    sheet = get(client, f"{WEEK}/sheet")
    return {
        "goals": [one["movement"] for one in get(client, f"{ATHLETE}/goals")["goals"]],
        "maxima": [one["movement"] for one in get(client, f"{ATHLETE}/maxima")["maxima"]],
        "restrictions": [
            one["restriction"]["subject"]
            for one in get(client, f"{ATHLETE}/restrictions")["restrictions"]
        ],
        "movements": {one["subject"]: amounts(one) for one in sheet["movements"]},
        "totals": sheet["totals"],
        "names": called(client),
    }


def test_what_a_name_changes_is_shown_before_and_nothing_stored(client: FlaskClient) -> None:
    before = standing(client)
    told = looked(client, "Press", "Flat press")
    assert told["into"] is None
    assert (told["planned"], told["done"], told["athletes"]) == (5, 15, 1)
    assert (told["goals"], told["maxima"], told["restrictions"]) == (1, 1, 1)
    assert standing(client) == before


def test_everything_follows_the_name_and_comes_back(client: FlaskClient) -> None:
    before = standing(client)
    renamed(client, "Press", "Flat press")
    after = standing(client)
    assert after["goals"] == after["maxima"] == after["restrictions"] == ["Flat press"]
    assert after["movements"]["Flat press"] == before["movements"]["Press"]
    assert after["totals"] == before["totals"]
    assert "Press" in after["names"]["Flat press"]
    undone(client)
    assert standing(client) == before
    undone(client, again=True)
    assert standing(client) == after
    undone(client)
    assert standing(client) == before


def test_two_become_one_and_two_again(client: FlaskClient) -> None:
    before = standing(client)
    told = looked(client, "Press", "row")
    assert told["into"] == "Row"
    assert [one["week"] for one in told["sheets"]] == ["2026-W41", "2026-W40", "2026-W39"]
    renamed(client, "Press", "row")
    after = standing(client)
    assert "Press" not in after["names"]
    assert "Press" in after["names"]["Row"]
    assert after["goals"] == after["maxima"] == after["restrictions"] == ["Row"]
    assert after["totals"] != before["totals"] or after["movements"] != before["movements"]
    undone(client)
    assert standing(client) == before
    undone(client, again=True)
    assert standing(client) == after


def test_renamed_then_merged_goes_back_step_by_step(client: FlaskClient) -> None:
    before = standing(client)
    renamed(client, "Press", "Flat press")
    renamed(client, "Flat press", "Row")
    merged, first = [one["id"] for one in get(client, "/api/journal")["entries"][:2]]
    send(client, "post", f"/api/journal/{first}/undo", {}, 409)
    send(client, "post", f"/api/journal/{merged}/undo", {})
    send(client, "post", f"/api/journal/{first}/undo", {})
    assert standing(client) == before


def test_what_came_after_a_merge_stays_with_the_one_that_is_left(client: FlaskClient) -> None:
    renamed(client, "Press", "Row")
    body = {
        "change": "change-0001",
        "revision": 0,
        "session": session(3, sets("Row", 2)),
    }
    assert client.put(f"{ATHLETE}/logs/log-0001", json=body).status_code in (200, 201)
    undone(client)
    with connected():
        names = [
            one.movement.name
            for one in SetRow.select().join(Session).where(Session.client_id == "log-0001")
        ]
    assert names == ["Row", "Row"]


def test_a_log_under_the_old_name_arrives_under_the_new_one(client: FlaskClient) -> None:
    renamed(client, "Press", "Flat press")
    body = {
        "change": "change-0001",
        "revision": 0,
        "session": session(3, sets("press", 2), [COMBINED]),
    }
    assert client.put(f"{ATHLETE}/logs/log-0001", json=body).status_code in (200, 201)
    with connected():
        mine = SetRow.select().join(Session).where(Session.client_id == "log-0001")
        assert [one.movement and one.movement.name for one in mine] == [
            "Flat press",
            "Flat press",
            None,
        ]
        moves = SetMove.select().join(SetRow).join(Session)
        last = moves.where(Session.client_id == "log-0001").order_by(SetMove.id)
        assert [one.movement.name for one in last] == ["Row", "Flat press"]


def test_a_text_with_the_old_name_is_read(client: FlaskClient) -> None:
    renamed(client, "Press", "Flat press")
    read = send(
        client,
        "post",
        f"{WEEK}/written/check",
        {"date": "2026-10-08", "text": "Press 3 x 5 x 40 kg"},
    )
    assert "Flat press" in str(read)


def test_a_draft_follows(client: FlaskClient) -> None:
    open_ = get(client, f"{WEEK}/draft")
    body = {"revision": 0, "start_total": open_["start_total"], "sessions": open_["sessions"]}
    send(client, "put", f"{WEEK}/draft", body)
    renamed(client, "Press", "Flat press")
    with connected():
        (draft,) = Draft.select()
        assert "Flat press" in str(draft.sessions)
        assert "'Press'" not in str(draft.sessions)
    get(client, f"{WEEK}/draft")


def test_signed_stays_as_signed_and_nothing_changed_since(client: FlaskClient) -> None:
    assert client.put(f"{WEEK}/signature", json={"name": "Runa Velk"}).status_code == 200
    renamed(client, "Press", "Flat press")
    found = get(client, f"{WEEK}/sheet")["signature"]
    assert found["since"] == []
    kept = get(client, f"{WEEK}/signature/document")
    assert "Press" in str(kept)
    assert "Flat press" not in str(kept)


@pytest.mark.parametrize(
    ("old", "new", "status", "words"),
    [
        ("Press", "Press", 422, "is called that already"),
        ("Press", "  ", 422, "a name is needed"),
        ("Press", "Pulling", 422, "already means Row"),
    ],
)
def test_what_is_refused(client: FlaskClient, old: str, new: str, status: int, words: str) -> None:
    one = next(m for m in get(client, "/api/movements")["movements"] if m["name"] == "Row")
    movement = {
        "name": "Row",
        "pattern": one["pattern"],
        "compound": one["compound"],
        "muscles": dict.fromkeys(one["direct"], "direct"),
        "aliases": ["Pulling"],
    }
    send(client, "put", f"/api/movements/{one['id']}", {"movement": movement})
    before = standing(client)
    assert words in renamed(client, old, new, status)["detail"]
    assert standing(client) == before


def test_letter_case_alone_makes_no_other_name(client: FlaskClient) -> None:
    renamed(client, "Press", "PRESS")
    assert called(client)["PRESS"] == []
    assert standing(client)["goals"] == ["PRESS"]


def test_a_movement_renamed_again_cannot_go_back_past_that(client: FlaskClient) -> None:
    renamed(client, "Press", "Flat press")
    first = get(client, "/api/journal")["entries"][0]["id"]
    renamed(client, "Flat press", "Bench")
    answer = send(client, "post", f"/api/journal/{first}/undo", {}, 409)
    assert "Undo the later change first" in answer["detail"]


def test_a_shipped_movement_that_was_renamed_does_not_come_again(client: FlaskClient) -> None:
    shipped = next(one for one in library() if one.name in called(client))
    renamed(client, shipped.name, "Ours alone")
    with connected():
        assert shipped.name not in [one.name for one in lacking(library())]


def test_every_column_that_names_a_movement_is_rewritten() -> None:
    named = {
        (table, column)
        for table in TABLES
        for column in ("movement", "subject", "easier", "harder")
        if isinstance(table._meta.fields.get(column), WordField)
    }
    assert named == set(BY_NAME)


JSON = st.recursive(
    st.sampled_from(["Press", "Row", "note", 3]),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(st.sampled_from(["exercise", "movement", "note"]), inner, max_size=3)
    ),
    max_leaves=12,
)


@given(JSON)
def test_names_within_json_are_changed_and_put_back(value: Any) -> None:
    places = list(places_in(value, "press"))
    changed = put_in(value, places, "Press", "Bench")
    assert list(places_in(changed, "Press")) == []
    assert list(places_in(changed, "Bench")) == places
    assert put_in(changed, places, "Bench", "Press") == value


def test_what_was_changed_meanwhile_is_left_alone() -> None:
    places = [["sets", 0, "exercise"], ["sets", 1, "exercise"], ["gone", 3, "exercise"]]
    now = {"sets": [{"exercise": "Bench"}, {"exercise": "Row"}]}
    assert put_in(now, places, "Bench", "Press") == {
        "sets": [{"exercise": "Press"}, {"exercise": "Row"}]
    }


def test_the_journal_of_the_house_keeps_nothing_of_a_person(client: FlaskClient) -> None:
    body = {
        "change": "change-0001",
        "revision": 0,
        "session": session(
            3, sets("Press", 2), pain=[{"exercise": "Press", "note": "left shoulder"}]
        ),
    }
    assert client.put(f"{ATHLETE}/logs/log-0001", json=body).status_code in (200, 201)
    renamed(client, "Press", "Flat press")
    with connected():
        kept = [str(one.undo) for one in JournalEntry.select() if one.athlete_id is None]
        assert "left shoulder" not in " ".join(kept)
        assert "Flat press" in str(Session.get(Session.client_id == "log-0001").extra)
    undone(client)
    with connected():
        assert "Flat press" not in str(Session.get(Session.client_id == "log-0001").extra)


def test_an_old_name_that_somebody_has_by_now_is_not_given_back(client: FlaskClient) -> None:
    renamed(client, "Press", "Flat press")
    (flat,) = [m for m in get(client, "/api/movements")["movements"] if m["name"] == "Flat press"]
    row = {"name": "Press", "pattern": "horizontal_push", "muscles": {"chest": "direct"}}
    told = send(client, "post", "/api/movements", {"movement": row}, 422)
    assert "'Press' already means Flat press" in told["detail"]
    # As no other name any more it is free; then it cannot come back by the journal.
    bare = {"name": "Flat press", "pattern": flat["pattern"], "muscles": {"chest": "direct"}}
    send(client, "put", f"/api/movements/{flat['id']}", {"movement": bare})
    send(client, "post", "/api/movements", {"movement": row}, 201)
    entry = next(
        one for one in get(client, "/api/journal")["entries"] if one["says"].startswith("Renamed")
    )
    send(client, "post", f"/api/journal/{entry['id']}/undo", {}, 409)


def test_names_within_a_set_in_words() -> None:
    known = MovementTable(
        one for one in library() if one.name in ("Back squat", "Power clean", "Split squat")
    )
    names = {"split": "Never", "squat": "Back squat", "clean": "Power clean"}
    for before, after in (
        ("Squat 5 reps with 40 kg", "Back squat 5 reps with 40 kg"),
        ("Split squat 5 reps", "Split squat 5 reps"),
        (
            "2 Clean, left at 20 kg + Squat 3 reps",
            "2 Power clean, left at 20 kg + Back squat 3 reps",
        ),
        ("Plank 40 s", "Plank 40 s"),
        ("Squat 5 reps + 1 partial", "Back squat 5 reps + 1 partial"),
    ):
        assert at_its_head(before, names, known) == after
