"""The table of the notation's words: each reads what it writes and what it offers."""

import re

import pytest

from dialback.core.notation.session import PART_KINDS
from dialback.core.notation.vocabulary import (
    FORMS,
    HEADS,
    JOINTS,
    PART_HEADS,
    PART_WORD,
    SIDES,
    WORDS,
    Word,
    written,
)

ALL = (*WORDS, *JOINTS, *HEADS)


@pytest.mark.parametrize("word", [word for word in ALL if word.writes], ids=lambda w: w.terminal)
def test_what_a_word_writes_is_read_as_it(word: Word) -> None:
    # A word that needs more behind it is shown with it in what is offered.
    texts = [word.writes, *(offer for offer in word.offers if word.writes in offer)]
    assert any(re.search(word.pattern, text, re.IGNORECASE) for text in texts)


@pytest.mark.parametrize(
    "word", [word for word in ALL if word.offers and word.writes], ids=lambda w: w.terminal
)
def test_what_is_offered_is_what_is_written(word: Word) -> None:
    assert any(word.writes in offer for offer in word.offers)


def test_a_word_without_a_spelling_of_its_own_is_asked_for_in_vain() -> None:
    with pytest.raises(KeyError):
        written("NOTE")


def test_the_forms_choices_are_the_words_of_the_notation() -> None:
    assert set(SIDES) == {"both", "each", "alternating", "left", "right"}
    assert FORMS == ("rounds", "ladder", "bouts")
    assert all(re.fullmatch(PART_WORD, kind) for kind in PART_KINDS)
    assert {head.split()[0].rstrip(":") for head in PART_HEADS} == set(PART_KINDS)
