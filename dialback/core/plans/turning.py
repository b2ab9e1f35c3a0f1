"""What the dial can be put on: sets of the week or of a subject, a pair, the load, the rest, tempo.

A setting is a whole number: sets; of a pair the sets of its first side, at equal sets in all; of
load, rest and tempo steps away from the draft as it is.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any, Final, Literal, Protocol

from dialback.core.audit import audit_draft
from dialback.core.findings import FAMILIES
from dialback.core.kit import at_or_below, loads_for
from dialback.core.maxima import WITHOUT_KIT_KG
from dialback.core.movements import Movement, MovementTable
from dialback.core.plans.dial import (
    Hold,
    Notch,
    Stop,
    Toward,
    can_turn,
    dial_range,
    dial_total,
    nearest,
    notches,
    scale,
)
from dialback.core.plans.draft import DraftSession, as_sessions
from dialback.core.sessions import KG_PER_LB, Set
from dialback.core.tally import Ledger
from dialback.core.tempo import slower
from dialback.core.vocabulary import MUSCLES, PAIRS, PAIRS_BY_NAME, PATTERNS, Pair, label
from dialback.core.weeks import Week

Kind = Literal["week", "part", "pattern", "muscle", "movement", "pair", "load", "rest", "tempo"]
Unit = Literal["sets", "pair", "%", "s"]

_UPPER_LOWER: Final = PAIRS_BY_NAME["upper_lower"]
PARTS: Final[dict[str, frozenset[str]]] = {
    "upper body": _UPPER_LOWER.a,
    "lower body": _UPPER_LOWER.b,
    "trunk": frozenset({"trunk_flexion", "trunk_extension", "trunk_rotation", "trunk_brace"}),
}
"""The parts of the body, as the patterns that work them."""

LOAD_STEP: Final = 2.5
REST_STEP_S: Final = 15.0
TEMPO_STEP_S: Final = 1.0
"""A step of the dial: per cent of the load, seconds of rest, seconds of lowering."""
_LEAST_REST_S: Final = 15.0


@dataclass(frozen=True, slots=True)
class Subject:
    """What the dial is put on; ``name`` is empty for the week, the load, the rest, the tempo."""

    kind: Kind
    name: str = ""

    @property
    def label(self) -> str:
        """As it is read."""
        match self.kind:
            case "week":
                return "sets of the week"
            case "load":
                return "load of all working sets"
            case "rest":
                return "rest between sets"
            case "tempo":
                return "seconds of lowering"
            case "pair":
                return f"{_pair(self.name).title}, at equal sets"
        return label(self.name)


WEEK: Final = Subject("week")


class Turning(Protocol):
    """A dial put on something: where it stands, how far it goes, what a setting makes of it.

    A ``step`` is of the ``unit``; ``whole`` is what both sides of a pair come to.
    """

    start: int
    least: int
    most: int
    step: float
    unit: Unit
    whole: int | None

    def at(self, setting: int, toward: Toward = "nearest") -> tuple[DraftSession, ...]:
        """The draft at a setting."""

    def reading(self, draft: Sequence[DraftSession]) -> int | None:
        """Where the dial stands with a draft that it has made; ``None``: where it was put."""

    def notches(self, ledger: Ledger, week: Week) -> tuple[Notch, ...]:
        """Where findings clear and appear."""


def turning(
    ledger: Ledger,
    draft: Sequence[DraftSession],
    fixed: frozenset[date] = frozenset(),
    subject: Subject = WEEK,
) -> Turning:
    """The dial of a draft, put on a subject. Raises ``LookupError`` for what there is not."""
    movements = ledger.movements
    if subject.kind == "pair":
        return _OfPair(draft, movements, *_sides(_pair(subject.name), movements, fixed))
    if subject.kind in _VALUES:
        return _OfValues(draft, ledger, fixed, subject.kind)
    return _OfSets(draft, movements, Hold(fixed, _names(subject, movements)))


def subjects(
    ledger: Ledger, draft: Sequence[DraftSession], fixed: frozenset[date]
) -> list[Subject]:
    """What there is to turn in a draft, the week first."""
    there = {
        ledger.movements[name].name: ledger.movements[name]
        for day in draft
        if day.date not in fixed
        for line in day.lines
        if line.count
        for a_set in line.unit
        if not a_set.warm_up
        for name, _ in a_set.named_moves()
    }
    counted = [movement for movement in there.values() if movement.counted]
    patterns = {movement.pattern for movement in counted}
    direct = {muscle for movement in counted for muscle in movement.direct}
    found = [WEEK, *(Subject("part", part) for part, own in PARTS.items() if own & patterns)]
    found += [
        Subject("pair", pair.name)
        for pair in PAIRS
        if pair.a & (patterns | direct) and pair.b & (patterns | direct)
    ]
    found += [Subject("load"), Subject("rest"), Subject("tempo")]
    found += [Subject("pattern", name) for name in PATTERNS if name in patterns]
    found += [Subject("muscle", name) for name in MUSCLES if name in direct]
    found += [Subject("movement", movement.name) for movement in counted]
    return [one for one in found if _turns(ledger, draft, fixed, one)]


def _turns(
    ledger: Ledger, draft: Sequence[DraftSession], fixed: frozenset[date], subject: Subject
) -> bool:
    """Whether there is anything of a subject to turn; without working out how far."""
    movements = ledger.movements
    if subject.kind in _VALUES:
        dial = _OfValues(draft, ledger, fixed, subject.kind)
        return dial.least < dial.most
    if subject.kind == "pair":
        _, *sides = _sides(_pair(subject.name), movements, fixed)
        return all(can_turn(draft, movements, side) for side in sides)
    return can_turn(draft, movements, Hold(fixed, _names(subject, movements)))


def _pair(name: str) -> Pair:
    found = PAIRS_BY_NAME.get(name)
    if found is None:
        raise LookupError(f"no pair is called {name!r}")
    return found


def _names(subject: Subject, movements: MovementTable) -> frozenset[str] | None:
    """The movements that a subject is made of, by name; ``None`` for all."""
    match subject.kind:
        case "week":
            return None
        case "movement":
            return frozenset({movements[subject.name].name})
        case "muscle":
            found = [one.name for one in movements if subject.name in one.direct]
        case "part":
            found = [one.name for one in movements if one.pattern in PARTS.get(subject.name, ())]
        case _:
            found = [one.name for one in movements if one.pattern == subject.name]
    return frozenset(found)


def _sides(pair: Pair, movements: MovementTable, fixed: frozenset[date]) -> tuple[Pair, Hold, Hold]:
    """The two sides; a circuit with movements of both turns with neither."""
    sides = []
    for words in (pair.a, pair.b):
        sides.append(
            frozenset(
                one.name
                for one in movements
                if (one.pattern in words if pair.of == "pattern" else words & set(one.direct))
            )
        )
    a, b = sides
    return pair, Hold(fixed, a, b), Hold(fixed, b, a)


@dataclass
class _OfSets:
    """The dial on sets."""

    draft: Sequence[DraftSession]
    movements: MovementTable
    hold: Hold
    step: float = 1.0
    unit: Unit = "sets"
    whole: int | None = None

    def __post_init__(self) -> None:
        self.start = dial_total(self.draft, self.movements, self.hold)
        self.least, self.most = dial_range(self.draft, self.movements, self.hold)

    def at(self, setting: int, toward: Toward = "nearest") -> tuple[DraftSession, ...]:
        return scale(self.draft, setting, self.movements, toward, self.hold)

    def reading(self, draft: Sequence[DraftSession]) -> int | None:
        return dial_total(draft, self.movements, self.hold)

    def notches(self, ledger: Ledger, week: Week) -> tuple[Notch, ...]:
        return notches(ledger, week, self.draft, self.hold)


class _Stepwise:
    """Dials whose every setting is audited: there are few of them."""

    draft: Sequence[DraftSession]
    start: int
    least: int
    most: int

    def at(self, setting: int, toward: Toward = "nearest") -> tuple[DraftSession, ...]:
        raise NotImplementedError

    def notches(self, ledger: Ledger, week: Week) -> tuple[Notch, ...]:
        own = audit_draft(ledger, week, as_sessions(self.draft))

        def stops() -> Iterator[Stop]:
            for setting in range(self.least, self.most + 1):
                there = audit_draft(ledger, week, as_sessions(self.at(setting)))
                yield Stop(setting, setting, there.in_hand)

        return nearest(own, self.start, stops(), FAMILIES)


@dataclass
class _OfPair(_Stepwise):
    """The dial on a pair: what one side gains the other one loses."""

    draft: Sequence[DraftSession]
    movements: MovementTable
    pair: Pair
    a: Hold
    b: Hold
    step: float = 1.0
    unit: Unit = "pair"

    def __post_init__(self) -> None:
        self.start = dial_total(self.draft, self.movements, self.a)
        other = dial_total(self.draft, self.movements, self.b)
        self.whole: int | None = self.start + other
        least, most_of_a = dial_range(self.draft, self.movements, self.a)
        least_of_b, most_of_b = dial_range(self.draft, self.movements, self.b)
        self.least = max(least, self.start + other - most_of_b)
        self.most = min(most_of_a, self.start + other - least_of_b)

    def at(self, setting: int, toward: Toward = "nearest") -> tuple[DraftSession, ...]:
        one = scale(self.draft, setting, self.movements, toward, self.a)
        left = (self.whole or 0) - dial_total(one, self.movements, self.a)
        return scale(one, left, self.movements, "nearest", self.b)

    def reading(self, draft: Sequence[DraftSession]) -> int | None:
        return dial_total(draft, self.movements, self.a)


@dataclass
class _OfValues(_Stepwise):
    """The dial on a value of the working sets: load, rest or tempo."""

    draft: Sequence[DraftSession]
    ledger: Ledger
    fixed: frozenset[date]
    kind: Kind
    whole: int | None = None
    start: int = 0

    def __post_init__(self) -> None:
        self.step, self.unit, least, most, self._change = _VALUES[self.kind]
        changes = any(self.at(setting) != tuple(self.draft) for setting in (least, most))
        self.least, self.most = (least, most) if changes else (0, 0)

    def at(self, setting: int, toward: Toward = "nearest") -> tuple[DraftSession, ...]:
        if setting == 0:
            return tuple(self.draft)
        by = setting * self.step
        return tuple(
            day
            if day.date in self.fixed
            else day.model_copy(
                update={
                    "lines": tuple(
                        line.model_copy(
                            update={
                                "units": tuple(
                                    tuple(self._changed(a_set, by) for a_set in unit)
                                    for unit in line.units
                                )
                            }
                        )
                        for line in day.lines
                    )
                }
            )
            for day in self.draft
        )

    def _changed(self, a_set: Set, by: float) -> Set:
        movement = self._movement(a_set)
        if a_set.warm_up or movement is None or not movement.counted:
            return a_set
        changed = self._change(a_set, movement, by, self.ledger)
        return a_set.model_copy(update=changed) if changed else a_set

    def _movement(self, a_set: Set) -> Movement | None:
        """The first of its movements: what a combination is loaded and timed by."""
        return next((self.ledger.movements[name] for name, _ in a_set.named_moves()), None)

    def reading(self, draft: Sequence[DraftSession]) -> int | None:
        return None


def _loaded(a_set: Set, movement: Movement, per_cent: float, ledger: Ledger) -> dict[str, Any]:
    """The load so many per cent heavier, as the kit has it; of help so much less."""
    now = a_set.load_kg
    if not now:
        return {}
    wanted = now * (1 + per_cent / 100) if now > 0 else now * (1 - per_cent / 100)
    loads = loads_for(ledger.kit, movement)[1] if ledger.kit and now > 0 else ()
    if not loads:
        step = KG_PER_LB if a_set.in_pounds else WITHOUT_KIT_KG
        return {"load_kg": round(wanted / step) * step or now}
    made = at_or_below(wanted, loads) or loads[0]
    return {"load_kg": max(now, made) if per_cent > 0 else made}


def _rested(a_set: Set, _: Movement, seconds: float, __: Ledger) -> dict[str, Any]:
    if not a_set.rest_s:
        return {}
    return {"rest_s": max(min(_LEAST_REST_S, a_set.rest_s), a_set.rest_s + seconds)}


def _slowed(a_set: Set, movement: Movement, seconds: float, _: Ledger) -> dict[str, Any]:
    tempo = a_set.tempo or movement.tempo
    if not tempo or not a_set.reps or movement.isometric or a_set.moves:
        return {}
    return {"tempo": slower(tempo, seconds)}


Change = Callable[[Set, Movement, float, Ledger], dict[str, Any]]
_VALUES: Final[dict[str, tuple[float, Unit, int, int, Change]]] = {
    "load": (LOAD_STEP, "%", -8, 8, _loaded),
    "rest": (REST_STEP_S, "s", -4, 6, _rested),
    "tempo": (TEMPO_STEP_S, "s", -2, 3, _slowed),
}
"""Of each value: the step, its unit, how far the dial goes, and what it does to a set."""
