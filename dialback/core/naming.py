"""A movement that has another name by now, in what was written while it had the old one."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from copy import deepcopy
from typing import Any

from dialback.core.movements import MovementTable, fold
from dialback.core.sessions import Session, Set

_KEYS = ("exercise", "movement")
"""Under these a name stands in what is kept as JSON."""


def called_today(movements: MovementTable) -> dict[str, str]:
    """What movements are also called, folded, to their names; a name of one's own goes before."""
    return {
        fold(alias): movement.name
        for movement in movements
        for alias in movement.aliases
        if alias not in movements
    }


def as_called_today(session: Session, movements: MovementTable) -> Session:
    """A session with the names that its movements have today."""
    names = called_today(movements)
    sets = tuple(_renamed_set(one, names) for one in session.sets)
    return session if sets == session.sets else session.model_copy(update={"sets": sets})


def _renamed_set(a_set: Set, names: Mapping[str, str]) -> Set:
    if not any(fold(name) in names for name, _ in a_set.named_moves()):
        return a_set
    if a_set.moves is None:
        return a_set.model_copy(update={"exercise": names[fold(a_set.exercise or "")]})
    moves = tuple(
        move.model_copy(update={"exercise": names.get(fold(move.exercise), move.exercise)})
        for move in a_set.moves
    )
    return a_set.model_copy(update={"moves": moves})


Path = tuple[str | int, ...]
"""Where something stands within a JSON value: keys, and places in lists."""


def places_in(value: Any, name: str, at: Path = ()) -> Iterator[Path]:
    """Where a movement is named so in a JSON value."""
    if isinstance(value, Mapping):
        for key, inner in value.items():
            if key in _KEYS and isinstance(inner, str) and fold(inner) == fold(name):
                yield *at, key
            else:
                yield from places_in(inner, name, (*at, key))
    elif isinstance(value, list):
        for place, inner in enumerate(value):
            yield from places_in(inner, name, (*at, place))


def put_in(value: Any, places: Iterable[Sequence[str | int]], old: str, new: str) -> Any:
    """A copy of a JSON value with another name at those places, where they still have the old."""
    copy = deepcopy(value)
    for *way, last in places:
        inner = copy
        try:
            for step in way:
                inner = inner[step]
            if fold(inner[last]) == fold(old):
                inner[last] = new
        except (LookupError, TypeError, AttributeError):
            # It was changed since, and has no such place any more.
            continue
    return copy


def at_its_head(text: str, names: Mapping[str, str], known: MovementTable) -> str:
    """A set in words (``2 Clean + Press 5 reps with 40 kg``) with the names of today.

    The longest name that it begins with is the one that is meant.
    """
    return " + ".join(_of_one(part, names, known) for part in text.split(" + "))


def _of_one(text: str, names: Mapping[str, str], known: MovementTable) -> str:
    words = text.split(" ")
    for start in (0, 1) if words[0].replace(".", "").isdigit() else (0,):
        for end in range(len(words), start, -1):
            whole = " ".join(words[start:end])
            head = whole.rstrip(",")
            if head in known:
                return text
            if fold(head) in names:
                renamed = names[fold(head)] + whole[len(head) :]
                return " ".join([*words[:start], renamed, *words[end:]])
    return text
