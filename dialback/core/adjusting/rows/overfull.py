"""Minutes and movements of a session as rows."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence

from dialback.core.adjusting.expression import Linear, Piece
from dialback.core.adjusting.minutes import minutes_rows
from dialback.core.adjusting.rows.rows import Rows
from dialback.core.findings.finding import movements_of
from dialback.core.findings.session import FAR as FAR_TOO_MUCH
from dialback.core.sessions import Session


def overfull_rows(rows: Rows, start: Sequence[Session]) -> None:
    """What holds each session to its minutes and its number of movements."""
    minutes, movements = rows.rules.session_minutes, rows.rules.session_movements
    if minutes is None and movements is None:
        return
    for at, session in enumerate(start):
        own = [piece for piece in rows.pieces if piece.session == at]
        if minutes is not None:
            # Pieces stand as in the session: its lines, then what is added.
            takes, most = minutes_rows(rows.programme, own, rows.rules)
            _too_much(rows, session, "minutes", takes, most, minutes)
        if movements is not None:
            present, named = _present(rows, own)
            _too_much(rows, session, "movements", present, named, movements)


def _present(rows: Rows, pieces: Iterable[Piece]) -> tuple[Linear, float]:
    """How many different movements a session has, and has at most."""
    where: dict[str, list[Piece]] = defaultdict(list)
    for piece in pieces:
        for name in movements_of(piece.entries):
            where[name].append(piece)
    constant, terms = 0.0, {}
    for several in where.values():
        if any(not piece.times.terms and piece.times.constant > 0 for piece in several):
            constant += 1
            continue
        there = rows.programme.variable(0, 1)
        terms[there] = 1.0
        for piece in several:
            rows.below(piece.times, 0, there, piece.most)
    return Linear(constant, terms), float(len(where))


def _too_much(
    rows: Rows, session: Session, measure: str, value: Linear, most: float, limit: float
) -> None:
    if most <= limit:
        return
    flag = rows.flag(("overfull", session.date.isoformat(), measure))
    if flag is not None:
        rows.within(value, limit, limit * FAR_TOO_MUCH, flag, most)
