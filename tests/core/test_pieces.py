"""Pieces of a set, parts of the range, holds and minutes, each worked by hand."""

from __future__ import annotations

from typing import Any

import pytest

from dialback.book.errors import BadInputError
from dialback.core.audit import Audit
from dialback.core.duration import OnTheClock, estimated_duration, on_the_clock
from dialback.core.figures import in_total
from tests.build import audited, session, sets


def of(found: Audit, measure: str = "volume_load_kg", subject: str = "") -> float:
    return found.value(f"{subject}/{measure}" if subject else in_total(measure))


def one(**a_set: Any) -> Audit:
    return audited(session(0, [a_set]))


COMBINED = {"moves": [{"exercise": "Press"}, {"exercise": "Row"}], "reps": 6, "load_kg": 20}


def combined(**row: Any) -> Audit:
    """Six reps of a press and a row; the row has something of its own."""
    moves = [{"exercise": "Press"}, {"exercise": "Row", **row}]
    return one(**{**COMBINED, "moves": moves})


def test_a_piece_of_a_combination_has_its_own_load() -> None:
    assert of(combined()) == 6 * 20 + 6 * 20
    assert of(combined(load_kg=12, implements=2)) == 6 * 20 + 6 * 24
    # Nothing is a load, too.
    assert of(combined(load_kg=0)) == 6 * 20


def test_a_piece_has_its_own_sides() -> None:
    # Press 3-0-1-0 is 4 s a rep, row 2-0-1-0 is 3 s: 42 s in all for the clock, whatever the sides.
    found = combined(sides="alternating")
    assert of(found) == 6 * 20 + 6 * 20
    assert of(found, "reps") == 6 + 3
    assert of(found, "tut_s") == 24 + 9
    assert of(found, "work_s") == 42
    each = combined(sides="each")
    assert of(each) == 6 * 20 + 12 * 20
    assert (of(each, "reps"), of(each, "tut_s"), of(each, "sets")) == (12, 42, 1)


def test_body_weight_is_added_to_a_piece() -> None:
    found = one(
        moves=[{"exercise": "Press-up", "load_kg": 0}, {"exercise": "Row"}], reps=5, load_kg=20
    )
    assert of(found) == pytest.approx(5 * 70 * 0.64 + 5 * 20)


def test_the_load_is_changed_in_the_middle() -> None:
    pieces = [{"reps": 6, "load_kg": 60}, {"reps": 4, "load_kg": 25, "implements": 2}]
    found = one(exercise="Squat", loads=pieces, hold_s=5)
    assert (of(found, "sets"), of(found, "reps"), of(found)) == (1, 10, 6 * 60 + 4 * 50)
    assert of(found, "tut_s") == 10 * 3 + 5
    assert of(found, "work_s") == 35
    (top,) = (entry.set.total_load_kg for entry in found.entries)
    assert top == 60
    # Measured is the whole set.
    assert of(one(exercise="Squat", loads=pieces, measured_tension_s=41), "tut_s") == 41
    # Reps are estimated piece by piece: 20 s and 10 s at 3 s a rep.
    timed = one(
        exercise="Squat", loads=[{"seconds": 20, "load_kg": 60}, {"seconds": 10, "load_kg": 50}]
    )
    assert (of(timed, "reps"), of(timed)) == (6 + 3, 6 * 60 + 3 * 50)
    assert of(timed, "estimated_rep_sets") == 1


@pytest.mark.parametrize(
    ("wrong", "words"),
    [
        ({"reps": 5}, "leave the set's own out"),
        ({"partial_reps": 2}, "partial reps of 0 reps"),
        ({"exercise": None, "moves": [{"exercise": "Row"}]}, "single movements"),
        ({"loads": [{"load_kg": 20}]}, "a piece of a set needs reps"),
    ],
)
def test_what_does_not_go_with_pieces(wrong: dict[str, Any], words: str) -> None:
    a_set = {"exercise": "Squat", "loads": [{"reps": 5, "load_kg": 40}], **wrong}
    with pytest.raises(BadInputError, match=words):
        one(**{key: value for key, value in a_set.items() if value is not None})


def test_half_the_range_is_partial_reps() -> None:
    half = {"rules": {"partial_rep_credit": 0.5}}
    squat = {"exercise": "Squat", "load_kg": 40}
    whole = audited(session(0, [{**squat, "reps": 8}]), **half)
    assert of(whole) == 320
    for range_, kg in (("half", 160), ("full", 320), (7, 320)):
        found = audited(session(0, [{**squat, "reps": 8, "range": range_}]), **half)
        assert (of(found), of(found, "reps")) == (kg, 8)
    # Those estimated from seconds, too; a set that tells its partial reps tells them itself.
    timed = audited(session(0, [{**squat, "seconds": 24, "range": "top"}]), **half)
    assert of(timed) == 160
    told = audited(session(0, [{**squat, "reps": 8, "partial_reps": 2, "range": "half"}]), **half)
    assert of(told) == 6 * 40 + 40


def test_held_still_it_counts_as_isometric() -> None:
    found = one(exercise="Row", seconds=30, load_kg=20, static=True)
    assert (of(found, "sets"), of(found, "reps"), of(found)) == (1, 0, 0)
    assert (of(found, "tut_s"), of(found, "work_s")) == (30, 30)
    assert of(found, "estimated_rep_sets") == of(found, "assumed_tempo_sets") == 0
    with pytest.raises(BadInputError, match="static is for single movements"):
        one(**COMBINED, static=True)


def test_a_conditioning_piece_takes_its_share_of_a_measurement_with_it() -> None:
    # Press 4 s and skip 3 s (assumed): of 35 s measured, 20 are of the press.
    found = one(moves=[{"exercise": "Press"}, {"exercise": "Skip"}], reps=5, measured_tension_s=35)
    assert of(found, "tut_s") == pytest.approx(20)


def test_what_is_in_the_hands_is_in_no_sum() -> None:
    found = one(exercise="Curl", reps=10, load_kg=10, sides="alternating", held=2)
    assert of(found) == 100


def minutes(*a_set: dict[str, Any], **rules: Any) -> tuple[float, float, float]:
    found = audited(session(0, list(a_set)), rules=rules)
    told = estimated_duration(found.entries, found.in_hand.rules)
    return told.work_s, told.rest_s, told.change_over_s


def test_a_session_on_the_clock_and_what_to_leave_out_of_one_that_is_too_long() -> None:
    def told(limit: float | None) -> OnTheClock:
        warm = sets("Press", 1, warm_up=True)
        book = session(
            0,
            warm,
            sets("Press", 2),
            sets("Curl", 2),
            sets("Extension", 2, part="last"),
            sets("Row"),
        )
        found = audited(book, rules={"session_minutes": limit, "change_over_s": 0})
        return on_the_clock(found.entries, found.in_hand.rules)

    free = told(None)
    assert [name for name, _ in free.parts] == ["warm-up", "main", "last", "main"]
    ends = [until for _, until in free.parts]
    assert ends == sorted(ends)
    long = ends[-1] / 60
    assert [(one.over_s, one.leave_out, one.fits) for one in (free, told(long))] == [
        (0, (), True)
    ] * 2
    # The last accessory goes first; what is compound stays, however long it takes.
    short = told(long - 0.5)
    assert (short.over_s, short.leave_out, short.fits) == (pytest.approx(30), ("Extension",), True)
    none = told(0.5)
    assert (none.leave_out, none.fits) == (("Extension", "Curl"), False)


def test_minutes_have_the_larger_of_rest_and_change_between_sets() -> None:
    press = sets("Press", 2, load_kg=20)
    row = sets("Row", 1, load_kg=20)
    # 40 s a press, 30 s a row; a minute behind each but the last, and the change is within it.
    assert minutes(*press, *row) == (110, 120, 0)
    assert minutes(*press, *row, assumed_rest_s=None) == (110, 0, 10)
    written = [{**one, "rest_s": 4} for one in press]
    assert minutes(*written, *row) == (110, 8, 6)
    # Written as none it is none; and none is assumed in a circuit, behind a warm-up, or skipping.
    assert minutes(*({**one, "rest_s": 0} for one in press)) == (80, 0, 0)
    assert minutes(*({**one, "round": 1} for one in press)) == (80, 0, 0)
    assert minutes(*sets("Press", 2, warm_up=True)) == (80, 0, 0)
    assert minutes(*sets("Skip", 2, None, seconds=60), *row) == (150, 0, 10)
