"""What is wrong with what a person typed, said of the thing and not of its name in the API."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Final

from dialback.book.errors import Problem
from dialback.core.rules import RULES

_THINGS: Final = {
    "bodyweight_kg": "body weight",
    "born": "year of birth",
    "by": "person",
    "date": "day",
    "exercise": "movement",
    "first": "first day",
    "kg": "weight",
    "last": "last day",
    "lasts": "end",
    "least_s": "smallest number of seconds",
    "load_kg": "load",
    "most_load_kg": "largest load",
    "most_s": "largest number of seconds",
    "most_sets": "largest number of sets",
    "rest_s": "rest",
    "shifts": "days to lay it on",
    "since": "day it begins",
    "subject": "subject",
    "word": "remark",
}
"""What fields are called, where it is not their name."""
_TITLES: Final = {rule.name: f"“{rule.title}”" for rule in RULES}
_ONE_OF: Final = {
    "sessions": "session",
    "lines": "line",
    "sets": "set",
    "units": "unit",
    "moves": "move",
    "athletes": "athlete",
}
"""What one of several is called."""
_HIDDEN: Final = frozenset({"chosen", "kit", "rules", "session", "body"})
"""Boxes that things lie in: nobody types them."""
_OF_A_BOOK: Final = ("completed[", "planned[", "exercises[", "athlete.", "blocks[", "rules.")
"""How places in a book begin."""
_PART: Final = re.compile(r"([^.\[\]]+)((?:\[\d+\])*)")
_PLAIN: Final = re.compile(r"[a-z_]+(?:\[\d+\])*(?:\.[a-z_A-Z]+(?:\[\d+\])*)*")
_VERBS: Final = frozenset(
    {
        "is",
        "are",
        "has",
        "have",
        "should",
        "lies",
        "stands",
        "does",
        "takes",
        "cannot",
        "may",
        "needs",
        "was",
        "goes",
        "begins",
        "ends",
    }
)
"""How a message begins that goes on from its thing."""


def sentence(problem: Problem) -> str:
    """A problem as a person says it: ``The password has 5 characters: take 10 to 200``."""
    if problem.place.startswith(_OF_A_BOOK):
        # A place in a file is looked up as it stands.
        return str(problem)
    thing = _thing(problem.place)
    message = " ".join(problem.message.split())
    if not thing:
        return message[:1].upper() + message[1:]
    joined = " " if message.partition(" ")[0] in _VERBS else ": "
    text = f"{thing}{joined}{message}"
    return text[:1].upper() + text[1:]


def sentences(problems: Sequence[Problem]) -> str:
    """The first problem, and how many more there are."""
    more = len(problems) - 1
    return sentence(problems[0]) + (f" (and {more} more)" if more else "")


def _thing(place: str) -> str:
    # What is in words already, as in "line 3, column 7", stays as it is.
    if not _PLAIN.fullmatch(place):
        return place
    found: list[str] = []
    for match in _PART.finditer(place):
        name, at = match[1], [int(one) + 1 for one in re.findall(r"\d+", match[2])]
        if name in _HIDDEN and not at:
            continue
        found.append(_called(name, at))
    return ", ".join(found)


def _called(name: str, at: Sequence[int]) -> str:
    if name in _TITLES:
        return _TITLES[name]
    words = _THINGS.get(name, name.replace("_", " "))
    if not at:
        return f"the {words}"
    return f"{_ONE_OF.get(name, words)} {'.'.join(str(one) for one in at)}"
