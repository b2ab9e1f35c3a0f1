"""The draft of a week's plan: kept, thrown away, published."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date, timedelta
from typing import Any

from dialback.book.errors import BadInputError, Problem
from dialback.core.movements import MovementTable, UnknownMovementError
from dialback.core.plans.draft import DraftSession, as_sessions
from dialback.core.plans.kept import kept_in
from dialback.core.sessions import Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.store.athletes import Ledgers, athlete_on_roster, publish
from dialback.store.models import Athlete, Draft
from dialback.store.unit import unit
from dialback.work.errors import StaleError, UnfitError


def stored_draft(athlete: Athlete, week: Week) -> Draft | None:
    """The stored draft of a week."""
    found: Draft | None = Draft.get_or_none(Draft.athlete == athlete, Draft.week == str(week))
    return found


def keep(
    ledgers: Ledgers,
    number: int,
    week: Week,
    sessions: Sequence[DraftSession],
    shape: Sequence[DraftSession],
    start_total: int,
    revision: int,
) -> int:
    """Keep the draft; the new revision. A stale one is refused and nothing is stored."""
    with unit():
        athlete = athlete_on_roster(number)
        check(sessions, week, ledgers.of(athlete).movements)
        row = _fresh(athlete, week, revision)
        stored, scaled = _plain(sessions), _plain(shape)
        if row is None:
            row = Draft.create(
                athlete=athlete, week=str(week), sessions=stored, shape=scaled,
                start_total=start_total,
            )  # fmt: skip
        else:
            row.sessions, row.shape = stored, scaled
            row.revision += 1
            row.save()
        return int(row.revision)


def throw_away(number: int, week: Week, revision: int) -> None:
    """Throw the stored draft away: the plan as published stands again."""
    with unit():
        row = _fresh(athlete_on_roster(number), week, revision)
        if row is not None:
            row.delete_instance()


def publish_draft(
    ledgers: Ledgers,
    number: int,
    week: Week,
    sessions: Sequence[DraftSession],
    revision: int,
    today: date,
) -> None:
    """Make the draft the week's plan."""
    if not as_sessions(sessions):
        raise UnfitError("empty-plan", "The draft has no set: add one first.")
    with unit():
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        check(sessions, week, ledger.movements)
        _fresh(athlete, week, revision)
        publish(athlete, week, sessions, today, _texts(ledger, week))


def _texts(ledger: Ledger, week: Week) -> dict[tuple[Set, ...], str]:
    """The texts of this week's plans and of those before it, by the sets that they come to.

    A session that was not turned is published with the very text that it was written as.
    """
    return {
        plan.session.sets: plan.typed
        for at in (week.plus(-1), week)
        for plan in kept_in(ledger, "planned", at)
        if plan.typed is not None
    }


def _fresh(athlete: Athlete, week: Week, revision: int) -> Draft | None:
    """The stored draft, if it is the one that the change builds on."""
    row = stored_draft(athlete, week)
    if (row.revision if row else 0) != revision:
        raise StaleError("This draft")
    return row


def _plain(sessions: Sequence[DraftSession]) -> list[dict[str, Any]]:
    return [session.model_dump(mode="json", exclude_defaults=True) for session in sessions]


def check(sessions: Sequence[DraftSession], week: Week, movements: MovementTable) -> None:
    """Refuse days outside the week and movements that nobody knows, with their place."""
    problems = []
    for at, day in enumerate(sessions):
        if Week.of(day.date) != week:
            last = week.monday + timedelta(days=6)
            problems.append(
                Problem(
                    f"sessions[{at}].date",
                    f"{day.date} is not in {week} ({week.monday} to {last})",
                )
            )
        for number, line in enumerate(day.lines):
            place = f"sessions[{at}].lines[{number}]"
            problems += [
                Problem(f"{place}.units[{nth}][{turn}].exercise", unknown)
                for nth, unit in enumerate(line.units)
                for turn, a_set in enumerate(unit)
                for unknown in _unknown(a_set, movements)
            ]
    if problems:
        raise BadInputError(problems)


def _unknown(a_set: Set, movements: MovementTable) -> Iterator[str]:
    for name, _ in a_set.named_moves():
        try:
            movements[name]
        except UnknownMovementError as unknown:
            yield str(unknown)
