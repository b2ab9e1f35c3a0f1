"""The house's own schools, and what its rules would do to everybody."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.rules import DEFAULT_RULES, PRESETS, choices_of_school, merge, school
from dialback.web.places import rules as place
from dialback.work.house import MOST_SCHOOLS
from tests.build import WEEK, document, session, sets

HERE = f"/api/athletes/1/weeks/{WEEK}"
WIDE = {"balance_bands": {"push_pull": [0.1, 9.0]}, "spacing_sets": 9}


@pytest.fixture
def three(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    for name, presses in (("Ada", 10), ("Bo", 4), ("Cy", 12)):
        done = [session(0, sets("Press", presses), sets("Row", 4))]
        bring(document(done, athlete={"name": name}))
    return client


def save(client: FlaskClient, name: str, chosen: dict[str, Any] | None = None) -> Any:
    body = {"name": name, "chosen": WIDE if chosen is None else chosen}
    return client.post("/api/rules/schools", json=body)


def own(client: FlaskClient) -> dict[str, Any]:
    presets = client.get("/api/rules").get_json()["presets"]
    return {one["name"]: one["rules"] for one in presets if one["of_house"]}


def test_a_school_is_saved_compared_and_removed(three: FlaskClient) -> None:
    assert save(three, " Winter\tland ").status_code == 201
    assert own(three) == {"Winter land": WIDE}
    table = three.get(f"{HERE}/schools").get_json()
    assert table["names"] == [*PRESETS, "Winter land"]
    (row,) = [one for one in table["rows"] if one["subject"] == "push_pull"]
    assert [level is not None for level in row["levels"]] == [True, True, True, True, False]
    # Nothing of the rules in force has changed by it.
    assert three.get("/api/rules").get_json()["chosen"] == {}
    assert three.post("/api/rules/schools/remove", json={"name": "Winter land"}).status_code == 200
    assert own(three) == {}
    assert three.get(f"{HERE}/schools").get_json()["names"] == list(PRESETS)


def test_under_a_school_of_the_house_an_athletes_own_rules_stay(three: FlaskClient) -> None:
    save(three, "Wide")
    narrow = {"balance_bands": {"push_pull": [0.9, 1.0]}}
    three.put("/api/athletes/1/rules", json={"chosen": narrow, "revision": 1})
    rows = three.get(f"{HERE}/schools").get_json()["rows"]
    (row,) = [one for one in rows if one["subject"] == "push_pull"]
    assert row["levels"][-1] is not None


@pytest.mark.parametrize("name", ["balanced", "Direct Only", "WIDE", "  "])
def test_a_name_is_taken_once(three: FlaskClient, name: str) -> None:
    save(three, "Wide")
    refused = save(three, name)
    assert refused.status_code == 409
    assert "Choose another name" in refused.get_json()["detail"]
    assert list(own(three)) == ["Wide"]


def test_only_rules_are_saved(three: FlaskClient) -> None:
    assert save(three, "Odd", {"no_such_rule": 1}).status_code == 422
    assert save(three, "Odd", {"spacing_sets": -1}).status_code == 422
    assert own(three) == {}


def test_there_is_an_end_to_schools(three: FlaskClient) -> None:
    for number in range(MOST_SCHOOLS):
        assert save(three, f"School {number}").status_code == 201
    refused = save(three, "One more")
    assert refused.status_code == 409
    assert "remove one first" in refused.get_json()["detail"]


def test_what_is_not_there_cannot_be_removed(three: FlaskClient) -> None:
    for name in ("balanced", "Nobody's"):
        refused = three.post("/api/rules/schools/remove", json={"name": name})
        assert refused.status_code == 404


def test_everybodys_findings_come_and_go_before_anything_is_kept(three: FlaskClient) -> None:
    found = three.post("/api/rules/preview", json={"chosen": WIDE}).get_json()
    assert (found["next"], found["of"]) == (None, 3)
    by_name = {one["name"]: one for one in found["athletes"]}
    assert by_name["Bo"]["cleared"] == 0
    for name in ("Ada", "Cy"):
        effect = by_name[name]
        assert effect["week"] == str(WEEK)
        assert effect["cleared"] >= 1
        assert effect["before"] - effect["cleared"] + effect["appeared"] == effect["after"]
    # What it says of one is what that one's sheet says when it is kept.
    three.put("/api/rules", json={"chosen": WIDE, "revision": 1})
    sheet = three.get(f"{HERE}/sheet").get_json()
    assert sum(one["level"] != "note" for one in sheet["findings"]) == by_name["Ada"]["after"]


def test_it_comes_by_and_by(three: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(place, "ANSWER_S", -1)
    seen, skip = [], 0
    while skip is not None:
        found = three.post("/api/rules/preview", json={"chosen": WIDE, "skip": skip}).get_json()
        seen += [one["name"] for one in found["athletes"]]
        skip = found["next"]
    assert sorted(seen) == ["Ada", "Bo", "Cy"]
    assert three.post("/api/rules/preview", json={"chosen": WIDE, "skip": 99}).get_json() == {
        "athletes": [],
        "next": None,
        "of": 3,
    }


def test_odd_choices_are_refused(three: FlaskClient) -> None:
    refused = three.post("/api/rules/preview", json={"chosen": {"spacing_sets": "x"}})
    assert refused.status_code == 422


@pytest.mark.parametrize("name", PRESETS)
def test_a_preset_sets_what_it_sets_and_nothing_else(name: str) -> None:
    odd = {"spacing_sets": 7, "indirect_credit": 0.25, "balance_bands": {"knee_hip": [0.1, 9]}}
    rules = school(name, merge(odd))
    chosen = choices_of_school(name)
    assert set(chosen) == {
        "indirect_credit",
        "push_pull_scope",
        "count_warm_ups",
        "balance_bands",
    }
    assert rules.spacing_sets == 7
    assert rules.balance_bands["knee_hip"] == (0.1, 9)
    assert rules.indirect_credit == chosen["indirect_credit"] != 0.25
    assert school(name, DEFAULT_RULES) == merge(PRESETS[name])
