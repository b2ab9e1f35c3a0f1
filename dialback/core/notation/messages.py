"""What is not understood, in a coach's words: what it is, why, and the nearest right thing."""

from __future__ import annotations

import difflib
import re
from typing import TYPE_CHECKING, Final

from lark.exceptions import UnexpectedCharacters, UnexpectedInput, UnexpectedToken

from dialback.core.notation.slips import SlipError
from dialback.core.notation.talk import remark_at
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

CELLS: Final = (
    "these look like the cells of a table: write sets × reps and the load, as in '5 × 5 at 80 kg'"
)

CLASSES: Final[tuple[tuple[str, str, str], ...]] = (
    ("clock", rf"(?:{NUMBER})[ \t]?:[ \t]?(?:{NUMBER})(?:s\b)?",
     "'{text}' is not a load, a number of reps or a time here: work and rest stand in the head of "
     "rounds, as in '{0} s on, {1} s off'; a time is written as in 'rest 1:30'"),
    ("days", r"(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?\b|day[ ][0-9]",
     "a session begins with its day on a line of its own, as in '2026-11-30 Legs'"),
    ("date", r"[0-9]{1,2}[./-][0-9]{1,2}[./-](?:[0-9]{4}|[0-9]{2})\b",
     "write the day as year-month-day, as in '2026-11-30 Legs'"),
    ("as many as possible", r"(?:amrap|amap|max(?:imum)?(?:[ ]reps)?"
                            r"|as many (?:reps )?as possible)\b",
     "'{text}' leaves open how much: write the reps that you expect, as in '12 to failure'; as "
     "many rounds as go into a time as in '8 min of 5 Pull-up + 10 Press-up'"),
    ("on the minute", r"(?:emom|e[0-9]mom|otm|on the minute|every)\b",
     "write the clock as a head, as in 'every 60 s, 10 rounds:', and the movements below, each "
     "on a "
     "line that begins with a space"),
    ("intervals", r"intervals?\b",
     "write the intervals as a head, as in '8 bouts, 20 s on, 10 s off:', and the movements below"),
    ("superset", r"(?:super|tri|giant)[- ]?sets?\b|circuit\b|complex\b",
     "write a head, as in '3 rounds:', and the movements below, each on a line that begins with a "
     "space; or label them A1 and A2"),
    ("drop set", r"(?:drop|back[- ]?off|strip)[- ]?sets?\b|drop\b",
     "write the lighter sets with then, as in '8 at 60 kg, then 8 at 50 kg'"),
    ("rest-pause", r"(?:rest[- ]pause|cluster)\b",
     "write the bouts with +, as in '11 + 5 + 2'"),
    ("last time", r"(?:(?:same )?as )?(?:last|previous)[ ](?:time|week|session)\b",
     "what was lifted then stands in the log: write the load itself, as in 'at 82.5 kg'"),
    ("rep maximum", r"[0-9]{0,2}[ -]?rm\b",
     "write the set that you expect, as in '3 at 100 kg, to failure'"),
    ("cells", r"[|]", CELLS),
    ("maximum", r"(?:%|per ?cent\b)",
     "write a share of the maximum as '80 %', and the number of reps before it"),
    ("pause", r"(?:paused?|pausing|slow(?:ly)?|fast|explosive(?:ly)?|controlled|negatives?"
     r"|eccentrics?)\b",
     "write how it is done as a tempo, as in 'tempo 3-1-2-0', or as a note in (brackets)"),
    ("feeling", r"(?:light|heavy|easy|hard|moderate|medium)\b",
     "write how hard, as in 'RPE 7'; a level of the movement stands behind its name, as in "
     "'Press-up harder'; put a remark in (brackets)"),
    ("more or less", r"(?:~|about|approx\.?|circa|ca\.?|max\.?|up to|at least|[<>])",
     "write one number, or a rep range as in '9-13'; put a remark in (brackets)"),
    ("addition", r"\+[ \t]{0,8}[0-9]{1,4}(?![0-9.,])",
     "kilograms or pounds? Write what is added to the body with its unit: '+{0} kg' or '+{0} lb'"),
    ("open end", r"\+(?![ \t]{0,8}[0-9a-z])",
     "at least so many? Write 'to failure'; a + joins the bouts of one set, as in '11 + 5 + 2'"),
    ("minus", r"-[ \t]{0,8}[0-9]{1,4}(?:[.,][0-9]{1,2})?[ \t]{0,8}(?:kg|lb)?",
     "write the load, as in 'at 60 kg', or 'help {0} kg' for help; reps and RPE have a range, "
     "as in '9-13'"),
    ("money", r"[€$£#]|no\.[ ]",
     "not understood here: a remark goes into a note in (brackets)"),
    ("note without brackets", r"['\"]", "a note goes in (brackets)"),
    ("bracket", r"[()\[\]{}]", "a note goes in (brackets), opened and closed on the same line"),
    ("part", r"(?:part|block|section|group)\b",
     "a part has a line of its own before its movements, as in 'main A:'"),
    ("inside rounds", r"(?:between rounds|rounds?)\b",
     "rounds are written in a head above the movements, as in '3 rounds, 90 s between rounds:'"),
    ("work and rest", r"(?:on|off|work)\b",
     "work and rest by the clock stand in a head, as in '4 rounds, 35 s on, 25 s off:'"),
    ("per", r"per\b|/", "for reps on both sides write each side; a slash goes between numbers, "
     "as in '12/10/8', or in rounds between one round and the next"),
    ("cross", r"[x×*](?![a-z])", "the sets go first, then the reps, as in '3 × 8' or '3 × "
                                 "8-12'; a load stands as in 'at 60 kg'"),
    ("then", r"then\b", "in rounds a line is one set: a slash goes between one round and the "
                        "next, as in '9 / 7'"),
    ("sign", r"[-=&]", "not understood here: between two steps there is a then, as in '8, then 6'"),
)  # fmt: skip
"""Classes of what is often written and not understood: name, pattern, message."""

_CLASSES: Final = tuple(
    (name, re.compile(pattern, re.IGNORECASE), message) for name, pattern, message in CLASSES
)


_OPEN_END: Final = re.compile(r"\+[ \t]{0,8}$")
_OPEN_REST: Final = re.compile(r"\+[ \t]{0,8}$|\brest[ \t][^,]{1,20}$", re.IGNORECASE)


def explain(
    error: UnexpectedInput, text: str, at: int, names: Names | None, *, head: bool = False
) -> SlipError:
    """A parser's refusal as a mistake in the line; ``at`` is where its text begins."""
    where = stopped_at(error, text)
    rest = text[where:]
    if not rest.strip():
        open_end = (_OPEN_REST if head else _OPEN_END).search(text)
        start = open_end.start() if open_end else len(text)
        return SlipError(at + start, len(text.rstrip()) - start, _unfinished(text, head=head))
    loose = re.search(rf"({NUMBER})[ \t]{{0,8}}$", text[:where]) if head else None
    if loose and re.match(r"(?:on|off|work|rest|between)\b|/", rest, re.IGNORECASE):
        return _loose_number(text[loose.start(1) :], at + loose.start(1), head=True)
    if known := _class_of(rest):
        word = _WORD.match(rest)
        message, length = known
        return SlipError(at + where, max(length, len(word[0]) if word else 1), message)
    if unit := _unit_at(text, where):
        return SlipError(
            at + unit.start(2),
            len(unit[2]),
            f"{unit[2]!r} is not a unit: kg or lb for a load, s or min for a time, m for a "
            f"distance; put a remark in (brackets){_asked(_near(unit[2], UNITS))}",
            ("km", "kg") if unit[2].lower() == "k" else _near(unit[2], UNITS),
        )
    if share := re.match(rf"({NUMBER})[ \t]{{0,8}}%", rest):
        return SlipError(
            at + where, len(share[0]), f"how many reps? Write them, as in '3 × 5 at {share[1]} %'"
        )
    if rest[:1].isdigit():
        return _loose_number(rest, at + where, head=head)
    found = names.begins(rest) if names and rest[:1].isalpha() else None
    if found:
        return SlipError(
            at + where,
            found[1],
            f"{found[0]} is another movement: give it a line of its own, join the two with + if "
            "they are one set, or put a remark in (brackets)",
        )
    word = _WORD.match(rest)
    written = word[0] if word else rest[:1]
    near = _near(written.strip("."), KEYWORDS if head else _likely(rest))
    if near and (head or len(written) > 2):
        told = f"{written!r} is not understood here{_asked(near)}"
        return SlipError(at + where, len(written), told, near)
    if head:
        told = (
            f"{written!r} is not understood in the head of rounds: write for example "
            "'4 rounds, 35 s on, 25 s off, 90 s between rounds:'"
        )
        return SlipError(at + where, len(written), told)
    return _not_here(written, remark_at(text, where), at + where)


def stopped_at(error: UnexpectedInput, text: str) -> int:
    """Where the parser stopped: a place of the text."""
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
    if found is not None and len(remark_at(text, found.start(2)).split()) > 1:
        return None
    if found is None or found[2].lower() in (*KEYWORDS, *UNITS) or _near(found[2], KEYWORDS):
        return None
    return found


_FEW: Final = 12


def _likely(rest: str) -> tuple[str, ...]:
    """The words that a misspelt one can be, by what stands behind it."""
    if re.match(rf"[a-z]{{2,10}}[ \t]{{1,4}}(?:{TIME})", rest, re.IGNORECASE):
        return ("rest", "hold", "in")
    if re.match(r"[a-z]{2,10}[ \t]{1,4}[0-9]-[0-9]", rest, re.IGNORECASE):
        return ("tempo",)
    return KEYWORDS


def _near(word: str, known: tuple[str, ...]) -> tuple[str, ...]:
    # Where few words can stand, one that is less near is meant all the same.
    cutoff = 0.72 if len(known) < _FEW else 0.78
    found = difflib.get_close_matches(word.lower(), known, n=1, cutoff=cutoff)
    return tuple(found) if found and found[0] != word.lower() else ()


def _asked(near: tuple[str, ...]) -> str:
    return f". Did you mean {near[0]}?" if near else ""


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


def _class_of(rest: str) -> tuple[str, int] | None:
    """The message of a known class, and how many characters it is about."""
    for _, pattern, message in _CLASSES:
        if match := pattern.match(rest):
            text = match[0].strip()
            numbers = (*re.findall("[0-9]+", text), "35", "25")
            return message.format(*numbers[:2], text=text), len(match[0].rstrip())
    return None


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
        return f"how long? Write it behind, as in '{last[-1].lower()} 30 s'"
    if last and last[-1].lower() in ("at", "@", "help", "with"):
        return f"how much? Write it behind, as in '{last[-1].lower()} 20 kg'"
    if tail == "+":
        return next(message for name, _, message in CLASSES if name == "open end")
    return "the line ends too soon: write sets × reps, as in 3 × 8, or a time"


def _loose_number(rest: str, at: int, *, head: bool) -> SlipError:
    match = re.match(NUMBER, rest)
    assert match  # noqa: S101 - a digit stands there
    if head:
        word = re.match(rf"{NUMBER}[ \t]{{0,8}}(on|off)\b", rest, re.IGNORECASE)
        ways = [word[1].lower()] if word else ["on", "off"]
        told = ", ".join(f"'{match[0]} s {way}'" for way in ways)
        more = "" if word else f" or '{match[0]} rounds'"
        length = len(word[0]) if word else len(match[0])
        return SlipError(at, length, f"{match[0]} what? Write {told}{more}")
    return SlipError(
        at,
        len(match[0]),
        f"{match[0]} what? Write '{match[0]} kg' for a load, '{match[0]} s' for a time, or "
        f"'3 × {match[0]}' for reps",
    )


def _not_here(written: str, remark: str, at: int) -> SlipError:
    """What says nothing that counts, as far as it is understood: as a remark it is taken."""
    if len(remark) > 2 and remark.startswith(written[:1]):
        told = f"{remark!r} is not understood here: put a remark in brackets, '({remark})'"
        return SlipError(at, len(remark), told, (f"({remark})",))
    return SlipError(
        at, len(written), f"{written!r} is not understood here: put a remark in (brackets)"
    )


TIME_AGAIN: Final = "write 'rest {time}', or 'in {time}' if the reps are done within it"
"""What a bare time behind a dose may be."""
