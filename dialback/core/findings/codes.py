"""The codes of findings: everything that is known of each, in one place.

When a finding is raised stands in ``docs/method.md``, under its code.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

Subject = Literal["pair", "muscle", "movement", "day", "week", "restriction", "week or muscle"]
"""What a finding is about: a day is written as ``2026-11-16``, the week as ``total``."""

CauseOf = Literal["explained", "itself", "alone", "none"]
"""How a finding gets a cause: something that happened explains it; it is a cause itself; nothing
but itself explains it; it belongs to none."""


@dataclass(frozen=True, slots=True)
class Code:
    """A kind of finding.

    Of ``apart`` ones each subject is a cause of its own where nothing explains it.
    """

    code: str
    title: str
    subject: Subject
    cause: CauseOf = "explained"
    apart: bool = False


CODES: Final[tuple[Code, ...]] = (
    Code("balance", "Imbalance", "pair", apart=True),
    Code("muscle_floor", "Below the floor", "muscle"),
    Code("muscle_ceiling", "Above the ceiling", "muscle"),
    Code("jump", "Jump", "week or muscle"),
    Code("load_step", "Load step", "movement"),
    Code("spacing", "Spacing", "muscle"),
    Code("off_plan", "Off the plan", "week"),
    Code("missed", "Missed", "day", cause="itself"),
    Code("swapped", "Swapped", "movement", cause="itself"),
    Code("side_gap", "Left and right", "movement"),
    Code("order", "Order", "day"),
    Code("no_warm_up", "No warm-up", "movement"),
    Code("overfull", "Overfull", "day"),
    Code("carry_over", "Carry-over", "week"),
    Code("monotony", "Monotony", "week", cause="alone"),
    Code("effort_drift", "Harder than before", "week", cause="alone"),
    Code("stalled", "Stalled", "week", cause="none"),
    Code("ready", "Ready for the next step", "movement", cause="none"),
    Code("return", "Return from a break", "week"),
    Code("data_gap", "Gap in the log", "week"),
    Code("pain", "Something hurt", "movement", cause="itself"),
    Code("restriction", "Restricted", "restriction", apart=True),
)
"""In the order in which findings of equal weight are told."""

BY_CODE: Final[Mapping[str, Code]] = {code.code: code for code in CODES}
TITLES_OF_CODES: Final[Mapping[str, str]] = {code.code: code.title for code in CODES}
