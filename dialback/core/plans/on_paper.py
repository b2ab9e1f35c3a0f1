"""A planned session as it goes on paper: which line of its text comes to how many sets."""

from __future__ import annotations

from collections import Counter

from dialback.core.maxima import Maxima
from dialback.core.notation.expand import placed_sets
from dialback.core.plans.kept import Kept, read_one
from dialback.core.tally import Ledger


def sets_by_line(ledger: Ledger, plan: Kept) -> Counter[int]:
    """How many sets each line comes to, lines counted from 1; a round counts as often as it is."""
    setting = Maxima(ledger, plan.day).setting()
    reading = read_one(plan.text(ledger.movements), ledger.movements, plan.day)
    return Counter(
        placed.line for session in reading.sessions for placed in placed_sets(session, setting)
    )
