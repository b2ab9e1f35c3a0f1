"""Proposals: the change of a week that a coach would sign, its ladder and limits."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.adjusting.against import against
from dialback.core.adjusting.bundles import bundles
from dialback.core.adjusting.judged import Judge, weight_of
from dialback.core.adjusting.reasons import (
    change_words,
    costs_sentence,
    effects,
    finding_words,
    remaining_sentence,
)
from dialback.core.adjusting.result import Change, Proposal, Remaining
from dialback.core.adjusting.search import Found, Search
from dialback.core.adjusting.solver import Allowance
from dialback.core.adjusting.start import WithPlans, offered, start_of, tires
from dialback.core.adjusting.weekly import WeekProgramme
from dialback.core.findings import Finding
from dialback.core.measures import MEASURES
from dialback.core.movements import MovementTable
from dialback.core.plans.spans import Span, rebuilt, spans_of
from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger, four_measures, tally
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week
from dialback.core.words import listed

SECONDS: Final = 5.0
"""How long the best is looked for, if nobody says otherwise."""
NEW_MOVEMENTS: Final = 2
"""How many lines are added at most, if nobody says otherwise."""
LINES: Final = 6
"""How many lines are changed or added at most, if nobody says otherwise."""

LADDER_SHARE: Final = 4.0
REASONS_SHARE: Final = 2.0
"""So much of that time the ladder, and the reasons for what stays, may take beside it."""


@dataclass(frozen=True, slots=True)
class Options:
    """What the coach holds: locked movements, lines that may be changed or added, cost, time.

    ``thorough`` clears all that can be, whatever it takes; else the findings that are left weigh
    against the cost. ``seconds`` are those of the best answer; proved sooner, it takes less.
    ``lightest`` asks for the least that can be left within the budget, whatever it costs there.
    ``accepted`` are findings that nothing is changed for. Without ``ladder`` there is none, and
    the answer comes the sooner; where its changes are not to be taken ``singly``, none are bundled.
    A week that is meant to be light has ``most_sets`` at most.
    """

    locks: frozenset[str] = frozenset()
    new_movements: int = NEW_MOVEMENTS
    lines: int = LINES
    thorough: bool = False
    lightest: bool = False
    budget: int | None = None
    seconds: float = SECONDS
    accepted: frozenset[Key] = frozenset()
    ladder: bool = True
    singly: bool = True
    most_sets: float | None = None


def adjust_weeks(ledger: Ledger, week: Week, weeks: int, options: Options) -> list[Proposal]:
    """Proposals for several weeks, each with the ones before it taken as done."""
    found: list[Proposal] = []
    plans: dict[Week, Sequence[Session]] = {}
    for number in range(weeks):
        at = (
            ledger.but(source=WithPlans(ledger.source, dict(plans), done=True)) if plans else ledger
        )
        one = adjust(at, week.plus(number), options)
        found.append(one)
        plans[one.week] = one.sessions
    return found


def adjust(
    ledger: Ledger,
    week: Week,
    options: Options,
    start: tuple[Session, ...] | None = None,
    done_days: frozenset[date] | None = None,
) -> Proposal:
    """The proposed plan of a week, from its plan or from another start.

    ``done_days`` do not change; those of the week's completed sessions if not given.

    Wanted: no finding at a worse level; the least weight of what is left and cost together, or,
    where it is to be thorough, the least weight and then the least cost. Raises
    ``NothingToStartFromError`` where there is no plan to begin with.
    """
    start = start_of(ledger, week) if start is None else start
    done = ledger.source.week("completed", week) if done_days is None else ()
    fixed = frozenset(session.date for session in done) if done_days is None else done_days
    judge = Judge(ledger, week, start, options.accepted)
    offers = _offers(ledger, week) if options.new_movements else {}

    def programme(*, wide: bool = False) -> WeekProgramme:
        return WeekProgramme(
            judge,
            start,
            fixed,
            options.locks,
            offers,
            options.new_movements,
            lines=None if options.thorough else options.lines,
            most_sets=options.most_sets,
            wide=wide,
        )

    search = Search(
        programme(), judge, lightest=options.thorough or options.lightest, budget=options.budget
    )
    if options.ladder:
        search.climb(Allowance(options.seconds * LADDER_SHARE))
    best = search.answer(Allowance(options.seconds))
    allowance = Allowance(options.seconds * REASONS_SHARE)
    left = judge.of(best.sessions)
    return Proposal(
        week,
        start,
        best.sessions,
        _changes(search, best, singly=options.singly),
        best.cost,
        best.optimal and (search.is_whole or not options.ladder),
        tuple(search.rung_of(found) for found in search.rungs) if options.ladder else (),
        search.rungs.index(best) if options.ladder else 0,
        _why(search, best) if options.ladder else "",
        tuple(one for key, one in judge.at_start.items() if key not in left),
        _all_remaining(
            _remaining(finding, search, programme, options, left, best, allowance)
            for finding in left.values()
        ),
    )


def _all_remaining(found: Iterable[Remaining]) -> tuple[Remaining, ...]:
    """Those that more change clears first, by their places in the ladder."""
    return tuple(sorted(found, key=lambda one: (one.rung is None, one.rung)))


def _offers(ledger: Ledger, week: Week) -> dict[str, Set]:
    """Movements that a proposal may add: none whose latest set was of one side alone."""
    return {
        name: one
        for name, one in offered(ledger, week).items()
        if one.sides not in ("left", "right")
    }


@dataclass(frozen=True, slots=True)
class Step:
    """A change to take: a line of a session (by its number) at a count, or a movement added."""

    session: int
    line: int | None
    movement: str | None
    count: int


def take(
    ledger: Ledger, week: Week, start: tuple[Session, ...], steps: Sequence[Step]
) -> tuple[Session, ...]:
    """The start with some of a proposal's changes. Raises ``LookupError`` for what is not there.

    A compound movement that is added stands before the isolated ones that would tire it.
    """
    offers = offered(ledger, week)
    found = []
    for at, session in enumerate(start):
        own = [step for step in steps if step.session == at]
        lines = spans_of(session, ledger.movements)
        counts_ = {step.line: step.count for step in own if step.line is not None}
        if counts_.keys() - {line.number for line in lines}:
            raise LookupError(f"{session.title or session.date} no longer has this line")
        added = []
        for step in own:
            if step.line is None:
                if step.movement not in offers:
                    raise LookupError(f"{step.movement} was not done lately: add it in Write")
                added.append((offers[step.movement], step.count))
        changed = rebuilt(session, lines, counts_, [])
        for one, count in added:
            at_set = _before_isolated(changed, one, ledger.movements)
            sets = (*changed.sets[:at_set], *[one] * count, *changed.sets[at_set:])
            changed = changed.model_copy(update={"sets": sets})
        found.append(changed)
    return tuple(found)


def _before_isolated(session: Session, added: Set, movements: MovementTable) -> int:
    """Where an added set stands: before the first isolated one with a muscle of it, or last."""
    big = movements[added.named_moves()[0][0]]
    for at, one in enumerate(session.sets if big.compound else ()):
        single = one.exercise is not None and not one.warm_up and one.round is None
        if single and tires(movements[one.named_moves()[0][0]], big):
            return at
    return len(session.sets)


@dataclass(frozen=True, slots=True)
class _Moved:
    """A change of an answer: a line at another count, or a line added."""

    line: tuple[int, int] | None
    added: int | None
    count: int


def _changes(search: Search, best: Found, *, singly: bool) -> tuple[Change, ...]:
    """Every changed line with what it is needed for: what would stand, or be worse, without it.

    Those that need each other are in one bundle, whose reason is what it does by itself.
    """
    moved = [_Moved(key, None, count) for key, count in sorted(best.counts.items())]
    moved += [_Moved(None, place, count) for place, count in sorted(best.added.items())]

    def with_some(taken: frozenset[int]) -> tuple[Session, ...]:
        some = [moved[at] for at in sorted(taken)]
        return search.week.sessions(
            {one.line: one.count for one in some if one.line is not None},
            {one.added: one.count for one in some if one.added is not None},
        )

    known: dict[frozenset[int], Mapping[Key, Finding]] = {}

    def judged(taken: frozenset[int]) -> Mapping[Key, Finding]:
        if taken not in known:
            known[taken] = search.judge.of(with_some(taken))
        return known[taken]

    every = frozenset(range(len(moved)))
    needs = [_worse(judged(every - {at}), judged(every)) for at in sorted(every)]
    together = (
        bundles([frozenset(keys) for keys in needs], lambda taken: weight_of(judged(taken)))
        if singly
        else tuple(frozenset({at}) for at in every)
    )
    found = []
    for number, bundle in enumerate(together):
        # What it does by itself; of one that does nothing so, what stands without it.
        does = _worse(search.judge.at_start, judged(bundle))
        without = with_some(every - bundle)
        shown = with_some(bundle) if does else best.sessions
        reason = effects(search.judge, shown, does or _worse(judged(every - bundle), judged(every)))
        effect = _effect(search.judge, without, best.sessions)
        found += [
            _change(search, moved[at], needs[at], reason, effect, number) for at in sorted(bundle)
        ]
    return tuple(sorted(found, key=lambda one: (one.day, one.line is None, one.line or 0)))


def _change(
    search: Search,
    moved: _Moved,
    because: tuple[Key, ...],
    reason: str,
    effect: Mapping[str, float],
    bundle: int,
) -> Change:
    """One change of an answer."""
    week = search.week
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
        _sets_moved(line, moved.count), because, what, reason, effect, bundle,
    )  # fmt: skip


def _effect(
    judge: Judge, without: Sequence[Session], with_it: Sequence[Session]
) -> dict[str, float]:
    """What the four measures of the week gain by a change."""
    before, after = (
        four_measures(tally(judge.ledger.measure(sessions))) for sessions in (without, with_it)
    )
    return {measure: after[measure] - before[measure] for measure in MEASURES}


def _sets_moved(line: Span, count: int) -> int:
    """How many sets come or go when a line has so many sets, pairs or rounds."""
    if count > line.count:
        return (count - line.count) * len(line.units[-1])
    return sum(map(len, line.units[count:]))


def _worse(without: Mapping[Key, Finding], left: Mapping[Key, Finding]) -> tuple[Key, ...]:
    """The findings that are there, or are high, where one change is left out."""
    return tuple(
        key
        for key, one in sorted(without.items())
        if key not in left or (one.level == "high" and left[key].level != "high")
    )


def _why(search: Search, best: Found) -> str:
    """What the next rung of the ladder would cost and clear."""
    at = search.rungs.index(best)
    if at + 1 == len(search.rungs):
        if search.is_whole:
            return "Nothing more can be cleared within the bounds."
        return "There was no time to find out whether more change would clear more."
    following = search.rungs[at + 1]
    gone = best.left.keys() - following.left.keys()
    words = listed([finding_words(key) for key in sorted(gone)])
    clears = f"clears {words}" if words else "leaves what is less serious"
    return f"The next stop costs {following.cost} instead of {best.cost} and {clears}."


def _remaining(
    finding: Finding,
    search: Search,
    programme: object,
    options: Options,
    left: Mapping[Key, Finding],
    best: Found,
    allowance: Allowance,
) -> Remaining:
    rung = search.gone_from(finding.key) if options.ladder else None
    if rung is not None:
        in_all = search.rungs[rung].cost
        sentence = costs_sentence(finding, in_all - best.cost, in_all)
        return Remaining(finding, rung, (), sentence)
    keys = against(finding.key, search.week, programme, options.budget, left, allowance)  # type: ignore[arg-type]
    sentence = remaining_sentence(finding, keys)
    return Remaining(finding, None, keys or (), sentence)
