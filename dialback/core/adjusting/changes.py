"""The changes of a proposal, each with what it is for, in bundles that are taken together."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from dialback.core.adjusting.bundles import bundles
from dialback.core.adjusting.found import FoundWeek
from dialback.core.adjusting.held import Steady
from dialback.core.adjusting.judged import Judge, weight_of, worse_in
from dialback.core.adjusting.reasons import change_words, effects, finding_words
from dialback.core.adjusting.result import Change
from dialback.core.adjusting.weekly import WeekProgramme
from dialback.core.findings import Finding
from dialback.core.measures import MEASURES
from dialback.core.plans.spans import Span
from dialback.core.sessions import Session
from dialback.core.tally import four_measures, tally
from dialback.core.vocabulary import Key
from dialback.core.words import listed


@dataclass(frozen=True, slots=True)
class _Moved:
    """A change of an answer: a line at another count, or a line added."""

    line: tuple[int, int] | None
    added: int | None
    count: int


def changes_in(week: WeekProgramme, best: FoundWeek, *, singly: bool) -> tuple[Change, ...]:
    """Every changed line with what it is needed for: what would stand, or be worse, without it.

    Those that need each other are in one bundle, whose reason is what it does by itself.
    """
    moved = [_Moved(key, None, count) for key, count in sorted(best.counts.items())]
    moved += [_Moved(None, place, count) for place, count in sorted(best.added.items())]

    def with_some(taken: frozenset[int]) -> tuple[Session, ...]:
        some = [moved[at] for at in sorted(taken)]
        return week.sessions(
            {one.line: one.count for one in some if one.line is not None},
            {one.added: one.count for one in some if one.added is not None},
        )

    known: dict[frozenset[int], Mapping[Key, Finding]] = {}

    def judged(taken: frozenset[int]) -> Mapping[Key, Finding]:
        if taken not in known:
            known[taken] = week.judge.of(with_some(taken))
        return known[taken]

    every = frozenset(range(len(moved)))
    needs = [worse_in(judged(every - {at}), judged(every)) for at in sorted(every)]
    together = (
        bundles([frozenset(keys) for keys in needs], lambda taken: weight_of(judged(taken)))
        if singly
        else tuple(frozenset({at}) for at in every)
    )
    found = []
    for number, bundle in enumerate(together):
        # What it does by itself; of one that does nothing so, what stands without it.
        does = worse_in(week.judge.at_start, judged(bundle))
        without = with_some(every - bundle)
        shown = with_some(bundle) if does else best.sessions
        reason = effects(week.judge, shown, does or worse_in(judged(every - bundle), judged(every)))
        effect = _effect(week.judge, without, best.sessions)
        found += [
            _change(week, moved[at], needs[at], reason, effect, number) for at in sorted(bundle)
        ]
    return tuple(sorted(found, key=lambda one: (one.day, one.line is None, one.line or 0)))


def _change(
    week: WeekProgramme,
    moved: _Moved,
    because: tuple[Key, ...],
    reason: str,
    effect: Mapping[str, float],
    bundle: int,
) -> Change:
    """One change of an answer."""
    if moved.line is None:
        addition = week.additions[moved.added or 0]
        session = week.start[addition.session]
        what = change_words(session, addition.movement, "sets", (0, moved.count))
        return Change(
            addition.session, session.date, session.title, None, addition.movement, None, 0,
            moved.count, moved.count, because, what, reason, effect, bundle,
        )  # fmt: skip
    at, number = moved.line
    line = next(span for span in week.spans[at] if span.number == number)
    session = week.start[at]
    name = None if line.kind == "rounds" else " + ".join(line.movements)
    shown = name or line.part or "the circuit"
    what = change_words(session, shown, line.kind, (line.count, moved.count))
    return Change(
        at, session.date, session.title, number, name, line.part, line.count, moved.count,
        sets_moved(line, moved.count), because, what, reason, effect, bundle,
    )  # fmt: skip


def _effect(
    judge: Judge, without: Sequence[Session], with_it: Sequence[Session]
) -> dict[str, float]:
    """What the four measures of the week gain by a change."""
    before, after = (
        four_measures(tally(judge.ledger.measure(sessions))) for sessions in (without, with_it)
    )
    return {measure: after[measure] - before[measure] for measure in MEASURES}


def sets_moved(line: Span, count: int) -> int:
    """How many sets come or go when a line has so many sets, pairs or rounds."""
    if count > line.count:
        return (count - line.count) * len(line.units[-1])
    return sum(map(len, line.units[count:]))


def turned_back(changes: Iterable[Change], lately: Steady) -> tuple[Change, ...]:
    """Changes that undo what was published lately say so, and which new finding asks for it."""

    def told(one: Change) -> Change:
        held = lately.held.no_fewer if one.count_to < one.count_from else lately.held.no_more
        week = (
            held.get((one.session, one.line))
            if one.line is not None
            else lately.held.not_added.get((one.session, one.movement or ""))
        )
        if week is None:
            return one
        new = [key for key in one.because if key not in lately.known]
        words = listed(list(map(finding_words, new)))
        why = f", because {words} {'is' if len(new) == 1 else 'are'} new" if new else ""
        return replace(one, reason=f"{one.reason}; it reverses the change of {week.said}{why}")

    return tuple(map(told, changes))
