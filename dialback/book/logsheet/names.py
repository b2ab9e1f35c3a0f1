"""Movement names of a sheet: known ones, those that were chosen, and those that are neither."""

from __future__ import annotations

import difflib
import re
from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from dialback.book.errors import bad_input, from_validation
from dialback.book.logsheet.cells import RowError
from dialback.core.movements import Movement, MovementTable, UnknownMovementError, fold
from dialback.core.notation.characters import plain
from dialback.core.notation.names import names_of


@dataclass(frozen=True, slots=True)
class Unknown:
    """A movement that nobody knows by that name: how often it stands there, and what is near."""

    name: str
    count: int
    near: tuple[str, ...]


def made_of(like: Mapping[str, str], movements: MovementTable) -> list[Movement]:
    """New movements by the names of a sheet, each as the one that it is like, without its levels.

    Names that there are already make none. Raises ``BadInputError`` for what nobody is like.
    """
    found = []
    for name, base in like.items():
        if name in movements:
            continue
        try:
            old = movements[base]
        except UnknownMovementError as unknown:
            raise bad_input("movement", f"{name!r} cannot be made: {unknown}") from None
        try:
            found.append(old.like(name))
        except ValidationError as error:
            raise from_validation(error) from None
    return found


class SheetNames:
    """Movement names of a sheet: known ones, those that were chosen, and those that are neither."""

    def __init__(
        self, movements: MovementTable, chosen: Mapping[str, str], skip: Iterable[str] = ()
    ) -> None:
        self.movements = movements
        self._names = names_of(movements)
        self._skipped = {fold(name) for name in skip}
        aliases = {
            fold(alias): movement.name for movement in movements for alias in movement.aliases
        }
        self._called = {**aliases, **{fold(movement.name): movement.name for movement in movements}}
        self._called |= {
            fold(name): movements[to].name for name, to in chosen.items() if to in movements
        }
        self._found: dict[str, dict[str, Any] | None] = {}
        self._unknown: Counter[str] = Counter()

    def moves(self, text: str) -> dict[str, Any] | None:
        """The keys of a set that name its movement; ``None`` for one that nobody knows.

        Of one whose rows are left out there are no keys.
        """
        if not text:
            raise RowError("movement", "is missing")
        if text not in self._found:
            self._found[text] = self._look(text)
        found = self._found[text]
        if found is None and fold(text) in self._skipped:
            return {}
        if found is None:
            self._unknown[text] += 1
        return found and dict(found)

    def _look(self, text: str) -> dict[str, Any] | None:
        name = self._called.get(fold(text)) or self._as_coaches_say(text)
        if name is not None:
            return {"exercise": name}
        moves = []
        for piece in text.split(" + "):
            match = re.fullmatch(r"(?:(\d+(?:\.\d+)?)\s+)?(.+)", piece.strip())
            one = self._called.get(fold(piece)) or (match and self._called.get(fold(match[2])))
            if one is None or match is None:
                return None
            times = float(match[1]) if match[1] and fold(piece) not in self._called else 1.0
            moves.append({"exercise": one, "times": times})
        return {"moves": moves}

    def _as_coaches_say(self, text: str) -> str | None:
        """The movement that a whole cell names in another spelling: ``DB curls``."""
        found = self._names.begins(plain(text))
        return found[0] if found is not None and found[1] == len(text) else None

    def unknown(self) -> list[Unknown]:
        """The names that nobody knows, the most frequent first."""
        return [
            Unknown(name, count, self._near(name)) for name, count in self._unknown.most_common()
        ]

    def _near(self, name: str) -> tuple[str, ...]:
        said = self._names.spelt_like(name)
        words = set(fold(name).split())
        close = difflib.get_close_matches(fold(name), self._called, n=3, cutoff=0.5)
        shared = sorted(
            (one for one in self._called if words & set(one.replace("-", " ").split())),
            key=lambda one: -len(words & set(one.replace("-", " ").split())),
        )
        like = [*close, *shared[:3]]
        trains = self._names.that_train(name)
        # What is spelt alike may be any machine: what trains alike stands second.
        ranked = [*said[:1], *trains[:1], *said[1:], *(self._called[one] for one in like), *trains]
        return tuple(dict.fromkeys(ranked))[:4]
