"""Saves that are cut on the way there, or on the way back, told to wait, or answered late.

Whatever happens to the first one: what was changed is stored in the end, and once.
"""

from __future__ import annotations

import json
import time
import urllib.request
from collections.abc import Callable, Iterable, Iterator
from datetime import date
from typing import Any

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Club, Coach, browser
from tests.browser.test_in_hand import bells, write_bells
from tests.browser.test_write import open_new, text, typed

TODAY = date(2026, 11, 24)
FAULTS = ("cut at sending", "cut at answering", "told to wait", "answered late")
MIRREN = "/athletes/7/weeks/2026-W48"
ANSELM = "/athletes/8/weeks/2026-W48"


class Faulty:
    """The application behind a line that fails once when it is told to."""

    def __init__(self, app: Any) -> None:
        self.app = app
        self.fault = ""
        self.hits = 0

    def __call__(self, environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        if not self.fault or environ["REQUEST_METHOD"] not in ("PUT", "POST"):
            return self.app(environ, start)  # type: ignore[no-any-return]
        if environ["PATH_INFO"].endswith(("/check", "/audit", "/rows", "/amend")):
            return self.app(environ, start)  # type: ignore[no-any-return]
        fault, self.fault = self.fault, ""
        self.hits += 1
        if fault == "told to wait":
            body = b'{"type": "urn:dialback:problem:busy", "detail": "Busy.", "problems": []}'
            start("503 Busy", [("Retry-After", "1"), ("Content-Type", "application/problem+json"),
                               ("Content-Length", str(len(body)))])  # fmt: skip
            return [body]
        if fault == "answered late":
            time.sleep(5)
            return self.app(environ, start)  # type: ignore[no-any-return]
        if fault == "cut at answering":
            answer = self.app(environ, lambda *_: lambda _: None)
            list(answer)
            answer.close()
        return self._cut(start)

    def _cut(self, start: Callable[..., Any]) -> Iterator[bytes]:
        # More is promised than comes: the line is closed in the middle.
        start("200 OK", [("Content-Length", "1000"), ("Content-Type", "application/json")])
        yield b"{"


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Club]:
    club = Club(tmp_path_factory.mktemp("cut") / "club.sqlite", TODAY)
    club._app.wsgi_app = club.line = Faulty(club._app.wsgi_app)  # type: ignore[attr-defined]
    yield club
    club.stop()


@pytest.fixture(scope="module")
def coach(club: Club) -> Iterator[Coach]:
    with browser() as driver:
        yield Coach(driver, club.base)


@pytest.fixture(autouse=True)
def no_complaints() -> None:
    """A line that is cut is complained about; that is what is tried."""


def api(club: Club, path: str) -> Any:
    with urllib.request.urlopen(f"{club.base}/api{path}", timeout=30) as answer:
        return json.load(answer)


def fail(club: Club, fault: str) -> None:
    line: Faulty = club.line  # type: ignore[attr-defined]
    line.fault, line.hits = fault, 0


def failed_once(club: Club) -> bool:
    line: Faulty = club.line  # type: ignore[attr-defined]
    return line.hits == 1 and not line.fault


def saved_in_the_end(coach: Coach, stored: Callable[[], bool], words: str) -> None:
    """It is stored by itself, or by pressing once more where that was said."""

    def look() -> bool:
        if stored():
            return True
        buttons = coach.driver.find_elements("xpath", f"//button[.='{words}' and not(@disabled)]")
        alerts = coach.driver.find_elements("css selector", "[role=alert]")
        if alerts and buttons:
            buttons[0].click()
        return False

    coach.wait(look, f"not stored: {words}")


@pytest.mark.parametrize("fault", FAULTS)
def test_the_kit(coach: Coach, club: Club, fault: str) -> None:
    coach.open("/kit", "saved")
    wanted = f"8, 12, {20 + 4 * FAULTS.index(fault)}"
    write_bells(coach, wanted)
    fail(club, fault)
    coach.click("Save", "button")
    kit = lambda: api(club, "/kit")["kit"]["kettlebells_kg"]  # noqa: E731
    saved_in_the_end(coach, lambda: ", ".join(f"{one:g}" for one in kit()) == wanted, "Save")
    assert failed_once(club)
    # What was typed stands there, whoever is asked, and a save of one's own is no other window's.
    coach.sees_no("not saved yet")
    assert bells(coach).startswith(wanted)


@pytest.mark.parametrize("fault", FAULTS)
def test_what_is_written(coach: Coach, club: Club, fault: str) -> None:
    open_new(coach)
    fail(club, fault)
    seconds = 231 + FAULTS.index(fault)
    typed(coach, f"Front plank {seconds} s", Keys.ESCAPE)

    def there() -> int:
        plans = api(club, "/athletes/8/book")["planned"]
        return sum(one.get("seconds") == seconds for plan in plans for one in plan["sets"])

    coach.wait(lambda: there() > 0, f"not stored: {coach.text()[:300]}")
    coach.sees("saved")
    assert failed_once(club)
    assert str(seconds) in text(coach)
    # Once, however often it was sent.
    assert there() == 1


@pytest.mark.parametrize("fault", FAULTS)
def test_a_log(coach: Coach, club: Club, fault: str) -> None:
    coach.open(f"{ANSELM}/log", "Squat and press")

    def sets() -> int:
        week = api(club, f"{ANSELM}/log")
        logs = [one["log"]["session"]["sets"] for one in week["sessions"] if one["log"]]
        assert len(logs) <= 1
        return len(logs[0]) if logs else 0

    before = sets()
    fail(club, fault)
    coach.find("//button[.='not done']").click()
    coach.wait(lambda: failed_once(club), "nothing was sent")

    def taken() -> bool:
        if sets() not in (0, before):
            return True
        # Refused in words, it is pressed again.
        if coach.driver.find_elements("css selector", "[role=alert]"):
            coach.find("//button[.='not done']").click()
        return False

    coach.wait(taken, "not stored")
    assert not any(one["versions"] for one in api(club, f"{ANSELM}/log")["sessions"])


@pytest.mark.parametrize("fault", FAULTS)
def test_a_note_of_care(coach: Coach, club: Club, fault: str) -> None:
    coach.open(f"{MIRREN}/rules", "Care")
    coach.click("Add a note", "button")
    coach.find("//label[contains(., 'On whose word')]/input").send_keys("Runa Velk")
    coach.find("//label[contains(., 'What was said')]/input").send_keys(f"slowly: {fault}")
    fail(club, fault)
    coach.click("Save the note", "button")
    found = lambda: json.dumps(api(club, "/athletes/7/care"))  # noqa: E731
    saved_in_the_end(coach, lambda: f"slowly: {fault}" in found(), "Save the note")
    assert failed_once(club)
