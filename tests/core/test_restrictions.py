"""Restrictions: what is to be avoided or limited, from when to when, and how far it is broken."""

from datetime import date, timedelta
from typing import Any

import pytest
from pydantic import ValidationError

from dialback.core.audit import audit_draft
from dialback.core.findings import Finding
from dialback.core.restrictions import Restriction
from dialback.core.sessions import Session
from tests.build import MONDAY, WEEK, audited, book, restricted, session, sets


def findings(done: list[dict[str, Any]], **restriction: Any) -> list[Finding]:
    result = audited(*done, athlete=restricted(restriction))
    return [one for one in result.findings if one.code == "restriction"]


def trailed(done: list[dict[str, Any]], **restriction: Any) -> float:
    result = audited(*done, athlete=restricted(restriction))
    (one,) = (one for one in result.findings if one.code == "restriction")
    return sum(each.credit for each in one.trail(result.entries))


class TestWhatBreaksIt:
    @pytest.mark.parametrize(
        ("restriction", "value", "limit", "measure"),
        [
            ({"about": "movement", "subject": "press"}, 4, 0, "sets"),
            ({"about": "pattern", "subject": "horizontal_push"}, 6, 0, "sets"),
            ({"about": "muscle", "subject": "chest"}, 6, 0, "sets"),
            ({"about": "muscle", "subject": "triceps"}, 8, 0, "sets"),
            ({"about": "pattern", "subject": "horizontal_push", "most_sets": 5}, 6, 5, "sets"),
            ({"about": "muscle", "subject": "triceps", "most_sets": 4}, 5, 4, "sets"),
            ({"about": "movement", "subject": "Press", "most_load_kg": 39}, 40, 39, "load_kg"),
            ({"about": "tempo", "subject": "lowering", "least_s": 3}, 2, 3, "tempo_s"),
            ({"about": "tempo", "subject": "lowering", "most_s": 2}, 3, 2, "tempo_s"),
        ],
    )
    def test_how_far(
        self, restriction: dict[str, Any], value: float, limit: float, measure: str
    ) -> None:
        done = [
            session(0, sets("Press", 4, load_kg=20, implements=2), sets("Press-up", 2)),
            session(2, sets("Extension", 2)),
        ]
        (one,) = findings(done, **restriction)
        assert (one.value, one.limit, one.measure, one.level) == (value, limit, measure, "high")
        assert "Runa Velk, physiotherapist, 5 October 2026" in one.sentence

    @pytest.mark.parametrize(
        "restriction",
        [
            {"about": "movement", "subject": "Squat"},
            {"about": "pattern", "subject": "horizontal_push", "most_sets": 6},
            {"about": "movement", "subject": "Press", "most_load_kg": 40},
            {"about": "movement", "subject": "Press", "most_load_kg": 39.96},
            {"about": "tempo", "subject": "lifting", "least_s": 1},
            {"about": "muscle", "subject": "calves"},
        ],
    )
    def test_what_is_within_breaks_nothing(self, restriction: dict[str, Any]) -> None:
        done = [session(0, sets("Press", 4, load_kg=20, implements=2), sets("Press-up", 2))]
        assert findings(done, **restriction) == []

    def test_an_indirect_muscle_counts_as_the_house_credits_it(self) -> None:
        done = [session(0, sets("Press", 4))]
        spared = restricted({"about": "muscle", "subject": "triceps"})
        for credit, broken in ((0.5, True), (0, False)):
            result = audited(*done, athlete=spared, rules={"indirect_credit": credit})
            assert any(one.code == "restriction" for one in result.findings) == broken

    def test_the_trail_is_the_sets_of_the_sum(self) -> None:
        done = [session(0, sets("Press", 4)), session(2, sets("Press", 1), sets("Row", 3))]
        assert trailed(done, about="muscle", subject="triceps", most_sets=2) == 2.5
        assert trailed(done, about="movement", subject="Press") == 5

    def test_warm_ups_and_easy_sets_break_it_too_and_are_told(self) -> None:
        done = [session(0, sets("Press", 2, warm_up=True), sets("Press", 1, rpe=4))]
        (one,) = findings(done, about="movement", subject="Press")
        assert one.value == 3
        assert "3 of them easy or warm-up" in one.sentence

    def test_of_two_on_one_thing_the_worse_is_shown(self) -> None:
        one = {"about": "pattern", "subject": "squat", "most_sets": 4}
        result = audited(
            session(0, sets("Squat", 6)), athlete=restricted(one, {**one, "most_sets": 2})
        )
        (found,) = (one for one in result.findings if one.code == "restriction")
        assert found.limit == 2

    def test_a_plan_is_checked_before_it_is_done(self) -> None:
        ledger = book([], athlete=restricted({"about": "movement", "subject": "Press"})).ledger()
        draft = Session.model_validate({"date": MONDAY, "sets": sets("Press", 2)})
        found = audit_draft(ledger, WEEK, [draft]).findings
        assert "restriction" in {one.code for one in found}


class TestWhenItHolds:
    @pytest.mark.parametrize(
        ("since", "lifted", "broken"),
        [(0, None, 2), (1, None, 1), (2, None, 1), (3, None, 0), (-30, 1, 1), (-30, 0, 0)],
    )
    def test_from_its_day_until_it_is_lifted(
        self, since: int, lifted: int | None, broken: int
    ) -> None:
        one: dict[str, Any] = {
            "about": "movement",
            "subject": "Press",
            "since": str(MONDAY + timedelta(days=since)),
        }
        if lifted is not None:
            one |= {"lifted_on": str(MONDAY + timedelta(days=lifted)), "lifted_by": "Runa Velk"}
        found = findings([session(0, sets("Press", 1)), session(2, sets("Press", 1))], **one)
        assert sum(each.value or 0 for each in found) == broken

    @pytest.mark.parametrize(
        ("since", "lifted", "some", "every"),
        [
            (0, None, True, True),
            (6, None, True, False),
            (7, None, False, False),
            (-9, 7, True, True),
            (-9, 1, True, False),
            (-9, 0, False, False),
            (2, 3, True, False),
            (2, 2, False, False),
        ],
    )
    def test_some_or_every_day_of_a_week(
        self, since: int, lifted: int | None, some: bool, every: bool
    ) -> None:
        until: dict[str, Any] = {}
        if lifted is not None:
            until = {"lifted_on": MONDAY + timedelta(days=lifted), "lifted_by": "Runa Velk"}
        one = Restriction(
            about="movement",
            subject="Press",
            by="Runa Velk",
            since=MONDAY + timedelta(days=since),
            **until,
        )
        assert (one.holds_in(WEEK), one.holds_throughout(WEEK)) == (some, every)


class TestWhatIsNone:
    @pytest.mark.parametrize(
        ("wrong", "says"),
        [
            ({"about": "pattern", "subject": "overhead"}, "is not a pattern"),
            ({"about": "muscle", "subject": "elbow"}, "is not a muscle"),
            ({"about": "tempo", "subject": "fast", "least_s": 2}, "is not a phase of the tempo"),
            ({"about": "tempo", "subject": "lifting"}, "at least or at most"),
            ({"about": "movement", "subject": "Press", "least_s": 2}, "no other has seconds"),
            ({"about": "tempo", "subject": "lifting", "least_s": 2, "most_sets": 1}, "neither"),
            ({"lifted_on": "2026-10-06"}, "by a person"),
            ({"lifted_on": "2026-10-01", "lifted_by": "Runa"}, "before it began"),
        ],
    )
    def test_is_refused_in_words(self, wrong: dict[str, Any], says: str) -> None:
        base = {"about": "movement", "subject": "Press", "by": "Runa", "since": "2026-10-05"}
        with pytest.raises(ValidationError, match=says):
            Restriction.model_validate(base | wrong)


@pytest.mark.parametrize(
    ("limits", "words"),
    [
        ({"about": "pattern", "subject": "vertical_push"}, "no vertical push"),
        ({"about": "movement", "subject": "Press", "most_load_kg": 30}, "Press: at most 30 kg"),
        ({"about": "muscle", "subject": "abs", "most_sets": 6, "most_load_kg": 5},
         "abs: at most 6 sets a week, at most 5 kg"),
        ({"about": "tempo", "subject": "lifting", "least_s": 2},
         "lifting of the tempo: at least 2 s"),
    ],
)  # fmt: skip
def test_in_words(limits: dict[str, Any], words: str) -> None:
    one = Restriction.model_validate({"by": "Runa", "since": date(2026, 10, 5), **limits})
    assert one.words("kg") == words
