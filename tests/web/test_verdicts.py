"""Verdicts that are kept: what was worked out once is not worked out again, and nothing stale."""

from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.athletes import MOST_LEDGERS, Ledgers
from dialback.store.database import connected
from dialback.store.models import Athlete, Verdict
from dialback.web import verdicts
from dialback.web.app import create_app
from tests.build import document, session, sets
from tests.conftest import PATIENCE, TODAY


def again(data: Path, day: Any = TODAY) -> FlaskClient:
    """The application after a start."""
    return create_app(data, today=lambda: day, patience=PATIENCE).test_client()


def keep(client: FlaskClient) -> None:
    with connected():
        client.application.extensions["dialback"].verdicts.keep()


@pytest.fixture
def counted(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    bring()
    client.get("/api/roster")
    keep(client)
    return client


def test_after_a_start_nothing_is_worked_out_that_was_before(
    counted: FlaskClient, data: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    before = counted.get("/api/roster").get_json()

    def never(*_: object) -> None:
        raise AssertionError("worked out again")

    monkeypatch.setattr(verdicts, "_judged", never)
    assert again(data).get("/api/roster").get_json() == before


@pytest.mark.parametrize("what", ["log", "rules", "code", "day"])
def test_a_verdict_of_another_state_is_worked_out_anew(
    counted: FlaskClient, data: Path, monkeypatch: pytest.MonkeyPatch, what: str
) -> None:
    looked: list[str] = []
    honest = verdicts._judged

    def noted(*args: Any) -> Any:
        looked.append(what)
        return honest(*args)

    monkeypatch.setattr(verdicts, "_judged", noted)
    day = TODAY
    if what == "log":
        with connected():
            Athlete.update(change=Athlete.change + 1).execute()
    elif what == "rules":
        counted.put("/api/rules", json={"chosen": {"hard_set_rpe": 7}, "revision": 1})
    elif what == "code":
        monkeypatch.setattr(verdicts, "code_mark", lambda: "another")
    else:
        day = TODAY + timedelta(days=7)
    again(data, day).get("/api/roster")
    assert looked


def test_what_the_coach_says_counts_at_once(counted: FlaskClient) -> None:
    row = counted.get("/api/roster").get_json()["athletes"][0]
    week = f"/api/athletes/{row['id']}/weeks/{row['week']}"
    sheet = counted.get(f"{week}/sheet").get_json()
    levels = [cause["level"] for cause in sheet["causes"]]
    for level in ("high", "caution", "note"):
        assert row["counts"][level] == levels.count(level)
    for cause in sheet["causes"]:
        key = {"basis": "completed", "code": cause["code"], "subject": cause["subject"]}
        counted.post(f"{week}/acceptances/cause", json={**key, "reason": "Meant."})
    after = counted.get("/api/roster").get_json()["athletes"][0]
    assert after["counts"] == {"high": 0, "caution": 0, "note": 0, "accepted": len(levels)}
    assert after["first"] is None


def test_one_verdict_is_kept_for_an_athlete(counted: FlaskClient) -> None:
    with connected():
        Athlete.update(change=Athlete.change + 1).execute()
    counted.get("/api/roster")
    keep(counted)
    with connected():
        assert Verdict.select().count() == Athlete.select().count()


def test_ledgers_are_let_go_the_least_used_first(store: Path) -> None:
    ledgers = Ledgers()
    people = [Athlete.create(name=f"A{number}") for number in range(MOST_LEDGERS + 3)]
    first = ledgers.of(people[0])
    for one in people[1:MOST_LEDGERS]:
        ledgers.of(one)
    assert ledgers.of(people[0]) is first
    second = ledgers.of(people[1])
    ledgers.of(people[0])
    for one in people[MOST_LEDGERS:]:
        ledgers.of(one)
    assert ledgers.of(people[0]) is first
    assert ledgers.of(people[1]) is second
    assert len(ledgers._kept) == MOST_LEDGERS


def test_a_row_of_the_roster_says_what_the_sheet_says(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    hurt = session(0, sets("Press", 3), pain=[{"exercise": "Press", "note": "elbow"}])
    whose = {"name": "B", "bodyweight_kg": 70}
    bring(document([session(-7, sets("Press", 6)), hurt], athlete=whose))
    (row,) = client.get("/api/roster").get_json()["athletes"]
    assert row["hurt"]
    sheet = client.get(f"/api/athletes/{row['id']}/weeks/{row['week']}/sheet").get_json()
    painful = next(one for one in sheet["causes"] if one["code"] == "pain")
    assert row["first"] == painful["sentence"]
    assert row["first_kind"] == sheet["news"][0]["kind"] == "new"
    assert row["more"] == len(sheet["news"]) - 1


def test_a_roster_that_takes_long_comes_by_and_by(
    client: FlaskClient, bring: Callable[..., Any], data: Path
) -> None:
    names = {"Ada", "Bo", "Cy"}
    for name in names:
        bring(document([session(0, sets("Press", 6))], athlete={"name": name}))
    in_a_hurry = create_app(data, today=lambda: TODAY, patience=0).test_client()
    seen = []
    for _ in names:
        roster = in_a_hurry.get("/api/roster").get_json()
        seen.append(len(roster["athletes"]))
        assert {row["name"] for row in roster["athletes"] + roster["waiting"]} == names
    assert seen == [1, 2, 3]
    assert roster["athletes"] == client.get("/api/roster").get_json()["athletes"]
