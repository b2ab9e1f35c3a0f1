"""The canonical text of a written session: what ``read`` takes, in one way of writing it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from types import MappingProxyType
from typing import Final

from dialback.core.movements import MovementTable
from dialback.core.notation.pieces import (
    Pieces,
    is_loaded,
    joined,
    load_is_open,
    pieces,
    span_text,
    time_text,
)
from dialback.core.notation.reasons import reason_line
from dialback.core.notation.session import (
    Bout,
    Line,
    Moves,
    PartKind,
    Pause,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.notation.vocabulary import written
from dialback.core.vocabulary import WeekKind
from dialback.core.weeks import Week

FOR_TIME: Final = written("FOR_TIME_HEAD")
ROUND_TIMES: Final = tuple(written(word) for word in ("EVERY", "ON", "OFF", "BETWEEN"))
"""The times in a head of rounds, by their words."""


def write(
    *sessions: WrittenSession,
    movements: MovementTable,
    kinds: Mapping[Week, WeekKind] = MappingProxyType({}),
) -> str:
    """The text of sessions, one after the other; it ends with a line end unless it is empty.

    What a week is for stands before its first session, and of a week without any at the end.
    Of a movement that is done one side after the other the table tells that its side is written.
    """
    left = dict(sorted(kinds.items()))
    texts = []
    for session in sessions:
        week = None if session.day is None else Week.of(session.day)
        if week is not None and week in left:
            texts.append(week_line(week, left.pop(week)))
        texts.append("\n".join(_session(session, movements)))
    texts += [week_line(week, kind) for week, kind in left.items()]
    text = "\n\n".join(texts)
    return text + "\n" if text else ""


def week_line(week: Week, kind: WeekKind) -> str:
    """The line of a text that says what a week is for."""
    return f"Week {week}: {kind}"


def _session(session: WrittenSession, movements: MovementTable) -> Iterable[str]:
    if session.day is not None:
        yield f"{session.day.isoformat()} {session.title}".rstrip()
    if session.why:
        yield reason_line(session.why)
    for at, part in enumerate(session.parts):
        head = part_head(part.kind, part.label, pre_exhaust=part.pre_exhaust)
        # A plain main part needs no head, unless it would run into the part before it.
        if head != "main:" or at > 0 or not part.items or part.why:
            yield head
        if part.why:
            yield reason_line(part.why)
        for item in part.items:
            yield from item_lines(item, movements)
        if part.rest_s is not None:
            yield rest_line(part.rest_s)


def item_lines(item: Line | Rounds | Pause, movements: MovementTable) -> Iterable[str]:
    """The lines of a text that an item is written on."""
    match item:
        case Line():
            yield line_text(item, movements)
        case Pause():
            yield rest_line(item.rest_s)
        case Rounds():
            yield head_text(item)
            if item.why:
                yield f"  {reason_line(item.why)}"
            yield from (f"  {turn_text(turn, movements)}" for turn in item.turns)


def rest_line(seconds: float) -> str:
    """The line of a rest between two movements or after a part."""
    return f"{written('REST')} {time_text(seconds)}"


def part_head(kind: PartKind, label: str, *, pre_exhaust: bool) -> str:
    """The line that opens a part: ``main A, pre-exhaust:``."""
    name = f"{kind} {label}".rstrip()
    return f"{name}{', pre-exhaust' if pre_exhaust else ''}:"


def rounds_head(
    form: str, count: str, rungs: str, times: dict[str, str], *, for_time: bool = False
) -> str:
    """The line that opens rounds: ``4 rounds, 35 s on, 25 s off:``; times by their word."""
    word = form if count != "1" else form[:-1]
    head = f"{form} {rungs}".rstrip() if form == written("LADDER") else f"{count} {word}"
    clock = written("EVERY")
    said = "".join(f", {time} {name}" for name, time in times.items() if time and name != clock)
    every = f"{clock} {times[clock]}, " if times.get(clock) else ""
    return f"{every}{head}{f' {FOR_TIME}' if for_time else ''}{said}:"


def line_pieces(line: Line, movements: MovementTable) -> list[Pieces]:
    """The pieces of a line, step by step; the movement stands with the first."""
    found: list[Pieces] = []
    before: Bout | None = None
    for step in line.steps:
        one = pieces(line.moves, step, movements, before)
        found.append(one if before is None else replace(one, moves=""))
        before = step.bout
    return with_reason(found, line.why)


def with_reason(found: list[Pieces], why: str) -> list[Pieces]:
    """The pieces of a line, its reason with the last of them."""
    return [*found[:-1], replace(found[-1], why=why)] if found else found


def line_text(line: Line, movements: MovementTable) -> str:
    """A line as it is written in one way."""
    return steps_text(line_pieces(line, movements))


def steps_text(steps: Sequence[Pieces]) -> str:
    """The steps of a line, one after the other."""
    return joined(steps, f", {written('THEN')} ")


def head_text(rounds: Rounds) -> str:
    """The head of rounds as it is written in one way."""
    return rounds_head(
        rounds.form,
        rounds_count(rounds),
        ", ".join(map(str, rounds.rungs)),
        rounds_times(rounds),
        for_time=rounds.for_time,
    )


def rounds_count(rounds: Rounds) -> str:
    """How many rounds, or the span of them: ``3–5``."""
    return str(rounds.count) + (f"–{rounds.count_to}" if rounds.count_to is not None else "")


def rounds_times(rounds: Rounds) -> dict[str, str]:
    """The times in the head of rounds, by their words; empty where none is said."""
    seconds = (
        (rounds.every_s, None),
        (rounds.on_s, rounds.on_to_s),
        (rounds.off_s, rounds.off_to_s),
        (rounds.between_s, rounds.between_to_s),
    )
    return {
        word: "" if time is None else span_text(time, to)
        for word, (time, to) in zip(ROUND_TIMES, seconds, strict=True)
    }


def turn_pieces(turn: Turn, movements: MovementTable) -> list[Pieces]:
    """The pieces of a turn, alternative by alternative."""
    found: list[Pieces] = []
    before: tuple[Moves, Bout] | None = None
    for moves, bout in turn.alternatives:
        same = before is not None and moves == before[0]
        one = pieces(moves, Step(bout), movements, before[1] if same and before else None)
        if before is not None and not same and not is_loaded(bout):
            known = [movements[name] for name, _ in moves if name in movements]
            if load_is_open(before[1], known):
                one = replace(one, load=written("NO_LOAD"))
        found.append(one)
        before = (moves, bout)
    return with_reason(found, turn.why)


def turn_text(turn: Turn, movements: MovementTable) -> str:
    """A movement in rounds as it is written in one way."""
    ways = []
    before: Moves | None = None
    for (moves, bout), one in zip(turn.alternatives, turn_pieces(turn, movements), strict=True):
        # A change of the dose alone need not name the movement again.
        ways.append(replace(one, moves="") if moves == before and bout.has_dose else one)
        before = moves
    return joined(ways, IN_TURN)


IN_TURN: Final = " / "
"""What stands between movements that take turns."""
