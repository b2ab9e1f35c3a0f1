"""From nothing to paper, and a year's spreadsheet as it is: in how many actions of a hand."""

from __future__ import annotations

from datetime import date, timedelta
from pathlib import Path

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Coach

SQUAD = """Hi, here are the nine for the winter, cheers, R.
Juniors:
- Ada Lind, 62.5 kg, novice
- Marsh, Bo
- Cy Falk, 71 kg
- Dee Okafor
- Eli Sands, born 2009
Seniors:
Fay Thorne; Gus Ilves
Hal Brandt, 88 kg
Ivy Coyle
"""
WEEK = (
    "Mon 23 Nov Push",
    "Bench press 3 x 8 at 30 kg",
    "Wed 25 Nov Legs",
    "Back squat 3 x 8 at 40 kg",
    "Fri 27 Nov Pull",
    "Bent-over row 3 x 10 at 30 kg",
)


class Hand:
    """A coach whose actions are counted: each click, and each field or text typed."""

    def __init__(self, coach: Coach) -> None:
        self.coach = coach
        self.actions = 0

    def click(self, words: str, tag: str = "button") -> None:
        self.actions += 1
        self.coach.click(words, tag)

    def press(self, xpath: str) -> None:
        self.actions += 1
        self.coach.find(xpath).click()

    def type(self, xpath: str, text: str) -> None:
        self.actions += 1
        self.coach.find(xpath).send_keys(text)


@pytest.fixture(scope="module")
def coach(newcomer: Coach) -> Coach:
    return newcomer


def test_from_an_empty_file_to_the_plans_of_nine_on_paper(coach: Coach) -> None:
    coach.open("/", "Nobody is on the roster yet.")
    hand = Hand(coach)
    hand.click("Add your first athletes")
    hand.type("//textarea", SQUAD)
    # Whether the greeting is a person is asked, not guessed.
    coach.sees("is this a person?")
    hand.press("//button[starts-with(@aria-label, 'Leave out Hi')]")
    coach.sees("Add 9 athletes")
    hand.click("Add 9 athletes")
    hand.click("Ada Lind", "a")
    hand.press("//nav//a[starts-with(., 'Write')]")
    hand.click("New session")
    coach.sees("The week with it")
    hand.actions += 1
    for line in WEEK:
        ActionChains(coach.driver).send_keys(line, Keys.ENTER).perform()
    coach.sees("This text has 3 days.")
    coach.sees("saved")
    hand.click("Make each day a session")
    coach.sees("3 sessions made from one text.")
    hand.press("//nav//a[starts-with(., 'Block')]")
    hand.click("Templates")
    hand.type("//*[@role='dialog']//label[contains(., 'under the name')]//input", "Winter")
    hand.press("//*[@role='dialog']//button[.='Save']")
    hand.click("all")
    hand.click("Use for 9 athletes")
    coach.sees("Used for 9 athletes.")
    hand.click("Close")
    hand.click("Print")
    hand.click("Everybody", "label")
    paper = coach.find("//*[@role='dialog']//a[contains(., 'Open 9 pages as a PDF')]")
    hand.actions += 1
    kind = coach.driver.execute_async_script(
        "fetch(arguments[0]).then(found => arguments[1](found.headers.get('Content-Type')))",
        paper.get_attribute("href"),
    )
    assert kind == "application/pdf"
    assert hand.actions < 60


def year() -> str:
    """Twelve months of two people, in a coach's own words, with a slip in the last row."""
    days = {
        0: ("BP", "Squat", "RDL", "OHP"),
        2: ("Chins", "Bulgarian split squat", "DB row", "Plank"),
        4: ("Big row thing", "Sled", "Facepulls", "Hip thrusts"),
    }
    rows = ["When;Who;Thing;Work done;kg;Felt;Remarks"]
    for week in range(52):
        monday = date(2025, 11, 17) + timedelta(7 * week)
        for day, names in days.items():
            for who, more in (("Ada Lind", 0), ("Bo Marsh", 10)):
                for at, name in enumerate(names):
                    dose = (
                        "3x45s" if name in ("Plank", "Sled") else ("4x6", "3x8", "3 x 10")[at % 3]
                    )
                    load = "" if name in ("Plank", "Chins") else f"{20 + more + week // 4 * 2.5:g}"
                    felt = ("7", "7,5", "8")[week % 3]
                    rows.append(
                        f"{monday + timedelta(day):%d.%m.%y};{who};{name};{dose};"
                        f"{load.replace('.', ',')};{felt};{'tired' if week % 9 == 0 else ''}"
                    )
    return "\n".join([*rows, "16.11.26;Ada Lind;BP;3xlots;40;8;"])


def test_a_years_spreadsheet_comes_in_as_it_is(coach: Coach, tmp_path: Path) -> None:
    file = tmp_path / "year.csv"
    file.write_text(year())
    coach.open("/", "Ada Lind")
    hand = Hand(coach)
    hand.press("//nav//a[starts-with(., 'Files')]")
    coach.sees("A log from a spreadsheet")
    hand.type("//input[@aria-label='Spreadsheet file']", str(file))
    coach.sees("year.csv, 1 249 rows".replace("1 249", "1\u202f249"))
    hand.click("Preview")
    coach.sees("'3xlots' is not a number")
    hand.click("leave it out")
    names = "//section[@aria-label='Movements to name']//li[.//input]"
    coach.wait(lambda: coach.find(names), "no names to give")
    left = len(coach.driver.find_elements("xpath", names))
    assert 0 < left <= 4
    while left:
        name = coach.find(f"{names}//input").get_attribute("aria-label").removesuffix(" is")
        near = coach.find(f"({names})[1]//button[contains(@class, 'trail-link')][2]")
        hand.actions += 1
        near.click()
        hand.press(f"({names})[1]//button[.='same as this']")
        coach.find(f"//li[contains(., '{name}') and contains(., 'is ')]//button[.='change']")
        left -= 1
    ready = coach.find("//button[starts-with(., 'Import 3')]")
    coach.wait(ready.is_enabled, "something is still asked")
    hand.press("//button[starts-with(., 'Import 3')]")
    coach.sees("sessions with")
    assert hand.actions < 25
