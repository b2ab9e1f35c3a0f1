"""The form beside the text: a row for each line, and a changed row changes its own line only."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.notation import WrittenSession, expand, gather, read, write
from dialback.core.notation.pieces import Pieces
from dialback.core.notation.rows import RoundsFields, Row, row_text, rows
from dialback.core.words import load_text
from tests.notation.test_forms import DAY, MOVEMENTS, SETTING
from tests.notation.test_mistakes import SESSIONS
from tests.properties import tried

TEXT = """# for me alone
warm-up:
Arm circles 30 s

main A, pre-exhaust:
Back squat 3 x 8-10 at 57,5 kg, rest 140 s, then 2 × 12 at 40 kg (easy)
rest 2 min
2 rounds, 25 s on, 20 s off:
  Press-up 25 s / harder 50 s
  Nobody row, what now
8 min of Goblet squat + 2 Press-up
"""


def test_every_line_has_its_row() -> None:
    found = rows(TEXT, MOVEMENTS)
    assert "\n".join(one.text for one in found) == TEXT
    assert [one.kind for one in found] == [
        "other",
        "part",
        "sets",
        "other",
        "part",
        "sets",
        "rest",
        "rounds",
        "turn",
        "other",
        "sets",
        "other",
    ]
    squat = found[5]
    assert squat.entries[0] == Pieces(
        moves="Back squat", sets="3", dose="8–10", load="57.5 kg", rest="140 s"
    )
    assert squat.entries[1] == Pieces(sets="2", dose="12", load="40 kg", rest="140 s", note="easy")
    assert found[7].rounds == RoundsFields("rounds", "2", "", "25 s", "20 s", "")
    assert [one.moves for one in found[8].entries] == ["Press-up", "Press-up, feet raised 30 cm"]
    assert found[4].part is not None
    assert (found[4].part.label, found[4].part.pre_exhaust) == ("A", True)
    assert found[6].rest == "2 min"


def test_a_changed_row_leaves_the_others_as_they_were_typed() -> None:
    found = list(rows(TEXT, MOVEMENTS))
    first, second = found[5].entries
    changed = replace(found[5], entries=(replace(first, load="help 5 kg", tempo="30X1"), second))
    lines = TEXT.split("\n")
    lines[5] = row_text(changed)
    assert lines[5] == (
        "Back squat 3 × 8–10 help 5 kg, tempo 30X1, rest 140 s, then 2 × 12 at 40 kg, rest 140 s "
        "(easy)"
    )
    assert [one.line for one in read("\n".join(lines), MOVEMENTS).mistakes] == [10]


def test_a_row_cannot_smuggle_in_a_line() -> None:
    assert row_text(Row("other", "# one\nPress-up 9")) == "# one Press-up 9"
    assert "\n" not in row_text(Row("sets", "", (Pieces("Press-up", dose="9", note="a\nb"),)))


@tried(100)
@given(SESSIONS)
def test_rows_write_the_session_that_they_were_read_from(session: WrittenSession) -> None:
    text = write(session, movements=MOVEMENTS)
    again = "\n".join(row_text(one) for one in rows(text, MOVEMENTS))
    assert read(again, MOVEMENTS).sessions == (session,)


@pytest.mark.parametrize(
    "text",
    [
        "3 rounds:\n  Press-up 9, rest 20 s\n  Inverted row 9, rest 20 s\n",
        "4 rounds, 10 s off, 75 s between rounds:\n  Press-up 50 s\n  Inverted row 50 s\n",
        "2 rounds:\n  Press-up 9\n  Inverted row 9\n3 rounds:\n  Crunch 9\n  Dead bug 9\n",
        "main A:\nBack squat 5\n2 rounds, 20 s off:\n  Press-up 9 at 5 kg\n  Inverted row 9\n",
    ],
)
def test_rounds_are_gathered_from_sets_that_say_their_place(text: str) -> None:
    (session,) = read(text, MOVEMENTS).sessions
    gathered = gather(expand(session, SETTING, DAY), MOVEMENTS)
    assert [len(part.items) for part in gathered.parts] == [
        len(part.items) for part in session.parts
    ]
    assert expand(gathered, SETTING) == expand(session, SETTING, DAY)


@tried(150)
@given(SESSIONS)
def test_what_is_gathered_comes_to_the_same_sets(session: WrittenSession) -> None:
    flat = expand(session, SETTING)
    again = expand(gather(flat, MOVEMENTS), SETTING)
    assert [one.named_moves() for one in again.sets] == [one.named_moves() for one in flat.sets]
    for one, other in zip(again.sets, flat.sets, strict=True):
        assert (one.reps, one.seconds, one.load_kg, one.rest_s) == (
            other.reps,
            other.seconds,
            other.load_kg,
            other.rest_s,
        )


@tried(200)
@given(st.integers(1, 4000), st.integers(1, 12))
def test_pounds_do_not_drift(quarters: int, trips: int) -> None:
    pounds = quarters / 4
    text = f"Bench press 5 at {pounds:g} lb\n"
    for _ in range(trips):
        (session,) = read(text, MOVEMENTS).sessions
        text = write(gather(expand(session, SETTING, DAY), MOVEMENTS), movements=MOVEMENTS)
    assert f"at {pounds:g} lb" in text
    assert (
        load_text(expand(session, SETTING, DAY).sets[0])
        == f"{pounds:,.2f}".replace(",", "\u202f").rstrip("0").rstrip(".") + " lb"
    )


def test_levels_by_a_word() -> None:
    (session,) = read("Press-up easier 9\npress-up, knees down harder 8\n", MOVEMENTS).sessions
    assert [one.exercise for one in expand(session, SETTING, DAY).sets] == [
        "Press-up, hands raised 30 cm",
        "Press-up, hands raised 30 cm",
    ]
    (twice,) = read("Press-up easier easier 9", MOVEMENTS).sessions
    assert expand(twice, SETTING, DAY).sets[0].exercise == "Press-up, knees down"
    (mistake,) = read("Back squat easier 5", MOVEMENTS).mistakes
    assert (mistake.column, mistake.length) == (12, 6)
    assert "has no easier level" in mistake.message
