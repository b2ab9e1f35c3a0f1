"""Limited tries: whoever guesses passwords has to wait longer than it is worth.

A device that has signed in to an account before has tries of its own there: whatever strangers
try, at the same address or from anywhere, does not keep it outside.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from threading import Lock
from typing import Final

from limits import RateLimitItem, RateLimitItemPerHour, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

_BY_BOTH: Final = (RateLimitItemPerMinute(5), RateLimitItemPerHour(20))
"""Wrong tries for a name from one address."""
_BY_ADDRESS: Final = (RateLimitItemPerHour(200),)
"""Wrong tries from one address, whatever the names: a whole hall may have one."""
_BY_NAME: Final = (RateLimitItemPerHour(100),)
"""Wrong tries for a name from anywhere."""
_KNOWN: Final = (RateLimitItemPerMinute(5), RateLimitItemPerHour(30))
"""Wrong tries on a device that is known there."""


class Tries:
    """The wrong tries of the last hour, in memory.

    ``unlocked`` counts how often they were forgotten by whoever has the machine in hand.
    """

    def __init__(self, unlocked: Callable[[], int] = lambda: 0) -> None:
        self._storage = MemoryStorage()
        self._limiter = MovingWindowRateLimiter(self._storage)
        self._unlocked = unlocked
        self._seen: int | None = None
        self._lock = Lock()

    def _all(
        self, name: str, address: str, known: bool
    ) -> list[tuple[RateLimitItem, tuple[str, ...]]]:
        if known:
            return [(item, ("known", name)) for item in _KNOWN]
        return [
            *((item, ("both", name, address)) for item in _BY_BOTH),
            *((item, ("address", address)) for item in _BY_ADDRESS),
            *((item, ("name", name)) for item in _BY_NAME),
        ]

    def _forget_if_unlocked(self) -> None:
        now = self._unlocked()
        with self._lock:
            if self._seen is not None and now != self._seen:
                self._storage.reset()
            self._seen = now

    def wait_s(self, name: str, address: str, *, known: bool = False) -> float:
        """How many seconds to wait until the next try; 0 if it may be made."""
        self._forget_if_unlocked()
        waits = [
            self._limiter.get_window_stats(item, *key).reset_time - time.time()
            for item, key in self._all(name, address, known)
            if not self._limiter.test(item, *key)
        ]
        return max(1.0, *waits) if waits else 0.0

    def note(self, name: str, address: str, *, known: bool = False) -> None:
        """Note a wrong try."""
        for item, key in self._all(name, address, known):
            self._limiter.hit(item, *key)
