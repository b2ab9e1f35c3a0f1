"""The lines of a text looked at one by one: those that make little sense are asked about."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from dialback.core.movements import MovementTable
from dialback.core.notation.lines import BULLET, LABEL
from dialback.core.notation.reader import Reading
from dialback.core.notation.session import Bout, Line, Moves, Rounds, Step, Turn
from dialback.core.notation.writer import line_text, turn_text
from dialback.core.sense.checks import CHECKS, is_sensible, plain
from dialback.core.sense.doubt import Doubt
from dialback.core.sense.heard import Heard, Knowing

MOST_OTHERS = 3
"""So many other readings are offered."""

Rewrite = Callable[[Heard], str]
"""The text of a line with one of its doses read otherwise."""


def doubts(text: str, reading: Reading, knowing: Knowing) -> tuple[Doubt, ...]:
    """What is doubtful of a text that was read, one doubt a line at most, in order of line.

    Lines with mistakes are not among them: those are asked about already.
    """
    rows = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    found: dict[int, Doubt] = {}
    for at, written, heard, rewrite in _doses(reading, knowing):
        if at not in found and (doubt := _doubt(rows[at - 1], at, written, heard, rewrite)):
            found[at] = doubt
    return tuple(found[at] for at in sorted(found))


def _doubt(row: str, at: int, taken: str, heard: Heard, rewrite: Rewrite) -> Doubt | None:
    for check in CHECKS:
        for reason in check(heard):
            likely = [other for other in reason.others if is_sensible(other)]
            texts = dict.fromkeys(rewrite(other) for other in likely)
            texts.pop(taken, None)
            begin = _begin(row)
            return Doubt(
                at,
                begin + 1,
                max(1, len(row.rstrip()) - begin),
                reason.why,
                taken,
                tuple(texts)[:MOST_OTHERS],
            )
    return None


def _begin(row: str) -> int:
    """Where the movement begins: behind the indent, a bullet, a label."""
    begin = len(row) - len(row.lstrip())
    for before in (BULLET, LABEL):
        if match := before.match(row, begin):
            begin = match.end()
    return begin


def _doses(reading: Reading, knowing: Knowing) -> Iterator[tuple[int, str, Heard, Rewrite]]:
    """Every dose of a single movement: its line, its text, and how the text is with another."""
    movements = knowing.movements
    for session in reading.sessions:
        for item in (item for part in session.parts for item in part.items):
            if isinstance(item, Line):
                yield from _of_line(item, knowing, movements)
            elif isinstance(item, Rounds):
                for turn in item.turns:
                    if turn.at in reading.labelled:
                        # A line of a superset has its own number of sets.
                        yield from _of_line(reading.labelled[turn.at][1], knowing, movements)
                    else:
                        yield from _of_turn(turn, knowing, movements)


def _of_line(
    line: Line, knowing: Knowing, movements: MovementTable
) -> Iterator[tuple[int, str, Heard, Rewrite]]:
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


def _of_turn(
    turn: Turn, knowing: Knowing, movements: MovementTable
) -> Iterator[tuple[int, str, Heard, Rewrite]]:
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
