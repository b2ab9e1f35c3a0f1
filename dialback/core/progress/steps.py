"""The next step of each movement: reps first, then the smallest load that the kit has."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from statistics import median_low
from typing import Final, Literal

from dialback.core.baseline import TOLERANCE, is_lighter
from dialback.core.figures import TOTAL_SETS
from dialback.core.kit import LOAD_TOLERANCE_KG
from dialback.core.maxima import is_working
from dialback.core.progress.history import (
    GRINDING_RPE,
    Exposure,
    Range,
    Scheme,
    exposures,
    range_of,
)
from dialback.core.progress.ways import (
    Kind,
    Place,
    Way,
    Work,
    easier,
    harder,
    next_kg,
    taken,
)
from dialback.core.sessions import Session
from dialback.core.tally import Entry, Ledger, tally
from dialback.core.vocabulary import ProgressRule
from dialback.core.weeks import Week
from dialback.core.words import number, percent, sets_text, weight_text

_FIRST: Final[dict[ProgressRule, tuple[Kind, ...]]] = {
    "reps_first": (),
    "load_first": (),
    "sets": ("set",),
    "density": ("rest",),
    "tempo": ("lowering", "pause"),
    "hold": ("hold", "seconds"),
}
_ORDER: Final[tuple[Kind, ...]] = (
    "load",
    "help",
    "band",
    "seconds",
    "level",
    "reps",
    "set",
    "pause",
    "lowering",
)
"""What is offered, the first the best; a level before more reps where nothing is lifted."""
_LOADED_ORDER: Final[tuple[Kind, ...]] = (
    "load",
    "reps",
    "seconds",
    "set",
    "pause",
    "lowering",
    "level",
)


@dataclass(frozen=True, slots=True)
class Progress:
    """What a movement does next: the way proposed, why, and what could be done instead."""

    movement: str
    rule: ProgressRule
    course: Literal["up", "down"]
    before: str
    because: str
    ways: tuple[Way, ...]

    @property
    def way(self) -> Way:
        """The way proposed."""
        return self.ways[0]


def next_steps(
    ledger: Ledger, week: Week, sessions: Sequence[Session], locks: Collection[str] = ()
) -> tuple[Progress, ...]:
    """The next step of each movement in a plan of a week, from its last sessions before it.

    Up where every set of the last session reached the top of its range at the target exertion or
    below it; down where half of the sets missed the bottom, or were at RPE 9.5 and more, in the
    last two; a session that was cut short does not count against it. A movement with a rule of its
    own goes by it. Nothing moves in a lighter week, and nothing that the plan moved on already.
    """
    usual, target = ledger.rules.progress, ledger.rules.target_rpe
    if target is None:
        return ()
    entries = ledger.measure(sessions)
    light = is_lighter(ledger, week, tally(entries).get(TOTAL_SETS, 0.0))
    past = exposures(ledger, week)
    found: list[Progress] = []
    for name, by_scheme in _places(entries, sessions).items():
        for scheme, places in by_scheme.items():
            # Where heavy and light days take turns, each goes by its own last ones.
            own = [
                exposure
                for exposure in past.get(name, ())
                if len(by_scheme) == 1 or exposure.scheme == scheme
            ]
            movement = ledger.movements[name]
            rule = movement.progress or usual
            if own and rule is not None and name not in locks:
                work = Work(ledger, week, sessions, movement, tuple(places), own[0].load_kg)
                step = _step(work, own, rule, target, light=light)
                found += [step] if step is not None else []
    return tuple(found)


def take_next(
    ledger: Ledger,
    week: Week,
    sessions: Sequence[Session],
    wanted: Iterable[tuple[str, str, Kind]],
) -> tuple[Session, ...]:
    """A plan with next steps taken: by movement, its sets as they were told, and kind of way.

    Raises ``LookupError`` for a step that the plan does not have (any more), or that is asked for
    twice.
    """
    steps = {(step.movement, step.before): step for step in next_steps(ledger, week, sessions)}
    ways: list[Way] = []
    for movement, before, kind in wanted:
        step = steps.pop((movement, before), None)
        way = next((way for way in step.ways if way.kind == kind), None) if step else None
        if way is None:
            raise LookupError(f"{movement} no longer has this step in this draft")
        ways.append(way)
    return taken(sessions, *ways)


def _places(
    entries: Iterable[Entry], sessions: Sequence[Session]
) -> dict[str, dict[Scheme, list[Place]]]:
    """Where the working sets of each movement stand, by the ranges that a session has of it."""
    numbers = {id(session): at for at, session in enumerate(sessions)}
    by_session: dict[tuple[str, int], list[Place]] = {}
    for entry in entries:
        if is_working(entry) and entry.set.percent is None:
            name = entry.measured.shape.moves[0].movement.name
            at = numbers[id(entry.session)]
            by_session.setdefault((name, at), []).append((at, entry.at))
    found: dict[str, dict[Scheme, list[Place]]] = {}
    for (name, at), places in by_session.items():
        ranges = (range_of(sessions[at].sets[place]) for _, place in places)
        scheme = frozenset(one for one in ranges if one is not None)
        found.setdefault(name, {}).setdefault(scheme, []).extend(places)
    return found


def _step(
    work: Work, past: Sequence[Exposure], rule: ProgressRule, target: float, *, light: bool
) -> Progress | None:
    usual = range_of(work.sets[0])
    if usual is None:
        return None
    last = past[0]
    if light:
        return None
    if len(past) > 1 and all(one.is_below(usual) for one in past[:2]):
        return _down(work, past, rule, usual)
    bottom = rule == "load_first"
    moved_on = work.load_kg > last.load_kg + LOAD_TOLERANCE_KG and work.sets[0].band is None
    if moved_on or not last.reached(usual, target, bottom=bottom):
        return None
    return _up(work, last, rule, usual, target)


def _up(
    work: Work, last: Exposure, rule: ProgressRule, usual: Range, target: float
) -> Progress | None:
    possible = {way.kind: way for way in harder(work)}
    reason = _reached_words(work, last, usual, target, bottom=rule == "load_first")
    if "load" in possible and (too_large := _too_large(work)):
        del possible["load"]
        reason += f" {too_large}"
    elif work.load_kg > 0 and "load" not in possible:
        reason += " The kit has no heavier load for it."
    order = _LOADED_ORDER if work.load_kg > 0 else _ORDER
    kinds = dict.fromkeys((*_FIRST[rule], *order))
    ways = tuple(possible[kind] for kind in kinds if kind in possible)
    if not ways:
        return None
    return Progress(work.movement.name, rule, "up", sets_text(work.sets), reason, ways)


def _down(
    work: Work, past: Sequence[Exposure], rule: ProgressRule, usual: Range
) -> Progress | None:
    if work.load_kg < past[0].load_kg - LOAD_TOLERANCE_KG:
        # The plan went down already.
        return None
    reps = [done.reps for _, done in past[0].pairs if done.reps is not None]
    ways = tuple(easier(work, median_low(reps) if reps else 0))
    if not ways:
        return None
    unit = "reps" if work.sets[0].reps is not None else "s"
    days = " and ".join(_day(exposure) for exposure in reversed(past[:2]))
    low = f"{number(usual.low)} {unit}" if len(work.ranges) == 1 else "their ranges"
    because = f"Below {low}, or at RPE {number(GRINDING_RPE)} and more, on {days}."
    return Progress(work.movement.name, rule, "down", sets_text(work.sets), because, ways)


def _reached_words(work: Work, last: Exposure, usual: Range, target: float, *, bottom: bool) -> str:
    sets = len(last.pairs)
    wanted = usual.low if bottom else usual.high
    unit = "reps" if work.sets[0].reps is not None else "s"
    effort = "exertion not logged throughout"
    if last.has_rpe:
        effort = f"at RPE {number(target)} or less"
    many = {1: "The one set", 2: "Both sets"}.get(sets, f"All {sets} sets")
    what = f"{number(wanted)} {unit}"
    if len(work.ranges) > 1:
        what = f"the {'bottom' if bottom else 'top'} of their ranges"
    return f"{many} of {_day(last)} reached {what}, {effort}."


def _day(exposure: Exposure) -> str:
    return f"{exposure.day:%A} {exposure.day.day} {exposure.day:%b}"


def _too_large(work: Work) -> str:
    """Why the next load is too far, in words; empty where it is not."""
    most = work.ledger.rules.load_step[0]
    worst = max(_shares(work), default=(0.0, 0.0))
    share, load = worst
    if share <= most + TOLERANCE:
        return ""
    return (
        f"The next load, {weight_text(load, work.unit)}, would be {percent(share)}, more than "
        f"{percent(most)} at a time."
    )


def _shares(work: Work) -> Iterator[tuple[float, float]]:
    for a_set in work.sets:
        base = work.base_kg(a_set.load_kg)
        above = next_kg(work, a_set.load_kg) if a_set.load_kg > 0 else None
        if above is not None:
            yield above / base - 1, above
