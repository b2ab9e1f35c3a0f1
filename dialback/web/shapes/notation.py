"""Shapes of the place `notation`."""

from __future__ import annotations

from typing import Literal

from dialback.web.shapes.common import Shape


class NotationWord(Shape):
    """A word that completion offers, and what it says."""

    text: str
    says: str


class WordPattern(Shape):
    """How a word is spelt, as a pattern, and what it is: a number, a word, or of a head."""

    pattern: str
    kind: Literal["number", "word", "head"]


class NotationOut(Shape):
    """The notation's words; ``whole`` are short ones behind which nothing is offered.

    ``sides``, ``ranges``, ``parts`` and ``forms`` are what can be chosen in the form.
    """

    words: list[NotationWord]
    heads: list[NotationWord]
    patterns: list[WordPattern]
    whole: list[str]
    sides: list[str]
    ranges: list[str]
    parts: list[str]
    forms: list[str]
