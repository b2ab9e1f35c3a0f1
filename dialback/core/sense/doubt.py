"""A doubt: a line that was read in right form and makes little sense, with other readings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

AS_WRITTEN: Final = "as written"
"""The answer to a doubt that leaves everything as it is."""


@dataclass(frozen=True, slots=True)
class Doubt:
    """What was taken of a line, and what else its words can be, the likeliest first.

    ``line`` and ``column`` count from 1; ``length`` characters from there are what was read.
    ``taken`` and ``others`` are canonical texts: each, written in its place, is read as it stands.
    ``form`` says what kind of doubt it is, ``means`` in words what each of the others makes of it.
    ``only`` is a line that cannot be meant as it stands, with one reading that can.
    """

    line: int
    column: int
    length: int
    why: str
    taken: str
    others: tuple[str, ...]
    form: str = ""
    means: tuple[str, ...] = ()
    only: bool = False
