"""The kit of the room, between table and core."""

from __future__ import annotations

from dialback.core.kit import Kit
from dialback.store.models import House


def the_kit() -> Kit | None:
    """What the room has; ``None`` as long as nobody has described it."""
    return kit_of(House.get())


def kit_of(owner: House) -> Kit | None:
    """The kit of a house row that is at hand."""
    stored = owner.kit
    return None if stored is None else Kit.model_validate(stored)
