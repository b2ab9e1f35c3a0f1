"""Roster: all athletes, those who need the coach first on top."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping

from flask import Response

from dialback.core.audit import LINKED_WEEKS, compliance, sessions_done
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, athletes, house
from dialback.store.judgements import Acceptances, Signed, all_acceptances, latest_signatures
from dialback.store.logs import undecided
from dialback.web.blueprint import blueprint
from dialback.web.columns import COLUMNS, last_week_done, week_column
from dialback.web.desk import answer, desk, judged_week
from dialback.web.shapes.common import Counts
from dialback.web.shapes.roster import LogPlace, Roster, RosterRow
from dialback.web.sheet import causes_out, finding_out, verdict

api = blueprint("roster", __name__)

BEFORE = 16
"""Weeks that the judgement of a week may look back: two baselines, two spans of stalled lifts."""
HURTS = ("pain", "restriction")
"""Findings whose athlete stands first, whatever the count."""


@api.get("/roster", responses={200: Roster})
def roster() -> Response:
    """Every athlete with what the last audited week needs."""
    today = desk().today()
    week = Week.to_audit(today)
    with desk().counting:
        rows = _rows(week)
    rows.sort(key=lambda row: (not row.hurt, -row.counts.high, -row.counts.caution, row.name))
    return answer(
        Roster(
            week=str(week),
            monday=week.monday.isoformat(),
            sunday=week.sunday.isoformat(),
            today=today.isoformat(),
            athletes=rows,
        )
    )


def _rows(week: Week) -> list[RosterRow]:
    owner = house()
    accepted = all_acceptances("completed")
    signed = latest_signatures()
    rows = []
    waiting = undecided()
    for athlete in athletes():
        ledger = desk().ledgers.preload(athlete, week.plus(-BEFORE), week.plus(LINKED_WEEKS), owner)
        log = waiting.get(athlete.id)
        place = LogPlace(week=str(Week.of(log[0])), session=log[1]) if log else None
        rows.append(_row(athlete, ledger, week, accepted, signed.get(athlete.id), place))
    return rows


def _row(
    athlete: Athlete,
    ledger: Ledger,
    latest: Week,
    accepted: Mapping[tuple[int, Week], Acceptances],
    signed: Signed | None,
    undecided_log: LogPlace | None,
) -> RosterRow:
    week = last_week_done(ledger, latest)
    result = judged_week(ledger, week)
    found = verdict(result)
    known = accepted.get((athlete.id, week), {})
    findings = [finding_out(finding, known) for finding in found.findings]
    causes = causes_out(found, findings)
    levels = Counter("accepted" if one.accepted else one.level for one in causes)
    open_causes = [one for one in causes if not one.accepted]
    hurts = [one for one in open_causes if any(
        findings[at].code in HURTS and not findings[at].accepted for at in one.findings
    )]  # fmt: skip
    # What hurts comes first, however much follows from something else.
    first = next(iter([*hurts, *open_causes]), None)
    columns = [latest.plus(back) for back in range(1 - COLUMNS, 1)]
    done = sessions_done(ledger, week)
    return RosterRow(
        id=athlete.id,
        name=athlete.name,
        note=athlete.note,
        week=str(week),
        behind=week < latest,
        counts=Counts(
            high=levels["high"],
            caution=levels["caution"],
            note=levels["note"],
            accepted=levels["accepted"],
        ),
        hurt=bool(hurts),
        first=first.sentence if first else None,
        follow=len(first.findings) if first else 0,
        columns=[week_column(ledger, one, "totals/sets") for one in columns],
        share_done=compliance(ledger, week)["sets"].share,
        sessions_planned=int(done.planned),
        sessions_done=int(done.done),
        signed_week=str(signed.week) if signed else None,
        signed_day=signed.day.isoformat() if signed else None,
        undecided=undecided_log,
    )
