"""What was looked for, and where on the page: still there for whoever comes back."""

from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Coach, resize

DOWN = "document.querySelector('main').scrollTop = arguments[0]"
WHERE = "return document.querySelector('main').scrollTop"


def test_the_rosters_filters_stay_over_going_there_and_back(coach: Coach) -> None:
    coach.open("/", "Week 47")
    coach.click("Not signed", "button")
    coach.field("Find an athlete").send_keys("o", "n", "d", "r", "a")
    coach.address("find=ondra")
    coach.address("show=not-signed")
    coach.sees_no("Maro Veldt")
    coach.find("//a[.='Ondra Pell']").click()
    coach.address("/sheet")
    coach.find("//nav[@aria-label='Places']//a[.='Roster']").click()
    coach.sees("Ondra Pell")
    coach.sees_no("Maro Veldt")
    coach.holds(lambda: coach.field("Find an athlete").get_attribute("value") == "ondra")
    coach.driver.refresh()
    coach.sees("Ondra Pell")
    coach.sees_no("Maro Veldt")
    coach.field("Find an athlete").send_keys(Keys.ESCAPE)
    coach.click("All", "button")
    coach.sees("Maro Veldt")
    coach.holds(lambda: "?" not in coach.driver.current_url)


def test_the_floor_keeps_no_day(coach: Coach) -> None:
    coach.open("/floor?day=2026-11-25", "Floor")
    coach.find("//nav[@aria-label='Places']//a[.='Kit']").click()
    coach.sees("The smallest step")
    coach.find("//nav[@aria-label='Places']//a[.='Floor']").click()
    coach.sees("Tue 24 Nov")


def test_a_page_is_found_where_it_was_left(coach: Coach) -> None:
    resize(coach.driver, 1280, 400)
    coach.open("/", "Jory Castelin")
    coach.driver.execute_script(DOWN, 300)
    coach.holds(lambda: coach.driver.execute_script(WHERE) == 300)
    # The driver would scroll to what it clicks.
    coach.driver.execute_script("arguments[0].click()", coach.find("//a[.='Jory Castelin']"))
    coach.address("/sheet")
    coach.sees("Push : pull")
    coach.driver.back()
    coach.sees("to audit")
    coach.holds(lambda: coach.driver.execute_script(WHERE) == 300)
    # A key leads there as well; another place begins at its top.
    coach.find("//body").send_keys("e")
    coach.sees("182 of 182")
    coach.holds(lambda: coach.driver.execute_script(WHERE) == 0)
    coach.find("//body").send_keys("r")
    coach.sees("to audit")
    coach.holds(lambda: coach.driver.execute_script(WHERE) == 300)
    resize(coach.driver, 1280, 800)


def test_titles_name_the_place_and_the_athlete(coach: Coach) -> None:
    coach.open("/athletes/1/weeks/2026-W48/dial", "Nearest notches")
    coach.holds(lambda: coach.driver.title == "Dial, Maro Veldt, Week 48, Dial Back")
    coach.find("//nav[@aria-label='Places']//a[.='Kit']").click()
    coach.holds(lambda: coach.driver.title == "Kit, Dial Back")


def test_a_table_is_copied_as_numbers(coach: Coach) -> None:
    coach.open("/athletes/1/weeks/2026-W47/sheet", "Push : pull")
    copied = coach.driver.execute_script("""
      const table = [...document.querySelectorAll("main table")]
        .find(one => one.innerText.includes("Volume load"));
      const range = document.createRange();
      range.selectNode(table);
      document.getSelection().removeAllRanges();
      document.getSelection().addRange(range);
      const data = new DataTransfer();
      document.dispatchEvent(
        new ClipboardEvent("copy", {clipboardData: data, bubbles: true, cancelable: true}));
      return data.getData("text/plain");
    """)
    rows = [row.split("\t") for row in copied.splitlines()]
    load = next(row for row in rows if any(cell.startswith("Volume load") for cell in row))
    numbers = [cell for cell in load if cell.replace(".", "").isdigit()]
    assert len(numbers) >= 2
    assert any(float(cell) > 10_000 for cell in numbers)


def test_plans_are_printed_from_wherever_one_is(coach: Coach) -> None:
    fetched = (
        "const done = arguments[1]; fetch(arguments[0]).then(found => found.blob().then("
        "blob => done([found.status, blob.type, blob.size])))"
    )
    link = "//*[@role='dialog']//a[contains(., 'as a PDF')]"
    coach.open("/athletes/1/weeks/2026-W48/dial", "Nearest notches")
    coach.find("//body").send_keys("P")
    coach.sees("Open 1 page as a PDF")
    assert coach.axe() == []
    coach.find("//label[starts-with(., 'Next week')]/input").click()
    coach.holds(lambda: "day=2026-11-30" in coach.find(link).get_attribute("href"))
    href = coach.find(link).get_attribute("href")
    status, kind, size = coach.driver.execute_async_script(fetched, href)
    assert (status, kind) == (200, "application/pdf")
    assert size > 5_000
    coach.open("/kit", "The smallest step")
    coach.find("//body").send_keys("P")
    coach.sees("Open 13 pages as a PDF")
    coach.open("/?find=ondra", "Ondra Pell")
    coach.click("Print", "button")
    coach.find("//label[starts-with(., 'The 1 shown')]/input")
    coach.sees("Open 1 page as a PDF")
    coach.find("//label[.='Everybody']/input").click()
    coach.sees("Open 13 pages as a PDF")
