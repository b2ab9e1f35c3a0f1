"""A text that is reworded, and where each of its characters stood before."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from dialback.core.notation.slips import SlipError

SHIELD: Final = "\x00"
"""Stands for characters that no rule may see: those of names and of what is in brackets."""


@dataclass(frozen=True, slots=True)
class Placed:
    """``text`` with plain signs, ``raw`` as it was typed, and the place of each character.

    All three are of one length; ``end`` is the place behind the last one.
    """

    text: str
    raw: str
    places: tuple[int, ...]
    end: int

    @classmethod
    def of(cls, text: str, raw: str) -> Placed:
        """A text in which nothing has moved."""
        return cls(text, raw, tuple(range(len(text))), len(text))

    def place(self, at: int) -> int:
        """Where a character stood in the line that was typed."""
        return self.places[at] if at < len(self.places) else self.end

    def length(self, at: int, length: int) -> int:
        """How many characters of the line that was typed so many from a place are."""
        if not length:
            return 0
        last = min(at + length, len(self.places)) - 1
        return max(1, self.place(last) + 1 - self.place(at)) if last >= at else 1

    def slip(self, slip: SlipError) -> SlipError:
        """A mistake in this text as one in the line that was typed."""
        length = self.length(slip.at, slip.length)
        return SlipError(self.place(slip.at), length, str(slip), slip.offers)

    def cut(self, start: int, end: int) -> Placed:
        """The characters between two places."""
        stop = self.place(end) if end < len(self.places) else self.end
        return Placed(self.text[start:end], self.raw[start:end], self.places[start:end], stop)

    def indented(self, line: Placed, width: int) -> Placed:
        """Behind the blanks that another line begins with."""
        return joined([line.cut(0, width), self], self.end)

    def put(self, start: int, end: int, new: str) -> Placed:
        """With new text in place of what stood between two places."""
        here = self.place(start)
        return Placed(
            self.text[:start] + new + self.text[end:],
            self.raw[:start] + new + self.raw[end:],
            self.places[:start] + (here,) * len(new) + self.places[end:],
            self.end,
        )


def joined(pieces: Sequence[Placed | str], end: int) -> Placed:
    """Pieces one after the other; a new one stands where the piece before it ended."""
    text, raw, places, here = "", "", [], 0
    for piece in pieces:
        if isinstance(piece, str):
            text, raw = text + piece, raw + piece
            places += [here] * len(piece)
        else:
            text, raw = text + piece.text, raw + piece.raw
            places += piece.places
            here = piece.places[-1] if piece.places else here
    return Placed(text, raw, tuple(places), end)
