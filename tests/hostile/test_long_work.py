"""Streams and pieces of work: only so many at once, given up when nobody waits, never for ever."""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.book.grid import Grid
from dialback.store.database import connected
from dialback.web import jobs as jobs_module
from dialback.web import streams
from dialback.web.jobs import AT_ONCE, KEPT, LARGE, WAITING, Job, Jobs
from dialback.web.problems import RefusedError
from dialback.work.changes import take_import_back


def until(what: Any, seconds: float = 10) -> None:
    """Wait for it, as long as it takes on a busy machine."""
    end = time.monotonic() + seconds
    while not what():
        assert time.monotonic() < end
        time.sleep(0.005)


@pytest.fixture
def jobs(client: FlaskClient) -> Iterator[Jobs]:
    found = client.application.extensions["dialback"].jobs
    yield found
    for job in list(found._kept.values()):
        job.cancelled = True


def busy(go: threading.Event) -> Any:
    """Work that lasts until it is let go, or given up."""

    def work(job: Job) -> str:
        seen = job.tell("working")
        while not go.is_set():
            seen(1)
            time.sleep(0.002)
        return "done"

    return work


def test_only_so_many_wait(jobs: Jobs) -> None:
    go = threading.Event()
    begun = [jobs.start("a", busy(go)) for _ in range(AT_ONCE + WAITING)]
    with pytest.raises(RefusedError, match="try again"):
        jobs.start("one too many", busy(go))
    until(lambda: sum(one.begun is not None for one in begun) == AT_ONCE)
    go.set()
    until(lambda: all(one.finished for one in begun))
    assert {one.result for one in begun} == {"done"}


def test_work_is_cancelled(jobs: Jobs, client: FlaskClient) -> None:
    job = jobs.start("a", busy(threading.Event()))
    until(lambda: job.begun is not None)
    answer = client.post(f"/api/sheets/{job.token}/cancel")
    assert answer.status_code == 200
    until(lambda: job.finished)
    told = client.get(f"/api/sheets/{job.token}").get_json()
    assert told["finished"]
    assert "Cancelled" in told["problem"]


def test_work_that_nobody_asks_about_is_given_up(
    jobs: Jobs, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(jobs_module, "UNASKED_S", 0.05)
    job = jobs.start("a", busy(threading.Event()))
    kept = jobs.start("b", busy(go := threading.Event()), watched=False)
    until(lambda: job.finished)
    assert job.cancelled
    go.set()
    until(lambda: kept.finished)
    assert kept.result == "done"


def test_work_that_takes_too_long_is_told(jobs: Jobs, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(jobs_module, "LONGEST_S", 0.05)
    job = jobs.start("a", busy(threading.Event()))
    until(lambda: job.finished)
    assert job.problem is not None
    assert "takes too long" in job.problem.line


def test_what_was_read_is_let_go(jobs: Jobs) -> None:
    grid = Grid("csv", ("a", "b"), ((2, ("x", "y")),))
    for number in range(KEPT + LARGE):
        job = jobs.start(str(number), lambda _: grid)
        until(lambda job=job: job.finished)
    until(lambda: len(jobs._kept) <= KEPT)
    held = [one for one in jobs._kept.values() if one.result is grid]
    assert len(held) == LARGE
    assert jobs.find(job.token) is job


def test_streams_have_their_places_and_give_them_back(client: FlaskClient) -> None:
    path = "/api/floor/sensor?reps=200&tempo=1-0-1-0&pace=2"
    held = [client.get(path) for _ in range(streams.OF_ONE)]
    assert {one.status_code for one in held} == {200}
    refused = client.get(path)
    assert refused.status_code == 503
    for one in held:
        one.close()
    again = client.get(path)
    assert again.status_code == 200
    again.close()
    assert client.application.extensions["dialback"].streams.open == 0


def test_a_stream_gives_its_place_back_at_its_end(client: FlaskClient) -> None:
    answer = client.get("/api/floor/sensor?reps=2&tempo=1-0-1-0&pace=1000")
    assert "event: end" in answer.get_data(as_text=True)
    assert client.application.extensions["dialback"].streams.open == 0


@pytest.mark.parametrize(
    "query",
    [
        "reps=200&tempo=99-99-99-99",
        "reps=200&tempo=3-1-2-0&pace=0.01",
        "reps=100000",
        "reps=5&pace=0",
        "reps=5&pace=nan",
        "reps=5&seed=-1",
        "reps=5&tempo=1",
    ],
)
def test_absurd_streams_are_refused(client: FlaskClient, query: str) -> None:
    answer = client.get(f"/api/floor/sensor?{query}")
    assert answer.status_code == 422
    assert client.application.extensions["dialback"].streams.open == 0


def test_an_athlete_taken_away_meanwhile_is_named(bring: Any, client: FlaskClient) -> None:
    from dialback.store.athletes import athlete_on_roster
    from dialback.web.jobs import Jobs

    jobs = Jobs()
    job = jobs.start("sheet", lambda _: athlete_on_roster(77))
    until(lambda: job.finished)
    assert job.problem is not None
    assert "number 77" in job.problem.line
    assert "Look at the roster" in job.problem.line
    assert not job.failed


def test_a_file_that_is_looked_at_again_and_again_stays_at_hand() -> None:
    """Whoever names ten unknown movements, one after the other, still has the file."""
    from dialback.web.jobs import KEPT, Jobs

    jobs = Jobs()
    file = jobs.start("sheet", lambda _: "the file")
    until(lambda: file.finished)
    looked = []
    for _ in range(3 * KEPT):
        assert jobs.find(file.token) is file
        looked.append(jobs.start("sheet", lambda _: "a look at it"))
        until(lambda: looked[-1].finished)
    assert jobs.find(file.token) is file
    assert jobs.find(looked[0].token) is None


def test_a_failing_import_leaves_nothing(
    client: FlaskClient, bring: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Whatever ends it in the middle: no session, no import, and the next one works."""
    from dialback.book.logsheet.columns import SheetChoice
    from dialback.book.logsheet.taking import SheetSession
    from dialback.core.sessions import Session
    from dialback.store import imports
    from dialback.store.athletes import Ledgers
    from dialback.store.models import Import, SetRow
    from dialback.store.models import Session as Row
    from tests.conftest import TODAY

    bring()
    sessions = [
        SheetSession(
            "Ada Test",
            at,
            Session.model_validate(
                {
                    "date": f"2026-0{1 + at // 28}-{1 + at % 28:02d}",
                    "sets": [{"exercise": "Press", "reps": 5}] * 3,
                }
            ),
        )
        for at in range(100)
    ]
    monkeypatch.setattr(imports, "BATCH", 10)
    choice = SheetChoice(columns={"date": 0, "movement": 1})
    with connected():
        before = (Row.select().count(), SetRow.select().count(), Import.select().count())

        def stop(count: int) -> None:
            if count >= 50:
                raise KeyboardInterrupt

        with pytest.raises(KeyboardInterrupt):
            imports.store_sheet("x", sessions, choice, ("a", "b"), Ledgers(), TODAY, stop)
        assert (Row.select().count(), SetRow.select().count(), Import.select().count()) == before
        seen: list[int] = []

        def look(_: int) -> None:
            seen.append(Row.select().where(Row.deleted_on.is_null()).count())

        done = imports.store_sheet("x", sessions, choice, ("a", "b"), Ledgers(), TODAY, look)
        assert done.sessions == 100
        # Nobody sees a part of it.
        assert set(seen) == {before[0]}
        assert Row.select().where(Row.deleted_on.is_null()).count() == before[0] + 100
        assert take_import_back(done.row.id, TODAY) == 100
