"""What the verdict and a proposal say: whole sets, loads that exist, plain words."""

import re
from itertools import combinations, islice, permutations
from random import Random

from hypothesis import given
from hypothesis import strategies as st

from dialback.core.adjusting import Options, Step, adjust, take
from dialback.core.adjusting.bundles import bundles
from dialback.core.adjusting.judged import Judge, weight_of
from dialback.core.adjusting.light import left_alone, light_kind, most_sets
from dialback.core.audit import audit_draft
from dialback.core.causes import causes
from dialback.core.rules import Rules
from dialback.core.undo import strayed_from_plan
from tests.build import WEEK, audited, book, remedy, session, sets
from tests.properties import tried

FREE = {"muscle_bands": {muscle: [0, 100] for muscle in Rules().muscle_bands}}
LAST = session(13, sets("Stretch"))


def told(plan: list[dict], *done: dict) -> dict[tuple[str, str], str]:
    result = audited(*done, LAST, planned=plan)
    return {(one.code, one.subject): one.sentence for one in strayed_from_plan(result)}


def test_what_happened_is_said_as_a_coach_would() -> None:
    plan = [session(0, sets("Press", 3, load_kg=40), sets("Row", 3, load_kg=40), title="Push day")]
    assert told(plan)["missed", "2026-10-05"] == "Push day of Monday was missed."
    short = session(0, sets("Press", 3, load_kg=40), sets("Row", 1, load_kg=40))
    assert told(plan, short)["short", "2026-10-05"] == "Monday was cut short: Row 2 sets not done."
    hurt = {**short, "pain": [{"exercise": "Row", "note": "left elbow"}]}
    assert told(plan, hurt)["pain", "2026-10-05"] == (
        "Something hurt on Monday at Row (“left elbow”); Row 2 sets not done."
    )
    curls = session(0, sets("Press", 3, load_kg=40), sets("Curl", 3, load_kg=10))
    assert told(plan, curls)["swapped", "Row"] == "Curl was done instead of Row (3 sets)."
    heavy = session(0, sets("Press", 3, load_kg=44), sets("Row", 3, load_kg=40))
    assert told(plan, heavy)["changed", "2026-10-05"] == (
        "Monday differed from the plan: Press: 44 kg instead of 40 kg (+10 %) (3 sets)."
    )
    more = session(0, sets("Press", 5, load_kg=40), sets("Row", 3, load_kg=40))
    assert told(plan, more)["extra", "2026-10-05"] == "Monday: Press 2 sets beyond the plan."


def test_a_remedy_is_whole_sets_and_loads_that_the_kit_has() -> None:
    kit = {"dumbbells_kg": [10, 12, 14, 16, 18, 20]}
    movements = [
        {
            "name": "Row",
            "pattern": "horizontal_pull",
            "kit": ["dumbbells"],
            "muscles": {"lats": "direct", "biceps": "indirect"},
        }
    ]
    weeks = [session(-7, sets("Row", 8, load_kg=16)), session(0, sets("Row", 11, load_kg=20))]
    result = audited(*weeks, exercises=movements, kit=kit, rules=FREE)
    by_code = {(one.code, one.subject): one for one in result.findings}
    step = by_code["load_step", "Row"]
    assert "(+4 kg, +25 %)" in step.sentence
    assert step.clears == "More reps at the old load first: the kit has nothing between."
    jump = by_code["jump", "total"]
    assert jump.measure in ("sets", "tut_s", "volume_load_kg")
    lats = by_code["jump", "lats"]
    assert "from 8 sets to 11 sets (+3 sets, +37.5 %)" in lats.sentence
    assert remedy(result, "jump", "lats") == "2 fewer sets of Row would be within the limit."


def test_a_cause_of_several_names_them_and_one_of_one_speaks_for_itself() -> None:
    result = audited(session(0, sets("Squat", 2)), rules={"balance_min_sets": 50})
    (cause,) = [one for one in causes(result) if one.code == "muscle_floor"]
    assert cause.sentence.startswith("Below the minimum: ")
    assert cause.sentence.endswith("more.")
    alone = audited(
        session(0, sets("Squat", 2)),
        rules={
            **FREE,
            "muscle_bands": {**FREE["muscle_bands"], "quads": [4, 20]},
            "balance_min_sets": 50,
        },
    )
    (cause,) = causes(alone)
    assert cause.sentence == alone.findings[-1].sentence


def test_a_proposal_says_what_each_change_is_for() -> None:
    plan = [session(0, sets("Press", 8), sets("Row", 4))]
    found = adjust(book([], plan, rules=FREE).ledger(), WEEK, Options(new_movements=0))
    assert found.changes
    for one in found.changes:
        assert one.because
        assert " on Monday: " in one.sentence
    assert any("push : pull from 2 to " in one.sentence for one in found.changes)


NOTHING: frozenset[tuple[str, str, str]] = frozenset()


class TestBundles:
    @tried(200)
    @given(st.integers(1, 6), st.randoms(use_true_random=False))
    def test_taken_in_any_order_none_makes_things_worse(self, count: int, chance: Random) -> None:
        every = frozenset(range(count))
        weights = {
            frozenset(some): chance.randrange(20)
            for size in range(count + 1)
            for some in combinations(range(count), size)
        }
        # What is proposed is no worse than the start.
        weights[every] = min(weights[every], weights[frozenset()])
        needs = [frozenset({("a", str(chance.randrange(3)), "b")}) for _ in range(count)]
        found = bundles(needs, weights.__getitem__)
        assert sorted(one for bundle in found for one in bundle) == sorted(every)
        for order in permutations(found):
            taken: frozenset[int] = frozenset()
            for bundle in order:
                assert weights[taken | bundle] <= weights[taken]
                taken |= bundle
        if len(found) > 1:
            # Each does something by itself.
            assert all(weights[bundle] < weights[frozenset()] for bundle in found)

    def test_changes_that_need_no_other_stand_alone(self) -> None:
        assert bundles([NOTHING] * 3, lambda taken: 9 - 3 * len(taken)) == tuple(
            frozenset({one}) for one in range(3)
        )

    def test_a_change_that_harms_alone_goes_with_the_one_that_helps(self) -> None:
        # The first raises what the third takes away.
        def weight(taken: frozenset[int]) -> int:
            return 9 - 3 * (1 in taken) - 3 * (2 in taken) + 5 * (0 in taken and 2 not in taken)

        assert bundles([NOTHING] * 3, weight) == (frozenset({0, 2}), frozenset({1}))

    def test_changes_that_do_it_only_together_go_together(self) -> None:
        # The first clears something by itself, the others one thing between the three of them.
        def weight(taken: frozenset[int]) -> int:
            return 6 - 3 * (0 in taken) - 3 * ({1, 2, 3} <= taken)

        same = frozenset({("balance", "push_pull", "sets")})
        assert bundles([NOTHING, same, same, same], weight) == (
            frozenset({0}),
            frozenset({1, 2, 3}),
        )

    @tried(4)
    @given(
        st.lists(
            st.tuples(st.integers(1, 7), st.integers(1, 7), st.integers(0, 5)),
            min_size=2,
            max_size=3,
        )
    )
    def test_the_changes_of_a_proposal_can_be_taken_bundle_by_bundle(self, days: list) -> None:
        plan = [
            session(2 * at, sets("Press", a), sets("Row", b), sets("Curl", c))
            for at, (a, b, c) in enumerate(days)
        ]
        ledger = book([], plan).ledger()
        found = adjust(ledger, WEEK, Options(seconds=20, ladder=False))
        judge = Judge(ledger, WEEK, found.start)
        together: dict[int, list[Step]] = {}
        for one in found.changes:
            step = Step(one.session, one.line, one.movement, one.count_to)
            together.setdefault(one.bundle, []).append(step)
        for order in islice(permutations(together.values()), 12):
            steps: list[Step] = []
            before = weight_of(judge.at_start)
            for bundle in order:
                steps += bundle
                after = weight_of(judge.of(take(ledger, WEEK, found.start, steps)))
                assert after <= before
                before = after
        for one in found.changes:
            assert one.reason
            assert not re.search(r"from (\S+) to \1(?!\S)", one.reason)


def test_a_lighter_week_stays_light() -> None:
    full = [
        session(7 * back + day, sets("Press", 6), sets("Row", 6))
        for back in (-3, -2, -1)
        for day in (0, 3)
    ]
    light = [session(0, sets("Press", 4)), session(3, sets("Row", 2))]
    ledger = book(full, light).ledger()
    drafted = audit_draft(ledger, WEEK, tuple(ledger.source.week("planned", WEEK)))
    assert light_kind(drafted) == "lighter"
    assert any(one.code == "balance" for one in drafted.findings)
    held = Options(
        accepted=frozenset(left_alone(drafted)), most_sets=most_sets(drafted), ladder=False
    )
    assert adjust(ledger, WEEK, held).changes == ()
    # As an ordinary week it would be filled up.
    assert adjust(ledger, WEEK, Options(ladder=False)).changes
    marked = book(full, full[:2], kinds=[{"week": str(WEEK), "kind": "overreach"}]).ledger()
    assert (
        most_sets(audit_draft(marked, WEEK, marked.source.week("completed", WEEK.plus(-1)))) is None
    )
