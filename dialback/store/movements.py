"""Movements between table and core."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from typing import Any

from dialback.core.movements import Movement as CoreMovement
from dialback.core.movements import fold
from dialback.store.models import Athlete, Movement, MovementMuscle, rows


def add_movements(movements: Iterable[CoreMovement], athlete: Athlete | None) -> dict[str, int]:
    """Store movements of the house, or of an athlete's own; ids by folded name."""
    ids = {}
    roles = []
    for movement in movements:
        row = Movement.create(
            athlete=athlete,
            name=movement.name,
            folded=fold(movement.name),
            pattern=movement.pattern,
            compound=movement.compound,
            bodyweight_share=movement.bodyweight_share,
            tempo=movement.tempo,
            isometric=movement.isometric,
            aliases=list(movement.aliases),
            easier=movement.easier,
            harder=movement.harder,
            kit=list(movement.kit),
            one_sided=movement.one_sided,
            extra=movement.model_extra or {},
        )
        ids[row.folded] = row.id
        roles += [
            {"movement": row.id, "muscle": muscle, "role": role}
            for muscle, role in movement.muscles.items()
        ]
    if roles:
        MovementMuscle.insert_many(roles).execute()
    return ids


def movements_of(athlete: Athlete) -> dict[int, CoreMovement]:
    """The movements an athlete can do, by id: the house's, then the athlete's own over them."""
    return _read((Movement.athlete == athlete) | Movement.athlete.is_null())


def house_movements() -> list[CoreMovement]:
    """The movements of the house, by name."""
    return sorted(_read(Movement.athlete.is_null()).values(), key=lambda one: one.name)


def _read(chosen: Any) -> dict[int, CoreMovement]:
    muscles: dict[int, dict[str, str]] = defaultdict(dict)
    roles = (
        MovementMuscle.select(MovementMuscle.movement, MovementMuscle.muscle, MovementMuscle.role)
        .join(Movement)
        .where(chosen)
        .order_by(MovementMuscle.id)
    )
    for movement, muscle, role in rows(roles):
        muscles[movement][muscle] = role
    # NULL sorts first in SQLite: the house before the athlete's own.
    found = Movement.select().where(chosen).order_by(Movement.athlete, Movement.id)
    return {row.id: _core(row, muscles[row.id]) for row in found}


def _core(row: Movement, muscles: dict[str, str]) -> CoreMovement:
    return CoreMovement.model_validate(
        {
            **row.extra,
            "name": row.name,
            "pattern": row.pattern,
            "compound": row.compound,
            "muscles": muscles,
            "bodyweight_share": row.bodyweight_share,
            "tempo": row.tempo,
            "isometric": row.isometric,
            "aliases": row.aliases,
            "easier": row.easier,
            "harder": row.harder,
            "kit": row.kit,
            "one_sided": row.one_sided,
        }
    )


def grow_library(shipped: Iterable[CoreMovement]) -> int:
    """Add the shipped movements that the house does not have yet; how many there were."""
    there = {row.folded: row for row in Movement.select().where(Movement.athlete.is_null())}
    new = [one for one in shipped if fold(one.name) not in there]
    add_movements(new, athlete=None)
    return len(new)
