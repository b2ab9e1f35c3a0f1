"""An athlete's long line: weeks side by side, each figure beside its base and what is allowed.

A week says here what stands inside its band and what outside; what follows from it is said by its
own sheet.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal, NamedTuple

from dialback.core.audit import audit
from dialback.core.balance import Weighing, deciding_measure, weigh, weigh_all
from dialback.core.baseline import (
    LIGHTER_WINDOW,
    TOLERANCE,
    WINDOW,
    Baseline,
    baselines,
    is_lighter_week,
)
from dialback.core.breaks import break_before
from dialback.core.figures import (
    TOTAL_SETS,
    Figure,
    in_total,
    of_movement,
    of_muscle,
    of_side,
)
from dialback.core.findings.course import ready_findings, stalled_findings
from dialback.core.maxima import TopSet, is_working, session_tops
from dialback.core.measures import MEASURES, TITLES
from dialback.core.once import Once
from dialback.core.sessions import Session
from dialback.core.strain import session_loads
from dialback.core.tally import Entry, Ledger, Tally, rough, top_loads
from dialback.core.verdict.decided import words_of
from dialback.core.vocabulary import LEFT_RIGHT, MUSCLES, PAIRS, Pair, WeekKind, label
from dialback.core.weeks import Week

LENGTHS: Final = (16, 26, 52)
"""So many weeks a long line may have."""

_FIGURES: Final = (
    *(in_total(name) for name in MEASURES),
    *(of_muscle(muscle, "sets") for muscle in MUSCLES),
    *(of_side(pair.name, side, name) for pair in PAIRS for side in "ab" for name in pair.measures),
)
"""What has a base here."""

Kind = Literal["measure", "done", "load", "pair", "muscle", "movement"]
Standing = Literal["none", "below", "within", "above"]


class Point(NamedTuple):
    """A week of a line. ``None`` where the week has no such figure; the bounds may be open.

    ``rough`` rests on an estimate or an assumption, in whole or in part; of a ratio that is
    ``one_sided`` there is no value, since the other side has nothing.
    """

    value: float | None
    planned: float | None = None
    base: float | None = None
    low: float | None = None
    high: float | None = None
    rough: bool = False
    one_sided: bool = False

    @property
    def standing(self) -> Standing:
        """Where the value stands to what is allowed."""
        if self.one_sided and self.high is not None:
            return "above"
        if self.value is None or (self.low is None and self.high is None):
            return "none"
        if self.low is not None and self.value < self.low - TOLERANCE:
            return "below"
        return "above" if self.high is not None and self.value > self.high + TOLERANCE else "within"


_NOTHING: Final = Point(None)


@dataclass(frozen=True, slots=True)
class Line:
    """A figure over the weeks; ``measure`` is what its values are counted in."""

    kind: Kind
    subject: str
    label: str
    measure: str
    points: tuple[Point, ...]
    figure: Figure | None = None
    """What its trail is taken from, where it is a sum."""


@dataclass(frozen=True, slots=True)
class SeasonWeek:
    """What there is to know of a week beside its figures.

    ``gap``: nothing was done, between the first trained week and the last; ``back``: the first
    trained week after a break.
    """

    week: Week
    trained: bool
    lighter: bool
    gap: bool
    back: bool
    pain: tuple[str, ...]
    restrictions: tuple[str, ...]
    decisions: tuple[str, ...]
    kind: WeekKind | None


@dataclass(frozen=True, slots=True)
class Season:
    """Weeks in order, and the lines over them."""

    weeks: tuple[SeasonWeek, ...]
    lines: tuple[Line, ...]


@dataclass(frozen=True, slots=True)
class _Column:
    """A week as the lines look at it."""

    week: Week
    done: Tally
    planned: Tally
    base: Baseline
    entries: tuple[Entry, ...]
    sessions: Sequence[Session]
    rough: frozenset[str]

    @property
    def trained(self) -> bool:
        return self.done.get(TOTAL_SETS, 0.0) > 0

    def value(self, figure: str) -> float | None:
        return self.done.get(figure, 0.0) if self.trained else None

    def plan(self, figure: str) -> float | None:
        return self.planned.get(figure, 0.0) if self.planned else None


def season(ledger: Ledger, last: Week, weeks: int) -> Season:
    """So many weeks up to the last one; kept with the ledger."""
    return _SEASONS.of(ledger.kept, (last, weeks), lambda: _season(ledger, last, weeks))


_SEASONS: Final = Once[tuple[Week, int], Season]()


def _season(ledger: Ledger, last: Week, weeks: int) -> Season:
    span = [last.plus(at) for at in range(1 - weeks, 1)]
    ledger.read_ahead(span[0].plus(-LIGHTER_WINDOW - WINDOW), last)
    bases = baselines(ledger, span, _FIGURES)
    columns = [
        _Column(
            week,
            ledger.tally("completed", week),
            ledger.tally("planned", week),
            bases[week],
            entries := ledger.entries("completed", week),
            ledger.source.week("completed", week),
            rough(entries),
        )
        for week in span
    ]
    lines = [
        *_measures(ledger, columns),
        _share_done(ledger, columns),
        *_loads(ledger, columns),
        *_pairs(ledger, columns),
        *_muscles(ledger, columns),
        *_movements(columns),
    ]
    return Season(tuple(_weeks(ledger, columns)), tuple(lines))


def _weeks(ledger: Ledger, columns: Sequence[_Column]) -> Iterable[SeasonWeek]:
    first, last = ledger.first_trained, ledger.last_done
    for column in columns:
        week = column.week
        inside = first is not None and last is not None and first < week < Week.of(last)
        yield SeasonWeek(
            week,
            trained=column.trained,
            lighter=column.trained and is_lighter_week(ledger, week),
            gap=inside and not column.trained,
            back=column.trained and break_before(ledger, week) is not None,
            pain=tuple(
                ": ".join(filter(None, (pain.exercise or "", pain.note))) or "something hurt"
                for session in column.sessions
                for pain in session.pain
            ),
            restrictions=tuple(
                restriction.words(ledger.unit)
                for restriction in ledger.restrictions
                if restriction.holds_in(week)
            ),
            decisions=tuple(
                words_of(decision) for decision in ledger.decisions if decision.holds_in(week)
            ),
            kind=ledger.kinds.get(week),
        )


def _line(
    kind: Kind,
    subject: str,
    name: str,
    measure: str,
    columns: Sequence[_Column],
    point: Callable[[_Column], Point],
    figure: Figure | None = None,
) -> Line:
    return Line(kind, subject, name, measure, tuple(map(point, columns)), figure)


def _measures(ledger: Ledger, columns: Sequence[_Column]) -> Iterable[Line]:
    limits = ledger.rules.jump_limits
    for name in MEASURES:
        figure, limit = in_total(name), limits.get(name)

        def point(
            column: _Column,
            figure: Figure = figure,
            limit: tuple[float, float] | None = limit,
        ) -> Point:
            base = column.base.base(figure)
            high = None if limit is None or not base else base * (1 + limit[0])
            return Point(
                column.value(figure),
                column.plan(figure),
                base,
                None,
                high,
                rough=figure in column.rough,
            )

        yield _line("measure", name, TITLES[name], name, columns, point, figure)


def _share_done(ledger: Ledger, columns: Sequence[_Column]) -> Line:
    low, high = ledger.rules.plan_band

    def point(column: _Column) -> Point:
        planned = column.planned.get(TOTAL_SETS, 0.0)
        share = column.done.get(TOTAL_SETS, 0.0) / planned if planned and column.done else None
        return Point(share, low=low, high=high)

    return _line("done", "done", "share of the plan's sets", "share", columns, point)


def _loads(ledger: Ledger, columns: Sequence[_Column]) -> Iterable[Line]:
    found = {
        column.week: session_loads(
            column.sessions,
            column.week,
            column.entries,
            column.done.get(in_total("volume_load_kg"), 0.0),
        )
        for column in columns
    }
    yield _line(
        "load",
        "load",
        "session load",
        "load",
        columns,
        lambda column: Point(found[column.week].load or None),
    )
    yield _line(
        "load",
        "monotony",
        "monotony",
        "ratio",
        columns,
        lambda column: Point(found[column.week].monotony, high=ledger.rules.monotony_limit),
    )


def _pairs(ledger: Ledger, columns: Sequence[_Column]) -> Iterable[Line]:
    rules = ledger.rules
    for pair in (*PAIRS, LEFT_RIGHT):
        measure = deciding_measure(pair, rules)
        band = rules.balance_bands.get(pair.name)
        done = [_weighed(column, column.done, pair, measure) for column in columns]
        if not any(weighing.a + weighing.b for weighing in done):
            continue
        points = [
            _ratio(column, now, pair, measure, band, rules.balance_min_sets)
            for column, now in zip(columns, done, strict=True)
        ]
        yield Line("pair", pair.name, pair.title, "ratio", tuple(points))


def _ratio(
    column: _Column,
    now: Weighing,
    pair: Pair,
    measure: str,
    band: tuple[float, float] | None,
    least: float,
) -> Point:
    # Of a few sets a ratio says nothing: it is shown, and not judged.
    sets = _weighed(column, column.done, pair, "sets")
    low, high = band if band is not None and sets.a + sets.b >= least else (None, None)
    if pair.of == "side":
        return Point(now.ratio, low=low, high=high, one_sided=bool(now.a and not now.b))
    return Point(
        now.ratio,
        weigh(column.planned, pair, measure).ratio,
        None if column.base.values is None else weigh(column.base.values, pair, measure).ratio,
        low,
        high,
        one_sided=bool(now.a and not now.b),
    )


def _weighed(column: _Column, sums: Tally, pair: Pair, measure: str) -> Weighing:
    if pair.of == "side":
        return weigh_all(sums, column.entries, pair)[measure]
    return weigh(sums, pair, measure)


def _muscles(ledger: Ledger, columns: Sequence[_Column]) -> Iterable[Line]:
    for muscle in MUSCLES:
        low, high = ledger.rules.muscle_bands[muscle]  # type: ignore[index]
        figure = of_muscle(muscle, "sets")

        def point(
            column: _Column, figure: Figure = figure, low: float = low, high: float = high
        ) -> Point:
            return Point(
                column.value(figure), column.plan(figure), column.base.base(figure), low, high
            )

        # A muscle that nothing is asked of and that got nothing is no news.
        if low or any(column.done.get(figure) for column in columns):
            yield _line("muscle", muscle, label(muscle), "sets", columns, point, figure)


def _movements(columns: Sequence[_Column]) -> Iterable[Line]:
    tops = [top_loads(column.entries) for column in columns]
    names = dict.fromkeys(name for several in tops for name in several)
    in_weeks = {name: sum(name in several for several in tops) for name in names}
    for name in sorted(names, key=lambda name: (-in_weeks[name], name)):
        loaded = any(several.get(name) for several in tops)
        figure = of_movement(name, "sets")
        points = tuple(
            _NOTHING
            if name not in several
            else Point(several[name] if loaded else column.done.get(figure, 0.0))
            for column, several in zip(columns, tops, strict=True)
        )
        measure = "load_kg" if loaded else "sets"
        yield Line("movement", name, name, measure, points, None if loaded else figure)


@dataclass(frozen=True, slots=True)
class MovementLine:
    """A movement session by session, and the weeks in which it stood still or was ready."""

    name: str
    tops: tuple[TopSet, ...]
    stalled: tuple[Week, ...]
    ready: tuple[Week, ...]


def movement_line(ledger: Ledger, name: str, last: Week, weeks: int, today: date) -> MovementLine:
    """A movement's own line. Raises ``UnknownMovementError`` for a name that nobody knows."""
    movement = ledger.movements[name]
    ledger.read_ahead(last.plus(-weeks - LIGHTER_WINDOW), last)
    tops: list[TopSet] = []
    stalled, ready = [], []
    for week in (last.plus(at) for at in range(1 - weeks, 1)):
        own = [
            entry
            for entry in ledger.entries("completed", week)
            if is_working(entry) and entry.measured.shape.moves[0].movement.name == movement.name
        ]
        if not own:
            continue
        tops += [top for in_session in session_tops(own, ledger) for top in in_session.values()]
        in_hand = audit(ledger, week, as_of=today).in_hand
        if any(
            of_movement(movement.name, "sets") in finding.figures
            for finding in stalled_findings(in_hand)
        ):
            stalled.append(week)
        if any(finding.subject == movement.name for finding in ready_findings(in_hand)):
            ready.append(week)
    return MovementLine(movement.name, tuple(tops), tuple(stalled), tuple(ready))
