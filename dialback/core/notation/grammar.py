"""The grammar of what stands behind a movement's name, and of the heads of rounds."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Final

from lark import Lark, Token, Tree

from dialback.core.notation.vocabulary import HEADS, WORDS, Word

_SIGNS: Final = """
    COMMA: ","
    PLUS: "+"
    %ignore /[ \\t]+/
"""


def _terminals(words: Iterable[Word]) -> str:
    return "\n".join(
        f"{word.terminal}.{word.priority}: /{word.pattern.replace('/', chr(92) + '/')}/i"
        for word in words
    )


def _lark(rules: str, words: Iterable[Word]) -> Any:
    # The basic lexer knows a word wherever it stands: where it is not in its place, the message
    # can speak of it.
    return Lark(
        rules + _terminals(words) + _SIGNS,
        parser="lalr",
        lexer="basic",
        maybe_placeholders=False,
    )


def span(tree: Tree[Token]) -> tuple[int, int]:
    """Where a tree begins and ends in its text, by its tokens: cheaper than to ask lark for it."""
    first, last = tree.children[0], tree.children[-1]
    while isinstance(first, Tree):
        first = first.children[0]
    while isinstance(last, Tree):
        last = last.children[-1]
    return first.start_pos or 0, last.end_pos or 0


def last_token(tree: Tree[Token]) -> int:
    """Where the last token of a tree begins in its text."""
    last = tree.children[-1]
    while isinstance(last, Tree):
        last = last.children[-1]
    return last.start_pos or 0


PRESCRIPTION: Final = _lark(
    r"""
    start: (item (_separator? item)*)?
    _separator: COMMA | AND | WITH | COMMA WITH | AND WITH | COMMA AND
    ?item: scheme | loading | option | refused

    ?scheme: INT TIMES dose -> sets_of
          | SPAN_TIMES dose -> sets_of
          | SETS TIMES? dose -> sets_of
          | SETS -> sets_only
          | INT TIMES LOAD -> sets_reps_load
          | INT REPS TIMES SETS -> reps_of_sets
          | TIMES dose -> times_alone
          | dose
    ?dose: reps | rep_range | time | time_span | distance | clusters | ranges | list | time_list
        | held
    reps: INT REPS?
    rep_range: REP_RANGE REPS?
    time: TIME
    time_span: TIME_SPAN
    held: TIMED_HOLD
    distance: DISTANCE
    clusters: INT (PLUS INT)+ REPS?
    ranges: INT SPAN (PLUS INT SPAN)*
    list: LIST REPS?
    time_list: TIME_LIST

    ?loading: AT? LOAD -> load
           | AT? LOAD TIMES scheme -> load_first
           | AT? PCT TIMES scheme -> percent_first
           | AT? LOAD_LIST -> load_list
           | AT_LOADS -> load_list
           | AT? ADDED -> added
           | AT? NO_LOAD -> no_load
           | AT? NO_LOAD ADDED -> added
           | AT? PCT -> percent
           | AT? PCT_BODY -> body_percent
           | AT? PCT_BEFORE -> of_before
           | AT? PCT_LIST -> percent_list
           | HELP LOAD -> help
           | HELPED -> help
           | BAND -> band

    ?option: IN TIME -> within
          | TEMPO -> tempo
          | BARE_TEMPO -> tempo
          | RPE -> rpe
          | RIR -> rir
          | REST TIME -> rest
          | REST TIME_SPAN -> rest
          | TIMED_REST -> rest
          | NO_REST -> no_rest
          | OPEN_REST -> open_rest
          | HOLD TIME -> hold
          | EACH -> each
          | BOTH -> both
          | ALTERNATING -> alternating
          | LEFT -> left
          | RIGHT -> right
          | WARM_UP -> warm_up
          | FAILURE -> failure
          | FOR_TIME -> for_time
          | SPAN -> span
          | NOTE -> note

    ?refused: BOTH_SIDES -> both_sides
           | REST INT -> rest_unit
           | HOLD INT -> hold_unit
           | AT INT -> at_unit
           | AT DECIMAL -> at_unit
    """,
    WORDS,
)

_IN_HEADS: Final = tuple(word for word in WORDS if word.terminal in ("TIME", "TIME_SPAN", "INT"))

HEAD: Final = _lark(
    r"""
    start: _term (_sign? _term)*
    _sign: COMMA | FOR | SLASH
    _term: form | on | off | between | every | total | for_time
    for_time: FOR_TIME_HEAD
    form: INT ROUNDS -> rounds
        | COUNT_SPAN ROUNDS -> rounds
        | LADDER -> ladder
        | INT BOUTS -> bouts
    on: TIME ON | TIME_SPAN ON
    off: TIME OFF | TIME REST_OFF | TIME REST | TIME_SPAN OFF | TIME_SPAN REST_OFF | TIME_SPAN REST
    between: TIME BETWEEN | REST TIME BETWEEN | BETWEEN TIME
        | TIME_SPAN BETWEEN | REST TIME_SPAN BETWEEN | BETWEEN TIME_SPAN
    every: EVERY TIME | EVERY MINUTE
    total: TIME
    SLASH: "/"
    REST.11: /rest\b/i
    """,
    (*HEADS, *_IN_HEADS),
)
