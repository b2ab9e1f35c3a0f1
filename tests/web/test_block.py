"""Block: weeks at a glance, sessions laid over them."""

from collections.abc import Callable
from typing import Any

import pytest
import vobject
from flask.testing import FlaskClient

from dialback.core.movements import Movement, MovementTable
from dialback.core.notation import Change, Setting, expand, lighter, read, stepped, write
from tests.build import MOVEMENTS as MOVEMENT_ROWS
from tests.build import document, session, sets
from tests.notation.test_forms import MOVEMENTS
from tests.web.test_api import NEXT, get, send


@pytest.fixture
def store_movements() -> MovementTable:
    return MovementTable([Movement.model_validate(one) for one in MOVEMENT_ROWS])


@pytest.fixture(autouse=True)
def ada(bring: Callable[..., Any]) -> None:
    bring()


def lay(client: FlaskClient, status: int = 200, **body: Any) -> Any:
    return send(client, "post", f"{NEXT}/block/lay", body, status)


def block(client: FlaskClient) -> Any:
    return get(client, f"{NEXT}/block?weeks=4")


def planned(client: FlaskClient) -> list[float]:
    return [week["planned"]["sets"] for week in block(client)["weeks"]]


def test_weeks_across_and_days_down(client: FlaskClient) -> None:
    found = get(client, "/api/athletes/1/weeks/2026-W41/block?weeks=3")
    assert [week["week"] for week in found["weeks"]] == ["2026-W41", "2026-W42", "2026-W43"]
    assert [week["over"] for week in found["weeks"]] == [True, False, False]
    assert len(found["days"]) == 7
    assert found["days"][6] == ["2026-10-11", "2026-10-18", "2026-10-25"]
    first = found["weeks"][0]
    assert (first["planned"]["sets"], first["done"]["sets"], first["base"]["sets"]) == (12, 13, 13)
    assert first["counts"]["high"] > 0
    assert found["weeks"][2]["counts"] == {"high": 0, "caution": 0, "note": 0, "accepted": 0}
    assert [(one["date"], one["done"]) for one in found["sessions"]] == [
        ("2026-10-05", True),
        ("2026-10-12", False),
    ]
    assert found["sessions"][1]["minutes"] > 5


def test_a_session_over_weeks_with_a_step(client: FlaskClient) -> None:
    (one,) = block(client)["sessions"]
    change = {"load": 0.05, "sets": 1, "reps": -1}
    done = lay(client, sessions=[one["id"]], shifts=[7, 14], change=change)
    assert planned(client) == [12, 15, 18, 0]
    texts = [
        get(client, f"/api/athletes/1/weeks/{week}/written")["sessions"][0]["text"]
        for week in ("2026-W43", "2026-W44")
    ]
    assert texts[0].splitlines()[0] == "Press 6 × 9 at 21 kg"
    assert texts[1].splitlines()[2] == "Squat 6 × 8 at 66 kg"
    at = f"/api/journal/{done['change']}"
    send(client, "post", f"{at}/undo", {})
    assert planned(client) == [12, 0, 0, 0]
    send(client, "post", f"{at}/undo", {}, 404)
    send(client, "post", f"{at}/redo", {})
    assert planned(client) == [12, 15, 18, 0]


def test_weeks_ahead_are_compared_with_the_plans_before_them(client: FlaskClient) -> None:
    (one,) = block(client)["sessions"]
    lay(client, sessions=[one["id"]], shifts=[7, 14])
    weeks = block(client)["weeks"]
    # 13 sets were done in each of three weeks; then 12 are planned, week by week.
    assert [week["base"]["sets"] for week in weeks] == [13, 12.75, 12.5, 12.25]
    assert [week["done"]["sets"] for week in weeks] == [0, 0, 0, 0]


def test_copy_move_and_lay_over(client: FlaskClient) -> None:
    (one,) = block(client)["sessions"]
    copied = lay(client, sessions=[one["id"]], shifts=[2])
    assert planned(client)[0] == 24
    moved = lay(client, sessions=[one["id"]], shifts=[2], move=True)
    # What stood on Wednesday is put aside, and Monday is free.
    assert [session["date"] for session in block(client)["sessions"]] == ["2026-10-14"]
    told = get(client, "/api/journal?athlete=1&undoable=true")["entries"]
    assert [one["says"] for one in told] == [
        "Moved Whole body to Wed 14 Oct",
        "Copied Whole body to Wed 14 Oct",
    ]
    # What was changed since is taken back first.
    at = "/api/journal"
    refused = send(client, "post", f"{at}/{copied['change']}/undo", {}, 409)
    assert "Undo the later change first" in refused["detail"]
    for change in (moved, copied):
        send(client, "post", f"{at}/{change['change']}/undo", {})
    assert [session["date"] for session in block(client)["sessions"]] == ["2026-10-12"]
    assert all(one["undone"] for one in get(client, f"{at}?athlete=1&undoable=true")["entries"])


def test_a_move_keeps_the_text_as_it_was_typed(client: FlaskClient) -> None:
    typed = "# for me alone\nPress 3 x 5\nwhat was that\n"
    body = {"date": "2026-10-13", "title": "Mine", "text": typed}
    row = send(client, "post", f"{NEXT}/written", body, 201)
    lay(client, sessions=[row["id"]], shifts=[2], move=True)
    texts = {one["date"]: one["text"] for one in get(client, f"{NEXT}/written")["sessions"]}
    assert texts["2026-10-15"] == typed
    assert "2026-10-13" not in texts


def test_sets_with_reps_and_seconds_keep_both(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    both = [session(7, sets("Press", 3, reps=8, seconds=50))]
    bring(document([], both, athlete={"name": "D", "bodyweight_kg": 70}))
    place = "/api/athletes/2/weeks/2026-W42"
    (one,) = get(client, f"{place}/block?weeks=3")["sessions"]
    send(client, "post", f"{place}/block/lay", {"sessions": [one["id"]], "shifts": [7]})
    weeks = get(client, f"{place}/block?weeks=3")["weeks"]
    assert weeks[0]["planned"] == weeks[1]["planned"]
    assert weeks[1]["planned"]["tut_s"] == 150


def test_a_lighter_week(client: FlaskClient) -> None:
    (one,) = block(client)["sessions"]
    lay(client, sessions=[one["id"]], shifts=[0], lighter=True)
    assert planned(client)[0] == 3 + 2 + 2
    (row,) = get(client, f"{NEXT}/written")["sessions"]
    assert row["text"].startswith("Press 3 × 10 at 20 kg")


def test_the_block_goes_into_a_calendar_that_another_library_reads(client: FlaskClient) -> None:
    (one,) = block(client)["sessions"]
    lay(client, sessions=[one["id"]], shifts=[7, 9])
    answer = client.get(f"{NEXT}/block/calendar?weeks=4")
    assert answer.content_type == "text/calendar"
    events = list(vobject.readOne(answer.get_data(as_text=True)).vevent_list)
    assert [event.dtstart.value.isoformat() for event in events] == [
        "2026-10-12",
        "2026-10-19",
        "2026-10-21",
    ]
    assert events[0].summary.value == "Whole body"
    assert "Press 5 × 10 at 20 kg" in events[0].description.value
    assert len({event.uid.value for event in events}) == 3


def test_the_block_as_text_reads_back(client: FlaskClient, store_movements: MovementTable) -> None:
    (one,) = block(client)["sessions"]
    lay(client, sessions=[one["id"]], shifts=[7], change={"reps": 1})
    text = client.get(f"{NEXT}/block/text?weeks=4").get_data(as_text=True)
    reading = read(text, store_movements)
    assert reading.mistakes == ()
    assert [session.day.isoformat() for session in reading.sessions if session.day] == [
        "2026-10-12",
        "2026-10-19",
    ]
    assert [
        len(expand(session, Setting(store_movements)).sets) for session in reading.sessions
    ] == [12, 12]


def test_what_a_coach_would_not_see_is_said(client: FlaskClient) -> None:
    kit = get(client, "/api/kit")
    few = {"bars_kg": [20], "plates": [{"kg": 10, "pairs": 4}], "stacks": []}
    few["stacks"] = [
        {"name": "rack", "least_kg": 20, "step_kg": 20, "top_kg": 60, "movements": ["Press"]}
    ]
    send(client, "put", "/api/kit", {"revision": kit["revision"], "kit": few})
    text = "Press 3 x 5 at 40 kg\nfrobnicate 3 x 3\n"
    body = {"date": "2026-10-14", "title": "Short", "text": text}
    one = send(client, "post", f"{NEXT}/written", {**body, "client": "client-0001"}, 201)
    said = lay(client, sessions=[one["id"]], shifts=[7, 14], change={"load": 0.025})["remarks"]
    assert said == [
        "+2.5 % a week does not reach the next load in the kit in 2 weeks: Press (40 kg, then "
        "60 kg). These stay: add a rep a week, or a set.",
        "Short: “frobnicate 3 x 3” is not read. It is laid as text and counts for nothing until it "
        "is mended.",
    ]
    assert (
        lay(client, sessions=[one["id"]], shifts=[21], change={"load": 0.5})["remarks"] == said[1:]
    )


def test_what_is_not_there_is_refused(client: FlaskClient) -> None:
    (one,) = block(client)["sessions"]
    lay(client, 404, sessions=[one["id"], 999], shifts=[7])
    lay(client, 422, sessions=[], shifts=[7])
    lay(client, 422, sessions=[one["id"]], shifts=[400_000])
    lay(client, 422, sessions=[one["id"]], shifts=[7], change={"load": 9})
    assert get(client, f"{NEXT}/block?weeks=4")["sessions"] == [one]
    get(client, f"{NEXT}/block?weeks=2", 422)


TEXT = """warm-up:
Back squat 5 at 40 kg
main:
Back squat 5 at 60 kg, warm-up, then 4 × 5 at 80 kg, rest 120 s
Pull-up 3 × 6–8 help 20 kg
Bench press 3 × 8 at 45 lb
3 rounds, 40 s on:
  Goblet squat at 12 kg
ladder 4, 7, 10:
  Press-up
"""


def test_steps_reach_working_sets_only_and_keep_the_form() -> None:
    (written,) = read(TEXT, MOVEMENTS).sessions
    change = Change(load=0.1, reps=1, sets=1, rest_s=-30)
    more = write(stepped(written, change, MOVEMENTS), movements=MOVEMENTS)
    assert (
        more
        == """warm-up:
Back squat 5 at 40 kg
main:
Back squat 5 at 60 kg, warm-up, then 5 × 6 at 88 kg, rest 90 s
Pull-up 4 × 7–9 help 18 kg
Bench press 4 × 9 at 50 lb
4 rounds, 40 s on:
  Goblet squat at 13 kg
ladder 4, 7, 10:
  Press-up
"""
    )
    less = write(lighter(written), movements=MOVEMENTS)
    assert "4 × 5" not in less
    assert "then 2 × 5 at 80 kg" in less
    assert "2 rounds" in less
    assert "ladder 4, 7:" in less
    assert stepped(written, Change(), MOVEMENTS) == written
    least = stepped(written, Change(sets=-9, reps=-20, rest_s=-600), MOVEMENTS)
    assert read(write(least, movements=MOVEMENTS), MOVEMENTS).mistakes == ()
