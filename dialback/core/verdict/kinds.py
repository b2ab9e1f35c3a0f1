"""What weeks of a kind are expected to be like, and what kind a week looks like.

A finding that the kind of a week explains is no news; what goes beyond is. A kind that is clearly
the case and that nobody has set is asked about.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from statistics import fmean
from typing import Final

from dialback.core.audit import Audit
from dialback.core.baseline import weeks_before
from dialback.core.figures import TOTAL_SETS, in_total
from dialback.core.findings import BY_CODE, Finding
from dialback.core.maxima import is_working
from dialback.core.vocabulary import WHOLE_WEEK, WeekKind
from dialback.core.words import listed, number

OVERREACH_MOST: Final = 0.6
"""An announced overreach is one up to this rise of the week's sets; what is above is a jump."""

_LOOK_BACK: Final = 8
_HEAVY_REPS: Final = 2
_HEAVY_LIFTS: Final = 2
_FEW_SETS: Final = 0.7
_NEW_SHARE: Final = 0.6
_SLOWER: Final = 1.3
_LIGHTER_LOADS: Final = 0.93
_ALIKE_SETS: Final = 0.85


@dataclass(frozen=True, slots=True)
class LooksLike:
    """The kind that a week clearly is, though nobody has said so, and why."""

    kind: WeekKind
    sentence: str


def kind_of(result: Audit) -> WeekKind | None:
    """What the week is for, as a coach has set it."""
    return result.ledger.kinds.get(result.week)


def is_expected(finding: Finding, kind: WeekKind | None) -> bool:
    """Whether a week of the kind has such a finding by its nature; what hurts never."""
    if kind is None or not BY_CODE[finding.code].is_part_of(kind):
        return False
    too_much = kind == "overreach" and finding.subject == WHOLE_WEEK
    return not (too_much and (finding.value or 0) > OVERREACH_MOST)


def looks_like(result: Audit) -> LooksLike | None:
    """What kind an ordinary week clearly is; ``None`` where it is none, or has one."""
    if kind_of(result) is not None or not result.in_hand.has_sets:
        return None
    return _test(result) or _travel(result) or _tempo(result)


def _test(result: Audit) -> LooksLike | None:
    base = result.baseline.base(TOTAL_SETS)
    if not base or result.value(TOTAL_SETS) > _FEW_SETS * base:
        return None
    heavy = {
        entry.measured.shape.moves[0].movement.name
        for entry in result.entries
        if is_working(entry)
        and entry.set.total_load_kg > 0
        and 0 < (entry.set.reps or 0) <= _HEAVY_REPS
    }
    usual = _movements_with_few_reps(result)
    lifts = sorted(heavy - usual)
    if len(lifts) < _HEAVY_LIFTS:
        return None
    return LooksLike(
        "test",
        f"It looks like a test week: singles or doubles in {listed(lifts)}, and "
        f"{number(result.value(TOTAL_SETS))} sets instead of {number(base, 0)}.",
    )


def _movements_with_few_reps(result: Audit) -> set[str]:
    return {
        entry.measured.shape.moves[0].movement.name
        for week in weeks_before(result.week, 4)
        for entry in result.ledger.entries("completed", week)
        if is_working(entry) and 0 < (entry.set.reps or 0) <= _HEAVY_REPS
    }


def _travel(result: Audit) -> LooksLike | None:
    ledger = result.ledger
    weeks = [one for one in weeks_before(result.week, _LOOK_BACK) if ledger.is_trained(one)]
    if len(weeks) < 3 or result.week in ledger.blocks.begins:
        return None
    known = {
        name
        for week in weeks
        for entry in ledger.entries("completed", week)
        for name, _ in entry.set.named_moves()
    }
    counted = [entry for entry in result.entries if is_working(entry)]
    new = [entry for entry in counted if entry.set.exercise not in known]
    load, reps = result.value(in_total("volume_load_kg")), result.value(in_total("reps"))
    before = [
        ledger.tally("completed", week)[in_total("volume_load_kg")]
        / ledger.tally("completed", week)[in_total("reps")]
        for week in weeks
        if ledger.tally("completed", week).get(in_total("reps"), 0) > 0
    ]
    if not counted or len(new) < _NEW_SHARE * len(counted) or not before or not reps:
        return None
    external = fmean(entry.set.total_load_kg for entry in counted)
    if external > 5 and load / reps > 0.5 * fmean(before):
        return None
    return LooksLike(
        "travel",
        f"It looks like a week away: {len(new)} of {len(counted)} sets are of other movements, "
        "with little load.",
    )


def _tempo(result: Audit) -> LooksLike | None:
    ledger = result.ledger
    weeks = [one for one in weeks_before(result.week, _LOOK_BACK) if ledger.is_trained(one)][-4:]
    if len(weeks) < 2:
        return None

    def per_rep(sums: Mapping[str, float], measure: str) -> float:
        reps = sums.get(in_total("reps"), 0.0)
        return sums.get(in_total(measure), 0.0) / reps if reps else 0.0

    ordinary = [
        ledger.tally("completed", one)
        for one in weeks
        if ledger.kinds.get(one) is None and per_rep(ledger.tally("completed", one), "tut_s") > 0
    ]
    if not ordinary:
        return None
    tension = per_rep(result.tally, "tut_s") / min(per_rep(one, "tut_s") for one in ordinary)
    load = per_rep(result.tally, "volume_load_kg") / max(
        fmean(per_rep(one, "volume_load_kg") for one in ordinary), 1e-9
    )
    base = result.baseline.base(TOTAL_SETS) or 0.0
    if tension < _SLOWER or load > _LIGHTER_LOADS or result.value(TOTAL_SETS) < _ALIKE_SETS * base:
        return None
    return LooksLike(
        "tempo",
        f"It looks like a tempo week: {number((tension - 1) * 100, 0)} % more tension per rep, at "
        f"{number((1 - load) * 100, 0)} % less load.",
    )
