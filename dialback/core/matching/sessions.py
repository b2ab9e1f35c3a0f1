"""Which completed sessions of a week were done for which planned ones, step by step.

Source: Dial Back's contract, *Matching, exactly*. Each step is gone through for all sessions
before the next begins; completed sessions take their turn in order of day, then as they stand.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from fractions import Fraction
from typing import Final

from dialback.core.matching.sets import names_of
from dialback.core.movements import MovementTable
from dialback.core.sessions import Session
from dialback.core.weeks import Week

SAME: Final = Fraction(2, 3)
"""The share of a session's counted sets from which on another is the same, whatever its day."""
ALIKE: Final = Fraction(1, 3)
"""The share from which on a session of the plan's own day is for it."""

Counted = Counter[tuple[str, ...]]
"""The counted sets of a session by movement, in halves: one of one side is a half."""


@dataclass(frozen=True, slots=True)
class SessionGroup:
    """Planned sessions and those done for them, as places in their lists, each in order of day.

    One of the two may be empty. Of several plans or several done ones all are compared as one.
    """

    plans: tuple[int, ...]
    dones: tuple[int, ...]


def title_of(session: Session) -> str:
    """A title as titles are compared: letter case and outer blanks apart."""
    return session.title.strip().casefold()


def counted_sets(session: Session, movements: MovementTable) -> Counted:
    """The counted sets of a session by movement: no warm-ups, no conditioning, no mobility."""
    found: Counted = Counter()
    counts: dict[tuple[str, ...], bool] = {}
    for a_set in session.sets:
        if a_set.warm_up:
            continue
        names = names_of(a_set)
        if names not in counts:
            counts[names] = any(name not in movements or movements[name].counted for name in names)
        if counts[names]:
            found[names] += 1 if a_set.sides in ("left", "right") else 2
    return found


def fit(wanted: Counted, found: Counted) -> Fraction:
    """The share of counted sets that others have by movement, each standing for one; 0 of none."""
    total = wanted.total()
    return Fraction((wanted & found).total(), total) if total else Fraction(0)


def group_sessions(
    planned: Sequence[Session],
    completed: Sequence[Session],
    movements: MovementTable,
    elsewhere: Iterable[int] = (),
) -> tuple[SessionGroup, ...]:
    """Every session of a week in one group, in order of day.

    ``elsewhere`` are places of planned sessions that sessions of other weeks were done for:
    nothing else is for them unless it says so.
    """
    matching = _Matching(planned, completed, movements)
    matching.taken.update(elsewhere)
    for step in (
        matching.by_link,
        matching.by_title_of_day,
        matching.by_title,
        matching.by_fit_of_day,
        matching.by_fit,
        matching.by_day,
        matching.two_plans_in_one,
        matching.one_plan_on_two_days,
    ):
        step()
    return matching.groups()


class _Matching:
    """What is for what so far, while the steps are gone through."""

    def __init__(
        self, planned: Sequence[Session], completed: Sequence[Session], movements: MovementTable
    ) -> None:
        self.planned, self.completed = planned, completed
        self.wanted = [counted_sets(session, movements) for session in planned]
        self.found = [counted_sets(session, movements) for session in completed]
        self.in_turn = sorted(range(len(completed)), key=lambda at: completed[at].date)
        self.plans_in_turn = sorted(range(len(planned)), key=lambda at: planned[at].date)
        self.taken: set[int] = set()
        """Plans that something is for."""
        self.pairs: dict[tuple[int, int], Counted] = {}
        """What of a done session stands for a plan, by their places."""

    def _pair(self, done: int, plan: int) -> None:
        self.taken.add(plan)
        self.pairs[plan, done] = self.wanted[plan] & self._left_of(done)

    def _left_of(self, done: int) -> Counted:
        """The counted sets of a done session that stand for no plan yet."""
        left = Counter(self.found[done])
        for (_, one), stands in self.pairs.items():
            if one == done:
                left -= stands
        return left

    def _fit(self, plan: int, done: int) -> Fraction:
        return fit(self.wanted[plan], self.found[done])

    def _days_apart(self, plan: int, done: int) -> int:
        return abs((self.planned[plan].date - self.completed[done].date).days)

    def _same_title(self, plan: int, done: int) -> bool:
        title = title_of(self.completed[done])
        return bool(title) and title_of(self.planned[plan]) == title

    def _same_day(self, plan: int, done: int) -> bool:
        return self.planned[plan].date == self.completed[done].date

    def _of_week(self, done: int) -> list[int]:
        week = Week.of(self.completed[done].date)
        return [
            at
            for at in self.plans_in_turn
            if at not in self.taken and Week.of(self.planned[at].date) == week
        ]

    def _remaining(self) -> list[int]:
        """Done sessions that are for nothing and name no plan, in their turn."""
        paired = {done for _, done in self.pairs}
        return [at for at in self.in_turn if at not in paired and self.completed[at].plan is None]

    def _nearest(self, plan: int, done: int) -> tuple[int, int]:
        """The nearer day, then the earlier one, as the greater key."""
        return -self._days_apart(plan, done), -self.plans_in_turn.index(plan)

    def by_link(self) -> None:
        """A session that names the day of its plan is for that one and no other."""
        for done in self.in_turn:
            day = self.completed[done].plan
            plans = [at for at in range(len(self.planned)) if self.planned[at].date == day]
            if plans:
                best = max(
                    plans,
                    key=lambda plan, done=done: (  # type: ignore[misc]
                        self._same_title(plan, done),
                        self._fit(plan, done),
                        plan not in self.taken,
                        -plan,
                    ),
                )
                self._pair(done, best)

    def _each(
        self,
        fits: Callable[[int, int], bool],
        key: Callable[[int, int], tuple[Fraction | int, ...]],
    ) -> None:
        """Each remaining one in its turn: the best plan of the week among those that fit."""
        for done in self._remaining():
            plans = [plan for plan in self._of_week(done) if fits(plan, done)]
            if plans:
                self._pair(done, max(plans, key=lambda plan, done=done: key(plan, done)))  # type: ignore[misc]

    def by_title_of_day(self) -> None:
        """The plan of the same day with the same title."""
        self._each(
            lambda plan, done: self._same_day(plan, done) and self._same_title(plan, done),
            lambda plan, done: (self._fit(plan, done), -plan),
        )

    def by_title(self) -> None:
        """A plan of the week with the same title."""
        self._each(
            self._same_title,
            lambda plan, done: (self._fit(plan, done), *self._nearest(plan, done)),
        )

    def by_fit_of_day(self) -> None:
        """The plan of the same day that it is like, unless another is much more so."""
        for done in self._remaining():
            free = self._of_week(done)
            plans = [
                plan
                for plan in free
                if self._same_day(plan, done) and self._fit(plan, done) >= ALIKE
            ]
            if not plans:
                continue
            best = max(plans, key=lambda plan, done=done: (self._fit(plan, done), -plan))  # type: ignore[misc]
            fits = [self._fit(plan, done) for plan in free]
            if not any(one > self._fit(best, done) and one >= SAME for one in fits):
                self._pair(done, best)

    def by_fit(self) -> None:
        """A plan of the week that it is the same as by what is in it."""
        self._each(
            lambda plan, done: self._fit(plan, done) >= SAME,
            lambda plan, done: (self._fit(plan, done), *self._nearest(plan, done)),
        )

    def by_day(self) -> None:
        """The plan of the same day, whatever is in it."""
        self._each(self._same_day, lambda plan, _: (-plan,))

    def two_plans_in_one(self) -> None:
        """A plan that was done together with another one in one session."""
        for plan in self.plans_in_turn:
            if plan in self.taken:
                continue
            week = Week.of(self.planned[plan].date)
            ways: list[tuple[Fraction, int, int, int]] = []
            for done in self.in_turn:
                session = self.completed[done]
                own = [one for one, other in self.pairs if other == done]
                if len(own) != 1 or session.plan is not None or Week.of(session.date) != week:
                    continue
                share = fit(self.wanted[plan], self._left_of(done))
                if share >= SAME:
                    ways.append((share, -self._days_apart(plan, done), -len(ways), done))
            if ways:
                self._pair(max(ways)[-1], plan)

    def one_plan_on_two_days(self) -> None:
        """What another session left undone of a plan, done on another day."""
        for done in self._remaining():
            week = Week.of(self.completed[done].date)
            ways: list[tuple[Fraction, int, int, int]] = []
            for plan in self.plans_in_turn:
                others = [other for one, other in self.pairs if one == plan]
                if len(others) != 1 or Week.of(self.planned[plan].date) != week:
                    continue
                undone = self.wanted[plan] - self.pairs[plan, others[0]]
                share = fit(self.found[done], undone)
                if share >= SAME:
                    ways.append((share, *self._nearest(plan, done), plan))
            if ways:
                self._pair(done, max(ways)[-1])

    def groups(self) -> tuple[SessionGroup, ...]:
        """What belongs together, and what stands alone."""
        group_of: dict[tuple[str, int], set[tuple[str, int]]] = {}
        nodes = [("plan", at) for at in self.plans_in_turn]
        nodes += [("done", at) for at in self.in_turn]
        for node in nodes:
            group_of[node] = {node}
        for plan, done in self.pairs:
            whole = group_of["plan", plan] | group_of["done", done]
            for node in whole:
                group_of[node] = whole
        groups = []
        seen: set[tuple[str, int]] = set()
        for node in nodes:
            if node in seen:
                continue
            seen |= group_of[node]
            plans = tuple(at for at in self.plans_in_turn if ("plan", at) in group_of[node])
            dones = tuple(at for at in self.in_turn if ("done", at) in group_of[node])
            groups.append(SessionGroup(plans, dones))
        return tuple(sorted(groups, key=self._first_day))

    def _first_day(self, group: SessionGroup) -> date:
        if group.plans:
            return self.planned[group.plans[0]].date
        return self.completed[group.dones[0]].date
