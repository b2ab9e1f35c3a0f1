"""The verdict on the screen: a line with its plot, a decision and its end, a week of a kind."""

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.driving import Coach

NEW = "//section[@aria-label='What is new']"
JORY = "/athletes/5/weeks/2026-W47"


def test_a_drift_is_shown_with_its_line(coach: Coach) -> None:
    coach.open("/athletes/9/weeks/2026-W47/sheet", "Sessions take")
    coach.find(f"{NEW}//li[contains(., 'drifts')]//*[name()='svg' and @role='img']")
    assert coach.axe() == []


def test_what_stands_is_decided_once_and_the_decision_withdrawn(coach: Coach) -> None:
    coach.open(f"{JORY}/sheet", "Is this intended")
    coach.find(f"{NEW}//li[contains(., 'Imbalance')]//button[.='Decide']").click()
    Select(coach.find("//select[@aria-label='What is decided']")).select_by_value("good")
    assert coach.axe() == []
    reason = coach.find("//input[@aria-label='Reason for the decision']")
    reason.send_keys("no bar in the living room", Keys.ENTER)
    coach.wait(
        lambda: not coach.driver.find_elements("xpath", f"{NEW}//li[contains(., 'Imbalance')]"),
        "still asked",
    )
    coach.open(f"{JORY}/rules", "Decisions")
    coach.sees("Imbalance (push : pull): intended for good")
    assert coach.axe() == []
    coach.open(f"{JORY}/season", "Decided")
    coach.open(f"{JORY}/rules", "no bar in the living room")
    rows = "//section[@aria-labelledby='decisions']//button[.='Withdraw it']"
    there = len(coach.driver.find_elements("xpath", rows))
    coach.find(rows).click()
    coach.wait(lambda: len(coach.driver.find_elements("xpath", rows)) == there - 1, "not withdrawn")
    coach.sees("withdrawn")
    coach.find("//section[@aria-labelledby='decisions']//button[.='Reinstate']")


def test_a_week_that_looks_like_one_of_a_kind_is_marked(coach: Coach) -> None:
    coach.open("/athletes/6/weeks/2026-W47/sheet", "It looks like a tempo week")
    coach.click("Mark it as a tempo week", "button")
    coach.sees_no("It looks like a tempo week")
    kind = coach.field("The week is")
    coach.holds(lambda: kind.get_attribute("value") == "tempo")
    coach.open("/", "to audit")
    coach.holds(lambda: "tempo" not in coach.find("//tr[contains(., 'Wendel Okoro-Fay')]").text)
    # Marked as an ordinary one again, it is asked about as before.
    coach.open("/athletes/6/weeks/2026-W47/sheet", "planned sessions done")
    Select(coach.field("The week is")).select_by_value("")
    coach.sees("It looks like a tempo week")


def test_a_threshold_of_the_long_run_is_switched_off_and_on(coach: Coach) -> None:
    coach.open("/rules", "The long run")
    coach.find("//button[contains(., 'limits')]").click()
    watched = coach.find("//input[@aria-label='Longer sessions: watched']")
    watched.click()
    coach.sees("not watched")
    assert coach.axe() == []
    coach.click("Discard", "button")
    coach.holds(lambda: coach.find("//input[@aria-label='Longer sessions: watched']").is_selected())
