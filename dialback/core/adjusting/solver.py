"""The integer programme and its solver: variables, rows, and HiGHS behind them.

HiGHS: Huangfu, Hall 2018, Math Prog Comp 10(1). One thread and a fixed seed: the same programme has
the same answer every time, unless it runs out of time.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Any, Final

import highspy
import numpy as np

from dialback.core.adjusting.expression import Linear

Expression = Mapping[int, float]
"""Variables by number, each with its factor."""

INF: Final = highspy.kHighsInf
_TOLERANCE: Final = 1e-9


class _Silent(highspy.Highs):
    """The solver without its greeting: standard output belongs to the command."""

    def enableCallbacks(self) -> None:  # noqa: N802 - the solver's name
        """Called before anything is said."""
        self.setOptionValue("output_flag", False)
        super().enableCallbacks()  # type: ignore[no-untyped-call]


@contextmanager
def _only_while(allowance: Allowance, solver: Any) -> Iterator[None]:
    """Let the solver stop where nobody waits for it, or for better than it has.

    Raises ``NotWantedError``, before it, too.
    """
    wanted, enough = allowance.wanted or _always, allowance.enough or _never
    if allowance.wanted is None and allowance.enough is None:
        yield
        return

    def look(event: Any) -> None:
        if not wanted() or enough():
            event.interrupt()

    if not wanted():
        raise NotWantedError
    solver.cbMipInterrupt += look
    solver.cbSimplexInterrupt += look
    try:
        yield
    finally:
        solver.cbMipInterrupt -= look
        solver.cbSimplexInterrupt -= look
    if not wanted():
        raise NotWantedError


def _always() -> bool:
    return True


def _never() -> bool:
    return False


class OutOfTimeError(Exception):
    """The time was over before anything that fits was found."""


class NotWantedError(Exception):
    """Whoever asked is gone: nobody would read an answer."""


@dataclass
class Allowance:
    """Seconds of solving that are left; every answer takes its own off.

    ``wanted`` says whether anybody still waits for it; without it somebody does. Once ``enough``
    says so, the time is over: what was found by then has to do.
    """

    seconds: float
    wanted: Callable[[], bool] | None = None
    enough: Callable[[], bool] | None = None

    def part(self, share: float) -> Allowance:
        """An allowance of its own with a share of what is left."""
        return Allowance(max(0.0, self.seconds) * share, self.wanted, self.enough)


@dataclass(frozen=True, slots=True)
class Answer:
    """Values of the variables, whether they are proved best, and the objective that they have."""

    values: tuple[float, ...]
    optimal: bool
    objective: float


@dataclass
class Programme:
    """Variables and rows; bounds can be changed between two answers."""

    lower: list[float] = field(default_factory=list)
    upper: list[float] = field(default_factory=list)
    whole: list[bool] = field(default_factory=list)
    rows: list[tuple[float, dict[int, float], float]] = field(default_factory=list)
    _solver: Any = None

    def variable(self, lower: float, upper: float, *, whole: bool = True) -> int:
        """A new variable between two bounds; its number."""
        self.lower.append(lower)
        self.upper.append(upper)
        self.whole.append(whole)
        return len(self.lower) - 1

    def row(self, lower: float, expression: Expression, upper: float) -> int:
        """A new row, lower <= expression <= upper; its number."""
        terms = {number: factor for number, factor in expression.items() if factor}
        self.rows.append((lower, terms, upper))
        return len(self.rows) - 1

    def at_most(self, value: Linear, room: Expression) -> int:
        """A new row: a value is at most the room that variables give it, each times its factor."""
        terms = dict(value.terms)
        for number, factor in room.items():
            terms[number] = terms.get(number, 0.0) - factor
        return self.row(-INF, terms, -value.constant)

    def _ready(self) -> Any:
        if self._solver is not None:
            return self._solver
        solver = _Silent()  # type: ignore[no-untyped-call]
        solver.setOptionValue("threads", 1)
        solver.setOptionValue("random_seed", 7)
        solver.setOptionValue("mip_rel_gap", 0.0)
        solver.setOptionValue("mip_abs_gap", 0.5)
        solver.setOptionValue("primal_feasibility_tolerance", _TOLERANCE)
        solver.setOptionValue("mip_feasibility_tolerance", _TOLERANCE)
        lp = highspy.HighsLp()
        lp.num_col_, lp.num_row_ = len(self.lower), len(self.rows)
        lp.col_cost_ = np.zeros(len(self.lower))
        lp.col_lower_, lp.col_upper_ = np.array(self.lower), np.array(self.upper)
        lp.row_lower_ = np.array([lower for lower, _, _ in self.rows])
        lp.row_upper_ = np.array([upper for _, _, upper in self.rows])
        starts = np.cumsum([0, *(len(terms) for _, terms, _ in self.rows)])
        lp.a_matrix_.format_ = highspy.MatrixFormat.kRowwise
        lp.a_matrix_.start_ = starts
        lp.a_matrix_.index_ = np.array([term for _, terms, _ in self.rows for term in terms], int)
        lp.a_matrix_.value_ = np.array(
            [term for _, terms, _ in self.rows for term in terms.values()]
        )
        kinds = (highspy.HighsVarType.kContinuous, highspy.HighsVarType.kInteger)
        lp.integrality_ = [kinds[whole] for whole in self.whole]
        solver.passModel(lp)
        self._solver = solver
        return solver

    def minimise(
        self,
        objective: Expression,
        allowance: Allowance,
        *,
        bounds: Mapping[int, tuple[float, float]] | None = None,
        rows: Mapping[int, tuple[float, float]] | None = None,
        known: Iterable[float] | None = None,
    ) -> Answer | None:
        """The least value of a whole-numbered objective; ``None`` where nothing fits.

        Where the ``allowance`` is used up, the best found so far has to do; raises
        ``OutOfTimeError`` if there is none, and ``NotWantedError`` where nobody waits for it any
        more. ``bounds`` of variables and ``rows`` hold for this once; ``known`` is a way that fits.
        """
        solver = self._ready()
        count = len(self.lower)
        costs = np.zeros(count)
        for number, factor in objective.items():
            costs[number] = factor
        every = np.arange(count, dtype=np.int32)
        solver.changeColsCost(count, every, costs)
        for number, (lower, upper) in (bounds or {}).items():
            solver.changeColBounds(number, lower, upper)
        for number, (lower, upper) in (rows or {}).items():
            solver.changeRowBounds(number, lower, upper)
        # The limit is for this run; the solver's clock goes on from run to run.
        begun = solver.getRunTime()
        if allowance.enough is not None and allowance.enough():
            allowance.seconds = 0.0
        solver.setOptionValue("time_limit", max(0.001, allowance.seconds))
        solver.clearSolver()
        if known is not None:
            solution = highspy.HighsSolution()
            solution.col_value = list(known)
            solver.setSolution(solution)
        with _only_while(allowance, solver):
            solver.run()
        allowance.seconds -= solver.getRunTime() - begun
        status = solver.getModelStatus()
        found = solver.getSolution().col_value
        valid = solver.getInfo().primal_solution_status == 2
        value = solver.getObjectiveValue()
        for number in bounds or {}:
            solver.changeColBounds(number, self.lower[number], self.upper[number])
        for number in rows or {}:
            lower, _, upper = self.rows[number]
            solver.changeRowBounds(number, lower, upper)
        if status == highspy.HighsModelStatus.kInfeasible:
            return None
        if not valid:
            raise OutOfTimeError
        return Answer(tuple(found), status == highspy.HighsModelStatus.kOptimal, value)
