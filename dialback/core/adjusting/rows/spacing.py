"""Heavy work of a muscle on two days in a row as rows."""

from __future__ import annotations

from datetime import date, timedelta

from dialback.core.adjusting.rows.rows import BELOW, Rows
from dialback.core.adjusting.solver import INF
from dialback.core.figures import of_muscle
from dialback.core.vocabulary import MUSCLES


def spacing_rows(rows: Rows) -> None:
    """What keeps a muscle from two heavy days in a row."""
    days = sorted({piece.day for piece in rows.pieces})
    enough = rows.rules.spacing_sets
    for muscle in MUSCLES:
        heavy: dict[date, int] = {}
        for day in days:
            sets, most = rows.figure(of_muscle(muscle, "sets"), day)
            if most >= enough:
                heavy[day] = rows.programme.variable(0, 1)
                rows.below(sets, enough - BELOW, heavy[day], most)
        for day, one in heavy.items():
            following = heavy.get(day + timedelta(days=1))
            if following is None:
                continue
            flag = rows.flag(("spacing", muscle, "sets"), high=False)
            if flag is not None and flag.caution is not None:
                rows.programme.row(-INF, {one: 1, following: 1, flag.caution: -1}, 1)
