"""What the dial can be put on besides the week: a subject, a pair, load, rest, tempo."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import audit_draft
from dialback.core.plans.dial import dial_total
from dialback.core.plans.draft import as_draft, as_sessions
from dialback.core.plans.turning import Subject, subjects, turning
from tests.build import MONDAY, WEEK, book, session, sets
from tests.properties import tried

NOBODY: frozenset = frozenset()


def two_days(**more: object) -> tuple:
    one = book(
        [session(-7, sets("Press", 4), sets("Row", 4))],
        [
            session(
                0,
                sets("Press", 1, warm_up=True, load_kg=20),
                sets("Press", 4, load_kg=40, rest_s=90),
                sets("Row", 3, load_kg=50),
                sets("Squat", 3, load_kg=60),
            ),
            session(
                2,
                sets("Press-up", 3, reps=12),
                sets("Curl", 2, load_kg=10),
                sets("Skip", reps=None, seconds=60),
            ),
        ],
        **more,
    )
    return one.ledger(), as_draft(one.planned, one.ledger().movements)


def counts(draft: tuple) -> list[list[int]]:
    return [[line.count for line in day.lines] for day in draft]


def test_what_there_is_to_turn() -> None:
    ledger, draft = two_days()
    found = [(one.kind, one.name) for one in subjects(ledger, draft, NOBODY)]
    assert found[0] == ("week", "")
    for there in (
        ("part", "upper body"),
        ("pair", "push_pull"),
        ("load", ""),
        ("rest", ""),
        ("pattern", "squat"),
        ("muscle", "chest"),
        ("movement", "Curl"),
    ):
        assert there in found
    for missing in (("movement", "Skip"), ("part", "trunk"), ("pair", "knee_hip")):
        assert missing not in found
    # What stands on days that are over turns no more.
    later = [(one.kind, one.name) for one in subjects(ledger, draft, frozenset({MONDAY}))]
    assert ("movement", "Squat") not in later
    assert ("movement", "Curl") in later


@pytest.mark.parametrize(
    ("subject", "start", "setting", "expected"),
    [
        (Subject("movement", "Press"), 4, 6, [[1, 6, 3, 3], [3, 2, 1]]),
        (Subject("pattern", "horizontal_push"), 7, 9, [[1, 5, 3, 3], [4, 2, 1]]),
        (Subject("part", "lower body"), 3, 2, [[1, 4, 3, 2], [3, 2, 1]]),
        (Subject("muscle", "biceps"), 2, 3, [[1, 4, 3, 3], [3, 3, 1]]),
        (Subject("week"), 15, 15, [[1, 4, 3, 3], [3, 2, 1]]),
    ],
)
def test_sets_of_a_subject(
    subject: Subject, start: int, setting: int, expected: list[list[int]]
) -> None:
    ledger, draft = two_days()
    dial = turning(ledger, draft, NOBODY, subject)
    assert (dial.start, dial.unit) == (start, "sets")
    turned = dial.at(setting)
    assert counts(turned) == expected
    assert dial.reading(turned) == setting


def test_a_pair_turns_at_equal_sets() -> None:
    ledger, draft = two_days()
    dial = turning(ledger, draft, NOBODY, Subject("pair", "push_pull"))
    assert (dial.start, dial.whole) == (7, 12)
    for setting in range(dial.least, dial.most + 1):
        turned = dial.at(setting)
        assert dial.reading(turned) == setting
        assert dial_total(turned, ledger.movements) == dial_total(draft, ledger.movements)


def test_a_load_goes_to_what_the_kit_has() -> None:
    ledger, draft = two_days()
    free = turning(ledger, draft, NOBODY, Subject("load"))
    assert free.at(0) == draft
    lines = free.at(2)[0].lines
    # Five per cent more; a warm-up stays as it is.
    assert [line.unit[0].load_kg for line in lines] == [20, 42, 52.5, 63]
    stacks = [
        {"name": "press tower", "least_kg": 10, "step_kg": 10, "top_kg": 60, "movements": ["Press"]}
    ]
    ledger, draft = two_days(kit={"stacks": stacks})
    held = turning(ledger, draft, NOBODY, Subject("load"))
    assert held.at(3)[0].lines[1].unit[0].load_kg == 40
    assert held.at(8)[0].lines[1].unit[0].load_kg == 40
    assert held.at(-3)[0].lines[1].unit[0].load_kg == 30


def test_rest_and_tempo() -> None:
    ledger, draft = two_days()
    rest = turning(ledger, draft, NOBODY, Subject("rest"))
    assert rest.at(2)[0].lines[1].unit[0].rest_s == 120
    assert rest.at(rest.least)[0].lines[1].unit[0].rest_s == 30
    assert rest.at(2)[0].lines[2].unit[0].rest_s is None
    tempo = turning(ledger, draft, NOBODY, Subject("tempo"))
    assert tempo.at(1)[0].lines[1].unit[0].tempo == "4-0-1-0"
    # Without any tempo there is nothing to slow down.
    assert tempo.at(1)[0].lines[2].unit[0].tempo is None


def test_fixed_days_stay_whatever_turns() -> None:
    ledger, draft = two_days()
    fixed = frozenset({MONDAY})
    for subject in subjects(ledger, draft, fixed):
        dial = turning(ledger, draft, fixed, subject)
        for setting in (dial.least, dial.most):
            assert dial.at(setting)[0] == draft[0]


def test_nothing_of_that_name() -> None:
    ledger, draft = two_days()
    for subject in (Subject("pair", "up_down"), Subject("movement", "Nobody")):
        with pytest.raises(LookupError):
            turning(ledger, draft, NOBODY, subject)


@tried(25)
@given(
    st.sampled_from(("load", "rest", "tempo", "push_pull", "Press", "chest")),
    st.integers(1, 5),
    st.integers(1, 5),
)
def test_notches_are_where_a_setting_changes_what_is_found(what: str, a: int, b: int) -> None:
    one = book(
        [session(-7, sets("Press", 3, load_kg=40), sets("Row", 3, load_kg=40))],
        [session(0, sets("Press", a, load_kg=40, rest_s=60), sets("Row", b, load_kg=40))],
    )
    ledger = one.ledger()
    draft = as_draft(one.planned, ledger.movements)
    kinds = {"push_pull": "pair", "Press": "movement", "chest": "muscle"}
    subject = Subject(kinds.get(what, what), what if what in kinds else "")  # type: ignore[arg-type]
    dial = turning(ledger, draft, NOBODY, subject)

    def keys(setting: int) -> set:
        found = audit_draft(ledger, WEEK, as_sessions(dial.at(setting))).findings
        return {finding.key for finding in found}

    here = keys(dial.start)
    for notch in dial.notches(ledger, WEEK):
        clears = notch.effect == "clears"
        assert (notch.finding.key in here) == clears
        assert (notch.finding.key in keys(notch.total)) != clears
        nearer = notch.total + (1 if notch.total < dial.start else -1)
        assert (notch.finding.key in keys(nearer)) == clears
