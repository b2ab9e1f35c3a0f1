"""Templates: kept from an athlete's weeks, laid over those of several, taken away, brought back."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date

from dialback.core.notation import Change
from dialback.core.plans.kept import kept_in
from dialback.core.weeks import Week, said
from dialback.store.athletes import Ledgers, athlete_on_roster
from dialback.store.blocks import (
    KeptTemplate,
    put_template_away,
    save_template,
    sheets_of,
    template_of,
)
from dialback.store.changes import moved_undo
from dialback.store.journal import together
from dialback.store.plans import put_down
from dialback.store.unit import unit
from dialback.work.errors import NotThereError
from dialback.work.laying import laid_on

Laid = tuple[int, int]
"""An athlete's number, and that of the change, to take it back by."""


def keep(ledgers: Ledgers, number: int, name: str, weeks: Sequence[Week]) -> KeptTemplate:
    """Keep the planned sessions of some weeks as a template."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        ledger = ledgers.of(athlete)
        plans = [kept for week in weeks for kept in kept_in(ledger, "planned", week)]
        template = save_template(name, plans, ledger.movements, weeks[0], len(weeks))
        entry.tell(f"Saved the template {name}")
        return template


def lay(
    ledgers: Ledgers, template: int, athletes: Iterable[int], first: Week, today: date
) -> list[Laid]:
    """Lay a template over the weeks of several athletes; for all of them or for none."""
    done = []
    same = together()
    with unit() as entry:
        kept = the_template(template)
        for number in dict.fromkeys(athletes):
            athlete = athlete_on_roster(number)
            ledger = ledgers.of(athlete)
            sheets = [
                laid_on(sheet, 0, ledger, Change(), place="week")
                for sheet in sheets_of(kept, first.monday, kept.weeks, ledger.movements)
            ]
            moved = put_down(athlete, ledger, sheets, today)
            says = f"Used the template {kept.name} from {said(first.monday)} on"
            undo = moved_undo(athlete, moved)
            done.append((number, entry.tell(says, athlete, undo=undo, same=same)))
    return done


def remove(template: int, today: date) -> None:
    """Take a template away; what was laid from it stays."""
    _put(template, today)


def restore(template: int) -> None:
    """Bring a template back."""
    _put(template, None)


def _put(template: int, on: date | None) -> None:
    with unit() as entry:
        kept = the_template(template, removed=on is None)
        undo = put_template_away(kept.number, on)
        done = "Restored the template" if on is None else "Removed the template"
        entry.tell(f"{done}: {kept.name}", undo=undo)


def the_template(number: int, *, removed: bool = False) -> KeptTemplate:
    """The template of that number, or a removed one. Raises ``NotThereError``."""
    found = template_of(number, removed=removed)
    if found is None:
        raise NotThereError(f"No template has the number {number}.")
    return found
