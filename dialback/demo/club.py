"""The rowers, each with a story that shows one thing well. All names are invented."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Final

from dialback.demo.programmes import (
    CIRCUITS,
    HOME,
    LAND,
    PUSHING,
    Day,
    line,
    on_days,
    with_keys,
    with_sets,
    without,
)

CLUB: Final = "Sallowmere Rowing Club"
COACH: Final = "Ines Tarrow"
PHYSIO: Final = "Runa Velk, physiotherapist"

WEEKS: Final = 16
"""Weeks that everybody has been there, up to the one to audit."""
A_YEAR: Final = 52
NEXT_BLOCK: Final = 2
"""The week, counted from the one to audit, that the coming block begins in."""

EIGHTS: Final = "Eights"
SCULLS: Final = "Sculls"
"""The squads of the club."""

Programme = Callable[[int], list[Day]]
"""The days of a week; weeks are counted back from the one to audit, which is 0."""


@dataclass(frozen=True, slots=True)
class Rower:
    """A rower: what was planned each week, and how the log differs.

    ``strength`` scales the club's loads. ``missed`` weeks have a plan and no log, ``absent`` ones
    neither. ``load_jump`` multiplies the load of a movement in the week to audit. Of that week are
    the rest, too: its last session is ``half_logged`` or has ``rounds_more`` of its circuit, one
    movement was done for another (``swap``), a sensor ``measured`` some, ``pain`` stopped one.
    ``restrictions``, ``care`` and ``decisions`` begin in a week. A ``goal`` is a movement, a load,
    reps, and weeks from now. Some have a longer past than the others (``weeks``), with a week of
    ``tests`` in it; sessions that ``drag`` take so much longer each week of the last ten.
    """

    name: str
    bodyweight_kg: float
    strength: float
    note: str
    squad: str
    programme: Programme
    missed: tuple[int, ...] = ()
    absent: tuple[int, ...] = ()
    missed_days: tuple[tuple[int, int], ...] = ()
    load_jump: dict[str, float] = field(default_factory=dict)
    extra_rounds: int = 0
    in_pounds: bool = False
    weak_side: float = 1.0
    half_logged: bool = False
    rounds_more: int = 0
    swap: tuple[str, str] | None = None
    measured: tuple[str, ...] = ()
    pain: tuple[str, str] | None = None
    restrictions: tuple[tuple[int, dict[str, Any]], ...] = ()
    goal: tuple[str, float, int, int] | None = None
    care: tuple[tuple[int, dict[str, Any]], ...] = ()
    turns_18: bool = False
    weeks: int = WEEKS
    tests: tuple[int, ...] = ()
    drag: float = 0.0
    decisions: tuple[tuple[int, dict[str, Any]], ...] = ()


_PUSHING: Final = {"Bench press": 6, "Lat pull-down": 3, "Seated cable row": 3, "Face pull": 2}


def _always(days: list[Day]) -> Programme:
    return lambda _: days


def _scullers(days: list[Day]) -> Programme:
    """Some scullers' next block is written, and not yet audited: much to push, little to pull."""
    return lambda week: days if week < NEXT_BLOCK else with_sets(days, _PUSHING)


def _slow_now(week: int) -> list[Day]:
    """A slow week: longer phases, so less load, and more tension."""
    if week < 0:
        return LAND
    slow = (
        "Back squat",
        "Bench press",
        "Romanian deadlift",
        "Split squat",
        "Dumbbell bench press",
        "Seated cable row",
        "Bench-supported row",
    )
    return with_keys(_scullers(LAND)(week), slow, tempo="4-1-2-0", share=0.7)


def _home_now(week: int) -> list[Day]:
    return HOME if week > -4 else LAND


def _fuller_now(week: int) -> list[Day]:
    """A coach's good intentions: one set more of nearly everything."""
    if week < 0:
        return LAND
    return with_sets(
        LAND, {"Back squat": 6, "Split squat": 6, "Bench press": 5, "Romanian deadlift": 5}
    )


_SORE_ELBOW = without(LAND, "Overhead press", "Overhead triceps extension", "Dumbbell curl")
_HINGE_LOVER = [
    (
        day,
        title,
        [*lines, line("Hip thrust", 4, 8, rest_s=120), line("Deadlift", 3, 5, rest_s=150)]
        if day == 2
        else lines,
    )
    for day, title, lines in with_sets(LAND, {"Back squat": 3, "Split squat": 3})
]
_LEGS_OFTEN = on_days(
    [
        (0, LAND[0][1], LAND[0][2]),
        (1, "Legs again", [*LAND[2][2][:3], line("Leg press", 5, 10, rest_s=90)]),
        (3, LAND[1][1], LAND[1][2]),
        (5, LAND[2][1], LAND[2][2][3:]),
    ],
    0, 1, 3, 5,
)  # fmt: skip
_QUADS_HEAVY = [
    *with_sets(LAND, {"Back squat": 6, "Split squat": 6}),
    (
        5,
        "Extra legs",
        [
            line("Leg press", 6, 11, rest_s=90),
            line("Front squat", 6, 6, rest_s=120),
            line("Press-up", 6, 12, rest_s=60),
        ],
    ),
]
_ONE_ARM = [
    (day, title, [
        {**one, "exercise": "One-arm dumbbell row", "sides": "sided"}
        if one.get("exercise") == "Bench-supported row" else one
        for one in lines
    ])
    for day, title, lines in with_keys(LAND, ("Split squat",), sides="sided")
]  # fmt: skip

ROWERS: Final[tuple[Rower, ...]] = (
    Rower("Maro Veldt", 84.0, 1.05, "A pushing winter: he benches, and forgets to row on land.",
          EIGHTS, _always(PUSHING), swap=("Lat pull-down", "Dumbbell curl"),
          goal=("Back squat", 120, 3, 9)),
    Rower("Tess Hallorin", 66.5, 0.90, "Back after three weeks of flu and exams.",
          SCULLS, _always(LAND), absent=(-3, -2, -1),
          care=((0, {"kind": "illness", "by": PHYSIO,
                     "word": "no fever for ten days; two easy weeks; stop if short of breath"}),)),
    Rower("Ondra Pell", 73.0, 0.85, "Trains by the clock: circuits, nobody counts the reps.",
          EIGHTS, _always(CIRCUITS), rounds_more=2),
    Rower("Lisbet Arnaud", 70.0, 0.95,
          "Sore left elbow. No pressing overhead and no work for the elbow alone, on the word of "
          "the club's physiotherapist, until she lifts it.",
          EIGHTS, _always(_SORE_ELBOW), pain=("Bench press", "left elbow again, at the bottom"),
          restrictions=(
              *((-9, {"about": "pattern", "subject": pattern, "by": PHYSIO,
                      "word": "tendon at the left elbow; seen again in the new year"})
                for pattern in ("vertical_push", "elbow_extension", "elbow_flexion")),
              (1, {"about": "movement", "subject": "Bench press", "most_load_kg": 30, "by": PHYSIO,
                   "word": "it hurt at the bottom again: light, and no grinding"}),
          )),
    Rower("Jory Castelin", 78.5, 0.95, "A month at home with bands; no kilograms to write down.",
          EIGHTS, _home_now, turns_18=True),
    Rower("Wendel Okoro-Fay", 91.0, 1.10,
          "Logs in pounds; his rack came from overseas. A slow week now: less load, more time.",
          SCULLS, _slow_now, in_pounds=True),
    Rower("Mirren Sollas", 62.0, 0.90, "Left and right written apart since the rib last spring.",
          SCULLS, _scullers(_ONE_ARM), weak_side=0.8),
    Rower("Anselm Brook", 80.0, 1.00, "A clean record.", EIGHTS, _always(LAND),
          measured=("Back squat", "Bench press"), goal=("Bench press", 75, 5, 11), weeks=A_YEAR),
    Rower("Pia Dresner", 68.0, 1.05, "Strong month: the loads go up faster than the rules like.",
          SCULLS, _scullers(LAND), load_jump={"Bench press": 1.18, "Lat pull-down": 1.14,
                                    "Romanian deadlift": 1.09},
          weeks=A_YEAR, drag=0.04),
    Rower("Calder Nuys", 87.5, 1.00, "Loves the hinge; hips do everything.",
          SCULLS, _scullers(_HINGE_LOVER), missed_days=((0, 4),)),
    Rower("Yara Quill", 64.0, 0.85, "Legs on two days in a row since the boat times changed.",
          EIGHTS, _always(_LEGS_OFTEN), half_logged=True, weeks=A_YEAR, tests=(-10,),
          decisions=((-14, {"code": "spacing", "subject": "quads", "measure": "sets",
                            "value": 7.0, "reason": "the boat leaves on Wednesdays"}),)),
    Rower("Bram Osterley", 95.0, 1.15, "Cannot stop: extra legs on Saturdays, extra rounds.",
          EIGHTS, lambda week: _QUADS_HEAVY if week >= -1 else _fuller_now(week), extra_rounds=1),
    Rower("Edda Brimlow", 71.0, 0.95, "Five weeks away for exams; trains again from Monday on.",
          SCULLS, _always(LAND), absent=(-3, -2, -1, 0, 1)),
)  # fmt: skip
