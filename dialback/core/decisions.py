"""Decisions: what a coach has said of something that stands, and how long that holds."""

from __future__ import annotations

from typing import Final, Literal

from pydantic import Field

from dialback.core.movements import Name, Value
from dialback.core.sessions import Day
from dialback.core.vocabulary import Key, Level
from dialback.core.weeks import Week

DecisionKind = Literal["intended", "watched", "declined", "seen"]
"""What is ``intended`` is not told again; what is ``watched`` is to be gone by its end; what is
``declined``, a step of a proposal, is not proposed again; what hurt and was ``seen`` stands in no
head any more."""

PAIN: Final = "pain"
"""The code of what hurt on a day: its subject a movement, its measure the day."""
NO_MOVEMENT: Final = "the session"
"""The subject of what hurt at no movement."""

STEP: Final = "step"
"""The code of a step that was declined: its subject a movement, its measure the direction."""
Direction = Literal["more", "fewer"]


class Decision(Value):
    """What a coach has decided about a finding or a signal, from a week on until a day.

    It holds as long as that is no worse than ``level`` and ``value`` say it was. Without ``until``
    it holds for good; one that was taken back holds no more from the week of ``ended_on`` on.
    """

    kind: DecisionKind = "intended"
    code: Name
    subject: Name
    measure: Name
    level: Level = "caution"
    value: float | None = None
    reason: str = Field("", max_length=500)
    since: Day
    until: Day | None = None
    ended_on: Day | None = None

    @property
    def key(self) -> Key:
        """What makes it the same finding or signal in another week."""
        return self.code, self.subject, self.measure

    def holds_in(self, week: Week) -> bool:
        """Whether it is in force in a week, from the one it was made in on."""
        if self.since > week.sunday or (self.until is not None and self.until < week.monday):
            return False
        return self.ended_on is None or self.ended_on > week.sunday

    def is_due_in(self, week: Week) -> bool:
        """Whether what is watched was to be gone by the end of this week."""
        running = self.kind == "watched" and self.ended_on is None
        return running and self.until is not None and Week.of(self.until) == week
