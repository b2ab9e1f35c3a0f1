"""Remedies: whole sets more or fewer that clear a finding, tried before they are told.

A step is taken set by set in a copy of the week, and judged by the findings that sets can raise:
it is told only if it clears its finding and raises no other above a note. Where sides are logged
apart, a set is one with each. What is tried is small;
where it finds nothing, the programme of the next plan (``core.adjusting``) weighs all together.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Final, NamedTuple

from dialback.core.baseline import window
from dialback.core.figures import of_muscle, of_side
from dialback.core.findings import Family
from dialback.core.findings.avoided import avoided
from dialback.core.findings.balance import balance_findings, leans_to_a
from dialback.core.findings.course import return_findings
from dialback.core.findings.finding import Finding, WeekInHand
from dialback.core.findings.jumps import jump_findings
from dialback.core.findings.muscles import band_findings
from dialback.core.findings.restricted import restriction_findings
from dialback.core.findings.session import (
    no_warm_up_findings,
    order_findings,
    overfull_findings,
    side_gap_findings,
)
from dialback.core.findings.spacing import spacing_findings
from dialback.core.maxima import is_working
from dialback.core.once import Once
from dialback.core.restrictions import Restriction
from dialback.core.tally import Entry, Tally
from dialback.core.vocabulary import LEVELS, PAIRS_BY_NAME, Key, Pair
from dialback.core.words import capital

MOST: Final = 6
"""So many sets more or fewer are a step; what takes more is a matter of the next plan."""
_CANDIDATES: Final = 5
"""So many movements are tried for a step."""
_OTHER_SIDE: Final = {"left": "right", "right": "left"}
_NAMED: Final = 3
"""So many movements are named."""
NO_STEP: Final = (
    "No one step clears it without raising another finding: weigh them together in the next plan."
)


def clears(week: WeekInHand, finding: Finding) -> str:
    """What would clear a finding of a week, in words; tried out when somebody asks, and once."""
    if finding.clears:
        return finding.clears
    return _CLEARS.of(week.kept, finding.key, lambda: _TRIED[finding.code](week, finding))


_CLEARS: Final = Once[Key, str]()


def _balance(week: WeekInHand, finding: Finding) -> str:
    """Sets more on the light side, or fewer on the heavy one, that bring it within.

    What a restriction forbids, or what would raise another finding, is not offered.
    """
    pair = PAIRS_BY_NAME[finding.subject]
    over = leans_to_a(finding.value, week.rules.balance_bands[pair.name][1])
    light, heavy = ("b", "a") if over else ("a", "b")
    held = _held(week, pair, pair.b if over else pair.a)
    more = None if held else more_sets(week, finding.key, of_side(pair.name, light, "sets"))
    fewer = fewer_sets(week, finding.key, of_side(pair.name, heavy, "sets"))
    offers = [
        told(sets, word) for sets, word in ((more, "more"), (fewer, "fewer")) if sets is not None
    ]
    if held is not None:
        stands = f"{held.words(week.unit)} stands, on the word of {held.by}"
        if offers:
            return f"{', or '.join(offers)} would bring it within: {stands}."
        return f"{capital(stands)}: it stays until someone lifts it."
    return f"{', or '.join(offers)} would bring it within." if offers else NO_STEP


def _held(week: WeekInHand, pair: Pair, members: frozenset[str]) -> Restriction | None:
    if pair.of == "pattern":
        return avoided(week, patterns=members)
    return avoided(week, muscles=members) if pair.of == "muscle" else None


def _floor(week: WeekInHand, finding: Finding) -> str:
    held = avoided(week, muscles=frozenset({finding.subject}))
    if held:
        words = held.words(week.unit)
        return f"It stays while the restriction is in force: {words}, on the word of {held.by}."
    more = more_sets(week, finding.key, of_muscle(finding.subject, "sets"))
    return NO_STEP if more is None else f"{told(more, 'more')} would reach the minimum."


def _ceiling(week: WeekInHand, finding: Finding) -> str:
    fewer = fewer_sets(week, finding.key, of_muscle(finding.subject, "sets"))
    return NO_STEP if fewer is None else f"{told(fewer, 'fewer')} would come down to the ceiling."


def _jump(week: WeekInHand, finding: Finding) -> str:
    """What would be within: nobody takes out a part of a set."""
    (figure,) = finding.figures
    fewer = fewer_sets(week, finding.key, figure)
    return NO_STEP if fewer is None else f"{told(fewer, 'fewer')} would be within the limit."


_TRIED: Final[Mapping[str, Callable[[WeekInHand, Finding], str]]] = {
    "balance": _balance,
    "muscle_floor": _floor,
    "muscle_ceiling": _ceiling,
    "jump": _jump,
}


Sets = Mapping[str, int]
"""How many sets of each movement."""


def more_sets(week: WeekInHand, key: Key, figure: str) -> Sets | None:
    """Sets to add that clear a finding; ``None`` where none was found.

    Of movements that credit a figure, of this week or the four before; those that credit it most
    first.
    """
    models = _models((*_lately(week), *week.entries), figure)
    here = {_name(entry) for entry in week.entries}
    names = sorted(
        (name for name, entry in models.items() if not _avoided(week, entry)),
        key=lambda name: (-models[name].measured.credits[figure], name not in here),
    )

    def tries(now: WeekInHand, barred: Collection[str]) -> Iterator[Tried]:
        places = _places(now)
        return (
            Tried(name, _with(now, models[name], places.get(name)), name not in places)
            for name in names[:_CANDIDATES]
            if name not in barred
        )

    return _taken(week, key, tries, more=True)


def fewer_sets(week: WeekInHand, key: Key, figure: str) -> Sets | None:
    """Sets to take out that clear a finding; ``None`` where none was found.

    Of movements that credit a figure, one set of each stays; those with the most sets go first.
    """

    def tries(now: WeekInHand, barred: Collection[str]) -> Iterator[Tried]:
        counts = Counter(_name(entry) for entry in now.entries if _credits(entry, figure))
        places = _places(now)
        several = {name: _last_set(now, places[name]) for name, _ in counts.most_common()}
        names = [name for name, last in several.items() if len(last) < len(places[name])]
        return (
            Tried(name, _without(now, several[name]), _is_all(now, places[name], several[name]))
            for name in names[:_CANDIDATES]
            if name not in barred
        )

    return _taken(week, key, tries, more=False)


class Tried(NamedTuple):
    """The week with one set of a movement more or fewer.

    ``mixed``: a session has a movement that it did not have, or has one no more.
    """

    name: str
    week: WeekInHand
    mixed: bool


Tries = Callable[[WeekInHand, Collection[str]], Iterator[Tried]]
"""The ways to go one set on from a week, the best first."""


def _taken(week: WeekInHand, key: Key, tries: Tries, *, more: bool) -> Sets | None:
    """Set by set the first way that raises nothing, until the finding is gone."""
    taken: Counter[str] = Counter()
    before, now = _levels(week, more=more), week
    # A movement of which a set raises something is not tried again: with more sets it still would.
    barred: set[str] = set()
    for _ in range(MOST):
        for tried in tries(now, barred):
            gone = _gone(before, tried, key, more=more)
            if gone is not None:
                break
            barred.add(tried.name)
        else:
            return None
        taken[tried.name] += 1
        now = tried.week
        if gone:
            return taken
    return None


def _gone(before: Mapping[Key, int], tried: Tried, key: Key, *, more: bool) -> bool | None:
    """Whether a finding is gone in a week that was tried; ``None`` where another is raised."""
    gone = True
    for finding in _judged(tried.week, more=more, mixed=tried.mixed):
        if finding.level == "note":
            continue
        if finding.key == key:
            gone = False
        elif LEVELS.index(finding.level) > before.get(finding.key, -1):
            return None
    return gone


def _name(entry: Entry) -> str:
    return entry.measured.shape.moves[0].movement.name


def _credits(entry: Entry, figure: str) -> bool:
    return is_working(entry) and bool(entry.measured.credits.get(figure))


def told(sets: Sets, word: str) -> str:
    """Sets in words: ``2 more sets of Row and 1 of Pull-up``."""
    in_order = sorted(sets.items(), key=lambda one: (-one[1], one[0]))
    parts = [f"{count} of {name}" for name, count in in_order[:_NAMED]]
    name, count = in_order[0]
    parts[0] = f"{count} {word} {'set' if count == 1 else 'sets'} of {name}"
    rest = sum(count for _, count in in_order[_NAMED:])
    if rest:
        others = len(in_order) - _NAMED
        parts.append(f"{rest} of {'another one' if others == 1 else f'{others} others'}")
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"


def _lately(week: WeekInHand) -> Sequence[Entry]:
    """The working sets of the four weeks before, the latest of each movement and shape alone."""

    def latest() -> Sequence[Entry]:
        found: dict[tuple[str, int], Entry] = {}
        for before in window(week.week):
            for entry in week.ledger.entries("completed", before):
                if is_working(entry):
                    found[_name(entry), id(entry.measured.shape)] = entry
        return tuple(found.values())

    return _LATELY.of(week.kept, None, latest)


_LATELY: Final = Once[None, Sequence[Entry]]()


def _models(entries: Sequence[Entry], figure: str) -> dict[str, Entry]:
    """The latest working set of each movement that credits a figure with sets."""
    return {_name(entry): entry for entry in entries if _credits(entry, figure)}


def _avoided(week: WeekInHand, entry: Entry) -> bool:
    movement = entry.measured.shape.moves[0].movement
    return any(
        restriction.touches(movement, week.rules) and not restriction.is_over_by(week.week.monday)
        for restriction in week.restrictions
    )


def _with(week: WeekInHand, model: Entry, own: Sequence[int] | None) -> WeekInHand:
    """The week with one more set, behind those that the movement has, else in the last session."""
    at = own[-1] if own else len(week.entries) - 1
    behind = week.entries[at]
    more = [
        entry._replace(session=behind.session, at=behind.at) for entry in _with_each_side(model)
    ]
    entries = (*week.entries[: at + 1], *more, *week.entries[at + 1 :])
    return replace(week, entries=entries, tally=_sum(week.tally, more, 1), days=None, bare=True)


def _without(week: WeekInHand, places: Collection[int]) -> WeekInHand:
    """The week without the sets at some places."""
    entries = tuple(entry for at, entry in enumerate(week.entries) if at not in places)
    gone = [week.entries[at] for at in places]
    return replace(week, entries=entries, tally=_sum(week.tally, gone, -1), days=None, bare=True)


def _with_each_side(model: Entry) -> Iterator[Entry]:
    """A set; of one that is done with one side, the same with the other, too."""
    yield model
    other = _OTHER_SIDE.get(model.set.sides)
    if other is not None:
        # What the one side does counts as much as what the other does.
        yield model._replace(set=model.set.model_copy(update={"sides": other}))


def _last_set(week: WeekInHand, places: Sequence[int]) -> list[int]:
    """Where the last set of a movement stands; of one side, also the other side's in its session.

    ``places`` are those of all its sets.
    """
    last = week.entries[places[-1]]
    other = _OTHER_SIDE.get(last.set.sides)
    twins = [
        at
        for at in places
        if other is not None
        and week.entries[at].set.sides == other
        and week.entries[at].session is last.session
    ]
    return [places[-1], *twins[-1:]]


def _is_all(week: WeekInHand, places: Sequence[int], last: Sequence[int]) -> bool:
    """Whether a movement's last set is all that its session has of it, or may be its first, too."""
    session = week.entries[last[0]].session
    return len(last) > 1 or sum(week.entries[at].session is session for at in places) == len(last)


def _places(week: WeekInHand) -> dict[str, list[int]]:
    """Where the working sets of each movement stand."""
    found: dict[str, list[int]] = {}
    for at, entry in enumerate(week.entries):
        if is_working(entry):
            found.setdefault(_name(entry), []).append(at)
    return found


def _sum(sums: Tally, entries: Iterable[Entry], times: int) -> Tally:
    """The sums with sets more or fewer: credits are linear."""
    found = dict(sums)
    for entry in entries:
        for figure, credit in entry.measured.credits.items():
            found[figure] = found.get(figure, 0.0) + times * credit
    return found


def _levels(week: WeekInHand, *, more: bool) -> dict[Key, int]:
    """Findings that sets can raise, above a note."""
    return _LEVELS.of(
        week.kept,
        more,
        lambda: {
            finding.key: LEVELS.index(finding.level)
            for finding in _judged(week, more=more, mixed=True)
            if finding.level != "note"
        },
    )


_LEVELS: Final = Once[bool, dict[Key, int]]()


def _judged(week: WeekInHand, *, more: bool, mixed: bool) -> Iterator[Finding]:
    families: list[Family] = [balance_findings, band_findings, jump_findings, side_gap_findings]
    if mixed:
        families += [order_findings, no_warm_up_findings]
    if more:
        # Fewer sets bring no two days closer, fill no session, break no restriction, are no return.
        families += [spacing_findings, overfull_findings, restriction_findings, return_findings]
    for family in families:
        yield from family(week)
