"""Who is on the roster, and what is known of each: maxima, restrictions."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from dialback.book.errors import bad_input
from dialback.core.cautions import TrainingLevel
from dialback.core.newcomers import MOST, Newcomer, as_spelt, checked
from dialback.core.pasted import read_people
from dialback.core.restrictions import Restriction
from dialback.core.sessions import Maximum
from dialback.core.weeks import said
from dialback.core.words import listed
from dialback.store.athletes import (
    Ledgers,
    athlete_on_roster,
    athletes,
    find_athlete,
    house_unit,
    weight_said,
)
from dialback.store.journal import before, change
from dialback.store.maxima import add_maxima, numbered_maxima
from dialback.store.models import Athlete
from dialback.store.models import Maximum as MaximumRow
from dialback.store.models import Restriction as RestrictionRow
from dialback.store.restrictions import add_restrictions, lift, numbered_restrictions
from dialback.store.unit import touch, unit
from dialback.work.accounts import follow_name
from dialback.work.errors import ConflictError, NotThereError


def take_on(people: Sequence[Newcomer]) -> list[Athlete]:
    """Take people on, all of them or none. Raises ``BadInputError`` with the line or the place."""
    with unit() as entry:
        found = look_at(people)
        if not found:
            raise bad_input("text", "there is nobody in it: write a name on each line")
        for at, one in enumerate(found):
            if one.problem:
                raise bad_input(f"line {one.line}" if one.line else f"people[{at}]", one.problem)
        new = [
            Athlete.create(
                name=newcomer.name,
                bodyweight_kg=newcomer.bodyweight_kg,
                note=newcomer.note,
                squad=newcomer.squad,
                level=newcomer.level,
                born=newcomer.born,
            )
            for newcomer in found
        ]
        for athlete in new:
            entry.tell("Added to the roster", athlete)
        return new


def pasted(text: str) -> list[Newcomer]:
    """The people of a text; nothing is said of whether they can be taken."""
    return read_people(text, house_unit())


def look_at(people: Sequence[Newcomer]) -> list[Newcomer]:
    """The people beside those who are on the roster. Raises ``BadInputError`` for too many."""
    if len(people) > MOST:
        raise bad_input("text", f"more than {MOST} people: paste them in several goes")
    there = athletes()
    names, squads = [one.name for one in there], [one.squad for one in there]
    return checked(people, house_unit(), names, squads)


_CALLED = {
    "name": "the name",
    "bodyweight_kg": "the body weight",
    "note": "the note",
    "squad": "the squad",
    "level": "the level",
    "born": "the year of birth",
}


@dataclass(frozen=True, slots=True)
class About:
    """What is known of an athlete beside training."""

    name: str
    bodyweight_kg: float | None
    note: str
    squad: str
    level: TrainingLevel
    born: int | None


def describe(number: int, about: About) -> Athlete:
    """Give an athlete another name, usual body weight, note, squad, level or year of birth.

    Raises ``ConflictError`` for the name.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        check_name_free(about.name, number)
        was = before(athlete, *_CALLED)
        others = (one.squad for one in athletes() if one.id != number)
        about = replace(about, squad=as_spelt(about.squad, others))
        for name in _CALLED:
            setattr(athlete, name, getattr(about, name))
        touch(athlete)
        follow_name(athlete)
        entry.tell(f"Changed {_listed(was.changed())}", athlete, undo=was.undo())
        return athlete


def _listed(names: Sequence[str]) -> str:
    return listed([_CALLED[name] for name in names]) or "nothing"


def take_off(number: int, today: date) -> None:
    """Take an athlete off the roster; nothing is lost."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        entry.tell("Archived", athlete, undo=change(athlete, deleted_on=today))


def put_back(number: int) -> None:
    """Put an athlete back on the roster. Raises ``ConflictError`` if the name is taken by now."""
    with unit() as entry:
        athlete = Athlete.get_or_none(Athlete.id == number, Athlete.deleted_on.is_null(False))
        if athlete is None:
            raise NotThereError(f"No athlete off the roster has the number {number}.")
        check_name_free(athlete.name, number)
        entry.tell("Restored to the roster", athlete, undo=change(athlete, deleted_on=None))


def check_name_free(name: str, number: int) -> None:
    """Refuse a name for an athlete that somebody else on the roster has."""
    other = find_athlete(name, but=number)
    if other is not None:
        raise ConflictError("name-taken", f"Another {other.name!r} is on the roster.")


def type_maximum(ledgers: Ledgers, number: int, maximum: Maximum) -> Athlete:
    """Type a maximum in: the load of all implements that moves once, on its day."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        name = _known_name(ledgers, athlete, maximum.movement, "movement")
        maximum = maximum.model_copy(update={"movement": name})
        # Said once more, for the answer to the first was lost: it stands as it is.
        if maximum in numbered_maxima(athlete).values():
            return athlete
        add_maxima(athlete, [maximum])
        touch(athlete)
        entry.tell(
            f"Entered a maximum: {name}, {weight_said(maximum.kg)} on {said(maximum.date)}", athlete
        )
        return athlete


def remove_maximum(number: int, maximum: int) -> Athlete:
    """Take a maximum away that was typed in by mistake."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = MaximumRow.get_or_none(MaximumRow.id == maximum, MaximumRow.athlete == athlete)
        if row is None:
            raise NotThereError(f"{athlete.name} has no such maximum.")
        row.delete_instance()
        touch(athlete)
        entry.tell(f"Removed a maximum: {row.movement}, {weight_said(row.kg)}", athlete)
        return athlete


def set_restriction(ledgers: Ledgers, number: int, restriction: Restriction) -> Athlete:
    """Set a restriction, on somebody's word: until a person lifts it, or the day they have said."""
    if restriction.lifted_on is not None and restriction.lifted_on <= restriction.since:
        raise bad_input("lifted_on", "its last day is before the first: choose a later one")
    with unit() as entry:
        athlete = athlete_on_roster(number)
        if restriction.about == "movement":
            name = _known_name(ledgers, athlete, restriction.subject, "subject")
            restriction = restriction.model_copy(update={"subject": name})
        # Said once more, for the answer to the first was lost: it stands as it is.
        if restriction in numbered_restrictions(athlete).values():
            return athlete
        add_restrictions(athlete, [restriction])
        touch(athlete)
        told = f"Added a restriction: {restriction.subject}, on the word of {restriction.by}"
        entry.tell(told, athlete)
        return athlete


def _known_name(ledgers: Ledgers, athlete: Athlete, name: str, place: str) -> str:
    movements = ledgers.of(athlete).movements
    if name not in movements:
        raise bad_input(place, f"no movement is called {name!r}")
    return movements[name].name


def lift_restriction(number: int, restriction: int, on: date | None, by: str | None) -> Athlete:
    """Lift a restriction from a day on, with who lifted it; with neither it holds again."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = RestrictionRow.get_or_none(
            RestrictionRow.id == restriction, RestrictionRow.athlete == athlete
        )
        if row is None:
            raise NotThereError(f"{athlete.name} has no such restriction.")
        # One that ends on a day to come is lifted before it, or goes on without an end.
        ended = row.lifted_on is not None and (on is None or row.lifted_on <= on)
        if ended == (on is not None):
            state = "is in force" if on is None else f"was lifted by {row.lifted_by}"
            raise ConflictError("as-it-is", f"This restriction {state} already.")
        # One that begins on a later day and is lifted before never holds.
        was = before(row, "lifted_on", "lifted_by")
        lift(row, None if on is None else max(on, row.since), by)
        touch(athlete)
        done = "Reinstated a restriction" if on is None else "Lifted a restriction"
        entry.tell(f"{done}: {row.subject}", athlete, undo=was.undo())
        return athlete
