"""What makes little sense: each check with its reason, and the other readings of the same words.

None of the numbers is established by research: they are far beyond what boards have on them, so
that what is meant is seldom asked about. Source: Dial Back's own choice (``docs/method.md``,
*Sense*).
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Final

from dialback.core.kit import uses_bar, uses_dumbbells
from dialback.core.movements import Movement
from dialback.core.notation.session import Bout, Load
from dialback.core.sense.bounds import MOST_REPS, MOST_REPS_LOADED, Bounds, bounds_of
from dialback.core.sense.heard import Heard
from dialback.core.words import number, percent, weight_text

MOST_IN_ALL: Final = 300
"""Reps of a line: 10 sets of 30 are a day's work."""
MOST_SETS: Final = 20
LONGEST_REST_S: Final = 15 * 60
LONGEST_PHASE_S: Final = 15
HEAVY_WARM_UP: Final = 1.25
"""A single before the work may be heavier than it; not by so much."""
MOST_PERCENT: Final = 110
MOST_BODY_PERCENT: Final = 250
LIGHTEST_BAR_KG: Final = 4
"""A bar for technique weighs five; what is less is no load of a bar."""
MOST_OF_A_MAXIMUM: Final = 1.2
FEWEST_REPS: Final = 1
MOST_LIKELY_REPS: Final = 50

SECONDS: Final = "seconds"
TENTH: Final = "a tenth of it"
TEN_TIMES: Final = "ten times it"
HALF: Final = "half of it"

_TRAVEL: Final = frozenset({"carry", "lunge", "conditioning", "mobility"})
"""Patterns that can be measured in metres."""
_AT_ONCE: Final = frozenset({"squat", "hinge", "horizontal_push", "vertical_pull", "vertical_push"})


@dataclass(frozen=True, slots=True)
class Reason:
    """Why a dose makes little sense, and how else its words can be read."""

    why: str
    others: tuple[Heard, ...]


Check = Callable[[Heard], Iterator[Reason]]


def too_many_reps(heard: Heard) -> Iterator[Reason]:
    """More reps than anybody does of it, in a set or in all of them."""
    bout, reps = heard.bout, heard.bout.reps
    if reps is None or bout.seconds is not None or not heard.movement.counted:
        return
    loaded = bout.load is not None and not bout.load.help
    most = MOST_REPS_LOADED if loaded else MOST_REPS
    if reps <= most and heard.sets * reps <= MOST_IN_ALL:
        return
    if reps <= most and heard.sets > MOST_SETS:
        # That is asked about as so many sets.
        return
    others = [
        heard.but("a tenth of the reps", reps=fewer, reps_to=None)
        for fewer in _with_a_digit_less(reps)
    ]
    others += [
        heard.but(f"{sets} sets of {fewer}", sets=sets, reps=fewer, reps_to=None)
        for sets, fewer in _torn_apart(heard, reps)
    ]
    others.append(heard.but(SECONDS, reps=None, reps_to=None, seconds=float(reps)))
    in_all = f", {heard.sets * reps} in all" if heard.sets > 1 else ""
    yield Reason(f"{reps} reps in a set{in_all}: is that right?", tuple(others))


def _with_a_digit_less(reps: int) -> Iterator[int]:
    if reps % 10 == 0 and FEWEST_REPS <= reps // 10 <= MOST_LIKELY_REPS:
        yield reps // 10


def _torn_apart(heard: Heard, reps: int) -> Iterator[tuple[int, int]]:
    """``312`` without its sign: 3 sets of 12."""
    digits = str(reps)
    if heard.sets != 1 or len(digits) != 3:
        return
    first, rest = int(digits[0]), int(digits[1:])
    if digits[1] != "0" and 3 <= rest <= MOST_LIKELY_REPS and first > 1:
        yield first, rest


def too_many_sets(heard: Heard) -> Iterator[Reason]:
    """More sets of a movement than a session has."""
    reps = heard.bout.reps
    if heard.sets <= MOST_SETS:
        return
    others = []
    if reps is not None:
        others.append(heard.but("the other way round", sets=reps, reps=heard.sets, reps_to=None))
        if heard.bout.load is None:
            others.append(heard.but("the load", sets=1, load=Load(float(heard.sets))))
    yield Reason(f"{heard.sets} sets: is that right?", tuple(others))


def metres_on_the_spot(heard: Heard) -> Iterator[Reason]:
    """A distance of a movement that stays where it is."""
    metres = heard.bout.distance_m
    if metres is None or heard.movement.pattern in _TRAVEL:
        return
    others = []
    if (
        metres == int(metres)
        and FEWEST_REPS <= metres <= MOST_REPS
        and not heard.movement.isometric
    ):
        others.append(heard.but("reps", distance_m=None, reps=int(metres)))
    others.append(heard.but("minutes", distance_m=None, seconds=metres * 60))
    others.append(heard.but(SECONDS, distance_m=None, seconds=metres))
    name = heard.movement.name
    yield Reason(f"{name} is done on the spot: is {number(metres)} m right?", tuple(others))


def reps_of_a_hold(heard: Heard) -> Iterator[Reason]:
    """Reps of a movement that is held still."""
    reps = heard.bout.reps
    if reps is None or heard.bout.seconds is not None or not heard.movement.isometric:
        return
    other = heard.but(SECONDS, reps=None, reps_to=None, seconds=float(reps))
    yield Reason(f"{heard.movement.name} is held: are {reps} reps right?", (other,))


def lighter_than_a_bar(heard: Heard) -> Iterator[Reason]:
    """A load that no bar has: a share of a maximum as cells keep it, or a lost decimal point."""
    load = heard.bout.load
    if load is None or load.help or not 0 < load.kg < LIGHTEST_BAR_KG:
        return
    if not uses_bar(heard.movement) or uses_dumbbells(heard.movement):
        return
    unit = heard.knowing.ledger.unit
    others = [heard.but(TEN_TIMES, load=replace(load, value=load.value * 10))]
    if load.value <= MOST_OF_A_MAXIMUM:
        share = heard.but("a share of the maximum", load=None, percent=round(load.value * 100, 2))
        others.insert(0, share)
    yield Reason(f"{weight_text(load.kg, unit)} is less than a bar: is that right?", tuple(others))


def a_side_of_both(heard: Heard) -> Iterator[Reason]:
    """A side of a movement that both sides do at once."""
    movement = heard.movement
    if heard.bout.sides == "both" or movement.one_sided or movement.pattern not in _AT_ONCE:
        return
    if not movement.compound or not (uses_bar(movement) or movement.bodyweight_share >= 0.5):
        return
    others = [heard.but("both sides", sides="both")]
    like = _one_sided_like(heard)
    if like is not None:
        # Of a movement with sides "each" is what it means by itself.
        others.append(heard.of(like))
    yield Reason(f"{movement.name} works both sides at once: is one side right?", tuple(others))


def _one_sided_like(heard: Heard) -> Movement | None:
    """The one-sided movement that shares most with it: pattern, then direct muscles."""
    own = heard.movement
    found = [
        movement
        for movement in heard.knowing.movements
        if movement.one_sided and set(movement.direct) & set(own.direct)
    ]
    return min(
        found,
        key=lambda movement: (
            movement.pattern != own.pattern,
            -len(set(movement.direct) & set(own.direct)),
            movement.name,
        ),
        default=None,
    )


def too_heavy(heard: Heard) -> Iterator[Reason]:
    """A load beyond what the athlete can be expected to move, or anybody."""
    load, moved = heard.bout.load, heard.moves_kg
    if load is None or moved is None or load.value <= 0:
        return
    bounds = bounds_of(heard.movement, heard.knowing)
    if bounds.holds(moved, load.kg):
        return
    unit = heard.knowing.ledger.unit
    others = []
    if load.unit == "kg":
        others.append(heard.but("pounds", load=replace(load, unit="lb")))
    others.append(heard.but(TENTH, load=replace(load, value=load.value / 10)))
    if load.implements == 2:
        others.append(heard.but(HALF, load=replace(load, value=load.value / 2)))
    likely = tuple(one for one in others if _is_likely(one, bounds))
    yield Reason(f"{weight_text(load.kg, unit)} {bounds.says}", likely)


def _is_likely(heard: Heard, bounds: Bounds) -> bool:
    load = heard.bout.load
    return load is None or bounds.holds(heard.moves_kg or 0.0, load.kg)


def heavier_than_the_work(heard: Heard) -> Iterator[Reason]:
    """A warm-up with more load than the work that it is for."""
    load, work = heard.bout.load, heard.work_kg
    if load is None or work is None or load.help or load.kg <= HEAVY_WARM_UP * work:
        return
    unit = heard.knowing.ledger.unit
    warm_up, heaviest = weight_text(load.kg, unit), weight_text(work, unit)
    yield Reason(
        f"A warm-up at {warm_up} before work at {heaviest}: is that right?",
        (
            heard.but(TENTH, load=replace(load, value=load.value / 10)),
            heard.but(HALF, load=replace(load, value=load.value / 2)),
        ),
    )


def too_long_a_rest(heard: Heard) -> Iterator[Reason]:
    """A rest longer than a session."""
    rest = heard.bout.rest_s
    if rest is None or rest <= LONGEST_REST_S:
        return
    # Minutes for seconds.
    other = heard.but(SECONDS, rest_s=rest / 60)
    yield Reason(f"A rest of {number(rest / 60)} minutes: is that right?", (other,))


def beyond_the_maximum(heard: Heard) -> Iterator[Reason]:
    """A share of a maximum that cannot be lifted, or of one that a body-weight movement has not."""
    share = heard.bout.percent
    if share is None:
        return
    body = heard.knowing.body_kg
    if share > MOST_PERCENT:
        other = heard.but("kilograms", percent=None, load=Load(share))
        yield Reason(f"{percent(share / 100).lstrip('+')} of the maximum: is that right?", (other,))
    elif heard.movement.bodyweight_share >= 0.5 and body is not None:
        load = Load(round(share / 100 * body, 1))
        yield Reason(
            f"{number(share)} % of the one-rep max, or of body weight?",
            (heard.but("body weight", percent=None, load=load),),
        )


def help_without_the_body(heard: Heard) -> Iterator[Reason]:
    """Help with a movement that does not move the body: there is nothing to take off."""
    load = heard.bout.load
    if load is None or not load.help or heard.movement.bodyweight_share:
        return
    unit = heard.knowing.ledger.unit
    name = heard.movement.name
    yield Reason(
        f"{name} does not move the body: is help of {weight_text(-load.kg, unit)} right?",
        (heard.but("the load", load=replace(load, help=False)),),
    )


def beyond_the_body(heard: Heard) -> Iterator[Reason]:
    """A share of the body's weight that almost nobody moves."""
    share = heard.bout.body_percent
    if share is None or share <= MOST_BODY_PERCENT:
        return
    yield Reason(
        f"{number(share)} % of body weight: is that right?",
        (
            heard.but(TENTH, body_percent=share / 10),
            heard.but("kilograms", body_percent=None, load=Load(share)),
        ),
    )


def too_slow(heard: Heard) -> Iterator[Reason]:
    """A tempo that no rep has."""
    tempo = heard.bout.tempo
    if tempo is None:
        return
    phases = [int(one) for one in tempo.split("-") if one.isdigit()]
    if phases and max(phases) > LONGEST_PHASE_S:
        tenth = "-".join(
            str(int(one) // 10) if one.isdigit() and int(one) > LONGEST_PHASE_S else one
            for one in tempo.split("-")
        )
        yield Reason(
            f"{max(phases)} s for a part of each rep: is that right?",
            (heard.but(TENTH, tempo=tenth), heard.but("no tempo", tempo=None)),
        )


def a_load_in_the_remark(heard: Heard) -> Iterator[Reason]:
    """A load that stands in a remark alone: it does not count there."""
    bout = heard.bout
    loaded = bout.load or bout.percent or bout.body_percent or bout.band
    if loaded or not _LOAD_SAID.search(bout.note):
        return
    yield Reason(f"A load in a remark does not count: is “{bout.note}” the load?", ())


_LOAD_SAID: Final = re.compile(r"[0-9](?:[.,][0-9]{1,2})?[ ]?(?:kgs?|lbs?|kilos?|pounds?)\b", re.I)

CHECKS: Final[tuple[Check, ...]] = (
    metres_on_the_spot,
    reps_of_a_hold,
    too_many_sets,
    too_many_reps,
    too_heavy,
    lighter_than_a_bar,
    heavier_than_the_work,
    beyond_the_maximum,
    help_without_the_body,
    beyond_the_body,
    too_long_a_rest,
    a_side_of_both,
    too_slow,
    a_load_in_the_remark,
)
"""What is looked at, in the order in which it is told: one doubt a line."""


@dataclass(frozen=True, slots=True)
class Objection:
    """What speaks against a dose first of all: the check, why, and readings that make sense."""

    check: str
    why: str
    others: tuple[Heard, ...]


def objection(heard: Heard) -> Objection | None:
    """The first thing that speaks against a dose; ``None`` where it makes sense."""
    for check in CHECKS:
        for reason in check(heard):
            likely = tuple(other for other in reason.others if is_sensible(other))
            return Objection(check.__name__, reason.why, likely)
    return None


CANNOT_BE: Final = frozenset({reps_of_a_hold.__name__, too_long_a_rest.__name__})
"""What nobody can mean as it stands: where one other reading makes sense, it is that."""


def is_sensible(heard: Heard) -> bool:
    """Whether nothing speaks against a reading."""
    return not any(reason for check in CHECKS for reason in check(heard))


def plain(bout: Bout) -> bool:
    """Whether a dose is of one piece, so that it can be read otherwise."""
    return not bout.clusters and not bout.ranges
