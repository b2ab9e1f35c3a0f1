"""The movements of the house: added, changed, taken away."""

from __future__ import annotations

from dialback.core.movements import Movement, MovementTable, fold
from dialback.core.plans.draft import DraftSession
from dialback.library import library
from dialback.store.models import Draft, Template
from dialback.store.models import Movement as MovementRow
from dialback.store.movements import (
    add_movements,
    change_movement,
    check_movement,
    house_movements,
    sets_by_athlete,
)
from dialback.store.unit import touch_house, unit
from dialback.work.errors import ConflictError, NotThereError, UnfitError


def add(movement: Movement) -> int:
    """Add a movement to the house; its number."""
    with unit() as entry:
        check_movement(movement, house_table(), new=True)
        ids = add_movements([movement], athlete=None)
        touch_house()
        entry.tell(f"Added the movement {movement.name}")
        return ids[fold(movement.name)]


def change(number: int, movement: Movement) -> Movement:
    """Change a movement; every audit counts it the new way from now on."""
    with unit() as entry:
        row, old = the_movement(number)
        new = with_its_name(movement, old)
        check_movement(new, house_table(), new=False)
        change_movement(row, new)
        touch_house()
        entry.tell(f"Changed the movement {old.name}")
        return new


def remove(number: int) -> None:
    """Take a movement of the coach's own away. Raises ``ConflictError`` if something uses it."""
    with unit() as entry:
        row, old = the_movement(number)
        reason = _in_use(row, old)
        if reason:
            raise ConflictError("in-use", f"{old.name} stays: {reason}.")
        row.delete_instance(recursive=True)
        touch_house()
        entry.tell(f"Removed the movement {old.name}")


def the_movement(number: int) -> tuple[MovementRow, Movement]:
    """A movement of the house, as row and value. Raises ``NotThereError``."""
    row = MovementRow.get_or_none(MovementRow.id == number, MovementRow.athlete.is_null())
    if row is None:
        raise NotThereError(f"The house has no movement with the number {number}.")
    return row, dict(house_movements())[number]


def with_its_name(movement: Movement, old: Movement) -> Movement:
    """Sets, texts and books refer to a movement by its name: it stays."""
    if fold(movement.name) != fold(old.name):
        raise UnfitError(
            "name-stays",
            f"{old.name} keeps its name, for sessions and books know it by that. Add "
            f"{movement.name!r} to what it is also called.",
        )
    return movement.model_copy(update={"name": old.name})


def house_table() -> MovementTable:
    """The movements of the house by name."""
    return MovementTable(one for _, one in house_movements())


def _in_use(row: MovementRow, movement: Movement) -> str | None:
    name = fold(movement.name)
    if name in {fold(one.name) for one in library()}:
        return "it ships with Dial Back"
    used = sum(sets_by_athlete(row).values())
    if used:
        return f"{used} set{'s' if used != 1 else ''} of it are planned or done"
    pointing = [
        one.name
        for _, one in house_movements()
        if name in {fold(one.easier or ""), fold(one.harder or "")}
    ]
    if pointing:
        return f"{pointing[0]} has it as its level"
    if any(name in _names_in(draft) for draft in Draft.select()):
        return "a draft has it"
    kept = (session["text"] for template in Template.select() for session in template.sessions)
    return "a template has it" if any(name in fold(text) for text in kept) else None


def _names_in(draft: Draft) -> set[str]:
    """The movements that a stored draft names, folded."""
    stored = [*draft.sessions, *(draft.shape or [])]
    return {
        fold(name)
        for one in stored
        for line in DraftSession.model_validate(one).lines
        for unit in line.units
        for a_set in unit
        for name, _ in a_set.named_moves()
    }
