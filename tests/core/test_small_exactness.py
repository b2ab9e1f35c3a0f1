"""Small points of the contract: marked weeks, calm blocks, order by muscle, warm-ups told."""

from __future__ import annotations

from typing import Any

import pytest

from dialback.book.audit_document import audit_document
from dialback.book.book import read_book, write_book
from dialback.core.audit import audit
from dialback.core.vocabulary import LIGHT_KINDS
from tests.build import WEEK, as_bytes, book, document, session, sets


def found(one: Any, basis: str = "completed") -> dict[tuple[str, str, str], str]:
    result = audit(one.ledger(), WEEK, basis)  # type: ignore[arg-type]
    return {finding.key: finding.level for finding in result.findings}


def weeks(*counts: int) -> list[dict]:
    """Completed weeks before the audited one, the last one the week itself."""
    return [
        session(7 * (at + 1 - len(counts)), sets("Press", count), sets("Row", count))
        for at, count in enumerate(counts)
    ]


@pytest.mark.parametrize("kind", ["lighter", "taper", "test", "travel"])
def test_a_week_that_is_marked_as_light_is_lighter_whatever_its_sets(kind: str) -> None:
    kinds = [{"week": str(WEEK), "kind": kind}]
    marked = book(weeks(4, 4, 4, 4, 4), kinds=kinds)
    floors = {key for key in found(marked) if key[0] == "muscle_floor"}
    assert bool(floors) == (kind not in LIGHT_KINDS)
    # One before it is left out of the baseline.
    before = book(weeks(8, 8, 8, 6, 8), kinds=[{"week": str(WEEK.plus(-1)), "kind": kind}])
    weeks_used = audit(before.ledger(), WEEK).baseline.weeks
    assert (WEEK.plus(-1) in weeks_used) == (kind not in LIGHT_KINDS)


def test_a_week_below_seven_tenths_is_lighter() -> None:
    for count, lighter in ((7, False), (6, True)):
        one = book(weeks(10, 10, 10, 10, count))
        floors = {key for key in found(one) if key[0] == "muscle_floor"}
        assert bool(floors) != lighter, count


@pytest.mark.parametrize(
    ("begins", "row", "level"),
    [
        (None, 5, "high"),
        # Two weeks of a new block are calm; whether the week as a whole jumps decides how calm.
        (0, 5, "caution"), (-1, 5, "caution"), (-2, 5, "high"), (0, 0, "note"),
    ],
)  # fmt: skip
def test_a_new_block_is_calm(begins: int | None, row: int, level: str) -> None:
    blocks = [] if begins is None else [{"week": str(WEEK.plus(begins)), "weeks": 4}]
    usual = [session(7 * at, sets("Squat", 8), sets("Row", 8)) for at in (-4, -3, -2, -1)]
    now = session(0, sets("Squat", 14), sets("Row", 8 + row - (6 if not row else 0)))
    one = book([*usual, now], blocks=blocks, rules={"jump_from_below": False})
    assert found(one)["jump", "quads", "sets"] == level


def test_order_goes_by_muscle() -> None:
    """One muscle tired by a compound before it does not excuse another."""
    both = {
        "name": "Both",
        "pattern": "elbow_flexion",
        "compound": False,
        "muscles": {"chest": "direct", "biceps": "direct"},
    }
    day = session(0, sets("Press", 3), sets("Both", 2), sets("Row", 3))
    body = document([day])
    body["exercises"].append(both)
    raised = read_book(as_bytes(body))
    assert found(raised)["order", "2026-10-05", "sets"] == "caution"


def test_overfull_counts_movements_that_are_in_the_sums() -> None:
    day = session(
        0,
        sets("Curl", 1, warm_up=True),
        sets("Skip", 1, reps=None, seconds=60),
        sets("Stretch", 1),
        sets("Press", 3),
        sets("Row", 3),
    )
    for limit, over in ((2, False), (1, True)):
        one = book([day], rules={"session_movements": limit})
        assert (("overfull", "2026-10-05", "movements") in found(one)) == over


def test_warm_ups_are_told_in_seconds_of_work() -> None:
    day = session(
        0,
        sets("Press", 2, 5, warm_up=True),
        sets("Stretch", 1, reps=None, seconds=30, warm_up=True),
        sets("Press", 3),
    )
    for counted in (False, True):
        one = book([day], rules={"count_warm_ups": counted})
        totals = audit_document(audit(one.ledger(), WEEK), "")["totals"]
        assert totals["warm_up_s"] == 2 * 5 * 4 + 30


def test_what_a_week_is_for_goes_out_as_it_came_in(store: object) -> None:
    from datetime import date

    from dialback.store.athletes import Ledgers, export_book, import_book

    kinds = [{"week": str(WEEK), "kind": "taper"}]
    athlete = import_book(book(weeks(8, 8, 8), kinds=kinds), date(2026, 10, 12)).athlete
    ledger = Ledgers().of(athlete)
    assert ledger.kinds == {WEEK: "taper"}
    again = read_book(write_book(export_book(athlete, Ledgers())))
    assert [one.kind for one in again.kinds] == ["taper"]
