"""The canonical text of a written session: what ``read`` takes, in one way of writing it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from dialback.core.notation.pieces import pieces, pieces_text, time_text
from dialback.core.notation.session import (
    Line,
    Moves,
    Part,
    PartKind,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)


def write(*sessions: WrittenSession) -> str:
    """The text of sessions, one after the other; it ends with a line end unless it is empty."""
    text = "\n\n".join("\n".join(_session(one)) for one in sessions)
    return text + "\n" if text else ""


def _session(session: WrittenSession) -> Iterable[str]:
    if session.day is not None:
        yield f"{session.day.isoformat()} {session.title}".rstrip()
    for at, part in enumerate(session.parts):
        head = part_head(part.kind, part.label, pre_exhaust=part.pre_exhaust)
        # A plain main part needs no head, unless it would run into the part before it.
        if head != "main:" or at > 0 or not part.items:
            yield head
        yield from _items(part)
        if part.rest_s is not None:
            yield f"rest {time_text(part.rest_s)}"


def _items(part: Part) -> Iterable[str]:
    for item in part.items:
        yield from _rounds(item) if isinstance(item, Rounds) else [_line(item)]


def part_head(kind: PartKind, label: str, *, pre_exhaust: bool) -> str:
    """The line that opens a part: ``main A, pre-exhaust:``."""
    name = f"{kind} {label}".rstrip()
    return f"{name}{', pre-exhaust' if pre_exhaust else ''}:"


def rounds_head(form: str, count: str, rungs: str, times: dict[str, str]) -> str:
    """The line that opens rounds: ``4 rounds, 35 s on, 25 s off:``; times by their word."""
    word = form if count != "1" else form[:-1]
    head = f"ladder {rungs}".rstrip() if form == "ladder" else f"{count} {word}"
    said = "".join(f", {time} {name}" for name, time in times.items() if time)
    return f"{head}{said}:"


def _line(line: Line) -> str:
    first, *others = (pieces(line.moves, step) for step in line.steps)
    return ", then ".join(
        [pieces_text(first), *(pieces_text(replace(one, moves="")) for one in others)]
    )


def _rounds(rounds: Rounds) -> Iterable[str]:
    times = {"on": rounds.on_s, "off": rounds.off_s, "between rounds": rounds.between_s}
    yield rounds_head(
        rounds.form,
        str(rounds.count),
        ", ".join(map(str, rounds.rungs)),
        {word: time_text(seconds) for word, seconds in times.items() if seconds is not None},
    )
    for turn in rounds.turns:
        yield f"  {_turn(turn)}"


def _turn(turn: Turn) -> str:
    texts = []
    before: Moves | None = None
    for moves, bout in turn.alternatives:
        one = pieces(moves, Step(bout))
        # A change of the dose alone need not name the movement again, if it begins like a dose.
        same = moves == before and bout.has_dose
        texts.append(pieces_text(replace(one, moves="") if same else one))
        before = moves
    return " / ".join(texts)
