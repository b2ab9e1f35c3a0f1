"""Adjusting: the plan of a week made better by whole sets, as an integer programme."""

from dialback.core.adjusting.by_hand import Candidate, candidates, put_movement
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.propose import adjust, adjust_weeks
from dialback.core.adjusting.result import Change, Proposal, Remaining, Rung
from dialback.core.adjusting.solver import NotWantedError
from dialback.core.adjusting.start import NothingToStartFromError
from dialback.core.adjusting.taking import Step, take
from dialback.core.adjusting.wave import WaveWeek, usually_lighter, wave_week

__all__ = [
    "Candidate",
    "Change",
    "NotWantedError",
    "NothingToStartFromError",
    "Options",
    "Proposal",
    "Remaining",
    "Rung",
    "Step",
    "WaveWeek",
    "adjust",
    "adjust_weeks",
    "candidates",
    "put_movement",
    "take",
    "usually_lighter",
    "wave_week",
]
