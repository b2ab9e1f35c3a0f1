"""Athletes counted: the verdict on a week of each, with what the coach has said of it since."""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from dialback.core.findings import BY_CODE
from dialback.core.findings.finding import has_grown
from dialback.core.hurts import LATELY
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
from dialback.web.desk import desk
from dialback.web.shapes.common import Counts
from dialback.web.shapes.roster import FindingMark, Judged, LogPlace, RosterRow, Waiting

COUNTING_S: Final = 2.0
"""So long an answer counts on; who is not counted by then is told to be waiting."""


def count_ahead() -> bool:
    """Count the athletes' last weeks before anybody asks; whether some are left to count."""
    return bool(count(athletes(), Week.to_audit(desk().today())).waiting)


@dataclass(frozen=True, slots=True)
class Counted:
    """An athlete with the verdict on the week, and as the roster shows it."""

    athlete: Athlete
    judged: Judged
    row: RosterRow


@dataclass(frozen=True, slots=True)
class Counting:
    """Those who are counted, and those who are not yet."""

    people: list[Counted]
    waiting: list[Waiting]


def count(people: Sequence[Athlete], week: Week) -> Counting:
    """Count some athletes' weeks, as many of them as can be in a moment.

    Who asks meanwhile finds it done.
    """
    with desk().counting:
        return _count(people, week)


def _count(people: Sequence[Athlete], week: Week) -> Counting:
    shared, owner = desk(), house()
    today = shared.today()
    accepted, signed, undecided_logs = (
        all_acceptances("completed" if week <= Week.to_audit(today) else "planned"),
        latest_signatures(),
        undecided(),
    )
    decisions = decisions_of_all()
    at_hand = {
        athlete.id: shared.verdicts.at_hand(athlete, owner, week, today) for athlete in people
    }
    until = time.monotonic() + COUNTING_S * shared.patience
    open_today = not_logged_on(today)
    found, waiting = [], []
    anew = 0
    for athlete in people:
        judged = at_hand[athlete.id]
        # One at least, so that whoever asks again gets on.
        if judged is None and (not anew or time.monotonic() < until):
            judged = shared.verdicts.of(shared.ledgers, athlete, owner, week, today)
            anew += 1
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
        row = _row(athlete, judged, known, signed.get(athlete.id), place, today_open)
        found.append(Counted(athlete, judged, row))
    return Counting(found, waiting)


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
