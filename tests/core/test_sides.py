"""Left and right, upper and lower; load, monotony, strain and density: by hand and by property."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.book.audit_document import audit_document
from dialback.core.sides import left_right
from tests.build import WEEK, audited, session, sets


def test_what_each_side_did() -> None:
    done = session(
        0,
        sets("Row", reps=8, load_kg=20, sides="left", rpe=8),
        sets("Row", reps=6, load_kg=20, sides="right", rpe=8),
        sets("Row", reps=5, load_kg=10, sides="each", rpe=8),
        sets("Row", reps=4, load_kg=10, sides="alternating", rpe=8),
        sets("Row", reps=9, load_kg=50, rpe=8),
        sets("Press", reps=9, load_kg=10, sides="each", rpe=8),
    )
    found = left_right(audited(done).entries)
    # Each: 5 and 50 kg to both; alternating: 2 and 20 kg to both; the press has no side of its own.
    assert found["sets"] == (0.5 + 0.5 + 0.5, 0.5 + 0.5 + 0.5)
    assert found["reps"] == (8 + 5 + 2, 6 + 5 + 2)
    assert found["volume_load_kg"] == (160 + 50 + 20, 120 + 50 + 20)
    assert found["tut_s"] == (3 * 15, 3 * 13)


@given(
    st.lists(
        st.tuples(st.sampled_from(["left", "right", "each", "alternating"]), st.integers(1, 12)),
        min_size=1,
        max_size=6,
    )
)
def test_in_the_mirror_the_sides_change_places(work: list[tuple[str, int]]) -> None:
    mirror = {"left": "right", "right": "left"}
    one, other = (
        left_right(
            audited(
                session(
                    0, *(sets("Row", reps=reps, load_kg=10, sides=side) for side, reps in several)
                )
            ).entries
        )
        for several in (work, [(mirror.get(side, side), reps) for side, reps in work])
    )
    for measure, (a, b) in one.items():
        assert other[measure] == pytest.approx((b, a))


def test_upper_and_lower_count_a_set_once() -> None:
    both = {"moves": [{"exercise": "Squat"}, {"exercise": "Press"}], "reps": 5, "load_kg": 10}
    curls = sets("Curl", 2, reps=10)
    document = audit_document(audited(session(0, [both], curls)), "Ada")
    sides = document["balance"]["upper_lower"]
    assert sides["sets"] == {"a": 3, "b": 1, "ratio": 3}
    assert sides["volume_load_kg"] == {"a": 50, "b": 50, "ratio": 1}


def test_loads_monotony_strain_and_density() -> None:
    days = [
        session(day, sets("Press", 2, load_kg=10, rest_s=60), rpe=rpe, duration_min=30)
        for day, rpe in ((0, 6), (2, 8))
    ]
    found = audit_document(audited(*days), "Ada")["sessions"]
    assert found["load"] == 180 + 240
    # Seven days of 180, 0, 240 and noughts: mean 60, deviation 96.21.
    assert found["monotony"] == pytest.approx(60 / 96.2140, abs=1e-4)
    assert found["strain"] == pytest.approx(found["monotony"] * 420, abs=0.05)
    # 400 kg in 160 s of work and 240 s of rest.
    assert found["density_kg_min"] == pytest.approx(400 / (400 / 60))
    bare = audit_document(audited(days[0], session(3, sets("Press"))), "Ada")["sessions"]
    assert (bare["load"], bare["monotony"], bare["strain"]) == (180, None, None)
    assert str(WEEK) == "2026-W41"
