"""Daily copies of the data file, beside it: one a day, the oldest go."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Final

from dialback.book.errors import bad_input
from dialback.store.backup import back_up
from dialback.store.database import is_demo

KEPT: Final = 14
"""So many daily copies are kept."""


@dataclass(frozen=True, slots=True)
class Copy:
    """A copy of a day."""

    day: date
    path: Path
    bytes: int


def folder_of(data: Path) -> Path:
    """Where the copies of a data file lie."""
    return data.parent / f"{data.stem}-copies"


def copies(data: Path) -> list[Copy]:
    """The daily copies that there are, the latest first."""
    name = re.compile(rf"{re.escape(data.stem)}-(\d{{4}}-\d\d-\d\d)\.sqlite")
    found = []
    folder = folder_of(data)
    for path in folder.iterdir() if folder.is_dir() else ():
        match = name.fullmatch(path.name)
        if match:
            found.append(Copy(date.fromisoformat(match[1]), path, path.stat().st_size))
    return sorted(found, key=lambda copy: copy.day, reverse=True)


def copy_of_the_day(data: Path, today: date) -> Path | None:
    """Make today's copy if there is none, and let the oldest go; ``None`` where there is nothing.

    The made-up club needs none. Raises ``BadInputError`` where it cannot be written.
    """
    if is_demo(data):
        return None
    folder = folder_of(data)
    target = folder / f"{data.stem}-{today.isoformat()}.sqlite"
    if target.exists():
        return target
    try:
        folder.mkdir(mode=0o700, exist_ok=True)
    except OSError as error:
        raise bad_input(str(folder), f"cannot be made: {error.strerror}") from None
    back_up(data, target)
    for old in copies(data)[KEPT:]:
        old.path.unlink()
    return target
