"""All rules, and the way of a line through them."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Final

from dialback.core.movements import Movement
from dialback.core.notation.names import Names
from dialback.core.notation.slips import SlipError
from dialback.core.notation.wording.doses import DOSES
from dialback.core.notation.wording.loads import LOADS
from dialback.core.notation.wording.numbers import NUMBERS
from dialback.core.notation.wording.placed import SHIELD, Placed
from dialback.core.notation.wording.rule import Rule
from dialback.core.notation.wording.words import WORDS

RULES: Final[tuple[Rule, ...]] = (*WORDS, *NUMBERS, *LOADS, *DOSES)
"""In the order in which they are tried."""

_BRACKET: Final = re.compile(r"\([^()\n]{0,600}\)")
_WORD_START: Final = re.compile(r"(?<![^\W_])[^\W_]")
_MOST_CHANGES: Final = 20


def signed(line: Placed, names: Names) -> Placed:
    """A line with plain signs and numbers; what it says is looked at afterwards."""
    for one in (*WORDS, *NUMBERS):
        line = _applied(one, line, None, names)
    return line


def worded(line: Placed, names: Names) -> Placed:
    """A line of one movement in the notation's own words.

    Raises ``SlipError`` for what is told in two ways, with its place in the text as it stands.
    """
    movement = _movement(line.text, names)
    for one in (*LOADS, *DOSES):
        line = _applied(one, line, movement, names)
    return line


def worded_dose(text: str, movement: Movement | None = None) -> Placed:
    """The same for a text that names no movement: how a set of a known one was done."""
    line = Placed.of(text, text)
    for one in (*NUMBERS, *LOADS, *DOSES):
        line = _applied(one, line, movement, None)
    return line


def _applied(rule: Rule, line: Placed, movement: Movement | None, names: Names | None) -> Placed:
    if not rule.pattern.search(line.text):
        return line
    seen = line.text if rule.anywhere else shielded(line.text, names)
    at = 0
    for _ in range(_MOST_CHANGES):
        match = rule.pattern.search(seen, at)
        if match is None:
            break
        try:
            new = rule.new(match, movement)
        except SlipError as slip:
            raise line.slip(slip) from None
        if new is None or new == match[0]:
            at = max(match.end(), at + 1)
            continue
        line = line.put(match.start(), match.end(), new)
        seen = line.text if rule.anywhere else shielded(line.text, names)
        at = match.start() + len(new)
    return line


def _movement(text: str, names: Names) -> Movement | None:
    """The first movement that a line names."""
    for start, _ in name_spans(text, names):
        if found := names.begins(text[start:]):
            return names.movements[found[0]]
    return None


def shielded(text: str, names: Names | None) -> str:
    """The text with names of movements and what is in brackets out of sight."""
    seen = _BRACKET.sub(lambda match: SHIELD * len(match[0]), text)
    for start, end in name_spans(text, names) if names is not None else ():
        seen = seen[:start] + SHIELD * (end - start) + seen[end:]
    return seen


@lru_cache(maxsize=4096)
def name_spans(text: str, names: Names) -> tuple[tuple[int, int], ...]:
    """Where the movements that a line names stand, from left to right; none in brackets."""
    seen = _BRACKET.sub(lambda match: SHIELD * len(match[0]), text)
    spans = []
    at = 0
    while start := _WORD_START.search(seen, at):
        begin = start.start()
        found = names.begins(seen[begin:])
        at = _word_end(seen, begin) if found is None else begin + found[1]
        if found is not None:
            spans.append((begin, at))
    return tuple(spans)


def _word_end(text: str, at: int) -> int:
    end = at
    while end < len(text) and text[end].isalnum():
        end += 1
    return end
