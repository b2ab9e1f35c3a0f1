"""Two versions of one session: where they are apart."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Final

from dialback.core.movements import MovementTable
from dialback.core.reconcile import match_sets
from dialback.core.sessions import Session, Set
from dialback.core.words import describe, movement_text, number, range_text, time_text


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
        here, there = _described(match.plan, match.done)
        if match.plan and match.done and movement_text(match.done) != name:
            there = f"{movement_text(match.done)}, {there}"
        if here != there:
            yield Apart(f"{name}, set {seen[name]}", here, there)


_SAID_OF: Final[Mapping[str, Callable[[Set], str]]] = {
    "rest_s": lambda a_set: "" if a_set.rest_s is None else f"rest {time_text(a_set.rest_s)}",
    "band": lambda a_set: f"band {a_set.band}" if a_set.band else "",
    "range": range_text,
    "note": lambda a_set: f"({a_set.note})" if a_set.note else "",
    "for_time": lambda a_set: "for time" if a_set.for_time else "",
    "part": lambda a_set: f"part {a_set.part}" if a_set.part else "",
}
"""What a set in short words leaves out, by key."""
_TOLD: Final = frozenset(
    {
        "exercise",
        "moves",
        "reps",
        "seconds",
        "load_kg",
        "implements",
        "sides",
        "tempo",
        "hold_s",
        "partial_reps",
        "rpe",
        "rpe_to",
        "warm_up",
        "percent",
        "body_percent",
        "distance_m",
    }
)
"""Keys that the short words say already."""


def _described(stored: Set | None, other: Set | None) -> tuple[str, str]:
    """Both sets in words, with whatever key they differ in; whole sets are compared."""
    both = [{} if one is None else one.model_dump(exclude_defaults=True) for one in (stored, other)]
    apart_in = [
        key
        for key in dict.fromkeys((*both[0], *both[1]))
        if key not in _TOLD and both[0].get(key) != both[1].get(key)
    ]

    def told(a_set: Set | None, values: Mapping[str, Any]) -> str:
        if a_set is None:
            return ""
        more = [
            _SAID_OF[key](a_set) or f"no {_KEY_WORDS.get(key, key)}"
            if key in _SAID_OF
            else f"{key.replace('_', ' ')}: {values.get(key, 'not said')}"
            for key in apart_in
        ]
        return ", ".join([describe(a_set), *more])

    return told(stored, both[0]), told(other, both[1])


_KEY_WORDS: Final = {"rest_s": "rest", "for_time": "hurry", "note": "remark"}


def _remarks_apart(stored: Session, other: Session) -> Iterator[Apart]:
    for what, said in _ABOUT:
        here, there = said(stored), said(other)
        if here != there:
            yield Apart(what, here, there)
