"""What a week's proposal changes, carried into the week after: its plan has the same lines."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from dialback.core.adjusting.recurring import Where, session_of, steps_of, where_of
from dialback.core.movements import MovementTable
from dialback.core.plans.spans import Span, rebuilt, spans_of
from dialback.core.sessions import Session, Set


def carried(
    movements: MovementTable,
    plan: tuple[Session, ...],
    before: Sequence[Session],
    proposed: Sequence[Session],
    fixed: frozenset[date] = frozenset(),
) -> tuple[tuple[Session, ...], int]:
    """A plan with what a proposal changed of the plan before it, and how many lines that are.

    ``before`` is that plan, ``proposed`` the proposal. Lines that the plan does not have stay away,
    and days that are ``fixed`` as they are.
    """
    was, now = steps_of(before, movements), steps_of(proposed, movements)
    gains = {one: now[one] - was[one] for one in was.keys() | now.keys() if now[one] != was[one]}
    there = steps_of(plan, movements)
    found, moved = [], 0
    for session in plan:
        lines = spans_of(session, movements)
        own = {one: by for one, by in gains.items() if one.session == session_of(session)}
        if not own or session.date in fixed:
            found.append(session)
            continue
        counts: dict[int, int] = {}
        added: list[tuple[Set, int]] = []
        for one, by in own.items():
            if there[one]:
                counts |= _moved(session, lines, one, by)
            elif not was[one]:
                added += [(a_set, by) for a_set in _sets(proposed, one, movements)]
        moved += len(counts) + len(added)
        found.append(rebuilt(session, lines, counts, added))
    return tuple(found), moved


def _moved(session: Session, lines: Sequence[Span], where: Where, by: int) -> dict[int, int]:
    """The counts of a movement's lines with so many steps more or fewer, from the last one on."""
    counts: dict[int, int] = {}
    own = [one for one in lines if not one.fixed and where_of(session, one) == where]
    for line in reversed(own):
        count = max(0, line.count + by)
        by -= count - line.count
        if count != line.count:
            counts[line.number] = count
        if not by:
            break
    return counts


def _sets(sessions: Sequence[Session], where: Where, movements: MovementTable) -> list[Set]:
    """The set of a line that a proposal added, if it is a single movement."""
    for session in sessions:
        for line in spans_of(session, movements):
            if not line.fixed and where_of(session, line) == where and line.kind == "sets":
                return [session.sets[line.units[0][0]]]
    return []
