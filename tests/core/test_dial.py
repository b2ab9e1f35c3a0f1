"""The dial: lines, scaling, notches, differences."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import audit, audit_draft
from dialback.core.findings.difference import difference
from dialback.core.plans.dial import dial_range, dial_total, notches, scale
from dialback.core.plans.draft import as_draft, as_sessions
from tests.build import WEEK, book, session, sets
from tests.properties import tried


def plan(*counts: int) -> tuple:
    names = ("Press", "Row", "Squat", "Hinge", "Curl")
    lines = [sets(name, count, load_kg=20) for name, count in zip(names, counts, strict=False)]
    one = book(
        [session(-7, *lines)],
        [session(0, sets("Squat", warm_up=True), *lines, sets("Skip", reps=None, seconds=60))],
    )
    return one.ledger(), as_draft(one.planned, one.ledger().movements)


def test_a_draft_is_the_sessions_with_equal_sets_as_lines() -> None:
    one = book([], [session(0, sets("Press", 3), sets("Press", 2, reps=8), sets("Press"))])
    draft = as_draft(one.planned, one.ledger().movements)
    assert [line.count for line in draft[0].lines] == [3, 2, 1]
    assert as_sessions(draft) == one.planned


def circuit(rounds: int, *names: str, reps: int = 8, part: str = "A") -> list[dict]:
    return [
        {
            "exercise": name,
            "reps": reps,
            "round": number,
            "place": place,
            "part": part,
            "rest_s": None
            if (number, place) == (rounds, len(names))
            else (60 if place == len(names) else 20),
        }
        for number in range(1, rounds + 1)
        for place, name in enumerate(names, 1)
    ]


def with_circuit(rounds: int = 3) -> tuple:
    one = book(
        [session(-7, sets("Press", 4))],
        [
            session(
                0,
                sets("Squat", 4, load_kg=60),
                circuit(rounds, "Press", "Row", "Curl"),
                sets("Hinge", 2),
            )
        ],
    )
    return one.ledger(), one.planned, as_draft(one.planned, one.ledger().movements)


def test_a_circuit_is_one_line_and_turns_by_rounds() -> None:
    ledger, planned, draft = with_circuit()
    assert [line.count for line in draft[0].lines] == [4, 3, 2]
    assert as_sessions(draft) == planned
    # One more round copies the last one, with the rest between rounds before it.
    lines = draft[0].lines
    more = [draft[0].model_copy(update={"lines": (lines[1].model_copy(update={"count": 4}),)})]
    fourth = as_sessions(more)[0].sets
    assert [one.exercise for one in fourth] == ["Press", "Row", "Curl"] * 4
    assert [one.round for one in fourth[-3:]] == [4, 4, 4]
    assert [one.rest_s for one in fourth[2::3]] == [60, 60, 60, None]
    fewer = [draft[0].model_copy(update={"lines": (lines[1].model_copy(update={"count": 2}),)})]
    assert [one.rest_s for one in as_sessions(fewer)[0].sets[2::3]] == [60, None]
    assert dial_total(draft, ledger.movements) == 15


def test_a_ladder_keeps_its_rungs() -> None:
    rungs = [one | {"reps": 3 + one["round"]} for one in circuit(3, "Press", "Row")]
    one = book([], [session(0, rungs)])
    draft = as_draft(one.planned, one.ledger().movements)
    (line,) = draft[0].lines
    assert [one.reps for one in line.model_copy(update={"count": 2}).sets()] == [4, 4, 5, 5]
    assert [one.reps for one in line.model_copy(update={"count": 4}).sets()][-2:] == [6, 6]


@tried(60)
@given(st.integers(1, 5), st.integers(0, 40))
def test_the_dial_stops_where_whole_rounds_allow(rounds: int, total: int) -> None:
    ledger, _, draft = with_circuit(rounds)
    start = dial_total(draft, ledger.movements)
    assert scale(draft, start, ledger.movements) == draft
    least, most = dial_range(draft, ledger.movements)
    for toward, fits in (("up", total.__le__), ("down", total.__ge__)):
        stop = dial_total(scale(draft, total, ledger.movements, toward), ledger.movements)
        if least <= total <= most:
            assert fits(stop)
            assert abs(stop - total) <= 2
    # What the range holds can be reached, and nothing beyond is given.
    for end, toward in ((least, "up"), (most, "down")):
        assert dial_total(scale(draft, end, ledger.movements, toward), ledger.movements) == end
    rounds_now = [
        line for line in scale(draft, total, ledger.movements)[0].lines if line.kind == "rounds"
    ]
    assert all(line.count >= 1 for line in rounds_now)


def test_lines_of_no_sets_and_empty_days_fall_away() -> None:
    ledger, draft = plan(2)
    none = [day.model_copy(update={"lines": ()}) for day in draft]
    assert as_sessions(none) == ()
    assert dial_total(none, ledger.movements) == 0
    assert scale(none, 5, ledger.movements) == tuple(none)


COUNTS = st.lists(st.integers(1, 9), min_size=1, max_size=5)


@tried(60)
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


LINES = st.lists(
    st.tuples(
        st.integers(0, 3),
        st.sampled_from(("Press", "Row", "Squat", "Hinge", "Curl")),
        st.lists(st.sampled_from((4, 7, 9)), min_size=1, max_size=5),
        st.sampled_from((20, 60, 95)),
    ),
    min_size=1,
    max_size=6,
)


@tried(60)
@given(LINES, st.integers(0, 3))
def test_notches_are_those_of_an_audit_of_every_setting(
    lines: list[tuple[int, str, list[int], int]], rounds: int
) -> None:
    """Whatever is left out of a setting's audit: a line of easy and hard sets, a circuit."""
    days: dict[int, list] = {}
    for day, name, efforts, load in lines:
        days.setdefault(day, []).extend(sets(name, rpe=rpe, load_kg=load) for rpe in efforts)
    if rounds:
        days.setdefault(1, []).insert(0, circuit(rounds, "Curl", "Row"))
    plans = [session(day, *done) for day, done in sorted(days.items())]
    before = session(-7, sets("Press", 4, load_kg=50), sets("Row", 3), sets("Curl", 2))
    one = book([before], plans)
    ledger, draft = one.ledger(), as_draft(one.planned, one.ledger().movements)

    def keys(total: int) -> tuple[int, dict]:
        turned = scale(draft, total, ledger.movements)
        found = audit_draft(ledger, WEEK, as_sessions(turned)).findings
        return dial_total(turned, ledger.movements), {finding.key: finding for finding in found}

    start, here = keys(dial_total(draft, ledger.movements))
    least, most = dial_range(draft, ledger.movements)
    expected: dict = {}
    for total in sorted(range(least, most + 1), key=lambda total: abs(total - start)):
        stop, there = keys(total)
        for key in (here.keys() ^ there.keys()) - expected.keys():
            said = here.get(key) or there[key]
            expected[key] = (stop, "clears" if key in here else "appears", said.sentence)
    found = notches(ledger, WEEK, draft)
    told = {one.finding.key: (one.total, one.effect, one.finding.sentence) for one in found}
    assert told == expected


@pytest.mark.parametrize(("counts", "ends"), [((30, 20), (20, 80)), ((1,), (1, 4)), ((), (0, 0))])
def test_range(counts: tuple[int, ...], ends: tuple[int, int]) -> None:
    ledger, draft = plan(*counts)
    assert dial_range(draft, ledger.movements) == ends


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


def test_what_differs_in_exertion_and_rest_alone_is_one_line() -> None:
    heavier = [sets("Press", rpe=rpe, rest_s=rest) for rpe, rest in ((7, 90), (8, 90), (9, None))]
    one = book([], [session(0, *heavier, sets("Squat"))])
    draft = as_draft(one.planned, one.ledger().movements)
    assert [(line.count, len(line.units)) for line in draft[0].lines] == [(3, 3), (1, 1)]
    assert as_sessions(draft) == one.planned
    more = draft[0].lines[0].model_copy(update={"count": 4})
    assert [a_set.rpe for a_set in more.sets()] == [7, 8, 9, 9]


def test_left_and_right_in_turn_go_by_pairs() -> None:
    turns = [sets("Press", sides=side) for _ in range(3) for side in ("left", "right")]
    one = book([], [session(0, *turns)])
    (day,) = as_draft(one.planned, one.ledger().movements)
    (line,) = day.lines
    assert (line.kind, line.count, len(line.units)) == ("pairs", 3, 1)
    assert as_sessions([day]) == one.planned


ANY_SET = st.fixed_dictionaries(
    {
        "exercise": st.sampled_from(["Press", "Row"]),
        "reps": st.integers(5, 6),
        "sides": st.sampled_from(["both", "left", "right"]),
    },
    optional={
        "rpe": st.integers(7, 8),
        "rest_s": st.just(60),
        "round": st.integers(1, 2),
        "part": st.sampled_from(["A", "B"]),
    },
)


@tried(150)
@given(st.lists(ANY_SET, min_size=1, max_size=12))
def test_a_draft_that_was_not_turned_is_the_sessions(found: list[dict]) -> None:
    one = book([], [session(0, found)])
    assert as_sessions(as_draft(one.planned, one.ledger().movements)) == one.planned
