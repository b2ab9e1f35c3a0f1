"""What is not understood: its place, what was expected, what is near; never a crash."""

import re
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dialback.core.notation import (
    Bout,
    Line,
    Load,
    Part,
    Rounds,
    Step,
    Turn,
    WrittenSession,
    expand,
    read,
    write,
)
from dialback.core.notation.reader import MAX_LINES
from tests.notation.test_forms import DAY, MOVEMENTS

PAGE = (Path(__file__).parents[2] / "docs" / "notation.md").read_text()


@pytest.mark.parametrize(
    ("text", "line", "column", "words"),
    [
        ("Bakc squat 3 × 5", 1, 1, "Did you mean Back squat?"),
        ("bench 3 × 5", 1, 1, "may be Bench press, Bench-supported row"),
        ("Back squat", 1, 1, "how much? Write sets × reps"),
        ("Back squat 3 × 5 at 60 kgg", 1, 24, "'kgg' is no unit"),
        ("Back squat 3 × 5 at 60 stone", 1, 24, "kg or lb for a load"),
        ("Back squat 3 × 5 tempo 4-0", 1, 18, "is no tempo"),
        ("Back squat 3 × 5 tempo 31201", 1, 18, "is no tempo"),
        ("Back squat 3 × 5, rst 90 s", 1, 19, "Did you mean rest?"),
        ("Back squat 3 × 5 RPE 11", 1, 18, "RPE goes from 0 to 10"),
        ("Back squat 0 × 5", 1, 12, "from 1 to 99"),
        ("Back squat 999 × 5", 1, 12, "from 1 to 99"),
        ("Back squat 3 × 13-9", 1, 12, "goes up"),
        ("Back squat 3 × 5 at 60 kg at 70 kg", 1, 27, "said already"),
        ("Back squat 3 × 5 at 99999 kg", 1, 18, "no load that anybody"),
        ("Back squat 5 at 40 × 12 kg", 1, 14, "from 1 to 10 implements"),
        ("Back squat 3 ×", 1, 15, "the line ends"),
        ("ladder:\n  Press-up", 1, 1, "a ladder needs its rungs"),
        ("4 rounds:", 1, 1, "nothing is done in these rounds"),
        ("4 rounds:\n  Press-up", 2, 3, "how much? Write reps or a time"),
        ("4 rounds:\n  Press-up 3 × 9", 2, 12, "in rounds a line is one set"),
        ("4 rounds, 35 s onn:\n  Press-up", 1, 16, "between rounds or off or on"),
        ("2026-02-30 Legs\nPress-up 9", 1, 1, "no day of the calendar"),
        ("Press-up 9\nrest soon", 2, 6, "is no time"),
        ("\u202ePress-up 9", 1, 1, "no movement"),
        ("💪 9", 1, 1, "no movement"),
    ],
)
def test_the_place_is_named(text: str, line: int, column: int, words: str) -> None:
    mistakes = read(text, MOVEMENTS).mistakes
    assert mistakes, "nothing was wrong"
    first = mistakes[0]
    assert (first.line, first.column) == (line, column), str(first)
    assert words in first.message, first.message
    assert first.length >= 1


def test_several_mistakes_are_told_and_the_other_lines_count() -> None:
    reading = read("Press-up 9\nNothing 8\nBody row 7\n\nBack squat x\n", MOVEMENTS)
    assert [one.line for one in reading.mistakes] == [2, 5]
    assert [one.exercise for one in expand(reading.sessions[0], DAY).sets] == [
        "Press-up", "Body row"]  # fmt: skip


def test_a_head_that_is_not_understood_does_not_make_its_lines_mistakes() -> None:
    reading = read("4 ronds, 35 s on:\n  Press-up\n  Body row\nCrunch 9", MOVEMENTS)
    assert [one.line for one in reading.mistakes] == [1]


def test_a_long_text_is_refused_in_a_word() -> None:
    reading = read("Press-up 9\n" * 10_000, MOVEMENTS)
    assert reading.sessions == ()
    assert f"at most {MAX_LINES} lines" in reading.mistakes[0].message


def examples() -> list[str]:
    return re.findall(r"```session\n(.*?)```", PAGE, re.DOTALL)


@pytest.mark.parametrize("text", examples())
def test_every_example_of_the_page_can_be_typed(text: str) -> None:
    reading = read(text, MOVEMENTS)
    assert reading.mistakes == ()
    assert read(write(*reading.sessions), MOVEMENTS).sessions == reading.sessions
    for session in reading.sessions:
        assert expand(session, DAY).sets


def test_there_are_examples() -> None:
    assert len(examples()) == 5


@settings(max_examples=150, deadline=None)
@given(st.text(max_size=80) | st.text(alphabet="Press-up 0123×x.,:/+()kgs\t\r\n", max_size=80))
def test_nothing_crashes_the_reader(text: str) -> None:
    reading = read(text, MOVEMENTS)
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    for one in reading.mistakes:
        assert 1 <= one.line <= len(lines)
        assert 1 <= one.column <= len(lines[one.line - 1]) + 1
    assert read(write(*reading.sessions), MOVEMENTS).sessions == reading.sessions


NAMES = st.sampled_from([movement.name for movement in MOVEMENTS])
SECONDS = st.integers(1, 600).map(float)
NOTES = st.text(alphabet="abc deDE,;:/+×0-9 thenrest", max_size=12).map(str.strip)
LOADS = st.builds(
    Load,
    st.integers(1, 800).map(lambda quarter: quarter / 4),
    st.sampled_from(["kg", "lb"]),
    st.integers(1, 3),
    st.booleans(),
)
MOVES = st.lists(st.tuples(NAMES, st.integers(1, 5).map(float)), min_size=1, max_size=3).map(tuple)


@st.composite
def bouts(draw: st.DrawFn, *, dose: bool = True) -> Bout:
    keys: dict = {}
    match draw(st.sampled_from(["reps", "range", "time", "clusters", "ranges"])) if dose else "":
        case "reps":
            keys["reps"] = draw(st.integers(0, 60))
        case "range":
            keys["reps"] = draw(st.integers(1, 20))
            keys["reps_to"] = keys["reps"] + draw(st.integers(1, 9))
        case "time":
            keys["seconds"] = draw(SECONDS)
        case "clusters":
            keys["clusters"] = tuple(draw(st.lists(st.integers(1, 20), min_size=2, max_size=4)))
        case "ranges":
            spans = st.sampled_from(["low half", "high half", "half", "full"])
            keys["ranges"] = tuple(draw(st.lists(st.tuples(st.integers(1, 12), spans),
                                                 min_size=2, max_size=3)))  # fmt: skip
    if keys and "seconds" not in keys and draw(st.integers(0, 4)) == 0:
        keys["seconds"] = draw(SECONDS)
    optional = {
        "load": LOADS, "band": st.sampled_from(["light", "strong"]),
        "sides": st.sampled_from(["each", "alternating", "left", "right"]),
        "tempo": st.sampled_from(["3-1-2-0", "30X1"]), "hold_s": SECONDS,
        "range": st.sampled_from(["low half", "high half", "half", "full"]),
        "rpe": st.sampled_from([6.0, 7.5, 8.0]), "rest_s": SECONDS, "warm_up": st.just(True),
        "to_failure": st.just(True), "for_time": st.just(True), "note": NOTES,
    }  # fmt: skip
    for key, values in optional.items():
        if draw(st.integers(0, 3)) == 0:
            keys[key] = draw(values)
    return Bout(**keys)


LINES = st.builds(
    Line, MOVES, st.lists(st.builds(Step, bouts(), st.integers(1, 9)), min_size=1, max_size=3)
    .map(tuple)
)  # fmt: skip


@st.composite
def rounds(draw: st.DrawFn) -> Rounds:
    form = draw(st.sampled_from(["rounds", "ladder", "bouts"]))
    rungs = tuple(draw(st.lists(st.integers(1, 30), min_size=1, max_size=4)))
    on = None if form == "ladder" else draw(SECONDS | st.none())
    free = form == "ladder" or on is not None
    alternative = st.tuples(MOVES, bouts(dose=not free) | bouts() if free else bouts())
    turn = st.builds(Turn, st.lists(alternative, min_size=1, max_size=3).map(tuple))
    turns = tuple(draw(st.lists(turn, min_size=1, max_size=4)))
    count = len(rungs) if form == "ladder" else draw(st.integers(1, 12))
    return Rounds(form, count, turns, rungs if form == "ladder" else (), on,
                  draw(SECONDS | st.none()), draw(SECONDS | st.none()))  # fmt: skip


PARTS = st.builds(
    Part, st.sampled_from(["warm-up", "main", "finisher", "cool-down"]),
    st.sampled_from(["", "A", "B 2"]), st.lists(LINES | rounds(), max_size=4).map(tuple),
    SECONDS | st.none(), st.booleans(),
)  # fmt: skip
SESSIONS = st.builds(
    WrittenSession, st.lists(PARTS, min_size=1, max_size=3).map(tuple), st.dates(
        min_value=DAY.replace(year=1950), max_value=DAY.replace(year=2900)),
    st.sampled_from(["", "Legs", "Squat: and press, 2"]),
)  # fmt: skip


@settings(max_examples=100, deadline=None)
@given(SESSIONS)
def test_what_is_written_reads_as_it_was(session: WrittenSession) -> None:
    text = write(session)
    reading = read(text, MOVEMENTS)
    assert reading.mistakes == (), text
    assert reading.sessions == (session,), text
    assert write(*reading.sessions) == text
