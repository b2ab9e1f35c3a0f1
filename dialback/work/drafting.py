"""The draft of a week's plan: kept, thrown away, published."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from datetime import date, timedelta
from typing import Any

from dialback.book.errors import BadInputError, Problem
from dialback.core.maxima import Maxima
from dialback.core.movements import MovementTable, UnknownMovementError
from dialback.core.plans.draft import DraftSession, as_draft, as_sessions
from dialback.core.plans.kept import kept_in
from dialback.core.plans.publishing import changes_of, logged_days
from dialback.core.plans.rewriting import rewritten
from dialback.core.sessions import TEXT_KEY, Session, Set
from dialback.core.tally import Ledger
from dialback.core.weeks import Week, said
from dialback.core.words import listed
from dialback.store.athletes import Ledgers, athlete_on_roster
from dialback.store.changes import moved_by, moved_undo
from dialback.store.journal import last_entry
from dialback.store.models import Athlete, Draft
from dialback.store.plans import Moved, put_on_days
from dialback.store.unit import unit
from dialback.work.errors import ConflictError, StaleError, UnfitError


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
    with unit() as entry:
        athlete = athlete_on_roster(number)
        check(sessions, week, ledgers.of(athlete).movements)
        stored, scaled = _plain(sessions), _plain(shape)
        there = stored_draft(athlete, week)
        # Sent once more, for the answer to the first was lost: it stands as it is.
        if (
            there is not None
            and there.revision != revision
            and (there.sessions, there.shape) == (stored, scaled)
        ):
            return int(there.revision)
        row = _fresh(athlete, week, revision)
        if row is None:
            row = Draft.create(
                athlete=athlete,
                week=str(week),
                sessions=stored,
                shape=scaled,
                start_total=start_total,
            )
        else:
            row.sessions, row.shape = stored, scaled
            row.revision += 1
            row.save()
        entry.tell(f"Worked on the draft of {week.said}", athlete, same=f"draft {week}")
        return int(row.revision)


def throw_away(number: int, week: Week, revision: int) -> None:
    """Throw the stored draft away: the plan as published stands again."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        if stored_draft(athlete, week) is None:
            return
        row = _fresh(athlete, week, revision)
        if row is not None:
            row.delete_instance()
            entry.tell(f"Discarded the draft of {week.said}", athlete)


def publish_draft(
    ledgers: Ledgers,
    number: int,
    week: Week,
    sessions: Sequence[DraftSession],
    revision: int,
    logged: Collection[date],
    today: date,
) -> int:
    """Make the draft the week's plan; the number of the change, to take it back by.

    Days whose plan has a log stay as they are; ``logged`` are those that the coach was told of.
    """
    wanted = as_sessions(sessions)
    if not wanted:
        raise UnfitError("empty-plan", "The draft has no set: add one first.")
    with unit() as entry:
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        check(sessions, week, ledger.movements)
        fixed = logged_days(ledger, week)
        if done := _published_before(athlete, ledger, week, wanted, fixed):
            return done
        row = _fresh(athlete, week, revision)
        if fresh := sorted(fixed - set(logged)):
            raise ConflictError(
                "logged-since",
                f"{_days(fresh)} has been logged since you opened this draft, so its plan stays "
                "as it was. Check what publishing changes, then publish.",
            )
        moved = replace_plan(athlete, ledger, week, wanted, fixed, today)
        if row is not None:
            row.delete_instance()
        undo = moved_undo(athlete, moved, drafts=[row] if row is not None else None)
        return entry.tell(_published(week), athlete, undo=undo)


def _published(week: Week) -> str:
    return f"Published {week.said}"


def _published_before(
    athlete: Athlete,
    ledger: Ledger,
    week: Week,
    wanted: Sequence[Session],
    fixed: frozenset[date],
) -> int:
    """The change that made the plan what is wanted, if it is that: its answer was lost. Else 0."""
    if stored_draft(athlete, week) is not None:
        return 0
    there = ledger.source.week("planned", week)
    if any(one.kind not in ("same", "logged") for one in changes_of(there, wanted, fixed)):
        return 0
    last = last_entry(athlete)
    if last is None or last.says != _published(week):
        return 0
    brought = set(moved_by(last).added)
    stands = {plan.number for plan in kept_in(ledger, "planned", week)}
    return int(last.id) if brought & stands else 0


def publish_weeks(
    ledgers: Ledgers,
    number: int,
    weeks: Sequence[tuple[Week, Sequence[DraftSession]]],
    state: int,
    today: date,
) -> int:
    """Make proposals the plans of their weeks, all or none; the number of the change.

    Refused where anything of the athlete's has changed since ``state``. Days that have a log stay.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        if athlete.change != state:
            raise StaleError("Something of these weeks")
        ledger = ledgers.of(athlete)
        moved, drafts = Moved([], []), []
        for week, sessions in weeks:
            check(sessions, week, ledger.movements)
            fixed = logged_days(ledger, week)
            one = replace_plan(athlete, ledger, week, as_sessions(sessions), fixed, today)
            moved = moved.plus(one)
            row = stored_draft(athlete, week)
            if row is not None:
                drafts.append(row)
                row.delete_instance()
        first, last = weeks[0][0], weeks[-1][0]
        says = f"Published {first.said}" + (f" to {last.said}" if last != first else "")
        undo = moved_undo(athlete, moved, drafts=drafts)
        return entry.tell(f"{says} as proposed", athlete, undo=undo)


def replace_plan(
    athlete: Athlete,
    ledger: Ledger,
    week: Week,
    wanted: Sequence[Session],
    fixed: frozenset[date],
    today: date,
) -> Moved:
    """Put sessions in place of a week's plan, on the days that change and have no log.

    To be called within a transaction.
    """
    texts = _texts(ledger, week)
    there = ledger.source.week("planned", week)
    days = {
        change.day
        for change in changes_of(there, wanted, fixed)
        if change.kind not in ("same", "logged")
    }
    sessions = [_with_text(session, texts, ledger) for session in wanted if session.date in days]
    return put_on_days(athlete, days, sessions, today)


def with_logged(
    ledger: Ledger, week: Week, sessions: Sequence[DraftSession], fixed: frozenset[date]
) -> list[DraftSession]:
    """A draft whose days that have a log are as they are planned."""
    planned = [one for one in ledger.source.week("planned", week) if one.date in fixed]
    kept = [session for session in sessions if session.date not in fixed]
    return sorted([*as_draft(planned, ledger.movements), *kept], key=lambda session: session.date)


def _days(days: Sequence[date]) -> str:
    return listed([said(day) for day in days])


def _texts(ledger: Ledger, week: Week) -> list[tuple[Session, str]]:
    """The plans of this week and of the one before it that were written, with their texts."""
    return [
        (plan.session, plan.typed)
        for at in (week, week.plus(-1))
        for plan in kept_in(ledger, "planned", at)
        if plan.typed is not None
    ]


def _with_text(session: Session, texts: Sequence[tuple[Session, str]], ledger: Ledger) -> Session:
    """A session to be published, with the text of the plan that it was turned from.

    One that was not turned has the very text; else the lines that changed are written anew.
    """
    for plan, text in texts:
        if plan.sets == session.sets:
            return session.model_copy(update={TEXT_KEY: text})
    setting = Maxima(ledger, session.date).setting()
    for plan, text in texts:
        if plan.title == session.title and plan.date.weekday() == session.date.weekday():
            found = rewritten(text, session, ledger.movements, setting)
            if found is not None:
                return found[1].model_copy(update={TEXT_KEY: found[0]})
    return session


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
