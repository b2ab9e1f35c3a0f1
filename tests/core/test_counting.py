"""Counting a set, by worked examples."""

import pytest

from tests.build import audited, session, sets


def values(*lines: list[dict], rules: dict | None = None) -> dict[str, float]:
    result = audited(session(0, *lines), rules=rules)
    return {
        name: result.value(f"totals/{name}")
        for name in ("sets", "reps", "volume_load_kg", "tut_s", "work_s", "conditioning_s")
    }


@pytest.mark.parametrize(
    ("line", "rules", "wanted"),
    [
        # 10 reps x 4 s, 10 x 2 x 12 kg
        (sets("Press", load_kg=12, implements=2), {}, (1, 10, 240, 40, 40)),
        # each side: a limb does 11, both together lift 22 times
        (sets("Row", reps=11, sides="each", load_kg=20), {}, (1, 11, 440, 33, 66)),
        (sets("Row", reps=11, sides="each", load_kg=20), {"each_side_reps": "total"},
         (1, 22, 440, 33, 66)),
        (sets("Row", reps=12, sides="alternating", load_kg=20), {}, (1, 6, 240, 18, 36)),
        (sets("Row", reps=8, sides="left", load_kg=20), {}, (0.5, 4, 160, 12, 24)),
        # share of body weight: 0.64 x 70 kg = 44.8 kg
        (sets("Press-up"), {}, (1, 10, 448, 30, 30)),
        (sets("Press-up"), {"bodyweight_load": False}, (1, 10, 0, 30, 30)),
        # 15 kg of help at the pull-up; more help than body weight lifts nothing
        (sets("Pull-up", load_kg=-15), {}, (1, 10, 550, 30, 30)),
        (sets("Pull-up", load_kg=-90), {}, (1, 10, 0, 30, 30)),
        # a tempo of the set over that of the movement; X counts a second
        (sets("Press", tempo="40X1"), {}, (1, 10, 0, 60, 60)),
        (sets("Press", tempo="4-1-2-1"), {"tension": "moving"}, (1, 10, 0, 60, 80)),
        # a hold at the end is tension once
        (sets("Curl", reps=9, hold_s=8), {}, (1, 9, 0, 35, 35)),
        # partial reps credit the volume load only
        (sets("Curl", reps=18, partial_reps=12, load_kg=10), {"partial_rep_credit": 0.5},
         (1, 18, 120, 54, 54)),
        (sets("Curl", reps=18, partial_reps=12, load_kg=10), {"partial_rep_credit": 0},
         (1, 18, 60, 54, 54)),
        # timed: 50 s at 4 s a rep are 12 reps, the tension is exact
        (sets("Press", reps=None, seconds=50, load_kg=10), {}, (1, 12, 120, 50, 50)),
        (sets("Press", reps=None, seconds=50, load_kg=10), {"estimate_reps": False},
         (1, 0, 0, 50, 50)),
        # timed and counted: the count stands, the clock is the tension
        (sets("Press", reps=8, seconds=50, load_kg=10), {}, (1, 8, 80, 50, 50)),
        (sets("Press", reps=None, seconds=50, tempo="3-1-1-0"), {"tension": "moving"},
         (1, 10, 0, 40, 50)),
        (sets("Plank", reps=None, seconds=35, hold_s=5), {"tension": "moving"},
         (1, 0, 0, 40, 40)),
    ],
)  # fmt: skip
def test_one_set(line: list[dict], rules: dict, wanted: tuple[float, ...]) -> None:
    found = values(line, rules=rules)
    assert tuple(found.values())[:5] == pytest.approx(wanted)


def test_a_combination_shares_seconds_in_proportion_and_credits_its_set_once() -> None:
    combination = {
        "moves": [{"exercise": "Curl"}, {"exercise": "Press", "times": 2}],
        "seconds": 66,
        "load_kg": 5,
        "implements": 2,
    }
    result = audited(session(0, [combination]))
    # A rep takes 3 + 2 x 4 = 11 s: 6 of them in 66 s, 18 s for the curl and 48 for the press.
    assert result.value("patterns/elbow_flexion/tut_s") == pytest.approx(18)
    assert result.value("patterns/horizontal_push/tut_s") == pytest.approx(48)
    assert result.value("patterns/horizontal_push/reps") == 12
    assert result.value("totals/sets") == 1
    assert result.value("totals/estimated_rep_sets") == 1
    assert result.value("balance/push_pull/a/sets") == 1
    assert result.value("balance/push_pull/b/sets") == 1


def test_an_isometric_move_is_held_through_the_whole_set() -> None:
    combination = {
        "moves": [{"exercise": "Wall sit"}, {"exercise": "Curl"}],
        "reps": 9,
        "hold_s": 4,
    }
    result = audited(session(0, [combination]))
    assert result.value("patterns/squat/tut_s") == 9 * 3 + 4
    assert result.value("patterns/elbow_flexion/tut_s") == 9 * 3 + 4
    assert result.value("totals/tut_s") == 62
    assert result.value("totals/work_s") == 31
    assert result.value("patterns/squat/reps") == 0


def test_conditioning_and_mobility_are_kept_apart() -> None:
    result = audited(
        session(0, sets("Skip", reps=None, seconds=60), sets("Stretch", reps=None, seconds=30))
    )
    assert dict(result.tally) == {"totals/conditioning_s": 90}
    assert not result.findings


@pytest.mark.parametrize(
    ("rpe", "threshold", "counted"),
    [(5.5, 6, 0), (6, 6, 1), (None, 6, 1), (6.5, 7, 0), (1, None, 1)],
)
def test_easy_sets_count_in_all_but_sets(
    rpe: float | None, threshold: float | None, counted: float
) -> None:
    line = sets("Squat", load_kg=50, **({} if rpe is None else {"rpe": rpe}))
    found = values(line, rules={"hard_set_rpe": threshold})
    assert (found["sets"], found["volume_load_kg"], found["tut_s"]) == (counted, 500, 30)


def test_warm_ups_count_in_nothing_or_like_any_set() -> None:
    lines = (sets("Squat", load_kg=50), sets("Squat", load_kg=30, warm_up=True))
    assert values(*lines)["volume_load_kg"] == 500
    counted = values(*lines, rules={"count_warm_ups": True})
    assert (counted["sets"], counted["volume_load_kg"]) == (2, 800)


def test_assumed_tempo_is_counted_for_moving_sets_without_one() -> None:
    result = audited(
        session(
            0,
            sets("Row", 2),
            sets("Row", tempo="2-0-2"),
            sets("Press"),
            sets("Plank", reps=None, seconds=9),
        )
    )
    assert result.value("totals/assumed_tempo_sets") == 2
    assert "totals/tut_s" in result.rough
    assert "muscles/chest/tut_s" not in result.rough


@pytest.mark.parametrize(("credit", "triceps"), [(0.5, 2), (0, 0), (1, 4)])
def test_indirect_credit(credit: float, triceps: float) -> None:
    result = audited(session(0, sets("Press", 4, load_kg=10)), rules={"indirect_credit": credit})
    assert result.value("muscles/triceps/sets") == triceps
    assert result.value("muscles/triceps/volume_load_kg") == 400 * credit
    assert result.value("muscles/chest/sets") == 4


def test_scope_of_push_and_pull() -> None:
    done = session(0, sets("Press", 3), sets("Extension", 2), sets("Row", 3), sets("Curl", 2))
    assert audited(done).value("balance/push_pull/a/sets") == 5
    compound = audited(done, rules={"push_pull_scope": "compound"})
    assert compound.value("balance/push_pull/a/sets") == 3
    assert compound.value("balance/push_pull/b/sets") == 3
