"""A look around in a house that has nobody yet."""

import pytest

from tests.browser.driving import Coach


@pytest.fixture(scope="module")
def coach(newcomer: Coach) -> Coach:
    return newcomer


def test_a_look_around_in_the_made_up_club(coach: Coach) -> None:
    coach.open("/", "Look around first?")
    coach.click("Try it with the made-up club", "button")
    coach.find("//a[.='Maro Veldt']")
    coach.find("//header//span[.='Sallowmere Rowing Club']")
    coach.open("/files", "13 of the athletes here are made up")
    coach.click("Remove the made-up club", "button")
    coach.sees("Everyone you added yourself stays.")
    assert coach.axe() == []
    coach.click("Remove for good", "button")
    coach.sees_no("made up")
    coach.open("/", "Nobody is on the roster yet.")
