"""Restrictions: what an athlete is to avoid, on whose word; lifted by a person only."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from datetime import date
from http import HTTPStatus

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.notation.expand import PlacedSet
from dialback.core.restrictions import PHASES, Restriction, set_breach
from dialback.core.tally import Ledger
from dialback.core.vocabulary import MUSCLES, PATTERNS
from dialback.store.models import Athlete
from dialback.store.models import Restriction as Row
from dialback.store.restrictions import add_restrictions, core_restriction, lift, restriction_rows
from dialback.store.unit import touch, unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.problems import RefusedError, not_found
from dialback.web.shapes import (
    AthletePath,
    LiftBody,
    MistakeOut,
    RestrictionNote,
    RestrictionOut,
    RestrictionPath,
    RestrictionsOut,
)

api = blueprint("restrictions", __name__, "/athletes/<int:athlete_id>/restrictions")


@api.get("", responses={200: RestrictionsOut})
def list_restrictions(path: AthletePath) -> Response:
    """The athlete's restrictions, lifted ones too."""
    return answer(_listed(the_athlete(path.athlete_id)))


def _listed(athlete: Athlete) -> RestrictionsOut:
    today = desk().today()
    kept = [(row.id, core_restriction(row)) for row in restriction_rows(athlete)]
    return RestrictionsOut(
        today=today.isoformat(),
        restrictions=[
            RestrictionOut(id=number, words=one.words, holds=one.holds(today), restriction=one)
            for number, one in kept
        ],
        subjects={
            "movement": [one.name for one in desk().ledgers.of(athlete).movements],
            "pattern": list(PATTERNS),
            "muscle": list(MUSCLES),
            "tempo": list(PHASES),
        },
    )


@api.post("", responses={201: RestrictionsOut})
def add_restriction(path: AthletePath, body: Restriction) -> Response:
    """Set a restriction, on somebody's word."""
    movements = desk().ledgers.of(the_athlete(path.athlete_id)).movements
    if body.lifted_on is not None:
        raise bad_input("lifted_on", "a new restriction holds: it is lifted later, by a person")
    if body.about == "movement":
        if body.subject not in movements:
            raise bad_input("subject", f"no movement is called {body.subject!r}")
        body = body.model_copy(update={"subject": movements[body.subject].name})
    with unit():
        athlete = the_athlete(path.athlete_id)
        add_restrictions(athlete, [body])
        touch(athlete)
    return answer(_listed(athlete), 201)


@api.post("/<int:restriction>/lift", responses={200: RestrictionsOut})
def lift_restriction(path: RestrictionPath, body: LiftBody) -> Response:
    """Lift a restriction from today on. It stays on record, with who lifted it."""
    return _lift(path, desk().today(), body.by)


@api.post("/<int:restriction>/restore", responses={200: RestrictionsOut})
def restore_restriction(path: RestrictionPath) -> Response:
    """Put a restriction back in force that was lifted."""
    return _lift(path, None, None)


def _lift(path: RestrictionPath, on: date | None, by: str | None) -> Response:
    with unit():
        athlete = the_athlete(path.athlete_id)
        row = Row.get_or_none(Row.id == path.restriction, Row.athlete == athlete)
        if row is None:
            raise not_found(f"{athlete.name} has no such restriction.")
        if (row.lifted_on is None) == (on is None):
            state = "is in force" if on is None else f"was lifted by {row.lifted_by}"
            raise RefusedError(
                HTTPStatus.CONFLICT, "as-it-is", f"This restriction {state} already."
            )
        # One that begins on a later day and is lifted before never holds.
        lift(row, None if on is None else max(on, row.since), by)
        touch(athlete)
    return answer(_listed(athlete))


def notes(ledger: Ledger, days: Sequence[date]) -> list[RestrictionNote]:
    """The restrictions that hold on one of the days, in words."""
    return [
        RestrictionNote(words=one.words, by=one.by, since=one.since.isoformat(), word=one.word)
        for one in ledger.restrictions
        if any(one.holds(day) for day in days)
    ]


def restricted_lines(
    text: str, sets: Iterable[PlacedSet], ledger: Ledger, day: date
) -> list[MistakeOut]:
    """What restrictions do not allow of a text, once for each line and restriction."""
    holding = [one for one in ledger.restrictions if one.holds(day)]
    if not holding:
        return []
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    found: dict[tuple[int, str], MistakeOut] = {}
    for placed in sets:
        movements = [ledger.movements[name] for name, _ in placed.set.named_moves()]
        for restriction in holding:
            breach = set_breach(placed.set, movements, restriction, ledger.rules)
            if breach is None:
                continue
            touched = next(one for one in movements if restriction.touches(one, ledger.rules))
            column, length = _place(lines[placed.line - 1], (touched.name, *touched.aliases))
            says = f"{breach}, on the word of {restriction.by}"
            found.setdefault(
                (placed.line, says),
                MistakeOut(line=placed.line, column=column + 1, length=length, message=says),
            )
    return list(found.values())


def _place(line: str, names: Iterable[str]) -> tuple[int, int]:
    """Where one of the names stands in a line; the words of the line if none is written out."""
    for name in names:
        at = re.search(re.escape(name), line, re.IGNORECASE)
        if at:
            return at.start(), at.end() - at.start()
    bare = line.strip()
    return line.index(bare), max(1, len(bare))
