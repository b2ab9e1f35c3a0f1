"""A line of the verdict: the one form of what a coach reads first."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

from dialback.core.vocabulary import Key, Level, WeekKind
from dialback.core.weeks import Week

Kind = Literal["new", "worse", "course", "doubt", "standing", "eased"]
KINDS: Final[Mapping[Kind, str]] = {
    "new": "new",
    "worse": "worse",
    "course": "drifts",
    "doubt": "in doubt",
    "standing": "still",
    "eased": "gone",
}
"""The kinds of lines in a word."""


@dataclass(frozen=True, slots=True)
class News:
    """A line of the verdict: what is said, of which causes and findings, and since when it is so.

    ``ask`` is the one question that follows; empty where nothing is asked. ``points`` are the line
    of something of many weeks; ``looks_like`` is the kind of week that is asked about.
    """

    kind: Kind
    level: Level
    sentence: str
    causes: tuple[tuple[str, str], ...]
    explains: tuple[Key, ...]
    since: Week
    ask: str = ""
    points: tuple[tuple[Week, float], ...] = ()
    looks_like: WeekKind | None = None
