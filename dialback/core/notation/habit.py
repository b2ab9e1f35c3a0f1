"""The form of a choice: what it makes of what was typed, so that the same can be done again."""

from __future__ import annotations

import re
from itertools import takewhile
from typing import Final

WRITTEN: Final = "written"
"""What is asked of a line that was not understood: the answer says what was typed."""
_NUMBER: Final = re.compile(r"[0-9]+(?:[.,][0-9]+)?")
_BECOMES: Final = " → "
_PIECE: Final = re.compile(r"[^\s\w]|\w+|\s+")


def form_of(typed: str, chosen: str) -> str:
    """What differs between a line as it was typed and as it was chosen: ``# m → #``.

    Numbers stand as ``#``: another line with other numbers is of the same form. Letter case and
    blanks are no difference.
    """
    one, other = _pieces(typed), _pieces(chosen)
    ahead = _shared(one, other)
    behind = _shared(one[ahead:][::-1], other[ahead:][::-1])
    if not (_said(one, ahead, behind) and _said(other, ahead, behind)):
        # Something was put in or left out: the numbers beside it tell where.
        while ahead and one[ahead - 1].strip() in ("", "#"):
            ahead -= 1
        while behind and one[-behind].strip() in ("", "#"):
            behind -= 1
    return f"{_said(one, ahead, behind)}{_BECOMES}{_said(other, ahead, behind)}"


def asked_in(form: str) -> str:
    """What was typed, of a form."""
    return form.partition(_BECOMES)[0]


def _shared(one: list[str], other: list[str]) -> int:
    """How many pieces two begin with alike."""
    return sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(one, other, strict=False)))


def _pieces(line: str) -> list[str]:
    plain = _NUMBER.sub("#", line.strip().casefold()).replace("×", "x")
    return _PIECE.findall(" ".join(plain.split()))


def _said(pieces: list[str], ahead: int, behind: int) -> str:
    return "".join(pieces[ahead : len(pieces) - behind]).strip()
