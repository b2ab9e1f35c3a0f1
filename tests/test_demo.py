"""The made-up club: enough to look at on every day of the week."""

from datetime import date, timedelta

import pytest

from dialback.book.book import write_book
from dialback.core.audit import audit
from dialback.core.causes import causes
from dialback.core.weeks import Week
from dialback.demo.club import ROWERS
from dialback.demo.generate import WEEKS, books

MONDAY = date(2026, 11, 23)


@pytest.fixture(scope="module", params=[0, 3, 6, 200], ids=lambda days: f"+{days}d")
def day(request: pytest.FixtureRequest) -> date:
    return MONDAY + timedelta(days=request.param)


def test_the_club(day: date) -> None:
    week = Week.to_audit(day)
    found, clean, told, books_of_day = set(), [], 0, list(books(day))
    assert len(books_of_day) == len(ROWERS) == 13
    for book, rower in books_of_day:
        result = audit(book.ledger(), week, as_of=day)
        told += len(causes(result))
        if 0 in rower.absent:
            assert not result.findings
            continue
        assert result.value("totals/sets") > 30, rower.name
        found |= {(one.code, one.subject) for one in result.findings}
        if not causes(result):
            clean.append(rower.name)
        weeks = {Week.of(session.date) for session in book.planned}
        assert week.plus(1 - WEEKS) in weeks
        assert week.plus(2) in weeks
        assert max(session.date for session in book.completed) < day
    codes = {code for code, _ in found}
    assert codes >= {
        "balance",
        "muscle_floor",
        "muscle_ceiling",
        "jump",
        "load_step",
        "spacing",
        "off_plan",
        "missed",
        "swapped",
        "data_gap",
        "pain",
        "side_gap",
        "stalled",
        "return",
    }
    # A hundred findings, and no more than some thirty causes to read.
    assert 20 <= told <= 32
    assert clean == ["Anselm Brook"]


def test_the_stories_are_told() -> None:
    week = Week.to_audit(MONDAY)
    told = {rower.name: audit(book.ledger(), week) for book, rower in books(MONDAY)}
    subjects = {
        name: {(one.code, one.subject) for one in result.findings} for name, result in told.items()
    }
    assert ("balance", "push_pull") in subjects["Maro Veldt"]
    assert ("jump", "total") in subjects["Tess Hallorin"]
    assert told["Ondra Pell"].value("totals/estimated_rep_sets") > 30
    assert ("muscle_floor", "triceps") in subjects["Lisbet Arnaud"]
    assert (
        told["Jory Castelin"].disagreement is None or "load" in told["Jory Castelin"].disagreement
    )
    assert told["Wendel Okoro-Fay"].change("totals/tut_s").change > 0.2
    assert ("load_step", "Bench press") in subjects["Pia Dresner"]
    assert {code for code, _ in subjects["Yara Quill"]} >= {"spacing"}
    assert ("muscle_ceiling", "quads") in subjects["Bram Osterley"]
    left, right = (
        sum(
            entry.set.reps or 0
            for entry in told["Mirren Sollas"].entries
            if entry.set.sides == side
        )
        for side in ("left", "right")
    )
    assert left < 0.9 * right


def test_same_day_same_data(day: date) -> None:
    one, two = ([write_book(book) for book, _ in books(day)] for _ in range(2))
    assert one == two
