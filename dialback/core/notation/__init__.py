"""Sessions written as a coach writes them on the board: text to session, session to text.

``read`` takes text apart, ``write`` is its canonical inverse, ``expand`` gives the flat sets.
The language is told by example in ``docs/notation.md``.
"""

from dialback.core.notation.amend import amended
from dialback.core.notation.expand import Setting, expand
from dialback.core.notation.gather import gather
from dialback.core.notation.reader import Reading, read
from dialback.core.notation.session import (
    Bout,
    Line,
    Load,
    Part,
    Pause,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.notation.slips import Mistake
from dialback.core.notation.step import Change, lighter, says_unmoved, stepped, unmoved
from dialback.core.notation.writer import write

__all__ = [
    "Bout",
    "Change",
    "Line",
    "Load",
    "Mistake",
    "Part",
    "Pause",
    "Reading",
    "Rounds",
    "Setting",
    "Step",
    "Turn",
    "WrittenSession",
    "amended",
    "expand",
    "gather",
    "lighter",
    "read",
    "says_unmoved",
    "stepped",
    "unmoved",
    "write",
]
