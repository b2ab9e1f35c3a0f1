"""Robust trends of a few points: slope, and whether it is more than the scatter.

Sources: Sen 1968, J Am Stat Assoc 63(324) (the slope: the median of all slopes between two points);
Mann 1945, Econometrica 13(3), and Kendall 1975 (whether it goes one way: the sign of all pairs).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations, pairwise
from math import sqrt
from statistics import median
from typing import Final

LEAST_POINTS: Final = 6
"""Of fewer points none goes one way so clearly that chance would not."""
SURE: Final = 2.33
"""Standard deviations of the Mann-Kendall sum: one chance in a hundred, on one side."""
MOST_AT_ONCE: Final = 0.45
"""What goes by steps as large as this share of the whole way is a change, not a drift."""

Points = Sequence[tuple[float, float]]
"""Pairs of x (weeks, increasing) and y."""


@dataclass(frozen=True, slots=True)
class Trend:
    """A line through points: y per unit of x, the values of the line at both ends, and ``z``.

    ``z`` is the standardised Mann-Kendall sum: how clearly it rises (above 0) or falls.
    """

    slope: float
    first: float
    last: float
    z: float
    step: float = 0.0
    """The largest step between two points in a row, in the direction of the trend."""

    @property
    def rises(self) -> bool:
        """Whether it rises, beyond what the scatter explains."""
        return self.z >= SURE

    @property
    def creeps(self) -> bool:
        """Whether it goes little by little: no single step is half of the way."""
        return self.step <= MOST_AT_ONCE * abs(self.last - self.first)

    @property
    def falls(self) -> bool:
        """Whether it falls, beyond what the scatter explains."""
        return -self.z >= SURE


def trend(points: Points, least: int = LEAST_POINTS) -> Trend | None:
    """The trend of points in order of x; ``None`` of fewer than ``least``."""
    if len(points) < max(least, 2):
        return None
    slopes, signs = [], 0
    for (x0, y0), (x1, y1) in combinations(points, 2):
        slopes.append((y1 - y0) / (x1 - x0))
        signs += (y1 > y0) - (y1 < y0)
    slope = median(slopes)
    level = median(y - slope * x for x, y in points)
    n = len(points)
    spread = sqrt(n * (n - 1) * (2 * n + 5) / 18)
    # Continuity: one pair less, towards no trend.
    z = (signs - (signs > 0) + (signs < 0)) / spread
    way = 1 if slope >= 0 else -1
    step = max(way * (y1 - y0) for (_, y0), (_, y1) in pairwise(points))
    return Trend(slope, level + slope * points[0][0], level + slope * points[-1][0], z, step)
