"""The verdict on each athlete's week to audit: worked out once for a state, and kept.

A roster of four hundred is read in a moment because nothing of it is worked out that was worked
out before, whether since the server began or before it did.
"""

from __future__ import annotations

import hashlib
from datetime import date, timedelta
from functools import cache
from pathlib import Path
from threading import Lock

from pydantic import ValidationError

import dialback.core
from dialback.core.audit import audit, compliance, sessions_done, sessions_unlogged
from dialback.core.figures import TOTAL_SETS
from dialback.core.hurts import unseen
from dialback.core.tally import Ledger
from dialback.core.verdict import news, verdict
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, House, Ledgers
from dialback.store.verdicts import keep_verdicts, kept_verdicts
from dialback.web.columns import COLUMNS, last_week_done, week_column
from dialback.web.shapes.roster import CauseMark, FindingMark, HurtMark, Judged, NewsMark


class Verdicts:
    """Verdicts by athlete, each beside the state of the data it was worked out of."""

    def __init__(self) -> None:
        self._known: dict[int, tuple[str, Judged]] = {}
        self._unkept: dict[int, tuple[str, Judged]] = {}
        self._stored: dict[int, tuple[str, str]] | None = None
        self._lock = Lock()

    def at_hand(self, athlete: Athlete, owner: House, week: Week, today: date) -> Judged | None:
        """The verdict on the athlete's week, where it is known already."""
        state = _state(athlete, owner, week, today)
        with self._lock:
            if self._stored is None:
                self._stored = dict(kept_verdicts())
            known = self._known.get(athlete.id)
            if known is not None and known[0] == state:
                return known[1]
            stored = self._stored.pop(athlete.id, None)
            found = _read(stored[1]) if stored is not None and stored[0] == state else None
            if found is not None:
                self._known[athlete.id] = (state, found)
        return found

    def of(
        self, ledgers: Ledgers, athlete: Athlete, owner: House, week: Week, today: date
    ) -> Judged:
        """The verdict on the athlete's week."""
        found = self.at_hand(athlete, owner, week, today)
        if found is None:
            state = _state(athlete, owner, week, today)
            found = _judged(ledgers.of(athlete, owner), week, today)
            with self._lock:
                self._unkept[athlete.id] = self._known[athlete.id] = (state, found)
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


def _judged(ledger: Ledger, latest: Week, today: date) -> Judged:
    week = latest
    last = last_week_done(ledger, latest)
    result = audit(ledger, week, as_of=today)
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
            week_column(ledger, latest.plus(back), TOTAL_SETS) for back in range(1 - COLUMNS, 1)
        ],
        share_done=compliance(ledger, week)["sets"].share,
        sessions_planned=int(done.planned),
        sessions_done=int(done.done),
        unlogged=sessions_unlogged(ledger, week),
    )
