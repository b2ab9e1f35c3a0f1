"""Blocks of weeks, and templates to fill them with."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any, Final

from dialback.book.errors import bad_input
from dialback.core.movements import MovementTable
from dialback.core.plans.kept import Kept
from dialback.core.plans.sheet import Sheet, sheet_from, sheet_of, sheet_text
from dialback.core.weeks import Week
from dialback.store.fields import legible
from dialback.store.journal import change
from dialback.store.models import Athlete, Block, Template, block_rows

LENGTHS: Final = range(3, 9)
"""How many weeks a block has."""


@dataclass(frozen=True, slots=True)
class PlannedBlock:
    """A block of an athlete's, by number: its title, its first week, how many weeks it has."""

    number: int
    title: str
    first: Week
    length: int

    @property
    def weeks(self) -> list[Week]:
        """Its weeks, in order."""
        return [self.first.plus(at) for at in range(self.length)]


def blocks_of(athlete: Athlete) -> list[PlannedBlock]:
    """The athlete's blocks, the earliest first."""
    return list(legible(block_rows(athlete), _block))


def _block(row: Block) -> PlannedBlock:
    return PlannedBlock(row.id, row.title, Week.parse(row.first_week), row.weeks)


def block_at(athlete: Athlete, week: Week) -> PlannedBlock | None:
    """The block that a week lies in."""
    return next((block for block in blocks_of(athlete) if week in block.weeks), None)


def place_block(
    athlete: Athlete, title: str, first: Week, weeks: int, number: int | None = None
) -> PlannedBlock:
    """Make a block, or give the one of that number other weeks.

    Refuses weeks that another block has.
    """
    wanted = {first.plus(at) for at in range(weeks)}
    for other in blocks_of(athlete):
        if other.number != number and wanted & set(other.weeks):
            name = other.title or "another block"
            raise bad_input(
                "week",
                f"{name} has some of these weeks (from {other.first} on, "
                f"{other.length} weeks): begin after it, or make it shorter",
            )
    row = Block(athlete=athlete) if number is None else Block.get_by_id(number)
    row.title, row.first_week, row.weeks = title, str(first), weeks
    row.save()
    return _block(row)


def put_block_away(number: int, today: date) -> dict[str, Any]:
    """Take a block away; its sessions stay. What takes that back."""
    return change(Block.get_by_id(number), deleted_on=today)


@dataclass(frozen=True, slots=True)
class KeptTemplate:
    """A template of the house: how many weeks it has, and its sessions as texts by day from 0."""

    number: int
    name: str
    weeks: int
    sessions: tuple[dict[str, Any], ...]


def templates() -> list[KeptTemplate]:
    """The templates of the house, by name."""
    rows = Template.select().where(Template.deleted_on.is_null()).order_by(Template.name)
    return [_template(row) for row in rows]


def template_of(number: int, *, removed: bool = False) -> KeptTemplate | None:
    """The template of that number; one that was taken away, if that is asked for."""
    row = Template.get_or_none(Template.id == number, Template.deleted_on.is_null(not removed))
    return None if row is None else _template(row)


def _template(row: Template) -> KeptTemplate:
    return KeptTemplate(row.id, row.name, row.weeks, tuple(row.sessions))


def put_template_away(number: int, on: date | None) -> dict[str, Any]:
    """Take a template away on a day, or, without one, bring it back. What takes that back."""
    return change(Template.get_by_id(number), deleted_on=on)


def save_template(
    name: str, plans: Sequence[Kept], movements: MovementTable, first: Week, weeks: int
) -> KeptTemplate:
    """Keep planned sessions as a template. Raises ``BadInputError`` if there are none."""
    monday = first.monday
    sheets = [sheet_of(plan, movements) for plan in plans]
    if not sheets:
        raise bad_input("weeks", "nothing is planned in these weeks: a template needs a session")
    return _template(
        Template.create(
            name=name,
            weeks=weeks,
            sessions=[
                {
                    "day": (sheet.day - monday).days,
                    "title": sheet.title,
                    "text": sheet_text(sheet, movements),
                }
                for sheet in sheets
            ],
        )
    )


def sheets_of(
    template: KeptTemplate, monday: date, weeks: int, movements: MovementTable
) -> list[Sheet]:
    """The template's sessions from a Monday on, of the first weeks."""
    return [
        sheet_from(
            written["text"], monday + timedelta(days=written["day"]), written["title"], movements
        )
        for written in template.sessions
        if written["day"] < 7 * weeks
    ]
