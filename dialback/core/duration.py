"""How long a session takes, and how dense it is."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from dialback.core.rules import Rules
from dialback.core.tally import Entry


@dataclass(frozen=True, slots=True)
class Duration:
    """Seconds of work (both sides one after the other), and of what lies between the sets.

    ``rest_s`` is the rest; ``change_over_s`` is by how much changes of stations go beyond it.
    """

    work_s: float
    rest_s: float
    change_over_s: float

    @property
    def total_s(self) -> float:
        """The whole session."""
        return self.work_s + self.rest_s + self.change_over_s


def rest_behind(entry: Entry, rules: Rules) -> float:
    """Seconds of rest behind a set: as written, else as the rules assume it.

    Assumed is rest only behind sets that are in the sums, no warm-ups, and in no circuit.
    """
    if entry.set.rest_s is not None:
        return entry.set.rest_s
    counted = entry.measured.shape.standing in ("hard", "easy") and not entry.set.warm_up
    return (rules.assumed_rest_s or 0.0) if counted and entry.set.round is None else 0.0


def movements_in(entry: Entry) -> frozenset[str]:
    """The names of the movements of a set."""
    return frozenset(move.movement.name for move in entry.measured.shape.moves)


def between(one: Entry, following: Entry, rules: Rules) -> tuple[float, float]:
    """Seconds of rest between two sets, and by how much the change of stations goes beyond it."""
    rest = rest_behind(one, rules)
    moves_on = movements_in(one) != movements_in(following)
    return rest, max(0.0, rules.change_over_s - rest) if moves_on else 0.0


def durations(entries: Sequence[Entry], rules: Rules) -> list[Duration]:
    """What each set of a session takes, in order, with what lies between it and the next.

    Between them is the larger of rest and change of stations; nothing is behind the last set.
    Source: Dial Back's own estimate.
    """
    gaps = [between(one, following, rules) for one, following in pairwise(entries)]
    return [
        Duration(entry.measured.work_s, rest, change)
        for entry, (rest, change) in zip(entries, [*gaps, (0.0, 0.0)], strict=False)
    ]


def in_all(several: Iterable[Duration]) -> Duration:
    """What several sets take together."""
    known = list(several)
    return Duration(
        work_s=sum(one.work_s for one in known),
        rest_s=sum(one.rest_s for one in known),
        change_over_s=sum(one.change_over_s for one in known),
    )


def estimated_duration(entries: Sequence[Entry], rules: Rules) -> Duration:
    """What the sets of a session take in all, warm-ups and conditioning among them."""
    return in_all(durations(entries, rules))


@dataclass(frozen=True, slots=True)
class OnTheClock:
    """A session on the clock: each part with the second at which it ends, in order.

    ``over_s`` are the seconds by which it is longer than the rules have it; ``leave_out`` are the
    accessories without which it fits, or, where ``fits`` is false, does not fit either.
    """

    parts: tuple[tuple[str, float], ...]
    over_s: float
    leave_out: tuple[str, ...]
    fits: bool


def on_the_clock(entries: Sequence[Entry], rules: Rules) -> OnTheClock:
    """When each part of a session ends, and what to leave out of one that is too long.

    Accessories alone are left out, the last of the session first. Source: Dial Back's own order.
    """
    parts: list[tuple[str, float]] = []
    until = 0.0
    for entry, took in zip(entries, durations(entries, rules), strict=True):
        until += took.total_s
        name = entry.set.part or ("warm-up" if entry.set.warm_up else "main")
        if parts and parts[-1][0] == name:
            parts.pop()
        parts.append((name, until))
    most = math.inf if rules.session_minutes is None else rules.session_minutes * 60
    rest, left_out, takes = list(entries), [], until
    for name in dict.fromkeys(map(_named, filter(_is_accessory, reversed(entries)))):
        if takes <= most:
            break
        rest = [entry for entry in rest if _named(entry) != name]
        takes = estimated_duration(rest, rules).total_s
        left_out.append(name)
    return OnTheClock(tuple(parts), max(0.0, until - most), tuple(left_out), takes <= most)


def _is_accessory(entry: Entry) -> bool:
    """Whether a working set has no compound movement in it."""
    shape = entry.measured.shape
    isolated = not any(move.movement.compound for move in shape.moves)
    return shape.standing in ("hard", "easy") and not entry.set.warm_up and isolated


def _named(entry: Entry) -> str:
    return " + ".join(sorted(movements_in(entry)))


def warm_up_s(entries: Iterable[Entry]) -> float:
    """Seconds of work of the sets marked as warm-up, of whatever kind, whatever the rules count."""
    return sum(entry.measured.work_s for entry in entries if entry.set.warm_up)


def density(volume_load_kg: float, entries: Iterable[Entry]) -> float | None:
    """Volume load per minute of the work and the written rest of counted sets, kg/min.

    ``None`` where there is neither.
    """
    counted = [entry for entry in entries if entry.measured.shape.standing in ("hard", "easy")]
    seconds = sum(entry.measured.work_s + (entry.set.rest_s or 0.0) for entry in counted)
    return volume_load_kg / (seconds / 60) if seconds else None
