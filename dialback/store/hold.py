"""Who holds a data file: servers share it, and what puts another in its place wants it alone.

The lock is a file beside the data file: it goes with the process, however that ends.
"""

from __future__ import annotations

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from dialback.book.errors import bad_input


def _beside(data: Path) -> Path:
    return data.with_name(f".{data.name}.lock")


@contextmanager
def held(data: Path) -> Iterator[None]:
    """A server holds its data file. Raises ``BadInputError`` while it is being replaced."""
    with _locked(data, fcntl.LOCK_SH, "is being replaced: start again in a moment"):
        yield


@contextmanager
def alone(data: Path) -> Iterator[None]:
    """Nobody serves a data file as long as this lasts. Raises ``BadInputError`` if one does."""
    with _locked(data, fcntl.LOCK_EX, "is being served: stop the server first, then try again"):
        yield


@contextmanager
def _locked(data: Path, how: int, otherwise: str) -> Iterator[None]:
    path = _beside(data)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        file = os.open(path, os.O_CREAT | os.O_RDWR, 0o600)
    except OSError as error:
        raise bad_input(str(path), f"cannot be made: {error.strerror}") from None
    try:
        try:
            fcntl.flock(file, how | fcntl.LOCK_NB)
        except OSError:
            raise bad_input(str(data), otherwise) from None
        yield
    finally:
        os.close(file)
