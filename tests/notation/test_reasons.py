"""Why something stands there: behind a line, below a head, on a line of its own."""

from __future__ import annotations

from datetime import date

import pytest

from dialback.core.movements import MovementTable
from dialback.core.notation import Setting, expand, read, write
from dialback.core.notation.reasons import cut_reason
from dialback.core.notation.rows import readings, row_text, rows
from dialback.core.notation.session import Rounds
from dialback.library import library

MOVEMENTS = MovementTable(library())
SETTING = Setting(MOVEMENTS)
DAY = date(2026, 11, 30)


def whys(text: str) -> list[tuple[str, str]]:
    reading = read(text, MOVEMENTS)
    assert reading.mistakes == ()
    sets = expand(reading.sessions[0], SETTING, DAY).sets
    return list(dict.fromkeys((one.why, one.note) for one in sets))


@pytest.mark.parametrize(
    ("line", "why", "note"),
    [
        ("Press-up 3 × 8, because her arms tire first", "her arms tire first", ""),
        ("Press-up 3 x 8 because her arms tire first", "her arms tire first", ""),
        ("Press-up 3x8 (hips level) Because of Saturday", "because of Saturday", "hips level"),
        ("Press-up 3 × 8, because 3 × 5, at 60 kg, was a jump", "3 × 5, at 60 kg, was a jump", ""),
        ("Press-up 3 × 8 (because she likes it)", "", "because she likes it"),
        ("Press-up 3 × 8\n  because her arms tire first", "her arms tire first", ""),
        ("Press-up 3 × 8\nwhy: her arms tire first", "her arms tire first", ""),
        ("Press-up 3 × 8, because one\n  why: two", "one; two", ""),
        ("Press-up 3 × 8\n  hips level\n  eyes down", "", "hips level; eyes down"),
        ("Press-up 3 × 8\n  hips level, because they sag", "they sag", "hips level"),
        ("3 rounds, because time is short:\n  Press-up 8", "time is short", ""),
        ("3 rounds:\n  why: time is short\n  Press-up 8", "time is short", ""),
        ("3 rounds:\n  Press-up 8\n    hips level", "", "hips level"),
        ("A1 Press-up 3 × 8\n  because of her wrist\nA2 Press-up 3 × 8 because of her wrist",
         "because of her wrist", ""),
    ],
)  # fmt: skip
def test_a_reason_and_words_belong_to_their_line(line: str, why: str, note: str) -> None:
    assert whys(line) == [(why, note)]
    (session,) = read(line, MOVEMENTS).sessions
    told = write(session, movements=MOVEMENTS)
    assert read(told, MOVEMENTS).sessions == (session,)


def test_a_session_and_its_parts_have_reasons() -> None:
    text = (
        "2026-12-03 Light legs, because of Saturday's race\nwhy: the boat is heavy\n"
        "main A, because it is new:\nPress-up 8\nfinisher:\n  why: she likes it\n  Crunch 10\n"
    )
    (session,) = read(text, MOVEMENTS).sessions
    assert session.title == "Light legs"
    assert session.why == "because of Saturday's race; the boat is heavy"
    assert [part.why for part in session.parts] == ["it is new", "she likes it"]
    assert whys(text) == [("", "")]
    assert write(session, movements=MOVEMENTS) == (
        "2026-12-03 Light legs\nwhy: because of Saturday's race; the boat is heavy\n"
        "main A:\nwhy: it is new\nPress-up 8\nfinisher:\nwhy: she likes it\nCrunch 10\n"
    )
    (alone,) = read("why: a test day\nPress-up 8", MOVEMENTS).sessions
    assert (alone.why, alone.parts[0].why) == ("a test day", "")


def test_a_reason_of_rounds_is_theirs_and_a_turns_own_goes_first() -> None:
    text = "2 rounds:\n  Press-up 8, because of her wrist\n  Crunch 10\nwhy: time is short\n"
    (session,) = read(text, MOVEMENTS).sessions
    (circuit,) = session.parts[0].items
    assert isinstance(circuit, Rounds)
    assert circuit.why == "time is short"
    assert whys(text) == [("because of her wrist", ""), ("time is short", "")]


def test_what_stands_below_a_line_that_is_not_understood_is_no_others() -> None:
    reading = read("Crunch 10\nPresup 3 kg kg\n  because it is new", MOVEMENTS)
    assert len(reading.mistakes) == 1
    assert whys("Crunch 10") == [("", "")]
    (line,) = reading.sessions[0].parts[0].items
    assert line.why == ""  # type: ignore[union-attr]


def test_what_may_mean_more_than_words_is_asked_about() -> None:
    (mistake,) = read("Press-up 3 × 8\n  last set heavier", MOVEMENTS).mistakes
    assert mistake.line == 2


def test_a_row_keeps_its_own_words_and_those_below_stay_below() -> None:
    text = "Press-up 3 × 8, because one\n  why: two\n  hips level"
    first, *below = rows(text, MOVEMENTS)
    assert first.entries[-1].why == "one"
    assert row_text(first) == "Press-up 3 × 8, because one"
    assert [one.kind for one in below] == ["other", "other"]
    assert readings(text, read(text, MOVEMENTS), MOVEMENTS) == {}


def test_cutting_keeps_the_place_of_what_stands_before() -> None:
    assert cut_reason("  Plank 9 s; because", "  Plank 9 s; because") == (
        "  Plank 9 s; because", "  Plank 9 s; because", "",
    )  # fmt: skip
    assert cut_reason("main A because new:", "Main A because New:") == ("main A:", "Main A:", "New")
    assert cut_reason("# because", "# because") == ("# because", "# because", "")
