"""What is written is read as it is meant, or refused with the remedy: nothing is guessed."""

import re
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.notation import expand, read, write
from dialback.core.notation.messages import CLASSES
from dialback.core.words import describe
from tests.notation.test_forms import DAY, MOVEMENTS, SETTING, flat, keys
from tests.notation.test_mistakes import PAGE, examples
from tests.properties import tried

SQUAT = "Back squat"


@pytest.mark.parametrize(
    ("text", "message"),
    [
        # A time behind a dose is a rest or the time for the reps.
        ("Back squat 5 × 5 at 80 kg, 3 min", "write 'rest 3 min', or 'in 3 min'"),
        ("Back squat 5 × 5, 90 s", "write 'rest 90 s', or 'in 90 s'"),
        ("Front plank 3 × 40 s, 60 s", "write 'rest 60 s', or 'then 60 s'"),
        ("4 rounds, 35 s on:\n  Press-up at 10 kg, 90 s", "the head gives the time already"),
        # A bare number behind a hold, a carry or conditioning.
        ("Front plank 3 × 35", "write how long, '35 s'"),
        ("Wall sit 45", "write how long, '45 s'"),
        ("Farmer's carry 4 × 40", "'40 s' or '40 m'"),
        ("Rack carry 40", "'40 s' or '40 m'"),
        ("Rowing machine, steady 5", "'5 min'"),
        ("Rowing machine, steady 5 m", "metres or minutes?"),
        ("ladder 4, 7:\n  Wall sit", "write its own time"),
        # A number before a cross that may be a load.
        ("Bench press 60 × 5", "'60 kg × 5' for a load, or '60 sets of 5'"),
        ("Bench press 35 × 7, 55 × 4", "'35 kg × 7'"),
        ("Bench press 3 × 100 kg, 5 reps",
         "as in '3 × 5 at 100 kg'; of implements write 'at 3 × 100 kg'"),
        ("Dumbbell curl 2 × 10 kg, 8", "2 sets or 2 implements?"),
        ("Bench press 60 kg × 5 × 3", "which are the sets?"),
        ("Bench press 5 × 2 × 60 kg", "5 sets of 2 with 60 kg, or 5 reps with 2 implements"),
        ("Bench press 5 × 5 80", "80 what? Write '80 kg'"),
        ("Bench press 5 × 5 @ 80", "'at 80 kg'"),
        ("Bench press 5 × 5 at 1,240 kg", "write '1.24' or '1240'"),
        # One thing said in two ways.
        ("Press-up 3 × 12, 3 × 40 s", "write 'then 3 × 40 s'"),
        ("Press-up 3 × 0", "no reps are not a set"),
        ("Press-up 12 RPE 8 to failure", "to failure is RPE 10: write one of the two"),
        ("Dumbbell curl 12 at 22.5 kg each", "'at 2 × 22.5 kg', or 'each side at 22.5 kg'"),
        ("Press-up 10, rest 1.30 min", "write '1:30' or '78 s'"),
        ("Press-up 10, rest 10", "'rest 10 s' or 'rest 10 min'"),
        ("Dumbbell curl 12 both arms", "'each side' or 'both'"),
        ("Press-up 30:30", "30 s on and 30 s off"),
        ("4 rounds, 60 s rest:\n  Press-up 9", "'60 s off' or '60 s between rounds'"),
        ("4 rounds, rest 60 s:\n  Press-up 9", "'60 s off' or '60 s between rounds'"),
        ("Press-up 8/8", "'8, then 8' for two sets, or '8 each side'"),
        ("Split squat 10/8", "'10 left, then 8 right'"),
        ("Split squat 8 + 6", "'8 left, then 6 right'"),
        ("Kettlebell swing + Split squat 8", "'each side', 'alternating' or 'both'"),
        ("Back squat 7 at 35 kg warm-up, then 5", "is this a warm-up set, too?"),
        ("2 rounds:\n  Split squat 8 at 2 × 10 kg / easier 8", "with which load?"),
        ("4 rounds:\n  Press-up 12/10/8", "3 numbers for 4 rounds"),
        ("Press-up 3 × 12/10", "3 sets, and 2 numbers"),
        ("Back squat 12/10/8 at 40/45 kg", "2 loads for 3 sets"),
        ("Bench press 60 kg × 5, 70 kg × 3, RPE 9", "for the last of these sets or for all?"),
        ("Split squat 8 left, 8 right at 10 kg", "for which of these sets?"),
        ("Bench press 3 × 5 +10 kg", "10 kg more than what?"),
        ("3 Back squat 5", "3 what?"),
        ("Back squat 5 × 5 at 80 kg Bench press 5 × 5", "Bench press is another movement"),
        # Structure.
        ("3 rounds:\n  Press-up 9\nCrunch 9\n  Dead bug 9", "no rounds are open above it"),
        ("A1 Bench press 4 × 6\nA2 Inverted row 3 × 8", "A1 has 4, A2 has 3 sets"),
        ("3 sets:\n  Press-up 9", "rounds in turn, or sets of each?"),
        ("Strength:\nPress-up 9", "'main Strength:'"),
        ("every 60 s:\n  Press-up 9", "how many rounds?"),
        ("every 45 s for 10 min:\n  Press-up 9", "not whole rounds"),
        ("2 rounds:\n  Press-up 9\n  rest 60 s\n  Crunch 9", "a rest inside rounds"),
        ("rest 60 s\nPress-up 9", "below the movement that it follows"),
    ],
)  # fmt: skip
def test_what_can_be_read_in_two_ways_is_refused_with_both(text: str, message: str) -> None:
    mistakes = read(text, MOVEMENTS).mistakes
    assert mistakes, f"read as {write(*read(text, MOVEMENTS).sessions, movements=MOVEMENTS)}"
    assert message in mistakes[0].message, mistakes[0].message


@pytest.mark.parametrize(
    ("text", "names", "expected"),
    [
        # What is not given again stays.
        ("2 rounds:\n  Goblet squat 12 at 16 kg tempo 3-1-1 / 10", ("reps", "load_kg", "tempo"),
         [(12, 16, "3-1-1"), (10, 16, "3-1-1")]),
        ("2 rounds:\n  One-arm dumbbell row 8 left at 20 kg / right", ("reps", "load_kg", "sides"),
         [(8, 20, "left"), (8, 20, "right")]),
        ("Back squat 5 at 100 kg, then 3", ("reps", "load_kg"), [(5, 100), (3, 100)]),
        ("One-arm dumbbell row 2 × 8 left at 20 kg, then right", ("reps", "load_kg", "sides"),
         [(8, 20, "left")] * 2 + [(8, 20, "right")] * 2),
        ("Back squat 5 at 100 kg RPE 8, then 3 at 90 kg", ("rpe",), [(8,), (None,)]),
        ("Pull-up 5 at 10 kg, then 8 BW", ("load_kg",), [(10,), (0,)]),
        ("Press-up 8 tempo 4-0-1, then 12 usual tempo", ("tempo",), [("4-0-1",), (None,)]),
        # Sides.
        ("Split squat 3 × 8", ("reps", "sides"), [(8, "each")] * 3),
        ("Split squat 8 both", ("sides",), [("both",)]),
        ("Split squat 8+8", ("reps", "sides"), [(8, "each")]),
        ("Split squat 8/8", ("reps", "sides"), [(8, "each")]),
        ("Side plank 3 × 30 s", ("seconds", "sides"), [(30, "each")] * 3),
        ("Split squat 3 × 8/side", ("reps", "sides"), [(8, "each")] * 3),
        ("Split squat 8 e/s", ("sides",), [("each",)]),
        ("Dumbbell curl 8 per arm", ("sides",), [("each",)]),
        ("Leg press 8 per leg at 60 kg", ("sides",), [("each",)]),
        ("3 rounds:\n  Split squat 8/side", ("reps", "sides"), [(8, "each")] * 3),
        # Load first.
        ("Bench press 60 kg × 5", ("reps", "load_kg"), [(5, 60)]),
        ("Bench press 35 kg × 7, 55 kg × 4 warm-up, then 2 × 4 at 95 kg",
         ("reps", "load_kg", "warm_up"),
         [(7, 35, True), (4, 55, True), (4, 95, False), (4, 95, False)]),
        ("Bench press 60 kg × 5 × 5", ("reps", "load_kg"), [(5, 60)] * 5),
        ("Bench press 5 × 5 × 60 kg", ("reps", "load_kg"), [(5, 60)] * 5),
        # Exertion.
        ("Hammer curl 11 + 5 + 2 at 10 kg RPE 9", ("reps", "rpe"), [(18, 9)]),
        ("Bench press 8 RIR 2", ("rpe",), [(8,)]),
        ("Bench press 8, 2 RIR", ("rpe",), [(8,)]),
        ("Bench press 8 RPE 7–8", ("rpe", "rpe_to"), [(7, 8)]),
        ("Bench press 8 RIR 1-2", ("rpe", "rpe_to"), [(8, 9)]),
        # Sets, reps and lists.
        ("Press-up 3 sets of 8", ("reps",), [(8,)] * 3),
        ("Press-up 8 reps, 3 sets", ("reps",), [(8,)] * 3),
        ("Press-up 8 reps × 3 sets", ("reps",), [(8,)] * 3),
        ("3 × 10 Press-ups", ("reps",), [(10,)] * 3),
        ("Press-up 12/10/8", ("reps",), [(12,), (10,), (8,)]),
        ("Back squat 12/10/8 at 40/45/50 kg", ("reps", "load_kg"), [(12, 40), (10, 45), (8, 50)]),
        ("Back squat 12, 10, 8 at 60 kg", ("reps", "load_kg"), [(12, 60), (10, 60), (8, 60)]),
        ("Back squat 12, 10, 8 at 40, 45, 50 kg", ("reps", "load_kg"),
         [(12, 40), (10, 45), (8, 50)]),
        ("Back squat 3 × 8 at 40/45/50 kg", ("reps", "load_kg"), [(8, 40), (8, 45), (8, 50)]),
        ("3 rounds:\n  Goblet squat 12/10/8 at 12/14/16 kg", ("reps", "load_kg"),
         [(12, 12), (10, 14), (8, 16)]),
        # Loads, rests, distances.
        ("Pull-up 5 +10 kg", ("load_kg",), [(10,)]),
        ("Pull-ups 8 BW", ("exercise", "load_kg"), [("Pull-up", 0)]),
        ("Press-up 3 × 8, 2 min rest", ("rest_s",), [(120,)] * 3),
        ("Press-up 8, rest 1 min 30 s", ("rest_s",), [(90,)]),
        ("Press-up 8, rest 1'30\"", ("rest_s",), [(90,)]),
        ("Farmer's carry 2 × 40 m at 2 × 24 kg", ("distance_m", "reps", "seconds", "load_kg"),
         [(40, None, None, 24)] * 2),
        ("Farmer's carry 40 m in 30 s", ("distance_m", "seconds"), [(40, 30)]),
        ("Front plank 2 × 30 s hold", ("seconds", "hold_s"), [(30, 0)] * 2),
        ("Press-up 10, 5 s hold", ("reps", "hold_s"), [(10, 5)]),
        ("Back squat 5 with 80 kg and 2 min rest", ("load_kg", "rest_s"), [(80, 120)]),
        # Rounds, supersets, the clock.
        ("2 rounds of:\n  10 press-ups\n\n# breathe\n  12 goblet squats at 16 kg",
         ("exercise", "reps"), [("Press-up", 10), ("Goblet squat", 12)] * 2),
        ("main A:\n  2 rounds:\n    Press-up 9\n  Crunch 12", ("exercise", "round"),
         [("Press-up", 1), ("Press-up", 2), ("Crunch", None)]),
        ("A1 Bench press 2 × 6 at 60 kg\nA2: Inverted row 2 × 8",
         ("exercise", "part", "round", "place"),
         [("Bench press", "A", 1, 1), ("Inverted row", "A", 1, 2), ("Bench press", "A", 2, 1),
          ("Inverted row", "A", 2, 2)]),
        ("A: Bench press 6\nB: Inverted row 8", ("exercise", "part"),
         [("Bench press", "A"), ("Inverted row", "B")]),
        ("A:\nBench press 6\nrest 2 min\nInverted row 8", ("exercise", "part", "rest_s"),
         [("Bench press", "A", 120), ("Inverted row", "A", None)]),
        ("every 60 s, 2 rounds:\n  5 Pull-ups\n  8 Press-ups",
         ("exercise", "reps", "rest_s", "every_s"),
         [("Pull-up", 5, None, 60), ("Press-up", 8, 21, 60), ("Pull-up", 5, None, 60),
          ("Press-up", 8, None, 60)]),
        ("every minute for 2 min:\n  Press-up 8", ("reps",), [(8,), (8,)]),
        # Signs that keyboards and word processors make.
        ("Back\u00a0squat\t2\u202f×\u202f5 at 57,5\u00a0kg", ("load_kg",), [(57.5,)] * 2),
        ("Bench press 3 × 9—13, tempo 3\u20111\u20112", ("reps", "reps_to", "tempo"),
         [(9, 13, "3-1-2")] * 3),
        ("Farmer’s carry 40 m (“tall”)", ("note",), [("“tall”",)]),
    ],
)  # fmt: skip
def test_habits_are_understood(
    text: str, names: tuple[str, ...], expected: list[tuple[Any, ...]]
) -> None:
    assert [keys(one, *names) for one in flat(text)] == expected


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("Farmer's carry 40 m at 2 × 24 kg", "40 m, at 2 × 24 kg"),
        ("Farmer's carry 40 m in 30 s", "40 m in 30 s"),
        ("Bench press 8 at 60 kg RPE 7-8", "8 reps, at 60 kg, RPE 7–8"),
        ("Bench press 8 at 80 %", "8 reps, at 80 %, no maximum known"),
    ],
)
def test_what_is_new_is_told_in_words(text: str, told: str) -> None:
    assert describe(flat(text)[0]) == told


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ("Back squat 5 × AMRAP", "'AMRAP' leaves open how much"),
        ("EMOM 10 min", "nothing is done in these rounds"),
        ("every now and then", "write the clock as a head"),
        ("Intervals of press-ups", "8 bouts, 20 s on, 10 s off"),
        ("Superset 3 x", "3 rounds"),
        ("Superset:\n  Press-up 9", "how many rounds?"),
        ("Back squat 8 at 60 kg, drop set", "with then"),
        ("Back squat 3 × 5RM", "'3 at 100 kg, to failure'"),
        ("Back squat 3 × 5, negatives", "tempo 3-1-2-0"),
        ("Back squat 3 × 5 as last time", "'at 82.5 kg'"),
        ("Back squat ~5", "one number"),
        ("Back squat 3 × 5+", "to failure'"),
        ("Back squat 3 × 5 -10 kg", "'at 60 kg', or 'help 10 kg' for help"),
        ("Back squat 5 × 60 %", "as in '3 × 5 at 60 %'"),
        ("Finisher", "'finisher:'"),
        ("Monday", "as in '2026-11-30 Legs'"),
        ("03/11/2026", "2026-11-03 or 2026-03-11"),
        ("30.11. Legs", "of which year?"),
        ("Monday 2026-12-01 Legs", "is a Tuesday, not a Monday"),
        ("Back squat 3 × 5 'tall'", "a note goes in (brackets)"),
        ("Back squat 3 × 5 (tall", "opened and closed on the same line"),
        ("Back squat 3 × 5, 25 s off", "stand in a head"),
        ("Bench press 8-12 × 3", "the sets go first"),
        ("Back squat 3 × 5 stone", "'stone' is not a unit"),
        ("Back squat 3 × 5, tmpo 3-1-2", "Did you mean tempo?"),
        ("Back squat 3 × 5 = 15", "as in '8, then 6'"),
        ("4 rounds, 35 on:\n  Press-up", "35 what?"),
        ("Back squat 3 × 5 rest", "how long?"),
        ("Back squat 3 × 5 at", "how much?"),
        ("2 rounds:\n  Press-up 5, then 3", "a slash goes between"),
    ],
)  # fmt: skip
def test_a_refusal_names_the_nearest_right_thing(text: str, message: str) -> None:
    assert message in read(text, MOVEMENTS).mistakes[0].message


@pytest.mark.parametrize("name", [name for name, _, _ in CLASSES])
def test_every_class_of_refusals_is_told_in_a_sentence(name: str) -> None:
    told = next(message for known, _, message in CLASSES if known == name)
    assert 20 < len(told) < 220
    assert "'" in told or "(brackets)" in told, "it shows what would be right"


ALSO = re.findall(r"^\| `([^`]+)` \| `([^`]+)` \|$", PAGE.partition("## Also understood")[2], re.M)


@pytest.mark.parametrize(("written", "canonical"), ALSO)
def test_the_page_says_how_habits_are_read(written: str, canonical: str) -> None:
    (session,) = read(written, MOVEMENTS).sessions
    assert write(session, movements=MOVEMENTS) == f"{canonical}\n"


def test_the_page_has_habits() -> None:
    assert len(ALSO) > 15


LINES = sorted(
    {
        line
        for text in examples()
        for line in text.split("\n")
        if line.strip() and not line.startswith(("#", "why")) and not line.rstrip().endswith(":")
        and not line.startswith(" ") and "/" not in line and not line[:4].isdigit()
    }
)  # fmt: skip
TOKEN = re.compile(r"\d+(?:[.,:]\d+)*|[A-Za-z'-]+|\([^)]*\)|\S")
NUMBER = re.compile(r"\d+")


@tried(400)
@given(st.data())
def test_what_is_accepted_is_what_the_canonical_text_says_back(data: st.DataObject) -> None:
    """A token taken out, doubled or swapped: what is still read has every number it was given."""
    line = data.draw(st.sampled_from(LINES))
    tokens = TOKEN.findall(line)
    at = data.draw(st.integers(0, len(tokens) - 1))
    match data.draw(st.sampled_from(["out", "double", "swap"])):
        case "out":
            del tokens[at]
        case "double":
            tokens.insert(at, tokens[at])
        case _:
            other = data.draw(st.integers(0, len(tokens) - 1))
            tokens[at], tokens[other] = tokens[other], tokens[at]
    text = " ".join(tokens)
    reading = read(text, MOVEMENTS)
    if reading.mistakes or not reading.sessions:
        return
    canonical = write(*reading.sessions, movements=MOVEMENTS)
    again = read(canonical, MOVEMENTS)
    assert again.sessions == reading.sessions, (text, canonical)
    sets = [expand(session, SETTING, DAY) for session in reading.sessions]
    assert all(session.sets for session in sets)
    said = {int(number) for number in NUMBER.findall(text)}
    told = {int(number) for number in NUMBER.findall(canonical)}
    # 1:30 is told as 90 s, 60 s as 1 min or the other way round; nothing else may get lost.
    lost = said - told - {1, 30, 60, 90, 120, 2, 3, 8}
    assert not lost, (text, canonical)
