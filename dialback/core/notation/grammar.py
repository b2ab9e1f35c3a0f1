"""The grammar of what stands behind a movement's name, and of the heads of rounds."""

from __future__ import annotations

from typing import Final

from lark import Lark

_WORDS: Final = r"""
    LOAD.9: /(?:\d+\s*[x×*]\s*)?\d+(?:[.,]\d+)?\s*(?:kgs?|lbs?)\b/i
    TIME.8: /\d+:[0-5]\d\b|\d+(?:[.,]\d+)?\s*(?:seconds?|secs?|s|minutes?|mins?|min)\b/i
    TEMPO.9: /tempo\s+[^\s,()]+/i
    RPE.8: /rpe\s*\d+(?:[.,]\d+)?/i
    BAND.9: /band\s+[a-z]+/i
    REP_RANGE.7: /\d+\s*[-–]\s*\d+/
    INT: /\d+/
    TIMES: /[x×*]/i
    NOTE: /\([^()\n]*\)/
    SPAN.5: /low half|high half|half range|half|full range|full/i
    EACH.5: /each side|each|per side|ea\b/i
    ALTERNATING.5: /alternating|alternately|alt\b/i
    LEFT.5: /left/i
    RIGHT.5: /right/i
    AT: /at|@/i
    IN.5: /in\b/i
    REST.5: /rest/i
    HOLD.5: /hold/i
    HELP.5: /help/i
    WARM_UP.5: /warm-?up/i
    FAILURE.5: /to failure/i
    FOR_TIME.5: /for time/i
    REPS_WORD.5: /reps?\b/i
    COMMA: ","
    PLUS: "+"
    %ignore /[ \t]+/
"""

PRESCRIPTION: Final = Lark(
    r"""
    start: (item (COMMA? item)*)?
    ?item: scheme | load | option

    scheme: (INT TIMES)? dose
    ?dose: reps | rep_range | time | clusters | ranges
    reps: INT REPS_WORD?
    rep_range: REP_RANGE REPS_WORD?
    time: TIME
    clusters: INT (PLUS INT)+
    ranges: INT SPAN (PLUS INT SPAN)*

    load: AT? LOAD
    ?option: within | help | tempo | rpe | rest | hold | band | each | alternating | left | right
           | warm_up | failure | for_time | span | note
    within: IN TIME
    help: HELP LOAD
    tempo: TEMPO
    rpe: RPE
    rest: REST TIME
    hold: HOLD TIME
    band: BAND
    each: EACH
    alternating: ALTERNATING
    left: LEFT
    right: RIGHT
    warm_up: WARM_UP
    failure: FAILURE
    for_time: FOR_TIME
    span: SPAN
    note: NOTE
    """
    + _WORDS,
    parser="lalr",
    propagate_positions=True,
    maybe_placeholders=False,
)

HEAD: Final = Lark(
    r"""
    start: form (COMMA? term)*
    ?form: rounds | ladder | bouts
    rounds: INT ROUNDS
    ladder: LADDER
    bouts: INT BOUTS
    ?term: on | off | between
    on: TIME ON
    off: TIME OFF
    between: TIME BETWEEN
    TIME.8: /\d+:[0-5]\d\b|\d+(?:[.,]\d+)?\s*(?:seconds?|secs?|s|minutes?|mins?|min)\b/i
    INT: /\d+/
    ROUNDS: /rounds?\b/i
    LADDER: /ladder(?:\s+\d+\b(?!\s*(?:s|min)|[.:])(?:\s*,\s*\d+\b(?!\s*(?:s|min)|[.:]))*)?/i
    BOUTS: /bouts?\b/i
    ON: /on\b|work\b/i
    OFF: /off\b|rest\b/i
    BETWEEN: /between rounds|between/i
    COMMA: ","
    %ignore /[ \t]+/
    """,
    parser="lalr",
    propagate_positions=True,
    maybe_placeholders=False,
)

EXPECTED: Final = {
    "INT": "a number", "TIME": "a time such as 40 s", "LOAD": "a load such as 57.5 kg",
    "TEMPO": "a tempo such as tempo 3-1-2-0", "RPE": "RPE 8", "BAND": "band strong",
    "REP_RANGE": "a rep range such as 9-13", "TIMES": "×", "NOTE": "a note in (brackets)",
    "SPAN": "low half, high half, half or full", "EACH": "each side", "ALTERNATING": "alternating",
    "LEFT": "left", "RIGHT": "right", "AT": "at and a load",
    "IN": "in and a time", "REST": "rest and a time",
    "HOLD": "hold and a time", "HELP": "help and a load", "WARM_UP": "warm-up",
    "FAILURE": "to failure", "FOR_TIME": "for time", "REPS_WORD": "reps",
    "COMMA": "a comma", "PLUS": "+", "ROUNDS": "rounds", "LADDER": "ladder", "BOUTS": "bouts",
    "ON": "on", "OFF": "off", "BETWEEN": "between rounds", "$END": "the end of the line",
}  # fmt: skip
"""What each word of the grammar is called where it is missed."""

UNITS: Final = ("kg", "lb", "s", "min", "sec", "reps")

KEYWORDS: Final = (
    "tempo", "rest", "hold", "help", "band", "each side", "alternating", "left", "right",
    "warm-up", "to failure", "for time", "then", "low half", "high half", "half", "full", "rpe",
    "kg", "lb", "s", "min", "reps", "at", "in",
)  # fmt: skip
