"""Log and Floor over the API: reconciled, sent again, sent late, decided; sheets in and out."""

import itertools
import json
import time
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.tempo import parse_tempo
from dialback.simulated.sensor import MISSED, SimulatedSensor
from dialback.store import imports
from dialback.store.models import Athlete, Movement
from tests.build import document, session, sets
from tests.web.test_api import HERE, NEXT, get, send

LOG = f"{NEXT}/log"


@pytest.fixture(autouse=True)
def ada(bring: Callable[..., Any]) -> None:
    bring()


def plan_of(client: FlaskClient) -> Any:
    return get(client, LOG)["sessions"][0]["plan"]


def body(client: FlaskClient, change: str = "change-1", revision: int = 0, **more: Any) -> Any:
    plan = plan_of(client)
    kept = {"date": plan["date"], "title": plan["title"], "sets": plan["sets"], **more}
    return {"change": change, "revision": revision, "plan": plan["id"], "session": kept}


def keep(client: FlaskClient, what: Any, status: int = 200, log: str = "log-one") -> Any:
    return send(client, "put", f"/api/athletes/1/logs/{log}", what, status)


class TestLog:
    def test_planned_and_done_side_by_side(self, client: FlaskClient) -> None:
        (one,) = get(client, f"{HERE}/log")["sessions"]
        assert one["log"]["client_id"].startswith("row-")
        kinds = [line["kind"] for line in one["lines"]]
        assert kinds.count("extra") + kinds.count("as planned") + kinds.count("changed") == len(
            kinds
        )
        assert one["done"]["sets"] == 13
        (ahead,) = get(client, LOG)["sessions"]
        assert (ahead["log"], ahead["ahead"]) == (None, False)
        assert {line["kind"] for line in ahead["lines"]} == {"skipped"}

    def test_each_side_done_apart_has_a_line_for_each_set_and_is_as_planned(
        self, client: FlaskClient, bring: Callable[..., Any]
    ) -> None:
        both = sets("Row", 2, 10, sides="each")
        left, right = (sets("Row", 1, 10, sides=side) for side in ("left", "right"))
        weeks = document(
            [session(0, left, right, left)], [session(0, both)], athlete={"name": "Bea"}
        )
        bring(weeks)
        (one,) = get(client, "/api/athletes/2/weeks/2026-W41/log")["sessions"]
        lines = [(line["kind"], line["at"], line["done_at"]) for line in one["lines"]]
        # No set stands twice, and what is missing of the second is said with it.
        assert lines == [("as planned", 0, 0), ("as planned", None, 1), ("changed", 1, 2)]
        assert one["lines"][2]["words"] == "the right side not done"
        assert one["lines"][0]["planned"] == one["lines"][0]["done"] == "10 reps left"

    def test_two_plans_done_in_one_session_stand_together(
        self, client: FlaskClient, bring: Callable[..., Any]
    ) -> None:
        planned = [session(0, sets("Row", 3), title="A"), session(2, sets("Press", 3), title="B")]
        done = session(0, sets("Row", 3), sets("Press", 3), title="A")
        bring(document([done], planned, athlete={"name": "Bea"}))
        (one,) = get(client, "/api/athletes/2/weeks/2026-W41/log")["sessions"]
        assert one["plan"]["title"] == "A and B"
        assert {line["kind"] for line in one["lines"]} == {"as planned"}
        sheet = get(client, "/api/athletes/2/weeks/2026-W41/sheet?basis=completed")
        assert sheet["sessions_done"] == 2

    def test_as_planned_is_one_request_and_counts(self, client: FlaskClient) -> None:
        saved = keep(client, body(client))
        assert saved == {"revision": 1, "client_id": "log-one", "both_kept": False}
        (one,) = get(client, LOG)["sessions"]
        assert {line["kind"] for line in one["lines"]} == {"as planned"}
        sheet = get(client, f"{NEXT}/sheet")
        assert sheet["sessions"][0]["done"] is True
        totals = {row["subject"]: row["cells"][row["subject"]] for row in sheet["totals"]}
        assert totals["sets"]["done"] == totals["sets"]["planned"] == 12

    def test_the_same_change_twice_is_made_once(self, client: FlaskClient) -> None:
        what = body(client)
        assert keep(client, what) == keep(client, what)
        assert len(get(client, LOG)["sessions"]) == 1

    def test_over_a_newer_one_both_are_kept_and_decided(self, client: FlaskClient) -> None:
        keep(client, body(client))
        keep(client, body(client, "change-2", 1, rpe=7))
        late = body(client, "change-3", 1, rpe=9, sets=body(client)["session"]["sets"][:2])
        assert keep(client, late)["both_kept"] is True
        assert keep(client, late)["both_kept"] is True
        (one,) = get(client, LOG)["sessions"]
        (version,) = one["versions"]
        assert (one["log"]["session"]["rpe"], version["session"]["rpe"]) == (7, 9)
        at = f"/api/athletes/1/versions/{version['id']}/decide"
        send(client, "post", at, {"keep": "other"})
        (one,) = get(client, LOG)["sessions"]
        assert (one["log"]["session"]["rpe"], len(one["log"]["session"]["sets"])) == (9, 2)
        assert one["versions"] == []
        send(client, "post", at, {"keep": "stored"}, 404)

    def test_two_devices_log_one_plan(self, client: FlaskClient) -> None:
        keep(client, body(client))
        assert keep(client, body(client, "change-9", rpe=7), log="log-two")["both_kept"] is True
        assert len(get(client, LOG)["sessions"]) == 1

    def test_two_copies_of_the_same_are_nothing_to_decide(self, client: FlaskClient) -> None:
        """Sent by another device, or over another state: where both agree nobody is asked."""
        keep(client, body(client))
        saved = keep(client, body(client, "change-8"), log="log-two")
        assert (saved["both_kept"], saved["client_id"]) == (False, "log-one")
        assert get(client, LOG)["sessions"][0]["versions"] == []
        other = body(client, "change-9")
        other["session"]["sets"] = other["session"]["sets"][:1]
        assert keep(client, other, log="log-two")["both_kept"] is True

    def test_a_hand_that_goes_on_waits_for_one_decision(self, client: FlaskClient) -> None:
        keep(client, body(client))
        keep(client, body(client, "change-2", 1, rpe=7))
        planned = body(client)["session"]["sets"]
        sent: list[str] = []
        for count in (1, 2, 3):
            late = body(client, f"tap-no-{count}", 1, sets=planned[:count]) | {"after": sent[:]}
            assert keep(client, late)["both_kept"] is True
            sent.append(late["change"])
        (one,) = get(client, LOG)["sessions"]
        (version,) = one["versions"]
        assert len(version["session"]["sets"]) == 3
        (rpe,) = (row for row in version["apart"] if row["what"] == "Exertion")
        assert rpe == {"what": "Exertion", "stored": "7", "other": ""}
        absent = [row for row in version["apart"] if row["other"] == ""]
        assert len(absent) == 1 + len(planned) - 3
        decide = f"/api/athletes/1/versions/{version['id']}/decide"
        send(client, "post", decide, {"keep": "other"})
        more = body(client, "tap-no-4", 1, sets=planned[:4]) | {"after": sent}
        assert keep(client, more)["both_kept"] is False
        assert len(get(client, LOG)["sessions"][0]["log"]["session"]["sets"]) == 4

    def test_a_lost_answer_is_no_second_version(self, client: FlaskClient) -> None:
        keep(client, body(client))
        # The phone never heard of revision 1: it builds on none, but says what it has sent.
        later = body(client, "change-2", 0, rpe=8) | {"after": ["change-1"]}
        assert keep(client, later)["both_kept"] is False
        assert get(client, LOG)["sessions"][0]["log"]["session"]["rpe"] == 8

    def test_the_roster_leads_to_what_waits_for_a_decision(self, client: FlaskClient) -> None:
        assert get(client, "/api/roster")["athletes"][0]["undecided"] is None
        keep(client, body(client))
        keep(client, body(client, "change-9", rpe=7), log="log-two")
        (row,) = get(client, "/api/roster")["athletes"]
        assert row["undecided"] == {"week": "2026-W42", "session": "log-one"}
        (version,) = get(client, LOG)["sessions"][0]["versions"]
        assert version["apart"] == [{"what": "Exertion", "stored": "", "other": "7"}]
        decide = f"/api/athletes/1/versions/{version['id']}/decide"
        send(client, "post", decide, {"keep": "stored"})
        assert get(client, "/api/roster")["athletes"][0]["undecided"] is None

    def test_a_book_keeps_link_pain_and_notes(self, client: FlaskClient) -> None:
        what = body(client, date="2026-10-13", notes="late", pain=[{"note": "knee"}])
        keep(client, what)
        (one,) = get(client, LOG)["sessions"]
        assert one["plan"]["date"] == "2026-10-12"
        kept = json.loads(client.get("/api/athletes/1/book").data)["completed"][-1]
        assert (kept["plan"], kept["notes"], kept["pain"]) == (
            "2026-10-12",
            "late",
            [{"note": "knee"}],
        )
        assert "pain" in {one["code"] for one in get(client, f"{NEXT}/sheet")["findings"]}

    def test_taken_out_and_put_back(self, client: FlaskClient) -> None:
        keep(client, body(client))
        at = "/api/athletes/1/logs/log-one"
        send(client, "post", f"{at}/remove", {})
        assert get(client, LOG)["sessions"][0]["log"] is None
        send(client, "post", f"{at}/remove", {}, 404)
        send(client, "post", f"{at}/restore", {})
        assert get(client, LOG)["sessions"][0]["log"] is not None
        # A tap that arrives after it was taken out is not lost.
        send(client, "post", f"{at}/remove", {})
        assert keep(client, body(client, "change-5", 4, rpe=6))["both_kept"] is False
        assert get(client, LOG)["sessions"][0]["log"]["session"]["rpe"] == 6

    @pytest.mark.parametrize(
        ("more", "says"),
        [
            ({"date": "2026-10-20"}, "lies ahead"), ({"rpe": 11}, "session.rpe"),
            ({"sets": [{"exercise": "Nothing", "reps": 5}]}, "no movement is called"),
            ({"sets": [{"exercise": "Press", "reps": -1}]}, "sets[0].reps"),
        ],
    )  # fmt: skip
    def test_what_is_no_log(self, client: FlaskClient, more: dict[str, Any], says: str) -> None:
        found = keep(client, body(client, **more), 422)
        assert says in json.dumps(found)
        assert get(client, LOG)["sessions"][0]["log"] is None

    def test_short_forms(self, client: FlaskClient) -> None:
        planned = {"exercise": "Press", "reps": 10, "load_kg": 12, "implements": 2}
        for text, wanted in (
            ("11", {"reps": 11}),
            ("at 14 kg", {"load_kg": 14, "implements": 2}),
            ("9 at 10 kg RPE 9", {"reps": 9, "load_kg": 10, "rpe": 9}),
            ("40 s", {"seconds": 40}),
        ):
            found = send(client, "post", f"{LOG}/amend", {"set": planned, "text": text})
            assert found["set"] | wanted == found["set"], text
        level = {"set": {"exercise": "Bench press", "reps": 5}, "text": "harder"}
        assert "has no harder level" in send(client, "post", f"{LOG}/amend", level, 422)["detail"]
        level["set"]["exercise"] = "Press-up, knees down"
        found = send(client, "post", f"{LOG}/amend", {**level, "text": "harder 7 RPE 9"})["set"]
        assert (found["exercise"], found["reps"]) == ("Press-up, hands raised 30 cm", 7)
        wrong = send(client, "post", f"{LOG}/amend", {"set": planned, "text": "RPE 11"}, 422)
        assert "RPE goes from 0 to 10" in wrong["detail"]

    def test_a_doubtful_set_is_kept_and_asked_about(self, client: FlaskClient) -> None:
        """Nothing stops the log; what else the set can have been stands beside it, to be taken."""
        assert all(line["doubt"] is None for line in get(client, LOG)["sessions"][0]["lines"])
        what = body(client)
        usual = what["session"]["sets"][0]["load_kg"]
        what["session"]["sets"][0]["load_kg"] = usual * 10
        keep(client, what)
        (one,) = get(client, LOG)["sessions"]
        asked = [line for line in one["lines"] if line["doubt"]]
        assert [line["done_at"] for line in asked] == [0]
        assert one["log"]["session"]["sets"][0]["load_kg"] == usual * 10
        assert asked[0]["doubt"]["why"].endswith("is that right?")
        other = next(
            other for other in asked[0]["doubt"]["others"] if other["set"]["load_kg"] == usual
        )
        what["session"]["sets"][0] = other["set"]
        keep(client, {**what, "change": "change-2", "revision": 1})
        assert all(line["doubt"] is None for line in get(client, LOG)["sessions"][0]["lines"])

    def test_what_was_done_can_be_written(self, client: FlaskClient) -> None:
        found = send(client, "post", f"{LOG}/read", {"text": "Press 3 × 5 at 20 kg\nNope 3"})
        assert (len(found["sets"]), len(found["mistakes"])) == (3, 1)


class TestFloor:
    def test_todays_sessions_and_all_that_a_run_needs(self, client: FlaskClient) -> None:
        day = get(client, "/api/floor")
        (one,) = day["sessions"]
        assert (day["day"], one["name"], one["done"]) == ("2026-10-12", "Ada Test", False)
        run = get(client, f"/api/floor/run?plan={one['plan']}")
        only = run["run"]
        assert len(only["sets"]) == one["sets"] == 12
        assert only["sets"][0]["movement"] == "Press"
        assert only["log"] is None
        assert "Stop on sharp pain" in run["caution"]
        press = next(each for each in run["movements"] if each["name"] == "Press")
        assert "Bench press" in press["instead"]
        keep(client, body(client))
        assert get(client, "/api/floor")["sessions"][0]["done"] is True
        assert get(client, f"/api/floor/run?plan={one['plan']}")["run"]["log"]["revision"] == 1

    def test_what_was_missed_is_run_today_for_its_plan(
        self, client: FlaskClient, bring: Callable[..., Any]
    ) -> None:
        plans = [session(day, sets("Press", 2), title="Missed") for day in (7, 10)]
        bring(document([], plans, athlete={"name": "Bo", "bodyweight_kg": 70}))
        today = get(client, "/api/floor")["day"]
        (missed,) = (
            one
            for one in get(client, "/api/floor?day=2026-10-15")["sessions"]
            if one["name"] == "Bo"
        )
        run = get(client, f"/api/floor/run?plan={missed['plan']}")["run"]
        assert (run["date"], run["plan"]) == (today, missed["plan"])

    def test_what_cannot_be_run(self, client: FlaskClient) -> None:
        get(client, "/api/floor/run?plan=99", 404)
        get(client, "/api/floor/run?plan=a", 422)
        get(client, "/api/floor?day=soon", 422)

    def test_the_sensor_streams_reps(self, client: FlaskClient) -> None:
        answer = client.get("/api/floor/sensor?reps=5&tempo=3-1-2-0&seed=4&pace=1000")
        assert answer.content_type.startswith("text/event-stream")
        events = [
            json.loads(line[6:])
            for line in answer.get_data(as_text=True).splitlines()
            if line.startswith('data: {"')
        ]
        assert [one["number"] for one in events] == list(range(1, len(events) + 1))
        assert client.get("/api/floor/sensor?tempo=9").status_code == 422


def test_the_simulated_sensor_is_tired_noisy_and_repeatable() -> None:
    tempo = parse_tempo("3-1-2-0")
    seen = list(SimulatedSensor(tempo, 100, 7).events())
    assert seen == list(SimulatedSensor(tempo, 100, 7).events())
    assert 100 * (1 - 4 * MISSED) < len(seen) < 100
    early, late = (sum(one.lifting_s for one in part) / 20 for part in (seen[:20], seen[-20:]))
    assert late > 1.5 * early
    lowering = sum(one.lowering_s for one in seen) / len(seen)
    assert 2.9 < lowering < 3.1
    assert all(a.at_s + a.seconds <= b.at_s + 1e-9 for a, b in itertools.pairwise(seen))


def finished(client: FlaskClient, job: Any) -> Any:
    for _ in range(400):
        if job["finished"]:
            return job
        time.sleep(0.02)
        job = get(client, f"/api/sheets/{job['token']}")
    raise AssertionError("it does not end")


class TestSheets:
    CSV = (
        "date,athlete,session,movement,reps,load,rpe\n"
        "2026-10-06,Ada Test,Extra,press,5,40,8\n"
        "2026-10-06,Ada Test,Extra,rowe,8,20,8\n"
    )

    def read(self, client: FlaskClient, text: str) -> Any:
        answer = client.post(
            "/api/sheets?name=log.csv", data=text.encode(), content_type="application/octet-stream"
        )
        assert answer.status_code == 202
        return finished(client, answer.json)

    def step(self, client: FlaskClient, job: Any, what: str, choice: Any) -> Any:
        return finished(
            client, send(client, "post", f"/api/sheets/{job['token']}/{what}", choice, 202)
        )

    def test_what_is_left_out_can_be_kept(self, client: FlaskClient) -> None:
        job = self.read(client, self.CSV)
        choice = {**job["sheet"]["choice"], "skip": ["rowe"]}
        assert self.step(client, job, "preview", choice)["preview"]["left"] == 1
        kept = client.post(f"/api/sheets/{job['token']}/left", json=choice)
        assert kept.content_type.startswith("text/csv")
        assert "left-out.csv" in kept.headers["Content-Disposition"]
        head, row = kept.get_data(as_text=True).removeprefix("\ufeff").splitlines()
        assert head == self.CSV.splitlines()[0] + ",left out because"
        assert row == self.CSV.splitlines()[2] + ",row 3: skipped for its movement"
        # It is a file like any other: the movement named, it comes in.
        again = self.read(client, kept.get_data(as_text=True))
        named = {**again["sheet"]["choice"], "movements": {"rowe": "Row"}}
        assert self.step(client, again, "preview", named)["preview"]["sets"] == 1

    def test_look_name_store_recognise_and_undo(self, client: FlaskClient) -> None:
        job = self.read(client, self.CSV)
        choice = job["sheet"]["choice"]
        assert job["sheet"]["remembered"] is False
        seen = self.step(client, job, "preview", choice)["preview"]
        assert [one["name"] for one in seen["unknown"]] == ["rowe"]
        refused = self.step(client, job, "store", choice)
        assert "'rowe' is unknown" in refused["problem"]
        choice["movements"] = {"rowe": "Row"}
        seen = self.step(client, job, "preview", choice)["preview"]
        assert (seen["sessions"], seen["sets"], seen["there"]) == (1, 2, 0)
        before = get(client, f"{HERE}/sheet")["totals"][0]["cells"]["sets"]["done"]
        done = self.step(client, job, "store", choice)["stored"]
        assert (done["sessions"], done["sets"]) == (1, 2)
        after = get(client, f"{HERE}/sheet")["totals"][0]["cells"]["sets"]["done"]
        assert after == before + 2
        again = self.read(client, self.CSV)
        assert again["sheet"]["remembered"] is True
        # The name is remembered as an alias, and what is there already is recognised.
        seen = self.step(client, again, "preview", again["sheet"]["choice"])["preview"]
        assert (seen["unknown"], seen["sessions"], seen["there"]) == ([], 0, 1)
        (row,) = get(client, "/api/imports")["imports"]
        assert send(client, "post", f"/api/imports/{row['id']}/undo", {}) == {"sessions": 1}
        assert get(client, f"{HERE}/sheet")["totals"][0]["cells"]["sets"]["done"] == before
        send(client, "post", f"/api/imports/{row['id']}/undo", {}, 404)

    def test_doubtful_rows_are_answered_for_before_they_come_in(self, client: FlaskClient) -> None:
        """One answer for all of them; nothing is stored before it, and it is not remembered."""
        text = (
            "date,athlete,session,movement,reps,load\n"
            "2026-10-06,Ada Test,Extra,Press,5,400\n2026-10-06,Ada Test,Extra,Row,8,500\n"
        )
        job = self.read(client, text)
        choice = job["sheet"]["choice"]
        (doubt,) = self.step(client, job, "preview", choice)["preview"]["doubts"]
        assert (doubt["rows"], doubt["at"], doubt["movements"]) == (2, "row 2", "Press and Row")
        refused = self.step(client, job, "store", choice)["problem"]
        assert refused.startswith("row 2: Press 5 reps, at 400 kg")
        choice["doubts"] = {doubt["key"]: "a tenth of it"}
        seen = self.step(client, job, "preview", choice)["preview"]
        assert seen["doubts"] == []
        assert seen["shown"][0]["sets"] == ["Press: 5 reps, at 40 kg", "Row: 8 reps, at 50 kg"]
        assert self.step(client, job, "store", choice)["stored"]["sets"] == 2
        again = self.read(
            client, text.replace("10-06", "13/10").replace("2026-13/10", "13/10/2026")
        )
        assert again["sheet"]["remembered"] is True
        assert again["sheet"]["choice"]["doubts"] == {}
        # What this file cannot settle, or settles otherwise, is said again.
        assert "the file does not say" in again["sheet"]["why"]["unit"]

    STRANGE = (
        "date,athlete,movement,reps,load\n"
        "2026-10-06,Ada Test,Zercher press,5,40\n"
        "2026-10-06,Ada Test,Foam rolling,8,\n"
        "2026-10-06,Bo Marsh,Row,8,20\n"
        "2026-10-07,Bo Marsh,Zercher press,5,40\n"
    )

    def test_names_are_made_left_out_and_people_taken_on(self, client: FlaskClient) -> None:
        job = self.read(client, self.STRANGE)
        choice = job["sheet"]["choice"]
        seen = self.step(client, job, "preview", choice)["preview"]
        assert [one["name"] for one in seen["unknown"]] == ["Zercher press", "Foam rolling"]
        assert [one["known"] for one in seen["athletes"]] == [False]
        choice |= {"like": {"Zercher press": "Press"}, "skip": ["foam rolling"], "take_on": True}
        seen = self.step(client, job, "preview", choice)["preview"]
        assert (seen["unknown"], seen["problems"]) == ([], [])
        assert (seen["sessions"], seen["sets"]) == (3, 3)
        assert {one["athlete"] for one in seen["shown"]} == {"Ada Test", "Bo Marsh"}
        done = self.step(client, job, "store", choice)["stored"]
        assert (done["sessions"], done["sets"]) == (3, 3)
        names = [row["name"] for row in get(client, "/api/roster")["athletes"]]
        assert "Bo Marsh" in names
        made = next(
            one
            for one in get(client, "/api/movements")["movements"]
            if one["name"] == "Zercher press"
        )
        assert made["pattern"] == "horizontal_push"
        # What was said is of this file alone; the new movement is known from now on.
        again = self.read(client, self.STRANGE)
        assert again["sheet"]["choice"]["skip"] == []
        seen = self.step(client, again, "preview", again["sheet"]["choice"])["preview"]
        assert [one["name"] for one in seen["unknown"]] == ["Foam rolling"]

    def test_undone_in_the_journal_whoever_came_with_it_goes_along(
        self, client: FlaskClient
    ) -> None:
        def names() -> list[str]:
            return [row["name"] for row in get(client, "/api/roster")["athletes"]]

        job = self.read(client, self.STRANGE)
        said = {"like": {"Zercher press": "Press"}, "skip": ["foam rolling"], "take_on": True}
        self.step(client, job, "store", job["sheet"]["choice"] | said)
        entries = get(client, "/api/journal")["entries"]
        came = [one["name"] for one in entries if one["says"] == "Imported logs from a file"]
        assert sorted(came) == ["Ada Test", "Bo Marsh"]
        (change,) = [one for one in entries if one["can_undo"]]
        assert change["says"].startswith("Imported logs from ")
        before = get(client, f"{HERE}/log")
        at = f"/api/journal/{change['id']}"
        send(client, "post", f"{at}/undo", {})
        assert names() == ["Ada Test"]
        assert get(client, f"{HERE}/log") != before
        assert get(client, "/api/imports")["imports"] == []
        send(client, "post", f"{at}/redo", {})
        assert sorted(names()) == ["Ada Test", "Bo Marsh"]
        again = get(client, f"{HERE}/log")
        assert [one["log"] and one["log"]["session"] for one in again["sessions"]] == [
            one["log"] and one["log"]["session"] for one in before["sessions"]
        ]
        # Undone from the files, it is undone in the journal too.
        number = get(client, "/api/imports")["imports"][0]["id"]
        send(client, "post", f"/api/imports/{number}/undo", {})
        send(client, "post", f"/api/imports/{number}/undo", {}, 404)
        send(client, "post", f"{at}/undo", {}, 404)
        assert names() == ["Ada Test"]

    def test_what_fails_leaves_nobody_and_nothing_behind(
        self, client: FlaskClient, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        job = self.read(client, self.STRANGE)
        said = {"like": {"Zercher press": "Press"}, "skip": ["Foam rolling"], "take_on": True}
        choice = job["sheet"]["choice"] | said

        def fails(*_: Any) -> None:
            raise OSError("the disk")

        monkeypatch.setattr(imports, "_bring_in", fails)
        assert self.step(client, job, "store", choice)["problem"]
        assert Athlete.select().count() == 1
        assert not Movement.select().where(Movement.name == "Zercher press").exists()
        wrong = choice | {"like": {"Zercher press": "Nobody"}}
        said = self.step(client, job, "preview", wrong)["problem"]
        assert "'Zercher press' cannot be made" in said

    @pytest.mark.parametrize(
        ("text", "says"),
        [
            ("", "is empty"),
            ("date,movement,reps,athlete\n2026-10-06,Press,5,Nobody\n", "nobody on the roster"),
            ("date,movement,reps,rpe,athlete\n2026-10-06,Press,5,11,Ada Test\n", "row 2, rpe"),
            ("date,movement,reps,athlete\n2027-10-06,Press,5,Ada Test\n", "lies ahead"),
        ],
    )
    def test_all_or_nothing(self, client: FlaskClient, text: str, says: str) -> None:
        before = get(client, f"{HERE}/log")
        answer = client.post(
            "/api/sheets", data=text.encode() or b" ", content_type="application/octet-stream"
        )
        job = finished(client, answer.json)
        if job["problem"] is None:
            job = self.step(client, job, "store", job["sheet"]["choice"])
        assert says in job["problem"]
        assert get(client, f"{HERE}/log") == before

    def test_out_and_in_again_nothing_is_new(self, client: FlaskClient) -> None:
        for what in ("log.csv", "log.xlsx"):
            data = client.get(f"/api/athletes/1/{what}?first=2026-10-05").data
            answer = client.post("/api/sheets", data=data, content_type="application/octet-stream")
            job = finished(client, answer.json)
            seen = self.step(client, job, "preview", job["sheet"]["choice"])["preview"]
            assert (seen["sessions"], seen["there"], seen["problem_count"]) == (0, 1, 0)
        get(client, "/api/athletes/1/log.csv?first=2026-10-05&last=2026-10-01", 422)
        book = json.loads(client.get("/api/athletes/1/book?last=2026-09-30").data)
        assert max(one["date"] for one in book["completed"]) < "2026-10-01"


def test_a_plan_on_the_running_week_is_not_missed_yet(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    plans = [session(7, sets("Press", 3)), session(9, sets("Row", 3)), session(4, sets("Row", 3))]
    bring(document([session(4, sets("Row", 3, rpe=8))], plans, athlete={"name": "Running"}))
    found = get(client, "/api/athletes/2/weeks/2026-W42/sheet")["findings"]
    assert [one["code"] for one in found if one["code"] in ("missed", "off_plan")] == []
