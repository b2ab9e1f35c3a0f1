"""What a programme is for: the muscles that its plans, or the weeks before, train directly."""

from __future__ import annotations

from collections.abc import Iterator

from dialback.core.audit import Audit
from dialback.core.tally import Entry


def targets(result: Audit) -> frozenset[str]:
    """The muscles that are trained as a target: in the plans of the block, or in the baseline.

    Without a block the plan of the week alone stands for what is planned.
    """
    return frozenset(
        muscle
        for entry in _entries(result)
        if entry.measured.shape.standing == "hard"
        for move in entry.measured.shape.moves
        for muscle in move.movement.direct
    )


def _entries(result: Audit) -> Iterator[Entry]:
    ledger, week = result.ledger, result.week
    block = [one for one in ledger.blocks.all if one.has(week)]
    planned = [one.first.plus(at) for one in block for at in range(one.weeks)] or [week]
    for at in planned:
        yield from ledger.entries("planned", at)
    for at in result.baseline.weeks:
        yield from ledger.entries("completed", at)
