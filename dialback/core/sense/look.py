"""The lines of a text looked at one by one: those that make little sense are asked about."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Final

from dialback.core.notation.characters import lines_of
from dialback.core.notation.marks import BULLET, LABEL
from dialback.core.notation.reader import Reading
from dialback.core.notation.rows import shared_lines
from dialback.core.notation.session import (
    Bout,
    Item,
    Line,
    Moves,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.notation.writer import line_text, turn_text
from dialback.core.sense.checks import CANNOT_BE, objection, plain
from dialback.core.sense.doubt import Doubt
from dialback.core.sense.heard import Heard, Knowing

MOST_OTHERS: Final = 3
"""So many other readings are offered."""

Rewrite = Callable[[Heard], str]
"""The text of a line with one of its doses read otherwise."""


def doubts(text: str, reading: Reading, knowing: Knowing) -> tuple[Doubt, ...]:
    """What is doubtful of a text that was read, one doubt a line at most, in order of line.

    Lines with mistakes are not among them: those are asked about already.
    """
    rows = lines_of(text)
    found: dict[int, Doubt] = {}
    for at, written, heard, rewrite in _doses(reading, knowing):
        if at not in found and (doubt := _doubt(rows[at - 1], at, written, heard, rewrite)):
            found[at] = doubt
    if found:
        # A line of several movements is asked about, and mended by hand.
        for at in shared_lines(text, reading, knowing.movements) & found.keys():
            found[at] = replace(found[at], others=(), means=(), only=False)
    for doubt in _of_days(rows, reading):
        found.setdefault(doubt.line, doubt)
    return tuple(found[at] for at in sorted(found))


def _of_days(rows: Sequence[str], reading: Reading) -> Iterator[Doubt]:
    """Days that are there twice, stand out of order, or have nothing below them."""
    seen: list[date] = []
    for session in reading.sessions:
        if session.day is None:
            continue
        why = ""
        if session.day in seen:
            why = f"{session.day.isoformat()} is there twice: is that right?"
        elif seen and session.day < seen[-1]:
            why = f"{session.day.isoformat()} comes after {seen[-1].isoformat()}: is that right?"
        elif not any(part.items for part in session.parts):
            why = "Nothing is done on this day: is that right?"
        seen.append(session.day)
        if why and session.at:
            row = rows[session.at - 1]
            yield Doubt(session.at, 1, max(1, len(row)), why, row.strip(), ())


def _doubt(row: str, at: int, taken: str, heard: Heard, rewrite: Rewrite) -> Doubt | None:
    found = objection(heard)
    if found is None:
        return None
    texts: dict[str, str] = {}
    for other in found.others:
        texts.setdefault(rewrite(other), other.means)
    texts.pop(taken, None)
    others = list(texts.items())[:MOST_OTHERS]
    begin = _begin(row)
    return Doubt(
        at,
        begin + 1,
        max(1, len(row.rstrip()) - begin),
        found.why,
        taken,
        tuple(text for text, _ in others),
        found.check,
        tuple(means for _, means in others),
        only=found.check in CANNOT_BE and len(others) == 1,
    )


def _begin(row: str) -> int:
    """Where the movement begins: behind the indent, a bullet, a label."""
    begin = len(row) - len(row.lstrip())
    for before in (BULLET, LABEL):
        if match := before.match(row, begin):
            begin = match.end()
    return begin


def _doses(reading: Reading, knowing: Knowing) -> Iterator[tuple[int, str, Heard, Rewrite]]:
    """Every dose of a single movement: its line, its text, and how the text is with another."""
    for session in reading.sessions:
        work = _work(session)
        for part in session.parts:
            for item in part.items:
                for line in _lines(item, reading):
                    for at, text, heard, rewrite in line.doses(knowing):
                        warm_up = part.kind == "warm-up" or heard.bout.warm_up
                        beside = work.get(heard.movement.name) if warm_up else None
                        yield at, text, replace(heard, work_kg=beside), rewrite


def _work(session: WrittenSession) -> dict[str, float]:
    """The heaviest load of one implement in the work of each movement, in kg."""
    found: dict[str, float] = {}
    for part in session.parts:
        if part.kind == "warm-up":
            continue
        for item in part.items:
            if not isinstance(item, Line) or len(item.moves) != 1:
                continue
            for step in item.steps:
                load = step.bout.load
                if load is not None and not load.help and not step.bout.warm_up:
                    name = item.moves[0][0]
                    found[name] = max(found.get(name, 0.0), load.kg)
    return found


def _lines(item: Item, reading: Reading) -> Iterator[_Line | _Turn]:
    """The lines of the text that an item is written on."""
    if isinstance(item, Line):
        yield _Line(item)
    elif isinstance(item, Rounds):
        for turn in item.turns:
            # A line of a superset has its own number of sets.
            labelled = reading.labelled.get(turn.at)
            yield _Turn(turn) if labelled is None else _Line(labelled[1])


@dataclass(frozen=True, slots=True)
class _Line:
    """A line of one movement, with its steps."""

    line: Line

    def doses(self, knowing: Knowing) -> Iterator[tuple[int, str, Heard, Rewrite]]:
        """Each step by itself."""
        line, movements = self.line, knowing.movements
        if not line.at or len(line.moves) != 1:
            return
        text = line_text(line, movements)
        for place, step in enumerate(line.steps):
            if not plain(step.bout):
                continue

            def rewrite(other: Heard, place: int = place) -> str:
                steps = [*line.steps]
                steps[place] = Step(other.bout, other.sets)
                return line_text(Line(_moves(other), tuple(steps)), movements)

            yield line.at, text, _heard(line.moves, step.bout, step.sets, knowing), rewrite


@dataclass(frozen=True, slots=True)
class _Turn:
    """A line inside rounds, with its alternatives."""

    turn: Turn

    def doses(self, knowing: Knowing) -> Iterator[tuple[int, str, Heard, Rewrite]]:
        """Each alternative by itself."""
        turn, movements = self.turn, knowing.movements
        if not turn.at:
            return
        text = turn_text(turn, movements)
        for place, (moves, bout) in enumerate(turn.alternatives):
            if len(moves) != 1 or not plain(bout):
                continue

            def rewrite(other: Heard, place: int = place) -> str:
                alternatives = [*turn.alternatives]
                alternatives[place] = (_moves(other), other.bout)
                return turn_text(Turn(tuple(alternatives)), movements)

            yield turn.at, text, _heard(moves, bout, 1, knowing), rewrite


def _moves(heard: Heard) -> Moves:
    return ((heard.movement.name, 1.0),)


def _heard(moves: Moves, bout: Bout, sets: int, knowing: Knowing) -> Heard:
    return Heard(knowing.movements[moves[0][0]], bout, sets, knowing)
