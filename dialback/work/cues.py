"""What is said at a movement: to everybody, or to one athlete."""

from __future__ import annotations

from dialback.book.errors import bad_input
from dialback.core.cues import Cues, OwnCue
from dialback.store.athletes import Ledgers, athlete_on_roster
from dialback.store.cues import cues_for, house_cues, own_cues, put_own_cue
from dialback.store.journal import change
from dialback.store.models import Athlete
from dialback.store.unit import unit
from dialback.work.catalogue import the_movement

MOST_OWN_CUES = 500
"""So many movements have words for one athlete at most."""


def say_to_everybody(number: int, cues: Cues | None) -> Cues:
    """Give a movement the house's own words; without any, those that ship hold again."""
    with unit() as entry:
        row, movement = the_movement(number)
        undo = change(row, cues=None if cues is None else cues.model_dump(exclude_defaults=True))
        told = "Changed the cues of" if cues is not None else "Took the shipped cues again for"
        entry.tell(f"{told} {movement.name}", undo=undo)
        return cues_for(movement, house_cues())


def say_to(ledgers: Ledgers, number: int, cue: OwnCue) -> Athlete:
    """Tell one athlete something at a movement, before all else; nothing ends it."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        movements = ledgers.of(athlete).movements
        if cue.movement not in movements:
            raise bad_input("movement", f"no movement is called {cue.movement!r}")
        name = movements[cue.movement].name
        if cue.says and len(own_cues(athlete)) >= MOST_OWN_CUES:
            raise bad_input(
                "says", f"{athlete.name} has cues at {MOST_OWN_CUES} movements: that is the most"
            )
        undo = put_own_cue(athlete, name, cue.says)
        told = f"Own cue at {name}: “{cue.says}”" if cue.says else f"No own cue at {name} any more"
        entry.tell(told, athlete, undo=undo)
        return athlete
