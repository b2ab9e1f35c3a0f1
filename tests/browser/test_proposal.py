"""A proposal on the Dial: a step declined, and the week's kind set on the block."""

from selenium.webdriver.support.ui import Select

from tests.browser.driving import Coach


def test_a_step_is_declined_and_the_word_withdrawn(coach: Coach) -> None:
    coach.open("/athletes/1/weeks/2026-W49/dial", "Nearest notches")
    coach.find("//body").send_keys("q")
    coach.sees("would clear")
    steps = "section[aria-label=Proposal] li span.font-semibold"

    def named() -> set[str]:
        return {one.text for one in coach.all(steps)}

    first = coach.all(steps)[0].text
    coach.find("//section[@aria-label='Proposal']//button[.='decline']").click()
    coach.sees("Declined: ")
    coach.sees("Undo")
    status = "//section[@aria-label='Proposal']//p[@role='status']"
    coach.holds(lambda: first in coach.find(status).text)
    # It is not in the proposal that comes instead, nor after going and coming back.
    coach.holds(lambda: first not in named())
    assert coach.axe() == []
    coach.open("/athletes/1/weeks/2026-W49/rules", "not proposed again until")
    coach.open("/athletes/1/weeks/2026-W49/dial", "Nearest notches")
    coach.find("//body").send_keys("q")
    coach.sees("would clear")
    coach.holds(lambda: named() and first not in named())


def test_the_weeks_of_a_block_are_marked_where_they_are_planned(coach: Coach) -> None:
    coach.open("/athletes/12/weeks/2026-W50/block", "the week is")
    Select(coach.field("Week 51 is")).select_by_visible_text("a test week")
    coach.open("/athletes/12/weeks/2026-W51/sheet", "Week 51")
    kind = coach.field("The week is")
    coach.holds(lambda: Select(kind).first_selected_option.text == "a test week")
