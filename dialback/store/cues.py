"""Words to say at a movement, between table and core: the house's over those that ship."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable
from typing import Any

from dialback.core.cues import Cues
from dialback.core.cues import OwnCue as CoreOwnCue
from dialback.core.movements import Movement as CoreMovement
from dialback.core.movements import fold
from dialback.library import shipped_cues
from dialback.store.fields import legible
from dialback.store.journal import change
from dialback.store.models import Athlete, Movement, OwnCue, Session, SetMove, SetRow, rows


def house_cues() -> dict[str, Cues]:
    """The words of the house's own, by folded name of the movement."""
    found = Movement.select(Movement.folded, Movement.cues).where(
        Movement.athlete.is_null(), Movement.cues.is_null(False)
    )
    return dict(legible(found, lambda row: (row.folded, Cues.model_validate(row.cues))))


def cues_for(movement: CoreMovement, house: dict[str, Cues]) -> Cues:
    """What is said at a movement: the house's words, or else those that ship."""
    return house.get(fold(movement.name)) or shipped_cues(movement)


def own_cues(athlete: Athlete) -> tuple[CoreOwnCue, ...]:
    """What an athlete is told, movement by movement, in the order in which it was first said."""
    said: dict[str, list[OwnCue]] = defaultdict(list)
    for row in OwnCue.select().where(OwnCue.athlete == athlete).order_by(OwnCue.id):
        if row.says:
            said[fold(row.movement)].append(row)
    # Two movements that became one may each have words.
    return tuple(
        CoreOwnCue.model_construct(
            movement=some[0].movement, says="; ".join({row.says: None for row in some})
        )
        for some in said.values()
    )


def add_own_cues(athlete: Athlete, cues: Iterable[CoreOwnCue]) -> None:
    """Keep what an athlete is told."""
    for one in cues:
        OwnCue.create(athlete=athlete, movement=one.movement, says=one.says)


def put_own_cue(athlete: Athlete, movement: str, says: str) -> dict[str, Any]:
    """Tell an athlete this at a movement, in place of what was said; what takes that back."""
    there = [
        row
        for row in OwnCue.select().where(OwnCue.athlete == athlete).order_by(OwnCue.id)
        if fold(row.movement) == fold(movement)
    ]
    first, *others = there or [OwnCue.create(athlete=athlete, movement=movement)]
    for row in others:
        row.delete_instance()
    return change(first, says=says)


def sessions_with(athlete: Athlete, names: Collection[str], but: int | None) -> dict[str, int]:
    """In how many completed sessions an athlete did each movement, by folded name.

    ``but`` is the number of a plan whose log does not count.
    """
    named = Movement.select(Movement.id, Movement.folded).where(
        Movement.folded.in_([fold(name) for name in names]),
        Movement.athlete.is_null() | (Movement.athlete == athlete),
    )
    ids = dict(rows(named))
    done = (
        Session.athlete == athlete,
        Session.basis == "completed",
        Session.deleted_on.is_null(),
        Session.plan.is_null() | (Session.plan != (but or 0)),
    )
    alone = SetRow.select(SetRow.movement, SetRow.session).join(Session)
    combined = SetMove.select(SetMove.movement, SetRow.session).join(SetRow).join(Session)
    found: dict[str, set[int]] = defaultdict(set)
    for query, column in ((alone, SetRow.movement), (combined, SetMove.movement)):
        for movement, session in rows(query.where(*done, column.in_(list(ids))).distinct()):
            found[ids[movement]].add(session)
    return {folded: len(sessions) for folded, sessions in found.items()}
