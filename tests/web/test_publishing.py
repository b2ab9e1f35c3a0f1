"""Publishing a draft: what it changes is told, logged days stay, and it can be taken back."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core import sessions as core_sessions
from dialback.core.plans.publishing import changes_of
from dialback.store.models import Draft, Session
from tests.build import document, session, sets
from tests.web.test_api import get, send

Bring = Callable[..., Any]
RUNNING = "/api/athletes/1/weeks/2026-W42"
JOURNAL = "/api/journal"
CHANGES = f"{JOURNAL}?athlete=1&undoable=true"


@pytest.fixture(autouse=True)
def a_running_week(bring: Bring) -> None:
    """Three days planned, the first of them done, another way than planned."""
    plans = [
        session(day, sets("Press", 3), sets("Row", 3), title=title)
        for day, title in ((7, "One"), (9, "Two"), (11, "Three"))
    ]
    done = [session(7, sets("Press", 2), sets("Row", 3), title="One")]
    assert bring(document(done, plans)).status_code == 201


def opened(client: FlaskClient) -> Any:
    return get(client, f"{RUNNING}/draft")


def body_of(draft: Any, sessions: Any, **more: Any) -> dict[str, Any]:
    return {
        "sessions": sessions,
        "revision": draft["revision"],
        "start_total": draft["start_total"],
        **more,
    }


def one_more_everywhere(draft: Any) -> Any:
    for day in draft["sessions"]:
        day["lines"][0]["count"] += 1
    return draft["sessions"]


def planned(client: FlaskClient) -> list[tuple[str, int]]:
    found = get(client, f"{RUNNING}/block?weeks=3")["sessions"]
    return [(one["title"], one["sets"]) for one in found]


def test_a_day_that_has_a_log_stays_as_planned(client: FlaskClient) -> None:
    draft = opened(client)
    assert draft["logged"] == ["2026-10-12"]
    first = Session.get(Session.basis == "planned", Session.title == "One").id
    sessions = one_more_everywhere(draft)
    told = send(client, "post", f"{RUNNING}/draft/changes", {"sessions": sessions})["days"]
    assert [(day["title"], day["kind"], day["lines"]) for day in told] == [
        ("One", "logged", []),
        ("Two", "changed", ["Press: 3 × 10 reps → 4 × 10 reps"]),
        ("Three", "changed", ["Press: 3 × 10 reps → 4 × 10 reps"]),
    ]
    # Whoever was not told of the log is told now, and nothing is stored.
    refused = send(client, "post", f"{RUNNING}/draft/publish", body_of(draft, sessions), 409)
    assert "Mon 12 Oct has been logged since" in refused["detail"]
    assert planned(client) == [("One", 6), ("Two", 6), ("Three", 6)]
    publish = body_of(draft, sessions, logged=draft["logged"])
    send(client, "post", f"{RUNNING}/draft/publish", publish)
    assert planned(client) == [("One", 6), ("Two", 7), ("Three", 7)]
    row = Session.get(Session.basis == "completed")
    assert row.plan_id == first
    assert row.plan.deleted_on is None


def test_publishing_is_taken_back_and_the_draft_is_there_again(client: FlaskClient) -> None:
    draft = opened(client)
    sessions = one_more_everywhere(draft)
    kept = send(client, "put", f"{RUNNING}/draft", body_of(draft, sessions))
    publish = body_of(draft, sessions, logged=draft["logged"]) | kept
    change = send(client, "post", f"{RUNNING}/draft/publish", publish)["change"]
    assert Draft.select().count() == 0
    (told,) = get(client, CHANGES)["entries"]
    assert (told["says"], told["undone"]) == ("Published week 42", False)
    send(client, "post", f"{JOURNAL}/{change}/undo", {})
    assert planned(client) == [("One", 6), ("Two", 6), ("Three", 6)]
    again = opened(client)
    assert again["origin"] == "saved"
    assert [day["lines"][0]["count"] for day in again["sessions"]] == [3, 4, 4]
    send(client, "post", f"{JOURNAL}/{change}/redo", {})
    assert planned(client) == [("One", 6), ("Two", 7), ("Three", 7)]


def test_what_was_done_with_it_since_is_not_taken_away(client: FlaskClient) -> None:
    draft = opened(client)
    publish = body_of(draft, one_more_everywhere(draft), logged=draft["logged"])
    change = send(client, "post", f"{RUNNING}/draft/publish", publish)["change"]
    row = Session.get(
        Session.basis == "planned", Session.title == "Two", Session.deleted_on.is_null()
    )
    Session.create(athlete=1, basis="completed", date=row.date, title="Two", plan=row)
    refused = send(client, "post", f"{JOURNAL}/{change}/undo", {}, 409)
    assert "Ada Test has logged Wed 14 Oct by this plan" in refused["detail"]
    assert planned(client) == [("One", 6), ("Two", 7), ("Three", 7)]
    send(client, "post", f"{JOURNAL}/99/undo", {}, 404)


def test_a_stored_draft_shows_logged_days_as_planned(client: FlaskClient) -> None:
    draft = opened(client)
    send(client, "put", f"{RUNNING}/draft", body_of(draft, one_more_everywhere(draft)))
    again = opened(client)
    assert [day["lines"][0]["count"] for day in again["sessions"]] == [3, 4, 4]


def test_only_the_open_days_turn(client: FlaskClient) -> None:
    sessions = opened(client)["sessions"]
    turned = send(client, "post", f"{RUNNING}/draft/dial", {"sessions": sessions, "setting": 14})
    assert [[line["count"] for line in day["lines"]] for day in turned["sessions"]] == [
        [3, 3],
        [2, 2],
        [2, 2],
    ]
    dial = send(client, "post", f"{RUNNING}/draft/notches", {"sessions": sessions})
    assert (dial["start"], dial["least"], dial["most"]) == (18, 10, 29)
    proposed = send(client, "post", f"{RUNNING}/draft/proposal", {"sessions": sessions})
    assert all(step["day"] != "2026-10-12" for step in proposed["steps"])


def test_a_plan_for_a_day_that_was_logged_without_one(client: FlaskClient, bring: Bring) -> None:
    plans, done = [session(0, sets("Press", 3))], [session(7, sets("Press", 2))]
    bring(document(done, plans, athlete={"name": "Bo", "bodyweight_kg": 70}))
    week = "/api/athletes/2/weeks/2026-W42"
    draft = get(client, f"{week}/draft")
    assert (draft["origin"], draft["logged"]) == ("last plan", [])
    change = send(client, "post", f"{week}/draft/publish", body_of(draft, draft["sessions"]))
    row = Session.get(Session.basis == "completed", Session.athlete == 2)
    assert row.plan.title == ""
    send(client, "post", f"/api/journal/{change['change']}/undo", {})
    assert Session.get_by_id(row.id).plan_id is None


def test_movements_are_added_and_swapped_by_hand(client: FlaskClient) -> None:
    sessions = opened(client)["sessions"]
    found = send(
        client,
        "post",
        f"{RUNNING}/draft/movements",
        {"sessions": sessions, "session": 1, "line": 0},
    )["candidates"]
    mine = next(one for one in found if one["movement"] == "Press-up")
    assert mine == {
        "movement": "Press-up",
        "fits": "same pattern",
        "begins": "8 reps",
        "own": False,
        "load_missing": False,
    }
    fits = [one["fits"] for one in found]
    assert fits.index("also chest") > max(at for at, fit in enumerate(fits) if fit[:4] == "same")
    assert all(one["movement"] not in ("Press", "Skip", "Stretch") for one in found)
    body = {"sessions": sessions, "session": 1, "line": 0, "movement": "Press-up"}
    put = send(client, "post", f"{RUNNING}/draft/put", body)
    line = put["sessions"][1]["lines"][0]
    assert (line["count"], line["units"][0][0]["exercise"]) == (3, "Press-up")
    assert line["units"][0][0]["reps"] == 10
    assert put["audit"]["lines"][1][0]["movement"] == "Press-up"
    added = send(
        client,
        "post",
        f"{RUNNING}/draft/put",
        {"sessions": sessions, "session": 2, "movement": "Row"},
    )
    assert [line["units"][0][0]["exercise"] for line in added["sessions"][2]["lines"]] == [
        "Press",
        "Row",
        "Row",
    ]
    for wrong in ({"line": 7}, {"session": 9}, {"movement": "Nobody"}):
        send(client, "post", f"{RUNNING}/draft/put", {**body, **wrong}, 404)


def test_whatever_changes_is_told() -> None:
    """Not the heaviest set of a movement alone: back-off sets, a rest, an exertion, a title."""
    day = core_sessions.Session.model_validate(
        session(7, sets("Press", 1, load_kg=60), sets("Press", 2, load_kg=50), title="One")
    )

    def told(**fields: Any) -> tuple[str, ...]:
        last = day.sets[-1].model_copy(update=fields)
        after = day.model_copy(update={"sets": (*day.sets[:-1], last)})
        (change,) = changes_of([day], [after], frozenset())
        assert change.kind == "changed"
        return change.lines

    assert "10 reps at 45 kg" in told(load_kg=45)[0].split("→")[1]
    assert "rest 45 s" in told(rest_s=45)[0]
    assert "RPE 9" in told(rpe=9)[0]
    (line,) = told(warm_up=True)[1:]
    assert line.startswith("Press, warm-up: new")
    named = day.model_copy(update={"title": "Last"})
    (change,) = changes_of([day], [named], frozenset())
    assert "another title" in change.lines[0]


def test_a_turned_session_keeps_what_the_coach_wrote(client: FlaskClient) -> None:
    text = (
        "main A, pre-exhaust:\nCurl 2 × 12 at 10 kg\nRow 3 × 8 at 40 kg\n"
        "main:\nladder 4, 7, 10:\n  Press\n  Squat\n"
    )
    written = f"2026-10-15 Written\n{text}"
    send(client, "post", f"{RUNNING}/block/text", {"text": written}, 201)
    # As it is saved in Write, with a remark.
    text = text.replace("Curl", "# watch the left knee\nCurl")
    written_row = Session.get(Session.title == "Written")
    written_row.extra = {**written_row.extra, "text": text}
    written_row.save()
    draft = opened(client)
    day = next(one for one in draft["sessions"] if one["title"] == "Written")
    assert [line["count"] for line in day["lines"]] == [2, 3, 3]
    day["lines"][1]["count"] = 4
    day["lines"][2]["count"] = 2
    body = body_of(draft, draft["sessions"], logged=draft["logged"])
    send(client, "post", f"{RUNNING}/draft/publish", body)
    row = Session.get(Session.title == "Written", Session.deleted_on.is_null())
    assert row.extra["text"] == text.replace("Row 3 ×", "Row 4 ×").replace(
        "ladder 4, 7, 10", "ladder 4, 7"
    )
    assert [(one.extra or {}).get("pre_exhaust") for one in row.sets][:3] == [True, True, True]
    found = get(client, f"{RUNNING}/sheet?basis=planned")["findings"]
    assert not any(one["code"] == "order" for one in found)
