"""What creeps, repeats, stalls over many weeks, and what in a log is doubtful."""

from collections.abc import Callable
from datetime import timedelta
from statistics import median
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import audit
from dialback.core.long_run.codes import SIGNALS, THRESHOLDS
from dialback.core.long_run.signals import signals
from dialback.core.long_run.trend import trend
from dialback.core.long_run.view import Signal
from dialback.core.rules import merge
from dialback.core.verdict import news
from tests.build import MONDAY, WEEK, book, session, sets
from tests.properties import tried

Weeks = Callable[[int], list[dict]]
"""The sessions of the week so many weeks before the audited one."""


def given_in(
    of_week: Weeks, *, weeks: int = 12, plan: Weeks | None = None, at: int = 0, **more: Any
) -> dict[str, Signal]:
    """The signals of a week after so many others, by code."""
    done = [one for back in range(weeks - 1, -1, -1) for one in of_week(back)]
    asked = [one for back in range(weeks - 1, -1, -1) for one in (plan(back) if plan else [])]
    ledger = book(done, asked, **more).ledger()
    return {one.code: one for one in signals(ledger, WEEK.plus(-at))}


def on(back: int, day: int, *parts: list[dict], **more: Any) -> dict:
    return session(day - 7 * back, *parts, **more)


LIFTS = ("Press", "Row", "Squat", "Hinge")


def usual(back: int, count: int = 4, **more: Any) -> list[dict]:
    """A week like the others: four lifts, each on its day."""
    return [
        on(back, day, sets(name, count, 8, load_kg=60, **more)) for day, name in enumerate(LIFTS)
    ]


def test_a_week_like_the_others_gives_no_signal() -> None:
    assert given_in(usual, weeks=8) == {}


class TestTrend:
    @tried(100)
    @given(st.lists(st.integers(-50, 50), min_size=6, max_size=9))
    def test_its_slope_is_the_median_of_all_slopes(self, values: list[int]) -> None:
        points = list(enumerate(map(float, values)))
        found = trend(points)
        assert found is not None
        slopes = [(y1 - y0) / (x1 - x0) for x0, y0 in points for x1, y1 in points if x0 < x1]
        assert found.slope == median(slopes)
        back = trend([(x, -y) for x, y in points])
        assert back is not None
        assert (back.rises, back.falls) == (found.falls, found.rises)

    def test_scatter_is_no_trend_and_a_step_is_no_drift(self) -> None:
        rising = trend([(x, 10 + x + (x % 2)) for x in range(8)])
        assert rising is not None
        assert rising.rises
        assert rising.creeps
        scatter = trend(list(enumerate([10, 14, 9, 13, 10, 15, 9, 12])))
        assert scatter is not None
        assert not scatter.rises
        step = trend(list(enumerate([10, 10.1, 10.2, 10.3, 14, 14.1, 14.2, 14.3])))
        assert step is not None
        assert step.rises
        assert not step.creeps

    def test_a_few_points_say_nothing(self) -> None:
        assert trend([(x, x) for x in range(5)]) is None


class TestDoubts:
    def test_a_load_with_a_nought_too_many(self) -> None:
        def weeks(back: int) -> list[dict]:
            more = sets("Press", 1, 8, load_kg=600) if back == 0 else []
            return [*usual(back), on(back, 5, more)]

        assert given_in(weeks)["doubt_load"].sentence == (
            "Press at 600 kg: the heaviest otherwise was 60 kg."
        )

    def test_reps_with_a_nought_too_many(self) -> None:
        def weeks(back: int) -> list[dict]:
            return [*usual(back), on(back, 5, sets("Row", 1, 80 if back == 0 else 8))]

        assert given_in(weeks)["doubt_reps"].subject == "Row"

    @pytest.mark.parametrize(("factor", "says"), [(2.2046, "2.2 times"), (0.4536, "half")])
    def test_pounds_for_kilograms(self, factor: float, says: str) -> None:
        def weeks(back: int) -> list[dict]:
            kg = 60 * factor if back == 0 else 60
            return [on(back, 1, *(sets(name, 3, 8, load_kg=round(kg)) for name in LIFTS))]

        found = given_in(weeks)["doubt_unit"]
        assert says in found.sentence
        assert found.subject == (MONDAY + timedelta(days=1)).isoformat()

    def test_one_lift_at_twice_its_load_is_not_pounds(self) -> None:
        def weeks(back: int) -> list[dict]:
            parts = [sets(name, 3, 8, load_kg=60) for name in LIFTS[:-1]]
            return [on(back, 1, *parts, sets("Hinge", 3, 8, load_kg=132 if back == 0 else 60))]

        assert "doubt_unit" not in given_in(weeks)

    def test_a_session_logged_twice(self) -> None:
        parts = [sets(name, 3, 8, load_kg=60) for name in LIFTS]

        def weeks(back: int) -> list[dict]:
            return [on(back, day, *parts) for day in ((1, 3) if back == 0 else (1,))]

        assert "doubt_twice" in given_in(weeks, plan=lambda back: [on(back, 1, *parts)])
        # What the plan asks for twice may be done twice.
        both = lambda back: [on(back, day, *parts) for day in (1, 3)]  # noqa: E731
        assert "doubt_twice" not in given_in(weeks, plan=both)

    def test_somebody_elses_session(self) -> None:
        foreign = [sets(name, 3, 8) for name in ("Pull-up", "Press-up", "Curl")]

        def weeks(back: int) -> list[dict]:
            return [*usual(back), *([on(back, 5, *foreign)] if back == 0 else [])]

        assert "9 of its 9 sets" in given_in(weeks)["doubt_stranger"].sentence
        # A week of nothing but new movements is a week away, or a beginning.
        away = lambda back: [on(back, 5, *foreign)] if back == 0 else usual(back)  # noqa: E731
        assert "doubt_stranger" not in given_in(away)


class TestHabits:
    def test_the_second_pain_of_a_movement(self) -> None:
        def weeks(back: int) -> list[dict]:
            pain = [{"exercise": "Squat", "note": "left knee"}] if back in (0, 5) else []
            return [*usual(back)[:-1], on(back, 3, sets("Hinge", 4), pain=pain)]

        found = given_in(weeks)["pain_again"]
        assert (found.subject, found.level, found.since) == ("Squat", "high", WEEK.plus(-5))
        assert "pain_again" not in given_in(weeks, at=5)
        assert "pain_again" not in given_in(weeks, rules={"long_run": {"pain_again": 4}})

    def test_the_same_day_missed(self) -> None:
        missed = {0, 1, 3, 4}

        def weeks(back: int) -> list[dict]:
            return [one for day, one in enumerate(usual(back)) if day != 3 or back not in missed]

        found = given_in(weeks, plan=usual)["missed_day"]
        assert (found.subject, [value for _, value in found.points]) == (
            "Thursday",
            [1, 0, 0, 1, 0, 0],
        )
        assert "missed_day" not in given_in(weeks, plan=usual, at=1)

    def test_a_day_cut_short_is_as_good_as_missed(self) -> None:
        def weeks(back: int) -> list[dict]:
            return [*usual(back)[:-1], on(back, 3, sets("Hinge", 1 if back < 4 else 4, 8))]

        assert given_in(weeks, plan=usual)["missed_day"].subject == "Thursday"

    def test_always_to_failure(self) -> None:
        def weeks(back: int) -> list[dict]:
            return usual(back, rpe=10 if back < 2 else 8)

        assert "to_failure" in given_in(weeks)
        assert "to_failure" not in given_in(weeks, at=1)

    def test_rpe_that_is_no_longer_written(self) -> None:
        def weeks(back: int) -> list[dict]:
            return usual(back, **({} if back < 2 else {"rpe": 8}))

        assert given_in(weeks)["rpe_gone"].since == WEEK.plus(-1)
        assert "rpe_gone" not in given_in(usual)

    def test_no_lighter_week(self) -> None:
        found = given_in(usual, weeks=9)["no_lighter"]
        assert found.sentence == (f"9 weeks without a lighter one, since {WEEK.plus(-8).said}.")
        light = lambda back: usual(back, 2 if back == 4 else 4)  # noqa: E731
        assert "no_lighter" not in given_in(light)
        marked = [{"week": str(WEEK.plus(-4)), "kind": "taper"}]
        assert "no_lighter" not in given_in(usual, kinds=marked)

    def test_a_pattern_that_has_gone(self) -> None:
        def weeks(back: int) -> list[dict]:
            return usual(back)[: 3 if back < 3 else 4]

        found = given_in(weeks)["gone"]
        assert (found.subject, found.since) == ("hinge", WEEK.plus(-2))
        assert "gone" not in given_in(weeks, at=1)
        avoid = {"about": "pattern", "subject": "hinge", "by": "R", "since": "2026-09-01"}
        athlete = {"name": "Ada Test", "bodyweight_kg": 70, "restrictions": [avoid]}
        assert "gone" not in given_in(weeks, athlete=athlete)


class TestTrends:
    def test_sets_that_creep(self) -> None:
        def weeks(back: int) -> list[dict]:
            extra = sets("Curl", 9 - back, 8) if back < 9 else []
            return [*usual(back), on(back, 5, extra)] if extra else usual(back)

        found = given_in(weeks)["creep"]
        assert [value for _, value in found.points] == [*range(16, 26)]
        assert "from 16 in" in found.sentence

    def test_a_step_is_no_creep(self) -> None:
        assert "creep" not in given_in(lambda back: usual(back, 5 if back < 5 else 4))

    def test_a_ratio_that_drifts(self) -> None:
        def weeks(back: int, *, away: bool = True) -> list[dict]:
            gone = 12 - min(back, 12) if away else min(back, 12)
            return [on(back, 1, sets("Press", 9 + gone // 2)), on(back, 3, sets("Row", 9))]

        found = given_in(weeks, weeks=14)["ratio_drift"]
        assert found.subject == "push_pull"
        # On its way back to the middle of the band it is no news.
        back = given_in(lambda back: weeks(back, away=False), weeks=14).get("ratio_drift")
        assert back is None or back.subject != "push_pull"

    def test_sessions_that_take_longer(self) -> None:
        def weeks(back: int) -> list[dict]:
            return [{**one, "duration_min": 90 - 4 * back} for one in usual(back)]

        assert "90 minutes" in given_in(weeks)["longer"].sentence
        assert "longer" not in given_in(lambda back: weeks(0))

    def test_rests_that_shrink_against_the_plan(self) -> None:
        def weeks(back: int) -> list[dict]:
            return usual(back, rest_s=60 if back < 2 else 90)

        assert "33 % shorter" in given_in(weeks)["rests_shorter"].sentence
        # A plan that asks for shorter rests gets them.
        assert "rests_shorter" not in given_in(weeks, plan=weeks)
        assert "rests_shorter" in given_in(weeks, plan=lambda back: usual(back, rest_s=90))
        # Seconds and shares of a plan that began to write rests are not mixed up.
        begun = lambda back: usual(back, **({"rest_s": 90} if back < 2 else {}))  # noqa: E731
        assert "rests_shorter" not in given_in(lambda back: usual(back, rest_s=90), plan=begun)

    def test_a_body_weight_that_falls(self) -> None:
        weighings = [
            {"date": (MONDAY - timedelta(weeks=back)).isoformat(), "kg": 70 + 0.6 * back}
            for back in range(9)
        ]
        athlete = {"name": "Ada Test", "bodyweight_kg": 70, "weighings": weighings}
        found = given_in(usual, athlete=athlete)["body_weight"]
        assert "from 74.8 kg" in found.sentence
        assert "to 70 kg (−6 %)" in found.sentence
        rising = [{**one, "kg": 140 - one["kg"]} for one in weighings]
        assert "body_weight" not in given_in(usual, athlete={**athlete, "weighings": rising})

    def test_tension_that_falls_while_loads_rise(self) -> None:
        def weeks(back: int, kg: float = 60) -> list[dict]:
            tempo = f"{min(5, 1 + back // 2)}-0-1-0"
            return [
                on(back, day, sets(name, 4, 8, load_kg=kg - back, tempo=tempo))
                for day, name in enumerate(LIFTS)
            ]

        assert "tension_falls" in given_in(weeks)
        same = lambda back: weeks(back, 60 + back)  # noqa: E731
        assert "tension_falls" not in given_in(same)

    def test_exertion_that_rises_for_nothing(self) -> None:
        def weeks(back: int, gain: float = 0) -> list[dict]:
            return [
                on(back, day, sets(name, 4, 8, load_kg=60 - gain * back, rpe=9.5 - 0.25 * back))
                for day, name in enumerate(LIFTS)
            ]

        assert "effort_rises" in given_in(weeks, weeks=10)
        # In a block that asks for more from week to week it rises with the loads.
        assert "effort_rises" not in given_in(lambda back: weeks(back, 2), weeks=10)

    def test_sides_that_grow_apart(self) -> None:
        def weeks(back: int) -> list[dict]:
            right = 10 - max(0, 6 - back)
            sided = [*sets("Row", 3, 10, sides="left"), *sets("Row", 3, right, sides="right")]
            return [*usual(back), on(back, 5, sided)]

        assert given_in(weeks)["side_gap_grows"].subject == "left_right"

    def test_one_lift_that_stands_still(self) -> None:
        def weeks(back: int) -> list[dict]:
            return [
                on(back, day, sets(name, 4, 5, load_kg=100 if name == "Row" else 112 - back))
                for day, name in enumerate(LIFTS)
            ]

        assert given_in(weeks)["lift_stands"].subject == "Row"
        # Where all stand still it is no single lift's fault: `stalled` tells it.
        still = lambda back: usual(back)  # noqa: E731
        assert "lift_stands" not in given_in(still)

    def test_plan_and_log_that_move_apart(self) -> None:
        def weeks(back: int) -> list[dict]:
            return [
                on(back, day, sets(name, 10 - max(0, 5 - back), 8))
                for day, name in enumerate(LIFTS)
            ]

        plan = lambda back: usual(back, 10)  # noqa: E731
        assert "50 %" in given_in(weeks, plan=plan)["plan_drift"].sentence


def test_a_signal_is_told_once_and_a_house_can_switch_it_off() -> None:
    ledger = book([one for back in range(11, -1, -1) for one in usual(back)]).ledger()
    told = {
        back: [key for line in news(audit(ledger, WEEK.plus(-back))) for key in line.explains]
        for back in range(4)
    }
    key = ("no_lighter", "total", "sets")
    assert [key in told[back] for back in range(4)] == [False, False, False, True]
    off = book([], rules={"long_run": {"no_lighter": None}})
    assert off.rules.long_run["no_lighter"] is None
    assert given_in(usual, rules={"long_run": {"no_lighter": None}}) == {}


def test_every_signal_has_a_threshold_and_a_line_of_its_own() -> None:
    assert merge({}).long_run == THRESHOLDS
    assert len({one.title for one in SIGNALS}) == len(SIGNALS)
    assert merge({"long_run": {"walks": 3}}).unknown() == ["long_run.walks"]


@tried(30)
@given(
    st.lists(
        st.tuples(st.integers(0, 5), st.integers(0, 5), st.integers(0, 5), st.booleans()),
        min_size=4,
        max_size=13,
    )
)
def test_whatever_was_done_signals_are_of_weeks_up_to_theirs(weeks: list) -> None:
    def of_week(back: int) -> list[dict]:
        a, b, c, rated = weeks[len(weeks) - 1 - back]
        more = {"rpe": 5 + a} if rated else {}
        parts = [sets("Press", a, 8, load_kg=20 * b, **more), sets("Row", b, 3 + c, load_kg=40)]
        return [on(back, 1, *parts)] if a + b else []

    done = [one for back in range(len(weeks) - 1, -1, -1) for one in of_week(back)]
    ledger = book(done).ledger()
    # What comes later is not known yet: the week before the last has the same signals without it.
    cut = book([one for one in done if one["date"] < MONDAY.isoformat()]).ledger()
    assert signals(ledger, WEEK.plus(-1)) == signals(cut, WEEK.plus(-1))
    for one in signals(ledger, WEEK):
        assert one.sentence.endswith(".")
        assert all(week <= WEEK for week, _ in one.points)
