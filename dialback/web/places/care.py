"""Care: circumstances that plans have to mind, on whose word; body weight with its days."""

from __future__ import annotations

from datetime import date

from flask import Response

from dialback.core.body import Weighing
from dialback.core.cautions import USUAL, Caution
from dialback.store.athletes import Athlete
from dialback.store.cautions import numbered_cautions, numbered_weighings
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete, the_day
from dialback.web.shapes.care import (
    CareOut,
    CautionOut,
    CautionPath,
    WeighBody,
    WeighingOut,
    WeighingPath,
)
from dialback.web.shapes.common import AthletePath
from dialback.work import care as work

api = blueprint("care", __name__, "/athletes/<int:athlete_id>/care")


@api.get("", responses={200: CareOut})
def list_care(path: AthletePath) -> Response:
    """What asks for care about an athlete, ended ones too, and what the athlete weighed."""
    return answer(_listed(the_athlete(path.athlete_id)))


def _listed(athlete: Athlete) -> CareOut:
    today = desk().today()
    return CareOut(
        today=today.isoformat(),
        cautions=[
            CautionOut(id=number, holds=one.holds(today), caution=one)
            for number, one in numbered_cautions(athlete).items()
        ],
        weighings=[
            WeighingOut(id=number, weighing=one)
            for number, one in numbered_weighings(athlete).items()
        ],
        usual=USUAL,
    )


@api.post("/cautions", responses={201: CareOut})
def add_caution(path: AthletePath, body: Caution) -> Response:
    """Note what asks for care, on somebody's word."""
    return answer(_listed(work.set_caution(path.athlete_id, body)), 201)


@api.post("/cautions/<int:caution>/end", responses={200: CareOut})
def end_caution(path: CautionPath) -> Response:
    """End it from today on. It stays on record."""
    return _end(path, desk().today())


@api.post("/cautions/<int:caution>/restore", responses={200: CareOut})
def restore_caution(path: CautionPath) -> Response:
    """Put it back in force."""
    return _end(path, None)


def _end(path: CautionPath, on: date | None) -> Response:
    return answer(_listed(work.end_caution(path.athlete_id, path.caution, on)))


@api.post("/weighings", responses={201: CareOut})
def add_weighing(path: AthletePath, body: WeighBody) -> Response:
    """Note what an athlete weighs from a day on."""
    weighing = Weighing(date=the_day(body.date), kg=body.kg)
    return answer(_listed(work.weigh(path.athlete_id, weighing)), 201)


@api.post("/weighings/<int:weighing>/remove", responses={200: CareOut})
def remove_weighing(path: WeighingPath) -> Response:
    """Take a weighing out that was a mistake."""
    return answer(_listed(work.remove_weighing(path.athlete_id, path.weighing)))
