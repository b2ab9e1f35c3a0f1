"""A planned set corrected in a few words: ``11``, ``at 14 kg``, ``12 at 2 × 10 kg RPE 9``."""

from __future__ import annotations

import re
from typing import Any, Final

from dialback.core.movements import Movement, MovementTable
from dialback.core.notation.characters import plain
from dialback.core.notation.expand import Setting, set_of
from dialback.core.notation.session import DOSE, Bout, Part
from dialback.core.notation.slips import Mistake, SlipError
from dialback.core.notation.steps import Piece, dose_of
from dialback.core.notation.wording import worded_dose
from dialback.core.sessions import Set

_KEYS: Final = {
    "load": ("load_kg", "implements", "held", "unit", "percent", "body_percent"),
    "percent": ("load_kg", "percent", "body_percent", "unit"),
    "body_percent": ("load_kg", "percent", "body_percent", "unit"),
    "sides": ("sides",),
    "tempo": ("tempo",),
    "hold_s": ("hold_s",),
    "rpe": ("rpe", "rpe_to"),
    "rest_s": ("rest_s", "rest_to_s"),
    "warm_up": ("warm_up",),
    "band": ("band",),
    "range": ("range", "partial_reps"),
    "to_failure": ("rpe", "rpe_to"),
    "note": ("note",),
    "for_time": ("for_time",),
}


def amended(
    planned: Set, text: str, movements: MovementTable, setting: Setting | None = None
) -> tuple[Set, int] | Mistake:
    """The set with what the text says in place of what was planned, and how many such sets.

    What the text does not say stays; ``easier`` or ``harder`` before it means the movement's
    level. A text that is not understood gives its mistake.
    """
    text = plain(text)
    level = _LEVEL.match(text)
    if level:
        neighbour = _neighbour(planned, level[1].lower(), movements)
        if isinstance(neighbour, Mistake):
            return neighbour
        planned = planned.model_copy(update={"exercise": neighbour})
        text = text[level.end() :]
    setting = setting or Setting(movements)
    try:
        if planned.exercise is not None and len(_THEN.split(text)) > 1:
            return _in_pieces(planned, text, movements, setting), 1
        piece = _one_piece(text, _movement(planned, movements))
        _sure_of_count(piece, planned, movements)
        if planned.loads is not None and not piece.has_dose and "load" in piece.says:
            raise SlipError(piece.at, piece.length, _ALL_PIECES)
    except SlipError as slip:
        return slip.on(1)
    return _with(planned, piece, setting), piece.sets or 1


_THEN: Final = re.compile(r"[ \t]{0,8},?[ \t]{1,8}then[ \t]{1,8}", re.IGNORECASE)
_ALL_PIECES: Final = (
    "the load was changed in this set: write all of it, as in '5 at 60 kg, then 3 at 50 kg'"
)


def _in_pieces(planned: Set, text: str, movements: MovementTable, setting: Setting) -> Set:
    """One set whose load was changed in the middle: ``5 at 60 kg, then 3 at 50 kg``.

    A piece that says no load has that of the one before it. Raises ``SlipError``.
    """
    done, pieces, at = planned, [], 0
    for said in _THEN.split(text):
        at = text.index(said, at)
        try:
            piece = _one_piece(said, _movement(planned, movements))
            _sure_of_count(piece, planned, movements)
        except SlipError as slip:
            raise SlipError(at + slip.at, slip.length, str(slip), slip.offers) from None
        if not piece.has_dose or (piece.sets or 1) > 1 or piece.says.get("ranges"):
            raise SlipError(at, len(said), "each piece of a set is reps or seconds, and a load")
        done = _with(done.model_copy(update={"seconds": None}), piece, setting)
        pieces.append({key: getattr(done, key) for key in _OF_A_PIECE})
        at += len(said)
    values = done.model_dump(exclude_defaults=True, exclude={*_OF_A_PIECE, *_NOT_OF_PIECES})
    return Set.model_validate(values | {"loads": pieces})


_OF_A_PIECE: Final = ("reps", "seconds", "load_kg", "implements")
_NOT_OF_PIECES: Final = ("partial_reps", "clusters")


def _movement(planned: Set, movements: MovementTable) -> Movement | None:
    name = planned.exercise
    return None if name is None else movements.get(name)


def _one_piece(text: str, movement: Movement | None) -> Piece:
    said = worded_dose(text, movement)
    try:
        found = dose_of(said.text)
    except SlipError as slip:
        raise said.slip(slip) from None
    if len(found) != 1:
        raise SlipError(0, len(text), "one set at a time: leave out then, and lists")
    return found[0]


def _sure_of_count(piece: Piece, planned: Set, movements: MovementTable) -> None:
    """A bare number of a hold is neither reps nor, for certain, seconds."""
    names = [name for name, _ in planned.named_moves()]
    held = all(name in movements and movements[name].isometric for name in names)
    reps = piece.says.get("reps")
    if held and reps:
        raise SlipError(piece.at, piece.length, f"{names[0]} is held: write how long, '{reps} s'")


def _with(planned: Set, piece: Piece, setting: Setting) -> Set:
    says = {key: value for key, value in piece.says.items() if value is not None}
    bout = Bout(**says)
    dosed = bout if bout.has_dose else Bout(**says, reps=0)
    written = set_of(planned.named_moves(), dosed, Part(), setting).model_dump(
        exclude_defaults=True
    )
    values: dict[str, Any] = planned.model_dump(exclude_defaults=True)
    if piece.has_dose:
        values.pop("loads", None)
        for key in (*DOSE, "partial_reps"):
            values.pop(key, None)
            if key in written and (key != "reps" or bout.has_dose):
                values[key] = written[key]
        if set(piece.says) & set(DOSE) <= {"reps", "reps_to"} and planned.seconds is not None:
            # Reps told of a set by the clock: it took its time all the same.
            values["seconds"] = planned.seconds
        if bout.clusters:
            values["rpe"] = written["rpe"]
    for name in piece.says:
        for key in _KEYS.get(name, ()):
            if key in ("implements", "held") and key not in written and not _says_of_one(piece):
                # 14 kg, said of a pair, is 14 kg each; 1 × 14 kg is one of them.
                continue
            values.pop(key, None)
            if key in written:
                values[key] = written[key]
    return Set.model_validate(values)


def _says_of_one(piece: Piece) -> bool:
    load = piece.says.get("load")
    return load is not None and load.counted


_LEVEL: Final = re.compile(r"[ \t]{0,8}(easier|harder)\b[ \t,]{0,8}", re.IGNORECASE)


def _neighbour(planned: Set, word: str, movements: MovementTable) -> str | Mistake:
    movement = _movement(planned, movements)
    found = movement and getattr(movement, word)
    if movement is None or found is None:
        whose = movement.name if movement else "a combination"
        return Mistake(1, 1, len(word), f"{whose} has no {word} level")
    return str(found)
