"""Cues: what is said at a movement, to everybody or to one athlete."""

from __future__ import annotations

from flask import Response

from dialback.core.cues import OwnCue
from dialback.core.movements import fold
from dialback.store.cues import cues_for, house_cues
from dialback.web.beside import cue_notes, own_cue_notes
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.shapes.common import AthletePath
from dialback.web.shapes.cues import CuesBody, CuesOut, OwnCuesOut
from dialback.web.shapes.movements import MovementPath
from dialback.work import cues as work
from dialback.work.catalogue import the_movement

api = blueprint("cues", __name__, "/movements/<int:movement>/cues")
own_api = blueprint("own_cues", __name__, "/athletes/<int:athlete_id>/cues")


@api.get("", responses={200: CuesOut})
def movement_cues(path: MovementPath) -> Response:
    """The words of a movement."""
    return answer(_out(path.movement))


def _out(number: int) -> CuesOut:
    _, movement = the_movement(number)
    house = house_cues()
    cues = cues_for(movement, house)
    return CuesOut(cues=cues, is_own=fold(movement.name) in house, said=cue_notes(cues))


@api.put("", responses={200: CuesOut})
def save_cues(path: MovementPath, body: CuesBody) -> Response:
    """Give a movement the house's own words, or let those that ship hold again."""
    work.say_to_everybody(path.movement, body.cues)
    return answer(_out(path.movement))


@own_api.get("", responses={200: OwnCuesOut})
def list_own_cues(path: AthletePath) -> Response:
    """What one athlete is told, movement by movement."""
    return answer(OwnCuesOut(cues=own_cue_notes(the_athlete(path.athlete_id))))


@own_api.put("", responses={200: OwnCuesOut})
def save_own_cue(path: AthletePath, body: OwnCue) -> Response:
    """Tell one athlete something at a movement, before all else; nothing ends it."""
    return answer(
        OwnCuesOut(cues=own_cue_notes(work.say_to(desk().ledgers, path.athlete_id, body)))
    )
