"""A mistake in a text: what is wrong, where, and what would be right."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Final

_ADVICE: Final = re.compile(
    r"\s{0,4}[:;,.]?\s{1,4}(?:(?:[Ww]rite|put|type) .*|Did you mean .*)\Z", re.DOTALL
)


@dataclass(frozen=True, slots=True)
class Mistake:
    """What is wrong at a place of the text; lines and columns count from 1.

    ``length`` is how many characters are meant, at least 1. ``offers`` are texts for that place
    (else they stand in the message), ``instead`` whole lines that are understood.
    """

    line: int
    column: int
    length: int
    message: str
    offers: tuple[str, ...] = ()
    instead: tuple[str, ...] = ()

    def offering(self, instead: tuple[str, ...]) -> Mistake:
        """With what can be written in place of its line."""
        return replace(self, instead=instead)

    @property
    def question(self) -> str:
        """What is wrong, without the advice that ``instead`` gives."""
        return _ADVICE.sub("", self.message) or self.message

    def __str__(self) -> str:
        return f"line {self.line}, column {self.column}: {self.message}"


class SlipError(Exception):
    """A mistake at an offset in its line."""

    def __init__(self, at: int, length: int, message: str, offers: tuple[str, ...] = ()) -> None:
        self.at = at
        self.length = length
        self.offers = offers
        super().__init__(message)

    def on(self, line: int) -> Mistake:
        """The mistake, on that line."""
        return Mistake(line, self.at + 1, max(1, self.length), str(self), self.offers)
