"""The block by keyboard: walk, copy, move, lay over weeks, make lighter, undo."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Coach

BLOCK = "/athletes/8/weeks/2026-W48/block?weeks=6"


def cell(coach: Coach, day: int, week: int) -> str:
    """What is seen of a day; its date is read out beside it."""
    found = coach.find(f"//button[@data-cell='{day}/{week}']")
    unseen = [one.text for one in found.find_elements(By.CSS_SELECTOR, ".sr-only")]
    lines = str(found.text).splitlines()
    return "\n".join(
        line.removesuffix(", done").removesuffix(", planned")
        for line in lines
        if line not in unseen
    )


def sets_row(coach: Coach) -> list[str]:
    row = coach.find("//tfoot/tr[th='sets']").text.split()
    return row[1:]


def test_plans_stand_in_their_weeks(coach: Coach) -> None:
    coach.open(BLOCK, "Single leg and row")
    coach.holds(lambda: cell(coach, 0, 0).startswith("Squat and press\n21 sets"))
    coach.holds(lambda: cell(coach, 1, 0) == cell(coach, 0, 5) == "")
    coach.holds(lambda: cell(coach, 0, 2).startswith("Ladder day"))
    coach.holds(lambda: sets_row(coach)[:2] + sets_row(coach)[5:6] == ["60", "60", "0"])
    coach.holds(lambda: "Week 52 lighter" in coach.text())
    coach.holds(lambda: "none" in coach.find("//tfoot/tr[last()]").text)


def test_copy_move_and_undo_by_keyboard(coach: Coach) -> None:
    coach.open(BLOCK, "Single leg and row")
    first = coach.find("//button[@data-cell='0/0']")
    first.click()
    first.send_keys("c")
    coach.sees("Squat and press in hand")
    coach.type(Keys.ARROW_DOWN, *[Keys.ARROW_RIGHT] * 5, "v")
    coach.wait(lambda: cell(coach, 1, 5).startswith("Squat and press"), "not copied")
    coach.holds(lambda: sets_row(coach)[5] == "21")
    coach.type("x", Keys.ARROW_DOWN, "v")
    coach.wait(lambda: cell(coach, 2, 5).startswith("Squat and press"), "not moved")
    coach.wait(lambda: cell(coach, 1, 5) == "", "still there")
    coach.sees("Moved Squat and press to")
    coach.type("u")
    coach.wait(lambda: cell(coach, 1, 5).startswith("Squat and press"), "the move is not undone")
    coach.type("u")
    coach.wait(lambda: cell(coach, 1, 5) == "" and cell(coach, 2, 5) == "", "not undone")


def test_a_week_over_the_weeks_with_a_step_and_a_lighter_one(coach: Coach) -> None:
    coach.open(BLOCK, "Single leg and row")
    coach.find("//button[@data-cell='0/1']").click()
    load = coach.field("Load, per cent a week")
    load.send_keys(Keys.CONTROL, "a")
    load.send_keys("10")
    coach.click("Repeat all of week 49", "button")
    coach.wait(lambda: sets_row(coach)[:5] == ["60"] * 5, str(sets_row(coach)))
    # Every planned week that would raise a finding shows it before it happens.
    coach.wait(
        lambda: (
            "after" in coach.find("//tfoot/tr[last()]/td[3]").text
            or "rises" in coach.find("//tfoot/tr[last()]/td[3]").text
        ),
        "no finding",
    )
    coach.find("//button[@data-cell='2/3']").click()
    coach.click("Make week 51 lighter", "button")
    coach.wait(lambda: float(sets_row(coach)[3]) < 45, str(sets_row(coach)))
    coach.find("//button[@data-cell='0/3']").send_keys(Keys.ENTER)
    coach.address("/weeks/2026-W51/write?session=")
    coach.sees("Squat and press")
    coach.driver.back()
    coach.sees("Repeat this session")


def test_a_free_day_begins_a_new_session(coach: Coach) -> None:
    coach.open(BLOCK, "Single leg and row")
    coach.find("//button[@data-cell='6/0']").send_keys(Keys.ENTER)
    coach.address("session=new-2026-11-29")
    coach.sees("The week with it")


def test_a_block_is_made_and_a_template_laid_for_several(coach: Coach) -> None:
    coach.open("/athletes/7/weeks/2026-W53/block", "No block here yet")
    coach.click("New block", "button")
    coach.sees("A block from week 53 on")
    coach.find("//label[starts-with(., 'Title')]/input").send_keys("After the holidays")
    coach.click("Create the block", "button")
    coach.wait(
        lambda: coach.field("Title of the block").get_attribute("value") == "After the holidays",
        "no block",
    )
    coach.holds(lambda: len(sets_row(coach)) == 4)
    coach.click("Templates", "button")
    coach.click("Circuits 1 week, 3 sessions", "button")
    coach.click("all", "button")
    coach.click("Use for 13 athletes", "button")
    coach.sees("Used for 13 athletes.")
    coach.find("//*[@role='dialog']//button[.='Undo']").click()
    coach.sees_no("Used for 13 athletes.")
    coach.click("Close", "button")


def test_the_whole_block_is_proposed_by_a_key_published_and_taken_back(coach: Coach) -> None:
    coach.open("/athletes/1/weeks/2026-W49/block", "Propose the block")
    before = sets_row(coach)
    coach.find("//body").send_keys("q")
    coach.sees("Each week takes the ones before it as done")
    assert coach.axe() == []
    coach.holds(lambda: "lines change" in coach.find("//tr[th='proposed']").text)
    # In which week a finding clears can be read off.
    row = coach.find("//tr[th[starts-with(., 'imbalance, push : pull')]]")
    coach.holds(lambda: row.text.count("clears") + row.text.count("\nstays") == 3)
    coach.holds(lambda: "clears" in row.text)
    lighter = coach.field("Week 51 lighter")
    coach.holds(lambda: not lighter.is_selected())
    lighter.click()
    third = "//tr[th='proposed']/td[3]"
    coach.wait(lambda: "\nlighter" in coach.find(third).text, "week 51 is not made lighter")
    coach.sees("Each week takes the ones before it as done")
    coach.click("Publish weeks 49 to 52 as proposed", "button")
    coach.sees("Published week 49 to week 52 as proposed")
    coach.wait(lambda: float(sets_row(coach)[2]) < 40, "week 51 is not lighter")
    coach.holds(lambda: sets_row(coach) != before)
    # Come back another day: it can still be taken back.
    coach.open("/", "Maro Veldt")
    coach.open("/athletes/1/weeks/2026-W49/block", "Published week 49 to week 52 as proposed")
    coach.click("All changes", "button")
    coach.sees("Changes of the last thirty days")
    assert coach.axe() == []
    coach.find("//*[@role='dialog']//button[.='Undo']").click()
    coach.find("//button[.='Redo']")
    coach.click("Close", "button")
    coach.wait(lambda: sets_row(coach) == before, "not taken back")


def test_a_return_begins_low_where_the_coach_wants_it(coach: Coach) -> None:
    coach.open("/athletes/13/weeks/2026-W49/block", "Propose the block")
    coach.click("Propose the block", "button")
    coach.sees("low, after 5 weeks off")
    coach.sees("60 → 30")
    begin = coach.find("//label[contains(., 'Begin low after the break')]/input")
    begin.click()
    first = "//tr[th='proposed']/td[1]"
    coach.wait(lambda: "low, after" not in coach.find(first).text, "still low")
    coach.wait(lambda: "60" in coach.find(first).text, "no proposal")
    coach.click("Close the proposal", "button")
    coach.sees_no("proposed")


def test_goals_are_set_judged_and_taken_away(coach: Coach) -> None:
    coach.open("/athletes/8/weeks/2026-W49/block", "Bench press 75 kg × 5")
    coach.sees("within reach")
    coach.click("Set a goal", "button")
    coach.find("//label[starts-with(., 'Movement')]/input").send_keys("Back squat")
    coach.find("//label[starts-with(., 'Load')]/input").send_keys("140")
    coach.find("//label[starts-with(., 'How many')]/input").send_keys("3")
    day = coach.find("//label[starts-with(., 'By')]/input[@type='date']")
    coach.driver.execute_script(
        "Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call("
        "arguments[0], '2027-01-10'); arguments[0].dispatchEvent(new Event('input', "
        "{bubbles: true}))",
        day,
    )
    assert coach.axe() == []
    coach.click("Set the goal", "button")
    coach.sees("Back squat 140 kg × 3")
    coach.sees("not in time")
    coach.click("Remove the goal for Back squat", "button")
    coach.sees_no("Back squat 140 kg × 3")
    coach.find("//p[contains(., 'removed')]/button[.='Undo']").click()
    coach.sees("Back squat 140 kg × 3")
    # On the athlete's long line the goal is drawn, and said.
    coach.open("/athletes/8/weeks/2026-W47/season?open=movement/Bench press", "Movements")
    row = "//button[@data-line and @title='Bench press']"
    if coach.find(row).get_attribute("aria-expanded") == "false":
        coach.find(row).click()
    coach.sees("Goal: 75 kg × 5 by")


def test_what_changed_since_the_last_block_is_one_view(coach: Coach) -> None:
    coach.open("/athletes/12/weeks/2026-W46/block", "findings")
    coach.click("Since the last block", "button")
    coach.sees("First winter block (4 weeks from week 44 on) compared with weeks 40 to 43")
    coach.sees("New: Leg press")
    coach.sees("Ines Tarrow Signed week 46.")
    assert coach.find("//a[.='Print it']").get_attribute("href").endswith("of=since&for=coach")
    coach.click("Close", "button")
