"""Imports run one way, and the core knows nothing of the rooms around it."""

import ast
import re
from pathlib import Path

import pytest

PACKAGE = Path(__file__).parent.parent / "dialback"
MAY_USE = {
    "core": set(),
    "library": {"core"},
    "book": {"core"},
    "store": {"core", "book", "library"},
    "demo": {"core", "book", "library", "store"},
    "simulated": {"core"},
    "work": {"core", "book", "library", "store", "demo"},
    "web": {"core", "book", "store", "library", "simulated", "work"},
    "cli": {"core", "book", "library", "store", "demo", "work", "web"},
}
NOT_IN_CORE = {
    "flask",
    "peewee",
    "sqlite3",
    "pathlib",
    "os",
    "io",
    "socket",
    "time",
    "click",
    "waitress",
    "requests",
    "urllib",
}


def imports(path: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.add(node.module)
    return found


def modules() -> list[Path]:
    return [path for path in PACKAGE.rglob("*.py") if path.parent != PACKAGE]


@pytest.mark.parametrize("path", modules(), ids=lambda path: str(path.relative_to(PACKAGE)))
def test_imports_run_one_way(path: Path) -> None:
    room = path.relative_to(PACKAGE).parts[0]
    for name in imports(path):
        parts = name.split(".")
        if parts[0] == "dialback" and len(parts) > 1:
            assert parts[1] == room or parts[1] in MAY_USE[room], f"{room} imports {name}"
        if room == "core":
            assert parts[0] not in NOT_IN_CORE, f"core imports {name}"


def test_a_change_has_one_way_to_its_lock() -> None:
    """Whoever writes does it in a unit: the lock first, then the reading."""
    for path in PACKAGE.rglob("*.py"):
        if path.name != "unit.py":
            assert ".atomic(" not in path.read_text(), f"{path}: write inside unit()"


def test_the_core_has_no_clock() -> None:
    for path in (PACKAGE / "core").rglob("*.py"):
        text = path.read_text()
        assert "today()" not in text, path
        assert ".now(" not in text, path


QUERIES = {"select", "where", "get_or_none", "get_by_id", "create", "delete_instance", "save"}
"""How rows are asked for and changed: none of it stands in a place."""


def test_web_changes_nothing_by_itself() -> None:
    """A place parses, calls ``work`` and shapes: it takes no lock, and no place uses another."""
    for path in (PACKAGE / "web").rglob("*.py"):
        names = imports(path)
        assert "dialback.store.unit" not in names, f"{path}: a change has its room in work"
        assert "dialback.store.models" not in names, f"{path}: ask the store or work for values"
        asked = {
            node.func.attr
            for node in ast.walk(ast.parse(path.read_text()))
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute)
        } & QUERIES
        assert not asked, f"{path}: {asked} is for the store"
        if path.parent.name == "places":
            others = {name for name in names if name.startswith("dialback.web.places")}
            assert not others, f"{path}: what two places need stands beside them in web"


FRONT = Path(__file__).parent.parent / "frontend" / "src"
FRONT_MAY_USE = {
    "words.ts": {"api"},
    "api": {"words"},
    "marks": {"api", "words"},
    "frame": {"api", "marks", "words"},
    "shared": {"api", "frame", "marks", "words"},
    "places": {"api", "frame", "marks", "shared", "words"},
    "main.tsx": {"api", "frame", "places", "index.css"},
}
FROM = re.compile(r"""(?:from|import\()\s*"(@/|\.{1,2}/)([^"]+)\"""")


def front_files() -> list[Path]:
    return [path for path in sorted(FRONT.rglob("*.ts*")) if not path.name.endswith(".d.ts")]


@pytest.mark.parametrize("path", front_files(), ids=lambda path: str(path.relative_to(FRONT)))
def test_imports_of_the_front_end_run_one_way(path: Path) -> None:
    room = path.relative_to(FRONT).parts[0]
    for start, name in FROM.findall(path.read_text()):
        found = (FRONT if start == "@/" else path.parent / start) / name
        if not found.resolve().is_relative_to(FRONT):
            continue
        parts = found.resolve().relative_to(FRONT).parts
        assert parts[0] == room or parts[0] in FRONT_MAY_USE[room], f"{room} imports {name}"
        if room == "places" == parts[0]:
            # What two places need is not a place's own: it goes into the shared room.
            assert parts[1] == path.relative_to(FRONT).parts[1], f"a place imports {name}"
