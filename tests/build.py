"""Small books for tests: a few movements, sessions in one line each."""

from __future__ import annotations

import json
from copy import deepcopy
from datetime import date, timedelta
from typing import Any

from dialback.book.book import Book, read_book
from dialback.core.audit import Audit, audit
from dialback.core.remedies import clears
from dialback.core.weeks import Week

MONDAY = date(2026, 10, 5)
WEEK = Week(MONDAY)


def movement(name: str, pattern: str, direct: str = "", indirect: str = "", **more: Any) -> dict:
    muscles = dict.fromkeys(direct.split(), "direct") | dict.fromkeys(indirect.split(), "indirect")
    return {"name": name, "pattern": pattern, "compound": True, "muscles": muscles, **more}


MOVEMENTS = [
    movement("Press", "horizontal_push", "chest", "triceps front_delts", tempo="3-0-1-0"),
    movement("Row", "horizontal_pull", "upper_back lats", "biceps rear_delts"),
    movement("Press-up", "horizontal_push", "chest", "triceps", bodyweight_share=0.64),
    movement("Pull-up", "vertical_pull", "lats", "biceps", bodyweight_share=1.0),
    movement("Squat", "squat", "quads glutes", tempo="2-0-1-0"),
    movement("Hinge", "hinge", "hamstrings glutes", "lower_back"),
    movement("Curl", "elbow_flexion", "biceps", compound=False),
    movement("Extension", "elbow_extension", "triceps", compound=False),
    movement("Plank", "trunk_brace", "abs", compound=False, isometric=True),
    movement("Wall sit", "squat", "quads", isometric=True),
    movement("Skip", "conditioning", "", "calves", compound=False),
    movement("Stretch", "mobility", compound=False),
]


def sets(exercise: str, count: int = 1, reps: int | None = 10, **more: Any) -> list[dict]:
    one = {"exercise": exercise, **({} if reps is None else {"reps": reps}), **more}
    return [dict(one) for _ in range(count)]


def session(day: int, *several: list[dict], **more: Any) -> dict:
    """A session so many days after the Monday of the audited week."""
    on = MONDAY + timedelta(days=day)
    return {"date": on.isoformat(), "sets": [one for part in several for one in part], **more}


def document(
    completed: list[dict] | None = None, planned: list[dict] | None = None, **more: Any
) -> dict[str, Any]:
    return {
        "format": "dialback-book",
        "version": 1,
        "athlete": {"name": "Ada Test", "bodyweight_kg": 70},
        "exercises": deepcopy(MOVEMENTS),
        "completed": completed or [],
        "planned": planned or [],
        **more,
    }


def restricted(*several: dict[str, Any]) -> dict[str, Any]:
    """The athlete of a book under restrictions that begin with the audited week."""
    base = {"by": "Runa Velk, physiotherapist", "since": MONDAY.isoformat()}
    return {
        "name": "Ada Test",
        "bodyweight_kg": 70,
        "restrictions": [base | one for one in several],
    }


def as_bytes(value: Any) -> bytes:
    return json.dumps(value).encode()


def book(
    completed: list[dict] | None = None, planned: list[dict] | None = None, **more: Any
) -> Book:
    return read_book(as_bytes(document(completed, planned, **more)))


def audited(*completed: dict, rules: dict | None = None, **more: Any) -> Audit:
    return audit(book(list(completed), rules=rules or {}, **more).ledger(), WEEK)


def remedy(result: Audit, *key: str) -> str:
    """What would clear the finding whose key begins so."""
    found = next(one for one in result.findings if one.key[: len(key)] == key)
    return clears(result.in_hand, found)


def codes(result: Audit, *wanted: str) -> set[tuple[str, str, str, str]]:
    return {
        (one.code, one.subject, one.measure, one.level)
        for one in result.findings
        if not wanted or one.code in wanted
    }
