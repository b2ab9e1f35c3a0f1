"""Session load, monotony, strain and density of a week's sessions.

Sources: Foster et al. 2001 (session RPE × minutes); Foster 1998 (monotony = mean ÷ standard
deviation of the seven daily loads, strain = weekly load × monotony).
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from statistics import fmean, pstdev

from dialback.core.duration import density
from dialback.core.sessions import Session
from dialback.core.tally import Entry
from dialback.core.weeks import Week

_TINY = 1e-9


@dataclass(frozen=True, slots=True)
class SessionLoads:
    """Load in RPE × minutes, of sessions that have both; ``None`` where a figure has no base.

    Density is volume load per minute of work and rest, kg/min.
    """

    load: float
    monotony: float | None
    strain: float | None
    density_kg_min: float | None


def session_loads(
    sessions: Sequence[Session], week: Week, entries: Iterable[Entry], volume_load_kg: float
) -> SessionLoads:
    """The loads of a week's completed sessions; ``volume_load_kg`` is the week's."""
    loads = [session_load(session) for session in sessions]
    known = [load for load in loads if load is not None]
    load = sum(known)
    monotony = _monotony(sessions, week) if sessions and len(known) == len(loads) else None
    return SessionLoads(
        load,
        monotony,
        None if monotony is None else load * monotony,
        density(volume_load_kg, entries),
    )


def session_load(session: Session) -> float | None:
    """RPE × minutes; ``None`` where a session lacks one of them."""
    if session.rpe is None or session.duration_min is None:
        return None
    return session.rpe * session.duration_min


def _monotony(sessions: Sequence[Session], week: Week) -> float | None:
    days = daily_loads(sessions, week)
    deviation = pstdev(days)
    return fmean(days) / deviation if deviation > _TINY else None


def daily_loads(sessions: Sequence[Session], week: Week) -> list[float]:
    """Load of each of the week's seven days."""
    days = [0.0] * 7
    for session in sessions:
        days[(session.date - week.monday).days] += session_load(session) or 0.0
    return days
