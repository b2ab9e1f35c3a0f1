"""The verdict on an athlete's week: worked out once for a state, and kept.

A roster of four hundred is read in a moment because nothing of it is worked out that was worked
out before, whether since the server began or before it did.
"""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from datetime import date, timedelta
from functools import cache
from pathlib import Path
from threading import Lock
from typing import Final

from pydantic import ValidationError

import dialback.core
from dialback.core.audit import audit, compliance, sessions_done, sessions_unlogged
from dialback.core.breaks import as_planned_from, break_before
from dialback.core.figures import TOTAL_SETS
from dialback.core.hurts import unseen
from dialback.core.squads.spread import NEW_WEEKS, marks
from dialback.core.tally import Ledger
from dialback.core.verdict import news, verdict
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, House, Ledgers
from dialback.store.verdicts import keep_verdicts, kept_verdicts
from dialback.web.columns import COLUMNS, last_week_done, week_column
from dialback.web.shapes.roster import (
    CauseMark,
    FindingMark,
    HurtMark,
    Judged,
    NewsMark,
    SpreadMark,
)

KNOWN: Final = 5_000
"""So many verdicts are at hand; the one that nobody asked for longest is let go first."""


class Verdicts:
    """Verdicts by athlete, each beside the state of the data it was worked out of."""

    def __init__(self) -> None:
        self._known: OrderedDict[tuple[int, Week], tuple[str, Judged]] = OrderedDict()
        self._unkept: dict[int, tuple[str, Judged]] = {}
        self._stored: dict[int, tuple[str, str]] | None = None
        self._lock = Lock()

    def at_hand(self, athlete: Athlete, owner: House, week: Week, today: date) -> Judged | None:
        """The verdict on the athlete's week, where it is known already."""
        state = _state(athlete, owner, week, today)
        with self._lock:
            if self._stored is None:
                self._stored = dict(kept_verdicts())
            known = self._known.get((athlete.id, week))
            if known is not None and known[0] == state:
                self._known.move_to_end((athlete.id, week))
                return known[1]
            stored = self._stored.pop(athlete.id, None)
            found = _read(stored[1]) if stored is not None and stored[0] == state else None
            if found is not None:
                self._known[athlete.id, week] = (state, found)
        return found

    def of(
        self, ledgers: Ledgers, athlete: Athlete, owner: House, week: Week, today: date
    ) -> Judged:
        """The verdict on the athlete's week; of one that is not over, on its plan."""
        found = self.at_hand(athlete, owner, week, today)
        if found is None:
            state = _state(athlete, owner, week, today)
            found = _judged(ledgers.of(athlete, owner), week, today)
            with self._lock:
                self._known[athlete.id, week] = (state, found)
                while len(self._known) > KNOWN:
                    self._known.popitem(last=False)
                if week == Week.to_audit(today):
                    self._unkept[athlete.id] = (state, found)
        return found

    def keep(self) -> None:
        """Keep what was worked out since the last time; for a thread that nobody waits for."""
        with self._lock:
            new, self._unkept = self._unkept, {}
        if new:
            keep_verdicts(
                (athlete, state, found.model_dump_json()) for athlete, (state, found) in new.items()
            )


def _state(athlete: Athlete, owner: House, week: Week, today: date) -> str:
    # From the day after its Sunday on, nothing of a week is still to come.
    as_of = min(today, week.sunday + timedelta(days=1))
    return f"{athlete.change}/{owner.change}/{week}/{as_of}/{code_mark()}"


def _read(body: str) -> Judged | None:
    """A verdict that was kept; ``None`` for one that an older program kept in another form."""
    try:
        return Judged.model_validate_json(body)
    except ValidationError:
        return None


@cache
def code_mark() -> str:
    """What tells the rules of this program from those of another version of it."""
    root = Path(dialback.core.__path__[0])
    told = "".join(
        f"{path.name}{path.stat().st_size}{path.stat().st_mtime_ns}"
        for path in sorted(root.rglob("*.py"))
    )
    return hashlib.sha256(told.encode()).hexdigest()[:16]


def _judged(ledger: Ledger, week: Week, today: date) -> Judged:
    latest = Week.to_audit(today)
    basis: Basis = "completed" if week <= latest else "planned"
    # Beyond the week that runs a plan is judged as if the plans before it were done.
    ahead = as_planned_from(ledger, latest.plus(1)) if week > latest.plus(1) else ledger
    last = last_week_done(ledger, week)
    result = audit(ahead, week, basis, as_of=today)
    found = verdict(result)
    done = sessions_done(ledger, week)
    return Judged(
        week=str(week),
        last_log=str(last) if last is not None and last < week else None,
        hurts=[
            HurtMark(day=hurt.day.isoformat(), words=hurt.words)
            for hurt in unseen(
                ledger, week.plus(1).monday, max(today, week.sunday) + timedelta(days=1)
            )
        ],
        findings=[
            FindingMark(
                key=finding.key, level=finding.level, value=finding.value, limit=finding.limit
            )
            for finding in found.findings
        ],
        causes=[
            CauseMark(sentence=cause.sentence, findings=list(places))
            for cause, places in found.causes
        ],
        news=[
            NewsMark(
                kind=line.kind, level=line.level, sentence=line.sentence, keys=list(line.explains)
            )
            for line in news(result)
        ],
        columns=[
            week_column(ledger, week.plus(back), TOTAL_SETS) for back in range(1 - COLUMNS, 1)
        ],
        marks={
            measure: [
                None
                if mark is None
                else SpreadMark(value=mark.value, change=mark.change, above=mark.above)
                for mark in several
            ]
            for measure, several in marks(ahead, week, basis).items()
        },
        is_new=ledger.first_trained is None or ledger.first_trained > week.plus(-NEW_WEEKS),
        is_back=break_before(ahead, week) is not None,
        share_done=compliance(ledger, week)["sets"].share,
        sessions_planned=int(done.planned),
        sessions_done=int(done.done),
        unlogged=sessions_unlogged(ledger, week),
    )
