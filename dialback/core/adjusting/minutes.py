"""Minutes of a session as rows: work, and between its sets rest or the change of stations.

What lies between two lines depends on which of the lines between them are there at all: for each
pair of lines that may follow one another there is a variable that is 1 where they do.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from dialback.core.adjusting.expression import Linear, Piece
from dialback.core.adjusting.solver import Programme
from dialback.core.duration import between
from dialback.core.rules import Rules


@dataclass(frozen=True)
class _Stop:
    """A piece of a session, in order: its time, that between two of it, whether it is there."""

    piece: Piece
    inner_s: float
    seam_s: float
    there: Linear
    always: bool


def minutes_rows(
    programme: Programme, pieces: Sequence[Piece], rules: Rules
) -> tuple[Linear, float]:
    """The minutes of a session as they come out, and the most they can come to.

    ``pieces`` are those of the session, in order.
    """
    stops = [_stop(programme, piece, rules) for piece in pieces]
    total, most = Linear(), 0.0
    for stop in stops:
        each = (stop.inner_s + stop.seam_s) / 60
        total = total.plus(stop.piece.times, each).plus(stop.there, -stop.seam_s / 60)
        most += each * stop.piece.most
    for at, one in enumerate(stops):
        for other in range(at + 1, len(stops)):
            following = stops[other]
            seam = sum(between(one.piece.entries[-1], following.piece.entries[0], rules)) / 60
            if seam:
                total = total.plus(_follows(programme, stops, at, other), seam)
                most += seam
            if following.always:
                break
    return total, most


def _follows(programme: Programme, stops: Sequence[_Stop], at: int, other: int) -> Linear:
    """1 where two stops are there and none between them is."""
    one, following = stops[at], stops[other]
    between_them = stops[at + 1 : other]
    if one.always and following.always and not between_them:
        return Linear(1.0)
    number = programme.variable(0, 1, whole=False)
    least = one.there.plus(following.there).plus(Linear(1.0), -1)
    for stop in between_them:
        least = least.plus(stop.there, -1)
    programme.at_most(least, {number: 1.0})
    return Linear(0, {number: 1.0})


def _stop(programme: Programme, piece: Piece, rules: Rules) -> _Stop:
    entries = piece.entries
    inner = sum(entry.measured.work_s for entry in entries) + sum(
        sum(between(one, following, rules)) for one, following in pairwise(entries)
    )
    seam = sum(between(entries[-1], entries[0], rules))
    if not piece.times.terms:
        there = piece.times.constant > 0
        return _Stop(piece, inner, seam, Linear(float(there)), there)
    number = programme.variable(0, 1)
    there_ = Linear(0, {number: 1.0})
    # It is there where it is at least once, and only there.
    programme.at_most(piece.times, {number: max(piece.most, 1.0)})
    programme.at_most(there_.plus(piece.times, -1), {})
    return _Stop(piece, inner, seam, there_, always=False)
