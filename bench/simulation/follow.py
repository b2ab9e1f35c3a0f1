"""The tool's advice followed to the letter: a plan adjusted every week, and done as proposed."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from itertools import repeat
from statistics import mean
from typing import Final, Literal, get_args

from bench.simulation.year import FIRST, a_year
from dialback.book.book import read_book
from dialback.core.adjusting import Options, adjust
from dialback.core.adjusting.held import steady
from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.start import WithPlans
from dialback.core.adjusting.wave import GENTLE_COST
from dialback.core.figures import TOTAL_SETS
from dialback.core.sessions import Session
from dialback.core.tally import Ledger, tally
from dialback.core.weeks import Week

BEGINS: Final = 14
"""The week of the year whose plan is adjusted first."""
WEEKS: Final = 8
SECONDS: Final = 2.0

Plans = dict[Week, Sequence[Session]]


@dataclass(frozen=True, slots=True)
class Followed:
    """What came of it: by week open findings, sets moved, the week's sets; lines turned back."""

    open: tuple[int, ...]
    moved: tuple[int, ...]
    sets: tuple[float, ...]
    turned_back: int
    own: int
    """Findings of the last week that the first had not."""


Way = Literal["as advised", "all of it", "thorough"]
"""At its stop, as the application gives it; in gentle steps over the weeks; all of it at once."""


def follow(number: int, way: Way) -> Followed:
    """Eight weeks of one made-up athlete."""
    year = a_year(f"Athlete {number}", number)
    book = read_book(json.dumps(year.book()).encode())
    ledger = book.ledger()
    asked = Options(
        thorough=way == "thorough",
        lightest=way == "all of it",
        budget=GENTLE_COST if way == "all of it" else None,
        ladder=False,
        singly=False,
        seconds=SECONDS,
    )
    plans: Plans = {}
    open_, moved, sets = [], [], []
    last: Counter[str] = Counter()
    turned, begun = 0, frozenset[object]()
    for at in range(WEEKS):
        week = FIRST.plus(BEGINS + at)
        start = _moved(ledger, plans, week, at)
        known = ledger.but(source=WithPlans(ledger.source, plans, done=True)) if plans else ledger
        if at == 0:
            before = Judge(known, week, start).at_start
            begun = frozenset(before)
            open_.append(len(before))
            sets.append(_sets(known, start))
        options = asked if asked.thorough else replace(asked, steady=steady(known, week, start))
        found = adjust(known, week, options, start, frozenset())
        plans[week] = found.sessions
        changes: Counter[str] = Counter()
        for one in found.changes:
            changes[one.movement or one.part or ""] += one.count_to - one.count_from
        turned += sum(last[name] * by < 0 for name, by in changes.items())
        last = changes
        moved.append(sum(abs(one.sets) for one in found.changes))
        left = Judge(known, week, found.sessions).at_start
        open_.append(len(left))
        sets.append(_sets(known, found.sessions))
    return Followed(tuple(open_), tuple(moved), tuple(sets), turned, len(frozenset(left) - begun))


def _moved(ledger: Ledger, plans: Plans, week: Week, at: int) -> tuple[Session, ...]:
    """The plan of the week before, a week later; at first the year's own."""
    if at == 0:
        return tuple(ledger.source.week("planned", week))
    before = plans[week.plus(-1)]
    by = week.monday - week.plus(-1).monday
    return tuple(one.model_copy(update={"date": one.date + by}) for one in before)


def _sets(ledger: Ledger, sessions: Sequence[Session]) -> float:
    return tally(ledger.measure(sessions)).get(TOTAL_SETS, 0.0)


def report(athletes: int, workers: int) -> Iterator[str]:
    """What comes of eight weeks of advice, as it is given and when all is to be cleared."""
    with ProcessPoolExecutor(workers) as pool:
        for way in get_args(Way):
            told = list(pool.map(follow, range(athletes), repeat(way)))
            yield (
                f"{way}: open findings {mean(one.open[0] for one in told):.1f} at the start, "
                f"{mean(one.open[1] for one in told):.1f} in the first week, "
                f"{mean(one.open[-1] for one in told):.1f} in the eighth; sets moved "
                f"{mean(one.moved[0] for one in told):.1f} in the first week, "
                f"{mean(sum(one.moved) for one in told):.1f} in all; the week's sets "
                f"{mean(one.sets[-1] / one.sets[0] - 1 for one in told):+.1%}; lines turned back "
                f"{sum(one.turned_back for one in told)}; findings of its own "
                f"{sum(one.own for one in told)}"
            )
