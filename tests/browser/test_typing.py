"""A coach types key by key: what is stored is what was typed. `make trial` types as people do."""

from __future__ import annotations

import os
import random
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import ExitStack
from pathlib import Path
from urllib.parse import quote

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.conftest import TODAY
from tests.browser.driving import Coach, browser, served
from tests.browser.test_write import EDITOR, text
from tests.notation.test_meaning import ALSO
from tests.notation.test_mistakes import examples

HUMAN = os.environ.get("DIALBACK_PACE") == "human"
SLOWEST_S, FASTEST_S = (0.3, 0.18) if HUMAN else (0.1, 0.05)
WEEK = "/athletes/{athlete}/weeks/2026-W52"
HANDS, EVERY = (4, 1) if HUMAN else (2, 9)
"""So many coaches type at the same time, each with a session of their own, every ninth row."""

BOARDS = [
    *(example.rstrip("\n") for example in examples()),
    "\n".join(written for written, _ in ALSO),
    # Where a suggestion once took the line end for itself.
    "Back squat 5x5 80 kg\nBench press 3 x 8 60 kg\nBand row 12 band strong\nPress-up 9 at\nrest",
]


def pieces() -> list[str]:
    """The boards in pieces of about equal length, each for one session."""
    rows: list[list[str]] = []
    for line in [line for board in BOARDS for line in [*board.split("\n"), ""]]:
        # Rounds stay together.
        if rows and line[:1] in ("", " "):
            rows[-1].append(line)
        else:
            rows.append([line])
    lines = [line for row in rows[::EVERY] for line in row]
    share = sum(map(len, lines)) / HANDS
    found: list[list[str]] = [[]]
    for line in lines:
        # A part ends where a line begins at the margin: rounds stay together.
        if len(found) < HANDS and sum(map(len, found[-1])) > share and line[:1] not in ("", " "):
            found.append([])
        else:
            found[-1].append(line)
    return ["\n".join(part).strip("\n") for part in found]


@pytest.fixture(scope="module")
def base(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    data: Path = tmp_path_factory.mktemp("typing") / "club.sqlite"
    with served(data, TODAY) as address:
        yield address


@pytest.fixture(scope="module")
def coach(base: str) -> Iterator[Coach]:
    with browser() as driver:
        yield Coach(driver, base)


def key(coach: Coach, letter: str) -> None:
    ActionChains(coach.driver).send_keys(Keys.ENTER if letter == "\n" else letter).perform()


def new_session(coach: Coach, athlete: int) -> None:
    coach.open(f"{WEEK.format(athlete=athlete)}/write?session=new-2026-12-24", "The week with it")
    coach.wait(lambda: coach.driver.execute_script(f"return !!{EDITOR}"), "no editor")


def stored_text(coach: Coach, athlete: int, week: str = "2026-W52") -> list[str]:
    found = coach.driver.execute_async_script(
        "fetch(arguments[0]).then(r => r.json()).then(arguments[1])",
        f"/api/athletes/{athlete}/weeks/{quote(week)}/written",
    )
    return [session["text"] for session in found["sessions"]]


def test_every_row_of_the_page_is_stored_as_it_was_typed(base: str) -> None:
    boards = pieces()
    assert len(boards) == HANDS
    wrong: list[str] = []
    with ExitStack() as windows:
        coaches = [Coach(windows.enter_context(browser()), base) for _ in boards]

        def write(coach: Coach, athlete: int, board: str) -> None:
            pace = random.Random(athlete)
            try:
                new_session(coach, athlete)
                for letter in board:
                    began = time.monotonic()
                    key(coach, letter)
                    wanted = pace.uniform(FASTEST_S, SLOWEST_S)
                    time.sleep(max(0.0, wanted - (time.monotonic() - began)))
                coach.sees("saved")
                coach.wait(
                    lambda: board in stored_text(coach, athlete),
                    f"typed {board!r}, stored {stored_text(coach, athlete)!r}",
                )
            except Exception as error:
                wrong.append(str(error))

        hands = [
            threading.Thread(target=write, args=(coach, number, board))
            for number, (coach, board) in enumerate(zip(coaches, boards, strict=True), 1)
        ]
        for hand in hands:
            hand.start()
        for hand in hands:
            hand.join()
    assert not wrong, wrong


def test_an_arrow_right_behind_the_last_letter_chooses(coach: Coach) -> None:
    new_session(coach, 13)
    for letter in "front s":
        key(coach, letter)
    shown = f"return !!{EDITOR}.querySelector('.cm-tooltip-autocomplete')"
    coach.wait(lambda: coach.driver.execute_script(shown), "no completion")
    # In one go: a list that is still looking would let both go into the text.
    ActionChains(coach.driver).send_keys("q", Keys.ARROW_DOWN, Keys.ENTER).perform()
    coach.wait(lambda: text(coach) == "Front squat ", "another text")


def test_an_arrow_chooses_and_then_enter_takes(coach: Coach) -> None:
    new_session(coach, 9)
    for letter in "front sq":
        key(coach, letter)
    shown = f"return !!{EDITOR}.querySelector('.cm-tooltip-autocomplete')"
    coach.wait(lambda: coach.driver.execute_script(shown), "no completion")
    key(coach, Keys.ARROW_DOWN)
    key(coach, "\n")
    coach.wait(lambda: text(coach) == "Front squat ", "another text")


def test_a_reload_right_after_the_last_key_loses_nothing(coach: Coach) -> None:
    new_session(coach, 10)
    for letter in "Press-up 3 × 12":
        key(coach, letter)
    coach.driver.refresh()
    coach.wait(lambda: text(coach) == "Press-up 3 × 12", "another text")
    coach.sees("saved")
    coach.wait(lambda: "new-" not in coach.driver.current_url, "not saved")
    for letter in ", rest 60 s":
        key(coach, letter) if letter != "," else (key(coach, Keys.END), key(coach, letter))
    coach.driver.refresh()
    coach.wait(lambda: text(coach) == "Press-up 3 × 12, rest 60 s", "another text")
    coach.wait(lambda: "Press-up 3 × 12, rest 60 s" in stored_text(coach, 10), "not saved")
    # It came once, however often it was sent.
    coach.holds(lambda: sum("Press-up 3 × 12" in one for one in stored_text(coach, 10)) == 1)


def test_what_is_typed_while_a_save_is_on_its_way_is_saved(
    coach: Coach, go_far_away: Callable[[], None]
) -> None:
    new_session(coach, 7)
    go_far_away()
    for letter in "Row 3 x 9":
        key(coach, letter)
    # The first save has gone out, and its answer is not there yet.
    coach.sees("saving…")
    time.sleep(1.8)
    for letter in ", rest 60 s":
        key(coach, letter)
    coach.wait(lambda: "Row 3 x 9, rest 60 s" in stored_text(coach, 7), "not saved")
    coach.wait(lambda: "saving…" not in coach.text(), "still saving")
    coach.holds(lambda: sum("Row 3 x 9" in one for one in stored_text(coach, 7)) == 1)


def test_who_leaves_while_a_save_is_on_its_way_loses_nothing(
    coach: Coach, go_far_away: Callable[[], None]
) -> None:
    new_session(coach, 6)
    go_far_away()
    for letter in "Row 3 x 8":
        key(coach, letter)
    time.sleep(1.3)
    for letter in ", rest 90 s":
        key(coach, letter)
    coach.driver.execute_script("document.querySelector('a[href$=\"/block\"]').click()")
    coach.wait(lambda: "Row 3 x 8, rest 90 s" in stored_text(coach, 6), "not saved")
    coach.holds(lambda: sum("Row 3 x 8" in one for one in stored_text(coach, 6)) == 1)


@pytest.mark.parametrize(
    ("athlete", "away"),
    [(5, "//a[.='Block']"), (12, "//button[contains(., 'Mon 21 Dec')]")],
    ids=["another place", "another session"],
)
def test_who_comes_back_before_a_save_is_there_goes_on(
    coach: Coach, go_far_away: Callable[[], None], athlete: int, away: str
) -> None:
    new_session(coach, athlete)
    for letter in "Row 3 x 9":
        key(coach, letter)
    coach.wait(lambda: "new-" not in coach.driver.current_url, "not saved")
    go_far_away()
    for letter in " at 40":
        key(coach, letter)
    # The save has gone out, and its answer is not there yet.
    time.sleep(1.2)
    coach.find(away).click()
    if away.startswith("//a"):
        coach.address("/block")
        coach.driver.back()
    else:
        coach.wait(lambda: "Row 3 x 9" not in text(coach), "still the same session")
        coach.find("//button[contains(., 'Thu 24 Dec')]").click()
    coach.wait(lambda: text(coach) == "Row 3 x 9 at 40", "another text")
    inside = f"return !!{EDITOR}.activeElement"
    coach.wait(lambda: coach.driver.execute_script(inside), "nothing can be typed")
    key(coach, Keys.END)
    for letter in " kg":
        key(coach, letter)
    coach.wait(lambda: "Row 3 x 9 at 40 kg" in stored_text(coach, athlete), "not saved")
    coach.wait(lambda: "saving…" not in coach.text(), "still saving")
    coach.holds(lambda: "another window" not in coach.text())


def test_who_leaves_a_new_session_at_once_comes_back_to_it(coach: Coach) -> None:
    new_session(coach, 8)
    for letter in "Row 3 x 9":
        key(coach, letter)
    # Away before it had a number; it gets one while nobody is there.
    coach.driver.execute_script("document.querySelector('a[href$=\"/block\"]').click()")
    coach.wait(lambda: "Row 3 x 9" in stored_text(coach, 8), "not saved")
    coach.driver.back()
    coach.wait(lambda: text(coach) == "Row 3 x 9", "another text")
    key(coach, Keys.END)
    for letter in " at 40 kg":
        key(coach, letter)
    coach.wait(lambda: "Row 3 x 9 at 40 kg" in stored_text(coach, 8), "not saved")
    coach.holds(lambda: sum("Row 3 x 9" in one for one in stored_text(coach, 8)) == 1)
    # Another new one on that day is a new one, also after a reload.
    before = len(stored_text(coach, 8))
    new_session(coach, 8)
    coach.driver.refresh()
    coach.wait(lambda: "Row" not in text(coach), "not a new one")
    key(coach, "R")
    coach.wait(lambda: len(stored_text(coach, 8)) == before + 1, "not saved")


def test_a_letter_is_a_letter_wherever_the_focus_is(coach: Coach) -> None:
    new_session(coach, 11)
    key(coach, "P")
    # Somewhere beside the text: the letters go into it, and no key of the application goes off.
    coach.driver.execute_script("document.activeElement.blur()")
    for letter in "ress-up 9 help":
        key(coach, letter)
    coach.wait(lambda: text(coach) == "Press-up 9 help", "another text before leaving")
    coach.holds(lambda: "/write" in coach.driver.current_url)
    # After Escape letters are keys, and none of them lands in the text or in the title.
    key(coach, Keys.ESCAPE)
    if "Letters are shortcuts now" not in coach.text():
        key(coach, Keys.ESCAPE)
    coach.sees("Letters are shortcuts now")
    key(coach, "k")
    coach.address("/block")
    coach.driver.back()
    coach.wait(lambda: text(coach) == "Press-up 9 help", "another text")
    title = "//input[@aria-label='Title of the session' and @value='']"
    coach.find(title)


def test_a_key_held_down_is_not_typed_into_the_place_it_opens(coach: Coach) -> None:
    coach.open("/athletes/12/weeks/2026-W49/sheet", "Week 49")
    before = stored_text(coach, 12, "2026-W49")
    coach.driver.execute_script("document.body.focus()")
    held = {
        "type": "rawKeyDown",
        "key": "w",
        "code": "KeyW",
        "text": "w",
        "windowsVirtualKeyCode": 87,
    }
    coach.driver.execute_cdp_cmd("Input.dispatchKeyEvent", {**held, "type": "keyDown"})
    coach.sees("The week with it")
    for _ in range(5):
        coach.driver.execute_cdp_cmd(
            "Input.dispatchKeyEvent", {**held, "type": "keyDown", "autoRepeat": True}
        )
        time.sleep(0.03)
    coach.driver.execute_cdp_cmd("Input.dispatchKeyEvent", {**held, "type": "keyUp"})
    coach.wait(lambda: text(coach) != "", "no text")
    coach.holds(lambda: text(coach).rstrip("\n") == before[0].rstrip("\n"))
