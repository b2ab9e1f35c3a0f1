"""Monday with a squad: what several have in common, one change for all, published and undone."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any
from urllib.request import urlopen

import pytest
from selenium.webdriver.common.action_chains import ActionChains

from tests.browser.driving import Coach
from tests.browser.test_few_actions import Hand

WEEK = "2026-W49"
PAGE = f"/squad?squad=Sculls&week={WEEK}"
PUBLISHED = "Published for 4 athletes."


@pytest.fixture(autouse=True)
def plans_as_they_were(coach: Coach) -> Iterator[None]:
    """Each test begins with a draft that nothing was turned in."""
    yield
    coach.driver.execute_script("sessionStorage.clear()")


def asked(coach: Coach, path: str) -> Any:
    with urlopen(f"{coach.base}/api{path}") as answer:
        return json.load(answer)


def face_pulls(coach: Coach) -> dict[str, int]:
    """How many sets of it each of the squad is to do in the week."""
    found = {}
    for one in asked(coach, f"/squads/week?squad=Sculls&week={WEEK}")["people"]:
        number = one["row"]["id"]
        plan = asked(coach, f"/athletes/{number}/weeks/{WEEK}/draft")
        found[one["row"]["name"]] = sum(
            line["count"]
            for day in plan["sessions"]
            for line in day["lines"]
            if line["units"][0][0].get("exercise") == "Face pull"
        )
    return found


def press(coach: Coach, key: str) -> None:
    ActionChains(coach.driver).send_keys(key).perform()


def test_monday_s_page_says_what_several_have_in_common(coach: Coach) -> None:
    coach.open("/", "to audit")
    press(coach, "S")
    coach.sees("Everybody: Week 47")
    coach.sees("Nothing in common this week.")
    press(coach, "]")
    coach.sees("Everybody: Week 48 as planned")
    press(coach, "]")
    coach.sees("Everybody: Week 49 as planned")
    coach.sees("share the programme Squat and press / Hinge and pull")
    assert coach.axe() == []
    # From the cause to the people, by keys, and back.
    press(coach, "n")
    coach.wait(lambda: coach.driver.switch_to.active_element.text == "Calder Nuys", "no cause")
    coach.driver.switch_to.active_element.click()
    coach.sees("Calder Nuys")
    coach.wait(lambda: "/dial" in coach.driver.current_url, "not there")
    coach.driver.back()
    coach.sees("Everybody: Week 49 as planned")


def test_who_stands_apart_is_named_and_joined(coach: Coach) -> None:
    coach.open("/squad?squad=Sculls", "Sculls: Week 47")
    coach.sees("to read first")
    name = "//figure[.//*[.='sets']]//a[.='Tess Hallorin']"
    coach.driver.execute_script("arguments[0].focus()", coach.find(name))
    coach.find("//figure//*[name()='polyline']")
    coach.find("//tr[contains(., 'Calder Nuys') and contains(., '2 of 3')]")
    coach.find("//tr[contains(., 'Tess Hallorin') and contains(., 'back after a break')]")


def test_from_monday_s_page_to_everybody_s_week_in_ten_actions(coach: Coach) -> None:
    before = face_pulls(coach)
    coach.open(PAGE, "In common")
    hand = Hand(coach)
    hand.click("Change for all", "a")
    coach.sees("Nothing to publish")
    hand.click("Propose")
    coach.wait(lambda: "Take all" in coach.text() or "Use the best" in coach.text(), "nothing")
    enough = "//button[.='Use the best so far']"
    coach.wait(lambda: not coach.driver.find_elements("xpath", enough), "still looking")
    hand.press("//button[starts-with(., 'Take all')]")
    coach.sees(PUBLISHED.replace("Published", "Publish").removesuffix("."))
    assert coach.axe() == []
    hand.press("//button[starts-with(., 'Publish for')]")
    coach.sees(PUBLISHED)
    assert hand.actions <= 10
    after = face_pulls(coach)
    more = {name for name, count in after.items() if count == before[name] + 1}
    assert more == {"Mirren Sollas", "Pia Dresner", "Wendel Okoro-Fay"}
    # One line of the journal, that opens to the people; taken back as one.
    coach.open("/journal", "4 athletes")
    coach.click("4 athletes", "button")
    coach.sees("Calder Nuys: Published week 49 for Sculls")
    coach.find("//li[contains(., '4 athletes')]//button[.='Undo all 4']").click()
    coach.wait(lambda: face_pulls(coach) == before, "not taken back")


def test_a_line_is_turned_for_all_and_undone_at_once(coach: Coach) -> None:
    before = face_pulls(coach)
    coach.open(f"/squad/draft?squad=Sculls&week={WEEK}", "Nothing to publish")
    coach.find("//button[@aria-label='Face pull, sets for all up']").click()
    coach.sees("Publish for 3 athletes")
    coach.sees("1 change in this draft, not published.")
    # Left and come back to, it is there.
    coach.click("Back to the squad", "a")
    coach.sees("In common")
    coach.driver.back()
    coach.sees("1 change in this draft, not published.")
    press(coach, "u")
    coach.sees("Nothing to publish")
    coach.find("//button[@aria-label='Face pull, sets for all up']").click()
    coach.click("Publish for 3 athletes", "button")
    coach.sees("Published for 3 athletes.")
    assert sum(face_pulls(coach).values()) == sum(before.values()) + 3
    coach.click("Undo for all", "button")
    coach.sees("Undone: the plans are as they were.")
    coach.wait(lambda: face_pulls(coach) == before, "not taken back")


def test_a_draft_of_plans_that_have_changed_is_not_published(coach: Coach) -> None:
    coach.open(f"/squad/draft?squad=Sculls&week={WEEK}", "Nothing to publish")
    coach.find("//button[@aria-label='Face pull, sets for all up']").click()
    coach.sees("Publish for 3 athletes")
    # In another window the same week is published otherwise.
    kept = coach.driver.current_window_handle
    coach.driver.switch_to.new_window("window")
    coach.open(f"/squad/draft?squad=Sculls&week={WEEK}", "Nothing to publish")
    coach.find("//button[@aria-label='Dumbbell curl, sets for all up']").click()
    coach.click("Publish for 3 athletes", "button")
    coach.sees("Published for 3 athletes.")
    undo = coach.find("//button[.='Undo for all']")
    other = coach.driver.current_window_handle
    coach.driver.switch_to.window(kept)
    coach.click("Publish for 3 athletes", "button")
    coach.sees("was changed elsewhere since you opened it")
    coach.click("Discard the draft", "button")
    coach.sees("Nothing to publish")
    coach.driver.switch_to.window(other)
    undo.click()
    coach.sees("Undone: the plans are as they were.")
    coach.driver.close()
    coach.driver.switch_to.window(kept)
