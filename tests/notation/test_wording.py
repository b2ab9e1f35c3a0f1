"""How coaches word it: every form in several hands, every rule by example, all advice followed."""

import re
from datetime import date
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.notation import Reading, expand, read, write
from dialback.core.notation.instead import offers_in
from dialback.core.notation.messages import CLASSES
from dialback.core.notation.wording import HEADS, RULES
from dialback.core.tempo import parse_tempo
from tests.notation import test_meaning, test_mistakes
from tests.notation.test_forms import MOVEMENTS, SETTING, flat, keys
from tests.properties import tried

WEDNESDAY = date(2026, 12, 2)
HANDS = [
    tuple(part.replace("\\n", "\n") for part in row.split("  =>  "))
    for row in (Path(__file__).parent / "hands.txt").read_text().splitlines()
    if "  =>  " in row
]


def _read(text: str) -> Reading:
    return read(text, MOVEMENTS, day=WEDNESDAY)


def test_there_are_many_hands() -> None:
    assert len(HANDS) > 300


@pytest.mark.parametrize(("written", "canonical"), HANDS)
def test_every_hand_is_read(written: str, canonical: str) -> None:
    reading = _read(written)
    assert reading.mistakes == ()
    assert write(*reading.sessions, movements=MOVEMENTS) == f"{canonical}\n"
    assert _read(canonical).sessions == reading.sessions, "the canonical text says the same"
    assert all(expand(one, SETTING, WEDNESDAY).sets for one in reading.sessions)


@pytest.mark.parametrize(
    ("example", "means"),
    [(one.example, one.means) for one in (*RULES, *HEADS) if one.example],
)
def test_every_rule_says_what_its_example_means(example: str, means: str) -> None:
    reading = _read(example)
    assert reading.mistakes == ()
    assert reading.sessions == _read(means).sessions


@pytest.mark.parametrize("rule", [one for one in RULES if one.example])
def test_every_rule_is_met_by_its_example(rule) -> None:
    assert rule.pattern.search(rule.example), rule.example


def _examples(test) -> list[str]:
    (mark,) = (one for one in test.pytestmark if one.name == "parametrize")
    return [row[0] for row in mark.args[1]]


ASKED = [
    *_examples(test_meaning.test_what_can_be_read_in_two_ways_is_refused_with_both),
    *_examples(test_meaning.test_a_refusal_names_the_nearest_right_thing),
    *_examples(test_mistakes.test_the_place_is_named),
    "Pull-up 3x5 BW+10",
    "Back squat 5 @ 100 kg, back off 3 x 5 @ 90 %",
    "Back squat 5x5 @8",
    "Back squat 5x5 8/10",
    "Bench press 8 8 7 at 60 kg",
    "Bench press 5-5-5 at 80 kg",
    "Rowing machine, steady 2k",
    "Bench press 3x8 20 kg per side",
    "Dumbbell bench press 3x10 2x20",
    "Back squat 5x5 at 80 kg, 2-3'",
    "Front squat 4x5 at 70 kg, 3 s down",
    "Front squat 4x5 at 70 kg with a 2 s pause",
    "Front squat 4x5 at 70 kg, each rep crisp",
    "Front squat 4x5 at 70 kg, not to failure",
    "Front squat 4x5 at 70 kg rset 90 s",
    "Press-up hands raised 3x10",
    "Lunges 3x10",
    "Rows 3x10",
    "Military press 3x5",
    "Cossack split squat 3x8",
    "3 rounds:\n  Goblet squat 10 at 16 kg / Front squat 8",
    "Back squat 80 x 5, 85 x 5, 90 x 5",
    "Back squat 12/10/8 60/70/80",
    "Kettlebell swing 20/10 x 8",
]


# With the day of the session at hand these two say which day is meant.
SETTLED_BY_THE_DAY = ("Monday", "30.11. Legs")


@pytest.mark.parametrize("text", [text for text in ASKED if text not in SETTLED_BY_THE_DAY])
def test_all_advice_that_is_given_can_be_followed_to_the_letter(text: str) -> None:
    mistakes = _read(text).mistakes
    assert mistakes
    for mistake in mistakes:
        lines = text.split("\n")
        indent = re.match(" *", lines[mistake.line - 1])[0]
        for instead in mistake.instead:
            followed = [*lines]
            followed[mistake.line - 1] = f"{indent}{instead}"
            left = {one.line for one in _read("\n".join(followed)).mistakes}
            assert mistake.line not in left, (mistake.message, instead)
            # Nothing that was written is lost on the way, but for what was not understood.
            marked = slice(mistake.column - 1, mistake.column - 1 + mistake.length)
            line = lines[mistake.line - 1]
            kept = re.findall("[0-9]+", line[: marked.start] + " " + line[marked.stop :])
            assert set(kept) <= set(re.findall("[0-9]+", instead)), (mistake.message, instead)


def test_most_questions_come_with_an_answer() -> None:
    """Nine in ten of those about one line's words; the rest are about what is not there at all."""
    told = [mistake for text in ASKED[-27:] for mistake in _read(text).mistakes]
    assert len(told) >= 27
    assert sum(bool(mistake.instead) for mistake in told) >= 0.9 * len(told)


@pytest.mark.parametrize(
    ("message", "offers"),
    [
        ("8 what? Write '8 kg' for a load, or 'rest 8 s'", ("8 kg", "rest 8 s")),
        ("write a head, as in '3 rounds:', or 'every 60 s:'", ()),
        ("'5' is what? Write 'rest 2-3'' for a rest, as in 'rest 90 s'", ("rest 2-3'",)),
        ("of the body's weight: write '+10 kg'", ("+10 kg",)),
    ],
)
def test_offers_are_told_from_examples(message: str, offers: tuple[str, ...]) -> None:
    assert offers_in(message) == offers


@pytest.mark.parametrize(("name", "message"), [(name, message) for name, _, message in CLASSES])
def test_what_a_class_offers_is_for_its_place(name: str, message: str) -> None:
    for offer in offers_in(message.format("35", "25", text="35")):
        assert _read(f"Pull-up 3 × 5 {offer}").mistakes == (), (name, offer)


# Words that are no remark: they would change how much is done.


@pytest.mark.parametrize(
    "text",
    [
        "Press-up 3 × 10 for two more sets",
        "Press-up 3 × 10 quality reps",
        "Press-up 3 × 10 up to 20",
        "Press-up 3 × 10, rset 90 s",
        "Press-up 3 × 10, each rep slow",
        "Press-up 3 × 10, not to failure",
        "Press-up 3 × 10, no warm-up",
        "Press-up 3 × 10, skip if tired",
        "Press-up 3 × 10, then rest",
        "Back squat 5 × 5 at 80 kg aim for 100 kg",
        "Back squat 5 × 5 at 80 kg or 75 kg",
        "Back squat 5 × 5 at 60 kgg",
        "Back squat 5 × 5 starting at 60 kg",
        "Back squat 5 × 5, squat deep",
    ],
)
def test_what_may_change_how_much_is_asked_about(text: str) -> None:
    assert read(text, MOVEMENTS).mistakes


@pytest.mark.parametrize(
    ("text", "note"),
    [
        ("Back squat 5 × 5 at 80 kg, stay tall, drive up", "stay tall; drive up"),
        ("Back squat 5 × 5 nice and easy at 80 kg", "nice and easy"),
        ("Back squat 5 × 5 at 80 kg with belt (shoes on)", "with belt; shoes on"),
        ("Back squat 5 × 5 at 80 kg, left knee out", "left knee out"),
        ("2 rounds:\n  Press-up 9, chest to floor\n  Crunch 9", "chest to floor"),
    ],
)
def test_coaching_words_become_the_words_of_the_line(text: str, note: str) -> None:
    assert flat(text)[0].note == note


def test_words_that_may_mean_how_much_are_asked_about() -> None:
    """*first* may be the first set."""
    assert read("Back squat, brace first, 5 × 5 at 80 kg", MOVEMENTS).mistakes


# Combinations, hands, holds, spans, shares.


@pytest.mark.parametrize(
    ("text", "names", "expected"),
    [
        ("Dumbbell curl 10 alternating at 2 × 10 kg", ("implements", "held", "load_kg"),
         [(1, 2, 10)]),
        ("Walking lunge 20 alternating at 2 × 12 kg", ("implements", "held"), [(2, None)]),
        ("Goblet squat 30 s hold at 16 kg", ("seconds", "static", "reps", "load_kg"),
         [(30, True, None, 16)]),
        ("Front plank 2 × 30-45 s", ("seconds", "seconds_to"), [(30, 45)] * 2),
        ("Press-up 2 × 8, rest 60-90 s", ("rest_s", "rest_to_s"), [(60, 90)] * 2),
        ("Press-up 2-3 sets of 8", ("reps",), [(8,)] * 2),
        ("2-3 rounds, 30-45 s on, 15 s off:\n  Press-up", ("seconds", "seconds_to", "round"),
         [(30, 45, 1), (30, 45, 2)]),
        ("2 rounds for time:\n  Press-up 5", ("for_time",), [(True,)] * 2),
        ("Goblet squat 8 at 25 % body weight", ("body_percent", "percent", "load_kg"),
         [(25, None, 0)]),
        ("Back squat 5 at 100 kg, then 2 × 5 at 90 % of the set before", ("load_kg",),
         [(100,), (90,), (90,)]),
    ],
)  # fmt: skip
def test_what_is_new_is_in_the_sets(text, names, expected) -> None:
    assert [keys(one, *names) for one in flat(text)] == expected


def test_a_movement_of_a_combination_has_a_load_of_its_own() -> None:
    (one,) = flat("2 Kettlebell swing at 16 kg + Goblet squat + Press-up 5 at 2 × 10 kg")
    assert one.moves is not None
    assert [(move.load_kg, move.implements) for move in one.moves] == [(16, 1), (None, 1), (0, 1)]
    assert (one.load_kg, one.implements) == (10, 2)


def test_what_is_in_the_hand_is_none_of_a_movement_of_the_body() -> None:
    (one,) = flat("Kettlebell swing + Press-up 5 at 16 kg")
    assert one.moves is not None
    assert [move.load_kg for move in one.moves] == [None, 0]


@tried(300)
@given(
    st.sampled_from([written for written, _ in HANDS]),
    st.integers(0, 40),
    st.sampled_from(["out", "double"]),
)
def test_the_canonical_text_says_what_was_read(text: str, at: int, way: str) -> None:
    """A word taken out or doubled: what is still read is what the canonical text says."""
    if "\n" in text or re.search(
        r"ladder|EMOM|E2MOM|[Ee]very|AMRAP|abata|[½¼¾]|lb|[0-9]/[0-9]", text
    ):
        return
    words = text.split(" ")
    at %= len(words)
    words[at : at + 1] = [] if way == "out" else [words[at]] * 2
    reading = _read(" ".join(words))
    if reading.mistakes or not reading.sessions:
        return
    canonical = write(*reading.sessions, movements=MOVEMENTS)
    assert _read(canonical).sessions == reading.sessions, (words, canonical)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("Sun salutation 5", "a session begins with its day"),
        ("Monday", "which Monday?"),
        ("Wed Back squat 5 × 5", "a session begins with its day"),
        ("03/11/2026 Legs", "may be 2026-11-03 or 2026-03-11"),
        ("31.02.2026 Legs", "is not a day of the calendar"),
    ],
)
def test_a_day_that_is_none_or_may_be_two_is_asked_about(text: str, says: str) -> None:
    assert says in read(text, MOVEMENTS).mistakes[0].message


def test_a_label_with_a_point_stays_a_label() -> None:
    assert [one.part for one in flat("a. Press-up 3 × 8\nb. Crunch 3 × 8")] == ["A"] * 3 + ["B"] * 3


DOSES = ("3x8", "3 × 8", "3 sets of 8", "three sets of eight", "8 reps x 3 sets", "8 for 3 sets",
         "3 by 8")  # fmt: skip
LOADS = ("80kg", "at 80 kg", "@80kg", "@ 80 kg", "80 kg (176 lb)", "with 80 kilos")
RESTS = ("rest 90 s", "r90", "R: 90s", "90 s rest", "90s break", "rest 1:30", "rest 90",
         "w/ 90s rest", "rest: 90 s")  # fmt: skip
TEMPOS = ("tempo 3010", "@3010", "tempo 3-0-1-0", "3010 tempo", "3-0-1-0")
EFFORTS = ("RPE 8", "@RPE8", "RIR 2", "2 RIR", "leaving 2 in the tank", "effort 8/10", "RPE 8/10")
WORDS = ("stay tall", "(belt)", "nice and smooth")


@pytest.mark.parametrize("dose", DOSES)
@pytest.mark.parametrize("load", LOADS)
@pytest.mark.parametrize("rest", RESTS)
def test_parts_in_their_usual_order_are_read(dose: str, load: str, rest: str) -> None:
    sets = flat(f"Back squat {dose} {load}, {rest}")
    assert [(one.reps, one.load_kg, one.rest_s) for one in sets] == [(8, 80, 90)] * 3


@tried(400)
@given(st.data())
def test_parts_in_any_order_are_read_as_what_they_are_or_asked_about(data: st.DataObject) -> None:
    """Nothing of a line is taken for something else because of what stands beside it."""
    parts = [data.draw(st.sampled_from(DOSES))]
    given_ = {}
    for key, ways in (
        ("load_kg", LOADS), ("rest_s", RESTS), ("tempo", TEMPOS), ("rpe", EFFORTS), ("note", WORDS),
    ):  # fmt: skip
        if data.draw(st.booleans()):
            given_[key] = data.draw(st.sampled_from(ways))
            parts.append(given_[key])
    parts = data.draw(st.permutations(parts))
    text = "Back squat " + data.draw(st.sampled_from([", ", " ", " - "])).join(parts)
    reading = read(text, MOVEMENTS)
    if reading.mistakes:
        return
    (session,) = reading.sessions
    found = expand(session, SETTING, WEDNESDAY).sets
    assert [one.reps for one in found] == [8, 8, 8], text
    for one in found:
        assert (one.load_kg, one.rest_s, one.rpe) == (
            80.0 * ("load_kg" in given_),
            90.0 if "rest_s" in given_ else None,
            8.0 if "rpe" in given_ else None,
        ), text
        tempo = "3-0-1-0" if "tempo" in given_ else None
        assert (one.tempo and parse_tempo(one.tempo)) == (tempo and parse_tempo(tempo)), text
        assert bool(one.note) == ("note" in given_), text
