"""Write: sessions as text over the API."""

from collections.abc import Callable
from datetime import date
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.weeks import Week
from tests.build import document
from tests.web.test_api import NEXT, get, send

TEXT = "Press 5 × 5 at 22 kg, rest 90 s\nRow 4 × 8 each side at 16 kg, rest 60 s\n"


@pytest.fixture(autouse=True)
def ada(bring: Callable[..., Any]) -> None:
    bring()


def body(text: str = TEXT, **more: Any) -> dict[str, Any]:
    return {"date": "2026-10-14", "title": "Middle", "text": text, **more}


def test_plans_that_were_not_written_have_a_text_that_counts_alike(client: FlaskClient) -> None:
    (one,) = get(client, f"{NEXT}/written")["sessions"]
    assert one["text"] == "Press 5 × 10 at 20 kg\nRow 3 × 10 at 20 kg\nSquat 4 × 10 at 60 kg\n"
    before = get(client, f"{NEXT}/sheet?basis=planned")
    saved = {"date": one["date"], "title": one["title"], "text": one["text"], "revision": 1}
    assert send(client, "put", f"{NEXT}/written/{one['id']}", saved) == {"revision": 2}
    assert get(client, f"{NEXT}/sheet?basis=planned") == before


def test_a_text_is_measured_by_line_and_in_its_week(client: FlaskClient) -> None:
    found = send(client, "post", f"{NEXT}/written/check", body())
    assert found["mistakes"] == []
    assert found["sets"] == 9
    assert found["totals"]["sets"] == 9
    assert found["totals"]["volume_load_kg"] == 5 * 5 * 22 + 4 * 16 * 16
    assert [one["sets"] for one in found["lines"]] == [5, 4]
    # 5 x 5 x 4 s and 4 x 16 x 3 s of work, and the rests between: none behind the last set.
    assert found["work_s"] == 100 + 192
    assert found["minutes"] == pytest.approx((292 + 5 * 90 + 3 * 60) / 60)
    # The week has the session of Monday too: 12 sets.
    assert found["week"]["total"] == 21
    assert {one["code"] for one in found["week"]["findings"]} >= {"jump", "load_step"}
    assert found["new_movements"] == []
    new = send(client, "post", f"{NEXT}/written/check", body("Hinge 3 × 5 at 60 kg"))
    assert new["new_movements"] == ["Hinge"]


def test_mistakes_have_their_place_and_the_rest_counts(client: FlaskClient) -> None:
    found = send(client, "post", f"{NEXT}/written/check", body("Hing 3 × 5\nsquta 3 × 5"))
    (mistake,) = found["mistakes"]
    assert (mistake["line"], mistake["column"], mistake["length"]) == (2, 1, 5)
    assert "no movement is called" in mistake["message"]
    assert found["sets"] == 3


def test_add_change_take_out_and_put_back(client: FlaskClient) -> None:
    row = send(client, "post", f"{NEXT}/written", body(), 201)
    place = f"{NEXT}/written/{row['id']}"
    assert [one["title"] for one in get(client, f"{NEXT}/written")["sessions"]] == [
        "Whole body",
        "Middle",
    ]
    text = "# lighter\n" + TEXT.replace("22 kg", "20 kg") + "what was that"
    changed = body(text, revision=1, date="2026-10-16")
    assert send(client, "put", place, changed)["revision"] == 2
    again = get(client, f"{NEXT}/written")["sessions"][1]
    assert (again["text"], again["date"]) == (text, "2026-10-16")
    sheet = get(client, f"{NEXT}/sheet?basis=planned")
    assert sheet["totals"][0]["cells"]["sets"]["planned"] == 21
    other = {**changed, "title": "Another"}
    assert "overwritten" in send(client, "put", place, other, 409)["detail"]
    assert send(client, "post", f"{place}/remove", {"revision": 2})["revision"] == 3
    assert len(get(client, f"{NEXT}/written")["sessions"]) == 1
    send(client, "put", place, {**changed, "revision": 3}, 404)
    send(client, "post", f"{place}/restore", {"revision": 3})
    assert get(client, f"{NEXT}/written")["sessions"][1]["text"] == text


def test_what_does_not_fit_is_refused(client: FlaskClient) -> None:
    for wrong, word in (
        (body(date="2026-10-05"), "is not in 2026-W42"),
        (body(date="14 Oct"), "not a day"),
        (body("Press 5 × 5\n" * 500), "more than a session"),
        (body("x" * 100_001), "text"),
    ):
        answer = send(client, "post", f"{NEXT}/written/check", wrong, 422)
        assert word in answer["detail"], answer
    send(client, "put", f"{NEXT}/written/99", body(revision=1), 404)
    long = send(client, "post", f"{NEXT}/written/check", body("Press 5\n" * 10_000))
    assert "at most 2000 lines" in long["mistakes"][0]["message"]


def test_names_stand_by_use_and_then_by_name(client: FlaskClient) -> None:
    names = get(client, f"{NEXT}/movements")["movements"]
    assert [(one["name"], one["uses"]) for one in names[:3]] == [
        ("Press", 18),
        ("Squat", 12),
        ("Row", 9),
    ]
    rest = [one["name"] for one in names[3:]]
    assert rest == sorted(rest)


def test_a_further_day_is_no_part_of_the_session(client: FlaskClient) -> None:
    """What stands below another day is marked, and does not count here."""
    text = "2026-10-05 Legs\nHinge 3 × 5\nWed: Press 3 × 8\nPress 20"
    found = send(client, "post", f"{NEXT}/written/check", body(text))
    assert [(one["line"], "another day begins" in one["message"]) for one in found["mistakes"]] == [
        (3, True)
    ]
    assert found["sets"] == 3


def test_a_refused_line_comes_with_lines_that_are_read(client: FlaskClient) -> None:
    found = send(client, "post", f"{NEXT}/written/check", body("Press 8 8\nPres 3 x 5 @8"))
    instead = [one["instead"] for one in found["mistakes"]]
    assert instead[0][0] == "Press 8, 8"
    for line in (one for several in instead for one in several):
        assert send(client, "post", f"{NEXT}/written/check", body(line))["mistakes"] == []


def test_what_is_not_read_goes_along_and_says_so(client: FlaskClient) -> None:
    """In the block, on the floor, through copies and repeats with a step, in a template."""
    text = "Press 3 × 8 at 20 kg\nSledge up the hill 3 times\n# mind the rain\nRow 3 × 8"
    row = send(client, "post", f"{NEXT}/written", body(text, date="2026-10-15"), 201)
    lost = ["Sledge up the hill 3 times"]

    def cells(week: str) -> list[dict[str, Any]]:
        found = get(client, f"/api/athletes/1/weeks/{week}/block?weeks=3")["sessions"]
        days = Week.parse(week)
        return [
            one
            for one in found
            if one["title"] == "Middle" and Week.of(date.fromisoformat(one["date"])) == days
        ]

    (cell,) = cells("2026-W42")
    assert (cell["unread"], cell["sets"]) == (lost, 6)
    run = get(client, f"/api/floor/run?plan={row['id']}")["run"]
    assert (run["unread"], len(run["sets"])) == (lost, 6)
    lay = {"sessions": [row["id"]], "shifts": [7, 14], "change": {"sets": 1}}
    send(client, "post", f"{NEXT}/block/lay", lay, 200)
    for week in ("2026-W43", "2026-W44"):
        (again,) = cells(week)
        assert again["unread"] == lost
        assert again["sets"] > cell["sets"]
        (written,) = [
            one
            for one in get(client, f"/api/athletes/1/weeks/{week}/written")["sessions"]
            if one["id"] == again["id"]
        ]
        assert "# mind the rain" in written["text"]
    kept = {"name": "Hill", "weeks": 1}
    send(client, "post", "/api/athletes/1/weeks/2026-W43/template", kept, 201)
    (template,) = get(client, "/api/templates")["templates"]
    assert template["unread"] == lost


DAYS = """# a block from the e-mail
Legs first
2026-10-14 Legs
Hinge 3 × 5
what was that
Fri 16 Oct: Press 3 × 8
Press 20
Wed 21 Oct Push, main:
Press 5 × 5"""


def test_the_days_of_a_text_become_sessions_of_their_own(client: FlaskClient) -> None:
    """Each day below its own date, nothing lost, and all of it taken back at once."""
    there = send(client, "post", f"{NEXT}/written", body("Squat 3 × 5", date="2026-10-16"), 201)
    row = send(client, "post", f"{NEXT}/written", body(DAYS, date="2026-10-14"), 201)
    found = send(client, "post", f"{NEXT}/written/check", body(DAYS, session=row["id"]))
    assert [(one["date"], one["title"], one["sets"]) for one in found["days"]] == [
        ("2026-10-14", "Legs", 3),
        ("2026-10-16", "", 4),
        ("2026-10-21", "Push", 5),
    ]
    assert [one["instead_of"] for one in found["days"]] == [[], [there["title"]], []]
    # As long as it is one session, all of a further day stands there as text alone.
    run = get(client, f"/api/floor/run?plan={row['id']}")["run"]
    further = DAYS.split("\n")[5:]
    assert run["unread"] == ["Legs first", "what was that", *further]
    days = f"{NEXT}/written/{row['id']}/days"
    send(client, "post", days, {"revision": 0}, 409)
    made = send(client, "post", days, {"revision": row["revision"]}, 201)
    assert [(one["date"], one["title"], one["text"]) for one in made["sessions"]] == [
        ("2026-10-14", "Legs", "# a block from the e-mail\nLegs first\nHinge 3 × 5\nwhat was that"),
        ("2026-10-16", "", "Press 3 × 8\nPress 20"),
        ("2026-10-21", "Push", "main:\nPress 5 × 5"),
    ]
    week = get(client, f"{NEXT}/written")["sessions"]
    assert [one["id"] for one in week if one["date"] in ("2026-10-14", "2026-10-16")] == [
        one["id"] for one in made["sessions"][:2]
    ]
    for one in made["sessions"]:
        assert send(client, "post", f"{NEXT}/written/check", body(one["text"]))["days"] == []
    send(client, "post", f"/api/journal/{made['change']}/undo", {})
    again = {one["id"] for one in get(client, f"{NEXT}/written")["sessions"]}
    assert {row["id"], there["id"]} <= again


def test_a_text_that_names_another_day_than_its_own_is_moved_there(client: FlaskClient) -> None:
    text = "Thu 15 Oct Legs\nHinge 3 × 5"
    row = send(client, "post", f"{NEXT}/written", body(text, date="2026-10-14"), 201)
    found = send(client, "post", f"{NEXT}/written/check", body(text, session=row["id"]))
    assert [one["date"] for one in found["days"]] == ["2026-10-15"]
    days = f"{NEXT}/written/{row['id']}/days"
    made = send(client, "post", days, {"revision": row["revision"]}, 201)
    assert [(one["date"], one["text"]) for one in made["sessions"]] == [
        ("2026-10-15", "Hinge 3 × 5")
    ]
    (only,) = made["sessions"]
    send(client, "post", f"{NEXT}/written/{only['id']}/days", {"revision": only["revision"]}, 422)
    twice = "2026-10-14 Legs\nHinge 5\n2026-10-14 Push\nPress 5"
    row = send(client, "post", f"{NEXT}/written", body(twice, date="2026-10-14"), 201)
    refused = send(client, "post", f"{NEXT}/written/{row['id']}/days", {"revision": 1}, 422)
    assert "there twice" in refused["detail"]


def test_what_is_chosen_three_times_is_taken_as_said(client: FlaskClient) -> None:
    """For all numbers of that form, in the house; another choice, or asking again, ends it."""
    check, habits = f"{NEXT}/written/check", "/api/athletes/1/habits"

    def asked(text: str) -> Any:
        (mistake,) = send(client, "post", check, body(text))["mistakes"]
        return mistake

    one = asked("Press 8 8")
    place = one["instead"].index("Press 8, 8")
    choice = {"form": one["form"], "answer": one["answers"][place]}
    assert [send(client, "post", habits, choice)["taken"] for _ in range(3)] == [False, False, True]
    latest = get(client, "/api/journal")["entries"][0]["says"]
    assert latest == "Takes “# # → #, #” as said from now on"
    assert asked("Hinge 12 10")["habit"] == asked("Hinge 12 10")["instead"].index("Hinge 12, 10")
    send(client, "post", habits, {**choice, "answer": "# # → # x #"})
    assert asked("Press 8 8")["habit"] is None
    for _ in range(3):
        send(client, "post", habits, choice)
    assert asked("Press 8 8")["habit"] == place
    send(client, "post", f"{habits}/forget", choice)
    assert asked("Press 8 8")["habit"] is None


def test_what_an_athlete_does_is_a_habit_of_their_own(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    bring(document(athlete={"name": "Bea", "bodyweight_kg": 60}))

    def asked(athlete: int) -> Any:
        path = f"/api/athletes/{athlete}/weeks/2026-W42/written/check"
        (doubt,) = send(client, "post", path, body("Press-up 400"))["doubts"]
        return doubt

    one = asked(1)
    assert one["answers"][-1] == "as written"
    for _ in range(3):
        choice = {"form": one["form"], "answer": "a tenth of the reps"}
        send(client, "post", "/api/athletes/1/habits", choice)
    assert (asked(1)["habit"], asked(2)["habit"]) == (
        one["answers"].index("a tenth of the reps"),
        None,
    )
    send(client, "post", "/api/athletes/9/habits", choice, 404)
