"""Baselines, jumps and the six findings at and around their limits."""

import re

import pytest

from dialback.core.audit import Audit, audit, compliance, sessions_done
from dialback.core.baseline import baseline, left_out
from dialback.core.findings import CODES, find
from dialback.core.findings.finding import grown
from dialback.core.remedies import clears
from dialback.core.rules import DEFAULT_RULES
from tests.build import WEEK, audited, book, codes, document, remedy, restricted, session, sets

SPARSE = {"muscle_bands": {name: [0, 999] for name in DEFAULT_RULES.muscle_bands}}
"""Rules under which no dose raises a finding, so that the others stand alone."""


def squats(week: int, count: int) -> dict:
    return session(7 * week, sets("Squat", count, load_kg=50))


class TestBaseline:
    @pytest.mark.parametrize(
        ("last", "planned", "says"),
        [
            (10, 10, ""),
            (0, 10, "Left out: week 40 (missed)."),
            (0, 0, "Left out: week 40 (nothing planned)."),
            (3, 10, "Left out: week 40 (mostly missed)."),
            (3, 3, "Left out: week 40 (lighter)."),
        ],
    )
    def test_what_is_left_out_is_said_with_its_reason(
        self, last: int, planned: int, says: str
    ) -> None:
        done = [*(squats(-back, 10) for back in (5, 4, 3, 2)), squats(-1, last), squats(0, 10)]
        plans = [*(squats(-back, 10) for back in (5, 4, 3, 2)), squats(-1, planned)]
        ledger = book([one for one in done if one["sets"]], plans).ledger()
        assert left_out(ledger, baseline(ledger, WEEK), WEEK) == says

    def test_weeks_before_the_first_are_not_left_out(self) -> None:
        ledger = book([squats(-2, 10), squats(-1, 10), squats(0, 10)]).ledger()
        assert left_out(ledger, baseline(ledger, WEEK), WEEK) == ""

    def test_mean_of_trained_weeks_among_four(self) -> None:
        found = baseline(
            book([squats(-5, 9), squats(-4, 2), squats(-2, 4), squats(-1, 0)]).ledger(), WEEK
        )
        assert [str(week) for week in found.weeks] == ["2026-W37", "2026-W39"]
        assert found.base("totals/sets") == 3

    def test_last_week_is_the_latest_trained_of_four(self) -> None:
        rules = {"baseline": "last_week"}
        found = baseline(book([squats(-3, 2), squats(-2, 4)], rules=rules).ledger(), WEEK)
        assert [str(week) for week in found.weeks] == ["2026-W39"]
        assert found.base("totals/sets") == 4
        five_back = baseline(book([squats(-5, 2)], rules=rules).ledger(), WEEK)
        assert five_back.values is None

    def test_ewma_takes_untrained_weeks_as_nothing(self) -> None:
        rules = {"baseline": "ewma", "ewma_alpha": 0.5}
        easy = session(7 * -6, sets("Squat", 3, rpe=2))
        found = baseline(book([easy, squats(-4, 8), squats(-2, 4)], rules=rules).ledger(), WEEK)
        assert [str(week) for week in found.weeks] == [f"2026-W{n}" for n in (37, 38, 39, 40)]
        # 8, then half of 8, then (4 + 4) / 2, then half of that
        assert found.base("totals/sets") == 2

    def test_without_a_trained_week_there_is_no_base(self) -> None:
        for kind in ("mean_4", "last_week", "ewma"):
            result = audited(squats(0, 4), rules={"baseline": kind})
            assert result.change("totals/sets").base is None
            assert result.change("totals/sets").change is None

    def test_a_week_of_easy_sets_is_not_trained(self) -> None:
        easy = session(-7, sets("Squat", 5, rpe=3))
        assert baseline(book([easy]).ledger(), WEEK).weeks == ()

    def test_the_base_of_a_planned_week_is_what_was_done(self) -> None:
        ledger = book([squats(-1, 4)], [squats(-1, 10), squats(0, 8)]).ledger()
        assert audit(ledger, WEEK, "planned").change("totals/sets").change == 1


class TestJumps:
    @pytest.mark.parametrize(
        ("before", "now", "level", "muscle"),
        [(10, 12, None, None), (10, 13, "caution", "caution"), (10, 14, "caution", "caution"),
         (10, 15, "high", "high"), (2, 3, None, None), (10, 5, None, None),
         # Two sets more are a caution at most, of a muscle; see jump_high_sets.
         (2, 4, "high", "caution")],
    )  # fmt: skip
    def test_sets(self, before: int, now: int, level: str | None, muscle: str | None) -> None:
        result = audited(squats(-1, before), squats(0, now), rules=SPARSE)
        found = codes(result, "jump")
        assert (("jump", "total", "sets", level) in found) == (level is not None)
        assert (("jump", "quads", "sets", muscle) in found) == (muscle is not None)

    def test_a_value_at_its_limit_is_within(self) -> None:
        before, now = sets("Squat", load_kg=100), sets("Squat", load_kg=115)
        result = audited(session(-7, before), session(0, now), rules=SPARSE)
        assert not codes(result, "jump")

    def test_the_sentence_has_absolute_numbers_beside_the_share(self) -> None:
        result = audited(squats(-1, 10), squats(0, 15), rules=SPARSE)
        sentence = next(one.sentence for one in result.findings if one.subject == "quads")
        for part in ("10 sets", "15 sets", "+50", "?"):
            assert part in sentence


class TestLoadStep:
    @pytest.mark.parametrize(
        ("load", "level"), [(43, None), (43.5, "caution"), (46, "caution"), (46.5, "high")]
    )
    def test_against_the_heaviest_of_four_weeks(self, load: float, level: str | None) -> None:
        result = audited(
            session(-35, sets("Squat", load_kg=90)),
            session(-28, sets("Squat", load_kg=40), sets("Squat", load_kg=80, warm_up=True)),
            session(0, sets("Squat", load_kg=load)),
        )
        wanted = {("load_step", "Squat", "load_kg", level)} if level else set()
        assert codes(result, "load_step") == wanted

    def test_implements_count_and_combinations_do_not(self) -> None:
        both = [{"moves": [{"exercise": "Curl"}, {"exercise": "Press"}], "reps": 5, "load_kg": 99}]
        result = audited(
            session(-7, sets("Curl", load_kg=20)),
            session(0, sets("Curl", load_kg=12, implements=2, rpe=2), both),
        )
        assert codes(result, "load_step") == {("load_step", "Curl", "load_kg", "high")}
        (finding,) = (one for one in result.findings if one.code == "load_step")
        assert (finding.amount, finding.base) == (24, 20)

    def test_a_new_movement_has_no_step(self) -> None:
        result = audited(squats(-1, 3), session(0, sets("Hinge", load_kg=200)))
        assert not codes(result, "load_step")


class TestBalance:
    @pytest.mark.parametrize(
        ("push", "pull", "level"),
        [
            (11, 10, None),
            (6, 5, "caution"),
            (8, 4, "high"),
            (7, 10, None),
            (6, 10, "caution"),
            (2, 10, "high"),
            (4, 0, "high"),
            (0, 4, "high"),
            (2, 1, None),
        ],
    )
    def test_push_to_pull(self, push: int, pull: int, level: str | None) -> None:
        result = audited(session(0, sets("Extension", push), sets("Curl", pull)), rules=SPARSE)
        found = {one for one in codes(result, "balance") if one[1] == "push_pull"}
        assert found == ({("balance", "push_pull", "sets", level)} if level else set())

    def test_the_measure_decides_and_muscle_pairs_fall_back_on_sets(self) -> None:
        done = session(0, sets("Press", 4, reps=20), sets("Row", 4, reps=5), sets("Curl", 8))
        found = codes(audited(done, rules={**SPARSE, "balance_measure": "reps"}), "balance")
        assert ("balance", "horizontal_push_pull", "reps", "high") in found
        assert ("balance", "biceps_triceps", "sets", "high") in found

    def test_nothing_in_the_measure_raises_nothing(self) -> None:
        done = session(0, sets("Curl", 6), sets("Row", 2))
        found = codes(audited(done, rules={**SPARSE, "balance_measure": "volume_load_kg"}))
        assert ("balance", "push_pull", "volume_load_kg", "high") not in found

    def test_what_would_clear_it_clears_it(self) -> None:
        result = audited(session(0, sets("Press", 6), sets("Row", 3)), rules=SPARSE)
        assert remedy(result, "balance", "push_pull") == (
            "3 more sets of Row, or 3 fewer sets of Press would bring it within."
        )
        for push, pull in ((6, 6), (3, 3)):
            cured = audited(session(0, sets("Press", push), sets("Row", pull)), rules=SPARSE)
            assert not [one for one in cured.findings if one.subject == "push_pull"]


class TestMusclesAndSpacing:
    @pytest.mark.parametrize(
        ("count", "found"),
        [
            (0, ("muscle_floor", "high")),
            (3, ("muscle_floor", "caution")),
            (4, None),
            (8, None),
            (9, ("muscle_ceiling", "caution")),
            (10, ("muscle_ceiling", "caution")),
            (11, ("muscle_ceiling", "high")),
        ],
    )
    def test_bands(self, count: int, found: tuple[str, str] | None) -> None:
        rules = {"muscle_bands": {**SPARSE["muscle_bands"], "biceps": [4, 8]}}
        result = audited(
            session(0, sets("Curl", count), sets("Plank", reps=None, seconds=5)), rules=rules
        )
        wanted = {(found[0], "biceps", "sets", found[1])} if found else set()
        assert codes(result, "muscle_floor", "muscle_ceiling") == wanted

    def test_a_week_without_sets_lacks_nothing(self) -> None:
        assert not audited(squats(-1, 5)).findings

    @pytest.mark.parametrize(
        ("days", "raised"), [((0, 1), True), ((5, 6), True), ((0, 2), False), ((6, 7), False)]
    )
    def test_heavy_days_in_a_row(self, days: tuple[int, int], raised: bool) -> None:
        result = audited(*(session(day, sets("Squat", 4)) for day in days))
        assert bool(codes(result, "spacing")) == raised

    def test_spacing_once_a_week_with_the_sets_of_both_days(self) -> None:
        result = audited(*(session(day, sets("Squat", 4)) for day in (0, 1, 2, 4, 5)))
        found = [one for one in result.findings if one.code == "spacing"]
        assert [one.subject for one in found] == ["glutes", "quads"]
        assert len(found[0].trail(result.entries)) == 8


def a_week_with_everything() -> tuple[Audit, Audit]:
    """Two weeks that raise every kind of finding between them."""
    before = session(-7, sets("Squat", 4, load_kg=40))
    pain = {"pain": [{"exercise": "Squat", "note": "knee"}]}
    done = [session(day, sets("Squat", 12, load_kg=60), sets("Curl", 2), **pain) for day in (0, 1)]
    plan = [session(day, sets("Squat", 3, load_kg=60), sets("Row", 2)) for day in (0, 1, 3)]
    spared = restricted({"about": "movement", "subject": "Curl"})
    first = audited(before, *done, planned=plan, athlete=spared)
    lifts = [
        sets(name, 3, 5, load_kg=load, rpe=8)
        for name, load in (("Press", 60), ("Row", 50), ("Squat", 90), ("Hinge", 100))
    ]
    harder = [[{**one, "rpe": 9} for one in several] for several in lifts]
    usual = [
        session(-7 * back, *lifts, sets("Plank", 1, None, seconds=30), sets("Wall sit", 1, 5))
        for back in (10, 9, 8, 5, 4, 3)
    ]
    left = sets("Curl", 2, 10, sides="left", load_kg=10)
    ranged = [{**one, "reps_to": 8, "reps": 6} for one in sets("Pull-up", 2, rpe=8)]
    steady = {"rpe": 5, "duration_min": 60}
    back = [session(0, left, sets("Pull-up", 2, 8, rpe=7), *harder, **steady)]
    back += [session(day, sets("Stretch", 1), **steady) for day in (1, 2, 4, 5, 6)]
    second = audited(
        *usual,
        *back,
        planned=[session(0, ranged), session(3, ranged, title="Thursday")],
        rules={"session_minutes": 20, "stalled_weeks": 6, "carry_over": 1},
    )
    return first, second


def test_every_finding_carries_its_evidence() -> None:
    results = a_week_with_everything()
    found = [(result, one) for result in results for one in result.findings]
    assert {one.code for _, one in found} == {code.code for code in CODES}
    for result, one in found:
        assert one.sentence.endswith((".", "?"))
        assert clears(result.in_hand, one).endswith(".")
        against = result.in_hand.against
        trail = one.trail(against.planned if one.of_plan and against else result.entries)
        assert trail or one.value in (0, None)


def test_the_codes_about_days_are_those_whose_subject_is_one() -> None:
    found = [one for result in a_week_with_everything() for one in result.findings]
    days = {one.code for one in found if re.fullmatch(r"\d{4}-\d\d-\d\d", one.subject)}
    assert days - {"pain"} == {code.code for code in CODES if code.subject == "day"}


def test_findings_are_sorted_and_a_second_look_finds_the_same() -> None:
    result = audited(session(0, sets("Squat", 9)))
    keys = [one.key for one in result.findings]
    assert keys == sorted(keys)
    assert find(result.in_hand) == result.findings


def test_an_accepted_finding_that_grows_is_open_again() -> None:
    first = audited(session(0, sets("Press", 6), sets("Row", 4)), rules=SPARSE)
    worse = audited(session(0, sets("Press", 7), sets("Row", 4)), rules=SPARSE)
    then, now = (
        next(one for one in result.findings if one.subject == "push_pull")
        for result in (first, worse)
    )
    assert not grown(then, then.level, then.value)
    assert grown(now, then.level, then.value)
    assert not grown(then, now.level, now.value)


def test_compliance() -> None:
    plan = [session(0, sets("Squat", 4)), session(2, sets("Squat", 4))]
    ledger = book([session(0, sets("Squat", 5)), session(3, sets("Squat", 1))], plan).ledger()
    assert sessions_done(ledger, WEEK).done == 1
    assert compliance(ledger, WEEK)["sets"].share == 0.75
    assert compliance(book().ledger(), WEEK)["sets"].share is None
    assert document()["planned"] == []


def test_measures_that_disagree_are_told_in_words() -> None:
    slow = sets("Squat", 4, load_kg=30, tempo="4-2-2-0")
    result = audited(session(-7, sets("Squat", 4, load_kg=60)), session(0, slow))
    assert result.disagreement is not None
    assert "tension (+" in result.disagreement
    assert "volume load (−50" in result.disagreement
    assert audited(squats(-1, 4), squats(0, 8)).disagreement is None
