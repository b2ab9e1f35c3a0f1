"""The codes of findings: everything that is known of each, in one place.

When a finding is raised stands in ``docs/method.md``, under its code.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from dialback.core.vocabulary import PAIRS_BY_NAME, WHOLE_WEEK, WeekKind, label
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
    stands before everything else. What ``lasts`` stands from week to week where nobody does
    anything about it, and ``ask`` is asked about it then; the rest happens. What is ``of_targets``
    is news of the muscles alone that the programme is for.
    ``to_watch`` is what the athlete is told. ``band`` is what the limit is called that most of a
    squad may be outside of; ``of_plan`` the measure, or ``any``, in which a plan adds up to it.
    ``part_of`` are the kinds of weeks that bring it with them; ``waits_for`` the doubts about what
    was logged that it may well come of: it is no news until they are settled.
    """

    code: str
    title: str
    subject: Subject
    cause: CauseOf = "explained"
    apart: bool = False
    of: Of = ""
    hurts: bool = False
    lasts: bool = False
    of_targets: bool = False
    ask: str = ""
    part_of: str = ""
    waits_for: str = ""
    to_watch: ToWatch | None = None
    band: str = ""
    of_plan: str = ""

    def is_part_of(self, kind: WeekKind) -> bool:
        """Whether a week of the kind brings such a finding with it."""
        return kind in self.part_of.split()

    def waits(self, doubt: str) -> bool:
        """Whether it may well come of a doubt of that code."""
        return doubt.removeprefix("doubt_") in self.waits_for.split()

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
    Code(
        "balance", "Imbalance", "pair", apart=True, of="ratio", lasts=True,
        ask="Is this intended, or does the short side need sets?",
        part_of="lighter taper test travel race return rehab skill tempo",
        waits_for="reps twice stranger",
        band="band", of_plan="any",
    ),
    Code(
        "muscle_floor", "Below the minimum", "muscle", of="sum", lasts=True, of_targets=True,
        ask="Is this intended, is the minimum too high, or do they need sets?",
        part_of="lighter taper test travel race return rehab skill", waits_for="stranger",
        band="minimum", of_plan="any",
    ),
    Code(
        "muscle_ceiling", "Above the ceiling", "muscle", of="sum", lasts=True,
        ask="Is this intended, or are there sets to take off?",
        part_of="test overreach travel", waits_for="twice stranger",
        band="ceiling", of_plan="any",
    ),
    Code(
        "jump", "Jump", "week or muscle", of="sum", to_watch=_CALM,
        part_of="test overreach travel tempo", waits_for="load reps unit twice stranger",
        of_plan="sets",
    ),
    Code(
        "load_step", "Load step", "movement", to_watch=_CALM,
        part_of="test travel", waits_for="load unit twice",
    ),
    Code(
        "spacing", "Spacing", "muscle", lasts=True,
        ask="Is this intended, or can the days be moved apart?",
        part_of="overreach travel", waits_for="twice stranger",
        of_plan="any",
    ),
    Code(
        "off_plan", "Off the plan", "week",
        part_of="travel race tempo", waits_for="load reps unit twice stranger",
    ),
    Code(
        "missed", "Missed", "day", cause="itself",
        to_watch=ToWatch("Missed: {}. Do not squeeze it in later, just go on with the plan."),
        part_of="race", waits_for="stranger",
    ),
    Code(
        "swapped", "Swapped", "movement", cause="itself",
        part_of="travel race", waits_for="stranger",
    ),
    Code(
        "side_gap", "Left and right", "movement", lasts=True,
        ask="Is the weaker side known, or should somebody look at it?",
        to_watch=ToWatch("Do as much with the left as with the right: {}."),
        part_of="rehab", waits_for="reps",
    ),
    Code(
        "order", "Order", "day", lasts=True,
        ask="Is the small muscle first on purpose?",
        part_of="travel race rehab",
        of_plan="any",
    ),
    Code(
        "no_warm_up", "No warm-up", "movement",
        to_watch=ToWatch("Warm up with a few lighter sets before the heavy ones: {}."),
        part_of="test", waits_for="load unit",
    ),
    Code(
        "overfull", "Overfull", "day", lasts=True,
        ask="May the session be this full, or should something go?",
        part_of="overreach",
        of_plan="any",
    ),
    Code(
        "carry_over", "Carry-over", "week",
        part_of="taper test travel race return rehab skill", waits_for="stranger",
        of_plan="any",
    ),
    Code(
        "monotony", "Monotony", "week", cause="alone", lasts=True,
        ask="Is there room for a hard day and an easy one?",
        part_of="overreach",
    ),
    Code(
        "effort_drift", "Harder than before", "week", cause="alone",
        to_watch=ToWatch(
            "The same weights felt harder last week: look after sleep and food, and tell your "
            "coach how it goes.",
            above_note=True,
        ),
        part_of="overreach skill tempo",
    ),
    Code(
        "stalled", "Stalled", "week", cause="none",
        part_of="test",
    ),
    Code("ready", "Ready for the next step", "movement", cause="none"),
    Code(
        "return", "Return from a break", "week",
        to_watch=ToWatch("You are just back: start easy, and stop while you still feel fresh."),
        part_of="return",
    ),
    Code("data_gap", "Gap in the log", "week", lasts=True,
        ask="Can more of it be logged?"),
    Code("pain", "Something hurt", "movement", cause="itself", hurts=True),
    Code("restriction", "Restricted", "restriction", apart=True, hurts=True),
)  # fmt: skip
"""In the order in which findings of equal weight are told."""

BY_CODE: Final[Mapping[str, Code]] = {code.code: code for code in CODES}
