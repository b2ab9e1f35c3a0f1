"""Log: planned beside done, set by set, and what differed."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import timedelta

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.audit import matches_of
from dialback.core.duration import estimated_duration
from dialback.core.maxima import Maxima
from dialback.core.notation import Mistake, amended, read
from dialback.core.notation.expand import placed_sets
from dialback.core.plans.kept import Kept, kept_in
from dialback.core.reconcile import SessionMatch, SetMatch, by_session
from dialback.core.sense import Knowing, doubt_of
from dialback.core.sessions import MAX_SETS, MISSED_WORDS, Missed, Session
from dialback.core.tally import Ledger, four_measures, tally
from dialback.core.versions import apart
from dialback.core.vocabulary import BASES
from dialback.core.weeks import Week
from dialback.core.words import capital, describe, movement_text
from dialback.store.habits import habits_of
from dialback.store.logs import Change, Waiting, waiting_beside, who_logged
from dialback.web.beside import doubts_of, mistakes_of
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete, the_week
from dialback.web.shapes.common import Done, LogOut, WeekPath, WholeText
from dialback.web.shapes.log import (
    AmendBody,
    Amended,
    ApartOut,
    DecideBody,
    LogBody,
    LogDoubt,
    LoggedBy,
    LogLine,
    LogOther,
    LogPath,
    LogSaved,
    LogSession,
    LogWeek,
    MissedBody,
    MissedChoice,
    PlanOut,
    VersionOut,
    VersionPath,
    WrittenDone,
)
from dialback.work import logs as work

api = blueprint("log", __name__, "/athletes/<int:athlete_id>/weeks/<week>/log")
logs_api = blueprint("logs", __name__, "/athletes/<int:athlete_id>/logs")
versions_api = blueprint("versions", __name__, "/athletes/<int:athlete_id>/versions")


@api.get("", responses={200: LogWeek})
def log_week(path: WeekPath) -> Response:
    """The week's sessions, planned and done side by side."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    today = desk().today()
    matches = matches_of(ledger, week)
    # A session may have been done for a plan of another week.
    weeks = {week} | {Week.of(plan.date) for match in matches for plan in match.plans}
    kept = {
        id(one.session): one
        for basis in BASES
        for each in weeks
        for one in kept_in(ledger, basis, each)
    }
    by = who_logged([one.client_id for one in kept.values()])
    return answer(
        LogWeek(
            missed_reasons=[MissedChoice(why=why, says=says) for why, says in MISSED_WORDS.items()],
            today=today.isoformat(),
            days=[(week.monday + timedelta(days=day)).isoformat() for day in range(7)],
            sessions=[
                _session(
                    ledger,
                    one,
                    kept.get(id(one.plans[0])) if one.plan is not None else None,
                    kept.get(id(one.done)),
                    by,
                    ahead=one.done is None and one.plan is not None and one.plan.date > today,
                )
                for match in matches
                for one in by_session(match)
            ],
        )
    )


@api.put("/missed", responses={200: Done})
def why_missed(path: WeekPath, body: MissedBody) -> Response:
    """Say why a planned session was not done, or take that back."""
    the_week(path.week)
    missed = None if body.why is None else Missed(why=body.why, note=body.note.strip())
    work.say_why_missed(path.athlete_id, body.plan, missed)
    return answer(Done())


def _session(
    ledger: Ledger,
    match: SessionMatch,
    plan: Kept | None,
    log: Kept | None,
    by: dict[str, tuple[str, str]],
    *,
    ahead: bool,
) -> LogSession:
    sums = []
    for one in (match.plan, match.done):
        sums.append(four_measures(tally(ledger.measure([one])) if one else {}))
    logged = by.get(log.client_id) if log else None
    return LogSession(
        plan=plan_out(ledger, plan, match.plan) if plan else None,
        log=LogOut(client_id=log.client_id, revision=log.revision, session=log.session)
        if log
        else None,
        by=LoggedBy(who=logged[0], at=logged[1]) if logged else None,
        ahead=ahead,
        lines=[_doubted(line, match.done, ledger) for line in _lines(match.sets)],
        notes=[f"{capital(more.words)}." for more in match.extra_rounds],
        planned=sums[0],
        done=sums[1],
        versions=[]
        if log is None
        else [_version(ledger, version, log.session) for version in waiting_beside(log.number)],
    )


def _version(ledger: Ledger, version: Waiting, stored: Session) -> VersionOut:
    return VersionOut(
        id=version.number,
        day=version.day.isoformat(),
        session=version.session,
        apart=[
            ApartOut(what=one.what, stored=one.stored, other=one.other)
            for one in apart(stored, version.session, ledger.movements)
        ],
    )


def plan_out(ledger: Ledger, plan: Kept, together: Session | None = None) -> PlanOut:
    """A planned session with its sets; ``together`` with others that were done in the same one."""
    session = together or plan.session
    minutes = estimated_duration(ledger.measure([session]), ledger.rules).total_s / 60
    return PlanOut(
        id=plan.number,
        date=plan.day.isoformat(),
        title=session.title,
        minutes=minutes,
        sets=list(session.sets),
        missed=plan.session.missed,
    )


def _lines(matches: Iterable[SetMatch]) -> list[LogLine]:
    """A line for each planned and each done set, once: sides of one stand in the line of it."""
    lines: list[LogLine] = []
    for match_ in matches:
        line = _line(match_)
        same = next((one for one in lines if _is_of_same_set(one, line)), None)
        if same is None:
            lines.append(line)
            continue
        both_done = same.done_at is not None and line.done_at is not None
        if both_done and same.done_at != line.done_at:
            # The other side of a planned set, done as a set of its own.
            lines.append(line.model_copy(update={"at": None, "planned": ""}))
        elif same.done_at is None and line.done_at is not None:
            index = lines.index(same)
            lines[index] = _told_with(line.model_copy(update={"at": same.at}), same)
        else:
            lines[lines.index(same)] = _told_with(same, line)
    return lines


def _is_of_same_set(one: LogLine, other: LogLine) -> bool:
    return (one.at is not None and one.at == other.at) or (
        one.done_at is not None and one.done_at == other.done_at
    )


def _told_with(line: LogLine, other: LogLine) -> LogLine:
    if other.kind == "as planned":
        return line
    words = "; ".join(filter(None, (line.words, other.words)))
    return line.model_copy(update={"kind": "changed", "words": words})


def _line(match_: SetMatch) -> LogLine:
    shown = match_.done if match_.plan is None else match_.plan
    assert shown is not None  # noqa: S101 - a match has one of them
    return LogLine(
        kind=match_.kind,
        movement=movement_text(shown),
        part=shown.part or "",
        planned=describe(match_.plan) if match_.plan else "",
        done=describe(match_.done) if match_.done else "",
        words=match_.words,
        at=match_.at,
        done_at=match_.done_at,
        doubt=None,
    )


def _doubted(line: LogLine, done: Session | None, ledger: Ledger) -> LogLine:
    """A line with what is doubtful of the set that was done; a plan was asked about as a plan."""
    if done is None or line.done_at is None or line.kind == "as planned":
        return line
    found = doubt_of(done.sets[line.done_at], Knowing(ledger, done.date))
    if found is None:
        return line
    others = [LogOther(says=describe(other), set=other) for other in found.others]
    return line.model_copy(update={"doubt": LogDoubt(why=found.why, others=others)})


@api.post("/amend", responses={200: Amended})
def amend_set(path: WeekPath, body: AmendBody) -> Response:
    """A set with what a few words say instead; nothing is stored."""
    ledger = desk().ledgers.of(the_athlete(path.athlete_id))
    setting = Maxima(ledger, the_week(path.week).monday).setting()
    found = amended(body.set, body.text, ledger.movements, setting)
    if isinstance(found, Mistake):
        raise bad_input("text", found.message)
    return answer(Amended(set=found[0], count=found[1]))


@api.post("/read", responses={200: WrittenDone})
def read_done(path: WeekPath, body: WholeText) -> Response:
    """A text in the notation, read as what was done; nothing is stored."""
    athlete = the_athlete(path.athlete_id)
    ledger = desk().ledgers.of(athlete)
    monday = the_week(path.week).monday
    reading = read(body.text, ledger.movements, day=monday)
    setting = Maxima(ledger, monday).setting()
    habits = habits_of(athlete)
    sets = [placed.set for session in reading.sessions for placed in placed_sets(session, setting)]
    if len(sets) > MAX_SETS:
        raise bad_input(
            "text", f"{len(sets)} sets are more than a session: at most {MAX_SETS} are taken"
        )
    return answer(
        WrittenDone(
            sets=sets,
            mistakes=mistakes_of(body.text, reading, habits),
            doubts=doubts_of(body.text, reading, ledger, monday, habits),
        )
    )


@logs_api.put("/<client_id>", responses={200: LogSaved})
def keep_log(path: LogPath, body: LogBody) -> Response:
    """Keep a log. Sent again, it is kept once; over a newer one, both are kept."""
    change = Change(
        path.client_id, body.change, body.revision, body.session, body.plan, tuple(body.after)
    )
    saved = work.keep(desk().ledgers, path.athlete_id, change, desk().today())
    return answer(
        LogSaved(revision=saved.revision, client_id=saved.client_id, both_kept=saved.both_kept)
    )


@logs_api.post("/<client_id>/remove", responses={200: Done})
def remove_log(path: LogPath) -> Response:
    """Take a log out of the book; it can be put back."""
    work.take_out(path.athlete_id, path.client_id, desk().today())
    return answer(Done())


@logs_api.post("/<client_id>/restore", responses={200: Done})
def restore_log(path: LogPath) -> Response:
    """Put a log back that was taken out."""
    work.take_out(path.athlete_id, path.client_id, None)
    return answer(Done())


@versions_api.post("/<int:version>/decide", responses={200: Done})
def decide_version(path: VersionPath, body: DecideBody) -> Response:
    """Decide between the stored log and the one that arrived beside it."""
    work.decide_between(path.athlete_id, path.version, keep_other=body.keep == "other")
    return answer(Done())
