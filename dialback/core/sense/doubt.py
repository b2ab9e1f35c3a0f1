"""A doubt: a line that was read in right form and makes little sense, with other readings."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Doubt:
    """What was taken of a line, and what else its words can be, the likeliest first.

    ``line`` and ``column`` count from 1; ``length`` characters from there are what was read.
    ``taken`` and ``others`` are canonical texts: each, written in its place, is read as it stands.
    """

    line: int
    column: int
    length: int
    why: str
    taken: str
    others: tuple[str, ...]
