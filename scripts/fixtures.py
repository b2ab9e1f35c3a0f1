"""Write what the front end has of the core, as JSON: the measures, and what its rules are held to.

Floor works without a connection, so a few rules stand in the front end, too
(``frontend/src/shared/coreRules.ts``). Its tests read these answers, and ``tests/test_docs.py``
that they are the core's.
"""

from __future__ import annotations

import json
import sys
from dataclasses import asdict
from datetime import date
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT))

from dialback.book.book import SessionsByWeek  # noqa: E402
from dialback.core.body import BodyWeight  # noqa: E402
from dialback.core.kit import Kit, Plates, Stack, at_or_below, loads_for  # noqa: E402
from dialback.core.measures import MEASURES as MAIN  # noqa: E402
from dialback.core.measures import TABLE  # noqa: E402
from dialback.core.movements import MovementTable  # noqa: E402
from dialback.core.reconcile import match_sets  # noqa: E402
from dialback.core.rules import DEFAULT_RULES  # noqa: E402
from dialback.core.sense import Knowing, bounds_of, doubt_of  # noqa: E402
from dialback.core.sessions import Set  # noqa: E402
from dialback.core.tally import Ledger  # noqa: E402
from dialback.core.words import time_text  # noqa: E402
from dialback.library import library  # noqa: E402

OUT = ROOT / "frontend" / "tests" / "fixtures" / "core.json"
MEASURES = ROOT / "frontend" / "src" / "api" / "measures.json"
WANTED = (0, 2.5, 9.98, 10.02, 11, 19.9, 20, 20.04, 57.4, 60, 61.25, 140, 500)
DAY = date(2026, 11, 30)
TIMES = (20, 45.5, 60, 90, 119, 120, 150, 480, 3600)
PLANNED = (
    {"exercise": "Back squat", "reps": 6, "load_kg": 80, "rpe": 8, "rest_s": 120, "part": "main A"},
    {"exercise": "Bench press", "reps": 8, "reps_to": 12, "load_kg": 50, "note": "slow"},
    {"exercise": "Front plank", "seconds": 40, "sides": "each", "note": "hips level"},
    {"exercise": "Split squat", "reps": 9, "sides": "each", "load_kg": 16, "implements": 2,
     "tempo": "3-1-2-0", "round": 1, "place": 2, "part": "Circuit"},
    {"moves": [{"exercise": "Goblet squat", "times": 2}, {"exercise": "Lateral raise"}], "reps": 5},
)  # fmt: skip


BOUNDED = (
    ("Back squat", {"reps": 5, "load_kg": 140}),
    ("Back squat", {"reps": 5, "load_kg": 600}),
    ("Back squat", {"reps": 70, "load_kg": 40}),
    ("Lateral raise", {"reps": 12, "load_kg": 8, "implements": 2}),
    ("Lateral raise", {"reps": 12, "load_kg": 81, "implements": 2}),
    ("Pull-up", {"reps": 5, "load_kg": -20}),
    ("Pull-up", {"reps": 5, "load_kg": 300}),
    ("Press-up", {"reps": 100}),
    ("Press-up", {"reps": 101}),
    ("Press-up", {"reps": 300, "seconds": 600}),
    ("Skipping", {"reps": 300}),
    ("Front plank", {"seconds": 60}),
)
"""Sets on the floor: those beyond what is likely of their movement are asked about."""


def answers() -> dict[str, Any]:
    """The loads that a kit has at or below one, what a set done as planned is, how times read."""
    table = MovementTable(library())
    kit = Kit(
        dumbbells_kg=(2.5, 5, 7.5, 10, 12.5, 15, 17.5, 20, 22.5, 25),
        bars_kg=(20,),
        plates=(Plates(kg=1.25, pairs=1), Plates(kg=5, pairs=2), Plates(kg=20, pairs=2)),
        stacks=(
            Stack(name="pulley", movements=("Lat pull-down",), least_kg=5, step_kg=5, top_kg=60),
        ),
    )
    loads = []
    for name in ("Dumbbell curl", "Back squat", "Lat pull-down"):
        own = loads_for(kit, table[name])[1]
        for wanted in WANTED:
            loads.append({"wanted": wanted, "loads": own, "found": at_or_below(wanted, own)})
    return {
        "at_or_below": loads,
        "as_planned": [_as_planned(one, table) for one in PLANNED],
        "beyond": _beyond(table),
        "times": [{"seconds": seconds, "says": time_text(seconds)} for seconds in TIMES],
    }


def _beyond(table: MovementTable) -> list[dict[str, Any]]:
    """Sets with the bounds of their movement, and whether the core objects to as much of them."""
    knowing = Knowing(Ledger(SessionsByWeek([], []), table, DEFAULT_RULES, BodyWeight.of(80)), DAY)
    found = []
    for name, dose in BOUNDED:
        a_set = Set.model_validate({"exercise": name, **dose})
        doubt = doubt_of(a_set, knowing)
        bounds = asdict(bounds_of(table[name], knowing))
        found.append({"set": _json(a_set), "bounds": bounds, "doubt": doubt and doubt.why})
    return found


def _as_planned(planned: dict[str, Any], table: MovementTable) -> dict[str, Any]:
    """A planned set, and what is logged of it when it was done as planned: the core agrees."""
    plan = Set.model_validate(planned)
    kept = {key: value for key, value in planned.items() if key not in ("reps_to", "note")}
    done = Set.model_validate(kept)
    (match,) = match_sets([plan], [done], table)
    assert match.kind == "as planned", match
    return {"planned": _json(plan), "done": _json(done)}


def _json(one: Set) -> dict[str, Any]:
    return one.model_dump(mode="json")


def measures() -> list[dict[str, Any]]:
    """The table of measures, as the front end has it."""
    return [asdict(one) | {"main": one.name in MAIN} for one in TABLE]


def main() -> None:
    """Write them."""
    MEASURES.write_text(json.dumps(measures(), indent=1) + "\n")
    OUT.parent.mkdir(exist_ok=True)
    OUT.write_text(json.dumps(answers(), indent=1) + "\n")


if __name__ == "__main__":
    main()
