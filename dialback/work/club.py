"""The made-up club in a house of one's own: to look around in, and to be rid of again."""

from __future__ import annotations

from datetime import date

from dialback.demo.load import club_here, everybody, load_demo, remove_demo
from dialback.store.athletes import house
from dialback.store.persons import forget_traces
from dialback.store.unit import unit
from dialback.work.errors import ConflictError, NotThereError


def who_is_made_up() -> list[str]:
    """The names of the club's athletes who are here, archived or not."""
    return [athlete.name for athlete in club_here()]


def move_in(today: date) -> None:
    """Load the club. Raises ``ConflictError`` where there is somebody already."""
    with unit():
        if everybody():
            raise ConflictError(
                "not-empty",
                "There is somebody here already, on the roster or archived: the "
                "made-up club is for an empty house."
                " Give it a data file of its own to see it beside yours.",
            )
        load_demo(today)


def move_out() -> None:
    """Delete all that the club brought, for good. Raises ``NotThereError``."""
    with unit():
        if house().club is None:
            raise NotThereError("The made-up club is not here, or was removed already.")
        remove_demo()
    forget_traces()
