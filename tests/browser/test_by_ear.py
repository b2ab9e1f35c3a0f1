"""A run followed by ear, and one that is run again: in a club where nobody has logged today."""

from collections.abc import Iterator

import pytest

from tests.browser.driving import Club, Coach, before_each_page, browser, running
from tests.browser.test_floor import (
    SHIFTED,
    WEDNESDAY,
    api,
    begin,
    do_next,
    logged,
    pass_time,
    plan,
    tap,
)

VOICES = """
window.__said = [];
const voices = {
  getVoices: () => [{ name: "stand-in", lang: "en" }],
  cancel: () => {},
  speak: (one) => window.__said.push(one.text),
  addEventListener: () => {},
  removeEventListener: () => {},
};
Object.defineProperty(window, "speechSynthesis", { value: voices });
window.SpeechSynthesisUtterance = class { constructor(text) { this.text = text; } };
"""
"""A device with voices that keeps what it said."""


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Club]:
    with running(tmp_path_factory.mktemp("ear") / "club.sqlite", WEDNESDAY) as club:
        yield club


@pytest.fixture(scope="module")
def coach(club: Club) -> Iterator[Coach]:
    with browser() as driver:
        before_each_page(driver, SHIFTED, VOICES)
        yield Coach(driver, club.base)


def test_a_run_can_be_followed_by_ear(coach: Coach, club: Club) -> None:
    number = plan(club, "Tess Hallorin")

    def said() -> list[str]:
        return coach.driver.execute_script("return window.__said")

    begin(coach, str(number), "set 1 of")
    assert said() == []
    # Chosen on the device, and heard at once; kept over a reload.
    tap(coach, "Voice off")
    coach.holds(lambda: said()[:1] and said()[0].startswith("I call what comes"))
    coach.open(f"/floor/run?plans={number}", "set 1 of")
    first = coach.find("//main//h1").text
    coach.holds(lambda: said()[-1:] and said()[-1].startswith(("Round", first)))
    tap(coach, "Start the clock")
    coach.holds(lambda: said()[-1].endswith("In 5."))
    pass_time(coach, 6)
    coach.holds(lambda: "Go" in said())
    tap(coach, "Voice on")
    quiet = len(said())
    tap(coach, "Stop here")
    coach.sees("Exertion and notes in the log")
    assert len(said()) == quiet


def test_run_again_after_stopping_goes_into_the_same_log(coach: Coach, club: Club) -> None:
    number = plan(club, "Jory Castelin")
    begin(coach, str(number), "set 1 of")
    do_next(coach)
    coach.wait(lambda: len(logged(club, number)) == 1, "not logged")
    tap(coach, "Stop here")
    coach.sees("1 of")
    tap(coach, "Run it again from the start")
    coach.sees("set 1 of")
    do_next(coach)
    coach.wait(lambda: len(logged(club, number)) == 2, "not logged again")
    tap(coach, "Stop here")
    # A reload in between is the same device.
    coach.open(f"/floor/run?plans={number}", "2 of")
    tap(coach, "Run it again from the start")
    do_next(coach)
    coach.wait(lambda: len(logged(club, number)) == 3, "not logged after a reload")
    athlete = api(club, f"/floor/run?plan={number}")["run"]["athlete"]
    logs = api(club, f"/athletes/{athlete}/weeks/2026-W48/log")["sessions"]
    (mine,) = [one for one in logs if one["plan"] and one["plan"]["id"] == number]
    assert mine["versions"] == []
