"""A text line by line, each with what it says in fields: the form beside the text.

The text stays the one thing that is edited: a form changes one line and leaves the others as they
were typed, comments and lines that are not understood among them.
"""

from __future__ import annotations

import re
from collections import defaultdict
from dataclasses import dataclass
from typing import Literal

from dialback.core.movements import MovementTable
from dialback.core.notation.characters import lines_of, plain
from dialback.core.notation.days import begins_with_day
from dialback.core.notation.marks import INDENT
from dialback.core.notation.names import names_of
from dialback.core.notation.pieces import Pieces, joined, time_text
from dialback.core.notation.reader import PART_LINE, Reading, part_kind, read
from dialback.core.notation.session import Line, PartKind, Pause, Rounds, Turn
from dialback.core.notation.vocabulary import written
from dialback.core.notation.writer import (
    IN_TURN,
    ROUND_TIMES,
    head_text,
    line_pieces,
    line_text,
    part_head,
    rest_line,
    rounds_count,
    rounds_head,
    rounds_times,
    steps_text,
    turn_pieces,
    turn_text,
)

RowKind = Literal["sets", "turn", "rounds", "part", "rest", "other"]


@dataclass(frozen=True, slots=True)
class PartFields:
    """What opens a part."""

    kind: PartKind = "main"
    label: str = ""
    pre_exhaust: bool = False


@dataclass(frozen=True, slots=True)
class RoundsFields:
    """What opens rounds; every field as it is written, empty if not said."""

    form: Literal["rounds", "ladder", "bouts"] = "rounds"
    count: str = ""
    rungs: str = ""
    on: str = ""
    off: str = ""
    between: str = ""
    every: str = ""
    for_time: bool = False


@dataclass(frozen=True, slots=True)
class Row:
    """A line of a text in fields.

    ``sets``: a movement, its entries one after the other. ``turn``: a movement in rounds, its
    entries taking turns. ``rest``: the rest after a part. ``other``: a comment, an empty line, a
    day, or what could not be read; only its text tells. ``label`` is that of a line in a superset.
    """

    kind: RowKind
    text: str
    entries: tuple[Pieces, ...] = ()
    part: PartFields | None = None
    rounds: RoundsFields | None = None
    rest: str = ""
    label: str = ""


def rows(text: str, movements: MovementTable) -> tuple[Row, ...]:
    """One row for each line of the text, in order."""
    lines = lines_of(text)
    reading = read(text, movements)
    known = _by_line(reading)
    wrong = {mistake.line for mistake in reading.mistakes}
    shared = shared_lines(text, reading, movements)
    return tuple(
        Row("other", line)
        if number in wrong or number in shared
        else _row(line, next(iter(known[number]), None), movements, reading.labelled.get(number))
        for number, line in enumerate(lines, 1)
    )


def shared_lines(text: str, reading: Reading, movements: MovementTable) -> frozenset[int]:
    """Lines, from 1, on which more stands than one movement: they cannot be written anew as one."""
    known = _by_line(reading)
    return frozenset(
        number
        for number, line in enumerate(lines_of(text), 1)
        if len(known[number]) > 1 or _says_more(line, known[number], movements)
    )


def _says_more(
    line: str, items: list[Line | Rounds | Turn | Pause], movements: MovementTable
) -> bool:
    """Whether more stands on the line than a row has: a day, a part, a head that is one set."""
    stripped = plain(line).strip()
    if stripped.endswith(":") and any(isinstance(item, Line) for item in items):
        return True
    part = PART_LINE.fullmatch(stripped)
    return bool(part and part[4]) or begins_with_day(stripped, names_of(movements))


def readings(text: str, reading: Reading, movements: MovementTable) -> dict[int, str]:
    """How each line of a text was read, in the canonical way of writing, where that differs.

    Letter case, blanks and the shapes of dashes and crosses are no difference.
    """
    known = _by_line(reading)
    found = {}
    for number, line in enumerate(lines_of(text), 1):
        label, labelled = reading.labelled.get(number, ("", None))
        read_as = known[number] if labelled is None else [labelled]
        canonical = "; ".join(_canonical(item, movements) for item in read_as).replace(":; ", ": ")
        if canonical and _tidy(f"{label} {canonical}") != _tidy(line):
            found[number] = canonical
    return found


def _tidy(text: str) -> str:
    letters = plain(text).replace("×", "x").replace("*", "x").casefold()
    return re.sub(r"\s+", "", letters)


def _canonical(item: Line | Rounds | Turn | Pause, movements: MovementTable) -> str:
    match item:
        case Line():
            return line_text(item, movements)
        case Turn():
            return turn_text(item, movements)
        case Rounds():
            return head_text(item)
        case Pause():
            return rest_line(item.rest_s)


def _by_line(reading: Reading) -> defaultdict[int, list[Line | Rounds | Turn | Pause]]:
    """What each line of a text was read as; the lines of a superset are told as labelled."""
    known: defaultdict[int, list[Line | Rounds | Turn | Pause]] = defaultdict(list)
    for session in reading.sessions:
        for part in session.parts:
            for item in part.items:
                turns = item.turns if isinstance(item, Rounds) else ()
                labelled = any(turn.at in reading.labelled for turn in turns)
                for one in (*(() if labelled else (item,)), *turns):
                    # Words that stand on lines below it are theirs.
                    below = None if isinstance(one, Pause) else reading.below.get(one.at)
                    known[one.at].append(one if below is None else below.alone)
    return known


def _row(
    line: str,
    item: Line | Rounds | Turn | Pause | None,
    movements: MovementTable,
    labelled: tuple[str, Line] | None,
) -> Row:
    if labelled is not None:
        label, written = labelled
        return Row("sets", line, tuple(line_pieces(written, movements)), label=label)
    match item:
        case Line():
            return Row("sets", line, tuple(line_pieces(item, movements)))
        case Turn():
            return Row("turn", line, tuple(turn_pieces(item, movements)))
        case Rounds():
            return Row("rounds", line, rounds=_rounds(item))
        case Pause(rest_s):
            return Row("rest", line, rest=time_text(rest_s))
    return _other_row(line)


def _other_row(line: str) -> Row:
    stripped = plain(line).strip()
    part = PART_LINE.fullmatch(stripped)
    if part and not part[4]:
        fields = PartFields(part_kind(part[1]), part[2].strip(), bool(part[3]))
        return Row("part", line, part=fields)
    if rest := re.fullmatch(r"rest[ \t]{1,8}(.{1,40})", stripped, re.IGNORECASE):
        return Row("rest", line, rest=rest[1].strip())
    return Row("other", line)


def _rounds(rounds: Rounds) -> RoundsFields:
    rungs = ", ".join(map(str, rounds.rungs))
    every, on, off, between = (rounds_times(rounds)[word] for word in ROUND_TIMES)
    return RoundsFields(
        rounds.form, rounds_count(rounds), rungs, on, off, between, every, rounds.for_time
    )


def row_text(row: Row) -> str:
    """The line of a row, made from its fields; nothing but ``other`` keeps its text."""
    match row.kind:
        case "sets":
            return _one_line(f"{row.label} {steps_text(row.entries)}")
        case "turn":
            return INDENT + _one_line(joined(row.entries, IN_TURN))
        case "part":
            part = row.part or PartFields()
            return _one_line(part_head(part.kind, part.label, pre_exhaust=part.pre_exhaust))
        case "rounds":
            head = row.rounds or RoundsFields()
            said = (head.every, head.on, head.off, head.between)
            times = dict(zip(ROUND_TIMES, said, strict=True))
            return _one_line(
                rounds_head(head.form, head.count, head.rungs, times, for_time=head.for_time)
            )
        case "rest":
            return _one_line(f"{written('REST')} {row.rest}")
        case "other":
            return _flat(row.text)


def _flat(text: str) -> str:
    return re.sub(r"[\r\n]+", " ", text)


def _one_line(text: str) -> str:
    return _flat(text).strip()
