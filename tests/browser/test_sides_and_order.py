"""The floor as sessions are really run: sides apart, stations in another order, reps in a time."""

from __future__ import annotations

import json
from collections.abc import Iterator
from urllib.request import Request, urlopen

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Club, Coach, before_each_page, browser, running
from tests.browser.test_by_ear import VOICES
from tests.browser.test_floor import (
    SHIFTED,
    WEDNESDAY,
    api,
    begin,
    clock,
    logged,
    pass_time,
    tap,
)

WEEK = "2026-W48"


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Club]:
    with running(tmp_path_factory.mktemp("sides") / "club.sqlite", WEDNESDAY) as club:
        yield club


@pytest.fixture(scope="module")
def coach(club: Club) -> Iterator[Coach]:
    with browser() as driver:
        before_each_page(driver, SHIFTED, VOICES)
        yield Coach(driver, club.base)


def written(club: Club, text: str) -> str:
    """A session planned for today in those words; its number."""
    names = {one["name"]: one["athlete"] for one in api(club, "/floor")["sessions"]}
    url = f"{club.base}/api/athletes/{names['Tess Hallorin']}/weeks/{WEEK}/written"
    body = {"date": WEDNESDAY.isoformat(), "title": text[:20], "text": text}
    asked = Request(url, json.dumps(body).encode(), {"Content-Type": "application/json"})
    with urlopen(asked) as answer:
        return str(json.load(answer)["id"])


def said(coach: Coach) -> list[str]:
    return coach.driver.execute_script("return window.__said")


def kept(club: Club, number: str) -> list[str]:
    return [
        f"{one['exercise']} {one['sides']} {one['seconds']:g} s, {one['reps']} reps"
        if one["seconds"]
        else one["exercise"]
        for one in logged(club, int(number))
    ]


def test_each_side_is_a_bout_and_is_kept_as_it_was(coach: Coach, club: Club) -> None:
    number = written(club, "Side plank 2 x 2 min each side, rest 5 min")
    begin(coach, number, "set 1 of 2")
    tap(coach, "Voice off")
    coach.find("//button[starts-with(@aria-label, 'left first')]").click()
    coach.sees("right first")
    tap(coach, "Start the clock")
    pass_time(coach, 6)
    coach.find("//main//span[.='right']")
    # The first side runs to its end, and there is a pause to turn.
    pass_time(coach, 120)
    coach.wait(lambda: "Change sides: left" in said(coach), "no word to turn")
    coach.wait(lambda: "Go, left" in said(coach), "no other side")
    coach.find("//main//span[.='left']")
    assert coach.axe() == []
    # The other side is given up: it is kept with the seconds that it had.
    pass_time(coach, 10)
    tap(coach, "End it early")
    coach.wait(lambda: "rest" in clock(coach), "no rest")
    of = kept(club, number)
    coach.wait(lambda: len(kept(club, number)) == 2, f"not logged: {of}")
    first, other = kept(club, number)
    assert first == "Side plank right 120 s, None reps"
    seconds = float(other.removeprefix("Side plank left ").split(" s")[0])
    assert 10 <= seconds < 120
    # The whole of the next by the clock is one set of both.
    pass_time(coach, 300)
    coach.wait(lambda: "work" in clock(coach), "no second set")
    pass_time(coach, 120)
    coach.wait(lambda: said(coach).count("Go, left") == 2, "no other side")
    pass_time(coach, 120)
    coach.sees("Exertion and notes in the log")
    # From the start to the end, the sleep of a set and the rest with it.
    tap(coach, "Log the minutes")
    coach.sees("by the clock, logged")

    def minutes() -> float:
        log = api(club, f"/floor/run?plan={number}")["run"]["log"]
        return log["session"]["duration_min"] or 0

    coach.wait(lambda: 11 <= minutes() < 60, "no minutes")
    coach.wait(
        lambda: kept(club, number)[2:] == ["Side plank each 120 s, None reps"], "not as planned"
    )


@pytest.mark.usefixtures("phone")
def test_reps_in_a_timed_set_are_said_by_taps(coach: Coach, club: Club) -> None:
    number = written(club, "Press-up 1 x 30 s\nBack squat 1 x 5 at 40 kg")
    begin(coach, number, "set 1 of 2")
    tap(coach, "Start the clock")
    pass_time(coach, 6)
    pass_time(coach, 31)
    coach.find("//aside//button[contains(., 'correct')]").click()
    reps = coach.find("//*[@role='dialog']//*[@aria-label='Reps in that time']")
    reps.send_keys(Keys.CONTROL, "a")
    reps.send_keys("12")
    assert coach.axe() == []
    coach.find("//*[@role='dialog']//button[.='Close']").click()
    coach.wait(lambda: kept(club, number) == ["Press-up both 30 s, 12 reps"], "no reps in the time")


def test_a_station_before_its_turn_and_one_that_was_left(coach: Coach, club: Club) -> None:
    number = written(
        club, "Back squat 1 x 5 at 40 kg\nPress-up 1 x 8\nCalf raise 1 x 10\nFront plank 1 x 20 s"
    )
    begin(coach, number, "set 1 of 4")
    coach.find("//aside//ol//button[contains(., 'Calf raise')]").click()
    coach.sees("set 3 of 4")
    tap(coach, "Done as planned")
    coach.sees("set 4 of 4")
    tap(coach, "Skip")
    coach.sees("3 sets not done")
    assert coach.axe() == []
    tap(coach, "do it now: set 2")
    coach.find("//main//h1[.='Press-up']")
    tap(coach, "Done as planned")
    # The third is done, the fourth was left out by hand: nothing comes of itself.
    coach.sees("2 sets not done")
    coach.wait(lambda: kept(club, number) == ["Press-up", "Calf raise"], "not in their order")


@pytest.mark.usefixtures("phone")
def test_another_load_in_the_middle_is_one_set_of_two_pieces(coach: Coach, club: Club) -> None:
    number = written(club, "Overhead press 2 x 8 at 30 kg")
    begin(coach, number, "set 1 of 2")
    tap(coach, "Done as planned")
    coach.find("//aside//button[contains(., 'correct')]").click()
    tap(coach, "Load changed mid-set")
    load = coach.field("Then: load, kg")
    load.send_keys(Keys.CONTROL, "a")
    load.send_keys("25")
    assert coach.axe() == []
    coach.find("//*[@role='dialog']//button[.='Close']").click()
    coach.sees("4 reps, at 30 kg, then 4 reps, at 25 kg")

    def pieces() -> list[tuple[int, float]]:
        done = logged(club, int(number))
        return [(one["reps"], one["load_kg"]) for one in done[0]["loads"] or ()]

    coach.wait(lambda: pieces() == [(4, 30), (4, 25)], "not in pieces")


@pytest.mark.usefixtures("phone")
def test_cues_are_said_one_at_a_time_and_a_remark_stays_with_its_set(
    coach: Coach, club: Club
) -> None:
    number = written(club, "Landmine press 1 x 8 at 20 kg\nGoblet squat 2 x 5 at 16 kg")
    begin(coach, number, "set 1 of 3")
    # She has never done it: the cues stand there unasked.
    coach.find("//main//button[contains(., 'End of the bar at the shoulder')]").click()
    coach.sees("reach at the top")
    assert coach.axe() == []
    tap(coach, "Done as planned")
    coach.find("//main//h1[.='Goblet squat']")
    coach.find("//aside//button[contains(., 'correct')]").click()
    coach.find("//*[@role='dialog']//label[contains(., 'Remark')]//input").send_keys("legs shook")
    own = coach.find("//*[@role='dialog']//label[contains(., 'every time')]//input")
    own.send_keys("Ribs down")
    assert coach.axe() == []
    coach.find("//*[@role='dialog']//button[.='Keep']").click()
    coach.wait(
        lambda: api(club, f"/floor/run?plan={number}")["run"]["own_cues"], "the cue is not kept"
    )
    coach.find("//*[@role='dialog']//button[.='Close']").click()
    coach.sees("legs shook")
    coach.wait(lambda: logged(club, int(number))[0]["note"] == "legs shook", "no remark")
    # From now on it comes first, in this run, too.
    tap(coach, "Back")
    coach.find("//main//h1[.='Landmine press']")
    coach.find("//main//button[contains(., 'Ribs down') and contains(., 'Tess Hallorin')]")
