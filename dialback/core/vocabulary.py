"""The closed word lists of the trade: muscles, patterns and their classes, measures, pairs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

from dialback.core.measures import MEASURES, MUSCLE_MEASURES

Muscle = Literal[
    "chest",
    "front_delts",
    "side_delts",
    "rear_delts",
    "rotator_cuff",
    "traps",
    "upper_back",
    "lats",
    "lower_back",
    "biceps",
    "triceps",
    "forearms",
    "abs",
    "obliques",
    "glutes",
    "quads",
    "hamstrings",
    "adductors",
    "abductors",
    "calves",
]
MUSCLES: Final[tuple[str, ...]] = get_args(Muscle)

Role = Literal["direct", "indirect"]

Pattern = Literal[
    "horizontal_push", "vertical_push", "chest_fly", "elbow_extension",
    "horizontal_pull", "vertical_pull", "rear_raise", "elbow_flexion",
    "squat", "lunge", "knee_extension",
    "hinge", "hip_extension", "knee_flexion",
    "shoulder_raise", "shrug", "hip_adduction", "hip_abduction", "calf_raise",
    "trunk_flexion", "trunk_extension", "trunk_rotation", "trunk_brace", "carry",
    "conditioning", "mobility",
]  # fmt: skip
PATTERNS: Final[tuple[str, ...]] = get_args(Pattern)

CLASSES: Final[dict[str, frozenset[str]]] = {
    "push": frozenset({"horizontal_push", "vertical_push", "chest_fly", "elbow_extension"}),
    "pull": frozenset({"horizontal_pull", "vertical_pull", "rear_raise", "elbow_flexion"}),
    "knee": frozenset({"squat", "lunge", "knee_extension"}),
    "hip": frozenset({"hinge", "hip_extension", "knee_flexion"}),
}

UNCOUNTED: Final[frozenset[str]] = frozenset({"conditioning", "mobility"})
"""Patterns whose time is kept apart and never enters the strength sums."""

ProgressRule = Literal["reps_first", "load_first", "sets", "density", "tempo", "hold"]
"""How a movement moves on when its range is mastered."""

Level = Literal["note", "caution", "high"]
"""How much something that is found matters."""
LEVELS: Final[tuple[Level, ...]] = get_args(Level)
"""The levels, the least first."""
Key = tuple[str, str, str]
"""Code, subject and measure: what makes it the same finding in another week."""

Basis = Literal["completed", "planned"]
WeekKind = Literal[
    "lighter", "taper", "test", "overreach", "travel", "race", "return", "rehab", "skill", "tempo"
]
"""What a week is for, where a coach has said so."""
WEEK_KINDS: Final[tuple[WeekKind, ...]] = get_args(WeekKind)
LIGHT_KINDS: Final[frozenset[WeekKind]] = frozenset({"lighter", "taper"})
"""Kinds of weeks that are lighter ones, however many sets they have."""
BASES: Final[tuple[Basis, ...]] = ("planned", "completed")


@dataclass(frozen=True, slots=True)
class Pair:
    """Two sides that are weighed against each other.

    ``of`` says what ``a`` and ``b`` are made of: movement patterns, muscles, or the athlete's
    sides. ``scoped`` pairs obey the house rule ``push_pull_scope``.
    """

    name: str
    of: Literal["pattern", "muscle", "side"]
    a: frozenset[str]
    b: frozenset[str]
    labels: tuple[str, str]
    scoped: bool = False

    @property
    def title(self) -> str:
        """Its sides as they are read: ``push : pull``."""
        return " : ".join(self.labels)

    @property
    def measures(self) -> tuple[str, ...]:
        """The measures this pair has."""
        return MUSCLE_MEASURES if self.of == "muscle" else MEASURES


def _muscle_pair(a: str, b: str, name: str) -> Pair:
    return Pair(name, "muscle", frozenset({a}), frozenset({b}), (label(a), label(b)))


def label(word: str) -> str:
    """The word as it is read: ``front_delts`` -> ``front delts``."""
    return word.replace("_", " ")


PAIRS: Final[tuple[Pair, ...]] = (
    Pair("push_pull", "pattern", CLASSES["push"], CLASSES["pull"], ("push", "pull"), scoped=True),
    Pair(
        "horizontal_push_pull", "pattern",
        frozenset({"horizontal_push", "chest_fly"}), frozenset({"horizontal_pull", "rear_raise"}),
        ("horizontal push", "horizontal pull"),
    ),
    Pair(
        "vertical_push_pull", "pattern",
        frozenset({"vertical_push"}), frozenset({"vertical_pull"}),
        ("vertical push", "vertical pull"),
    ),
    Pair("knee_hip", "pattern", CLASSES["knee"], CLASSES["hip"], ("knee", "hip")),
    _muscle_pair("biceps", "triceps", "biceps_triceps"),
    _muscle_pair("quads", "hamstrings", "quads_hamstrings"),
    _muscle_pair("front_delts", "rear_delts", "front_rear_delts"),
    _muscle_pair("abs", "lower_back", "abs_lower_back"),
    Pair(
        "upper_lower", "pattern",
        CLASSES["push"] | CLASSES["pull"] | {"shoulder_raise", "shrug"},
        CLASSES["knee"] | CLASSES["hip"] | {"hip_adduction", "hip_abduction", "calf_raise"},
        ("upper body", "lower body"),
    ),
)  # fmt: skip
"""The pairs whose sides a set belongs to by its movements. A pair without a band raises nothing."""

LEFT_RIGHT: Final = Pair(
    "left_right", "side", frozenset({"left"}), frozenset({"right"}), ("left", "right")
)
"""The athlete's two sides: weighed over the movements that have a set of one side in the week."""

WHOLE_WEEK: Final = "total"
"""The subject of a finding about the week as a whole."""

PAIRS_BY_NAME: Final[Mapping[str, Pair]] = {pair.name: pair for pair in (*PAIRS, LEFT_RIGHT)}

BY_HAND: Final = frozenset(
    {"horizontal_push", "vertical_push", "horizontal_pull", "vertical_pull", "elbow_flexion",
     "elbow_extension", "shoulder_raise", "rear_raise", "chest_fly", "shrug"}
)  # fmt: skip
"""Patterns in which each hand has an implement of its own."""
