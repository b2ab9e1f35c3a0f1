"""The long line: every value that a week's own sheet has, beside what is allowed."""

from typing import Any

import pytest
from hypothesis import given

from dialback.core.audit import audit
from dialback.core.balance import weigh
from dialback.core.baseline import baseline, baselines
from dialback.core.figures import in_total, of_muscle
from dialback.core.measures import MEASURES
from dialback.core.movements import UnknownMovementError
from dialback.core.season import LENGTHS, Line, Point, Season, movement_line, season
from dialback.core.vocabulary import MUSCLES, PAIRS
from tests.build import MONDAY, WEEK, book, restricted, session, sets
from tests.core.test_properties import RULES, SETS
from tests.properties import tried

TODAY = WEEK.plus(1).monday


def line(found: Season, kind: str, subject: str) -> Line:
    return next(one for one in found.lines if (one.kind, one.subject) == (kind, subject))


def long(completed: list[dict], planned: list[dict] | None = None, **more: Any) -> Season:
    return season(book(completed, planned, **more).ledger(), WEEK, 16)


WEEKLY = [
    session(7 * back, sets("Press", 6), sets("Row", 6), rpe=7, duration_min=40)
    for back in range(-15, 1)
]


@pytest.mark.parametrize("weeks", LENGTHS)
def test_so_many_weeks_up_to_the_last(weeks: int) -> None:
    found = season(book(WEEKLY).ledger(), WEEK, weeks)
    assert [one.week for one in found.weeks] == [WEEK.plus(at) for at in range(1 - weeks, 1)]
    assert {len(one.points) for one in found.lines} == {weeks}


@tried(25)
@given(SETS, SETS, SETS, RULES)
def test_it_says_what_the_weeks_own_sheets_say(
    first: list, second: list, third: list, rules: dict
) -> None:
    days = [session(-14, first), session(-7, second), session(0, third)]
    ledger = book(days, [session(0, second)], rules=rules).ledger()
    found = season(ledger, WEEK, 16)
    for at, week in ((-3, WEEK.plus(-2)), (-2, WEEK.plus(-1)), (-1, WEEK)):
        result = audit(ledger, week)
        if not result.in_hand.has_sets:
            continue
        for name in MEASURES:
            point = line(found, "measure", name).points[at]
            assert point.value == result.value(in_total(name))
            assert point.base == result.change(in_total(name)).base
            assert point.rough == (in_total(name) in result.rough)
        for one in found.lines:
            if one.kind == "muscle":
                assert one.points[at].value == result.value(of_muscle(one.subject, "sets"))
        for pair in PAIRS:
            mine = next((one for one in found.lines if one.subject == pair.name), None)
            measure = ledger.rules.balance_measure
            if mine is not None and measure in pair.measures:
                assert mine.points[at].value == weigh(result.tally, pair, measure).ratio


@tried(15)
@given(SETS, SETS, RULES)
def test_baselines_of_several_weeks_are_those_of_each(
    first: list, second: list, rules: dict
) -> None:
    days = [session(-21, first), session(-14, second), session(0, first)]
    ledger = book(days, rules=rules).ledger()
    weeks = [WEEK.plus(at) for at in range(-5, 3)]
    figures = [in_total("sets"), of_muscle("chest", "sets")]
    for week, base in baselines(ledger, weeks, figures).items():
        alone = baseline(ledger, week)
        assert base.weeks == alone.weeks
        for figure in figures:
            assert base.base(figure) == pytest.approx(alone.base(figure))


@pytest.mark.parametrize(
    ("point", "standing"),
    [
        (Point(5.0, low=4, high=6), "within"),
        (Point(4.0, low=4, high=6), "within"),
        (Point(6 + 1e-12, low=4, high=6), "within"),
        (Point(3.9, low=4, high=6), "below"),
        (Point(6.1, low=4, high=6), "above"),
        (Point(6.1, high=6), "above"),
        (Point(0.0, high=6), "within"),
        (Point(5.0), "none"),
        (Point(None, low=4, high=6), "none"),
        (Point(None, low=4, high=6, one_sided=True), "above"),
        (Point(None, one_sided=True), "none"),
    ],
)
def test_where_a_value_stands(point: Point, standing: str) -> None:
    assert point.standing == standing


def test_weeks_off_lighter_weeks_and_the_way_back() -> None:
    light = session(-7 * 12, sets("Press", 4))
    kept = [one for at, one in enumerate(WEEKLY) if at not in (3, 11, 12, 13)]
    found = long([*kept, light])
    gaps = [at for at, one in enumerate(found.weeks) if one.gap]
    assert gaps == [11, 12, 13]
    assert [at for at, one in enumerate(found.weeks) if one.back] == [14]
    assert [at for at, one in enumerate(found.weeks) if one.lighter] == [3]
    # A week off has no value, and no mark below a floor.
    for one in found.lines:
        assert {one.points[at].value for at in gaps} == {None}
        assert {one.points[at].standing for at in gaps} <= {"none"}


def test_before_the_first_training_and_after_the_last_is_no_gap() -> None:
    found = long(WEEKLY[4:12])
    assert not any(one.gap for one in found.weeks)
    assert [one.trained for one in found.weeks] == [4 <= at < 12 for at in range(16)]


def test_pain_and_restrictions_stand_in_their_weeks() -> None:
    hurt = session(0, sets("Press", 3), pain=[{"exercise": "Press", "note": "elbow"}, {}])
    found = long(
        [*WEEKLY[:-1], hurt], athlete=restricted({"about": "pattern", "subject": "vertical_pull"})
    )
    assert found.weeks[-1].pain == ("Press: elbow", "something hurt")
    assert found.weeks[-1].restrictions == ("no vertical pull",)
    assert not found.weeks[-2].restrictions


def test_the_share_of_the_plan_is_of_weeks_that_have_one() -> None:
    plan = [session(0, sets("Press", 6), sets("Row", 10))]
    points = line(long(WEEKLY, plan), "done", "done").points
    assert points[-1].value == 12 / 16
    assert points[-1].standing == "below"
    assert points[-2].value is None


def test_session_load_and_monotony() -> None:
    found = long(WEEKLY)
    assert line(found, "load", "load").points[-1].value == 280
    assert line(found, "load", "monotony").points[-1].value == pytest.approx(0.408, abs=1e-3)


def test_a_jump_stands_above_what_the_base_allows() -> None:
    last = session(0, sets("Press", 9), sets("Row", 6))
    point = line(long([*WEEKLY[:-1], last]), "measure", "sets").points[-1]
    assert (point.value, point.base) == (15, 12)
    assert point.high == pytest.approx(14.4)
    assert point.standing == "above"


def test_few_sets_give_a_ratio_that_is_not_judged() -> None:
    found = long([session(0, sets("Press", 1), sets("Row", 2))])
    point = line(found, "pair", "push_pull").points[-1]
    assert (point.value, point.standing) == (0.5, "none")


def test_all_on_one_side_stands_above() -> None:
    point = line(long([session(0, sets("Press", 6))]), "pair", "push_pull").points[-1]
    assert (point.value, point.one_sided, point.standing) == (None, True, "above")


def test_left_and_right_have_a_line_where_a_side_was_trained_alone() -> None:
    one_sided = session(0, sets("Press", 4, sides="left"), sets("Press", 2, sides="right"))
    assert line(long([one_sided]), "pair", "left_right").points[-1].value == 2
    assert not any(one.subject == "left_right" for one in long(WEEKLY).lines)


def test_muscles_that_nothing_is_asked_of_are_left_out() -> None:
    shown = {one.subject for one in long(WEEKLY).lines if one.kind == "muscle"}
    assert "calves" in shown, "it has a floor and got nothing"
    assert "rotator_cuff" not in shown
    assert shown < set(MUSCLES)


def test_movements_have_their_heaviest_load_the_most_frequent_first() -> None:
    now = session(
        0, sets("Press", 6, load_kg=50), sets("Row", 6), sets("Plank", 3, None, seconds=40)
    )
    found = long([*WEEKLY[:-1], now])
    names = [one.subject for one in found.lines if one.kind == "movement"]
    assert names == ["Press", "Row", "Plank"]
    press = line(found, "movement", "Press")
    assert press.measure == "load_kg"
    assert press.points[-1].value == 50
    assert line(found, "movement", "Plank").measure == "sets"


def test_a_movements_own_line() -> None:
    days = [
        session(
            -7,
            sets("Press", 2, 8, load_kg=40),
            sets("Press", 1, 6, load_kg=45),
            sets("Press", 1, 5, load_kg=45),
        ),
        session(0, sets("Press", 3, 5, load_kg=47.5), sets("Press", 1, load_kg=20, warm_up=True)),
        session(2, sets("Row", 3)),
    ]
    found = movement_line(book(days).ledger(), "press", WEEK, 16, TODAY)
    assert found.name == "Press"
    assert [(one.day.isoformat(), one.set.total_load_kg, one.set.reps) for one in found.tops] == [
        ("2026-09-28", 45, 6),
        ("2026-10-05", 47.5, 5),
    ]
    assert found.tops[0].maximum_kg == pytest.approx(45 * (1 + 6 / 30))
    assert found.tops[1].maximum_kg == pytest.approx(47.5 * (1 + 5 / 30))


def test_where_it_stood_still_and_where_it_was_ready() -> None:
    work = [*sets("Press", 3, 8, load_kg=40), *sets("Row", 3, 8, load_kg=40)]
    days = [session(7 * back, work) for back in range(-8, 1)]
    plan = [session(0, sets("Press", 3, 6, load_kg=40, reps_to=8))]
    ledger = book(days, plan).ledger()
    found = movement_line(ledger, "Press", WEEK, 16, TODAY)
    assert found.stalled[-1] == WEEK
    assert found.ready == (WEEK,)
    assert WEEK.plus(-8) not in found.stalled
    assert movement_line(ledger, "Row", WEEK, 16, TODAY).ready == ()


def test_a_movement_that_nobody_knows() -> None:
    with pytest.raises(UnknownMovementError, match="did you mean 'Press'"):
        movement_line(book(WEEKLY).ledger(), "Pres", WEEK, 16, TODAY)


def test_what_was_worked_out_once_is_kept() -> None:
    ledger = book(WEEKLY).ledger()
    assert season(ledger, WEEK, 16) is season(ledger, WEEK, 16)
    assert WEEK.monday == MONDAY
