"""The wave of a block: lighter weeks, a return that begins low, each week on the one before."""

from datetime import timedelta

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from dialback.core.adjusting import (
    NothingToStartFromError,
    Options,
    usually_lighter,
    wave_week,
)
from dialback.core.adjusting.start import WithPlans
from dialback.core.audit import audit_draft
from dialback.core.baseline import is_lighter
from dialback.core.figures import TOTAL_SETS
from tests.build import MONDAY, WEEK, book, session, sets
from tests.properties import tried

OPTIONS = Options(seconds=2.0)


def week_of(at: int, press: int = 6, row: int = 6) -> dict:
    return session(
        7 * at,
        sets("Press", press, load_kg=40),
        sets("Row", row, load_kg=50),
        sets("Squat", 6, load_kg=60),
    )


def proposed(one: object, weeks: int, **shapes: object) -> list:
    ledger, plans, found = one.ledger(), {}, []  # type: ignore[attr-defined]
    for at in range(weeks):
        week = WEEK.plus(at)
        lighter = at in shapes.get("lighter", ())  # type: ignore[operator]
        wave = wave_week(
            ledger, week, plans, OPTIONS, lighter=lighter, ease_in=bool(shapes.get("ease_in"))
        )
        plans[week] = wave.proposal.sessions
        found.append(wave)
    return found


def total(one: object, at: int, wave: object) -> float:
    ledger = one.ledger()  # type: ignore[attr-defined]
    return audit_draft(ledger, WEEK.plus(at), wave.proposal.sessions).value(TOTAL_SETS)  # type: ignore[attr-defined]


def test_a_lighter_week_keeps_its_loads_and_is_not_counted_against() -> None:
    one = book([week_of(at) for at in range(-4, 0)], [week_of(at) for at in range(3)])
    _, second, third = proposed(one, 3, lighter=(1,))
    assert second.shape == "lighter"
    assert is_lighter(one.ledger(), WEEK.plus(1), total(one, 1, second))
    assert {a_set.load_kg for a_set in second.proposal.sessions[0].sets} == {40, 50, 60}
    assert not any(key[0] == "muscle_floor" for key in second.left)
    # The week after it is as it was planned: next to a lighter one it is no jump.
    assert not any(key[0] == "jump" for key in third.before)
    assert total(one, 2, third) >= 18


def test_which_weeks_are_lighter_if_nobody_says() -> None:
    assert usually_lighter([False, True, False, False], in_block=True) == (
        False,
        True,
        False,
        False,
    )
    fourth = (False, False, False, True, False)
    assert usually_lighter([False] * 5, in_block=True) == fourth
    assert usually_lighter([False] * 5, in_block=False) == (False,) * 5


def test_a_week_that_is_light_already_stays() -> None:
    one = book([week_of(at) for at in range(-4, 0)], [week_of(0, press=1, row=1)])
    (first,) = proposed(one, 1, lighter=(0,))
    assert first.shape == "plan"


def test_a_return_begins_at_half_and_rises_within_the_limit() -> None:
    done = [week_of(at) for at in range(-9, -4)]
    one = book(done, [week_of(at) for at in range(3)])
    first, second, third = proposed(one, 3, ease_in=True)
    assert (first.shape, second.shape, third.shape) == ("return", "rise", "rise")
    assert first.pause is not None
    assert first.pause.weeks == 4
    assert total(one, 0, first) == 9
    limit = one.rules.jump_limits["sets"][0]
    assert total(one, 1, second) <= 9 * (1 + limit)
    mean = (total(one, 0, first) + total(one, 1, second)) / 2
    assert total(one, 2, third) <= mean * (1 + limit) + 1e-9
    # Without easing in, the plan is where it begins.
    (plain, *_) = proposed(one, 1)
    assert plain.shape == "plan"


def test_fixed_days_stay_as_they_are() -> None:
    plans = [week_of(0), session(2, sets("Press", 6, load_kg=40))]
    one = book([week_of(at) for at in range(-4, 0)], plans)
    wave = wave_week(one.ledger(), WEEK, {}, OPTIONS, lighter=True, fixed=frozenset({MONDAY}))
    assert wave.proposal.sessions[0].sets == one.planned[0].sets
    assert len(wave.proposal.sessions[1].sets) < 6


def test_weeks_without_a_plan_begin_with_the_one_before_as_it_was_proposed() -> None:
    one = book([week_of(at) for at in range(-4, 0)], [week_of(0, press=9)])
    first, second = proposed(one, 2)
    moved = [session.date - timedelta(days=7) for session in second.plan]
    assert moved == [session.date for session in first.proposal.sessions]
    assert [len(day.sets) for day in second.plan] == [
        len(day.sets) for day in first.proposal.sessions
    ]
    with pytest.raises(NothingToStartFromError):
        proposed(book(), 1)


ADJUSTED = {
    "balance",
    "muscle_floor",
    "muscle_ceiling",
    "jump",
    "spacing",
    "restriction",
    "overfull",
}


# What the second week does with the squats would leave the third one short of glutes.
@example([(1, 1), (3, 2), (1, 7)])
@tried(6)
@given(st.lists(st.tuples(st.integers(1, 7), st.integers(1, 7)), min_size=3, max_size=3))
def test_what_is_said_to_be_left_is_left(plans: list[tuple[int, int]]) -> None:
    done = [week_of(at) for at in range(-4, 0)]
    one = book(done, [week_of(at, press, row) for at, (press, row) in enumerate(plans)])
    ledger, before = one.ledger(), {}
    for at in range(3):
        week = WEEK.plus(at)
        wave = wave_week(ledger, week, before, OPTIONS)
        there = ledger.but(source=WithPlans(ledger.source, dict(before), done=True))
        # Whether a week is lighter is decided by the start: one that is has no floors.
        lighter = audit_draft(there, week, wave.plan).in_hand.lighter
        found = {
            finding.key: finding.level
            for finding in audit_draft(there, week, wave.proposal.sessions).findings
            if finding.code in ADJUSTED
            and finding.level != "note"
            and not (lighter and finding.code == "muscle_floor")
        }
        # Which pairs are judged is decided by the start, too: the ordinary audit finds no more.
        assert found.keys() <= wave.left.keys()
        assert wave.shape == "plan"
        assert wave.left.keys() <= wave.before.keys()
        before[week] = wave.proposal.sessions
