"""Shapes of the place `journal`."""

from __future__ import annotations

from pydantic import Field

from dialback.web.shapes.common import Number, Shape


class EntryPath(Shape):
    """An entry of the journal."""

    entry: Number


class WholeQuery(Shape):
    """Whether all of the change that an entry is part of is meant: a template for six."""

    whole: bool = False


class JournalQuery(Shape):
    """Which entries: of an athlete, by somebody, with some words; before the entry of a number.

    ``undoable`` are those of thirty days that can be taken back, or were.
    """

    athlete: Number | None = None
    who: str | None = Field(None, max_length=200)
    words: str = Field("", max_length=200)
    undoable: bool = False
    before: Number | None = None


class JournalLine(Shape):
    """A change: who, where, when (UTC, from ``at`` to ``until``, so many times), what.

    ``together`` entries are of one change, and can be taken back or made again at once; they have
    the same ``change``, which is empty where an entry stands alone.
    """

    id: int
    athlete: int | None
    name: str
    at: str
    until: str
    times: int
    who: str
    place: str
    says: str
    can_undo: bool
    undone: bool
    together: int
    change: str


class Journal(Shape):
    """Entries, the latest first; ``more`` if there are older ones; who is in it at all."""

    entries: list[JournalLine]
    more: bool
    people: list[str]


class Swapped(Shape):
    """A change was taken back or made again; what of it stays, and why, a sentence each."""

    stays: list[str]
