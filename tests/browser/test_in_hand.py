"""What is in hand outlives a reload and a second window; many steps are undone; care is told."""

import time
from collections.abc import Callable

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Coach, resize

ANSELM = "/athletes/8/weeks/2026-W48"


def bells(coach: Coach) -> str:
    return str(coach.field("Kettlebells, kg").get_attribute("value"))


def write_bells(coach: Coach, text: str) -> None:
    field = coach.field("Kettlebells, kg")
    field.send_keys(Keys.CONTROL, "a")
    for letter in text:
        field.send_keys(letter)
    field.send_keys(Keys.TAB)
    coach.sees("not saved yet")


def test_a_reload_straight_after_typing_loses_nothing(coach: Coach) -> None:
    coach.open("/kit", "saved")
    write_bells(coach, "8, 12, 16")
    coach.driver.refresh()
    coach.sees("not saved yet")
    coach.holds(lambda: bells(coach).startswith("8, 12, 16"))
    coach.click("Save", "button")
    coach.sees_no("not saved yet")
    coach.driver.refresh()
    coach.sees("saved")
    coach.holds(lambda: bells(coach).startswith("8, 12, 16"))


def test_another_window_s_kit_stands_beside_mine(coach: Coach) -> None:
    coach.open("/kit", "saved")
    write_bells(coach, "8, 12")
    here = coach.driver.current_window_handle
    coach.driver.switch_to.new_window("tab")
    coach.open("/kit", "saved")
    write_bells(coach, "10, 14")
    coach.click("Save", "button")
    coach.sees_no("not saved yet")
    coach.driver.close()
    coach.driver.switch_to.window(here)
    coach.click("Save", "button")
    coach.sees("changed in another window")
    row = "//div[@role='alert']//tr[th='kettlebells, kg']/td"
    coach.holds(lambda: [coach.find(f"({row})[{at}]").text for at in (1, 2)] == ["10, 14", "8, 12"])
    assert coach.axe() == []
    coach.click("Keep mine", "button")
    coach.click("Save", "button")
    coach.sees_no("not saved yet")
    coach.driver.refresh()
    coach.sees("saved")
    coach.holds(lambda: bells(coach).startswith("8, 12"))


def bench_press_sets(coach: Coach) -> int:
    """As the stored draft of Mirren's week 49 has them."""
    draft = coach.driver.execute_async_script(
        "fetch('/api/athletes/7/weeks/2026-W49/draft').then(r => r.json()).then(arguments[0])"
    )
    lines = [line for session in draft["sessions"] for line in session["lines"]]
    (press,) = [
        line
        for line in lines
        if line["units"][0][0].get("exercise") == "Bench press"
        and not line["units"][0][0].get("warm_up")
    ]
    return int(press["count"])


def test_who_leaves_the_dial_while_a_save_is_on_its_way_loses_nothing(
    coach: Coach, go_far_away: Callable[[], None]
) -> None:
    coach.open("/athletes/7/weeks/2026-W49/dial", "Nearest notches")
    go_far_away()
    sets = coach.field("Bench press, sets")
    began = int(str(sets.get_attribute("value")))
    sets.send_keys(Keys.CONTROL, "a")
    sets.send_keys(str(began + 2))
    # The first save has gone out, and its answer is not there yet.
    time.sleep(1.2)
    sets.send_keys(Keys.CONTROL, "a")
    sets.send_keys(str(began + 3))
    coach.driver.execute_script("document.querySelector('a[href$=\"/block\"]').click()")
    coach.address("/block")
    coach.wait(lambda: bench_press_sets(coach) == began + 3, "not saved")
    coach.driver.delete_network_conditions()
    coach.open("/athletes/7/weeks/2026-W49/dial", "Your saved draft")
    coach.holds(lambda: coach.field("Bench press, sets").get_attribute("value") == str(began + 3))
    coach.click("Reset", "button")
    coach.sees("From the plan as published")


def test_many_steps_of_the_log_are_undone(coach: Coach) -> None:
    coach.open(f"{ANSELM}/log", "Squat and press")

    def undone() -> int:
        return len(coach.driver.find_elements(By.XPATH, "//button[.='not done']"))

    before = undone()
    for at in range(3):
        coach.find("//button[.='not done']").click()
        coach.wait(lambda at=at: undone() == before - at - 1, "not taken")
    coach.find("//*[@role='status']//button[.='Undo']")
    for at in range(3):
        coach.find("//body").send_keys("u")
        coach.wait(lambda at=at: undone() == before - 2 + at, "not undone")
    # That was all.
    coach.wait(lambda: not coach.all("nav [role=status] button"), "there is more to undo")


def test_what_asks_for_care_stands_where_plans_are_made(coach: Coach) -> None:
    coach.open(f"{ANSELM}/rules", "Care")
    coach.click("Add a note", "button")
    coach.find("//label[contains(., 'On whose word')]/input").send_keys("Runa Velk")
    coach.find("//label[contains(., 'What was said')]/input").send_keys("no jumping yet")
    coach.sees("start below what was usual")
    assert coach.axe() == []
    coach.click("Save the note", "button")
    coach.find("//section[@aria-labelledby='care']//li[contains(., 'no jumping yet')]")
    coach.find("//label[contains(., 'Weighs now')]/input").send_keys("77,5", Keys.ENTER)
    coach.find("//button[starts-with(@aria-label, 'Remove the weight of')]")
    for place in ("dial", "write", "block"):
        coach.open(f"{ANSELM}/{place}", "Anselm Brook")
        told = coach.find("//div[contains(@class, 'athlete-head')]//span[@title]")
        coach.holds(lambda told=told: told.text.startswith("return from injury"))
        coach.holds(lambda told=told: "Runa Velk" in str(told.get_attribute("title")))
    resize(coach.driver, 390, 844)
    coach.open(f"{ANSELM}/dial", "Anselm Brook")
    coach.sees("return from injury")
    wide = "return document.documentElement.scrollWidth - innerWidth"
    coach.holds(lambda: coach.driver.execute_script(wide) <= 0)
    resize(coach.driver, 1280, 800)
    coach.open(f"{ANSELM}/rules", "Care")
    coach.click("End it", "button")
    coach.find("//button[.='Reinstate']")


def test_the_focus_goes_along_from_place_to_place(coach: Coach) -> None:
    coach.open("/", "to audit")
    coach.type(Keys.TAB)
    skip = coach.driver.switch_to.active_element
    assert skip.text == "Skip to the content"
    skip.send_keys(Keys.ENTER)
    coach.holds(lambda: coach.driver.switch_to.active_element.tag_name == "main")
    coach.find("//header//a[.='Kit']").click()
    coach.sees("The smallest step on a bar")
    coach.wait(lambda: coach.driver.switch_to.active_element.text == "Kit", "not at the heading")
    # Where one writes, the first letter is in the text, wherever the focus went.
    coach.open(f"{ANSELM}/block", "Squat and press")
    coach.find("//button[@data-cell='6/1']").send_keys(Keys.ENTER)
    coach.sees("The week with it")
    ActionChains(coach.driver).send_keys("Press-up 3 x 8").perform()
    coach.sees("3 sets")
    coach.sees("Press-up 3 x 8")
