"""Blocks, templates, kit, changed movements, the form and the paper over the API."""

from collections.abc import Callable
from io import BytesIO
from typing import Any

import pytest
from flask.testing import FlaskClient
from pypdf import PdfReader

from dialback.core.weeks import said
from tests.build import document, session, sets
from tests.conftest import TODAY
from tests.web.test_api import HERE, NEXT, get, send

AFTER = "/api/athletes/1/weeks/2026-W43"


@pytest.fixture(autouse=True)
def ada(bring: Callable[..., Any]) -> None:
    bring()


def sets_of(client: FlaskClient, at: str = NEXT) -> list[float]:
    return [one["planned"]["sets"] for one in get(client, f"{at}/block?weeks=4")["weeks"]]


class TestBlocks:
    def test_filled_from_the_week_before_with_a_step_and_a_lighter_week(
        self, client: FlaskClient
    ) -> None:
        body = {
            "title": "Winter",
            "weeks": 3,
            "fill": "week before",
            "lighter_every": 3,
            "change": {"load": 0.05, "sets": 1},
        }
        made = send(client, "post", f"{AFTER}/block/new", body, 201)
        assert (made["block"]["first_week"], made["block"]["weeks"]) == ("2026-W43", 3)
        # 12 sets, a set more for each of three movements a week, the last of them 3/5.
        assert sets_of(client, AFTER)[:3] == [15, 18, 13]
        found = get(client, f"/api/athletes/1/weeks/2026-W45/block")  # noqa: F541
        assert found["stored"]["title"] == "Winter"
        assert [one["week"] for one in found["weeks"]] == ["2026-W43", "2026-W44", "2026-W45"]
        assert [one["lighter"] for one in found["weeks"]] == [False, False, True]
        assert found["weeks"][0]["allowed"]["sets"] == pytest.approx(
            found["weeks"][0]["base"]["sets"] * 1.2
        )
        change = f"/api/journal/{made['laid']['change']}"
        send(client, "post", f"{change}/undo", {})
        assert sets_of(client, AFTER)[:3] == [0, 0, 0]
        assert get(client, "/api/athletes/1/weeks/2026-W45/block")["stored"] is None
        send(client, "post", f"{change}/redo", {})
        assert sets_of(client, AFTER)[:3] == [15, 18, 13]
        assert get(client, "/api/athletes/1/weeks/2026-W45/block")["stored"]["title"] == "Winter"

    def test_weeks_belong_to_one_block(self, client: FlaskClient) -> None:
        made = send(client, "post", f"{NEXT}/block/new", {"title": "One", "weeks": 4}, 201)
        two = "/api/athletes/1/weeks/2026-W46"
        send(client, "post", f"{two}/block/new", {"title": "Two", "weeks": 3}, 201)
        wrong = send(client, "post", f"{AFTER}/block/new", {"title": "x", "weeks": 3}, 422)
        assert "One has some of these weeks" in wrong["detail"]
        at = f"/api/athletes/1/blocks/{made['block']['id']}"
        send(client, "put", at, {"title": "One", "weeks": 5}, 422)
        assert send(client, "put", at, {"title": "First", "weeks": 3})["title"] == "First"
        send(client, "post", f"{at}/remove", {})
        send(client, "post", f"{at}/remove", {}, 404)
        assert get(client, f"{NEXT}/block")["stored"] is None
        assert len(get(client, f"{NEXT}/block")["blocks"]) == 1

    def test_what_cannot_fill_a_block(self, client: FlaskClient) -> None:
        far = "/api/athletes/1/weeks/2027-W10"
        body = {"title": "", "weeks": 3, "fill": "week before"}
        assert "nothing is planned" in send(client, "post", f"{far}/block/new", body, 422)["detail"]
        send(client, "post", f"{far}/block/new", {**body, "fill": "template", "template": 9}, 404)
        send(client, "post", f"{far}/block/new", {**body, "weeks": 9}, 422)
        assert get(client, f"{far}/block")["stored"] is None

    def test_a_session_goes_to_a_day(self, client: FlaskClient) -> None:
        (one,) = get(client, f"{NEXT}/written")["sessions"]
        body = {"sessions": [one["id"]], "to": "2026-10-15", "move": True}
        send(client, "post", f"{NEXT}/block/lay", body)
        assert [row["date"] for row in get(client, f"{NEXT}/written")["sessions"]] == ["2026-10-15"]
        send(client, "post", f"{NEXT}/block/lay", {"sessions": [one["id"]]}, 404)


class TestTemplates:
    def test_kept_laid_for_several_and_undone(
        self, client: FlaskClient, bring: Callable[..., Any]
    ) -> None:
        bring(document([session(0, sets("Row"))], athlete={"name": "Bo", "bodyweight_kg": 60}))
        kept = send(client, "post", f"{NEXT}/template", {"name": "Basis", "weeks": 1}, 201)
        assert (kept["sessions"], kept["weeks"]) == (1, 1)
        body = {"athletes": [1, 2], "week": "2026-W44"}
        laid = send(client, "post", f"/api/templates/{kept['id']}/lay", body)
        weeks = [f"/api/athletes/{one}/weeks/2026-W44" for one in (1, 2)]
        assert [sets_of(client, one)[0] for one in weeks] == [12, 12]
        change = laid["laid"][1]["change"]
        send(client, "post", f"/api/journal/{change}/undo?whole=true", {})
        assert [sets_of(client, one)[0] for one in weeks] == [0, 0]
        block = {"title": "B", "weeks": 3, "fill": "template", "template": kept["id"]}
        send(client, "post", f"{weeks[1]}/block/new", block, 201)
        assert sets_of(client, weeks[1])[0] == 12

    def test_for_several_it_is_one_change_in_the_journal(
        self, client: FlaskClient, bring: Callable[..., Any]
    ) -> None:
        assert bring(query="?name=Bo").status_code == 201
        kept = send(client, "post", f"{NEXT}/template", {"name": "Basis", "weeks": 1}, 201)
        weeks = [f"/api/athletes/{one}/weeks/2026-W44" for one in (1, 2)]
        lay = {"athletes": [1, 2], "week": "2026-W44"}
        send(client, "post", f"/api/templates/{kept['id']}/lay", lay)
        entries = get(client, "/api/journal?undoable=true")["entries"]
        assert [one["together"] for one in entries[:2]] == [2, 2]
        at = f"/api/journal/{entries[0]['id']}"
        send(client, "post", f"{at}/undo?whole=true", {})
        assert [sets_of(client, week)[0] for week in weeks] == [0, 0]
        send(client, "post", f"{at}/redo?whole=true", {})
        assert [sets_of(client, week)[0] for week in weeks] == [12, 12]
        # One of them alone; then the rest of the change is one entry.
        send(client, "post", f"{at}/undo", {})
        assert [sets_of(client, week)[0] for week in weeks] == [12, 0]
        entries = get(client, "/api/journal?undoable=true")["entries"]
        assert [one["together"] for one in entries[:2]] == [1, 1]

    def test_of_one_change_what_can_be_is_undone_and_the_rest_is_named(
        self, client: FlaskClient, bring: Callable[..., Any]
    ) -> None:
        assert bring(query="?name=Bo").status_code == 201
        kept = send(client, "post", f"{NEXT}/template", {"name": "Basis", "weeks": 1}, 201)
        lay = {"athletes": [1, 2], "week": "2026-W44"}
        send(client, "post", f"/api/templates/{kept['id']}/lay", lay)
        week = "/api/athletes/1/weeks/2026-W44"
        (row,) = get(client, f"{week}/written")["sessions"]
        text = {"revision": row["revision"], "date": row["date"], "title": "", "text": "Press 9"}
        send(client, "put", f"{week}/written/{row['id']}", text)
        laid = [one for one in get(client, "/api/journal")["entries"] if one["together"] == 2]
        assert laid[0]["change"] == laid[1]["change"] != ""
        at = f"/api/journal/{laid[0]['id']}/undo?whole=true"
        (stays,) = send(client, "post", at, {})["stays"]
        assert stays.startswith("Ada Test's session of Mon 26 Oct was changed after this")
        assert sets_of(client, "/api/athletes/2/weeks/2026-W44")[0] == 0
        assert sets_of(client, week)[0] > 0
        # What is left can be undone no more than before: it says why.
        left = next(one for one in laid if one["athlete"] == 1)
        told = send(client, "post", f"/api/journal/{left['id']}/undo?whole=true", {}, 409)
        assert told["detail"] == stays

    def test_not_past_the_calendar(self, client: FlaskClient) -> None:
        before = NEXT.replace(NEXT[-2:], f"{int(NEXT[-2:]) - 1:02}")
        kept = send(client, "post", f"{before}/template", {"name": "Basis", "weeks": 2}, 201)
        body = {"athletes": [1], "week": "2999-W52"}
        said = send(client, "post", f"/api/templates/{kept['id']}/lay", body, 422)
        assert "choose another week" in said["detail"]
        assert said["problems"][0]["place"] == "week"

    def test_for_all_or_for_none(self, client: FlaskClient) -> None:
        kept = send(client, "post", f"{NEXT}/template", {"name": "Basis", "weeks": 1}, 201)
        body = {"athletes": [1, 77], "week": "2026-W44"}
        send(client, "post", f"/api/templates/{kept['id']}/lay", body, 404)
        assert sets_of(client, "/api/athletes/1/weeks/2026-W44")[0] == 0
        assert (
            "nothing is planned"
            in send(
                client,
                "post",
                "/api/athletes/1/weeks/2027-W01/template",
                {"name": "Empty", "weeks": 1},
                422,
            )["detail"]
        )

    def test_taken_away_and_brought_back(self, client: FlaskClient) -> None:
        kept = send(client, "post", f"{NEXT}/template", {"name": "Basis", "weeks": 1}, 201)
        at = f"/api/templates/{kept['id']}"
        send(client, "post", f"{at}/remove", {})
        assert get(client, "/api/templates")["templates"] == []
        send(client, "post", f"{at}/remove", {}, 404)
        send(client, "post", f"{at}/restore", {})
        assert len(get(client, "/api/templates")["templates"]) == 1


class TestTextIn:
    def take(self, client: FlaskClient, text: str, status: int = 201) -> Any:
        return send(client, "post", f"{NEXT}/block/text", {"text": text}, status)

    def test_what_went_out_comes_in(self, client: FlaskClient) -> None:
        out = client.get(f"{NEXT}/block/text?weeks=3").get_data(as_text=True)
        before = get(client, f"{NEXT}/sheet?basis=planned")
        done = self.take(client, out)
        assert done["first_week"] == "2026-W42"
        assert get(client, f"{NEXT}/sheet?basis=planned") == before

    def test_what_weeks_are_for_comes_and_goes_with_them(self, client: FlaskClient) -> None:
        singles = "2026-10-13 Singles\nPress 3 × 1 at 60 kg"
        text = f"week 2026-W42:  Test\n{singles}\nWeek 2026-W43: taper"
        self.take(client, text)
        assert get(client, NEXT)["kind"] == "test"
        out = client.get(f"{NEXT}/block/text?weeks=3").get_data(as_text=True)
        assert out.startswith("Week 2026-W42: test\n\n2026-10-12 Whole body\n")
        assert out.endswith("\n\nWeek 2026-W43: taper\n")
        weeks = get(client, f"{NEXT}/block?weeks=3")["weeks"]
        assert [one["kind"] for one in weeks] == ["test", "taper", None]
        # It is one change: undone with its sessions.
        marked, laid = get(client, "/api/journal?athlete=1&undoable=true")["entries"][:2]
        assert marked["says"] == "Marked week 42: test and week 43: taper"
        assert laid["says"] == "Imported 1 session from a text"
        send(client, "post", f"/api/journal/{laid['id']}/undo?whole=true", {})
        assert get(client, NEXT)["kind"] is None
        # In a session's own text it is refused, with the way to say it.
        body = {"date": "2026-10-14", "text": "Week 2026-W42: test\nPress 3 × 5"}
        (told,) = send(client, "post", f"{NEXT}/written/check", body)["mistakes"]
        assert "choose it on the week sheet" in told["message"]

    @pytest.mark.parametrize(
        ("text", "words"),
        [
            ("2026-10-13 A\nPress 3 × 5\nPres 3x\n", "Line 3, column"),
            ("Press 3 × 5", "begins with its day"),
            ("# nothing", "has no session"),
            ("2026-10-13\nPress 5\n2026-10-13\nRow 5", "is there twice"),
            ("Week 2026-W42: holiday\n2026-10-13\nPress 5", "a week is one of these: lighter,"),
            ("Week 2026-W60: test\n2026-10-13\nPress 5", "2026 has no week 60"),
        ],
    )
    def test_all_or_nothing(self, client: FlaskClient, text: str, words: str) -> None:
        assert words in self.take(client, text, 422)["detail"]
        assert len(get(client, f"{NEXT}/written")["sessions"]) == 1


class TestKit:
    def test_a_load_that_cannot_be_made_is_told_with_what_can(self, client: FlaskClient) -> None:
        kit = {
            "stacks": [
                {
                    "name": "press tower",
                    "least_kg": 10,
                    "step_kg": 5,
                    "top_kg": 40,
                    "movements": ["Press"],
                }
            ]
        }
        text = "Press 3 × 5 at 22 kg, then 5 at 50 lb\nRow 3 × 5 at 22 kg\n"
        body = {"date": "2026-10-14", "text": text}
        assert get(client, "/api/kit")["described"] is False
        assert send(client, "post", f"{NEXT}/written/check", body)["kit"] == []
        assert send(client, "put", "/api/kit", {"revision": 1, "kit": kit}) == {"revision": 2}
        first, second = send(client, "post", f"{NEXT}/written/check", body)["kit"]
        assert (first["line"], first["column"], first["length"]) == (1, 16, 5)
        assert [one["text"] for one in first["choices"]] == ["20 kg", "25 kg"]
        assert first["choices"][0]["step"] == pytest.approx(-1 / 11)
        assert [one["text"] for one in second["choices"]] == ["44.09 lb", "55.12 lb"]
        send(client, "put", "/api/kit", {"revision": 1, "kit": kit}, 409)
        send(client, "put", "/api/kit", {"revision": 2, "kit": {"bars_kg": [-1]}}, 422)
        assert get(client, "/api/kit")["kit"]["stacks"][0]["top_kg"] == 40


class TestMovements:
    def known(self, client: FlaskClient, name: str) -> Any:
        return next(
            one for one in get(client, "/api/movements")["movements"] if one["name"] == name
        )

    def press(self, **more: Any) -> dict[str, Any]:
        known = {
            "name": "Press",
            "pattern": "horizontal_push",
            "compound": True,
            "tempo": "3-0-1-0",
            "muscles": {"chest": "direct"},
        }
        return {"movement": {**known, **more}}

    def test_a_change_shows_what_it_alters_and_counts_everywhere(self, client: FlaskClient) -> None:
        at = f"/api/movements/{self.known(client, 'Press')['id']}"
        before = get(client, f"{HERE}/sheet")
        effect = send(client, "post", f"{at}/effect", self.press(tempo="6-0-2-0"))
        assert effect["athletes"] == 1
        assert effect["sets"] > 20
        week = next(one for one in effect["sheets"] if one["week"] == "2026-W41")
        assert week["sets"] == 0
        assert week["tut_s"] > 0
        assert get(client, f"{HERE}/sheet") == before
        send(client, "put", at, self.press(tempo="6-0-2-0"))
        after = get(client, f"{HERE}/sheet")
        tut = [
            next(row for row in sheet["totals"] if row["subject"] == "tut_s")["cells"]["tut_s"]
            for sheet in (before, after)
        ]
        assert tut[1]["done"] - tut[0]["done"] == pytest.approx(week["tut_s"])
        assert self.known(client, "Press")["indirect"] == []

    def test_more_names_alter_nothing(self, client: FlaskClient) -> None:
        at = f"/api/movements/{self.known(client, 'Row')['id']}"
        row = {
            "name": "Row",
            "pattern": "horizontal_pull",
            "compound": True,
            "muscles": {
                "upper_back": "direct",
                "lats": "direct",
                "biceps": "indirect",
                "rear_delts": "indirect",
            },
            "aliases": ["boat pull"],
        }
        assert send(client, "post", f"{at}/effect", {"movement": row})["sheets"] == []
        send(client, "put", at, {"movement": row})
        body = {"date": "2026-10-14", "text": "boat pull 3 × 5"}
        assert send(client, "post", f"{NEXT}/written/check", body)["sets"] == 3

    @pytest.mark.parametrize(
        ("more", "place"),
        [
            ({"aliases": ["Row"]}, "aliases"), ({"easier": "Nothing"}, "easier"),
            ({"harder": "Press"}, "harder"), ({"muscles": {}}, "muscles"),
            ({"tempo": "9"}, "tempo"), ({"pattern": "sideways"}, "pattern"),
        ],
    )  # fmt: skip
    def test_what_would_break_is_refused(
        self, client: FlaskClient, more: dict[str, Any], place: str
    ) -> None:
        at = f"/api/movements/{self.known(client, 'Press')['id']}"
        assert place in send(client, "put", at, self.press(**more), 422)["problems"][0]["place"]

    def test_a_name_stays_and_what_is_in_use_stays(self, client: FlaskClient) -> None:
        at = f"/api/movements/{self.known(client, 'Press')['id']}"
        wrong = send(client, "put", at, self.press(name="Push"), 422)
        assert "choose Rename" in wrong["detail"]
        taken = client.delete(at)
        assert (taken.status_code, "are planned or done" in taken.json["detail"]) == (409, True)
        shipped = client.delete(f"/api/movements/{self.known(client, 'Dead bug')['id']}")
        assert "ships with" in shipped.json["detail"]

    @pytest.mark.parametrize(
        ("level", "easier", "harder"),
        [(None, None, None), ("easier", None, "Press"), ("harder", "Press", None)],
    )
    def test_a_movement_like_another_in_three_answers(
        self, client: FlaskClient, level: str | None, easier: str | None, harder: str | None
    ) -> None:
        answers = {"name": "Sled push", "like": "press", "level": level}
        new = send(client, "post", "/api/movements/like", answers, 201)
        press = self.known(client, "Press")
        same = ("pattern", "compound", "direct", "indirect", "tempo", "kit", "bodyweight_share")
        assert {name: new[name] for name in same} == {name: press[name] for name in same}
        assert (new["aliases"], new["easier"], new["harder"]) == ([], easier, harder)
        again = send(client, "post", "/api/movements/like", answers, 422)
        assert "is there already" in again["detail"]
        nobody = {**answers, "name": "Another", "like": "Prezz"}
        told = send(client, "post", "/api/movements/like", nobody, 422)
        assert "did you mean 'Press'" in told["detail"]

    def test_what_the_kit_has_nothing_for_is_marked(self, client: FlaskClient) -> None:
        assert not self.known(client, "Dead bug")["no_kit"]
        assert not self.known(client, "Goblet squat")["no_kit"]
        bars = {"bars_kg": [20], "plates": [{"kg": 10, "pairs": 4}]}
        now = get(client, "/api/kit")["revision"]
        send(client, "put", "/api/kit", {"revision": now, "kit": bars})
        assert self.known(client, "Goblet squat")["no_kit"]
        assert not self.known(client, "Back squat")["no_kit"]
        names = get(client, f"{NEXT}/movements")["movements"]
        marked = [one["no_kit"] for one in names]
        assert marked == sorted(marked)
        assert "Goblet squat" in [one["name"] for one in names if one["no_kit"]]

    def test_add_and_take_away(self, client: FlaskClient) -> None:
        new = self.press(name="Sled push", easier="Press")
        added = send(client, "post", "/api/movements", new, 201)
        assert added["easier"] == "Press"
        send(client, "post", "/api/movements", self.press(name="sled  PUSH"), 422)
        assert client.delete(f"/api/movements/{added['id']}").status_code == 200
        assert client.delete(f"/api/movements/{added['id']}").status_code == 404


def test_the_form_gives_rows_and_takes_a_row(client: FlaskClient) -> None:
    text = "# mine\nPress 3 × 5 at 20 kg\nnothing at all"
    rows = send(client, "post", "/api/athletes/1/form/rows", {"text": text})["rows"]
    assert [one["kind"] for one in rows] == ["other", "sets", "other"]
    row = rows[1]
    row["entries"][0]["load"] = "2 × 12 kg"
    assert send(client, "post", "/api/athletes/1/form/line", row) == {
        "text": "Press 3 × 5 at 2 × 12 kg"
    }


def test_a_session_on_paper_is_one_page(client: FlaskClient) -> None:
    (one,) = get(client, f"{NEXT}/written")["sessions"]
    answer = client.get(f"{NEXT}/written/{one['id']}/paper")
    assert answer.content_type == "application/pdf"
    (page,) = PdfReader(BytesIO(answer.data)).pages
    text = page.extract_text()
    assert "Ada Test" in text
    assert "Press 5 × 10 at 20 kg" in text
    assert "Stop on sharp pain" in text
    lines = (f"Press {at + 1} at 20 kg (a note that is long)\n" for at in range(45))
    body = {"date": one["date"], "title": "Long", "revision": 1, "text": "".join(lines)}
    send(client, "put", f"{NEXT}/written/{one['id']}", body)
    assert len(PdfReader(BytesIO(client.get(f"{NEXT}/written/{one['id']}/paper").data)).pages) == 1
    assert client.get(f"{NEXT}/written/99/paper").status_code == 404


def test_weights_are_shown_in_pounds_and_kept_as_they_were_entered(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    done = [session(day, sets("Press", 3, load_kg=20 + day)) for day in (0, 4)]
    bring(document([session(-7, sets("Press", 3, load_kg=16)), *done], athlete={"name": "Lb"}))
    here = "/api/athletes/2/weeks/2026-W41"
    before = get(client, f"{here}/sheet")
    load = next(one for one in before["findings"] if one["code"] == "load_step")
    assert " kg after " in load["sentence"]
    send(client, "put", "/api/unit", {"unit": "lb"})
    after = get(client, f"{here}/sheet")
    load = next(one for one in after["findings"] if one["code"] == "load_step")
    assert " lb after " in load["sentence"]
    assert after["totals"] == before["totals"]
    trail = get(client, f"{here}/trail?figure=movements/Press/volume_load_kg")["sets"][0]
    assert trail["text"].endswith("at 20 kg")
    assert "44.1 lb" in trail["explained"]
    send(client, "put", "/api/unit", {"unit": "stone"}, 422)
    send(client, "put", "/api/unit", {"unit": "kg"})
    assert get(client, f"{here}/sheet") == before


def test_a_dial_that_was_not_turned_publishes_the_very_text(client: FlaskClient) -> None:
    week = "/api/athletes/1/weeks/2026-W43"
    text = (
        "# mine alone\nmain B, pre-exhaust:\nCurl 3 × 8 RPE 7 (slowly down)\n"
        "3 rounds:\n  Press 9 at 20 kg\n  Row 9"
    )
    body = {"date": "2026-10-19", "title": "Arms", "text": text}
    assert client.post(f"{week}/written", json=body).status_code == 201
    draft = client.get(f"{week}/draft").get_json()
    lines = draft["sessions"][0]["lines"]
    assert [line["count"] for line in lines] == [3, 3]
    publish = {"sessions": draft["sessions"], "revision": 0, "start_total": draft["start_total"]}
    assert client.post(f"{week}/draft/publish", json=publish).status_code == 200
    (row,) = client.get(f"{week}/written").get_json()["sessions"]
    assert row["text"] == text
    # Turned by a round, it is a circuit still.
    again = client.get(f"{week}/draft").get_json()
    turned = client.post(
        f"{week}/draft/dial",
        json={"sessions": again["sessions"], "setting": again["start_total"] + 2, "toward": "up"},
    ).get_json()
    publish = {"sessions": turned["sessions"], "revision": 0, "start_total": again["start_total"]}
    assert client.post(f"{week}/draft/publish", json=publish).status_code == 200
    (row,) = client.get(f"{week}/written").get_json()["sessions"]
    assert "4 rounds:\n  Press 9 at 20 kg\n  Row 9" in row["text"]
    assert "1 round" not in row["text"]


def test_per_cent_lands_on_each_athlete_with_the_athletes_own_load(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    for name, kg in (("Berta Test", 100), ("Cleo Test", 60)):
        done = session(-7, sets("Press", reps=1, load_kg=kg))
        whose = {"name": name, "bodyweight_kg": 70}
        assert bring(document([done], athlete=whose)).status_code == 201
    week = "/api/athletes/2/weeks/2026-W44"
    body = {"date": "2026-10-26", "title": "Heavy", "text": "Press 5 × 3 at 80 %"}
    client.post(f"{week}/written", json=body)
    told = client.post(f"{week}/written/check", json=body).get_json()["shares"]
    message = "80 % of 100 kg (best estimate, 28 Sep 2026): 80 kg"
    assert told == [{"line": 1, "message": message, "missing": False}]
    kept = client.post(f"{week}/template", json={"name": "Heavy", "weeks": 1}).get_json()
    lay = {"week": "2026-W45", "athletes": [2, 3]}
    assert client.post(f"/api/templates/{kept['id']}/lay", json=lay).status_code == 200
    loads = [
        client.get(f"/api/athletes/{athlete}/weeks/2026-W45/draft").get_json()["sessions"][0][
            "lines"
        ][0]["units"][0][0]["load_kg"]
        for athlete in (2, 3)
    ]
    assert loads == [80, 48]
    text = client.get("/api/athletes/3/weeks/2026-W45/written").get_json()["sessions"][0]["text"]
    assert text == "Press 5 × 3 at 80 %"


def test_maxima_are_typed_in_and_taken_away(client: FlaskClient) -> None:
    at = "/api/athletes/1/maxima"
    body = {"movement": "press", "kg": 62.5, "date": "2026-10-01"}
    (kept,) = client.post(at, json=body).get_json()["maxima"]
    assert (kept["movement"], kept["kg"]) == ("Press", 62.5)
    exported = client.get("/api/athletes/1/book").get_json()
    assert exported["athlete"]["maxima"] == [{**body, "movement": "Press"}]
    assert client.post(at, json={**body, "movement": "Nothing"}).status_code == 422
    assert client.post(f"{at}/{kept['id']}/remove").get_json()["maxima"] == []
    assert client.post(f"{at}/{kept['id']}/remove").status_code == 404


def test_nobody_gets_the_proposal_of_somebody_who_has_left(client: FlaskClient) -> None:
    week = "/api/athletes/1/weeks/2026-W42"
    draft = get(client, f"{week}/draft")
    answer = client.post(
        f"{week}/draft/proposal",
        json={"sessions": draft["sessions"]},
        environ_overrides={"waitress.client_disconnected": lambda: True},
    )
    assert answer.status_code == 503
    assert answer.json["type"].endswith("not-wanted")


def test_a_proposal_is_asked_for_and_taken(client: FlaskClient) -> None:
    week = "/api/athletes/1/weeks/2026-W42"
    draft = get(client, f"{week}/draft")
    asked = {"sessions": draft["sessions"]}
    found = send(client, "post", f"{week}/draft/proposal", asked)
    assert found["ladder"][0]["cost"] == 0
    assert found["steps"]
    assert found["optimal"]
    steps = [
        {
            "session": one["session"],
            "line": one["line"],
            "movement": one["movement"],
            "count": one["count_to"],
        }
        for one in found["steps"]
    ]
    taken = send(client, "post", f"{week}/draft/take", {**asked, "steps": steps})
    again = send(client, "post", f"{week}/draft/proposal", {"sessions": taken["sessions"]})
    left = again["ladder"][0]
    assert (left["high"], left["caution"]) == tuple(
        found["ladder"][found["stop"]][level] for level in ("high", "caution")
    )
    nothing = send(client, "post", f"{week}/draft/proposal", {**asked, "budget": 0})
    assert nothing["steps"] == []
    # Whoever turns to a stop of the ladder is given what is cleared there.
    last = found["ladder"][-1]
    turned = send(client, "post", f"{week}/draft/proposal", {**asked, "budget": last["cost"]})
    assert turned["cost"] == last["cost"]
    gone = [{**steps[0], "line": 99}]
    send(client, "post", f"{week}/draft/take", {**asked, "steps": gone}, 404)


def test_what_a_proposal_changed_says_so_in_the_plan(client: FlaskClient) -> None:
    week = "/api/athletes/1/weeks/2026-W42"
    draft = get(client, f"{week}/draft")
    asked = {"sessions": draft["sessions"]}
    found = send(client, "post", f"{week}/draft/proposal", asked)
    step = next(one for one in found["steps"] if one["line"] and one["count_to"])
    steps = [
        {key: step[key] for key in ("session", "line", "reason")} | {"count": step["count_to"]}
    ]
    taken = send(client, "post", f"{week}/draft/take", {**asked, "steps": steps})
    why = {
        one["why"]
        for session in taken["sessions"]
        for line in session["lines"]
        for unit in line["units"]
        for one in unit
        if one.get("why")
    }
    assert why == {f"because of a proposal, {said(TODAY)}: {step['reason']}"}
    kept = {"sessions": taken["sessions"], "revision": draft["revision"]}
    kept["start_total"] = draft["start_total"]
    send(client, "post", f"{week}/draft/publish", kept)
    texts = [one["text"] for one in get(client, f"{week}/written")["sessions"]]
    (line,) = [one for text in texts for one in text.splitlines() if "because" in one]
    assert line.startswith(step["movement"])
    assert line.endswith(f", {why.pop()}")


def test_next_steps_go_by_the_log_alone(client: FlaskClient, bring: Callable[..., Any]) -> None:
    """Beyond the running week plans stand for the log in figures; a plan was lifted by nobody."""
    lines = [sets("Squat", 3, 8, load_kg=60)]
    planned = [session(day, *lines) for day in (7, 14)]
    bring(document([session(-21, *lines)], planned, athlete={"name": "Bea", "bodyweight_kg": 60}))
    week = "/api/athletes/2/weeks/2026-W43"
    draft = get(client, f"{week}/draft")
    assert draft["audit"]["as_planned"]
    asked = {"sessions": draft["sessions"]}
    assert send(client, "post", f"{week}/draft/next", asked)["steps"] == []


def test_next_steps_are_taken_one_after_the_other(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    held = sets("Plank", 2, None, seconds=30)
    lines = [sets("Squat", 3, 8, load_kg=60), sets("Press", 2, 6, load_kg=50), held]
    planned = [session(day, *lines) for day in (0, 7)]
    bring(document([session(0, *lines)], planned, athlete={"name": "Bea", "bodyweight_kg": 60}))
    week = "/api/athletes/2/weeks/2026-W42"
    asked = {"sessions": get(client, f"{week}/draft")["sessions"]}
    steps = send(client, "post", f"{week}/draft/next", asked)["steps"]
    assert [one["movement"] for one in steps] == ["Squat", "Press", "Plank"]
    wanted = [
        {"movement": one["movement"], "before": one["before"], "kind": one["ways"][0]["kind"]}
        for one in steps
    ]
    wanted.append({**wanted[0], "kind": "set"})
    refused = send(client, "post", f"{week}/draft/next/take", {**asked, "steps": wanted}, 404)
    # One step of each: the next is asked for of the draft as it then stands.
    assert refused["detail"].startswith("Squat no longer has this step in this draft.")
    taken = send(client, "post", f"{week}/draft/next/take", {**asked, "steps": wanted[:3]})
    sets_now = [line["units"][0][0] for line in taken["sessions"][0]["lines"]]
    assert [one.get("load_kg") for one in sets_now][:2] == [62.5, 52.5]
    assert sets_now[2]["seconds"] == 35
    assert taken["audit"]["total"] == 7


def test_a_kit_is_begun_with_what_many_rooms_have(client: FlaskClient) -> None:
    found = get(client, "/api/kit")
    bar, dumbbells = found["starts"][:2]
    begun = {"starts": [bar, dumbbells], "revision": found["revision"]}
    revision = send(client, "post", "/api/kit/begin", begun)["revision"]
    kit = get(client, "/api/kit")["kit"]
    assert kit["bars_kg"] == [20]
    assert kit["dumbbells_kg"][0] == 2
    # What is there stays; whoever looked before is told; what nobody offers is refused.
    assert send(client, "post", "/api/kit/begin", begun, 409)
    unknown = {"starts": ["A rowing tank"], "revision": revision}
    assert "A rowing tank" in send(client, "post", "/api/kit/begin", unknown, 422)["detail"]
    assert get(client, "/api/kit")["kit"] == kit
