"""What is typed of a planned set: what it says changes, and nothing else."""

from __future__ import annotations

from typing import Any

import pytest

from dialback.core.movements import MovementTable
from dialback.core.notation.amend import amended
from dialback.core.notation.slips import Mistake
from dialback.core.sessions import Set
from dialback.library import library

MOVEMENTS = MovementTable(library())
TIMED = {"exercise": "Goblet squat", "seconds": 40, "load_kg": 20}
PAIR = {"exercise": "Dumbbell bench press", "reps": 8, "load_kg": 12, "implements": 2}


@pytest.mark.parametrize(
    ("planned", "text", "changed"),
    [
        # Reps of a set by the clock: it took its time all the same.
        (TIMED, "12", {"reps": 12}),
        (TIMED, "12 at 16 kg", {"reps": 12, "load_kg": 16}),
        (TIMED, "30 s", {"seconds": 30}),
        (TIMED, "12 in 35 s", {"reps": 12, "seconds": 35}),
        # A load that says of how many implements it is; one that does not is of each.
        (PAIR, "at 1 × 14 kg", {"load_kg": 14, "implements": 1}),
        (PAIR, "1 × 14 kg", {"load_kg": 14, "implements": 1}),
        (PAIR, "at 14 kg", {"load_kg": 14}),
        (PAIR, "7 at 14 kg", {"reps": 7, "load_kg": 14}),
        # A coach's own words are understood here, too.
        (PAIR, "7 leaving 2 in the tank", {"reps": 7, "rpe": 8}),
        (PAIR, "7, rest 2m", {"reps": 7, "rest_s": 120}),
        (PAIR, "14 kg per hand", {"load_kg": 14}),
        (TIMED, "twelve reps", {"reps": 12}),
        # A load changed in the middle: one set in two pieces, the second with what it says.
        (
            PAIR,
            "5 at 14 kg, then 3 at 12 kg RPE 9",
            {
                "rpe": 9,
                "reps": None,
                "load_kg": 0,
                "implements": 1,
                "loads": [
                    {"reps": 5, "seconds": None, "load_kg": 14, "implements": 2},
                    {"reps": 3, "seconds": None, "load_kg": 12, "implements": 2},
                ],
            },
        ),
        (
            PAIR | {"loads": [{"reps": 5}], "reps": None, "load_kg": 0, "implements": 1},
            "8 at 12 kg",
            {"reps": 8, "load_kg": 12, "loads": None},
        ),
        (PAIR | {"implements": 1}, "at 2 × 14 kg", {"load_kg": 14, "implements": 2}),
    ],
)
def test_what_is_said_changes_and_the_rest_stays(
    planned: dict[str, Any], text: str, changed: dict[str, Any]
) -> None:
    found = amended(Set(**planned), text, MOVEMENTS)
    assert isinstance(found, tuple), found
    assert found[0] == Set(**(planned | changed))
    assert found[1] == 1


@pytest.mark.parametrize(
    "text", ["5 at 60 kg, then at 50 kg", "2 x 5, then 3", "5 at 60 kg, then so"]
)
def test_each_piece_of_a_set_says_how_much(text: str) -> None:
    found = amended(Set(exercise="Back squat", reps=8, load_kg=60), text, MOVEMENTS)
    assert isinstance(found, Mistake)


def test_a_load_alone_of_a_set_in_pieces_is_asked_about() -> None:
    planned = Set.model_validate(
        {"exercise": "Back squat", "loads": [{"reps": 5, "load_kg": 60}, {"reps": 3}]}
    )
    found = amended(planned, "at 50 kg", MOVEMENTS)
    assert isinstance(found, Mistake)
    assert "write all of it" in found.message
    kept = amended(planned, "RPE 9", MOVEMENTS)
    assert not isinstance(kept, Mistake)
    assert (kept[0].rpe, kept[0].loads) == (9, planned.loads)


def test_a_slip_in_a_later_piece_points_at_it() -> None:
    text = "5 at 60 kg, then so"
    found = amended(Set(exercise="Back squat", reps=8, load_kg=60), text, MOVEMENTS)
    assert isinstance(found, Mistake)
    assert text[found.column - 1 :].startswith("so")
