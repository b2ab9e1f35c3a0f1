"""People as a coach pastes them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.newcomers import Newcomer, checked
from dialback.core.pasted import read_people
from dialback.core.words import Unit


def read_newcomers(
    text: str, unit: Unit, taken: tuple[str, ...], squads: tuple[str, ...] = ()
) -> list[Newcomer]:
    return checked(read_people(text, unit), unit, taken, squads)


def one(line: str, unit: Unit = "kg", taken: tuple[str, ...] = ()) -> tuple:
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
        ("- Ada Lind", ("Ada Lind", None, "")),
        ("3) Ada Lind: 61", ("Ada Lind", 61, "")),
        ("4. Dee van der Aa (novice, 58 kg)", ("Dee van der Aa", 58, "novice")),
        ("Lind, Ada", ("Ada Lind", None, "")),
        ("van der Aa, Dee, 58 kg", ("Dee van der Aa", 58, "")),
        ("Ada Lind - 70 kg - bow side", ("Ada Lind", 70, "bow side")),
        ("Ada Lind 62.5 kg", ("Ada Lind", 62.5, "")),
        ("Mo Crew", ("Mo Crew", None, "")),
        ("Ada Lind, Captain", ("Ada Lind", None, "Captain")),
        ("Ada Lind <ada@lake.example>, b. 2004", ("Ada Lind", None, "2004")),
        ("Ada Lind | 12.03.2001 | 0176 123456789", ("Ada Lind", None, "2001")),
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
        ("Ada; squad " + "s" * 60 + "; " + "n" * 501, "a note has at most 500 characters"),
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


LIST = """\
Sprint squad:
- Ada Lind, 62.5 kg
• Marsh, Bo

Juniors (3):
Eva Holm and Fay Iversen
Jo, Kim, Lea
Masters: Mo Nord 82 kg
# Distance
Surname\tFirst name\tKg\tDate of birth\tE-mail
Vik\tWil\t71,5\t2003-05-06\tw@lake.example
"""


def test_a_list_as_people_write_one() -> None:
    found = read_people(LIST, "kg")
    assert [(one.squad, one.name) for one in found] == [
        ("Sprint", "Ada Lind"),
        ("Sprint", "Bo Marsh"),
        ("Juniors", "Eva Holm"),
        ("Juniors", "Fay Iversen"),
        ("Juniors", "Jo"),
        ("Juniors", "Kim"),
        ("Juniors", "Lea"),
        ("Masters", "Mo Nord"),
        ("Distance", "Wil Vik"),
    ]
    told = [one.told for one in found]
    assert told[1] == "read as surname, first name"
    assert told[2] == told[6] == "several on one line"
    last = found[-1]
    assert (last.bodyweight_kg, last.born, last.note) == (71.5, 2003, "")
    # An address is nothing that this house has to keep.
    assert last.told == "address or number left out"


def test_what_is_no_person_is_asked_about() -> None:
    for line in ("Hi coach, here they are", "we are all looking forward to it"):
        assert read_people(line, "kg")[0].told == "is this a person?"


def test_squads_differ_by_more_than_letter_case() -> None:
    text = "Ada, squad JUNIORS\nBo, squad masters\nCy, squad Masters"
    found = read_newcomers(text, "kg", (), ("Juniors",))
    assert [one.squad for one in found] == ["Juniors", "masters", "masters"]


@given(st.text(max_size=300))
def test_no_text_is_too_odd(text: str) -> None:
    for found in read_newcomers(text, "kg", ()):
        assert found.problem or found.name.strip()
