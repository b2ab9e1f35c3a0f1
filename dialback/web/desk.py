"""What requests share, and the few steps that most of them begin or end with."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from pathlib import Path
from threading import Lock
from typing import cast
from urllib.parse import quote

from flask import Response, current_app, request
from pydantic import BaseModel

from dialback.book.errors import bad_input
from dialback.core.audit import Audit, audit
from dialback.core.movements import fold
from dialback.core.sessions import parse_day
from dialback.core.squads.adjusting import SquadPlan
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Basis
from dialback.core.weeks import YEARS, Week
from dialback.store.accounts import times_unlocked
from dialback.store.athletes import Athlete, Ledgers, athlete_on_roster
from dialback.web.damaged import Damaged
from dialback.web.jobs import Jobs
from dialback.web.kept import Kept
from dialback.web.shapes.common import RangeQuery
from dialback.web.shapes.squads import Common
from dialback.web.streams import Streams
from dialback.web.tries import Tries
from dialback.web.verdicts import Verdicts


@dataclass(frozen=True, slots=True)
class Desk:
    """What the requests of one app share: ledgers, the day's date, work under way."""

    ledgers: Ledgers
    today: Callable[[], date]
    jobs: Jobs = field(default_factory=Jobs)
    data: Path | None = None
    """The data file."""
    verdicts: Verdicts = field(default_factory=Verdicts)
    streams: Streams = field(default_factory=Streams)
    damage: Damaged = field(default_factory=Damaged)
    patience: float = 1.0
    """How many times its usual time an answer may take: where nobody waits, it comes out whole."""
    tries: Tries = field(default_factory=lambda: Tries(times_unlocked))
    common: Kept[Common] = field(default_factory=Kept)
    """What squads have in common."""
    plans: Kept[SquadPlan] = field(default_factory=Kept)
    """What squads' drafts start from."""
    counting: Lock = field(default_factory=Lock)
    """Held while the whole roster is counted: who comes meanwhile finds it done."""


def desk() -> Desk:
    """The desk of the app at hand."""
    return cast(Desk, current_app.extensions["dialback"])


def wanted() -> Callable[[], bool]:
    """Whether somebody still waits for the answer to the request at hand, to be asked later."""
    gone = request.environ.get("waitress.client_disconnected")
    return lambda: gone is None or not gone()


def the_athlete(number: int) -> Athlete:
    """The athlete of that number; refused with 404 if there is none on the roster."""
    return athlete_on_roster(number)


def the_week(text: str) -> Week:
    """The week of an address. Raises ``BadInputError`` if there is no such week."""
    try:
        return Week.parse(text)
    except ValueError as error:
        raise bad_input("week", str(error)) from None


def the_day(text: str, place: str = "date") -> date:
    """A day as a request gives it. Raises ``BadInputError`` for what is none."""
    try:
        return cast(date, parse_day(text))
    except ValueError as error:
        raise bad_input(place, str(error)) from None


def running_week() -> Week:
    """The first week that is not over; on a Sunday, when its week is audited, the next one."""
    return Week.to_audit(desk().today()).plus(1)


def planning_ledger(athlete: Athlete, week: Week) -> Ledger:
    """The ledger to judge a plan with: beyond the running week, as if the plans were done."""
    running = running_week()
    ledgers = desk().ledgers
    return ledgers.ahead(athlete, running) if week > running else ledgers.of(athlete)


def judged_week(ledger: Ledger, week: Week, basis: Basis = "completed") -> Audit:
    """The audit of a week as it stands today: plans from today on are not due yet."""
    return audit(ledger, week, basis, as_of=desk().today())


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as a JSON response."""
    return Response(model.model_dump_json(), status=status, content_type="application/json")


def attachment(
    content: bytes, athlete: Athlete, kind: str, ending: str, *, shown: bool = False
) -> Response:
    """A file to keep, called after the athlete; ``shown`` is one to look at and print first."""
    return named_attachment(content, athlete.name, kind, ending, shown=shown)


def named_attachment(
    content: bytes, of: str, kind: str, ending: str, *, shown: bool = False
) -> Response:
    """A file to keep, called after somebody."""
    response = Response(content, content_type=kind)
    name = quote("-".join(fold(of).split()) + f".{ending}")
    how = "inline" if shown else "attachment"
    response.headers["Content-Disposition"] = f"{how}; filename*=UTF-8''{name}"
    return response


def range_of(query: RangeQuery) -> tuple[date, date]:
    """The days of an export, both within; everything where one is left out."""
    first = the_day(query.first, "first") if query.first else date(YEARS.start, 1, 1)
    last = the_day(query.last, "last") if query.last else date(YEARS[-1], 12, 31)
    if last < first:
        raise bad_input("last", f"{last} lies before {first}: begin earlier, or end later")
    return first, last
