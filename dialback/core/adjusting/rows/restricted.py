"""Restrictions as rows."""

from __future__ import annotations

from dialback.core.adjusting.expression import Linear
from dialback.core.adjusting.rows.rows import Rows
from dialback.core.restrictions import Restriction, breaks


def restriction_rows(rows: Rows) -> None:
    """What keeps to each restriction of the athlete."""
    for restriction in rows.judge.in_hand.restrictions:
        _restriction(rows, restriction)


def _restriction(rows: Rows, restriction: Restriction) -> None:
    rules = rows.rules
    touched = []
    for piece in rows.pieces:
        for entry in piece.entries:
            movements = [move.movement for move in entry.measured.shape.moves]
            there = [movement for movement in movements if restriction.touches(movement, rules)]
            if there and restriction.holds(entry.session.date):
                touched.append((piece, entry, there))
    wrong = (
        "load_kg"
        if restriction.most_load_kg is not None
        else ("tempo_s" if restriction.about == "tempo" else "sets")
    )
    for piece, entry, there in touched:
        if breaks(entry.set, there, restriction, rules):
            flag = rows.flag(("restriction", restriction.subject, wrong), caution=False)
            if flag is not None:
                rows.below(piece.times, 0, flag.high, piece.most)
    if restriction.most_sets is not None and touched:
        figures = {
            restriction.figure(movement) for _, _, several in touched for movement in several
        }
        total, most = Linear(), 0.0
        for piece, entry, _ in touched:
            credit = sum(entry.measured.credits.get(figure, 0.0) for figure in figures)
            total, most = total.plus(piece.times, credit), most + credit * piece.most
        flag = rows.flag(("restriction", restriction.subject, "sets"), caution=False)
        if flag is not None:
            rows.below(total, restriction.most_sets, flag.high, most)
