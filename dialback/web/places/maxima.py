"""Maxima of an athlete: typed in with a day, or estimated; loads in per cent go by them."""

from __future__ import annotations

from flask import Response

from dialback.core.maxima import bests_before
from dialback.core.sessions import Maximum
from dialback.store.athletes import Athlete
from dialback.store.maxima import numbered_maxima
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.shapes.common import AthletePath
from dialback.web.shapes.maxima import EstimateOut, MaximaOut, MaximumOut, MaximumPath
from dialback.work import roster as work

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
            MaximumOut(id=number, movement=one.movement, kg=one.kg, date=one.date.isoformat())
            for number, one in numbered_maxima(athlete).items()
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
    athlete = work.type_maximum(desk().ledgers, path.athlete_id, body)
    return answer(_listed(athlete), 201)


@api.post("/<int:maximum>/remove", responses={200: MaximaOut})
def remove_maximum(path: MaximumPath) -> Response:
    """Take a maximum away that was typed in by mistake."""
    return answer(_listed(work.remove_maximum(path.athlete_id, path.maximum)))
