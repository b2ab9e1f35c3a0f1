"""Who does the same: sessions and whole weeks that several athletes share.

Source: Dial Back's contract, *Squads*, *The same session*.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from dialback.core.matching.sessions import SAME, counted_sets, fit, title_of
from dialback.core.movements import MovementTable
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.weeks import Week

SHARED: Final = 3
"""So many athletes make a shared programme."""


@dataclass(frozen=True, slots=True)
class Member:
    """An athlete of a squad, with all that was planned and done."""

    name: str
    ledger: Ledger


@dataclass(frozen=True, slots=True)
class Stands:
    """An athlete in a programme.

    ``sessions`` are theirs, each in the place of the first athlete's same session.
    """

    member: Member
    sessions: tuple[Session, ...]


@dataclass(frozen=True, slots=True)
class Programme:
    """The athletes whose planned weeks are the same, in the order of the squad."""

    stands: tuple[Stands, ...]

    @property
    def members(self) -> tuple[Member, ...]:
        """Its athletes."""
        return tuple(one.member for one in self.stands)

    @property
    def sessions(self) -> tuple[Session, ...]:
        """The sessions of its first athlete, in order of day."""
        return self.stands[0].sessions

    @property
    def is_shared(self) -> bool:
        """Whether there are enough of them to speak of one programme."""
        return len(self.stands) >= SHARED

    @property
    def title(self) -> str:
        """The titles of its first athlete's sessions, in order of day."""
        return " / ".join(session.title.strip() for session in self.sessions)


def are_the_same(
    one: Session, movements: MovementTable, other: Session, others: MovementTable
) -> bool:
    """Whether two sessions have one title, and each has two thirds of the other's counted sets."""
    if not title_of(one) or title_of(one) != title_of(other):
        return False
    own, its = counted_sets(one, movements), counted_sets(other, others)
    return fit(own, its) >= SAME and fit(its, own) >= SAME


def programmes(members: Iterable[Member], week: Week) -> tuple[Programme, ...]:
    """The programmes of a week, shared or not, in the order of their first athletes.

    Athletes without a planned session that counts are in none.
    """
    found: list[list[Stands]] = []
    for member in members:
        own = _of_week(member, week)
        if not own:
            continue
        for programme in found:
            first = programme[0]
            in_place = _in_place(first.sessions, first.member, own, member)
            if in_place is not None:
                programme.append(Stands(member, in_place))
                break
        else:
            found.append([Stands(member, own)])
    return tuple(Programme(tuple(stands)) for stands in found)


def _of_week(member: Member, week: Week) -> tuple[Session, ...]:
    movements = member.ledger.movements
    planned = member.ledger.source.week("planned", week)
    return tuple(
        sorted((one for one in planned if counted_sets(one, movements)), key=lambda one: one.date)
    )


def _in_place(
    firsts: Sequence[Session], first: Member, own: Sequence[Session], member: Member
) -> tuple[Session, ...] | None:
    """Sessions in the places of the first athlete's, one for one; ``None`` if one has no place."""
    if len(firsts) != len(own):
        return None
    free = list(own)
    found = []
    for session in firsts:
        same = next(
            (
                one
                for one in free
                if are_the_same(session, first.ledger.movements, one, member.ledger.movements)
            ),
            None,
        )
        if same is None:
            return None
        free = [one for one in free if one is not same]
        found.append(same)
    return tuple(found)
