"""Adjusting a squad: one decision for each line of a shared session, exceptions at a cost."""

from dialback.core.squads.adjusting.propose import adjust_squad
from dialback.core.squads.adjusting.result import (
    Apart,
    ForAll,
    Levels,
    Outcome,
    SquadProposal,
)

__all__ = ["Apart", "ForAll", "Levels", "Outcome", "SquadProposal", "adjust_squad"]
