"""The recipes of ``docs/architecture.md`` are walked: what they name is what a change touches."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
PAGE = (ROOT / "docs" / "architecture.md").read_text()
ROWS = [
    tuple(cell.strip() for cell in row.strip("|").split(" | "))
    for row in PAGE.split("## How to add", 1)[1].split("\n## ", 1)[0].splitlines()
    if row.startswith("| ") and not row.startswith("| what")
]
TICKED = re.compile(r"`([^`]+)`")
LOOKED_AT = ("*.py", "*.ts", "*.tsx", "*.typ", "*.md")


def sources() -> list[Path]:
    """What is written by hand, tests and the changelog apart."""
    found = [
        path
        for room in ("dialback", "frontend/src", "docs", "scripts")
        for pattern in LOOKED_AT
        for path in (ROOT / room).rglob(pattern)
    ]
    made = ("static", "schema.d.ts", "architecture.md", "demo")
    return [path for path in found if not set(path.relative_to(ROOT).parts) & set(made)]


SOURCES = {path: path.read_text() for path in sources()}


def named(files: str) -> list[Path]:
    """The files and folders that a recipe names."""
    found = []
    folder = ROOT
    for word in TICKED.findall(files):
        name = word.split(":")[0]
        if ("/" in name and "." in name.rpartition("/")[2]) or name.endswith("/"):
            starts = ("frontend/", "docs/", "scripts/", "tests/")
            folder = ROOT if name.startswith(starts) else ROOT / "dialback"
            found.append(folder / name)
        elif (inner := found[-1] / f"{name}.py" if found else None) and inner.exists():
            found.append(inner)
    return found


@pytest.mark.parametrize(("what", "files", "example"), ROWS, ids=[row[0] for row in ROWS])
def test_a_recipe_names_what_its_example_touches(what: str, files: str, example: str) -> None:
    paths = named(files)
    assert paths, what
    for path in paths:
        assert path.exists(), f"{what}: there is no {path.relative_to(ROOT)}"
    words = TICKED.findall(example)
    assert words, what
    pattern = re.compile("|".join(word if "\\" in word else re.escape(word) for word in words))
    touched = [path for path, text in SOURCES.items() if pattern.search(text)]
    assert touched, f"{what}: nothing has {example}"
    short = [
        str(path.relative_to(ROOT))
        for path in touched
        if not any(path == one or one in path.parents for one in paths)
    ]
    assert not short, f"{what}: the recipe does not name {short}"


def test_every_kind_of_change_has_a_recipe() -> None:
    kinds = {row[0] for row in ROWS}
    for kind in ("a finding", "a rule with its finding", "a key of a set", "a role", "an export",
                 "a keyboard shortcut", "a sentence", "a measure", "a place"):  # fmt: skip
        assert kind in kinds
    assert len(ROWS) >= 15


def test_a_code_of_a_finding_stands_in_few_files() -> None:
    """Beside its family and the table; where it has to be worked with otherwise, in two."""
    from dialback.core.findings import CODES

    ordinary_words = {"balance", "order", "missed", "swapped", "return", "pain", "restriction"}
    looked_at = 0
    for code in (code.code for code in CODES if code.code not in ordinary_words):
        files = [
            path
            for path, text in SOURCES.items()
            if f'"{code}"' in text and path.suffix == ".py" and "findings" not in path.parts
        ]
        looked_at += 1
        assert len(files) <= MOST.get(code, 2), (code, [path.name for path in files])
    assert looked_at >= 12


MOST = {"muscle_floor": 4, "muscle_ceiling": 5, "jump": 4, "load_step": 3, "monotony": 5}
"""What is weighed, remedied, learnt and folded; and a measure that is called like its finding."""
