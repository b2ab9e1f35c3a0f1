"""Books that cannot be taken: each answer names the place and what would be right."""

import json
from typing import Any

import jsonschema
import pytest

from dialback.book.book import MAX_BYTES, read_book, schema, warnings, write_book
from dialback.book.errors import BadInputError
from tests.build import MOVEMENTS, as_bytes, book, document, session, sets


def with_set(**keys: Any) -> dict[str, Any]:
    one = {
        key: value
        for key, value in {"exercise": "Press", "reps": 10, **keys}.items()
        if value is not ...
    }
    return document([session(-7), session(0, sets("Row"), [one])])


SET = "completed[1].sets[1]"
BAD_SETS = [
    (with_set(exercise="Pres"), f"{SET}.exercise: no movement is called 'Pres'; did you mean"),
    (with_set(tempo="4-0"), f"{SET}.tempo: '4-0' is not a tempo"),
    (with_set(tempo="12345"), f"{SET}.tempo: "),
    (with_set(tempo=301), f"{SET}.tempo: should be text"),
    (with_set(reps=-1), f"{SET}.reps: should be greater than or equal to 0, not -1"),
    (with_set(reps=7.5), f"{SET}.reps: should be a whole number"),
    (with_set(reps="10"), f"{SET}.reps: should be a whole number, not '10'"),
    (with_set(reps=True), f"{SET}.reps: should be a whole number"),
    (with_set(reps=...), f"{SET}: a set needs reps, seconds, or both"),
    (with_set(exercise=...), f"{SET}: a set needs an exercise"),
    (with_set(load_kg=float("inf")), f"{SET}.load_kg: should be a finite number"),
    (with_set(seconds=float("nan")), f"{SET}.seconds: should be a finite number"),
    (with_set(note=float("inf")), f"{SET}.note: should be a finite number"),
    (with_set(load_kg="12"), f"{SET}.load_kg: should be a number"),
    (with_set(moves=[{"exercise": "Row"}]), f"{SET}.moves: a set has an exercise or moves"),
    (with_set(exercise=..., moves=[]), f"{SET}.moves: "),
    (with_set(exercise=..., moves=[{"exercise": "Row", "times": 0}]), f"{SET}.moves[0].times: "),
    (with_set(exercise=..., moves=[{"exercise": "Rowe"}]), f"{SET}.moves[0].exercise: no move"),
    (with_set(partial_reps=11), f"{SET}.partial_reps: 11 partial reps of 10 reps"),
    (with_set(reps=..., seconds=9, partial_reps=1), f"{SET}.partial_reps: "),
    (with_set(exercise=..., moves=[{"exercise": "Row"}], partial_reps=1), f"{SET}.partial_reps: "),
    (with_set(rpe=11), f"{SET}.rpe: should be less than or equal to 10, not 11"),
    (with_set(sides="one"), f"{SET}.sides: should be 'both'"),
    (with_set(implements=0), f"{SET}.implements: "),
    (with_set(part="\ud800"), f"{SET}.part: the text has half of a character"),
]
BAD_BOOKS = [
    (document([{"date": "2026-02-30", "sets": []}]), "completed[0].date: '2026-02-30' is not "
        "a day"),
    (document([{"date": "05.10.2026", "sets": []}]), "completed[0].date: '05.10.2026' is not "
        "a day:"),
    (document([{"date": "20261005", "sets": []}]), "completed[0].date: "),
    (document([{"date": "2026-10-05"}]), "completed[0].sets: is missing"),
    (document([{"date": "2026-10-05", "sets": {}}]), "completed[0].sets: should be a list"),
    (document(planned=[{"sets": []}]), "planned[0].date: is missing"),
    (document(version=2), "version: version 2 is not known here"),
    (document(version=True), "version: "),
    (document(format="other"), "format: this is not a book"),
    ([1, 2], "format: this is not a book"),
    (document(athlete={"name": "  "}), "athlete.name: a name is needed"),
    (document(athlete={"name": "A", "bodyweight_kg": 0}), "athlete.bodyweight_kg: "),
    (document([session(0, sets("Press-up"))], athlete={"name": "A"}),
     "athlete.bodyweight_kg: is missing, and 'Press-up' in completed[0].sets[0]"),
    (document(exercises=[*MOVEMENTS, {**MOVEMENTS[0], "name": "PRESS"}]),
     f"exercises[{len(MOVEMENTS)}].name: 'PRESS' is already there as exercises[0]"),
    (document(exercises=[{**MOVEMENTS[0], "muscles": {"cheast": "direct"}}]),
     "exercises[0].muscles.cheast: should be 'chest'"),
    (document(exercises=[{**MOVEMENTS[0], "muscles": {"chest": "some"}}]),
     "exercises[0].muscles.chest: should be 'direct' or 'indirect'"),
    (document(exercises=[{**MOVEMENTS[0], "pattern": "push"}]), "exercises[0].pattern: should be"),
    (document(exercises=[{**MOVEMENTS[0], "tempo": "4-0"}]), "exercises[0].tempo: '4-0' is no"),
    (document(rules={"baseline": "median"}), "rules.baseline: should be 'mean_4'"),
    (document(rules={"muscle_bands": {"cheast": [1, 2]}}), "rules.muscle_bands.cheast"),
    (document(rules={"balance_bands": {"push_pull": [2, 1]}}), "rules.balance_bands.push_pull"),
]  # fmt: skip


@pytest.mark.parametrize(("bad", "line"), BAD_SETS + BAD_BOOKS, ids=lambda one: str(one)[-60:])
def test_the_place_is_named(bad: Any, line: str) -> None:
    with pytest.raises(BadInputError) as caught:
        read_book(as_bytes(bad))
    assert caught.value.line.startswith(line)
    assert "\n" not in caught.value.line


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "is not JSON: Expecting value at line 1, column 1"),
        (b'{\n "format": dialback}', "line 2, column 12"),
        (b"\xff\xfe{}", "not a UTF-8 text: byte 0"),
        (b"[" * 100_000, "nested too deep"),
        (b"9" * 5000, "a number is too long"),
        (b" " * (MAX_BYTES + 1), "25 MB; at most 25 are taken"),
    ],
)
def test_what_is_no_json(data: bytes, words: str) -> None:
    with pytest.raises(BadInputError) as caught:
        read_book(data)
    assert words in caught.value.line


def test_several_mistakes_are_all_told() -> None:
    bad = document([session(0, sets("Nobody", 2), sets("Nothing"))])
    with pytest.raises(BadInputError) as caught:
        read_book(as_bytes(bad))
    assert len(caught.value.problems) == 3
    assert caught.value.line.endswith("(and 2 more)")


def test_unknown_keys_are_kept_and_do_no_harm() -> None:
    one = document(
        [session(0, [{"exercise": "press", "reps": 3, "colour": "red"}], mood={"x": [1]})],
        moon=1,
        rules={"phase": "full"},
        athlete={"name": "A", "bodyweight_kg": 70, "club": "none"},
        exercises=[{**MOVEMENTS[0], "kit": "bar", "colour": "blue"}],
    )
    first = read_book(as_bytes(one))
    written = json.loads(write_book(first))
    assert written["moon"] == 1
    assert written["rules"]["phase"] == "full"
    assert written["athlete"]["club"] == "none"
    assert written["exercises"][0]["kit"] == ["bar"]
    assert written["exercises"][0]["colour"] == "blue"
    assert written["completed"][0]["mood"] == {"x": [1]}
    assert written["completed"][0]["sets"][0]["colour"] == "red"
    assert warnings(first) == ["rules.phase: no rule has this name, it has no effect"]


def test_whole_numbers_may_be_written_with_a_point_and_a_mark_may_stand_first() -> None:
    text = json.dumps(document([session(0, sets("Press", reps=10.0))]))
    assert read_book(b"\xef\xbb\xbf" + text.encode()).completed[0].sets[0].reps == 10


def test_the_schema_takes_what_the_reader_takes() -> None:
    validator = jsonschema.Draft202012Validator(schema())
    validator.check_schema(schema())
    validator.validate(document([session(0, sets("Press", 3, load_kg=12.5))]))
    validator.validate(json.loads(write_book(book([session(0, sets("Row"))]))))
    beyond = (
        "no move",
        "finite",
        "half of",
        "partial",
        "is already there",
        "not a day",
        "a name",
        "is missing, and",
        "pair of limits",
        "push_pull",
    )
    for bad, line in BAD_SETS + BAD_BOOKS:
        if not any(word in line for word in beyond) and not isinstance(bad, list):
            assert not validator.is_valid(bad), line
