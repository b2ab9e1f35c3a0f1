"""Every place on a phone and on a tablet: the page does not scroll sideways, and can be read."""

import pytest

from tests.browser.driving import Coach, colours, resize

PLACES = [
    ("/", "to audit"),
    ("/squad?week=2026-W49", "In common"),
    ("/squad/draft?squad=Sculls&week=2026-W49", "Everybody"),
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
  .map(one => `${one.tagName} ${one.scrollWidth} in ${one.clientWidth}`)
  .concat(document.documentElement.scrollHeight > innerHeight + 1 ? ['the frame moves'] : []);
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
        coach.wait(
            lambda: coach.driver.execute_script(SIDEWAYS) == [],
            str(coach.driver.execute_script(SIDEWAYS)),
        )
        coach.holds(lambda: coach.driver.execute_script(SMALL) == [])
    assert coach.axe() == []


def right_of(coach: Coach, xpath: str) -> float:
    found = coach.find(xpath).rect
    return float(found["x"] + found["width"])


WIDER = """
return [...document.querySelectorAll('main table')]
  .filter(one => one.getBoundingClientRect().right > innerWidth + 1)
  .map(one => one.innerText.slice(0, 60));
"""


@pytest.mark.parametrize(
    ("path", "words"),
    [
        ("/movements", "Ankle circles"),
        ("/athletes/1/weeks/2026-W47/sheet", "Balance"),
        ("/athletes/1/weeks/2026-W48/dial", "Nearest notches"),
        ("/athletes/1/weeks/2026-W48/block", "Goals"),
    ],
)
def test_tables_fit_a_phone(coach: Coach, path: str, words: str) -> None:
    resize(coach.driver, 390, 844)
    coach.open(path, words)
    coach.holds(lambda: coach.all("main table"))
    coach.holds(lambda: coach.driver.execute_script(WIDER) == [])


def test_a_phone_turns_to_the_columns_and_weeks_that_are_not_seen(coach: Coach) -> None:
    resize(coach.driver, 390, 844)
    coach.open("/athletes/1/weeks/2026-W47/sheet", "Balance")
    week = "//table[.//th[starts-with(., 'The week')]]"
    heads = f"{week}//th[@scope='col']"
    shown = "return [...arguments[0].querySelectorAll('th[scope=col]')].map(one => one.innerText)"

    def of(table: str) -> list[str]:
        return coach.driver.execute_script(shown, coach.find(table))

    coach.holds(lambda: of(week) == ["planned", "done", "share"])
    coach.click("The week: show baseline, change, band", "button")
    coach.holds(lambda: of(week) == ["baseline", "change", "band"])
    # What turns for one turns for its like: the muscles' figures are the same ones.
    coach.holds(lambda: of("//table[.//th[starts-with(., 'Muscles')]]") == of(week))
    coach.click("The week: show planned, done, share", "button")
    coach.find(f"{heads}[.='planned']")
    coach.open("/athletes/1/weeks/2026-W48/block", "Goals")
    coach.sees("weeks 1 and 2 of 6")
    coach.click("Later", "button")
    coach.sees("weeks 2 and 3 of 6")
    coach.sees("Week 50")
    assert coach.axe() == []


def test_a_tablet_has_room_for_what_is_new(coach: Coach) -> None:
    resize(coach.driver, 768, 1024)
    coach.open("/", "What is new")
    coach.wait(lambda: coach.find("//th[.='What is new']").rect["width"] > 150, "cramped")


def test_a_phone_opens_a_movement_above_the_list(coach: Coach) -> None:
    resize(coach.driver, 390, 844)
    coach.open("/movements", "Ankle circles")
    found = coach.find("//button[.='Wall sit']")
    coach.driver.execute_script("arguments[0].scrollIntoView()", found)
    found.click()
    head = "//aside//h2[.='Wall sit']"
    coach.wait(lambda: 0 < coach.find(head).rect["y"] < 844, "out of sight")
    # At a desk the first one is open from the beginning.
    resize(coach.driver, 1280, 800)
    coach.open("/movements", "Ankle circles")
    coach.holds(lambda: coach.find("//aside//h2").text == "Ankle circles")


def top_of(coach: Coach, xpath: str) -> float:
    return float(coach.find(xpath).rect["y"])


def test_on_a_phone_the_verdict_comes_first(coach: Coach) -> None:
    resize(coach.driver, 390, 844)
    coach.open("/athletes/1/weeks/2026-W47/sheet", "Balance")
    first = "//section[@aria-label='Findings']//ol/li[1]"
    coach.wait(lambda: top_of(coach, first) < 500, "the first cause is out of sight")
    coach.wait(lambda: top_of(coach, "//button[contains(., 'Sign off')]") < 800, "no thumb gets it")
    coach.open("/athletes/1/weeks/2026-W48/dial", "Nearest notches")
    coach.wait(lambda: top_of(coach, "//button[contains(., 'Publish')]") < 800, "out of reach")
    coach.wait(lambda: top_of(coach, "//th[contains(., 'Mon 23 Nov')]") < 844, "no line in sight")
    coach.open("/athletes/1/weeks/2026-W49/write", "Bench press")
    coach.sees("21 sets, 42 min")


def test_on_a_phone_every_place_is_under_the_thumb(coach: Coach) -> None:
    resize(coach.driver, 390, 844)
    coach.open("/athletes/1/weeks/2026-W47/sheet", "Balance")
    bar = "//nav[@aria-label='Places near']"
    coach.find(f"{bar}//a[.='Log']").click()
    coach.address("/log")
    small = """
return [...document.querySelectorAll('main button, main a, main select, nav button, nav a')]
  .filter(one => { const box = one.getBoundingClientRect();
                   return box.width > 1 && (box.height < 24 || box.width < 24); })
  .map(one => one.outerHTML.slice(0, 90));
"""
    coach.sees("All as planned")
    coach.wait(lambda: coach.driver.execute_script(small) == [], "too small for a thumb")
    coach.find(f"{bar}//button[.='More']").click()
    assert coach.axe() == []
    coach.find("//*[@role='dialog']//a[.='Season']").click()
    coach.address("/season")
    coach.find(f"{bar}//a[.='Roster']").click()
    coach.sees("to audit")


def test_enlarged_twice_the_page_scrolls_as_one(coach: Coach) -> None:
    resize(coach.driver, 640, 400)
    for path, words, last in (
        ("/athletes/1/weeks/2026-W47/sheet", "open points", "//button[starts-with(., 'Sign off')]"),
        ("/athletes/1/weeks/2026-W49/write", "Bench press", "//*[contains(., 'The week with it')]"),
    ):
        coach.open(path, words)
        coach.holds(
            lambda: coach.driver.execute_script(
                "return document.documentElement.scrollHeight > innerHeight * 1.5"
            )
        )
        coach.driver.execute_script(
            "arguments[0].scrollIntoView({block: 'center'})", coach.find(last)
        )
        top = coach.driver.execute_script(
            "return arguments[0].getBoundingClientRect().top", coach.find(last)
        )
        assert top < 400


def test_in_colours_of_ones_own_what_is_chosen_and_done_is_told_apart(coach: Coach) -> None:
    forced = {"features": [{"name": "forced-colors", "value": "active"}]}
    coach.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", forced)
    try:
        coach.open("/athletes/1/weeks/2026-W47/sheet", "open points")

        def ground(xpath: str) -> str:
            return coach.find(xpath).value_of_css_property("background-color")

        coach.holds(lambda: ground("//button[.='done']") != ground("//button[.='planned']"))
        assert ground("//nav//a[.='Week sheet']") != ground("//nav//a[.='Log']")
        done = "//*[contains(@class, 'bg-ink') and contains(@class, 'size-2')]"
        assert ground(done) == ground("//button[.='done']")
    finally:
        colours(coach.driver, "light")
