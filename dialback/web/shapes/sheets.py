"""Shapes of the place `sheets`."""

from __future__ import annotations

from pydantic import Field

from dialback.book.logsheet.columns import SheetChoice
from dialback.web.shapes.common import Number, Shape


class SheetQuery(Shape):
    """What the file is called."""

    name: str = Field("file", max_length=200)


class SheetColumn(Shape):
    """Something that a column can mean."""

    name: str
    title: str


class SheetOut(Shape):
    """A spreadsheet that was read: its heads, some rows, and what its columns probably mean.

    ``why`` says what speaks for a guess, by the field of the choice; empty where it is remembered.
    ``notes`` say what was left out or read in another way.
    """

    name: str
    kind: str
    rows: int
    heads: list[str]
    sample: list[list[str]]
    choice: SheetChoice
    remembered: bool
    why: dict[str, str]
    notes: list[str]
    columns: list[SheetColumn]


class SheetAthlete(Shape):
    """Somebody in the file, and whether the roster has that name."""

    name: str
    sessions: int
    known: bool


class SheetRowProblem(Shape):
    """What is wrong in a row of the file."""

    row: int
    column: str
    message: str


class SheetProblemKind(Shape):
    """Rows with the same problem: how many, the first of them, and the key they are left out by."""

    kind: str
    rows: int
    first: SheetRowProblem


class SheetUnknown(Shape):
    """A movement that nobody knows by that name, and what is near."""

    name: str
    count: int
    near: list[str]


class SheetSessionOut(Shape):
    """A session as it would be stored."""

    athlete: str
    date: str
    title: str
    sets: list[str]


class SheetDoubtOut(Shape):
    """Rows that make little sense in the same way, with what they can be; ``key`` names them."""

    key: str
    why: str
    rows: int
    sets: int
    at: str
    example: str
    movements: str
    answers: list[str]


class SheetPreview(Shape):
    """What a sheet comes to; ``there`` sessions are in the book already."""

    sessions: int
    sets: int
    there: int
    athletes: list[SheetAthlete]
    problems: list[SheetProblemKind]
    problem_count: int
    left: int = Field(description="Rows that are left out because somebody said so")
    notes: list[str]
    asks_dumbbells: bool
    doubts: list[SheetDoubtOut]
    unknown: list[SheetUnknown]
    shown: list[SheetSessionOut]


class SheetStored(Shape):
    """What was stored."""

    import_id: int
    sessions: int
    sets: int
    there: int


class JobOut(Shape):
    """How far a piece of work is; what came of it stands in one of the last three."""

    token: str
    stage: str
    done: int
    of: int | None
    finished: bool
    problem: str | None
    sheet: SheetOut | None
    preview: SheetPreview | None
    stored: SheetStored | None


class ImportPath(Shape):
    """An import by number."""

    number: Number


class ImportRow(Shape):
    """A file that came in."""

    id: int
    name: str
    day: str
    sessions: int


class ImportsOut(Shape):
    """The last files that came in."""

    imports: list[ImportRow]


class Undone(Shape):
    """So many sessions were taken out again."""

    sessions: int
