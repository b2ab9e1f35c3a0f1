"""People as a coach pastes them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.newcomers import read_newcomers


def one(line: str, unit: str = "kg", taken: tuple[str, ...] = ()) -> tuple:
    (found,) = read_newcomers(line, unit, taken)
    note = ", ".join(filter(None, (found.level, str(found.born or ""), found.note)))
    return found.name, found.bodyweight_kg, note, found.problem


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("Ada Lind", ("Ada Lind", None, "")),
        ("  Ada Lind  ", ("Ada Lind", None, "")),
        ("Ada Lind, 62.5 kg", ("Ada Lind", 62.5, "")),
        ("Ada Lind, 62,5", ("Ada Lind", 62.5, "")),
        ("Ada Lind,62,5 kg", ("Ada Lind", 62.5, "")),
        ("Ada Lind; 62,5 kg; novice", ("Ada Lind", 62.5, "novice")),
        ("Ada Lind\t62\tnovice, left-handed", ("Ada Lind", 62, "novice, left-handed")),
        ("Ada Lind, novice, 62kg", ("Ada Lind", 62, "novice")),
        ("Ada Lind, 140 lb", ("Ada Lind", 63.503, "")),
        ("Ada Lind, Advanced, born 2004, bow side", ("Ada Lind", None, "advanced, 2004, bow side")),
        ("Ada Lind, year of 2004", ("Ada Lind", None, "year of 2004")),
    ],
)
def test_a_line_is_a_person(line: str, told: tuple) -> None:
    *found, problem = one(line)
    assert tuple(found) == told
    assert not problem


def test_a_bare_number_is_in_the_unit_of_the_house() -> None:
    assert one("Ada, 140", "lb")[1] == 63.503
    assert one("Ada, 64 kg", "lb")[1] == 64


@pytest.mark.parametrize(
    ("line", "problem"),
    [
        ("Bo Marsh", "Bo Marsh is already there"),
        (", 60 kg", "the name is missing"),
        ("Ada, 5 kg", "5 kg is not a body weight: it is from 20 kg to 350 kg"),
        ("Ada, 999", "is not a body weight"),
        ("A" * 121, "at most 120 characters"),
        ("Ada\x07", "control character (U+0007): take it out"),
    ],
)
def test_what_cannot_be_taken_says_why(line: str, problem: str) -> None:
    assert problem in one(line, taken=("bo MARSH",))[3]


def test_the_same_name_twice_in_one_text() -> None:
    first, second = read_newcomers("Ada\n\nADA", "kg", ())
    assert (first.line, first.problem) == (1, "")
    assert second.line == 3
    assert "already" in second.problem


@given(st.text(max_size=300))
def test_no_text_is_too_odd(text: str) -> None:
    for found in read_newcomers(text, "kg", ()):
        assert found.problem or found.name.strip()
