"""Causes: each finding in one, and what is undone is really gone."""

from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import Audit, audit, audit_draft
from dialback.core.causes import Cause, causes
from dialback.core.findings import BY_CODE
from dialback.core.schools import under_schools
from dialback.core.undo import new_sessions, strayed_from_plan
from tests.build import WEEK, audited, book, remedy, restricted, session, sets
from tests.properties import tried


def named(result: Audit) -> dict[tuple[str, str], Cause]:
    return {(one.code, one.subject): one for one in causes(result)}


def keys(cause: Cause) -> set[tuple[str, str, str]]:
    return {one.key for one in cause.explains}


WEEKS = [
    [sets("Press", 8, load_kg=40, rpe=8), sets("Row", 8, load_kg=40, rpe=8)],
    [sets("Squat", 8, load_kg=60, rpe=8), sets("Hinge", 8, load_kg=60, rpe=8)],
]
BEFORE = [
    session(-7 * back + day, *WEEKS[at], title=f"Day {at}")
    for back in (1, 2, 3)
    for at, day in enumerate((0, 3))
]
PLAN = [session(day, *WEEKS[at], title=f"Day {at}") for at, day in enumerate((0, 3))]
LAST = session(13, sets("Stretch"))
"""Something done later, so that the whole week's plan is due."""


def week(*done: dict, **more: Any) -> Audit:
    return audited(*BEFORE, *done, LAST, planned=PLAN, **more)


def test_a_missed_day_explains_what_follows_from_it() -> None:
    found = named(week(PLAN[0]))
    missed = found["missed", "2026-10-08"]
    assert {
        ("missed", "2026-10-08", "sets"),
        ("muscle_floor", "quads", "sets"),
        ("carry_over", "total", "movements"),
    } <= keys(missed)
    # What the plan itself lacks is not the missed day's.
    assert ("muscle_floor", "calves", "sets") not in keys(missed)
    assert missed.sentence == "Day 1 of Thursday was missed."


def test_what_hurt_takes_what_was_skipped() -> None:
    short = session(
        3,
        sets("Squat", 8, load_kg=60, rpe=8),
        title="Day 1",
        pain=[{"exercise": "Hinge", "note": "back"}],
    )
    found = named(week(PLAN[0], short))
    assert ("pain", "Hinge", "sets") in keys(found["pain", "2026-10-08"])
    assert ("muscle_floor", "hamstrings", "sets") in keys(found["pain", "2026-10-08"])
    assert ("short", "2026-10-08") not in found
    calm = session(3, sets("Squat", 8, load_kg=60, rpe=8), title="Day 1")
    assert ("muscle_floor", "hamstrings", "sets") in keys(
        named(week(PLAN[0], calm))["short", "2026-10-08"]
    )
    # A word of pain is a cause even where nothing was skipped.
    whole = session(3, *WEEKS[1], title="Day 1", pain=[{"note": "knee"}])
    assert keys(named(week(PLAN[0], whole))["pain", "2026-10-08"]) == {("pain", "session", "sets")}


def test_swaps_extras_and_other_loads_are_told_apart() -> None:
    swapped = session(
        0, sets("Press", 8, load_kg=40, rpe=8), sets("Pull-up", 8, rpe=8), title="Day 0"
    )
    assert ("swapped", "Row", "sets") in keys(named(week(swapped, PLAN[1]))["swapped", "Row"])
    more = session(0, *WEEKS[0], sets("Press", 8, load_kg=40, rpe=8), title="Day 0")
    extra = named(week(more, PLAN[1]))["extra", "2026-10-05"]
    assert ("balance", "horizontal_push_pull", "sets") in keys(extra)
    heavy = session(3, sets("Squat", 8, load_kg=70, rpe=8), WEEKS[1][1], title="Day 1")
    changed = named(week(PLAN[0], heavy))["changed", "2026-10-08"]
    assert ("load_step", "Squat", "load_kg") in keys(changed)
    alone = named(week(*PLAN, session(5, sets("Squat", 8, load_kg=60, rpe=8))))
    assert alone["extra", "2026-10-10"].sentence == "Saturday: a session without a plan."


def test_what_only_several_things_explain_is_told_with_them() -> None:
    short = session(
        0, sets("Press", 8, load_kg=40, rpe=8), sets("Row", 5, load_kg=40, rpe=8), title="Day 0"
    )
    more = session(5, sets("Press", 8, load_kg=40, rpe=8), title="More")
    found = named(week(short, PLAN[1], more))["together", "week"]
    assert ("balance", "horizontal_push_pull", "sets") in keys(found)
    assert found.sentence.startswith("Several things at once. ")
    assert "Monday was cut short: Row" in found.sentence
    assert "Saturday: More without a plan." in found.sentence


def test_a_week_as_planned_has_only_causes_of_plan_break_or_jump() -> None:
    codes = {one.code for one in causes(week(*PLAN))}
    assert codes
    assert not codes & {"pain", "missed", "swapped", "extra", "short", "changed", "together"}


def test_a_new_session_and_a_new_block() -> None:
    sprint = session(5, sets("Squat", 6, load_kg=60, rpe=8), title="Sprint")
    result = audited(*BEFORE, *PLAN, sprint)
    (new,) = new_sessions(result)
    assert (new.code, new.subject) == ("session", "2026-10-10")
    assert ("jump", "quads", "sets") in keys(named(result)["session", "2026-10-10"])
    arms = [session(day, sets("Curl", 9), title="Arms") for day in (1, 4)]
    block = audited(*BEFORE, PLAN[0], *arms)
    assert not list(new_sessions(block))


def test_a_return_explains_the_jumps_over_a_thin_baseline() -> None:
    light = [session(-28, sets("Squat", 2, load_kg=40, rpe=8))]
    usual = [session(-7 * back, sets("Squat", 10, load_kg=60, rpe=8)) for back in (7, 6, 5)]
    now = session(0, sets("Squat", 6, load_kg=60, rpe=8))
    found = named(audited(*usual, *light, now))["return", "total"]
    assert {
        ("return", "total", "sets"),
        ("jump", "total", "sets"),
        ("load_step", "Squat", "load_kg"),
    } <= keys(found)
    # Without the break there is no return.
    between = [session(-14, sets("Squat", 8, load_kg=60, rpe=8))]
    assert ("return", "total") not in named(audited(*usual, *light, *between, now))


def test_a_jump_of_the_whole_week_explains_its_muscles() -> None:
    before = [session(-7, sets("Press", 8), sets("Row", 8), sets("Squat", 8), sets("Hinge", 8))]
    now = session(0, sets("Press", 12), sets("Row", 12), sets("Squat", 12), sets("Hinge", 12))
    found = named(audited(*before, now))["jump", "total"]
    assert ("jump", "total", "sets") in keys(found)
    assert all(one.code == "jump" for one in found.explains)


def test_what_says_the_same_is_folded_under_the_pair() -> None:
    result = audited(session(0, sets("Press", 12)), planned=[])
    push = named(result)["balance", "push_pull"]
    assert {
        ("balance", "push_pull", "sets"),
        ("balance", "horizontal_push_pull", "sets"),
        ("muscle_floor", "upper_back", "sets"),
        ("muscle_floor", "biceps", "sets"),
    } <= keys(push)
    assert ("muscle_floor", "quads", "sets") in keys(named(result)["muscle_floor", "week"])


def test_what_a_restriction_means_to_be_so() -> None:
    spared = restricted(
        {"about": "pattern", "subject": "vertical_push"}, {"about": "muscle", "subject": "calves"}
    )
    result = audited(session(0, sets("Pull-up", 8), sets("Press", 6)), athlete=spared)
    found = named(result)
    assert keys(found["restriction", "vertical_push"]) == {
        ("balance", "vertical_push_pull", "sets")
    }
    assert keys(found["restriction", "calves"]) == {("muscle_floor", "calves", "sets")}
    said = remedy(result, "muscle_floor", "calves")
    assert "more" not in said
    assert "restriction" in said


def test_a_school_changes_its_own_rules_and_no_other() -> None:
    ledger = book(
        [session(0, sets("Press", 6), sets("Row", 6))],
        rules={"indirect_credit": 0, "hard_set_rpe": 8},
    ).ledger()
    found = under_schools(ledger, WEEK, "completed")
    assert list(found) == ["balanced", "pull-biased", "direct only", "everything counts"]
    assert found["balanced"].ledger.rules.indirect_credit == 0.5
    assert found["pull-biased"].ledger.rules.balance_bands["push_pull"] == (0.5, 0.9)
    assert all(one.ledger.rules.hard_set_rpe == 8 for one in found.values())
    triceps = ("muscle_floor", "triceps", "sets", "high")
    assert triceps in {(*one.key, one.level) for one in found["direct only"].findings}


NAMES = ("Press", "Row", "Squat", "Hinge", "Curl", "Pull-up")
A_SET = st.builds(
    lambda name, reps, load, rpe: {"exercise": name, "reps": reps, "load_kg": load, "rpe": rpe},
    st.sampled_from(NAMES),
    st.integers(3, 15),
    st.sampled_from([0, 20, 40, 60]),
    st.sampled_from([5, 7, 8, 10]),
)
A_DAY = st.lists(A_SET, min_size=1, max_size=8)
A_WEEK = st.dictionaries(st.integers(0, 6), A_DAY, max_size=4)


def dated(days: dict[int, list], back: int = 0) -> list[dict]:
    return [session(day - 7 * back, several, title=f"Day {day}") for day, several in days.items()]


@tried(60)
@given(A_WEEK, A_WEEK, A_WEEK, st.booleans())
def test_every_finding_is_in_one_cause_and_undoing_it_clears_it(
    before: dict, planned: dict, done: dict, gap: bool
) -> None:
    result = audited(*dated(before, 4 if gap else 1), *dated(done), LAST, planned=dated(planned))
    told = [key for cause in causes(result) for key in keys(cause)]
    assert len(told) == len(set(told))
    wanted = {
        one.key
        for one in result.findings
        if one.level != "note" and BY_CODE[one.code].cause != "none"
    }
    assert wanted <= set(told)
    weights = [one.weight for one in causes(result)]
    assert weights == sorted(weights, reverse=True)
    # What a cause of the plan explains is not raised by a book in which it did not happen.
    for undone in [*strayed_from_plan(result), *new_sessions(result)]:
        cause = named(result).get((undone.code, undone.subject))
        if cause is None:
            continue
        sessions = [one.model_dump(mode="json", exclude_defaults=True) for one in undone.sessions]
        again = audit(
            book([*dated(before, 4 if gap else 1), *sessions, LAST], dated(planned)).ledger(), WEEK
        )
        # Whether the week is lighter is judged once, of the week as it was.
        if again.in_hand.lighter == result.in_hand.lighter:
            own = {"pain", "missed", "swapped"}
            left = {one.key for one in again.findings if one.code not in own}
            assert not left & keys(cause)


def test_drafts_leave_nothing_behind_in_the_ledger() -> None:
    ledger = book(BEFORE, PLAN).ledger()
    drafts = [book([], [session(0, sets("Press", count))]).planned for count in range(3, 9)]
    sizes = []
    for one in drafts:
        assert causes(audit_draft(ledger, WEEK, one))
        sizes.append(len(ledger.kept))
    assert len(set(sizes)) == 1
