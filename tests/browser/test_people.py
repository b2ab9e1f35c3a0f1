"""Accounts at work: the owner opens the house, an assistant logs, an athlete comes by phone."""

from collections.abc import Iterator
from typing import Any

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.conftest import TODAY
from tests.browser.driving import Coach, browser, resize, served

PASSWORD = "three quiet rivers"
WEEK = "2026-W48"
READERS = ["Roster", "Squad", "Floor", "Movements", "Kit", "House rules", "Journal"]


@pytest.fixture(scope="module")
def base(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    with served(tmp_path_factory.mktemp("people") / "club.sqlite", TODAY) as address:
        yield address


@pytest.fixture(scope="module")
def coach(base: str) -> Iterator[Coach]:
    """The owner's desk."""
    with browser() as driver:
        yield Coach(driver, base)


@pytest.fixture(scope="module")
def other(base: str) -> Iterator[Coach]:
    """Somebody else's device."""
    with browser() as driver:
        yield Coach(driver, base)


def fill(coach: Coach, label: str, text: str) -> None:
    field = coach.find(f"//label[contains(., '{label}')]//input")
    field.clear()
    for letter in text:
        field.send_keys(letter)


def sign_in(coach: Coach, name: str, password: str = PASSWORD) -> None:
    fill(coach, "Name", name)
    fill(coach, "Password", password + Keys.ENTER)


def places(coach: Coach) -> list[str]:
    """On a phone they are in the bar below."""
    links = "header nav a, nav[aria-label='Places near'] a"
    return [one.text for one in coach.all(links) if one.text]


def test_the_owner_makes_the_first_account_and_others(coach: Coach) -> None:
    coach.open("/people", "No accounts yet")
    assert coach.axe() == []
    fill(coach, "Name to sign in with", "Runa Velk")
    fill(coach, "Password, 12 characters", "short")
    coach.click("Create it and sign in", "button")
    coach.sees("use 12 to 200")
    # What was typed is still there.
    coach.holds(
        lambda: coach.find("//label[contains(., 'Name to sign in')]//input").get_attribute("value")
    )
    fill(coach, "Password, 12 characters", PASSWORD)
    coach.click("Create it and sign in", "button")
    coach.sees("(you)")
    for name, role in (("Joss Weir", "assistant"), ("Board", "viewer")):
        fill(coach, "Name to sign in with", name)
        Select(coach.find("//label[contains(., 'Role')]/select")).select_by_visible_text(role)
        fill(coach, "Password, 12 characters", PASSWORD)
        coach.click(f"Add the {role}", "button")
        coach.find(f"//li[contains(., '{name}')]")
    assert coach.axe() == []


def test_whoever_comes_signs_in_and_goes_on_where_they_wanted(other: Coach) -> None:
    other.open("/journal", "Sign in")
    assert other.axe() == []
    other.holds(
        lambda: other.driver.switch_to.active_element.get_attribute("autocomplete") == "username"
    )
    sign_in(other, "Joss Weir", "not the password")
    other.sees("No account has this name and this password.")
    sign_in(other, "joss weir")
    other.sees("Created an account for Joss Weir, assistant")
    other.driver.refresh()
    other.sees("Created an account for Joss Weir, assistant")
    other.holds(lambda: places(other) == READERS)


def test_an_assistants_day(coach: Coach, other: Coach) -> None:
    other.open("/", "to audit")
    other.sees_no("Add athletes")
    other.find("//a[.='Calder Nuys']").click()
    other.address("/sheet")
    other.sees("Push : pull")
    steps = "nav[aria-label='Steps of the work'] a"
    allowed = ["Block", "Log", "Week sheet", "Season", "Profile"]
    other.holds(lambda: [one.text for one in other.all(steps)] == allowed)
    for words in ("Sign off", "Adjust next week", "Accept"):
        other.sees_no(words)
    # The keys of what is not theirs lead nowhere.
    for key in "dwf":
        other.find("//body").send_keys(key)
    assert other.driver.current_url.split("?")[0].endswith("/sheet")
    athlete = other.driver.current_url.split("/")[4]
    other.open(f"/athletes/{athlete}/weeks/{WEEK}/dial", "This page is for owners and coaches")
    other.sees("your account is an assistant’s")
    other.click("Back", "a")
    other.sees("to audit")
    other.open(f"/athletes/{athlete}/weeks/{WEEK}/block", "Goals")
    other.sees_no("New block")
    assert other.axe() == []
    # What was missed on Friday was done after all.
    other.open(f"/athletes/{athlete}/weeks/2026-W47/log", "Single leg and row")
    other.find("//nav[@aria-label='Sessions of the week']//button[contains(., 'Fri')]").click()
    other.find("//body").send_keys("y")
    other.find("//button[.='Remove']")
    coach.open("/journal?words=Logged", "Calder Nuys: Logged Fri 20 Nov")
    coach.holds(lambda: "Joss Weir, Log" in coach.text())


def test_who_reads_everything_reads_everything(other: Coach) -> None:
    other.open("/kit", "Coaches change the kit.")
    other.holds(lambda: not other.field("Dumbbells, kg").is_enabled())
    other.sees_no("Save")
    other.open("/rules", "Coaches change the rules.")
    other.sees_no("Try on everybody")
    assert other.axe() == []
    rules = "fieldset[disabled] input, fieldset[disabled] select"
    assert all(not one.is_enabled() for one in other.all(rules)[:5])
    assert len(other.all(rules)) > 20
    other.open("/movements", "182 of 182")
    other.sees_no("New movement")
    other.open(f"/athletes/1/weeks/{WEEK}/rules", "The athlete")
    other.sees("Coaches change the rules.")
    for path in ("/files", "/people"):
        other.open(path, "This page is for owners and coaches")


def test_an_athletes_phone(coach: Coach, other: Coach) -> None:
    coach.open("/people", "Anselm Brook")
    coach.click("Make a link for Anselm Brook", "button")
    coach.find("//img[@alt='The link as a QR code']")
    assert coach.axe() == []
    link = coach.find("//*[@role='dialog']//p[contains(@class, 'font-mono')]").text
    coach.click("Close", "button")
    other.click("Sign out", "button")
    other.sees("Athletes sign in with the link")
    resize(other.driver, 390, 844)
    other.driver.get(link)
    other.sees("My week")
    other.sees("Anselm Brook")
    other.holds(lambda: "/door" not in other.driver.current_url)
    other.holds(lambda: places(other) == ["My week", "Floor"])
    assert other.axe() == []
    wide = "return document.documentElement.scrollWidth - innerWidth"
    other.holds(lambda: other.driver.execute_script(wide) <= 0)
    others: dict[str, Any] = other.driver.execute_async_script(
        "const done = arguments[0]; Promise.all(['/api/roster', '/api/athletes/2/weeks/2026-W48',"
        "'/api/rules'].map(one => fetch(one).then(found => found.status))).then(done)"
    )
    assert others == [403, 403, 403]
    other.find("//nav[@aria-label='Places near']//a[.='Floor']").click()
    other.find("//button[@aria-label='Next day']").click()
    other.sees("Hinge and pull")
    other.sees("Anselm Brook")
    other.sees_no("Bram Osterley")
    # Another address of the house says whose it is, and leads back to what is theirs.
    other.open("/rules", "This page is for the people who work here")
    other.click("Back", "a")
    other.address("/log")

    other.click("Fri 27 Nov", "span")
    other.find("//button[contains(., 'Mon 23 Nov')]").click()
    other.sees("Squat and press")
    other.find("//button[starts-with(normalize-space(.), 'not done')]").click()
    coach.open("/journal?words=Logged", "Logged Mon 23 Nov")
    coach.sees("Anselm Brook, Log")


def test_a_withdrawn_link_opens_nothing(coach: Coach, other: Coach) -> None:
    coach.open("/people", "Anselm Brook")
    coach.click("Withdraw the link of Anselm Brook", "button")
    coach.find("//button[@aria-label='Make a link for Anselm Brook']")
    other.driver.refresh()
    other.sees("Athletes sign in with the link")
    kept = other.driver.execute_async_script(
        "const done = arguments[0]; caches.has('dialback-answers').then(done)"
    )
    assert not kept
    resize(other.driver, 1280, 800)


def test_rules_are_taken_back_in_the_journal(coach: Coach) -> None:
    coach.driver.execute_async_script(
        "const done = arguments[0]; fetch('/api/rules', {method: 'PUT', headers:"
        "{'Content-Type': 'application/json', 'X-Place': 'House rules'},"
        "body: JSON.stringify({chosen: {indirect_credit: 0.3}, revision: 1})}).then(done)"
    )
    coach.open("/journal", "Changed the house rules: ")
    row = "//li[span[span[starts-with(., 'Changed the house rules')]]]"
    coach.find(f"{row}//button[.='Undo']").click()
    coach.find(f"{row}//button[.='Redo']")
    coach.sees("Undid: Changed the house rules")
    assert coach.axe() == []
    # After leaving and coming back, too.
    coach.open("/journal?undoable=yes", "Changed the house rules")
    coach.find("//button[.='Redo']").click()
    coach.find("//button[.='Undo']")


def test_a_lost_session_comes_back_to_the_same_place(coach: Coach) -> None:
    coach.open("/", "to audit")
    coach.click("Add athletes", "button")
    coach.find("//div[@role='dialog']//textarea").send_keys("Ada Lind")
    coach.field("Name of Ada Lind").send_keys("t")
    coach.open("/kit", "The smallest step")
    coach.find("//button[.='Save']")
    bands = coach.field("Bands")
    bands.send_keys(", grey")
    coach.sees("not saved yet")
    coach.open(f"/athletes/1/weeks/{WEEK}/rules", "Add a note")
    coach.click("Add a note", "button")
    coach.find("//label[.//*[.='On whose word']]//input").send_keys("Dr Voss")
    said = "//label[.//*[.='What was said']]//input"
    coach.find(said).send_keys("no heavy hinges for a week")
    coach.driver.delete_cookie("dialback")
    coach.click("Save the note", "button")
    coach.sees("has ended")
    coach.find("//label[contains(., 'Password')]//input").send_keys(PASSWORD, Keys.ENTER)
    coach.click("Add a note", "button")
    coach.holds(lambda: coach.find(said).get_attribute("value") == "no heavy hinges for a week")
    coach.open(f"/athletes/1/weeks/{WEEK}/block", "Goals")
    coach.driver.delete_cookie("dialback")
    coach.find("//body").send_keys("s")
    coach.sees("Sign in")
    # Why, and what has become of what was typed; the name is there already.
    coach.sees("Runa Velk’s session on this device has ended")
    password = coach.find("//label[contains(., 'Password')]//input")
    password.send_keys(PASSWORD, Keys.ENTER)
    coach.sees("Push : pull")
    coach.address(f"/athletes/1/weeks/{WEEK}/sheet")
    coach.open("/kit", "not saved yet")
    coach.holds(lambda: coach.field("Bands").get_attribute("value").endswith("grey"))
    coach.open("/", "to audit")
    coach.click("Add athletes", "button")
    coach.holds(lambda: coach.field("Name of Ada Lindt").get_attribute("value") == "Ada Lindt")
