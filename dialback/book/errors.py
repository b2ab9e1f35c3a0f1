"""Errors of bad input, told with their place."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import ValidationError


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing that is wrong: where (``completed[3].sets[7].tempo``), and what would be right."""

    place: str
    message: str

    def __str__(self) -> str:
        return f"{self.place}: {self.message}" if self.place else self.message


class BadInputError(ValueError):
    """Input that cannot be taken; nothing of it was."""

    def __init__(self, problems: Sequence[Problem]) -> None:
        self.problems = tuple(problems)
        super().__init__(self.line)

    @property
    def line(self) -> str:
        """The first problem in one line, and how many more there are."""
        more = len(self.problems) - 1
        text = " ".join(str(self.problems[0]).split())
        return text + (f" (and {more} more)" if more else "")


def bad_input(place: str, message: str) -> BadInputError:
    """An error of one place."""
    return BadInputError([Problem(place, message)])


def place_of(loc: Sequence[str | int]) -> str:
    """A path as a person writes it: ``completed[3].sets[7].tempo``."""
    text = ""
    for part in loc:
        if isinstance(part, int):
            text += f"[{part}]"
        elif part != "[key]":
            text += f".{part}" if text else str(part)
    return text


_PLAIN = {
    "missing": "is missing",
    "bool_type": "should be true or false",
    "string_type": "should be text",
    "int_type": "should be a whole number",
    "float_type": "should be a number",
    "finite_number": "should be a finite number",
    "tuple_type": "should be a list",
    "list_type": "should be a list",
    "dict_type": "should be an object",
    "model_type": "should be an object",
    "model_attributes_type": "should be an object",
    "date_type": "should be a day, as in 2026-10-05",
}


def from_validation(error: ValidationError, prefix: Sequence[str | int] = ()) -> BadInputError:
    """Put pydantic's errors in plain words, each with its place."""
    problems = []
    for detail in error.errors(include_url=False):
        kind = detail["type"]
        message = _PLAIN.get(kind)
        if message is None:
            message = detail["msg"].removeprefix("Value error, ").removeprefix("Input ")
        if kind not in ("missing", "value_error"):
            message += f", not {_shown(detail['input'])}"
        problems.append(Problem(place_of((*prefix, *detail["loc"])), message))
    return BadInputError(problems)


def _shown(value: object) -> str:
    if isinstance(value, (dict, list)):
        return "an object" if isinstance(value, dict) else "a list"
    if value is None:
        return "null"
    text = repr(value)
    return text if len(text) <= 60 else text[:57] + "..."
