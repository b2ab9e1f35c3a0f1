"""Sense: what nobody means is asked about, with readings that are read as they stand."""

from datetime import date
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.book.book import SessionsByWeek
from dialback.core.body import BodyWeight
from dialback.core.movements import MovementTable
from dialback.core.notation import read
from dialback.core.rules import DEFAULT_RULES
from dialback.core.sense import Doubt, Knowing, checks, doubts
from dialback.core.sense.checks import CHECKS, Check
from dialback.core.tally import Ledger
from dialback.library import library
from tests.build import MONDAY, WEEK, book, session, sets
from tests.properties import tried

ANYBODY = Ledger(
    SessionsByWeek([], []), MovementTable(library()), DEFAULT_RULES, BodyWeight.of(80.0)
)


def asked(text: str, ledger: Ledger = ANYBODY) -> tuple[Doubt, ...]:
    reading = read(text, ledger.movements)
    assert not reading.mistakes
    return doubts(text, reading, Knowing(ledger, MONDAY))


SENSELESS: list[tuple[str, tuple[str | None, ...]]] = [
    ("Press-up 400", ("Press-up 40", "Press-up 400 s")),
    ("Press-up 312", ("Press-up 3 × 12", "Press-up 312 s")),
    ("Bench press 3 × 100 at 40 kg", ("Bench press 3 × 10 at 40 kg", None)),
    ("Press-up 10 × 40", ("Press-up 10 × 4", None)),
    ("Back squat 40 sets of 10", ("Back squat 10 at 40 kg",)),
    ("Press-up 3 × 10 m", ("Press-up 3 × 10", "Press-up 3 × 10 min", "Press-up 3 × 10 s")),
    ("Front plank 60 reps", ("Front plank 60 s",)),
    ("Back squat 5 at 0.8 kg", ("Back squat 5 at 80 %", "Back squat 5 at 8 kg")),
    ("Front plank 40 m", ("Front plank 40 min", "Front plank 40 s")),
    (
        "Back squat 3 × 8 each side at 60 kg",
        ("Back squat 3 × 8 at 60 kg", "One-leg squat to a box 3 × 8 each side at 60 kg"),
    ),
    ("Back squat 5 × 5 at 600 kg", ("Back squat 5 × 5 at 600 lb", "Back squat 5 × 5 at 60 kg")),
    ("Lateral raise 3 × 12 at 2 × 90 kg", ("Lateral raise 3 × 12 at 2 × 90 lb", None)),
    (
        "Bench press 3 × 8 at 60 kg, rest 90 min",
        ("Bench press 3 × 8 at 60 kg, rest 90 s",),
    ),
    ("Bench press 3 × 8 at 130 %", ("Bench press 3 × 8 at 130 kg",)),
    ("Pull-up 3 × 5 at 20 %", ("Pull-up 3 × 5 at 16 kg",)),
    ("Chin-up 3 × 5 (-20kg band)", ()),
    ("Back squat 5 × 5 help 60 kg", ("Back squat 5 × 5 at 60 kg",)),
    (
        "Back squat 5 × 5 at 400 % body weight",
        ("Back squat 5 × 5 at 40 % body weight",),
    ),
    (
        "Bench press 3 × 8 at 60 kg, tempo 30-1-30-0",
        ("Bench press 3 × 8 at 60 kg, tempo 3-1-3-0", None),
    ),
]


@pytest.mark.parametrize(("text", "others"), SENSELESS)
def test_what_nobody_means_is_asked_with_what_it_can_be(text: str, others: tuple) -> None:
    (doubt,) = asked(text)
    assert doubt.why.endswith("?")
    assert (doubt.line, doubt.column, doubt.length) == (1, 1, len(text))
    wanted = [other for other in others if other is not None]
    assert list(doubt.others[: len(wanted)]) == wanted
    assert len(doubt.others) == len(wanted) or None in others
    # Whatever is chosen is read as it stands, and asked about no more.
    for other in doubt.others:
        assert asked(other) == ()


WARM_UPS = [
    (
        "warm-up:\nBench press 5 at 400 kg\nmain:\nBench press 3 × 5 at 90 kg",
        "Bench press 5 at 40 kg",
    ),
    (
        "warm-up:\nBench press 5 at 120 kg\nmain:\nBench press 3 × 5 at 90 kg",
        "Bench press 5 at 12 kg",
    ),
]


@pytest.mark.parametrize(("text", "other"), WARM_UPS)
def test_a_warm_up_is_lighter_than_its_work(text: str, other: str) -> None:
    (doubt,) = asked(text)
    assert (doubt.line, doubt.others[0]) == (2, other)
    # Of another movement, and where the work says nothing of a load, nothing can be said.
    assert asked("warm-up:\nBack squat 5 at 120 kg\nmain:\nBench press 3 × 5 at 90 kg") == ()
    assert asked("warm-up:\nBench press 5 at 120 kg\nmain:\nBench press 3 × 5 at 75 %") == ()
    assert asked("warm-up:\nBench press 5 at 90 kg\nmain:\nBench press 3 × 5 at 90 kg") == ()


@pytest.mark.parametrize(
    "text",
    [
        "Press-up 100",
        "Press-up 10 × 20",
        "Back squat 10 × 10 at 60 kg",
        "Bench press 5 × 5 at 160 kg, rest 5 min",
        "Walking lunge 3 × 20 m",
        "Farmer's carry 4 × 40 m at 2 × 40 kg",
        "Rowing machine, steady 5000 m",
        "Skipping 300 reps",
        "Press-up 300 in 10 min",
        "Dumbbell curl 3 × 10 each side at 12 kg",
        "Split squat 3 × 10 each side at 20 kg",
        "Front plank 3 × 60 s",
        "Bench press 3 × 8 at 75 %",
        "Pull-up 3 × 8 at 10 kg help",
        "Back squat 3 × 5 at 80 kg, tempo 5-2-1-0",
    ],
)
def test_what_coaches_write_is_not(text: str) -> None:
    reading = read(text, ANYBODY.movements)
    assert doubts(text, reading, Knowing(ANYBODY, MONDAY)) == ()


def test_a_load_is_looked_at_with_what_the_athlete_does() -> None:
    def of(load: float, **more: Any) -> tuple[Doubt, ...]:
        done = [session(-7, sets("Press", 3, 8, load_kg=60, rpe=9))]
        text = f"Press 3 × 8 at {load:g} kg"
        ledger = book(done, **more).ledger()
        return doubts(text, read(text, ledger.movements), Knowing(ledger, WEEK.monday))

    assert of(70) == ()
    (doubt,) = of(132)
    assert "the best of eight weeks" in doubt.why
    # In pounds it is what she lifts.
    assert doubt.others[0] == "Press 3 × 8 at 132 lb"
    # What was done later, or long ago, says nothing.
    late = [session(7, sets("Press", 3, 8, load_kg=60, rpe=9))]
    ledger = book(late).ledger()
    text = "Press 3 × 8 at 132 kg"
    assert doubts(text, read(text, ledger.movements), Knowing(ledger, MONDAY)) == ()


def test_a_line_keeps_its_indent_bullet_label_and_steps() -> None:
    text = (
        "main:\n"
        "- Press-up 400\n"
        "B1 Press-up 3 × 10 m\n"
        "B2 Pull-up 3 × 8\n"
        "3 rounds:\n"
        "  Press-up 10 m\n"
        "  Pull-up 8\n"
        "Press-up 20, then 300\n"
    )
    told = {one.line: one for one in asked(text)}
    assert sorted(told) == [2, 3, 6, 8]
    rows = text.split("\n")
    for at, doubt in told.items():
        begin, length = doubt.column - 1, doubt.length
        row = rows[at - 1]
        assert read(row[begin : begin + length], ANYBODY.movements).sessions
        rows[at - 1] = row[:begin] + doubt.others[0] + row[begin + length :]
    whole = "\n".join(rows)
    assert whole == (
        "main:\n"
        "- Press-up 40\n"
        "B1 Press-up 3 × 10\n"
        "B2 Pull-up 3 × 8\n"
        "3 rounds:\n"
        "  Press-up 10\n"
        "  Pull-up 8\n"
        "Press-up 20, then 30\n"
    )
    assert asked(whole) == ()


NAMES = st.sampled_from([movement.name for movement in library()])
DOSES = st.sampled_from(
    ["{n}", "{m} × {n}", "{m} sets of {n}", "{m} × {n} m", "{m} × {n} s", "{m} × {n} each side"]
)
MORE = st.sampled_from(
    ["", " at {n} kg", " at 2 × {n} kg", " at {n} %", ", rest {m} min", ", tempo {m}-0-{m}-0"]
)


@tried(300)
@given(NAMES, DOSES, MORE, st.integers(1, 60), st.integers(1, 700))
def test_whatever_is_offered_is_read_and_makes_sense(
    name: str, dose: str, more: str, m: int, n: int
) -> None:
    text = f"{name} {(dose + more).format(n=n, m=m)}"
    reading = read(text, ANYBODY.movements)
    found = doubts(text, reading, Knowing(ANYBODY, date(2026, 12, 1)))
    assert not found or not reading.mistakes
    for doubt in found:
        assert doubt.taken not in doubt.others
        for other in doubt.others:
            assert asked(other) == ()


@pytest.mark.parametrize("check", CHECKS)
def test_every_check_is_met_by_an_example(check: Check, monkeypatch: pytest.MonkeyPatch) -> None:
    texts = [text for text, _ in [*SENSELESS, *WARM_UPS]]
    assert all(asked(text) for text in texts)
    monkeypatch.setattr(checks, "CHECKS", tuple(one for one in CHECKS if one is not check))
    assert any(asked(text) == () for text in texts)


@pytest.mark.parametrize(
    ("text", "line", "why"),
    [
        ("2026-10-05 A\nDip 5\n2026-10-05 B\nDip 5", 3, "is there twice"),
        ("2026-10-07 A\nDip 5\n2026-10-05 B\nDip 5", 3, "comes after 2026-10-07"),
        ("2026-10-05 A\n2026-10-07 B\nDip 5", 1, "Nothing is done on this day"),
    ],
)
def test_days_that_cannot_be_meant_are_asked_about(text: str, line: int, why: str) -> None:
    (doubt,) = asked(text)
    assert (doubt.line, doubt.others) == (line, ())
    assert why in doubt.why


def test_a_line_of_several_movements_is_asked_about_and_not_overwritten() -> None:
    (doubt,) = asked("Press-up 3 × 400 + Crunch 3 × 10")
    assert doubt.others == ()
    assert [one.line for one in asked("Press-up 10, Crunch 400")] == [1]
