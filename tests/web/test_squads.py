"""A squad goes out as one open file, and comes in whole or not at all."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from dialback.book.squad import write_squad
from tests.build import as_bytes, document
from tests.command import demo_made, run

WEEK = "2026-W47"


@pytest.fixture
def club(tmp_path: Path) -> Path:
    data = tmp_path / "club.sqlite"
    demo_made(data)
    return data


def audited(file: Path, week: str = WEEK) -> dict:
    done = run("audit", file, "--week", week, "--json")
    assert done.returncode == 0, done.stderr
    found: dict = json.loads(done.stdout)
    return found


def test_a_club_goes_out_and_comes_in_with_the_same_figures(club: Path, tmp_path: Path) -> None:
    file = tmp_path / "club.zip"
    assert run("export", "--everybody", "--output", file, data=club).returncode == 0
    found = audited(file)
    assert len(found["athletes"]) == 13
    # One of them by their own book: the same to the last digit.
    one = found["athletes"][4]
    alone = tmp_path / "alone.json"
    assert run("export", one["athlete"], "--output", alone, data=club).returncode == 0
    assert audited(alone) == one
    # In another house, and out of it again.
    other = tmp_path / "other.sqlite"
    came = run("import", file, data=other)
    assert came.returncode == 0, came.stderr
    assert f"{one['athlete']}: " in came.stdout
    again = tmp_path / "again.zip"
    assert run("export", "--squad", found["squad"], "--output", again, data=other).returncode == 0
    back = audited(again)
    assert back["squad"] == found["squad"]
    by_name = {athlete["athlete"]: athlete for athlete in back["athletes"]}
    for athlete in found["athletes"]:
        assert by_name[athlete["athlete"]]["totals"] == athlete["totals"]
        assert by_name[athlete["athlete"]]["findings"] == athlete["findings"]


def test_a_squad_that_cannot_come_in_whole_does_not_come_in(club: Path, tmp_path: Path) -> None:
    file, other = tmp_path / "club.zip", tmp_path / "other.sqlite"
    assert run("export", "--everybody", "--output", file, data=club).returncode == 0
    name = audited(file)["athletes"][-1]["athlete"]
    book = tmp_path / "one.json"
    assert run("export", name, "--output", book, data=club).returncode == 0
    assert run("import", book, data=other).returncode == 0
    refused = run("import", file, data=other)
    assert refused.returncode == 2
    assert "nobody was imported" in refused.stderr
    assert run("export", "--everybody", "--output", file, data=other).returncode == 0
    assert [one["athlete"] for one in audited(file)["athletes"]] == [name]


@pytest.mark.parametrize(
    ("asked", "said"),
    [
        ([], "name an athlete, or --squad NAME, or --everybody"),
        (["Maro Veldt", "--everybody"], "name an athlete, or --squad NAME, or --everybody"),
        (["--everybody"], "--output: is missing"),
        (["--squad", "Nobody's", "--output", "x.zip"], "Nobody is in the squad"),
    ],
)
def test_what_cannot_go_out_says_why(club: Path, asked: list[str], said: str) -> None:
    done = run("export", *asked, data=club)
    assert (done.returncode, done.stdout) == (2, "")
    assert said in done.stderr


def test_a_squad_keeps_the_names_of_its_athletes(club: Path, tmp_path: Path) -> None:
    file = tmp_path / "club.zip"
    assert run("export", "--everybody", "--output", file, data=club).returncode == 0
    done = run("import", file, "--name", "Else", data=tmp_path / "other.sqlite")
    assert done.returncode == 2
    assert done.stderr.startswith("--name: works for a single book only")


def test_a_name_that_is_too_long_for_a_squad_is_refused(tmp_path: Path) -> None:
    file = tmp_path / "long.zip"
    file.write_bytes(write_squad("x" * 61, [as_bytes(document([], []))]))
    done = run("import", file, data=tmp_path / "other.sqlite")
    assert done.returncode == 2
    assert "squad.json: name: is longer than 60 characters" in done.stderr


def test_an_empty_roster_says_so(tmp_path: Path) -> None:
    data = tmp_path / "empty.sqlite"
    assert run("init", data=data).returncode == 0
    done = run("export", "--everybody", "--output", tmp_path / "x.zip", data=data)
    assert (done.returncode, done.stderr) == (2, "--everybody: Nobody is on the roster.\n")
