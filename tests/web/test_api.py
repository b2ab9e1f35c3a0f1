"""The API through the real application on a real data file."""

from collections.abc import Callable
from typing import Any, ClassVar

import pytest
from flask.testing import FlaskClient

from dialback.core.rules import RULES
from dialback.store.models import Acceptance, Athlete, Draft, Movement, Session
from tests.build import document, session, sets
from tests.conftest import a_book

Bring = Callable[..., Any]
HERE = "/api/athletes/1/weeks/2026-W41"
NEXT = "/api/athletes/1/weeks/2026-W42"


@pytest.fixture(autouse=True)
def ada(bring: Bring) -> None:
    assert bring().status_code == 201


def get(client: FlaskClient, path: str, status: int = 200) -> Any:
    answer = client.get(path)
    assert answer.status_code == status, answer.get_data(as_text=True)
    return answer.json


def send(client: FlaskClient, method: str, path: str, body: Any, status: int = 200) -> Any:
    answer = getattr(client, method)(path, json=body)
    assert answer.status_code == status, answer.get_data(as_text=True)
    return answer.json


class TestRoster:
    def test_a_line_has_what_the_week_needs(self, client: FlaskClient) -> None:
        found = get(client, "/api/roster")
        (row,) = found["athletes"]
        assert (found["week"], found["monday"]) == ("2026-W41", "2026-10-05")
        assert row["counts"]["high"] > 0
        assert (row["first"].endswith((".", "?")), row["first_kind"]) == (True, "open")
        assert [one["done"] for one in row["columns"]][-3:] == [13, 13, 13]
        assert (row["sessions_done"], row["share_done"]) == (1, pytest.approx(13 / 12))
        assert row["signed_week"] is None

    def test_the_one_who_needs_the_coach_stands_first(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        quiet = {name: [0, 99] for name in ("chest", "side_delts")}
        bring(
            document(
                [session(0, sets("Skip", reps=None, seconds=9))],
                athlete={"name": "Aaron Quiet"},
                rules={"muscle_bands": quiet},
            )
        )
        bring({**a_book(), "completed": []}, "?name=Zoe%20Idle")
        names = [row["name"] for row in get(client, "/api/roster")["athletes"]]
        # She has a plan of last week and no log of it: that is news, and what stands is not.
        assert names == ["Zoe Idle", "Ada Test", "Aaron Quiet"]

    def test_who_has_no_log_of_the_week_is_judged_on_it_all_the_same(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        """The week before, with its findings, is not shown under this one's name."""
        pushed = session(-7, sets("Press", 12), rpe=8, title="A")
        bring(
            document(
                [session(-14, sets("Press")), pushed],
                [session(0, sets("Press", 4)), session(2, sets("Row", 4))],
                athlete={"name": "Old", "bodyweight_kg": 70},
            )
        )
        row = next(one for one in get(client, "/api/roster")["athletes"] if one["name"] == "Old")
        assert (row["week"], row["last_log"]) == ("2026-W41", "2026-W40")
        assert (row["sessions_done"], row["sessions_planned"]) == (0, 2)
        assert "missed" in row["first"]
        assert row["columns"][-1]["done"] == 0

    def test_what_hurt_since_stands_first(self, client: FlaskClient, bring: Bring) -> None:
        bring(query="?name=Well")
        bring()
        athlete = next(
            one["id"] for one in get(client, "/api/roster")["athletes"] if one["name"] == "Ada Test"
        )
        log = {
            "change": "change-0001",
            "revision": 0,
            "session": {
                "date": "2026-10-12",
                "sets": [{"exercise": "Squat", "reps": 5}],
                "pain": [{"exercise": "Squat", "note": "right knee"}],
            },
        }
        send(client, "put", f"/api/athletes/{athlete}/logs/0123abcd-0001", log)
        first = get(client, "/api/roster")["athletes"][0]
        words = "Pain on Mon 12 Oct at Squat: right knee"
        assert (first["name"], first["hurt"], first["first"]) == ("Ada Test", True, words)
        # It stands in the head of every place, next week's Write and Dial among them.
        mark = {"day": "2026-10-12", "movement": "Squat", "words": words}
        for week in ("2026-W41", "2026-W42", "2026-W43"):
            assert get(client, f"/api/athletes/{athlete}/weeks/{week}")["hurts"] == [mark]

    def test_what_hurt_stands_until_somebody_has_looked_at_it(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        """And said what follows; that can be withdrawn, and what hurts anew stands anew."""
        hurt = {"date": "2026-10-12", "sets": [{"exercise": "Squat", "reps": 5}]}
        hurt["pain"] = [{"exercise": "Squat", "note": "right knee"}, {"note": "dizzy"}]
        log = {"change": "change-0001", "revision": 0, "session": hurt}
        send(client, "put", "/api/athletes/1/logs/0123abcd-0001", log)
        place, seen = "/api/athletes/1/weeks/2026-W43", "/api/athletes/1/decisions/pain"

        def hurts() -> list[str | None]:
            return [one["movement"] for one in get(client, place)["hurts"]]

        assert hurts() == ["Squat", None]
        looked = {"day": "2026-10-12", "movement": "Squat", "follows": "Physio on Monday"}
        send(client, "post", seen, {**looked, "movement": "Press"}, 404)
        decisions = send(client, "post", seen, looked)["decisions"]
        assert [one["words"] for one in decisions] == ["Pain on Mon 12 Oct at Squat: seen"]
        assert hurts() == [None]
        assert get(client, "/api/roster")["athletes"][0]["first"] == "Pain on Mon 12 Oct: dizzy"
        send(client, "post", seen, {**looked, "movement": None})
        assert hurts() == []
        assert get(client, "/api/roster")["athletes"][0]["first_kind"] != "new"
        number = decisions[0]["id"]
        send(client, "post", f"/api/athletes/1/decisions/{number}/end", {})
        assert hurts() == ["Squat"]

    def test_who_logged_nothing_is_named(self, client: FlaskClient, bring: Bring) -> None:
        """In the week that is audited, unless it is said why; and today."""
        late = a_book()
        late["completed"] = [one for one in late["completed"] if one["date"] < "2026-10-05"]
        bring(late, "?name=Late")
        rows = {one["name"]: one for one in get(client, "/api/roster")["athletes"]}
        assert (rows["Ada Test"]["unlogged"], rows["Late"]["unlogged"]) == (0, 1)
        assert rows["Late"]["sessions_done"] == 0
        log = get(client, f"/api/athletes/{rows['Late']['id']}/weeks/2026-W41/log")
        (missing,) = [one["plan"]["id"] for one in log["sessions"] if one["log"] is None]
        why = {"plan": missing, "why": "ill", "note": ""}
        path = f"/api/athletes/{rows['Late']['id']}/weeks/2026-W41/log/missed"
        send(client, "put", path, why)
        rows = {one["name"]: one for one in get(client, "/api/roster")["athletes"]}
        assert rows["Late"]["unlogged"] == 0

    def test_a_week_of_which_nothing_is_done_yet_is_not_signed(self, client: FlaskClient) -> None:
        refused = send(client, "put", f"{NEXT}/signature", {"name": "Ines"}, 409)
        assert "Nothing has been done in week 42 yet" in refused["detail"]
        assert get(client, f"{NEXT}/sheet")["nothing_done"] is True
        assert get(client, f"{HERE}/sheet")["nothing_done"] is False

    def test_planned_and_done_stand_side_by_side(self, client: FlaskClient) -> None:
        sheet = get(client, f"{HERE}/sheet")
        assert sheet["baseline_weeks"] == ["2026-W39", "2026-W40"]
        totals = {row["subject"]: row["cells"][row["subject"]] for row in sheet["totals"]}
        assert (totals["sets"]["planned"], totals["sets"]["done"]) == (12, 13)
        assert totals["sets"]["change"] == 0
        chest = next(row for row in sheet["muscles"] if row["subject"] == "chest")
        assert chest["band"] == {"low": 8, "high": 20}
        assert sheet["findings"][chest["findings"][0]]["subject"] == "chest"
        press = next(row for row in sheet["movements"] if row["subject"] == "Press")
        assert press["cells"]["top_load_kg"]["done"] == 20
        pair = next(one for one in sheet["pairs"] if one["subject"] == "push_pull")
        assert pair["measures"]["sets"]["done"] == {"a": 6, "b": 3, "ratio": 2}
        assert pair["measures"]["sets"]["planned"]["a"] == 5

    def test_sessions_are_done_ahead_or_missed(self, client: FlaskClient, bring: Bring) -> None:
        (done,) = get(client, f"{HERE}/sheet")["sessions"]
        assert (done["planned"], done["done"], done["ahead"], done["rpe"]) == (True, True, False, 7)
        (ahead,) = get(client, f"{NEXT}/sheet")["sessions"]
        assert (ahead["done"], ahead["ahead"]) == (False, True)
        bring(
            document([session(1, sets("Curl"))], [session(0, sets("Press"))], athlete={"name": "C"})
        )
        missed, extra = get(client, "/api/athletes/2/weeks/2026-W41/sheet")["sessions"]
        assert (missed["done"], missed["ahead"]) == (False, False)
        assert (extra["planned"], extra["done"]) == (False, True)

    def test_the_basis_changes_what_is_judged(self, client: FlaskClient) -> None:
        done, planned = (
            get(client, f"{HERE}/sheet?basis={one}") for one in ("completed", "planned")
        )
        assert done["muscles"][0]["cells"]["sets"]["change"] == 0
        assert planned["muscles"][0]["cells"]["sets"]["change"] == pytest.approx(-1 / 6)

    def test_the_worst_findings_stand_first(self, client: FlaskClient) -> None:
        found = get(client, f"{HERE}/sheet")
        assert found["causes"]
        for cause in found["causes"]:
            levels = [found["findings"][at]["level"] for at in cause["findings"]]
            assert levels == sorted(levels, key=["high", "caution", "note"].index)
            assert cause["level"] == levels[0]
        # Cause by cause, the heaviest first, and nothing twice.
        order = [at for cause in found["causes"] for at in cause["findings"]]
        assert order == list(range(len(order)))

    def test_a_week_with_nothing(self, client: FlaskClient) -> None:
        sheet = get(client, "/api/athletes/1/weeks/2030-W01/sheet")
        assert (sheet["sessions"], sheet["findings"]) == ([], [])

    def test_the_frame(self, client: FlaskClient) -> None:
        frame = get(client, HERE)
        assert (frame["before"], frame["after"], frame["over"]) == ("2026-W40", "2026-W42", True)
        assert get(client, NEXT)["over"] is False

    def test_every_figure_opens_its_trail(self, client: FlaskClient) -> None:
        sheet = get(client, f"{HERE}/sheet")
        cells = [
            cell
            for part in ("totals", "muscles", "movements")
            for row in sheet[part]
            for cell in row["cells"].values()
        ]
        assert len(cells) > 60
        for cell in cells:
            trail = get(client, f"{HERE}/trail?figure={cell['figure']}")
            assert trail["value"] == pytest.approx(cell["done"]), cell["figure"]
            assert trail["history"][-1]["done"] == pytest.approx(cell["done"])
            if trail["is_sum"]:
                assert sum(one["credit"] for one in trail["sets"]) == pytest.approx(cell["done"])

    def test_every_finding_opens_its_trail(self, client: FlaskClient) -> None:
        findings = get(client, f"{HERE}/sheet")["findings"]
        opened = [
            get(client, f"{HERE}/trail?figure={figure}&days={','.join(finding['days'])}")
            for finding in findings
            for figure in finding["figures"]
        ]
        assert len(opened) >= len(findings) > 0
        # A floor may have nothing behind it; an imbalance is made of sets.
        assert any(trail["sets"] for trail in opened)


class TestJudging:
    KEY: ClassVar = {
        "basis": "completed",
        "code": "balance",
        "subject": "push_pull",
        "measure": "sets",
    }

    def find(self, client: FlaskClient) -> Any:
        sheet = get(client, f"{HERE}/sheet")
        return next(one for one in sheet["findings"] if one["subject"] == "push_pull")

    def test_accept_with_a_reason_and_open_again(self, client: FlaskClient) -> None:
        send(client, "post", f"{HERE}/acceptances", {**self.KEY, "reason": "A pushing block."})
        found = self.find(client)
        assert (found["accepted"], found["reason"]) == (True, "A pushing block.")
        send(client, "post", f"{HERE}/acceptances/withdraw", self.KEY)
        assert self.find(client)["accepted"] is False
        send(client, "post", f"{HERE}/acceptances/withdraw", self.KEY, 404)

    def test_a_cause_is_accepted_with_all_that_follows(self, client: FlaskClient) -> None:
        before = get(client, "/api/roster")["athletes"][0]["counts"]
        sheet = get(client, f"{HERE}/sheet")
        at = next(at for at, one in enumerate(sheet["causes"]) if len(one["findings"]) > 1)
        cause = sheet["causes"][at]
        key = {"basis": "completed", "code": cause["code"], "subject": cause["subject"]}
        send(client, "post", f"{HERE}/acceptances/cause", {**key, "reason": "Meant so."})
        sheet = get(client, f"{HERE}/sheet")
        assert sheet["causes"][at]["accepted"] is True
        told = [sheet["findings"][place] for place in cause["findings"]]
        assert {(one["accepted"], one["reason"]) for one in told} == {(True, "Meant so.")}
        counts = get(client, "/api/roster")["athletes"][0]["counts"]
        assert counts["accepted"] == 1
        assert counts["high"] + counts["caution"] == before["high"] + before["caution"] - 1
        send(client, "post", f"{HERE}/acceptances/cause/withdraw", key)
        assert get(client, "/api/roster")["athletes"][0]["counts"] == before
        gone = {**key, "subject": "nothing", "reason": "x"}
        send(client, "post", f"{HERE}/acceptances/cause", gone, 404)

    def test_an_accepted_finding_that_grows_is_open_again(self, client: FlaskClient) -> None:
        send(client, "post", f"{HERE}/acceptances", {**self.KEY, "reason": "Meant."})
        Acceptance.update(value=1.9).execute()
        found = self.find(client)
        assert (found["accepted"], found["reason"]) == (False, "Meant.")

    def test_only_what_is_found_can_be_accepted(self, client: FlaskClient) -> None:
        wrong = {**self.KEY, "subject": "knee_hip", "code": "jump", "reason": "x"}
        send(client, "post", f"{HERE}/acceptances", wrong, 404)
        send(client, "post", f"{HERE}/acceptances", {**self.KEY, "reason": ""}, 422)

    def test_sign_off_and_take_back(self, client: FlaskClient) -> None:
        send(client, "put", f"{HERE}/signature", {"name": "Ines"})
        assert get(client, f"{HERE}/sheet")["signature"] == {
            "name": "Ines",
            "day": "2026-10-12",
            "kept": True,
            "since": [],
        }
        assert get(client, "/api/roster")["athletes"][0]["signed_week"] == "2026-W41"
        assert client.delete(f"{HERE}/signature").status_code == 200
        assert get(client, f"{HERE}/sheet")["signature"] is None


class TestDial:
    def test_a_draft_begins_with_the_plan(self, client: FlaskClient) -> None:
        draft = get(client, f"{NEXT}/draft")
        assert (draft["origin"], draft["revision"], draft["start_total"]) == ("plan", 0, 12)
        assert [line["count"] for line in draft["sessions"][0]["lines"]] == [5, 3, 4]
        assert [one["movement"] for one in draft["audit"]["lines"][0]] == ["Press", "Row", "Squat"]
        assert draft["audit"]["cleared"] == draft["audit"]["appeared"] == []

    @pytest.mark.parametrize(("planned", "origin"), [(True, "last plan"), (False, "last log")])
    def test_or_with_the_week_before(
        self, client: FlaskClient, bring: Bring, planned: bool, origin: str
    ) -> None:
        week = [session(0, sets("Press", 2, rpe=9))]
        bring(document(week, week if planned else [], athlete={"name": "B", "bodyweight_kg": 9}))
        draft = get(client, "/api/athletes/2/weeks/2026-W42/draft")
        assert (draft["origin"], draft["origin_week"]) == (origin, "2026-W41")
        assert draft["sessions"][0]["date"] == "2026-10-12"
        # What was felt in a log is not planned; what was planned is.
        assert draft["sessions"][0]["lines"][0]["units"][0][0]["rpe"] == (9 if planned else None)
        empty = get(client, "/api/athletes/2/weeks/2030-W42/draft")
        assert (empty["origin"], empty["sessions"]) == ("empty", [])

    def test_the_audit_answers_with_what_clears_and_appears(self, client: FlaskClient) -> None:
        sessions = get(client, f"{NEXT}/draft")["sessions"]
        sessions[0]["lines"][1]["count"] = 6
        found = send(client, "post", f"{NEXT}/draft/audit", {"sessions": sessions})
        assert found["total"] == 15
        cleared = {(one["code"], one["subject"]) for one in found["cleared"]}
        assert ("balance", "push_pull") in cleared
        assert found["totals"][0]["cells"]["sets"]["planned"] == 15
        assert found["totals"][0]["cells"]["sets"]["done"] == 12
        assert found["appeared"]

    def test_the_dial_scales_and_has_notches(self, client: FlaskClient) -> None:
        sessions = get(client, f"{NEXT}/draft")["sessions"]
        turned = send(client, "post", f"{NEXT}/draft/dial", {"sessions": sessions, "setting": 6})
        assert sum(line["count"] for line in turned["sessions"][0]["lines"]) == 6
        assert (turned["audit"]["total"], turned["setting"]) == (6, 6)
        found = send(client, "post", f"{NEXT}/draft/notches", {"sessions": sessions})
        assert found["start"] == 12
        assert {one["effect"] for one in found["notches"]} == {"clears", "appears"}

    def test_beyond_the_running_week_plans_stand_for_the_log(self, client: FlaskClient) -> None:
        later = "/api/athletes/1/weeks/2026-W43"
        near, far = (get(client, f"{place}/draft")["audit"] for place in (NEXT, later))
        assert (near["as_planned"], far["as_planned"]) == (False, True)
        assert near["totals"][0]["cells"]["sets"]["base"] == 13
        assert far["totals"][0]["cells"]["sets"]["base"] == (3 * 13 + 12) / 4

    def test_store_publish_and_reset(self, client: FlaskClient) -> None:
        draft = get(client, f"{NEXT}/draft")
        sessions = draft["sessions"]
        sessions[0]["lines"][0]["units"][0][0]["load_kg"] = 22.5
        sessions[0]["lines"][0]["units"][0][0]["colour"] = "kept"
        body = {"sessions": sessions, "revision": 0, "start_total": draft["start_total"]}
        assert send(client, "put", f"{NEXT}/draft", body) == {"revision": 1}
        again = get(client, f"{NEXT}/draft")
        assert (again["origin"], again["revision"]) == ("saved", 1)
        assert again["sessions"][0]["lines"][0]["units"][0][0]["load_kg"] == 22.5
        assert again["sessions"][0]["lines"][0]["units"][0][0]["colour"] == "kept"
        assert again["shape"] == again["sessions"]
        turned = {**body, "sessions": sessions[:1], "shape": draft["sessions"], "revision": 1}
        send(client, "put", f"{NEXT}/draft", turned)
        assert get(client, f"{NEXT}/draft")["shape"] == draft["sessions"]
        send(client, "post", f"{NEXT}/draft/reset", {"revision": 2})
        assert get(client, f"{NEXT}/draft")["origin"] == "plan"
        send(client, "post", f"{NEXT}/draft/publish", body)
        sheet = get(client, f"{NEXT}/sheet?basis=planned")
        press = next(row for row in sheet["movements"] if row["subject"] == "Press")
        assert press["cells"]["top_load_kg"]["planned"] == 22.5
        assert Draft.select().count() == 0

    def test_a_stale_draft_is_refused_and_nothing_lost(self, client: FlaskClient) -> None:
        sessions = get(client, f"{NEXT}/draft")["sessions"]
        body = {"sessions": sessions, "revision": 0, "start_total": 12}
        send(client, "put", f"{NEXT}/draft", body)
        for method, path in (("put", "draft"), ("post", "draft/publish")):
            answer = send(
                client,
                method,
                f"{NEXT}/{path}",
                {**body, "sessions": []} if method == "put" else body,
                409,
            )
            assert "Nothing was overwritten" in answer["detail"]
        send(client, "post", f"{NEXT}/draft/reset", {"revision": 7}, 409)
        assert get(client, f"{NEXT}/draft")["sessions"] == sessions

    def test_what_does_not_fit_is_refused_with_its_place(self, client: FlaskClient) -> None:
        sessions = get(client, f"{NEXT}/draft")["sessions"]
        sessions[0]["date"] = "2026-10-05"
        sessions[0]["lines"][2]["units"][0][0]["exercise"] = "Sqat"
        answer = send(client, "post", f"{NEXT}/draft/audit", {"sessions": sessions}, 422)
        assert [one["place"] for one in answer["problems"]] == [
            "sessions[0].date",
            "sessions[0].lines[2].units[0][0].exercise",
        ]
        assert "'Squat'" in answer["problems"][1]["message"]
        empty = {"sessions": [], "revision": 0, "start_total": 0}
        send(client, "post", f"{NEXT}/draft/publish", empty, 422)
        assert Session.select().where(Session.deleted_on.is_null(False)).count() == 0


class TestRules:
    def test_each_has_argument_source_and_value(self, client: FlaskClient) -> None:
        found = get(client, "/api/rules")
        assert len(found["rules"]) == len(RULES)
        for rule in found["rules"]:
            assert rule["argument"]
            assert rule["source"]
            assert rule["house"] == rule["default"]

    def test_a_preview_tells_and_stores_nothing(self, client: FlaskClient) -> None:
        body = {
            "chosen": {"balance_bands": {"push_pull": [0, 3]}},
            "scope": "house",
            "basis": "completed",
        }
        found = send(client, "post", f"{HERE}/rules/preview", body)
        assert ("balance", "push_pull") in {
            (one["code"], one["subject"]) for one in found["cleared"]
        }
        assert found["after"] == found["before"] - len(found["cleared"]) + len(found["appeared"])
        assert get(client, "/api/rules")["chosen"] == {}
        sheet = get(client, f"{HERE}/sheet")
        assert len(sheet["findings"]) == found["before"]

    def test_house_rules_are_kept_and_an_athletes_own_lie_over_them(
        self, client: FlaskClient
    ) -> None:
        chosen = {"indirect_credit": 1, "hard_set_rpe": 7}
        send(client, "put", "/api/rules", {"chosen": chosen, "revision": 1})
        own = "/api/athletes/1/rules"
        send(
            client, "put", own, {"chosen": {"indirect_credit": 0, "hard_set_rpe": 7}, "revision": 1}
        )
        found = get(client, own)
        # What agrees with the house is no choice of the athlete's.
        assert found["chosen"] == {"indirect_credit": 0}
        rule = next(one for one in found["rules"] if one["name"] == "indirect_credit")
        assert (rule["default"], rule["house"], rule["own"], rule["is_own"]) == (0.5, 1, 0, True)
        sheet = get(client, f"{HERE}/sheet")
        triceps = next(row for row in sheet["muscles"] if row["subject"] == "triceps")
        assert triceps["cells"]["sets"]["done"] == 0
        tried = {"chosen": {}, "scope": "athlete", "basis": "completed"}
        assert send(client, "post", f"{HERE}/rules/preview", tried)["cleared"]

    @pytest.mark.parametrize("path", ["/api/rules", "/api/athletes/1/rules"])
    def test_stale_or_wrong_rules_are_refused(self, client: FlaskClient, path: str) -> None:
        for chosen, revision, status in (
            ({}, 9, 409),
            ({"indirect_credit": 3}, 1, 422),
            ({"gravity": 1}, 1, 422),
            ({"muscle_bands": {"cheast": [1, 2]}}, 1, 422),
            ({"load_step": [0.3, 0.1]}, 1, 422),
        ):
            send(client, "put", path, {"chosen": chosen, "revision": revision}, status)
        assert get(client, path)["chosen"] == {}
        assert get(client, path)["revision"] == 1


class TestFiles:
    def test_import_says_what_it_did(self, bring: Bring) -> None:
        done = bring({**a_book(), "rules": {"moon": 1}}, "?name=Second").json
        assert (done["planned"], done["completed"], done["sets"]) == (4, 3, 87)
        assert done["new_movements"] == []
        assert "rules.moon" in done["warnings"][0]

    def test_what_makes_little_sense_is_said_and_left_as_it_is(self, bring: Bring) -> None:
        odd = a_book()
        odd["completed"][0]["sets"][0] |= {"exercise": "Press", "reps": 5, "load_kg": 500}
        day = odd["completed"][0]["date"]
        (said,) = bring(odd, "?name=Second").json["warnings"]
        assert said.startswith(f"{day}")
        assert "500 kg is more than almost anybody lifts" in said

    def test_a_name_that_is_taken(self, client: FlaskClient, bring: Bring) -> None:
        refused = bring()
        assert refused.status_code == 409
        assert refused.json["type"].endswith("name-taken")
        assert bring(None, "?replace=true").json["replaced"] is True
        assert len(get(client, "/api/roster")["athletes"]) == 1

    def test_a_bad_book_stores_nothing(self, client: FlaskClient, bring: Bring) -> None:
        bad = document([session(0, sets("Nobody", 2))], athlete={"name": "Bad"})
        answer = bring(bad)
        assert answer.status_code == 422
        assert answer.json["problems"][0]["place"] == "completed[0].sets[0].exercise"
        assert bring(b"{,").status_code == 422
        assert Athlete.select().count() == 1
        too_large = b" " * 50_000_000
        assert bring(too_large).status_code == 413

    def test_export(self, client: FlaskClient, bring: Bring) -> None:
        answer = client.get("/api/athletes/1/book")
        assert "ada-test.book.json" in answer.headers["Content-Disposition"]
        bring(answer.data, "?name=Copy")
        one, two = (get(client, f"/api/athletes/{n}/weeks/2026-W41/sheet") for n in (1, 2))
        assert one == two

    def test_off_the_roster_and_back(self, client: FlaskClient, bring: Bring) -> None:
        assert client.delete("/api/athletes/1").status_code == 200
        assert get(client, "/api/roster")["athletes"] == []
        get(client, f"{HERE}/sheet", 404)
        send(client, "post", "/api/athletes/1/restore", {})
        get(client, f"{HERE}/sheet")
        send(client, "post", "/api/athletes/1/restore", {}, 404)
        client.delete("/api/athletes/1")
        bring()
        send(client, "post", "/api/athletes/1/restore", {}, 409)


class TestMovements:
    def test_the_house_shows_its_movements(self, client: FlaskClient) -> None:
        found = get(client, "/api/movements")["movements"]
        names = [one["name"] for one in found]
        assert names == sorted(names)
        press_up = next(one for one in found if one["name"] == "Press-up, feet raised 30 cm")
        assert (press_up["side"], press_up["easier"]) == ("push", "Press-up")
        assert (press_up["bodyweight_share"], press_up["direct"]) == (0.7, ["chest"])


def test_what_an_import_would_add_is_told_and_nothing_is_stored(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    whose = {"name": "Berta Test", "bodyweight_kg": 70}
    other = document([session(0, sets("Press"))], athlete=whose)
    other["exercises"].append({"name": "Log press", "pattern": "vertical_push"})
    other["exercises"][0]["bodyweight_share"] = 0.31
    changed = other["exercises"][0]["name"]
    before = (Athlete.select().count(), Movement.select().count())
    look = client.post("/api/import/look", json=other)
    assert look.status_code == 200
    told = look.get_json()
    assert (told["name"], told["taken"], told["completed"]) == ("Berta Test", None, 1)
    assert told["new_movements"] == ["Log press"]
    assert changed in told["own_movements"]
    assert (Athlete.select().count(), Movement.select().count()) == before
    done = bring(other).get_json()
    assert done["new_movements"] == told["new_movements"]
    assert done["own_movements"] == told["own_movements"]
    assert client.post("/api/import/look", json=other).get_json()["taken"] == "Berta Test"
    broken = client.post("/api/import/look", data=b"{", content_type="application/json")
    assert broken.status_code == 422


def test_a_house_does_not_grow_without_end(
    bring: Callable[..., Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("dialback.store.athletes.MOST_MOVEMENTS", 200)
    one = document([], athlete={"name": "Berta Test", "bodyweight_kg": 70})
    one["exercises"] = [{"name": f"Press {at}", "pattern": "hinge"} for at in range(30)]
    refused = bring(one)
    assert refused.status_code == 422
    assert "more than 200 movements" in refused.get_json()["detail"]
