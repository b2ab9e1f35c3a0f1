"""What is written agrees with what is built."""

import json
import re
import subprocess
from pathlib import Path
from typing import get_args

import pytest

from dialback.book.book import schema
from dialback.book.squad import schema as squad_schema
from dialback.core.causes import ORDER
from dialback.core.findings import CODES
from dialback.core.long_run.codes import SIGNALS
from dialback.core.rules import DEFAULT_RULES, RULES
from dialback.core.squads.causes import ORDER as SQUAD_ORDER
from dialback.core.vocabulary import PAIRS, WeekKind
from dialback.web.app import openapi_document
from scripts import fixtures

ROOT = Path(__file__).parent.parent
METHOD = (ROOT / "docs" / "method.md").read_text()
README = (ROOT / "README.md").read_text()


def section(name: str) -> str:
    match = re.search(rf"^### `{name}`(.*?)(?=^##|\Z)", METHOD, re.MULTILINE | re.DOTALL)
    assert match, f"docs/method.md has no section on {name}"
    return match[1]


@pytest.mark.parametrize("entry", RULES, ids=lambda entry: entry.name)
def test_the_method_tells_every_rule_with_its_default_and_source(entry: object) -> None:
    text = section(entry.name)
    default = DEFAULT_RULES.model_dump(mode="json")[entry.name]
    if isinstance(default, dict):
        for key, limits in default.items():
            told = limits if isinstance(limits, list) else [limits]
            row = rf"\| {key} \| " + r" \| ".join(f"{limit:g}" for limit in told) + r" \|"
            assert re.search(row, text), (entry.name, key)
    else:
        assert f"Default: `{json.dumps(default)}`" in text
    assert entry.source in text
    for value, _ in entry.choices:
        assert f"`{json.dumps(value)}`" in text


def test_the_method_has_no_rule_that_is_not() -> None:
    told = set(re.findall(r"^### `(\w+)`", METHOD, re.MULTILINE))
    assert told == {entry.name for entry in RULES}


@pytest.mark.parametrize("code", CODES, ids=lambda code: code.code)
def test_the_method_tells_every_finding(code: object) -> None:
    assert f"| `{code.code}` |" in METHOD


@pytest.mark.parametrize("signal", SIGNALS, ids=lambda signal: signal.code)
def test_the_method_tells_every_signal(signal: object) -> None:
    assert f"| `{signal.code}` |" in METHOD


def test_the_method_tells_what_every_kind_of_week_brings() -> None:
    for kind in get_args(WeekKind):
        brings = {code.title.lower() for code in CODES if code.is_part_of(kind)}
        row = re.search(rf"^\| {kind} \| (.+) \|$", METHOD, re.MULTILINE)
        assert row is not None, kind
        assert set(row[1].split(", ")) == brings


def test_the_method_tells_every_cause_and_every_pair() -> None:
    for code in (*ORDER, *SQUAD_ORDER):
        assert f"`{code}`" in METHOD, code
    for pair in PAIRS:
        assert pair.name in METHOD, pair.name


def test_what_is_made_from_the_code_is_current() -> None:
    remedy = "run 'make docs'"
    made = json.loads((ROOT / "docs" / "book.schema.json").read_text())
    assert made == json.loads(json.dumps(schema())), remedy
    of_squad = json.loads((ROOT / "docs" / "squad.schema.json").read_text())
    assert of_squad == json.loads(json.dumps(squad_schema())), remedy
    described = json.loads((ROOT / "docs" / "openapi.json").read_text())
    assert described == json.loads(json.dumps(openapi_document())), remedy


def test_the_front_ends_own_rules_are_held_to_the_core() -> None:
    kept = json.loads(fixtures.OUT.read_text())
    assert kept == json.loads(json.dumps(fixtures.answers())), "run 'make docs'"


def test_the_front_end_has_the_measures_of_the_core() -> None:
    kept = json.loads(fixtures.MEASURES.read_text())
    assert kept == json.loads(json.dumps(fixtures.measures())), "run 'make docs'"


def test_the_front_ends_types_are_current(tmp_path: Path) -> None:
    made = tmp_path / "schema.d.ts"
    subprocess.run(
        ["npx", "openapi-typescript", "../docs/openapi.json", "-o", made],
        cwd=ROOT / "frontend",
        check=True,
        capture_output=True,
    )
    kept = (ROOT / "frontend" / "src" / "api" / "schema.d.ts").read_text()
    assert kept == made.read_text(), "run 'make docs'"


def test_the_readme_links_what_is_there() -> None:
    for path in re.findall(r"\]\(([^)#]+)\)", README + (ROOT / "docs/architecture.md").read_text()):
        if "://" not in path:
            assert (ROOT / path).exists() or (ROOT / "docs" / path).exists(), path
    for shot in (ROOT / "docs" / "screenshots").glob("*.png"):
        assert shot.name in README


def test_the_two_commands_are_told() -> None:
    makefile = (ROOT / "Makefile").read_text()
    for command in ("demo", "test", "bench"):
        assert f"make {command}" in README
        assert re.search(rf"^{command}:", makefile, re.MULTILINE)


def test_only_loopback_and_local_files_are_named_in_the_front_end() -> None:
    for path in (ROOT / "frontend" / "src").rglob("*.ts*"):
        assert not re.search(r"https?://(?!127\.0\.0\.1)", path.read_text()), path


def test_what_holds_the_security_standard_is_there() -> None:
    page = (ROOT / "docs/security.md").read_text()
    named = set(re.findall(r"`((?:web|hostile|browser|core|frontend)/[\w/.]+\.(?:py|ts))`", page))
    assert len(named) > 12
    for path in named:
        place = ROOT / path if path.startswith("frontend") else ROOT / "tests" / path
        assert place.is_file(), path
    # Every point says what holds it, or why nothing does.
    rows = [row for row in page.splitlines() if re.match(r"\| \d", row)]
    assert len(rows) > 80
    for row in rows:
        held = row.split("|")[3]
        words = ("`", "by design", "by the proxy", "does not apply", "not held", "held in part")
        assert any(one in held for one in words), row
