"""A data file or a folder that may only be read: said with the remedy, and nothing is made."""

import os
import shutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from dialback.store.database import open_database

BOUND = "-dac_override,-dac_read_search"
# The superuser may write everywhere; without these two rights, as little as anybody.
AS_ANYBODY = ["setpriv", f"--bounding-set={BOUND}", f"--inh-caps={BOUND}"]
BOOK = str(Path(__file__).parents[1] / "cases" / "1-counted-sets.book.json")

pytestmark = pytest.mark.skipif(
    os.geteuid() == 0 and not shutil.which("setpriv"), reason="the superuser may write everywhere"
)


def dialback(data: Path, *words: str) -> tuple[int, str]:
    program = str(Path(sys.executable).with_name("dialback"))
    command = [program, "--data", str(data), *words]
    done = subprocess.run(
        (AS_ANYBODY if os.geteuid() == 0 else []) + command,
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
    )
    return done.returncode, done.stderr


@pytest.fixture
def house(tmp_path: Path) -> Iterator[Path]:
    folder = tmp_path / "house"
    folder.mkdir()
    with open_database(folder / "club.sqlite").connection_context():
        pass
    yield folder
    folder.chmod(0o755)


@pytest.mark.parametrize("locked", ["file", "folder"])
@pytest.mark.parametrize("words", [["check"], ["import", BOOK], ["serve", "--port", "0"]])
def test_what_may_only_be_read(house: Path, locked: str, words: list[str]) -> None:
    data = house / "club.sqlite"
    before = data.read_bytes()
    if locked == "file":
        data.chmod(0o444)
    else:
        house.chmod(0o555)
    code, says = dialback(data, *words)
    assert code == 2, says
    assert f"{data}: is read-only: make it writable" in says
    assert [one.name for one in house.iterdir()] == ["club.sqlite"]
    assert data.read_bytes() == before


def test_nothing_can_be_made_there(house: Path, tmp_path: Path) -> None:
    house.chmod(0o555)
    code, says = dialback(house / "new.sqlite", "import", BOOK)
    assert code == 2
    assert "cannot be made" in says
    house.chmod(0o755)
    there = tmp_path / "copies"
    there.mkdir(mode=0o555)
    code, says = dialback(house / "club.sqlite", "backup", str(there / "copy.sqlite"))
    assert code == 2
    assert str(there) in says
    assert list(there.iterdir()) == []
