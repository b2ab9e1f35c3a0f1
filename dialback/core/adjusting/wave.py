"""The wave of a block: each week proposed with those before it done, lighter ones, an eased return.

A lighter week keeps its loads and has fewer sets than the house's share of the usual; after a break
the first week begins at about half of the reference week, and the ones after it rise as the limits
allow (``docs/method.md``, *The wave*).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Final, Literal

from dialback.core.adjusting.carried import carried
from dialback.core.adjusting.judged import Judge, weight_of, worse_in
from dialback.core.adjusting.light import most_sets
from dialback.core.adjusting.options import Options
from dialback.core.adjusting.propose import adjust
from dialback.core.adjusting.result import Proposal
from dialback.core.adjusting.start import WithPlans, start_of
from dialback.core.audit import audit_draft
from dialback.core.baseline import baseline, is_lighter
from dialback.core.breaks import Break, break_before
from dialback.core.figures import TOTAL_SETS
from dialback.core.findings import Finding
from dialback.core.notation.step import LIGHTER_SHARE
from dialback.core.plans.dial import Hold, dial_total, scale
from dialback.core.plans.draft import as_draft, as_sessions
from dialback.core.sessions import Session
from dialback.core.tally import Ledger, tally
from dialback.core.vocabulary import Key
from dialback.core.weeks import Week

LIGHTER_EVERY: Final = 4
GENTLE_COST: Final = 12
"""What a week may cost where all that can be is cleared over several of them."""
CARRIED_SHARE: Final = 0.8
"""A week that keeps fewer of its sets was made lighter: nothing of it is carried over."""
RETURN_SHARE: Final = 0.5
"""The first week after a break has about so much of the reference week's sets."""

Shape = Literal["plan", "lighter", "return", "rise"]
"""What a week begins with: its plan; fewer sets, for a reason."""


@dataclass(frozen=True, slots=True)
class WaveWeek:
    """A week of the wave: its plan and the findings of it, and what is proposed instead.

    ``before`` are the findings of the plan as it stands, ``left`` those of the proposal;
    ``carried`` is how many lines are changed as in the week before.
    """

    shape: Shape
    plan: tuple[Session, ...]
    proposal: Proposal
    before: Mapping[Key, Finding]
    left: Mapping[Key, Finding]
    pause: Break | None
    carried: int = 0


def wave_week(
    ledger: Ledger,
    week: Week,
    plans: Mapping[Week, Sequence[Session]],
    options: Options,
    *,
    lighter: bool = False,
    ease_in: bool = False,
    all_of_it: bool = False,
    fixed: frozenset[date] = frozenset(),
) -> WaveWeek:
    """A week proposed, with the plans of the weeks before it taken as done.

    What the last of them changed is carried over. ``lighter`` gives it fewer sets; ``ease_in``
    begins low after a break and rises within the limit of sets; ``all_of_it`` clears what can be
    cleared, whatever it costs in all, but no more of it in one week than ``GENTLE_COST``. Sessions
    of ``fixed`` days stay. Raises ``NothingToStartFromError``.
    """
    own = ledger
    if plans:
        ledger = ledger.but(source=WithPlans(ledger.source, dict(plans), done=True))
    plan = start_of(ledger, week)
    pause = break_before(ledger, week)
    shape, start = _shaped(ledger, week, plan, fixed, pause, lighter=lighter, ease_in=ease_in)
    carried_lines = 0
    if shape == "plan" and not most_sets(audit_draft(ledger, week, plan)):
        after, lines = _carried(own, week, plan, plans, fixed)
        if lines and _helps(ledger, week, after, plan):
            start, carried_lines = after, lines
    # What was made less for a reason is not filled up again.
    drafted = audit_draft(ledger, week, start)
    most = most_sets(drafted) if shape == "plan" else drafted.value(TOTAL_SETS)
    held = replace(
        options,
        ladder=False,
        singly=False,
        most_sets=most,
        lightest=all_of_it,
        budget=GENTLE_COST if all_of_it else None,
    ).held_in(ledger, week, start)
    proposal = adjust(ledger, week, held, start, fixed)
    judge = Judge(ledger, week, plan, options.accepted)
    left = {one.finding.key: one.finding for one in proposal.remaining}
    return WaveWeek(shape, plan, proposal, judge.at_start, left, pause, carried_lines)


def _carried(
    ledger: Ledger,
    week: Week,
    plan: tuple[Session, ...],
    plans: Mapping[Week, Sequence[Session]],
    fixed: frozenset[date],
) -> tuple[tuple[Session, ...], int]:
    """The plan with what the last week of the wave with the same lines changed, and how many."""
    if not ledger.source.week("planned", week):
        # Without a plan of its own it is that of the week before, as it was proposed.
        return plan, 0
    for at in sorted(plans, reverse=True):
        before = ledger.source.week("planned", at)
        if before and _sets(ledger, plans[at]) >= CARRIED_SHARE * _sets(ledger, before):
            found, lines = carried(ledger.movements, plan, before, plans[at], fixed)
            if lines:
                return found, lines
    return plan, 0


def _helps(
    ledger: Ledger, week: Week, after: tuple[Session, ...], plan: tuple[Session, ...]
) -> bool:
    """Whether what helped the week before helps this one, too, and makes nothing of it worse."""
    carried_on, stands = (Judge(ledger, week, one).at_start for one in (after, plan))
    return weight_of(carried_on) < weight_of(stands) and not worse_in(carried_on, stands)


def _shaped(
    ledger: Ledger,
    week: Week,
    plan: tuple[Session, ...],
    fixed: frozenset[date],
    pause: Break | None,
    *,
    lighter: bool,
    ease_in: bool,
) -> tuple[Shape, tuple[Session, ...]]:
    """What the week begins with, and why."""
    planned = _sets(ledger, plan)
    if lighter and not is_lighter(ledger, week, planned):
        return "lighter", _lighter(ledger, week, plan, fixed)
    if ease_in and pause is not None:
        usual = pause.ledger.tally("completed", pause.reference).get(TOTAL_SETS, 0.0)
        if planned > RETURN_SHARE * usual:
            return "return", _scaled(ledger, plan, RETURN_SHARE * usual / planned, fixed)
    if ease_in:
        base = baseline(ledger, week, (TOTAL_SETS,)).base(TOTAL_SETS)
        most = base * (1 + ledger.rules.jump_limits["sets"][0]) if base else planned
        if planned > most:
            return "rise", _scaled(ledger, plan, most / planned, fixed)
    return "plan", plan


def _lighter(
    ledger: Ledger, week: Week, plan: tuple[Session, ...], fixed: frozenset[date]
) -> tuple[Session, ...]:
    """The plan with the most sets, up to 60 % of them, that the house calls lighter."""
    total = _sets(ledger, plan)
    share = LIGHTER_SHARE
    while True:
        found = _scaled(ledger, plan, share, fixed)
        share -= 1 / max(total, 1.0)
        if is_lighter(ledger, week, _sets(ledger, found)) or share <= 0:
            return found


def _scaled(
    ledger: Ledger, plan: tuple[Session, ...], share: float, fixed: frozenset[date]
) -> tuple[Session, ...]:
    """The plan with about a share of its sets, whole ones, loads kept."""
    draft = as_draft(plan, ledger.movements)
    hold = Hold(fixed)
    total = int(share * dial_total(draft, ledger.movements, hold) + 1e-9)
    scaled = scale(draft, total, ledger.movements, "down", hold)
    return as_sessions(scaled)


def _sets(ledger: Ledger, sessions: Sequence[Session]) -> float:
    return tally(ledger.measure(sessions)).get(TOTAL_SETS, 0.0)


def usually_lighter(planned: Sequence[bool], *, in_block: bool) -> tuple[bool, ...]:
    """Which weeks of a block are lighter ones, if nobody says otherwise.

    Those that are planned lighter; where none is, every fourth of a block.
    """
    if any(planned) or not in_block:
        return tuple(planned)
    return tuple((at + 1) % LIGHTER_EVERY == 0 for at in range(len(planned)))
