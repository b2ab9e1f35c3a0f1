"""Sets that were done, looked at like what is written: each with the other readings of it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Final

from dialback.core.notation.session import Bout, Load
from dialback.core.sense.checks import TEN_TIMES, TENTH, Objection, objection
from dialback.core.sense.heard import Heard, Knowing
from dialback.core.sessions import KG_PER_LB, Set
from dialback.core.words import weight_text

FAR_ABOVE: Final = 4
FAR_BELOW: Final = 5
"""So many times the middle load of somebody's sets of a movement, or that part of it, is asked
about where a lost or a further digit explains it. Source: Dial Back's own choice."""
_LIKE_THE_OTHERS: Final = (0.75, 1.35)


def heard_of(a_set: Set, sets: int, knowing: Knowing) -> Heard | None:
    """So many equal sets as they are looked at; ``None`` for combinations.

    A share that was asked for says nothing of what was done: the load does.
    """
    if a_set.exercise is None:
        return None
    load = None
    if a_set.load_kg:
        value = abs(a_set.load_kg) / (KG_PER_LB if a_set.unit == "lb" else 1)
        load = Load(round(value, 3), a_set.unit or "kg", a_set.implements, help=a_set.load_kg < 0)
    bout = Bout(
        reps=a_set.reps,
        seconds=a_set.seconds,
        distance_m=a_set.distance_m,
        clusters=tuple(a_set.clusters or ()),
        load=load,
        sides=a_set.sides if a_set.sides in ("each", "alternating") else "both",
        tempo=a_set.tempo,
        rest_s=a_set.rest_s,
        warm_up=a_set.warm_up,
    )
    return Heard(knowing.movements[a_set.exercise], bout, sets, knowing)


def objection_to(heard: Heard, usual_kg: float | None = None) -> Objection | None:
    """What speaks against sets that were done; ``usual_kg`` is the athlete's middle load, in kg."""
    return objection(heard) or (_out_of_line(heard, usual_kg) if usual_kg else None)


def _out_of_line(heard: Heard, usual_kg: float) -> Objection | None:
    """A load with a digit too many or too few beside the others of the same movement."""
    load = heard.bout.load
    if load is None or load.help or heard.bout.warm_up:
        return None
    if load.kg > FAR_ABOVE * usual_kg:
        factor, means = 0.1, TENTH
    elif load.kg < usual_kg / FAR_BELOW:
        factor, means = 10.0, TEN_TIMES
    else:
        return None
    least, most = _LIKE_THE_OTHERS
    if not least <= load.kg * factor / usual_kg <= most:
        return None
    other = heard.but(means, load=replace(load, value=round(load.value * factor, 3)))
    said = weight_text(load.kg, heard.knowing.ledger.unit)
    why = f"{said} is far from the other loads of this movement: is that right?"
    return Objection("out_of_line", why, (other,))


def read_as(a_set: Set, heard: Heard, other: Heard) -> Set:
    """A set with what differs between two readings of it."""
    changed: dict[str, Any] = {
        name: getattr(other.bout, name)
        for name in ("reps", "seconds", "distance_m", "sides", "tempo", "rest_s", "percent")
        if getattr(other.bout, name) != getattr(heard.bout, name)
    }
    load = other.bout.load
    if load != heard.bout.load:
        changed |= {"load_kg": load.kg if load else 0.0}
        changed["unit"] = "lb" if load and load.unit == "lb" else None
    if other.movement is not heard.movement:
        changed["exercise"] = other.movement.name
    return Set.model_validate(a_set.model_dump() | changed)


@dataclass(frozen=True, slots=True)
class SetDoubt:
    """A set that makes little sense, with what else it can have been."""

    why: str
    others: tuple[Set, ...]


def doubt_of(a_set: Set, knowing: Knowing) -> SetDoubt | None:
    """What is doubtful of a set that was done, with what is known of the athlete."""
    heard = heard_of(a_set, 1, knowing)
    if heard is None:
        return None
    found = objection_to(heard, knowing.usual_kg(heard.movement))
    if found is None:
        return None
    others = dict.fromkeys(
        read_as(a_set, heard, other) for other in found.others if other.sets == 1
    )
    return SetDoubt(found.why, tuple(others))
