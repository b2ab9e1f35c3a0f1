"""Findings of restrictions: what the athlete was to avoid, or to do within a limit."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from dialback.core.findings.finding import Finding, WeekInHand, exceeds
from dialback.core.movements import Movement
from dialback.core.restrictions import Restriction, breaks, seconds_out
from dialback.core.rules import Rules
from dialback.core.tally import Entry
from dialback.core.words import Unit, capital, number, weight_text

Measure = Literal["sets", "load_kg", "tempo_s"]


@dataclass(frozen=True, slots=True)
class Breach:
    """A restriction that sets break: in which measure, how far, and which sets they are."""

    restriction: Restriction
    measure: Measure
    value: float
    limit: float
    entries: tuple[Entry, ...]
    figures: tuple[str, ...]


def restriction_findings(week: WeekInHand) -> Iterator[Finding]:
    """Sets that a restriction does not allow; of several on one thing, the one broken most."""
    worst: dict[tuple[str, str, str], Finding] = {}
    for breach in breaches(week.entries, week.restrictions, week.rules):
        found = _finding(breach, week.unit)
        other = worst.get(found.key)
        if other is None or found.distance > other.distance:
            worst[found.key] = found
    yield from worst.values()


def _finding(breach: Breach, unit: Unit) -> Finding:
    restriction = breach.restriction
    days = tuple(dict.fromkeys(entry.session.date for entry in breach.entries))
    on = " and ".join(f"{day:%A}" for day in days)
    said = f"On the word of {restriction.by}, {restriction.since:%-d %B %Y}"
    word = f"{said}: “{restriction.word}”." if restriction.word else f"{said}."
    return Finding(
        "restriction",
        restriction.subject,
        breach.measure,
        "high",
        breach.value,
        breach.limit,
        f"{capital(restriction.words(unit))}: {_what(breach, unit)} on {on}. {word}",
        "Swap them or take them out. A restriction is lifted only on the word of whoever set it, "
        "or of another licensed practitioner.",
        breach.figures,
        amount=breach.value,
        days=days,
    )


def _what(breach: Breach, unit: Unit) -> str:
    count = len(breach.entries)
    sets = f"{count} set{'' if count == 1 else 's'}"
    # Easy sets and warm-ups do not load a sum, but the joint.
    unseen = sum(
        not any(entry.measured.credits.get(key) for key in breach.figures)
        for entry in breach.entries
    )
    apart = f" ({unseen} of them easy or warm-up, in no sum of sets)" if unseen else ""
    match breach.measure:
        case "load_kg":
            return f"up to {weight_text(breach.value, unit)} in {sets}{apart}"
        case "tempo_s":
            return f"{number(breach.value)} s in {sets}{apart}"
        case "sets":
            if breach.restriction.avoids:
                return f"{sets}{apart}"
            return f"{number(breach.value)} sets"


def breaches(
    entries: Iterable[Entry], restrictions: Iterable[Restriction], rules: Rules
) -> Iterator[Breach]:
    """The restrictions that a week's sets break on days on which they hold."""
    week = list(entries)
    for restriction in restrictions:
        there = [
            (entry, movements)
            for entry in week
            if restriction.holds(entry.session.date)
            and (movements := _touched(entry, restriction, rules))
        ]
        if not there:
            continue
        wrong = [
            (entry, movements)
            for entry, movements in there
            if breaks(entry.set, movements, restriction, rules)
        ]
        if wrong and restriction.avoids:
            yield _breach(restriction, "sets", len(wrong), 0.0, wrong)
        elif wrong and restriction.about == "tempo":
            seconds = [
                one
                for entry, movements in wrong
                for one in seconds_out(entry.set, movements, restriction)
            ]
            low = restriction.least_s is not None and min(seconds) < restriction.least_s
            value = min(seconds) if low else max(seconds)
            limit = restriction.least_s if low else restriction.most_s
            yield _breach(restriction, "tempo_s", value, limit or 0.0, wrong)
        elif wrong:
            heaviest = max(entry.set.total_load_kg for entry, _ in wrong)
            yield _breach(restriction, "load_kg", heaviest, restriction.most_load_kg or 0.0, wrong)
        most = restriction.most_sets
        if most is not None:
            figures = {restriction.figure(movement) for _, several in there for movement in several}
            sets = sum(
                entry.measured.credits.get(key, 0.0) for entry, _ in there for key in figures
            )
            if exceeds(sets, most):
                yield _breach(restriction, "sets", sets, most, there)


def _touched(entry: Entry, restriction: Restriction, rules: Rules) -> list[Movement]:
    movements = (move.movement for move in entry.measured.shape.moves)
    return [movement for movement in movements if restriction.touches(movement, rules)]


def _breach(
    restriction: Restriction,
    measure: Measure,
    value: float,
    limit: float,
    sets: list[tuple[Entry, list[Movement]]],
) -> Breach:
    figures = dict.fromkeys(
        restriction.figure(movement) for _, several in sets for movement in several
    )
    return Breach(
        restriction, measure, value, limit, tuple(entry for entry, _ in sets), tuple(figures)
    )
