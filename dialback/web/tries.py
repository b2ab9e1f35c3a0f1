"""Limited tries: whoever guesses passwords has to wait longer than it is worth."""

from __future__ import annotations

import time
from typing import Final

from limits import RateLimitItem, RateLimitItemPerHour, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

_BY_BOTH: Final = (RateLimitItemPerMinute(5), RateLimitItemPerHour(20))
"""Wrong tries for a name from one address."""
_BY_ADDRESS: Final = (RateLimitItemPerHour(60),)
"""Wrong tries from one address: a whole hall may have one."""
_BY_NAME: Final = (RateLimitItemPerHour(100),)
"""Wrong tries for a name from anywhere: many, so that nobody locks the owner out."""


class Tries:
    """The wrong tries of the last hour, in memory."""

    def __init__(self) -> None:
        self._limiter = MovingWindowRateLimiter(MemoryStorage())

    def _all(self, name: str, address: str) -> list[tuple[RateLimitItem, tuple[str, ...]]]:
        return [
            *((item, ("both", name, address)) for item in _BY_BOTH),
            *((item, ("address", address)) for item in _BY_ADDRESS),
            *((item, ("name", name)) for item in _BY_NAME),
        ]

    def wait_s(self, name: str, address: str) -> float:
        """How long to wait until the next try; 0 if it may be made."""
        waits = [
            self._limiter.get_window_stats(item, *key).reset_time - time.time()
            for item, key in self._all(name, address)
            if not self._limiter.test(item, *key)
        ]
        return max(0.1, *waits) if waits else 0.0

    def note(self, name: str, address: str) -> None:
        """Note a wrong try."""
        for item, key in self._all(name, address):
            self._limiter.hit(item, *key)
