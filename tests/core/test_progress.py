"""Next steps: reps first, then the smallest load of the kit; down after two sessions below."""

from typing import Any, Final

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import audit_draft
from dialback.core.figures import in_total, of_movement
from dialback.core.measures import MEASURES
from dialback.core.progress import Progress, next_steps, taken
from dialback.core.progress.ways import BEYOND_REPS
from tests.build import WEEK, book, movement, restricted, session, sets
from tests.properties import tried

DUMBBELLS: Final = (10, 12.5, 15, 20)
KIT: Final = {
    "dumbbells_kg": list(DUMBBELLS),
    "bars_kg": [20],
    "plates": [{"kg": 1.25, "pairs": 1}, {"kg": 5, "pairs": 4}, {"kg": 20, "pairs": 2}],
    "stacks": [
        {"name": "stack", "movements": ["Row"], "least_kg": 5, "step_kg": 2.5, "top_kg": 60}
    ],
    "bands": ["light", "medium", "strong"],
}
EXERCISES = [
    movement("Press", "horizontal_push", "chest", kit=["bar"]),
    movement("Curl", "elbow_flexion", "biceps", kit=["dumbbells"]),
    movement("Row", "horizontal_pull", "lats"),
    movement("Press-up", "horizontal_push", "chest", bodyweight_share=0.64, harder="Ring press-up",
             easier="Knee press-up"),
    movement("Ring press-up", "horizontal_push", "chest", bodyweight_share=0.7),
    movement("Knee press-up", "horizontal_push", "chest", bodyweight_share=0.5),
    movement("Pull-up", "vertical_pull", "lats", bodyweight_share=1.0),
    movement("Plank", "trunk_brace", "abs", isometric=True),
]  # fmt: skip


def steps(
    planned: list[dict], *done: list[dict], ahead: list[dict] | None = None, **more: Any
) -> tuple[Progress, ...]:
    """Of sets planned, and done on the last Monday (and, second, on the one before that)."""
    days = [session(-7 * (at + 1), one) for at, one in enumerate(done)]
    plans = [session(-7 * (at + 1), planned) for at in range(len(done))]
    ledger = book(
        days, [*plans, session(0, ahead or planned)], **{"exercises": EXERCISES, "kit": KIT} | more
    ).ledger()
    return next_steps(ledger, WEEK, tuple(ledger.source.week("planned", WEEK)))


def step(planned: list[dict], *done: list[dict], **more: Any) -> Progress:
    (only,) = steps(planned, *done, **more)
    return only


def pressed(reps: int, rpe: float | None = 8, load: float = 60, **more: Any) -> list[dict]:
    return sets("Press", 3, reps, load_kg=load, rpe=rpe, **more)


PLAN = sets("Press", 3, 8, load_kg=60, reps_to=12)


class TestUp:
    def test_the_top_of_the_range_at_the_target_earns_the_next_load(self) -> None:
        found = step(PLAN, pressed(12))
        assert (found.course, found.way.kind, found.rule) == ("up", "load", "reps_first")
        assert found.before == "3 × 8–12 reps at 60 kg"
        assert found.way.told == "3 × 8–12 reps at 62.5 kg"
        assert found.because == "All 3 sets of Monday 28 Sep reached 12 reps, at RPE 8 or less."
        assert [way.kind for way in found.ways[1:]] == ["reps", "set", "pause", "lowering"]

    @pytest.mark.parametrize(
        "done",
        [pressed(12)[:2] + pressed(11)[:1], pressed(12, 8.5), pressed(12, 9, 60), pressed(9)],
    )
    def test_as_long_as_it_is_not_reached_nothing_is_proposed(self, done: list[dict]) -> None:
        assert steps(PLAN, done) == ()

    def test_exertion_that_was_not_logged_is_told(self) -> None:
        found = step(PLAN, pressed(12, None))
        assert found.because.endswith("reached 12 reps, exertion not logged throughout.")

    def test_a_step_that_is_too_large_is_not_offered(self) -> None:
        plan = sets("Curl", 2, 8, load_kg=15, implements=2, reps_to=10)
        found = step(plan, sets("Curl", 2, 10, load_kg=15, implements=2, rpe=7))
        assert "20 kg, would be +33.3 %, more than +7.5 % at a time" in found.because
        assert found.way.kind == "reps"
        assert found.way.told == f"2 × 11–{10 + BEYOND_REPS} reps at 2 × 15 kg"
        assert "load" not in {way.kind for way in found.ways}

    def test_a_stack_has_a_top(self) -> None:
        plan = sets("Row", 2, 8, load_kg=60)
        found = step(plan, sets("Row", 2, 8, load_kg=60, rpe=8))
        assert found.because.endswith("The kit has no heavier load for it.")
        assert found.way.kind == "reps"
        assert step(sets("Row", 2, 8, load_kg=57.5), sets("Row", 2, 8, load_kg=57.5)).way.says == (
            "60 kg"
        )

    def test_without_kit_a_step_is_a_usual_one(self) -> None:
        assert step(PLAN, pressed(12), kit=None).way.says == "62.5 kg"
        small = sets("Curl", 2, 8, load_kg=14)
        assert step(small, small, kit=None).way.says == "15 kg"
        pounds = sets("Press", 2, 8, load_kg=61.235, unit="lb")
        assert step(pounds, pounds, kit=None).way.says == "140 lb"

    def test_what_was_done_heavier_than_planned_goes_up_from_there(self) -> None:
        assert step(PLAN, pressed(12, load=65), kit=None).way.says == "67.5 kg"
        # The kit's next is 70 kg, too far: planned as it was done.
        assert step(PLAN, pressed(12, load=62.5)).way.told == "3 × 8–12 reps at 62.5 kg"
        assert step(PLAN, pressed(12, load=60.04)).way.says == "62.5 kg"
        assert steps(PLAN, pressed(12, load=57.5)) == ()

    def test_a_pyramid_moves_step_by_step(self) -> None:
        plan = [*sets("Press", 1, 5, load_kg=50), *sets("Press", 1, 5, load_kg=60)]
        assert step(plan, plan).way.told == "1 × 5 reps at 52.5 kg, 1 × 5 reps at 62.5 kg"

        beyond = next(way for way in step(plan, plan, kit=None).ways if way.kind == "reps")
        assert beyond.told == "1 × 6–8 reps at 50 kg, 1 × 6–8 reps at 60 kg"
        fives = [*sets("Press", 1, 8, load_kg=50), *sets("Press", 1, 5, load_kg=60)]
        found = step(fives, fives, kit=None)
        assert "All" not in found.because
        assert "reached the top of their ranges" in found.because
        more = next(way for way in found.ways if way.kind == "reps")
        assert more.says == "up to 3 reps more"
        assert more.told == "1 × 9–11 reps at 50 kg, 1 × 6–8 reps at 60 kg"

    def test_heavy_and_light_days_go_each_by_their_own_last_one(self) -> None:
        heavy, light = sets("Press", 3, 5, load_kg=80), sets("Press", 2, 12, load_kg=50)
        plans = [
            session(day, sets_) for day, sets_ in ((-7, heavy), (-4, light), (0, heavy), (3, light))
        ]
        days = [session(-7, heavy), session(-4, sets("Press", 2, 10, load_kg=50))]
        ledger = book(days, plans, exercises=EXERCISES).ledger()
        start = tuple(ledger.source.week("planned", WEEK))
        (found,) = next_steps(ledger, WEEK, start)
        assert found.before == "3 × 5 reps at 80 kg"
        after = taken(start, found.way)
        assert [a_set.load_kg for a_set in after[0].sets] == [82.5] * 3
        assert after[1] == start[1]

    def test_one_more_of_sides_logged_apart_is_one_with_each(self) -> None:
        plan = [
            one
            for _ in range(2)
            for side in ("left", "right")
            for one in sets("Row", 1, 8, load_kg=20, sides=side)
        ]
        found = step(plan, plan)
        assert found.before == "2 × 8 reps left and right at 20 kg"
        more = next(way for way in found.ways if way.kind == "set")
        assert more.told == "3 × 8 reps left and right at 20 kg"
        ledger = book([], [session(0, plan)], exercises=EXERCISES).ledger()
        (after,) = taken(tuple(ledger.source.week("planned", WEEK)), more)
        assert [a_set.sides for a_set in after.sets] == ["left", "right"] * 3

    def test_body_weight_goes_by_level(self) -> None:
        plan = sets("Press-up", 3, 12, reps_to=15)
        done = sets("Press-up", 3, 15, rpe=7)
        assert step(plan, done).way.told == "Ring press-up 3 × 8 reps"
        lately = session(-14, sets("Ring press-up", 1, 6))
        days = [session(-7, done), lately]
        ledger = book(days, [session(-7, plan), session(0, plan)], exercises=EXERCISES).ledger()
        (found,) = next_steps(ledger, WEEK, tuple(ledger.source.week("planned", WEEK)))
        assert found.way.told == "Ring press-up 3 × 6 reps"

    def test_bands_help_and_holds(self) -> None:
        band = sets("Row", 2, 15, band="light")
        assert step(band, band).way.told == "2 × 15 reps band medium"
        strong = sets("Row", 2, 15, band="strong")
        assert step(strong, strong).way.kind == "reps"
        helped = sets("Pull-up", 2, 5, load_kg=-10)
        assert step(helped, helped, kit=None).way.says == "9 kg of help"
        held = sets("Plank", 2, None, seconds=40)
        assert step(held, held).way.told == "2 × 45 s"
        long = sets("Plank", 1, None, seconds=120)
        assert step(long, long).way.says == "130 s"

    @pytest.mark.parametrize(
        ("rule", "kind"),
        [
            ("load_first", "load"),
            ("sets", "set"),
            ("density", "rest"),
            ("tempo", "lowering"),
            ("hold", "hold"),
        ],
    )
    def test_another_rule_puts_another_way_first(self, rule: str, kind: str) -> None:
        plan = sets("Press", 3, 8, load_kg=60, rest_s=90)
        found = step(plan, sets("Press", 3, 8, load_kg=60, rpe=8), rules={"progress": rule})
        assert (found.rule, found.way.kind) == (rule, kind)

    def test_load_first_asks_for_the_bottom_alone(self) -> None:
        rules = {"progress": "load_first"}
        assert step(PLAN, pressed(8), rules=rules).way.says == "62.5 kg"
        assert steps(PLAN, pressed(7), rules=rules) == ()

    def test_what_asks_for_nothing_gets_nothing(self) -> None:
        assert steps(PLAN, pressed(12), rules={"progress": None}) == ()
        assert steps(PLAN, pressed(12), rules={"target_rpe": None}) == ()
        # The plan has moved on already; a load in per cent moves with the maximum.
        assert steps(PLAN, pressed(12), ahead=sets("Press", 3, 8, load_kg=65, reps_to=12)) == ()
        by_share = sets("Press", 3, 8, load_kg=60, percent=75)
        assert steps(by_share, pressed(8)) == ()
        # A lighter week keeps its loads.
        usual = [sets("Press", 9, 8, load_kg=60, rpe=8)] * 3
        assert steps(usual[0], *usual, ahead=sets("Press", 3, 8, load_kg=60)) == ()

    def test_a_circuit_gets_no_odd_set(self) -> None:
        rounds = [
            {"exercise": name, "reps": 10, "load_kg": load, "round": number, "place": place}
            for number in (1, 2)
            for place, (name, load) in enumerate((("Row", 57.5), ("Curl", 15)), 1)
        ]
        kinds = {way.kind for found in steps(rounds, rounds) for way in found.ways}
        assert "reps" in kinds
        assert "set" not in kinds

    def test_a_restriction_takes_a_way_away(self) -> None:
        limit = restricted({"about": "movement", "subject": "Press", "most_load_kg": 60})
        assert step(PLAN, pressed(12), athlete=limit).way.kind == "reps"
        level = restricted({"about": "movement", "subject": "Ring press-up"})
        plan = sets("Press-up", 3, 12)
        assert step(plan, plan, athlete=level).way.kind == "reps"


class TestDown:
    @pytest.mark.parametrize("done", [pressed(7), pressed(10, 9.5), pressed(6, None)])
    def test_two_sessions_below_or_at_their_end(self, done: list[dict]) -> None:
        found = step(PLAN, done, done)
        assert (found.course, found.way.kind, found.way.says) == ("down", "load", "52.5 kg")
        assert found.because == (
            "Below 8 reps, or at RPE 9.5 and more, on Monday 21 Sep and Monday 28 Sep."
        )
        assert steps(PLAN, done) == ()
        assert steps(PLAN, done, pressed(9)) == ()
        assert steps(PLAN, done, done, ahead=sets("Press", 3, 8, load_kg=55, reps_to=12)) == ()

    def test_a_session_that_was_cut_short_is_no_failure(self) -> None:
        plan = PLAN + sets("Plank", 2, None, seconds=30)
        whole = pressed(7) + sets("Plank", 2, None, seconds=30)
        assert [one.course for one in steps(plan, whole, whole)][:1] == ["down"]
        assert not [one for one in steps(plan, pressed(7), whole) if one.course == "down"]

    def test_nothing_goes_down_in_a_lighter_week(self) -> None:
        done = sets("Press", 9, 7, load_kg=60, rpe=8)
        plan = sets("Press", 9, 8, load_kg=60, reps_to=12)
        assert steps(plan, done, done, done)
        ahead = sets("Press", 3, 8, load_kg=60, reps_to=12)
        assert steps(plan, done, done, done, ahead=ahead) == ()

    def test_easier_ways_of_what_has_no_load(self) -> None:
        few = step(sets("Press-up", 3, 12), *[sets("Press-up", 3, 8)] * 2)
        assert [way.says for way in few.ways] == ["Knee press-up", "8 reps"]
        held = step(sets("Plank", 2, None, seconds=60), *[sets("Plank", 2, None, seconds=40)] * 2)
        assert held.way.says == "55 s"
        band = step(sets("Row", 2, 15, band="medium"), *[sets("Row", 2, 9, band="medium")] * 2)
        assert band.way.says == "band light"
        helped = step(sets("Pull-up", 2, 8, load_kg=-10), *[sets("Pull-up", 2, 5, load_kg=-10)] * 2)
        assert helped.way.says == "11 kg of help"


DOSES = st.tuples(
    st.sampled_from(("Press", "Curl", "Row", "Press-up", "Plank")),
    st.integers(1, 4),
    st.integers(4, 12),
    st.integers(0, 4),
    st.sampled_from((0, 10, 12.5, 15, 20, 22.5, 30, 55, 60)),
    st.sampled_from((None, 7, 8, 9.5)),
)


RULES = ("reps_first", "load_first", "sets", "density", "tempo", "hold")


def written(
    name: str, count: int, reps: int, reps_to: int | None, load: float, rpe: float | None = None
) -> list[dict]:
    if name == "Plank":
        return sets(name, count, None, seconds=5.0 * reps, rpe=rpe, rest_s=60)
    load = 0 if name == "Press-up" else load
    upper = {} if reps_to is None else {"reps_to": reps_to}
    return sets(name, count, reps, load_kg=load, rpe=rpe, rest_s=60, **upper)


@tried(80)
@given(st.lists(DOSES, min_size=1, max_size=5), st.integers(-3, 5), st.sampled_from(RULES))
def test_whatever_is_taken(
    doses: list[tuple[str, int, int, int, float, float | None]], more: int, rule: str
) -> None:
    """A way changes its movement alone, to loads of the kit, and does what it says it does."""
    plan, done = [], []
    for name, count, low, width, load, rpe in doses:
        plan += written(name, count, low, low + width, load)
        done += written(name, count, max(1, low + more), None, load, rpe)
    days, plans = [session(-7, done), session(-14, done)], [session(-7, plan), session(0, plan)]
    ledger = book(days, plans, exercises=EXERCISES, kit=KIT, rules={"progress": rule}).ledger()
    start = tuple(ledger.source.week("planned", WEEK))
    found = next_steps(ledger, WEEK, start)
    assert found == next_steps(ledger, WEEK, start)
    before = audit_draft(ledger, WEEK, start)
    for progress in found:
        for way in progress.ways:
            after = audit_draft(ledger, WEEK, taken(start, way))
            for measure in MEASURES:
                gain = after.value(in_total(measure)) - before.value(in_total(measure))
                assert gain == pytest.approx(way.effect[measure])
            for name in {name for name, *_ in doses} - {progress.movement}:
                figure = of_movement(name, "volume_load_kg")
                assert after.value(figure) == pytest.approx(before.value(figure))
            if way.kind == "load" and progress.movement == "Curl":
                assert {a_set.load_kg for a_set in way.put.values()} <= {0, *DUMBBELLS}
