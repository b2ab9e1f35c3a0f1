"""Every dialog: without a finding of axe, light and dark, and within a phone."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Coach, colours, resize

DIALOGS = [
    ("/", "Maro Veldt", "Add athletes"),
    ("/athletes/1/weeks/2026-W50/block", "Goals", "Templates"),
    ("/athletes/1/weeks/2026-W50/block", "Goals", "New block"),
    ("/athletes/1/weeks/2026-W50/block", "Goals", "All changes"),
    ("/athletes/1/weeks/2026-W47/sheet", "Balance", "Schools side by side"),
    ("/athletes/1/weeks/2026-W49/dial", "Nearest notches", "Publish as week 49’s plan"),
    ("/athletes/1/weeks/2026-W49/dial", "Nearest notches", "Add a movement"),
    ("/athletes/1/weeks/2026-W49/write", "The week with it", "Notation"),
    ("/athletes/4/weeks/2026-W47/rules", "Maxima", "Add one"),
    ("/athletes/4/weeks/2026-W47/rules", "Maxima", "Lift it"),
]


@pytest.mark.parametrize(("path", "words", "opens"), DIALOGS, ids=[one[2] for one in DIALOGS])
def test_a_dialog_is_without_fault(coach: Coach, path: str, words: str, opens: str) -> None:
    coach.open(path, words)
    coach.find(f"(//button[normalize-space(.)='{opens}'])[1]").click()
    dialog = coach.find("//*[@role='dialog']//h2/ancestor::*[@role='dialog']")
    try:
        assert coach.axe() == []
        resize(coach.driver, 390, 844)
        colours(coach.driver, "dark")
        coach.wait(lambda: dialog.rect["x"] >= 0 and dialog.rect["width"] <= 390, "wider than it")
        assert coach.axe() == []
        wide = "return document.documentElement.scrollWidth - innerWidth"
        coach.holds(lambda: coach.driver.execute_script(wide) <= 0)
    finally:
        colours(coach.driver, "light")
        resize(coach.driver, 1280, 800)
    coach.type(Keys.ESCAPE)
    coach.wait(lambda: not coach.all("[role=dialog]"), "does not close by Escape")
