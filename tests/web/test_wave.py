"""The wave of a block through the API: proposed week by week, published together, taken back."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.core.vocabulary import MUSCLES
from dialback.store.models import Draft
from tests.build import document, session, sets
from tests.web.test_api import get, send

Bring = Callable[..., Any]
ATHLETE = "/api/athletes/1"
WEEKS = ("2026-W42", "2026-W43", "2026-W44")


@pytest.fixture(autouse=True)
def plans(bring: Bring) -> None:
    """Four weeks done, three weeks planned; the pressing has got out of hand."""
    done = [session(7 * at, sets("Press", 6), sets("Row", 6)) for at in range(-3, 1)]
    ahead = [session(7 * at, sets("Press", 9), sets("Row", 3)) for at in range(1, 4)]
    rules = {"muscle_bands": {name: [0, 99] for name in MUSCLES}}
    assert bring(document(done, ahead, rules=rules)).status_code == 201


def propose(client: FlaskClient, **more: Any) -> list[Any]:
    before: list[Any] = []
    found = []
    for week in WEEKS:
        body = {"before": before, **more}
        answer = send(client, "post", f"{ATHLETE}/weeks/{week}/block/wave", body)
        before = [*before, {"week": week, "sessions": answer["sessions"]}]
        found.append(answer)
    return found


def counts(client: FlaskClient) -> list[float]:
    weeks = get(client, f"{ATHLETE}/weeks/{WEEKS[0]}/block?weeks=3")["weeks"]
    return [week["planned"]["sets"] for week in weeks]


def publish(client: FlaskClient, found: list[Any], status: int = 200) -> Any:
    body = {
        "state": found[0]["state"],
        "weeks": [{"week": one["week"], "sessions": one["sessions"]} for one in found],
    }
    return send(client, "post", f"{ATHLETE}/weeks/{WEEKS[0]}/block/wave/publish", body, status)


def test_each_week_clears_what_it_can_and_says_what_stays(client: FlaskClient) -> None:
    found = propose(client)
    push_pull = [
        next((one for one in week["findings"] if one["subject"] == "push_pull"), None)
        for week in found
    ]
    # 9 against 3 come nearer: what is left is for another block, and less serious.
    assert [(one["before"], one["left"]) for one in push_pull if one] == [(True, True)] * 3
    for week in found:
        (day,) = week["sessions"]
        press, row = (line["count"] for line in day["lines"])
        assert press in (7, 8)
        assert row == 5
        assert week["changes"] or week["carried"]
        assert all(one["why"] for one in week["findings"] if one["left"])
    assert counts(client) == [12, 12, 12]


def test_all_of_it_in_gentle_steps_ends_with_less(client: FlaskClient) -> None:
    calm, gentle = propose(client), propose(client, all_of_it=True)
    assert all(week["cost"] + week["carried"] > 0 for week in gentle)
    assert all(week["cost"] <= 12 for week in gentle)

    def weight(week: Any) -> int:
        return sum(
            {"high": 8, "caution": 3}[one["level"]] for one in week["findings"] if one["left"]
        )

    assert weight(gentle[-1]) < weight(calm[-1])


def test_published_together_and_taken_back(client: FlaskClient) -> None:
    found = propose(client)
    week = f"{ATHLETE}/weeks/{WEEKS[1]}"
    draft = get(client, f"{week}/draft")
    body = {"sessions": draft["sessions"], "revision": 0, "start_total": draft["start_total"]}
    send(client, "put", f"{week}/draft", body)
    change = publish(client, found)["change"]
    assert counts(client) == [week["sets"] for week in found]
    assert Draft.select().count() == 0
    (told,) = get(client, "/api/journal?athlete=1&undoable=true")["entries"]
    assert told["says"] == "Published week 42 to week 44 as proposed"
    send(client, "post", f"/api/journal/{change}/undo", {})
    assert counts(client) == [12, 12, 12]
    assert Draft.select().count() == 1


def test_proposals_of_what_has_changed_since_are_not_published(client: FlaskClient) -> None:
    found = propose(client)
    body = {"date": "2026-10-14", "title": "More", "text": "Row 3 × 5"}
    send(client, "post", f"{ATHLETE}/weeks/{WEEKS[0]}/written", body, 201)
    assert "changed elsewhere" in publish(client, found, 409)["detail"]
    assert counts(client) == [15, 12, 12]


def test_a_lighter_week_and_bad_input(client: FlaskClient) -> None:
    first = send(client, "post", f"{ATHLETE}/weeks/{WEEKS[0]}/block/wave", {"lighter": True})
    assert first["shape"] == "lighter"
    assert first["sets"] < 0.6 * 12
    far = send(
        client,
        "post",
        f"{ATHLETE}/weeks/2026-W43/block/wave",
        {"before": [{"week": "2026-W42", "sessions": [{"date": "2026-11-01", "lines": []}]}]},
        422,
    )
    assert "2026-11-01 is not in 2026-W42" in far["detail"]


def test_nothing_to_start_from_is_said(client: FlaskClient, bring: Bring) -> None:
    bring(document(athlete={"name": "New", "bodyweight_kg": 70}))
    answer = send(client, "post", "/api/athletes/2/weeks/2026-W42/block/wave", {}, 404)
    assert "plan a week first" in answer["detail"]
