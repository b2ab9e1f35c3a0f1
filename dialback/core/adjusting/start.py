"""Where adjusting starts from: the plan of the week, or the last week before it, moved."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import timedelta
from typing import Final

from dialback.core.maxima import is_working
from dialback.core.movements import Movement, fold
from dialback.core.sessions import Session, Set, extra_without_text
from dialback.core.tally import Ledger, SessionSource
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week

OFFERED_DAYS: Final = 28
"""So far back a movement may have been done or planned to be offered."""
_MEASURED: Final = ("measured_reps", "measured_tension_s")


class NothingToStartFromError(LookupError):
    """There is no plan, and nothing that was done before."""


@dataclass(frozen=True, slots=True)
class WithPlans:
    """Sessions with the plans of some weeks in place of their own, done as they stand.

    ``done`` is whether they stand for the log, too: what comes after is judged by them.
    """

    source: SessionSource
    plans: Mapping[Week, Sequence[Session]]
    done: bool

    def week(self, basis: Basis, week: Week) -> Sequence[Session]:
        """The sessions of one week, in order of day and entry."""
        own = week in self.plans and (self.done or basis == "planned")
        return self.plans[week] if own else self.source.week(basis, week)

    def weeks(self, basis: Basis) -> Sequence[Week]:
        """The weeks that have sessions, in order."""
        own = {week for week, plan in self.plans.items() if plan}
        known = set(self.source.weeks(basis))
        return sorted(known | own if self.done or basis == "planned" else known)


def start_of(ledger: Ledger, week: Week) -> tuple[Session, ...]:
    """The planned sessions of a week, else those of the latest week before it, moved.

    The latest planned week, or, where nothing was ever planned, the latest completed one. Raises
    ``NothingToStartFromError`` where there is neither.
    """
    plan = ledger.source.week("planned", week)
    if plan:
        return tuple(plan)
    for basis in ("planned", "completed"):
        before = [one for one in ledger.source.weeks(basis) if one < week]
        if before:
            last = max(before)
            by = week.monday - last.monday
            return tuple(_moved(session, by, basis) for session in ledger.source.week(basis, last))
    raise NothingToStartFromError(
        f"nothing is planned in {week}, and nothing was planned or done before it: plan a week "
        "first"
    )


def _moved(session: Session, by: timedelta, basis: Basis) -> Session:
    """A session as the plan of another week: nothing of how it went."""
    done = basis == "completed"
    sets = tuple(_unmeasured(a_set, done=done) for a_set in session.sets)
    rpe = None if done else session.rpe
    extra = extra_without_text(session)
    return Session.model_construct(
        date=session.date + by,
        title=session.title,
        rpe=rpe,
        duration_min=None if done else session.duration_min,
        sets=sets,
        plan=None,
        notes="",
        pain=(),
        **extra,
    )


def _unmeasured(a_set: Set, *, done: bool) -> Set:
    update: dict[str, object] = {key: None for key in _MEASURED if getattr(a_set, key) is not None}
    if done and a_set.rpe is not None:
        update["rpe"] = None
    return a_set.model_copy(update=update) if update else a_set


def offered(ledger: Ledger, week: Week) -> dict[str, Set]:
    """Movements that may be added, by name: a copy of the athlete's latest working set of each.

    Done or planned at most 28 days before the week's Monday; without exertion.
    """
    first = week.monday - timedelta(days=OFFERED_DAYS)
    latest: dict[str, tuple[tuple[object, ...], Set]] = {}
    for back in range(-OFFERED_DAYS // 7, 0):
        for basis in ("planned", "completed"):
            for entry in ledger.entries(basis, week.plus(back)):
                if not is_working(entry) or entry.session.date < first:
                    continue
                name = entry.measured.shape.moves[0].movement.name
                rank = (entry.session.date, basis == "completed")
                if name not in latest or rank >= latest[name][0]:
                    latest[name] = (rank, entry.set)
    return {name: cleared(one) for name, (_, one) in sorted(latest.items())}


def may_be_added(ledger: Ledger, week: Week) -> dict[str, Set]:
    """Movements that a proposal may add: none whose latest set was of one side alone."""
    return {
        name: one
        for name, one in offered(ledger, week).items()
        if one.sides not in ("left", "right")
    }


def cleared(a_set: Set) -> Set:
    """A set as it is copied into another session: nothing of where it stood and how it went."""
    fields = ("rpe", "part", "round", "place", *_MEASURED)
    return a_set.model_copy(update={**dict.fromkeys(fields), "note": "", "why": ""})


def tires(small: Movement, big: Movement) -> bool:
    """Whether a movement before another tires it: an isolated one for a muscle that it needs."""
    return small.counted and not small.compound and bool(set(small.direct) & big.muscles.keys())


def has(session: Session, name: str) -> bool:
    """Whether a session has a movement, alone or in a combination."""
    return any(fold(name) == fold(own) for a_set in session.sets for own, _ in a_set.named_moves())
