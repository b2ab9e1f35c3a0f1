"""The command, as a script calls it."""

import json
import os
import re
import socket
import subprocess
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from tests.build import as_bytes, document, session, sets
from tests.command import DIALBACK, Answer, demo_made, run
from tests.conftest import a_book

CASES = Path(__file__).parent / "cases"


def test_the_audit_of_a_case_needs_no_database(tmp_path: Path) -> None:
    book = CASES / "1-counted-sets.book.json"
    done = run("audit", book, "--week", "2026-W41", "--json", HOME=str(tmp_path))
    assert (done.returncode, done.stderr) == (0, "")
    assert json.loads(done.stdout)["totals"]["volume_load_kg"] == 2666.4
    planned = run("audit", book, "--week", "2026-W41", "--basis", "planned", "--json")
    assert json.loads(planned.stdout)["basis"] == "planned"
    assert not list(tmp_path.iterdir())


def test_without_json_it_is_a_table(tmp_path: Path) -> None:
    done = subprocess.run(
        [DIALBACK, "audit", CASES / "3-weeks-and-jumps.book.json", "--week", "2026-W41"],
        capture_output=True,
        encoding="utf-8",
        env={**os.environ, "LC_ALL": "C", "PYTHONUTF8": "0"},
        check=False,
    )
    assert done.returncode == 0
    for word in ("push : pull", "HIGH", "rear delts", "2026-W39", "not medical advice"):
        assert word in done.stdout


@pytest.mark.parametrize(
    ("content", "week", "place"),
    [
        (as_bytes(document([session(0, sets("Press", tempo="4-0"))])), "2026-W41",
         "completed[0].sets[0].tempo: "),
        (b"no json", "2026-W41", "the book is not JSON"),
        (as_bytes(document()), "2026-W77", "--week: "),
        (None, "2026-W41", "cannot be read"),
    ],
)  # fmt: skip
def test_bad_input_is_one_line_and_status_2(
    tmp_path: Path, content: bytes | None, week: str, place: str
) -> None:
    path = tmp_path / "a.json"
    if content is not None:
        path.write_bytes(content)
    done = run("audit", path, "--week", week, "--json")
    assert (done.returncode, done.stdout) == (2, "")
    assert place in done.stderr
    assert done.stderr.count("\n") == 1


def test_a_warning_does_not_disturb_the_document(tmp_path: Path) -> None:
    path = tmp_path / "a.json"
    path.write_bytes(as_bytes(document(rules={"phase": 1})))
    done = run("audit", path, "--week", "2026-W41", "--json")
    assert done.returncode == 0
    assert json.loads(done.stdout)["findings"] == []
    assert "rules.phase" in done.stderr


def test_from_book_to_store_to_book(tmp_path: Path) -> None:
    data, path, out = tmp_path / "d" / "x.sqlite", tmp_path / "a.json", tmp_path / "b.json"
    path.write_bytes(as_bytes(a_book()))
    assert run("init", data=data).returncode == 0
    done = run("import", path, data=data)
    assert "4 planned and 3 completed sessions, 87 sets" in done.stdout
    taken = run("import", path, data=data)
    assert (taken.returncode, taken.stdout) == (2, "")
    assert "--replace" in taken.stderr
    assert run("import", path, "--name", "Other", data=data).returncode == 0
    assert run("import", path, "--replace", data=data).returncode == 0
    assert run("--data", data, "export", "ada TEST", "--output", out).returncode == 0
    audits = [run("audit", one, "--week", "2026-W41", "--json").stdout for one in (path, out)]
    assert audits[0] == audits[1]
    assert json.loads(run("export", "Other", data=data).stdout)["athlete"]["name"] == "Other"
    nobody = run("export", "Nobody", data=data)
    assert nobody.returncode == 2
    assert "Ada Test, Other" in nobody.stderr
    nowhere = run("export", "Other", "--output", tmp_path / "no" / "b.json", data=data)
    assert nowhere.returncode == 2


def test_the_demo_goes_into_an_empty_file_only(tmp_path: Path) -> None:
    data = tmp_path / "x.sqlite"
    assert "13 rowers" in run("demo", data=data).stdout
    again = run("demo", data=data)
    assert again.returncode == 2
    assert "--fresh" in again.stderr
    assert run("demo", "--fresh", data=data).returncode == 0


def test_a_demo_that_somebody_lives_in_is_not_deleted(tmp_path: Path) -> None:
    data = tmp_path / "x.sqlite"
    demo_made(data)
    add = ("account", "add", "Runa", "--role", "owner", "--password-stdin")
    assert run(*add, data=data, stdin="six cold boats\n").returncode == 0
    refused = run("demo", "--fresh", data=data)
    assert refused.returncode == 2
    assert "has accounts in it: nothing was deleted" in refused.stderr
    assert "Runa" in run("account", "list", data=data).stdout
    aside = run("demo", "--fresh", "--yes", data=data)
    assert "has accounts in it: it is now" in aside.stderr
    assert "Runa" not in run("account", "list", data=data).stdout
    kept = Path(aside.stderr.strip().rsplit(" ", 1)[-1])
    assert "Runa" in run("account", "list", data=kept).stdout


def test_an_address_that_cannot_be_had(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        done = run("serve", "--port", port, data=tmp_path / "x.sqlite")
    assert done.returncode == 2
    assert f"127.0.0.1:{port}: cannot be served" in done.stderr


def test_expand_gives_the_flat_sets_of_the_notation(tmp_path: Path) -> None:
    path = tmp_path / "legs.txt"
    path.write_text("2026-11-30 Legs\nBack squat 5 × 6 at 57.5 kg\n\nladder 4, 7:\n  Press-up\n")
    sessions = json.loads(run("expand", path, "--json").stdout)["sessions"]
    assert [one["date"] for one in sessions] == ["2026-11-30"]
    assert [one["reps"] for one in sessions[0]["sets"]] == [6, 6, 6, 6, 6, 4, 7]
    # A book's movements instead of the library's; and the canonical text without --json.
    book = tmp_path / "book.json"
    book.write_bytes(as_bytes(document()))
    path.write_text("squat 3 x 5\n")
    theirs = run("expand", path, "--book", book, "--date", "2026-12-01", "--json").stdout
    assert json.loads(theirs)["sessions"][0]["date"] == "2026-12-01"
    assert json.loads(theirs)["sessions"][0]["sets"][0]["exercise"] == "Squat"
    assert run("expand", path, "--book", book).stdout == "Squat 3 × 5\n"
    assert run("expand", path, "--date", "tomorrow").returncode == 2


@pytest.mark.parametrize(
    ("text", "words"),
    [("Back sqaut 3 × 5", "line 1, column 1: no movement"), ("Back squat 3 × 5 rst 9 s", "line 1")],
)
def test_what_cannot_be_expanded_is_one_line_and_status_2(
    tmp_path: Path, text: str, words: str
) -> None:
    path = tmp_path / "a.txt"
    path.write_text(text)
    done = run("expand", path, "--json")
    assert (done.returncode, done.stdout) == (2, "")
    assert words in done.stderr
    assert done.stderr.count("\n") == 1


def test_schools_beside_the_audit(tmp_path: Path) -> None:
    book = CASES / "1-counted-sets.book.json"
    done = run("audit", book, "--week", "2026-W41", "--schools", "--json")
    found = json.loads(done.stdout)["schools"]
    assert list(found) == ["balanced", "pull-biased", "direct only", "everything counts"]
    assert all(len(one) == 4 for several in found.values() for one in several)
    table = run("audit", book, "--week", "2026-W41", "--schools").stdout
    assert "everything counts" in table


def test_adjusting_is_one_document_and_bad_input_one_line(tmp_path: Path) -> None:
    book = CASES / "5-adjusting.book.json"
    done = run("adjust", book, "--week", "2026-W42", "--lock", "calf raise", "--json")
    assert (done.returncode, done.stderr) == (0, "")
    assert json.loads(done.stdout)["ladder"][0] == {"cost": 0, "high": 0, "caution": 3}
    weeks = json.loads(run("adjust", book, "--week", "2026-W42", "--weeks", "2", "--json").stdout)
    assert [one["week"] for one in weeks["weeks"]] == ["2026-W42", "2026-W43"]
    assert "What more change buys" in run("adjust", book, "--week", "2026-W42").stdout
    done_last = tmp_path / "reached.json"
    squats = [session(day, sets("Squat", 3, 8, load_kg=60)) for day in (0, 7)]
    done_last.write_bytes(as_bytes(document(squats[:1], squats)))
    asked = ("adjust", done_last, "--week", "2026-W42", "--progress")
    (step,) = json.loads(run(*asked, "--json").stdout)["progress"]
    assert (step["movement"], step["rule"], step["kind"]) == ("Squat", "reps_first", "load")
    assert (step["from"], step["to"]) == ("3 × 8 reps at 60 kg", "3 × 8 reps at 62.5 kg")
    assert step["effect"]["volume_load_kg"] == 60
    assert "reps" in {one["kind"] for one in step["alternatives"]}
    assert "Squat: 3 × 8 reps at 60 kg → 3 × 8 reps at 62.5 kg" in run(*asked).stdout
    assert run(*asked, "--lock", "Squat").stdout.endswith("No movement is due for a step.\n")
    empty = tmp_path / "empty.json"
    empty.write_bytes(as_bytes(document()))
    for arguments, place in (
        ((book, "--week", "2026-W42", "--lock", "Calf rise"), "--lock: no movement is called"),
        ((book, "--week", "2026-W42", "--weeks", "53"), "--weeks: 53 is not from 1 to 52"),
        ((book, "--week", "2026-W42", "--budget", "-1"), "--budget: -1 is not"),
        ((empty, "--week", "2026-W42"), "--week: nothing is planned in 2026-W42"),
    ):
        refused = run("adjust", *arguments)
        assert (refused.returncode, refused.stdout) == (2, "")
        assert refused.stderr.startswith(place)
        assert refused.stderr.count("\n") == 1


def test_a_report_from_the_command_line(tmp_path: Path) -> None:
    data, book = tmp_path / "data.sqlite", tmp_path / "book.json"
    book.write_bytes(as_bytes(a_book()))
    run("import", book, data=data)
    out = tmp_path / "week.pdf"
    for reader in ("coach", "athlete"):
        done = run(
            "report", "ada test", "--week", "2026-W41", "--for", reader, "--out", out, data=data
        )
        assert (done.returncode, done.stdout) == (0, ""), done.stderr
        assert out.read_bytes().startswith(b"%PDF")
    assert "has been replaced" in done.stderr


@pytest.mark.parametrize(
    ("arguments", "told"),
    [
        (("report", "Nobody", "--week", "2026-W41"), "ATHLETE: nobody is called 'Nobody'"),
        (("report", "Ada Test", "--week", "2026-W99"), "--week: '2026-W99' is not a week"),
        (("report", "Ada Test", "--week", "2025-W01"), "--week: Ada Test has no session in"),
        (("report", "Ada Test", "--week", "2026-W41", "--block"), "--week: 2026-W41 lies in no"),
    ],
)
def test_a_report_that_cannot_be_made(
    tmp_path: Path, arguments: tuple[str, ...], told: str
) -> None:
    data, book = tmp_path / "data.sqlite", tmp_path / "book.json"
    book.write_bytes(as_bytes(a_book()))
    run("import", book, data=data)
    out = tmp_path / "week.pdf"
    done = run(*arguments, "--out", out, data=data)
    assert done.returncode == 2
    assert done.stdout == ""
    assert done.stderr.startswith(told)
    assert not out.exists()


def test_a_report_writes_over_no_other_file(tmp_path: Path) -> None:
    notes = tmp_path / "notes.txt"
    notes.write_text("mine")
    data = tmp_path / "data.sqlite"
    run("init", data=data)
    done = run("report", "Ada Test", "--week", "2026-W41", "--out", notes, data=data)
    assert done.returncode == 2
    assert "is not a PDF" in done.stderr
    assert notes.read_text() == "mine"
    before = data.read_bytes()
    for command in (
        ("report", "Ada Test", "--week", "2026-W41", "--out"),
        ("export", "Ada Test", "--output"),
    ):
        assert run(*command, data, data=data).returncode == 2
    assert data.read_bytes() == before


def test_a_data_file_that_is_not_there_is_told_and_not_made(tmp_path: Path) -> None:
    for command in (
        ("backup", tmp_path / "copy.sqlite"),
        ("check",),
        ("export", "Ada"),
        ("report", "Ada", "--week", "2026-W41", "--out", tmp_path / "week.pdf"),
        ("account", "list"),
        ("account", "unlock"),
    ):
        done = run(*command, data=tmp_path / "wrong" / "name.sqlite")
        assert (done.returncode, done.stdout) == (2, ""), command
        assert "name.sqlite: is not there" in done.stderr, command
    assert list(tmp_path.iterdir()) == []


def test_backup_restore_and_check_from_the_command_line(tmp_path: Path) -> None:
    data, copy, book = (tmp_path / name for name in ("data.sqlite", "copy.sqlite", "book.json"))
    book.write_bytes(as_bytes(a_book()))
    run("import", book, data=data)
    made = run("backup", copy, data=data)
    assert (made.returncode, made.stderr) == (0, "")
    assert "is a whole copy" in made.stdout
    run("import", book, "--name", "Somebody else", data=data)
    back = run("restore", copy, data=data)
    assert back.returncode == 0
    assert "what was there is now" in back.stderr
    assert run("export", "Somebody else", data=data).returncode == 2
    assert run("export", "Ada Test", data=data).returncode == 0
    assert run("check", data=data).stdout.strip().endswith("is whole")
    refused = run("restore", book, data=data)
    assert (refused.returncode, refused.stdout) == (2, "")
    assert "is not a data file of Dial Back" in refused.stderr


def test_accounts_from_the_command_line(tmp_path: Path) -> None:
    def at(*more: object, password: str = "") -> Answer:
        return run(*more, data=tmp_path / "house.sqlite", stdin=password)

    at("init")
    assert "anyone at this machine can do everything" in at("account", "list").stdout
    refused = at("serve", "--host", "0.0.0.0", "--port", "0")
    assert refused.returncode == 2
    assert "dialback account add NAME --role owner" in refused.stderr
    assert at("serve", "--proxy", "127.0.0.1", "--port", "0").returncode == 2
    add = ("account", "add", "Ines", "--password-stdin", "--role")
    first = at(*add, "coach", password="three quiet rivers\n")
    assert (first.returncode, first.stderr) == (
        2,
        "account: The first account is the owner's: create your own before others.\n",
    )
    assert "use 12 to 200" in at(*add, "owner", password="short\n").stderr
    assert (
        at(*add, "owner", password="three quiet rivers\n").stdout == "Ines can sign in as owner\n"
    )
    assert at("account", "list").stdout == "Ines, owner, never signed in\n"
    new = at("account", "password", "ines", "--password-stdin", password="four quiet rivers\n")
    assert new.returncode == 0
    assert "anyone may try again" in at("account", "unlock").stdout
    assert "has no second factor" in at("account", "second-factor", "Ines", "--remove").stderr
    assert "no account is called 'Bo'; there are: Ines" in at("account", "remove", "Bo").stderr
    assert "only owner" in at("account", "remove", "Ines").stderr
    assert at("account", "remove").returncode == 2
    assert "the desk is open again" in at("account", "remove", "--all").stdout


def test_behind_a_proxy_the_name_and_https_are_the_proxy_s_word(tmp_path: Path) -> None:
    data = ("--data", str(tmp_path / "house.sqlite"))
    add = ("account", "add", "Ines", "--role", "owner", "--password-stdin")
    assert run(*data, *add, stdin="three quiet rivers\n").returncode == 0

    def cookie(*more: str, **headers: str) -> str:
        """What a sign-in is answered with, or the status of a refusal."""
        served = subprocess.Popen(
            [DIALBACK, *data, "serve", "--port", "0", *more],
            stdout=subprocess.PIPE,
            text=True,
        )
        try:
            assert served.stdout
            port = re.search(r":(\d+)/", served.stdout.readline())
            assert port
            ask = urllib.request.Request(
                f"http://127.0.0.1:{port[1]}/api/sign-in",
                json.dumps({"name": "Ines", "password": "three quiet rivers"}).encode(),
                {"Content-Type": "application/json", **headers},
            )
            try:
                with urllib.request.urlopen(ask, timeout=20) as answer:
                    return str(answer.headers["Set-Cookie"])
            except urllib.error.HTTPError as refused:
                return str(refused.code)
        finally:
            served.kill()
            served.wait()

    told = {
        "X-Forwarded-Proto": "https",
        "X-Forwarded-Host": "gym.example",
        "X-Forwarded-For": "10.1.2.3",
        "Origin": "https://gym.example",
    }
    assert "; Secure" in cookie("--proxy", "127.0.0.1", "--name", "gym.example", **told)
    # Another name is not answered to; and nobody's word counts who is not the proxy.
    assert cookie("--proxy", "127.0.0.1", **told) == "400"
    assert "; Secure" not in cookie("--proxy", "10.9.9.9", **{"X-Forwarded-Proto": "https"})
