"""Words to say while somebody does a movement: short, one at a time."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Final

from pydantic import AfterValidator, Field

from dialback.core.movements import Name, Value
from dialback.core.sessions import one_line

MOST_LETTERS: Final = 90
"""What can be read from two metres while a set runs."""


def _said(text: str) -> str:
    return " ".join(one_line(text).split())


CueText = Annotated[str, AfterValidator(_said), Field(max_length=MOST_LETTERS)]


class Cues(Value):
    """The words of a movement: what to say for each moment; empty where there is nothing to say."""

    set_up: CueText = Field("", description="How it begins")
    move: CueText = Field("", description="What is done in a rep")
    breathe: CueText = Field("", description="When the breath goes in and out")
    feel: CueText = Field("", description="Where it is felt when it is right")
    stop_when: CueText = Field(
        "", description="Signs that the load, or the day, is wrong; follows the word stop"
    )
    spare: CueText = Field("", description="What to change for a wrist, a knee, the low back")

    def over(self, others: Cues) -> Cues:
        """These words, and where there are none those of others."""
        return Cues(**{key: getattr(self, key) or getattr(others, key) for key in MOMENTS})

    def said(self) -> Iterator[tuple[str, str]]:
        """What there is to say, in the order in which it is said: the moment's title, the words."""
        for key, title in MOMENTS.items():
            if words := getattr(self, key):
                yield title, words


MOMENTS: Final = {
    "set_up": "Set up",
    "move": "Move",
    "breathe": "Breathe",
    "feel": "Feel",
    "stop_when": "Stop when",
    "spare": "Spare",
}
"""The moments of a set for which there are words, with their titles."""


class OwnCue(Value):
    """What one athlete is told at a movement, before all else."""

    movement: Name
    says: Annotated[str, AfterValidator(_said), Field(max_length=200)]


NEW_TO: Final = 3
"""So many sessions with a movement its words stand there unasked. Dial Back's own choice."""
