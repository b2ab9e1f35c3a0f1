"""Roster: all athletes, those who need the coach first on top."""

from __future__ import annotations

import json
import time
from collections import Counter
from dataclasses import asdict

from flask import Response

from dialback.core.findings import BY_CODE
from dialback.core.findings.finding import has_grown
from dialback.core.hurts import LATELY
from dialback.core.newcomers import Newcomer
from dialback.core.verdict import worst_level
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, athletes, house
from dialback.store.decisions import decisions_of_all
from dialback.store.judgements import (
    Acceptances,
    Accepted,
    Signed,
    accepted_by,
    all_acceptances,
    latest_signatures,
)
from dialback.store.logs import undecided
from dialback.store.sessions import not_logged_on
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, named_attachment, the_athlete, the_day
from dialback.web.document import file_answer
from dialback.web.shapes.common import AthletePath, Counts, Done
from dialback.web.shapes.roster import (
    AboutBody,
    Archived,
    ArchivedOut,
    Deleted,
    FindingMark,
    ForGoodBody,
    Judged,
    LogPlace,
    NewcomerOut,
    NewcomersBody,
    NewcomersOut,
    PrintQuery,
    Roster,
    RosterRow,
    TakenOn,
    Waiting,
)
from dialback.work import persons
from dialback.work import roster as work
from dialback.work.reporting import hand_outs

api = blueprint("roster", __name__)

ROSTER_S = 2.0
"""So long an answer counts the roster on; who is not counted by then is told to be waiting."""


@api.get("/roster", responses={200: Roster})
def roster() -> Response:
    """Every athlete with what the last audited week needs.

    Whoever cannot be counted in a moment is waiting: ask again, and more of them are counted.
    """
    today = desk().today()
    week = Week.to_audit(today)
    with desk().counting:
        rows, waiting = _rows(week)
    rows.sort(key=_urgency)
    return answer(
        Roster(
            week=str(week),
            monday=week.monday.isoformat(),
            sunday=week.sunday.isoformat(),
            today=today.isoformat(),
            athletes=rows,
            waiting=waiting,
            damaged=desk().damage.words(),
        )
    )


def _urgency(row: RosterRow) -> tuple[bool, bool, int, int, str]:
    """What hurts first, then who has news, then by what is open."""
    quiet = row.first_kind in (None, "open", "standing", "eased")
    return not row.hurt, quiet, -row.counts.high, -row.counts.caution, row.name


def count_ahead() -> bool:
    """Count the athletes' last weeks before anybody asks; whether some are left to count."""
    with desk().counting:
        _, waiting = _rows(Week.to_audit(desk().today()))
    return bool(waiting)


def _rows(week: Week) -> tuple[list[RosterRow], list[Waiting]]:
    shared, owner = desk(), house()
    today = shared.today()
    accepted, signed, undecided_logs = (
        all_acceptances("completed"),
        latest_signatures(),
        undecided(),
    )
    decisions = decisions_of_all()
    everybody = athletes()
    at_hand = {
        athlete.id: shared.verdicts.at_hand(athlete, owner, week, today) for athlete in everybody
    }
    until = time.monotonic() + ROSTER_S * shared.patience
    open_today = not_logged_on(today)
    rows, waiting = [], []
    counted = 0
    for athlete in everybody:
        judged = at_hand[athlete.id]
        # One at least, so that whoever asks again gets on.
        if judged is None and (not counted or time.monotonic() < until):
            judged = shared.verdicts.of(shared.ledgers, athlete, owner, week, today)
            counted += 1
        if judged is None:
            waiting.append(
                Waiting(id=athlete.id, name=athlete.name, note=athlete.note, squad=athlete.squad)
            )
            continue
        of_week = Week.parse(judged.week)
        known = {
            **accepted_by(decisions.get(athlete.id, ()), of_week),
            **accepted.get((athlete.id, of_week), {}),
        }
        log = undecided_logs.get(athlete.id)
        place = LogPlace(week=str(Week.of(log[0])), session=log[1]) if log else None
        today_open = athlete.id in open_today
        rows.append(_row(athlete, judged, known, signed.get(athlete.id), place, today_open))
    return rows, waiting


def _row(
    athlete: Athlete,
    judged: Judged,
    accepted: Acceptances,
    signed: Signed | None,
    undecided_log: LogPlace | None,
    open_today: bool,
) -> RosterRow:
    is_open = [not _stands(accepted.get(finding.key), finding) for finding in judged.findings]
    levels: Counter[str] = Counter()
    hurting, still = False, None
    for cause in judged.causes:
        left = [judged.findings[at] for at in cause.findings if is_open[at]]
        levels[worst_level(mark.level for mark in left) if left else "accepted"] += 1
        hurting = hurting or any(BY_CODE[mark.key[0]].hurts for mark in left)
        still = still or (cause.sentence if left else None)
    standing = {
        finding.key for finding, open_ in zip(judged.findings, is_open, strict=True) if not open_
    }
    lines = [line for line in judged.news if not standing.issuperset(line.keys)]
    first = lines[0] if lines else None
    # What hurt since the week that is judged does not wait until that week is over.
    since = (desk().today() - LATELY).isoformat()
    hurt_since = next((one.words for one in judged.hurts if one.day > since), None)
    return RosterRow(
        id=athlete.id,
        name=athlete.name,
        note=athlete.note,
        squad=athlete.squad,
        week=judged.week,
        last_log=judged.last_log,
        counts=Counts(
            high=levels["high"],
            caution=levels["caution"],
            note=levels["note"],
            accepted=levels["accepted"],
        ),
        hurt=hurt_since is not None or hurting,
        first=hurt_since or (first.sentence if first else still),
        first_kind="new" if hurt_since else first.kind if first else "open" if still else None,
        more=len(lines) - (first is not None and hurt_since is None),
        columns=judged.columns,
        share_done=judged.share_done,
        sessions_planned=judged.sessions_planned,
        sessions_done=judged.sessions_done,
        unlogged=judged.unlogged,
        open_today=open_today,
        signed_week=str(signed.week) if signed else None,
        signed_day=signed.day.isoformat() if signed else None,
        undecided=undecided_log,
    )


def _stands(acceptance: Accepted | None, found: FindingMark) -> bool:
    """Whether an acceptance still stands: it lapses when the finding has grown."""
    return acceptance is not None and not has_grown(
        found.level, found.value, found.limit, acceptance.level, acceptance.value
    )


@api.get("/print", responses={200: file_answer("application/pdf", "A page for each athlete")})
def print_plans(query: PrintQuery) -> Response:
    """What several are to do in a week, as one PDF: a page for each, in the order asked for."""
    week = Week.of(the_day(query.day, "day"))
    numbers = list(dict.fromkeys(int(number) for number in query.athletes.split(",")))
    people = [the_athlete(number) for number in numbers]
    pdf = hand_outs(desk().ledgers, people, week, desk().today())
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
