"""Decisions: what a coach has said of what stands, for how long; taken back and reinstated."""

from __future__ import annotations

from datetime import date

from flask import Response

from dialback.core.verdict.decided import words_of
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete
from dialback.store.decisions import numbered_decisions
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete, the_day
from dialback.web.shapes.common import AthletePath
from dialback.web.shapes.decisions import DecisionOut, DecisionPath, DecisionsOut, SeenBody
from dialback.work import judging as work

api = blueprint("decisions", __name__, "/athletes/<int:athlete_id>/decisions")


@api.get("", responses={200: DecisionsOut})
def list_decisions(path: AthletePath) -> Response:
    """What has been decided about an athlete, what has ended too."""
    return answer(_listed(the_athlete(path.athlete_id)))


@api.post("/pain", responses={200: DecisionsOut})
def see_pain(path: AthletePath, body: SeenBody) -> Response:
    """Note that somebody has looked at what hurt, and what follows from it."""
    day = the_day(body.day, "day")
    shared = desk()
    work.see_pain(shared.ledgers, path.athlete_id, day, body.movement, body.follows, shared.today())
    return answer(_listed(the_athlete(path.athlete_id)))


def _listed(athlete: Athlete) -> DecisionsOut:
    week = Week.of(desk().today())
    return DecisionsOut(
        decisions=[
            DecisionOut(id=number, holds=one.holds_in(week), words=words_of(one), decision=one)
            for number, one in numbered_decisions(athlete).items()
        ]
    )


@api.post("/<int:decision>/end", responses={200: DecisionsOut})
def end_decision(path: DecisionPath) -> Response:
    """Take a decision back from today on. It stays on record."""
    return _end(path, desk().today())


@api.post("/<int:decision>/restore", responses={200: DecisionsOut})
def restore_decision(path: DecisionPath) -> Response:
    """Put it back in force."""
    return _end(path, None)


def _end(path: DecisionPath, on: date | None) -> Response:
    return answer(_listed(work.end_decision(path.athlete_id, path.decision, on)))
