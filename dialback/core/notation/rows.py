"""A text line by line, each with what it says in fields: the form beside the text.

The text stays the one thing that is edited: a form changes one line and leaves the others as they
were typed, comments and lines that are not understood among them.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Final, Literal

from dialback.core.movements import MovementTable
from dialback.core.notation.pieces import Pieces, pieces, pieces_text, time_text
from dialback.core.notation.reader import PART_LINE, REST_LINE, part_kind, read
from dialback.core.notation.session import Line, PartKind, Rounds, Step, Turn
from dialback.core.notation.writer import part_head, rounds_head

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


@dataclass(frozen=True, slots=True)
class Row:
    """A line of a text in fields.

    ``sets``: a movement, its entries one after the other. ``turn``: a movement in rounds, its
    entries taking turns. ``rest``: the rest after a part. ``other``: a comment, an empty line, a
    day, or what could not be read; only its text tells.
    """

    kind: RowKind
    text: str
    entries: tuple[Pieces, ...] = ()
    part: PartFields | None = None
    rounds: RoundsFields | None = None
    rest: str = ""


_INDENT: Final = "  "


def rows(text: str, movements: MovementTable) -> tuple[Row, ...]:
    """One row for each line of the text, in order."""
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    reading = read(text, movements)
    known: dict[int, Line | Rounds | Turn] = {}
    for session in reading.sessions:
        for part in session.parts:
            for item in part.items:
                known[item.at] = item
                if isinstance(item, Rounds):
                    known |= {turn.at: turn for turn in item.turns}
    wrong = {mistake.line for mistake in reading.mistakes}
    return tuple(
        Row("other", line) if number in wrong else _row(line, known.get(number))
        for number, line in enumerate(lines, 1)
    )


def _row(line: str, item: Line | Rounds | Turn | None) -> Row:
    match item:
        case Line(moves, steps):
            first, *others = (pieces(moves, step) for step in steps)
            return Row("sets", line, (first, *(replace(one, moves="") for one in others)))
        case Turn(alternatives):
            return Row(
                "turn", line, tuple(pieces(moves, Step(bout)) for moves, bout in alternatives)
            )
        case Rounds():
            return Row("rounds", line, rounds=_rounds(item))
    stripped = line.strip()
    if part := PART_LINE.fullmatch(stripped):
        return Row(
            "part", line, part=PartFields(part_kind(part[1]), part[2].strip(), bool(part[3]))
        )
    if rest := REST_LINE.fullmatch(stripped):
        return Row("rest", line, rest=rest[1].strip())
    return Row("other", line)


def _rounds(one: Rounds) -> RoundsFields:
    def time(seconds: float | None) -> str:
        return "" if seconds is None else time_text(seconds)

    return RoundsFields(
        one.form,
        str(one.count),
        ", ".join(map(str, one.rungs)),
        time(one.on_s),
        time(one.off_s),
        time(one.between_s),
    )


def row_text(row: Row) -> str:
    """The line of a row, made from its fields; nothing but ``other`` keeps its text."""
    match row.kind:
        case "sets":
            return _one_line(", then ".join(pieces_text(one) for one in row.entries))
        case "turn":
            return _INDENT + _one_line(" / ".join(pieces_text(one) for one in row.entries))
        case "part":
            part = row.part or PartFields()
            return _one_line(part_head(part.kind, part.label, pre_exhaust=part.pre_exhaust))
        case "rounds":
            head = row.rounds or RoundsFields()
            times = {"on": head.on, "off": head.off, "between rounds": head.between}
            return _one_line(rounds_head(head.form, head.count, head.rungs, times))
        case "rest":
            return _one_line(f"rest {row.rest}")
        case "other":
            return _flat(row.text)


def _flat(text: str) -> str:
    return re.sub(r"[\r\n]+", " ", text)


def _one_line(text: str) -> str:
    return _flat(text).strip()
