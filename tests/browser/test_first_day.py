"""The first day of a coach: from an empty file to a squad whose week is planned and logged."""

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.driving import Coach


@pytest.fixture(scope="module")
def coach(newcomer: Coach) -> Coach:
    return newcomer


def test_the_house_is_set_up(coach: Coach) -> None:
    coach.open("/", "Nobody is on the roster yet.")
    assert coach.axe() == []
    coach.find("//label[contains(., 'Name of the house')]/input").send_keys("The Shed")
    step = "//li[h2[contains(., '{}')]]//button[.='Save']"
    coach.find(step.format("The house")).click()
    coach.sees("saved")
    coach.find("//header//span[.='The Shed']")
    coach.find("//label[contains(., 'pull-biased')]/input").click()
    coach.find(step.format("How sets are counted")).click()
    for has in ("A bar of 20 kg", "Dumbbells, 2 to 30 kg"):
        coach.find(f"//label[contains(., '{has}')]/input").click()
    coach.find(step.format("What the room has")).click()
    coach.wait(lambda: len(coach.all("[role=status]")) == 3, "not all three are kept")
    coach.open("/kit", "The smallest step on a bar is 2.5 kg.")
    coach.holds(lambda: coach.field("Dumbbells, kg").get_attribute("value").startswith("2, 4, 6"))
    chosen = coach.driver.execute_async_script(
        "fetch('/api/rules').then(found => found.json()).then(found => arguments[0](found.chosen))"
    )
    assert chosen["balance_bands"]["push_pull"] == [0.5, 0.9]


def test_a_squad_comes_on_and_is_found(coach: Coach) -> None:
    coach.open("/", "Nobody is on the roster yet.")
    coach.click("Add your first athletes", "button")
    area = coach.find("//textarea")
    area.send_keys("Ada Lind, 62.5 kg, squad Juniors, novice\nBo Marsh, squad Juniors\nCy Falk")
    coach.click("Add 3 athletes", "button")
    coach.sees("Ada Lind")
    Select(coach.field("Squad")).select_by_visible_text("Juniors")
    coach.sees_no("Cy Falk")
    coach.sees("Bo Marsh")


def test_the_first_session_is_written_and_logged_without_alarm(coach: Coach) -> None:
    coach.open("/athletes/1/weeks/2026-W48/block", "No block here yet")
    coach.find("//button[@data-cell='0/0']").send_keys(Keys.ENTER)
    coach.address("session=new-2026-11-23")
    coach.sees("The week with it")
    keys = ("Back squat 3 x 5 at 40 kg", Keys.ENTER, "Press-up 3 x 8")
    ActionChains(coach.driver).send_keys(*keys).perform()
    coach.sees("6 sets")
    coach.sees("saved")
    coach.open("/athletes/1/weeks/2026-W48/log", "Back squat")
    coach.find("//body").send_keys("y")
    coach.sees("as planned")
    coach.open("/athletes/1/weeks/2026-W48/sheet?basis=completed", "Ada Lind")
    # Nobody has a baseline in the first week: nothing jumps.
    coach.holds(lambda: "rise from" not in coach.text())


def test_the_week_goes_on_paper(coach: Coach) -> None:
    coach.open("/athletes/1/weeks/2026-W48/sheet?basis=completed", "Ada Lind")
    paper = coach.find("//a[.='Hand-out, week 49']").get_attribute("href")
    kind, length = coach.driver.execute_async_script(
        "const done = arguments[1]; fetch(arguments[0]).then(found => found.arrayBuffer().then("
        "body => done([found.headers.get('Content-Type'), body.byteLength])))",
        paper,
    )
    assert kind == "application/pdf"
    assert length > 5_000


def test_somebody_is_archived_put_back_and_deleted_for_good(coach: Coach) -> None:
    coach.open("/files", "Cy Falk")
    coach.click("Archive Cy Falk", "button")
    coach.sees("Cy Falk is archived; nothing is lost.")
    coach.click("Restore Cy Falk", "button")
    coach.find("//button[@aria-label='Archive Cy Falk']").click()
    coach.click("Delete for good: Cy Falk", "button")
    coach.sees("Delete Cy Falk for good?")
    assert coach.axe() == []
    name = coach.find("//label[contains(., 'The name, exactly as above')]/input")
    name.send_keys("Cy")
    delete = "//*[@role='dialog']//button[.='Delete for good']"
    coach.find(delete).click()
    coach.sees("type it exactly as shown")
    name.send_keys(" Falk")
    coach.find(delete).click()
    coach.sees_no("Cy Falk")
    coach.open("/", "Bo Marsh")
    coach.holds(lambda: "Cy Falk" not in coach.text())
