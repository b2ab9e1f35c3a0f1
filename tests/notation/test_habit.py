"""The form of a choice: the same for other numbers, another for another choice."""

import pytest

from dialback.core.notation.habit import asked_in, form_of
from dialback.core.notation.slips import Mistake

FORMS = [
    ("Press 8 8", "Press 8, 8", "# # → #, #"),
    ("  Row 10 12 at 60 kg", "Row 10, 12 at 60 kg", "# # → #, #"),
    ("Inverted row 3 x 10 m", "Inverted row 3 × 10", "# m → #"),
    ("Lunges 3x8", "Walking lunge 3x8", "lunges → walking lunge"),
    ("Squat 3x8 100", "Squat 3x8 at 100 kg", "# → at # kg"),
]


@pytest.mark.parametrize(("typed", "chosen", "form"), FORMS)
def test_what_differs_with_numbers_left_open(typed: str, chosen: str, form: str) -> None:
    assert form_of(typed, chosen) == form
    assert asked_in(form) == form.split(" → ")[0]


QUESTIONS = [
    ("8 what? Write '8 kg' for a load, or 'rest 8 s'", "8 what?"),
    ("no movement is called 'Lunges'. Did you mean Side lunge?", "no movement is called 'Lunges'"),
    (
        "'max reps' is not understood here: put a remark in brackets, '(max)'",
        "'max reps' is not understood here",
    ),
    ("write 'rest 3 min', or 'in 3 min'", "write 'rest 3 min', or 'in 3 min'"),
]


@pytest.mark.parametrize(("message", "question"), QUESTIONS)
def test_a_question_leaves_out_the_advice_that_the_answers_give(
    message: str, question: str
) -> None:
    assert Mistake(1, 1, 1, message).question == question
