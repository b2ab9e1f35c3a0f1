"""Minutes of a session as rows: work, and between its sets rest or the change of stations.

What lies between two lines depends on which of the lines between them are there at all: for each
pair of lines that may follow one another there is a variable that is 1 where they do.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING

from dialback.core.duration import movements_in, rest_behind
from dialback.core.rules import Rules
from dialback.core.tally import Entry

if TYPE_CHECKING:
    from dialback.core.adjusting.weekly import Linear, Piece, WeekProgramme


def between(one: Entry, following: Entry, rules: Rules) -> float:
    """Seconds between two sets: rest, or the change of stations where that is longer."""
    rest = rest_behind(one, rules)
    changes = movements_in(one) != movements_in(following)
    return max(rest, rules.change_over_s) if changes else rest


@dataclass(frozen=True)
class _Stop:
    """A piece of a session, in order: its time, that between two of it, whether it is there."""

    piece: Piece
    inner_s: float
    seam_s: float
    there: Linear
    always: bool


def minutes_rows(week: WeekProgramme, session: int) -> tuple[Linear, float]:
    """The minutes of a session as they come out, and the most they can come to."""
    rules = week.rules
    stops = [_stop(week, piece, rules) for piece in week.in_order(session)]
    total, most = week.nothing(), 0.0
    for stop in stops:
        each = (stop.inner_s + stop.seam_s) / 60
        total = total.plus(stop.piece.times, each).plus(stop.there, -stop.seam_s / 60)
        most += each * stop.piece.most
    for at, one in enumerate(stops):
        for other in range(at + 1, len(stops)):
            following = stops[other]
            seam = between(one.piece.entries[-1], following.piece.entries[0], rules) / 60
            if seam:
                total = total.plus(_follows(week, stops, at, other), seam)
                most += seam
            if following.always:
                break
    return total, most


def _follows(week: WeekProgramme, stops: Sequence[_Stop], at: int, other: int) -> Linear:
    """1 where two stops are there and none between them is."""
    one, following = stops[at], stops[other]
    between_them = stops[at + 1 : other]
    if one.always and following.always and not between_them:
        return week.nothing().plus_constant(1.0)
    number = week.programme.variable(0, 1, whole=False)
    least = one.there.plus(following.there).plus_constant(-1.0)
    for stop in between_them:
        least = least.plus(stop.there, -1)
    week.at_most(least, {number: 1.0})
    return week.nothing().plus_variable(number)


def _stop(week: WeekProgramme, piece: Piece, rules: Rules) -> _Stop:
    entries = piece.entries
    inner = sum(entry.measured.work_s for entry in entries) + sum(
        between(one, following, rules) for one, following in pairwise(entries)
    )
    seam = between(entries[-1], entries[0], rules)
    if not piece.times.terms:
        there = piece.times.constant > 0
        return _Stop(piece, inner, seam, week.nothing().plus_constant(float(there)), there)
    number = week.programme.variable(0, 1)
    there_ = week.nothing().plus_variable(number)
    # It is there where it is at least once, and only there.
    week.at_most(piece.times, {number: max(piece.most, 1.0)})
    week.at_most(there_.plus(piece.times, -1), {})
    return _Stop(piece, inner, seam, there_, always=False)
