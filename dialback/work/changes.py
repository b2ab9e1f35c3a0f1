"""Changes taken back, and made again: one way for all of them, for thirty days."""

from __future__ import annotations

from datetime import date, timedelta

from dialback.core.weeks import said
from dialback.store.athletes import athlete_on_roster
from dialback.store.changes import changed_since, is_of_plans, logged_since, moved_by, put_plans
from dialback.store.imports import (
    import_row,
    left_with_nothing,
    put_import_back,
    put_import_out,
    same_import,
)
from dialback.store.journal import (
    KEPT_DAYS,
    entry_of,
    is_as,
    of_one_change,
    put_fields,
    row_of,
)
from dialback.store.models import Athlete, House, JournalEntry, Session
from dialback.store.naming import can_put_back, put_back
from dialback.store.plans import swap_back
from dialback.store.unit import touch, touch_house, unit
from dialback.work.accounts import follow_name
from dialback.work.catalogue import naming, put_name
from dialback.work.errors import ConflictError, NotThereError
from dialback.work.roster import check_name_free


def take_back(change: int, today: date, *, whole: bool = False) -> list[str]:
    """Take an entry back: what came goes, what went comes back.

    ``whole`` is all of the change that it is part of: a template for six, as much of it as can
    be. What stays, and why, a sentence each. Raises ``ConflictError`` where nothing can be.
    """
    return _swap(change, today, undone_on=today, whole=whole)


def make_again(change: int, today: date, *, whole: bool = False) -> list[str]:
    """Make an entry again that was taken back, or what can be of all of its change."""
    return _swap(change, today, undone_on=None, whole=whole)


def _swap(change: int, today: date, *, undone_on: date | None, whole: bool) -> list[str]:
    with unit() as entry:
        chosen = _change(change, undone=undone_on is None, today=today)
        rows = of_one_change(chosen) if whole else [chosen]
        stays: list[ConflictError] = []
        for row in rows:
            try:
                _swap_one(row, today, undone_on)
            except ConflictError as conflict:
                # It is looked at before anything of it is written: the others go on without it.
                stays.append(conflict)
                continue
            row.undone_on = undone_on
            row.save()
            done = "Redid" if undone_on is None else "Undid"
            entry.tell(f"{done}: {row.says}", row.athlete)
        if len(stays) == len(rows):
            raise stays[0]
        return [str(one) for one in stays]


def _swap_one(row: JournalEntry, today: date, undone_on: date | None) -> None:
    if is_of_plans(row):
        _swap_plans(row, today, undone_on)
    elif row.undo["kind"] == "import":
        _swap_import(row, today, undone_on)
    elif row.undo["kind"] == "naming":
        _swap_naming(row, undone_on)
    else:
        _swap_fields(row, undone_on)


def _swap_plans(row: JournalEntry, today: date, undone_on: date | None) -> None:
    athlete = athlete_on_roster(row.athlete_id or 0)
    other = changed_since(athlete, row)
    if other is not None:
        raise ConflictError(
            "changed-since",
            f"{athlete.name}'s session of {said(other.date)} was changed after this. Undo the "
            "later change first, or change the session by hand.",
        )
    log = logged_since(row)
    if log is not None:
        raise ConflictError(
            "logged-since",
            f"{athlete.name} has logged {said(log.date)} by this plan, so it stays. Change the "
            "other days by hand.",
        )
    put_plans(athlete, row, swap_back(athlete, moved_by(row), today), undone_on)


def _swap_fields(row: JournalEntry, undone_on: date | None) -> None:
    """Put the fields of a row back, or forward, where they stand as this change has left them."""
    undo = row.undo or {}
    there, wanted = ("after", "before") if undone_on is not None else ("before", "after")
    changed = row_of(undo)
    if changed is None or not is_as(changed, undo[there]):
        raise ConflictError(
            "changed-since",
            "It was changed again after this. Undo the later change first, or change it by hand.",
        )
    put = undo[wanted]
    if isinstance(changed, Athlete) and put.get("deleted_on", changed.deleted_on) is None:
        check_name_free(put.get("name", changed.name), changed.id)
    put_fields(changed, put)
    if isinstance(changed, House):
        changed.revision += "rules" in undo["before"]
        changed.kit_revision += "kit" in undo["before"]
        changed.save()
        touch_house()
    if isinstance(changed, Athlete):
        follow_name(changed)
        # Whoever has the rules open builds on an older state now.
        changed.revision += "rules" in undo["before"]
    if isinstance(changed, Session):
        changed.revision += 1
        changed.save()
    if row.athlete is not None:
        touch(changed if isinstance(changed, Athlete) else row.athlete)


def _swap_import(row: JournalEntry, today: date, undone_on: date | None) -> None:
    undo = dict(row.undo or {})
    came = import_row(undo["import"], undone=undone_on is None)
    if came is None:
        raise NotThereError("This file is as you want it already: reload the page.")
    if undone_on is None:
        put_import_back(came, undo["sessions"])
        for athlete in Athlete.select().where(Athlete.id.in_(undo["archived"])):
            check_name_free(athlete.name, athlete.id)
            athlete.deleted_on = None
            athlete.save()
    else:
        undo["sessions"] = put_import_out(came, today)
        # Who came with it and has nothing else goes into the archive.
        gone = left_with_nothing(undo["athletes"])
        undo["archived"] = [athlete.id for athlete in gone]
        for athlete in gone:
            athlete.deleted_on = today
            athlete.save()
    row.undo = undo


def _swap_naming(row: JournalEntry, undone_on: date | None) -> None:
    """Give a movement its old name back; or, from there, the new one again."""
    undo = row.undo or {}
    if undone_on is None:
        row.undo = put_name(naming(undo["movement"], undo["name"]))
    elif can_put_back(undo):
        put_back(undo)
    else:
        raise ConflictError(
            "changed-since",
            "The movement was renamed or changed again after this. Undo the later change first.",
        )
    touch_house()


def take_import_back(number: int, today: date) -> int:
    """Take the sessions of an import out again, however long ago it was; how many."""
    with unit() as entry:
        came = import_row(number)
        if came is None:
            raise NotThereError(f"There is no import in force with the number {number}.")
        row: JournalEntry | None = (
            JournalEntry.select()
            .where(JournalEntry.same == same_import(number), JournalEntry.undone_on.is_null())
            .first()
        )
        if row is None:
            entry.tell(f"Undid: imported logs from {came.name}")
            return len(put_import_out(came, today))
        _swap_import(row, today, today)
        row.undone_on = today
        row.save()
        entry.tell(f"Undid: {row.says}")
        return len((row.undo or {})["sessions"])


def _change(number: int, *, undone: bool, today: date) -> JournalEntry:
    row = entry_of(number)
    old = today - timedelta(days=KEPT_DAYS)
    there = row is not None and row.undo is not None and row.day >= old
    if row is None or not there or (row.undone_on is not None) != undone:
        raise NotThereError(
            f"There is no such change to {'redo' if undone else 'undo'}: it was already "
            f"done, or is more than {KEPT_DAYS} days old."
        )
    return row
