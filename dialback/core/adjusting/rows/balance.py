"""Balance of pairs as rows."""

from __future__ import annotations

from collections.abc import Iterable

from dialback.core.adjusting.expression import Linear
from dialback.core.adjusting.rows.rows import BELOW, Rows
from dialback.core.adjusting.solver import INF
from dialback.core.balance import deciding_measure
from dialback.core.figures import of_side
from dialback.core.findings.balance import FAR as FAR_OUTSIDE
from dialback.core.vocabulary import PAIRS, Pair


def balance_rows(rows: Rows) -> None:
    """What holds each pair within its band, where it has sets enough."""
    for pair in PAIRS:
        _pair(rows, pair)


def _pair(rows: Rows, pair: Pair) -> None:
    band = rows.rules.balance_bands.get(pair.name)
    if band is None or pair.name in rows.judge.in_hand.out_of_focus:
        return
    measure = deciding_measure(pair, rows.rules)
    (a, most_a), (b, most_b) = (rows.figure(of_side(pair.name, side, measure)) for side in "ab")
    judged: int | None = None
    if pair.name not in rows.judge.in_hand.always_weighed:
        sets, most_sets = Linear(), 0.0
        for side in "ab":
            one, most = rows.figure(of_side(pair.name, side, "sets"))
            sets, most_sets = sets.plus(one), most_sets + most
        least = rows.rules.balance_min_sets
        if most_sets < least:
            return
        judged = rows.programme.variable(0, 1)
        rows.below(sets, least - BELOW, judged, most_sets)
    flag = rows.flag(("balance", pair.name, measure))
    if flag is None:
        return
    low, high = band
    sides = [(a, most_a, b, most_b, high)]
    if low:
        sides.append((b, most_b, a, most_a, 1 / low))
    for heavy, most, light, most_light, factor in sides:
        far = heavy.plus(light, -factor * FAR_OUTSIDE)
        _unless(rows, far, most, [(flag.high, most)], judged)
        # As a caution it is outside by no more than the factor allows of the light side.
        room = min(most, factor * (FAR_OUTSIDE - 1) * most_light)
        flags = [(flag.caution, room), (flag.high, most)]
        _unless(rows, heavy.plus(light, -factor), most, flags, judged)


def _unless(
    rows: Rows,
    value: Linear,
    most: float,
    flags: Iterable[tuple[int | None, float]],
    judged: int | None,
) -> None:
    """A row: the value is at most 0, or the room of its flags; anything if not judged."""
    terms = dict(value.terms)
    if not terms and value.constant <= 0:
        return
    most = max(most, 1.0)
    upper = -value.constant
    for variable, room in flags:
        if variable is not None:
            terms[variable] = terms.get(variable, 0.0) - room
    if judged is not None:
        terms[judged] = terms.get(judged, 0.0) + most
        upper += most
    scale = 1 / most
    rows.programme.row(
        -INF, {number: share * scale for number, share in terms.items()}, upper * scale
    )
