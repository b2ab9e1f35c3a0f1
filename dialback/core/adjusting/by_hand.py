"""Movements that the coach adds to a draft or puts in place of others, and what they begin with.

Of the same pattern first, then those that share a muscle; each begins with the athlete's own last
set of it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any, Final

from dialback.core.adjusting.start import offered, tires
from dialback.core.kit import Kit, is_loaded, lacks
from dialback.core.movements import Movement, MovementTable
from dialback.core.plans.draft import DraftSession, Line
from dialback.core.restrictions import allowed
from dialback.core.sessions import Set
from dialback.core.tally import Ledger
from dialback.core.vocabulary import label
from dialback.core.weeks import Week

SETS: Final = 3
"""So many sets a movement begins with that is added."""
REPS: Final = 8
SECONDS: Final = 30.0
"""What a set begins with that the athlete has not done lately, where nothing else is known."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A movement to add or to swap in: how it fits, and the set that it begins with.

    ``own`` is whether the athlete did it in the last four weeks; ``load_missing`` whether the load
    has to be typed in.
    """

    movement: str
    fits: str
    set: Set
    own: bool
    load_missing: bool


def candidates(
    ledger: Ledger, week: Week, day: date, instead_of: str | None = None
) -> tuple[Candidate, ...]:
    """The movements for a day, those that fit best first; none that a restriction forbids."""
    old = ledger.movements[instead_of] if instead_of is not None else None
    last = offered(ledger, week)
    ranked = []
    for movement in ledger.movements:
        if not movement.counted or (old is not None and movement.name == old.name):
            continue
        if not allowed([movement.name], ledger.movements, ledger.restrictions, ledger.rules, day):
            continue
        rank, fits = _fit(movement, old)
        own = last.get(movement.name)
        missing = ledger.kit is not None and lacks(ledger.kit, movement)
        ranked.append(
            (
                (rank, missing, own is None, movement.name),
                _candidate(
                    movement, fits + (", not in the kit" if missing else ""), own, ledger.kit
                ),
            )
        )
    return tuple(found for _, found in sorted(ranked, key=lambda one: one[0]))


def put_movement(
    ledger: Ledger,
    week: Week,
    draft: Sequence[DraftSession],
    at: int,
    number: int | None,
    movement: str,
) -> list[DraftSession]:
    """The draft with a movement added to a session, or in place of a line of it.

    A compound one is added before the isolated ones that would tire it, else at the end. In place
    of a line it keeps the number of sets and the rest, and without sets of its own the reps, too.
    Raises ``LookupError`` where there is no such session, line or movement.
    """
    if not 0 <= at < len(draft):
        raise LookupError("the draft no longer has this session")
    day = draft[at]
    if number is not None and not 0 <= number < len(day.lines):
        raise LookupError(f"{day.title or day.date} no longer has this line")
    old = None if number is None else day.lines[number]
    if old is not None and old.kind == "rounds":
        raise LookupError("a circuit is changed in Write")
    name = ledger.movements[movement].name
    found = _candidate(ledger.movements[name], "", offered(ledger, week).get(name), ledger.kit)
    new = _line(found, old)
    lines = list(day.lines)
    if number is None:
        lines.insert(_before_isolated(lines, ledger.movements[name], ledger.movements), new)
    else:
        lines[number] = new
    changed = day.model_copy(update={"lines": tuple(lines)})
    return [changed if place == at else one for place, one in enumerate(draft)]


def _line(found: Candidate, old: Line | None) -> Line:
    if old is None:
        return Line(units=((found.set,),), count=SETS)
    before = old.unit[0]
    kept: dict[str, Any] = {"rest_s": before.rest_s, "part": before.part}
    if not found.own and (before.reps is None) == (found.set.reps is None):
        kept |= {"reps": before.reps, "reps_to": before.reps_to, "seconds": before.seconds}
    return Line(units=((found.set.model_copy(update=kept),),), count=old.count)


def _before_isolated(lines: Sequence[Line], added: Movement, movements: MovementTable) -> int:
    """Where an added line stands: before the first one that would tire it, or last."""
    for place, line in enumerate(lines if added.compound else ()):
        first = line.unit[0]
        if line.kind == "rounds" or first.warm_up or first.exercise is None:
            continue
        if tires(movements[first.exercise], added):
            return place
    return len(lines)


def _fit(movement: Movement, old: Movement | None) -> tuple[int, str]:
    if old is None:
        return 0, label(movement.pattern)
    if movement.pattern == old.pattern:
        return 0, "same pattern"
    shared = [muscle for muscle in movement.direct if muscle in old.direct]
    if shared:
        return 1, f"also {label(shared[0])}"
    return 2, label(movement.pattern)


def _candidate(movement: Movement, fits: str, own: Set | None, kit: Kit | None) -> Candidate:
    if own is not None:
        return Candidate(movement.name, fits, own, own=True, load_missing=False)
    dose: dict[str, Any] = {"seconds": SECONDS} if movement.isometric else {"reps": REPS}
    begun = Set(exercise=movement.name, sides="each" if movement.one_sided else "both", **dose)
    return Candidate(movement.name, fits, begun, own=False, load_missing=is_loaded(movement, kit))
