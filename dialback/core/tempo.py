"""Tempo: the seconds of the four phases of a rep."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Final, NamedTuple

_PHASE: Final = r"(?:\d{1,3}(?:\.\d)?|[Xx])"
DASHED: Final = rf"{_PHASE}(?:-{_PHASE}){{2,3}}"
RUN: Final = r"[0-9Xx]{3,4}"
"""The two ways to write a tempo, as patterns."""

HINT: Final = (
    "write the seconds of lowering, pause, lifting, pause, as in 3-1-2-0 or 30X1 "
    "(the last pause may be left out)"
)


class Tempo(NamedTuple):
    """Seconds of lowering, pause at the bottom, lifting, pause at the top."""

    eccentric: float
    pause_bottom: float
    concentric: float
    pause_top: float

    @property
    def cycle(self) -> float:
        """Seconds of one whole rep."""
        return sum(self)

    @property
    def moving(self) -> float:
        """Seconds of one rep in which the load moves."""
        return self.eccentric + self.concentric


@lru_cache(maxsize=4096)
def parse_tempo(text: str) -> Tempo:
    """Read a tempo: three or four phases, dashed (``3-1-2``) or a run of digits (``30X1``).

    ``X`` is "as fast as you can" and counts 1 s. Raises ``ValueError`` that says what is right.
    """
    if re.fullmatch(DASHED, text):
        phases = text.split("-")
    elif re.fullmatch(RUN, text):
        phases = list(text)
    else:
        raise ValueError(f"{text!r} is not a tempo: {HINT}")
    seconds = [1.0 if phase in "Xx" else float(phase) for phase in phases]
    if sum(seconds) <= 0:
        raise ValueError(f"{text!r} is not a tempo: a rep takes some time, {HINT}")
    return Tempo(*seconds, *([0.0] * (4 - len(seconds))))


def tempo_words(text: str, *, every: bool = False) -> str:
    """A tempo as it is called out: ``lower in 3 s, hold 1 s at the bottom, lift in 2 s``.

    ``every`` phase is said, those of no time too.
    """
    tempo = parse_tempo(text)
    lower, _, lift, *_ = text.split("-") if "-" in text else list(text)
    said = (
        _moving("lower", tempo.eccentric, lower),
        _held(tempo.pause_bottom, "at the bottom"),
        _moving("lift", tempo.concentric, lift),
        _held(tempo.pause_top, "at the top"),
    )
    return ", ".join(words for words, seconds in zip(said, tempo, strict=True) if seconds or every)


def _moving(what: str, seconds: float, written: str) -> str:
    return f"{what} as fast as you can" if written in "Xx" else f"{what} in {seconds:g} s"


def _held(seconds: float, where: str) -> str:
    return f"hold {seconds:g} s {where}" if seconds else f"no pause {where}"


ASSUMED: Final = parse_tempo("2-0-1-0")
"""What is taken where neither the set nor the movement has a tempo; marked as assumed."""


def slower(text: str, seconds: float) -> str:
    """The tempo with so many seconds more of lowering (fewer if negative, at the least none)."""
    tempo = parse_tempo(text)
    lowering = max(0.0, tempo.eccentric + seconds)
    if lowering + sum(tempo[1:]) <= 0:
        lowering = 1.0
    # A lifting as fast as one can stays one.
    phases = text.split("-") if "-" in text else list(text)
    return "-".join([f"{lowering:g}", *phases[1:]])
