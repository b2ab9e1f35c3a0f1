"""People as a coach pastes them: a name on each line, with body weight and a remark if wanted."""

from __future__ import annotations

import re
from collections.abc import Collection
from dataclasses import dataclass
from typing import Final, cast, get_args

from dialback.core.cautions import TrainingLevel
from dialback.core.movements import fold
from dialback.core.plain import odd_character
from dialback.core.sessions import KG_PER_LB
from dialback.core.words import Unit, weight_text

MOST: Final = 200
"""So many come in at once."""
BODYWEIGHTS_KG: Final = (20.0, 350.0)
"""A body weight outside of these is a slip of the pen."""
LONGEST_NAME: Final = 120
"""So many characters has a name at most."""
_LONGEST_NOTE: Final = 500
_BETWEEN: Final = re.compile(r"[ ]{0,8}[\t;][ ]{0,8}|[ ]{0,8},[ ]{1,8}|(?<![0-9]),|,(?![0-9])")
_SQUAD: Final = re.compile(r"squad[ :]{1,4}([^ ].{0,59})", re.IGNORECASE)
_BORN: Final = re.compile(r"born[ :]{1,4}(?:in[ ])?((?:19|20)[0-9]{2})", re.IGNORECASE)
_LEVELS: Final = frozenset(get_args(TrainingLevel)) - {""}
_WEIGHT: Final = re.compile(r"([0-9]{1,3}(?:[.,][0-9]{1,3})?)[ ]{0,4}(kgs?|lbs?)?", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Newcomer:
    """Somebody on a line: the body weight in kg, ``None`` where none is given.

    ``problem`` says why the line cannot be taken; empty if it can.
    """

    line: int
    name: str
    bodyweight_kg: float | None
    note: str
    squad: str
    level: TrainingLevel
    born: int | None
    problem: str


def read_newcomers(text: str, unit: Unit, taken: Collection[str]) -> list[Newcomer]:
    """The people of a text, a line each: ``Ada Lind, 62.5 kg, novice``.

    Fields are parted by tabs, semicolons or commas; a number is the body weight, in ``unit`` where
    it names none; ``squad Juniors`` is the squad, ``born 2009`` the year of birth, ``novice``,
    ``intermediate`` or ``advanced`` the level. ``taken`` are the names that are there already.
    Blank lines are left out.
    """
    known = {fold(name) for name in taken}
    found: list[Newcomer] = []
    for number, line in enumerate(text.splitlines(), 1):
        if line.strip():
            one = _newcomer(number, line.strip(), unit, known)
            known.add(fold(one.name))
            found.append(one)
    return found


def _newcomer(number: int, line: str, unit: Unit, known: Collection[str]) -> Newcomer:
    name, *fields = (field.strip() for field in _BETWEEN.split(line))
    weight, squad, remarks = None, "", []
    level: TrainingLevel = ""
    born: int | None = None
    for field in fields:
        match = _WEIGHT.fullmatch(field)
        if match and weight is None:
            given = float(match[1].replace(",", "."))
            pounds = match[2].lower().startswith("lb") if match[2] else unit == "lb"
            weight = round(given * KG_PER_LB, 3) if pounds else given
        elif not squad and (named := _SQUAD.fullmatch(field)):
            squad = named[1]
        elif (said := fold(field)) in _LEVELS:
            level = cast(TrainingLevel, said)
        elif year := _BORN.fullmatch(field):
            born = int(year[1])
        elif field:
            remarks.append(field)
    note = ", ".join(remarks)
    problem = _problem(name, weight, note, unit, known)
    return Newcomer(number, name, weight, note, squad, level, born, problem)


def _problem(name: str, weight: float | None, note: str, unit: Unit, known: Collection[str]) -> str:
    least, most = BODYWEIGHTS_KG
    if odd := odd_character(f"{name}{note}"):
        return odd
    if not name:
        return "the name is missing: it comes first"
    if len(name) > LONGEST_NAME:
        return f"a name has at most {LONGEST_NAME} characters"
    if len(note) > _LONGEST_NOTE:
        return f"a note has at most {_LONGEST_NOTE} characters"
    if fold(name) in known:
        return f"{name} is already there: give this one another name"
    if weight is not None and not least <= weight <= most:
        ends = f"{weight_text(least, unit, 0)} to {weight_text(most, unit, 0)}"
        return f"{weight_text(weight, unit, 1)} is not a body weight: it is from {ends}"
    return ""
