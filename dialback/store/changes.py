"""What was done to an athlete's plans, with what takes it back."""

from __future__ import annotations

from datetime import date
from typing import Any

from dialback.store.models import Athlete, Block, Draft, JournalEntry, Session
from dialback.store.plans import Moved, planned_rows


def moved_undo(
    athlete: Athlete,
    moved: Moved,
    *,
    block: int | None = None,
    drafts: list[Draft] | None = None,
) -> dict[str, Any]:
    """What takes back a change of plans. ``block`` was made by it, ``drafts`` became plans by it.

    To be called within the transaction of the change.
    """
    kept = [
        {
            "week": draft.week,
            "sessions": draft.sessions,
            "shape": draft.shape,
            "start_total": draft.start_total,
        }
        for draft in drafts or []
    ]
    return {"kind": "plans", **_marked(athlete, moved), "block": block, "drafts": kept}


def moved_by(row: JournalEntry) -> Moved:
    """What a change moved."""
    kept = row.undo
    return Moved(
        [number for number, _ in kept["added"]],
        [number for number, _ in kept["removed"]],
        kept["linked"],
    )


def changed_since(athlete: Athlete, row: JournalEntry) -> Session | None:
    """A session of a change that is not as the change left it."""
    marks = dict([*row.undo["added"], *row.undo["removed"]])
    gone = {number for number, _ in row.undo["removed"]}
    for session in planned_rows(athlete, list(marks)):
        put_aside = session.deleted_on is not None
        if session.revision != marks[session.id] or put_aside != (session.id in gone):
            return session
    return None


def logged_since(row: JournalEntry) -> Session | None:
    """A log that goes by what a change brought, written after it."""
    moved = moved_by(row)
    found: Session | None = Session.get_or_none(
        Session.plan.in_(moved.added),
        Session.basis == "completed",
        Session.deleted_on.is_null(),
        Session.id.not_in(moved.linked),
    )
    return found


def put_plans(athlete: Athlete, row: JournalEntry, moved: Moved, undone_on: date | None) -> None:
    """Keep what undoes that a change of plans was taken back, or made again: ``moved``."""
    # What came back is again as it was before this change: as an earlier one has left it.
    _pass_on(athlete, row, {number: revision - 1 for number, revision in row.undo["removed"]})
    row.undo = {**row.undo, **_marked(athlete, moved)}
    _put_block(row.undo["block"], undone_on)
    if undone_on is not None:
        _bring_drafts(athlete, row.undo["drafts"])


def _pass_on(athlete: Athlete, undone: JournalEntry, before: dict[int, int]) -> None:
    """Tell the other changes the new revisions of sessions that had these ones."""
    now = {row.id: row.revision for row in planned_rows(athlete, list(before))}
    others = (JournalEntry.athlete == athlete, JournalEntry.id != undone.id)
    for other in JournalEntry.select().where(*others, JournalEntry.undo.is_null(False)):
        if not is_of_plans(other):
            continue
        kept = {
            key: [
                [number, now[number] if before.get(number) == revision else revision]
                for number, revision in other.undo[key]
            ]
            for key in ("added", "removed")
        }
        if any(kept[key] != other.undo[key] for key in kept):
            other.undo = {**other.undo, **kept}
            other.save()


def is_of_plans(row: JournalEntry) -> bool:
    """Whether an entry is one of plans; the first of them did not say so."""
    return row.undo is not None and row.undo.get("kind", "plans") == "plans"


def _marked(athlete: Athlete, moved: Moved) -> dict[str, Any]:
    marks = {row.id: row.revision for row in planned_rows(athlete, [*moved.added, *moved.removed])}
    return {
        "added": [[number, marks[number]] for number in moved.added],
        "removed": [[number, marks[number]] for number in moved.removed],
        "linked": moved.linked,
    }


def _put_block(number: int | None, deleted_on: date | None) -> None:
    if number is not None:
        Block.update(deleted_on=deleted_on).where(Block.id == number).execute()


def _bring_drafts(athlete: Athlete, drafts: list[dict[str, Any]]) -> None:
    """The drafts that had become plans are drafts again, but where another was begun."""
    for kept in drafts:
        if not Draft.select().where(Draft.athlete == athlete, Draft.week == kept["week"]).exists():
            Draft.create(athlete=athlete, **kept)
