"""What was worked out once for a state of the data, a few at a time."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Hashable
from threading import Lock
from typing import Final, Generic, TypeVar

V = TypeVar("V")

KEPT: Final = 8
"""So many are at hand; the one that nobody asked for longest is let go first."""


class Kept(Generic[V]):
    """Values by key, each beside the state that it was worked out of."""

    def __init__(self) -> None:
        self._kept: OrderedDict[Hashable, tuple[str, V]] = OrderedDict()
        self._lock = Lock()

    def at(self, key: Hashable, state: str) -> V | None:
        """What was put there in this state; ``None`` for anything older."""
        with self._lock:
            known = self._kept.get(key)
            if known is None or known[0] != state:
                return None
            self._kept.move_to_end(key)
            return known[1]

    def put(self, key: Hashable, state: str, value: V) -> V:
        """Keep a value, in place of an older one."""
        with self._lock:
            self._kept[key] = (state, value)
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)
        return value
