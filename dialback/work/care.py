"""What asks for care about an athlete, and what the athlete weighed on which day."""

from __future__ import annotations

from datetime import date

from dialback.book.errors import bad_input
from dialback.core.body import Weighing
from dialback.core.cautions import Caution
from dialback.core.weeks import said
from dialback.store.athletes import athlete_on_roster, weight_said
from dialback.store.cautions import (
    add_cautions,
    add_weighings,
    caution_row,
    numbered_cautions,
    numbered_weighings,
    weighing_row,
)
from dialback.store.journal import change
from dialback.store.models import Athlete
from dialback.store.unit import touch, unit
from dialback.work.errors import ConflictError, NotThereError

MOST_CAUTIONS = 100
MOST_WEIGHINGS = 2000


def set_caution(number: int, caution: Caution) -> Athlete:
    """Note what asks for care, on somebody's word. It ends later, on a day."""
    if caution.ended_on is not None:
        raise bad_input("ended_on", "a new note is in force: end it later, on a day")
    with unit() as entry:
        athlete = athlete_on_roster(number)
        there = numbered_cautions(athlete).values()
        # Said once more, for the answer to the first was lost: it stands as it is.
        if caution in there:
            return athlete
        if len(there) >= MOST_CAUTIONS:
            raise bad_input("kind", f"{athlete.name} has {MOST_CAUTIONS} of them: that is the most")
        add_cautions(athlete, [caution])
        touch(athlete)
        entry.tell(f"Added a care note: {caution.kind}, on the word of {caution.by}", athlete)
        return athlete


def end_caution(number: int, caution: int, on: date | None) -> Athlete:
    """End what asks for care on a day; without one it is in force again."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = caution_row(athlete, caution)
        if row is None:
            raise NotThereError(f"{athlete.name} no longer has this care note.")
        if (row.ended_on is None) == (on is None):
            state = "is already in force" if on is None else "has already ended"
            raise ConflictError("as-it-is", f"This care note {state}.")
        undo = change(row, ended_on=None if on is None else max(on, row.since))
        touch(athlete)
        done = "Reinstated" if on is None else "Ended"
        entry.tell(f"{done} the care note: {row.kind}", athlete, undo=undo)
        return athlete


def weigh(number: int, weighing: Weighing) -> Athlete:
    """Note what an athlete weighs from a day on: sets of those days count with it."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        there = numbered_weighings(athlete).values()
        if weighing in there:
            return athlete
        if len(there) >= MOST_WEIGHINGS:
            raise bad_input("date", f"{athlete.name} has {MOST_WEIGHINGS} weighings, the most")
        add_weighings(athlete, [weighing])
        touch(athlete)
        entry.tell(f"Weighs {weight_said(weighing.kg)} from {said(weighing.date)} on", athlete)
        return athlete


def remove_weighing(number: int, weighing: int) -> Athlete:
    """Take a weighing out that was a mistake."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = weighing_row(athlete, weighing)
        if row is None:
            raise NotThereError(f"{athlete.name} no longer has this weighing.")
        row.delete_instance()
        touch(athlete)
        entry.tell(f"Removed the weighing of {said(row.date)}, {weight_said(row.kg)}", athlete)
        return athlete
