"""How long a session takes, and how dense it is."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from dialback.core.rules import Rules
from dialback.core.tally import Entry


@dataclass(frozen=True, slots=True)
class Duration:
    """Seconds of work (both sides one after the other), of rest, and of changing over."""

    work_s: float
    rest_s: float
    change_over_s: float

    @property
    def total_s(self) -> float:
        """The whole session."""
        return self.work_s + self.rest_s + self.change_over_s


def estimated_duration(entries: Sequence[Entry], rules: Rules) -> Duration:
    """Work time + rests + a change-over for each movement, warm-ups and conditioning too.

    Source: Dial Back's own estimate.
    """
    movements = {
        move.movement.name for entry in entries for move in entry.measured.shape.moves
    }  # fmt: skip
    return Duration(
        work_s=sum(entry.measured.work_s for entry in entries),
        rest_s=sum(entry.set.rest_s or 0.0 for entry in entries),
        change_over_s=rules.change_over_s * len(movements),
    )


def warm_up_s(entries: Iterable[Entry]) -> float:
    """Seconds of work of the sets marked as warm-up, of whatever kind, whatever the rules count."""
    return sum(entry.measured.work_s for entry in entries if entry.set.warm_up)


def density(volume_load_kg: float, duration: Duration) -> float | None:
    """Volume load per minute of work and rest, kg/min; ``None`` where there is neither."""
    seconds = duration.work_s + duration.rest_s
    return volume_load_kg / (seconds / 60) if seconds else None
