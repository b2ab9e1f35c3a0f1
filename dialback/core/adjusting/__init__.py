"""Adjusting: the plan of a week made better by whole sets, as an integer programme."""

from dialback.core.adjusting.propose import Options, Step, adjust, adjust_weeks, take
from dialback.core.adjusting.result import Change, Proposal, Remaining, Rung
from dialback.core.adjusting.start import NothingToStartFromError

__all__ = [
    "Change",
    "NothingToStartFromError",
    "Options",
    "Proposal",
    "Remaining",
    "Rung",
    "Step",
    "adjust",
    "adjust_weeks",
    "take",
]
