"""Steps that clear a finding: whole sets of movements the athlete does, tried before they are told.

A step is taken set by set in a copy of the week, and judged by the findings that sets can raise:
it is told only if it clears its finding and raises no other above a note. What is tried is small;
where it finds nothing, the programme of the next plan (``core.adjusting``) weighs all together.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Final

from dialback.core.baseline import window
from dialback.core.findings.finding import LEVELS, Finding, Key, WeekInHand
from dialback.core.maxima import is_working
from dialback.core.tally import Entry, Tally

MOST: Final = 6
"""So many sets more or fewer are a step; what takes more is a matter of the next plan."""
_CANDIDATES: Final = 5
"""So many movements are tried for a step."""
_NAMED: Final = 3
"""So many movements are named."""
NO_STEP: Final = (
    "No one step clears it without raising another finding: weigh them together in the next plan."
)


def remedy(week: WeekInHand, key: Key, make: Callable[[], str]) -> Callable[[], str]:
    """A remedy that is tried out when somebody reads it, and once."""

    def read() -> str:
        if ("remedy", key) not in week.kept:
            week.kept["remedy", key] = make()
        said: str = week.kept["remedy", key]
        return said

    return read


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

    def tries(now: WeekInHand, barred: Collection[str]) -> Iterator[tuple[str, WeekInHand]]:
        return (
            (name, _with(now, models[name])) for name in names[:_CANDIDATES] if name not in barred
        )

    return _taken(week, key, tries, more=True)


def fewer_sets(week: WeekInHand, key: Key, figure: str) -> Sets | None:
    """Sets to take out that clear a finding; ``None`` where none was found.

    Of movements that credit a figure, one set of each stays; those with the most sets go first.
    """

    def tries(now: WeekInHand, barred: Collection[str]) -> Iterator[tuple[str, WeekInHand]]:
        left = Counter(_name(entry) for entry in now.entries if _credits(entry, figure))
        several = [name for name, count in left.most_common() if count > 1][:_CANDIDATES]
        return ((name, _without(now, name)) for name in several if name not in barred)

    return _taken(week, key, tries, more=False)


Tries = Callable[[WeekInHand, Collection[str]], Iterator[tuple[str, WeekInHand]]]
"""The ways to go one set on from a week, the best first."""


def _taken(week: WeekInHand, key: Key, tries: Tries, *, more: bool) -> Sets | None:
    """Set by set the first way that raises nothing, until the finding is gone."""
    taken: Counter[str] = Counter()
    before, now = _levels(week, more=more), week
    # A movement of which a set raises something is not tried again: with more sets it still would.
    barred: set[str] = set()
    for _ in range(MOST):
        for name, tried in tries(now, barred):
            gone = _gone(before, tried, key, more=more)
            if gone is not None:
                break
            barred.add(name)
        else:
            return None
        taken[name] += 1
        now = tried
        if gone:
            return taken
    return None


def _gone(before: Mapping[Key, int], tried: WeekInHand, key: Key, *, more: bool) -> bool | None:
    """Whether a finding is gone in a week that was tried; ``None`` where another is raised."""
    gone = True
    for finding in _judged(tried, more=more):
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
    if "lately" not in week.kept:
        latest: dict[tuple[str, int], Entry] = {}
        for before in window(week.week):
            for entry in week.ledger.entries("completed", before):
                if is_working(entry):
                    latest[_name(entry), id(entry.measured.shape)] = entry
        week.kept["lately"] = tuple(latest.values())
    found: Sequence[Entry] = week.kept["lately"]
    return found


def _models(entries: Sequence[Entry], figure: str) -> dict[str, Entry]:
    """The latest working set of each movement that credits a figure with sets."""
    return {_name(entry): entry for entry in entries if _credits(entry, figure)}


def _avoided(week: WeekInHand, entry: Entry) -> bool:
    movement = entry.measured.shape.moves[0].movement
    return any(one.touches(movement, week.rules) for one in week.restrictions)


def _with(week: WeekInHand, model: Entry) -> WeekInHand:
    """The week with one more set, in the session that has the movement, else in the last one."""
    own = _places(week, _name(model))
    at = own[-1] if own else len(week.entries) - 1
    behind = week.entries[at]
    one_more = model._replace(session=behind.session, at=behind.at)
    entries = (*week.entries[: at + 1], one_more, *week.entries[at + 1 :])
    return replace(week, entries=entries, tally=_sum(week.tally, model, 1), bare=True)


def _without(week: WeekInHand, name: str) -> WeekInHand:
    """The week without the last set of a movement."""
    at = _places(week, name)[-1]
    entries = (*week.entries[:at], *week.entries[at + 1 :])
    return replace(week, entries=entries, tally=_sum(week.tally, week.entries[at], -1), bare=True)


def _places(week: WeekInHand, name: str) -> list[int]:
    return [
        at for at, entry in enumerate(week.entries) if is_working(entry) and _name(entry) == name
    ]


def _sum(sums: Tally, entry: Entry, times: int) -> Tally:
    """The sums with a set more or fewer: credits are linear."""
    found = dict(sums)
    for figure, credit in entry.measured.credits.items():
        found[figure] = found.get(figure, 0.0) + times * credit
    return found


def _levels(week: WeekInHand, *, more: bool) -> dict[Key, int]:
    """Findings that sets can raise, above a note."""
    kept = f"levels, {'more' if more else 'fewer'}"
    if kept not in week.kept:
        week.kept[kept] = {
            finding.key: LEVELS.index(finding.level)
            for finding in _judged(week, more=more)
            if finding.level != "note"
        }
    found: dict[Key, int] = week.kept[kept]
    return found


def _judged(week: WeekInHand, *, more: bool) -> Iterator[Finding]:
    # The families tell their remedies by these steps, and the steps are judged by the families.
    from dialback.core.findings.balance import balance_findings
    from dialback.core.findings.jumps import jump_findings
    from dialback.core.findings.muscles import band_findings
    from dialback.core.findings.restricted import restriction_findings
    from dialback.core.findings.session import overfull_findings
    from dialback.core.findings.spacing import spacing_findings

    families = [balance_findings, band_findings, jump_findings]
    if more:
        # Fewer sets bring no two days closer, fill no session and break no restriction.
        families += [spacing_findings, overfull_findings, restriction_findings]
    for family in families:
        yield from family(week)
