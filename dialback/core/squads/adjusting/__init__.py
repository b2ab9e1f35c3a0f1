"""Adjusting a squad: one decision for each line of a shared session, exceptions at a cost."""

from dialback.core.squads.adjusting.draft import (
    Turn,
    TurnedWeek,
    lines_of,
    mark_of,
    squad_plan,
    turned,
)
from dialback.core.squads.adjusting.plan import SquadPlan
from dialback.core.squads.adjusting.propose import adjust_squad
from dialback.core.squads.adjusting.result import (
    Apart,
    ForAll,
    Levels,
    Outcome,
    SquadProposal,
)
from dialback.core.squads.adjusting.starts import Given, GivenBy

__all__ = [
    "Apart",
    "ForAll",
    "Given",
    "GivenBy",
    "Levels",
    "Outcome",
    "SquadPlan",
    "SquadProposal",
    "Turn",
    "TurnedWeek",
    "adjust_squad",
    "lines_of",
    "mark_of",
    "squad_plan",
    "turned",
]
