"""What can be done instead of a movement: its levels, and others for the same work."""

from __future__ import annotations

from dialback.core.movements import Movement, MovementTable, fold

MOST = 12
"""So many are offered; more are found by name."""


def instead_of(movement: Movement, movements: MovementTable) -> list[str]:
    """Movements to swap for, the nearest first: same pattern and kit, then pattern, then muscle."""
    own_kit = {fold(one) for one in movement.kit}
    direct = set(movement.direct)
    ranked = []
    for other in movements:
        if fold(other.name) == fold(movement.name) or other.counted != movement.counted:
            continue
        pattern = other.pattern == movement.pattern
        shared = len(direct & set(other.direct))
        if not pattern and not shared:
            continue
        # No kit needs none; the same kit is at hand already.
        kit = {fold(one) for one in other.kit}
        at_hand = kit <= own_kit
        ranked.append((not pattern, not at_hand, -shared, other.name))
    return [name for *_, name in sorted(ranked)[:MOST]]
