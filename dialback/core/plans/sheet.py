"""Planned sessions on their way to other days: laid, stepped, made lighter."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta

from dialback.core.kit import Kit
from dialback.core.maxima import Maxima
from dialback.core.movements import MovementTable
from dialback.core.notation import Change, WrittenSession, expand, lighter, stepped, write
from dialback.core.notation.characters import lines_of
from dialback.core.plans.kept import Kept, one_session, unread_in
from dialback.core.sessions import TEXT_KEY, Session
from dialback.core.tally import Ledger
from dialback.core.weeks import YEARS, in_years


class OutsideCalendarError(ValueError):
    """A session would come to lie beyond the years that are known."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """A planned session as it is written, on its way to a day."""

    day: date
    title: str
    written: WrittenSession
    typed: str | None = None
    """The text as it was typed, of a session that is not changed."""
    before: str | None = None
    """The text as it was typed, of one that was changed since."""


def sheet_of(plan: Kept, movements: MovementTable) -> Sheet:
    """A planned session, to be laid on another day."""
    return Sheet(plan.day, plan.title, plan.written(movements), plan.typed)


def sheet_from(text: str, day: date, title: str, movements: MovementTable) -> Sheet:
    """A text on a day."""
    return Sheet(day, title, one_session(text, movements, day), text)


def sheet_text(sheet: Sheet, movements: MovementTable) -> str:
    """The text of a sheet: as it was typed, or written anew.

    What was not understood of the text, and remarks for the coach, stay below it.
    """
    if sheet.typed is not None:
        return sheet.typed
    text = write(sheet.written, movements=movements)
    if sheet.before is None:
        return text
    remarks = [row.strip() for row in lines_of(sheet.before) if row.lstrip().startswith("#")]
    left = [one.text for one in unread_in(sheet.before, movements, sheet.day)]
    return text + "".join(f"{line}\n" for line in (*remarks, *left))


def laid(
    sheet: Sheet,
    days: int,
    movements: MovementTable,
    change: Change,
    kit: Kit | None = None,
    *,
    lighter_week: bool = False,
) -> Sheet:
    """The sheet so many days on, changed within what the kit has.

    Raises ``OutsideCalendarError`` beyond the calendar.
    """
    try:
        day = sheet.day + timedelta(days=days)
    except OverflowError:
        day = date.max
    if not in_years(day):
        raise OutsideCalendarError(
            f"{sheet.title or 'a session'} would lie on a day that leaves the calendar, which goes "
            f"from {YEARS.start} to {YEARS[-1]}: choose another week"
        )
    before = sheet.before if sheet.typed is None else sheet.typed
    written = stepped(sheet.written, change, movements, kit)
    if lighter_week:
        written = lighter(written)
    # Lines that are not understood, and those for the coach alone, move with the rest.
    return replace(
        sheet,
        day=day,
        written=written,
        typed=sheet.typed if written == sheet.written else None,
        before=sheet.before if written == sheet.written else before,
    )


def as_plan(sheet: Sheet, ledger: Ledger) -> Session:
    """The planned session that a sheet comes to on its day, with its text."""
    sets = expand(sheet.written, Maxima(ledger, sheet.day).setting(), sheet.day).sets
    text = sheet_text(sheet, ledger.movements)
    return Session.model_validate(
        {"date": sheet.day, "title": sheet.title, "sets": sets, TEXT_KEY: text}
    )
