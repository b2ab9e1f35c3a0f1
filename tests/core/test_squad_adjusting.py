"""One change for all of a squad: nobody is made worse, and no better one is there."""

from __future__ import annotations

from itertools import product
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.adjusting import NothingToStartFromError, Options, adjust
from dialback.core.adjusting.bounds import keeps_most
from dialback.core.adjusting.judged import worse_in
from dialback.core.adjusting.search import Search
from dialback.core.adjusting.solver import Allowance
from dialback.core.audit import audit
from dialback.core.squads import Member
from dialback.core.squads.adjusting import (
    SquadProposal,
    Turn,
    adjust_squad,
    lines_of,
    squad_plan,
    turned,
)
from dialback.core.squads.adjusting.plan import Decision, FoundSquad, Otherwise, SquadPlan
from dialback.core.squads.adjusting.programme import ForAllProgramme, SquadProgramme
from dialback.core.squads.adjusting.starts import shared_sessions, starts_of
from dialback.core.vocabulary import MUSCLES
from tests.build import WEEK, book, restricted, session, sets
from tests.properties import tried

LONG = Options(seconds=60)
NOTHING_NEW = Options(seconds=60, new_movements=0)


def member(name: str, *planned: dict, **more: Any) -> Member:
    athlete = {**restricted(*more.pop("under", ())), "name": name}
    done = more.pop("done", [])
    return Member(name, book(done, list(planned), athlete=athlete, **more).ledger())


def upper(press: int, row: int, *more: list[dict], load: float = 40, **also: Any) -> dict:
    work = [sets("Press", press, rpe=8, load_kg=load), sets("Row", row, rpe=8, load_kg=load)]
    return session(0, *work, *more, title="Upper", **also)


FEW_RULES: dict[str, Any] = {"muscle_bands": {muscle: [0, 90] for muscle in MUSCLES}}
"""Only the balances are judged."""


def plan_of(members: list[Member], options: Options = NOTHING_NEW) -> SquadPlan:
    starts = starts_of(members, WEEK, offer=options.new_movements > 0)
    return SquadPlan(starts, shared_sessions(starts))


def test_a_session_is_shared_by_title_lines_and_sets_whatever_the_loads() -> None:
    own = session(3, sets("Squat", 4), title="Mine")
    members = [
        member("A", upper(6, 2)),
        member("B", upper(6, 2, load=60), own),
        member("C", upper(7, 2)),
        member("D", upper(6, 2), session(1, *[sets("Squat", 4)], title="Upper")),
        member("E", {**upper(6, 2), "title": "Else"}),
        member("F", upper(6, 2), done=[upper(6, 2)]),
    ]
    (shared,) = plan_of(members).shared
    # C has another number of sets, E another title, and F has done it already.
    assert dict(shared.places) == {0: 0, 1: 0, 3: 0}
    assert plan_of(members[:2]).shared == ()


def counts(proposal: SquadProposal) -> list[tuple[int, int]]:
    return [(one.after.high, one.after.caution) for one in proposal.athletes]


def test_one_decision_holds_for_all_and_counts_once() -> None:
    members = [member(name, upper(6, 4), rules=FEW_RULES) for name in "ABC"]
    proposal = adjust_squad(members, WEEK, NOTHING_NEW)
    (shared,) = proposal.shared
    assert (shared.title, shared.athletes) == ("Upper", ("A", "B", "C"))
    assert proposal.exceptions == ()
    alone = adjust(members[0].ledger, WEEK, NOTHING_NEW)
    # For one it is not worth as much: for three the same step clears three times as many.
    assert proposal.cost <= 3 * sum(
        map(abs, [one.count_to - one.count_from for one in shared.changes])
    )
    assert sum(high + caution for high, caution in counts(proposal)) == 0
    assert proposal.optimal
    assert proposal.ladder[0].caution == 3 * alone.ladder[0].caution
    assert proposal.ladder[0].high == 3 * alone.ladder[0].high
    assert proposal.ladder[proposal.stop].cost == proposal.cost
    told = " ".join(change.sentence for change in shared.changes)
    assert "of 3 athletes: imbalance" in told
    for one in proposal.athletes:
        assert one.sessions[0].sets[0].load_kg == 40
        assert {finding.code for finding in one.cleared} == {"balance"}


def tiny(number: int, press: int, row: int, own: int) -> list[Member]:
    """Athletes of one session; the first has as many rows of their own on another day."""
    own_day = [session(3, sets("Row", own, rpe=8), title="Own")] if own else []
    return [
        member(f"A{at}", upper(press, row), *([] if at else own_day), rules=FEW_RULES)
        for at in range(number)
    ]


def every(plan: SquadPlan, most: int) -> list[FoundSquad]:
    """Every decision, and every exception of single athletes, that nobody is made worse by."""
    shared = plan.shared[0]
    lines = plan.starts[0].spans[0]
    ranges = [range(line.count + most + 1) for line in lines]
    found = []
    for decided in product(*ranges):
        decision = Decision(
            {
                line.number: count
                for line, count in zip(lines, decided, strict=True)
                if count != line.count
            }
        )
        for apart in product(range(len(plan.starts) + 1), range(len(lines)), range(3 + most)):
            number, at, count = apart
            exceptions = [Otherwise() for _ in plan.starts]
            if number < len(plan.starts):
                line = lines[at]
                if count > line.count + most or count == decided[at]:
                    continue
                exceptions[number] = Otherwise({(shared.places[number], line.number): count})
            found.append(plan.made((decision,), tuple(exceptions), optimal=False))
    return [one for one in found if is_allowed(plan, one)]


def is_allowed(plan: SquadPlan, found: FoundSquad) -> bool:
    for number, start in enumerate(plan.starts):
        left = {key: one for (at, key), one in found.left.items() if at == number}
        if worse_in(left, start.judge.at_start):
            return False
        total = sum(len(session.sets) for session in found.sessions[number])
        before = sum(len(session.sets) for session in start.sessions)
        if total < 0.8 * before - 1e-9 or any(not one.sets for one in found.sessions[number]):
            return False
    return True


@pytest.mark.parametrize(("press", "row", "own"), [(4, 2, 0), (4, 3, 2), (3, 5, 0), (5, 2, 3)])
def test_nothing_better_is_found_by_trying_everything(press: int, row: int, own: int) -> None:
    members = tiny(3, press, row, own)
    plan = plan_of(members)
    tried_out = every(plan, 2)
    best = min(one.weight + one.cost for one in tried_out)
    proposal = adjust_squad(members, WEEK, NOTHING_NEW)
    rung = proposal.ladder[proposal.stop]
    assert proposal.optimal
    # None of these is worth a second exception, so that all that may be best was tried.
    assert 8 * rung.high + 3 * rung.caution + proposal.cost == best


def test_what_is_told_once_changes_no_optimum() -> None:
    members = [
        member(
            f"A{at}",
            upper(6, 2, sets("Curl", 2), load=40 + at),
            session(2, sets("Squat", 3 + at % 2), title="Low"),
        )
        for at in range(4)
    ]
    plan = plan_of(members)
    merged = ForAllProgramme(plan, NOTHING_NEW)
    whole = SquadProgramme(plan, NOTHING_NEW)
    assert len(merged.programme.rows) < len(whole.programme.rows) / 2

    def best(sought: Any, **held: Any) -> FoundSquad:
        aim = Search(sought, lightest=False, budget=None).best_aim()
        answer = sought.programme.minimise(aim, Allowance(60), **held)
        assert answer.optimal
        return sought.found(answer, optimal=True)

    one, other = best(merged), best(whole, bounds=whole.nobody_apart())
    assert (one.cost, one.weight) == (other.cost, other.weight)


def test_without_a_shared_session_each_is_proposed_for_alone() -> None:
    members = [
        member("A", upper(6, 2)),
        member("B", {**upper(5, 2), "title": "Other"}),
        member("C"),
    ]
    proposal = adjust_squad(members, WEEK, LONG)
    own = [adjust(one.ledger, WEEK, LONG) for one in members[:2]]
    assert proposal.shared == ()
    assert proposal.cost == sum(one.cost for one in own)
    for outcome, alone in zip(proposal.athletes, own, strict=False):
        assert outcome.sessions == alone.sessions
        assert outcome.cleared == alone.cleared
        assert [left.finding for left in outcome.remaining] == [
            left.finding for left in alone.remaining
        ]
    assert proposal.athletes[2].sessions == ()
    with pytest.raises(NothingToStartFromError, match="nobody has anything planned"):
        adjust_squad(members[2:], WEEK, LONG)


def test_a_squad_of_one_is_that_athlete() -> None:
    one = member("A", upper(6, 2, sets("Curl", 3)), session(3, sets("Squat", 8), title="Low"))
    proposal, alone = adjust_squad([one], WEEK, LONG), adjust(one.ledger, WEEK, LONG)
    assert (proposal.cost, proposal.ladder, proposal.stop) == (
        alone.cost,
        alone.ladder,
        alone.stop,
    )
    assert proposal.why == alone.why
    assert proposal.athletes[0].remaining == alone.remaining
    assert proposal.exceptions[0].changes == alone.changes


AT_MOST_A_FEW = st.integers(2, 6)


WEEKS = st.tuples(st.sampled_from([(6, 2), (5, 4)]), st.integers(0, 4))


@tried(6)
@given(st.lists(WEEKS, min_size=3, max_size=5), st.booleans(), st.sampled_from((4.0, 0.05)))
def test_nobody_is_made_worse(
    weeks: list[tuple[tuple[int, int], int]], thorough: bool, seconds: float
) -> None:
    members = [
        member(
            f"A{at}",
            upper(*work, sets("Curl", 2)),
            *([session(3, sets("Squat", own, rpe=8), title=f"Own {own}")] if own else []),
            rules=FEW_RULES,
        )
        for at, (work, own) in enumerate(weeks)
    ]
    proposal = adjust_squad(
        members, WEEK, Options(seconds=seconds, new_movements=0, thorough=thorough)
    )
    for one, outcome in zip(members, proposal.athletes, strict=True):
        (start,) = starts_of([one], WEEK, offer=False)
        after = start.judge.of(outcome.sessions)
        assert not worse_in(after, start.judge.at_start)
        assert keeps_most(start.judge, outcome.sessions)
        assert {left.finding.key for left in outcome.remaining} == set(after)
        assert {gone.key for gone in outcome.cleared} == set(start.judge.at_start) - set(after)
        levels = [found.level for found in audit(one.ledger, WEEK, "planned").findings]
        assert (outcome.before.high, outcome.before.caution) == (
            levels.count("high"),
            levels.count("caution"),
        )
    costs = [rung.cost for rung in proposal.ladder]
    assert costs == sorted(set(costs))
    weights = [8 * rung.high + 3 * rung.caution for rung in proposal.ladder]
    assert weights == sorted(set(weights), reverse=True)
    assert proposal.ladder[proposal.stop].cost == proposal.cost


def test_a_coach_turns_lines_for_all_but_not_those_that_are_fixed() -> None:
    warm = sets("Press", 1, warm_up=True)
    members = [member(name, upper(3, 3, warm)) for name in "ABC"]
    plan = squad_plan(members, WEEK)
    (shared,) = (lines_of(plan, number) for number in range(len(plan.shared)))
    names = [one.name for one in shared]
    assert names == ["Press", "Row"], "a warm-up is nobody's line"
    row = shared[names.index("Row")].span
    weeks = turned(plan, [Turn(None, 0, row.number, None, 4), Turn("B", 0, row.number, None, 3)])
    assert [one.changed for one in weeks] == [True, False, True]
    assert [len(one.sessions[0].sets) for one in weeks] == [8, 7, 8]
    (fixed,) = [one.number for one in plan.starts[0].spans[0] if one.warm_up]
    for athlete in (None, "A"):
        with pytest.raises(LookupError, match="does not turn"):
            turned(plan, [Turn(athlete, 0, fixed, None, 2)])
