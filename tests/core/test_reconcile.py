"""Planned against completed: sessions by link or day, sets by movement and order."""

from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import against_plan, plans_done, sessions_done
from dialback.core.audit import audit as audit_week
from dialback.core.notation import Setting, expand, read
from dialback.core.reconcile import by_session, match_sessions, match_sets
from dialback.core.sessions import Session, Set
from dialback.core.versions import apart
from dialback.demo.boards import BOARDS
from tests.build import MONDAY, WEEK, audited, book, codes, session, sets
from tests.notation.test_forms import MOVEMENTS
from tests.properties import tried


def flat(text: str) -> list[Set]:
    (written,) = read(text, MOVEMENTS).sessions
    return list(expand(written, Setting(MOVEMENTS), MONDAY).sets)


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
            ("Inverted row 9 each side", "Inverted row 9", ["both instead of each"]),
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
            "as planned",
            "skipped",
            "as planned",
        ]
        # As unlike to all three: the earliest.
        assert kinds(plan, "Back squat 5 at 81 kg") == ["changed", "skipped", "skipped"]

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
        assert kinds("Press-up 9\nInverted row 9", "Press-up 9\nPress-up 9") == [
            "as planned",
            "extra",
            "skipped",
        ]
        # Far apart and nothing in common.
        far = "Press-up 9\nInverted row 9\nCrunch 9\nCalf raise 9"
        assert (
            "swapped" not in kinds(far, "Press-up 9\nInverted row 9\nCrunch 9\nDumbbell curl 9")[:1]
        )

    def test_sides_of_their_own(self) -> None:
        plan = "Split squat 2 × 9 left, then 2 × 9 right"
        assert kinds(plan, "Split squat 2 × 9 left, then 9 right") == [
            "as planned",
            "as planned",
            "as planned",
            "skipped",
        ]

    @tried(60)
    @given(st.data())
    def test_every_set_is_in_one_match(self, data: st.DataObject) -> None:
        pool = flat(BOARDS["Ondra Pell"][1]) + flat(BOARDS["Maro Veldt"][1])
        some = st.lists(st.sampled_from(pool), max_size=14)
        plan, done = data.draw(some), data.draw(some)
        found = match_sets(plan, done, MOVEMENTS)
        at = [(one.at, one.half) for one in found if one.at is not None]
        done_at = [(one.done_at, one.done_half) for one in found if one.done_at is not None]
        for places, several in ((at, plan), (done_at, done)):
            assert len(places) == len(set(places))
            assert {place for place, _ in places} == set(range(len(several)))
        for one in found:
            assert (one.kind == "as planned") == (one.words == "")


def training(day: int, text: str, **more: Any) -> Session:
    values = {"date": MONDAY + timedelta(days=day), "sets": flat(text), **more}
    return Session.model_validate(values)


class TestSessions:
    def test_by_link_then_by_day_then_alone(self) -> None:
        plans = [training(0, "Press-up 9", title="A"), training(2, "Inverted row 9", title="B")]
        dones = [
            training(1, "Press-up 9", plan=MONDAY),
            training(2, "Inverted row 9"),
            training(4, "Crunch 9"),
        ]
        found = match_sessions(plans, dones, MOVEMENTS)
        assert [(one.plan and one.plan.title, one.done and one.done.date.day) for one in found] == [
            ("A", 6),
            ("B", 7),
            (None, 9),
        ]

    def test_of_two_on_a_day_the_one_of_the_same_title(self) -> None:
        plans = [training(0, "Press-up 9", title="A"), training(0, "Inverted row 9", title="B")]
        dones = [training(0, "Inverted row 9", title="B"), training(0, "Press-up 9", title="A")]
        for one in match_sessions(plans, dones, MOVEMENTS):
            assert one.plan is not None and one.done is not None  # noqa: PT018
            assert one.plan.title == one.done.title

    def test_extra_rounds_are_named(self) -> None:
        rounds = "{} rounds:\n  Press-up 9\n  Inverted row 9\n"
        plan, done = (training(0, "Crunch 9\n" + rounds.format(count)) for count in (2, 4))
        (one,) = match_sessions([plan], [done], MOVEMENTS)
        (more,) = one.extra_rounds
        assert (more.rounds, more.planned, more.movements) == (2, 2, ("Press-up", "Inverted row"))
        assert one.summary == ("2 more rounds of Press-up, Inverted row than the 2 planned",)
        half = training(0, "Crunch 9\n" + rounds.format(2) + "Press-up 9")
        (none,) = match_sessions([plan], [half], MOVEMENTS)
        assert none.extra_rounds == ()

    def test_the_summary_tells_each_deviation_once(self) -> None:
        (one,) = match_sessions(
            [training(0, "Back squat 3 × 5 at 60 kg\nCrunch 9")],
            [training(0, "Back squat 3 × 4 at 60 kg")],
            MOVEMENTS,
        )
        assert one.summary == ("Back squat: 4 reps instead of 5 (3 sets)", "Crunch: not done")

    @pytest.mark.parametrize(
        ("plan", "done", "said"),
        [
            # Loads of two movements are not compared, and every line has its movement.
            ("Lat pull-down 3 × 9 at 65 kg", "Dumbbell curl 3 × 9 at 13 kg",
             ["Dumbbell curl instead of Lat pull-down (3 sets)"]),
            ("Back squat 4 × 5 at 80 kg", "Back squat 4 × 5",
             ["Back squat: no load instead of 80 kg (4 sets)"]),
            ("Back squat 4 × 5 tempo 3-1-1", "Back squat 4 × 5 tempo 2-0-1",
             ["Back squat: tempo 2-0-1 instead of 3-1-1 (4 sets)"]),
            ("Back squat 4 × 5", "Back squat 3 × 5", ["Back squat: 1 of 4 sets not done"]),
            ("Back squat 4 × 5\nCrunch 9", "Crunch 9", ["Back squat: not done (4 sets)"]),
            # Help is not a load.
            ("Pull-up 5 help 20 kg", "Pull-up 5 help 15 kg",
             ["Pull-up: 15 kg help instead of 20 kg help"]),
            # Each side, done on one of them, or as sets of their own.
            ("Split squat 9 each side", "Split squat 9 left",
             ["Split squat: the right side not done"]),
            ("Split squat 9 each side", "Split squat 9 left, then right",
             []),
            # The other unit's nearest step is the same load; a step in one's own is not.
            ("Bench press 5 at 52.5 kg", "Bench press 5 at 115 lb", []),
            ("Bench press 5 at 52.5 kg", "Bench press 5 at 120 lb",
             ["Bench press: 120 lb instead of 52.5 kg (+4 %)"]),
            ("Bench press 5 at 52.5 kg", "Bench press 5 at 52 kg",
             ["Bench press: 52 kg instead of 52.5 kg (−1 %)"]),
            # Exertion beyond the plan, and rests far off it.
            ("Bench press 5 RPE 7", "Bench press 5 RPE 8.5",
             ["Bench press: RPE 8.5 instead of 7"]),
            ("Bench press 5 RPE 7-8", "Bench press 5 RPE 8.5", []),
            ("Bench press 5 RPE 8", "Bench press 5 RPE 6", []),
            ("Bench press 5, rest 2 min", "Bench press 5, rest 60 s",
             ["Bench press: rest 60 s instead of 120 s"]),
            ("Bench press 5, rest 2 min", "Bench press 5, rest 90 s", []),
            ("Farmer's carry 40 m", "Farmer's carry 30 m",
             ["Farmer's carry: 30 m instead of 40 m"]),
        ],
    )  # fmt: skip
    def test_what_a_coach_is_told(self, plan: str, done: str, said: list[str]) -> None:
        (one,) = match_sessions([training(0, plan)], [training(0, done)], MOVEMENTS)
        assert list(one.summary) == said

    def test_two_sessions_linked_to_one_plan_count_as_one(self) -> None:
        plan = training(0, "Press-up 3 × 9\nInverted row 3 × 9", title="A")
        dones = [training(0, "Press-up 3 × 9"), training(1, "Inverted row 3 × 9", plan=MONDAY)]
        (one,) = match_sessions([plan], dones, MOVEMENTS)
        assert one.summary == ()
        parts = by_session(one)
        assert [part.plan is not None for part in parts] == [True, False]
        assert [[line.done_at for line in part.sets] for part in parts] == [[0, 1, 2]] * 2
        assert [len(part.done.sets) for part in parts if part.done] == [3, 3]

    def test_untitled_sessions_of_a_day_go_by_what_is_in_them(self) -> None:
        plans = [training(0, "Press-up 3 × 9"), training(0, "Inverted row 3 × 9")]
        dones = [training(0, "Inverted row 3 × 9"), training(0, "Press-up 3 × 9")]
        assert [one.summary for one in match_sessions(plans, dones, MOVEMENTS)] == [(), ()]

    def test_a_session_on_another_day_is_told_as_moved(self) -> None:
        plans = [training(0, "Press-up 3 × 9"), training(2, "Inverted row 3 × 9", title="Pull")]
        dones = [training(1, "Press-up 2 × 9\nCrunch 9"), training(4, "Crunch 9", title="Pull")]
        first, second = match_sessions(plans, dones, MOVEMENTS)
        assert first.summary[0] == "Done on Tuesday instead of Monday"
        assert second.moved
        (alone, other) = match_sessions(plans[:1], [training(1, "Press-up 9")], MOVEMENTS)
        assert alone.done is None
        assert other.plan is None

    def test_an_extra_set_done_first_stands_first_and_drags_nothing_along(self) -> None:
        found = match_sets(
            flat("Inverted row 9\nCrunch 9"),
            flat("Press-up 9\nInverted row 9\nCrunch 9"),
            MOVEMENTS,
        )
        assert [one.kind for one in found] == ["extra", "as planned", "as planned"]
        last = match_sets(
            flat("Inverted row 9\nCrunch 9"),
            flat("Crunch 9\nInverted row 9\nPress-up 9"),
            MOVEMENTS,
        )
        assert [one.kind for one in last] == ["as planned", "extra", "as planned"]

    def test_a_swap_is_of_a_run_by_pattern_then_muscle_then_place(self) -> None:
        plan = "Back squat 3 × 5\nLat pull-down 3 × 9\nCrunch 9"
        kinds_of = kinds(plan, "Back squat 3 × 5\nPull-up 2 × 6\nCrunch 9")
        assert kinds_of == ["as planned"] * 3 + ["swapped", "swapped", "skipped", "as planned"]
        # Nothing in common, but between the same neighbours.
        assert "swapped" in kinds(plan, "Back squat 3 × 5\nCalf raise 3 × 9\nCrunch 9")
        assert "swapped" not in kinds(plan, "Calf raise 3 × 9\nBack squat 3 × 5\nCrunch 9")


class TestDone:
    """A planned session is done when something was done for it: one meaning everywhere."""

    def test_by_link_from_another_day_and_another_week(self) -> None:
        plans = [session(0, sets("Press", 5)), session(3, sets("Row", 4))]
        thursday = (MONDAY + timedelta(days=3)).isoformat()
        late = session(8, sets("Row", 4), plan=thursday)
        ledger = book([session(1, sets("Press", 5)), late], plans).ledger()
        assert plans_done(ledger, WEEK) == {0, 1}
        assert sessions_done(ledger, WEEK).done == 2
        assert "missed" not in {one.code for one in audit_week(ledger, WEEK).findings}


PLAN_CODES = ("off_plan", "missed", "swapped", "data_gap", "pain")


class TestFindings:
    def test_off_the_plan_below_and_above(self) -> None:
        plan = [session(0, sets("Press", 10, 10, rpe=8))]
        low = audited(session(0, sets("Press", 7, 10, rpe=8)), planned=plan)
        # One finding, of what is farthest outside; its sentence tells all that are.
        assert codes(low, "off_plan") == {("off_plan", "total", "sets", "caution")}
        (told,) = [one for one in low.findings if one.code == "off_plan"]
        assert told.sentence.startswith("7 sets done of 10 sets planned (70 %); 70 reps done of")
        assert "tension 280 s of 400 s (70 %); 80 to 110 % of the plan" in told.sentence
        assert "Monday: Press: 3 of 10 sets not done." in told.sentence
        assert not codes(audited(session(0, sets("Press", 8, 10, rpe=8)), planned=plan), "off_plan")
        assert not codes(
            audited(session(0, sets("Press", 11, 10, rpe=8)), planned=plan), "off_plan"
        )
        high = audited(session(0, sets("Press", 12, 10, rpe=8)), planned=plan)
        assert len(codes(high, "off_plan")) == 1
        wide = audited(
            session(0, sets("Press", 12, 10, rpe=8)), planned=plan, rules={"plan_band": [0.5, 1.5]}
        )
        assert not codes(wide, "off_plan")

    def test_missed_until_it_is_due(self) -> None:
        done = [session(0, sets("Press", 5, rpe=8)), session(7, sets("Press", rpe=8))]
        plans = [session(0, sets("Press", 5)), session(3, sets("Row", 4))]
        ledger = book(done, plans).ledger()
        (found,) = [one for one in audit_week(ledger, WEEK).findings if one.code == "missed"]
        assert (found.subject, found.value, found.of_plan) == ("2026-10-08", 4, True)
        assert len(found.trail(against_plan(ledger, WEEK, None).planned)) == 4
        off = [one for one in audit_week(ledger, WEEK).findings if one.code == "off_plan"]
        assert off
        assert all("The session of Thursday was not done." in one.sentence for one in off)
        early = audit_week(ledger, WEEK, as_of=date(2026, 10, 8))
        assert not [one for one in early.findings if one.code in ("missed", "off_plan")]
        # Where nobody says what day it is, the last completed day does.
        unknown = audit_week(book(done[:1], plans).ledger(), WEEK)
        assert not [one for one in unknown.findings if one.code == "missed"]
        assert [
            one.code
            for one in audit_week(ledger, WEEK, "planned").findings
            if one.code in PLAN_CODES
        ] == []

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
        result = audited(
            session(
                0,
                sets("Press", 1, rpe=8),
                pain=[{"exercise": "press", "note": "left elbow"}, {"note": ""}],
            )
        )
        assert codes(result, "pain") == {
            ("pain", "Press", "sets", "high"),
            ("pain", "session", "sets", "high"),
        }
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

    @pytest.mark.parametrize(
        ("more", "here", "there"),
        [
            ({"band": "green"}, "no band", "band green"),
            ({"rest_s": 90}, "no rest", "rest 90 s"),
            ({"note": "sore"}, "no remark", "(sore)"),
            ({"range": "half"}, "no range", "half range"),
            ({"cadence": 3}, "cadence: not said", "cadence: 3"),
        ],
    )
    def test_whole_sets_are_compared(self, more: dict, here: str, there: str) -> None:
        stored, other = (
            Session.model_validate(session(0, sets("Press", 1, **one))) for one in ({}, more)
        )
        (found,) = apart(stored, other, MOVEMENTS)
        assert (found.stored, found.other) == (f"10 reps, {here}", f"10 reps, {there}")

    def test_the_same_is_not_apart(self) -> None:
        one = Session(date=MONDAY, sets=tuple(flat(BOARDS["Anselm Brook"][1])))
        assert apart(one, one, MOVEMENTS) == ()


@pytest.mark.parametrize(
    ("plan", "done", "told"),
    [
        ("Split squat 3 × 8 each side at 10 kg", "Split squat 3 × 16 alternating at 10 kg", []),
        ("Split squat 2 × 8 each side", "Split squat 2 × 15 alternating",
         ["Split squat: 15 reps instead of 8, alternating instead of each (2 sets)"]),
        ("Dumbbell curl 3 × 10 alternating at 2 × 10 kg", "Dumbbell curl 3 × 5 each side at 10 kg",
         []),
        ("Farmer's carry 3 × 40 m at 2 × 20 kg", "Farmer's carry 3 × 40 m at 40 kg", []),
        ("Split squat 2 × 8 at 2 × 10 kg", "Split squat 2 × 8 at 20 kg",
         ["Split squat: 20 kg instead of 2 × 10 kg (2 sets)"]),
        ("Press-up 3 × 40 s", "Press-up 3 × 25", ["Press-up: 25 reps instead of 40 s (3 sets)"]),
        ("Press-up 3 × 20", "Press-up 3 × 40 s", ["Press-up: 40 s instead of 20 reps (3 sets)"]),
        ("Split squat 3 × 8 each side", "Split squat 3 × 8 left\nSplit squat 3 × 6 right",
         ["Split squat: right side: 6 reps instead of 8 (3 sets)"]),
        ("3 rounds:\n  Press-up 10\n  Inverted row 10",
         "3 rounds:\n  Press-up 10\n  Inverted row 10\n1 round:\n"
         "  Press-up, hands raised 30 cm 10\n  Inverted row, knees bent 10",
         ["One more round of Press-up (easier), Inverted row (easier) than the 3 planned"]),
        ("Deadlift 3 × 3 at 120 kg", "Deadlift 9 × 1 at 120 kg",
         ["Deadlift: 3 sets of 3 done as 9 singles, in clusters"]),
        ("Deadlift 3 × 3 at 120 kg", "Deadlift 8 × 1 at 120 kg",
         ["Deadlift: 1 rep instead of 3 (3 sets)", "Deadlift: not planned (5 sets)"]),
        ("3 rounds:\n  Bench press 8 at 60 kg\n  Bent-over row 8 at 50 kg",
         "Bench press 3 × 8 at 60 kg\nBent-over row 3 × 8 at 50 kg", []),
        ("Front plank 3 × 30-45 s, rest 60-90 s", "Front plank 3 × 40 s, rest 75 s", []),
    ],
)  # fmt: skip
def test_what_a_coach_would_say_of_plan_and_log(plan: str, done: str, told: list[str]) -> None:
    a, b = (Session(date=MONDAY, sets=flat(text)) for text in (plan, done))
    (match,) = match_sessions([a], [b], MOVEMENTS)
    assert list(match.summary) == told


@pytest.mark.parametrize(
    ("plan", "done", "days"),
    [
        # Done the other way round: no swaps.
        (["Bench press 3 × 8 at 60 kg", "Bent-over row 3 × 8 at 50 kg"],
         ["Bent-over row 3 × 8 at 50 kg", "Bench press 3 × 8 at 60 kg"], [([0], [1]), ([1], [0])]),
        # Two plans in one session.
        (["Bench press 3 × 8 at 60 kg", "Bent-over row 3 × 8 at 50 kg"],
         ["Bench press 3 × 8 at 60 kg\nBent-over row 3 × 8 at 50 kg"], [([0, 1], [0])]),
        # One plan on two days.
        (["Bench press 3 × 8 at 60 kg\nBent-over row 3 × 8 at 50 kg"],
         ["Bench press 3 × 8 at 60 kg", "Bent-over row 3 × 8 at 50 kg"], [([0], [0, 1])]),
    ],
)  # fmt: skip
def test_days_are_told_from_what_was_done(
    plan: list[str], done: list[str], days: list[tuple[list[int], list[int]]]
) -> None:
    plans, dones = (
        [
            Session(date=MONDAY + timedelta(days=2 * at), sets=flat(text))
            for at, text in enumerate(texts)
        ]
        for texts in (plan, done)
    )
    found = match_sessions(plans, dones, MOVEMENTS)
    assert [
        ([plans.index(one) for one in match.plans], [dones.index(one) for one in match.dones])
        for match in found
    ] == days
    assert all(one.kind == "as planned" for match in found for one in match.sets)
