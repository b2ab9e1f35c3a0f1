"""Weeks as columns, as several places show them."""

from __future__ import annotations

from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.web.shapes.common import WeekColumn

COLUMNS = 8
"""Weeks that a row shows."""


def last_week_done(ledger: Ledger, latest: Week) -> Week | None:
    """The last week with training up to the latest; ``None`` if there is none."""
    return max((week for week in ledger.source.weeks("completed") if week <= latest), default=None)


def week_column(ledger: Ledger, week: Week, figure: str) -> WeekColumn:
    """A figure of a week, planned and done."""
    return WeekColumn(
        week=str(week),
        planned=ledger.tally("planned", week).get(figure, 0.0),
        done=ledger.tally("completed", week).get(figure, 0.0),
    )
