"""Roster: all athletes, those who need the coach first on top."""

from __future__ import annotations

import json
from dataclasses import asdict

from flask import Response

from dialback.core.newcomers import Newcomer
from dialback.core.weeks import Week
from dialback.store.athletes import athletes
from dialback.web.blueprint import blueprint
from dialback.web.counting import count
from dialback.web.desk import answer, desk, named_attachment, the_athlete, the_day
from dialback.web.document import file_answer
from dialback.web.shapes.common import AthletePath, Done
from dialback.web.shapes.roster import (
    AboutBody,
    Archived,
    ArchivedOut,
    Deleted,
    ForGoodBody,
    NewcomerOut,
    NewcomersBody,
    NewcomersOut,
    PrintQuery,
    Roster,
    RosterRow,
    TakenOn,
)
from dialback.work import persons
from dialback.work import roster as work
from dialback.work.reporting import hand_outs

api = blueprint("roster", __name__)


@api.get("/roster", responses={200: Roster})
def roster() -> Response:
    """Every athlete with what the last audited week needs.

    Whoever cannot be counted in a moment is waiting: ask again, and more of them are counted.
    """
    today = desk().today()
    week = Week.to_audit(today)
    counted = count(athletes(), week)
    rows = [one.row for one in counted.people]
    rows.sort(key=_urgency)
    return answer(
        Roster(
            week=str(week),
            monday=week.monday.isoformat(),
            sunday=week.sunday.isoformat(),
            today=today.isoformat(),
            athletes=rows,
            waiting=counted.waiting,
            damaged=desk().damage.words(),
        )
    )


def _urgency(row: RosterRow) -> tuple[bool, bool, int, int, str]:
    """What hurts first, then who has news, then by what is open."""
    quiet = row.first_kind in (None, "open", "standing", "eased")
    return not row.hurt, quiet, -row.counts.high, -row.counts.caution, row.name


@api.get("/print", responses={200: file_answer("application/pdf", "A page for each athlete")})
def print_plans(query: PrintQuery) -> Response:
    """What several are to do in a week, as one PDF: a page for each, in the order asked for."""
    week = Week.of(the_day(query.day, "day"))
    numbers = list(dict.fromkeys(int(number) for number in query.athletes.split(",")))
    people = [the_athlete(number) for number in numbers]
    pdf = hand_outs(desk().ledgers, people, week, desk().today(), cues=query.cues)
    whose = people[0].name if len(people) == 1 else "plans"
    return named_attachment(pdf, whose, "application/pdf", f"{week}.pdf", shown=True)


@api.post("/athletes/read", responses={200: NewcomersOut})
def read_people(body: NewcomersBody) -> Response:
    """People as they were pasted or corrected, with what is wrong of each; nothing is stored."""
    found = work.look_at(_people(body))
    return answer(NewcomersOut(people=[NewcomerOut(**asdict(newcomer)) for newcomer in found]))


@api.post("/athletes", responses={201: TakenOn})
def take_people_on(body: NewcomersBody) -> Response:
    """Take people on, all of them or none."""
    return answer(TakenOn(athletes=[athlete.id for athlete in work.take_on(_people(body))]), 201)


def _people(body: NewcomersBody) -> list[Newcomer]:
    if body.people is None:
        return work.pasted(body.text)
    return [
        Newcomer(
            one.line,
            " ".join(one.name.split()),
            one.bodyweight_kg,
            one.note.strip(),
            one.squad.strip(),
            one.level,
            one.born,
        )
        for one in body.people
    ]


@api.put("/athletes/<int:athlete_id>", responses={200: Done})
def describe_athlete(path: AthletePath, body: AboutBody) -> Response:
    """Give an athlete another name, usual body weight, note, squad, level or year of birth."""
    about = work.About(
        body.name, body.bodyweight_kg, body.note.strip(), body.squad.strip(), body.level, body.born
    )
    work.describe(path.athlete_id, about)
    return answer(Done())


@api.delete("/athletes/<int:athlete_id>", responses={200: Done})
def remove_athlete(path: AthletePath) -> Response:
    """Take an athlete off the roster; nothing is lost."""
    work.take_off(path.athlete_id, desk().today())
    return answer(Done())


@api.post("/athletes/<int:athlete_id>/restore", responses={200: Done})
def restore_athlete(path: AthletePath) -> Response:
    """Put an athlete back on the roster."""
    work.put_back(path.athlete_id)
    return answer(Done())


@api.get("/athletes/archived", responses={200: Archived})
def list_archived() -> Response:
    """Who was taken off the roster, the latest first."""
    return answer(
        Archived(
            athletes=[
                ArchivedOut(id=number, name=name, day=day.isoformat())
                for number, name, day in persons.archived()
            ]
        )
    )


@api.get(
    "/athletes/<int:athlete_id>/everything",
    responses={200: file_answer("application/json", "All that is kept of a person")},
)
def export_everything(path: AthletePath) -> Response:
    """All that is kept of somebody, archived or not: the book, and every row of every table."""
    name, document = persons.everything(desk().ledgers, path.athlete_id)
    content = json.dumps(document, ensure_ascii=False, indent=1).encode()
    return named_attachment(content, name, "application/json", "everything.json")


@api.post("/athletes/<int:athlete_id>/delete", responses={200: Deleted})
def delete_for_good(path: AthletePath, body: ForGoodBody) -> Response:
    """Delete all that is kept of somebody who is archived. It cannot be taken back."""
    return answer(Deleted(rows=persons.delete_for_good(path.athlete_id, body.name)))
