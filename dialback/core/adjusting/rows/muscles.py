"""Floors and ceilings of muscles as rows."""

from __future__ import annotations

from dialback.core.adjusting.rows.rows import Rows
from dialback.core.figures import of_muscle
from dialback.core.findings.muscles import FAR as FAR_ABOVE
from dialback.core.vocabulary import MUSCLES


def muscle_rows(rows: Rows) -> None:
    """What holds each muscle within its band."""
    for muscle in MUSCLES:
        _muscle(rows, muscle)


def _muscle(rows: Rows, muscle: str) -> None:
    floor, ceiling = rows.rules.muscle_bands[muscle]  # type: ignore[index]
    sets, most = rows.figure(of_muscle(muscle, "sets"))
    out = rows.judge.in_hand.out_of_focus
    if floor > 0 and not rows.judge.in_hand.lighter and muscle not in out:
        flag = rows.flag(("muscle_floor", muscle, "sets"))
        if flag is not None:
            steps = [
                credit
                for piece in rows.pieces
                if (credit := piece.credit(of_muscle(muscle, "sets")))
            ]
            rows.reaches(sets, floor, min([*steps, floor]), flag)
    if most > ceiling:
        flag = rows.flag(("muscle_ceiling", muscle, "sets"))
        if flag is not None:
            rows.within(sets, ceiling, FAR_ABOVE * ceiling, flag, most)
