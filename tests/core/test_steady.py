"""What proposals leave alone, carry over, and bring along: as a coach who stands by her word."""

from dataclasses import replace
from typing import Any

import pytest

from dialback.book.book import Book
from dialback.core.adjusting import Options, Proposal, Step, adjust, take, wave_week
from dialback.core.adjusting.held import NOT_STEADY, declined, steady
from dialback.core.rules import Rules
from dialback.core.sessions import Session
from tests.build import MONDAY, WEEK, book, session, sets

NO_BANDS: dict[str, Any] = {
    "muscle_bands": {muscle: [0, 100] for muscle in Rules().muscle_bands},
    "balance_bands": {pair: [0, 100] for pair in Rules().balance_bands}
    | {"push_pull": [0.8, 1.25]},
}
"""Push against pull alone is judged, and the jumps."""
PRESS_LOCKED = Options(frozenset({"Press"}), new_movements=0, ladder=False)


def day(at: int, press: int, row: int, **more: Any) -> dict:
    """The Monday of a week: so many sets of the press and the row."""
    return session(7 * at, sets("Press", press), sets("Row", row), **more)


def in_plan(*weeks: tuple[int, int], **more: Any) -> Book:
    """Plans of press and row up to the audited week, done as planned before it."""
    first = 1 - len(weeks)
    plans = [day(first + at, press, row) for at, (press, row) in enumerate(weeks)]
    return book(plans[:-1], plans, rules=NO_BANDS, **more)


def proposed(one: Book, options: Options = PRESS_LOCKED) -> Proposal:
    ledger = one.ledger()
    start = tuple(ledger.source.week("planned", WEEK))
    held = declined(ledger.decisions, WEEK, start, ledger.movements)
    lately = steady(ledger, WEEK, start)
    return adjust(
        ledger,
        WEEK,
        Options(options.locks, options.new_movements, ladder=False, declined=held, steady=lately),
    )


class TestWhatWasPublished:
    def test_is_not_turned_back(self) -> None:
        # The row was raised two weeks ago; pull has outweighed push ever since.
        one = in_plan((8, 9), (8, 11), (8, 11), (8, 11))
        freely = adjust(one.ledger(), WEEK, PRESS_LOCKED)
        assert [(each.movement, each.count_to < 11) for each in freely.changes] == [("Row", True)]
        found = proposed(one)
        assert found.changes == ()
        (left,) = found.remaining
        assert "published lately" in left.sentence

    def test_is_not_turned_back_where_there_is_no_time_either(self) -> None:
        ledger = in_plan((8, 9), (8, 11), (8, 11), (8, 11)).ledger()
        start = tuple(ledger.source.week("planned", WEEK))
        hurried = replace(PRESS_LOCKED, steady=steady(ledger, WEEK, start), seconds=0.0)
        found = adjust(ledger, WEEK, hurried)
        assert found.changes == ()
        assert [one.against for one in found.remaining] == [()]

    def test_is_turned_back_for_what_is_new(self) -> None:
        # The press was cut this week: only now does pull outweigh push.
        found = proposed(in_plan((10, 9), (10, 11), (10, 11), (8, 11)))
        (one,) = found.changes
        assert (one.movement, one.count_to < 11) == ("Row", True)
        assert "it reverses the change of week 39" in one.reason
        assert "because imbalance (push : pull) is new" in one.reason

    @pytest.mark.parametrize(
        ("weeks", "more"),
        [
            # A week that this one no longer follows, five weeks without a change, a new block.
            pytest.param([(8, 9), (8, 11), (8, 10), (8, 11)], {}, id="changed since"),
            pytest.param([(8, 9), *[(8, 11)] * 6], {}, id="long ago"),
            pytest.param(
                [(8, 9), (8, 11), (8, 11)],
                {"blocks": [{"week": str(WEEK.plus(-1)), "weeks": 3, "title": "Base"}]},
                id="a new block",
            ),
            pytest.param([(8, 11)], {}, id="nothing before it"),
        ],
    )
    def test_what_is_no_word_of_the_coach_binds_nobody(self, weeks: list, more: dict) -> None:
        ledger = in_plan(*weeks, **more).ledger()
        assert steady(ledger, WEEK, tuple(ledger.source.week("planned", WEEK))) == NOT_STEADY

    def test_weeks_of_a_kind_and_lighter_ones_are_passed_over(self) -> None:
        for weeks, more in (
            ([(8, 9), (8, 11), (2, 3), (8, 11)], {}),
            ([(8, 9), (8, 11), (9, 9), (8, 11)], {"kinds": [{"week": "2026-W40", "kind": "test"}]}),
        ):
            ledger = in_plan(*weeks, **more).ledger()
            found = steady(ledger, WEEK, tuple(ledger.source.week("planned", WEEK)))
            assert list(found.held.no_fewer) == [(0, 2)]
            assert str(found.held.no_fewer[0, 2]) == "2026-W39"

    def test_what_was_dropped_is_not_added_again_nor_what_was_cut_grown(self) -> None:
        plans = [
            session(-14, sets("Press", 6), sets("Row", 6), sets("Curl", 3)),
            session(-7, sets("Press", 6), sets("Row", 4)),
            session(0, sets("Press", 6), sets("Row", 4)),
        ]
        ledger = book(plans[:2], plans, rules=NO_BANDS).ledger()
        held = steady(ledger, WEEK, tuple(ledger.source.week("planned", WEEK))).held
        assert list(held.no_more) == [(0, 2)]
        assert list(held.not_added) == [(0, "Row"), (0, "Curl")] or list(held.not_added) == [
            (0, "Curl"),
            (0, "Row"),
        ]


def step(movement: str, direction: str, **more: Any) -> dict:
    return {
        "kind": "declined",
        "code": "step",
        "subject": movement,
        "measure": direction,
        "since": MONDAY.isoformat(),
        **more,
    }


def who_declined(*several: dict) -> dict[str, Any]:
    return {"athlete": {"name": "Ada Test", "bodyweight_kg": 70, "decisions": list(several)}}


class TestWhatWasDeclined:
    def test_is_not_proposed_again(self) -> None:
        plan = [day(0, 6, 4)]
        free = Options(new_movements=0)
        first = proposed(book([], plan, rules=NO_BANDS), free)
        steps = {(one.movement, one.count_to > one.count_from) for one in first.changes}
        assert steps
        names = {True: "more", False: "fewer"}
        no = [step(str(name).upper(), names[more]) for name, more in steps]
        second = proposed(book([], plan, rules=NO_BANDS, **who_declined(*no)), free)
        again = {(one.movement, one.count_to > one.count_from) for one in second.changes}
        assert not again & steps
        every = [step(name, way) for name in ("Press", "Row") for way in ("more", "fewer")]
        third = proposed(book([], plan, rules=NO_BANDS, **who_declined(*every)), free)
        assert third.changes == ()
        assert "declined" in third.remaining[0].sentence

    def test_holds_as_long_as_the_decision(self) -> None:
        over = step("Row", "fewer", until="2026-09-30", since="2026-09-01")
        ledger = in_plan((8, 11), **who_declined(over)).ledger()
        start = tuple(ledger.source.week("planned", WEEK))
        assert not declined(ledger.decisions, WEEK, start, ledger.movements)

    def test_is_not_added_either(self) -> None:
        plan = [session(0, sets("Press", 6)), session(2, sets("Squat", 6))]
        done = [session(-7, sets("Press", 6)), session(-5, sets("Row", 3), sets("Pull-up", 2))]
        first = proposed(book(done, plan, rules=NO_BANDS), Options())
        added = {one.movement for one in first.changes if one.line is None}
        no = [step(name, "more") for name in ("Row", "Pull-up")]
        second = proposed(book(done, plan, rules=NO_BANDS, **who_declined(*no)), Options())
        assert added & {"Row", "Pull-up"}
        assert not {one.movement for one in second.changes if one.count_to > one.count_from} & {
            "Row",
            "Pull-up",
        }


class TestAMovementThatIsAdded:
    DONE = (
        session(
            -7,
            sets("Squat", 1, 8, load_kg=40, warm_up=True),
            sets("Squat", 1, 4, load_kg=70, warm_up=True),
            sets("Squat", 3, 5, load_kg=100, rpe=8),
        ),
    )

    def taken(self, rules: dict | None = None, **more: Any) -> Session:
        plan = [session(0, sets("Press", 3, 8, load_kg=50, rest_s=120), sets("Extension", 2))]
        one = book(list(self.DONE), plan, rules=rules or {}, **more)
        start = tuple(one.ledger().source.week("planned", WEEK))
        (found,) = take(one.ledger(), WEEK, start, [Step(0, None, "Squat", 2)])
        return found

    def told(self, found: Session) -> list[tuple]:
        return [
            (one.load_kg, one.reps, one.warm_up, one.rpe)
            for one in found.sets
            if one.exercise == "Squat"
        ]

    def test_comes_with_its_warm_up_sets_below_its_last_load(self) -> None:
        found = self.taken()
        assert self.told(found) == [
            (40, 8, True, None),
            (70, 4, True, None),
            (90, 5, False, None),
            (90, 5, False, None),
        ]

    def test_its_load_is_one_that_the_kit_has(self) -> None:
        bars = {"bars_kg": [20], "plates": [{"kg": 20, "pairs": 2}, {"kg": 5, "pairs": 1}]}
        squat = {"name": "Squat", "pattern": "squat", "muscles": {"quads": "direct"}}
        known = book(
            list(self.DONE),
            [session(0, sets("Press", 3))],
            kit=bars,
            exercises=[
                {**squat, "compound": True, "kit": ["bar"]},
                {"name": "Press", "pattern": "horizontal_push", "muscles": {"chest": "direct"}},
            ],
        )
        start = tuple(known.ledger().source.week("planned", WEEK))
        (found,) = take(known.ledger(), WEEK, start, [Step(0, None, "Squat", 1)])
        assert self.told(found)[-1][0] == 70

    def test_warm_up_sets_stay_out_where_there_are_no_minutes_for_them(self) -> None:
        # The heaviest ones stay the longest.
        every = [len(self.told(self.taken({"session_minutes": most}))) for most in (90, 8, 1)]
        assert every[0] == 4
        assert every == sorted(every, reverse=True)
        assert every[-1] == 2

    def test_an_isolated_one_is_as_it_was_last(self) -> None:
        done = [session(-7, sets("Curl", 3, 10, load_kg=12))]
        ledger = book(done, [session(0, sets("Press", 3))]).ledger()
        start = tuple(ledger.source.week("planned", WEEK))
        (found,) = take(ledger, WEEK, start, [Step(0, None, "Curl", 2)])
        assert [(one.exercise, one.load_kg) for one in found.sets[3:]] == [("Curl", 12)] * 2


class TestOverWeeks:
    def waves(self, one: Book, weeks: int, **how: Any) -> list:
        ledger, plans, found = one.ledger(), {}, []
        for at in range(weeks):
            wave = wave_week(ledger, WEEK.plus(at), plans, Options(seconds=2.0), **how)
            plans[WEEK.plus(at)] = wave.proposal.sessions
            found.append(wave)
        return found

    def test_what_a_week_changes_is_carried_into_the_next_one(self) -> None:
        done = [day(at, 6, 6) for at in range(-4, 0)]
        one = book(done, [day(at, 8, 6) for at in range(3)], rules=NO_BANDS)
        first, second, third = self.waves(one, 3)
        assert first.proposal.changes
        assert first.carried == 0
        for wave in (second, third):
            assert wave.carried == len(first.proposal.changes)
            assert wave.proposal.changes == ()
            assert [len(each.sets) for each in wave.proposal.sessions] == [
                len(each.sets) for each in first.proposal.sessions
            ]
            assert not wave.left

    def test_what_was_added_is_carried_and_another_session_is_left_alone(self) -> None:
        done = [session(-7, sets("Press", 6), sets("Row", 2)), session(-5, sets("Squat", 4))]
        plans = [
            one
            for at in range(2)
            for one in (session(7 * at, sets("Press", 4)), session(7 * at + 2, sets("Squat", 4)))
        ]
        first, second = self.waves(book(done, plans, rules=NO_BANDS), 2)
        added = [one for one in first.proposal.changes if one.line is None]
        assert added
        assert [[each.exercise for each in one.sets] for one in second.proposal.sessions] == [
            [each.exercise for each in one.sets] for one in first.proposal.sessions
        ]

    def test_all_of_it_takes_gentle_steps_and_ends_with_less(self) -> None:
        done = [day(at, 6, 6) for at in range(-4, 0)]
        plan = [day(at, 9, 2) for at in range(4)]
        one = book(done, plan)
        calm, gentle = self.waves(one, 4), self.waves(one, 4, all_of_it=True)
        assert len(gentle[-1].left) < len(calm[-1].left)
        assert all(wave.proposal.cost <= 12 for wave in gentle)
        # What is left grows less from week to week.
        left = [len(wave.left) for wave in gentle]
        assert left == sorted(left, reverse=True)
