"""Words among what is prescribed that say nothing of how much: they are the line's remark.

What holds a number, a word of the notation, one that is nearly such a word, or one that changes
how much is meant, is no remark: it is asked about.
"""

from __future__ import annotations

import difflib
import re
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from dialback.core.notation.vocabulary import BODY_PART

if TYPE_CHECKING:
    from dialback.core.notation.names import Names


def _words(text: str) -> frozenset[str]:
    return frozenset(text.split())


_RUN: Final = re.compile(
    r"(?:[^0-9,;()\[\]{}+@|/×%=<>~:\"€$£#\n\x00]|:[ ](?=[a-z])){2,300}", re.IGNORECASE
)
_LEAD_IN: Final = re.compile(
    r"\b(?:with|and|for|in|on|at|to|by|as|the|a)[ \t]{1,8}$", re.IGNORECASE
)
_DOSE_WORD: Final = re.compile(
    r"[ \t](?:at|@|with|rest|tempo|rpe|rir|hold|help|band)[ \t:]{1,8}(?=[0-9])", re.IGNORECASE
)
_SOUND: Final = re.compile(r"[a-z][a-z' .:?!-]*", re.IGNORECASE)
_SMALL: Final = _words(
    """
    with and for in on at to by as the a work
    """
)
_AT_NUMBER: Final = re.compile(
    r"(?:\b(?:at|with|rest|rpe|in|hold|help)|[@+])[ \t]{0,8}[0-9.,]{1,9}[ \t]{0,8}$", re.IGNORECASE
)
_OF_THE_BODY: Final = re.compile(rf"\b(?:left|right|both)[ ]{BODY_PART}|\bhalf[ -]?way\b")
_MANNER: Final = _words(
    """
    slow slowly fast quick quickly smooth smoothly controlled strict strictly easy nice
    heavy light hard moderate steady explosive explosively strong tight tall paused pausing
    clean crisp good and but very with form control style dead stop touch go reset speed
    power technique
    """
)
"""What may stand before a load or a rest without a comma, and is said of how it is done."""
MEANS_MORE: Final = _words(
    """
    set sets rep reps time times round rounds kg kgs kilo kilos lb lbs pound pounds min mins
    minute minutes sec secs second seconds metre metres meter meters max maximum amrap emom
    drop superset supersets cluster clusters each side sides left right both alternating
    alternate alternately alt failure fail warm warmup tempo rest resting rpe rir band bands
    bw bodyweight weight half quarter partial partials isometric hold holds negative
    negatives eccentric eccentrics per double single triple doubles singles triples last
    first second third then more less fewer heavier lighter add plus minus extra over under
    until till every total between percent couple few several one two three four five six
    seven eight nine ten twelve fifteen twenty thirty dozen again repeat same optional or
    skip easier harder assisted assistance help off rm onerm stone stones unbroken
    descending ascending ladder pyramid
    """
)
"""Words with which a remark may change how much is to be done."""
_NEAR: Final = 0.8


@dataclass(frozen=True, slots=True)
class Remark:
    """Where a remark stands in a text: from ``start`` to ``end``, its words from ``said`` on."""

    start: int
    said: int
    end: int


def spoken_words(text: str, at: int, names: Names | None) -> Remark | None:
    """The remark that a parser stopped at; ``None`` where it may be more than that."""
    start = at
    while start and text[start - 1].isalpha():
        start -= 1
    while lead := _LEAD_IN.search(text[:start]):
        start = lead.start()
    run = _RUN.match(text, start)
    if run is None:
        return None
    end = run.end()
    if dose := _DOSE_WORD.search(text, start):
        end = min(end, dose.start())
    said = text[start:end].rstrip()
    end = start + len(said)
    if not said or not _SOUND.fullmatch(said.strip()):
        return None
    plainly = _OF_THE_BODY.sub(" ", said.lower())
    words = [word.strip("'.?!-") for word in re.split(r"[ '.:?!-]+", plainly) if word]
    if not any(len(word) > 2 for word in words):
        return None
    if any(word in MEANS_MORE for word in words) or _nearly_more(words):
        return None
    if all(word in _SMALL for word in words) or _like_a_unit(text[:start], words[0]):
        return None
    behind = text[end:].lstrip(" \t")
    if behind[:1] not in ("", ",", ";", "(") and not set(words) <= _MANNER:
        return None
    if names is not None and names.begins(said.strip()):
        return None
    # A comma before the remark is the remark's; at the beginning the one behind it.
    before = text[:start].rstrip(" \t,;")
    last = end
    if not before:
        last += len(text[end:]) - len(text[end:].lstrip(" \t,;"))
    return Remark(len(before), start, last)


def remark_at(text: str, at: int) -> str:
    """The words from a place to the next sign or number, as somebody would put them in brackets."""
    run = _RUN.match(text, at)
    return run[0].strip(" \t.,;-'") if run else ""


def _like_a_unit(before: str, word: str) -> bool:
    """Whether a word stands where a unit belongs: ``at 60 kgg``."""
    if not before.rstrip(" \t")[-1:].isdigit():
        return False
    return len(word) <= 3 or bool(_AT_NUMBER.search(before))


def _nearly_more(words: list[str]) -> bool:
    """Whether a word is a slip of the finger away from one that counts."""
    return any(
        len(word) > 3 and word not in _COMMON and difflib.get_close_matches(
            word, _LONG, n=1, cutoff=_NEAR
        )
        for word in words
    )  # fmt: skip


_LONG: Final = sorted(word for word in MEANS_MORE if len(word) > 3)
_COMMON: Final = _words(
    """
    form from wide side-on tall stay late best rush test nest rested pace then them these
    those hips grip keep knee knees high hard heels chest head back hands hinge tight touch
    light sight ever never ones with without both ways core cores bar bars bend bent tempos
    easy lead least long lock locked fall full reach reset drive deep dead stop side slow
    squeeze strong breath breathe brace power pull push heavy heave hole hold-off seat
    seated fight
    """
)
"""Words that resemble one that counts, and are none."""
