"""Proposals: the least change of a week that leaves the fewest findings, its ladder and limits."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.adjusting.against import against
from dialback.core.adjusting.judged import Judge, counts
from dialback.core.adjusting.reasons import change_words, remaining_sentence
from dialback.core.adjusting.result import Change, Proposal, Remaining, Rung
from dialback.core.adjusting.solver import INF, Allowance, OutOfTimeError
from dialback.core.adjusting.start import WithPlans, offered, start_of, tires
from dialback.core.adjusting.weekly import WeekProgramme
from dialback.core.findings import Finding
from dialback.core.findings.finding import Key
from dialback.core.movements import MovementTable
from dialback.core.plans.spans import Span, rebuilt, spans_of
from dialback.core.sessions import Session, Set
from dialback.core.tally import Ledger, four_measures, tally
from dialback.core.vocabulary import MEASURES
from dialback.core.weeks import Week

SECONDS: Final = 5.0
"""How long the best is looked for, if nobody says otherwise."""
NEW_MOVEMENTS: Final = 2
"""How many lines are added at most, if nobody says otherwise."""

LADDER_SHARE: Final = 4.0
REASONS_SHARE: Final = 2.0
"""So much of that time the ladder, and the reasons for what stays, may take beside it."""

Counts = Mapping[tuple[int, int], int]
Added = Mapping[int, int]


@dataclass(frozen=True, slots=True)
class Options:
    """What the coach holds: locked movements, lines that may be added, the cost, the time.

    ``seconds`` are those of the best answer; where it is proved sooner, it takes less.
    ``accepted`` are findings that nothing is changed for. Without ``ladder`` there is none, and the
    answer comes the sooner. A week that is meant to be light has ``most_sets`` at most.
    """

    locks: frozenset[str] = frozenset()
    new_movements: int = NEW_MOVEMENTS
    budget: int | None = None
    seconds: float = SECONDS
    accepted: frozenset[Key] = frozenset()
    ladder: bool = True
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

    Wanted, in this order: no finding at a worse level, the fewest high ones, the fewest cautions,
    the lowest cost. Raises ``NothingToStartFromError`` where there is no plan to begin with.
    """
    start = start_of(ledger, week) if start is None else start
    done = ledger.source.week("completed", week) if done_days is None else ()
    fixed = frozenset(session.date for session in done) if done_days is None else done_days
    judge = Judge(ledger, week, start, options.accepted)
    offers = offered(ledger, week) if options.new_movements else {}

    def programme(*, wide: bool = False) -> WeekProgramme:
        return WeekProgramme(
            judge,
            start,
            fixed,
            options.locks,
            offers,
            options.new_movements,
            most_sets=options.most_sets,
            wide=wide,
        )

    search = _Search(programme(), judge, Allowance(options.seconds))
    best = search.best(options.budget)
    search.allowance = Allowance(options.seconds * LADDER_SHARE)
    ladder = search.ladder() if options.ladder else ()
    search.allowance = Allowance(options.seconds * REASONS_SHARE)
    sessions = best.sessions
    left = judge.of(sessions)
    return Proposal(
        week,
        start,
        sessions,
        _changes(search, best),
        best.cost,
        best.optimal,
        ladder,
        tuple(one for key, one in judge.at_start.items() if key not in left),
        tuple(
            _remaining(finding, search, programme, options, left, best) for finding in left.values()
        ),
    )


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
class _Found:
    """An answer: counts of lines, lines added, and the sessions they make."""

    counts: Counts
    added: Added
    sessions: tuple[Session, ...]
    cost: int
    optimal: bool


class _Search:
    """Answers of one programme, the best and the rungs, within an allowance of time."""

    def __init__(self, week: WeekProgramme, judge: Judge, allowance: Allowance) -> None:
        self.week = week
        self.judge = judge
        self.allowance = allowance
        self.weight = len(week.flags) + 1
        self.start = _Found({}, {}, week.start, 0, optimal=False)
        self.proved = False

    def best(self, budget: int | None) -> _Found:
        """The fewest findings, then the lowest cost; the start where time is too short for any."""
        week = self.week
        held = (-INF, INF if budget is None else budget - week.cost_offset)
        try:
            first = week.programme.minimise(week.score, self.allowance, rows={week.cost_row: held})
            if first is None:
                return self.start
            score = round(first.objective)
            second = week.programme.minimise(
                week.cost,
                self.allowance,
                rows={week.cost_row: held, week.score_row: (-INF, score + 0.5)},
                known=first.values,
            )
        except OutOfTimeError:
            return self.start
        answer = second or first
        proved = first.optimal and second is not None and second.optimal
        found = self._found(answer.values, optimal=proved)
        # What it says is cleared is cleared, or it is not shown.
        return found if self._score_of(found) <= score else self.start

    def _found(self, values: Sequence[float], *, optimal: bool) -> _Found:
        counts_, added = self.week.read(values)
        return _Found(counts_, added, self.week.sessions(counts_, added),
                      self.week.cost_of(counts_, added), optimal)  # fmt: skip

    def _score_of(self, found: _Found) -> int:
        high, caution = counts(self.judge.of(found.sessions))
        return self.weight * high + caution

    def ladder(self) -> tuple[Rung, ...]:
        """From the start on, each least cost at which findings become fewer."""
        high, caution = counts(self.judge.at_start)
        rungs = [Rung(0, high, caution)]
        week = self.week
        score = self.weight * high + caution
        try:
            while score > 0:
                cheapest = week.programme.minimise(
                    week.cost, self.allowance, rows={week.score_row: (-INF, score - 0.5)}
                )
                if cheapest is None or not cheapest.optimal:
                    break
                cost = round(cheapest.objective + week.cost_offset)
                answer = week.programme.minimise(
                    week.score,
                    self.allowance,
                    rows={week.cost_row: (-INF, cost - week.cost_offset + 0.5)},
                    known=cheapest.values,
                )
                if answer is None or not answer.optimal:
                    break
                score = round(answer.objective)
                high, caution = divmod(score, self.weight)
                rungs.append(Rung(cost, high, caution))
        except OutOfTimeError:
            pass
        return tuple(rungs)


def _changes(search: _Search, best: _Found) -> tuple[Change, ...]:
    """Every changed line with what it is needed for: what would stand, or be worse, without it."""
    week, judge = search.week, search.judge
    left = judge.of(best.sessions)
    found = []
    for (at, number), count in sorted(best.counts.items()):
        line = next(span for span in week.lines[at] if span.number == number)
        without = {key: value for key, value in best.counts.items() if key != (at, number)}
        others = week.sessions(without, best.added)
        because = _worse(judge.of(others), left)
        session = week.start[at]
        circuit = line.kind == "rounds"
        name = None if circuit else " + ".join(line.movements)
        what = name or line.part or "the circuit"
        words = change_words(
            judge, best.sessions, session, what, line.kind, (line.count, count), because
        )
        found.append(
            Change(
                at, session.date, session.title, number, name, line.part, line.count, count,
                _sets_moved(line, count), because, *words, _effect(judge, others, best.sessions),
            )
        )  # fmt: skip
    for place, count in sorted(best.added.items()):
        addition = week.additions[place]
        without_it = {key: value for key, value in best.added.items() if key != place}
        others = week.sessions(best.counts, without_it)
        because = _worse(judge.of(others), left)
        session, name = week.start[addition.session], addition.movement
        words = change_words(judge, best.sessions, session, name, "sets", (0, count), because)
        found.append(
            Change(
                addition.session, session.date, session.title, None, name, None, 0, count,
                count, because, *words, _effect(judge, others, best.sessions),
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda one: (one.day, one.line is None, one.line or 0)))


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


def _remaining(
    finding: Finding,
    search: _Search,
    programme: object,
    options: Options,
    left: Mapping[Key, Finding],
    best: _Found,
) -> Remaining:
    keys = against(finding.key, search.week, programme, options.budget, left, search.allowance)  # type: ignore[arg-type]
    return Remaining(finding, keys, remaining_sentence(finding, keys, search.judge, best.sessions))
