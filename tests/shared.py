"""What takes seconds to make, made once for all the processes of a run."""

from __future__ import annotations

import fcntl
import os
import tempfile
from collections.abc import Callable
from functools import cache
from pathlib import Path


def place_of(run: str) -> Path:
    """The folder of a run of tests, by its name."""
    return Path(tempfile.gettempdir()) / f"dialback-tests-{run}"


@cache
def _place() -> Path | None:
    """The folder of this run; none where there is only one process."""
    run = os.environ.get("PYTEST_XDIST_TESTRUNUID")
    if run is None:
        return None
    place = place_of(run)
    place.mkdir(exist_ok=True)
    return place


def made_once(name: str, make: Callable[[], bytes]) -> bytes:
    """What ``make`` makes: by whichever process is first; the others wait for it."""
    place = _place()
    if place is None:
        return make()
    made = place / name
    with (place / f"{name}.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            half = made.with_suffix(".half")
            half.write_bytes(make())
            half.rename(made)
    return made.read_bytes()
