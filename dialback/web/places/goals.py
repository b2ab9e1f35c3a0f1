"""Goals of an athlete's movements, each against what was gained lately."""

from __future__ import annotations

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.goals import outlook
from dialback.core.sessions import Goal
from dialback.core.tally import Ledger
from dialback.core.words import describe
from dialback.store.athletes import Athlete
from dialback.store.goals import numbered_goals
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete, the_day
from dialback.web.shapes.common import AthletePath
from dialback.web.shapes.goals import GoalBody, GoalOut, GoalPath, Goals, GoalStep
from dialback.work import goals as work

api = blueprint("goals", __name__, "/athletes/<int:athlete_id>/goals")


@api.get("", responses={200: Goals})
def list_goals(path: AthletePath) -> Response:
    """The athlete's goals, and how each stands today."""
    return answer(_listed(the_athlete(path.athlete_id)))


def _listed(athlete: Athlete) -> Goals:
    ledger = desk().ledgers.of(athlete)
    return Goals(
        today=desk().today().isoformat(),
        goals=[_out(ledger, number, goal) for number, goal in numbered_goals(athlete).items()],
        movements=[movement.name for movement in ledger.movements if movement.counted],
    )


def _out(ledger: Ledger, number: int, goal: Goal) -> GoalOut:
    found = outlook(ledger, goal, desk().today())
    return GoalOut(
        id=number,
        movement=goal.movement,
        load_kg=goal.load_kg,
        reps=goal.reps,
        seconds=goal.seconds,
        by=goal.by.isoformat(),
        kind=found.kind,
        verdict=found.verdict,
        target=found.target,
        now=found.now,
        best=describe(found.best) if found.best else None,
        best_day=found.best_day.isoformat() if found.best_day else None,
        sentence=found.sentence,
        steps=[
            GoalStep(
                week=str(step.week), load_kg=step.load_kg, reps=step.reps, seconds=step.seconds
            )
            for step in found.steps
        ],
    )


@api.post("", responses={201: Goals})
def set_goal(path: AthletePath, body: GoalBody) -> Response:
    """Set a goal: a load for reps, reps or seconds, by a day."""
    shared = desk()
    by = the_day(body.by, "by")
    if (body.reps is None) == (body.seconds is None):
        raise bad_input("reps", "a goal has reps or seconds: give one of them")
    if by <= shared.today():
        raise bad_input("by", f"{by} is not ahead: choose a day after today")
    goal = Goal(
        movement=body.movement,
        load_kg=body.load_kg,
        reps=body.reps,
        seconds=body.seconds,
        since=shared.today(),
        by=by,
    )
    return answer(_listed(work.set_goal(shared.ledgers, path.athlete_id, goal)), 201)


@api.post("/<int:goal>/remove", responses={200: Goals})
def remove_goal(path: GoalPath) -> Response:
    """Take a goal away."""
    return answer(_listed(work.put(path.athlete_id, path.goal, desk().today())))


@api.post("/<int:goal>/restore", responses={200: Goals})
def restore_goal(path: GoalPath) -> Response:
    """Put a goal back that was taken away."""
    return answer(_listed(work.put(path.athlete_id, path.goal, None)))
