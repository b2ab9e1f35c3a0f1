"""A planned set corrected in a few words: ``11``, ``at 14 kg``, ``12 at 2 × 10 kg RPE 9``."""

from __future__ import annotations

import re
from dataclasses import fields
from typing import Any, Final

from dialback.core.movements import MovementTable
from dialback.core.notation.expand import set_of
from dialback.core.notation.reader import Mistake, read_dose
from dialback.core.notation.session import Bout, Part
from dialback.core.sessions import Set

_DOSE: Final = frozenset({"reps", "reps_to", "seconds", "clusters", "ranges"})
_KEYS: Final = {
    "load": ("load_kg", "implements", "unit"),
    "sides": ("sides",),
    "tempo": ("tempo",),
    "hold_s": ("hold_s",),
    "rpe": ("rpe",),
    "rest_s": ("rest_s",),
    "warm_up": ("warm_up",),
    "band": ("band",),
    "range": ("range", "partial_reps"),
    "to_failure": ("rpe",),
    "note": ("note",),
    "for_time": ("for_time",),
}


def amended(planned: Set, text: str, movements: MovementTable) -> tuple[Set, int] | Mistake:
    """The set with what the text says in place of what was planned, and how many such sets.

    What the text does not say stays; ``easier`` or ``harder`` before it means the movement's
    level. A text that is not understood gives its mistake.
    """
    level = _LEVEL.match(text)
    if level:
        neighbour = _neighbour(planned, level[1].lower(), movements)
        if isinstance(neighbour, Mistake):
            return neighbour
        planned = planned.model_copy(update={"exercise": neighbour})
        text = text[level.end() :]
    found = read_dose(text)
    if isinstance(found, Mistake):
        return found
    bout, count = found
    moves = planned.named_moves()
    said = [one.name for one in fields(Bout) if getattr(bout, one.name) != _BARE[one.name]]
    written = set_of(moves, _with_dose(bout), Part()).model_dump(exclude_defaults=True)
    values: dict[str, Any] = planned.model_dump(exclude_defaults=True)
    if _DOSE & set(said):
        for key in ("reps", "seconds", "reps_to", "clusters", "partial_reps"):
            values.pop(key, None)
            if key in written and (key != "reps" or bout.has_dose):
                values[key] = written[key]
        if bout.clusters:
            values["rpe"] = written["rpe"]
    for name in said:
        for key in _KEYS.get(name, ()):
            if key == "implements" and key not in written:
                # 14 kg, said of a pair, is 14 kg each.
                continue
            values.pop(key, None)
            if key in written:
                values[key] = written[key]
    return Set.model_validate(values), count


_LEVEL: Final = re.compile(r"[ \t]*(easier|harder)\b[ \t,]*", re.IGNORECASE)


def _neighbour(planned: Set, word: str, movements: MovementTable) -> str | Mistake:
    name = planned.exercise
    movement = movements[name] if name is not None and name in movements else None
    found = movement and getattr(movement, word)
    if movement is None or found is None:
        whose = movement.name if movement else "a combination"
        return Mistake(1, 1, len(word), f"{whose} has no {word} level")
    return str(found)


_BARE: Final = {one.name: getattr(Bout(), one.name) for one in fields(Bout)}


def _with_dose(bout: Bout) -> Bout:
    """A set needs a dose to be one; where none is said it is not taken over."""
    if bout.has_dose:
        return bout
    return Bout(**{**{one.name: getattr(bout, one.name) for one in fields(Bout)}, "reps": 0})
