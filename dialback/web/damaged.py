"""Damaged rows of the data file, looked for once in a while, told where they would stand."""

from __future__ import annotations

from collections.abc import Sequence

from dialback.store import damage


class Damaged:
    """What was damaged when somebody last looked; nothing before the first look."""

    def __init__(self) -> None:
        self._found: Sequence[damage.Damage] = ()

    def look(self) -> int:
        """Look at every row, with a connection that is open; how many values are damaged."""
        self._found = damage.find()
        return len(self._found)

    def words(self, athlete: int | None = None) -> list[str]:
        """What is damaged of an athlete, or of everything, in words."""
        return [one.words for one in self._found if athlete is None or one.athlete == athlete]
