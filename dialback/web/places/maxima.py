"""Maxima of an athlete: typed in with a day, or estimated; loads in per cent go by them."""

from __future__ import annotations

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.maxima import bests_before
from dialback.core.sessions import Maximum
from dialback.store.maxima import add_maxima, maximum_rows
from dialback.store.models import Athlete
from dialback.store.models import Maximum as Row
from dialback.store.unit import touch, unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.problems import not_found
from dialback.web.shapes import AthletePath, EstimateOut, MaximaOut, MaximumOut, MaximumPath

api = blueprint("maxima", __name__, "/athletes/<int:athlete_id>/maxima")


@api.get("", responses={200: MaximaOut})
def list_maxima(path: AthletePath) -> Response:
    """The maxima that were typed in, and the best estimates of the last eight weeks."""
    return answer(_listed(the_athlete(path.athlete_id)))


def _listed(athlete: Athlete) -> MaximaOut:
    today = desk().today()
    ledger = desk().ledgers.of(athlete)
    bests = bests_before(ledger, today)
    return MaximaOut(
        today=today.isoformat(),
        maxima=[
            MaximumOut(id=row.id, movement=row.movement, kg=row.kg, date=row.date.isoformat())
            for row in maximum_rows(athlete)
        ],
        estimates=[
            EstimateOut(movement=name, kg=best.kg, date=best.day.isoformat())
            for name, best in sorted(bests.items())
        ],
        movements=[movement.name for movement in ledger.movements],
    )


@api.post("", responses={201: MaximaOut})
def add_maximum(path: AthletePath, body: Maximum) -> Response:
    """Type a maximum in: the load of all implements that moves once, on that day."""
    with unit():
        athlete = the_athlete(path.athlete_id)
        movements = desk().ledgers.of(athlete).movements
        if body.movement not in movements:
            raise bad_input("movement", f"no movement is called {body.movement!r}")
        add_maxima(athlete, [body.model_copy(update={"movement": movements[body.movement].name})])
        touch(athlete)
    return answer(_listed(athlete), 201)


@api.post("/<int:maximum>/remove", responses={200: MaximaOut})
def remove_maximum(path: MaximumPath) -> Response:
    """Take a maximum away that was typed in by mistake."""
    with unit():
        athlete = the_athlete(path.athlete_id)
        gone = Row.delete().where(Row.id == path.maximum, Row.athlete == athlete).execute()
        if not gone:
            raise not_found(f"{athlete.name} has no such maximum.")
        touch(athlete)
    return answer(_listed(athlete))
