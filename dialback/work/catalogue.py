"""The movements of the house: added, changed, taken away."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

from dialback.book.errors import bad_input
from dialback.core.movements import Level, Movement, MovementTable, UnknownMovementError, fold
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
from dialback.store.naming import keepers, merge, rename
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


def add_like(name: str, base: str, level: Level | None) -> tuple[int, Movement]:
    """Add a movement that is like one that is there, easier or harder or neither; its number."""
    with unit():
        try:
            movement = house_table()[base].like(name, level)
        except UnknownMovementError as unknown:
            raise bad_input("like", str(unknown)) from None
        return add(movement), movement


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


MOST_OTHER_NAMES: Final = 20
"""So many other names a movement has; a book refuses more."""


@dataclass(frozen=True, slots=True)
class Naming:
    """A movement that is to have another name; ``into`` is the one that has it already."""

    row: MovementRow
    old: Movement
    name: str
    into: tuple[int, Movement] | None
    aliases: tuple[str, ...]


def naming(number: int, name: str) -> Naming:
    """What another name of a movement would be: its own, or that of one that is there.

    Raises ``UnfitError`` and ``ConflictError`` with what to do instead.
    """
    row, old = the_movement(number)
    house = house_movements()
    there = next((one for one in house if fold(one[1].name) == fold(name)), None)
    into = None if there is None or there[0] == number else there
    if into is None:
        if name == old.name:
            raise UnfitError("same-name", f"{old.name} is called that already.")
        means = [one.name for at, one in house if at != number and _is_called(one, name)]
        if means:
            raise UnfitError(
                "other-name",
                f"{name!r} already means {means[0]}. To make one of the two, give {old.name} "
                f"the name {means[0]}.",
            )
        owners = keepers(name)
        if owners and fold(name) != fold(old.name):
            raise ConflictError(
                "own-movement",
                f"{next(iter(owners.values()))} has a movement called {name} that counts "
                "differently. Choose another name.",
            )
    mine = old.aliases if into is None else (*into[1].aliases, *old.aliases)
    kept = name if into is None else into[1].name
    aliases = tuple(
        {fold(one): one for one in (*mine, old.name) if fold(one) != fold(kept)}.values()
    )
    if len(aliases) > MOST_OTHER_NAMES:
        raise UnfitError(
            "other-names",
            f"{kept} would have {len(aliases)} other names, and {MOST_OTHER_NAMES} is the most. "
            "Take some that nobody uses away first.",
        )
    return Naming(row, old, kept, into, aliases)


def _is_called(movement: Movement, name: str) -> bool:
    return fold(name) in {fold(alias) for alias in movement.aliases}


def give_name(number: int, name: str) -> int:
    """Give a movement another name, or make one of it and the movement of that name.

    The number of the movement that has the name then.
    """
    with unit() as entry:
        wanted = naming(number, name)
        undo = put_name(wanted)
        touch_house()
        if wanted.into is None:
            entry.tell(f"Renamed {wanted.old.name} to {wanted.name}", undo=undo)
            return number
        entry.tell(f"Merged {wanted.old.name} into {wanted.name}", undo=undo)
        return wanted.into[0]


def put_name(wanted: Naming) -> dict[str, Any]:
    """Write another name everywhere; what takes it back. To be called within a unit."""
    if wanted.into is None:
        return rename(wanted.row, wanted.name, wanted.aliases)
    return merge(wanted.row, MovementRow.get_by_id(wanted.into[0]), wanted.aliases)


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
    """What is written refers to a movement by its name: only ``give_name`` changes that."""
    if fold(movement.name) != fold(old.name):
        raise UnfitError(
            "name-stays",
            f"{old.name} keeps its name here. To rename it with all that knows it, choose Rename.",
        )
    return movement.model_copy(update={"name": old.name})


def house_table() -> MovementTable:
    """The movements of the house by name."""
    return MovementTable(one for _, one in house_movements())


def _in_use(row: MovementRow, movement: Movement) -> str | None:
    name = fold(movement.name)
    shipped = {fold(one.name) for one in library()}
    if shipped & {name, *(fold(alias) for alias in movement.aliases)}:
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
