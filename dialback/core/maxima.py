"""Maxima: what an athlete can move once, typed in or estimated, and loads in per cent of it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import cached_property
from itertools import groupby
from math import floor
from typing import Final, Literal

from dialback.core.kit import at_or_below, loads_for
from dialback.core.movements import Movement, fold
from dialback.core.notation.expand import Setting
from dialback.core.once import Once
from dialback.core.rules import Rules
from dialback.core.sessions import Maximum, Session, Set
from dialback.core.tally import Entry, Ledger
from dialback.core.weeks import Week
from dialback.core.words import number, weight_text

MOST_REPS: Final = 12
"""Beyond so many reps to failure an estimate says little."""
BEST_OF_DAYS: Final = 56
"""How far back a best is looked for: eight weeks."""
WITHOUT_KIT_KG: Final = 0.5
"""Loads of unknown kit go down to a whole multiple of this."""
_TINY: Final = 1e-9


def reps_to_failure(a_set: Set) -> float:
    """The reps that the set would have had to failure: its own and those in reserve."""
    own = (a_set.reps or 0) / (2 if a_set.sides == "alternating" else 1)
    return own + (10 - a_set.rpe if a_set.rpe is not None else 0)


def load_moved(a_set: Set, movement: Movement, rules: Rules, bodyweight_kg: float | None) -> float:
    """Load of all implements and, where the rules count it, the body's share of it, in kg."""
    share = movement.bodyweight_share if rules.bodyweight_load else 0.0
    return a_set.total_load_kg + share * (bodyweight_kg or 0)


def estimated_maximum(
    a_set: Set, movement: Movement, rules: Rules, bodyweight_kg: float | None
) -> float | None:
    """What a set lets expect of a single rep, in kg moved; ``None`` where it says too little.

    Of a set with reps of its own, up to 12 to failure, of a movement that is not held; of one
    whose load was changed in the middle, of its first piece. Sources:
    Epley 1985 L × (1 + r ÷ 30); Brzycki 1993 L × 36 ÷ (37 − r); L itself for a single.
    """
    a_set = a_set.lead
    if rules.max_estimate is None or movement.isometric or a_set.static or not a_set.reps:
        return None
    reps = reps_to_failure(a_set)
    load = load_moved(a_set, movement, rules, bodyweight_kg)
    if reps > MOST_REPS or load <= 0:
        return None
    return load / share_at(reps, rules)


def share_at(reps: float, rules: Rules) -> float:
    """The share of a maximum that can be moved for so many reps to failure, up to 12 of them."""
    if reps <= 1:
        return 1.0
    return 30 / (30 + reps) if rules.max_estimate == "epley" else (37 - reps) / 36


def is_working(entry: Entry) -> bool:
    """Whether it is a working set: one movement, counted, hard or easy, no warm-up."""
    return (
        entry.set.exercise is not None
        and not entry.set.warm_up
        and entry.measured.shape.standing in ("hard", "easy")
    )


@dataclass(frozen=True, slots=True)
class Best:
    """The highest estimated maximum of a movement, in kg moved, and the set that it is from."""

    kg: float
    set: Set
    day: date


def bests(entries: Iterable[Entry], ledger: Ledger) -> dict[str, Best]:
    """The best of each movement among completed sets, by name."""
    found: dict[str, Best] = {}
    for entry in entries:
        if not is_working(entry):
            continue
        name = entry.measured.shape.moves[0].movement.name
        kg = _estimate(entry, ledger)
        if kg is not None and (name not in found or kg > found[name].kg):
            found[name] = Best(kg, entry.set, entry.session.date)
    return found


@dataclass(frozen=True, slots=True)
class TopSet:
    """A session's top set of a movement: the highest load moved, in kg, then the most reps.

    ``maximum_kg`` is what the session lets expect of a single rep: the highest of its sets.
    """

    day: date
    set: Set
    moved_kg: float
    maximum_kg: float | None


def session_tops(entries: Iterable[Entry], ledger: Ledger) -> Iterator[dict[str, TopSet]]:
    """The top set of each movement, by name, session by session; the first of equals."""
    for _, several in groupby(entries, key=lambda entry: id(entry.session)):
        tops: dict[str, TopSet] = {}
        for entry in filter(is_working, several):
            movement = entry.measured.shape.moves[0].movement
            body = ledger.body.on(entry.session.date)
            lead = entry.set.lead
            moved = load_moved(lead, movement, ledger.rules, body)
            kg, top = _estimate(entry, ledger), tops.get(movement.name)
            if top is None:
                tops[movement.name] = TopSet(entry.session.date, lead, moved, kg)
                continue
            if kg is not None and (top.maximum_kg is None or kg > top.maximum_kg):
                top = replace(top, maximum_kg=kg)
            if (moved, lead.reps or 0) > (top.moved_kg, top.set.reps or 0):
                top = replace(top, set=lead, moved_kg=moved)
            tops[movement.name] = top
        yield tops


Estimates = dict[str, list[tuple[date, float]]]
"""The estimated maxima of each movement, by name, in kg moved, with their days."""


def estimates(entries: Iterable[Entry], ledger: Ledger) -> Estimates:
    """What each working set lets expect of a single rep; those that say too little are left out."""
    found: Estimates = {}
    for entry in entries:
        if is_working(entry) and (kg := _estimate(entry, ledger)) is not None:
            name = entry.measured.shape.moves[0].movement.name
            found.setdefault(name, []).append((entry.session.date, kg))
    return found


def best_before(ledger: Ledger, week: Week, own: Estimates, name: str, day: date) -> float | None:
    """The highest estimated maximum of a movement before a day of a week, in kg moved.

    Of completed sets of earlier days, at most eight weeks before: those of the weeks before, and
    ``own``, the week's. ``None`` where there is none.
    """
    first = day - timedelta(days=BEST_OF_DAYS)
    known = (*_estimates_before(ledger, week).get(name, ()), *own.get(name, ()))
    return max((kg for when, kg in known if first <= when < day), default=None)


def _estimate(entry: Entry, ledger: Ledger) -> float | None:
    movement = entry.measured.shape.moves[0].movement
    body = ledger.body.on(entry.session.date)
    return estimated_maximum(entry.set, movement, ledger.rules, body)


_BEFORE: Final = Once[Week, Estimates]()


def _estimates_before(ledger: Ledger, week: Week) -> Estimates:
    """The estimates of the eight weeks before a week."""
    weeks = (week.plus(back) for back in range(-BEST_OF_DAYS // 7, 0))
    entries = (entry for one in weeks for entry in ledger.entries("completed", one))
    return _BEFORE.of(ledger.kept, week, lambda: estimates(entries, ledger))


def bests_before(ledger: Ledger, day: date) -> dict[str, Best]:
    """The best of each movement among sets completed in the eight weeks before a day."""
    first = day - timedelta(days=BEST_OF_DAYS)
    week, last = Week.of(first), Week.of(day)
    entries: list[Entry] = []
    while week <= last:
        entries += [
            entry
            for entry in ledger.entries("completed", week)
            if first <= entry.session.date < day
        ]
        week = week.plus(1)
    return bests(entries, ledger)


@dataclass(frozen=True, slots=True)
class Share:
    """A load in per cent of a maximum: kg of one implement, ``None`` where there is none; in words.

    ``missing`` tells apart what the coach has to do something about.
    """

    kg: float | None
    says: str
    missing: Literal["", "maximum", "load", "body"] = ""


class Maxima:
    """An athlete's maxima on a day."""

    def __init__(self, ledger: Ledger, day: date) -> None:
        self.ledger = ledger
        self.day = day

    @cached_property
    def _bests(self) -> dict[str, Best]:
        return bests_before(self.ledger, self.day)

    def _typed(self, movement: Movement) -> Maximum | None:
        known = [
            maximum
            for maximum in self.ledger.maxima
            if fold(maximum.movement) == fold(movement.name) and maximum.date <= self.day
        ]
        return max(known, key=lambda one: one.date, default=None)

    def share(self, name: str, percent: float) -> Share:
        """The load that so many per cent of a movement's maximum come to, that the kit has."""
        movement = self.ledger.movements[name]
        typed = self._typed(movement)
        best = self._bests.get(movement.name)
        own = movement.bodyweight_share if self.ledger.rules.bodyweight_load else 0.0
        body = own * (self.ledger.body.on(self.day) or 0)
        if typed is not None:
            moved, source = typed.kg + body, f"as of {_day_text(typed.date)}"
        elif best is not None:
            moved, source = best.kg, f"best estimate, {_day_text(best.day)}"
        else:
            return Share(
                None,
                f"no maximum of {movement.name} is known: type one in with the athlete's own "
                f"rules, "
                "or write the load; until then the line counts without load",
                "maximum",
            )
        wanted = moved * percent / 100 - body
        unit = self.ledger.unit
        said = f"{number(percent)} % of {weight_text(moved, unit, 1)} ({source})"
        if wanted <= 0:
            return Share(
                None,
                f"{said} is less than the body's own share: write the help, as in help 15 kg",
                "load",
            )
        implements = best.set.implements if best is not None else 1
        return self._made(movement, wanted / implements, implements, said)

    def share_of_body(self, name: str, percent: float) -> Share:
        """The load that so many per cent of what the athlete weighs come to, that the kit has."""
        movement = self.ledger.movements[name]
        body = self.ledger.body.on(self.day)
        if not body:
            return Share(
                None,
                "the athlete's body weight is not known: enter it, or write the load; until then "
                "the line counts without load",
                "body",
            )
        said = f"{number(percent)} % of {weight_text(body, self.ledger.unit, 1)} body weight"
        return self._made(movement, body * percent / 100, 1, said)

    def share_in(self, a_set: Set) -> Share | None:
        """What the load of a set that is written in per cent comes to; ``None`` if it is not."""
        name = a_set.named_moves()[0][0]
        if a_set.percent is not None:
            return self.share(name, a_set.percent)
        if a_set.body_percent is not None:
            return self.share_of_body(name, a_set.body_percent)
        return None

    def _made(self, movement: Movement, wanted: float, implements: int, said: str) -> Share:
        unit = self.ledger.unit
        source, loads = loads_for(self.ledger.kit, movement) if self.ledger.kit else ("", ())
        if not loads:
            made: float | None = floor(wanted / WITHOUT_KIT_KG + _TINY) * WITHOUT_KIT_KG
        else:
            made = at_or_below(wanted, loads)
        if not made:
            below = f"the {source} has nothing at or below" if source else "there is no load below"
            return Share(None, f"{said}: {below} {weight_text(wanted, unit, 1)}", "load")
        several = f"{implements} × " if implements > 1 else ""
        return Share(made, f"{said}: {several}{weight_text(made, unit)}")

    def setting(self) -> Setting:
        """What a text is expanded with: the movements, and loads in per cent of these maxima."""
        return Setting(
            self.ledger.movements,
            lambda name, percent: self.share(name, percent).kg,
            self.implements,
            lambda name, percent: self.share_of_body(name, percent).kg,
        )

    def missing_in(self, session: Session) -> list[str]:
        """What a session's loads in per cent lack, once for each movement and share."""
        told: dict[str, None] = {}
        for a_set in session.sets:
            share = self.share_in(a_set) if a_set.exercise is not None else None
            if share is not None and share.missing:
                told[share.says] = None
        return list(told)

    def implements(self, name: str) -> int:
        """How many implements the athlete's best set of a movement moved."""
        best = self._bests.get(self.ledger.movements[name].name)
        return best.set.implements if best is not None else 1


def _day_text(day: date) -> str:
    return f"{day.day} {day:%b %Y}"
