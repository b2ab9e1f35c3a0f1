"""The squad's page, its draft, its proposal, and one change for all that is taken back as one."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.store.models import Athlete, Draft, JournalEntry
from tests.build import document, session, sets
from tests.web.test_api import get, send

Bring = Callable[..., Any]
WEEK = "2026-W42"
"""The week that runs; the one before is audited."""
NAMES = ("Ada", "Bo", "Cy", "Dag")
SQUAD = {"squad": "Crew", "week": WEEK}


def plans(first: int, press: int, row: int = 2) -> list[dict]:
    """A week's two sessions, much to push and little to pull."""
    return [
        session(first, sets("Press", press), sets("Row", row), title="Upper"),
        session(first + 2, sets("Squat", 4), sets("Hinge", 4), title="Lower"),
    ]


@pytest.fixture(autouse=True)
def crew(bring: Bring) -> None:
    """Three who share their weeks, and one who does otherwise."""
    for name in NAMES:
        press = 8 if name != "Dag" else 4
        done, ahead = plans(0, press), plans(7, press)
        athlete = {**document(done)["athlete"], "name": name}
        made = bring({**document(done, [*done, *ahead]), "athlete": athlete})
        assert made.status_code == 201, made.get_json()
    Athlete.update(squad="Crew").execute()


def page(client: FlaskClient, week: str = WEEK, squad: str = "Crew") -> Any:
    return get(client, f"/api/squads/week?week={week}&squad={squad}")


def drafted(client: FlaskClient, *turns: dict) -> Any:
    return send(client, "post", "/api/squads/draft", {**SQUAD, "turns": list(turns)})


def row_line(draft: Any) -> dict:
    """The count of rows in the shared session, for all: a turn with its own count to change."""
    (upper,) = [one for one in draft["shared"] if one["title"] == "Upper"]
    (line,) = [one for one in upper["lines"] if one["name"] == "Row"]
    return {"session": upper["session"], "line": line["line"], "count": line["count"]}


def publish(client: FlaskClient, draft: Any, *turns: dict, status: int = 200) -> Any:
    body = {**SQUAD, "turns": list(turns), "state": draft["state"]}
    return send(client, "post", "/api/squads/publish", body, status=status)


def planned(client: FlaskClient, name: str) -> dict[str, int]:
    number = Athlete.get(Athlete.name == name).id
    found = get(client, f"/api/athletes/{number}/weeks/{WEEK}/block?weeks=3")["sessions"]
    days = ("2026-10-12", "2026-10-14")
    return {one["title"]: one["sets"] for one in found if one["date"] in days}


def test_a_week_shows_who_did_what_and_what_they_share(client: FlaskClient) -> None:
    found = page(client, "2026-W41")
    assert (found["basis"], found["squad"], found["to_plan"]) == ("completed", "Crew", WEEK)
    assert [one["row"]["name"] for one in found["people"]] == list(NAMES)
    one = found["people"][0]
    assert one["row"]["columns"][-1] == {"week": "2026-W41", "planned": 18.0, "done": 18.0}
    assert len(one["marks"]["sets"]) == len(found["weeks"]) == 8
    assert one["marks"]["sets"][-1] == {"value": 18.0, "change": None, "above": False}
    assert (one["is_new"], one["is_back"], one["own_rules"]) == (True, False, False)
    (cause,) = [one for one in found["common"]["causes"] if one["code"] == "programme"]
    assert cause["subject"] == "Upper / Lower"
    assert [one["name"] for one in cause["people"]] == ["Ada", "Bo", "Cy"]
    told = sum(one["findings"] for one in cause["people"])
    assert told == cause["explains"]["high"] + cause["explains"]["caution"] > 0
    in_all = found["common"]["findings"]
    for level in ("high", "caution"):
        assert cause["left"][level] == in_all[level] - cause["explains"][level]


def test_a_week_to_come_is_judged_by_its_plan(client: FlaskClient) -> None:
    found = page(client)
    assert found["basis"] == "planned"
    assert found["people"][0]["row"]["columns"][-1]["planned"] == 18.0
    assert found["people"][0]["row"]["counts"]["high"] > 0
    assert [one["code"] for one in found["common"]["causes"]] == ["programme"]
    everybody = get(client, f"/api/squads/week?week={WEEK}")
    assert everybody["squad"] == ""
    assert everybody["common"] == found["common"]


def test_nobody_is_in_a_squad_that_is_not_there(client: FlaskClient) -> None:
    gone = client.get("/api/squads/week?squad=Nobody")
    assert gone.status_code == 404
    assert "squads: Crew" in gone.get_json()["detail"]


def test_a_change_elsewhere_is_seen_at_once(client: FlaskClient) -> None:
    before = page(client)["common"]
    draft = drafted(client)
    publish(client, draft, {**row_line(draft), "count": 4})
    assert page(client)["common"] != before


def test_a_line_is_turned_for_all_who_have_it(client: FlaskClient) -> None:
    draft = drafted(client)
    assert draft["before"] == draft["after"]
    assert not any(one["changed"] for one in draft["people"])
    shared = {one["title"]: [who["name"] for who in one["people"]] for one in draft["shared"]}
    assert shared == {"Upper": ["Ada", "Bo", "Cy"], "Lower": list(NAMES)}
    more = drafted(client, {**row_line(draft), "count": 4})
    changed = {one["name"]: one for one in more["people"]}
    assert [name for name, one in changed.items() if one["changed"]] == ["Ada", "Bo", "Cy"]
    assert changed["Ada"]["after"] != changed["Ada"]["before"]
    assert changed["Dag"]["after"] == changed["Dag"]["before"]
    most = drafted(client, {**row_line(draft), "count": 5}, {**row_line(draft), "count": 4})
    assert most["after"] == more["after"], "the last word on a line holds"
    # But for one: an exception holds over what is decided for all.
    number = changed["Bo"]["id"]
    apart = drafted(
        client,
        {**row_line(draft), "count": 4},
        {"athlete": number, "session": 0, "line": row_line(draft)["line"], "count": 2},
    )
    assert [one["name"] for one in apart["people"] if one["changed"]] == ["Ada", "Cy"]


def test_it_is_published_for_all_as_one_change_and_taken_back_as_one(client: FlaskClient) -> None:
    draft = drafted(client)
    before = {name: planned(client, name) for name in NAMES}
    done = publish(client, draft, {**row_line(draft), "count": 5})
    assert done["people"] == 3
    for name in ("Ada", "Bo", "Cy"):
        assert planned(client, name) == {**before[name], "Upper": before[name]["Upper"] + 3}
    assert planned(client, "Dag") == before["Dag"]
    told = get(client, "/api/journal?undoable=true")["entries"][:3]
    assert {one["says"] for one in told} == {"Published week 42 for Crew"}
    assert len({one["change"] for one in told}) == 1
    assert [one["together"] for one in told] == [3, 3, 3]
    taken = send(client, "post", f"/api/journal/{done['change']}/undo?whole=true", {})
    assert taken["stays"] == []
    assert {name: planned(client, name) for name in NAMES} == before
    send(client, "post", f"/api/journal/{done['change']}/redo?whole=true", {})
    assert planned(client, "Ada")["Upper"] == before["Ada"]["Upper"] + 3


def test_a_draft_of_older_plans_is_not_published(client: FlaskClient) -> None:
    draft = drafted(client)
    publish(client, draft, {**row_line(draft), "count": 4})
    entries = JournalEntry.select().count()
    stale = publish(client, draft, {**row_line(draft), "count": 5}, status=409)
    assert stale["type"].endswith("stale-revision")
    assert JournalEntry.select().count() == entries


def test_nothing_and_what_is_not_there_is_refused(client: FlaskClient) -> None:
    draft = drafted(client)
    assert publish(client, draft, status=422)["type"].endswith("empty-plan")
    line = row_line(draft)
    for turn in ({**line, "line": 40}, {**line, "session": 9}, {**line, "athlete": 99}):
        body = {**SQUAD, "turns": [turn]}
        assert client.post("/api/squads/draft", json=body).status_code == 404, turn
        publish(client, draft, turn, status=404)
    nothing = client.post("/api/squads/draft", json={**SQUAD, "week": "2026-W20", "turns": []})
    assert nothing.status_code == 404
    assert "plan a week first" in nothing.get_json()["detail"]


def test_a_draft_of_one_of_them_comes_back_with_undo(client: FlaskClient) -> None:
    number = Athlete.get(Athlete.name == "Ada").id
    place = f"/api/athletes/{number}/weeks/{WEEK}"
    own = get(client, f"{place}/draft")
    keep = {key: own[key] for key in ("sessions", "shape", "start_total", "revision")}
    assert client.put(f"{place}/draft", json=keep).status_code == 200
    draft = drafted(client)
    assert [one["name"] for one in draft["people"] if one["drafted"]] == ["Ada"]
    done = publish(client, draft, {**row_line(draft), "count": 4})
    assert not Draft.select().exists()
    send(client, "post", f"/api/journal/{done['change']}/undo?whole=true", {})
    assert Draft.select().count() == 1


def test_a_day_that_is_logged_stays(client: FlaskClient) -> None:
    before = drafted(client)
    (plan,) = [
        one["plan"]
        for one in get(client, f"/api/athletes/1/weeks/{WEEK}/log")["sessions"]
        if one["plan"]["title"] == "Upper"
    ]
    # A day late: it is that plan's all the same.
    session_done = {"date": "2026-10-13", "title": "Upper", "sets": plan["sets"]}
    log = {"change": "change-1", "revision": 0, "plan": plan["id"], "session": session_done}
    send(client, "put", "/api/athletes/1/logs/log-one", log)
    # The draft was of plans that could all be changed.
    refused = publish(client, before, {**row_line(before), "count": 4}, status=409)
    assert "changed" in refused["detail"]
    now = drafted(client)
    assert [one["title"] for one in now["shared"]] == ["Lower"], "two are no squad's session"
    kept = {**SQUAD, "turns": [{**row_line(before), "count": 4}], "state": before["state"]}
    assert client.post("/api/squads/draft", json=kept).status_code == 409
    assert planned(client, "Bo")["Upper"] == 10


def test_a_log_elsewhere_leaves_the_draft_as_it_is(client: FlaskClient) -> None:
    draft = drafted(client)
    monday = {"date": "2026-10-05", "title": "Extra", "sets": [{"exercise": "Row", "reps": 5}]}
    log = {"change": "change-2", "revision": 0, "plan": None, "session": monday}
    send(client, "put", "/api/athletes/1/logs/log-two", log)
    assert publish(client, draft, {**row_line(draft), "count": 4})["people"] == 3


def test_a_proposal_is_looked_for_and_can_be_stopped(client: FlaskClient) -> None:
    job = send(client, "post", "/api/squads/proposal", SQUAD, status=202)
    found = finished(client, job)
    assert found["problem"] is None
    turns = found["proposal"]["turns"]
    assert any(one["athlete"] is None for one in turns), "something is for all"
    as_draft = [
        {key: one[key] for key in ("athlete", "session", "line", "movement", "count")}
        for one in turns
    ]
    draft = drafted(client, *as_draft)
    assert weight(draft["after"]) < weight(draft["before"])
    last = found["proposal"]["ladder"][found["proposal"]["stop"]]
    assert last["high"] <= draft["after"]["high"]
    for one in draft["people"]:
        assert one["appeared"] == [], "nobody is made worse"
    stopped = send(client, "post", "/api/squads/proposal", {**SQUAD, "thorough": True}, status=202)
    send(client, "post", f"/api/squads/proposal/{stopped['token']}/stop", {})
    assert finished(client, stopped)["proposal"] is not None
    gone = client.get(f"/api/squads/proposal/{'0' * 32}")
    assert gone.status_code == 404


def weight(levels: dict[str, int]) -> int:
    return 8 * levels["high"] + 3 * levels["caution"]


def finished(client: FlaskClient, job: Any) -> Any:
    until = time.monotonic() + 120
    while not job["finished"]:
        assert time.monotonic() < until, job
        time.sleep(0.02)
        job = get(client, f"/api/squads/proposal/{job['token']}")
    return job
