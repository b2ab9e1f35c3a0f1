"""Planned against completed: sessions by link or day, sets by movement and order."""

from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dialback.core.audit import against_plan
from dialback.core.audit import audit as audit_week
from dialback.core.notation import expand, read
from dialback.core.reconcile import match_sessions, match_sets
from dialback.core.sessions import Session, Set
from dialback.core.versions import apart
from dialback.demo.boards import BOARDS
from tests.build import MONDAY, WEEK, audited, book, codes, session, sets
from tests.notation.test_forms import MOVEMENTS


def flat(text: str) -> list[Set]:
    (written,) = read(text, MOVEMENTS).sessions
    return list(expand(written, MONDAY).sets)


def kinds(plan: str | list[Set], done: str | list[Set]) -> list[str]:
    a, b = (flat(one) if isinstance(one, str) else one for one in (plan, done))
    return [one.kind for one in match_sets(a, b, MOVEMENTS)]


def words(plan: str, done: str) -> list[str]:
    return [one.words for one in match_sets(flat(plan), flat(done), MOVEMENTS) if one.words]


class TestSets:
    def test_as_planned(self) -> None:
        text = BOARDS["Anselm Brook"][1]
        assert set(kinds(text, text)) == {"as planned"}

    @pytest.mark.parametrize(
        ("plan", "done", "said"),
        [
            ("Back squat 14 at 60 kg", "Back squat 11 at 60 kg", ["11 reps instead of 14"]),
            ("Goblet squat 8 at 10 kg", "Goblet squat 8 at 12 kg",
             ["12 kg instead of 10 kg (+20 %)"]),
            ("Dumbbell curl 8 at 2 × 10 kg", "Dumbbell curl 8 at 2 × 8 kg",
             ["2 × 8 kg instead of 2 × 10 kg (−20 %)"]),
            ("Back squat 8 at 10 kg", "Back squat 8", ["no load instead of 10 kg"]),
            ("Front plank 35 s", "Front plank 20 s", ["20 s instead of 35 s"]),
            ("Body row 9 each side", "Body row 9", ["both instead of each"]),
            ("Bench press 5, tempo 4-0-1", "Bench press 5, tempo 2-0-1",
             ["tempo 2-0-1 instead of 4-0-1"]),
            ("Press-up 9, hold 8 s", "Press-up 9", ["hold 0 s instead of 8 s"]),
            ("Bench press 3 × 9-13", "Bench press 8 then 9 then 13", ["8 reps instead of 9–13"]),
            ("Press-up 9", "Press-up, knees down 9",
             ["Press-up, knees down instead of Press-up, the easier level"]),
            ("Press-up 9", "Press-up, feet raised 60 cm 7",
             ["Press-up, feet raised 60 cm instead of Press-up, the harder level, "
              "7 reps instead of 9"]),
            ("Leg press 9 at 80 kg", "Back squat 9 at 80 kg", ["Back squat instead of Leg press"]),
        ],
    )  # fmt: skip
    def test_what_differed_in_words(self, plan: str, done: str, said: list[str]) -> None:
        assert words(plan, done) == said

    def test_counting_more_than_the_plan_asked_is_no_deviation(self) -> None:
        (timed,) = flat("Press-up 40 s")
        counted = timed.model_copy(update={"reps": 17})
        assert kinds([timed], [counted]) == ["as planned"]
        (reps,) = flat("Press-up 12")
        assert kinds([reps], [reps.model_copy(update={"seconds": 33.0})]) == ["as planned"]

    def test_skipped_sets_are_those_that_fit_least(self) -> None:
        plan = "Back squat 5 at 60 kg, then 5 at 70 kg, then 5 at 80 kg"
        assert kinds(plan, "Back squat 5 at 60 kg, then 5 at 80 kg") == [
            "as planned", "skipped", "as planned"]  # fmt: skip
        assert kinds(plan, "Back squat 5 at 81 kg") == ["skipped", "skipped", "changed"]

    def test_an_extra_set_stands_where_it_was_done(self) -> None:
        plan = "Back squat 2 × 5 at 60 kg\nBench press 5"
        done = "Back squat 3 × 5 at 60 kg\nBench press 5"
        assert kinds(plan, done) == ["as planned", "as planned", "extra", "as planned"]

    def test_another_order_is_no_deviation(self) -> None:
        plan = "Back squat 3 × 5\nBench press 3 × 5"
        done = "Bench press 3 × 5\nBack squat 3 × 5"
        assert set(kinds(plan, done)) == {"as planned"}

    def test_swaps_go_by_likeness_then_by_place(self) -> None:
        plan = "Lat pull-down 3 × 9 at 40 kg\nBack squat 3 × 5 at 60 kg\nFace pull 2 × 12"
        done = "Pull-up 3 × 6\nLeg press 3 × 5 at 100 kg\nFace pull 2 × 12"
        found = match_sets(flat(plan), flat(done), MOVEMENTS)
        assert [one.kind for one in found] == ["swapped"] * 6 + ["as planned"] * 2
        assert found[0].words.startswith("Pull-up instead of Lat pull-down")
        # What is in the plan anyway is more of itself, no swap.
        assert kinds("Press-up 9\nBody row 9", "Press-up 9\nPress-up 9") == [
            "as planned", "extra", "skipped"]  # fmt: skip
        # Far apart and nothing in common.
        far = "Press-up 9\nBody row 9\nCrunch 9\nCalf raise 9"
        assert "swapped" not in kinds(far, "Press-up 9\nBody row 9\nCrunch 9\nDumbbell curl 9")[:1]

    def test_sides_of_their_own(self) -> None:
        plan = "Split squat 2 × 9 left, then 2 × 9 right"
        assert kinds(plan, "Split squat 2 × 9 left, then 9 right") == [
            "as planned", "as planned", "as planned", "skipped"]  # fmt: skip

    @settings(max_examples=60, deadline=None)
    @given(st.data())
    def test_every_set_is_in_one_match(self, data: st.DataObject) -> None:
        pool = flat(BOARDS["Ondra Pell"][1]) + flat(BOARDS["Maro Veldt"][1])
        some = st.lists(st.sampled_from(pool), max_size=14)
        plan, done = data.draw(some), data.draw(some)
        found = match_sets(plan, done, MOVEMENTS)
        assert [one.at for one in found if one.at is not None] == list(range(len(plan)))
        done_at = [one.done_at for one in found if one.done_at is not None]
        assert sorted(done_at) == list(range(len(done)))
        for one in found:
            assert (one.kind == "as planned") == (one.words == "")


def training(day: int, text: str, **more: Any) -> Session:
    values = {"date": MONDAY + timedelta(days=day), "sets": flat(text), **more}
    return Session.model_validate(values)


class TestSessions:
    def test_by_link_then_by_day_then_alone(self) -> None:
        plans = [training(0, "Press-up 9", title="A"), training(2, "Body row 9", title="B")]
        dones = [training(1, "Press-up 9", plan=MONDAY), training(2, "Body row 9"),
                 training(4, "Crunch 9")]  # fmt: skip
        found = match_sessions(plans, dones, MOVEMENTS)
        assert [(one.plan and one.plan.title, one.done and one.done.date.day) for one in found] == [
            ("A", 6), ("B", 7), (None, 9)]  # fmt: skip

    def test_of_two_on_a_day_the_one_of_the_same_title(self) -> None:
        plans = [training(0, "Press-up 9", title="A"), training(0, "Body row 9", title="B")]
        dones = [training(0, "Body row 9", title="B"), training(0, "Press-up 9", title="A")]
        for one in match_sessions(plans, dones, MOVEMENTS):
            assert one.plan is not None and one.done is not None  # noqa: PT018
            assert one.plan.title == one.done.title

    def test_extra_rounds_are_named(self) -> None:
        rounds = "{} rounds:\n  Press-up 9\n  Body row 9\n"
        plan, done = (training(0, "Crunch 9\n" + rounds.format(count)) for count in (2, 4))
        (one,) = match_sessions([plan], [done], MOVEMENTS)
        (more,) = one.extra_rounds
        assert (more.rounds, more.planned, more.movements) == (2, 2, ("Press-up", "Body row"))
        assert one.summary == ("2 more rounds of Press-up, Body row than the 2 planned",)
        half = training(0, "Crunch 9\n" + rounds.format(2) + "Press-up 9")
        (none,) = match_sessions([plan], [half], MOVEMENTS)
        assert none.extra_rounds == ()

    def test_the_summary_tells_each_deviation_once(self) -> None:
        (one,) = match_sessions([training(0, "Back squat 3 × 5 at 60 kg\nCrunch 9")],
                                [training(0, "Back squat 3 × 4 at 60 kg")], MOVEMENTS)  # fmt: skip
        assert one.summary == ("Back squat: 4 reps instead of 5 (3 sets)", "Crunch: not done")


PLAN_CODES = ("off_plan", "missed", "swapped", "data_gap", "pain")


class TestFindings:
    def test_off_the_plan_below_and_above(self) -> None:
        plan = [session(0, sets("Press", 10, 10, rpe=8))]
        low = audited(session(0, sets("Press", 7, 10, rpe=8)), planned=plan)
        assert {key[2] for key in codes(low, "off_plan")} == {"sets", "reps", "tut_s"}
        assert not codes(audited(session(0, sets("Press", 8, 10, rpe=8)), planned=plan), "off_plan")
        assert not codes(audited(session(0, sets("Press", 11, 10, rpe=8)), planned=plan),
                         "off_plan")  # fmt: skip
        high = audited(session(0, sets("Press", 12, 10, rpe=8)), planned=plan)
        assert len(codes(high, "off_plan")) == 3
        wide = audited(session(0, sets("Press", 12, 10, rpe=8)), planned=plan,
                       rules={"plan_band": [0.5, 1.5]})  # fmt: skip
        assert not codes(wide, "off_plan")

    def test_missed_until_it_is_due(self) -> None:
        known = book([session(0, sets("Press", 5, rpe=8))],
                     [session(0, sets("Press", 5)), session(3, sets("Row", 4))])  # fmt: skip
        ledger = known.ledger()
        (found,) = [one for one in audit_week(ledger, WEEK).findings if one.code == "missed"]
        assert (found.subject, found.value, found.of_plan) == ("2026-10-08", 4, True)
        assert len(found.trail(against_plan(ledger, WEEK).planned)) == 4
        off = [one for one in audit_week(ledger, WEEK).findings if one.code == "off_plan"]
        assert off
        assert all("The session of Thursday was not done." in one.sentence for one in off)
        early = audit_week(ledger, WEEK, as_of=date(2026, 10, 8))
        assert not [one for one in early.findings if one.code in ("missed", "off_plan")]
        assert [one.code for one in audit_week(ledger, WEEK, "planned").findings
                if one.code in PLAN_CODES] == []  # fmt: skip

    def test_swapped_is_a_note_unless_pattern_or_direct_muscle_changed(self) -> None:
        plan = [session(0, sets("Press", 3, rpe=8), sets("Row", 3, rpe=8))]
        same = audited(session(0, sets("Press-up", 3, rpe=8), sets("Row", 3, rpe=8)), planned=plan)
        assert codes(same, "swapped") == {("swapped", "Press", "sets", "note")}
        other = audited(session(0, sets("Press", 3, rpe=8), sets("Curl", 3, rpe=8)), planned=plan)
        assert codes(other, "swapped") == {("swapped", "Row", "sets", "caution")}

    def test_gaps_in_the_log(self) -> None:
        bare = audited(session(0, sets("Press", 3), sets("Row", 1, rpe=8)))
        assert codes(bare, "data_gap") == {("data_gap", "total", "rpe", "note")}
        timed = audited(session(0, sets("Press", 3, None, seconds=30, rpe=7)))
        assert ("data_gap", "total", "reps", "note") in codes(timed, "data_gap")
        assumed = audited(session(0, sets("Row", 3, rpe=7)))
        assert codes(assumed, "data_gap") == {("data_gap", "total", "tut_s", "note")}
        assert not codes(audited(session(0, sets("Press", 3, rpe=7))), "data_gap")

    def test_pain_is_high_and_comes_without_a_plan(self) -> None:
        result = audited(session(0, sets("Press", 1, rpe=8), pain=[
            {"exercise": "press", "note": "left elbow"}, {"note": ""}]))  # fmt: skip
        assert codes(result, "pain") == {("pain", "press", "sets", "high"),
                                         ("pain", "session", "sets", "high")}  # fmt: skip
        (at_press, _) = [one for one in result.findings if one.code == "pain"]
        assert "“left elbow”" in at_press.sentence
        assert len(at_press.trail(result.entries)) == 1


class TestMeasuredTension:
    def test_it_stands_for_reps_and_tempo_by_rule(self) -> None:
        one = sets("Press", 1, 10, measured_reps=10, measured_tension_s=55, hold_s=5)
        assert audited(session(0, one)).value("totals/tut_s") == 55
        assert audited(session(0, one)).value("totals/work_s") == 45
        off = audited(session(0, one), rules={"measured_tension": False})
        assert off.value("totals/tut_s") == 45
        assert audited(session(0, one)).measured >= {"totals/tut_s", "muscles/chest/tut_s"}
        assert off.measured == frozenset()
        left = audited(session(0, [{**one[0], "sides": "left"}]))
        assert left.value("totals/tut_s") == 27.5

    def test_a_measured_tempo_is_not_assumed(self) -> None:
        assert "totals/tut_s" in audited(session(0, sets("Row"))).rough
        assert "totals/tut_s" not in audited(session(0, sets("Row", measured_tension_s=31))).rough


class TestVersions:
    def test_what_two_versions_say_otherwise(self) -> None:
        stored = Session(date=MONDAY, sets=tuple(flat("Back squat 3 × 8 at 60 kg")), rpe=7)
        other = Session(
            date=MONDAY,
            sets=tuple(flat("Back squat 8 at 60 kg\nBack squat 6 at 62.5 kg\nFront plank 30 s")),
            notes="knee",
        )
        found = {one.what: (one.stored, one.other) for one in apart(stored, other, MOVEMENTS)}
        assert found == {
            "Back squat, set 2": ("8 reps, at 60 kg", "6 reps, at 62.5 kg"),
            "Back squat, set 3": ("8 reps, at 60 kg", "Front plank, 30 s"),
            "Exertion": ("7", ""),
            "Notes": ("", "knee"),
        }

    def test_the_same_is_not_apart(self) -> None:
        one = Session(date=MONDAY, sets=tuple(flat(BOARDS["Anselm Brook"][1])))
        assert apart(one, one, MOVEMENTS) == ()
