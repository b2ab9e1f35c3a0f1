"""What in a log is doubtful: asked about, not judged."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator
from statistics import median
from typing import Final

from dialback.core.baseline import weeks_before
from dialback.core.long_run.view import Signal, View, by_movement
from dialback.core.sessions import KG_PER_LB, Session, Set
from dialback.core.tally import Entry
from dialback.core.weeks import Week
from dialback.core.words import number, weight_text

BESIDE_WEEKS: Final = 4
LEAST_BESIDE: Final = 3
"""So many other sets of a movement are needed to tell that one is not like them."""
KNOWN_WEEKS: Final = 12
LEAST_MOVEMENTS: Final = 3
LEAST_REPS: Final = 30
_POUNDS: Final = 1 / KG_PER_LB


def load_doubts(view: View) -> Iterator[Signal]:
    """A load several times as heavy as all others of the movement in four weeks."""
    times = view.threshold("doubt_load")
    if times is None:
        return
    for name, entries, others in _beside(view):
        loads = [entry.set.total_load_kg for entry in entries]
        rest = [one.total_load_kg for one in others]
        heaviest = max(loads)
        # All sets of a slip of the pen are the same slip; they are told by the first.
        usual = max([load for load in loads if load < heaviest] + rest, default=0.0)
        if usual > 0 and heaviest >= times * usual and len(rest) >= LEAST_BESIDE:
            unit = view.ledger.unit
            yield Signal(
                "doubt_load",
                name,
                "load_kg",
                "caution",
                f"{name} at {weight_text(heaviest, unit)}: the heaviest otherwise was "
                f"{weight_text(usual, unit)}.",
            )


def reps_doubts(view: View) -> Iterator[Signal]:
    """Reps several times as many as all others of the movement in four weeks."""
    times = view.threshold("doubt_reps")
    if times is None:
        return
    for name, entries, others in _beside(view):
        own = [entry.set.own_reps or 0 for entry in entries]
        rest = [one.own_reps or 0 for one in others]
        most = max(own, default=0)
        usual = max([reps for reps in own if reps < most] + rest, default=0)
        if usual and most >= max(times * usual, LEAST_REPS) and len(rest) >= LEAST_BESIDE:
            yield Signal(
                "doubt_reps",
                name,
                "reps",
                "caution",
                f"{most} reps of {name.lower()}: the most otherwise was {usual}.",
            )


def _beside(view: View) -> Iterator[tuple[str, list[Entry], list[Set]]]:
    """The week's sets of each movement, and those of the four weeks before."""
    before: dict[str, list[Set]] = defaultdict(list)
    for week in weeks_before(view.week, BESIDE_WEEKS):
        for name, entries in by_movement(view.working(week)):
            before[name] += [entry.set for entry in entries]
    for name, entries in by_movement(view.working(view.week)):
        yield name, entries, before[name]


def unit_doubts(view: View) -> Iterator[Signal]:
    """A session whose loads are all 2.2 times, or all 1 ÷ 2.2 of, those before it."""
    apart = view.threshold("doubt_unit")
    if apart is None:
        return
    before: dict[str, float] = {}
    for week in weeks_before(view.week, KNOWN_WEEKS):
        before |= _heaviest(view.working(week))
    for session, entries in _by_session(view.working(view.week)):
        ratios = [
            load / before[name]
            for name, load in _heaviest(entries).items()
            if before.get(name) and load
        ]
        if len(ratios) < LEAST_MOVEMENTS:
            continue
        for factor, words in (
            (_POUNDS, "2.2 times what they were before"),
            (KG_PER_LB, "less than half of what they were before"),
        ):
            if abs(median(ratios) / factor - 1) <= apart and all(
                abs(ratio / factor - 1) <= 2 * apart for ratio in ratios
            ):
                yield Signal(
                    "doubt_unit",
                    session.date.isoformat(),
                    "load_kg",
                    "caution",
                    f"{_titled(session)}: all of its {len(ratios)} loads are {words}.",
                )


def _heaviest(entries: Iterable[Entry]) -> dict[str, float]:
    return {
        name: max(entry.set.total_load_kg for entry in several)
        for name, several in by_movement(entries)
    }


def twice_doubts(view: View) -> Iterator[Signal]:
    """Two sessions of a week with the very same sets, where the plan has not two such."""
    least = view.threshold("doubt_twice")
    if least is None:
        return
    asked = Counter(
        tuple(entry.set.named_moves() for entry in entries)
        for _, entries in _by_session(view.ledger.entries("planned", view.week))
    )
    seen: dict[tuple[object, ...], Session] = {}
    for session, entries in _by_session(view.entries(view.week)):
        same = tuple(
            (entry.set.named_moves(), entry.set.own_reps, entry.set.own_seconds,
             entry.set.total_load_kg, entry.set.rest_s)
            for entry in entries
        )  # fmt: skip
        first = seen.setdefault(same, session)
        planned = asked[tuple(entry.set.named_moves() for entry in entries)]
        if first is session or len(entries) < least or planned > 1:
            continue
        day = "the same day" if first.date == session.date else f"{first.date:%A}"
        yield Signal(
            "doubt_twice",
            session.date.isoformat(),
            "sets",
            "caution",
            f"{_titled(session)} has the very same {len(entries)} sets as the one of {day}.",
        )


def stranger_doubts(view: View) -> Iterator[Signal]:
    """A session of movements that the athlete has neither done nor planned, where others have."""
    share = view.threshold("doubt_stranger")
    if share is None:
        return
    weeks = weeks_before(view.week, KNOWN_WEEKS)
    if sum(view.ledger.is_trained(week) for week in weeks) < BESIDE_WEEKS:
        return
    known = _names(view, weeks)
    known |= {
        name
        for entry in view.ledger.entries("planned", view.week)
        for name, _ in entry.set.named_moves()
    }
    sessions = [
        (session, [entry.set.named_moves()[0][0] for entry in entries])
        for session, entries in _by_session(view.working(view.week))
        if entries
    ]
    shares = [sum(name in known for name in names) / len(names) for _, names in sessions]
    # Where all of it is new, the athlete was away or begins something.
    if not any(one > 1 - share for one in shares):
        return
    for (session, names), part in zip(sessions, shares, strict=True):
        if part < share and len(set(names)) >= LEAST_MOVEMENTS:
            yield Signal(
                "doubt_stranger",
                session.date.isoformat(),
                "movements",
                "caution",
                f"{_titled(session)}: {number(sum(n not in known for n in names))} of its "
                f"{len(names)} sets are of movements never seen here before.",
            )


def _names(view: View, weeks: Iterable[Week]) -> set[str]:
    return {
        name
        for week in weeks
        for entry in view.ledger.entries("completed", week)
        for name, _ in entry.set.named_moves()
    }


def _by_session(entries: Iterable[Entry]) -> Iterator[tuple[Session, list[Entry]]]:
    found: dict[int, tuple[Session, list[Entry]]] = {}
    for entry in entries:
        found.setdefault(id(entry.session), (entry.session, []))[1].append(entry)
    yield from found.values()


def _titled(session: Session) -> str:
    return f"{session.title or 'The session'} of {session.date:%A}"
