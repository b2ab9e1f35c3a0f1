"""Squads: who is in one, its file out and in, and one change of plans for all of it."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date

from dialback.book.book import write_book
from dialback.book.errors import bad_input
from dialback.book.squad import INDEX, Squad, write_squad
from dialback.core.movements import fold
from dialback.core.newcomers import LONGEST_SQUAD, as_spelt
from dialback.core.plans.publishing import logged_days
from dialback.core.squads.adjusting import SquadPlan, Turn, mark_of, turned
from dialback.core.weeks import Week
from dialback.store.athletes import (
    Athlete,
    Imported,
    Ledgers,
    athletes,
    export_book,
    house,
    import_book,
)
from dialback.store.changes import moved_undo
from dialback.store.journal import together
from dialback.store.unit import touch, unit
from dialback.work.drafting import replace_plan, stored_draft
from dialback.work.errors import NotThereError, StaleError, UnfitError


@dataclass(frozen=True, slots=True)
class InSquad:
    """Those of a squad, or everybody, in the order of the roster, under its name."""

    name: str
    athletes: list[Athlete]

    def state(self, week: Week) -> str:
        """What tells whether anything of theirs, or of the house, has changed."""
        told = [f"{week} {house().change}", *(f"{one.id} {one.change}" for one in self.athletes)]
        return hashlib.sha256("/".join(told).encode()).hexdigest()[:32]


def in_squad(squad: str | None) -> InSquad:
    """Those in a squad, everybody without one. Raises ``NotThereError`` where nobody is in it."""
    there = athletes()
    chosen = [one for one in there if squad is None or fold(one.squad) == fold(squad)]
    if not chosen:
        if squad is None:
            raise NotThereError("Nobody is on the roster.")
        known = ", ".join(sorted({one.squad for one in there if one.squad})) or "none"
        raise NotThereError(f"Nobody is in the squad {squad!r}; squads: {known}.")
    return InSquad(house().name if squad is None else chosen[0].squad, chosen)


def squad_file(ledgers: Ledgers, squad: str | None) -> bytes:
    """The squad file of those in a squad, or of everybody, in the order of the roster.

    Raises ``NotThereError`` where nobody is in it.
    """
    chosen = in_squad(squad)
    return write_squad(
        chosen.name, [write_book(export_book(one, ledgers)) for one in chosen.athletes]
    )


def import_squad(squad: Squad, today: date, *, replace: bool = False) -> list[Imported]:
    """Store everybody of a squad file as its squad, or nobody.

    Raises ``NameTakenError`` unless ``replace`` puts athletes of the same names aside, and
    ``BadInputError`` for a name that is too long for a squad.
    """
    if len(squad.name) > LONGEST_SQUAD:
        raise bad_input(f"{INDEX}: name", f"is longer than {LONGEST_SQUAD} characters: shorten it")
    with unit():
        name = as_spelt(squad.name, [one.squad for one in athletes()])
        found = [import_book(book, today, replace=replace) for book in squad.books]
        for one in found:
            one.athlete.squad = name
            touch(one.athlete)
    return found


def check_fresh(plan: SquadPlan, state: str) -> None:
    """Refuse a draft of other plans, by the mark that it was shown with. Raises ``StaleError``."""
    if mark_of(plan) != state:
        raise StaleError("A plan of this squad")


@dataclass(frozen=True, slots=True)
class Published:
    """Whose plans were changed, and the number of one of the changes, to take all back by."""

    change: int
    people: int


def publish_for_all(
    ledgers: Ledgers,
    squad: str | None,
    week: Week,
    turns: Iterable[Turn],
    state: str,
    plan_of: Callable[[InSquad], SquadPlan],
    today: date,
) -> Published:
    """Make a squad's draft the plans of all whose week it changes, as one change, all or none.

    ``plan_of`` says what the draft starts from: days that are logged stay. Raises ``StaleError``
    where these plans are not those of ``state``, ``UnfitError`` where the draft changes nothing,
    ``LookupError`` for what is not there.
    """
    with unit() as entry:
        chosen = in_squad(squad)
        plan = plan_of(chosen)
        check_fresh(plan, state)
        rows = {one.name: one for one in chosen.athletes}
        same = together()
        numbers = []
        for judged in turned(plan, turns):
            if not judged.changed:
                continue
            athlete = rows[judged.start.member.name]
            ledger = ledgers.of(athlete)
            fixed = logged_days(ledger, week)
            moved = replace_plan(athlete, ledger, week, judged.sessions, fixed, today)
            draft = stored_draft(athlete, week)
            if draft is not None:
                draft.delete_instance()
            undo = moved_undo(athlete, moved, drafts=[] if draft is None else [draft])
            says = f"Published {week.said} for {'all' if squad is None else chosen.name}"
            numbers.append(entry.tell(says, athlete, undo=undo, same=same))
        if not numbers:
            raise UnfitError("empty-plan", "Nothing is changed yet: turn a line first.")
        return Published(numbers[-1], len(numbers))
