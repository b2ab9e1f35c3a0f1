"""Every place on a phone and on a tablet: the page does not scroll sideways, and can be read."""

import pytest

from tests.browser.driving import Coach, resize

PLACES = [
    ("/", "to audit"),
    ("/floor", "Floor"),
    ("/movements", "Movements"),
    ("/kit", "The smallest step"),
    ("/rules", "Counting a set"),
    ("/files", "Archived"),
    ("/people", "No accounts yet"),
    ("/journal", "Loaded the made-up club"),
    ("/athletes/1/weeks/2026-W47/sheet", "Balance"),
    ("/athletes/1/weeks/2026-W47/log", "planned"),
    ("/athletes/1/weeks/2026-W47/season", "Movements"),
    ("/athletes/1/weeks/2026-W47/rules", "Maxima"),
    ("/athletes/1/weeks/2026-W49/block", "Goals"),
    ("/athletes/1/weeks/2026-W49/write", "Bench press"),
    ("/athletes/1/weeks/2026-W49/dial", "Nearest notches"),
]
SIDEWAYS = """
return [...document.querySelectorAll('html, body, main, aside')]
  .filter(one => one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 0)
  .map(one => `${one.tagName} ${one.scrollWidth} in ${one.clientWidth}`);
"""
SMALL = """
return [...document.querySelectorAll('main .key-button, main .ink-button, main select')]
  .filter(one => { const box = one.getBoundingClientRect();
                   return box.width > 0 && box.height > 0 && box.height < 20; })
  .map(one => one.outerHTML.slice(0, 90));
"""


@pytest.fixture(autouse=True)
def as_before(coach: Coach) -> object:
    yield
    resize(coach.driver, 1280, 800)


@pytest.mark.parametrize(("path", "words"), PLACES, ids=[path for path, _ in PLACES])
def test_nothing_scrolls_sideways(coach: Coach, path: str, words: str) -> None:
    resize(coach.driver, 768, 1024)
    coach.open(path, words)
    for size in ((768, 1024), (390, 844)):
        resize(coach.driver, *size)
        coach.wait(lambda: coach.driver.execute_script(SIDEWAYS) == [],
                   str(coach.driver.execute_script(SIDEWAYS)))  # fmt: skip
        assert coach.driver.execute_script(SMALL) == []
    assert coach.axe(names=True) == []
