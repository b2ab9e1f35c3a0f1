"""One served club and one browser for each test module; a fresh club where a test changes it."""

from collections.abc import Callable, Iterator
from datetime import date
from pathlib import Path

import pytest

from tests.browser.driving import Coach, browser, resize, served

TODAY = date(2026, 11, 24)
MONDAY = date(2026, 11, 23)


@pytest.fixture(scope="module")
def coach(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Coach]:
    data: Path = tmp_path_factory.mktemp("club") / "club.sqlite"
    with served(data, TODAY) as base, browser() as driver:
        yield Coach(driver, base)


@pytest.fixture(scope="module")
def newcomer(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Coach]:
    """Somebody in a house that has nobody yet."""
    data: Path = tmp_path_factory.mktemp("house") / "house.sqlite"
    with served(data, MONDAY, empty=True) as base, browser() as driver:
        yield Coach(driver, base)


@pytest.fixture(autouse=True)
def no_complaints(coach: Coach) -> Iterator[None]:
    """The browser's console stays silent, the content security policy included."""
    coach.complaints()
    yield
    found = [one for one in coach.complaints() if "status of 4" not in one]
    assert not found


@pytest.fixture
def phone(coach: Coach) -> Iterator[None]:
    """A window as wide as a phone's."""
    resize(coach.driver, 390, 844)
    yield
    resize(coach.driver, 1280, 800)


@pytest.fixture
def go_far_away(coach: Coach) -> Iterator[Callable[[], None]]:
    """From then on every answer takes longer than the pause before a save."""
    yield lambda: coach.driver.set_network_conditions(
        offline=False, latency=1500, throughput=10_000_000
    )
    coach.driver.delete_network_conditions()
