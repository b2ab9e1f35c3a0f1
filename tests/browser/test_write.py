"""Writing a session in the real editor."""

import re
from base64 import b64decode

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Coach

WEEK = "/athletes/8/weeks/2026-W49"
EDITOR = "[...document.querySelectorAll('div')].find(one => one.shadowRoot).shadowRoot"


def typed(coach: Coach, *keys: str) -> None:
    ActionChains(coach.driver).send_keys(*keys).perform()


def text(coach: Coach) -> str:
    lines = f"[...{EDITOR}.querySelectorAll('.cm-line')].map(line => line.textContent)"
    return "\n".join(coach.driver.execute_script(f"return {lines}"))


def underlined(coach: Coach) -> list[str]:
    ranges = f"[...{EDITOR}.querySelectorAll('.cm-lintRange-error')].map(one => one.textContent)"
    return list(coach.driver.execute_script(f"return {ranges}"))


def open_new(coach: Coach) -> None:
    coach.open(f"{WEEK}/write", "The week with it")
    # What a test before typed and left unstored is kept on the device, and would be gone on with.
    coach.driver.execute_script("localStorage.clear()")
    coach.click("New session", "button")
    coach.wait(lambda: text(coach).startswith("Back squat 5 × 6"), "no empty board")


def test_a_plan_from_elsewhere_stands_as_text(coach: Coach) -> None:
    coach.open(f"{WEEK}/write", "The week with it")
    coach.wait(lambda: "Back squat 4 × 6 at" in text(coach), "no text")
    coach.holds(lambda: "warm-up:" in text(coach))
    coach.holds(lambda: re.search(r"\d+ min", coach.text()))


def test_write_a_session_without_the_mouse(coach: Coach) -> None:
    open_new(coach)
    # A name by its beginning, taken from the completion.
    typed(coach, "front sq")
    coach.wait(
        lambda: coach.driver.execute_script(
            f"return !!{EDITOR}.querySelector('.cm-tooltip-autocomplete')"
        ),
        "no completion",
    )
    # Tab takes the first; Enter would be a new line.
    typed(coach, Keys.TAB, "4 x 5 at 60 kg, rest 2 min", Keys.ENTER)
    coach.wait(lambda: text(coach).startswith("Front squat 4 x 5"), "not written")
    coach.sees("4 sets")
    coach.sees("1\u202f200 kg")
    typed(
        coach,
        "3 rounds, 40 s on, 20 s off:",
        Keys.ENTER,
        "  Inverted row",
        Keys.ENTER,
        "  Press-up",
        Keys.ESCAPE,
    )
    coach.sees("10 sets")
    coach.sees("Not done in the last four weeks: Front squat, Inverted row, Press-up.")
    coach.sees("saved")
    coach.address("session=")
    coach.wait(lambda: "new-" not in coach.driver.current_url, "not saved")
    coach.field("Title of the session").send_keys("Short and sharp")
    coach.sees("saving…")
    coach.sees("saved")
    before = text(coach)
    coach.driver.refresh()
    coach.sees("Short and sharp")
    coach.wait(lambda: text(coach) == before, "not as it was typed")
    coach.open(f"{WEEK}/sheet?basis=planned", "Short and sharp")
    coach.find("//tr[@data-row='Front squat']")


def test_leaving_at_once_loses_nothing(coach: Coach) -> None:
    coach.open("/athletes/5/weeks/2026-W49/write", "The week with it")
    coach.wait(lambda: "Press-up" in text(coach), "no text")
    ActionChains(coach.driver).key_down(Keys.CONTROL).send_keys(Keys.END).key_up(
        Keys.CONTROL
    ).perform()
    typed(coach, Keys.ENTER, "Crunch 3 × 33", Keys.ESCAPE)
    coach.click("Block", "a")
    coach.sees("Repeat this session")
    coach.click("Write", "a")
    coach.wait(lambda: "Crunch 3 × 33" in text(coach), "lost")


def test_what_makes_no_sense_is_asked_about_once_the_line_is_left(coach: Coach) -> None:
    open_new(coach)
    typed(coach, "Press-up 400")
    # It is read and counted as it stands, and not asked about while it is typed.
    coach.sees("400 reps")
    coach.sees_no("is that right?")
    typed(coach, Keys.ENTER, "Inverted row 3 x 10 m", Keys.ENTER, "Press-up 3 x 8")
    # The first may close what completes a word.
    typed(coach, Keys.ESCAPE, Keys.ESCAPE)
    coach.sees("Letters are shortcuts now")
    coach.sees("Line 1: 400 reps in a set: is that right?")
    coach.sees("Line 2: Inverted row is done on the spot: is 10 m right?")
    assert coach.axe() == []
    # Now that nobody writes, a figure chooses.
    typed(coach, "1")
    coach.wait(lambda: text(coach).startswith("Press-up 40\n"), "not written")
    coach.sees_no("is that right?")
    coach.find("//button[contains(., 'as written')]").click()
    coach.sees_no("done on the spot")
    # It was said once: after going and coming back it is not asked again.
    coach.sees("saved")
    coach.wait(lambda: "new-" not in coach.driver.current_url, "not saved")
    coach.driver.refresh()
    coach.wait(lambda: "Inverted row 3 x 10 m" in text(coach), "gone")
    coach.sees("The week with it")
    coach.sees_no("done on the spot")


def test_what_is_chosen_again_and_again_is_taken_as_said(coach: Coach) -> None:
    """With a mark, and a way back; what cannot be meant otherwise is taken at once."""
    open_new(coach)
    for line in ("Press-up 8 8", "Press-up 9 9", "Press-up 7 7"):
        typed(coach, line, Keys.ENTER, Keys.ESCAPE, Keys.ESCAPE)
        numbers = line.removeprefix("Press-up ").replace(" ", ", ")
        coach.sees("Letters are shortcuts now")
        coach.sees(f"Press-up {numbers}")
        typed(coach, "1")
        coach.wait(lambda said=numbers: f"Press-up {said}" in text(coach), "not taken")
        typed(coach, Keys.ENTER)
    typed(coach, "Press-up 6 6", Keys.ENTER)
    coach.wait(lambda: "Press-up 6, 6" in text(coach), "not taken as said")
    coach.sees("“Press-up 6 6” was read as you chose three times before.")
    typed(coach, "Front plank 3 x 40 reps", Keys.ENTER)
    coach.wait(lambda: "Front plank 3 × 40 s" in text(coach), "not read as it can be")
    coach.sees("was read in the one way that makes sense.")
    assert coach.axe() == []
    coach.click("as typed, and ask again", "button")
    coach.wait(lambda: "Press-up 6 6" in text(coach), "not as it was typed")
    coach.sees("Line 4: ")
    coach.click("as typed", "button")
    coach.wait(lambda: "Front plank 3 x 40 reps" in text(coach), "not as it was typed")
    coach.sees_no("the one way that makes sense")


def test_mistakes_are_underlined_and_the_rest_counts(coach: Coach) -> None:
    open_new(coach)
    typed(coach, "Press-up 3 x 9, rst 60 s", Keys.ENTER, "Inverted row 3 x 9", Keys.ENTER)
    coach.sees("Line 1: 'rst' is not understood here")
    coach.sees("Press-up 3 x 9, rest 60 s")
    coach.sees("3 sets")
    coach.wait(lambda: underlined(coach) == ["rst"], str(underlined(coach)))
    coach.find("//ul[@aria-label='Mistakes']//button").click()
    typed(coach, Keys.DELETE, Keys.DELETE, Keys.DELETE, "rest")
    coach.sees("6 sets")
    coach.wait(lambda: underlined(coach) == [], "still underlined")
    # Keys of the application are letters here.
    typed(coach, Keys.END, " r", Keys.BACKSPACE, Keys.BACKSPACE)
    coach.holds(lambda: "/write" in coach.driver.current_url)


def test_the_line_in_hand_has_its_own_figures(coach: Coach) -> None:
    open_new(coach)
    typed(coach, "Press-up 2 x 10", Keys.ENTER, "Inverted row 3 x 10 tempo 4-0-1-0", Keys.ESCAPE)
    here = coach.find("//p[span='this line']")
    coach.wait(lambda: "3 sets" in here.text and "150 s" in here.text, here.text)
    typed(coach, Keys.ARROW_UP)
    coach.wait(lambda: "2 sets" in here.text and "60 s" in here.text, here.text)


def test_take_out_and_put_back(coach: Coach) -> None:
    coach.open("/athletes/7/weeks/2026-W49/write", "Squat and press")
    coach.click("Remove", "button")
    coach.sees("Squat and press removed.")
    coach.click("Undo", "button")
    coach.sees_no("removed.")
    coach.find("//nav[@aria-label='Sessions of the week']//button[contains(., 'Squat and press')]")


def test_a_second_window_is_warned(coach: Coach) -> None:
    place = "/athletes/6/weeks/2026-W49/write"
    coach.open(place, "The week with it")
    first = coach.driver.current_window_handle
    coach.driver.switch_to.new_window("tab")
    coach.open(place, "The week with it")
    coach.field("Title of the session").send_keys(" two")
    coach.sees("saving…")
    coach.sees("saved")
    coach.driver.close()
    coach.driver.switch_to.window(first)
    coach.field("Title of the session").send_keys(" one")
    coach.sees("changed in another window")
    coach.sees("Nothing was overwritten")
    coach.holds(
        lambda: str(coach.field("Title of the session").get_attribute("value")).endswith(" one")
    )


def test_the_notation_is_told_in_the_place(coach: Coach) -> None:
    coach.open(f"{WEEK}/write", "The week with it")
    coach.click("Notation", "button")
    coach.sees("A head that ends with a colon")
    assert coach.axe() == []


def test_the_session_prints_on_one_page_with_boxes(coach: Coach) -> None:
    coach.open(f"{WEEK}/write", "The week with it")
    made = coach.driver.execute_cdp_cmd("Page.printToPDF", {"preferCSSPageSize": True})
    assert b64decode(made["data"]).count(b"/Type /Page\n") == 1
    coach.holds(lambda: len(coach.all(".session-sheet .box")) > 15)


def test_out_of_the_block_into_files(coach: Coach) -> None:
    coach.open("/athletes/8/weeks/2026-W48/block", "To a calendar")
    for words, begins in (
        ("To a calendar", "BEGIN:VCALENDAR"),
        ("Save as text", "2026-11-23 Squat"),
    ):
        address = coach.find(f"//a[.='{words}']").get_attribute("href")
        found = coach.driver.execute_async_script(
            "fetch(arguments[0]).then(r => r.text()).then(arguments[1])", address
        )
        assert found.startswith(begins)


def test_the_same_session_in_fields(coach: Coach) -> None:
    coach.open("/athletes/8/weeks/2026-W50/write?as=form", "The week with it")
    movement = coach.find("(//input[@aria-label='Movement'])[2]")
    coach.wait(lambda: movement.get_attribute("value") == "Goblet squat", "no row")
    row = "//input[@aria-label='Movement' and @value='Goblet squat']/ancestor::li"
    load = coach.find(f"{row}//input[@aria-label='load']")
    load.send_keys(Keys.CONTROL, "a")
    load.send_keys("13 kg")
    # The kit has 12 and 14: both are offered, with the step.
    coach.sees("13 kg cannot be made of the dumbbells")
    coach.click("14 kg", "button")
    coach.sees_no("13 kg cannot be made")
    coach.find(f"{row}//input[@aria-label='load']").send_keys(Keys.ALT, Keys.ARROW_DOWN)
    coach.click("Add a remark", "button")
    coach.wait(lambda: coach.driver.switch_to.active_element.get_attribute("value") == "# ", "none")
    coach.type("seen")
    coach.sees("saved")
    coach.click("Text", "button")
    coach.holds(lambda: "  Press-up\n  Goblet squat at 14 kg" in text(coach))
    coach.holds(lambda: "# seen" in text(coach))
    coach.click("Form", "button")
    coach.find("//button[.='Add a movement']")
    assert coach.axe() == []


def test_the_days_of_a_text_become_sessions(coach: Coach) -> None:
    """Pasted as it came, told apart, and taken back at once."""
    open_new(coach)
    typed(coach, "Thu 3 Dec Legs", Keys.ENTER, "Back squat 3 x 5 at 60 kg", Keys.ENTER)
    typed(coach, "Sun 6 Dec Push", Keys.ENTER, "Press-up 3 x 8", Keys.ESCAPE, Keys.ESCAPE)
    coach.sees("This text has 2 days.")
    assert coach.axe() == []
    coach.sees("saved")
    coach.click("Make each day a session", "button")
    coach.sees("2 sessions made from one text.")
    coach.wait(lambda: text(coach) == "Back squat 3 x 5 at 60 kg", "not the first day's own")
    coach.sees_no("This text has")
    coach.find("//nav//button[contains(., 'Push')]").click()
    coach.wait(lambda: text(coach) == "Press-up 3 x 8", "not the other day's own")
    coach.click("Undo", "button")
    coach.sees_no("made from one text")
    coach.sees_no("Push")
