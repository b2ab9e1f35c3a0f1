"""What weeks are for, as a coach marks them."""

from __future__ import annotations

from collections.abc import Mapping

from dialback.core.vocabulary import WeekKind
from dialback.core.weeks import Week
from dialback.core.words import listed
from dialback.store.athletes import athlete_on_roster
from dialback.store.journal import Entry, change
from dialback.store.models import Athlete
from dialback.store.unit import touch, unit


def set_week_kind(number: int, week: Week, kind: WeekKind | None) -> Athlete:
    """Say what a week is for; ``None`` makes it an ordinary one."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        mark_weeks(athlete, {week: kind}, entry)
        return athlete


def mark_weeks(
    athlete: Athlete, kinds: Mapping[Week, WeekKind | None], entry: Entry, same: str = ""
) -> None:
    """Say what weeks are for, within a change; ``same`` is what else belongs to it."""
    kept = athlete.extra.get("book", {})
    named = {str(week) for week in kinds}
    marked = [one for one in kept.get("kinds", []) if one.get("week") not in named]
    marked += [{"week": str(week), "kind": kind} for week, kind in kinds.items() if kind]
    book = {**kept, "kinds": sorted(marked, key=lambda one: str(one.get("week")))}
    undo = change(athlete, extra={**athlete.extra, "book": book})
    touch(athlete)
    told = [f"{week.said}: {kind or 'ordinary'}" for week, kind in sorted(kinds.items())]
    entry.tell(f"Marked {listed(told)}", athlete, undo=undo, same=same)
