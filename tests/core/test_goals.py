"""Goals: what a week has to bring, what was gained, and the loads on the way."""

from datetime import timedelta
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.goals import outlook
from dialback.core.kit import loads_for
from dialback.core.maxima import share_at
from dialback.core.sessions import Goal
from tests.build import MONDAY, book, movement, session, sets
from tests.properties import tried

TODAY = MONDAY + timedelta(days=6)
LEVELS = [
    movement("Press-up, knees down", "horizontal_push", "chest", harder="Press-up"),
    movement("Press-up", "horizontal_push", "chest", bodyweight_share=0.64,
             easier="Press-up, knees down"),
    movement("Press", "horizontal_push", "chest", kit=["bar"]),
    movement("Plank", "trunk_brace", "abs", isometric=True),
]  # fmt: skip
KIT = {
    "bars_kg": [20],
    "plates": [
        {"kg": 20, "pairs": 3},
        {"kg": 10, "pairs": 1},
        {"kg": 5, "pairs": 1},
        {"kg": 2.5, "pairs": 1},
        {"kg": 1.25, "pairs": 1},
    ],
}


def logged(loads: list[float], reps: int = 5, **more: Any) -> Any:
    """A book in which each week up to this one has a set of Press with these loads."""
    weeks = [
        session(7 * (at - len(loads) + 1), sets("Press", 1, reps=reps, load_kg=load))
        for at, load in enumerate(loads)
    ]
    return book(weeks, exercises=LEVELS, **more)


def goal(movement: str = "Press", weeks: int = 8, **more: Any) -> Goal:
    dose = {"reps": 5} | more
    by = TODAY + timedelta(weeks=weeks)
    return Goal(movement=movement, since=TODAY, by=by, **dose)


RISING = [80.0, 81.0, 82.0, 83.0, 84.0, 85.0, 86.0, 87.0]
JUMPY = [80.0, 84.0, 79.0, 86.0, 80.0, 87.0, 82.0, 86.0]


@pytest.mark.parametrize(
    ("loads", "wanted", "weeks", "verdict"),
    [
        (RISING, 87, 8, "reached"),
        (RISING, 94, 8, "within reach"),
        (RISING, 95, 8, "within reach"),
        (RISING, 96, 8, "not in time"),
        (JUMPY, 91, 8, "within reach"),
        (JUMPY, 95, 8, "a stretch"),
        (JUMPY, 120, 8, "not in time"),
        (RISING[:3], 90, 8, "unknown"),
        ([], 90, 8, "unknown"),
        (RISING, 120, 0.5, "not in time"),
    ],
)
def test_verdicts(loads: list[float], wanted: float, weeks: float, verdict: str) -> None:
    found = outlook(logged(loads).ledger(), goal(weeks=weeks, load_kg=wanted), TODAY)  # type: ignore[arg-type]
    assert found.verdict == verdict, found.sentence


def test_what_was_gained_is_the_line_through_the_weekly_bests() -> None:
    found = outlook(logged(RISING).ledger(), goal(load_kg=100), TODAY)
    assert found.trend is not None
    # Epley: five reps are 1/6 more than the load, so a kilogram of load is 7/6 of maximum.
    assert found.trend.weekly == pytest.approx(7 / 6)
    assert found.trend.error == pytest.approx(0, abs=1e-9)
    assert found.now == pytest.approx(87 * 7 / 6)
    assert found.needed == pytest.approx((100 - 87) * 7 / 6 / 8)
    # By hand: x 0 to 3, y 10, 12, 11, 13 of maximum; slope 0.8, residuals' squares 1.8.
    jumps = outlook(
        logged([10 * 6 / 7, 12 * 6 / 7, 11 * 6 / 7, 13 * 6 / 7]).ledger(), goal(load_kg=20), TODAY
    )
    assert jumps.trend is not None
    assert jumps.trend.weekly == pytest.approx(0.8)
    assert jumps.trend.error == pytest.approx((1.8 / 2 / 5) ** 0.5)


def test_when_it_can_be_reached_is_said() -> None:
    found = outlook(logged(RISING).ledger(), goal(load_kg=99, weeks=8), TODAY)
    assert found.verdict == "not in time"
    assert found.earliest == TODAY + timedelta(weeks=12)
    assert "At that pace it is reached by Sun 3 Jan 2027." in found.sentence
    still = outlook(logged([80.0] * 8).ledger(), goal(load_kg=99), TODAY)
    assert still.earliest is None
    assert "At that pace it is not reached." in still.sentence
    assert "Gained lately: 0 kg a week, give or take 0 kg." in still.sentence


def test_load_steps_bound_the_way() -> None:
    one = logged([60.0] * 4 + [61.0] * 4)
    found = outlook(one.ledger(), goal(load_kg=100, weeks=3), TODAY)
    assert found.verdict == "not in time"
    assert "do not get there" in found.sentence
    loads = [61.0, *(step.load_kg for step in found.steps)]
    limit = one.rules.load_step[0]
    assert all(b <= a * (1 + limit) + 1e-9 for a, b in pairwise(loads))


def test_a_goal_beyond_the_kit_is_not_in_time() -> None:
    kit = {
        "stacks": [
            {"name": "tower", "least_kg": 10, "step_kg": 5, "top_kg": 90, "movements": ["Press"]}
        ]
    }
    ledger = logged(RISING, kit=kit).ledger()
    beyond = outlook(ledger, goal(load_kg=92), TODAY)
    assert (beyond.verdict, beyond.earliest) == ("not in time", None)
    assert beyond.sentence.endswith("The kit ends at 90 kg for this movement.")
    # A load between two of the kit's is as good as the one below it.
    between = outlook(ledger, goal(load_kg=89), TODAY)
    assert between.verdict == "within reach"
    assert between.steps[-1].load_kg == 85


def test_reps_and_seconds() -> None:
    weeks = [session(7 * (at - 7), sets("Press-up", 1, reps=10 + at)) for at in range(8)]
    weeks += [
        session(7 * (at - 7) + 1, sets("Plank", 1, reps=None, seconds=30.0)) for at in range(8)
    ]
    ledger = book(weeks, exercises=LEVELS).ledger()
    reps = outlook(ledger, goal("Press-up", reps=25), TODAY)
    assert (reps.kind, reps.now, reps.verdict) == ("reps", 17, "within reach")
    assert [step.reps for step in reps.steps] == [18, 19, 20, 21, 22, 23, 24, 25]
    held = outlook(ledger, goal("Plank", reps=None, seconds=60), TODAY)
    assert (held.kind, held.verdict) == ("seconds", "not in time")
    assert "Needs 3.8 s more each week for 8 weeks." in held.sentence


def test_more_reps_than_an_estimate_holds_are_counted_at_the_load() -> None:
    weeks = [session(7 * (at - 7), sets("Press", 1, reps=12 + at, load_kg=40)) for at in range(8)]
    ledger = book(weeks, exercises=LEVELS).ledger()
    found = outlook(ledger, goal(load_kg=40, reps=25), TODAY)
    assert (found.kind, found.now) == ("reps", 19)
    heavier = outlook(ledger, goal(load_kg=50, reps=25), TODAY)
    assert heavier.verdict == "unknown"
    assert "Press at 50 kg or more was not done" in heavier.sentence


def test_a_level_that_is_not_reached_yet() -> None:
    weeks = [session(0, sets("Press-up, knees down", 3, reps=12))]
    found = outlook(book(weeks, exercises=LEVELS).ledger(), goal("Press-up", reps=10), TODAY)
    assert found.verdict == "unknown"
    assert "The level done now is Press-up, knees down, one level below" in found.sentence


@pytest.mark.parametrize(
    ("wrong", "words"),
    [
        ({"seconds": 5.0}, "reps or seconds"),
        ({"reps": None}, "reps or seconds"),
        ({"weeks": -1}, "lies ahead"),
    ],
)
def test_what_is_no_goal(wrong: dict[str, Any], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        goal(**wrong)


@tried(40)
@given(
    st.lists(st.sampled_from((60.0, 62.5, 65.0, 70.0)), min_size=4, max_size=8),
    st.sampled_from((70, 77.5, 85, 100)),
    st.integers(1, 8),
    st.integers(1, 14),
)
def test_the_way_is_made_of_what_there_is(
    loads: list[float], wanted: float, reps: int, weeks: int
) -> None:
    one = logged(loads, kit=KIT)
    ledger = one.ledger()
    found = outlook(ledger, goal(load_kg=wanted, reps=reps, weeks=weeks), TODAY)
    there = loads_for(ledger.kit, ledger.movements["Press"])[1] if ledger.kit else ()
    heaviest = max(loads[-5:])
    assert len(found.steps) in (0, weeks)
    for at, step in enumerate(found.steps, 1):
        assert step.load_kg in there
        above = next((load for load in there if load > heaviest), heaviest)
        assert step.load_kg <= max(heaviest * (1 + ledger.rules.load_step[0]), above) + 1e-9
        heaviest = max(heaviest, step.load_kg)
        assert reps <= (step.reps or 0) <= 12
        # No week asks for more than its share of the way, but for the goal's own reps.
        worth = step.load_kg / share_at(float(step.reps or 1), ledger.rules)
        due = (found.now or 0) + (found.target - (found.now or 0)) * at / weeks
        assert worth <= due + 1e-6 or step.load_kg == there[0]
    if found.verdict == "within reach":
        assert (found.needed or 0) <= (found.trend.weekly if found.trend else 0) + 1e-9
