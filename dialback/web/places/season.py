"""Season: an athlete's long line, weeks across and figures down."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from flask import Response

from dialback.book.errors import bad_input
from dialback.core.maxima import TopSet
from dialback.core.movements import UnknownMovementError
from dialback.core.season import LENGTHS, Line, SeasonWeek, movement_line, season
from dialback.core.weeks import Week
from dialback.core.words import describe
from dialback.store.blocks import PlannedBlock, blocks_of
from dialback.store.judgements import signed_weeks
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete, the_week
from dialback.web.shapes.common import WeekPath
from dialback.web.shapes.season import (
    MovementLineOut,
    MovementQuery,
    SeasonLine,
    SeasonOut,
    SeasonQuery,
    SeasonWeekOut,
    TopSetOut,
)

api = blueprint("season", __name__, "/athletes/<int:athlete_id>/weeks/<week>/season")

DECIMALS = 4


@api.get("", responses={200: SeasonOut})
def long_line(path: WeekPath, query: SeasonQuery) -> Response:
    """The weeks up to this one, each figure beside its base and what is allowed."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    found = season(desk().ledgers.of(athlete), week, _length(query.weeks))
    blocks, signed = blocks_of(athlete), signed_weeks(athlete)
    return answer(
        SeasonOut(
            lengths=list(LENGTHS),
            weeks=[_week(one, blocks, signed=one.week in signed) for one in found.weeks],
            lines=[_line(line) for line in found.lines],
        )
    )


def _length(weeks: int) -> int:
    if weeks not in LENGTHS:
        told = ", ".join(map(str, LENGTHS[:-1]))
        raise bad_input("weeks", f"{weeks} is not a length: choose {told} or {LENGTHS[-1]}")
    return weeks


def _week(week: SeasonWeek, blocks: Iterable[PlannedBlock], *, signed: bool) -> SeasonWeekOut:
    block = next((block for block in blocks if week.week in block.weeks), None)
    return SeasonWeekOut(
        week=str(week.week),
        monday=week.week.monday.isoformat(),
        trained=week.trained,
        lighter=week.lighter,
        gap=week.gap,
        back=week.back,
        block=(block.title or "Block") if block is not None and block.first == week.week else None,
        in_block=block is not None,
        signed=signed,
        pain=list(week.pain),
        restrictions=list(week.restrictions),
        decisions=list(week.decisions),
        kind=week.kind,
    )


def _line(line: Line) -> SeasonLine:
    points = line.points

    def several(name: str) -> list[Any] | None:
        """One field of the points; nothing where no week has it."""
        found = [_short(getattr(point, name)) for point in points]
        return found if any(value is not None and value is not False for value in found) else None

    return SeasonLine(
        kind=line.kind,
        subject=line.subject,
        label=line.label,
        measure=line.measure,
        figure=line.figure,
        values=[_short(point.value) for point in points],
        standings=[point.standing for point in points],
        planned=several("planned"),
        bases=several("base"),
        lows=several("low"),
        highs=several("high"),
        rough=several("rough"),
        one_sided=several("one_sided"),
    )


def _short(value: float | bool | None) -> Any:
    return round(value, DECIMALS) if isinstance(value, float) else value


@api.get("/movement", responses={200: MovementLineOut})
def line_of_a_movement(path: WeekPath, query: MovementQuery) -> Response:
    """A movement's own line: every session's top set, and what it lets expect of a single rep."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    try:
        found = movement_line(ledger, query.name, week, _length(query.weeks), desk().today())
    except UnknownMovementError as error:
        raise bad_input("name", str(error)) from None
    return answer(
        MovementLineOut(
            name=found.name,
            tops=[_top(top) for top in found.tops],
            stalled=[str(one) for one in found.stalled],
            ready=[str(one) for one in found.ready],
        )
    )


def _top(one: TopSet) -> TopSetOut:
    return TopSetOut(
        date=one.day.isoformat(),
        week=str(Week.of(one.day)),
        text=describe(one.set),
        load_kg=one.set.total_load_kg,
        reps=one.set.reps,
        seconds=one.set.seconds,
        maximum_kg=_short(one.maximum_kg),
    )
