"""A movement's dose in its pieces: what a form shows in fields, and a line writes in a row."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from dialback.core.notation.session import Bout, Load, Moves, Step

_SIDES: Final = {
    "both": "", "each": "each side", "alternating": "alternating", "left": "left", "right": "right",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Pieces:
    """The pieces, each in the notation's own short form, without its keyword; empty if not said.

    ``load`` is ``57.5 kg``, ``2 × 12 kg`` or ``help 15 kg``; ``dose`` is reps, a range, a time.
    """

    moves: str = ""
    sets: str = ""
    dose: str = ""
    sides: str = ""
    load: str = ""
    band: str = ""
    tempo: str = ""
    range: str = ""
    hold: str = ""
    rpe: str = ""
    rest: str = ""
    to_failure: bool = False
    for_time: bool = False
    warm_up: bool = False
    note: str = ""


def pieces(moves: Moves, step: Step) -> Pieces:
    """The pieces of so many sets of a movement or a combination."""
    bout = step.bout
    return Pieces(
        moves=moves_text(moves),
        sets=str(step.sets) if step.sets != 1 else "",
        dose=_dose(bout),
        sides=_SIDES[bout.sides],
        load=load_text(bout.load) if bout.load is not None else "",
        band=bout.band or "",
        tempo=bout.tempo or "",
        range=bout.range or "",
        hold=time_text(bout.hold_s) if bout.hold_s else "",
        rpe=f"{bout.rpe:g}" if bout.rpe is not None else "",
        rest=time_text(bout.rest_s) if bout.rest_s is not None else "",
        to_failure=bout.to_failure,
        for_time=bout.for_time,
        warm_up=bout.warm_up,
        note=bout.note,
    )


def pieces_text(one: Pieces) -> str:
    """The pieces as a line, or as a part of one."""
    load = one.load
    if load and not load.lower().startswith(("help", "at ", "@")):
        load = f"at {load}"
    dose = f"{one.sets} × {one.dose}" if one.sets and one.dose else one.dose
    first = " ".join(piece for piece in (dose, one.sides, load) if piece)
    span = f"{one.range} range" if one.range in ("half", "full") else one.range
    words = [
        first,
        one.band and f"band {one.band}",
        one.tempo and f"tempo {one.tempo}",
        span,
        one.hold and f"hold {one.hold}",
        one.rpe and f"RPE {one.rpe}",
        "to failure" if one.to_failure else "",
        "for time" if one.for_time else "",
        "warm-up" if one.warm_up else "",
        one.rest and f"rest {one.rest}",
    ]
    text = f"{one.moves} {', '.join(word for word in words if word)}".strip()
    return f"{text} ({one.note})".strip() if one.note else text


def moves_text(moves: Moves) -> str:
    """The movements of a line: ``2 Swing + Goblet squat``."""
    return " + ".join(name if times == 1 else f"{times:g} {name}" for name, times in moves)


def time_text(seconds: float) -> str:
    """Seconds as they are written: ``90 s``, whole minutes from two on as ``8 min``."""
    if seconds >= 120 and seconds % 60 == 0:
        return f"{seconds / 60:g} min"
    return f"{seconds:g} s"


def _dose(bout: Bout) -> str:
    counted = _counted(bout)
    if bout.seconds is None:
        return counted
    time = time_text(bout.seconds)
    return f"{counted} in {time}" if counted else time


def _counted(bout: Bout) -> str:
    if bout.clusters:
        return " + ".join(map(str, bout.clusters))
    if bout.ranges:
        return " + ".join(f"{reps} {span}" for reps, span in bout.ranges)
    if bout.reps_to is not None:
        return f"{bout.reps}–{bout.reps_to}"
    return str(bout.reps) if bout.reps is not None else ""


def load_text(load: Load) -> str:
    """A load as it is written, without ``at``."""
    several = f"{load.implements} × " if load.implements > 1 else ""
    return f"{'help ' if load.help else ''}{several}{load.value:g} {load.unit}"
