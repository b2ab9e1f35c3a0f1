"""The rule that a coach's own judgement asks for: wide enough for what was accepted, no wider."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.learning import Lesson, lesson
from dialback.core.rules import DEFAULT_RULES, merge

ANY_VALUES = st.lists(st.floats(0.01, 30, allow_nan=False), min_size=5, max_size=8)


def learned(code: str, subject: str, measure: str, *values: float | None, **rules: Any) -> Lesson:
    found = lesson(code, subject, measure, values, merge(rules))
    assert found is not None
    return found


@pytest.mark.parametrize(
    ("finding", "values", "chosen", "words"),
    [
        (("balance", "abs_lower_back", "sets"), [3.4, 3.92, 3.5],
         {"balance_bands": {"abs_lower_back": [0.5, 4.0]}}, "set abs : lower back to 0.5–4"),
        (("balance", "push_pull", "sets"), [0.61, 0.55],
         {"balance_bands": {"push_pull": [0.5, 1.1]}}, "set push : pull to 0.5–1.1"),
        (("muscle_floor", "lats", "sets"), [5.5, 6],
         {"muscle_bands": {"lats": [5, 20]}}, "ask for 5 sets of lats a week"),
        (("muscle_ceiling", "front_delts", "sets"), [17.25],
         {"muscle_bands": {"front_delts": [0, 18]}}, "allow 18 sets of front delts a week"),
        (("jump", "total", "sets"), [0.22, 0.31],
         {"jump_limits": {"sets": [0.35, 0.4]}}, "allow the week's sets to rise by +35 %"),
        (("jump", "total", "tut_s"), [0.52],
         {"jump_limits": {"tut_s": [0.55, 0.55]}},
         "allow the week's time under tension to rise by +55 %"),
        (("off_plan", "total", "sets"), [1.13, 0.9],
         {"plan_band": [0.8, 1.15]}, "allow 80 to 115 % of the plan"),
        (("overfull", "", "minutes"), [71.2, 68],
         {"session_minutes": 75}, "allow 75 minutes in a session"),
        (("overfull", "", "movements"), [12],
         {"session_movements": 12}, "allow 12 movements in a session"),
        (("carry_over", "total", "movements"), [0.5, 0.41],
         {"carry_over": 0.4}, "ask for 40 % of the last week's movements"),
        (("monotony", "total", "monotony"), [2.23],
         {"monotony_limit": 2.3}, "allow a monotony of 2.3"),
        (("effort_drift", "total", "rpe"), [0.75],
         {"effort_drift": 1.0}, "tell a rise in RPE from 1 on"),
        (("stalled", "total", "movements"), [None],
         {"stalled_share": None}, "say nothing of lifts that stand still"),
        (("order", "", "sets"), [3], {"order": "any"}, "let movements stand in any order"),
    ],
)  # fmt: skip
def test_what_is_learned(
    finding: tuple[str, str, str], values: list, chosen: dict, words: str
) -> None:
    found = learned(*finding, *values)
    assert (found.chosen, found.words) == (chosen, words)
    # It is a rule that the program takes.
    merge(found.chosen)


@pytest.mark.parametrize(
    ("finding", "values"),
    [
        (("pain", "Press", "sets"), [3, 3, 3, 3, 3]),
        (("restriction", "vertical_push", "sets"), [3, 3, 3, 3, 3]),
        (("missed", "2026-10-05", "sets"), [12] * 5),
        (("swapped", "Press", "sets"), [3] * 5),
        (("return", "total", "sets"), [0.9] * 5),
        (("data_gap", "total", "rpe"), [0.9] * 5),
        (("balance", "push_pull", "sets"), [1.4, None, 1.3, 1.2, 1.5]),
        (("balance", "left_right", "sets"), [1.4] * 5),
        (("jump", "chest", "sets"), [0.5] * 5),
        (("jump", "total", "reps"), [0.5] * 5),
        (("muscle_floor", "lats", "sets"), []),
    ],
)
def test_what_is_not_learned(finding: tuple[str, str, str], values: list) -> None:
    assert lesson(*finding, values, DEFAULT_RULES) is None


@given(ANY_VALUES)
def test_a_band_takes_in_all_that_was_accepted_and_only_widens(values: list[float]) -> None:
    for finding, name, before in (
        (("balance", "push_pull", "sets"), "balance_bands", (0.7, 1.1)),
        (("muscle_ceiling", "chest", "sets"), "muscle_bands", (8, 20)),
        (("muscle_floor", "chest", "sets"), "muscle_bands", (8, 20)),
    ):
        code, subject, _ = finding
        low, high = learned(*finding, *values).chosen[name][subject]
        if code != "muscle_floor":
            assert high >= max(values) - 1e-9
        if code != "muscle_ceiling":
            assert low <= min(values) + 1e-9
        if code == "balance":
            assert low <= before[0]
            assert high >= before[1]
