"""What every proposal keeps, and what the findings that it leaves weigh.

Source: Dial Back's contract, *Adjusting*, *Bounds*.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from typing import Final

from dialback.core.adjusting.expression import Linear
from dialback.core.adjusting.judged import CAUTION_WEIGHT, HIGH_WEIGHT, Judge
from dialback.core.adjusting.rows import Flag, Rows
from dialback.core.adjusting.solver import INF
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings.jumps import OF_THE_WEEK
from dialback.core.maxima import is_working
from dialback.core.sessions import Session
from dialback.core.tally import tally

_TINY: Final = 1e-9
LEAST_SETS: Final = 0.8
"""So much of the start's sets the week keeps at least."""
LEAST_SETS_OF_MUCH: Final = 0.6
"""The same where the start jumps or is above a ceiling, and no rule says another."""


def keep_most(rows: Rows, additions: Iterable[int], most_sets: float = INF) -> int:
    """Each session that has a working set keeps one; the week keeps most of its sets.

    ``additions`` are variables of sets that the start has not. The number of the week's row.
    """
    judge, programme = rows.judge, rows.programme
    added = set(additions)
    for at, session in enumerate(judge.start.in_hand.sessions):
        working = [
            piece
            for piece in rows.pieces
            if piece.session == at and any(is_working(entry) for entry in piece.entries)
        ]
        own = Linear()
        for piece in working:
            own = own.plus(piece.times)
        started = any(not set(piece.times.terms) & added for piece in working)
        if session.sets and started and own.terms:
            programme.row(1 - own.constant, own.terms, INF)
    start = judge.start.value(TOTAL_SETS)
    sets, _ = rows.figure(TOTAL_SETS)
    return programme.row(
        _least_share(judge) * start - sets.constant - _TINY,
        sets.terms,
        most_sets - sets.constant + _TINY,
    )


def keeps_most(judge: Judge, sessions: Sequence[Session]) -> bool:
    """Whether sessions, each in the place of the start's, keep what ``keep_most`` asks for."""

    def works(session: Session) -> bool:
        return any(is_working(entry) for entry in judge.ledger.measure([session]))

    least = _least_share(judge) * judge.start.value(TOTAL_SETS) - _TINY
    if tally(judge.ledger.measure(sessions)).get(TOTAL_SETS, 0.0) < least:
        return False
    start = judge.start.in_hand.sessions
    return all(works(now) for was, now in zip(start, sessions, strict=True) if works(was))


def _least_share(judge: Judge) -> float:
    much = any(
        finding.key == OF_THE_WEEK or finding.code == "muscle_ceiling"
        for finding in judge.start.findings
    )
    if not much:
        return LEAST_SETS
    share = judge.ledger.rules.lighter_share
    return min(LEAST_SETS, LEAST_SETS_OF_MUCH if share is None else share)


def weights(flags: Iterable[Flag]) -> tuple[dict[int, float], dict[int, float]]:
    """What the findings that are left weigh, and how many of them are high.

    A variable that stands for the findings of several weighs for each.
    """
    weight: dict[int, float] = defaultdict(float)
    high: dict[int, float] = defaultdict(float)
    for flag in flags:
        if flag.caution is not None:
            weight[flag.caution] += CAUTION_WEIGHT
        if flag.high is not None:
            beside = CAUTION_WEIGHT if flag.caution is not None else 0
            weight[flag.high] += HIGH_WEIGHT - beside
            high[flag.high] += 1.0
    return weight, high
