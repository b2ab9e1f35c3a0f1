"""Many sets looked at for their sense: what is doubtful alike is asked about once."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Final

from dialback.core.sense.checks import Objection
from dialback.core.sense.done import heard_of, objection_to, read_as
from dialback.core.sense.doubt import AS_WRITTEN
from dialback.core.sense.heard import Heard, Knowing, is_work, middle
from dialback.core.sessions import Set
from dialback.core.words import describe, listed, movement_text

LEFT_OUT: Final = "leave the rows out"
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
        heard = heard_of(a_set, len(sets), self._knowing)
        if heard is None:
            return sets
        found = self._object(row.who, heard)
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
            return [read_as(a_set, heard, other)] * other.sets
        example = f"{movement_text(a_set)} {describe(a_set)}"
        group = self._groups.setdefault(
            key, _Group(found.why, row.at, example, (*answers, AS_WRITTEN, LEFT_OUT), {})
        )
        group.movements[heard.movement.name] = None
        group.rows += 1
        group.sets += len(sets)
        return sets

    def _object(self, who: str, heard: Heard) -> Objection | None:
        alike = (heard.movement.name, heard.bout, heard.sets)
        usual = self._usual.get((who, heard.movement.name))
        if (alike, usual) not in self._seen:
            self._seen[alike, usual] = objection_to(heard, usual)
        return self._seen[alike, usual]


def _usual_loads(rows: Iterable[Row]) -> dict[tuple[str, str], float]:
    """The middle load of each person's rows of a movement, in kg, where there are enough."""
    loads: dict[tuple[str, str], list[float]] = defaultdict(list)
    for row in rows:
        for a_set, *_ in _alike(row.sets):
            if is_work(a_set):
                loads[row.who, a_set.exercise or ""].append(a_set.load_kg)
    return {whose: usual for whose, own in loads.items() if (usual := middle(own)) is not None}


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
