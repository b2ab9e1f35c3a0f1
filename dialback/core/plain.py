"""Plain JSON: what any value must be made of to be kept, whichever door it comes in by.

What is kept must go out again in every format, and be read by other programs: finite numbers,
whole numbers that a table can hold, texts of whole characters without control characters, nested
no deeper than people nest.
"""

from __future__ import annotations

import math
import re
from typing import Any, Final

MAX_DEPTH: Final = 50
MAX_INTEGER: Final = 2**63 - 1
_ODD: Final = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x84\x86-\x9f\ud800-\udfff\ufffe\uffff]")
"""Control characters but tab and line ends, halves of characters, and what is no character."""


def odd_character(text: str) -> str | None:
    """What is wrong with a text, in words; ``None`` if it can be kept."""
    found = _ODD.search(text)
    if found is None:
        return None
    code = ord(found[0])
    if 0xD800 <= code <= 0xDFFF:
        return "the text has half of a character: type it again"
    return f"the text has a control character (U+{code:04X}): take it out"


def unplain(
    node: Any, place: str = "", *, depth: int = 1, deepest: int = MAX_DEPTH
) -> tuple[str, str] | None:
    """Place and words of the first thing that cannot be kept; ``None`` if all of it can."""
    kind = type(node)
    if kind is str:
        found = _ODD.search(node)
        return None if found is None else (place, odd_character(node) or "")
    if kind is bool or node is None:
        return None
    if kind is int:
        if -MAX_INTEGER <= node <= MAX_INTEGER:
            return None
        return place, "the number is too large: at most 19 digits can be kept"
    if kind is float:
        return None if math.isfinite(node) else (place, f"should be a finite number, not {node}")
    if depth > deepest:
        return place, f"is nested too deep: at most {deepest} levels are taken"
    if kind is dict:
        for key, value in node.items():
            if _ODD.search(key):
                return place, odd_character(key) or ""
            below = value if type(value) in _LEAVES else None
            if below is not None and _leaf_is_plain(below):
                continue
            below_it = f"{place}.{key}" if place else key
            wrong = unplain(value, below_it, depth=depth + 1, deepest=deepest)
            if wrong:
                return wrong
        return None
    for at, value in enumerate(node):
        wrong = unplain(value, f"{place}[{at}]", depth=depth + 1, deepest=deepest)
        if wrong:
            return wrong
    return None


_LEAVES: Final = frozenset({str, int, float, bool})


def _leaf_is_plain(leaf: Any) -> bool:
    kind = type(leaf)
    if kind is str:
        return _ODD.search(leaf) is None
    return kind is bool or -MAX_INTEGER <= leaf <= MAX_INTEGER
