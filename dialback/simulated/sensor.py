"""A rep sensor on the bar or the wrist, made up: what it reports is in ``docs/sensor.md``."""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from typing import Any, Final

from dialback.core.tempo import Tempo

NOISE: Final = 0.06
"""Spread of a phase's time, as a share of it."""
DRIFT: Final = 0.02
"""By so much of itself lifting gets slower with each rep, as it does with fatigue."""
MISSED: Final = 0.03
"""So many reps are not seen at all."""
LEAST_PHASE_S: Final = 0.15
"""No phase that moves is shorter than this."""


@dataclass(frozen=True, slots=True)
class RepEvent:
    """One rep as it was seen: when it began, and its four phases, in seconds.

    ``number`` counts the reps that were seen, from 1.
    """

    number: int
    at_s: float
    lowering_s: float
    pause_bottom_s: float
    lifting_s: float
    pause_top_s: float

    @property
    def seconds(self) -> float:
        """The whole rep."""
        return self.lowering_s + self.pause_bottom_s + self.lifting_s + self.pause_top_s

    def as_json(self) -> dict[str, Any]:
        """The event as it goes over the wire."""
        return {name: round(value, 3) for name, value in asdict(self).items()}


@dataclass(frozen=True, slots=True)
class SimulatedSensor:
    """So many reps at about a tempo, with noise, fatigue, and some reps that were not seen.

    The same seed gives the same reps.
    """

    tempo: Tempo
    reps: int
    seed: int

    def events(self) -> Iterator[RepEvent]:
        """The reps that are seen."""
        chance = random.Random(self.seed)  # noqa: S311 - a simulation, no secret
        at = 0.0
        seen = 0
        for rep in range(self.reps):
            tired = 1 + DRIFT * rep
            event = RepEvent(
                seen + 1,
                at,
                self._moving(chance, self.tempo.eccentric),
                self._pause(chance, self.tempo.pause_bottom),
                self._moving(chance, self.tempo.concentric * tired),
                self._pause(chance, self.tempo.pause_top),
            )
            at += event.seconds
            if chance.random() >= MISSED:
                seen += 1
                yield event

    def _moving(self, chance: random.Random, seconds: float) -> float:
        if seconds <= 0:
            return 0.0
        return max(LEAST_PHASE_S, seconds * chance.gauss(1, NOISE))

    def _pause(self, chance: random.Random, seconds: float) -> float:
        return max(0.0, seconds * chance.gauss(1, NOISE))
