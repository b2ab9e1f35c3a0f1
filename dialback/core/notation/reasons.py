"""Why something stands there: behind its line, below its head, or on a line of its own below it."""

from __future__ import annotations

import re
from typing import Final

from dialback.core.notation.vocabulary import written

_BECAUSE: Final = re.compile(
    r"(?:\A|[ \t]{0,8}[,;.]?[ \t]{1,8}|[,;.])because[ \t]{1,8}(?=\S)", re.IGNORECASE
)
_ALONE: Final = re.compile(
    r"[ \t]{0,200}(?:why[ \t]{0,8}:[ \t]{0,8}(?:because[ \t]{1,8})?|because[ \t]{1,8})(?=\S)",
    re.IGNORECASE,
)


def cut_reason(text: str, raw: str) -> tuple[str, str, str]:
    """A line without the reason at its end, the same as it was typed, and the reason.

    A line that is nothing but a reason comes out empty. What stands in brackets is a note. The
    colon of a head stays with it: ``main A, because her arms tire first:``.
    """
    if alone := _ALONE.match(text):
        indent = len(text) - len(text.lstrip())
        return text[:indent], raw[:indent], said(raw[alone.end() :])
    for found in _BECAUSE.finditer(text):
        before = text[: found.start()]
        if before.count("(") > before.count(")") or before.lstrip().startswith("#"):
            continue
        reason, colon = raw[found.end() :].rstrip(), ""
        if reason.endswith(":"):
            reason, colon = reason[:-1], ":"
        return before + colon, raw[: found.start()] + colon, said(reason)
    return text, raw, ""


def said(words: str) -> str:
    """A reason in one line; ``because of`` keeps its word, for what follows says nothing alone."""
    line = " ".join(words.split())
    return f"{written('BECAUSE')} {line}" if line.lower().startswith("of ") else line


def both(first: str, more: str) -> str:
    """Two reasons as one; one that is said twice is said once."""
    return "; ".join(dict.fromkeys(filter(None, (first, more))))


def behind(reason: str) -> str:
    """How a reason stands behind a line."""
    word = written("BECAUSE")
    if not reason:
        return ""
    return f", {reason}" if reason.lower().startswith(f"{word} ") else f", {word} {reason}"


def reason_line(reason: str) -> str:
    """A reason on a line of its own, below the head that it is about."""
    return f"{written('WHY')} {reason}"
