"""The words of the notation, in one table: how each is spelt, what it says, what is offered.

The grammar's terminals, the completion and the colours of the editor, the canonical text and the
help are made from it. Patterns are matched whatever the letter case; repeats are bounded, so that
no text makes them slow.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

_GAP: Final = r"[ \t]{0,8}"
WHOLE: Final = r"[0-9]{1,9}"
NUMBER: Final = r"[0-9]{1,9}(?:[.,][0-9]{1,6})?"
_TIME_UNIT: Final = r"(?:seconds?|secs?|s|minutes?|mins?|min)\b"
TIME: Final = (
    rf"[0-9]{{1,6}}:[0-9]{{2}}(?![0-9:])(?:{_GAP}min\b)?"
    rf"|[0-9]{{1,4}}{_GAP}(?:minutes?|mins?|min)(?:{_GAP}|[ ]and[ ])[0-9]{{1,2}}{_GAP}"
    r"(?:seconds?|secs?|s)\b"
    rf"|{NUMBER}{_GAP}{_TIME_UNIT}"
    r"|[0-9]{1,3}'(?:[ ]?[0-9]{1,2}(?:\"|'')?(?![0-9]))?|[0-9]{1,4}(?:\"|'')"
)
"""A time: ``40 s``, ``2 min``, ``1:30``, ``1 min 30 s``, ``1'30"``."""

TIME_SPAN: Final = (
    rf"{NUMBER}{_GAP}(?:{_TIME_UNIT}{_GAP})?(?:-|to\b){_GAP}{NUMBER}{_GAP}{_TIME_UNIT}"
    r"|[0-9]{1,2}:[0-9]{2}[ ]?(?:-|to\b)[ ]?[0-9]{1,2}:[0-9]{2}(?![0-9:])"
    r"|[0-9]{1,3}'?[ ]?(?:-|to\b)[ ]?[0-9]{1,3}'(?![0-9])"
    r"|[0-9]{1,4}\"?[ ]?(?:-|to\b)[ ]?[0-9]{1,4}(?:\"|'')"
)
"""A span of times: ``30-45 s``, ``2 to 3 min``."""

WEIGHT_UNIT: Final = r"(?:kgs?|kilos?|kilograms?|lbs?|pounds?)\b"
_TOP: Final = rf"{NUMBER}(?![0-9]|{_GAP}[x×*])"
"""The upper end of a span of exertion: what a cross follows are sets."""
_SEVERAL: Final = rf"(?:[0-9]{{1,4}}{_GAP}[x×*]{_GAP})?"
LOAD: Final = rf"{_SEVERAL}{NUMBER}{_GAP}{WEIGHT_UNIT}"
NO_LOAD: Final = r"(?:bw\b|body[- ]?weight\b|no[ ]load\b|unloaded\b)"
_OF_MAXIMUM: Final = rf"%(?:{_GAP}(?:of[ ])?(?:the[ ])?(?:1[ -]?rm|max(?:imum)?)\b)?"
_OF_BODY: Final = rf"%{_GAP}(?:of[ ])?body[- ]?weight\b"
_OF_BEFORE: Final = rf"%{_GAP}of[ ]the[ ]set[ ]before\b"
BODY_PART: Final = (
    r"(?:feet|heels?|toes?|knees?|hips?|shoulders?|elbows?|wrists?|hands?[ ][a-z]|foot[ ][a-z]"
    r"|arms?[ ](?:straight|up|down|out|tight)|legs?[ ](?:straight|bent|up|down))\b"
)
"""Behind a side such words are said of the body, as in "left heel down"."""
LIMB: Final = r"(?:side|arm|leg|hand|foot|limb)"


def listed(item: str, unit: str) -> str:
    """Numbers with slashes between them and one unit behind the last: ``40/45/50 kg``."""
    return rf"{item}(?:{_GAP}/{_GAP}{item}){{1,19}}{unit}"


Kind = Literal["number", "word", "head"]


@dataclass(frozen=True, slots=True)
class Word:
    """A word of the notation, or a family of spellings that mean the same.

    ``terminal`` is its name in the grammar, ``priority`` goes before where two would match.
    ``offers`` is what completion puts in its place, ``says`` the help beside it; ``writes`` is the
    one spelling of the canonical text and of the form.
    """

    terminal: str
    pattern: str
    priority: int = 5
    kind: Kind = "word"
    offers: tuple[str, ...] = ()
    says: str = ""
    writes: str = ""


WORDS: Final = (
    Word("PCT_LIST", listed(NUMBER, rf"{_GAP}{_OF_MAXIMUM}"), 16, "number"),
    Word("LOAD_LIST", listed(NUMBER, rf"{_GAP}{WEIGHT_UNIT}"), 16, "number"),
    Word(
        "AT_LOADS",
        rf"(?:at|@|with){_GAP}{NUMBER}(?:,[ \t]{{1,8}}{NUMBER}){{1,19}}{_GAP}{WEIGHT_UNIT}",
        17, "number",
    ),
    Word("TIME_LIST", listed(NUMBER, rf"{_GAP}{_TIME_UNIT}"), 16, "number"),
    Word("LIST", rf"{listed(WHOLE, '')}(?![0-9.,]?[0-9:])", 9, "number"),
    Word(
        "EACH",
        rf"each[ ]{LIMB}|each\b(?![ ](?:rep|time|set|one|round|day|week)\b)|per[ ]{LIMB}"
        rf"|a[ ]{LIMB}\b|ea\b\.?(?:[ ]{LIMB}\b)?|e/s\b|/{_GAP}{LIMB}\b|on[ ]each[ ]{LIMB}",
        15, offers=("each side",), says="reps on both sides", writes="each side"),
    Word("BOTH_SIDES", rf"both[ ]{LIMB}s?\b", 16),
    Word("BOTH", rf"both\b(?![ ]{BODY_PART})(?:[ ]at[ ]once)?", 15, offers=("both",),
         says="both sides at once", writes="both"),
    Word(
        "ALTERNATING", rf"alternat(?:ing|ely|e)\b(?:[ ]{LIMB}s?\b)?|alt\b", 15,
        offers=("alternating",), says="sides in turn", writes="alternating"),
    Word("LEFT", rf"left\b(?![ ]{BODY_PART})(?:[ ]{LIMB}\b)?|l\b", 15, offers=("left",),
         writes="left"),
    Word("RIGHT", rf"right\b(?![ ]{BODY_PART})(?:[ ]{LIMB}\b)?|r\b", 15, offers=("right",),
         writes="right"),
    Word(
        "SETS", rf"(?:[0-9]{{1,2}}{_GAP}(?:-|to\b){_GAP})?[0-9]{{1,6}}{_GAP}sets?\b(?:{_GAP}of\b)?",
        14, "number",
    ),
    Word(
        "TIMED_REST",
        rf"(?:{TIME_SPAN}|{TIME}){_GAP}(?:of[ ])?rest(?:[ ]between[ ]sets)?\b"
        rf"(?!{_GAP}:?{_GAP}[0-9])", 18,
    ),
    Word("TIMED_HOLD", rf"(?:{TIME}){_GAP}holds?\b(?!{_GAP}[0-9])", 15),
    Word("HELPED", rf"{LOAD}{_GAP}(?:of[ ])?(?:help|assist(?:ance|ed)?)\b", 15),
    Word("ADDED", rf"\+{_GAP}{LOAD}", 15, "number"),
    Word("LOAD", LOAD, 13, "number"),
    Word("PCT_BODY", rf"{NUMBER}{_GAP}{_OF_BODY}", 15, "number",
         ("50 % body weight",), "of what the athlete weighs", "% body weight"),
    Word("PCT_BEFORE", rf"{NUMBER}{_GAP}{_OF_BEFORE}", 15, "number"),
    Word("TIME_SPAN", TIME_SPAN, 17, "number"),
    Word("SPAN_TIMES", rf"[1-6]{_GAP}(?:-|to\b){_GAP}[2-8]{_GAP}[x×*](?![a-z])", 17, "number"),
    Word("PCT", rf"{NUMBER}{_GAP}{_OF_MAXIMUM}", 13, "number"),
    Word("TIME", TIME, 12, "number"),
    Word(
        "DISTANCE", rf"{NUMBER}{_GAP}(?:m|met(?:er|re)s?|km|kilomet(?:er|re)s?)\b", 11, "number",
    ),
    Word(
        "TEMPO", r"tempo[ \t:]{1,8}(?:usual|normal|[^\s,()]{1,40})|(?:usual|normal|own)[ ]tempo\b",
        13, offers=("tempo 3-1-2-0",), says="lower, pause, lift, pause", writes="tempo"),
    Word("BARE_TEMPO", r"[0-9x](?:-[0-9x]){2,3}(?![0-9x-])", 14),
    Word(
        "RIR",
        rf"(?:(?:@|at){_GAP})?rir{_GAP}:?{_GAP}{NUMBER}(?:{_GAP}-{_GAP}{_TOP})?"
        rf"|{NUMBER}(?:{_GAP}-{_GAP}{_TOP})?{_GAP}"
        rf"(?:rir\b(?!{_GAP}:?{_GAP}[0-9])|(?:reps?[ ])?in[ ]reserve\b)",
        15,
    ),
    Word(
        "RPE", rf"(?:(?:@|at){_GAP})?rpe{_GAP}:?{_GAP}{NUMBER}(?:{_GAP}-{_GAP}{_TOP})?", 15,
        offers=("RPE 8",), says="exertion, 0 to 10", writes="RPE"),
    Word(
        "BAND",
        r"band[ \t]{1,8}(?!band\b|at\b|rest\b|rpe\b|with\b)[a-z]{1,30}(?![a-z])"
        r"|(?!(?:with|and|the|a|no|then|each|in|at"
        r"|of)[ \t])[a-z]{2,30}[ \t]{1,8}band\b(?![ \t]+[a-z])",
        11, offers=("band strong",), says="by its level, without kilograms", writes="band"),
    Word("REP_RANGE", rf"{WHOLE}{_GAP}(?:-|to\b){_GAP}{WHOLE}(?![0-9.,]?[0-9]|{_GAP}(?:kg|lb|%"
                      rf"|s\b|min|m\b|-))",
         10, "number"),
    Word("TIMES", r"[x×*](?![a-z])|by\b", 6),
    Word("NOTE", r"\([^()\n]{0,600}\)", 5, offers=()),
    Word(
        "SPAN", r"(?:(?:low|high)[ ])?half\b(?:[ ]range\b|(?![ -]?(?:way|the|a|kneeling)\b))"
        r"|full\b(?:[ ]range\b|(?![ ](?:stop|hang|lock|depth|stretch|squeeze|body|extension)))", 15,
        offers=("half range",), says="the whole set in half of the range",
    ),
    Word("WARM_UP", r"warm[- ]?ups?\b|w/u\b", 15, offers=("warm-up",),
         says="left out of the sums", writes="warm-up"),
    Word("FAILURE", r"(?:to|until|till?)[ ]failure\b", 15, offers=("to failure",),
         says="RPE 10", writes="to failure"),
    Word("FOR_TIME", r"for[ ]time\b", 15, offers=("for time",), says="as fast as form allows",
         writes="for time"),
    Word("NO_LOAD", NO_LOAD, 15, offers=("BW",),
         says="body weight alone, no load", writes="BW"),
    Word("OPEN_REST", r"rest[ ]as[ ]needed\b", 16, writes="rest as needed"),
    Word("NO_REST", r"no[ ]rest\b", 16),
    Word("REST", r"rest(?:ing)?\b:?", 8, offers=("rest 90 s",), says="after each set",
         writes="rest"),
    Word("HOLD", r"hold\b", 8, offers=("hold 8 s",), says="at the end", writes="hold"),
    Word("HELP", r"help\b|assist(?:ed|ance)?\b", 8, offers=("help 15 kg",), says="assistance",
         writes="help"),
    Word("REPS", r"reps?\b|repetitions?\b", 8, writes="reps"),
    Word("IN", r"(?:with)?in\b", 8),
    Word("WITH", r"(?:with\b|w/)(?![ \t]*[0-9])", 9),
    Word("AT", r"at\b|@|with\b|w/", 7, writes="at"),
    Word("AND", r"and\b|;", 7),
    Word("DECIMAL", r"[0-9]{1,9}\.[0-9]{1,6}(?![0-9])", 2, "number"),
    Word("INT", rf"{WHOLE}(?![0-9])", 1, "number"),
)  # fmt: skip
"""The words behind a movement."""

JOINTS: Final = (
    Word("THEN", r"then\b", offers=("then",), says="go on with the movement", writes="then"),
    Word(
        "LEVEL", r"easier\b|harder\b", offers=("harder", "easier"), says="a level of the movement"
    ),
    Word(
        "BECAUSE", r"because\b", offers=("because",), says="why it stands there", writes="because"
    ),
    Word("WHY", r"why[ \t]{0,8}:", writes="why:"),
)
"""What goes on with a movement: the next step, another level, the reason for it."""

HEADS: Final = (
    Word("ROUNDS", r"(?:rounds?|rds?)\b(?:[ ]of\b)?", 12, "head", ("3 rounds:",),
         "a circuit by reps", writes="rounds"),
    Word("COUNT_SPAN",
         rf"[0-9]{{1,2}}{_GAP}(?:-|to\b){_GAP}[0-9]{{1,2}}(?={_GAP}(?:rounds?|rds?)\b)", 18,
         "number"),
    Word("BOUTS", r"bouts?\b", 12, "head", ("8 bouts, 20 s on, 10 s off:",), "short intervals",
         writes="bouts"),
    Word(
        "LADDER",
        r"ladder\b(?:[ \t]{0,8}:?[ \t]{0,8}[0-9]{1,4}\b(?![ \t]{0,8}(?:s|min)|[.:])"
        r"(?:[ \t]{0,8}[,/-][ \t]{0,8}[0-9]{1,4}\b(?![ \t]{0,8}(?:s|min)|[.:])){0,40})?",
        12, "head", ("ladder 4, 7, 10:",), "one rung a round", writes="ladder"),
    Word("ON", r"on\b|work\b", 12, "head", ("4 rounds, 35 s on, 25 s off:",),
         "a circuit by the clock", writes="on"),
    Word("OFF", r"off\b", 12, "head", writes="off"),
    Word("REST_OFF", r"rest\b(?:[ ]between[ ](?:movements|exercises|stations)\b)", 13, "head"),
    Word("BETWEEN", r"(?:rest[ ])?between(?:[ ]rounds)?\b|rest[ ]after[ ](?:each|a)[ ]round\b",
         13, "head", writes="between rounds"),
    Word("EVERY", r"every\b", 12, "head", ("every 60 s, 10 rounds:",), "work begins on the clock",
         writes="every"),
    Word("MINUTE", r"min(?:ute)?\b(?:[ ]on[ ]the[ ]minute\b)?", 12, "head"),
    Word("FOR_TIME_HEAD", r"for[ ]time\b", 13, "head", writes="for time"),
    Word("FOR", r"for\b", 12, "head"),
)  # fmt: skip
"""The words in the head of rounds."""

PART_WORD: Final = r"warm[- ]?up|main|finisher|cool[- ]?down"
"""The kinds of parts, hyphen or not."""

PART_HEADS: Final = ("warm-up:", "main A:", "finisher:", "cool-down:")
"""What opens a part."""

COMPLETE: Final = frozenset({"kg", "lb", "s", "min", "reps", "x", "at", "in", "m"})
"""Short words that are whole as they stand: nothing is offered behind them."""

_WRITES: Final = {word.terminal: word.writes for word in (*WORDS, *JOINTS, *HEADS) if word.writes}


def written(terminal: str) -> str:
    """The one spelling of a word in the canonical text. Raises ``KeyError`` if it has none."""
    return _WRITES[terminal]


SIDES: Final = {
    "both": written("BOTH"),
    "each": written("EACH"),
    "alternating": written("ALTERNATING"),
    "left": written("LEFT"),
    "right": written("RIGHT"),
}
"""How a side is written, by its name in a set."""

FORMS: Final = tuple(written(form) for form in ("ROUNDS", "LADDER", "BOUTS"))
"""The forms of rounds."""
