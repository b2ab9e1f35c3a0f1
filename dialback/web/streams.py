"""Streams: each holds a thread of the server, so there are only so many at a time."""

from __future__ import annotations

import threading
from collections import Counter
from collections.abc import Iterator
from http import HTTPStatus
from typing import Final

from dialback.web.problems import RefusedError

IN_ALL: Final = 20
OF_ONE: Final = 12
"""A group on the floor has a sensor each; the rest of the threads answers everybody else."""

_lock = threading.Lock()
_open: Counter[str] = Counter()


def held(client: str, stream: Iterator[str]) -> Iterator[str]:
    """The stream, counted as long as it lasts. Raises ``RefusedError`` where there are too many."""
    with _lock:
        if _open.total() >= IN_ALL or _open[client] >= OF_ONE:
            raise RefusedError(
                HTTPStatus.SERVICE_UNAVAILABLE, "busy",
                "As many sensors are at work as this server can follow: end one of them first.",
            )  # fmt: skip
        _open[client] += 1
    return _Held(client, stream)


class _Held:
    """A stream that gives its place back, whether it ends, fails or nobody listens any more."""

    def __init__(self, client: str, stream: Iterator[str]) -> None:
        self._client = client
        self._stream = stream
        self._given_back = False

    def __iter__(self) -> Iterator[str]:
        return self

    def __next__(self) -> str:
        try:
            return next(self._stream)
        except BaseException:
            self.close()
            raise

    def close(self) -> None:
        """Called by the server in any case, also when nothing was read of it."""
        with _lock:
            if not self._given_back:
                self._given_back = True
                _open[self._client] -= 1
