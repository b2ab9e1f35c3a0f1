"""What the room has, and which loads can be made of it."""

from typing import Any

import pytest
from pydantic import ValidationError

from dialback.core.kit import Kit, NoBand, NoKit, Unmade, check, loads_for, sentence, together
from dialback.core.notation import Change, read, says_unmoved, stepped, unmoved, write
from dialback.core.notation.values import loads_in
from dialback.core.sessions import Set
from dialback.core.tempo import slower
from dialback.demo.boards import BOARDS, ROOM
from tests.notation.test_forms import MOVEMENTS

KIT = Kit.model_validate(ROOM)


def checked(**fields: Any) -> Unmade | NoBand | None:
    return check(Set.model_validate({"reps": 8, **fields}), KIT, MOVEMENTS)


def test_dumbbells_bars_stacks_and_bands() -> None:
    assert checked(exercise="Goblet squat", load_kg=14) is None
    found = checked(exercise="Goblet squat", load_kg=13)
    assert found == Unmade("Goblet squat", "dumbbells", 13, 12, 14)
    assert sentence(found, "kg") == (
        "13 kg cannot be made of the dumbbells: take 12 kg (−7.7 %) or 14 kg (+7.7 %)"
    )
    assert checked(exercise="Back squat", load_kg=57.5) is None
    bar = checked(exercise="Back squat", load_kg=58)
    assert isinstance(bar, Unmade)
    assert (bar.below_kg, bar.above_kg) == (57.5, 60)
    top = checked(exercise="Leg press", load_kg=300)
    assert isinstance(top, Unmade)
    assert (top.source, top.below_kg, top.above_kg) == ("leg press", 220, None)
    least = checked(exercise="Seated cable row", load_kg=2)
    assert isinstance(least, Unmade)
    assert (least.below_kg, least.above_kg) == (None, 5)
    assert checked(exercise="Band row", band="strong") is None
    none = checked(exercise="Band row", band="Huge")
    assert none == NoBand("Huge", ("light", "medium", "strong"))
    assert "the room has light, medium, strong" in sentence(none, "kg")


def test_the_smallest_plates_are_few() -> None:
    few = Kit.model_validate(
        {"bars_kg": [20], "plates": [{"kg": 10, "pairs": 2}, {"kg": 1.25, "pairs": 1}]}
    )
    assert loads_for(few, MOVEMENTS["Back squat"])[1] == (20, 22.5, 40, 42.5, 60, 62.5)


def test_a_movement_that_the_room_has_nothing_for() -> None:
    bars = Kit.model_validate({"bars_kg": [20], "plates": [{"kg": 10, "pairs": 4}]})
    a_set = Set(exercise="Goblet squat", reps=5, load_kg=12)
    found = check(a_set, bars, MOVEMENTS)
    assert isinstance(found, NoKit)
    assert sentence(found, "kg") == (
        f"Goblet squat needs {' or '.join(found.needs)}, which the kit does not have: take another "
        "movement, or add it in Kit"
    )
    assert set(found.needs) <= {"dumbbell", "dumbbells", "kettlebell", "kettlebells"}
    # Without a load it is as little there.
    assert check(Set(exercise="Goblet squat", reps=5), bars, MOVEMENTS) == found
    assert check(Set(exercise="Pull-up", reps=5), bars, MOVEMENTS) is None


def test_what_is_not_known_is_not_checked() -> None:
    assert checked(exercise="Pull-up", load_kg=13) is None
    assert checked(exercise="Pull-up", load_kg=-13) is None
    assert checked(exercise="Machine row", load_kg=13) is None
    assert check(Set(exercise="Goblet squat", reps=5, load_kg=13), Kit(), MOVEMENTS) is None
    # A pair in pounds is within a few grams of what it is called in kilograms.
    assert checked(exercise="Goblet squat", load_kg=11.36) is None


def test_combinations_are_checked_by_a_move_that_has_a_load() -> None:
    moves = [{"exercise": "Press-up"}, {"exercise": "Goblet squat"}]
    assert isinstance(checked(moves=moves, load_kg=13), Unmade)


def test_a_stack_goes_up() -> None:
    with pytest.raises(ValidationError, match="ends below"):
        Kit.model_validate(
            {"stacks": [{"name": "leg press", "least_kg": 50, "step_kg": 5, "top_kg": 20}]}
        )


def test_loads_are_found_where_they_are_written() -> None:
    line = "Pull-up 3 × 6 help 15 kg, then 5 at 2 × 12,5 kg, then 8 at 45 lb"
    found = loads_in(line)
    assert [line[one.at : one.at + one.length] for one in found] == [
        "help 15 kg",
        "2 × 12,5 kg",
        "45 lb",
    ]
    assert [one.load.kg for one in found] == [-15, 12.5, 20.412]


def test_a_step_goes_to_a_load_that_the_room_has() -> None:
    (written,) = read("Goblet squat 3 × 8 at 14 kg\nBack squat 5 at 57.5 kg", MOVEMENTS).sessions
    more = write(stepped(written, Change(load=0.1), MOVEMENTS, KIT), movements=MOVEMENTS)
    assert more == "Goblet squat 3 × 8 at 16 kg\nBack squat 5 at 62.5 kg\n"
    more = write(stepped(written, Change(load=0.1), MOVEMENTS), movements=MOVEMENTS)
    assert "15.5 kg" in more


def test_a_step_of_tempo_slows_the_lowering() -> None:
    text = "Back squat 5\nBench press 5, tempo 30X1\nFront plank 30 s\nPress-up + Inverted row 5"
    (written,) = read(text, MOVEMENTS).sessions
    slow = write(stepped(written, Change(tempo_s=1), MOVEMENTS), movements=MOVEMENTS)
    assert slow.splitlines() == [
        f"Back squat 5, tempo {slower(MOVEMENTS['Back squat'].tempo or '', 1)}",
        "Bench press 5, tempo 4-0-X-1",
        "Front plank 30 s",
        "Press-up + Inverted row 5",
    ]
    assert slower("2-0-1-0", -5) == "0-0-1-0"
    assert slower("2.5-1-1", 0.5) == "3-1-1"


def test_the_clubs_boards_are_understood_and_can_be_loaded() -> None:
    forms = set()
    for name, (_, text) in BOARDS.items():
        reading = read(text, MOVEMENTS)
        assert reading.mistakes == (), name
        forms |= {word for word in FORMS if word in text}
    assert forms == set(FORMS)


FORMS = (
    "5 × 6", "9–13", "warm-up, then", "75 s between rounds", "35 s on", "harder 50 s",
    "ladder 4, 7, 10", "8 bouts", "low half +", "tempo 4-0-4-0", "hold 8 s", "3-2-1-0",
    "Front plank 4 ×", "hold the other arm up", "5-0-0-0", "2 Kettlebell swing + Goblet squat",
    "11 each side", "11 + 5 + 2", "to failure", "8 min of", "help 15 kg", "band strong",
    "Skipping", "cool-down:",
)  # fmt: skip
"""Each form of the notation as it stands on one of the boards."""


def test_kits_together_have_each_thing_once() -> None:
    other = Kit.model_validate(
        {
            "dumbbells_kg": [2, 999],
            "bars_kg": [20],
            "plates": [{"kg": KIT.plates[0].kg, "pairs": 49}, {"kg": 0.3, "pairs": 2}],
            "bands": [KIT.bands[0], "ribbon"],
        }
    )
    both = together([KIT, other])
    assert both.dumbbells_kg == tuple(sorted({*KIT.dumbbells_kg, 2, 999}))
    assert both.bands == (*KIT.bands, "ribbon")
    # Of what both have the first one's number stands.
    assert {plate.kg: plate.pairs for plate in both.plates} == (
        {0.3: 2} | {plate.kg: plate.pairs for plate in KIT.plates}
    )
    assert both.stacks == KIT.stacks


def stays(text: str, share: float, weeks: int, kit: Kit | None = KIT) -> str:
    (written,) = read(text, MOVEMENTS).sessions
    found = unmoved(written, Change(load=share), weeks, MOVEMENTS, kit)
    return says_unmoved(found, share, weeks, "kg")


def test_a_step_that_the_kit_cannot_make_is_said_with_another_way() -> None:
    text = "Goblet squat 3 x 8 at 12 kg\nBack squat 5 x 5 at 80 kg\nGoblet squat 1 x 8 at 12 kg"
    assert stays(text, 0.025, 3) == (
        "+2.5 % a week does not reach the next load in the kit in 3 weeks: Goblet squat (12 kg, "
        "then 14 kg). These stay: add a rep a week, or a set."
    )
    # From the fourth week on the nearest is the next one.
    assert stays(text, 0.025, 4) == ""
    assert stays("Goblet squat 3 x 8 at 12 kg\nLeg press 3 x 8 at 220 kg", 0.05, 1) == (
        "+5 % a week does not reach the next load in the kit in a week: Goblet squat (12 kg, then "
        "14 kg). The kit has nothing heavier for Leg press (220 kg). These stay: add a rep a week, "
        "or a set."
    )
    # Once every four weeks is a way where all of them get there by it.
    slow = "These stay: add a rep a week, or a set, or go up every 4 weeks."
    assert stays("Goblet squat 3 x 8 at 12 kg", 0.05, 1).endswith(slow)
    assert slow not in stays("Goblet squat 3 x 8 at 12 kg\nLateral raise 3 x 8 at 4 kg", 0.05, 1)


def test_nothing_is_said_of_what_does_not_rise_or_is_not_known() -> None:
    text = "Goblet squat 3 x 8 at 12 kg"
    assert stays(text, 0.0, 3) == stays(text, -0.025, 3) == ""
    assert stays(text, 0.025, 3, None) == stays(text, 0.025, 3, Kit()) == ""
    assert stays("Pull-up 3 x 5 help 18 kg\nBand row 3 x 12 strong", 0.025, 3) == ""
