"""The signals of the long run: everything that is known of each, in one place.

When one is given stands in ``docs/method.md``, under its code.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from dialback.core.vocabulary import PAIRS_BY_NAME, WHOLE_WEEK, label
from dialback.core.weeks import said

SignalKind = Literal["course", "doubt"]
"""A course is over many weeks; a doubt is about what was written of this one."""


@dataclass(frozen=True, slots=True)
class SignalCode:
    """A kind of signal: its threshold, what that is counted in, and what to ask.

    What ``hurts`` stands before everything else.
    """

    code: str
    title: str
    kind: SignalKind
    threshold: float
    unit: str
    ask: str
    hurts: bool = False
    day: bool = False
    """Whether its subject is a day, written as ``2026-11-16``."""

    def about(self, subject: str) -> str:
        """What a signal of this code is about, in words."""
        if subject == WHOLE_WEEK:
            return "the week"
        if self.day:
            return said(date.fromisoformat(subject))
        pair = PAIRS_BY_NAME.get(subject)
        return label(subject) if pair is None else pair.title


SIGNALS: Final[tuple[SignalCode, ...]] = (
    SignalCode(
        "pain_again", "Hurt again", "course", 8, "weeks back",
        "Leave it out until a practitioner has had a look?", hurts=True,
    ),
    SignalCode(
        "doubt_load", "Load in doubt", "doubt", 3, "times the heaviest of four weeks",
        "A slip of the pen? Correct it in the log.",
    ),
    SignalCode(
        "doubt_reps", "Reps in doubt", "doubt", 5, "times the most of four weeks",
        "A slip of the pen? Correct it in the log.",
    ),
    SignalCode(
        "doubt_unit", "Pounds or kilograms", "doubt", 0.15, "off 2.2 at most, as a share",
        "Pounds for kilograms, or the other way round? Correct the unit in the log.", day=True,
    ),
    SignalCode(
        "doubt_twice", "Logged twice", "doubt", 6, "sets at least",
        "Was it done twice? If not, remove one.", day=True,
    ),
    SignalCode(
        "doubt_stranger", "Whose session", "doubt", 0.2, "share of known movements",
        "Is it somebody else's? If so, remove it here.", day=True,
    ),
    SignalCode(
        "to_failure", "Always to failure", "course", 0.8, "share of the rated sets",
        "Ask for one to three reps in reserve on most sets?",
    ),
    SignalCode(
        "missed_day", "A day that is missed", "course", 4, "of six weeks",
        "Move that session to another day, or spread it over the others?",
    ),
    SignalCode(
        "plan_drift", "Plan and log apart", "course", 0.15,
        "change of the share done, in eight weeks",
        "Plan what is done, or ask why it is not done?",
    ),
    SignalCode(
        "no_lighter", "No lighter week", "course", 9, "weeks",
        "Make next week a lighter one?",
    ),
    SignalCode(
        "gone", "Gone from training", "course", 3, "weeks",
        "Is that intended for this block?",
    ),
    SignalCode(
        "body_weight", "Body weight falls", "course", 0.045, "share, in eight weeks",
        "Is it intended? If not, ask how the athlete eats, and refer them to a doctor.",
    ),
    SignalCode(
        "effort_rises", "Harder week by week", "course", 1.0, "RPE, in eight weeks",
        "A lighter week, and ask about sleep, food and stress?",
    ),
    SignalCode(
        "tension_falls", "Faster as loads rise", "course", 0.15, "share of the tension per rep",
        "Write the tempo into the plan, and hold the loads until it is kept?",
    ),
    SignalCode(
        "ratio_drift", "A ratio that drifts", "course", 0.25, "share, in twelve weeks",
        "Is that intended, or should the short side get a set back?",
    ),
    SignalCode(
        "creep", "More and more sets", "course", 0.25, "share, in eight weeks",
        "Is that intended? If not, go back to where it began.",
    ),
    SignalCode(
        "longer", "Longer sessions", "course", 0.25, "share, in eight weeks",
        "Fewer movements, or more sets by the clock?",
    ),
    SignalCode(
        "rests_shorter", "Shorter rests", "course", 0.25, "share, against five weeks before",
        "Is that intended? If not, ask for the rests as planned.",
    ),
    SignalCode(
        "rpe_gone", "RPE no longer written", "course", 0.1, "share of the sets",
        "Ask for it again: easy sets cannot be told from hard ones without it.",
    ),
    SignalCode(
        "side_gap_grows", "Sides growing apart", "course", 0.10, "gap, in eight weeks",
        "Let the weaker side set the reps, or have it looked at?",
    ),
    SignalCode(
        "lift_stands", "One lift stands still", "course", 0.03,
        "share behind the others, in eight weeks",
        "Another rep range or variation for it, or more rest before it?",
    ),
)  # fmt: skip
"""In the order in which signals of equal level are told."""

BY_SIGNAL: Final[Mapping[str, SignalCode]] = {signal.code: signal for signal in SIGNALS}
THRESHOLDS: Final[dict[str, float | None]] = {one.code: one.threshold for one in SIGNALS}
