"""Sessions between table and core."""

from __future__ import annotations

import json
import math
from collections import defaultdict
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from datetime import date
from functools import cache, lru_cache, reduce
from operator import and_
from typing import Any, Final, get_args

import peewee as pw

from dialback.core.counting import NOT_ADDED, Added, Kind
from dialback.core.movements import Movement as CoreMovement
from dialback.core.movements import Value, fold
from dialback.core.plans.kept import Kept
from dialback.core.sessions import TEXT_KEY, Pain, Sides
from dialback.core.sessions import Move as CoreMove
from dialback.core.sessions import Session as CoreSession
from dialback.core.sessions import Set as CoreSet
from dialback.core.tally import WeekInColumns
from dialback.core.tempo import parse_tempo
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week
from dialback.store.fields import legible
from dialback.store.models import Athlete, Session, SetMove, SetRow, insert_rows, rows

_SET_COLUMNS = (
    "reps",
    "seconds",
    "load_kg",
    "implements",
    "sides",
    "tempo",
    "hold_s",
    "partial_reps",
    "rpe",
    "warm_up",
    "rest_s",
    "part",
    "measured_reps",
    "measured_tension_s",
)


_LATER_OF_A_SET: Final = frozenset(
    CoreSet.model_fields.keys() - {"exercise", "moves", *_SET_COLUMNS}
)
_LATER_OF_A_MOVE: Final = frozenset(CoreMove.model_fields.keys() - {"exercise", "times"})
"""Fields that have no column: they lie with the further keys."""
_UNSET_SET: Final = {name: CoreSet.model_fields[name].default for name in _LATER_OF_A_SET}
_UNSET_MOVE: Final = {name: CoreMove.model_fields[name].default for name in _LATER_OF_A_MOVE}


def _number(value: Any) -> bool:
    return type(value) in (int, float) and abs(value) < MAX_NUMBER


def _or_none(fits: Callable[[Any], bool]) -> Callable[[Any], bool]:
    return lambda value: value is None or fits(value)


def _whole(value: Any) -> bool:
    return type(value) is int and 0 <= value < MAX_NUMBER


@cache
def _is_tempo(text: Any) -> bool:
    return isinstance(text, str) and bool(next(legible([text], parse_tempo), None))


def _text(value: Any) -> bool:
    return isinstance(value, str)


_SIDES: Final = frozenset(get_args(Sides))
MAX_NUMBER: Final = 1e9
_FITS: Final[tuple[Callable[[Any], bool], ...]] = (
    _or_none(_whole),
    _or_none(_number),
    _number,
    _whole,
    _SIDES.__contains__,
    _or_none(_is_tempo),
    _number,
    _whole,
    _or_none(_number),
    (0, 1).__contains__,
    _or_none(_number),
    _or_none(_text),
    _or_none(_whole),
    _or_none(_number),
)
"""Whether a value is of its column's kind, by the order of ``_SET_COLUMNS``."""

_SESSION_COLUMNS = (
    Session.id,
    Session.revision,
    Session.client_id,
    Session.plan,
    Session.date,
    Session.title,
    Session.rpe,
    Session.duration_min,
    Session.extra,
)


AROUND: Final = (16, 4)
"""Weeks before and after one that is asked for, which its judgement looks at, too."""


def add_sessions(
    athlete: Athlete,
    basis: Basis,
    sessions: Iterable[CoreSession],
    movement_ids: Mapping[str, int],
    plans: Mapping[date, int] | None = None,
    **more: Any,
) -> dict[date, int]:
    """Store sessions; ids by day, of days with one session only.

    ``movement_ids`` are by folded name; ``plans`` link a completed session to the plan of its day;
    ``more`` are further columns of every one of them.
    """
    by_day: dict[date, list[int]] = defaultdict(list)
    for session in sessions:
        row = Session.create(
            athlete=athlete,
            basis=basis,
            date=session.date,
            title=session.title,
            rpe=session.rpe,
            duration_min=session.duration_min,
            plan=(plans or {}).get(session.date),
            extra=_session_extra(session),
            **more,
        )
        by_day[session.date].append(row.id)
        _add_sets(row, session.sets, movement_ids)
    return {day: ids[0] for day, ids in by_day.items() if len(ids) == 1}


def _session_extra(session: CoreSession) -> dict[str, Any]:
    """What has no column: unknown keys, notes, pain, the day of the plan."""
    told = session.model_dump(mode="json", include={"notes", "pain", "plan"}, exclude_defaults=True)
    return {**(session.model_extra or {}), **told}


def _add_sets(row: Session, sets: Iterable[CoreSet], movement_ids: Mapping[str, int]) -> None:
    set_rows: list[tuple[Any, ...]] = []
    combinations: list[tuple[int, CoreSet]] = []
    for position, a_set in enumerate(sets):
        movement = movement_ids[fold(a_set.exercise)] if a_set.exercise else None
        values = (getattr(a_set, column) for column in _SET_COLUMNS)
        set_rows.append((row.id, position, movement, _write_extra(a_set, _LATER_OF_A_SET), *values))
        if a_set.moves is not None:
            combinations.append((position, a_set))
    insert_rows(SetRow, ("session", "position", "movement", "extra", *_SET_COLUMNS), set_rows)
    for position, combination in combinations:
        set_id = SetRow.get(SetRow.session == row, SetRow.position == position).id
        insert_rows(
            SetMove,
            ("set", "position", "movement", "times", "extra"),
            [
                (
                    set_id,
                    at,
                    movement_ids[fold(move.exercise)],
                    move.times,
                    _write_extra(move, _LATER_OF_A_MOVE),
                )
                for at, move in enumerate(combination.moves or ())
            ],
        )


def write_plan(
    row: Session, session: CoreSession, movement_ids: Mapping[str, int], text: str
) -> None:
    """Put another content into a planned session, with the text it was written as."""
    row.extra = {**row.extra, TEXT_KEY: text}
    _rewrite(row, session, movement_ids)


def write_log(row: Session, session: CoreSession, movement_ids: Mapping[str, int]) -> None:
    """Put another content into a completed session."""
    row.rpe, row.duration_min = session.rpe, session.duration_min
    row.extra = _session_extra(session)
    _rewrite(row, session, movement_ids)


def _rewrite(row: Session, session: CoreSession, movement_ids: Mapping[str, int]) -> None:
    old = SetRow.select(SetRow.id).where(SetRow.session == row)
    SetMove.delete().where(SetMove.set.in_(old)).execute()
    SetRow.delete().where(SetRow.session == row).execute()
    row.date = session.date
    row.title = session.title
    row.revision += 1
    row.save()
    _add_sets(row, session.sets, movement_ids)


def plans_on(athlete: Athlete, day: date) -> list[Session]:
    """The planned sessions of a day."""
    return list(_live(athlete, "planned", day, day))


def sessions_by_number(
    athlete: Athlete, basis: Basis, numbers: Sequence[int]
) -> list[tuple[int, date]]:
    """Which of the numbers are sessions of the athlete's that stand, each with its day."""
    query = Session.select(Session.id, Session.date).where(
        Session.id.in_(list(numbers)), *_window(athlete, basis, date.min, date.max)
    )
    return list(legible(rows(query), lambda row: (row[0], date.fromisoformat(row[1]))))


def planned_of(number: int) -> tuple[Athlete, date] | None:
    """Whose planned session has that number, and of which day; ``None`` where none stands."""
    row: Session | None = Session.get_or_none(
        Session.id == number, Session.basis == "planned", Session.deleted_on.is_null()
    )
    return None if row is None or row.athlete.deleted_on is not None else (row.athlete, row.date)


def not_logged_on(day: date) -> frozenset[int]:
    """Numbers of the athletes with a session planned on a day that nothing is logged for."""
    stands = (Session.date == day) & Session.deleted_on.is_null()
    logged = Session.select(Session.plan).where(
        Session.basis == "completed", Session.deleted_on.is_null(), Session.plan.is_null(False)
    )
    trained = Session.select(Session.athlete).where(stands, Session.basis == "completed")
    found = Session.select(Session.athlete).where(
        stands,
        Session.basis == "planned",
        Session.id.not_in(logged),
        Session.athlete.not_in(trained),
    )
    return frozenset(number for (number,) in rows(found.distinct()))


def log_day_of(plan: int) -> date | None:
    """The day of the completed session that a planned one is linked to by."""
    row: Session | None = Session.get_or_none(
        Session.plan == plan, Session.basis == "completed", Session.deleted_on.is_null()
    )
    return None if row is None else row.date


def replace_days(
    athlete: Athlete,
    days: Collection[date],
    sessions: Iterable[CoreSession],
    movement_ids: Mapping[str, int],
    today: date,
) -> tuple[list[int], list[int], list[int]]:
    """Put new planned sessions on days; the old ones stay as deleted.

    Numbers of those that came, of those that went, and of completed sessions of these days that
    had no plan and are linked to the new ones.
    """
    mine = (Session.athlete == athlete, Session.date.in_(list(days)), Session.deleted_on.is_null())
    gone = [row.id for row in Session.select().where(*mine, Session.basis == "planned")]
    Session.update(deleted_on=today, revision=Session.revision + 1).where(
        Session.id.in_(gone)
    ).execute()
    plans = add_sessions(athlete, "planned", sessions, movement_ids)
    linked = []
    for done in Session.select().where(
        *mine, Session.basis == "completed", Session.plan.is_null() | Session.plan.in_(gone)
    ):
        done.plan = plans.get(done.date)
        done.revision += 1
        done.save()
        linked.append(done.id)
    came = Session.select(Session.id).where(*mine, Session.basis == "planned")
    return [number for (number,) in rows(came)], gone, linked


def _window(athlete: Athlete, basis: Basis, first: date, last: date) -> tuple[Any, ...]:
    return (
        Session.athlete == athlete,
        Session.basis == basis,
        Session.date.between(first, last),
        Session.deleted_on.is_null(),
    )


def _live(athlete: Athlete, basis: Basis, first: date, last: date) -> Any:
    return (
        Session.select()
        .where(*_window(athlete, basis, first, last))
        .order_by(Session.date, Session.id)
    )


_ADDABLE: Final = (
    SetRow.movement.is_null(False)
    & SetRow.reps.is_null(False)
    & (SetRow.load_kg >= 0)
    & SetRow.measured_tension_s.is_null()
    & (
        SetRow.extra.is_null()
        | reduce(and_, (pw.fn.INSTR(SetRow.extra, f'"{key}"') == 0 for key in NOT_ADDED))
    )
)
"""Sets that may be added up as ``core.counting.Added`` says."""


def _added(window: tuple[Any, ...], hard_from: float | None) -> Any:
    """By day and kind, the columns of ``Added`` in order; what is not addable in rows apart."""
    hard = SetRow.rpe.is_null() | (SetRow.rpe >= (-math.inf if hard_from is None else hard_from))
    kind = (
        Session.date,
        _ADDABLE,
        SetRow.movement,
        SetRow.sides,
        SetRow.tempo,
        SetRow.warm_up,
        hard,
    )
    kg = SetRow.load_kg * SetRow.implements
    untimed = pw.Case(None, ((SetRow.seconds.is_null(), SetRow.reps),), 0)
    sums = (
        untimed,
        SetRow.seconds,
        SetRow.hold_s,
        SetRow.reps * kg,
        SetRow.partial_reps,
        SetRow.partial_reps * kg,
    )
    return (
        SetRow.select(
            *kind,
            pw.fn.COUNT(SetRow.id),
            pw.fn.TOTAL(SetRow.reps),
            *(pw.fn.TOTAL(column) for column in sums),
        )
        .join(Session)
        .where(*window)
        .group_by(*kind)
    )


def _by_week(days: Mapping[str, WeekInColumns]) -> Mapping[Week, WeekInColumns]:
    found: dict[Week, WeekInColumns] = {}
    for week, columns in legible(
        days.items(), lambda day: (Week.of(date.fromisoformat(day[0])), day[1])
    ):
        of_week = found.setdefault(week, WeekInColumns([], []))
        of_week.added.extend(columns.added)
        of_week.apart.extend(columns.apart)
    return found


class StoredSessions:
    """An athlete's sessions by week, read on demand and kept; the ``SessionSource`` of the store.

    Holds no connection: reading needs an open one.
    """

    def __init__(self, athlete: Athlete, movements: Mapping[int, CoreMovement]) -> None:
        self._athlete = athlete
        self._names = {number: movement.name for number, movement in movements.items()}
        self._weeks: dict[Basis, list[Week]] = {}
        # Equal rows share one set: plans repeat them, and logs repeat plans.
        self._sets: dict[tuple[Any, ...], CoreSet] = {}
        self._kept: dict[tuple[Basis, Week], tuple[Kept, ...]] = {}
        self._sessions: dict[tuple[Basis, Week], tuple[CoreSession, ...]] = {}

    def weeks(self, basis: Basis) -> Sequence[Week]:
        """The weeks that have sessions, in order."""
        known = self._weeks.get(basis)
        if known is None:
            days = (
                Session.select(Session.date)
                .distinct()
                .where(*_window(self._athlete, basis, date.min, date.max))
            )
            known = sorted({Week.of(day) for day in legible(rows(days), _first_day)})
            self._weeks[basis] = known
        return known

    def week(self, basis: Basis, week: Week) -> Sequence[CoreSession]:
        """The sessions of one week, in order of day and entry."""
        if (basis, week) not in self._sessions:
            # Whoever looks at a week looks at those around it: they come in one go.
            self.preload(week.plus(-AROUND[0]), week.plus(AROUND[1]))
        return self._sessions[basis, week]

    def kept(self, basis: Basis, week: Week) -> Sequence[Kept]:
        """The sessions of one week with their identity, in the same order."""
        self.week(basis, week)
        return self._kept[basis, week]

    def preload(self, first: Week, last: Week) -> None:
        """Read the weeks from first to last in one go; those read before stay as they are."""
        for basis in ("planned", "completed"):
            found: dict[Week, list[Kept]] = defaultdict(list)
            for kept in self._read(basis, first.monday, last.sunday):
                found[Week.of(kept.day)].append(kept)
            week = first
            while week <= last:
                # Of two threads that read at once, the first one's stand, for both of them.
                several = self._kept.setdefault((basis, week), tuple(found.get(week, ())))
                self._sessions.setdefault((basis, week), tuple(kept.session for kept in several))
                week = week.plus(1)

    def columns(
        self, basis: Basis, first: Week, last: Week, hard_from: float | None
    ) -> Mapping[Week, WeekInColumns]:
        """The weeks of a span that have sets, added up by kind in the data file."""
        window = _window(self._athlete, basis, first.monday, last.sunday)
        found: dict[str, WeekInColumns] = defaultdict(lambda: WeekInColumns([], []))
        kinds: dict[tuple[Any, ...], Kind | None] = {}
        some_apart = False
        for row in rows(_added(window, hard_from)):
            day, addable, *_ = row
            if not addable:
                some_apart = True
                continue
            written = row[2:7]
            if written not in kinds:
                kinds[written] = next(legible([written], lambda one: self._kind(*one)), None)
            kind = kinds[written]
            if kind is None:
                continue
            found[day].added.append((kind, Added(*row[7:])))
        if some_apart:
            apart = self._read_sets((*window, ~_ADDABLE))
            for number, day in rows(Session.select(Session.id, Session.date).where(*window)):
                found[day].apart.extend(a_set for _, a_set in apart.get(number, ()))
        return _by_week(found)

    def _kind(
        self, movement: int, sides: Sides, tempo: str | None, warm_up: int, hard: int
    ) -> Kind:
        if sides not in _SIDES:
            raise ValueError(sides)
        if tempo is not None:
            parse_tempo(tempo)
        return Kind(((self._names[movement], 1.0),), sides, tempo, bool(warm_up), bool(hard))

    def _read(self, basis: Basis, first: date, last: date) -> list[Kept]:
        window = _window(self._athlete, basis, first, last)
        sets = self._read_sets(window)
        in_order = Session.select(*_SESSION_COLUMNS).where(*window)

        def kept(row: tuple[Any, ...]) -> Kept:
            number, revision, mark, plan, *values = row
            own = [a_set for _, a_set in sorted(sets[number], key=_position)]
            return Kept(int(number), int(revision), _core(values, own), mark, plan)

        return list(legible(rows(in_order.order_by(Session.date, Session.id)), kept))

    def _read_sets(self, where: tuple[Any, ...]) -> dict[int, list[tuple[int, CoreSet]]]:
        """Sets with their position, by the number of their session."""
        query = (
            SetRow.select(
                SetRow.session,
                SetRow.position,
                SetRow.id,
                SetRow.extra,
                SetRow.movement,
                *(getattr(SetRow, column) for column in _SET_COLUMNS),
            )
            .join(Session)
            .where(*where)
        )
        moves = self._moves(where)
        known = self._sets
        sets: dict[int, list[tuple[int, CoreSet]]] = defaultdict(list)
        for row in rows(query):
            session, position, number, *columns = row
            single = columns[1] is not None
            a_set = known.get(row[3:]) if single else None
            if a_set is None:
                told = legible([(columns, moves.get(number))], lambda one: self._set(*one))
                a_set = next(told, None)
                if a_set is None:
                    continue
                if single:
                    known[row[3:]] = a_set
            sets[session].append((position if _whole(position) else 0, a_set))
        return sets

    def _set(self, columns: Sequence[Any], moves: list[CoreMove] | None) -> CoreSet:
        # Checked when it was stored: the values only change their wrapping here. That they are of
        # their kind is looked at all the same: a hand or a fault may have been in the file since.
        extra, movement, *values = columns
        if not all(fits(value) for fits, value in zip(_FITS, values, strict=True)):
            raise ValueError(columns)
        if (movement is None) == (moves is None):
            raise ValueError(columns)
        named = dict(zip(_SET_COLUMNS, values, strict=True))
        named["warm_up"] = bool(named["warm_up"])
        named["exercise"] = self._names.get(movement)
        named["moves"] = moves and tuple(moves)
        later, others = _further(extra)
        if not later.keys() & _HANGING_TOGETHER:
            return CoreSet.trusted(named | _UNSET_SET | later, others)
        known = {key: value for key, value in named.items() if value is not None}
        return CoreSet.model_validate(known | later | others)

    def _moves(self, window: tuple[Any, ...]) -> dict[int, list[CoreMove]]:
        moves: dict[int, list[CoreMove]] = defaultdict(list)
        query = (
            SetMove.select(SetMove.set, SetMove.movement, SetMove.times, SetMove.extra)
            .join(SetRow)
            .join(Session)
            .where(*window)
            .order_by(SetMove.set, SetMove.position)
        )

        def move(row: tuple[Any, ...]) -> tuple[int, CoreMove]:
            number, movement, times, extra = row
            named = {"exercise": self._names[movement], "times": float(times)}
            later, others = _split(_read_extra(extra), _LATER_OF_A_MOVE)
            if not later:
                return number, CoreMove.trusted(named | _UNSET_MOVE, others)
            return number, CoreMove.model_validate(named | later | others)

        for number, one in legible(rows(query), move):
            moves[number].append(one)
        return moves


def _write_extra(value: Value, later: Collection[str]) -> str | None:
    known = value.model_dump(mode="json", include=set(later), exclude_defaults=True)
    extra = {**(value.model_extra or {}), **known}
    return json.dumps(extra, ensure_ascii=False) if extra else None


_HANGING_TOGETHER: Final = frozenset({"loads", "static"})
"""Keys that go with some of the columns and not with others."""


@lru_cache(4096)
def _further(text: str | None) -> tuple[dict[str, Any], dict[str, Any]]:
    """Of the further keys of a set those that are fields, and those that are not."""
    later, others = _split(_read_extra(text), _LATER_OF_A_SET)
    apart = later.keys() & _HANGING_TOGETHER
    rest = {key: value for key, value in later.items() if key not in apart}
    if not rest:
        return later, others
    # Checked on a set that is whole without them: by themselves they fit any set.
    checked = CoreSet.model_validate({"exercise": "-", "reps": 1} | rest)
    strange = checked.model_extra or {}
    fields = {key: getattr(checked, key) for key in rest if key not in strange}
    return fields | {key: later[key] for key in apart}, others | strange


def _split(extra: dict[str, Any], later: Collection[str]) -> tuple[dict[str, Any], dict[str, Any]]:
    """What of further keys is a field, and what is not."""
    known = {key: value for key, value in extra.items() if key in later}
    return known, {key: value for key, value in extra.items() if key not in later}


def _read_extra(text: str | None) -> dict[str, Any]:
    """Further keys as they were stored; none where they cannot be read."""
    found: Any = next(legible([text] if text else [], json.loads), {})
    return found if isinstance(found, dict) else {}


def _first_day(row: tuple[Any, ...]) -> date:
    return date.fromisoformat(row[0])


def _position(placed: tuple[int, CoreSet]) -> int:
    return placed[0]


def _core(values: list[Any], sets: list[CoreSet]) -> CoreSession:
    day, title, rpe, duration_min, text = values
    if not (_text(title) and _or_none(_number)(rpe) and _or_none(_number)(duration_min)):
        raise ValueError(values)
    extra = _read_extra(text)
    plan = extra.pop("plan", None)
    named = {
        "date": date.fromisoformat(day),
        "title": title,
        "rpe": rpe,
        "duration_min": duration_min,
        "sets": tuple(sets),
        "plan": plan and date.fromisoformat(plan),
        "notes": extra.pop("notes", ""),
        "pain": tuple(Pain.model_validate(one) for one in extra.pop("pain", ())),
    }
    return CoreSession.trusted(named, extra)
