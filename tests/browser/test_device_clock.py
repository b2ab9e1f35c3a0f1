"""Whatever the clock of a device says: the day is the server's, clocks are told from the time."""

import pytest

from tests.browser.driving import Club, Coach
from tests.browser.test_floor import (
    api,
    begin,
    clock,
    club,
    coach,
    logged,
    pass_time,
    seconds,
    tap,
)

__all__ = ["club", "coach"]

BERLIN_S = {
    "a day ahead": None,
    "a day behind": None,
    "in the hour that is doubled": "2026-10-25T00:59:50Z",
    "in the hour that is missing": "2026-03-29T00:59:50Z",
}
"""What a device's clock can say: ten seconds before its hour changes, in Berlin."""


@pytest.mark.parametrize("how", BERLIN_S)
def test_whatever_the_clock_of_the_device_says(coach: Coach, club: Club, how: str) -> None:
    (number, title) = next(
        (one["plan"], one["title"])
        for one in api(club, "/floor")["sessions"]
        if not one["done"] and "Hinge" in one["title"]
    )
    coach.driver.execute_cdp_cmd("Emulation.setTimezoneOverride", {"timezoneId": "Europe/Berlin"})
    coach.open("/floor", "Floor")
    try:
        moment = BERLIN_S[how]
        day = 86_400 * (1 if how == "a day ahead" else -1)
        shift = f"Date.parse('{moment}') - Date.now()" if moment else f"{day * 1000}"
        coach.driver.execute_script(f"sessionStorage.setItem('shift', String({shift}))")
        # The day is the server's.
        coach.open("/floor", title)
        coach.sees("Floor Wed 25 Nov")
        begin(coach, str(number), "set 1 of")
        tap(coach, "Start the clock")
        coach.wait(lambda: "work" in clock(coach) or seconds(coach) > 10, clock(coach))
        before = seconds(coach)
        pass_time(coach, 20)
        coach.wait(lambda: before - seconds(coach) in range(19, 35), clock(coach))
        tap(coach, "Skip")
        tap(coach, "Skip")
        tap(coach, "Done as planned")
        coach.wait(lambda: len(logged(club, number)) == 1, "not logged")
        log = api(club, f"/floor/run?plan={number}")["run"]["log"]
        assert log["session"]["date"] == "2026-11-25"
    finally:
        coach.driver.execute_cdp_cmd("Emulation.setTimezoneOverride", {"timezoneId": ""})
        coach.driver.execute_script("sessionStorage.removeItem('shift')")
