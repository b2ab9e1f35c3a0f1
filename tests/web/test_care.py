"""What asks for care, and body weight with its days: kept, told where plans are made, counted."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.body import BodyWeight, Weighing
from dialback.core.cautions import Caution, care_on
from dialback.core.figures import in_total
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, Ledgers
from dialback.store.database import connected
from tests.build import document, session, sets
from tests.web.test_api import get, send

Bring = Callable[..., Any]
CARE = "/api/athletes/1/care"
WEEK = "/api/athletes/1/weeks/2026-W41"
RETURN = {
    "kind": "return from injury",
    "by": "Runa Velk",
    "since": "2026-10-01",
    "word": "No jumping yet.",
}


@pytest.fixture(autouse=True)
def press_ups(bring: Bring) -> None:
    """Ten press-ups on Monday and on Friday, at 70 kg of body weight."""
    body = document([session(0, sets("Push", 1, reps=10)), session(4, sets("Push", 1, reps=10))])
    body["athlete"] |= {"bodyweight_kg": 70}
    body["exercises"] += [
        {
            "name": "Push",
            "pattern": "horizontal_push",
            "compound": True,
            "bodyweight_share": 0.5,
            "muscles": {"chest": "direct"},
        }
    ]
    assert bring(body).status_code == 201


def volume_of(client: FlaskClient, week: str) -> float:
    rows = get(client, f"{week}/sheet?basis=completed")["totals"]
    cells = {row["subject"]: row["cells"] for row in rows}
    return float(cells["volume_load_kg"]["volume_load_kg"]["done"])


def volume(client: FlaskClient) -> float:
    return volume_of(client, WEEK)


def test_a_set_counts_with_the_weight_of_its_day(client: FlaskClient) -> None:
    assert volume(client) == 700
    kept = send(client, "post", f"{CARE}/weighings", {"date": "2026-10-07", "kg": 80}, 201)
    # Monday with 70, Friday with 80.
    assert volume(client) == 350 + 400
    # On the week before nothing changes; the season sums up in columns where it may.
    number = kept["weighings"][0]["id"]
    send(client, "post", f"{CARE}/weighings", {"date": "2026-10-05", "kg": 60}, 201)
    assert volume(client) == 300 + 400
    send(client, "post", f"{CARE}/weighings/{number}/remove", {})
    assert volume(client) == 600
    send(client, "post", f"{CARE}/weighings/{number}/remove", {}, 404)
    wrong = send(client, "post", f"{CARE}/weighings", {"date": "2026-10-05", "kg": 6}, 422)
    assert wrong["detail"].startswith("The weight should be greater")


def test_weeks_summed_in_columns_agree_with_their_sets(client: FlaskClient) -> None:
    """A week in which the weight changed is measured set by set; others are not."""
    weeks = [Week.parse(f"2026-W{number}") for number in (40, 41, 42)]
    for day in ("2026-09-28", "2026-10-07", "2026-10-12"):
        send(client, "post", f"{CARE}/weighings", {"date": day, "kg": 60 + int(day[-2:])}, 201)
    with connected():
        athlete = Athlete.get_by_id(1)
        in_columns, by_sets = Ledgers().of(athlete), Ledgers().of(athlete)
        in_columns.sum_up("completed", weeks[0], weeks[-1])
        for week in weeks:
            summed, counted = (one.tally("completed", week) for one in (in_columns, by_sets))
            assert summed == pytest.approx(counted)
        # 88 kg on Monday, 67 from Wednesday on: ten press-ups with half of it each.
        assert in_columns.tally("completed", weeks[1])[in_total("volume_load_kg")] == 440 + 335


def test_the_journal_says_weights_in_the_unit_of_the_house(client: FlaskClient) -> None:
    send(client, "put", "/api/unit", {"unit": "lb"})
    send(client, "post", f"{CARE}/weighings", {"date": "2026-10-07", "kg": 79.832}, 201)
    said = get(client, "/api/journal")["entries"][0]["says"]
    assert said == "Weighs 176 lb from Wed 7 Oct on"


def test_the_weight_of_a_day() -> None:
    body = BodyWeight.of(70, [Weighing(date=date(2026, 10, 7), kg=80)])
    assert [body.on(date(2026, 10, day)) for day in (1, 6, 7, 30)] == [70, 70, 80, 80]
    assert not body.throughout(Week.parse("2026-W41"))
    assert body.throughout(Week.parse("2026-W40"))
    assert body.throughout(Week.parse("2026-W42"))
    # A change on Monday is the whole week's.
    monday = BodyWeight.of(None, [Weighing(date=date(2026, 10, 5), kg=80)])
    assert monday.throughout(Week.parse("2026-W41"))
    assert monday.on(date(2020, 1, 1)) == 80
    assert BodyWeight.of(None).on(date(2026, 1, 1)) is None


def test_care_stands_where_plans_are_made(client: FlaskClient) -> None:
    assert get(client, WEEK)["care"] == []
    send(client, "post", f"{CARE}/cautions", RETURN, 201)
    (told,) = get(client, WEEK)["care"]
    assert (told["kind"], told["by"], told["word"]) == (
        "return from injury",
        "Runa Velk",
        "No jumping yet.",
    )
    assert "stop on pain" in told["usual"]
    listed = get(client, CARE)["cautions"][0]
    assert listed["holds"]
    at = f"{CARE}/cautions/{listed['id']}"
    send(client, "post", f"{at}/end", {})
    assert get(client, "/api/athletes/1/weeks/2026-W42")["care"] == []
    send(client, "post", f"{at}/end", {}, 409)
    # It held in the week before it ended.
    assert get(client, WEEK)["care"]
    change = get(client, "/api/journal?undoable=true")["entries"][0]
    assert change["says"] == "Ended the care note: return from injury"
    send(client, "post", f"/api/journal/{change['id']}/undo", {})
    assert get(client, "/api/athletes/1/weeks/2026-W42")["care"]


def test_who_is_young_is_told_by_the_year() -> None:
    day = date(2026, 11, 27)
    for born, word in ((2009, "born in 2009"), (2008, "turns 18 this year")):
        (one,) = care_on(day, [], born)
        assert (one.kind, one.word) == ("minor", word)
    assert care_on(day, [], 2007) == []
    said = Caution(kind="minor", by="the guardian", since=date(2026, 1, 1), word="no maxima")
    assert [one.by for one in care_on(day, [said], 2012)] == ["the guardian"]


def test_level_and_year_of_birth_are_kept(client: FlaskClient) -> None:
    about = {
        "name": "Ada Test",
        "bodyweight_kg": 70,
        "note": "",
        "squad": "",
        "level": "novice",
        "born": 2010,
    }
    send(client, "put", "/api/athletes/1", about)
    found = get(client, WEEK)
    assert (found["athlete"]["level"], found["athlete"]["born"]) == ("novice", 2010)
    assert found["care"][0]["kind"] == "minor"
    send(client, "put", "/api/athletes/1", about | {"level": "wizard"}, 422)
    send(client, "put", "/api/athletes/1", about | {"born": 210}, 422)
    read = send(
        client,
        "post",
        "/api/athletes/read",
        {"text": "Bo Marsh, 61,5 kg, Novice, born 2011, squad B"},
    )
    (bo,) = read["people"]
    assert (bo["level"], bo["born"], bo["squad"], bo["note"]) == ("novice", 2011, "B", "")


def test_all_of_it_goes_out_and_comes_in_again(client: FlaskClient, bring: Bring) -> None:
    send(client, "post", f"{CARE}/cautions", RETURN, 201)
    for day, kg in (("2026-10-07", 80), ("2026-09-01", 72.5)):
        send(client, "post", f"{CARE}/weighings", {"date": day, "kg": kg}, 201)
    about = {
        "name": "Ada Test",
        "bodyweight_kg": 70,
        "note": "",
        "squad": "",
        "level": "advanced",
        "born": 1999,
    }
    send(client, "put", "/api/athletes/1", about)
    before = volume(client)
    book = client.get("/api/athletes/1/book").get_data()
    assert bring(book, "?name=Again").status_code == 201
    again = client.get("/api/athletes/2/book").get_json()
    assert again["athlete"] == {
        **client.get("/api/athletes/1/book").get_json()["athlete"],
        "name": "Again",
    }
    assert again["athlete"]["weighings"] == [
        {"date": "2026-09-01", "kg": 72.5},
        {"date": "2026-10-07", "kg": 80},
    ]
    done = volume_of(client, "/api/athletes/2/weeks/2026-W41")
    assert done == before == 72.5 * 5 + 400
