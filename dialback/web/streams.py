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


class Streams:
    """The streams of one app, counted as long as they last."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._open: Counter[str] = Counter()

    @property
    def open(self) -> int:
        """How many there are."""
        return self._open.total()

    def held(self, client: str, stream: Iterator[str]) -> Iterator[str]:
        """The stream of a client, counted. Raises ``RefusedError`` where there are too many."""
        with self._lock:
            if self.open >= IN_ALL or self._open[client] >= OF_ONE:
                raise RefusedError(
                    HTTPStatus.SERVICE_UNAVAILABLE,
                    "busy",
                    "As many sensors are at work as this server can follow: end one of them first.",
                )
            self._open[client] += 1
        return _Held(self, client, stream)

    def give_back(self, client: str) -> None:
        """A stream of the client has ended."""
        with self._lock:
            self._open[client] -= 1


class _Held:
    """A stream that gives its place back, whether it ends, fails or nobody listens any more."""

    def __init__(self, streams: Streams, client: str, stream: Iterator[str]) -> None:
        self._streams = streams
        self._client = client
        self._stream = stream
        self._lock = threading.Lock()
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
        with self._lock:
            if self._given_back:
                return
            self._given_back = True
        self._streams.give_back(self._client)
