"""Spans: where the lines of a session stand, and the session built of other counts of them.

A line is a run of consecutive sets equal in all but exertion and rest; sets of the left and the
right in turn move by pairs; the sets of one part that have rounds are a circuit and move by rounds.
Source: Dial Back's contract, *Adjusting*.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from dialback.core.movements import MovementTable
from dialback.core.sessions import Session, Set, extra_without_text

Kind = Literal["sets", "pairs", "rounds"]

MORE_AT_LEAST: Final = 3
"""A line may grow to twice what it is, and by so many at least."""


@dataclass(frozen=True, slots=True)
class Span:
    """Where a line of a session stands; ``units`` has the places of each set, pair or round.

    ``number`` counts from 1 in the session as it is; ``fixed`` lines never change.
    """

    number: int
    kind: Kind
    units: tuple[tuple[int, ...], ...]
    movements: tuple[str, ...]
    part: str | None
    fixed: bool
    warm_up: bool = False
    is_combination: bool = False

    @property
    def count(self) -> int:
        """How many sets, pairs or rounds it has."""
        return len(self.units)

    @property
    def most(self) -> int:
        """How many it may come to have."""
        return max(2 * self.count, self.count + MORE_AT_LEAST)


def spans_of(session: Session, movements: MovementTable) -> tuple[Span, ...]:
    """The lines of a session, in order."""
    found: list[Span] = []
    sets = session.sets
    circuits = _circuits(sets)
    at = 0
    told: set[int | None] = set()
    while at < len(sets):
        if circuits[at] is not None:
            if circuits[at] not in told:
                told.add(circuits[at])
                places = [one for one in range(len(sets)) if circuits[one] == circuits[at]]
                found.append(_circuit(len(found) + 1, sets, places, movements))
            at += 1
            continue
        end = _end_of_run(sets, circuits, at)
        pairs = _end_of_pairs(sets, circuits, at) if end == at + 1 else at
        if pairs > at:
            units = tuple((place, place + 1) for place in range(at, pairs, 2))
            found.append(_line(len(found) + 1, "pairs", sets, units, movements))
            at = pairs
        else:
            singles = tuple((place,) for place in range(at, end))
            found.append(_line(len(found) + 1, "sets", sets, singles, movements))
            at = end
    return tuple(found)


def _circuits(sets: Sequence[Set]) -> list[int | None]:
    """For each set the circuit it is of, or ``None``: a part's rounds, from a new first one on."""
    current: dict[str | None, tuple[int, tuple[int, int]]] = {}
    found: list[int | None] = []
    begun = 0
    for a_set in sets:
        if a_set.round is None:
            found.append(None)
            continue
        here = (a_set.round, a_set.place or 0)
        number, last = current.get(a_set.part, (0, (0, 0)))
        if not number or (here[0] == 1 and here <= last):
            begun += 1
            number = begun
        current[a_set.part] = (number, here)
        found.append(number)
    return found


def _plain(a_set: Set) -> Set:
    return a_set.model_copy(update={"rpe": None, "rest_s": None})


def _end_of_run(sets: Sequence[Set], circuits: Sequence[int | None], at: int) -> int:
    first = _plain(sets[at])
    end = at + 1
    while end < len(sets) and circuits[end] is None and _plain(sets[end]) == first:
        end += 1
    return end


def _end_of_pairs(sets: Sequence[Set], circuits: Sequence[int | None], at: int) -> int:
    """Where sets of the left and the right in turn end; where they begin if there are none."""
    turns = {"left": "right", "right": "left"}
    if sets[at].sides not in turns:
        return at
    end = at + 1
    wanted = _plain(sets[at])
    while end < len(sets) and circuits[end] is None:
        wanted = wanted.model_copy(update={"sides": turns[wanted.sides]})
        if _plain(sets[end]) != wanted:
            break
        end += 1
    return end - (end - at) % 2


def _circuit(
    number: int, sets: Sequence[Set], places: Sequence[int], movements: MovementTable
) -> Span:
    rounds: dict[int, list[int]] = {}
    for place in places:
        rounds.setdefault(sets[place].round or 0, []).append(place)
    units = tuple(tuple(several) for _, several in sorted(rounds.items()))
    return _line(number, "rounds", sets, units, movements)


def _line(
    number: int,
    kind: Kind,
    sets: Sequence[Set],
    units: tuple[tuple[int, ...], ...],
    movements: MovementTable,
) -> Span:
    inside = [sets[place] for unit in units for place in unit]
    names = dict.fromkeys(
        movements[name].name for a_set in inside for name, _ in a_set.named_moves()
    )
    warm_up = any(a_set.warm_up for a_set in inside)
    fixed = warm_up or not any(movements[name].counted for name in names)
    combined = any(a_set.moves is not None for a_set in inside)
    return Span(number, kind, units, tuple(names), inside[0].part, fixed, warm_up, combined)


def unit_sets(session: Session, line: Span, index: int) -> tuple[Set, ...]:
    """The sets of the n-th unit of a line, from 0; beyond its own it is a copy of the last."""
    own = min(index, line.count - 1)
    sets = tuple(session.sets[place] for place in line.units[own])
    if line.kind == "rounds" and index != own:
        beyond = index - own
        return tuple(
            a_set.model_copy(update={"round": (a_set.round or 0) + beyond}) for a_set in sets
        )
    return sets


def rebuilt(
    session: Session,
    lines: Sequence[Span],
    counts: Mapping[int, int],
    added: Sequence[tuple[Set, int]],
) -> Session:
    """The session with lines (by number) at other counts, and sets added at its end."""
    out: set[int] = set()
    behind: dict[int, list[Set]] = {}
    for line in lines:
        count = counts.get(line.number, line.count)
        for unit in line.units[count:]:
            out |= set(unit)
        if count > line.count:
            more = [
                a_set
                for index in range(line.count, count)
                for a_set in unit_sets(session, line, index)
            ]
            behind[line.units[-1][-1]] = more
    sets: list[Set] = []
    for place, one in enumerate(session.sets):
        if place not in out:
            sets.append(one)
        sets += behind.get(place, [])
    sets += [one for one, count in added for _ in range(count)]
    if tuple(sets) == session.sets:
        return session
    # The text of a written session says what was planned before.
    extra = extra_without_text(session)
    fields = {name: getattr(session, name) for name in type(session).model_fields}
    return Session.model_construct(**{**fields, "sets": tuple(sets)}, **extra)
