"""Whatever was answered with 2xx can be read, exported in every format, and imported again."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from dialback.book.book import read_book
from dialback.book.grid import read_grid
from dialback.core.movements import MovementTable
from dialback.core.notation import read
from tests.conftest import TODAY
from tests.properties import tried

TEXTS = st.one_of(
    st.text(max_size=30),
    st.sampled_from(
        [
            "=1+1",
            "'quoted",
            "a\nb",
            "a\r\nb\tc",
            "\u2028x",
            "<script>",
            "# note",
            "A1. x",
            "2026-10-05 Legs",
            "3 × 8",
            "a, b",
            "\ufeffx",
            "RTL \u202e x",
            "🏋" * 10,
            " ",
        ]
    ),
)
PLAIN = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | TEXTS,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(TEXTS, inner, max_size=3),
    max_leaves=6,
)
SETS = st.fixed_dictionaries(
    {"exercise": st.sampled_from(["Press", "Row", "Squat"]),
     "reps": st.integers(-1, 10_001) | st.floats()},
    optional={"load_kg": st.floats(-1001, 10_001), "rest_s": st.floats(-1, 90_000), "part": TEXTS,
              "rpe": st.floats(0, 11), "own": PLAIN, "note": TEXTS, "unit": TEXTS, "band": TEXTS,
              "round": st.integers(), "percent": st.floats()},
)  # fmt: skip
SESSIONS = st.fixed_dictionaries(
    {"date": st.dates(TODAY.replace(year=2025), TODAY).map(str),
     "sets": st.lists(SETS, min_size=1, max_size=4)},
    optional={"title": TEXTS, "notes": TEXTS, "rpe": st.floats(0, 11), "own": PLAIN,
              "duration_min": st.floats(-1, 1500),
              "pain": st.lists(st.fixed_dictionaries({"note": TEXTS}), max_size=2)},
)  # fmt: skip
OFTEN = tried(
    25,
    suppress_health_check=list(HealthCheck),
)


@pytest.fixture
def known(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    assert bring().status_code == 201
    return client


def everything_goes_out(client: FlaskClient, week: str) -> None:
    """Every way out of the athlete's data gives what can be read again."""
    book = client.get("/api/athletes/1/book")
    assert book.status_code == 200
    read_book(book.data)
    again = client.post(
        "/api/import?name=Again&replace=true", data=book.data, content_type="application/json"
    )
    if again.status_code == 409:
        again = client.post(
            "/api/import?name=Again", data=book.data, content_type="application/json"
        )
    assert again.status_code == 201, again.get_data(as_text=True)
    for name in ("log.csv", "log.xlsx"):
        sheet = client.get(f"/api/athletes/1/{name}")
        assert sheet.status_code == 200
        read_grid(sheet.data)
    base = f"/api/athletes/1/weeks/{week}"
    for path in (
        "sheet?basis=planned",
        "sheet?basis=completed",
        "log",
        "written",
        "block?weeks=3",
        "block/text",
        "block/calendar",
        "draft",
        "schools?basis=completed",
    ):
        answer = client.get(f"{base}/{path}")
        assert answer.status_code == 200, (path, answer.get_data(as_text=True)[:300])
    assert client.get("/api/roster").status_code == 200


@OFTEN
@given(session=SESSIONS)
def test_a_log(known: FlaskClient, session: dict[str, Any]) -> None:
    body = {"change": f"change-{id(session)}", "revision": 0, "session": session}
    answer = known.put(
        f"/api/athletes/1/logs/log-{id(session)}",
        data=json.dumps(body),
        content_type="application/json",
    )
    assert answer.status_code in (200, 400, 422), answer.get_data(as_text=True)
    if answer.status_code == 200:
        everything_goes_out(known, "2026-W41")


@OFTEN
@given(title=TEXTS, text=st.lists(TEXTS, max_size=3).map("\n".join))
def test_a_plan(known: FlaskClient, title: str, text: str) -> None:
    body = {"date": "2026-10-13", "title": title, "text": f"Press 3 × 5\n{text}"}
    answer = known.post(
        "/api/athletes/1/weeks/2026-W42/written",
        data=json.dumps(body),
        content_type="application/json",
    )
    assert answer.status_code in (201, 400, 422), answer.get_data(as_text=True)
    if answer.status_code == 201:
        everything_goes_out(known, "2026-W42")
        row = answer.get_json()
        base = f"/api/athletes/1/weeks/2026-W42/written/{row['id']}"
        assert known.get(f"{base}/paper").status_code == 200
        out = known.get("/api/athletes/1/weeks/2026-W42/block/text?weeks=3")
        movements = MovementTable(read_book(known.get("/api/athletes/1/book").data).exercises)
        assert read(out.get_data(as_text=True), movements).sessions
        assert known.post(f"{base}/remove", json={"revision": row["revision"]}).status_code == 200


@OFTEN
@given(name=TEXTS, kit=st.lists(TEXTS, max_size=2), own=PLAIN)
def test_a_movement(known: FlaskClient, name: str, kit: list[str], own: object) -> None:
    movement = {
        "name": name,
        "pattern": "hinge",
        "muscles": {"glutes": "direct"},
        "kit": kit,
        "own": own,
    }
    answer = known.post(
        "/api/movements", data=json.dumps({"movement": movement}), content_type="application/json"
    )
    assert answer.status_code in (201, 400, 422), answer.get_data(as_text=True)
    assert known.get("/api/movements").status_code == 200
    if answer.status_code == 201:
        everything_goes_out(known, "2026-W41")
        assert known.delete(f"/api/movements/{answer.get_json()['id']}").status_code == 200


@OFTEN
@given(reason=TEXTS, name=TEXTS)
def test_words_of_the_coach(known: FlaskClient, reason: str, name: str) -> None:
    week = "/api/athletes/1/weeks/2026-W41"
    findings = known.get(f"{week}/sheet?basis=completed").get_json()["findings"]
    key = {key: findings[0][key] for key in ("code", "subject", "measure")} | {"basis": "completed"}
    for answer in (
        known.post(
            f"{week}/acceptances",
            data=json.dumps({**key, "reason": reason}),
            content_type="application/json",
        ),
        known.put(
            f"{week}/signature", data=json.dumps({"name": name}), content_type="application/json"
        ),
    ):
        assert answer.status_code in (200, 201, 400, 422), answer.get_data(as_text=True)
    assert known.get(f"{week}/sheet?basis=completed").status_code == 200
    assert known.get("/api/roster").status_code == 200
