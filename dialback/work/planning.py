"""Planning: sessions as text, laid over other days, taken in from a text; blocks of weeks."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Literal
from uuid import uuid4

from dialback.book.errors import BadInputError, Problem, bad_input
from dialback.core.maxima import Maxima
from dialback.core.movements import MovementTable
from dialback.core.notation import Change, Reading, read, says_unmoved, unmoved
from dialback.core.notation.expand import placed_sets
from dialback.core.plans.apart import days_apart
from dialback.core.plans.kept import Kept, kept_in, read_one, unread_of
from dialback.core.plans.sheet import Sheet, sheet_from, sheet_of
from dialback.core.sessions import MAX_SETS, TEXT_KEY, Session
from dialback.core.tally import Ledger
from dialback.core.weeks import Week, in_years, said
from dialback.store.athletes import Ledgers, athlete_on_roster, movement_ids
from dialback.store.blocks import (
    PlannedBlock,
    blocks_of,
    place_block,
    put_block_away,
    sheets_of,
)
from dialback.store.changes import moved_undo
from dialback.store.models import Athlete
from dialback.store.models import Session as SessionRow
from dialback.store.plans import Moved, put_down
from dialback.store.sessions import add_sessions, write_plan
from dialback.store.unit import touch, unit
from dialback.work.errors import NotThereError, StaleError
from dialback.work.laying import laid_on
from dialback.work.marking import mark_weeks
from dialback.work.templates import the_template


@dataclass(frozen=True, slots=True)
class Written:
    """A session as it is written: its day, title and text."""

    day: date
    title: str
    text: str


def add_written(ledgers: Ledgers, number: int, written: Written, client: str | None) -> Kept:
    """Add a planned session. Lines with mistakes are kept as text only.

    Sent again with the same ``client``, it is the session that is there already.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        session = _as_session(ledgers.of(athlete), written)
        known = None if client is None else _sent_before(athlete, client)
        if known is not None:
            return _kept(ledgers, athlete, known)
        ids = add_sessions(athlete, "planned", [session], movement_ids(athlete))
        row: SessionRow = SessionRow.get_by_id(ids[session.date])
        row.extra = {**row.extra, TEXT_KEY: written.text}
        row.client_id = client
        row.save()
        touch(athlete)
        entry.tell(f"Wrote a session for {said(row.date)}", athlete, same=f"plan {row.id}")
        return _kept(ledgers, athlete, row)


def _kept(ledgers: Ledgers, athlete: Athlete, row: SessionRow) -> Kept:
    (plan,) = _plans(ledgers, athlete, [row.id])
    return plan


def _sent_before(athlete: Athlete, client: str) -> SessionRow | None:
    row: SessionRow | None = SessionRow.get_or_none(
        SessionRow.client_id == client,
        SessionRow.athlete == athlete,
        SessionRow.basis == "planned",
        SessionRow.deleted_on.is_null(),
    )
    if row is None and SessionRow.select().where(SessionRow.client_id == client).exists():
        raise bad_input("client", "this mark belongs to another session: make a new one")
    return row


def keep_written(
    ledgers: Ledgers, number: int, session: int, written: Written, revision: int
) -> int:
    """Keep a session's text and the sets it comes to; the new revision. Raises ``StaleError``."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        content = _as_session(ledgers.of(athlete), written)
        there = _planned(athlete, session)
        # Sent once more, for the answer to the first was lost: it stands as it is.
        stands = (there.date, there.title, there.extra.get(TEXT_KEY))
        if there.revision != revision and stands == (content.date, content.title, written.text):
            return int(there.revision)
        row = _planned(athlete, session, revision)
        write_plan(row, content, movement_ids(athlete), written.text)
        touch(athlete)
        told = f"Wrote on the session of {said(content.date)}"
        entry.tell(told, athlete, same=f"plan {row.id}")
        return int(row.revision)


def take_out(number: int, session: int, revision: int, on: date | None) -> int:
    """Take a planned session out of its week on a day, or, without one, put it back."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        row = _planned(athlete, session, revision, deleted=on is None)
        row.deleted_on = on
        row.revision += 1
        row.save()
        touch(athlete)
        done = "Restored the session" if on is None else "Removed the session"
        moved = Moved([row.id], []) if on is None else Moved([], [row.id])
        entry.tell(f"{done} of {said(row.date)}", athlete, undo=moved_undo(athlete, moved))
        return int(row.revision)


def _planned(
    athlete: Athlete, number: int, revision: int | None = None, *, deleted: bool = False
) -> SessionRow:
    """A planned session, and no other revision of it than is asked for."""
    row: SessionRow | None = SessionRow.get_or_none(
        SessionRow.id == number,
        SessionRow.athlete == athlete,
        SessionRow.basis == "planned",
        SessionRow.deleted_on.is_null(not deleted),
    )
    if row is None:
        raise NotThereError(f"{athlete.name} has no planned session with the number {number}.")
    if revision not in (None, row.revision):
        raise StaleError("This session")
    return row


def _as_session(ledger: Ledger, written: Written) -> Session:
    reading = read_one(written.text, ledger.movements, written.day)
    return as_one_session(reading, written.day, written.title, Maxima(ledger, written.day))


def as_one_session(reading: Reading, day: date, title: str, maxima: Maxima) -> Session:
    """All that could be read as one session of the day; a text is one session here."""
    setting = maxima.setting()
    sets = tuple(placed.set for part in reading.sessions for placed in placed_sets(part, setting))
    if len(sets) > MAX_SETS:
        raise bad_input(
            "text", f"{len(sets)} sets are more than a session: at most {MAX_SETS} are taken"
        )
    return Session(date=day, title=title, sets=sets)


# Over days and weeks.


@dataclass(frozen=True, slots=True)
class Laying:
    """Sessions to lay: how many days on each time, with which step, lighter or not, moved or not.

    ``to`` is a day for the first of them, in place of ``shifts``.
    """

    sessions: list[int]
    shifts: Sequence[int]
    to: date | None
    change: Change
    lighter: bool
    move: bool


@dataclass(frozen=True, slots=True)
class Laid:
    """The number of a change, to take it back by, and what is to be said about it."""

    change: int
    remarks: list[str]


def lay(ledgers: Ledgers, number: int, laying: Laying, today: date) -> Laid:
    """Lay sessions over other days: copy, move, repeat with a step, make lighter."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        plans = _plans(ledgers, athlete, laying.sessions)
        if laying.to is None and not laying.shifts:
            raise bad_input("shifts", "say where to: days on, or the day itself as 'to'")
        shifts = laying.shifts if laying.to is None else [(laying.to - plans[0].day).days]
        sheets = [sheet_of(plan, ledger.movements) for plan in plans]
        new = [
            laid_on(sheet, days, ledger, laying.change.times(at), lighter_week=laying.lighter)
            for at, days in enumerate(shifts, 1)
            for sheet in sheets
        ]
        gone = [plan.number for plan in plans] if laying.move else ()
        moved = put_down(athlete, ledger, new, today, gone)
        words = _laid_words(plans, new, move=laying.move)
        change = entry.tell(words, athlete, undo=moved_undo(athlete, moved))
        return Laid(change, _remarks(plans, laying.change, len(shifts), ledger))


def _remarks(plans: Sequence[Kept], step: Change, weeks: int, ledger: Ledger) -> list[str]:
    """What a coach would not see: loads that stay, and lines that go along as text alone."""
    movements = ledger.movements
    stay = {
        one.movement: one
        for plan in plans
        for one in unmoved(plan.written(movements), step, weeks, movements, ledger.kit)
    }
    told = says_unmoved(list(stay.values()), step.load, weeks, ledger.unit)
    unread = [
        f"{plan.title or said(plan.day)}: “{line.text}” is not read. It is laid as text and counts "
        "for nothing until it is mended."
        for plan in plans
        for line in unread_of(ledger, plan)
    ]
    return [*filter(None, [told]), *unread]


def _laid_words(plans: Sequence[Kept], new: Sequence[Sheet], *, move: bool) -> str:
    what = plans[0].title or "a session"
    if len(plans) > 1:
        what = f"{len(plans)} sessions"
    days = sorted({sheet.day for sheet in new})
    if len(days) > 1 and len(new) > len(plans):
        return f"Repeated {what} on {len(days)} days"
    return f"{'Moved' if move else 'Copied'} {what} to {said(days[0])}"


def _plans(ledgers: Ledgers, athlete: Athlete, numbers: list[int]) -> list[Kept]:
    found = ledgers.plans(athlete, numbers)
    if isinstance(found, int):
        raise NotThereError(f"{athlete.name} has no planned session with the number {found}.")
    return found


def take_text_in(ledgers: Ledgers, number: int, text: str, today: date) -> tuple[int, Week]:
    """Take sessions in from a text, each below its day; all or nothing.

    The number of the change, and their first week.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        reading = _read_block(text, ledger.movements)
        sheets = _sheets_in(reading)
        moved = put_down(athlete, ledger, sheets, today)
        words = f"Imported {len(sheets)} session{'s' * (len(sheets) > 1)} from a text"
        same = f"text {uuid4()}" if reading.kinds else ""
        change = entry.tell(words, athlete, undo=moved_undo(athlete, moved), same=same)
        if reading.kinds:
            mark_weeks(athlete, reading.kinds, entry, same)
    return change, Week.of(min(sheet.day for sheet in sheets))


def _read_block(text: str, movements: MovementTable) -> Reading:
    reading = read(text, movements, of_block=True)
    if reading.mistakes:
        raise BadInputError(
            [
                Problem(f"line {mistake.line}, column {mistake.column}", mistake.message)
                for mistake in reading.mistakes
            ]
        )
    return reading


def _sheets_in(reading: Reading) -> list[Sheet]:
    if not reading.sessions:
        raise bad_input("text", "has no session: begin each with its day, as in 2026-11-30 Legs")
    if any(session.day is None for session in reading.sessions):
        raise bad_input("text", "each session begins with its day, as in 2026-11-30 Legs")
    _each_day_once([session.day for session in reading.sessions])
    return [
        Sheet(session.day, session.title, replace(session, day=None, title=""))
        for session in reading.sessions
        if session.day is not None
    ]


def _each_day_once(days: Sequence[date | None]) -> None:
    twice = next((day for day, count in Counter(days).items() if count > 1), None)
    if twice is not None:
        raise bad_input("text", f"{twice} is there twice: give each day once")


def make_days(
    ledgers: Ledgers, number: int, session: int, revision: int, today: date
) -> tuple[int, list[Kept]]:
    """Make each day in the text of a session a session of its own, in place of what is planned.

    The number of the change, and the sessions. Raises ``StaleError`` for another revision.
    """
    with unit() as entry:
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        row = _planned(athlete, session, revision)
        text = row.extra.get(TEXT_KEY, "")
        apart = days_apart(text, ledger.movements, row.date)
        _each_day_once([one.day for one in apart])
        if outside := next((one.day for one in apart if not in_years(one.day)), None):
            raise bad_input("text", f"{outside} is outside the calendar: write another year")
        if [one.day for one in apart] == [row.date] or not apart:
            raise bad_input("text", "has no day of its own to be a session on")
        sheets = [
            sheet_from(one.text, one.day, one.title or ("" if at else row.title), ledger.movements)
            for at, one in enumerate(apart)
        ]
        moved = put_down(athlete, ledger, sheets, today, [session])
        words = (
            f"Split the text of {said(row.date)} into {len(sheets)} sessions"
            if len(sheets) > 1
            else f"Moved the session of {said(row.date)} to {said(sheets[0].day)}"
        )
        change = entry.tell(words, athlete, undo=moved_undo(athlete, moved))
        return change, _plans(ledgers, athlete, moved.added)


# Blocks.


@dataclass(frozen=True, slots=True)
class NewBlock:
    """A block to make: its weeks, and what they are filled with."""

    title: str
    first: Week
    weeks: int
    fill: Literal["nothing", "week before", "template"]
    template: int | None
    change: Change
    lighter_every: int | None


def make_block(
    ledgers: Ledgers, number: int, new: NewBlock, today: date
) -> tuple[PlannedBlock, Laid]:
    """Make a block, and fill it."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        block = place_block(athlete, new.title, new.first, new.weeks)
        moved = put_down(athlete, ledger, _filling(new, ledgers, athlete), today)
        touch(athlete)
        says = f"Created the block {new.title}" if new.title else "Created a block"
        undo = moved_undo(athlete, moved, block=block.number)
        change = entry.tell(says, athlete, undo=undo)
        filled = new.fill == "week before"
        plans = kept_in(ledger, "planned", new.first.plus(-1)) if filled else []
        return block, Laid(change, _remarks(plans, new.change, new.weeks, ledger))


def _filling(new: NewBlock, ledgers: Ledgers, athlete: Athlete) -> list[Sheet]:
    """The sessions of a new block."""
    ledger = ledgers.of(athlete)
    movements = ledger.movements
    every = new.lighter_every
    lighter = {at for at in range(new.weeks) if every and (at + 1) % every == 0}
    if new.fill == "template":
        template = the_template(new.template or 0)
        return [
            laid_on(sheet, 0, ledger, Change(), lighter_week=_week_at(sheet, new.first) in lighter)
            for sheet in sheets_of(template, new.first.monday, new.weeks, movements)
        ]
    if new.fill == "week before":
        before = new.first.plus(-1)
        plans = kept_in(ledger, "planned", before)
        if not plans:
            raise bad_input("fill", f"nothing is planned in {before}: fill the block another way")
        sheets = [sheet_of(plan, movements) for plan in plans]
        return [
            laid_on(
                sheet, 7 * (at + 1), ledger, new.change.times(at + 1), lighter_week=at in lighter
            )
            for at in range(new.weeks)
            for sheet in sheets
        ]
    return []


def _week_at(sheet: Sheet, first: Week) -> int:
    return (sheet.day - first.monday).days // 7


def change_block(number: int, block: int, title: str, weeks: int) -> PlannedBlock:
    """Give a block another title or length; its sessions stay as they are."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        first = _block(athlete, block).first
        changed = place_block(athlete, title, first, weeks, block)
        touch(athlete)
        entry.tell(f"Changed the block {title or 'from ' + first.said}", athlete)
        return changed


def remove_block(number: int, block: int, today: date) -> None:
    """Take a block away; its sessions stay as they are."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        there = _block(athlete, block)
        undo = put_block_away(there.number, today)
        touch(athlete)
        entry.tell(
            f"Removed the block {there.title or 'from ' + there.first.said}", athlete, undo=undo
        )


def _block(athlete: Athlete, number: int) -> PlannedBlock:
    found = next((block for block in blocks_of(athlete) if block.number == number), None)
    if found is None:
        raise NotThereError(f"{athlete.name} has no block with the number {number}.")
    return found
