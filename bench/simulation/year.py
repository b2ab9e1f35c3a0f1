"""A year of one made-up athlete: programmes in blocks, plans, and logs as untidy as life."""

from __future__ import annotations

import random
from collections.abc import Callable
from copy import deepcopy
from dataclasses import dataclass, field
from datetime import date, timedelta
from typing import Any, Final

from dialback.core.weeks import Week
from dialback.library import library

WEEKS: Final = 52
FIRST: Final = Week.parse("2025-W40")
LIGHTER_SHARE: Final = 0.6

Session = dict[str, Any]
Change = Callable[["Year", int, list[Session]], None]
"""What a fault does to the sessions of a week of the year."""


@dataclass(frozen=True, slots=True)
class Lift:
    """How a movement is loaded: the share of the body weight, kg per step, implements."""

    share: float
    step: float = 2.5
    implements: int = 1
    sides: str = "both"
    reps: tuple[int, int] = (8, 12)


LIFTS: Final = {
    "Back squat": Lift(0.95, reps=(5, 8)), "Front squat": Lift(0.75, reps=(5, 8)),
    "Leg press": Lift(1.6, 5), "Goblet squat": Lift(0.3, 2), "Box squat": Lift(0.9, reps=(5, 8)),
    "Split squat": Lift(0.16, 2, 2, "each"), "Reverse lunge": Lift(0.15, 2, 2, "each"),
    "Step-up": Lift(0.14, 2, 2, "each"), "Knee extension": Lift(0.5, 5),
    "Deadlift": Lift(1.2, reps=(4, 6)), "Romanian deadlift": Lift(0.8, reps=(6, 10)),
    "Trap-bar deadlift": Lift(1.25, reps=(4, 6)), "Hip thrust": Lift(1.0),
    "Leg curl": Lift(0.45, 5), "Seated leg curl": Lift(0.45, 5),
    "Bench press": Lift(0.7, reps=(5, 8)), "Incline bench press": Lift(0.55, reps=(6, 10)),
    "Dumbbell bench press": Lift(0.25, 2, 2), "Close-grip bench press": Lift(0.6, reps=(6, 10)),
    "Overhead press": Lift(0.42, reps=(5, 8)), "Dumbbell overhead press": Lift(0.17, 2, 2),
    "Push press": Lift(0.5, reps=(4, 6)),
    "Bent-over row": Lift(0.65, reps=(6, 10)), "Seated cable row": Lift(0.65, 5),
    "Bench-supported row": Lift(0.23, 2, 2), "One-arm dumbbell row": Lift(0.32, 2, 1, "each"),
    "Lat pull-down": Lift(0.68, 5), "Close-grip pull-down": Lift(0.68, 5),
    "Reverse fly": Lift(0.06, 1, 2, reps=(12, 15)), "Face pull": Lift(0.26, 5, reps=(12, 15)),
    "Dumbbell curl": Lift(0.12, 2, 2), "Hammer curl": Lift(0.13, 2, 2),
    "Barbell curl": Lift(0.3), "Cable press-down": Lift(0.28, 5),
    "Overhead triceps extension": Lift(0.18, 2), "Lateral raise": Lift(0.07, 1, 2, reps=(12, 15)),
    "Dumbbell fly": Lift(0.1, 2, 2), "Calf raise": Lift(0.6, reps=(10, 15)),
    "Seated calf raise": Lift(0.4, 5, reps=(10, 15)), "Back extension": Lift(0.05, 2.5),
    "Cable crunch": Lift(0.4, 5), "Cable chop": Lift(0.22, 5), "Shrug": Lift(0.3, 2, 2),
}  # fmt: skip
MAIN: Final = {
    "squat": ("Back squat", "Front squat", "Box squat"),
    "hinge": ("Deadlift", "Romanian deadlift", "Trap-bar deadlift"),
    "bench": ("Bench press", "Incline bench press", "Dumbbell bench press"),
    "press": ("Overhead press", "Push press", "Dumbbell overhead press"),
    "row": ("Bent-over row", "Seated cable row", "Bench-supported row"),
    "pull": ("Lat pull-down", "Close-grip pull-down"),
}
SMALL: Final = {
    "knee": ("Split squat", "Reverse lunge", "Step-up", "Leg press", "Knee extension"),
    "hip": ("Leg curl", "Seated leg curl", "Hip thrust"),
    "rows": ("One-arm dumbbell row", "Bench-supported row", "Seated cable row"),
    "rear": ("Reverse fly", "Face pull"),
    "chest": ("Dumbbell fly", "Dumbbell bench press", "Close-grip bench press"),
    "biceps": ("Dumbbell curl", "Hammer curl", "Barbell curl"),
    "triceps": ("Cable press-down", "Overhead triceps extension"),
    "delts": ("Lateral raise",),
    "calves": ("Calf raise", "Seated calf raise"),
    "trunk": ("Cable crunch", "Cable chop", "Back extension"),
}
DAYS: Final = {
    2: (("squat", "bench", "row", "hip", "rear", "delts", "trunk"),
        ("hinge", "pull", "press", "knee", "rows", "biceps", "calves")),
    3: (("squat", "bench", "row", "delts", "calves", "trunk"),
        ("hinge", "pull", "press", "rear", "biceps", "trunk"),
        ("knee", "bench", "row", "hip", "delts", "triceps", "calves")),
    4: (("squat", "knee", "hip", "calves", "trunk"),
        ("bench", "row", "delts", "rear", "triceps"),
        ("hinge", "hip", "knee", "calves", "trunk"),
        ("press", "pull", "rows", "chest", "biceps", "rear")),
    5: (("squat", "knee", "calves", "trunk"), ("bench", "row", "delts", "triceps"),
        ("hinge", "hip", "trunk", "calves"), ("press", "pull", "rear", "biceps"),
        ("knee", "rows", "chest", "hip", "delts")),
}  # fmt: skip
ON: Final = {2: (0, 3), 3: (0, 2, 4), 4: (0, 1, 3, 4), 5: (0, 1, 2, 3, 4)}
NAMES: Final = {2: ("Whole A", "Whole B"), 3: ("One", "Two", "Three"),
                4: ("Lower A", "Upper A", "Lower B", "Upper B"),
                5: ("Squat", "Bench", "Hinge", "Press", "Rest of it")}  # fmt: skip
KIT: Final = {
    "dumbbells_kg": [*range(1, 11), *range(12, 52, 2)],
    "bars_kg": [20],
    "plates": [{"kg": kg, "pairs": 4} for kg in (1.25, 2.5, 5, 10, 20)],
    "stacks": [{"name": "cable stack", "least_kg": 5, "step_kg": 5, "top_kg": 150},
               {"name": "machine", "least_kg": 5, "step_kg": 5, "top_kg": 250}],
}  # fmt: skip
_LIBRARY: Final = {movement.name: movement for movement in library()}


@dataclass
class Year:
    """One athlete's year, made week by week; faults are put in before it is made."""

    name: str
    rng: random.Random
    sessions_a_week: int
    bodyweight_kg: float
    strength: float
    gain: float
    discipline: float
    """How much of what is planned is written down as done, 0 to 1."""
    planners: list[Change] = field(default_factory=list)
    loggers: list[Change] = field(default_factory=list)
    kinds: dict[int, str] = field(default_factory=dict)
    restrictions: list[dict[str, Any]] = field(default_factory=list)
    weighings: list[dict[str, Any]] = field(default_factory=list)
    blocks: list[tuple[int, int]] = field(default_factory=list)
    heavy: dict[int, float] = field(default_factory=dict)
    """By week of the year, a factor on the body weight."""
    stands: dict[str, int] = field(default_factory=dict)
    """By movement, the week of the year from which it stands still."""
    never_light: range = range(0)
    """Weeks without a lighter one among them."""

    def begin(self) -> None:
        """Choose the blocks and what is trained in each."""
        at = 0
        self.programmes: list[list[list[str]]] = []
        main = {key: self.rng.choice(of) for key, of in MAIN.items()}
        while at < WEEKS:
            length = self.rng.choice((4, 4, 8))
            self.blocks.append((at, length))
            if self.rng.random() < 0.3:
                changed = self.rng.choice(list(MAIN))
                main[changed] = self.rng.choice(MAIN[changed])
            days = []
            for slots in DAYS[self.sessions_a_week]:
                names: list[str] = []
                for slot in slots:
                    name = main[slot] if slot in main else self.rng.choice(SMALL[slot])
                    if name not in names:
                        names.append(name)
                days.append(names)
            self.programmes.append(days)
            at += length

    def block_of(self, at: int) -> int:
        """The number of the block that a week of the year is in."""
        return next(n for n, (first, many) in enumerate(self.blocks) if first <= at < first + many)

    def is_light(self, at: int) -> bool:
        """Whether the programme has a lighter week there: the last of four."""
        first = self.blocks[self.block_of(at)][0]
        return at not in self.never_light and (at - first) % 4 == 3

    def on_day(self, at: int, number: int) -> str:
        """The day of a session of a week of the year."""
        on = FIRST.plus(at).monday + timedelta(days=ON[self.sessions_a_week][number])
        return on.isoformat()

    def load(self, name: str, at: float) -> float:
        """The working load of a movement in a week of the year, one implement, kg."""
        lift = LIFTS[name]
        gained = 1 + self.gain * min(at, self.stands.get(name, at))
        kg = lift.share * self.bodyweight_kg * self.strength * gained
        return max(lift.step, round(kg / lift.step) * lift.step)

    def planned(self, at: int) -> list[Session]:
        """The plan of a week of the year."""
        days = self.programmes[self.block_of(at)]
        light = self.is_light(at)
        made = []
        for number, names in enumerate(days):
            sets: list[dict[str, Any]] = []
            for place, name in enumerate(names):
                lift = LIFTS[name]
                count = 4 if place < 2 else 3
                count = max(1, round(count * LIGHTER_SHARE)) if light else count
                kg = self.load(name, at)
                if place < 2 and lift.share > 0.5:
                    sets += self._sets(name, 1, 6, round(kg * 0.6 / 2.5) * 2.5, warm_up=True)
                sets += self._sets(name, count, (lift.reps[0] + lift.reps[1]) // 2, kg)
            title = NAMES[self.sessions_a_week][number]
            made.append({"date": self.on_day(at, number), "title": title, "sets": sets})
        for change in self.planners:
            change(self, at, made)
        return made

    @staticmethod
    def _sets(
        name: str, count: int, reps: int, kg: float, *, warm_up: bool = False
    ) -> list[dict[str, Any]]:
        lift = LIFTS[name]
        one: dict[str, Any] = {"exercise": name, "reps": reps, "load_kg": kg, "rest_s": 90}
        if lift.implements > 1:
            one["implements"] = lift.implements
        if lift.sides != "both":
            one["sides"] = lift.sides
        if warm_up:
            one["warm_up"] = True
        return [dict(one) for _ in range(count)]

    def done(self, at: int, planned: list[Session]) -> list[Session]:
        """What was done of a plan: nearly all of it, nearly as it was written."""
        chance = self.rng
        made = []
        for plan in planned:
            if chance.random() < 0.03:
                continue
            one = deepcopy(plan)
            if chance.random() < 0.06:
                # A day later, still for that plan.
                later = date.fromisoformat(plan["date"]) + timedelta(days=1)
                one.update(date=later.isoformat(), plan=plan["date"])
            sets = []
            for a_set in one["sets"]:
                if not a_set.get("warm_up"):
                    if chance.random() < 0.02:
                        continue
                    if chance.random() < self.discipline:
                        a_set["rpe"] = chance.choice((6.5, 7, 7, 7.5, 7.5, 8, 8, 8.5))
                    if "reps" in a_set and chance.random() < 0.07:
                        a_set["reps"] = max(1, a_set["reps"] - 1)
                    a_set["rest_s"] = round(a_set["rest_s"] * chance.uniform(0.9, 1.15))
                sets.append(a_set)
            one["sets"] = sets
            if chance.random() < self.discipline:
                one["rpe"] = chance.choice((6, 6.5, 7, 7.5, 8))
                one["duration_min"] = round(10 + 2.7 * len(sets) + chance.uniform(-5, 6))
            made.append(one)
        for change in self.loggers:
            change(self, at, made)
        return made

    def book(self) -> dict[str, Any]:
        """The whole year as a book."""
        planned: list[Session] = []
        completed: list[Session] = []
        for at in range(WEEKS):
            plan = self.planned(at)
            planned += plan
            completed += self.done(at, plan)
            kg = self.bodyweight_kg * self.heavy.get(at, 1.0) + self.rng.uniform(-0.5, 0.5)
            day = FIRST.plus(at).monday.isoformat()
            self.weighings.append({"date": day, "kg": round(kg, 1)})
        names = {one["exercise"] for session in [*planned, *completed] for one in session["sets"]}
        return {
            "format": "dialback-book",
            "version": 1,
            "athlete": {
                "name": self.name,
                "bodyweight_kg": self.bodyweight_kg,
                "restrictions": self.restrictions,
                "weighings": self.weighings,
            },
            "kit": KIT,
            "exercises": [_LIBRARY[name].model_dump(mode="json") for name in sorted(names)],
            "blocks": [
                {"week": str(FIRST.plus(first)), "weeks": many, "title": f"Block {number}"}
                for number, (first, many) in enumerate(self.blocks, 1)
            ],
            "kinds": [
                {"week": str(FIRST.plus(at)), "kind": kind}
                for at, kind in sorted(self.kinds.items())
            ],
            "planned": planned,
            "completed": completed,
        }


def a_year(name: str, seed: int) -> Year:
    """An athlete of some kind, with nothing put in yet."""
    rng = random.Random(seed)
    made = Year(
        name,
        rng,
        sessions_a_week=rng.choice((2, 3, 3, 3, 4, 4, 5)),
        bodyweight_kg=rng.uniform(58, 95),
        strength=rng.uniform(0.7, 1.3),
        gain=rng.uniform(0.001, 0.005),
        discipline=rng.choice((1.0, 1.0, 0.95, 0.8, 0.5)),
    )
    made.begin()
    return made
