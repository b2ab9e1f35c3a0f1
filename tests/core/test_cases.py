"""The worked cases of the contract, to the last figure."""

import json
from pathlib import Path
from typing import Any

import pytest

from dialback.book.audit_document import audit_document
from dialback.book.book import read_book
from dialback.core.audit import audit
from dialback.core.weeks import Week

CASES = Path(__file__).parent.parent / "cases"
ELSEWHERE = {"off_plan", "restriction", "data_gap"}
"""Codes that the expected files leave out; they have tests of their own."""
AUDITS = sorted(CASES.glob("*W41*.json"))


def assert_holds(found: Any, wanted: Any, place: str) -> None:
    """Everything wanted is found; a finding may have more keys than the contract asks."""
    if isinstance(wanted, dict):
        if "/findings/" not in place and "/causes/" not in place:
            assert found.keys() == wanted.keys(), place
        for key, value in wanted.items():
            assert_holds(found[key], value, f"{place}/{key}")
    elif isinstance(wanted, list):
        assert len(found) == len(wanted), place
        for at, value in enumerate(wanted):
            assert_holds(found[at], value, f"{place}/{at}")
    elif isinstance(wanted, float):
        assert found == pytest.approx(wanted, abs=1e-4), place
    else:
        assert found == wanted, place


@pytest.mark.parametrize("path", AUDITS, ids=lambda path: path.name)
def test_case(path: Path) -> None:
    name, week, basis, _ = path.name.split(".")
    book = read_book((CASES / f"{name}.book.json").read_bytes())
    result = audit(book.ledger(), Week.parse(week), basis)  # type: ignore[arg-type]
    document = audit_document(result, book.athlete.name)
    # The verdict reads findings and causes; the cases are older than it.
    for line in document.pop("verdict"):
        assert {"kind", "level", "sentence", "causes", "explains", "since", "ask"} <= line.keys()
    document["findings"] = [one for one in document["findings"] if one["code"] not in ELSEWHERE]
    for cause in document["causes"]:
        cause["explains"] = [one for one in cause["explains"] if one[0] not in ELSEWHERE]
    document["causes"] = [one for one in document["causes"] if one["explains"]]
    assert_holds(document, json.loads(path.read_text()), name)


def test_there_are_cases() -> None:
    assert len(AUDITS) == 7
