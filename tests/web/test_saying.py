"""Problems are said of the thing that a person typed, not of its name in the API."""

import pytest

from dialback.book.errors import Problem
from dialback.web.saying import sentence, sentences


@pytest.mark.parametrize(
    ("place", "message", "said"),
    [
        ("password", "has 5 characters: take more", "The password has 5 characters: take more"),
        ("chosen.session_minutes", "should be a number",
         "“Minutes of a session” should be a number"),
        ("line 3, column 7", "nobody knows it", "Line 3, column 7: nobody knows it"),
        ("sessions[0].lines[2].units[1][0].exercise", "no movement is called 'X'",
         "Session 1, line 3, unit 2.1, the movement: no movement is called 'X'"),
        ("session.sets[4].load_kg", "should be a number", "Set 5, the load should be a number"),
        ("", "nothing is there", "Nothing is there"),
        ("week", "lies  outside\nthe calendar", "The week lies outside the calendar"),
        ("completed[0].sets[2].tempo", "'4-0' is not a tempo",
         "completed[0].sets[2].tempo: '4-0' is not a tempo"),
    ],
)  # fmt: skip
def test_a_problem_is_a_sentence(place: str, message: str, said: str) -> None:
    found = sentence(Problem(place, message))
    assert found == said


def test_several_are_counted() -> None:
    two = [Problem("name", "is missing"), Problem("role", "is missing")]
    assert sentences(two) == "The name is missing (and 1 more)"
