"""The codes of findings: everything that is known of each, in one place.

When a finding is raised stands in ``docs/method.md``, under its code.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from dialback.core.vocabulary import PAIRS_BY_NAME, WHOLE_WEEK, label
from dialback.core.weeks import said

Subject = Literal["pair", "muscle", "movement", "day", "week", "restriction", "week or muscle"]
"""What a finding is about: a day is written as ``2026-11-16``, the week as ``total``."""

CauseOf = Literal["explained", "itself", "alone", "none"]
"""How a finding gets a cause: something that happened explains it; it is a cause itself; nothing
but itself explains it; it belongs to none."""

Of = Literal["sum", "ratio", ""]
"""What a finding weighs: a sum of the week, a ratio of two sums, or something else."""


@dataclass(frozen=True, slots=True)
class ToWatch:
    """What an athlete is told of findings of a code, with room for what they are about.

    Of what stands ``above_note`` only, and not beside a finding of the code ``unless``.
    """

    words: str
    above_note: bool = False
    unless: str = ""


@dataclass(frozen=True, slots=True)
class Code:
    """A kind of finding.

    Of ``apart`` ones each subject is a cause of its own where nothing explains it. What ``hurts``
    stands before everything else. ``to_watch`` is what the athlete is told.
    """

    code: str
    title: str
    subject: Subject
    cause: CauseOf = "explained"
    apart: bool = False
    of: Of = ""
    hurts: bool = False
    to_watch: ToWatch | None = None

    def about(self, subject: str) -> str:
        """What a finding of this code is about, in words: ``push : pull``, ``Mon 16 Nov``."""
        if self.subject == "movement":
            return subject
        if self.subject == "day":
            return said(date.fromisoformat(subject))
        if subject == WHOLE_WEEK:
            return "the week"
        pair = PAIRS_BY_NAME.get(subject)
        return label(subject) if pair is None else pair.title


_CALM: Final = ToWatch(
    "Last week was a good deal more than the weeks before: take the easy days easy.",
    above_note=True,
    unless="return",
)

CODES: Final[tuple[Code, ...]] = (
    Code("balance", "Imbalance", "pair", apart=True, of="ratio"),
    Code("muscle_floor", "Below the floor", "muscle", of="sum"),
    Code("muscle_ceiling", "Above the ceiling", "muscle", of="sum"),
    Code("jump", "Jump", "week or muscle", of="sum", to_watch=_CALM),
    Code("load_step", "Load step", "movement", to_watch=_CALM),
    Code("spacing", "Spacing", "muscle"),
    Code("off_plan", "Off the plan", "week"),
    Code(
        "missed", "Missed", "day", cause="itself",
        to_watch=ToWatch("Missed: {}. Do not squeeze it in later, just go on with the plan."),
    ),
    Code("swapped", "Swapped", "movement", cause="itself"),
    Code(
        "side_gap", "Left and right", "movement",
        to_watch=ToWatch("Do as much with the left as with the right: {}."),
    ),
    Code("order", "Order", "day"),
    Code(
        "no_warm_up", "No warm-up", "movement",
        to_watch=ToWatch("Warm up with a few lighter sets before the heavy ones: {}."),
    ),
    Code("overfull", "Overfull", "day"),
    Code("carry_over", "Carry-over", "week"),
    Code("monotony", "Monotony", "week", cause="alone"),
    Code(
        "effort_drift", "Harder than before", "week", cause="alone",
        to_watch=ToWatch(
            "The same weights felt harder last week: look after sleep and food, and tell your "
            "coach how it goes.",
            above_note=True,
        ),
    ),
    Code("stalled", "Stalled", "week", cause="none"),
    Code("ready", "Ready for the next step", "movement", cause="none"),
    Code(
        "return", "Return from a break", "week",
        to_watch=ToWatch("You are just back: start easy, and stop while you still feel fresh."),
    ),
    Code("data_gap", "Gap in the log", "week"),
    Code("pain", "Something hurt", "movement", cause="itself", hurts=True),
    Code("restriction", "Restricted", "restriction", apart=True, hurts=True),
)  # fmt: skip
"""In the order in which findings of equal weight are told."""

BY_CODE: Final[Mapping[str, Code]] = {code.code: code for code in CODES}
