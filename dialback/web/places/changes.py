"""Changes: what was done to an athlete's plans, to take back and make again."""

from __future__ import annotations

from flask import Response

from dialback.store.changes import noted
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.shapes.changes import ChangeOut, ChangePath, Changes
from dialback.web.shapes.common import AthletePath, Done
from dialback.work import changes as work

api = blueprint("changes", __name__, "/athletes/<int:athlete_id>/changes")


@api.get("", responses={200: Changes})
def list_changes(path: AthletePath) -> Response:
    """What was done to the athlete's plans in the last thirty days, the latest first."""
    found = noted(the_athlete(path.athlete_id), desk().today())
    return answer(
        Changes(
            changes=[
                ChangeOut(id=one.number, at=one.at, says=one.says, undone=one.undone)
                for one in found
            ]
        )
    )


@api.post("/<int:change>/undo", responses={200: Done})
def undo_change(path: ChangePath) -> Response:
    """Take a change back: what came goes, what went comes back."""
    work.take_back(path.athlete_id, path.change, desk().today())
    return answer(Done())


@api.post("/<int:change>/redo", responses={200: Done})
def redo_change(path: ChangePath) -> Response:
    """Make a change again that was taken back."""
    work.make_again(path.athlete_id, path.change, desk().today())
    return answer(Done())
