"""A movement's dose in its pieces: what a form shows in fields, and a line writes in a row."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import reduce
from typing import Final

from dialback.core.kit import takes_a_load
from dialback.core.movements import Movement, MovementTable
from dialback.core.notation.items import NOTE_MARK, counts_as_said
from dialback.core.notation.names import one_sided
from dialback.core.notation.reasons import behind, both
from dialback.core.notation.session import LOADING, Bout, Load, Moves, Step
from dialback.core.notation.vocabulary import SIDES, written
from dialback.core.words import in_minutes

_MOST_BY_CROSS: Final = 12
"""Above this a number before a cross could be a load: ``15 sets of 5``."""


@dataclass(frozen=True, slots=True)
class Pieces:
    """The pieces, each in the notation's own short form, without its keyword; empty if not said.

    ``load`` is ``57.5 kg``, ``2 × 12 kg``, ``80 %``, ``help 15 kg`` or ``BW``; ``dose`` is reps, a
    range, a time or a distance.
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
    why: str = ""


def pieces(
    moves: Moves, step: Step, movements: MovementTable, before: Bout | None = None
) -> Pieces:
    """The pieces of so many sets of a movement or a combination.

    With ``before``, the bout that the line or the turn has said last, what would stay from it and
    is not meant is taken back in so many words.
    """
    bout = step.bout
    known = [movements[name] for name, _ in moves if name in movements]
    sided = any(one_sided(movement) for movement in known)
    found = _said(bout, worded=_is_worded(known, bout))
    sides, load, tempo, rest = found.sides, found.load, found.tempo, found.rest
    if bout.sides == "both" and (sided or (before is not None and before.sides != "both")):
        sides = SIDES["both"]
    if before is not None:
        unloaded = not is_loaded(bout)
        if unloaded and _stays(before, bout):
            load = written("NO_LOAD")
        if before.tempo is not None and bout.tempo is None and bout.range is None:
            tempo = "usual"
        if before.rest_s is not None and bout.rest_s is None:
            rest = written("OPEN_REST").removeprefix(f"{written('REST')} ")
    return Pieces(
        moves_text(moves, bout.piece_loads),
        _sets(step),
        found.dose,
        sides,
        load,
        found.band,
        tempo,
        found.range,
        found.hold,
        found.rpe,
        rest,
        bout.to_failure,
        bout.for_time,
        bout.warm_up,
        bout.note,
    )


def load_is_open(before: Bout, known: Iterable[Movement]) -> bool:
    """Whether other movements, done in the next round, may be meant with the load of before."""
    if before.load is None or before.load.help:
        return False
    return any(takes_a_load(movement) and movement.kit for movement in known)


def is_loaded(bout: Bout) -> bool:
    """Whether it says with what."""
    return any(getattr(bout, key) is not None for key in LOADING)


def _sets(step: Step) -> str:
    if step.sets_to is not None:
        return f"{step.sets}–{step.sets_to}"
    return str(step.sets) if step.sets != 1 else ""


def _is_worded(known: list[Movement], bout: Bout) -> bool:
    """Whether reps are named so: where a bare number could be metres, seconds or minutes."""
    if bout.reps == 0 or not known:
        return True
    alone = len(known) == 1 and known[0].pattern == "conditioning"
    held = all(movement.isometric for movement in known)
    return alone or held or all(movement.pattern == "carry" for movement in known)


def _stays(before: Bout, bout: Bout) -> bool:
    """Whether something of the bout before would stay that this one, without a load, has not."""
    if is_loaded(before):
        return True
    return any(
        getattr(before, key) and not getattr(bout, key)
        for key in ("rpe", "to_failure", "hold_s", "range", "for_time", "warm_up")
    ) or (before.rpe_to is not None and bout.rpe_to is None)


def _said(bout: Bout, *, worded: bool) -> Pieces:
    effort = f"{bout.rpe:g}" if bout.rpe is not None else ""
    if effort and bout.rpe_to is not None:
        effort += f"–{bout.rpe_to:g}"
    return Pieces(
        dose=_dose(bout, worded=worded),
        sides="" if bout.sides == "both" else SIDES[bout.sides],
        load=_loading(bout),
        band=bout.band or "",
        tempo=bout.tempo or "",
        range=bout.range or "",
        hold=time_text(bout.hold_s) if bout.hold_s else "",
        rpe=effort,
        rest=span_text(bout.rest_s, bout.rest_to_s) if bout.rest_s is not None else "",
        to_failure=bout.to_failure,
        for_time=bout.for_time,
        warm_up=bout.warm_up,
        note=bout.note,
    )


def _loading(bout: Bout) -> str:
    if bout.load is not None:
        return load_text(bout.load)
    if bout.body_percent is not None:
        return f"{_decimal(bout.body_percent)} {written('PCT_BODY')}"
    return f"{bout.percent:g} %" if bout.percent is not None else ""


def pieces_text(one: Pieces) -> str:
    """The pieces as a line, or as a part of one."""
    load = one.load
    if load and not load.lower().startswith(("help", "at ", "@", "bw", "+")):
        load = f"{written('AT')} {load}"
    dose = _with_sets(one.sets, one.dose)
    first = " ".join(piece for piece in (dose, one.sides, load) if piece)
    span = f"{one.range} range" if one.range in ("half", "full") else one.range
    words = [
        first,
        one.band and f"{written('BAND')} {one.band}",
        one.tempo and _tempo(one.tempo),
        span,
        one.hold and f"{written('HOLD')} {one.hold}",
        one.rpe and f"{written('RPE')} {one.rpe}",
        written("FAILURE") if one.to_failure else "",
        written("FOR_TIME") if one.for_time else "",
        written("WARM_UP") if one.warm_up else "",
        one.rest and f"{written('REST')} {one.rest}",
    ]
    text = f"{one.moves} {', '.join(word for word in words if word)}".strip()
    if one.note:
        mark = f"{NOTE_MARK} " if counts_as_said(one.note) else ""
        text = f"{text} ({mark}{one.note})".strip()
    return text


def joined(several: Sequence[Pieces], by: str) -> str:
    """Pieces one after the other as a line; the reasons of all of them come last."""
    return by.join(map(pieces_text, several)) + behind(
        reduce(both, (one.why for one in several), "")
    )


def _tempo(said: str) -> str:
    word = written("TEMPO")
    return f"{said} {word}" if said == "usual" else f"{word} {said}"


def _with_sets(sets: str, dose: str) -> str:
    if not sets or not dose:
        return dose
    # A span of sets by a cross could be one of reps.
    many = not sets.isdigit() or int(sets[:9]) > _MOST_BY_CROSS
    return f"{sets} sets of {dose}" if many else f"{sets} × {dose}"


def moves_text(moves: Moves, loads: tuple[Load | None, ...] = ()) -> str:
    """The movements of a line: ``2 Swing + Goblet squat``, each with the load that is its own."""
    if len(moves) == 1 and moves[0][1] != 1:
        return f"{moves[0][1]:g} per rep {moves[0][0]}"
    texts = [name if times == 1 else f"{times:g} {name}" for name, times in moves]
    own = loads or (None,) * len(texts)
    return " + ".join(
        text if load is None else f"{text} {_own_load(load)}"
        for text, load in zip(texts, own, strict=True)
    )


def _own_load(load: Load) -> str:
    if not load.value:
        return written("NO_LOAD")
    return load_text(load) if load.help else f"{written('AT')} {load_text(load)}"


def time_text(seconds: float) -> str:
    """Seconds as they are written: ``90 s``, whole minutes from two on as ``8 min``."""
    if in_minutes(seconds):
        return f"{seconds / 60:g} min"
    return f"{_decimal(seconds)} s"


def span_text(seconds: float, to: float | None) -> str:
    """A time, or a span of times: ``30–45 s``, ``2–3 min``."""
    if to is None:
        return time_text(seconds)
    if in_minutes(to) and seconds >= 60 and seconds % 60 == 0:
        return f"{seconds / 60:g}–{to / 60:g} min"
    return f"{_decimal(seconds)}–{_decimal(to)} s"


def distance_text(metres: float) -> str:
    """Metres as they are written: ``40 m``."""
    return f"{_decimal(metres)} m"


def _dose(bout: Bout, *, worded: bool) -> str:
    counted = _counted(bout)
    if worded and (bout.reps is not None or bout.clusters):
        counted += f" {written('REPS')}"
    if bout.seconds is None:
        return counted
    time = span_text(bout.seconds, bout.seconds_to)
    if bout.static:
        return f"{time} {written('HOLD')}"
    return f"{counted} in {time}" if counted else time


def _counted(bout: Bout) -> str:
    if bout.clusters:
        return " + ".join(map(str, bout.clusters))
    if bout.ranges:
        return " + ".join(f"{reps} {span}" for reps, span in bout.ranges)
    if bout.reps_to is not None:
        return f"{bout.reps}–{bout.reps_to}"
    if bout.distance_m is not None:
        return distance_text(bout.distance_m)
    return str(bout.reps) if bout.reps is not None else ""


def load_text(load: Load) -> str:
    """A load as it is written, without ``at``."""
    several = f"{load.implements} × " if load.implements > 1 else ""
    helps = f"{written('HELP')} " if load.help else ""
    return f"{helps}{several}{_decimal(load.value)} {load.unit}"


def _decimal(value: float) -> str:
    """A number that cannot be taken for thousands: never three decimals behind a single digit."""
    text = f"{value:.6f}".rstrip("0").rstrip(".")
    whole, _, decimals = text.partition(".")
    return f"{text}0" if len(decimals) == 3 and 0 < int(whole) < 10 else text
