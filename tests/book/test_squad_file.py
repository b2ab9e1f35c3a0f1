"""A squad's zip file: read whole or refused with the place, and audited as its books are."""

import io
import json
import warnings
import zipfile
from pathlib import Path
from typing import Any

import pytest
from jsonschema import Draft202012Validator

from dialback.book.errors import BadInputError
from dialback.book.squad import INDEX, MAX_BOOKS, read_squad, schema, write_squad
from tests.build import as_bytes, document, session, sets
from tests.command import run

WEEK = "2026-W41"


def a_book(name: str, *done: dict, **more: Any) -> bytes:
    body = document(
        list(done) or [session(0, sets("Press", 6), title="Upper")],
        [session(0, sets("Press", 6), title="Upper")],
        athlete={"name": name, "bodyweight_kg": 70},
        **more,
    )
    return as_bytes(body)


def packed(*entries: tuple[str, bytes]) -> bytes:
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as package, warnings.catch_warnings():
        # A name that is there twice is what is tried.
        warnings.simplefilter("ignore")
        for name, content in entries:
            package.writestr(name, content)
    return buffer.getvalue()


def index(*books: str, **more: Any) -> tuple[str, bytes]:
    body = {"format": "dialback-squad", "version": 1, "name": "Rowers", "books": list(books)}
    return INDEX, as_bytes(body | more)


def test_what_is_written_is_read_in_its_order() -> None:
    names = ["Zoë Test", "Ada Test", "Bo Test"]
    content = write_squad("Rowers — früh", [a_book(name) for name in names])
    assert content == write_squad("Rowers — früh", [a_book(name) for name in names])
    squad = read_squad(content)
    assert squad.name == "Rowers — früh"
    assert [book.athlete.name for book in squad.books] == names
    with zipfile.ZipFile(io.BytesIO(content)) as package:
        made = json.loads(package.read(INDEX))
    Draft202012Validator(schema()).validate(made)
    assert made["books"] == ["01.book.json", "02.book.json", "03.book.json"]


def test_what_the_index_does_not_name_is_ignored() -> None:
    more = [("notes.txt", b"\xff"), ("other.book.json", b"{"), ("a/../b.json", b"")]
    squad = read_squad(packed(index("in/a.json", notes="ours"), ("in/a.json", a_book("A")), *more))
    assert [book.athlete.name for book in squad.books] == ["A"]


BOOK = ("a.json", a_book("A"))
REFUSED = [
    (b"{}", "", "zip file"),
    (packed(), INDEX, "is not in the zip file"),
    (packed(BOOK), INDEX, "is not in the zip file"),
    (packed(index("a.json"), index("a.json"), BOOK), INDEX, "2 times"),
    (packed((INDEX, b"{"), BOOK), INDEX, "line 1, column 2"),
    (packed((INDEX, b"[]"), BOOK), f"{INDEX}: format", "not a squad"),
    (packed(index("a.json", format="dialback-book"), BOOK), f"{INDEX}: format", "not a squad"),
    (packed(index("a.json", version=2), BOOK), f"{INDEX}: version", "version 1"),
    (packed(index("a.json", version=True), BOOK), f"{INDEX}: version", "version 1"),
    (packed(index("a.json", name=7), BOOK), f"{INDEX}: name", "text"),
    (packed(index()), f"{INDEX}: books", "at least 1"),
    (packed(index(*map(str, range(MAX_BOOKS + 1)))), f"{INDEX}: books", "at most 2000"),
    (packed(index("a.json", "b.json"), BOOK), "b.json", "is not in the zip file"),
    (packed(index("a.json", "a.json"), BOOK), f"{INDEX}: books[1]", "books[0]"),
    (packed(index("a.json"), BOOK, BOOK), "a.json", "2 times"),
    (packed(index("/a.json"), ("/a.json", BOOK[1])), f"{INDEX}: books[0]", "outside"),
    (packed(index("C:a.json"), ("C:a.json", BOOK[1])), f"{INDEX}: books[0]", "outside"),
    (packed(index("\\a.json"), ("\\a.json", BOOK[1])), f"{INDEX}: books[0]", "outside"),
    (packed(index("x/../a.json"), ("x/../a.json", BOOK[1])), f"{INDEX}: books[0]", "outside"),
    (packed(index("x\\..\\a.json"), ("x\\..\\a.json", BOOK[1])), f"{INDEX}: books[0]", "outside"),
    (packed(index("a.json"), ("a.json", b"{")), "a.json", "not JSON"),
    (packed(index("a.json"), ("a.json", as_bytes({}))), "a.json: format", "not a book"),
    (
        packed(index("a.json"), ("a.json", a_book("A", session(0, sets("Nothing"))))),
        "a.json: completed[0].sets[0].exercise",
        "Nothing",
    ),
    (
        packed(index("a.json", "b.json"), BOOK, ("b.json", a_book(" a "))),
        "b.json: athlete.name",
        "a.json",
    ),
]  # fmt: skip


@pytest.mark.parametrize(("content", "place", "said"), REFUSED)
def test_what_cannot_be_taken_is_refused_with_its_place(
    content: bytes, place: str, said: str
) -> None:
    with pytest.raises(BadInputError) as refused:
        read_squad(content)
    first = refused.value.problems[0]
    assert first.place == place
    assert said in first.message


def test_every_cut_and_every_flipped_byte_is_refused_or_read_whole() -> None:
    whole = write_squad("Rowers", [a_book("A"), a_book("B")])
    read = read_squad(whole)
    refused = []
    for at in range(0, len(whole), 7):
        flipped = bytearray(whole)
        flipped[at] ^= 0xFF
        for damaged in (bytes(flipped), whole[:at]):
            try:
                found = read_squad(damaged)
            except BadInputError as error:
                refused.append(error.line)
            else:
                # Times and flags of an entry are nobody's record.
                assert found.books == read.books
    assert len(refused) > len(whole) / 14
    assert not [line for line in refused if "\n" in line]


def test_more_than_can_be_unpacked_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    content = write_squad("Rowers", [a_book("A"), a_book("B")])
    monkeypatch.setattr("dialback.book.squad.MAX_UNPACKED", 3000)
    with pytest.raises(BadInputError, match="unpacked"):
        read_squad(content)


def test_the_command_gives_each_one_the_audit_of_their_book(tmp_path: Path) -> None:
    names = ["Ada", "Bo", "Cal"]
    file = tmp_path / "rowers.zip"
    file.write_bytes(write_squad("Rowers", [a_book(name) for name in names]))
    done = run("audit", file, "--week", WEEK, "--schools", "--json")
    assert (done.returncode, done.stderr) == (0, "")
    found = json.loads(done.stdout)
    assert list(found) == ["squad", "week", "basis", "athletes", "causes"]
    assert (found["squad"], found["week"], found["basis"]) == ("Rowers", WEEK, "completed")
    for name, athlete in zip(names, found["athletes"], strict=True):
        alone = tmp_path / "alone.json"
        alone.write_bytes(a_book(name))
        own = run("audit", alone, "--week", WEEK, "--schools", "--json")
        assert athlete == json.loads(own.stdout)
    (cause,) = found["causes"]
    assert list(cause) == ["code", "subject", "sentence", "athletes", "explains"]
    assert (cause["code"], cause["subject"], cause["athletes"]) == ("programme", "Upper", names)
    assert ["Ada", "balance", "push_pull", "sets"] in cause["explains"]


def test_the_command_reads_a_zip_by_any_name_and_a_book_as_a_squad_of_one(tmp_path: Path) -> None:
    file = tmp_path / "rowers.data"
    file.write_bytes(write_squad("Rowers", [a_book("Ada", rules={"nothing": 1}), a_book("Bo")]))
    told = run("audit", file, "--week", WEEK, "--basis", "planned")
    assert told.stderr == "Ada: rules.nothing: no rule has this name, it has no effect\n"
    assert told.stdout.startswith("Rowers, week 2026-W41, planned: 2 athletes\n")
    assert "No causes in common." in told.stdout
    assert "Bo: " in told.stdout
    book = tmp_path / "ada.json"
    book.write_bytes(a_book("Ada"))
    alone = json.loads(run("audit", book, "--squad", "--week", WEEK, "--json").stdout)
    assert (alone["squad"], alone["causes"]) == ("Ada", [])
    assert alone["athletes"] == [json.loads(run("audit", book, "--week", WEEK, "--json").stdout)]


@pytest.mark.parametrize("name", ["gone.zip", "broken.zip"])
def test_the_command_refuses_in_one_line(tmp_path: Path, name: str) -> None:
    (tmp_path / "broken.zip").write_bytes(b"PK\x03\x04 and no more")
    done = run("audit", tmp_path / name, "--week", WEEK, "--json")
    assert (done.returncode, done.stdout) == (2, "")
    assert len(done.stderr.splitlines()) == 1
    assert name in done.stderr


def test_the_command_proposes_for_all_at_once(tmp_path: Path) -> None:
    names = ["Ada", "Bo", "Cal"]
    work = [sets("Press", 6, rpe=8), sets("Row", 4, rpe=8)]
    books = []
    for name in names:
        athlete = {"name": name, "bodyweight_kg": 70}
        body = document([], [session(0, *work, title="Upper")], athlete=athlete)
        books.append(body)
    file = tmp_path / "rowers.zip"
    file.write_bytes(write_squad("Rowers", [as_bytes(body) for body in books]))
    ask = ["adjust", file, "--week", WEEK, "--new-movements", "0"]
    done = run(*ask, "--json")
    assert (done.returncode, done.stderr) == (0, "")
    found = json.loads(done.stdout)
    assert list(found) == [
        "squad", "week", "shared", "exceptions", "athletes", "cost", "optimal", "ladder", "stop",
        "why",
    ]  # fmt: skip
    (shared,) = found["shared"]
    assert (shared["subject"], shared["athletes"]) == ("Upper", names)
    assert shared["changes"]
    assert found["exceptions"] == []
    for body, one in zip(books, found["athletes"], strict=True):
        # What is counted is what the audit of the proposed plan counts.
        alone = tmp_path / "alone.json"
        for sessions, told in ((body["planned"], one["before"]), (one["sessions"], one["after"])):
            alone.write_bytes(as_bytes(body | {"planned": sessions}))
            own = run("audit", alone, "--week", WEEK, "--basis", "planned", "--json")
            levels = [finding["level"] for finding in json.loads(own.stdout)["findings"]]
            assert told == {"high": levels.count("high"), "caution": levels.count("caution")}
        assert one["cleared"]
        for left in one["remaining"]:
            assert list(left) == ["finding", "rung", "against", "sentence"]
    read = run(*ask)
    assert read.stdout.startswith("Rowers, week 2026-W41: cost ")
    assert "Upper (3 athletes)" in read.stdout
    refused = run(*ask, "--lock", "Row")
    assert refused.returncode == 2
    assert refused.stderr == "--lock: works for a single book only, not for a squad\n"
    nothing = run("adjust", file, "--week", "2026-W01")
    assert nothing.returncode == 2
    assert "nobody has anything planned in 2026-W01" in nothing.stderr
