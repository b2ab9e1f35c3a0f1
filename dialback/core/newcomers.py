"""People who come on the roster: what is said of each, and what keeps one from being taken."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from dialback.core.cautions import YEARS_OF_BIRTH, TrainingLevel
from dialback.core.movements import fold
from dialback.core.plain import odd_character
from dialback.core.words import Unit, weight_text

MOST: Final = 200
"""So many come in at once."""
BODYWEIGHTS_KG: Final = (20.0, 350.0)
"""A body weight outside of these is a slip of the pen."""
LONGEST_NAME: Final = 120
"""So many characters has a name at most."""
LONGEST_NOTE: Final = 500
"""So many characters has a note at most."""
LONGEST_SQUAD: Final = 60
"""So many characters has the name of a squad at most."""


@dataclass(frozen=True, slots=True)
class Newcomer:
    """Somebody on a line (from 1; 0 where nobody wrote one): the body weight in kg, or ``None``.

    ``told`` says how the line was read where that is not plain to see. ``problem`` says why the
    person cannot be taken; empty if there is nothing against it.
    """

    line: int
    name: str
    bodyweight_kg: float | None = None
    note: str = ""
    squad: str = ""
    level: TrainingLevel = ""
    born: int | None = None
    told: str = ""
    problem: str = ""


def checked(
    people: Sequence[Newcomer], unit: Unit, taken: Collection[str], squads: Collection[str]
) -> list[Newcomer]:
    """The people with what is wrong of each, beside the names that are ``taken``.

    A squad is spelt as in ``squads`` or as it was first.
    """
    names, known = {fold(name) for name in taken}, list(squads)
    found = []
    for one in people:
        squad = as_spelt(one.squad, known)
        found.append(replace(one, squad=squad, problem=_problem(one, unit, names)))
        names.add(fold(one.name))
        known.append(squad)
    return found


def as_spelt(squad: str, known: Iterable[str]) -> str:
    """A squad as the known ones spell it, so that no two differ by letter case or spaces."""
    return next((other for other in known if fold(other) == fold(squad)), squad)


def _problem(one: Newcomer, unit: Unit, names: Collection[str]) -> str:
    if odd := odd_character(f"{one.name}{one.note}{one.squad}"):
        return odd
    if not one.name:
        return "the name is missing"
    for what, said, most in (
        ("a name", one.name, LONGEST_NAME),
        ("a note", one.note, LONGEST_NOTE),
        ("a squad", one.squad, LONGEST_SQUAD),
    ):
        if len(said) > most:
            return f"{what} has at most {most} characters"
    if fold(one.name) in names:
        return f"{one.name} is already there: give this one another name"
    return _out_of_bounds(one, unit)


def _out_of_bounds(one: Newcomer, unit: Unit) -> str:
    least, most = BODYWEIGHTS_KG
    if one.bodyweight_kg is not None and not least <= one.bodyweight_kg <= most:
        ends = f"{weight_text(least, unit, 0)} to {weight_text(most, unit, 0)}"
        return f"{weight_text(one.bodyweight_kg, unit, 1)} is not a body weight: it is from {ends}"
    first, last = YEARS_OF_BIRTH
    if one.born is not None and not first <= one.born <= last:
        return f"{one.born} is not a year of birth: it is from {first} to {last}"
    return ""
