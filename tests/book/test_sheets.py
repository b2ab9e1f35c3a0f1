"""Spreadsheets of logs: whatever columns, clear answers, and the way out and in again."""

import io
import zipfile
from datetime import date, datetime
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from dialback.book.errors import BadInputError
from dialback.book.grid import MAX_COLUMNS, Grid, read_grid, write_csv, write_xlsx
from dialback.book.logsheet.columns import SheetChoice, guess
from dialback.book.logsheet.rows import export_heads, rows_of
from dialback.book.logsheet.taking import take
from dialback.core.movements import MovementTable
from dialback.core.sessions import KG_PER_LB, Session, Set
from tests.notation.test_forms import MOVEMENTS
from tests.properties import tried

TODAY = date(2026, 11, 25)


def grid(text: str) -> Grid:
    return read_grid(text.encode())


def taken(text: str, athlete: str | None = "Ada", **choice: Any) -> Any:
    found = grid(text)
    chosen = guess(found).choice.model_copy(update=choice)
    return take(found, chosen, MOVEMENTS, TODAY, athlete)


def workbook(*rows: tuple[Any, ...]) -> bytes:
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    for row in rows:
        sheet.append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def one(text: str, **choice: Any) -> Set:
    result = taken(text, **choice)
    assert result.problems == [], result.problems
    (found,) = result.sessions
    return found.session.sets[0]


class TestColumns:
    def test_they_are_guessed_by_their_heads(self) -> None:
        guessed = guess(
            grid(
                "Date;Name;Workout;Exercise;Sets;Reps;Weight (lb);RPE;Comment\n"
                "31.10.2026;Ada;Legs;Back squat;3;5;135,5;8,5;ok\n"
            )
        )
        found = guessed.choice
        assert found.columns == {
            "date": 0,
            "athlete": 1,
            "title": 2,
            "movement": 3,
            "count": 4,
            "reps": 5,
            "load": 6,
            "rpe": 7,
            "note": 8,
        }
        assert (found.date_order, found.decimal, found.unit) == ("dmy", ",", "lb")
        assert guessed.why == {
            "date_order": "31.10.2026 can only have the day first",
            "decimal": "as in 135,5",
            "unit": "the head says “Weight (lb)”",
        }

    @pytest.mark.parametrize(
        ("days", "order", "why"),
        [("2026-10-31", "ymd", "2026-10-31 has the year first"),
         ("1/2/26 31/10/2026", "dmy", "31/10/2026 can only have the day first"),
         ("1/2/26 10/31/2026", "mdy", "10/31/2026 can only have the month first"),
         ("1/2/26 3/2/26", "dmy", "nothing settles it: 1/2/26 could be either, so check"),
         ("31/10/2026 10/31/2026", "dmy", "31/10/2026 has the day first, but 10/31/2026 the month"),
         ("Monday", "dmy", "no date shows the order")],
    )  # fmt: skip
    def test_the_order_of_days(self, days: str, order: str, why: str) -> None:
        rows = "".join(f"{day},x\n" for day in days.split(" "))
        found = guess(grid(f"date,movement\n{rows}"))
        assert (found.choice.date_order, found.why["date_order"]) == (order, why)

    @pytest.mark.parametrize(
        ("heads", "unit", "why"),
        [("date,movement,reps", "lb", "no column of loads"),
         ("Workout date,Exercise name,Kilos", "kg", "the head says “Kilos”"),
         ("date,movement,Weight (lbs)", "lb", "the head says “Weight (lbs)”"),
         ("date,movement,Weight (kg)", "kg", "the head says “Weight (kg)”"),
         ("date,movement,load", "lb", "the file does not say: your house’s unit, so check"),
         ("date,unit,load", "lb", "where a row does not say its own")],
    )  # fmt: skip
    def test_the_unit_is_the_houses_where_the_file_does_not_say(
        self, heads: str, unit: str, why: str
    ) -> None:
        found = guess(grid(f"{heads}\n2026-10-05,x,60\n"), unit="lb")
        assert (found.choice.unit, found.why["unit"]) == (unit, why)

    def test_counts_units_sides_and_combinations(self) -> None:
        found = one(
            "date,movement,sets,reps,load,side\n2026-10-05,back SQUAT,3,5,125 lb,\n", unit="lb"
        )
        assert (found.exercise, found.load_kg) == ("Back squat", 56.699)
        result = taken("date,movement,sets,reps\n2026-10-05,Press-up,3,9\n")
        assert len(result.sessions[0].session.sets) == 3
        both = one("date,movement,reps,side\n2026-10-05,2 Kettlebell swing + Goblet squat,5,each\n")
        assert both.named_moves() == (("Kettlebell swing", 2), ("Goblet squat", 1))
        assert both.sides == "each"

    @pytest.mark.parametrize(
        ("text", "decimal", "kg"),
        [
            ("1,5", ",", 1.5),
            ("1.5", ".", 1.5),
            ("1.250", ",", 1250),
            ("1,250.5", ".", 1250.5),
            ("60 kg", ".", 60),
            ("−15", ".", -15),
        ],
    )
    def test_numbers_as_they_are_written(self, text: str, decimal: str, kg: float) -> None:
        found = one(
            f"date\tmovement\treps\tload\n2026-10-05\tPull-up\t5\t{text}\n", decimal=decimal
        )
        assert found.load_kg == kg

    @pytest.mark.parametrize(
        ("text", "kg", "unit"),
        [
            ("60 kg", 60, None),
            ("125 lb", 56.699, "lb"),
            ("125lbs", 56.699, "lb"),
            ("60", 60, None),
            ("BW", 0, None),
            ("body weight", 0, None),
        ],
    )
    def test_a_unit_behind_a_load_is_that_load_s(
        self, text: str, kg: float, unit: str | None
    ) -> None:
        found = one(f"date,movement,reps,load\n2026-10-05,Pull-up,5,{text}\n", unit="kg")
        assert found.load_kg == kg
        assert found.unit == unit

    @pytest.mark.parametrize(
        ("text", "seconds"),
        [("90", 90), ("90 s", 90), ("8 min", 480), ("1:30", 90), ("0:01:30", 90), ("00:00:40", 40)],
    )
    def test_a_time_is_in_seconds_or_says_otherwise(self, text: str, seconds: float) -> None:
        found = one(f"date,movement,seconds,rest\n2026-10-05,Front plank,{text},{text}\n")
        assert (found.seconds, found.rest_s) == (seconds, seconds)

    @pytest.mark.parametrize(
        ("head", "text", "says"),
        [("reps", "8 min", "'8 min' is a time: put it into a column of seconds"),
         ("reps", "20 kg", "kg does not belong"),
         ("load", "90 s", "s does not belong"),
         ("seconds", "01:30:20", "may be minutes or hours: write seconds, or 0:01:30"),
         ("seconds", "1:3", "is not a time"),
         ("minutes", "50 kg", "kg does not belong"),
         ("load", "heavy", "is not a number")],
    )  # fmt: skip
    def test_another_unit_is_another_number_and_refused(
        self, head: str, text: str, says: str
    ) -> None:
        rows = f"date,movement,{head},number of sets\n2026-10-05,Pull-up,{text},1\n"
        (problem,) = taken(rows).problems
        assert says in problem.message

    def test_names_that_nobody_knows_are_told_with_what_is_near(self) -> None:
        text = "date,movement,reps\n2026-10-05,squatz back,5\n2026-10-05,squatz back,5\n"
        (unknown,) = taken(text).unknown
        assert (unknown.name, unknown.count) == ("squatz back", 2)
        assert "Back squat" in unknown.near
        found = one(text, movements={"squatz back": "Back squat"})
        assert found.exercise == "Back squat"

    def test_days_as_a_workbook_keeps_them(self) -> None:
        data = workbook(
            ("Date", "Exercise", "Reps"),
            (datetime(2026, 10, 5), "Press-up", 9),
            (46300, "Press-up", 8.0),
            (None, None, None),
        )
        found = read_grid(data)
        result = take(found, guess(found).choice, MOVEMENTS, TODAY, "Ada")
        assert [str(each.session.date) for each in result.sessions] == ["2026-10-05", "2026-10-05"][
            :1
        ]
        assert [each.reps for each in result.sessions[0].session.sets] == [9, 8]

    @pytest.mark.parametrize(
        ("row", "column", "says"),
        [
            ("2026-12-24,Press-up,9,,", "date", "lies ahead"),
            ("2026-13-24,Press-up,9,,", "date", "not a day of the calendar"),
            ("someday,Press-up,9,,", "date", "is not a day"),
            (",Press-up,9,,", "date", "is missing"),
            ("2026-10-05,,9,,", "movement", "is missing"),
            ("2026-10-05,Press-up,,,", "reps", "needs reps or seconds"),
            ("2026-10-05,Press-up,many,,", "reps", "is not a number"),
            ("2026-10-05,Press-up,9,,11", "rpe", "out of range: from 0 to 10"),
            ("2026-10-05,Press-up,9.5,,", "reps", "whole"),
            ("2026-10-05,Press-up,9,1e9,", "load", "out of range"),
        ],
    )
    def test_each_row_has_its_problem(self, row: str, column: str, says: str) -> None:
        result = taken(f"date,movement,reps,load,rpe\n2026-10-05,Press-up,9,,\n{row}\n")
        (problem,) = result.problems
        assert (problem.row, problem.column) == (3, column)
        assert says in problem.message

    def test_what_must_be_said(self) -> None:
        (problem,) = taken("a,b\n1,2\n", athlete=None).problems
        assert problem.message == "say which column is the date and the movement and the athlete"


class TestBroken:
    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (b"", "is empty"),
            (b"   \n \n", "is empty"),
            (b"one\ntwo\n", "one column only"),
            (b"date,reps\n", "no rows below"),
            (b"\x00\x01\x02,\x00", "neither a text nor a workbook"),
            (b"%PDF-1.4 ...", "older or another format"),
            (b"PK\x03\x04 broken", "is damaged"),
            ((",".join(f"c{at}" for at in range(1000)) + "\n1,2\n").encode(), "1000 columns"),
        ],
    )
    def test_what_is_no_log(self, data: bytes, says: str) -> None:
        with pytest.raises(BadInputError, match=says):
            read_grid(data)

    def zipped(self, **files: bytes) -> bytes:
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
            for name, content in files.items():
                packed.writestr(name.replace("__", "/").replace("_xml", ".xml"), content)
        return out.getvalue()

    def test_bombs_macros_and_other_packages(self) -> None:
        with pytest.raises(BadInputError, match="that is not a log"):
            read_grid(self.zipped(xl__workbook_xml=b"0" * 40_000_000))
        with pytest.raises(BadInputError, match="has macros"):
            read_grid(self.zipped(**{"xl__vbaProject.bin": b"x", "xl__workbook_xml": b"<a/>"}))
        with pytest.raises(BadInputError, match="not a workbook"):
            read_grid(self.zipped(readme_xml=b"<a/>"))
        with pytest.raises(BadInputError, match="is a workbook without a sheet"):
            read_grid(self.zipped(xl__workbook_xml=b"<a/>"))

    def test_merged_heads_titles_above_and_formulas(self) -> None:
        data = workbook(
            ("My log",),
            (),
            ("Date", "Exercise", None, "Reps"),
            ("2026-10-05", "Press-up", "=1+1", 9),
        )
        found = read_grid(data)
        assert found.heads == ("Date", "Exercise", "column C", "Reps")
        assert found.rows == ((4, ("2026-10-05", "Press-up", None, 9)),)

    def test_as_wide_as_is_taken(self) -> None:
        wide = ",".join(f"c{at}" for at in range(MAX_COLUMNS))
        assert len(grid(f"{wide}\n1,2\n").heads) == MAX_COLUMNS


NAMES = [movement.name for movement in MOVEMENTS][:20]
TEXTS = st.text("abc =+-@'\",;\u00e9", max_size=8).map(str.strip)
LOADS = st.one_of(
    st.integers(0, 400).map(lambda half: {"load_kg": half / 2}),
    st.integers(1, 800).map(lambda half: {"load_kg": round(half / 2 * KG_PER_LB, 3), "unit": "lb"}),
    st.just({"load_kg": 13.607, "unit": "lb"}),
    st.just({"load_kg": -15.0}),
)


@st.composite
def some_sets(draw: st.DrawFn) -> Set:
    values: dict[str, Any] = {"reps": draw(st.integers(0, 30)), **draw(LOADS)}
    if draw(st.booleans()):
        values |= {"exercise": draw(st.sampled_from(NAMES))}
    else:
        pairs = st.tuples(st.sampled_from(NAMES), st.sampled_from([1.0, 2.0, 1.5]))
        moves = draw(st.lists(pairs, min_size=2, max_size=3))
        values |= {"moves": [{"exercise": name, "times": times} for name, times in moves]}
    optional = {
        "seconds": st.integers(1, 90).map(float),
        "rpe": st.sampled_from([6.0, 8.5]),
        "sides": st.sampled_from(["each", "left"]),
        "tempo": st.just("30X1"),
        "implements": st.just(2),
        "rest_s": st.just(90.0),
        "hold_s": st.just(5.0),
        "warm_up": st.just(True),
        "part": st.just("main A"),
        "round": st.integers(1, 4),
        "band": st.just("strong"),
        "reps_to": st.just(40),
        "clusters": st.just([3, 2]),
        "measured_reps": st.just(9),
        "measured_tension_s": st.just(31.5),
        "note": TEXTS.filter(lambda text: text != ""),
    }
    for key, value in optional.items():
        if draw(st.integers(0, 4)) == 0:
            values[key] = draw(value)
    return Set.model_validate(values)


@st.composite
def some_sessions(draw: st.DrawFn) -> list[Session]:
    days = draw(st.lists(st.dates(date(2020, 1, 1), TODAY), min_size=1, max_size=3, unique=True))
    return [
        Session.model_validate(
            {
                "date": day,
                "title": draw(TEXTS),
                "rpe": draw(st.none() | st.just(7.5)),
                "sets": draw(st.lists(some_sets(), min_size=1, max_size=5)),
                "notes": draw(TEXTS),
                "pain": draw(st.just([]) | st.just([{"exercise": NAMES[0], "note": "x"}])),
            }
        )
        for day in days
    ]


@tried(60)
@given(some_sessions(), st.sampled_from([write_csv, write_xlsx]))
def test_what_was_exported_comes_in_unchanged(sessions: list[Session], writer: Any) -> None:
    for _ in range(2):
        found = read_grid(writer(export_heads(), rows_of(("=Ada", each) for each in sessions)))
        result = take(found, guess(found).choice, MovementTable(MOVEMENTS), TODAY)
        assert result.problems == []
        assert {each.athlete for each in result.sessions} == {"=Ada"}
        assert [each.session for each in result.sessions] == sessions


@tried(100)
@given(st.binary(max_size=200) | st.text(max_size=200).map(str.encode))
def test_nothing_crashes_the_reader(data: bytes) -> None:
    try:
        found = read_grid(data)
    except BadInputError:
        return
    take(found, SheetChoice(columns={"date": 0, "movement": 1}), MOVEMENTS, TODAY, "Ada")
