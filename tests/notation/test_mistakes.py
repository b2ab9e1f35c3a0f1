"""What is not understood: its place, what was expected, what is near; never a crash."""

import re
import time
from itertools import pairwise
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.notation import (
    Bout,
    Line,
    Load,
    Part,
    Pause,
    Rounds,
    Step,
    Turn,
    WrittenSession,
    expand,
    read,
    write,
)
from dialback.core.notation.reader import MAX_LINES
from tests.notation.test_forms import DAY, MOVEMENTS, SETTING
from tests.properties import tried

PAGE = (Path(__file__).parents[2] / "docs" / "notation.md").read_text()


@pytest.mark.parametrize(
    ("text", "line", "column", "words"),
    [
        ("Bakc squat 3 × 5", 1, 1, "Did you mean Back squat?"),
        ("bench 3 × 5", 1, 1, "may be Bench press, Bench-supported row"),
        ("Back squat", 1, 1, "how much? Write sets × reps"),
        ("Back squat 3 × 5 at 60 kgg", 1, 24, "'kgg' is not a unit"),
        ("Back squat 3 × 5 at 60 stone", 1, 24, "kg or lb for a load"),
        ("Back squat 3 × 5 tempo 4-0", 1, 18, "is not a tempo"),
        ("Back squat 3 × 5 tempo 31201", 1, 18, "is not a tempo"),
        ("Back squat 3 × 5, rst 90 s", 1, 19, "Did you mean rest?"),
        ("Back squat 3 × 5 RPE 11", 1, 18, "RPE goes from 0 to 10"),
        ("Back squat 0 × 5", 1, 12, "from 1 to 99"),
        ("Back squat 999 × 5", 1, 12, "999 what?"),
        ("Back squat 3 × 13-9", 1, 16, "goes up"),
        ("Back squat 3 × 5 at 60 kg at 70 kg", 1, 27, "said already"),
        ("Back squat 3 × 5 at 99999 kg", 1, 21, "not a load that anybody"),
        ("Back squat 5 at 40 × 12 kg", 1, 17, "from 1 to 10 implements"),
        ("Back squat 3 ×", 1, 15, "how much?"),
        ("ladder:\n  Press-up", 1, 1, "a ladder needs its rungs"),
        ("4 rounds:", 1, 1, "nothing is done in these rounds"),
        ("4 rounds:\n  Press-up", 2, 3, "how much? Write reps or a time"),
        ("4 rounds:\n  Press-up 3 × 9", 2, 12, "in rounds a line is one set"),
        ("4 rounds, 35 s onn:\n  Press-up", 1, 16, "Did you mean on?"),
        ("2026-02-30 Legs\nPress-up 9", 1, 1, "not a day of the calendar"),
        ("Press-up 9\nrest soon", 2, 6, "is not a time"),
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
    reading = read("Press-up 9\nNothing 8\nInverted row 7\n\nBack squat x\n", MOVEMENTS)
    assert [one.line for one in reading.mistakes] == [2, 5]
    assert [one.exercise for one in expand(reading.sessions[0], SETTING, DAY).sets] == [
        "Press-up",
        "Inverted row",
    ]


def test_a_head_that_is_not_understood_does_not_make_its_lines_mistakes() -> None:
    reading = read("4 ronds, 35 s on:\n  Press-up\n  Inverted row\nCrunch 9", MOVEMENTS)
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
    assert (
        read(write(*reading.sessions, movements=MOVEMENTS), MOVEMENTS).sessions == reading.sessions
    )
    for session in reading.sessions:
        assert expand(session, SETTING, DAY).sets


def test_there_are_examples() -> None:
    assert len(examples()) == 6


@tried(150)
@given(st.text(max_size=80) | st.text(alphabet="Press-up 0123×x.,:/+()kgs\t\r\n", max_size=80))
def test_nothing_crashes_the_reader(text: str) -> None:
    reading = read(text, MOVEMENTS)
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    for one in reading.mistakes:
        assert 1 <= one.line <= len(lines)
        assert 1 <= one.column <= len(lines[one.line - 1]) + 1
    assert (
        read(write(*reading.sessions, movements=MOVEMENTS), MOVEMENTS).sessions == reading.sessions
    )


SECONDS = st.integers(1, 600).map(float)
NOTES = st.text(alphabet="abc deDE,;:/+×0-9 thenrest", max_size=12).map(str.strip)
WHYS = st.sampled_from(["", "", "", "her arms tire first", "because of 2 races: A, B (late)"])
LOADS = st.builds(
    Load,
    st.integers(1, 800).map(lambda quarter: quarter / 4),
    st.sampled_from(["kg", "lb"]),
    st.integers(1, 3),
    st.booleans(),
)
NAMES = st.sampled_from([movement.name for movement in MOVEMENTS])
MOVES = st.lists(st.tuples(NAMES, st.integers(1, 5).map(float)), min_size=1, max_size=3).map(tuple)


@st.composite
def bouts(draw: st.DrawFn, *, dose: bool = True) -> Bout:
    keys: dict = {}
    kinds = ["reps", "range", "time", "clusters", "ranges", "distance"]
    match draw(st.sampled_from(kinds)) if dose else "":
        case "reps":
            keys["reps"] = draw(st.integers(0, 60))
        case "range":
            keys["reps"] = draw(st.integers(1, 20))
            keys["reps_to"] = keys["reps"] + draw(st.integers(1, 9))
        case "time":
            keys["seconds"] = draw(SECONDS)
        case "distance":
            keys["distance_m"] = draw(st.integers(20, 4000).map(float))
        case "clusters":
            keys["clusters"] = tuple(draw(st.lists(st.integers(1, 20), min_size=2, max_size=4)))
        case "ranges":
            spans = st.sampled_from(["low half", "high half", "half", "full"])
            keys["ranges"] = tuple(
                draw(st.lists(st.tuples(st.integers(1, 12), spans), min_size=2, max_size=3))
            )
    if keys and "seconds" not in keys and draw(st.integers(0, 4)) == 0:
        keys["seconds"] = draw(SECONDS)
    if draw(st.integers(0, 4)) == 0:
        keys["percent"] = draw(st.integers(2, 200).map(lambda half: half / 2))
    optional = {
        "load": LOADS,
        "band": st.sampled_from(["light", "strong"]),
        "sides": st.sampled_from(["each", "alternating", "left", "right"]),
        "tempo": st.sampled_from(["3-1-2-0", "30X1"]),
        "hold_s": SECONDS,
        "range": st.sampled_from(["low half", "high half", "half", "full"]),
        "rpe": st.sampled_from([6.0, 7.5, 8.0]),
        "rest_s": SECONDS,
        "warm_up": st.just(True),
        "to_failure": st.just(True),
        "for_time": st.just(True),
        "note": NOTES,
    }
    for key, values in optional.items():
        if draw(st.integers(0, 3)) == 0 and not (key == "load" and "percent" in keys):
            keys[key] = draw(values)
    if "rpe" in keys:
        keys.pop("to_failure", None)
        if draw(st.booleans()):
            keys["rpe_to"] = keys["rpe"] + 1
    return Bout(**keys)


LINES = st.builds(
    Line,
    MOVES,
    st.lists(st.builds(Step, bouts(), st.integers(1, 30)), min_size=1, max_size=3).map(tuple),
    why=WHYS,
)


@st.composite
def rounds(draw: st.DrawFn) -> Rounds:
    form = draw(st.sampled_from(["rounds", "ladder", "bouts"]))
    rungs = tuple(draw(st.lists(st.integers(1, 30), min_size=1, max_size=4)))
    on = None if form == "ladder" else draw(SECONDS | st.none())
    free = form == "ladder" or on is not None
    alternative = st.tuples(MOVES, bouts(dose=not free) | bouts() if free else bouts())
    alternatives = st.lists(alternative, min_size=1, max_size=3)
    turn = st.builds(
        Turn,
        alternatives.map(lambda all_: tuple(all_ if len(set(all_)) > 1 else all_[:1])),
        why=WHYS,
    )
    turns = tuple(draw(st.lists(turn, min_size=1, max_size=4)))
    count = len(rungs) if form == "ladder" else draw(st.integers(1, 12))
    if form == "rounds" and on is None and draw(st.booleans()):
        return Rounds(form, count, turns, (), every_s=draw(SECONDS), why=draw(WHYS))
    return Rounds(
        form,
        count,
        turns,
        rungs if form == "ladder" else (),
        on,
        draw(SECONDS | st.none()),
        draw(SECONDS | st.none()),
        why=draw(WHYS),
    )


def is_said(item: Rounds) -> bool:
    """What has no dose of its own behind the same movement with one cannot be said: it stays."""
    return not any(
        moves == before and not bout.has_dose and said.has_dose
        for turn in item.turns
        for (before, said), (moves, bout) in pairwise(turn.alternatives)
    )


def has_reps_to_climb(item: Rounds) -> bool:
    """A hold has none: in a ladder it gives its own time."""
    return item.form != "ladder" or not any(
        not bout.has_dose
        and (
            all(MOVEMENTS[name].isometric for name, _ in moves)
            or all(MOVEMENTS[name].pattern == "carry" for name, _ in moves)
        )
        for turn in item.turns
        for moves, bout in turn.alternatives
    )


ITEMS = LINES | rounds().filter(has_reps_to_climb).filter(is_said) | st.builds(Pause, SECONDS)


def _paused(items: list) -> tuple:
    """A pause stands between two lines, and no two of them in a row."""
    kept: list = []
    for item in items:
        if not isinstance(item, Pause) or (kept and not isinstance(kept[-1], Pause)):
            kept.append(item)
    while kept and isinstance(kept[-1], Pause):
        kept.pop()
    return tuple(kept)


PARTS = st.builds(
    Part,
    st.sampled_from(["warm-up", "main", "finisher", "cool-down"]),
    st.sampled_from(["", "A", "B 2"]),
    st.lists(ITEMS, max_size=4).map(_paused),
    SECONDS | st.none(),
    st.booleans(),
    WHYS,
)
SESSIONS = st.builds(
    WrittenSession,
    st.lists(
        PARTS.filter(lambda part: part.items or part.rest_s is None), min_size=1, max_size=3
    ).map(tuple),
    st.dates(min_value=DAY.replace(year=1950), max_value=DAY.replace(year=2900)),
    st.sampled_from(["", "Legs", "Squat: and press, 2"]),
    why=WHYS,
)


@tried(100)
@given(SESSIONS)
def test_what_is_written_reads_as_it_was(session: WrittenSession) -> None:
    text = write(session, movements=MOVEMENTS)
    reading = read(text, MOVEMENTS)
    assert reading.mistakes == (), text
    assert reading.sessions == (session,), text
    assert write(*reading.sessions, movements=MOVEMENTS) == text


SLOW = {
    "names": ["".join("abcdefghi"[(at * 7 + place) % 9] for place in range(14)) + " 3 × 5"
              for at in range(2000)],
    "blanks": ["main" + " " * 900 + "!"] * 2000,
    "slashes": ["Press-up " + "/".join("1" * 480)] * 2000,
    "brackets": ["Press-up 8 " + "(" * 900] * 2000,
    "then": ["Press-up 8" + ", then 8" * 110] * 2000,
    "plus": ["Press-up " + "8 + " * 220] * 2000,
    "rounds": ["3 rounds:", *["  Press-up " + "8 / " * 200 + "8"] * 1900],
}  # fmt: skip


@pytest.mark.parametrize("name", SLOW)
def test_no_text_holds_the_reader_up(name: str) -> None:
    """As long as a plain text of as many lines takes, and a few times that: never minutes."""
    plain_text = "\n".join(["Back squat 3 × 8 at 20 kg, RPE 8, rest 90 s"] * 2000)
    took = []
    for text in (plain_text, "\n".join(SLOW[name])):
        began = time.process_time()
        read(text, MOVEMENTS)
        took.append(time.process_time() - began)
    assert took[1] < 20 * max(took[0], 0.1), took
