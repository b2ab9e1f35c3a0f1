"""Shapes of the place `floor`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.plain import MAX_INTEGER
from dialback.core.sessions import Set
from dialback.web.shapes.common import CareNote, DayText, LogOut, RestrictionNote, Shape
from dialback.web.shapes.cues import Cue


class FloorQuery(Shape):
    """A day on the floor; today if left out."""

    day: DayText | None = None


class FloorSession(Shape):
    """A session that can be run today."""

    plan: int
    athlete: int
    name: str
    squad: str
    date: str
    title: str
    sets: int
    minutes: float
    done: bool


class FloorDay(Shape):
    """What is planned for a day, athlete by athlete."""

    day: str
    sessions: list[FloorSession]


class RunQuery(Shape):
    """A planned session to run, by its number."""

    plan: int = Field(ge=1, le=MAX_INTEGER)


class FloorBounds(Shape):
    """Up to what a set is likely, in kg and reps: what is beyond is asked about, and kept.

    ``most_kg`` is what a rep moves, ``unloaded_kg`` of it without a load; ``in_hand_kg`` is one
    implement. ``says`` is told of a load beyond them.
    """

    most_kg: float | None
    in_hand_kg: float | None
    unloaded_kg: float
    reps: int | None
    loaded_reps: int | None
    says: str


class FloorMovement(Shape):
    """What can be done about a movement on the floor.

    ``loads`` are those that can be made, in kg of one implement; empty where nothing is known.
    It can be helped where body weight is part of what is moved.
    """

    name: str
    loads: list[float]
    easier: str | None
    harder: str | None
    instead: list[str]
    tempo: str | None
    isometric: bool
    can_be_helped: bool
    bounds: FloorBounds
    cues: list[Cue] = Field(description="What is said at it, in the order in which it is said")


class FloorSet(Shape):
    """A set to do: ``rest_s`` after it, ``cycle_s`` of one rep, its place in rounds if it has one.

    ``timed`` sets run by the clock.
    """

    set: Set
    movement: str
    dose: str
    load: str
    why: str = Field(description="Why it stands there; of its part, where the line has no reason")
    target: str = Field(description="What it asks for beside: exertion, range, tempo in words")
    part: str
    round: int | None
    rounds: int | None
    rest_s: float
    seconds: float | None
    turn_s: float | None = Field(
        description="Pause before the other side of a timed set, seconds; none for a set of one"
    )
    cycle_s: float
    counted: bool


class FloorPart(Shape):
    """A part of a session, and the minute at which it ends."""

    name: str
    until_min: float


class FloorClock(Shape):
    """A session on the clock before it starts.

    ``over_min`` is by how much it is longer than a session may be. Without the accessories of
    ``leave_out`` it ``fits``, or still does not.
    """

    parts: list[FloorPart]
    over_min: float
    leave_out: list[str]
    fits: bool


class FloorRunOf(Shape):
    """One athlete's part of a run: the sets to do, and the log as far as it goes.

    ``log_steps``: for each set of the log the place of the planned one that it was done for, from
    0; none for one that is in no plan.
    """

    athlete: int
    name: str
    plan: int
    date: str
    title: str
    sets: list[FloorSet]
    clock: FloorClock
    unread: list[str] = Field(description="Lines of the plan that are not read, to tick by hand")
    restrictions: list[RestrictionNote]
    care: list[CareNote]
    why: str = Field(description="Why the session is as it is")
    own_cues: list[Cue] = Field(description="What this athlete is told, by movement")
    new_to: list[str] = Field(description="Movements that are new to them")
    log: LogOut | None
    log_steps: list[int | None]


class FloorRun(Shape):
    """A session to run; several are laid together where they are run, by one clock."""

    run: FloorRunOf
    movements: list[FloorMovement]
    names: list[str]
    caution: str
    sensor: bool = False


class SensorQuery(Shape):
    """What the simulated sensor is to see; ``pace`` runs its time faster."""

    reps: int = Field(10, ge=1, le=200)
    tempo: str = Field("2-0-1-0", max_length=24)
    seed: int = Field(1, ge=0, le=2**31)
    pace: float = Field(1, ge=0.5, le=1000)
