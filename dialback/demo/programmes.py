"""What the club trains: programmes as days of lines, and what a rower lifts in each movement."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final


@dataclass(frozen=True, slots=True)
class Kit:
    """How a movement is loaded: share of body weight for all implements, how many, kg per step."""

    share: float
    implements: int
    step: float


BAR, STACK = 2.5, 5.0
LOADS: Final[dict[str, Kit]] = {
    "Back squat": Kit(0.95, 1, BAR),
    "Front squat": Kit(0.75, 1, BAR),
    "Goblet squat": Kit(0.30, 1, 2),
    "Leg press": Kit(1.60, 1, STACK),
    "Split squat": Kit(0.32, 2, 2),
    "Step-up": Kit(0.28, 2, 2),
    "Reverse lunge": Kit(0.30, 2, 2),
    "Deadlift": Kit(1.20, 1, BAR),
    "Romanian deadlift": Kit(0.80, 1, BAR),
    "One-leg Romanian deadlift": Kit(0.20, 1, 2),
    "Kettlebell swing": Kit(0.26, 1, 4),
    "Hip thrust": Kit(1.00, 1, BAR),
    "Leg curl": Kit(0.45, 1, STACK),
    "Bench press": Kit(0.70, 1, BAR),
    "Dumbbell bench press": Kit(0.50, 2, 2),
    "Floor press": Kit(0.46, 2, 2),
    "Incline bench press": Kit(0.55, 1, BAR),
    "Dumbbell fly": Kit(0.20, 2, 2),
    "Overhead press": Kit(0.42, 1, BAR),
    "Dumbbell overhead press": Kit(0.34, 2, 2),
    "Overhead triceps extension": Kit(0.18, 1, 2),
    "Cable press-down": Kit(0.28, 1, STACK),
    "Bench-supported row": Kit(0.46, 2, 2),
    "One-arm dumbbell row": Kit(0.32, 1, 2),
    "Bent-over row": Kit(0.65, 1, BAR),
    "Seated cable row": Kit(0.65, 1, STACK),
    "Lat pull-down": Kit(0.68, 1, STACK),
    "Reverse fly": Kit(0.12, 2, 1),
    "Face pull": Kit(0.26, 1, STACK),
    "Dumbbell curl": Kit(0.24, 2, 2),
    "Hammer curl": Kit(0.26, 2, 2),
    "Lateral raise": Kit(0.14, 2, 1),
    "Shrug": Kit(0.60, 2, 2),
    "Calf raise": Kit(0.60, 1, BAR),
    "Suitcase carry": Kit(0.32, 1, 2),
    "Cable chop": Kit(0.22, 1, STACK),
}

Line = dict[str, Any]


def line(exercise: str, sets: int, reps: int | None = None, **more: Any) -> Line:
    """``sets`` equal sets of a movement; ``more`` are further keys of the set."""
    return {"exercise": exercise, "count": sets, "reps": reps, **more}


def warm_up(exercise: str, reps: int, share: float) -> Line:
    """A warm-up set at a share of the working load."""
    return line(exercise, 1, reps, warm_up=True, share=share)


Day = tuple[int, str, list[Line]]
"""Day of the week (0 is Monday), title, lines."""

_OPENING: Final = [
    line("Rowing machine, steady", 1, seconds=480, warm_up=True),
    line("Hip opener", 1, 8, sides="each", warm_up=True),
]

LAND: Final[list[Day]] = [
    (0, "Squat and press", [
        *_OPENING,
        warm_up("Back squat", 6, 0.5), warm_up("Back squat", 4, 0.75),
        line("Back squat", 4, 6, rest_s=150),
        line("Bench press", 4, 7, rest_s=120),
        line("Bench-supported row", 4, 9, rest_s=90),
        line("Lateral raise", 3, 13, rest_s=60),
        line("Calf raise", 3, 12, rest_s=60),
        line("Front plank", 3, seconds=40, rest_s=40),
    ]),
    (2, "Hinge and pull", [
        *_OPENING,
        warm_up("Romanian deadlift", 6, 0.6),
        line("Romanian deadlift", 4, 8, rest_s=120),
        line("Lat pull-down", 4, 9, rest_s=90),
        line("Overhead press", 3, 7, rest_s=120),
        line("Face pull", 3, 14, rest_s=60),
        line("Dumbbell curl", 2, 11, rest_s=60),
        line("Dead bug", 2, 10, sides="alternating", rest_s=40),
        line("Skipping", 1, seconds=240),
    ]),
    (4, "Single leg and row", [
        *_OPENING,
        line("Split squat", 4, 9, sides="each", rest_s=90),
        line("Dumbbell bench press", 4, 9, rest_s=90),
        line("Seated cable row", 4, 10, rest_s=90),
        line("Leg curl", 3, 11, rest_s=75),
        line("Lateral raise", 2, 13, rest_s=60),
        line("Overhead triceps extension", 2, 11, rest_s=60),
        line("Calf raise", 2, 12, rest_s=60),
    ]),
]  # fmt: skip
"""The club's winter programme: inside every band of the default rules."""


def _interval(exercise: str, seconds: float, **more: Any) -> Line:
    return line(exercise, 1, seconds=seconds, rest_s=20, **more)


def _rounds(part: str, count: int, *lines: Line) -> list[Line]:
    return [
        {**one, "part": part, "round": number, "place": place}
        for number in range(1, count + 1)
        for place, one in enumerate(lines, 1)
    ]


CIRCUITS: Final[list[Day]] = [
    (0, "Clock A", [
        *_OPENING,
        *_rounds("A", 4, _interval("Goblet squat", 40), _interval("Press-up", 40),
                 _interval("One-arm dumbbell row", 40, sides="alternating"),
                 _interval("Kettlebell swing", 40), _interval("Lateral raise", 30)),
        *_rounds("B", 2, _interval("Front plank", 40), _interval("Skipping", 60)),
    ]),
    (2, "Clock B", [
        *_OPENING,
        *_rounds("A", 4, _interval("Reverse lunge", 40, sides="alternating"),
                 _interval("Floor press", 40), _interval("Bench-supported row", 40),
                 _interval("Glute bridge", 40), _interval("Calf raise", 30)),
        *_rounds("B", 2, _interval("Dead bug", 40), _interval("Step-touch", 60)),
    ]),
    (4, "Clock C", [
        *_OPENING,
        *_rounds("A", 3, _interval("Step-up", 45, sides="alternating"),
                 _interval("Dumbbell overhead press", 45), _interval("Inverted row", 45),
                 _interval("One-leg Romanian deadlift", 45, sides="alternating"),
                 _interval("Reverse fly", 30)),
        line("Prone arm and leg lift", 2, seconds=30),
        {"moves": [{"exercise": "Hammer curl"}, {"exercise": "Dumbbell overhead press"}],
         "count": 3, "reps": None, "seconds": 40, "kit": "Hammer curl", "rest_s": 20},
    ]),
]  # fmt: skip

PUSHING: Final[list[Day]] = [
    (0, "Bench day", [
        *_OPENING,
        warm_up("Bench press", 8, 0.5),
        line("Bench press", 5, 6, rest_s=120),
        line("Incline bench press", 4, 8, rest_s=90),
        line("Dumbbell fly", 3, 12, rest_s=60),
        line("Cable press-down", 3, 12, rest_s=60),
        line("Front plank", 3, seconds=40, rest_s=40),
    ]),
    (2, "Legs and row", [
        *_OPENING,
        line("Back squat", 4, 6, rest_s=150),
        line("Romanian deadlift", 3, 8, rest_s=120),
        line("Leg curl", 3, 11, rest_s=75),
        line("Seated cable row", 4, 9, rest_s=90),
        line("Lat pull-down", 4, 9, rest_s=90),
        line("Calf raise", 4, 12, rest_s=60),
    ]),
    (4, "Press day", [
        *_OPENING,
        line("Overhead press", 4, 6, rest_s=120),
        line("Press-up", 3, 14, rest_s=60),
        line("Lateral raise", 4, 13, rest_s=60),
        line("Split squat", 4, 9, sides="each", rest_s=90),
        line("Dumbbell curl", 2, 11, rest_s=60),
        line("Hanging knee raise", 2, 10, rest_s=60),
    ]),
]  # fmt: skip

HOME: Final[list[Day]] = [
    (0, "Living room A", [
        line("Press-up", 4, 14, rest_s=60),
        line("Band row", 4, 16, rest_s=60),
        line("Body-weight squat", 4, 20, rest_s=60),
        line("Band pull-apart", 3, 20, rest_s=45),
        line("Calf raise", 3, 20, rest_s=45, bare=True),
    ]),
    (2, "Living room B", [
        line("Press-up, feet raised 30 cm", 3, 11, rest_s=60),
        line("Band row", 4, 16, rest_s=60),
        line("Sliding leg curl", 4, 9, rest_s=60),
        line("Split squat", 4, 15, sides="each", rest_s=60, bare=True),
        line("Side plank", 2, seconds=35, sides="each", rest_s=40),
    ]),
    (4, "Living room C", [
        line("Press-up", 4, 14, rest_s=60),
        line("Band row", 3, 16, rest_s=60),
        line("Glute bridge", 4, 18, rest_s=60),
        line("Band pull-apart", 3, 20, rest_s=45),
        line("Dead bug", 3, 12, sides="alternating", rest_s=40),
    ]),
]  # fmt: skip


def without(days: list[Day], *movements: str) -> list[Day]:
    """The programme less some movements."""
    return [
        (day, title, [one for one in lines if one.get("exercise") not in movements])
        for day, title, lines in days
    ]


def with_sets(days: list[Day], sets: dict[str, int]) -> list[Day]:
    """The programme with other numbers of working sets."""
    return [
        (
            day,
            title,
            [
                one
                if one.get("warm_up")
                else {**one, "count": sets.get(one["exercise"], one["count"])}
                for one in lines
            ],
        )
        for day, title, lines in days
    ]


def with_keys(days: list[Day], movements: tuple[str, ...], **keys: Any) -> list[Day]:
    """The programme with further keys on the working sets of some movements."""
    return [
        (
            day,
            title,
            [
                {**one, **keys} if one["exercise"] in movements and not one.get("warm_up") else one
                for one in lines
            ],
        )
        for day, title, lines in days
    ]


def on_days(days: list[Day], *numbers: int) -> list[Day]:
    """The programme on other days of the week."""
    return [(number, title, lines) for number, (_, title, lines) in zip(numbers, days, strict=True)]
