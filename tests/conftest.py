"""Fixtures: a data file of its own for every test, and the real application on it."""

from __future__ import annotations

import os
import shutil
from collections.abc import Callable, Iterator
from datetime import date
from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from uuid import uuid4

import pytest
from argon2 import PasswordHasher
from flask.testing import FlaskClient
from flask_openapi3.openapi import OpenAPI
from hypothesis import settings

from dialback.store.database import open_database
from dialback.store.models import database
from dialback.web.app import routed, settle
from dialback.work import passwords
from tests.build import as_bytes, document, session, sets
from tests.shared import place_of

# Locally properties are tried on ever new examples; a landing does not hang on the luck of a draw.
settings.register_profile("ci", derandomize=True)
if os.environ.get("CI"):
    settings.load_profile("ci")

PATIENCE = 100.0
"""Tests see what comes out where nobody is in a hurry, however busy the machine."""

# What makes a real hash slow is the library's; here they are made by the hundred.
passwords._HASHER = PasswordHasher(time_cost=1, memory_cost=8, parallelism=1)

TODAY = date(2026, 10, 12)
"""The Monday after the audited week of tests.build."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """The rooms with long files first: nobody waits for the last of them on one core."""
    rooms = ("tests/browser", "tests/hostile")
    items.sort(key=lambda item: [not item.nodeid.startswith(room) for room in rooms])


def pytest_configure(config: pytest.Config) -> None:
    """A run of several processes has a name, by which they find what one of them has made."""
    if not hasattr(config, "workerinput"):
        config.option.testrunuid = config.getoption("testrunuid", None) or uuid4().hex


def pytest_unconfigure(config: pytest.Config) -> None:
    """What the processes shared goes with the run."""
    if not hasattr(config, "workerinput"):
        shutil.rmtree(place_of(config.option.testrunuid), ignore_errors=True)


@pytest.fixture
def data(tmp_path: Path) -> Path:
    return tmp_path / "data.sqlite"


@cache
def empty_house() -> bytes:
    """A data file that nothing was written into, which takes a while to make: once for all."""
    with TemporaryDirectory() as place:
        data = Path(place) / "empty.sqlite"
        with open_database(data).connection_context():
            pass
        return data.read_bytes()


@pytest.fixture
def store(data: Path) -> Iterator[Path]:
    data.write_bytes(empty_house())
    open_database(data)
    with database.connection_context():
        yield data


@cache
def app() -> OpenAPI:
    """One application for all tests, which moves from house to house."""
    return routed()


def moved_in(data: Path) -> FlaskClient:
    """A client of the one application, which has moved into that data file."""
    settle(app(), data, today=lambda: TODAY, patience=PATIENCE)
    return app().test_client()


@pytest.fixture
def client(data: Path) -> FlaskClient:
    if not data.exists():
        data.write_bytes(empty_house())
    return moved_in(data)


@pytest.fixture
def bring(client: FlaskClient) -> Callable[..., Any]:
    """Import a book over the API; the answer."""

    def send(body: dict[str, Any] | bytes | None = None, query: str = "") -> Any:
        content = body if isinstance(body, bytes) else as_bytes(body or a_book())
        return client.post(f"/api/import{query}", data=content, content_type="application/json")

    return send


def a_book() -> dict[str, Any]:
    """Four weeks of plan and log, and the plan of the week after."""
    work = [sets("Press", 5, load_kg=20), sets("Row", 3, load_kg=20), sets("Squat", 4, load_kg=60)]
    log = [sets("Press", 6, load_kg=20), sets("Row", 3, load_kg=20, rpe=8), sets("Squat", 4)]
    return document(
        [session(7 * week, *log, rpe=7, duration_min=50) for week in (-2, -1, 0)],
        [session(7 * week, *work, title="Whole body") for week in (-2, -1, 0, 1)],
    )
