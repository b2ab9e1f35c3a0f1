"""Which session was done for which plan, step by step; sets for both sides beside single ones."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest

from dialback.core.audit import audit
from dialback.core.causes import causes
from dialback.core.matching.sessions import group_sessions
from dialback.core.matching.sets import pair_sets
from dialback.core.sessions import Session
from dialback.core.undo import strayed_from_plan
from tests.build import MONDAY, WEEK, book, session, sets

TABLE = book([]).ledger().movements


def training(day: int, title: str = "", plan: int | None = None, **counts: int) -> Session:
    """A session of so many sets of each movement."""
    several = [sets(name.replace("_", " "), count) for name, count in counts.items()]
    more: dict[str, Any] = {"title": title}
    if plan is not None:
        more["plan"] = (MONDAY + timedelta(days=plan)).isoformat()
    return Session.model_validate(session(day, *several, **more))


def pairs(planned: list[Session], completed: list[Session]) -> set[tuple[int, int]]:
    return {
        (plan, done)
        for group in group_sessions(planned, completed, TABLE)
        for plan in group.plans
        for done in group.dones
    }


class TestSessions:
    def test_one_that_names_its_day_is_for_that_plan_and_no_other(self) -> None:
        planned = [training(0, "A", Press=3), training(2, "B", Row=3)]
        assert pairs(planned, [training(2, "B", plan=0, Row=3)]) == {(0, 0)}
        assert pairs(planned, [training(2, "B", plan=5, Row=3)]) == set()
        # Of several by title, else by what is in them, else the free one, else the first.
        two = [training(0, "A", Press=3), training(0, "B", Row=3)]
        assert pairs(two, [training(1, " b ", plan=0, Press=3)]) == {(1, 0)}
        assert pairs(two, [training(1, "", plan=0, Row=3)]) == {(1, 0)}
        none = [training(1, "", plan=0, Curl=3), training(2, "", plan=0, Curl=3)]
        assert pairs(two, none) == {(0, 0), (1, 1)}
        assert pairs(two, [*none, training(3, "", plan=0, Curl=1)]) == {(0, 0), (1, 1), (0, 2)}

    def test_titles_of_the_day_then_of_the_week(self) -> None:
        planned = [training(0, "Upper", Press=3), training(0, "Lower", Squat=3)]
        done = [training(0, "LOWER ", Press=3), training(0, "upper", Squat=3)]
        assert pairs(planned, done) == {(1, 0), (0, 1)}
        week = [training(0, "A", Press=3), training(3, "A", Press=3), training(4, "A", Press=3)]
        # The nearer day, of two as near the earlier one.
        assert pairs(week, [training(1, "a", Row=1)]) == {(0, 0)}
        assert pairs(week, [training(2, "a", Row=1)]) == {(1, 0)}

    def test_by_what_is_in_it(self) -> None:
        planned = [training(0, Press=3), training(2, Row=3)]
        # A third of the plan of its own day will do.
        assert pairs(planned, [training(0, Press=1)]) == {(0, 0)}
        # Unless another one fits better, and by two thirds.
        assert pairs(planned, [training(0, Press=1, Row=2)]) == {(1, 0)}
        assert pairs(planned, [training(0, Press=2, Row=1)]) == {(0, 0)}
        # Of another day only from two thirds on.
        assert pairs(planned, [training(1, Row=2)]) == {(1, 0)}
        assert pairs(planned, [training(1, Row=1)]) == set()
        # What is left on its own day is for it, whatever is in it.
        assert pairs(planned, [training(0, Curl=1)]) == {(0, 0)}

    def test_one_side_is_half_and_nothing_uncounted_counts(self) -> None:
        left = Session.model_validate(session(1, sets("Row", 4, sides="left")))
        assert pairs([training(0, Row=3)], [left]) == {(0, 0)}
        three = Session.model_validate(session(1, sets("Row", 3, sides="left")))
        assert pairs([training(0, Row=3)], [three]) == set()
        skips = training(1, Skip=9, Stretch=9)
        assert pairs([training(0, Skip=9, Stretch=9)], [skips]) == set()
        warm = Session.model_validate(session(1, sets("Row", 9, warm_up=True)))
        assert pairs([training(0, Row=3)], [warm]) == set()

    def test_two_plans_in_one_session(self) -> None:
        planned = [training(0, "A", Press=3), training(2, "B", Row=3)]
        assert pairs(planned, [training(0, "A", Press=3, Row=2)]) == {(0, 0), (1, 0)}
        assert pairs(planned, [training(0, "A", Press=3, Row=1)]) == {(0, 0)}
        # What stands for its own plan is not there a second time.
        again = [training(0, "A", Press=3), training(2, "B", Press=3)]
        assert pairs(again, [training(0, "A", Press=4)]) == {(0, 0)}
        assert pairs(again, [training(0, "A", Press=5)]) == {(0, 0), (1, 0)}
        assert pairs(again, [training(0, "A", plan=0, Press=5)]) == {(0, 0)}

    def test_one_plan_on_two_days(self) -> None:
        planned = [training(0, "A", Press=3, Row=3)]
        begun = training(0, "A", Press=3)
        assert pairs(planned, [begun, training(1, Row=3)]) == {(0, 0), (0, 1)}
        assert pairs(planned, [begun, training(1, Row=2, Curl=1)]) == {(0, 0), (0, 1)}
        assert pairs(planned, [begun, training(1, Row=1, Curl=1)]) == {(0, 0)}

    def test_what_was_done_in_another_week_is_done(self) -> None:
        late = session(8, sets("Press", 3), plan=MONDAY.isoformat())
        there = book(
            [session(2, sets("Row", 3)), late],
            [session(0, sets("Press", 3)), session(2, sets("Row", 3))],
        )
        found = {(one.code, one.subject) for one in _causes(there)}
        assert ("missed", MONDAY.isoformat()) not in found
        after = {(one.code, one.subject) for one in _causes(there, 1)}
        # It is for a plan, though of the week before: nothing of it is extra.
        assert not {code for code, _ in after} & {"extra", "missed"}


def _causes(of: Any, weeks: int = 0) -> Any:

    return causes(audit(of.ledger(), WEEK.plus(weeks)))


def undone(plan: list[dict], done: list[dict]) -> dict[str, Any]:
    """What strayed from a plan, with the sets of the session as they would have been."""

    found = strayed_from_plan(audit(book([session(0, done)], [session(0, plan)]).ledger(), WEEK))
    return {
        one.code: [(a_set.sides, a_set.reps) for a_set in one.sessions[0].sets] for one in found
    }


EACH = sets("Row", 2, 10, sides="each", load_kg=20)
LEFT, RIGHT = (sets("Row", 1, 10, sides=side, load_kg=20) for side in ("left", "right"))


class TestOneForm:
    def test_side_by_side_is_as_planned(self) -> None:
        assert undone(EACH, [*LEFT, *RIGHT] * 2) == {}
        assert undone([*LEFT, *RIGHT] * 2, EACH) == {}
        assert undone(sets("Row", 1, 20, sides="alternating", load_kg=20), [*LEFT, *RIGHT]) == {}

    def test_a_side_that_was_skipped_is_put_back(self) -> None:
        found = undone(EACH, [*LEFT, *RIGHT, *LEFT])
        assert found == {"short": [("left", 10), ("right", 10), ("left", 10), ("right", 10)]}
        # Both sides of one share their fate: it stays one set.
        assert undone(EACH, [*LEFT, *RIGHT]) == {
            "short": [("left", 10), ("right", 10), ("each", 10)]
        }

    def test_a_side_too_many_is_taken_out(self) -> None:
        found = undone([*LEFT, *RIGHT, *LEFT], EACH)
        assert found == {"extra": [("each", 10), ("left", 10)]}

    def test_reps_of_one_side_are_as_planned_again(self) -> None:
        eight = [{**one, "reps": 8} for one in RIGHT]
        found = undone(EACH, [*LEFT, *eight, *LEFT, *RIGHT])
        assert found == {"changed": [("left", 10), ("right", 10)] * 2}


@pytest.mark.parametrize("swapped", ["Pull-up", "Press-up"])
def test_runs_of_another_movement_go_by_movement_not_by_side(swapped: str) -> None:

    plan = Session.model_validate(session(0, [*LEFT, *RIGHT] * 2)).sets
    done = Session.model_validate(session(0, sets(swapped, 3, 8))).sets
    found = [pair for pair in pair_sets(plan, done, TABLE) if pair.plan and pair.done]
    # The pull-up shares a direct muscle with the row; the press-up stood in its place.
    assert [(pair.plan.at, pair.done.at) for pair in found] == [(0, 0), (1, 1), (2, 2)]  # type: ignore[union-attr]


def test_a_piece_s_own_load_is_as_planned_again() -> None:

    def combined(kg: float, times: float = 1) -> dict:
        moves = [{"exercise": "Row", "times": times}, {"exercise": "Press", "load_kg": kg}]
        return session(0, [{"moves": moves, "reps": 6, "load_kg": 20}])

    ledger = book([combined(16, 2)], [combined(12)]).ledger()
    (found,) = strayed_from_plan(audit(ledger, WEEK))
    row, press = found.sessions[0].sets[0].moves or ()
    # The load as planned; how often each was done in a rep is as it was.
    assert (found.code, press.load_kg, row.times) == ("changed", 12, 2)
