"""A turned session keeps what the coach wrote: remarks, marks of parts, ladders, rounds."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

import pytest

from dialback.core.movements import MovementTable
from dialback.core.notation import Setting, expand, read
from dialback.core.plans.draft import as_draft, as_sessions
from dialback.core.plans.rewriting import rewritten
from dialback.core.sessions import Session, Set
from dialback.library import library

MOVEMENTS = MovementTable(library())
SETTING = Setting(MOVEMENTS)
DAY = date(2026, 11, 30)
TEXT = """\
# the left knee first
main A, pre-exhaust:
Lateral raise 3 × 12 at 8 kg
# no pause for Bo
Bench press 4 × 6 at 60 kg, rest 120 s (elbows in)
rest 180 s

main B:
ladder 4, 7, 10:
  Press-up
  Inverted row
3 rounds, 40 s on, 20 s off, 90 s between rounds:
  Goblet squat at 20 kg / Front squat at 30 kg
  Front plank
this is no line of ours
cool-down: Back squat 60 s
"""


def session() -> Session:
    return expand(read(TEXT, MOVEMENTS).sessions[0], SETTING, DAY)


def turned(*counts: int) -> Session:
    """The session with its lines at other counts, as the dial turns them."""
    (day,) = as_draft([session()], MOVEMENTS)
    assert len(counts) == len(day.lines)
    lines = tuple(
        line.model_copy(update={"count": count})
        for line, count in zip(day.lines, counts, strict=True)
    )
    return as_sessions([day.model_copy(update={"lines": lines})])[0]


def text_of(after: Session) -> str:
    found = rewritten(TEXT, after, MOVEMENTS, SETTING)
    assert found is not None
    text, published = found
    assert [one.exercise for one in published.sets] == [one.exercise for one in after.sets]
    assert expand(read(text, MOVEMENTS).sessions[0], SETTING, DAY).sets == published.sets
    return text


@pytest.mark.parametrize(
    ("counts", "now", "before"),
    [
        ((4, 4, 3, 3, 1), "Lateral raise 4 × 12 at 8 kg", "Lateral raise 3 × 12 at 8 kg"),
        ((3, 4, 4, 3, 1), "ladder 4, 7, 10, 10:", "ladder 4, 7, 10:"),
        ((3, 4, 2, 3, 1), "ladder 4, 7:", "ladder 4, 7, 10:"),
        ((3, 4, 3, 3, 2), "cool-down:\nBack squat 2 × 60 s", "cool-down: Back squat 60 s"),
        ((3, 0, 3, 3, 1), "", "Bench press 4 × 6 at 60 kg, rest 120 s (elbows in)\n"),
    ],
)
def test_only_what_changed_is_written_anew(counts: tuple[int, ...], now: str, before: str) -> None:
    assert text_of(turned(*counts)) == TEXT.replace(before, now)


def test_changing_rounds_stay_rounds() -> None:
    head = "3 rounds, 40 s on, 20 s off, 90 s between rounds:"
    assert text_of(turned(3, 4, 3, 2, 1)) == TEXT.replace(head, head.replace("3", "2", 1))
    # One more copies the last, which had the other movement's turn: that is no round of these.
    assert "Goblet squat" in text_of(turned(3, 4, 3, 2, 1))


def test_another_load_is_another_line_and_its_note_stays() -> None:
    after = session()
    changed = tuple(
        one.model_copy(update={"load_kg": 62.5}) if one.exercise == "Bench press" else one
        for one in after.sets
    )
    text = text_of(after.model_copy(update={"sets": changed}))
    assert "Bench press 4 × 6 at 62.5 kg, rest 2 min (elbows in)" in text
    assert "# no pause for Bo" in text
    assert "main A, pre-exhaust:" in text


def test_what_is_added_stands_at_the_end() -> None:
    after = session()
    added = Set(exercise="Lateral raise", reps=12, load_kg=8)
    text = text_of(after.model_copy(update={"sets": (*after.sets, added)}))
    assert text.startswith(TEXT.rstrip("\n"))
    assert text.endswith("60 s\nmain:\nLateral raise 12 at 8 kg\n")


@pytest.mark.parametrize("spoil", [lambda text: "", lambda text: f"{text}\n{DAY} again\nPlank 9 s"])
def test_what_cannot_be_turned_is_left_to_the_sets(spoil: Callable[[str], str]) -> None:
    assert rewritten(spoil(TEXT), turned(4, 4, 3, 3, 1), MOVEMENTS, SETTING) is None
