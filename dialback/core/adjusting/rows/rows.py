"""Findings as rows: a variable for each level one can have, and rows that hold unless it is 1."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.adjusting.expression import Linear, Piece
from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.solver import INF, Programme
from dialback.core.vocabulary import Key

BELOW: Final = 1e-6
"""So much below a limit a value is where it must not reach it; sets come in quarters at least."""


@dataclass(frozen=True)
class Flag:
    """The variables of a finding: 1 where it is a caution or worse, and where it is high."""

    key: Key
    caution: int | None
    high: int | None


class Rows:
    """The figures of a week's pieces, and the rows that hold them to the limits of findings."""

    def __init__(self, programme: Programme, judge: Judge, pieces: Sequence[Piece]) -> None:
        self.programme = programme
        self.judge = judge
        self.rules = judge.ledger.rules
        self.pieces = pieces
        self.flags: dict[Key, Flag] = {}

    def figure(self, figure: str, day: date | None = None) -> tuple[Linear, float]:
        """A figure of the week or of a day, and the most it can come to."""
        total, most = Linear(), 0.0
        for piece in self.pieces:
            if day is None or piece.day == day:
                credit = piece.credit(figure)
                if credit:
                    total = total.plus(piece.times, credit)
                    most += credit * piece.most
        return total, most

    def below(self, value: Linear, limit: float, flag: int | None, most: float) -> None:
        """A row: the value is at most the limit, unless the flag is 1."""
        scale = 1 / max(1.0, abs(limit))
        terms = {number: share * scale for number, share in value.terms.items()}
        if flag is not None:
            terms[flag] = terms.get(flag, 0.0) - max(0.0, most - limit) * scale
        self.programme.row(-INF, terms, (limit - value.constant) * scale)

    def within(
        self, value: Linear, limit: float, far: float | None, flag: Flag, most: float
    ) -> None:
        """A row: the value is at most the limit; as a caution at most so far, if high anything."""
        end = most if far is None else min(far, most)
        scale = 1 / max(1.0, abs(limit))
        terms = {number: share * scale for number, share in value.terms.items()}
        for variable, room in ((flag.caution, end - limit), (flag.high, most - end)):
            if variable is not None and room > 0:
                terms[variable] = terms.get(variable, 0.0) - room * scale
        self.programme.row(-INF, terms, (limit - value.constant) * scale)

    def reaches(self, value: Linear, floor: float, least: float, flag: Flag) -> None:
        """A row: the value reaches the floor; as a caution the least there is, if high nothing."""
        terms = dict(value.terms)
        for variable, room in ((flag.caution, floor - least), (flag.high, least)):
            if variable is not None:
                terms[variable] = terms.get(variable, 0.0) + room
        self.programme.row(floor - value.constant, terms, INF)

    def flag(self, key: Key, *, caution: bool = True, high: bool = True) -> Flag | None:
        """A finding's variables, held at the level of the start; ``None`` of one set aside."""
        if key in self.judge.aside:
            return None
        known = self.flags.get(key)
        if known is not None:
            return known
        at_start = self.judge.at_start.get(key)
        worse = 1 if at_start is not None else 0
        one = self.programme.variable(0, worse) if caution else None
        most_high = 1 if at_start is not None and at_start.level == "high" else 0
        two = self.programme.variable(0, most_high) if high else None
        if one is not None and two is not None:
            self.programme.row(0, {one: 1, two: -1}, INF)
        flag = self.flags[key] = Flag(key, one, two)
        return flag
