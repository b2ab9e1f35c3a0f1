"""What is not understood, in a coach's words: what it is, why, and the nearest right thing."""

from __future__ import annotations

import difflib
import re
from typing import TYPE_CHECKING, Final

from lark.exceptions import UnexpectedCharacters, UnexpectedInput, UnexpectedToken

from dialback.core.notation.slips import SlipError
from dialback.core.notation.vocabulary import HEADS, NUMBER, TIME, WORDS

if TYPE_CHECKING:
    from dialback.core.notation.names import Names

UNITS: Final = ("kg", "lb", "s", "min", "sec", "m", "reps", "sets", "rounds")

KEYWORDS: Final = tuple(
    sorted(
        {
            offer.split()[0]
            for word in (*WORDS, *HEADS)
            for offer in word.offers
            if offer[0].isalpha()
        }
        | {"each", "side", "half", "full", "reps", "sets", "then", "easier", "harder", "failure",
           "rounds", "between", "on", "off", "work"}
    )
)  # fmt: skip
"""Words that a slip of the finger may have meant."""

_NUMBER_AND_WORD: Final = re.compile(rf"({NUMBER})[ \t]{{0,8}}([a-z]{{1,30}})", re.IGNORECASE)
_WORD: Final = re.compile(r"[^\s,()]{1,60}")

CLASSES: Final[tuple[tuple[str, str, str], ...]] = (
    ("clock", rf"(?:{NUMBER})[ \t]?:[ \t]?(?:{NUMBER})(?:s\b)?",
     "'{text}' is not a load, a number of reps or a time here: write '{0} s on, {1} s off' in the "
     "head of rounds, or a time as in 'rest 1:30'"),
    ("days", r"(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?\b|day[ ][0-9]",
     "a session begins with its day on a line of its own, as in '2026-11-30 Legs'"),
    ("date", r"[0-9]{1,2}[./-][0-9]{1,2}[./-](?:[0-9]{4}|[0-9]{2})\b",
     "write the day as year-month-day, as in '2026-11-30 Legs'"),
    ("as many as possible", r"(?:amrap|amap|max(?:imum)?(?:[ ]reps)?"
                            r"|as many (?:reps )?as possible)\b",
     "'{text}' leaves open how much: write the reps that you expect, as in '12 to failure', or "
     "'8 min of 5 Pull-up + 10 Press-up' for as many rounds as go into a time"),
    ("on the minute", r"(?:emom|e[0-9]mom|otm|on the minute|every)\b",
     "write the clock as a head, as in 'every 60 s, 10 rounds:', and the movements below, each "
     "on a "
     "line that begins with a space"),
    ("intervals", r"intervals?\b",
     "write the intervals as a head, as in '8 bouts, 20 s on, 10 s off:', and the movements below"),
    ("superset", r"(?:super|tri|giant)[- ]?sets?\b|circuit\b|complex\b",
     "write '3 rounds:' and the movements below, each on a line that begins with a space; or label "
     "them A1 and A2"),
    ("drop set", r"(?:drop|back[- ]?off|strip)[- ]?sets?\b|drop\b",
     "write the lighter sets behind 'then', as in '8 at 60 kg, then 8 at 50 kg'"),
    ("rest-pause", r"(?:rest[- ]pause|cluster)\b",
     "write the bouts with +, as in '11 + 5 + 2'"),
    ("maximum", r"(?:[0-9]{0,2}[ -]?rm\b|%|per ?cent\b)",
     "write a share of the maximum as '80 %', and the number of reps before it"),
    ("pause", r"(?:paused?|pausing|slow(?:ly)?|fast|explosive(?:ly)?|controlled|negatives?"
     r"|eccentrics?)\b",
     "write how it is done as a tempo, as in 'tempo 3-1-2-0', or as a note in (brackets)"),
    ("feeling", r"(?:light|heavy|easy|hard|moderate|medium)\b",
     "write how hard as 'RPE 7', a level of the movement as 'easier' or 'harder', or a note in "
     "(brackets)"),
    ("more or less", r"(?:~|about|approx\.?|circa|ca\.?|max\.?|up to|at least|[<>])",
     "write one number, or a rep range as in '9-13'; the rest goes into a note in (brackets)"),
    ("addition", r"\+[ \t]{0,8}[0-9]", "write what is added to the body's weight with its unit, as "
                                   "in '+10 kg'"),
    ("open end", r"\+(?![ \t]{0,8}[0-9])",
     "a + joins the bouts of one set, as in '11 + 5 + 2': for more if it goes, write 'to failure'"),
    ("range of times", rf"-[ \t]{{0,8}}{NUMBER}[ \t]{{0,8}}(?:s|secs?|min|mins?|minutes?|m|%)\b",
     "write one number: only reps and RPE have a range, as in '9-13'"),
    ("minus", r"-[ \t]{0,8}[0-9]",
     "write one load, behind 'at'; help is written 'help 15 kg'; only reps and RPE have a range, "
     "as in '9-13'"),
    ("money", r"[€$£#]|no\.?[ ]",
     "not understood here: a remark goes into a note in (brackets)"),
    ("note without brackets", r"['\"]", "a note goes in (brackets)"),
    ("bracket", r"[()\[\]{}]", "a note goes in (brackets), opened and closed on the same line"),
    ("part", r"(?:part|block|section|group)\b",
     "a part has a line of its own before its movements, as in 'main A:'"),
    ("inside rounds", r"(?:between rounds|rounds?)\b",
     "rounds are written in a head above the movements, as in '3 rounds, 90 s between rounds:'"),
    ("work and rest", r"(?:on|off|work)\b",
     "work and rest by the clock stand in a head, as in '4 rounds, 35 s on, 25 s off:'"),
    ("per", r"per\b|/", "write 'each side' for reps on both sides; a slash goes between numbers, "
     "as in '12/10/8', or in rounds between one round and the next"),
    ("cross", r"[x×*](?![a-z])", "the sets go first, then the reps, as in '3 × 8' or '3 × "
                                 "8-12'; before a load write 'at'"),
    ("then", r"then\b", "in rounds a line is one set: a slash goes between one round and the "
                        "next, as in '9 / 7'"),
    ("sign", r"[-=&]", "not understood here: between two steps write 'then'"),
)  # fmt: skip
"""Classes of what is often written and not understood: name, pattern, message."""

_CLASSES: Final = tuple(
    (name, re.compile(pattern, re.IGNORECASE), message) for name, pattern, message in CLASSES
)


def explain(
    error: UnexpectedInput, text: str, at: int, names: Names | None, *, head: bool = False
) -> SlipError:
    """A parser's refusal as a mistake in the line; ``at`` is where its text begins."""
    where = _where(error, text)
    rest = text[where:]
    if not rest.strip():
        return SlipError(at + len(text), 0, _unfinished(text, head=head))
    loose = re.search(rf"({NUMBER})[ \t]{{0,8}}$", text[:where]) if head else None
    if loose and re.match(r"(?:on|off|work|rest|between)\b|/", rest, re.IGNORECASE):
        return _loose_number(loose[1], at + loose.start(1), head=True)
    if message := _class_of(rest):
        word = _WORD.match(rest)
        return SlipError(at + where, len(word[0]) if word else 1, message)
    if unit := _unit_at(text, where):
        return SlipError(
            at + unit.start(2),
            len(unit[2]),
            f"{unit[2]!r} is not a unit: kg or lb for a load, s or min for a time, m for a "
            f"distance; "
            f"a remark goes into a note in (brackets){_near(unit[2], UNITS)}",
        )
    if share := re.match(rf"({NUMBER})[ \t]{{0,8}}%", rest):
        return SlipError(at + where, len(share[0]), f"how many reps? Write '3 × 5 at {share[1]} %'")
    if rest[:1].isdigit():
        return _loose_number(rest, at + where, head=head)
    found = names.begins(rest) if names and rest[:1].isalpha() else None
    if found:
        return SlipError(
            at + where,
            found[1],
            f"{found[0]} is another movement: give it a line of its own, or join the two with + if "
            "they are one set",
        )
    word = _WORD.match(rest)
    written = word[0] if word else rest[:1]
    if near := _near(written.strip("."), KEYWORDS):
        return SlipError(at + where, len(written), f"{written!r} is not understood here{near}")
    return SlipError(at + where, len(written), _not_here(written, head=head))


def _where(error: UnexpectedInput, text: str) -> int:
    """Where the parser stopped."""
    if isinstance(error, UnexpectedToken):
        return len(text) if error.token.type == "$END" else (error.token.start_pos or 0)
    if isinstance(error, UnexpectedCharacters):
        return error.pos_in_stream or 0
    return len(text)


def _unit_at(text: str, where: int) -> re.Match[str] | None:
    """A number at this place, or right before it, with a word behind it that is no unit."""
    begin = where
    if text[where : where + 1].isalpha():
        before = re.search(rf"{NUMBER}[ \t]{{0,8}}$", text[:where])
        if before is None:
            return None
        begin = before.start()
    found = _NUMBER_AND_WORD.match(text, begin)
    if found is None or found[2].lower() in (*KEYWORDS, *UNITS) or _near(found[2], KEYWORDS):
        return None
    return found


def _near(word: str, known: tuple[str, ...]) -> str:
    found = difflib.get_close_matches(word.lower(), known, n=1, cutoff=0.65)
    return f". Did you mean {found[0]}?" if found and found[0] != word.lower() else ""


def line_class(text: str) -> str:
    """What is wrong with a line that begins with no movement, if it is of a known class."""
    return next(
        (
            message.format("35", "25", text=text)
            for name, pattern, message in _CLASSES
            if name in _WHOLE_LINES and pattern.match(text)
        ),
        "",
    )


_WHOLE_LINES: Final = (
    "days",
    "date",
    "as many as possible",
    "on the minute",
    "intervals",
    "superset",
    "part",
    "inside rounds",
    "drop set",
)


def _class_of(rest: str) -> str:
    for _, pattern, message in _CLASSES:
        if match := pattern.match(rest):
            text = match[0].strip()
            numbers = (*re.findall("[0-9]+", text), "35", "25")
            return message.format(*numbers[:2], text=text)
    return ""


def _unfinished(text: str, *, head: bool) -> str:
    if head:
        if rest := re.search(rf"rest[ \t]{{1,8}}({TIME})[ \t]{{0,8}}$", text, re.IGNORECASE):
            return (
                f"a rest after each movement or after each round? Write '{rest[1]} off' or "
                f"'{rest[1]} between rounds'"
            )
        return "the head of rounds ends too soon: write for example '4 rounds, 35 s on, 25 s off:'"
    tail = text.rstrip()[-1:]
    last = _WORD.findall(text)
    if tail in ("×", "x", "*", "X"):
        return "how much? The line ends behind the cross: write 3 × 8, or a time"
    if last and last[-1].lower() in ("rest", "hold", "in"):
        return f"how long? Write '{last[-1].lower()} 30 s'"
    if last and last[-1].lower() in ("at", "@", "help", "with"):
        return f"how much? Write '{last[-1].lower()} 20 kg'"
    if tail == "+":
        return _class_of("+")
    return "the line ends too soon: write sets × reps, as in 3 × 8, or a time"


def _loose_number(rest: str, at: int, *, head: bool) -> SlipError:
    match = re.match(NUMBER, rest)
    assert match  # noqa: S101 - a digit stands there
    if head:
        return SlipError(
            at,
            len(match[0]),
            f"{match[0]} what? Write '{match[0]} s on', '{match[0]} s off' or '{match[0]} rounds'",
        )
    return SlipError(
        at,
        len(match[0]),
        f"{match[0]} what? Write '{match[0]} kg' for a load, '{match[0]} s' for a time, or "
        f"'3 × {match[0]}' for reps",
    )


def _not_here(written: str, *, head: bool) -> str:
    if head:
        return (
            f"{written!r} is not understood in the head of rounds: write for example "
            "'4 rounds, 35 s on, 25 s off, 90 s between rounds:'"
        )
    return f"{written!r} is not understood here: a remark goes into a note in (brackets)"


TIME_AGAIN: Final = "write 'rest {time}', or 'in {time}' if the reps are done within it"
"""What a bare time behind a dose may be."""
