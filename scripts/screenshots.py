"""Take the pictures of the main views in docs/screenshots/, from the demo, in a fixed week."""

from __future__ import annotations

import sys
import tempfile
import time
from collections.abc import Callable
from datetime import date
from pathlib import Path

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT))

from tests.browser.driving import Coach, browser, colours, resize, served  # noqa: E402

TODAY = date(2026, 11, 25)
SETTLE_S = 0.6
MARO = "/athletes/1/weeks/2026-W47/sheet"
PUSH = "?finding=balance%2Fpush_pull%2Fsets&trail=balance%2Fpush_pull%2Fa%2Fsets"


def main() -> None:
    """Take them all."""
    out = ROOT / "docs" / "screenshots"
    out.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        served(Path(folder) / "club.sqlite", TODAY) as base,
        browser() as driver,
    ):
        coach = Coach(driver, base)

        def shot(name: str) -> None:
            time.sleep(SETTLE_S)
            driver.save_screenshot(str(out / f"{name}.png"))
            print(f"docs/screenshots/{name}.png")

        coach.open("/", "Week 47")
        coach.sees_no("still to be counted")
        shot("roster")
        coach.open(MARO + PUSH, "behind it")
        shot("week-sheet")
        coach.open("/athletes/2/weeks/2026-W47/season?weeks=16&line=measure%2Fsets", "baseline")
        shot("season")
        colours(driver, "dark")
        coach.open("/athletes/9/weeks/2026-W47/sheet?trail=totals%2Freps", "behind it")
        shot("week-sheet-dark")
        colours(driver, "light")
        coach.open("/athletes/12/weeks/2026-W48/dial", "Nearest notches")
        driver.find_element(By.TAG_NAME, "body").send_keys("-----")
        coach.sees("; saved")
        shot("dial")
        coach.open("/athletes/1/weeks/2026-W49/dial", "Nearest notches")
        driver.find_element(By.TAG_NAME, "body").send_keys("q")
        coach.sees("all clear")
        shot("dial-proposal")
        coach.open("/squad/draft?squad=Sculls&week=2026-W49", "Nothing to publish")
        coach.click("Propose", "button")
        coach.sees("Exceptions")
        coach.click("Take", "button")
        coach.sees("Publish for 3 athletes")
        shot("squad-draft")
        coach.open("/athletes/3/weeks/2026-W47/log", "more rounds")
        shot("log")
        coach.open("/floor", "Clock B")
        coach.click("Run Clock B of Ondra Pell", "button")
        coach.click("Begin", "button")
        for _ in range(3):
            coach.click("Skip", "button")
        coach.click("Start the clock", "button")
        coach.click("Start now", "button")
        time.sleep(3)
        shot("floor")
        resize(driver, 390, 844)
        coach.open("/floor", "Hinge and pull")
        coach.click("all of these", "button")
        coach.find("//button[starts-with(., 'Run ')][contains(., 'by one clock')]").click()
        coach.click("Begin", "button")
        for _ in range(4):
            coach.click("Skip", "button")
        coach.click("Done as planned", "button")
        coach.sees("all sent")
        shot("floor-phone")
        resize(driver, 1280, 800)
        coach.open("/athletes/12/weeks/2026-W50/block", "findings")
        shot("block")
        coach.open("/athletes/1/weeks/2026-W49/block", "Propose the block")
        coach.click("Propose the block", "button")
        coach.sees("Each week takes the ones before it as done")
        shot("block-proposed")
        coach.open("/athletes/1/weeks/2026-W49/write", "The week with it")
        time.sleep(SETTLE_S)
        keys = ActionChains(driver).key_down(Keys.CONTROL).send_keys(Keys.END).key_up(Keys.CONTROL)
        keys.send_keys(Keys.ENTER, "3 rounds, 40 s on, 20 s off, 90 s between rounds:", Keys.ENTER)
        keys.send_keys("  Inverted row", Keys.ENTER, "Kettlebell swing at 16 kg, rst 20 s")
        keys.send_keys(Keys.ESCAPE, Keys.ARROW_UP, Keys.ARROW_UP).perform()
        coach.sees("Did you mean rest?")
        shot("write")
        coach.open(MARO, "Maro Veldt")
        coach.open("/rules", "House rules")
        coach.click("pull-biased", "button")
        coach.sees("findings before")
        coach.wait(lambda: "Counting…" not in coach.text(), "still counting")
        shot("rules")
        coach.open("/movements?muscle=glutes&name=Split%20squat", "Also called")
        shot("movements")
        coach.open("/kit", "The smallest step")
        shot("kit")
        coach.open("/files", "On the roster")
        shot("files")
        _with_people(coach, shot)


def _with_people(coach: Coach, shot: Callable[[str], None]) -> None:
    """The places that live of several people; last, for an account closes the door."""
    ask = (
        "const [method, path, body, done] = arguments; fetch(path, {method, headers: "
        "{'Content-Type': 'application/json', 'X-Place': 'People'}, body: JSON.stringify(body)})"
        ".then(done)"
    )
    for name, role in (("Ines Tarrow", "owner"), ("Joss Weir", "assistant"), ("Board", "viewer")):
        body = {"name": name, "role": role, "password": "three quiet rivers"}
        coach.driver.execute_async_script(ask, "POST", "/api/accounts", body)
    for athlete in (1, 4, 8):
        coach.driver.execute_async_script(ask, "POST", f"/api/athletes/{athlete}/door", {})
    coach.open("/people", "Joss Weir")
    shot("people")
    coach.open("/athletes/8/weeks/2026-W48/block?weeks=6", "Single leg and row")
    coach.find("//button[@data-cell='0/1']").click()
    coach.click("Repeat all of week 49", "button")
    coach.sees("Repeated")
    coach.open("/athletes/10/weeks/2026-W47/log", "Single leg and row")
    coach.find("//nav[@aria-label='Sessions of the week']//button[contains(., 'Fri')]").click()
    coach.type("y")
    coach.find("//button[.='Remove']")
    coach.open("/journal", "Logged")
    shot("journal")


if __name__ == "__main__":
    main()
