"""Saves that are cut on the way there, or on the way back, told to wait, or answered late.

Whatever happens to the first one: what was changed is stored in the end, and once.
"""

from __future__ import annotations

import json
import time
import urllib.request
from collections.abc import Callable, Iterable, Iterator
from datetime import date
from pathlib import Path
from typing import Any

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Club, Coach, browser
from tests.browser.test_in_hand import bells, bench_press_sets, write_bells
from tests.browser.test_write import open_new, text, typed

TODAY = date(2026, 11, 24)
FAULTS = ("cut at sending", "cut at answering", "told to wait", "answered late")
STORES_NOTHING = (
    "/check",
    "/audit",
    "/rows",
    "/amend",
    "/dial",
    "/notches",
    "/movements",
    "/next",
    "/effect",
    "/effects",
    "/look",
    "/read",
)
"""What is asked with a body, and is no save."""
MIRREN = "/athletes/7/weeks/2026-W48"
ANSELM = "/athletes/8/weeks/2026-W48"


class Faulty:
    """The application behind a line that fails once when it is told to."""

    def __init__(self, app: Any) -> None:
        self.app = app
        self.fault = ""
        self.hits = 0

    def __call__(self, environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        if not self.fault or environ["REQUEST_METHOD"] not in ("PUT", "POST", "DELETE"):
            return self.app(environ, start)  # type: ignore[no-any-return]
        if environ["PATH_INFO"].endswith(STORES_NOTHING):
            return self.app(environ, start)  # type: ignore[no-any-return]
        fault, self.fault = self.fault, ""
        self.hits += 1
        if fault == "told to wait":
            body = b'{"type": "urn:dialback:problem:busy", "detail": "Busy.", "problems": []}'
            start(
                "503 Busy",
                [
                    ("Retry-After", "1"),
                    ("Content-Type", "application/problem+json"),
                    ("Content-Length", str(len(body))),
                ],
            )
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
        called = f"(.='{words}' or @aria-label='{words}')"
        buttons = coach.driver.find_elements("xpath", f"//button[{called} and not(@disabled)]")
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
    coach.holds(lambda: failed_once(club))
    # What was typed stands there, whoever is asked, and a save of one's own is no other window's.
    coach.sees_no("not saved yet")
    coach.holds(lambda: bells(coach).startswith(wanted))


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
    coach.holds(lambda: failed_once(club))
    coach.holds(lambda: str(seconds) in text(coach))
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
    coach.holds(lambda: not any(one["versions"] for one in api(club, f"{ANSELM}/log")["sessions"]))


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
    coach.holds(lambda: failed_once(club))


@pytest.mark.parametrize("fault", FAULTS)
def test_a_draft_on_the_dial(coach: Coach, club: Club, fault: str) -> None:
    coach.open("/athletes/7/weeks/2026-W49/dial", "Nearest notches")
    sets = coach.field("Bench press, sets")
    wanted = 7 + FAULTS.index(fault)
    fail(club, fault)
    sets.send_keys(Keys.CONTROL, "a")
    sets.send_keys(str(wanted))
    coach.wait(lambda: bench_press_sets(coach) == wanted, "not stored")
    coach.sees("; saved")
    coach.holds(lambda: failed_once(club))
    coach.driver.refresh()
    coach.sees("Your saved draft")
    coach.holds(lambda: coach.field("Bench press, sets").get_attribute("value") == str(wanted))
    coach.click("Reset", "button")
    coach.sees("From the plan as published")


@pytest.mark.parametrize("fault", FAULTS)
def test_the_rules_of_the_house(coach: Coach, club: Club, fault: str) -> None:
    coach.open("/rules", "House rules")
    name = "Allowed rise of a load, caution above"
    wanted = str(6 + FAULTS.index(fault))
    field = coach.field(name)
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(wanted, Keys.TAB)
    coach.sees("Not saved yet")
    fail(club, fault)
    coach.click("Save as house rules", "button")
    limits = lambda: api(club, "/rules")["chosen"].get("load_step", [0])  # noqa: E731
    saved_in_the_end(coach, lambda: limits()[0] == int(wanted) / 100, "Save as house rules")
    coach.holds(lambda: failed_once(club))
    coach.sees("All saved.")
    coach.holds(lambda: coach.field(name).get_attribute("value") == wanted)


@pytest.mark.parametrize("fault", FAULTS)
def test_a_book_comes_in_once(coach: Coach, club: Club, fault: str, tmp_path: Path) -> None:
    book = json.dumps(api(club, "/athletes/7/book")).replace("Mirren Sollas", f"Here {fault}")
    (tmp_path / "book.json").write_text(book)
    coach.open("/files", "On the roster")
    coach.field("Book file").send_keys(str(tmp_path / "book.json"))
    coach.find("//button[.='Import']")
    fail(club, fault)
    coach.click("Import", "button")

    def there() -> int:
        return sum(one["name"] == f"Here {fault}" for one in api(club, "/roster")["athletes"])

    saved_in_the_end(coach, lambda: there() == 1, "Import")
    coach.holds(lambda: failed_once(club))
    # Nobody comes twice, however often it is pressed.
    coach.open("/files", f"Here {fault}")
    fail(club, fault)
    coach.click(f"Archive Here {fault}", "button")
    coach.wait(lambda: failed_once(club), "nothing was sent")
    saved_in_the_end(coach, lambda: there() == 0, f"Archive Here {fault}")


@pytest.mark.parametrize("fault", FAULTS)
def test_sets_on_the_floor(coach: Coach, club: Club, fault: str) -> None:
    wednesday = api(club, "/floor?day=2026-11-25")["sessions"]
    plan = [one for one in wednesday if not one["done"]][FAULTS.index(fault)]["plan"]

    def logged() -> int:
        log = api(club, f"/floor/run?plan={plan}")["run"]["log"]
        return len(log["session"]["sets"]) if log else 0

    coach.open(f"/floor/run?plans={plan}", "Stop on sharp pain")
    coach.click("Begin", "button")
    coach.sees("set 1 of")
    while "Start the clock" in coach.text():
        coach.click("Skip", "button")
    coach.click("Skip", "button")
    fail(club, fault)
    for done in (1, 2):
        if coach.find("//main/button[contains(@class, 'ink-button')]").text == "Skip the rest":
            coach.click("Skip the rest", "button")
        coach.click("Done as planned", "button")
        coach.wait(lambda done=done: logged() == done, "not logged")
    coach.holds(lambda: failed_once(club))
    coach.sees("all sent")
