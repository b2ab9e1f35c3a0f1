"""Proposals: the change of a week that a coach would sign, its ladder and limits."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from functools import partial
from typing import Final

from dialback.core.adjusting.changes import changes_in, turned_back
from dialback.core.adjusting.found import FoundWeek
from dialback.core.adjusting.held import Held
from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.reasons import finding_words
from dialback.core.adjusting.remaining import Explained
from dialback.core.adjusting.result import Proposal, Remaining
from dialback.core.adjusting.search import Search
from dialback.core.adjusting.start import WithPlans, may_be_added, start_of
from dialback.core.adjusting.weekly import WeekProgramme
from dialback.core.sessions import Session
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.core.words import listed

LADDER_SHARE: Final = 4.0
REASONS_SHARE: Final = 2.0
"""So much of that time the ladder, and the reasons for what stays, may take beside it."""


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
    offers = may_be_added(ledger, week) if options.new_movements else {}

    def programme(*, held: Held, wide: bool = False) -> WeekProgramme:
        return WeekProgramme(
            judge,
            start,
            fixed,
            options.locks,
            offers,
            options.new_movements,
            held,
            lines=None if options.thorough else options.lines,
            most_sets=options.most_sets,
            wide=wide,
        )

    held = options.declined.plus(options.steady.held)
    chosen = programme(held=held)
    search, best = _searched(chosen, options)
    new = judge.at_start.keys() - options.steady.known
    if options.steady.held and new & best.left.keys():
        # What is new speaks for turning something back, if that is what clears it.
        free = programme(held=options.declined)
        freely, other = _searched(free, options)
        if len(new & other.left.keys()) < len(new & best.left.keys()):
            held, chosen, search, best = options.declined, free, freely, other
    allowance = options.allowance(REASONS_SHARE)
    left = judge.of(best.sessions)
    explained = Explained(
        search, chosen, options, left, best, allowance, partial(programme, held=held), held
    )
    return Proposal(
        week,
        start,
        best.sessions,
        turned_back(changes_in(chosen, best, singly=options.singly), options.steady),
        best.cost,
        best.optimal and (search.is_whole or not options.ladder),
        tuple(search.rung_of(found) for found in search.rungs) if options.ladder else (),
        search.rungs.index(best) if options.ladder else 0,
        _why(search, best) if options.ladder else "",
        tuple(one for key, one in judge.at_start.items() if key not in left),
        _all_remaining(map(explained.remaining, left.values())),
    )


def _searched(week: WeekProgramme, options: Options) -> tuple[Search[FoundWeek], FoundWeek]:
    """A programme with its ladder, where that is wanted, and its answer."""
    lightest = options.thorough or options.lightest
    search = Search(week, lightest=lightest, budget=options.budget)
    if options.ladder:
        search.climb(options.allowance(LADDER_SHARE))
    return search, search.answer(options.allowance())


def _all_remaining(found: Iterable[Remaining]) -> tuple[Remaining, ...]:
    """Those that more change clears first, by their places in the ladder."""
    return tuple(sorted(found, key=lambda one: (one.rung is None, one.rung)))


def _why(search: Search[FoundWeek], best: FoundWeek) -> str:
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
