"""The notation's words, for the editor: what is offered, what is coloured, what is whole."""

from __future__ import annotations

from flask import Response

from dialback.core.notation.session import PART_KINDS, RANGES
from dialback.core.notation.vocabulary import (
    COMPLETE,
    FORMS,
    HEADS,
    JOINTS,
    PART_HEADS,
    SIDES,
    WORDS,
    Word,
)
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer
from dialback.web.shapes.notation import NotationOut, NotationWord, WordPattern

api = blueprint("notation", __name__, "/notation")


@api.get("", responses={200: NotationOut})
def notation() -> Response:
    """The words of the notation, from the table that the reader is made from."""
    return answer(
        NotationOut(
            words=[*_offers(*WORDS), *_offers(*JOINTS)],
            heads=[
                *_offers(*HEADS),
                *(NotationWord(text=head, says="a part of the session") for head in PART_HEADS),
            ],
            patterns=[
                WordPattern(pattern=word.pattern, kind=word.kind)
                for word in sorted((*WORDS, *JOINTS, *HEADS), key=lambda word: -word.priority)
                if word.terminal not in ("TIMES", "NOTE", "INT")
            ],
            whole=sorted(COMPLETE),
            sides=list(SIDES.values()),
            ranges=list(RANGES),
            parts=list(PART_KINDS),
            forms=list(FORMS),
        )
    )


def _offers(*words: Word) -> list[NotationWord]:
    return [NotationWord(text=offer, says=word.says) for word in words for offer in word.offers]
