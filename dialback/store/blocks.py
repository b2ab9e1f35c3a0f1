"""Blocks of weeks, and templates to fill them with."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta
from typing import Final

from dialback.book.errors import bad_input
from dialback.core.movements import MovementTable
from dialback.core.notation import write
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.store.models import Athlete, Block, Template, block_rows
from dialback.store.plans import Sheet, sheet_from, sheet_of
from dialback.store.sessions import planned_rows

LENGTHS: Final = range(3, 9)
"""How many weeks a block has."""


def blocks_of(athlete: Athlete) -> list[Block]:
    """The athlete's blocks, the earliest first."""
    return block_rows(athlete)


def weeks_of(block: Block) -> list[Week]:
    """The weeks of a block."""
    first = Week.parse(block.first_week)
    return [first.plus(at) for at in range(block.weeks)]


def block_at(athlete: Athlete, week: Week) -> Block | None:
    """The block that a week lies in."""
    return next((one for one in blocks_of(athlete) if week in weeks_of(one)), None)


def place_block(
    athlete: Athlete, title: str, first: Week, weeks: int, block: Block | None = None
) -> Block:
    """Make a block, or give one other weeks. Refuses weeks that another block has."""
    wanted = {first.plus(at) for at in range(weeks)}
    for other in blocks_of(athlete):
        if (block is None or other.id != block.id) and wanted & set(weeks_of(other)):
            name = other.title or "another block"
            raise bad_input(
                "week", f"{name} has some of these weeks (from {other.first_week} on, "
                f"{other.weeks} weeks): begin after it, or make it shorter"
            )  # fmt: skip
    row = block or Block(athlete=athlete)
    row.title, row.first_week, row.weeks = title, str(first), weeks
    row.save()
    return row


def templates() -> list[Template]:
    """The templates of the house, by name."""
    return list(Template.select().where(Template.deleted_on.is_null()).order_by(Template.name))


def save_template(name: str, athlete: Athlete, ledger: Ledger, weeks: Sequence[Week]) -> Template:
    """Keep the planned sessions of weeks as a template. Raises ``BadInputError`` if none are."""
    monday = weeks[0].monday
    sheets = [sheet_of(ledger, row) for week in weeks for row in planned_rows(athlete, week)]
    if not sheets:
        raise bad_input("weeks", "nothing is planned in these weeks: a template needs a session")
    return Template.create(
        name=name,
        weeks=len(weeks),
        sessions=[
            {
                "day": (one.day - monday).days,
                "title": one.title,
                "text": write(one.written, movements=ledger.movements)
                if one.typed is None
                else one.typed,
            }
            for one in sheets
        ],
    )


def sheets_of(
    template: Template, monday: date, weeks: int, movements: MovementTable
) -> list[Sheet]:
    """The template's sessions from a Monday on, of the first weeks."""
    return [
        sheet_from(one["text"], monday + timedelta(days=one["day"]), one["title"], movements)
        for one in template.sessions
        if one["day"] < 7 * weeks
    ]
