"""The dial: lines, scaling, notches, differences."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dialback.core.adjust import (
    as_draft,
    as_sessions,
    dial_range,
    dial_total,
    difference,
    notches,
    scale,
)
from dialback.core.audit import audit, audit_draft
from tests.build import WEEK, book, session, sets


def plan(*counts: int) -> tuple:
    names = ("Press", "Row", "Squat", "Hinge", "Curl")
    lines = [sets(name, count, load_kg=20) for name, count in zip(names, counts, strict=False)]
    one = book([session(-7, *lines)], [session(0, sets("Squat", warm_up=True), *lines,
                                               sets("Skip", reps=None, seconds=60))])  # fmt: skip
    return one.ledger(), as_draft(one.planned)


def test_a_draft_is_the_sessions_with_equal_sets_as_lines() -> None:
    one = book([], [session(0, sets("Press", 3), sets("Press", 2, reps=8), sets("Press"))])
    draft = as_draft(one.planned)
    assert [line.count for line in draft[0].lines] == [3, 2, 1]
    assert as_sessions(draft) == one.planned


def test_lines_of_no_sets_and_empty_days_fall_away() -> None:
    ledger, draft = plan(2)
    none = [day.model_copy(update={"lines": ()}) for day in draft]
    assert as_sessions(none) == ()
    assert dial_total(none, ledger.movements) == 0
    assert scale(none, 5, ledger.movements) == tuple(none)


COUNTS = st.lists(st.integers(1, 9), min_size=1, max_size=5)


@settings(max_examples=60, deadline=None)
@given(COUNTS, st.integers(0, 60))
def test_scaling(counts: list[int], total: int) -> None:
    ledger, draft = plan(*counts)
    scaled = scale(draft, total, ledger.movements)
    start = dial_total(draft, ledger.movements)
    assert start == sum(counts)
    assert dial_total(scaled, ledger.movements) == max(total, len(counts))
    assert scale(draft, start, ledger.movements) == draft
    # One step of the dial is one set in one line, never a swap.
    more = scale(draft, total + 1, ledger.movements)
    steps = [two.count - one.count for one, two in zip(scaled[0].lines, more[0].lines, strict=True)]
    assert sorted(steps)[:-1] == [0] * (len(steps) - 1)
    # Warm-ups and conditioning do not turn.
    assert scaled[0].lines[0].count == scaled[0].lines[-1].count == 1


def test_notches_are_where_findings_clear_and_appear() -> None:
    ledger, draft = plan(4, 4, 4)
    start = dial_total(draft, ledger.movements)
    here = {one.key for one in audit_draft(ledger, WEEK, as_sessions(draft)).findings}
    found = notches(ledger, WEEK, draft)
    assert {one.effect for one in found} == {"clears", "appears"}
    for one in found:

        def keys(total: int) -> set:
            scaled = as_sessions(scale(draft, total, ledger.movements))
            return {finding.key for finding in audit_draft(ledger, WEEK, scaled).findings}

        towards = one.total + (1 if one.total < start else -1)
        assert (one.finding.key in here) == (one.effect == "clears")
        assert (one.finding.key in keys(one.total)) == (one.effect == "appears")
        assert (one.finding.key in keys(towards)) == (one.effect == "clears")


@pytest.mark.parametrize(("total", "ends"), [(50, (20, 80)), (1, (1, 2)), (0, (1, 1))])
def test_range(total: int, ends: tuple[int, int]) -> None:
    assert dial_range(total) == ends


def test_difference() -> None:
    ledger, draft = plan(6, 4)
    before = audit(ledger, WEEK, "planned").findings
    after = audit_draft(ledger, WEEK, as_sessions(scale(draft, 20, ledger.movements))).findings
    changed = difference(before, after)
    old, new = {one.key for one in before}, {one.key for one in after}
    assert {one.key for one in changed.cleared} == old - new
    assert {one.key for one in changed.appeared} == new - old
    levels = {one.key: one.level for one in before}
    assert all(levels[one.key] != one.level for one in changed.changed)
    nothing = difference(before, before)
    assert not nothing.cleared + nothing.appeared + nothing.changed


def test_drafts_leave_nothing_behind_in_a_ledger() -> None:
    ledger, draft = plan(4, 4)
    audit_draft(ledger, WEEK, as_sessions(draft))
    before = len(ledger._measured)
    for count in range(1, 20):
        fresh = plan(count)[1]
        audit_draft(ledger, WEEK, as_sessions(fresh))
    assert len(ledger._measured) == before
