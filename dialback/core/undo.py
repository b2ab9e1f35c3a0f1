"""The week with one thing undone: what a cause is tried by.

Each ``Undone`` is a way in which a week strayed from its plan or its past, and the sessions as they
would have been without it. Source: Dial Back's contract, *Causes*.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from dialback.core.audit import Audit
from dialback.core.baseline import window
from dialback.core.findings.plan import subject_of
from dialback.core.matching.sessions import SAME, Counted, counted_sets, fit, title_of
from dialback.core.movements import fold
from dialback.core.reconcile import SessionMatch, SetMatch, missed_days, where_skipped, within
from dialback.core.sessions import Move, Session, Set
from dialback.core.words import amount_text, capital, movement_text

_AS_PLANNED: Final = (
    "reps",
    "seconds",
    "load_kg",
    "implements",
    "loads",
    "static",
    "tempo",
    "sides",
    "rpe",
)
"""What a matched set takes over from its plan."""

Sessions = tuple[Session, ...]


@dataclass(frozen=True, slots=True)
class Undone:
    """Something that happened, in words, and the week's sessions without it."""

    code: str
    subject: str
    sentence: str
    sessions: Sessions


def strayed_from_plan(audit: Audit) -> Iterator[Undone]:
    """What differed from the plan, in the order in which it is tried."""
    against = audit.in_hand.against
    if against is None or not audit.ledger.source.week("planned", audit.week):
        return
    matches = tuple(part for match in against.matches for part in where_skipped(match))
    sessions = audit.in_hand.sessions
    by_day = _by_day(match for match in matches if match.plan and match.done)
    hurt = {
        day: [match for match in several if match.done and match.done.pain]
        for day, several in _by_day(match for match in matches if match.done).items()
    }
    for day, several in hurt.items():
        if several:
            yield Undone(
                "pain",
                day.isoformat(),
                _what_hurt(day, several),
                _replaced(sessions, [_put_back(match) for match in several]),
            )
    yield from _missed(sessions, matches)
    yield from _swapped(audit, sessions, matches)
    yield from _extra(sessions, matches)
    for day, several in by_day.items():
        short = [match for match in several if match.done and not match.done.pain]
        skipped = [a_set for match in short for a_set in match.sets if a_set.kind == "skipped"]
        if skipped:
            yield Undone(
                "short",
                day.isoformat(),
                f"{day:%A} was cut short: {_listed(skipped)} not done.",
                _replaced(sessions, [_put_back(match) for match in short]),
            )
    for day, several in by_day.items():
        edited = [_edited(match, _as_planned) for match in several]
        if any(old.sets != new.sets for pairs in edited for old, new in pairs):
            yield Undone(
                "changed",
                day.isoformat(),
                f"{day:%A} differed from the plan{_told(several)}.",
                _replaced(sessions, edited),
            )


def _by_day(matches: Iterable[SessionMatch]) -> dict[date, list[SessionMatch]]:
    """Matches by the day of what was done, in order of day."""
    days: dict[date, list[SessionMatch]] = defaultdict(list)
    for match in matches:
        if match.done is not None:
            days[match.done.date].append(match)
    return dict(sorted(days.items()))


def _what_hurt(day: date, matches: Sequence[SessionMatch]) -> str:
    """Where it hurt and what was said, and what was not done after it."""
    told = []
    for match in matches:
        for pain in match.done.pain if match.done else ():
            at = f" at {pain.exercise}" if pain.exercise else ""
            told.append(f"{at} (“{pain.note}”)" if pain.note else at)
    skipped = [a_set for match in matches for a_set in match.sets if a_set.kind == "skipped"]
    lost = f"; {_listed(skipped)} not done" if skipped else ""
    return f"Something hurt on {day:%A}{' and'.join(told)}{lost}."


def _reasons(plans: Iterable[Session]) -> str:
    said = dict.fromkeys(plan.missed.words for plan in plans if plan.missed is not None)
    return f" ({', '.join(said)})" if said else ""


def _missed(sessions: Sessions, matches: Iterable[SessionMatch]) -> Iterator[Undone]:
    for day, plans in missed_days(matches).items():
        titles = " and ".join(plan.title or "the session" for plan in plans)
        yield Undone(
            "missed",
            day.isoformat(),
            f"{capital(titles)} of {day:%A} {'was' if len(plans) == 1 else 'were'} missed"
            f"{_reasons(plans)}.",
            in_order((*sessions, *(as_done(plan) for plan in plans))),
        )


def _swapped(audit: Audit, sessions: Sessions, matches: Sequence[SessionMatch]) -> Iterator[Undone]:
    movements = audit.ledger.movements
    swaps: dict[str, list[SetMatch]] = defaultdict(list)
    for match in matches:
        for a_set in match.sets:
            if a_set.kind == "swapped" and a_set.plan is not None:
                swaps[subject_of(a_set.plan, movements)].append(a_set)
    for subject, several in sorted(swaps.items()):
        instead = dict.fromkeys(movement_text(one.done) for one in several if one.done)

        def planned_again(match_: SetMatch, done: Set, subject: str = subject) -> Set:
            swap = match_.kind == "swapped" and match_.plan is not None
            return match_.plan if swap and subject_of(match_.plan, movements) == subject else done  # type: ignore[arg-type,return-value]

        yield Undone(
            "swapped",
            subject,
            f"{' and '.join(instead)} was done instead of {subject} "
            f"({amount_text(len(several), 'sets')}).",
            _replaced(sessions, [_edited(match, planned_again) for match in matches if match.done]),
        )


def _extra(sessions: Sessions, matches: Iterable[SessionMatch]) -> Iterator[Undone]:
    for day, several in _by_day(match for match in matches if match.done).items():
        whole = [match for match in several if match.plan is None]
        more = [
            a_set
            for match in several
            if match.plan
            for a_set in match.sets
            if a_set.kind == "extra"
        ]
        if not whole and not more:
            continue
        rounds = [more for match in several if match.plan for more in match.extra_rounds]
        in_rounds = {name for more in rounds for name in more.movements}
        told = [more.words for more in rounds]
        single = [match for match in more if movement_text(match.shown) not in in_rounds]
        if single:
            told.append(f"{_listed(single)} beyond the plan")
        told += [
            f"{match.done.title or 'a session'} without a plan" for match in whole if match.done
        ]
        out = {id(done) for match in whole for done in match.dones}
        edited = [_edited(match, _without_extra) for match in several if match.plan]
        yield Undone(
            "extra",
            day.isoformat(),
            f"{day:%A}: {'; '.join(told)}.",
            tuple(session for session in _replaced(sessions, edited) if id(session) not in out),
        )


def _without_extra(match_: SetMatch, done: Set) -> Set | None:
    return None if match_.kind == "extra" else done


def _as_planned(match_: SetMatch, done: Set) -> Set:
    plan = match_.plan
    if plan is None or match_.kind not in ("as planned", "changed", "easier", "harder"):
        return done
    values = {name: getattr(plan, name) for name in _AS_PLANNED}
    if within(plan.seconds, plan.seconds_to, done.seconds):
        # Anywhere in the span that was asked for it is as planned.
        values["seconds"] = done.seconds
    if plan.exercise is not None and done.exercise is not None:
        # A level of the movement.
        values["exercise"] = plan.exercise
    if plan.moves is not None and done.moves is not None:
        values["moves"] = _moves_as_planned(plan.moves, done.moves)
    if all(getattr(done, name) == value for name, value in values.items()):
        return done
    values["partial_reps"] = min(done.partial_reps, plan.reps or 0)
    return done.model_copy(update=values)


def _moves_as_planned(plans: tuple[Move, ...], dones: tuple[Move, ...]) -> tuple[Move, ...]:
    """The moves of a combination with the loads and sides of their own that were planned."""
    wanted = {fold(move.exercise): move for move in plans}
    own = ("load_kg", "implements", "sides")
    return tuple(
        move
        if (plan := wanted.get(fold(move.exercise))) is None
        or all(getattr(plan, name) == getattr(move, name) for name in own)
        else move.model_copy(update={name: getattr(plan, name) for name in own})
        for move in dones
    )


Edited = list[tuple[Session, Session]]
"""Completed sessions with what they become."""


def _edited(match: SessionMatch, edit: Callable[[SetMatch, Set], Set | None]) -> Edited:
    """The session of a match with each set that was done changed or, for ``None``, taken out.

    Of a set that is compared side by side, each side is; where none changes it stays one.
    """
    of_place: dict[int, list[SetMatch]] = defaultdict(list)
    for one in match.sets:
        if one.done_at is not None:
            of_place[one.done_at].append(one)
    found: Edited = []
    for session in match.dones:
        sets: list[Set] = []
        for at, done in enumerate(session.sets):
            units = [(one, one.done) for one in of_place[at] if one.done is not None]
            become = [edit(one, unit) for one, unit in units]
            if all(new is unit for new, (_, unit) in zip(become, units, strict=True)):
                sets.append(done)
            else:
                sets += [new for new in become if new is not None]
        found.append((session, session.model_copy(update={"sets": tuple(sets)})))
    return found


def _put_back(match: SessionMatch) -> Edited:
    """The session of a match with the planned sets that were skipped, each at its place."""
    done_for = {one.done_at: one.at for one in match.sets if one.done_at is not None}
    found: Edited = []
    for session in match.dones:
        # The set, and the place in the plan that it was done for.
        placed = [(a_set, done_for.get(at)) for at, a_set in enumerate(session.sets)]
        for skipped in sorted(
            (one for one in match.sets if one.kind == "skipped"),
            key=lambda one: (one.at or 0, one.half),
        ):
            assert skipped.plan is not None and skipped.at is not None  # noqa: S101, PT018 - its kind
            before = _nearest(placed, range(skipped.at, -1, -1))
            behind = _nearest(placed, range(skipped.at + 1, 1 + _last_place(placed)))
            if before is not None:
                place = before + 1
            elif behind is not None:
                place = behind
            else:
                place = len(placed)
            placed.insert(place, (skipped.plan, skipped.at))
        found.append(
            (session, session.model_copy(update={"sets": tuple(a_set for a_set, _ in placed)}))
        )
    return found


def _nearest(placed: Sequence[tuple[Set, int | None]], wanted: range) -> int | None:
    """Where the first of these places of the plan stands; of several the last."""
    there = {at: index for index, (_, at) in enumerate(placed) if at is not None}
    return next((there[at] for at in wanted if at in there), None)


def _last_place(placed: Sequence[tuple[Set, int | None]]) -> int:
    return max((at for _, at in placed if at is not None), default=-1)


def _replaced(sessions: Sessions, edited: Iterable[Edited]) -> Sessions:
    become = {id(old): new for pairs in edited for old, new in pairs if old.sets != new.sets}
    return tuple(become.get(id(session), session) for session in sessions)


def as_done(plan: Session) -> Session:
    """A planned session as if it had been done as it stands."""
    return plan.model_copy(update={"plan": plan.date})


def in_order(sessions: Iterable[Session]) -> Sessions:
    """Sessions in order of day; of a day as they come."""
    return tuple(sorted(sessions, key=lambda one: one.date))


def _listed(several: Sequence[SetMatch]) -> str:
    counts = Counter(movement_text(match.shown) for match in several)
    return ", ".join(f"{name} {amount_text(count, 'sets')}" for name, count in counts.items())


_MOST_TOLD: Final = 3


def _told(matches: Iterable[SessionMatch]) -> str:
    """What differed in sets that were done for planned ones, the first few of it."""
    told = [said for match in matches for said in match.changes]
    more = len(told) - _MOST_TOLD
    said = "; ".join(told[:_MOST_TOLD]) + (f"; and {more} more" if more > 0 else "")
    return f": {said}" if said else ""


def new_sessions(audit: Audit) -> Iterator[Undone]:
    """Sessions that most of the last trained weeks do not have, day by day.

    Nothing where more than half of the week is new: that is a new block.
    """
    ledger = audit.ledger
    weeks = [one for one in window(audit.week) if ledger.is_trained(one)]
    sessions = audit.in_hand.sessions
    if not weeks or not sessions:
        return
    had = [0] * len(sessions)
    counted = [counted_sets(session, ledger.movements) for session in sessions]
    for week in weeks:
        theirs = ledger.source.week("completed", week)
        sets = [counted_sets(session, ledger.movements) for session in theirs]
        for at in _standing_for(sessions, counted, theirs, sets):
            had[at] += 1
    new = [at for at, count in enumerate(had) if 2 * count < len(weeks)]
    if 2 * len(new) > len(sessions):
        return
    days: dict[date, list[Session]] = defaultdict(list)
    for at in new:
        days[sessions[at].date].append(sessions[at])
    for day, several in sorted(days.items()):
        out = {id(session) for session in several}
        titles = " and ".join(session.title or "a session" for session in several)
        yield Undone(
            "session",
            day.isoformat(),
            f"{capital(titles)} on {day:%A} is new: the weeks before did not have it.",
            tuple(session for session in sessions if id(session) not in out),
        )


def _standing_for(
    sessions: Sequence[Session],
    counted: Sequence[Counted],
    theirs: Sequence[Session],
    sets: Sequence[Counted],
) -> set[int]:
    """Which of a week's sessions another week has: each of theirs stands for one, titles first."""
    free = sorted(range(len(theirs)), key=lambda at: theirs[at].date)
    in_turn = sorted(range(len(sessions)), key=lambda at: sessions[at].date)
    had: set[int] = set()

    def stand(at: int, same: Callable[[int], bool]) -> None:
        found = next((one for one in free if same(one)), None)
        if found is not None:
            free.remove(found)
            had.add(at)

    for at in in_turn:
        title = title_of(sessions[at])
        stand(at, lambda one, title=title: bool(title) and title_of(theirs[one]) == title)  # type: ignore[misc]
    for at in in_turn:
        if at not in had:
            stand(at, lambda one, at=at: fit(counted[at], sets[one]) >= SAME)  # type: ignore[misc]
    return had
