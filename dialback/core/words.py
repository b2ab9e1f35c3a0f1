"""Numbers and sets in words: no more digits than are known, the unit always beside them."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import groupby
from typing import Final, Literal

from dialback.core.counting import MeasuredSet, ShapeMove, loads_of
from dialback.core.counting import measure as measure_set
from dialback.core.figures import kind_and_name, measure_of, side_of, subject_of
from dialback.core.measures import BY_MEASURE
from dialback.core.movements import fold
from dialback.core.sessions import KG_PER_LB, TO_FAILURE, Session, Set
from dialback.core.tempo import tempo_words

Unit = Literal["kg", "lb"]


def amount_text(value: float, measure: str, unit: Unit | None = None) -> str:
    """A value with its unit, no more digits than are known: ``12.5 sets``, ``1 240 kg``.

    Raises ``ValueError`` for what is no measure, and for a weight without the unit that it is read
    in.
    """
    words = BY_MEASURE.get(measure)
    if words is None:
        raise ValueError(f"no unit is known for {measure!r}")
    match words.unit:
        case "itself":
            one = words.title[:-1] if value == 1 else words.title
            # A set counts in quarters; a mean over weeks has no more digits than it is worth.
            quarters = abs(value * 4 - round(value * 4)) < 1e-9
            return f"{number(value, 2 if quarters else 1)} {one}"
        case "weight":
            return weight_text(value, _given(unit), words.digits)
        case "s":
            return f"{number(value, words.digits)} s"


def _given(unit: Unit | None) -> Unit:
    if unit is None:
        raise ValueError("a weight is told in kg or in lb: say in which")
    return unit


def weight_text(kg: float, unit: Unit, digits: int = 2) -> str:
    """A weight in the unit it is read in: ``57.5 kg``, ``126.77 lb``. Kept it is in kg."""
    return f"{number(kg if unit == 'kg' else kg / KG_PER_LB, digits)} {unit}"


def number(value: float, digits: int = 2) -> str:
    """A number as a person writes it: no needless zeros, thin groups of three."""
    text = f"{value:,.{digits}f}".replace(",", "\u202f")
    return text.rstrip("0").rstrip(".") if "." in text else text


def capital(text: str) -> str:
    """A text with a capital at its beginning; names within it stay as they are."""
    return text[:1].upper() + text[1:]


def percent(share: float) -> str:
    """A change as signed per cent: ``+16.7 %``."""
    return f"{'+' if share >= 0 else '−'}{number(abs(share) * 100, 1)} %"


_SIDES: Final = {
    "both": "",
    "each": " each side",
    "alternating": " alternating",
    "left": " left",
    "right": " right",
}


def load_text(a_set: Set) -> str:
    """The load as it is written: ``57.5 kg``, ``2 × 12 kg``; help is told as help."""
    if not a_set.load_kg:
        return ""
    # As it was entered, whoever reads it.
    in_hand = a_set.held or a_set.implements
    return _weight(a_set.load_kg, in_hand, "lb" if a_set.in_pounds else "kg")


def in_minutes(seconds: float) -> bool:
    """Whether a time is told in minutes: whole ones, from two on."""
    return seconds >= 120 and seconds % 60 == 0


def time_text(seconds: float) -> str:
    """A time as it is read: ``90 s``, ``8 min``."""
    return f"{number(seconds / 60)} min" if in_minutes(seconds) else f"{number(seconds)} s"


def dose_text(a_set: Set) -> str:
    """Reps, metres or a time with the side, the hold and the partial reps; piece by piece."""
    if a_set.loads is not None:
        told = [(dose_text(piece), load_text(piece)) for piece in a_set.pieces]
        return ", then ".join(f"{dose} at {load}" if load else dose for dose, load in told)
    parts = []
    if a_set.distance_m is not None:
        parts.append(f"{number(a_set.distance_m)} m")
    if a_set.reps is not None:
        parts.append(f"{a_set.reps} reps" if a_set.reps != 1 else "1 rep")
    if a_set.seconds is not None:
        parts.append(time_text(a_set.seconds))
    text = " in ".join(parts) + _SIDES[a_set.sides]
    if a_set.partial_reps:
        text += f", {a_set.partial_reps} of them partial"
    if a_set.hold_s:
        text += f", hold {number(a_set.hold_s)} s"
    return f"{text}, held still" if a_set.static else text


def planned_dose_text(a_set: Set) -> str:
    """A planned set's dose, with its range: ``8–12 reps each side``."""
    text = dose_text(a_set)
    if a_set.seconds is not None and a_set.seconds_to is not None:
        low, top = time_text(a_set.seconds), time_text(a_set.seconds_to)
        text = text.replace(low, f"{low}–{top}", 1)
    if a_set.reps is None or a_set.reps_to is None:
        return text
    return text.replace(f"{a_set.reps} rep", f"{a_set.reps}–{a_set.reps_to} rep", 1)


def loading_text(a_set: Set) -> str:
    """What resists in a set: its load, its help, or its band."""
    return f"band {a_set.band}" if a_set.band else load_text(a_set)


def remarks(session: Session) -> list[str]:
    """What was said of a session and of its sets, each remark once, the session's own first."""
    of_sets = (f"{movement_text(one)}: {one.note}" for one in session.sets if one.note)
    return list(dict.fromkeys([*session.notes.splitlines(), *of_sets]))


def movement_text(a_set: Set) -> str:
    """The movement, or the moves of a combination with their times."""
    return " + ".join(
        (name if times == 1 else f"{number(times)} {name}") + own
        for (name, times), own in zip(a_set.named_moves(), _own_of_moves(a_set), strict=True)
    )


def _own_of_moves(a_set: Set) -> list[str]:
    """What each move of a combination has of its own, behind its name: load and side."""
    return [
        ("" if move.sides is None else _SIDES[move.sides])
        + ("" if move.load_kg is None else f" at {_weight(move.load_kg, move.implements)}")
        for move in a_set.moves or ()
    ] or [""]


def _weight(load_kg: float, implements: int, unit: Unit = "kg") -> str:
    several = f"{implements} × " if implements > 1 else ""
    return f"{several}{weight_text(abs(load_kg), unit)}{' help' if load_kg < 0 else ''}"


def sets_text(sets: Sequence[Set], movement: str = "") -> str:
    """Working sets in words: ``3 × 8–12 reps at 60 kg``; left and right in turn as pairs.

    Those that are not of ``movement`` say of what they are.
    """
    pairs = {a_set.sides for a_set in sets} == {"left", "right"}
    shown = [a_set for a_set in sets if not (pairs and a_set.sides == "right")]
    found = []
    for text, alike in groupby(map(planned_text, shown)):
        said = text.replace(" left", " left and right") if pairs else text
        found.append(f"{len(list(alike))} × {said}")
    other = shown[0].exercise or ""
    name = f"{other} " if movement and fold(other) != fold(movement) else ""
    return name + ", ".join(found)


def planned_text(a_set: Set) -> str:
    """A planned set in words: ``8–12 reps at 60 kg, tempo 3-1-2-0``."""
    at = "at " if a_set.load_kg > 0 and not a_set.band else ""
    loading = loading_text(a_set)
    text = f"{planned_dose_text(a_set)} {at}{loading}" if loading else planned_dose_text(a_set)
    return f"{text}, tempo {a_set.tempo}" if a_set.tempo else text


def range_text(a_set: Set) -> str:
    """The range of a set where it is not the full one: ``half range``."""
    return f"{a_set.range} range" if a_set.range not in (None, "full") else ""


def target_text(a_set: Set) -> str:
    """What a planned set asks for beside dose and load: exertion, range, the tempo in words."""
    parts = []
    if a_set.rpe == TO_FAILURE:
        parts.append("to failure")
    elif a_set.rpe is not None:
        parts.append(_exertion(a_set.rpe, a_set.rpe_to))
    if said := range_text(a_set):
        parts.append(said)
    if a_set.clusters:
        parts.append(f"in clusters of {' + '.join(map(str, a_set.clusters))}")
    if a_set.for_time:
        parts.append("for time")
    if a_set.tempo:
        parts.append(tempo_words(a_set.tempo))
    return ", ".join(parts)


def _exertion(rpe: float, upper: float | None) -> str:
    return f"RPE {number(rpe)}{'' if upper is None else f'–{number(upper)}'}"


def describe(a_set: Set) -> str:
    """A set as a coach reads it: dose, load, tempo, exertion."""
    parts = [dose_text(a_set)]
    share, lacking = _share_text(a_set)
    if load := load_text(a_set):
        parts.append(f"at {load}{f' ({share})' if share else ''}")
    elif share:
        parts.append(f"at {share}, {lacking}")
    if a_set.tempo:
        parts.append(f"tempo {a_set.tempo}")
    if a_set.rpe is not None:
        parts.append(_exertion(a_set.rpe, a_set.rpe_to))
    if a_set.warm_up:
        parts.append("warm-up")
    return ", ".join(parts)


def _share_text(a_set: Set) -> tuple[str, str]:
    """The load as it was asked for in per cent, and what is lacking where it comes to none."""
    if a_set.percent is not None:
        return f"{number(a_set.percent)} %", "no maximum known"
    if a_set.body_percent is not None:
        return f"{number(a_set.body_percent)} % body weight", "body weight not known"
    return "", ""


def explain(a_set: Set, measured: MeasuredSet, figure: str, unit: Unit) -> str:
    """How a set comes to its credit to a figure, as a calculation with units."""
    subject, measure = subject_of(figure), measure_of(figure)
    shape = measured.shape
    shares = [
        _share(subject, move, sides, shape.indirect_credit)
        for move, sides in zip(shape.moves, shape.pair_sides, strict=True)
    ]
    if measure == "sets":
        share = max((share for share in shares if share is not None), default=1.0)
        return ("½ set, one side" if shape.sets == 0.5 else "1 set") + _times(share)
    steps = [
        _step(a_set, measured, at, measure, unit) + _times(share)
        for at, share in enumerate(shares)
        if share is not None
    ]
    return " + ".join(step for step in steps if step)


def _share(subject: str, move: ShapeMove, sides: tuple[str, ...], indirect: float) -> float | None:
    """What share of a move a subject is credited with; ``None`` if it is not concerned."""
    kind, name = kind_and_name(subject)
    movement = move.movement
    match kind:
        case "patterns":
            return 1.0 if movement.pattern == name else None
        case "movements":
            return 1.0 if movement.name == name else None
        case "muscles":
            members: Iterable[str] = (name,)
        case "balance":
            pair, side = side_of(name)
            if pair.of == "pattern":
                return 1.0 if subject in sides else None
            members = pair.a if side == "a" else pair.b
        case _:
            return 1.0
    roles = {role for muscle, role in movement.muscles.items() if muscle in members}
    return (1.0 if "direct" in roles else indirect) if roles else None


def _times(share: float) -> str:
    return "" if share == 1 else f" × {number(share)} indirect"


def _step(a_set: Set, measured: MeasuredSet, at: int, measure: str, unit: Unit) -> str:
    shape = measured.shape
    measured_whole = measure == "tut_s" and shape.measured_tension
    if a_set.loads is not None and not (measured_whole and a_set.measured_tension_s is not None):
        steps = (_step(one, measure_set(one, shape), at, measure, unit) for one in a_set.pieces)
        return ", then ".join(steps)
    move, part = shape.moves[at], measured.parts[at]
    match measure:
        case "reps":
            if measured.estimated:
                return f"{number(part.reps)} reps from {number(a_set.seconds or 0)} s"
            return f"{number(part.reps)} reps"
        case "volume_load_kg":
            load = max(loads_of(a_set)[at] + move.bodyweight_kg, 0.0)
            if not load:
                return "no load"
            body = " with the body's share" if move.bodyweight_kg else ""
            lifts = number(part.volume_load_kg / load, 1)
            return f"{lifts} reps × {weight_text(load, unit, 1)}{body}"
        case "tut_s":
            if a_set.measured_tension_s is not None and shape.measured_tension:
                return f"{number(part.tut_s, 1)} s measured"
            held = a_set.hold_s * move.hold
            hold = f" + hold {number(held)} s" if held else ""
            if a_set.seconds is not None or not move.reps:
                return f"{number(part.tut_s - held, 1)} s under load{hold}"
            per_rep = f"{number(part.reps)} reps × {number(move.tut / move.reps, 1)} s"
            return per_rep + hold
        case "work_s":
            return f"{number(measured.work_s / len(shape.moves), 1)} s on the clock"
    return ""


def listed(words: Sequence[str]) -> str:
    """Words in a row, as in "a, b and c"."""
    *first, last = words or [""]
    return f"{', '.join(first)} and {last}" if first else last


def shortened(words: Sequence[str], most: int) -> str:
    """So many words in a row, and how many there are besides, as in "a, b and 3 more"."""
    more = len(words) - most
    return listed([*words[:most], f"{more} more"] if more > 0 else words)
