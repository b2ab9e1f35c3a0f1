"""Two versions of one session: where they are apart."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Final

from dialback.core.movements import MovementTable
from dialback.core.reconcile import match_sets
from dialback.core.sessions import Session
from dialback.core.words import describe, movement_text, number


@dataclass(frozen=True, slots=True)
class Apart:
    """One thing that two versions say otherwise; an empty text where one says nothing of it."""

    what: str
    stored: str
    other: str


def _number(value: float | None) -> str:
    return "" if value is None else number(value)


def _pain(session: Session) -> str:
    return "; ".join(", ".join(filter(None, (pain.exercise, pain.note))) for pain in session.pain)


_ABOUT: Final[tuple[tuple[str, Callable[[Session], str]], ...]] = (
    ("Day", lambda session: f"{session.date:%A} {session.date}"),
    ("Title", lambda session: session.title),
    ("Exertion", lambda session: _number(session.rpe)),
    ("Minutes", lambda session: _number(session.duration_min)),
    ("Notes", lambda session: session.notes),
    ("What hurt", _pain),
)


def apart(stored: Session, other: Session, movements: MovementTable) -> tuple[Apart, ...]:
    """Every set and every remark in which two versions of a session differ, in their order."""
    return (*_sets_apart(stored, other, movements), *_remarks_apart(stored, other))


def _sets_apart(stored: Session, other: Session, movements: MovementTable) -> Iterator[Apart]:
    seen: Counter[str] = Counter()
    for match in match_sets(stored.sets, other.sets, movements):
        one = match.plan or match.done
        assert one is not None  # noqa: S101 - a match has one of them
        name = movement_text(one)
        seen[name] += 1
        here, there = (describe(side) if side else "" for side in (match.plan, match.done))
        if match.plan and match.done and movement_text(match.done) != name:
            there = f"{movement_text(match.done)}, {there}"
        if here != there:
            yield Apart(f"{name}, set {seen[name]}", here, there)


def _remarks_apart(stored: Session, other: Session) -> Iterator[Apart]:
    for what, said in _ABOUT:
        here, there = said(stored), said(other)
        if here != there:
            yield Apart(what, here, there)
