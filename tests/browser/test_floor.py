"""Running a session: taps, clocks, a lost connection, a group, pain."""

import json
import re
import time
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import Any
from urllib.request import Request, urlopen

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Club, Coach, before_each_page, browser, colours, resize, running

WEDNESDAY = date(2026, 11, 25)
"""Most of the club trains."""
SHIFTED = """
window.__shift = Number(sessionStorage.getItem("shift") ?? 0);
window.__seen = 0;
const [now, mono] = [Date.now.bind(Date), performance.now.bind(performance)];
let looked = mono();
/** A busy machine lets a page stand still for seconds: here that is no time that nobody saw. */
const stood_still = () => {
  const lost = mono() - looked - 500;
  looked = mono();
  if (lost <= 0) return;
  window.__seen -= lost;
  window.jump(-lost / 1000);
};
Date.now = () => (stood_still(), now() + window.__shift);
performance.now = () => (stood_still(), mono() + window.__seen);
window.jump = (seconds) => {
  window.__shift += seconds * 1000;
  sessionStorage.setItem("shift", String(window.__shift));
};
/** Time passes while somebody looks: a little at a time, so that the page sees all of it. */
window.pass = (seconds, done) => {
  const step = Math.min(seconds, 2);
  window.jump(step);
  window.__seen += step * 1000;
  if (seconds > step) setTimeout(() => window.pass(seconds - step, done), 150);
  else setTimeout(done, 150);
};
"""
"""A clock that a test can move on."""


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Club]:
    with running(tmp_path_factory.mktemp("floor") / "club.sqlite", WEDNESDAY) as club:
        yield club


@pytest.fixture(scope="module")
def coach(club: Club) -> Iterator[Coach]:
    with browser() as driver:
        before_each_page(driver, SHIFTED)
        yield Coach(driver, club.base)


def api(club: Club, path: str) -> Any:
    with urlopen(f"{club.base}/api{path}") as answer:
        return json.load(answer)


def put(club: Club, path: str, body: Any) -> None:
    headers = {"Content-Type": "application/json"}
    request = Request(f"{club.base}/api{path}", json.dumps(body).encode(), headers, method="PUT")
    urlopen(request).close()


def plan(club: Club, name: str) -> int:
    return next(one["plan"] for one in api(club, "/floor")["sessions"] if one["name"] == name)


def logged(club: Club, plan_id: int) -> list[Any]:
    log = api(club, f"/floor/run?plan={plan_id}")["run"]["log"]
    return log["session"]["sets"] if log else []


def done(club: Club, plan_id: int) -> list[str]:
    return [one["exercise"] for one in logged(club, plan_id)]


def begin(coach: Coach, plans: str, sees: str) -> None:
    coach.open(f"/floor/run?plans={plans}", "Stop on sharp pain")
    coach.click("Begin", "button")
    coach.sees(sees)


def clock(coach: Coach) -> str:
    return coach.find("//*[@role='timer']").text.replace("\n", " ")


def seconds(coach: Coach) -> int:
    found = re.search(r"(\d+):(\d\d)", clock(coach))
    assert found, clock(coach)
    return int(found[1]) * 60 + int(found[2])


def pass_time(coach: Coach, by: float) -> None:
    coach.driver.execute_async_script("window.pass(arguments[0], arguments[1])", by)


def tap(coach: Coach, words: str) -> None:
    coach.click(words, "button")


def main(coach: Coach) -> str:
    return coach.find("//main").text


def do_next(coach: Coach) -> None:
    """The set that comes now, without waiting for the rest to end."""
    if coach.find("//main/button[contains(@class, 'ink-button')]").text == "Skip the rest":
        tap(coach, "Skip the rest")
    tap(coach, "Done as changed" if "Done as changed" in coach.text() else "Done as planned")


def test_today_is_listed_and_run_by_taps(coach: Coach, club: Club) -> None:
    coach.open("/", "Week 47")
    coach.find("//body").send_keys("t")
    coach.sees("Hinge and pull")
    number = plan(club, "Anselm Brook")
    tap(coach, "Run Hinge and pull of Anselm Brook")
    coach.sees("Stop on sharp pain")
    tap(coach, "Begin")
    coach.sees("set 1 of")
    tap(coach, "Skip")
    tap(coach, "Skip")
    coach.sees("set 3 of")
    tap(coach, "Done as planned")
    coach.wait(lambda: len(logged(club, number)) == 1, "not logged")
    # Two taps: the set just done had fewer reps, at a load that the kit has.
    coach.find("//button[contains(., 'Anselm Brook, set 3') and contains(., 'correct')]").click()
    coach.sees("correct the set done")
    tap(coach, "Reps: less")
    coach.wait(lambda: logged(club, number)[0]["reps"] == 5, "not taken by the second tap")
    tap(coach, "Load, kg: more")
    coach.find("//button[.='8.5']").click()
    tap(coach, "Close")
    coach.wait(lambda: logged(club, number)[0].get("rpe") == 8.5, "not corrected")
    (one,) = logged(club, number)
    planned = api(club, f"/floor/run?plan={number}")["run"]["sets"][2]["set"]
    assert one["reps"] == planned["reps"] - 1
    assert one["load_kg"] == planned["load_kg"] + 2.5
    coach.sees("all sent")


def test_a_lost_connection_loses_nothing(coach: Coach, club: Club) -> None:
    number = plan(club, "Pia Dresner")
    begin(coach, str(number), "set 1 of")
    ready = "return navigator.serviceWorker.controller !== null"
    coach.wait(lambda: coach.driver.execute_script(ready), "no service worker")
    coach.driver.refresh()
    coach.sees("set 1 of")
    tap(coach, "Skip")
    tap(coach, "Skip")
    tap(coach, "Done as planned")
    coach.wait(lambda: len(logged(club, number)) == 1, "not logged")
    coach.complaints()
    club.stop()
    do_next(coach)
    coach.sees("1 log saved here, not sent yet")
    coach.driver.refresh()
    coach.sees("set 4 of")
    coach.sees("1 log saved here, not sent yet")
    do_next(coach)
    club.start()
    coach.sees("all sent")
    coach.holds(lambda: len(logged(club, number)) == 3)
    assert [line for line in coach.complaints() if "net::ERR_" not in line] == []


def test_todays_sessions_can_be_begun_without_a_connection(coach: Coach, club: Club) -> None:
    two = [plan(club, "Tess Hallorin"), plan(club, "Mirren Sollas")]
    coach.open("/floor", "saved on this device")
    coach.sees("all sessions saved on this device")
    coach.complaints()
    club.stop()
    # By one clock, which nobody asked for while there was a connection.
    begin(coach, ",".join(map(str, two)), "set 1 of")
    tap(coach, "Skip")
    tap(coach, "Skip")
    tap(coach, "Done as planned")
    coach.sees("2 logs saved here, not sent yet")
    club.start()
    coach.sees("all sent")
    coach.holds(lambda: all(len(logged(club, one)) == 1 for one in two))
    assert [line for line in coach.complaints() if "net::ERR_" not in line] == []


def test_a_swap_holds_for_the_sets_to_come(coach: Coach, club: Club) -> None:
    number = plan(club, "Bram Osterley")
    begin(coach, str(number), "set 1 of")
    while "Romanian deadlift" not in coach.find("//h1").text or "warm-up" in main(coach):
        tap(coach, "Skip")
    tap(coach, "Done as planned")
    coach.wait(lambda: done(club, number) == ["Romanian deadlift"], "not logged")
    # In the rest: what is swapped is what is to come, whatever was done stays as it was done.
    coach.sees("next: ")
    coach.find("//button[contains(., 'Bram Osterley, set') and contains(., 'next: ')]").click()
    choice = coach.find("//div[@aria-label='Instead']//button[1]")
    instead = choice.text
    choice.click()
    coach.holds(
        lambda: coach.find(
            "//label[contains(., 'set') and contains(., 'to come')]/input"
        ).is_selected()
    )
    tap(coach, "Close")
    coach.sees(f"next: {instead}")
    coach.holds(lambda: done(club, number) == ["Romanian deadlift"])
    do_next(coach)
    coach.wait(lambda: done(club, number) == ["Romanian deadlift", instead], "not swapped")
    do_next(coach)
    coach.wait(lambda: done(club, number)[1:] == [instead] * 2, "not carried on")
    tap(coach, "One more set")
    do_next(coach)
    coach.wait(lambda: done(club, number)[1:] == [instead] * 3, "not carried into the set on top")
    # What is done is corrected alone, by typing, too.
    coach.find("//button[contains(., ', set ') and contains(., 'correct')]").click()
    coach.sees("correct the set done")
    for label, typed in (("Reps", "11"), ("Load, kg", "62,5")):
        coach.find(f"//input[@aria-label='{label}']").click()
        coach.type(typed)
    other = coach.find("//div[@aria-label='Instead']//button[2]")
    corrected = other.text
    other.click()
    tap(coach, "Close")
    coach.wait(lambda: done(club, number)[-1] == corrected, "not corrected")
    coach.holds(lambda: logged(club, number)[-1]["reps"] == 11)
    coach.holds(lambda: done(club, number)[:-1] == ["Romanian deadlift", *[instead] * 2])
    # Help is so much help, whoever steps or types it; it is kept as a load below zero.
    coach.find("//button[contains(., ', set ') and contains(., 'correct')]").click()
    coach.find("//input[@list='floor-movements']").send_keys("Pull-up")
    tap(coach, "helps")
    coach.find("//input[@aria-label='Help, kg']").click()
    coach.type("15")
    coach.wait(lambda: logged(club, number)[-1]["load_kg"] == -15, "not typed")
    tap(coach, "Help, kg: less")
    coach.wait(lambda: logged(club, number)[-1]["load_kg"] == -12.5, "not stepped")
    tap(coach, "Close")
    coach.sees("12.5 kg help")


def test_clocks_are_told_from_the_time(coach: Coach, club: Club) -> None:
    begin(coach, str(plan(club, "Ondra Pell")), "Rowing machine, steady")
    tap(coach, "Skip")
    tap(coach, "Skip")
    coach.sees("Reverse lunge")
    tap(coach, "Start the clock")
    coach.wait(lambda: "get ready" in clock(coach), clock(coach))
    pass_time(coach, 5)
    coach.wait(lambda: "work" in clock(coach), clock(coach))
    coach.holds(lambda: 20 < seconds(coach) <= 40)
    for gone in (7, 3, 5):
        before, at = seconds(coach), time.monotonic()
        pass_time(coach, gone)
        # As much as was passed, and what really went by meanwhile: more on a busy machine.
        coach.holds(
            lambda before=before, gone=gone, at=at: (
                gone <= before - seconds(coach) <= gone + 1 + time.monotonic() - at
            )
        )
    # Most of a round: 40 s of work and 20 s of rest each.
    pass_time(coach, 60 + 60 - 15)
    coach.sees("Bench-supported row")
    tap(coach, "Pause")
    held = clock(coach)
    coach.driver.execute_script("window.jump(500)")
    coach.driver.refresh()
    coach.wait(lambda: clock(coach) == held, clock(coach))
    tap(coach, "Resume")
    coach.wait(lambda: "paused" not in clock(coach), clock(coach))
    tap(coach, "One more round")
    coach.sees("set 5 of 31")
    tap(coach, "Back")
    coach.wait(lambda: "ready" in clock(coach), clock(coach))


ASLEEP = {
    "the clock of the device was set": "window.jump(100); done()",
    "the page was hidden": """
        let hidden = true;
        Object.defineProperty(document, "hidden", { configurable: true, get: () => hidden });
        window.jump(50);
        setTimeout(() => {
          window.jump(50);
          hidden = false;
          document.dispatchEvent(new Event("visibilitychange"));
          done();
        }, 400);""",
    "the page was frozen": "window.jump(100); window.__seen += 100_000; done()",
}
"""A hundred seconds that nobody saw: the page is told of them only afterwards."""


@pytest.mark.parametrize("how", ASLEEP)
def test_what_nobody_saw_is_asked_about(coach: Coach, club: Club, how: str) -> None:
    number = plan(club, "Ondra Pell")
    coach.driver.execute_script("sessionStorage.clear(); indexedDB.deleteDatabase('dialback')")
    begin(coach, str(number), "set")
    while "Reverse lunge" not in main(coach):
        tap(coach, "Skip")
    before = len(logged(club, number))
    tap(coach, "Start the clock")
    pass_time(coach, 15)
    coach.driver.execute_async_script(f"const done = arguments[0]; {ASLEEP[how]}")
    coach.sees("Were these sets done?")
    coach.holds(lambda: "nobody was at this clock" in main(coach))
    coach.holds(lambda: "2 sets ended in that time" in main(coach))
    # It is asked until it is answered, over a reload too; the log has none of them.
    coach.driver.refresh()
    coach.sees("Were these sets done?")
    coach.holds(lambda: len(logged(club, number)) == before)
    tap(coach, "No: continue from where it was")
    coach.wait(lambda: seconds(coach) in range(12, 32), clock(coach))
    coach.sees("Reverse lunge")
    coach.driver.execute_script("window.jump(-3600)")
    pass_time(coach, 5)
    # Set back by an hour, the set goes on.
    coach.wait(lambda: seconds(coach) in range(3, 27), clock(coach))
    tap(coach, "End it early")
    coach.wait(lambda: len(logged(club, number)) == before + 1, "not logged")
    # Ended early: it lasted as long as it did.
    coach.holds(lambda: logged(club, number)[-1]["seconds"] < 38)


def test_a_group_by_one_clock_and_pain_ends_ones_part(coach: Coach, club: Club) -> None:
    two = [plan(club, "Maro Veldt"), plan(club, "Calder Nuys")]
    begin(coach, ",".join(map(str, two)), "Calder Nuys")
    for _ in range(3):
        tap(coach, "Skip")
    tap(coach, "Done as planned")
    coach.wait(lambda: all(len(logged(club, one)) == 1 for one in two), "not both logged")
    tap(coach, "Stop: something hurts")
    # In a group nobody is taken for the one.
    assert not coach.find("//button[.='Stop and record it']").is_enabled()
    tap(coach, "Maro Veldt")
    coach.find("//label[starts-with(., 'Where')]/input").send_keys("right knee")
    tap(coach, "Stop and record it")
    coach.sees("stopped")
    do_next(coach)
    coach.wait(lambda: len(logged(club, two[1])) == 2, "the other does not go on")
    coach.holds(lambda: len(logged(club, two[0])) == 1)
    maro = api(club, f"/floor/run?plan={two[0]}")["run"]
    assert maro["log"]["session"]["pain"][0]["note"] == "right knee"
    week = f"/athletes/{maro['athlete']}/weeks/2026-W48"
    coach.holds(lambda: "pain" in {one["code"] for one in api(club, f"{week}/sheet")["findings"]})
    # Within a second on the roster, above every place of his, and until somebody has looked.
    coach.driver.switch_to.new_window("tab")
    coach.open("/", "right knee")
    coach.holds(lambda: coach.all("tbody a")[0].text in ("Lisbet Arnaud", "Maro Veldt"))
    coach.open(f"/athletes/{maro['athlete']}/weeks/2026-W49/write", "right knee")
    tap(coach, "What follows?")
    coach.find("//label[contains(., 'Nothing more')]/input").click()
    assert coach.axe() == []
    tap(coach, "Mark as looked at")
    coach.sees_no("right knee")
    coach.driver.close()
    coach.driver.switch_to.window(coach.driver.window_handles[0])
    # Whoever stopped may come back in; what was missed is open.
    tap(coach, "Maro Veldt rejoins")
    do_next(coach)
    coach.wait(lambda: len(logged(club, two[0])) == 2, "is not in again")
    # Somebody who comes late is let in at the set in hand.
    coach.find("//aside//button[.='Let somebody in']").click()
    coach.find("//button[starts-with(., 'Bram Osterley')]").click()
    coach.sees("Stop on sharp pain")
    tap(coach, "Begin")
    coach.sees("Bram Osterley")
    assert "set 1 of" not in main(coach)
    before = len(logged(club, two[1]))
    tap(coach, "Resume")
    do_next(coach)
    coach.wait(lambda: len(logged(club, two[1])) == before + 1, "does not carry on")
    tap(coach, "Stop here")
    coach.sees("Maro Veldt: 3 of")
    # Who came back is not told to have stopped; what hurt is kept.
    coach.sees_no("stopped because something hurt")
    maro = api(club, f"/floor/run?plan={two[0]}")["run"]
    assert [one["note"] for one in maro["log"]["session"]["pain"]] == ["right knee"]


def test_the_sensor_fills_the_log(coach: Coach, club: Club) -> None:
    number = plan(club, "Wendel Okoro-Fay")
    begin(coach, str(number), "set 1 of")
    for _ in range(4):
        tap(coach, "Skip")
    coach.find("//label[contains(., 'Sensor')]/input").click()
    # A set for reps has no clock to start: the work clock runs from the tap on the sensor.
    tap(coach, "Start the set")
    coach.wait(lambda: re.search(r"\d+ reps?, tempo [\d.]+", coach.text()), "no reps")
    tap(coach, "Done as planned")
    coach.wait(lambda: logged(club, number), "not logged")
    (one,) = logged(club, number)
    assert one["measured_reps"] == one["reps"]
    assert one["measured_tension_s"] > one["reps"]


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)])
@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_the_floor_is_within_reach(
    coach: Coach, club: Club, size: tuple[int, int], scheme: str
) -> None:
    colours(coach.driver, scheme)
    resize(coach.driver, *size)
    number = plan(club, "Anselm Brook")
    coach.open(f"/floor/run?plans={number}", "Anselm Brook")
    coach.wait(lambda: re.search("Begin|Skip", coach.text()), "no run")
    if "Begin" in coach.text():
        assert coach.axe() == []
        tap(coach, "Begin")
    for path, sees in (
        ("/floor", "Run"),
        (f"/floor/run?plans={number}", "Skip"),
        ("/athletes/12/weeks/2026-W47/log", "All as planned"),
    ):
        coach.open(path, sees)
        assert coach.axe() == []
        coach.holds(
            lambda: (
                coach.driver.execute_script("return document.documentElement.scrollWidth")
                <= size[0]
            )
        )
    for button in coach.driver.find_elements(By.CSS_SELECTOR, "main .ink-button"):
        assert button.size["height"] >= 24
    resize(coach.driver, 1280, 800)
    colours(coach.driver, "light")


def test_the_log_takes_a_week_in_three_actions_and_what_differed(coach: Coach, club: Club) -> None:
    number = plan(club, "Lisbet Arnaud")
    coach.open(f"/athletes/4/weeks/2026-W48/log?session=plan-{number}", "As planned")
    coach.find("//nav//button[.='As planned']").click()
    coach.sees("(100")
    field = coach.find("(//input[contains(@aria-label, 'Romanian deadlift: done')])[3]")
    field.send_keys("6 at 50 kg RPE 9", Keys.ENTER)
    coach.sees("6 reps instead of 8")
    field = coach.find("(//input[contains(@aria-label, 'Romanian deadlift: done')])[4]")
    field.send_keys("RPE 11", Keys.ENTER)
    coach.sees("RPE goes from 0 to 10")
    field.clear()
    # The same in fields, for those who do not want to type words.
    coach.find("(//button[contains(@aria-label, ' in fields')])[6]").click()
    form = "//form[contains(@aria-label, ' in fields')]"
    assert coach.axe() == []
    coach.find(f"{form}//input[@name='rpe']").send_keys("11", Keys.ENTER)
    coach.sees("Exertion: a number up to 10")
    coach.find(f"{form}//input[@name='rpe']").send_keys(Keys.BACKSPACE, Keys.BACKSPACE, "8,5")
    coach.find(f"{form}//input[@name='reps']").send_keys(Keys.BACKSPACE, "7", Keys.ENTER)
    coach.sees("7 reps instead of 8")
    coach.wait(lambda: any(one.get("rpe") == 8.5 for one in logged(club, number)), "not taken")
    tap(coach, "swap")
    coach.find("//input[starts-with(@aria-label, 'Done instead of')]").send_keys("Cycling, easy")
    tap(coach, "Swap")
    coach.sees("Cycling, easy instead of")
    exertion = coach.find("//label[starts-with(., 'Exertion')]/input")
    exertion.send_keys("7", Keys.TAB)
    coach.find("//body")
    tap(coach, "Remove")
    coach.sees("is removed")
    tap(coach, "Undo")
    coach.sees("Cycling, easy instead of")


def test_the_log_takes_corrections_as_fast_as_they_are_typed(coach: Coach, club: Club) -> None:
    number = plan(club, "Wendel Okoro-Fay")
    others = len(logged(club, number))
    coach.open(f"/athletes/6/weeks/2026-W48/log?session=plan-{number}", "All as planned")
    tap(coach, "All as planned")
    coach.sees("(100")
    planned = len(logged(club, number))
    field = coach.find("(//input[contains(@aria-label, 'Romanian deadlift: done')])[2]")
    field.click()
    # Each Enter goes on to the next set; nobody waits for the server.
    coach.type("6", Keys.ENTER, "5 RPE 9", Keys.ENTER, "at 55 kg", Keys.ENTER)
    exertion = coach.find("//label[starts-with(., 'Exertion')]/input")
    exertion.click()
    coach.type("7.5", Keys.TAB, "52", Keys.TAB, "right knee stiff", Keys.TAB)

    def stored() -> bool:
        log = api(club, f"/floor/run?plan={number}")["run"]["log"]["session"]
        lifts = [one for one in log["sets"] if one["exercise"] == "Romanian deadlift"]
        said = (log["rpe"], log["duration_min"], log["notes"])
        return (
            [one["reps"] for one in lifts[1:4]] == [6, 5, 8]
            and (lifts[2]["rpe"], lifts[3]["load_kg"]) == (9, 55)
            and said == (7.5, 52, "right knee stiff")
            and len(log["sets"]) == planned
        )

    coach.wait(stored, "something got lost")
    week = api(club, "/athletes/6/weeks/2026-W48/log")
    assert all(one["versions"] == [] for one in week["sessions"])
    assert planned > others
    coach.sees("is changed.")
    coach.find("//body").send_keys("u")
    coach.wait(
        lambda: coach.find("//label[starts-with(., 'Notes')]/input").get_attribute("value") == "",
        "not undone",
    )
    one = api(club, f"/floor/run?plan={number}")["run"]["log"]["session"]
    assert (one["notes"], one["duration_min"]) == ("", 52)


def test_two_versions_are_laid_side_by_side_and_decided(coach: Coach, club: Club) -> None:
    number = plan(club, "Jory Castelin")
    run = api(club, f"/floor/run?plan={number}")["run"]
    sets = [one["set"] for one in run["sets"]]
    for log, more in (("desk-log", sets), ("phone-log", sets[:-1])):
        body = {
            "change": f"change-of-{log}",
            "revision": 0,
            "plan": number,
            "session": {"date": run["date"], "title": run["title"], "sets": more},
        }
        put(club, f"/athletes/{run['athlete']}/logs/{log}", body)
    coach.open(
        f"/athletes/{run['athlete']}/weeks/2026-W48/log?session=plan-{number}", "two versions"
    )
    coach.sees("This session was changed in two places.")
    rows = "section[aria-label='Two versions'] tbody tr"
    coach.holds(lambda: len(coach.all(rows)) == 1)
    coach.holds(lambda: coach.all(rows)[0].text.startswith(sets[-1]["exercise"]))
    coach.holds(lambda: coach.all(rows)[0].text.endswith("nothing"))
    assert coach.axe() == []
    tap(coach, "Use the other one")
    coach.sees_no("two versions")
    coach.holds(lambda: len(logged(club, number)) == len(sets) - 1)


def test_a_session_without_a_plan_is_written_as_done(coach: Coach) -> None:
    coach.open("/athletes/8/weeks/2026-W47/log?session=new", "Log it")
    coach.field("Title of the session").send_keys("On the road")
    text = coach.find("//textarea")
    text.send_keys("Press-up 3 × 12\nNothing 3 × 9")
    tap(coach, "Log it")
    coach.sees("no movement is called 'Nothing'")
    text.send_keys(Keys.CONTROL, "a")
    text.send_keys("Press-up 3 × 12\nFront plank 3 x 40 reps")
    tap(coach, "Log it")
    # What can be read in one way only is seen before it is logged.
    coach.sees("was read in the one way that makes sense.")
    tap(coach, "Log it")
    coach.sees("not planned")
    coach.sees("40 s")


def test_a_log_from_a_spreadsheet(coach: Coach, tmp_path: Path) -> None:
    file = tmp_path / "gym.csv"
    file.write_text("Day;Who;Lift;Reps;Weight (lb)\n18/11/2026;Anselm Brook;bench;5;135,5\n")
    coach.open("/files", "A log from a spreadsheet")
    coach.find("//input[@aria-label='Spreadsheet file']").send_keys(str(file))
    coach.sees("gym.csv, 1 row")
    tap(coach, "Preview")
    coach.sees("These names are unknown.")
    tap(coach, "Bench press")
    tap(coach, "same as this")
    coach.sees("1 new session, 1 set")
    # What was said can be said otherwise, and the preview stays.
    tap(coach, "Change the match for bench")
    coach.sees("These names are unknown.")
    coach.field("bench is").send_keys("Bench press")
    tap(coach, "Make bench a new movement")
    coach.sees("new, counts like Bench press")
    coach.sees("1 new session, 1 set")
    tap(coach, "Import 1 session")
    coach.sees("1 session with 1 set imported")
    tap(coach, "Undo")
    coach.sees_no("gym.csv")


def test_doubtful_rows_of_a_spreadsheet_are_one_question(coach: Coach, tmp_path: Path) -> None:
    file = tmp_path / "odd.csv"
    lines = ["Day;Who;Lift;Reps;Weight (kg)"]
    lines += [f"{day}/11/2026;Anselm Brook;Bench press;5;700" for day in (16, 17, 18)]
    file.write_text("\n".join(lines))
    coach.open("/files", "A log from a spreadsheet")
    coach.find("//input[@aria-label='Spreadsheet file']").send_keys(str(file))
    coach.sees("odd.csv, 3 rows")
    tap(coach, "Preview")
    coach.sees("3 rows of Bench press, such as row 2")
    assert not coach.find("//button[contains(., 'Import 3 sessions')]").is_enabled()
    assert coach.axe() == []
    tap(coach, "Bench press: a tenth of it")
    coach.sees("5 reps, at 70 kg")
    coach.sees_no("such as row 2")
    coach.wait(
        lambda: coach.find("//button[contains(., 'Import 3 sessions')]").is_enabled(), "not ready"
    )


def test_a_spreadsheet_stays_in_hand(coach: Coach, club: Club, tmp_path: Path) -> None:
    """With all that was said of it, though the server has let go of it, until it is stored."""
    file = tmp_path / "many.csv"
    lines = ["Day;Who;Lift;Reps;Weight (kg)"]
    lines += [f"18/11/2026;Anselm Brook;Lift number {at};5;20" for at in range(8)]
    lines += ["18/11/2026;Anselm Brook;Bench press;lots;20"]
    file.write_text("\n".join(lines))
    coach.open("/files", "A log from a spreadsheet")
    coach.find("//input[@aria-label='Spreadsheet file']").send_keys(str(file))
    coach.sees("many.csv, 9 rows")
    tap(coach, "Preview")
    coach.sees("'lots' is not a number")
    tap(coach, "leave it out")
    coach.sees_no("'lots' is not a number")
    for at in range(6):
        tap(coach, f"Skip the rows of Lift number {at}")
        coach.find(f"//li[contains(., 'Lift number {at}') and contains(., 'skipped')]")
    # Others read their files meanwhile: the server has this one no longer.
    for at in range(3):
        binary = {"Content-Type": "application/octet-stream"}
        other = f"{club.base}/api/sheets?name={at}.csv"
        urlopen(Request(other, b"Day;Lift\n18/11/2026;Dip", binary, method="POST")).close()
    coach.open("/files", "many.csv, 9 rows")
    tap(coach, "Preview")
    coach.find("//li[contains(., 'Lift number 5') and contains(., 'skipped')]")
    tap(coach, "Skip the rows of Lift number 7")
    coach.find("//li[contains(., 'Lift number 7') and contains(., 'skipped')]")
    coach.field("Lift number 6 is").send_keys("Bench press")
    tap(coach, "same as this")
    tap(coach, "Import 1 session")
    coach.sees("1 session with 1 set imported")
    coach.driver.refresh()
    coach.sees("A log from a spreadsheet")
    coach.sees_no("many.csv, 9 rows")


def test_a_doubtful_load_is_kept_and_asked_about(coach: Coach, club: Club) -> None:
    """On the floor it is marked where it is typed; the log asks for what it can have been."""
    number = plan(club, "Pia Dresner")
    coach.open(f"/floor/run?plans={number}", "Stop on sharp pain")
    coach.click("Begin", "button")
    before = len(logged(club, number))
    while "Romanian deadlift" not in coach.find("//h1").text:
        tap(coach, "Skip")
    tap(coach, "Done as planned")
    coach.wait(lambda: len(logged(club, number)) == before + 1, "not logged")
    usual = logged(club, number)[-1]["load_kg"]
    coach.find("//button[contains(., ', set ') and contains(., 'correct')]").click()
    coach.find("//input[@aria-label='Load, kg' or contains(@aria-label, '×, kg')]").click()
    coach.type(f"{usual * 10:g}")
    coach.sees("is that right?")
    tap(coach, "Close")
    coach.wait(lambda: logged(club, number)[-1]["load_kg"] == usual * 10, "not kept")
    coach.sees("is that right?")
    coach.open(f"/athletes/9/weeks/2026-W48/log?session=plan-{number}", "what differed")
    coach.sees("is that right?")
    coach.find("//td//button[contains(., ' kg') and contains(@class, 'trail-link')]").click()
    coach.sees_no("is that right?")
    coach.wait(lambda: logged(club, number)[-1]["load_kg"] == usual, "not mended")


def test_one_more_round_and_a_level_are_logged_in_a_word(coach: Coach) -> None:
    coach.open("/athletes/3/weeks/2026-W47/log", "Clock B")
    coach.find("//nav//button[contains(., 'Clock B')]").click()
    coach.sees("Reverse lunge")
    tap(coach, "one more round")
    coach.sees("One more round of Reverse lunge")
    coach.find("(//nav//button[contains(., 'Clock C')])[1]").click()
    field = coach.find("(//input[contains(@aria-label, 'Inverted row: done')])[1]")
    field.send_keys("easier", Keys.ENTER)
    coach.sees("Inverted row, knees bent instead of Inverted row, the easier level")


STALE_AFTER_S = 5
"""After so long what is shown is asked for again as soon as somebody looks."""


def test_who_was_known_stays_known_while_the_connection_is_lost(coach: Coach, club: Club) -> None:
    coach.open("/floor", "all sessions saved on this device")
    club.stop()
    try:
        # Not even the service worker knows who it is: asked again, nobody answers.
        asked = coach.driver.execute_async_script(
            "const done = arguments[0]; caches.delete('dialback-answers').then(() =>"
            "fetch('/api/me')).then(() => done('answered'), () => done('lost'))"
        )
        assert asked == "lost"
        time.sleep(STALE_AFTER_S)
        coach.driver.execute_script("document.dispatchEvent(new Event('visibilitychange'))")
        time.sleep(STALE_AFTER_S)
        coach.holds(lambda: "The server does not answer" not in coach.text())
        coach.find("//h1[contains(., 'Floor')]")
    finally:
        club.start()
    coach.complaints()
