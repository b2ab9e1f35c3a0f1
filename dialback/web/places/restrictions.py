"""Restrictions: what an athlete is to avoid, on whose word; lifted by a person only."""

from __future__ import annotations

from datetime import date

from flask import Response

from dialback.core.restrictions import PHASES, Restriction
from dialback.core.vocabulary import MUSCLES, PATTERNS
from dialback.store.athletes import Athlete
from dialback.store.restrictions import numbered_restrictions
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.shapes.common import AthletePath
from dialback.web.shapes.restrictions import (
    LiftBody,
    RestrictionOut,
    RestrictionPath,
    RestrictionsOut,
)
from dialback.work import roster as work

api = blueprint("restrictions", __name__, "/athletes/<int:athlete_id>/restrictions")


@api.get("", responses={200: RestrictionsOut})
def list_restrictions(path: AthletePath) -> Response:
    """The athlete's restrictions, lifted ones too."""
    return answer(_listed(the_athlete(path.athlete_id)))


def _listed(athlete: Athlete) -> RestrictionsOut:
    today = desk().today()
    ledger = desk().ledgers.of(athlete)
    return RestrictionsOut(
        today=today.isoformat(),
        restrictions=[
            RestrictionOut(
                id=number,
                words=one.words(ledger.unit),
                holds=one.holds(today),
                over=one.is_over_by(today),
                last_day=one.last_day and one.last_day.isoformat(),
                restriction=one,
            )
            for number, one in numbered_restrictions(athlete).items()
        ],
        subjects={
            "movement": [movement.name for movement in ledger.movements],
            "pattern": list(PATTERNS),
            "muscle": list(MUSCLES),
            "tempo": list(PHASES),
        },
    )


@api.post("", responses={201: RestrictionsOut})
def add_restriction(path: AthletePath, body: Restriction) -> Response:
    """Set a restriction, on somebody's word."""
    athlete = work.set_restriction(desk().ledgers, path.athlete_id, body)
    return answer(_listed(athlete), 201)


@api.post("/<int:restriction>/lift", responses={200: RestrictionsOut})
def lift_restriction(path: RestrictionPath, body: LiftBody) -> Response:
    """Lift a restriction from today on. It stays on record, with who lifted it."""
    return _lift(path, desk().today(), body.by)


@api.post("/<int:restriction>/restore", responses={200: RestrictionsOut})
def restore_restriction(path: RestrictionPath) -> Response:
    """Put a restriction in force again that was lifted."""
    return _lift(path, None, None)


def _lift(path: RestrictionPath, on: date | None, by: str | None) -> Response:
    athlete = work.lift_restriction(path.athlete_id, path.restriction, on, by)
    return answer(_listed(athlete))
