"""Names that look alike: nobody signs in under what reads as somebody else's name."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable
from typing import Final

from confusable_homoglyphs import confusables

from dialback.core.movements import fold

_INVISIBLE: Final = frozenset({"Cf", "Cc", "Co", "Cn", "Zl", "Zp"})
_SAME: Final = str.maketrans({"l": "i", "1": "i", "|": "i", "0": "o"})
"""Letters of one alphabet that many typefaces draw alike, once they are small."""


def invisible(name: str) -> bool:
    """Whether a name has characters that nobody sees."""
    return any(unicodedata.category(one) in _INVISIBLE for one in name)


def looks(name: str) -> str:
    """What a name looks like, letter by letter: two names of one look cannot be told apart."""
    plain = unicodedata.normalize("NFKC", name)
    found = confusables.is_confusable(plain, greedy=True, preferred_aliases=["latin"]) or []
    latin = {}
    for one in found:
        near = [other["c"] for other in one["homoglyphs"] if other["c"].isascii()]
        if near:
            latin[one["character"]] = near[0]
    bare = "".join(latin.get(letter, letter) for letter in plain)
    stripped = "".join(
        one for one in unicodedata.normalize("NFD", bare) if not unicodedata.combining(one)
    )
    return fold(stripped).translate(_SAME)


def alike(name: str, others: Iterable[str]) -> str | None:
    """The other name that it cannot be told from; ``None`` where there is none."""
    mine = looks(name)
    return next((other for other in others if looks(other) == mine), None)
