"""Jumps against the baseline as rows."""

from __future__ import annotations

from dialback.core.adjusting.expression import Linear
from dialback.core.adjusting.rows.rows import BELOW, Rows
from dialback.core.figures import TOTAL_SETS, in_total, of_muscle
from dialback.core.findings.jumps import NEW_FROM_SETS, begins_block
from dialback.core.rules import JUMP_LIMITS
from dialback.core.vocabulary import MUSCLES, WHOLE_WEEK


def jump_rows(rows: Rows) -> None:
    """What holds the week's measures and the muscles below a jump."""
    base_of = rows.judge.in_hand.baseline.base
    rises = _total_rises(rows) if begins_block(rows.judge.in_hand) else None
    for measure in JUMP_LIMITS:
        base = base_of(in_total(measure))
        if base:
            _jump(rows, WHOLE_WEEK, measure, in_total(measure), _jump_limits(rows, measure, base))
    for muscle in MUSCLES:
        figure = of_muscle(muscle, "sets")
        base = base_of(figure)
        if base is None:
            continue
        floor, ceiling = rows.rules.muscle_bands[muscle]  # type: ignore[index]
        noted = rows.rules.jump_from_below and floor > base + BELOW
        meant = (floor + ceiling) / 2 if noted else 0.0
        few = rows.rules.jump_high_sets
        if base == 0:
            limits: tuple[float, float | None] = (
                (NEW_FROM_SETS if few is None else few) - BELOW,
                None,
            )
        else:
            caution, high = _jump_limits(rows, "sets", base)
            limits = caution, max(high, base + few - BELOW if few is not None else high)
        if rises is not None:
            limits = limits[0], None
        _jump(
            rows,
            muscle,
            "sets",
            figure,
            (max(limits[0], meant), None if limits[1] is None else max(limits[1], meant)),
            unless=rises,
        )


def _total_rises(rows: Rows) -> int:
    """A variable that is 1 where the week's sets jump."""
    base = rows.judge.in_hand.baseline.base(TOTAL_SETS)
    rises = rows.programme.variable(0, 1)
    if base:
        sets, most = rows.figure(TOTAL_SETS)
        limit, _ = _jump_limits(rows, "sets", base)
        if most > limit:
            rows.below(sets, limit, rises, most)
    return rises


def _jump_limits(rows: Rows, measure: str, base: float) -> tuple[float, float]:
    """Up to where a measure is no caution, and no high; a rise of few sets is neither."""
    one, two = (base * (1 + share) for share in rows.rules.jump_limits[measure])
    few = base + rows.rules.jump_min_sets - BELOW if measure == "sets" else 0.0
    return max(one, few), max(two, few)


def _jump(
    rows: Rows,
    subject: str,
    measure: str,
    figure: str,
    limits: tuple[float, float | None],
    *,
    unless: int | None = None,
) -> None:
    """Rows of a jump; with ``unless`` it is one only where that variable is 1."""
    value, most = rows.figure(figure)
    if most <= limits[0]:
        return
    flag = rows.flag(("jump", subject, measure), high=limits[1] is not None)
    if flag is None:
        return
    if unless is not None:
        # Where the week's sets do not jump, the muscle may rise as it likes.
        room = max(0.0, most - limits[0])
        value = Linear(value.constant - room, value.terms).plus(Linear(0, {unless: 1.0}), room)
    rows.within(value, limits[0], limits[1], flag, most)
