"""Maxima, and loads in per cent of them: which maximum, which load of the kit, what is said."""

from datetime import date
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.maxima import Maxima, estimated_maximum
from dialback.core.movements import Movement
from dialback.core.notation import expand, read, write
from dialback.core.rules import Rules, merge
from dialback.core.sessions import Set
from tests.build import book, movement, session, sets

PRESS = Movement(name="Press", pattern="horizontal_push", compound=True)
MONDAY = date(2026, 10, 5)
KIT = {"bars_kg": [20], "plates": [{"kg": 5, "pairs": 4}, {"kg": 2.5, "pairs": 1}]}


def estimate(rules: Rules = Rules(), **keys: Any) -> float | None:  # noqa: B008 - a frozen value
    one = Set.model_validate({"exercise": "Press", "load_kg": 60, **keys})
    return estimated_maximum(one, PRESS, rules, None)


def test_the_two_estimates_and_where_they_end() -> None:
    brzycki = merge({"max_estimate": "brzycki"})
    assert estimate(reps=5) == 60 * (1 + 5 / 30)
    assert estimate(brzycki, reps=5) == 60 * 36 / 32
    # Two in reserve are reps that could have been done.
    assert estimate(reps=5, rpe=8) == 60 * (1 + 7 / 30)
    assert estimate(reps=1) == 60
    assert estimate(reps=12) is not None
    assert estimate(reps=13) is None
    assert estimate(reps=10, rpe=7) is None
    assert estimate(seconds=20) is None
    assert estimate(reps=5, load_kg=0) is None
    assert estimate(merge({"max_estimate": None}), reps=5) is None


@given(st.integers(1, 11), st.floats(1, 300))
def test_one_more_rep_never_lowers_an_estimate(reps: int, load: float) -> None:
    for rules in (Rules(), merge({"max_estimate": "brzycki"})):
        less, more = (estimate(rules, reps=one, load_kg=load) for one in (reps, reps + 1))
        assert less is not None
        assert more is not None
        assert less <= more + 1e-9


def maxima(day: date = date(2026, 11, 2), **athlete: Any) -> Maxima:
    done = [session(0, sets("Press", reps=5, load_kg=60)), session(7, sets("Press", reps=3))]
    barred = [movement("Press", "horizontal_push", "chest", kit=["bar", "bench"])]
    whose = {"name": "Ada", "bodyweight_kg": 70, **athlete}
    made = book(done, athlete=whose, kit=KIT, exercises=barred)
    return Maxima(made.ledger(), day)


def test_the_best_estimate_of_eight_weeks_goes_to_a_load_that_the_kit_has() -> None:
    share = maxima().share("Press", 80)
    # 60 × (1 + 5 ÷ 30) = 70, 80 % are 56: the bar makes 55.
    assert share.kg == 55
    assert "80 % of 70 kg (best estimate, 5 Oct 2026): 55 kg" in share.says
    late = maxima(date(2027, 1, 4)).share("Press", 80)
    assert late.missing == "maximum"


def test_what_was_typed_in_goes_before_an_estimate_and_the_latest_counts() -> None:
    typed = [
        {"movement": "press", "kg": 100, "date": "2026-09-01"},
        {"movement": "Press", "kg": 90, "date": "2026-10-20"},
        {"movement": "Press", "kg": 200, "date": "2026-12-24"},
    ]
    share = maxima(maxima=typed).share("Press", 50)
    assert share.kg == 45
    assert "as of 20 Oct 2026" in share.says


def test_a_share_below_all_that_the_kit_has_says_so() -> None:
    share = maxima().share("Press", 20)
    assert (share.kg, share.missing) == (None, "load")
    assert "nothing at or below 14 kg" in share.says


def test_the_line_is_kept_as_written_and_counts_with_the_load() -> None:
    known = maxima()
    (written,) = read("Press 5 × 3 at 80 %", known.ledger.movements).sessions
    flat = expand(written, known.setting(), MONDAY)
    assert [one.load_kg for one in flat.sets] == [55] * 5
    assert write(written, movements=known.ledger.movements) == "Press 5 × 3 at 80 %\n"
    assert known.missing_in(flat) == []
    unknown = maxima(date(2027, 1, 4))
    assert [one.load_kg for one in expand(written, unknown.setting(), MONDAY).sets] == [0] * 5
    (told,) = unknown.missing_in(flat)
    assert "no maximum of Press is known" in told


@pytest.mark.parametrize("percent", [60, 72.5, 100])
def test_without_kit_the_load_goes_down_to_half_a_kilogram(percent: float) -> None:
    ledger = book([session(0, sets("Press", reps=1, load_kg=63.7))]).ledger()
    kg = Maxima(ledger, date(2026, 11, 2)).share("Press", percent).kg
    assert kg is not None
    assert kg * 2 == int(kg * 2)
    assert 0 <= 63.7 * percent / 100 - kg < 0.5
