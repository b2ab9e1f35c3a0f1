"""What is worked out once of a value that never changes; it goes when the value goes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar

K = TypeVar("K")
V = TypeVar("V")

Memo = dict["Once[Any, Any]", dict[Any, Any]]
"""Room beside a value for what is worked out of it; read and written by ``Once`` alone."""


class Once(Generic[K, V]):
    """One kind of thing to be worked out once for each key, and where in any memo it lies."""

    def of(self, memo: Memo, key: K, work_out: Callable[[], V]) -> V:
        """What is there already under the key, or else what comes of working it out now."""
        known = memo.setdefault(self, {})
        if key not in known:
            known[key] = work_out()
        found: V = known[key]
        return found

    def known(self, memo: Memo, key: K) -> V | None:
        """What is there already under the key; ``None`` if nothing is."""
        found: V | None = memo.get(self, {}).get(key)
        return found
