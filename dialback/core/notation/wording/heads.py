"""Heads of rounds as coaches write them: ``EMOM 10:``, ``AMRAP 8 min:``, ``21-15-9:``."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from dialback.core.notation.slips import SlipError
from dialback.core.notation.vocabulary import TIME

_SPAN: Final = r"[0-9]{1,3}(?:[ ]?min(?:ute)?s?\b|'|m\b)?"
COUNT: Final = r"[0-9]{1,2}(?:[ ]?(?:-|to)[ ]?[0-9]{1,2})?"
RUNGS: Final = re.compile(
    r"ladder[ ]?:?[ ]?([0-9]{1,2})[ ]?(?:to|-)[ ]?([0-9]{1,2})(?:[ ]reps)?"
    r"([ ](?:and|&)[ ](?:back|down)(?:[ ]again)?)?(?=[ ]{0,8}:?[ ]{0,8}$|[ ]{0,8}:)",
    re.IGNORECASE,
)


def rungs_through(match: re.Match[str]) -> list[int]:
    """The rungs of a ladder from one number to another, and back where it says so."""
    found = _through(int(match[1]), int(match[2]))
    return found + (found[-2::-1] if match[3] else [])


def _through(first: int, last: int) -> list[int]:
    """The numbers from one to the other, up or down."""
    step = 1 if last >= first else -1
    return list(range(first, last + step, step))


@dataclass(frozen=True, slots=True)
class Head:
    """A head as coaches write it: ``says`` is the notation's, behind it stand the movements."""

    pattern: re.Pattern[str]
    says: Callable[[re.Match[str]], str]
    example: str
    means: str


def _head(pattern: str, says: Callable[[re.Match[str]], str], example: str, means: str) -> Head:
    return Head(re.compile(pattern, re.IGNORECASE), says, example, means)


def _minutes(match: re.Match[str]) -> int:
    said = next((one for one in (match["a"], match["b"]) if one), "")
    if not said:
        raise SlipError(
            match.start(), len(match[0].rstrip()), "for how long? Write for example 'EMOM 10 min:'"
        )
    return int(re.findall("[0-9]+", said)[0])


def _emom(match: re.Match[str]) -> str:
    every = int(match["n"] or match["k"] or 1)
    told = match["b"] or match["a"] or ""
    total = _minutes(match)
    if "round" in told.lower():
        count = total
    elif total % every:
        raise SlipError(
            match.start(),
            len(match[0].rstrip()),
            f"{total} min are not whole rounds of {every} min: write 'every {every} min, "
            f"{max(1, total // every)} rounds:'",
        )
    else:
        count = total // every
    return f"every {every * 60} s, {count} rounds:"


def _rungs_of(match: re.Match[str]) -> str:
    return f"ladder {', '.join(re.findall('[0-9]+', match[1]))}:"


HEADS: Final[tuple[Head, ...]] = (
    _head(rf"(?:(?P<a>{_SPAN})[ ])?(?:amrap|as many rounds as possible)(?:[ ,:]{{0,3}}"
          rf"(?:in[ ]|for[ ])?(?P<b>{_SPAN}))?[ ]?(?::|of\b|$)[ ]{{0,8}}",
          lambda match: f"amrap {_minutes(match)} min:",
          "AMRAP 8 min: 5 Pull-ups, 10 Press-ups", "8 min of 5 Pull-up + 10 Press-up"),
    _head(rf"(?:(?P<a>{_SPAN})[ ])?(?:e(?P<n>[0-9]{{1,2}})?mom|otm"
          r"|every[ ](?:(?P<k>[0-9]{1,2})[ ])?min(?:ute)?s?[ ]on[ ]the[ ]minute)"
          rf"(?:[ ,:x×]{{0,3}}(?:for[ ])?(?P<b>[0-9]{{1,2}}[ ]rounds|{_SPAN}))?[ ]?"
          r"(?::|of\b|$)[ ]{0,8}", _emom,
          "EMOM 10: 5 Pull-ups", "every 60 s, 10 rounds:\n  Pull-up 5"),
    _head(r"tabata(?:[ ]of)?[ ]?:?[ ]{0,8}", lambda match: "8 bouts, 20 s on, 10 s off:",
          "Tabata: Kettlebell swing at 16 kg",
          "8 bouts, 20 s on, 10 s off:\n  Kettlebell swing at 16 kg"),
    _head(rf"({COUNT})[ ]?(?:rounds?|rds?|circuits?|times through|x through)\b"
          r"([ ]for[ ]time)?(?:[ ]of\b)?[ ]?:?[ ]{0,8}(?=[0-9]{0,4}[ ]?[^\W\d])",
          lambda match: f"{match[1]} rounds{(match[2] or '').lower()}:",
          "3 rounds of 10 Press-ups and 10 Inverted rows",
          "3 rounds:\n  Press-up 10\n  Inverted row 10"),
    _head(r"([0-9]{1,2})[ ]?(?:-|to)[ ]?([0-9]{1,2})[ ]ladder(?:[ ]of)?[ ]?:?[ ]{0,8}",
          lambda match: f"ladder {', '.join(map(str, _through(int(match[1]), int(match[2]))))}:",
          "3 to 1 ladder: Pull-up", "ladder 3, 2, 1:\n  Pull-up"),
    _head(rf"({TIME})[ ]?on[ ,/]{{0,3}}({TIME})[ ]?off[ ,]{{0,2}}(?:x|×|for)[ ]?([0-9]{{1,2}})"
          r"(?:[ ]rounds)?[ ]?:?[ ]{0,8}",
          lambda match: f"{match[3]} rounds, {match[1]} on, {match[2]} off:",
          "20 s on / 10 s off × 8: Kettlebell swing at 16 kg",
          "8 rounds, 20 s on, 10 s off:\n  Kettlebell swing at 16 kg"),
    _head(r"(?:circuit[ ,:]{1,3}(?:[x×][ ]?([0-9]{1,2})|([0-9]{1,2})[ ]?[x×])"
          r"|([0-9]{1,2})[ ]?[x×][ ]?circuit|([0-9]{1,2})[ ]times(?:[ ]through)?)[ ]?:?$",
          lambda match: f"{next(one for one in match.groups() if one)} rounds:",
          "Circuit × 3:\n  Press-up 10", "3 rounds:\n  Press-up 10"),
    _head(r"([0-9]{1,3}(?:-[0-9]{1,3}){2,12})(?:[ ]reps)?(?:[ ]each)?(?:[ ]of(?:[ ]each)?)?"
          r"[ ]?:?[ ]{0,8}(?=[^\W\d]|$)", _rungs_of,
          "21-15-9 Kettlebell swing at 16 kg, Press-up",
          "ladder 21, 15, 9:\n  Kettlebell swing at 16 kg\n  Press-up"),
    _head(r"\A((?:[^:]{0,60}\b)?(?:rounds?|rds?|bouts?|ladder|every)\b[^:]{0,80}|every\b[^:]{0,80})"
          r":[ ]{1,8}(?=\S)", lambda match: f"{match[1]}:",
          "4 rounds, 35 s on, 25 s off: Press-up, Inverted row",
          "4 rounds, 35 s on, 25 s off:\n  Press-up\n  Inverted row"),
)  # fmt: skip
"""In the order in which they are tried."""
