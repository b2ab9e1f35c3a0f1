"""What can be written instead of a line that was not understood: whole lines that are read.

Texts in quotes behind "write" or "or" in a message are what can stand in the marked place; those
behind "as in" are examples. Nothing is offered that is not understood itself.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from typing import Final

from dialback.core.notation.slips import Mistake

MOST_OFFERS: Final = 4
_MOST_LOOKED_AT: Final = 12
"""Beyond so many mistakes of a text nothing is offered: they are looked for at every key."""
_AGAIN: Final = 6
_QUOTED: Final = re.compile(r"(?<![^ (])'((?:[^']|'(?![ ,.;:?)]|$))+)'(?=[ ,.;:?)]|$)")
_EXAMPLE: Final = re.compile(r"(?:as in|for example|to) $")
_LOOSE_COMMA: Final = re.compile("[ ]{1,8},")
_NUMBERS: Final = re.compile(r"[0-9.,]+")

Wrong = Callable[[str], Sequence[Mistake]]
"""The mistakes of a text."""


def offers_in(message: str) -> tuple[str, ...]:
    """The texts that a message offers for its place."""
    found = []
    example = False
    last = 0
    for match in _QUOTED.finditer(message):
        between = message[last : match.start()]
        joined = last and re.fullmatch(r",? (?:or|and) |, ", between)
        example = bool(_EXAMPLE.search(between)) or (example and bool(joined))
        last = match.end()
        if not example and re.search(r"\b[Ww]rite\b", message[: match.start()]):
            found.append(match[1])
    return tuple(dict.fromkeys(found))


def with_offers(lines: Sequence[str], mistakes: Sequence[Mistake], wrong: Wrong) -> list[Mistake]:
    """The mistakes of a text, each with the lines that can stand in place of its own."""
    return [
        mistake if at >= _MOST_LOOKED_AT else mistake.offering(_instead(lines, mistake, wrong))
        for at, mistake in enumerate(mistakes)
    ]


def _instead(lines: Sequence[str], mistake: Mistake, wrong: Wrong) -> tuple[str, ...]:
    offers = mistake.offers or offers_in(mistake.message)
    if not offers or not 0 < mistake.line <= len(lines):
        return ()
    before, behind = _around(lines, mistake.line)
    line = lines[mistake.line - 1]
    found: dict[str, None] = {}
    for at in range(len(offers)):
        text = _mended(line, mistake, at, before, behind, wrong)
        if text is not None and text.strip() != line.strip():
            found[text.strip()] = None
    return tuple(found)[:MOST_OFFERS]


def _around(lines: Sequence[str], number: int) -> tuple[list[str], list[str]]:
    """What a line is read with: the head above it, or what stands below it."""
    line = lines[number - 1]
    indent = len(line) - len(line.lstrip())
    head = next(
        (
            one
            for one in reversed(lines[: number - 1])
            if one.strip() and len(one) - len(one.lstrip()) < indent
        ),
        None,
    )
    below = []
    for one in lines[number : number + 8]:
        if len(one) - len(one.lstrip()) <= indent or not one.strip():
            break
        below.append(one)
    return ([head] if head is not None else []), below


def _mended(
    line: str, mistake: Mistake, at: int, before: list[str], behind: list[str], wrong: Wrong
) -> str | None:
    """The line with an offer in the place of the mistake, and of those that are like it."""
    alike = _NUMBERS.sub("", mistake.message)
    for _ in range(_AGAIN):
        offers = mistake.offers or offers_in(mistake.message)
        if at >= len(offers):
            return None
        start, stop = mistake.column - 1, mistake.column - 1 + mistake.length
        offer = offers[at].removesuffix(":") if line[stop:].startswith(":") else offers[at]
        glue = " " if line[:start][-1:].isalnum() and offer[:1].isalpha() else ""
        line = line[:start] + glue + offer + line[stop:]
        left = [
            one for one in wrong("\n".join([*before, line, *behind])) if one.line == len(before) + 1
        ]
        if not left:
            return _LOOSE_COMMA.sub(",", line)
        mistake = left[0]
        if _NUMBERS.sub("", mistake.message) != alike:
            return None
    return None
