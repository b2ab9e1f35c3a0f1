"""The later findings and the noise rules, by small worked examples."""

import pytest

from dialback.core.audit import audit
from dialback.core.rules import Rules
from dialback.core.weeks import Week
from tests.build import WEEK, audited, book, codes, session, sets

NO_FLOORS = {"muscle_bands": {muscle: [0, 100] for muscle in Rules().muscle_bands}}


def squats(week: int, count: int, **more: object) -> dict:
    """A session of squats so many weeks from the audited one."""
    return session(7 * week, sets("Squat", count, **more))


class TestLighterWeeks:
    def test_a_lighter_week_is_left_out_of_the_baseline(self) -> None:
        weeks = [squats(-4, 10), squats(-3, 10), squats(-2, 10), squats(-1, 5)]
        result = audited(*weeks, squats(0, 12))
        assert [str(one) for one in result.baseline.weeks] == ["2026-W37", "2026-W38", "2026-W39"]
        assert result.baseline.base("totals/sets") == 10
        assert not codes(result, "jump")
        off = audited(*weeks, squats(0, 12), rules={"lighter_share": None})
        assert off.baseline.base("totals/sets") == 8.75
        assert ("jump", "total", "sets", "caution") in codes(off, "jump")

    def test_two_weeks_are_needed_to_tell_and_all_lighter_ones_count_after_all(self) -> None:
        assert audited(squats(-2, 10), squats(-1, 5), squats(0, 5)).baseline.base(
            "totals/sets"
        ) == pytest.approx(7.5)
        far = [squats(-back, 20) for back in (8, 7, 6, 5)]
        only = audited(*far, squats(-2, 8), squats(0, 8))
        assert [str(one) for one in only.baseline.weeks] == ["2026-W39"]

    def test_it_has_no_floors_if_the_plan_is_lighter_or_there_is_none(self) -> None:
        before = [squats(-back, 10) for back in (3, 2, 1)]
        light = sets("Squat", 5)
        assert not codes(audited(*before, session(0, light)), "muscle_floor")
        meant = audited(*before, session(0, light), planned=[session(0, light)])
        assert not codes(meant, "muscle_floor")
        missed = audited(*before, session(0, light), planned=[session(0, sets("Squat", 10))])
        assert codes(missed, "muscle_floor")
        ledger = book(before, [session(0, light)]).ledger()
        assert not codes(audit(ledger, WEEK, "planned"), "muscle_floor")


class TestJumpsThatAreNone:
    def test_few_sets_are_a_caution_at_most_and_keep_their_limit(self) -> None:
        result = audited(
            squats(-1, 9), session(0, sets("Squat", 9), sets("Hinge", 3)), rules=NO_FLOORS
        )
        (jump,) = [one for one in result.findings if one.key == ("jump", "glutes", "sets")]
        assert (jump.level, jump.limit) == ("caution", 0.2)
        small = audited(squats(-1, 5), squats(0, 8), rules=NO_FLOORS)
        (jump,) = [one for one in small.findings if one.key == ("jump", "quads", "sets")]
        assert (jump.level, jump.limit) == ("caution", 0.4)
        off = audited(squats(-1, 5), squats(0, 8), rules={**NO_FLOORS, "jump_high_sets": None})
        assert ("jump", "quads", "sets", "high") in codes(off, "jump")

    def test_from_below_the_floor_to_the_middle_is_a_note(self) -> None:
        note = audited(squats(-1, 7), squats(0, 14))
        assert ("jump", "quads", "sets", "note") in codes(note, "jump")
        beyond = audited(squats(-1, 7), squats(0, 15))
        assert ("jump", "quads", "sets", "high") in codes(beyond, "jump")
        off = audited(squats(-1, 7), squats(0, 14), rules={"jump_from_below": False})
        assert ("jump", "quads", "sets", "high") in codes(off, "jump")

    def test_a_muscle_from_nothing_is_told_from_four_sets_on(self) -> None:
        before = session(-7, sets("Press", 8))
        new = audited(before, session(0, sets("Press", 8), sets("Squat", 4)), rules=NO_FLOORS)
        (jump,) = [one for one in new.findings if one.key == ("jump", "quads", "sets")]
        assert (jump.level, jump.value, jump.limit) == ("caution", None, None)
        few = audited(before, session(0, sets("Press", 8), sets("Squat", 3)), rules=NO_FLOORS)
        assert ("jump", "quads", "sets") not in {one.key for one in few.findings}
        assert not codes(audited(session(0, sets("Squat", 4))), "jump")

    @pytest.mark.parametrize(("load", "level"), [(12.5, "note"), (15, "high"), (10.5, None)])
    def test_the_next_load_of_the_kit_is_a_note(self, load: float, level: str | None) -> None:
        kit = {"dumbbells_kg": [8, 10, 12.5, 15]}
        movements = [{"name": "Row", "pattern": "horizontal_pull", "kit": ["dumbbells"]}]
        weeks = [
            session(-7, sets("Row", 1, load_kg=10, implements=2)),
            session(0, sets("Row", 1, load_kg=load, implements=2)),
        ]
        result = audited(*weeks, exercises=movements, kit=kit)
        wanted = {("load_step", "Row", "load_kg", level)} if level else set()
        assert codes(result, "load_step") == wanted
        if level == "note":
            off = audited(*weeks, exercises=movements, kit=kit, rules={"kit_step_note": False})
            assert codes(off, "load_step") == {("load_step", "Row", "load_kg", "high")}


class TestSides:
    def gap(self, *several: list[dict], **rules: object) -> set:
        return codes(audited(session(0, *several), rules=rules), "side_gap")

    def test_the_larger_gap_of_reps_and_load_is_told(self) -> None:
        left, right = (sets("Curl", 1, 10, sides=side, load_kg=10) for side in ("left", "right"))
        assert self.gap(left, right) == set()
        fewer = sets("Curl", 1, 8, sides="right", load_kg=10)
        assert self.gap(left, fewer) == {("side_gap", "Curl", "reps", "caution")}
        lighter = sets("Curl", 1, 10, sides="right", load_kg=7)
        assert self.gap(left, lighter) == {("side_gap", "Curl", "volume_load_kg", "high")}
        assert self.gap(left, lighter, side_gap=None) == set()

    def test_sets_of_both_at_once_and_of_movements_without_sides_are_left_out(self) -> None:
        left = sets("Curl", 1, 10, sides="left", load_kg=10)
        each = sets("Curl", 2, 10, sides="each", load_kg=10)
        assert self.gap(left, each) == {("side_gap", "Curl", "reps", "high")}
        assert self.gap(each) == set()

    def test_a_band_for_left_and_right_raises_balance(self) -> None:
        rules = {"balance_bands": {"left_right": [0.9, 1.1], "upper_lower": [0.5, 2]}}
        week = [sets("Curl", 6, 10, sides="left", load_kg=5)]
        found = codes(audited(session(0, *week), rules=rules), "balance")
        names = {(one[1], one[3]) for one in found}
        assert ("left_right", "high") not in names  # three sets are too few
        week = [sets("Curl", 8, 10, sides="left", load_kg=5)]
        found = codes(audited(session(0, *week), rules=rules), "balance")
        assert {("left_right", "high"), ("upper_lower", "high")} <= {
            (one[1], one[3]) for one in found
        }
        assert codes(audited(session(0, *week)), "balance") >= {
            ("balance", "push_pull", "sets", "high")
        }


class TestSessions:
    def test_the_small_muscle_first(self) -> None:
        early = session(0, sets("Curl", 2), sets("Row", 3), sets("Curl", 1))
        assert codes(audited(early), "order") == {("order", "2026-10-05", "sets", "caution")}
        (found,) = [one for one in audited(early).findings if one.code == "order"]
        assert (found.value, found.limit) == (2, 0)
        assert not codes(audited(early, rules={"order": "any"}), "order")
        marked = session(0, sets("Curl", 2, part="B", pre_exhaust=True), sets("Row", 3))
        assert not codes(audited(marked), "order")
        assert not codes(
            audited(session(0, sets("Row", 1), sets("Curl", 2), sets("Row", 2))), "order"
        )

    def test_heavy_without_a_warm_up(self) -> None:
        before = session(-7, sets("Squat", 1, 5, load_kg=90, rpe=10))  # maximum 105 kg
        heavy = sets("Squat", 3, 5, load_kg=84)
        assert codes(audited(before, session(0, heavy)), "no_warm_up") == {
            ("no_warm_up", "Squat", "load_kg", "caution")
        }
        warm = sets("Squat", 1, 5, load_kg=40, warm_up=True)
        assert not codes(audited(before, session(0, warm, heavy)), "no_warm_up")
        assert codes(audited(before, session(0, heavy, warm)), "no_warm_up")
        light = sets("Squat", 3, 5, load_kg=83)
        assert not codes(audited(before, session(0, light)), "no_warm_up")
        assert not codes(audited(session(-63, *[heavy]), session(0, heavy)), "no_warm_up")
        # Another movement for the same muscles warms up, too; the body alone is no heavy set.
        lunge = session(0, sets("Wall sit", 1, None, seconds=30), heavy)
        assert not codes(audited(before, lunge), "no_warm_up")
        heavy_body = [session(day, sets("Pull-up", 1, 5)) for day in (-7, 0)]
        assert not codes(audited(*heavy_body), "no_warm_up")
        # A best of the week itself counts from the day after it.
        later = audited(session(0, heavy), session(2, heavy))
        assert codes(later, "no_warm_up")

    def test_too_long_and_too_much(self) -> None:
        rules = {"session_minutes": 50, "session_movements": 2}
        day = session(0, sets("Squat", 1), sets("Row", 1), sets("Curl", 1), duration_min=63)
        assert codes(audited(day, rules=rules), "overfull") == {
            ("overfull", "2026-10-05", "minutes", "high"),
            ("overfull", "2026-10-05", "movements", "high"),
        }
        # Twice 10 reps of 3 s, and 60 s of rest between them: 120 s.
        ledger = book(
            [], [session(0, sets("Squat", 2, rest_s=60))], rules={"session_minutes": 1.9}
        ).ledger()
        (found,) = [
            one for one in audit(ledger, WEEK, "planned").findings if one.code == "overfull"
        ]
        assert (found.level, found.value) == ("caution", pytest.approx(2))


class TestCourse:
    def test_what_is_kept_from_week_to_week(self) -> None:
        before = session(-7, sets("Squat"), sets("Row"), sets("Press"))
        now = session(0, sets("Squat"), sets("Curl"))
        found = codes(audited(before, now), "carry_over")
        assert found == {("carry_over", "total", "movements", "caution")}
        begins = [{"week": "2026-W41", "weeks": 4}]
        assert not codes(audited(before, now, blocks=begins), "carry_over")
        assert not codes(audited(before, session(0, sets("Squat"), sets("Row"))), "carry_over")

    def test_days_that_are_all_alike(self) -> None:
        alike = [session(day, sets("Squat"), rpe=6, duration_min=60) for day in range(6)]
        assert codes(audited(*alike), "monotony") == {("monotony", "total", "monotony", "caution")}
        unknown = [*alike[:5], session(5, sets("Squat"), rpe=6)]
        assert not codes(audited(*unknown), "monotony")

    def test_the_same_felt_harder(self) -> None:
        names = ("Squat", "Row", "Press", "Hinge")
        before = session(-7, *[sets(one, 1, 5, load_kg=50, rpe=7) for one in names])
        now = [sets(one, 1, 5, load_kg=50, rpe=8) for one in names]
        assert codes(audited(before, session(0, *now)), "effort_drift")
        assert not codes(audited(before, session(0, *now[:3])), "effort_drift")
        heavier = [*now[:3], sets("Hinge", 1, 5, load_kg=52.5, rpe=9)]
        assert not codes(audited(before, session(0, *heavier)), "effort_drift")
        old = session(-28, *[sets(one, 1, 5, load_kg=50, rpe=7) for one in names])
        assert not codes(audited(old, session(0, *now)), "effort_drift")

    def test_lifts_that_do_not_move(self) -> None:
        weeks = [
            session(-7 * back, sets("Squat", 1, 5, load_kg=80), sets("Row", 1, 8))
            for back in range(8)
        ]
        found = [one for one in audited(*weeks).findings if one.code == "stalled"]
        assert [(one.value, one.level) for one in found] == [(1.0, "note")]
        weeks[0] = session(0, sets("Squat", 1, 5, load_kg=85), sets("Row", 1, 8))
        assert not codes(audited(*weeks), "stalled")

    def test_ready_for_the_next_step(self) -> None:
        plan = [session(0, sets("Press", 3, 8, reps_to=12))]
        assert codes(audited(session(0, sets("Press", 3, 12, rpe=8)), planned=plan), "ready") == {
            ("ready", "Press", "reps", "note")
        }
        for done in (sets("Press", 2, 12), sets("Press", 3, 11), sets("Press", 3, 12, rpe=9)):
            assert not codes(audited(session(0, done), planned=plan), "ready")
        # Its last session decides.
        twice = [*plan, session(3, sets("Press", 3, 8, reps_to=12))]
        done = [session(0, sets("Press", 3, 12)), session(3, sets("Press", 3, 9))]
        assert not codes(audited(*done, planned=twice), "ready")

    @pytest.mark.parametrize(
        ("now", "level"), [(6, "note"), (7, "caution"), (10, "caution"), (11, "high")]
    )
    def test_a_return_is_measured_by_the_last_ordinary_week(self, now: int, level: str) -> None:
        weeks = [squats(-5, 10), squats(-4, 10), squats(-3, 4)]
        result = audited(*weeks, squats(0, now))
        (found,) = [one for one in result.findings if one.code == "return"]
        assert (found.level, found.value) == (level, pytest.approx(now / 10))

    def test_one_week_off_is_no_break(self) -> None:
        assert not codes(audited(squats(-2, 10), squats(0, 10)), "return")
        never = audited(squats(0, 10))
        assert not codes(never, "return")

    def test_a_plan_ahead_counts_the_weeks_between_as_planned(self) -> None:
        done = [squats(-3, 10)]
        plans = [squats(-2, 10), squats(-1, 10), squats(0, 10)]
        assert not codes(audit(book(done, plans).ledger(), WEEK, "planned"), "return")
        assert codes(audit(book(done, plans[2:]).ledger(), WEEK, "planned"), "return")


@pytest.mark.parametrize(
    ("rule", "code"),
    [("side_gap", "side_gap"), ("order", "order"), ("warm_up_from", "no_warm_up"),
     ("session_minutes", "overfull"), ("carry_over", "carry_over"),
     ("monotony_limit", "monotony"), ("effort_drift", "effort_drift"),
     ("effort_pairs", "effort_drift"), ("stalled_weeks", "stalled"), ("stalled_share", "stalled"),
     ("target_rpe", "ready"), ("return_after_weeks", "return"), ("return_share", "return")],
)  # fmt: skip
def test_a_rule_that_is_switched_off_takes_away_its_finding_and_no_other(
    rule: str, code: str
) -> None:
    from tests.core.test_findings import a_week_with_everything

    _, known = a_week_with_everything()
    off = known.ledger.but(rules=known.ledger.rules.model_copy(update={rule: None}))
    left = [one.key for one in audit(off, WEEK).findings]
    assert code in {one.code for one in known.findings}
    assert left == [one.key for one in known.findings if one.code != code]


def test_weeks_are_judged_by_their_own_past() -> None:
    ledger = book([squats(-3, 10), squats(0, 10)]).ledger()
    assert codes(audit(ledger, WEEK), "return")
    assert not codes(audit(ledger, Week(WEEK.monday).plus(-3)), "return")
