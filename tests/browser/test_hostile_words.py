"""Words that are code: typed into every field, shown in every place, and run in none."""

from __future__ import annotations

import json
import urllib.request
from datetime import date
from pathlib import Path
from typing import Any

import pytest

from dialback.book.book import read_book
from dialback.demo.generate import books
from dialback.store.athletes import import_book
from dialback.store.database import open_database
from dialback.store.models import Athlete, House, JournalEntry, Template, database
from dialback.store.unit import silently
from tests.browser.driving import Coach, browser, served

TODAY = date(2026, 11, 24)
CODE = "<img src=x onerror=window.run=1><script>window.run=1</script>{{7*7}}`${window.run=1}`"
QUOTES = "\"onfocus=window.run=1 autofocus x=\"'-window.run=1-'"
LINK = "javascript:window.run=1"
WORDS = (CODE, QUOTES, LINK)
WEEK = "2026-W47"
PLACES = (
    "/",
    "/floor",
    "/movements",
    "/kit",
    "/rules",
    "/files",
    "/people",
    "/journal",
    *(
        f"/athletes/1/weeks/{WEEK}/{place}"
        for place in ("sheet", "block", "season", "log", "write", "dial", "rules")
    ),
)


def spoiled(value: Any, turn: int = 0, key: str = "") -> Any:
    """The same with code in place of every text that a person may type."""
    if isinstance(value, dict):
        return {name: spoiled(one, turn + at, name) for at, (name, one) in enumerate(value.items())}
    if isinstance(value, list):
        return [spoiled(one, turn + at, key) for at, one in enumerate(value)]
    free = ("title", "notes", "note", "word", "by", "reason", "part", "band")
    return f"{WORDS[turn % 3]} {turn}"[:100] if key in free and isinstance(value, str) else value


def renamed(book: dict[str, Any]) -> dict[str, Any]:
    """Movements and the athlete with names of code, wherever they stand."""
    text = json.dumps(book)
    for at, name in enumerate(one["name"] for one in book["exercises"][:6]):
        text = text.replace(json.dumps(name), json.dumps(f"{WORDS[at % 3][:60]} {at}"))
    found: dict[str, Any] = json.loads(text)
    found["athlete"]["name"] = CODE[:70]
    return found


@pytest.fixture(scope="module")
def coach(tmp_path_factory: pytest.TempPathFactory) -> Any:
    data: Path = tmp_path_factory.mktemp("hostile") / "house.sqlite"
    open_database(data)
    first, _ = next(iter(books(TODAY)))
    book = json.loads(first.model_dump_json(exclude_defaults=True))
    book["blocks"] = [{"week": WEEK, "weeks": 3, "title": "Block"}]
    with database.connection_context(), silently():
        import_book(read_book(json.dumps(renamed(spoiled(book))).encode()), TODAY)
        Athlete.update(note=CODE, squad=QUOTES[:60]).execute()
        House.update(name=CODE[:80]).execute()
        Template.create(name=CODE, weeks=1, sessions=[{"day": 0, "title": CODE, "text": CODE}])
        JournalEntry.create(
            athlete=1,
            day=TODAY,
            at="2026-11-23T10:00:00+00:00",
            until="2026-11-23T10:00:00+00:00",
            who=CODE,
            says=QUOTES,
        )
    database.close()
    with served(data, TODAY, empty=True) as base, browser() as driver:
        yield Coach(driver, base)


@pytest.mark.parametrize("place", PLACES)
def test_words_that_are_code_are_shown_and_not_run(coach: Coach, place: str) -> None:
    coach.driver.get(coach.base + place)
    coach.wait(lambda: len(coach.find("//main | //*[@role='main'] | //h1").text) > 0, place)
    coach.wait(
        lambda: "Loading" not in coach.text() and "Counting the week" not in coach.text(), place
    )
    coach.holds(lambda: coach.driver.execute_script("return window.run") is None)
    coach.holds(
        lambda: coach.driver.execute_script("return document.querySelector('img[src=x]')") is None
    )
    links = "return [...document.querySelectorAll('[href],[src]')].map(e => e.href || e.src)"
    found = coach.driver.execute_script(links)
    assert not [one for one in found if str(one).startswith("javascript:")]


def test_finished_files_carry_words_and_no_code(coach: Coach) -> None:
    def fetched(path: str) -> bytes:
        with urllib.request.urlopen(coach.base + path, timeout=60) as answer:
            return bytes(answer.read())

    calendar = fetched(f"/api/athletes/1/weeks/{WEEK}/block/calendar").decode()
    lines = calendar.replace("\r\n ", "").split("\r\n")
    # A title ends with its line: nothing of it begins one of its own.
    assert sum(line == "BEGIN:VEVENT" for line in lines) == sum(
        line.startswith("UID:") for line in lines
    )
    for of in ("week", "block"):
        pdf = fetched(f"/api/athletes/1/weeks/{WEEK}/report?of={of}")
        assert pdf.startswith(b"%PDF")
        for trigger in (b"/JavaScript", b"/JS ", b"/OpenAction", b"/Launch", b"/EmbeddedFile"):
            assert trigger not in pdf
