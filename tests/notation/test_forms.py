"""Every form of session that coaches write, and what it expands to."""

from datetime import date
from typing import Any

import pytest

from dialback.core.counting import kind_of, measure, shape_of
from dialback.core.movements import MovementTable
from dialback.core.notation import Setting, expand, gather, read, write
from dialback.core.rules import DEFAULT_RULES
from dialback.core.sessions import Session, Set
from dialback.library import library

MOVEMENTS = MovementTable(library())
SETTING = Setting(MOVEMENTS)
DAY = date(2026, 11, 30)


def flat(text: str) -> tuple[Set, ...]:
    reading = read(text, MOVEMENTS)
    assert not reading.mistakes, [str(one) for one in reading.mistakes]
    (session,) = reading.sessions
    # The canonical text is another way to write the same.
    assert read(write(session, movements=MOVEMENTS), MOVEMENTS).sessions == (session,)
    return expand(session, SETTING, DAY).sets


def keys(one: Set, *names: str) -> tuple[Any, ...]:
    values = one.model_dump()
    return tuple(values.get(name) for name in names)


def test_straight_sets() -> None:
    sets = flat("Back squat 5 × 6 at 57.5 kg, rest 140 s")
    assert len(sets) == 5
    assert keys(sets[0], "exercise", "reps", "load_kg", "rest_s") == ("Back squat", 6, 57.5, 140)
    assert len(set(sets)) == 1


def test_rep_range() -> None:
    sets = flat("Bench press 3 × 9–13")
    assert [keys(one, "reps", "reps_to") for one in sets] == [(9, 13)] * 3


def test_pyramid_with_warm_up_sets() -> None:
    sets = flat(
        "Back squat 7 at 35 kg warm-up, then 4 at 55 kg warm-up, then 2 at 75 kg warm-up, "
        "then 4 × 4 at 95 kg"
    )
    assert [keys(one, "reps", "load_kg", "warm_up") for one in sets] == [
        (7, 35, True),
        (4, 55, True),
        (2, 75, True),
        *[(4, 95, False)] * 4,
    ]


def test_superset_by_the_clock() -> None:
    sets = flat("4 rounds, 50 s on, 10 s off, 75 s between rounds:\n  Floor press\n  Inverted row")
    assert [one.exercise for one in sets] == ["Floor press", "Inverted row"] * 4
    assert [keys(one, "seconds", "rest_s", "round", "place") for one in sets[:4]] == [
        (50, 10, 1, 1),
        (50, 75, 1, 2),
        (50, 10, 2, 1),
        (50, 75, 2, 2),
    ]
    assert sets[-1].rest_s is None


def test_circuit_by_reps() -> None:
    names = ["Press-up", "Goblet squat", "Band row", "Crunch", "Glute bridge", "Lateral raise"]
    sets = flat("4 rounds:\n" + "\n".join(f"  {name} 9" for name in names))
    assert len(sets) == 24
    assert sum(one.reps or 0 for one in sets if one.exercise == "Crunch") == 36


def test_circuit_by_time() -> None:
    names = ("Press-up", "Goblet squat", "Band row", "Crunch", "Skipping")
    head = "4 rounds, 35 s on, 25 s off, 90 s between rounds:\n"
    sets = flat(head + "\n".join(f"\t{name}" for name in names))
    assert len(sets) == 20
    assert {one.seconds for one in sets} == {35}
    assert [one.rest_s for one in sets[:6]] == [25, 25, 25, 25, 90, 25]


def test_changing_rounds() -> None:
    harder = "Press-up, knees down 25 s / Press-up 50 s"
    sets = flat(f"2 rounds:\n  {harder}\n  Front plank 25 s / 50 s")
    assert [keys(one, "exercise", "seconds") for one in sets] == [
        ("Press-up, knees down", 25),
        ("Front plank", 25),
        ("Press-up", 50),
        ("Front plank", 50),
    ]


def test_a_name_goes_before_the_notation_in_a_turn() -> None:
    sets = flat("2 rounds:\n  Press-up 9 / Band row 9 / 12")
    assert [one.exercise for one in sets] == ["Press-up", "Band row"]


def test_reps_within_a_time() -> None:
    sets = flat("Press-up 3 × 8 in 40 s each side")
    assert [keys(one, "reps", "seconds", "sides") for one in sets] == [(8, 40, "each")] * 3


def test_ladder() -> None:
    sets = flat("ladder 4, 7, 10:\n  Press-up\n  Inverted row\n  Goblet squat at 12 kg\n  Dead bug")
    assert len(sets) == 12
    assert [one.reps for one in sets[::4]] == [4, 7, 10]


def test_short_intervals() -> None:
    sets = flat("8 bouts, 20 s on, 10 s off:\n  Kettlebell swing at 16 kg\n  Press-up")
    assert [one.exercise for one in sets] == ["Kettlebell swing", "Press-up"] * 4
    assert {one.seconds for one in sets} == {20}


def test_one_set_in_three_ranges() -> None:
    (one,) = flat("Dumbbell curl 6 low half + 6 high half + 6 full at 2 × 8 kg")
    assert keys(one, "reps", "partial_reps", "implements") == (18, 12, 2)


def test_three_style_sequence() -> None:
    sets = flat(
        "Dumbbell curl 40 s at 10 kg, then 40 s tempo 4-0-4-0 at 8 kg, then 25 s half range"
    )
    assert [keys(one, "seconds", "tempo", "load_kg", "range") for one in sets] == [
        (40, None, 10, None),
        (40, "4-0-4-0", 8, None),
        (25, None, 8, "half"),
    ]


def test_hold_at_the_end_and_pause_in_the_rep() -> None:
    (one,) = flat("Dumbbell curl 9, hold 8 s, tempo 3-2-1-0")
    measured = measure(one, shape_of(kind_of(one, DEFAULT_RULES), MOVEMENTS, DEFAULT_RULES, None))
    assert measured.credits["totals/tut_s"] == 9 * 6 + 8


def test_isometric() -> None:
    sets = flat("Front plank 4 × 35 s")
    measured = measure(
        sets[0], shape_of(kind_of(sets[0], DEFAULT_RULES), MOVEMENTS, DEFAULT_RULES, None)
    )
    assert len(sets) == 4
    assert measured.credits["totals/tut_s"] == 35
    assert measured.credits["totals/reps"] == measured.credits["totals/volume_load_kg"] == 0


def test_iso_contrast_has_the_hold_as_a_note() -> None:
    (one,) = flat("Overhead press 8 alternating (hold the other arm up)")
    assert keys(one, "sides", "note") == ("alternating", "hold the other arm up")


def test_negatives() -> None:
    (one,) = flat("Pull-up 4 tempo 5-0-0-0")
    assert one.tempo == "5-0-0-0"


def test_combination() -> None:
    sets = flat("2 Kettlebell swing + Goblet squat + Dumbbell overhead press 3 × 5 at 2 × 12 kg")
    assert len(sets) == 3
    assert sets[0].named_moves() == (
        ("Kettlebell swing", 2),
        ("Goblet squat", 1),
        ("Dumbbell overhead press", 1),
    )


def test_each_side() -> None:
    (one,) = flat("One-arm dumbbell row 11 each side")
    assert keys(one, "reps", "sides") == (11, "each")


def test_rest_pause_and_failure() -> None:
    (one,) = flat("Hammer curl 11 + 5 + 2 at 10 kg")
    assert keys(one, "reps", "rpe", "clusters") == (18, 10, (11, 5, 2))
    assert keys(*flat("Press-up 20 to failure"), "rpe") == (10,)


def test_as_many_as_possible_and_for_time() -> None:
    (one,) = flat("8 min of 5 Pull-up + 10 Press-up + 15 Body-weight squat")
    assert keys(one, "reps", "seconds") == (None, 480)
    assert one.named_moves()[1] == ("Press-up", 10)
    assert keys(*flat("Kettlebell swing 50, for time"), "reps", "for_time") == (50, True)


def test_band_body_weight_assisted() -> None:
    assert keys(*flat("Band row 15, band strong"), "band", "load_kg") == ("strong", 0)
    assert keys(*flat("Pull-up 6 help 15 kg"), "load_kg") == (-15,)
    assert keys(*flat("Press-up 15"), "load_kg") == (0,)


def test_conditioning_in_between_and_parts() -> None:
    text = (
        "warm-up:\nRowing machine, steady 8 min\nBack squat 5 at 40 kg\nmain A:\n"
        "Back squat 3 × 5 at 80 kg\nSkipping 25 s\nrest 3 min\nfinisher:\nPress-up 20\n"
        "cool-down:\nHamstring stretch 60 s"
    )
    sets = flat(text)
    assert [keys(one, "part", "warm_up") for one in sets] == [
        ("warm-up", True),
        ("warm-up", True),
        *[("A", False)] * 4,
        ("finisher", False),
        ("cool-down", False),
    ]
    assert sets[5].rest_s == 180


def test_units_and_writings() -> None:
    (one,) = flat("lat 12 57,5kg rpe8 REST 1:30")
    assert keys(one, "exercise", "load_kg", "rpe", "rest_s") == ("Lat pull-down", 57.5, 8, 90)
    assert keys(*flat("Lateral raise 12"), "exercise") == ("Lateral raise",)
    assert keys(*flat("push-up 12"), "exercise") == ("Press-up",)
    (pounds,) = flat("Dumbbell curl 8 @ 2 x 25 lbs")
    assert keys(pounds, "load_kg", "implements", "unit") == (11.34, 2, "lb")


def test_several_sessions_have_days_and_titles() -> None:
    text = "# mine alone\n2026-11-30 Legs\nBack squat 5\n\n2026-12-02 Arms\r\nDumbbell curl 8\r\n"
    reading = read(text, MOVEMENTS)
    assert [(one.day, one.title) for one in reading.sessions] == [
        (date(2026, 11, 30), "Legs"),
        (date(2026, 12, 2), "Arms"),
    ]
    assert (
        read(write(*reading.sessions, movements=MOVEMENTS), MOVEMENTS).sessions == reading.sessions
    )
    with pytest.raises(ValueError, match="has no day"):
        expand(read("Press-up 9", MOVEMENTS).sessions[0], SETTING)


def test_foreign_keys_of_a_set_do_not_spoil_its_text() -> None:
    odd = {
        "exercise": "Press-up",
        "reps": 8,
        "note": "a (b)\nc",
        "band": "very strong",
        "reps_to": "many",
        "range": 7,
    }
    session = Session.model_validate({"date": "2026-11-30", "sets": [odd]})
    text = write(gather(session, MOVEMENTS), movements=MOVEMENTS)
    assert text == "2026-11-30\nPress-up 8 (a b c)\n"
    assert read(text, MOVEMENTS).mistakes == ()
