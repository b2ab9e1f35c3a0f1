"""Spreadsheets as people keep them: in their own words, across, with sums, on many worksheets."""

from datetime import date, time
from io import BytesIO

import pytest
from openpyxl import Workbook, load_workbook

from dialback.book.grid import read_grid, write_csv
from dialback.book.logsheet.columns import guess
from dialback.book.logsheet.taking import Taken, rows_left, take
from dialback.book.logsheet.tidy import tidied
from dialback.core.movements import MovementTable
from dialback.core.notation import read
from dialback.core.sessions import Set
from dialback.core.words import describe
from dialback.library import library

MOVEMENTS = MovementTable(library())
TODAY = date(2026, 12, 1)
DAY = date(2026, 10, 5)


def taken(data: str | bytes, **choice: object) -> Taken:
    grid = tidied(read_grid(data.encode() if isinstance(data, str) else data))
    return take(grid, guess(grid).choice.model_copy(update=choice), MOVEMENTS, TODAY, "Ada")


def sets(data: str | bytes, **choice: object) -> list[Set]:
    found = taken(data, **choice)
    assert found.problems == [], found.problems
    return [a_set for one in found.sessions for a_set in one.session.sets]


def workbook(**sheets: list[list[object]]) -> bytes:
    book = Workbook()
    book.remove(book.active)
    for name, rows in sheets.items():
        sheet = book.create_sheet(name.replace("_", " "))
        for row in rows:
            sheet.append(row)
    out = BytesIO()
    book.save(out)
    return out.getvalue()


HEAD = ["date", "exercise", "reps", "kg"]


@pytest.mark.parametrize(
    ("movement", "reps", "load", "told"),
    [
        ("Back squat", "8,8,7", "60", ["8 reps, at 60 kg", "8 reps, at 60 kg", "7 reps, at 60 kg"]),
        ("Back squat", "3x8", "60", ["8 reps, at 60 kg"] * 3),
        ("Back squat", "3 sets of 8", "60", ["8 reps, at 60 kg"] * 3),
        ("Back squat", "10/8/6", "60", ["10 reps, at 60 kg", "8 reps, at 60 kg",
                                        "6 reps, at 60 kg"]),
        ("Pull-up", "5", "BW+10", ["5 reps, at 10 kg"]),
        ("Pull-up", "5", "BW - 15 kg", ["5 reps, at 15 kg help"]),
        ("Pull-up", "5", "bodyweight", ["5 reps"]),
        ("Split squat", "8/side", "10", ["8 reps each side, at 10 kg"]),
        ("Split squat", "8 left", "10", ["8 reps left, at 10 kg"]),
        ("Split squat", "8", "10", ["8 reps each side, at 10 kg"]),
        ("Front plank", "45s", "", ["45 s"]),
        ("Press-up", "12 to failure", "", ["12 reps, RPE 10"]),
    ],
)  # fmt: skip
def test_cells_in_words(movement: str, reps: str, load: str, told: list[str]) -> None:
    rows = f'date,exercise,reps,kg\n2026-10-05,{movement},"{reps}",{load}\n'
    assert [describe(one) for one in sets(rows)] == told


@pytest.mark.parametrize(
    ("reps", "load", "column"),
    [
        ("8 or so", "60", "reps"),
        ("8", "80%", "load"),
        ("4 min", "60", "reps"),
        ("max", "60", "reps"),
    ],
)
def test_what_is_no_set_is_told(reps: str, load: str, column: str) -> None:
    found = taken(f"date,exercise,reps,kg\n2026-10-05,Back squat,{reps},{load}\n")
    assert [one.column for one in found.problems] == [column]


def test_a_running_number_is_no_count_of_sets() -> None:
    rows = "".join(f"2026-10-05,Back squat,{number},8,60\n" for number in (1, 2, 3))
    assert len(sets(f"date,exercise,sets,reps,kg\n{rows}")) == 3
    alike = "2026-10-05,Back squat,3,8,60\n2026-10-05,Bench press,3,8,60\n"
    assert len(sets(f"date,exercise,sets,reps,kg\n{alike}")) == 6


def test_sets_that_stand_across_are_rows() -> None:
    found = taken("date,exercise,kg,set 1,set 2,set 3\n2026-10-05,Back squat,60,8,8,\n")
    assert [one.reps for one in found.sessions[0].session.sets] == [8, 8]
    assert any("side by side" in note for note in found.notes)
    text = (
        "date,exercise,set 1 reps,set 1 kg,set 2 reps,set 2 kg\n2026-10-05,Back squat,8,60,6,65\n"
    )
    assert [(one.reps, one.load_kg) for one in sets(text)] == [(8, 60), (6, 65)]


@pytest.mark.parametrize(
    "head",
    [
        "date,exercise,load,,\n,,kg,reps,rest\n",
        "Training log,2026,,,\ndate,exercise,kg,reps,rest\n",
    ],
)
def test_two_rows_of_heads_are_one(head: str) -> None:
    (one,) = sets(f"{head}2026-10-05,Back squat,60,8,90\n")
    assert (one.reps, one.load_kg, one.rest_s) == (8, 60, 90)


def test_rows_of_sums_are_left_out_with_a_word() -> None:
    found = taken(
        "date,exercise,reps,kg\n2026-10-05,Back squat,8,60\nTotal,,8,480\n"
        "2026-10-06,Back squat,8,60\n,Weekly total,16,960\n"
    )
    assert (len(found.sessions), found.problems) == (2, [])
    assert any("rows of sums left out: row 3, 5" in note for note in found.notes)


def test_minutes_by_their_head_and_times_that_a_spreadsheet_took_for_hours() -> None:
    text = 'date,exercise,time (min)\n2026-10-05,"Running, easy",20\n'
    assert [one.seconds for one in sets(text)] == [1200]
    data = workbook(Log=[["date", "exercise", "time"], [DAY, "Front plank", time(0, 45)],
                         [DAY, "Front plank", time(1, 30)]])  # fmt: skip
    assert [one.seconds for one in sets(data)] == [45, 90]


def test_dumbbells_without_a_number_are_asked_about_once() -> None:
    rows = "2026-10-05,Dumbbell curl,8,10\n" * 3
    found = taken(f"date,exercise,reps,kg\n{rows}")
    assert found.asks_dumbbells
    assert [one.message for one in found.problems] == [
        "say whether a load is that of one dumbbell, or of the pair"
    ]
    assert {one.implements for one in sets(f"{','.join(HEAD)}\n{rows}", dumbbells="one")} == {2}
    both = sets(f"{','.join(HEAD)}\n{rows}", dumbbells="pair")
    assert {(one.implements, one.load_kg) for one in both} == {(1, 10)}
    # Where a column says it, nothing is asked.
    assert not taken("date,exercise,reps,kg,implements\n2026-10-05,Dumbbell curl,8,10,\n").problems


def test_all_worksheets_are_read_one_for_each_athlete() -> None:
    data = workbook(
        Ada_Moor=[HEAD, [DAY, "Back squat", 8, 60]],
        Bo_Rune=[HEAD, [DAY, "Bench press", 8, 50]],
        Nothing=[],
        Notes=[["what", "who"], ["a", "b"]],
    )
    found = taken(data)
    assert [one.athlete for one in found.sessions] == ["Ada Moor", "Bo Rune"]
    assert ["'Nothing'" in note or "'Notes'" in note for note in found.notes] == [True, True]
    weeks = taken(workbook(W40=[HEAD, [DAY, "Back squat", 8, 60]], W41=[HEAD, [DAY, "Dip", 8, 0]]))
    assert {one.athlete for one in weeks.sessions} == {"Ada"}
    wrong = taken(
        workbook(W40=[HEAD, [DAY, "Dip", 8, 0]], W41=[HEAD, [DAY, "Back squat", "?", 60]])
    )
    assert wrong.problems[0].told.startswith("W41: ")


def test_a_formula_without_its_value_is_told() -> None:
    found = taken(workbook(Log=[HEAD, [DAY, "Back squat", 8, "=30*2"]]))
    assert any("1 formula has no value" in note for note in found.notes)


@pytest.mark.parametrize("encoding", ["utf-16", "mac_roman", "cp850", "cp1252", "utf-8"])
def test_letters_of_older_programs(encoding: str) -> None:
    text = "date;exercise;reps;kg;note\n05.10.2026;Back squat;8;62,5;schön müde, à fond\n"
    (one,) = sets(text.encode(encoding))
    assert (one.load_kg, one.note) == (62.5, "schön müde, à fond")


def rows(*lines: str, head: str = "date;exercise;sets;reps;kg") -> str:
    return "\n".join([head, *(f"2026-10-05;{line}" for line in lines)])


SHORT = {
    "BP": "Bench press", "OHP": "Overhead press", "DL": "Deadlift", "RDL": "Romanian deadlift",
    "SL RDL": "One-leg Romanian deadlift", "BSS": "Rear-foot-raised split squat",
    "Bulgarian split squats": "Rear-foot-raised split squat", "DB curls": "Dumbbell curl",
    "incline DB press": "Incline dumbbell press", "KB swing": "Kettlebell swing",
    "pullups": "Pull-up", "Barbell row": "Bent-over row",
}  # fmt: skip


@pytest.mark.parametrize(("said", "name"), SHORT.items())
def test_short_forms_of_names_are_known_in_a_cell_and_on_a_line(said: str, name: str) -> None:
    found = taken(rows(f"{said};1;8 each side;20"), dumbbells="one")
    assert found.unknown == []
    assert {one.exercise for each in found.sessions for one in each.session.sets} == {name}
    (session,) = read(f"{said} 3 × 8", MOVEMENTS).sessions
    assert [item.moves[0][0] for item in session.parts[0].items] == [name]


def test_a_name_that_may_be_several_is_asked_about_with_them() -> None:
    (unknown,) = taken(rows("Lunges;3;8;20", "Lunges;3;8;22")).unknown
    assert unknown.count == 2
    assert "Walking lunge" in unknown.near


@pytest.mark.parametrize(
    ("said", "name"),
    [
        ("Pec machine", "Machine fly"),
        ("Ham machine", "Leg curl"),
        ("Calf thing", "Calf raise"),
        ("Core finisher", "Front plank"),
    ],
)
def test_what_trains_the_same_is_proposed_for_a_name_of_ones_own(said: str, name: str) -> None:
    (unknown,) = taken(rows(f"{said};3;8;20")).unknown
    assert name in unknown.near


SENSELESS = [
    # The rows; how many are asked about, the answers, one of them, what comes of it.
    (["Bench press;3;8;600", "Back squat;1;5;500"], 2, "a tenth of it", "8 reps, at 60 kg"),
    (["Bench press;3;8;600", "Back squat;1;5;500"], 2, "pounds", "8 reps, at 600 lb"),
    (["Press-up;1;400;", "Press-up;1;12;"], 1, "a tenth of the reps", "40 reps"),
    (["Press-up;3;10 m;"], 1, "reps", "10 reps"),
    (["Front plank;3;60;", "Front plank;1;45;"], 2, "seconds", "60 s"),
    (["Back squat;3;8 each side;60"], 1, "both sides", "8 reps, at 60 kg"),
    (
        ["Back squat;5;5;0.8", "Back squat;5;5;60"],
        1,
        "a share of the maximum",
        "5 reps, at 80 %, no maximum known",
    ),
    (["Back squat;30;8;"], 1, "the other way round", "30 reps"),
    (
        [*["Bench press;1;8;82,5"] * 5, "Bench press;1;8;825"],
        1,
        "a tenth of it",
        "8 reps, at 82.5 kg",
    ),
    (
        [*["One-arm dumbbell row;1;8 each side;20"] * 6, "One-arm dumbbell row;1;8 each side;200"],
        1,
        "a tenth of it",
        "8 reps each side, at 20 kg",
    ),
    (
        [*["One-arm dumbbell row;1;8 each side;22"] * 6, "One-arm dumbbell row;1;8 each side;2.2"],
        1,
        "ten times it",
        "8 reps each side, at 22 kg",
    ),
]


@pytest.mark.parametrize(("lines", "doubtful", "answer", "told"), SENSELESS)
def test_what_makes_no_sense_is_asked_once(
    lines: list[str], doubtful: int, answer: str, told: str
) -> None:
    """Alike rows together, with what they can be; nothing changes until somebody says so."""
    found = taken(rows(*lines))
    assert (found.problems, found.unknown) == ([], [])
    (doubt,) = found.doubts
    assert doubt.rows == doubtful
    assert doubt.why.endswith("?")
    assert answer in doubt.answers
    assert doubt.answers[-2:] == ("as written", "leave the rows out")
    mended = taken(rows(*lines), doubts={doubt.key: answer})
    assert mended.doubts == []
    assert told in [describe(one) for each in mended.sessions for one in each.session.sets]
    as_written = taken(rows(*lines), doubts={doubt.key: "as written"})
    assert as_written.doubts == []
    assert as_written.sessions == found.sessions
    left_out = taken(rows(*lines), doubts={doubt.key: "leave the rows out"})
    assert left_out.doubts == []
    assert sum(len(one.session.sets) for one in left_out.sessions) < sum(
        len(one.session.sets) for one in found.sessions
    )


def test_problems_are_told_by_kind_and_can_be_left_out() -> None:
    lines = [f"Back squat;1;{reps};60" for reps in ("5", "five-ish", "lots", "6")]
    lines += ["Back squat;1;5;heavy", "Back squat;1;;60", "Back squat;1;;61"]
    found = taken(rows(*lines))
    told = [(one.rows, one.first.row, one.first.column) for one in found.kinds()]
    assert told == [(2, 3, "reps"), (1, 6, "load"), (2, 7, "reps")]
    first, *others = (one.kind for one in found.kinds())
    fewer = taken(rows(*lines), left_out=[first])
    assert [one.kind for one in fewer.kinds()] == others
    none = taken(rows(*lines), left_out=[first, *others])
    assert none.problems == []
    assert "5 rows are left out: row 3, 4, 6, 7, 8" in none.notes
    # They can be kept as they stand, to be mended: heads, cells and the reason of each.
    grid = tidied(read_grid(rows(*lines).encode()))
    kept = list(rows_left(grid, none))
    assert [row[: len(grid.heads)] for row in kept] == [
        row for number, row in grid.rows if number in (3, 4, 6, 7, 8)
    ]
    why = [str(row[-1]).split(":")[0] for row in kept]
    assert why == ["row 3", "row 4", "row 6", "row 7", "row 8"]
    again = write_csv((*grid.heads, "left out because"), kept)
    assert len(read_grid(again).rows) == 5
    assert [one.reps for each in none.sessions for one in each.session.sets] == [5, 6]


def test_rows_of_a_skipped_movement_are_left_with_their_reason() -> None:
    lines = ["Back squat;1;5;60", "Zumba;1;5;", "Zumba;1;6;"]
    found = taken(rows(*lines), skip=["zumba"])
    assert found.left == [(3, "skipped for its movement"), (4, "skipped for its movement")]
    assert len(found.sessions) == 1
    assert taken(rows(*lines)).left == []


def test_what_people_lift_is_not() -> None:
    lines = [f"Bench press;3;8;{load}" for load in (20, 40, 60, 80, 82.5, 85, 90, 100)]
    lines += ["Lateral raise;3;12;2.5", "Press-up;3;20;", "Pull-up;5;5;-15", "Front plank;3;45 s;"]
    found = taken(rows(*lines), dumbbells="one")
    assert (found.problems, found.unknown, found.doubts) == ([], [], [])


def test_a_column_that_would_be_senseless_is_read_otherwise() -> None:
    """A share for a load, minutes for seconds, seconds for minutes: with what speaks for it."""
    of_shares = workbook(log=[HEAD, [DAY, "Back squat", 5, 0.8], [DAY, "Back squat", 5, 0.85]])
    guessed = guess(tidied(read_grid(of_shares)))
    assert "load" not in guessed.choice.columns
    assert guessed.why["load"].startswith("0.8 looks like a share")
    for head, values, unit in (
        ("time", ["2", "1.5", "3"], "min"),
        ("time", ["45", "30", "2"], "s"),
        ("seconds", ["2", "1.5", "3"], "s"),
        ("time (min)", ["90", "120"], "s"),
        ("time (min)", ["2", "90"], "min"),
    ):
        text = f"date;exercise;{head}\n" + "\n".join(
            f"2026-10-05;Front plank;{value}" for value in values
        )
        assert guess(tidied(read_grid(text.encode()))).choice.times == unit, (head, values)


def test_hidden_columns_stand_behind_those_that_are_shown() -> None:
    """What nobody sees means something only where nothing that is seen does."""
    data = workbook(log=[["date", "exercise", "load", "kg", "reps"], [DAY, "Back squat", 1, 60, 5]])
    book = load_workbook(BytesIO(data))
    book["log"].column_dimensions["C"].hidden = True
    out = BytesIO()
    book.save(out)
    grid = tidied(read_grid(out.getvalue()))
    assert grid.heads == ("date", "exercise", "kg", "reps", "load")
    assert "a hidden column was moved to the end: 'load'" in grid.notes
    (a_set,) = sets(out.getvalue())
    assert a_set.load_kg == 60


def test_columns_are_told_by_their_cells_where_no_head_names_them() -> None:
    rows = ["05.10.26;Bench press;3x8;40,5", "05.10.26;Front plank;3x45s;"]
    found = guess(read_grid("\n".join(["Day;Lift it is;Work done;kg", *rows]).encode()))
    assert found.choice.columns == {"date": 0, "movement": 1, "reps": 2, "load": 3}
    assert found.why["reps"] == "the cells of “Work done” are sets × reps"
    # Two columns of words: neither is taken for the other.
    both = guess(read_grid(b"Day;One;Other;Reps\n05.10.26;Bench press;Ada Lind;3x8"))
    assert "movement" not in both.choice.columns


def test_seconds_among_the_reps_of_a_counted_movement_are_a_timed_set() -> None:
    (one, *rest) = sets("Day;Lift;Reps;kg\n05.10.26;Bench press;3x45s;40")
    assert (one.seconds, one.reps, one.load_kg, len(rest)) == (45, None, 40, 2)
    (problem,) = taken("Day;Lift;Reps;kg\n05.10.26;Bench press;3x8 min;40").problems
    assert "is a time" in problem.message


def test_a_light_load_with_its_unit_is_no_share() -> None:
    rows = "Day;Lift;Reps;Load;Unit\n05.10.26;Bench press;8;1.1;{}"
    (light,) = sets(rows.format("kg"))
    assert light.load_kg == 1.1
    assert "load" not in guess(read_grid(rows.format("").encode())).choice.columns
