"""Movements between table and core."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from typing import Any

import peewee as pw

from dialback.book.errors import BadInputError, Problem
from dialback.core.movements import Movement as CoreMovement
from dialback.core.movements import MovementTable, fold
from dialback.store.models import (
    Athlete,
    Movement,
    MovementMuscle,
    Session,
    SetMove,
    SetRow,
    rows,
)


def add_movements(movements: Iterable[CoreMovement], athlete: Athlete | None) -> dict[str, int]:
    """Store movements of the house, or of an athlete's own; ids by folded name."""
    ids = {}
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
            progress=movement.progress,
            extra=movement.model_extra or {},
        )
        ids[row.folded] = row.id
        _add_muscles(row.id, movement)
    return ids


def _add_muscles(number: int, movement: CoreMovement) -> None:
    if movement.muscles:
        MovementMuscle.insert_many(
            [
                {"movement": number, "muscle": muscle, "role": role}
                for muscle, role in movement.muscles.items()
            ]
        ).execute()


def movements_of_house() -> dict[int, CoreMovement]:
    """The movements that every athlete of the house can do, by id."""
    return _read(Movement.athlete.is_null())


def own_movements(athlete: Athlete) -> dict[int, CoreMovement]:
    """An athlete's own movements, which count otherwise than the house's, by id."""
    return _read(Movement.athlete == athlete)


def movements_of(athlete: Athlete) -> dict[int, CoreMovement]:
    """The movements an athlete can do, by id: the house's, then the athlete's own over them."""
    return {**movements_of_house(), **own_movements(athlete)}


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
    try:
        return _read_core(row, muscles)
    except ValueError:
        # Its sets are listed and in no sum, until it is put right.
        return CoreMovement(name=row.name or f"Movement {row.id}", pattern="mobility")


def _read_core(row: Movement, muscles: dict[str, str]) -> CoreMovement:
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
            "progress": row.progress,
        }
    )


def house_movements() -> list[tuple[int, CoreMovement]]:
    """The movements of the house with their ids, by name."""
    return sorted(_read(Movement.athlete.is_null()).items(), key=lambda one: one[1].name)


def has_own_movement(athlete: Athlete, name: str) -> bool:
    """Whether a movement of that name is the athlete's own, counted otherwise than the house's."""
    own = Movement.select().where(Movement.athlete == athlete, Movement.folded == fold(name))
    return bool(own.exists())


def check_movement(movement: CoreMovement, known: MovementTable, *, new: bool) -> None:
    """Refuse what would make the house's movements ambiguous. Raises ``BadInputError``."""
    problems = []
    if new and movement.name in known:
        problems.append(Problem("movement.name", f"{movement.name!r} is there already"))
    taken = {fold(one.name): one.name for one in known} | {
        fold(alias): one.name for one in known for alias in one.aliases
    }
    if new and movement.name not in known and fold(movement.name) in taken:
        means = taken[fold(movement.name)]
        problems.append(Problem("movement.name", f"{movement.name!r} already means {means}"))
    for at, alias in enumerate(movement.aliases):
        owner = taken.get(fold(alias))
        if owner is not None and fold(owner) != fold(movement.name):
            problems.append(Problem(f"movement.aliases[{at}]", f"{alias!r} already means {owner}"))
    for field in ("easier", "harder"):
        neighbour = getattr(movement, field)
        if neighbour is None:
            continue
        if neighbour not in known:
            problems.append(Problem(f"movement.{field}", f"no movement is called {neighbour!r}"))
        elif fold(neighbour) == fold(movement.name):
            problems.append(Problem(f"movement.{field}", "a level is another movement"))
    if movement.counted and not movement.muscles:
        problems.append(
            Problem("movement.muscles", "name at least one muscle, or its sets count for none")
        )
    if problems:
        raise BadInputError(problems)


def change_movement(row: Movement, movement: CoreMovement) -> None:
    """Put another description in the place of a movement's; its name stays."""
    for field in (
        "pattern",
        "compound",
        "bodyweight_share",
        "tempo",
        "isometric",
        "easier",
        "harder",
        "one_sided",
        "progress",
    ):
        setattr(row, field, getattr(movement, field))
    row.aliases, row.kit = list(movement.aliases), list(movement.kit)
    row.extra = movement.model_extra or {}
    row.save()
    MovementMuscle.delete().where(MovementMuscle.movement == row).execute()
    _add_muscles(row.id, movement)


def sets_by_basis(row: Movement) -> dict[tuple[int, str], int]:
    """How many stored sets are of a movement, combinations among them, by athlete and basis."""
    alone = SetRow.select(SetRow.id, SetRow.session).where(SetRow.movement == row)
    combined = SetRow.select(SetRow.id, SetRow.session).join(SetMove).where(SetMove.movement == row)
    counts: dict[tuple[int, str], int] = defaultdict(int)
    for query in (alone, combined):
        found = (
            Session.select(Session.athlete, Session.basis, pw.fn.COUNT(query.c.id.distinct()))
            .join(query, on=(query.c.session_id == Session.id))
            .where(Session.deleted_on.is_null())
            .group_by(Session.athlete, Session.basis)
        )
        for athlete, basis, count in rows(found):
            counts[athlete, basis] += count
    return dict(counts)


def sets_by_athlete(row: Movement) -> dict[int, int]:
    """The same by athlete."""
    counts: dict[int, int] = defaultdict(int)
    for (athlete, _), count in sets_by_basis(row).items():
        counts[athlete] += count
    return dict(counts)


def lacking(shipped: Iterable[CoreMovement]) -> list[CoreMovement]:
    """The shipped movements that the house does not have yet.

    One that the house knows by another name, an older library's or a coach's, is there.
    """
    house = list(Movement.select().where(Movement.athlete.is_null()))
    names = {row.folded for row in house} | {fold(name) for row in house for name in row.aliases}
    return [
        movement
        for movement in shipped
        if not ({fold(movement.name)} | {fold(alias) for alias in movement.aliases}) & names
    ]
