"""What holds for every book."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.book.audit_document import audit_document
from dialback.book.book import read_book, write_book
from dialback.book.errors import BadInputError
from dialback.core.audit import audit
from dialback.core.tally import trail
from tests.build import MOVEMENTS, WEEK, as_bytes, audited, book, document, session
from tests.properties import tried

NAMES = st.sampled_from([one["name"] for one in MOVEMENTS])
TEMPI = st.sampled_from(["2-0-1-0", "3-1-2", "40X1", "10-0-1-0"])


@st.composite
def a_set(draw: Any) -> dict[str, Any]:
    one: dict[str, Any] = {}
    if draw(st.integers(0, 4)):
        one["exercise"] = draw(NAMES)
    else:
        one["moves"] = [
            {"exercise": name, "times": draw(st.integers(1, 3))}
            for name in draw(st.lists(NAMES, min_size=1, max_size=3))
        ]
    if draw(st.booleans()):
        one["reps"] = draw(st.integers(0, 30))
        if "exercise" in one and draw(st.booleans()):
            one["partial_reps"] = draw(st.integers(0, one["reps"]))
    if "reps" not in one or draw(st.booleans()):
        one["seconds"] = draw(st.integers(1, 120))
    optional = {
        "load_kg": st.integers(-20, 150),
        "implements": st.integers(1, 2),
        "sides": st.sampled_from(["both", "each", "alternating", "left", "right"]),
        "tempo": TEMPI,
        "hold_s": st.integers(0, 20),
        "rpe": st.integers(4, 10),
        "warm_up": st.booleans(),
    }
    for key, values in optional.items():
        if draw(st.booleans()):
            one[key] = draw(values)
    return one


SETS = st.lists(a_set(), max_size=12)
RULES = st.fixed_dictionaries(
    {},
    optional={
        "indirect_credit": st.sampled_from([0, 0.5, 1]),
        "hard_set_rpe": st.sampled_from([None, 6, 7]),
        "count_warm_ups": st.booleans(),
        "each_side_reps": st.sampled_from(["per_side", "total"]),
        "tension": st.sampled_from(["whole_rep", "moving"]),
        "bodyweight_load": st.booleans(),
        "partial_rep_credit": st.sampled_from([0, 0.5, 1]),
        "estimate_reps": st.booleans(),
        "push_pull_scope": st.sampled_from(["all", "compound"]),
        "balance_measure": st.sampled_from(["sets", "reps", "volume_load_kg", "tut_s"]),
        "baseline": st.sampled_from(["mean_4", "last_week", "ewma"]),
    },
)


def close(one: dict[str, float], two: dict[str, float]) -> None:
    assert one.keys() == two.keys()
    for key, value in one.items():
        assert two[key] == pytest.approx(value, abs=1e-6), key


@tried(60)
@given(SETS, RULES)
def test_the_trail_of_every_figure_sums_to_it(several: list, rules: dict) -> None:
    result = audited(session(0, several[:6]), session(2, several[6:]), rules=rules)
    for figure, value in result.tally.items():
        behind = trail(result.entries, figure)
        assert sum(one.credit for one in behind) == pytest.approx(value, abs=1e-6), figure


@tried(60)
@given(SETS, RULES, st.integers(0, 12), st.randoms(use_true_random=False))
def test_neither_order_nor_splitting_a_session_changes_a_sum(
    several: list, rules: dict, cut: int, chance: Any
) -> None:
    whole = audited(session(1, several), rules=rules)
    shuffled = list(several)
    chance.shuffle(shuffled)
    split = audited(session(1, shuffled[:cut]), session(1, shuffled[cut:]), rules=rules)
    close(dict(whole.tally), dict(split.tally))
    # What is judged session by session, and by its order, may differ.
    by_session = {"order", "no_warm_up"}
    keys = (
        {one.key for one in result.findings if one.code not in by_session}
        for result in (whole, split)
    )
    assert next(keys) == next(keys)


@tried(60)
@given(a_set(), RULES)
def test_left_plus_right_equals_each(one: dict, rules: dict) -> None:
    halves = [{**one, "sides": side} for side in ("left", "right")]
    apart = dict(audited(session(0, halves), rules=rules).tally)
    each = dict(audited(session(0, [{**one, "sides": "each"}]), rules=rules).tally)
    for counted in ("estimated_rep_sets", "assumed_tempo_sets"):
        # Two entries in the log are two; what was done is the same.
        apart.pop(f"totals/{counted}", None)
        each.pop(f"totals/{counted}", None)
    close(apart, each)


@tried(60)
@given(SETS, RULES)
def test_totals_agree_with_their_parts(several: list, rules: dict) -> None:
    result = audited(session(0, several), rules=rules)
    for measure in ("reps", "volume_load_kg", "tut_s"):
        parts = sum(result.value(f"patterns/{name}/{measure}") for name in result.patterns)
        assert parts == pytest.approx(result.value(f"totals/{measure}"), abs=1e-6)
    assert result.value("totals/sets") <= len(several)
    assert all(value >= 0 for value in result.tally.values())


UNTOUCHED = [
    ("tension", "moving", {"tempo": "2-0-1-0"}),
    ("each_side_reps", "total", {"sides": "both"}),
    ("partial_rep_credit", 0, {"partial_reps": 0}),
    ("count_warm_ups", True, {"warm_up": False}),
    ("hard_set_rpe", 7, {"rpe": 8}),
    ("estimate_reps", False, {"reps": 8}),
]


@tried(80)
@given(a_set(), st.sampled_from(UNTOUCHED))
def test_a_rule_that_does_not_touch_a_set_changes_nothing(one: dict, case: tuple) -> None:
    rule, value, keys = case
    plain = {**one, **keys}
    if plain.get("partial_reps", 0) > plain.get("reps", 0) or "moves" in plain:
        plain.pop("partial_reps", None)
    close(
        dict(audited(session(0, [plain])).tally),
        dict(audited(session(0, [plain]), rules={rule: value}).tally),
    )


@tried(40)
@given(SETS, SETS, RULES)
def test_a_book_that_was_written_reads_and_audits_the_same(
    before: list, now: list, rules: dict
) -> None:
    first = book([session(-7, before), session(0, now)], [session(1, now)], rules=rules)
    second = read_book(write_book(first))
    for basis in ("planned", "completed"):
        one, two = (audit_document(audit(b.ledger(), WEEK, basis), "") for b in (first, second))
        assert one == two
    assert write_book(second) == write_book(first)


JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=5),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=5), inner, max_size=3)
    ),
    max_leaves=6,
)
KEYS = st.sampled_from(["athlete", "exercises", "rules", "planned", "completed", "version"])


@tried(150)
@given(JSON, KEYS)
def test_nothing_in_a_book_crashes_the_reader(value: Any, key: str) -> None:
    line = "read"
    try:
        read_book(as_bytes({**document(), key: value}))
    except BadInputError as error:
        line = error.line
    assert line
    assert "\n" not in line
