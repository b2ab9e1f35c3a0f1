"""Many sets looked at for their sense: what is doubtful alike is asked about once."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from statistics import median
from types import MappingProxyType
from typing import Any, Final

from dialback.core.notation.session import Bout, Load
from dialback.core.sense.checks import Objection, objection
from dialback.core.sense.heard import Heard, Knowing
from dialback.core.sessions import KG_PER_LB, Set
from dialback.core.words import describe, listed, movement_text

AS_WRITTEN: Final = "as written"
LEFT_OUT: Final = "leave the rows out"
TENTH: Final = "a tenth of it"
TEN_TIMES: Final = "ten times it"
FEWEST_ALIKE: Final = 5
"""From so many rows of a movement on, what is usual for somebody in it is known."""
FAR_ABOVE: Final = 4
FAR_BELOW: Final = 5
"""So many times the middle load of somebody's rows of a movement, or that part of it, is asked
about where a lost or a further digit explains it. Source: Dial Back's own choice."""
_MOST_NAMED: Final = 3


@dataclass(frozen=True, slots=True)
class RowDoubt:
    """Rows that make little sense in the same way: one of them, and what can be made of them all.

    ``key`` is what an answer, one of ``answers``, is given by; up to its colon it says in words
    what is doubtful. ``at`` is where the first of them stands.
    """

    key: str
    why: str
    rows: int
    sets: int
    at: str
    example: str
    movements: str
    answers: tuple[str, ...]


@dataclass(slots=True)
class Row:
    """Sets that stand in one place: where, in words, and whose."""

    at: str
    who: str
    sets: list[Set]


@dataclass(slots=True)
class _Group:
    why: str
    at: str
    example: str
    answers: tuple[str, ...]
    movements: dict[str, None]
    rows: int = 0
    sets: int = 0


class RowSense:
    """Looks at rows, and makes of the doubtful ones what was answered.

    ``answers`` are by the key of a doubt: a reading, ``AS_WRITTEN``, or ``LEFT_OUT``.
    """

    def __init__(self, knowing: Knowing, answers: Mapping[str, str] = MappingProxyType({})) -> None:
        self._knowing = knowing
        self._answers = answers
        self._usual: dict[tuple[str, str], float] = {}
        self._seen: dict[tuple[Any, ...], Objection | None] = {}
        self._groups: dict[str, _Group] = {}

    def look(self, rows: Sequence[Row]) -> None:
        """Look at all rows together; the sets of those that were answered for are changed."""
        self._usual = _usual_loads(rows)
        for row in rows:
            row.sets = [kept for alike in _alike(row.sets) for kept in self._kept(row, alike)]

    def doubts(self) -> list[RowDoubt]:
        """What is still to be answered, in the order of the rows."""
        return [
            RowDoubt(
                key,
                group.why,
                group.rows,
                group.sets,
                group.at,
                group.example,
                listed([*group.movements][:_MOST_NAMED])
                + (" and others" if len(group.movements) > _MOST_NAMED else ""),
                group.answers,
            )
            for key, group in self._groups.items()
        ]

    def _kept(self, row: Row, sets: list[Set]) -> list[Set]:
        """So many equal sets of a row as they are to be stored."""
        a_set = sets[0]
        if a_set.exercise is None:
            return sets
        heard = _heard(a_set, len(sets), self._knowing)
        found = self._object(row.who, a_set, heard)
        if found is None:
            return sets
        answers = tuple(dict.fromkeys(other.means for other in found.others))
        key = f"{found.check.replace('_', ' ')}: {', '.join(answers)}"
        answer = self._answers.get(key)
        if answer == AS_WRITTEN:
            return sets
        if answer == LEFT_OUT:
            return []
        if answer in answers:
            other = next(other for other in found.others if other.means == answer)
            return [_read_as(a_set, heard, other)] * other.sets
        example = f"{movement_text(a_set)} {describe(a_set)}"
        group = self._groups.setdefault(
            key, _Group(found.why, row.at, example, (*answers, AS_WRITTEN, LEFT_OUT), {})
        )
        group.movements[a_set.exercise] = None
        group.rows += 1
        group.sets += len(sets)
        return sets

    def _object(self, who: str, a_set: Set, heard: Heard) -> Objection | None:
        alike = (heard.movement.name, heard.bout, heard.sets)
        if alike not in self._seen:
            self._seen[alike] = objection(heard)
        return self._seen[alike] or self._out_of_line(who, a_set, heard)

    def _out_of_line(self, who: str, a_set: Set, heard: Heard) -> Objection | None:
        """A load with a digit too many or too few beside the others of the same movement."""
        usual = self._usual.get((who, heard.movement.name))
        load = heard.bout.load
        if usual is None or load is None or load.help or a_set.warm_up:
            return None
        factor, means = 1.0, ""
        if load.kg > FAR_ABOVE * usual:
            factor, means = 0.1, TENTH
        elif 0 < load.kg < usual / FAR_BELOW:
            factor, means = 10.0, TEN_TIMES
        if not means or not 0.75 <= load.kg * factor / usual <= 1.35:
            return None
        other = heard.but(means, load=replace(load, value=round(load.value * factor, 3)))
        return Objection(
            "out_of_line", "far from what else stands there of this movement: right?", (other,)
        )


def _usual_loads(rows: Iterable[Row]) -> dict[tuple[str, str], float]:
    """The middle load of each person's rows of a movement, in kg, where there are enough."""
    loads: dict[tuple[str, str], list[float]] = defaultdict(list)
    for row in rows:
        for a_set, *_ in _alike(row.sets):
            if a_set.exercise and a_set.load_kg > 0 and not a_set.warm_up:
                loads[row.who, a_set.exercise].append(a_set.load_kg)
    return {whose: median(own) for whose, own in loads.items() if len(own) >= FEWEST_ALIKE}


def _alike(sets: Iterable[Set]) -> Iterator[list[Set]]:
    """Neighbours that are equal, together."""
    run: list[Set] = []
    for a_set in sets:
        if run and a_set != run[0]:
            yield run
            run = []
        run.append(a_set)
    if run:
        yield run


def _heard(a_set: Set, sets: int, knowing: Knowing) -> Heard:
    load = None
    if a_set.load_kg:
        pounds = a_set.unit == "lb"
        value = abs(a_set.load_kg) / (KG_PER_LB if pounds else 1)
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
        percent=a_set.percent,
        warm_up=a_set.warm_up,
    )
    return Heard(knowing.movements[a_set.exercise or ""], bout, sets, knowing)


def _read_as(a_set: Set, heard: Heard, other: Heard) -> Set:
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
