"""A rule of wording: a form that coaches use, and the notation's own words for it."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from dialback.core.movements import Movement

Becomes = Callable[[re.Match[str], Movement | None], str | None]
"""The new text for a match, ``None`` where it is something else; the movement is the line's own."""


@dataclass(frozen=True, slots=True)
class Rule:
    """``pattern`` is matched whatever the letter case; ``becomes`` is a template or a function.

    ``example`` is a whole text and ``means`` the text that says the same: the tests read both.
    Rules ``anywhere`` see names and brackets, too; the others only what stands between.
    """

    pattern: re.Pattern[str]
    becomes: str | Becomes
    example: str
    means: str
    anywhere: bool = False

    def new(self, match: re.Match[str], movement: Movement | None) -> str | None:
        """What stands in place of a match; ``None`` leaves it as it is."""
        if isinstance(self.becomes, str):
            return match.expand(self.becomes)
        return self.becomes(match, movement)


def rule(
    pattern: str, becomes: str | Becomes, example: str, means: str, *, anywhere: bool = False
) -> Rule:
    """A rule with its pattern compiled."""
    return Rule(re.compile(pattern, re.IGNORECASE), becomes, example, means, anywhere)
